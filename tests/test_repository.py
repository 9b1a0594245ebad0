"""The house itself: secret, settings, first account, what may not be in the tree."""

from __future__ import annotations

import os
import re
import stat
import subprocess
import sys
import tempfile
from io import StringIO
from pathlib import Path
from unittest import mock

from django.core.management import call_command
from django.test import SimpleTestCase, TestCase

from stator.server.secret import secret_key
from stator.shop.management.commands.first_account import zone_here
from stator.shop.models import Heater, Person, Shop

ROOT = Path(__file__).resolve().parent.parent


class Secrets(SimpleTestCase):
    def test_the_secret_is_made_once_and_read_by_its_owner_alone(self):
        with tempfile.TemporaryDirectory() as folder:
            path = Path(folder) / "secret"
            first = secret_key(path)
            self.assertGreater(len(first), 60)
            self.assertEqual(secret_key(path), first)
            self.assertEqual(stat.S_IMODE(path.stat().st_mode), 0o600)


class Production(SimpleTestCase):
    def settings(self, expression, **env):
        with tempfile.TemporaryDirectory() as folder:
            keep = {name: value for name, value in os.environ.items() if not name.startswith(("STATOR_", "DJANGO_"))}
            script = f"import stator.settings as s; print({expression})"
            ran = subprocess.run(
                [sys.executable, "-c", script],
                cwd=ROOT,
                env={**keep, "STATOR_DATA": folder, **env},
                capture_output=True,
                text=True,
                check=True,
            )
            return ran.stdout.strip()

    def test_it_is_strict_unless_told_otherwise(self):
        self.assertEqual(self.settings("s.SESSION_COOKIE_SECURE, s.SECURE_SSL_REDIRECT, s.DEBUG"), "True True False")
        self.assertEqual(self.settings("s.SESSION_COOKIE_SECURE, s.SECURE_HSTS_SECONDS", STATOR_PLAIN_HTTP="1"), "False 0")

    def test_hosts_come_from_the_environment(self):
        self.assertEqual(self.settings("s.ALLOWED_HOSTS", STATOR_HOSTS="bench.example, 10.0.0.5"), "['bench.example', '10.0.0.5']")

    def test_nothing_inline_or_evaluated_is_allowed(self):
        policy = self.settings("s.CONTENT_SECURITY_POLICY")
        self.assertNotIn("unsafe", policy)
        self.assertNotIn("http", policy)


class FirstAccount(TestCase):
    def start(self, names, passwords):
        out = StringIO()
        with mock.patch("builtins.input", side_effect=names), mock.patch("getpass.getpass", side_effect=passwords):
            call_command("first_account", stdout=out)
        return out.getvalue()

    def test_the_owner_is_made_at_the_prompt_and_the_shelves_are_stocked(self):
        said = self.start(
            ["", "una", "Lilliput", "Europe/Oslo", "x", "i", ""],
            ["short", "gannet-and-gull-7", "gannet-and-gul", "gannet-and-gull-7", "gannet-and-gull-7"],
        )
        self.assertIn("too short", said)
        self.assertIn("not the same", said)
        self.assertTrue(Person.objects.get().is_owner)
        self.assertTrue(Heater.objects.filter(method="oven").exists())
        shop = Shop.current()
        self.assertEqual((shop.time_zone, shop.units, shop.first_weekday), ("Europe/Oslo", "inch", 1))

    def test_what_is_no_answer_is_asked_again(self):
        self.start(["una", "Atlantis/Here", "", "furlongs", "", "Someday", "Sunday"], ["gannet-and-gull-7", "gannet-and-gull-7"])
        shop = Shop.current()
        self.assertEqual((shop.units, shop.first_weekday, shop.time_zone), ("metric", 0, zone_here()))

    def test_it_asks_nobody_when_there_is_someone(self):
        Person.objects.create_user("una")
        self.assertEqual(self.start([], []), "")


class TheTree(SimpleTestCase):
    def files(self):
        listed = subprocess.run(["git", "ls-files", "-co", "--exclude-standard"], cwd=ROOT, capture_output=True, text=True, check=True)
        return [ROOT / name for name in listed.stdout.split("\n") if name and (ROOT / name).is_file()]

    def test_no_registry_is_named_in_a_lock_file(self):
        for path in self.files():
            if path.name in ("package-lock.json", ".npmrc") or path.name.startswith("requirements"):
                text = path.read_text()
                for word in ("registry.", "pypi.", "--index", "--find-links", '"resolved"'):
                    self.assertNotIn(word, text, path.name)

    def test_no_template_carries_inline_style_or_script(self):
        for path in self.files():
            if path.suffix == ".html":
                text = path.read_text()
                for word in (" style=", "<style", "onclick=", "hx-on", "<script>"):
                    self.assertNotIn(word, text, path.name)

    def test_no_import_is_made_for_types_alone(self):
        """It would hide an import in the wrong direction.

        Exceptions: a slow library, BoundStation and what it uses.
        """
        allowed = {"shopmath/conversion.py", "tests/test_repository.py"}
        allowed |= {f"stator/stations/framework/{name}.py" for name in ("definition", "record_snapshot", "report_values", "alternatives")}
        found = {str(path.relative_to(ROOT)) for path in self.files() if path.suffix == ".py" and "TYPE_CHECKING" in path.read_text()}
        self.assertLessEqual(found, allowed)

    def test_every_station_is_among_those_that_import_none_of_the_others(self):
        contract = (ROOT / "pyproject.toml").read_text()
        rooms = {path.parent.name for path in (ROOT / "stator" / "stations").glob("*/station.py")} - {"work_notes"}
        self.assertEqual([room for room in rooms if f'"stator.stations.{room}",' not in contract], [])

    def test_every_file_that_the_guide_names_exists(self):
        for guide in ("CONTRIBUTING.md", "docs/architecture.md"):
            named = set(re.findall(r"`((?:stator|shopmath|tests|docs)/[\w/.-]+)`", (ROOT / guide).read_text()))
            made_there = {name for name in named if "spin_down" in name}  # the example station
            self.assertEqual([name for name in sorted(named - made_there) if not (ROOT / name).exists()], [], guide)

    def test_every_module_that_the_table_of_formulas_names_exists(self):
        rows = [
            line.split("|")
            for line in (ROOT / "docs" / "numbers.md").read_text().splitlines()
            if line.startswith("|") and line.count("|") == 5
        ]
        named = {name for row in rows for name in re.findall(r"`([\w.]+)`", row[-2])}
        self.assertGreater(len(named), 30)
        paths = {name: ROOT / ("" if name.startswith("stator.") else "shopmath") / name.replace(".", "/") for name in named}
        self.assertEqual([name for name, path in paths.items() if not path.with_suffix(".py").exists() and not path.is_dir()], [])

    def test_every_screenshot_is_in_the_readme_and_there_are_under_twenty(self):
        readme = (ROOT / "README.md").read_text()
        photos = list((ROOT / "docs" / "screenshots").glob("*.png"))
        self.assertTrue(0 < len(photos) < 20)
        self.assertEqual([path.name for path in photos if path.name not in readme], [])
