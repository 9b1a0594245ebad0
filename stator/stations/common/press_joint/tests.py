"""Apart and Together: readings in, call out."""

from __future__ import annotations

from django.test import TestCase

from stator.engines.models import EngineCard, Spec
from stator.engines.properties import Property
from stator.shop.models import Gauge, Press
from stator.stations.common.press_joint.analysis import at
from stator.stations.press_together.analysis import OIL_SLOT, SIDE_PLAY, WIDTHS
from stator.stations.split_crankcase.tests import Halves
from tests.factories import job

SIZES = ((Property.PIN_LENGTH, "16"), (Property.WEB_WALL, "10"), (Property.WEB_WIDTH, "80"), (Property.PIN_BORE, ""))
USUAL = ((Property.PIN_SHOWN, "22"),)

MEASURED = ((Property.PIN_DIAMETER, "22.064"), (Property.PIN_HOLE, "22.001"))


class Presser(Halves):
    """Hands at the press."""

    key = "apart"

    def sizes(self, *first):
        for what, text in (*(first or USUAL), *SIZES):
            self.of(what, text)

    def of(self, what, text):
        """Answer a question about the joint."""
        return self.answer(at(what).key, text)

    def peak(self, text):
        return self.of(Property.PRESS_PEAK, text)


class PressCase(TestCase):
    station = "apart"

    def setUp(self):
        self.made = job(order="crank")
        self.press = Press.objects.create(name="Bottle press", capacity_text="12 t", capacity_n=117679.8)
        Gauge.objects.filter(kind__in=("micrometer", "bore")).update(repeatability=0.001, last_checked="2026-11-01")
        Gauge.objects.first().save()
        self.hands = Presser(self.made)
        self.hands.key = self.station
        self.hands.address = f"/jobs/{self.made.tag}/{self.station}/"

    def displayed_verdict(self):
        return self.hands.work().displayed_verdict()

    def small_press(self, text="3 t", newtons=29420.0):
        Press.objects.filter(pk=self.press.pk).update(capacity_text=text, capacity_n=newtons)
        Press.objects.get().save()


