"""Files and folders of the first edition: every job exported then is read with the same records."""

from __future__ import annotations

import json
import os
import zipfile
from pathlib import Path

from django.test import TestCase

from exchange.job_in import job_from_zip
from exchange.job_json import job_as_json
from stations.registry import BY_KEY
from tests.shed import person

RELEASED = Path(__file__).parent / "released"
FOLDERS = ("jobs-2", "jobs-3", "jobs-3-late", "jobs-3-last", "jobs-4", "jobs-5", "jobs-6", "jobs-7", "jobs-8", "jobs-9")
TRIED = FOLDERS if os.environ.get("STATOR_WHOLE") else (FOLDERS[0], FOLDERS[-1])  # every released form, or the first and the newest one
FILES = sorted(path for folder in TRIED for path in (RELEASED / folder).glob("*.zip"))
CALL = ("state", "words", "reason")


class Exports(TestCase):
    cost = 30

    def test_every_job_exported_by_the_first_edition_keeps_its_readings_and_its_calls(self):
        self.assertGreaterEqual(len(FILES), 7)
        for path in FILES:
            with self.subTest(f"{path.parent.name}/{path.name}"), zipfile.ZipFile(path) as found:
                before = json.loads(found.read("job.json"))
                after = job_as_json(job_from_zip(path.read_bytes(), person()))
                self.assertEqual(len(after["entries"]), len(before["entries"]))
                for old, new in zip(before["entries"], after["entries"], strict=True):
                    said = [(each["typed"], each["canonical"], each["taken_at"], bool(each["withdrawn_at"])) for each in old["readings"]]
                    kept = [(each["typed"], each["canonical"], each["taken_at"], bool(each["withdrawn_at"])) for each in new["readings"]]
                    self.assertEqual(kept, said)
                    self.assertEqual(new["attempt"], old.get("attempt") or old["choices"].get("heat", 1))
                    if BY_KEY[new["station"]].words and not str(new["result"].get("schema", "")).startswith("by-hand"):
                        self.assertEqual([each["ask"] for each in new["readings"] if not each.get("property")], [])
                    if old["call"]:
                        self.assertEqual({name: new["call"][name] for name in CALL}, {name: old["call"][name] for name in CALL})

    def test_what_turns_in_a_seat_and_what_a_figure_limits_is_guessed_and_marked(self):
        made = job_from_zip((RELEASED / "jobs-2" / "job-0412.zip").read_bytes(), person())
        roles = {seat.name: (seat.role, seat.role_assumed) for seat in made.card.seats.all()}
        self.assertEqual(roles["Main, drive side"], ("main", True))
        self.assertEqual(roles["Gearbox output"], ("gearbox", True))
        limits = {spec.name: (spec.property, spec.property_assumed) for spec in made.card.specs.all()}
        self.assertEqual(limits["End float of the crank"], ("end-float", True))
        self.assertEqual(limits["Crank run-out"], ("crank-runout", True))

    def test_how_a_crank_is_held_for_its_limit_is_guessed_and_marked(self):
        made = job_from_zip((RELEASED / "jobs-2" / "job-0415.zip").read_bytes(), person())
        runout = made.card.specs.get(property="crank-runout")
        self.assertEqual((runout.setup, runout.held, runout.held_assumed), ("on the centre bearings", "centre", True))
