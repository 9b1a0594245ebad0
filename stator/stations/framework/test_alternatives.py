"""Tests that every stop offers an alternative, and that its button leads there."""

from __future__ import annotations

import ast
from pathlib import Path

from django.test import SimpleTestCase, TestCase

from stator.engines.models import Mark
from stator.engines.properties import Property
from stator.stations.close_crankcase.analysis import torque_of
from stator.stations.close_crankcase.tests import CloseCase, Closer
from stator.stations.install_seals.tests import SealsCase
from stator.stations.split_crankcase.analysis import fault_of
from stator.stations.split_crankcase.tests import Halves, face
from tests.factories import job

STATIONS = Path(__file__).parent.parent


class EveryStop(SimpleTestCase):
    def test_every_stop_names_its_ways_on(self):
        """A call that stops the work has `ways`, whatever its station."""
        found, without = 0, []
        for path in [
            *STATIONS.glob("*/verdict.py"),
            *STATIONS.glob("*/*/verdict.py"),
            *STATIONS.glob("*/station.py"),
            STATIONS / "true_crank/outer_verdict.py",
        ]:
            for node in ast.walk(ast.parse(path.read_text())):
                if isinstance(node, ast.Call) and ast.unparse(node.func) == "Verdict" and ast.unparse(node.args[0]) == "State.STOP":
                    found += 1
                    if "ways" not in [each.arg for each in node.keywords]:
                        without.append(f"{path.parent.name}:{node.lineno} {ast.unparse(node.args[1])}")
        self.assertGreater(found, 20)
        self.assertEqual([], without)


class AtSeals(SealsCase):
    def test_a_seal_of_another_place_is_taken_as_that_one_with_one_key(self):
        self.hands.of(self.drive, Property.SEAL_SHAFT, "17")
        self.hands.of(self.drive, Property.SEAL_BORE, "40.1")
        self.assertIn("It is the Output seal", self.hands.page())
        self.hands.act("other")
        work = self.hands.work()
        self.assertEqual((work.analysis.in_hand.seal, work.analysis.in_hand.is_the_one), (self.output, True))
        self.assertEqual(["17", "40.1"], [each.text for each in work.readings if not each.withdrawn_at])
        self.assertEqual("Lip and depth", work.displayed_verdict().headline)


class Fasteners(TestCase):
    def setUp(self):
        self.made = job(order="bottom-end", x_mm=-30, y_mm=0)
        face(self.made.card)
        self.hands = Halves(self.made)
        self.bolts = list(Mark.objects.filter(what="bolt"))

    def test_a_snapped_bolt_counts_as_out_and_warns(self):
        self.assertIn("snapped, or is missing", self.hands.page())
        self.hands.answer(fault_of(self.bolts[0]).key, "snapped")
        for mark in self.bolts[1:]:
            self.hands.bolt(mark.name)
        self.hands.answer("counted", str(len(self.bolts)))
        self.assertIn(f"Bolt {self.bolts[0].name} snapped", " ".join(each.words for each in self.hands.work().warnings()))
        self.assertIn(f"{self.bolts[0].name} snapped</text>", self.hands.page())  # named on the drawing, not drawn as one that is out
        self.assertNotEqual("stop", self.hands.work().displayed_verdict().state)

    def test_a_length_that_was_just_typed_is_offered_again(self):
        self.assertNotIn('data-again="40"', self.hands.page())
        self.hands.bolt(self.bolts[0].name, "40")
        self.assertIn('data-again="40"', self.hands.page())

    def test_all_bolts_that_are_left_are_out_with_one_key(self):
        self.hands.bolt(self.bolts[0].name, "40")
        self.hands.act("rest")
        work = self.hands.work()
        self.assertEqual((len(self.bolts), "wait"), (len(work.analysis.out), work.displayed_verdict().state))
        self.hands.answer("counted", str(len(self.bolts) - 1))
        self.assertEqual("stop", self.hands.work().displayed_verdict().state)

    def test_a_missing_bolt_is_not_counted_and_close_looks_for_one(self):
        self.hands.answer(fault_of(self.bolts[0]).key, "missing")
        for mark in self.bolts[1:]:
            self.hands.bolt(mark.name)
        self.hands.answer("counted", str(len(self.bolts) - 1))
        self.assertNotEqual("stop", self.hands.work().displayed_verdict().state)
        text = " ".join(each.words for each in Closer(self.made).work().warnings())
        self.assertIn(f"Bolt {self.bolts[0].name} was missing", text)

    def test_a_short_count_offers_the_bolts_to_look_at(self):
        for mark in self.bolts:
            self.hands.bolt(mark.name)
        self.hands.answer("counted", str(len(self.bolts) - 1))
        words = [alternative.words for alternative in self.hands.work().alternatives()]
        self.assertIn("Count again", words)
        self.assertIn(f"{self.bolts[0].name} is out: enter its length", " ".join(words))


class AtClose(CloseCase):
    def test_a_bolt_that_snaps_stops_until_it_is_put_right_and_is_tightened_from_the_first_round(self):
        self.ready()
        self.hands.act("close")
        self.hands.round(0)
        bolt = self.hands.work().analysis.ordered[0]
        self.hands.answer(torque_of(bolt, 2).key, "6.6")
        self.hands.answer(fault_of(bolt).key, "snapped")
        self.assertEqual(("stop", "A bolt cannot hold"), (self.displayed_verdict().state, self.displayed_verdict().headline))
        self.assertIn(f"Bolt {bolt.name} is put right", [alternative.words for alternative in self.hands.work().alternatives()])
        self.assertIn(f">bolt {bolt.name}</text>", str(self.hands.work().drawing()))  # not the order's number, which is another bolt's name
        self.hands.answer(fault_of(bolt).key, "sound")
        self.assertEqual("Tighten the bolts", self.displayed_verdict().headline)
        self.assertEqual(0, self.hands.work().analysis.rounds_done(bolt))

    def test_the_manual_s_torque_is_one_key_away_from_too_much(self):
        self.hands.answer("gears", "all")
        self.hands.choose(school="more")
        self.hands.answer("bolt-torque-instead", "80")
        self.hands.answer("reason", "leaked")
        self.assertEqual("Too much torque", self.displayed_verdict().headline)
        alternative = next(each for each in self.hands.work().alternatives() if each.option == "manual")
        self.hands.choose(**{alternative.choice: alternative.option})
        self.assertNotEqual("stop", self.displayed_verdict().state)


class AfterSigning(TestCase):
    def test_the_run_says_what_a_station_gave_and_the_log_shows_its_drawing(self):
        made = job(order="bottom-end", x_mm=-30, y_mm=0)
        face(made.card)
        hands = Halves(made)
        hands.whole()
        run, log = (hands.client.get(f"/jobs/{made.tag}/{page}/") for page in ("run", "log"))
        self.assertContains(run, "Halves are apart</b> Rounds of gaps: 1.")
        self.assertContains(run, f"/entries/{hands.entry.pk}/")
        self.assertContains(log, f'src="/entries/{hands.entry.pk}/drawing.svg"')
        self.assertContains(log, "readings</summary>")
        hands.post("supersede", reason="counted again")
        self.assertContains(hands.client.get(f"/jobs/{made.tag}/run/"), "Halves are apart</b>")  # until the new one is signed
