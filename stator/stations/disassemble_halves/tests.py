from __future__ import annotations

from django.test import TestCase

from stator.jobs.models import TrayPlace
from stator.stations.disassemble_halves.analysis import CRANK_OUT, Code, TakenOut
from stator.stations.split_crankcase.tests import Halves
from tests.factories import job


class Tray(Halves):
    in_order = True
    key = "strip"

    def part(self, number, what, where="output, 2nd", way="either", wear="none"):
        self.answer(f"part.strip-{number}", what)
        self.answer(f"part-from.strip-{number}", where)
        self.answer(f"part-way.strip-{number}", way)
        return self.answer(f"part-wear.strip-{number}", wear)


class Strip(TestCase):
    def setUp(self):
        self.hands = Tray(job(order="bottom-end"))

    def test_a_crank_that_comes_crooked_is_stop(self):
        self.hands.answer("crank-out", "pushed")
        self.hands.answer("came-evenly", "crooked")
        verdict = self.hands.work().displayed_verdict()
        self.assertEqual((verdict.state, verdict.code), ("stop", Code.STOP_PUSHING))
        self.hands.answer("came-evenly", "even")
        self.assertEqual(self.hands.work().displayed_verdict().state, "wait")

    def test_parts_lie_in_the_order_they_came_with_count_side_and_wear(self):
        self.hands.part(1, "gear cluster, input", way="picture")
        self.hands.part(2, "2 x washer 1.0", wear="some")
        self.hands.part(2, "2 x washer 1.0", wear="some")  # answered twice, it lies there once
        self.hands.answer("part.strip-1", "gear cluster, mainshaft")  # said again, it is corrected where it lies
        rows = TrayPlace.objects.values_list("number", "name", "count", "where_from", "way_round", "wear")
        self.assertEqual(rows[1], (2, "washer 1.0", 2, "output, 2nd", "either way", "wear seen: check"))
        self.assertEqual((len(rows), rows[0][1]), (2, "gear cluster, mainshaft"))
        self.assertIn("washer 1.0", self.hands.page())

    def test_several_parts_are_told_as_a_list_and_lie_each_in_a_place_of_its_own(self):
        self.hands.part(1, "2 x washer 1,0, fork shaft, 3 forks")
        self.hands.part(2, "gear cluster, output")
        rows = TrayPlace.objects.values_list("number", "name", "count")
        told = [(1, "washer 1,0", 2), (2, "fork shaft", 1), (3, "forks", 3), (4, "gear cluster, output", 1)]
        self.assertEqual(list(rows), told)
        self.assertEqual([each[1] for each in TakenOut(CRANK_OUT.part, "12 mm spacer; drum", "", "", "").items], ["12 mm spacer", "drum"])

    def test_bare_with_wear_is_signed_as_too_close_and_names_it(self):
        self.hands.answer("crank-out", "lifted")
        self.hands.part(1, "gear cluster, output", wear="broken")
        self.hands.answer("part.strip-2", "")
        verdict = self.hands.work().displayed_verdict()
        self.assertEqual(
            (verdict.state, verdict.code, verdict.detail), ("too_close", Code.BARE_WITH_WEAR, "1 gear cluster, output: broken.")
        )
        self.assertIn("clean tray", self.hands.act("sign"))
        self.hands.tick_all()
        self.hands.answer("note", "")
        self.assertIn("Split is not signed with the halves apart", self.hands.act("sign"))
        self.hands.go_on("halves_apart", "came apart")
        self.hands.act("sign")
        self.assertEqual(self.hands.entry.result["tray"][0]["wear"], "broken")
        self.assertIn("came apart", self.hands.entry.record.content["decisions"][0])  # against advice, with its reason

    def test_the_run_says_what_should_be_done_first(self):
        page = self.hands.client.get("/jobs/0412/run/")
        self.assertContains(page, "Do first: Split is not signed with the halves apart")
        Halves(self.hands.job).whole()
        self.assertNotContains(self.hands.client.get("/jobs/0412/run/"), "Do first: Split")
