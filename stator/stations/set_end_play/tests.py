from __future__ import annotations

import re

from django.test import TestCase

from shopmath.validation import BadInput
from stator.engines.models import Spec
from stator.jobs.models import DerivedFact
from stator.shop.models import Blades, Gauge
from stator.stations.set_end_play.analysis import read_table
from stator.stations.split_crankcase.tests import Halves
from tests.factories import job

STACK = (
    ("case-temperature", ""),
    ("face-to-bearing.left", "38.42"),
    ("face-to-bearing.right", "31.10"),
    ("gasket-crushed", ""),
    ("crank-shoulders", "69.10"),
    ("shims-fitted", ""),
)


class Stacker(Halves):
    """A mechanic at Set end play."""

    key = "end-float"

    def shim(self, text, number=1):
        return self.answer(f"shim-thickness.s{number}", text)

    def stack(self, *changes):
        for question, text in {**dict(STACK), **dict(changes)}.items():
            self.answer(question, text)

    def whole(self, *changes, side="right"):
        """Sign a complete entry of Set end play in which each shim has its nominal thickness."""
        self.stack(*changes)
        for number, piece in enumerate(self.work().analysis.pieces, 1):
            self.shim(f"{piece:.3f}", number)
        self.answer("shim-side", side)
        return self.act("sign")


class FloatCase(TestCase):
    def setUp(self):
        self.made = job(order="bottom-end")
        Spec.objects.create(card=self.made.card, name="End float of the crank", property="end-float", low=0.10, high=0.20, source="page 61")
        Blades.objects.create(name="Crank shims", kind="shim", sizes_mm=[0.05, 0.1, 0.15, 0.2, 0.3])
        Gauge.objects.filter(kind__in=("calliper", "micrometer")).update(resolution=0.002, repeatability=0.0005, last_checked="2026-11-01")
        Gauge.objects.first().save()
        self.hands = Stacker(self.made)

    def displayed_verdict(self):
        return self.hands.work().displayed_verdict()


