"""No page cuts its text, lays labels over one another, has targets too small for a thumb, or hides its drawing under the strip;
and everything a reader sees goes through gettext: under a test language no sentence is left as it stands in the code.

Here some sizes; `STATOR_LOOK=all`, which `bin/look` sets, takes every page at every size.
"""

from __future__ import annotations

import os

from django.conf import settings
from django.test import Client
from django.utils import timezone, translation

from shop.models import Person
from stations.demo.shed import Shed
from tests.browser.base import BrowserCase
from tests.languages import pages, unaccented
from tests.layout import SIZES, faults
from tests.pseudo import CODE, everything_accented

LOOK = os.environ.get("STATOR_LOOK", "")  # "all", or parts of addresses with commas between them
ALL = bool(LOOK)
SAMPLED = {"en": (SIZES[0],), CODE: (SIZES[2],)}  # the desk in English, the phone in the longest words


def some(found: list[str]) -> list[str]:
    """One page of a kind."""
    kinds: dict[str, str] = {}
    for page in found:
        parts = page.split("?")[0].strip("/").split("/")
        kind = "/".join(part for part in parts if not part.isdigit()) + ("?" + page.split("?")[1] if "?" in page else "")
        kinds[kind] = page
    return list(kinds.values())


class EveryPage(BrowserCase):
    """Of the demo, laid out once: its pages are only looked at."""

    cost = 150

    @classmethod
    def setUpClass(cls):
        super().setUpClass()
        cls.addClassCleanup(BrowserCase._fixture_teardown, cls("test_lies_well"))
        with everything_accented(), translation.override(CODE):
            Shed("gannet-and-gull-7").fill(timezone.now())

    def _fixture_teardown(self):
        """What one test has looked at, the next one does too."""

    def seen_by(self, language, units):
        Person.objects.update(language=language, units=units)
        client = Client()
        client.force_login(Person.objects.get(username="skipper"))
        session = client.cookies[settings.SESSION_COOKIE_NAME].value
        self.ctx.add_cookies([{"name": settings.SESSION_COOKIE_NAME, "value": session, "url": self.live_server_url}])

    def test_is_in_the_language_of_its_reader(self):
        Person.objects.update(language=CODE)
        client = Client()
        client.force_login(Person.objects.get(username="skipper"))
        left = unaccented(client)
        self.assertEqual(left, {}, "\n".join(f"{page}: {text}" for text, page in left.items()))

    def test_lies_well(self):
        found = {}
        addresses = pages() if ALL else some(pages())
        if ALL and LOOK != "all":
            addresses = [address for address in addresses if any(part in address for part in LOOK.split(","))]
        for language, units in (("en", "metric"), (CODE, "inch")):
            self.seen_by("" if language == "en" else language, units)
            with everything_accented():
                for width, height in SIZES if ALL else SAMPLED[language]:
                    self.page.set_viewport_size({"width": width, "height": height})
                    paper = "narrow" if width < 800 else "wide"
                    self.ctx.add_cookies([{"name": "paper", "value": paper, "url": self.live_server_url}])
                    for address in addresses:
                        for fault in faults(self.page, f"{self.live_server_url}{address}"):
                            found.setdefault(fault, f"{language} {width} {address}")
        self.assertEqual(found, {}, "\n" + "\n".join(f"{where}: {fault}" for fault, where in found.items()))