class Apart(PressCase):
    def test_sizes_alone_give_a_band_in_the_presss_own_unit(self):
        self.hands.sizes()
        self.hands.tick_all()
        verdict = self.displayed_verdict()
        self.assertEqual((verdict.state, verdict.headline), ("in", "Press is strong enough"))
        self.assertRegex(verdict.reason, r"^It takes 1\.\d+ t to [67][.\d]* t, likely 3\.\d+ t; the press has 12 t\.$")
        interference = self.hands.work().sources()[0]
        self.assertTrue(interference.estimated)
        self.assertIn("typical crankpin", interference.source)
        self.assertEqual(verdict.assumed, ("interference of a crankpin of this size",))

    def test_nothing_moves_before_the_webs_are_marked(self):
        self.hands.sizes()
        self.assertEqual(self.displayed_verdict().headline, "Mark it first")
        self.assertIn("marked across the joint", self.displayed_verdict().next_step)

    def test_a_card_that_knows_the_grip_is_believed_before_a_rule(self):
        Spec.objects.create(
            card=self.made.card,
            name="Crankpin interference",
            property="pin-interference",
            low=0.05,
            high=0.07,
            source="sheet 4",
            source_kind="drawing",
        )
        self.hands.sizes()
        interference = self.hands.work().analysis.grip
        self.assertEqual((round(interference.value, 3), round(interference.uncertainty, 3), interference.origin), (0.06, 0.01, "card"))
        self.assertIn("drawing sheet 4", self.hands.work().sources()[0].source)

    def test_measured_pin_and_hole_replace_both(self):
        self.hands.choose(sizes="measured")
        self.hands.sizes((Property.PIN_DIAMETER, "22.060"), (Property.PIN_HOLE, "22.000"))
        interference = self.hands.work().analysis.grip
        self.assertEqual((round(interference.value, 4), interference.origin), (0.06, "measured"))
        self.assertLess(interference.uncertainty, 0.006)

    def test_a_press_too_small_is_stop_with_what_would_do(self):
        self.small_press()
        self.hands.sizes()
        verdict = self.displayed_verdict()
        self.assertEqual((verdict.state, verdict.headline), ("stop", "Press too small"))
        self.assertRegex(verdict.next_step, r"a press of [67][.\d]* t or more, or the web at \d+ °C with the pin left cold")
        self.assertNotIn(Property.PRESS_PEAK, [question.slot.what for question in self.hands.work().questions()])

    def test_a_warm_web_and_a_cool_pin_make_a_small_press_enough(self):
        self.small_press("5 t", 49033.3)
        self.hands.choose(warmth="warm")
        self.hands.sizes(*USUAL, (Property.WEB_TEMPERATURE, "200"), (Property.PIN_TEMPERATURE, "60"))
        self.hands.tick_all()
        self.assertEqual(self.displayed_verdict().state, "in")
        self.hands.of(Property.PIN_TEMPERATURE, "190")
        verdict = self.displayed_verdict()
        self.assertEqual((verdict.state, verdict.headline), ("stop", "Too hot"))
        self.assertIn("A hardened pin at 190 °C goes soft", verdict.reason)

    def test_heat_that_frees_compound_is_only_for_what_is_down_as_scrap(self):
        self.hands.choose(compound="high", warmth="warm")
        self.hands.sizes(*USUAL, (Property.WEB_TEMPERATURE, "240"), (Property.PIN_TEMPERATURE, "210"))
        self.assertEqual(self.displayed_verdict().headline, "Too hot")
        self.assertIn("releases at 220 °C to 300 °C", self.hands.page())
        self.hands.choose(scrap="scrap")
        self.hands.tick_all()
        self.assertNotEqual(self.displayed_verdict().state, "stop")
        self.assertIn("Hot retaining compound gives off fumes", self.hands.page())

    def test_a_taper_is_restrained_because_it_lets_go_at_once(self):
        self.hands.choose(joint="taper")
        self.hands.sizes()
        self.hands.of(Property.PIN_TAPER, "10")
        self.hands.tick_all()
        self.assertIn("Restrain it: a taper releases all at once", self.displayed_verdict().next_step)
        self.assertIn("stand aside, never over it", self.hands.page())

    def test_the_peak_is_read_against_what_was_planned(self):
        self.hands.sizes()
        self.hands.tick_all()
        for peak, words in (("5 kN", "Joint was loose"), ("30 kN", "Parted as planned"), ("95 kN", "Harder than planned")):
            self.hands.peak(peak)
            self.assertEqual(self.displayed_verdict().headline, words)
        self.hands.peak("3 t")
        self.hands.answer("parts-order", "")
        self.hands.answer("scored", "no")
        self.hands.act("sign")
        result = self.hands.entry.result
        said = (self.hands.entry.call_state, result["peak_n"], result["press"], result["scored"])
        self.assertEqual(said, ("in", 29420, "Bottle press", False))

    def test_a_press_that_shows_tons_takes_tons(self):
        self.small_press("12 t", 117_680.0)
        self.hands.sizes()
        self.hands.tick_all()
        self.assertEqual(self.hands.work().next_question.unit, "t")
        self.hands.peak("3")
        self.assertAlmostEqual(self.hands.work().analysis.peak_n, 29_420, delta=1)

    def test_a_bare_ton_is_refused_with_its_meanings(self):
        self.hands.sizes()
        self.hands.tick_all()
        self.assertIn("short ton", self.hands.peak("3 ton"))

    def test_a_web_that_cannot_hold_such_a_hole_is_refused_at_the_field(self):
        self.hands.of(Property.PIN_SHOWN, "22")
        self.hands.of(Property.PIN_LENGTH, "16")
        self.hands.of(Property.WEB_WALL, "10")
        self.assertIn("needs a web at least 42.0 mm wide", self.hands.of(Property.WEB_WIDTH, "38"))
        self.hands.of(Property.WEB_WIDTH, "80")
        self.assertIn("A 22.0 mm pin cannot have a hole as large", self.hands.of(Property.PIN_BORE, "22"))

    def test_several_throws_write_their_phase_down_before_anything_moves(self):
        EngineCard.objects.update(layout="twin")
        self.assertEqual(self.hands.work().next_question.key, "throw-angle")

    def test_the_drawing_holds_the_set_up_and_the_scale(self):
        self.hands.sizes()
        self.hands.tick_all()
        drawing = str(self.hands.work().drawing())
        for words in ("ram", "guard", "pin 22", "likely", "needle"):
            self.assertIn(words, drawing)


class FromApart(PressCase):
    station = "together"

    def test_what_apart_measured_is_offered_and_what_must_be_measured_again_is_not(self):
        apart = Presser(self.made)
        apart.choose(sizes="measured")
        apart.sizes(*MEASURED)
        asked = {question.slot.what: question for question in self.hands.work().current_questions}
        self.assertEqual(asked[Property.WEB_WIDTH].offer.value, 80.0)
        self.assertIn("Apart has 22.064 mm", asked[Property.PIN_DIAMETER].where)
        for what in (
            Property.PIN_DIAMETER,
            Property.PIN_HOLE,
            Property.PIN_LENGTH,
            Property.WEB_WALL,
            Property.WEB_WIDTH,
            Property.PIN_BORE,
        ):
            self.hands.of(what, "")
        work = self.hands.work()
        self.assertAlmostEqual(work.analysis.grip.value, 0.063)
        self.assertIsNotNone(work.analysis.plan)