class EndFloat(FloatCase):
    def test_the_stack_chooses_the_shim_and_wants_it_measured(self):
        self.hands.stack()
        work = self.hands.work()
        self.assertAlmostEqual(work.analysis.free.value_mm, 0.42)
        self.assertEqual(
            (work.analysis.pieces, work.next_question.key, work.displayed_verdict().code), ((0.3,), "shim-thickness.s1", "measure shim")
        )
        self.assertEqual(work.next_question.text, "Shim of 0.300 mm in your hand, measured")
        self.hands.shim("0.298")
        verdict = self.displayed_verdict()
        self.assertEqual((verdict.state, verdict.headline), ("in", "Fit 0.3 mm"))
        self.assertIn("0.122 ± 0.003 mm", verdict.reason)

    def test_the_uncertainty_has_the_same_digits_wherever_it_is_shown(self):
        Gauge.objects.filter(kind="calliper").update(resolution=0.05, repeatability=0.02)
        self.hands.stack()
        self.assertIn("of the kit leaves 0.17 mm", self.displayed_verdict().reason)
        self.hands.shim("0.200")
        self.hands.shim("0.050", 2)
        verdict = self.displayed_verdict()
        (shown,) = re.findall(r"± (\d\.\d+) mm", verdict.reason)
        self.assertEqual(len(shown), 4, verdict.reason)
        self.assertIn(f"± {shown} mm", verdict.detail)
        self.assertNotRegex(" ".join(each.source for each in self.hands.work().sources()), r"± \d\.\d\d[1-46-9]")

    def test_an_unsure_stack_keeps_away_from_the_limits(self):
        Gauge.objects.filter(kind="calliper").update(resolution=0.02, repeatability=0.008)
        self.hands.stack()
        found = self.hands.work().analysis
        self.assertGreater(found.uncertainty, 0.02)
        self.assertEqual(found.pieces, (0.2, 0.05))

    def test_all_against_it_is_more_cautious_than_by_squares(self):
        self.hands.stack()
        squares = self.hands.work().analysis.uncertainty
        self.hands.choose(sum="worst")
        self.assertGreater(self.hands.work().analysis.uncertainty, squares)

    def test_a_shim_that_is_not_what_its_bag_says_is_refused_or_out(self):
        self.hands.stack()
        self.assertIn("not the shim of 0.300 mm", self.hands.shim("0.19"))
        self.hands.shim("0.345")
        self.assertEqual((self.displayed_verdict().state, self.displayed_verdict().headline), ("out", "End float is out"))

    def test_no_kit_and_no_shim_that_fits_are_stop_with_the_reason(self):
        self.hands.stack(("crank-shoulders", "67.10"))
        self.assertEqual((self.displayed_verdict().state, self.displayed_verdict().headline), ("stop", "No shim fits"))
        self.assertIn("the nearest leaves", self.displayed_verdict().reason)
        Blades.objects.all().delete()
        self.assertIn("No shim kit on the shelf", self.displayed_verdict().reason)

    def test_a_case_still_warm_gets_no_verdict(self):
        self.hands.stack(("case-temperature", "48"))
        self.assertEqual((self.displayed_verdict().state, self.displayed_verdict().headline), ("too_close", "Too warm to judge"))

    def test_a_manuals_table_between_two_rows_asks_which(self):
        self.hands.choose(how="table")
        self.hands.answer("case-temperature", "")
        self.hands.answer("table-distance", "1.15")
        self.assertIn("is no row", self.hands.answer("table", "about one"))
        self.hands.answer("table", "1.10 0.95; 1.20 1.05")
        work = self.hands.work()
        self.assertEqual(work.next_question.key, "table-row")
        self.assertEqual([option.hint for option in work.next_question.options], ["leaves 0.20 mm", "leaves 0.10 mm"])
        self.hands.answer("table-row", "1_05")
        self.assertEqual(self.hands.work().analysis.pieces, (1.05,))

    def test_limits_unknown_to_the_card_are_asked(self):
        Spec.objects.all().delete()
        self.hands.stack()
        self.assertEqual(self.hands.work().next_question.key, "end-float-least")
        self.hands.answer("end-float-least", "4 thou")
        self.hands.answer("end-float-most", "8 thou")
        self.assertEqual(len(self.hands.work().analysis.pieces), 1)

    def test_signed_it_carries_the_prediction_for_the_dial(self):
        self.hands.stack()
        self.hands.shim("0.300")
        self.hands.answer("shim-side", "right")
        self.hands.act("sign")
        result = self.hands.entry.result
        self.assertEqual((result["float_mm"], result["side"], result["limits_mm"]), (0.12, "right", [0.1, 0.2]))
        facts = {fact.property: fact.value for fact in DerivedFact.objects.filter(entry=self.hands.entry)}
        self.assertEqual(facts["gasket-thickness"], 0.0)
        self.assertAlmostEqual(facts["end-float-predicted"], 0.12)
        values = {each["words"]: each for each in self.hands.entry.record.content["figures"]}
        said = values["End float by the stack"]
        self.assertEqual((said["limits"], said["state"], said["source"]), ("0.10 to 0.20 mm", "in", "manual page 61"))

    def test_the_drawing_lights_the_link_that_is_asked(self):
        self.hands.answer("case-temperature", "")
        drawing = str(self.hands.work().drawing())
        self.assertIn("left case", drawing)
        self.assertEqual(drawing.count('class="place"'), 2)  # one a paper
        self.hands.stack()
        self.assertIn("0.120", str(self.hands.work().drawing()))

    def test_a_table_is_read_in_both_spellings(self):
        self.assertEqual(read_table("1.0-1.1 0.9; 1.1-1.2 1.0"), [(1.0, 1.1, 0.9), (1.1, 1.2, 1.0)])
        self.assertEqual(read_table("1,0 0,9"), [(1.0, 0.9)])
        for wrong in ("", "1.2 1.0; 1.0 0.9", "x y"):
            with self.subTest(wrong), self.assertRaises(BadInput):
                read_table(wrong)
