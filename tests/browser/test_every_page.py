"""The layout of every page of the demo: no cut text, overlapping labels, small targets or drawings under the strip.

Here some sizes; `STATOR_LOOK=all`, which `bin/look` sets, takes every page at every size.
"""

from __future__ import annotations

import os
import sqlite3
from contextlib import closing

from django.conf import settings
from django.db import connection
from django.test import Client, override_settings
from django.utils import timezone

from stator.jobs.models import Job
from stator.shop.models import Person
from tests.browser.base import BrowserCase
from tests.factories import Hands
from tests.folders import demo_folder
from tests.languages import kinds_of, pages
from tests.layout import SIZES, faults
from tests.pseudo import CODE, everything_accented

LOOK = os.environ.get("STATOR_LOOK", "")  # "all", or parts of addresses with commas between them
ALL = bool(LOOK)
SAMPLED = {"en": (SIZES[0],), CODE: (SIZES[2],)}  # the desk in English, the phone in the longest words


class EveryPage(BrowserCase):
    """The pages of the demo, which are only looked at."""

    cost = 150

    @classmethod
    def setUpClass(cls):
        super().setUpClass()
        cls.addClassCleanup(BrowserCase._fixture_teardown, cls("test_lies_well"))
        cls.enterClassContext(override_settings(MEDIA_ROOT=demo_folder() / "photos"))
        with closing(sqlite3.connect(demo_folder() / "stator.sqlite3")) as demo:
            connection.ensure_connection()
            demo.backup(connection.connection)

    def setUp(self):
        super().setUp()
        self.seen_by("", "")

    def _fixture_teardown(self):
        """Leave the database as it is for the next test."""

    def seen_by(self, language, units):
        Person.objects.update(language=language, units=units)
        client = Client()
        client.force_login(Person.objects.get(username="skipper"))
        session = client.cookies[settings.SESSION_COOKIE_NAME].value
        self.ctx.add_cookies([{"name": settings.SESSION_COOKIE_NAME, "value": session, "url": self.live_server_url}])

    def test_lies_well(self):
        found = {}
        addresses = pages() if ALL else kinds_of(pages())
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

    def test_shows_sixteen_engines_and_a_heat_in_progress_that_an_earlier_one_has_taught(self):
        self.assertEqual(Job.objects.filter(gone_at=None).count(), 16)
        started = Job.objects.get(number=412)
        self.assertGreater(started.timers.get(key="heat").due_at, timezone.now())
        self.assertAlmostEqual(Hands(started).work().analysis.past[0].tau_ratio, 1.13, delta=0.03)