class Together(PressCase):
    station = "together"

    def pressed(self, peak="28 kN", widths=("55.96", "55.95", "55.94", "55.95"), side="0.34"):
        self.hands.sizes(*MEASURED)
        self.hands.tick_all()
        self.hands.answer("width-as-it-goes", "57.2")
        self.hands.answer("width-as-it-goes", "")
        self.hands.peak(peak)
        for fact_key, text in zip(WIDTHS, widths, strict=True):
            self.hands.answer(fact_key.key, text)
        self.hands.answer(SIDE_PLAY.key, side)

    def test_pin_and_hole_are_measured_before_any_force(self):
        self.assertEqual(self.hands.work().next_question.slot, at(Property.PIN_DIAMETER))
        self.hands.sizes((Property.PIN_DIAMETER, "22.000"), (Property.PIN_HOLE, "22.010"))
        self.assertEqual((self.displayed_verdict().state, self.displayed_verdict().headline), ("stop", "No interference"))

    def test_square_started_first(self):
        self.hands.sizes(*MEASURED)
        self.assertEqual(self.displayed_verdict().headline, "Square it first")

    def test_width_as_it_goes_is_asked_until_it_is_left(self):
        self.hands.sizes(*MEASURED)
        self.hands.tick_all()
        for text in ("58.1", "57.2"):
            self.hands.answer("width-as-it-goes", text)
            self.assertEqual(self.hands.work().next_question.key, "width-as-it-goes")
        self.hands.answer("width-as-it-goes", "")
        work = self.hands.work()
        self.assertEqual((work.next_question.slot.what, work.answers.values("width-as-it-goes")), (Property.PRESS_PEAK, [58.1, 57.2]))

    def test_a_peak_under_the_low_estimate_must_not_be_used(self):
        self.pressed(peak="6 kN")
        verdict = self.displayed_verdict()
        self.assertEqual((verdict.state, verdict.headline), ("out", "Joint is loose"))
        self.assertIn("would turn under load", verdict.next_step)

    def test_square_gripped_and_with_its_side_play_it_goes_on_to_truing(self):
        Spec.objects.create(
            card=self.made.card, name="Big-end side play", property="big-end-side-play", low=0.15, high=0.55, source="page 63"
        )
        self.pressed()
        self.assertEqual((self.displayed_verdict().state, self.displayed_verdict().headline), ("in", "Joint is tight and square"))
        self.hands.act("sign")
        result = self.hands.entry.result
        self.assertEqual((result["evidence"], result["side_play_mm"], result["widths_mm"]), ("in", 0.34, [55.96, 55.95, 55.94, 55.95]))

    def test_side_play_lost_in_the_pressing_is_out(self):
        Spec.objects.create(
            card=self.made.card, name="Big-end side play", property="big-end-side-play", low=0.15, high=0.55, source="page 63"
        )
        self.pressed(side="0.08")
        self.assertEqual((self.displayed_verdict().state, self.displayed_verdict().headline), ("out", "Side play is out"))
        self.assertIn("Wedge or squeeze", self.displayed_verdict().next_step)

    def test_webs_pressed_crooked_are_out(self):
        self.pressed(widths=("56.10", "55.95", "55.80", "55.95"))
        self.assertEqual(self.displayed_verdict().headline, "Webs are not parallel")

    def test_throws_that_stand_otherwise_than_they_were_marked_are_out(self):
        EngineCard.objects.update(layout="twin")
        apart = Presser(self.made)
        apart.answer("throw-angle", "180")
        apart.sizes()
        apart.tick_all()
        apart.peak("30 kN")
        apart.answer("parts-order", "")
        apart.answer("scored", "no")
        apart.act("sign")
        self.pressed()
        self.hands.answer("throw-angle", "181.2")
        self.assertEqual((self.displayed_verdict().state, self.displayed_verdict().headline), ("out", "Throws are turned"))
        self.hands.answer("throw-angle", "180.1")
        self.assertEqual(self.displayed_verdict().state, "in")


class TheRod(PressCase):
    """Tests of the direction of the rod's oil slot, which is noted at Press apart and checked at Press together."""

    station = "together"

    def test_a_rod_the_other_way_round_is_stop_before_anything_is_pressed(self):
        apart = Presser(self.made)
        apart.sizes()
        apart.tick_all()
        apart.peak("36 kN")
        for key, text in ((OIL_SLOT.key, "left"), ("parts-order", ""), ("scored", "no")):
            apart.answer(key, text)
        apart.act("sign")
        self.hands.answer(OIL_SLOT.key, "right")
        self.hands.sizes(*MEASURED)
        self.assertEqual((self.displayed_verdict().state, self.displayed_verdict().headline), ("stop", "Rod is the other way round"))
        self.assertIn("faced the drive side", self.displayed_verdict().reason)
        self.hands.answer(OIL_SLOT.key, "left")
        self.assertNotEqual(self.displayed_verdict().state, "stop")
