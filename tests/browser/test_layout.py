"""No page cuts its text, lays labels over one another, has targets too small for a thumb, or hides its drawing under the strip.

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
from tests.layout import SIZES, faults
from tests.pseudo import CODE, everything_accented
from tests.test_languages import pages

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


class Layout(BrowserCase):
    cost = 100

    def setUp(self):
        with everything_accented(), translation.override(CODE):
            Shed("gannet-and-gull-7").fill(timezone.now())
        super().setUp()

    def seen_by(self, language, units):
        Person.objects.update(language=language, units=units)
        client = Client()
        client.force_login(Person.objects.get(username="skipper"))
        session = client.cookies[settings.SESSION_COOKIE_NAME].value
        self.ctx.add_cookies([{"name": settings.SESSION_COOKIE_NAME, "value": session, "url": self.live_server_url}])

    def test_every_page_lies_well(self):
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
