"""The whole demo: two readers see pages of their own, and every job that leaves the shop comes back the same."""

from __future__ import annotations

import difflib
import json
import shutil
import tempfile
from pathlib import Path

from django.test import SimpleTestCase

from tests.folders import demo_folder, run_on


class TwoReaders(SimpleTestCase):
    """A page never contains what was rendered for another reader, in units or in language."""

    cost = 60

    def opened(self, *readers: str) -> dict[str, list[dict[str, str]]]:
        with tempfile.TemporaryDirectory() as folder:
            done = run_on(demo_folder(), "-m", "tests.open_pages", folder, *readers)
            self.assertEqual(done.returncode, 0, done.stderr[-3000:])
            found = {}
            for reader in readers:
                files = sorted((Path(folder) / reader).iterdir(), key=lambda path: int(path.stem))
                found[reader] = [json.loads(path.read_text()) for path in files]
            return found

    def test_every_page_is_the_same_whoever_opened_it_before(self):
        alone = {reader: self.opened(reader)[reader] for reader in ("metric", "inch")}
        self.assertGreater(len(alone["metric"]), 300)
        self.assertEqual({page["address"] for page in alone["metric"] if page["status"] >= 400}, set())
        for order in (("metric", "inch"), ("inch", "metric")):
            together = self.opened(*order)
            for reader in order:
                for first, page in zip(alone[reader], together[reader], strict=True):
                    with self.subTest(reader=reader, order=order, address=page["address"]):
                        self.assertEqual(page["text"] == first["text"], True, _difference(first["text"], page["text"]))


class OutAndIn(SimpleTestCase):
    """Every job of the demo as a file, imported into the same shop and into an empty one."""

    cost = 60

    def test_every_job_comes_back_with_the_same_report(self):
        with tempfile.TemporaryDirectory() as folder:
            exported, empty = Path(folder) / "jobs", Path(folder) / "stator"
            exported.mkdir()
            same = Path(shutil.copytree(demo_folder(), Path(folder) / "same" / "stator"))
            done = run_on(same, "-m", "tests.exchange_jobs", "out", str(exported))
            self.assertEqual((done.stdout.strip(), done.returncode), ("", 0), done.stderr[-3000:])
            self.assertGreaterEqual(len(list(exported.glob("*.zip"))), 17)
            run_on(empty, "manage.py", "upgrade")
            done = run_on(empty, "-m", "tests.exchange_jobs", "in", str(exported))
            self.assertEqual((done.stdout.strip(), done.returncode), ("", 0), done.stderr[-3000:])


def _difference(first: str, second: str) -> str:
    lines = difflib.unified_diff(first.replace("<", "\n<").splitlines(), second.replace("<", "\n<").splitlines(), n=0, lineterm="")
    return "\n".join(list(lines)[:20])
