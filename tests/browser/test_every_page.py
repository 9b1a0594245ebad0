"""Every page of the demo: none cuts its text, lays labels over one another, has targets too small for a thumb, or hides its drawing
under the strip; under a test language no sentence is left as it stands in the code; each asks the database little.

Here some sizes; `STATOR_LOOK=all`, which `bin/look` sets, takes every page at every size.
"""

from __future__ import annotations

import os
import re

from django.conf import settings
from django.db import connection
from django.test import Client
from django.test.utils import CaptureQueriesContext
from django.utils import timezone, translation

from stator.demo.demo_shop import DemoShop
from stator.jobs.models import Job
from stator.shop.models import Person
from tests.browser.base import BrowserCase
from tests.factories import Hands, person
from tests.languages import pages, unaccented
from tests.layout import SIZES, faults
from tests.pseudo import CODE, everything_accented

LOOK = os.environ.get("STATOR_LOOK", "")  # "all", or parts of addresses with commas between them
ALL = bool(LOOK)
SPENT = re.compile(r'name="(?:csrfmiddlewaretoken|client_key)" value="[^"]*"|data-part="\w+"|"X-CSRFToken": "[^"]*"')  # anew for each page
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
    """Of a shop laid out once, in the longest words: its pages are only looked at."""

    cost = 150

    @classmethod
    def setUpClass(cls):
        super().setUpClass()
        cls.addClassCleanup(BrowserCase._fixture_teardown, cls("test_lies_well"))
        with everything_accented(), translation.override(CODE):
            cls.now = timezone.now()
            DemoShop("gannet-and-gull-7").fill(cls.now)

    def setUp(self):
        super().setUp()
        self.seen_by("", "")

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

    def test_answers_in_few_questions(self):
        self.client.force_login(person("skipper"))
        pages = ["/", "/shop/", "/shop/tools/", "/book-in/", "/cards/", "/find/?q=corrie+6204", "/photos/1/"]
        pages += [f"/jobs/0423/{page}/" for page in ("log", "card", "run", "sheet", "pictures", "tray", "tray/labels")]
        pages += [f"/jobs/{made.tag}/{stage.key}/" for made in Job.objects.all() for stage in made.run.all()]
        for page in pages:
            with self.subTest(page), CaptureQueriesContext(connection) as asked:
                answer = self.client.get(page)
                self.assertIn(answer.status_code, (200, 302))
                self.assertLessEqual(len(asked), 15, [query["sql"][:30] for query in asked])

    def test_shows_sixteen_engines_and_a_heat_in_progress_that_an_earlier_one_has_taught(self):
        self.assertEqual(Job.objects.filter(gone_at=None).count(), 16)
        started = Job.objects.get(number=412)
        self.assertGreater(started.timers.get(key="heat").due_at, self.now)
        self.assertAlmostEqual(Hands(started).work().found.past[0].tau_ratio, 1.13, delta=0.03)
