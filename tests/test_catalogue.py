"""Test that a language is added without code: an empty catalog is created, filled, compiled, and used on the page."""

from __future__ import annotations

import os
import re
import tempfile
from pathlib import Path

from django.conf import settings
from django.core.management import call_command
from django.test import TestCase, override_settings

from stator.server.languages import catalogues
from tests.factories import person

APPS = ("engines", "exchange", "instruments", "jobs", "quick", "shop", "shopmath", "stations", "stator", "ui")
FILLED = {"Next three hours": "La sekvaj tri horoj", "{count} min": "{count} minutoj", "ductile cast iron": "nodula fero"}


class Catalogue(TestCase):
    def test_one_that_was_filled_is_offered_and_read(self):
        before = Path.cwd()
        with tempfile.TemporaryDirectory() as folder:
            self.addCleanup(os.chdir, before)
            for app in APPS:
                (Path(folder) / app).symlink_to(settings.BASE_DIR / app)
            os.chdir(folder)
            there = Path(folder) / "locale"
            file = there / "eo" / "LC_MESSAGES" / "django.po"
            file.parent.mkdir(parents=True)
            with override_settings(LOCALE_PATHS=[there]):
                call_command("makemessages", locale=["eo"], symlinks=True, verbosity=0)
            text = file.read_text()
            for sentence, other in FILLED.items():
                text, count = re.subn(rf'(msgid "{re.escape(sentence)}"\nmsgstr )""', rf'\1"{other}"', text)
                self.assertEqual(count, 1, sentence)
            file.write_text(text)
            with override_settings(LOCALE_PATHS=[there]):
                call_command("compilemessages", locale=["eo"], verbosity=0)
                self.read_in(there)

    def read_in(self, there):
        found = catalogues(there)
        self.assertEqual(found, [("eo", "Esperanto")])
        with override_settings(LANGUAGES=[("en-gb", "English"), *found]):
            self.client.force_login(person())
            self.assertContains(self.client.get("/", headers={"accept-language": "eo"}), FILLED["Next three hours"])
            self.assertContains(self.client.get("/shop/me/"), "Esperanto")
            self.assertContains(self.client.get("/", headers={"accept-language": "en"}), "Next three hours")
