from __future__ import annotations

import csv
import io

from django.db import connection
from django.test import SimpleTestCase, TestCase
from django.test.utils import CaptureQueriesContext

from stator.engines.card_copy import copied
from stator.exchange.prediction_accuracy import plot
from stator.exchange.trend import series
from stator.jobs.models import Job
from stator.stations.center_crank.tests import Centrer
from stator.stations.common.press_joint.predicted import beside as forces_beside
from stator.stations.common.press_joint.predicted import forces
from stator.stations.install_with_heat.single_seat.predictions import PREDICTION as HEATS
from stator.stations.install_with_heat.single_seat.predictions import beside as heats_beside
from stator.stations.install_with_heat.single_seat.predictions import heats
from stator.stations.true_crank.predicted import blows
from stator.workbench.registry import create_work_plan, current_station
from tests.factories import job, person


class FromJobToJob(TestCase):
    def setUp(self):
        self.first = job(order="bottom-end")
        self.second = Job.objects.create(
            number=430, card=copied(self.first.card), complaint="Again.", work_order="bottom-end", booked_in_by=person()
        )
        create_work_plan(self.second)
        for made, float_mm in ((self.first, "0.14"), (self.second, "0.19")):
            hands = Centrer(made)
            for key, text in (("side-gap.left", "0.15"), ("side-gap.right", "0.16"), ("spin", "free"), ("end-float", float_mm)):
                hands.answer(key, text)
            hands.choose(proof="none")
            hands.answer("reason", "Plates are lent out, the harbour has them.")
            hands.act("sign")
        self.client.force_login(person())

    def test_a_figure_is_followed_over_the_jobs_of_one_engine(self):
        name = next(name for name in series(self.first.card) if "end float by dial" in name)
        self.assertEqual([point.value for point in series(self.first.card)[name][1]], [0.14, 0.19])
        page = self.client.get(f"/cards/{self.second.card_id}/trend/", {"figure": name}).content.decode()
        for words in ("0412", "0430", "0.14", "0.19"):
            self.assertIn(words, page)
        self.assertEqual(self.client.get(f"/cards/{self.second.card_id}/trend/", {"figure": "none"}).status_code, 404)

    def test_with_one_job_there_is_nothing_to_compare(self):
        other = job(431)
        self.assertIn("Nothing to compare yet", self.client.get(f"/cards/{other.card_id}/trend/").content.decode())

    def test_a_job_is_found_by_a_word_of_a_note_and_by_a_seat(self):
        self.assertContains(self.client.get("/find/?q=lent+harbour"), "0430")
        self.assertContains(self.client.get("/find/?q=main,"), "0412")
        self.assertContains(self.client.get("/find/?q=lighthouse"), "Nothing here has all of that")

    def test_all_jobs_as_lines_for_a_spreadsheet(self):
        Job.objects.filter(number=430).update(complaint="=1+1")
        with CaptureQueriesContext(connection) as asked:
            answer = self.client.get("/bench.csv")
        self.assertLessEqual(len(asked), 8)
        rows = list(csv.DictReader(io.StringIO(answer.content.decode())))
        self.assertEqual([row["job"] for row in rows], ["0412", "0430"])
        self.assertEqual(rows[1]["complaint"], "'=1+1")
        self.assertEqual(rows[0]["station"], "flywheel-off")
        for states in (("done", "now", "ahead"), ("done", "ahead", "ahead"), ("done", "waits", "now"), ("done", "done", "skipped")):
            self.second.run.update(state="done")
            for stage, state in zip(self.second.run.order_by("order"), states, strict=False):
                self.second.run.filter(pk=stage.pk).update(state=state, because="x" if state == "skipped" else "")
            rows = list(csv.DictReader(io.StringIO(self.client.get("/bench.csv").content.decode())))
            self.assertEqual(rows[1]["station"], current_station(Job.objects.get(pk=self.second.pk)).key, states)


class WhatHeld(SimpleTestCase):
    def test_heats_are_counted_by_how_sure_they_were(self):
        said = [
            {"confidence": 0.999, "outcome": "dropped"},
            {"confidence": 0.995, "outcome": "jammed"},
            {"confidence": 0.992, "outcome": "dropped", "jams": 1},  # jammed first, reheated, then it dropped
            {"confidence": 0.3, "outcome": "tapped"},
        ]
        low, high = heats(said)
        self.assertEqual(
            (low.said, low.count, low.came), ("less than even", 1, "1 of 1 went in at the first try, 0 of them dropped; 0 jammed")
        )
        self.assertEqual(high.came, "1 of 3 went in at the first try, 1 of them dropped; 2 jammed")

    def test_a_peak_lies_inside_its_band_or_not(self):
        (line,) = forces([{"force_n": [10, 20, 30], "peak_n": 22}, {"force_n": [10, 20, 30], "peak_n": 44}, {"force_n": None, "peak_n": 9}])
        self.assertIn("1 of 2 inside", line.came)

    def test_a_blow_is_held_against_the_twist_it_was_meant_for(self):
        (line,) = blows([{"moves": [{"twist_deg": 0.2}, {"twist_deg": 0.1}], "twist_deg": 0.02}])
        self.assertEqual((line.count, line.came), (2, "the middle blow took 65 % of the twist it was meant for"))
        self.assertEqual(blows([{"moves": [], "twist_deg": 0.0}]), [])


class Plots(SimpleTestCase):
    def test_what_went_in_lies_beside_what_was_promised_with_its_own_uncertainty(self):
        (line,) = heats_beside([{"confidence": 0.999, "outcome": "dropped"}] * 9 + [{"confidence": 0.995, "outcome": "jammed", "jams": 1}])
        self.assertEqual((line.low, line.high, line.happened), (0.99, 1.0, 0.9))
        self.assertEqual([round(end, 2) for end in line.unsure], [0.6, 0.98])
        drawn = plot(HEATS, [line])
        self.assertIn("99 % or better (10): predicted 99 % to 100 %, happened 90 %", drawn)

    def test_a_peak_lies_beside_its_band_and_nothing_signed_draws_nothing(self):
        (line,) = forces_beside([{"force_n": [10, 20, 30], "peak_n": 44, "tag": "0412"}, {"force_n": None, "peak_n": 9}])
        self.assertEqual((line.label, line.low, line.high, line.happened), ("0412", 0.5, 1.5, 2.2))
        self.assertEqual(plot(HEATS, []), "")


class WhatHeldPage(TestCase):
    def test_an_empty_shop_says_so(self):
        self.client.force_login(person())
        self.assertContains(self.client.get("/held/"), "None signed yet", 3)
