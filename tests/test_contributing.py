"""Test that the example station of CONTRIBUTING.md works: it passes the linters, is asked, judged, drawn, signed and reported."""

from __future__ import annotations

import os
import re
import shutil
import subprocess
import sys
import tempfile
import textwrap
from pathlib import Path

from django.test import SimpleTestCase

from tests.folders import ROOT

WALK = """
import re
from html import unescape

import django
from django.conf import settings

django.setup()
settings.ALLOWED_HOSTS = ["*"]
settings.STORAGES = {**settings.STORAGES, "staticfiles": {"BACKEND": "django.contrib.staticfiles.storage.StaticFilesStorage"}}
from django.test import Client

from stator.jobs.models import Job, RunStation
from stator.workbench.registry import STATION_BY_KEY
from tests.factories import job, person

made = job(412)
RunStation.objects.create(job=made, order=40, key="spin-down")
client = Client()
client.force_login(person())
at = f"/jobs/{made.tag}/spin-down/"
seen = lambda: client.get(at).content.decode()
assert "Spin the crank" in seen(), "The first verdict is missing."
for field, value in (("abc", "abc"), ("6", "6")):
    client.post(f"{at}keep/", {"ask": "spin-time", "text": value, "client_key": f"spin-{field}", "attempt": "1"})
page = seen()
assert "Crank turns freely" in page and "6 s" in page and "<svg" in page, page[-3000:]
client.post(f"{at}tick/", {"key": "plug", "on": "1"})
shown = re.findall(r'data-seen="([^"]*)"', seen())[0]
client.post(f"{at}act/", {"action": "sign", "seen": unescape(shown)})
entry = made.entries.get(station__key="spin-down")
assert entry.signed_at and entry.result["turned_s"] == 6.0, entry.result
assert "Crank turns freely" in client.get(f"/jobs/{made.tag}/sheet/").content.decode(), "The report does not contain it."
"""


def blocks(text: str) -> list[str]:
    """Return the Python blocks of a Markdown text without their indentation."""
    return [textwrap.dedent(code) for code in re.findall(r"^ *```python\n(.*?)^ *```", text, re.DOTALL | re.MULTILINE)]


class ExampleStation(SimpleTestCase):
    def setUp(self):
        self.tree = Path(self.enterContext(tempfile.TemporaryDirectory())) / "project"
        for name in ("stator", "shopmath", "tests"):
            shutil.copytree(ROOT / name, self.tree / name, ignore=shutil.ignore_patterns("__pycache__", "fonts", "*.woff2"))
        for name in ("manage.py", "pyproject.toml"):
            shutil.copy(ROOT / name, self.tree / name)

    def run_python(self, *words: str) -> None:
        env = {**os.environ, "PYTHONPATH": str(self.tree), "STATOR_DATA": str(self.tree.parent / "data"), "STATOR_PLAIN_HTTP": "1"}
        env["DJANGO_SETTINGS_MODULE"] = "stator.settings"
        done = subprocess.run([sys.executable, *words], cwd=self.tree, env=env, capture_output=True, text=True, check=False)
        self.assertEqual(done.returncode, 0, done.stdout[-2000:] + done.stderr[-4000:])

    def insert(self, name: str, before: str, line: str) -> None:
        """Insert a line before the line of a file that begins with a text."""
        path = self.tree / name
        text = path.read_text()
        self.assertIn(before, text, name)
        path.write_text(text.replace(before, f"{line}\n{before}", 1))

    def test_it_passes_the_linters_and_works_from_question_to_report(self):
        added, messages, analysis, station = blocks(
            (ROOT / "CONTRIBUTING.md").read_text().split("## Add a property")[1].split("## Add a unit")[0]
        )
        member, spec = (line.split("  #")[0] for line in added.strip("\n").splitlines())
        self.insert("stator/engines/properties.py", "    SPINDLE_PLAY = ", f"    {member.strip()}")
        self.insert("stator/engines/property_specs.py", "    Property.SPINDLE_PLAY: ", f"    {spec.strip()}")
        self.insert("stator/workbench/registry.py", "    HAND_OVER,\n", "    SPIN_DOWN,")
        imported = "from stator.stations.spin_down.station import STATION as SPIN_DOWN"
        self.insert("stator/workbench/registry.py", "from stator.stations.split_crankcase.station", imported)
        self.insert("pyproject.toml", '  "stator.stations.split_crankcase",', '  "stator.stations.spin_down",')
        folder = self.tree / "stator" / "stations" / "spin_down"
        folder.mkdir()
        for name, code in (("__init__", ""), ("messages", messages), ("analysis", analysis), ("station", station)):
            (folder / f"{name}.py").write_text(code)
        added_files = ("stator/stations/spin_down", "stator/workbench/registry.py", "stator/engines")
        self.run_python("-m", "ruff", "check", "--no-cache", *added_files)
        self.run_python("-m", "ruff", "format", "--no-cache", "--check", *added_files)
        self.run_python("-c", "from importlinter.cli import lint_imports; raise SystemExit(lint_imports(no_cache=True))")
        self.run_python("-W", "ignore", "manage.py", "upgrade")
        self.run_python("-W", "ignore", "-c", WALK)
