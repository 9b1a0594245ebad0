"""Tests of the whole demo: pages of two readers, and jobs that return unchanged from export."""

from __future__ import annotations

import difflib
import html
import json
import math
import re
import shutil
import tempfile
from pathlib import Path
from typing import Any

from django.test import SimpleTestCase

from tests.folders import demo_folder, run_on

CLOCK = "|".join(  # times of day, in English and in the test language
    (
        r"[A-Z][a-z]{2} \d+,( \d{4},)? \d+:\d\d",
        r"\d+ [A-Z][a-z]{2},( \d{4},)? \d+:\d\d",
        r"\d+-a de \w+~, \d+:\d\d",
        r"\d\d:\d\d:\d\d",
        r"Now \d+:\d\d",
    )
)


class Pages(SimpleTestCase):
    """Tests of every page of the demo: no content for another reader, and no estimate finer than its uncertainty."""

    cost = 200

    @classmethod
    def setUpClass(cls):
        super().setUpClass()
        folder = Path(cls.enterClassContext(tempfile.TemporaryDirectory()))
        cls.first = cls.opened(folder / "first", "all", "metric", "inch")
        cls.second = cls.opened(folder / "second", "kinds", "inch", "metric")
        cls.estimates = json.loads((folder / "first" / "estimates.json").read_text())
        cls.estimates += json.loads(demo_folder().with_name("estimates.json").read_text())
        cls.unaccented = json.loads((folder / "first" / "unaccented.json").read_text())

    @staticmethod
    def opened(folder: Path, which: str, *readers: str) -> dict[str, dict[str, dict[str, Any]]]:
        """Return the pages of each reader by their addresses, opened in this order in one process."""
        done = run_on(demo_folder(), "-m", "tests.open_pages", str(folder), which, *readers)
        if done.returncode:
            raise AssertionError(done.stderr[-3000:])
        pages = {reader: [json.loads(path.read_text()) for path in (folder / reader).iterdir()] for reader in readers}
        return {reader: {page["address"]: page for page in found} for reader, found in pages.items()}

    def test_every_page_is_the_same_whoever_opened_it_before(self):
        self.assertGreater(len(self.first["metric"]), 300)
        self.assertEqual({address for address, page in self.first["metric"].items() if page["status"] >= 400}, set())
        for reader in ("metric", "inch"):
            self.assertGreater(len(self.second[reader]), 60)
            for address, page in self.second[reader].items():
                with self.subTest(reader=reader, address=address):
                    first = self.first[reader][address]["text"]
                    self.assertEqual(first == page["text"], True, _difference(first, page["text"]))

    def test_every_page_is_in_the_language_of_its_reader(self):
        self.assertEqual(self.unaccented, {}, "\n".join(f"{address}: {text}" for text, address in self.unaccented.items()))

    def test_no_page_needs_more_than_15_queries(self):
        """The second reader's pages, when engine cards and equipment are in the cache."""
        self.assertEqual({address: page["queries"] for address, page in self.first["inch"].items() if page["queries"] > 15}, {})

    def of(self, *kinds):
        found = [each for each in self.estimates if each["kind"] in kinds]
        self.assertGreater(len(found), 20)
        return found

    def test_a_number_is_a_multiple_of_a_step_that_its_uncertainty_allows(self):
        shown = [each for each in self.estimates if each["kind"] not in ("duration", "chance", "source", "rounded")]
        self.assertGreater(len(shown), 300)
        for each in shown:
            number = float(each["text"].replace("\N{MINUS SIGN}", "-"))
            resolution = each["step"] if each["toward"] else 10.0 ** math.floor(math.log10(each["step"]) + 1e-9)  # of a reading: its digits
            highest = max(each["half"] / 5 if each["half"] else 0.0, resolution)
            allowed = [digit * 10.0**power for power in range(-6, 7) for digit in (1, 2, 5) if digit * 10.0**power <= highest * (1 + 1e-6)]
            with self.subTest(each):
                self.assertAlmostEqual(number, round(number / allowed[-1]) * allowed[-1], places=7)

    def test_where_numbers_come_from_every_estimate_is_rounded(self):
        rounded = {each["text"] for each in self.estimates if each["kind"] != "source"}
        seen = self.of("source")
        for each in seen:
            numbers = set(re.findall(r"(?<![\w.×-])\N{MINUS SIGN}?\d+(?:\.\d+)?(?= (?:mm|µm|N|kN|t|N·m|°C|°|g·mm|MPa)\b)", each["text"]))
            with self.subTest(each):
                self.assertEqual(numbers - rounded, set())

    def test_a_time_shows_no_seconds_that_are_not_known(self):
        for each in self.of("duration"):
            half, times = each["half"], re.findall(r"(\d+):(\d\d)|(\d+) s|(\d+) min", each["text"])
            if half == 0 or not times or "h" in each["text"]:
                continue
            minutes, rest, seconds, whole = (float(part or 0) for part in times[0])
            shown = 60 * (minutes + whole) + rest + seconds
            step = max(step for step in (5, 10, 30, 60, 120, 300) if step == 5 or step <= min(half / 5, shown / 2))
            with self.subTest(each):
                self.assertEqual(shown % step, 0)

    def test_a_probability_is_shown_in_steps_of_five_percent(self):
        for each in self.of("chance"):
            with self.subTest(each):
                percent = int(re.findall(r"\d+", each["text"])[0])
                self.assertTrue(percent % 5 == 0 or (each["text"] == "more than 99 %" and each["step"] == 0.01), each["text"])

    def test_seconds_are_in_multiples_of_five_in_every_sentence(self):
        seen = set()
        for page in self.first["metric"].values():
            text = re.sub(r"<(script|style|time)\b.*?</\1>|<[^>]+>", "|", page["text"], flags=re.DOTALL)
            text = re.sub(CLOCK, "", " ".join(html.unescape(text).split()))
            for found in re.finditer(r"(?<![\d:.])\d+:(\d\d)(?!\d|:\d)", text):
                if int(found[1]) % 5:
                    seen.add((page["address"], text[max(0, found.start() - 40) : found.end() + 20]))
        self.assertEqual(seen, set())


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
