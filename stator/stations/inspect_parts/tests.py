from __future__ import annotations

import re
from datetime import date
from itertools import combinations

from django.test import TestCase

from stator.engines.fact_keys import FactKey
from stator.engines.models import EngineCard, Seat, Spec
from stator.engines.parts import CRANK, rod
from stator.engines.properties import Property
from stator.jobs.models import DerivedFact, Entry
from stator.shop.models import Compound, Gauge
from stator.stations.inspect_parts.analysis import WIDTHS
from stator.stations.inspect_parts.questions import next_tab
from stator.stations.inspect_parts.seats import ROUND
from stator.stations.split_crankcase.tests import Halves
from stator.ui.labels import GAP, Box, box_of
from tests.factories import job

RADIAL, SIDE = FactKey(rod(1), Property.BIG_END_RADIAL_PLAY), FactKey(rod(1), Property.BIG_END_SIDE_PLAY)
MASSES = (
    FactKey(CRANK, Property.HUNG_MASS),
    FactKey(rod(1), Property.SMALL_END_MASS),
    FactKey(CRANK, Property.RECIPROCATING_MASS),
    FactKey(CRANK, Property.RECIPROCATING_MASS_BEFORE),
)


class Looker(Halves):
    """Hands at Inspect."""

    key = "inspect"

    def say(self, slot, text):
        return self.answer(slot.key, text)

    def of(self, seat, what, text):
        return self.say(FactKey(seat.part, what), text)

    def bearing(self, seat, mark="", hit="no", history="yes", feel="clean", races="no"):
        answers = (mark, hit, history, feel, races)
        questions = ("BEARING_MARKING", "HIT_THROUGH_BALLS", "BEARING_HISTORY", "BEARING_FEEL", "RACES")
        for what, text in zip(questions, answers, strict=True):
            self.of(seat, Property[what], text)

    def diameters(self, seat, *values, warm=""):
        self.of(seat, Property.SEAT_TEMPERATURE, warm)
        for place, value in zip(ROUND, values, strict=False):
            self.say(FactKey(seat.part, Property.SEAT_DIAMETER, place), f"{value:.4f}")

    def to(self, seat):
        self.choose(part=seat.part.uid)

    def the_crank(self, **answers):
        """The whole crank: nothing measured, but what is answered."""
        for question in [question for question in self.work().current_questions if not question.quiet]:
            self.answer(question.key, {"damage": "none", "masses": "same", **answers}.get(question.key, ""))

    @property
    def found(self):
        return self.work().analysis

    def seat_found(self, seat):
        return next(each for each in self.found.seats if each.part == seat.part)


class InspectCase(TestCase):
    def setUp(self):
        self.made = job(order="bottom-end")
        self.seat = self.made.card.seats.get()
        for kind, repeatability in (("bore", 0.0008), ("micrometer", 0.0008), ("feeler", 0.002)):
            Gauge.objects.filter(kind=kind).update(repeatability=repeatability, last_checked="2026-11-01")
        Gauge.objects.first().save()  # the shelves notice
        self.hands = Looker(self.made)

    def displayed_verdict(self):
        return self.hands.work().displayed_verdict()

    def figures(self):
        return {each.code: each for each in self.hands.seat_found(self.seat).figures}

    def across(self, index=0):
        return FactKey(self.seat.part, Property.SEAT_DIAMETER, ROUND[index])


class TheCrank(InspectCase):
    def test_it_asks_the_crank_first_and_tells_the_two_plays_apart(self):
        work = self.hands.work()
        self.assertEqual(work.next_question.slot, RADIAL)
        self.assertIn("Up and down along the throw is wear", work.displayed_verdict().reason)
        self.hands.say(RADIAL, "0")
        self.assertIn("Side to side is design", self.displayed_verdict().reason)
        self.assertIn("wear: none to be felt", str(self.hands.work().drawing()))
        self.assertIn("design: the card says how much", str(self.hands.work().drawing()))

    def test_side_play_is_judged_by_the_card_with_its_page(self):
        Spec.objects.create(
            card=self.made.card, name="Big-end side play", property="big-end-side-play", low=0.15, high=0.55, source="page 63"
        )
        self.hands.say(SIDE, "0.70")
        found = self.hands.found.crank_figures[0]
        self.assertEqual((found.state, found.bounds.source.values), ("out", {"origin": "manual page 63"}))

    def test_small_end_play_is_not_judged_by_the_limits_of_the_bore(self):
        Spec.objects.create(card=self.made.card, name="Small-end bore", property="small-end-bore", low=16.0, high=16.02)
        self.hands.say(FactKey(rod(1), Property.SMALL_END_PLAY), "0.02")
        self.assertEqual(self.hands.found.crank_figures[0].state, "")

    def test_the_tilt_of_the_small_end_is_asked_where_the_card_limits_it_and_tells_the_radial_play(self):
        tilt = FactKey(rod(1), Property.SMALL_END_TILT)
        asked = {question.slot: question.quiet for question in self.hands.work().current_questions}
        self.assertTrue(asked[tilt])
        Spec.objects.create(card=self.made.card, name="Rod tilt", property="small-end-tilt", high=2.0, source="page 64")
        self.assertFalse(next(question.quiet for question in self.hands.work().current_questions if question.slot == tilt))
        for what, text in ((Property.SMALL_END_TILT, "2.6"), (Property.ROD_LENGTH, "110"), (Property.BIG_END_WIDTH, "16")):
            self.hands.say(FactKey(rod(1), what), text)
        found = next(each for each in self.hands.found.crank_figures if each.code == Property.SMALL_END_TILT)
        self.assertEqual(found.state, "out")
        self.assertAlmostEqual(self.hands.found.play_by_tilt, 0.378, places=3)
        self.assertIn("0.38 mm", [source.value for source in self.hands.work().sources()])

    def test_without_a_limit_a_figure_is_recorded_and_not_judged(self):
        self.hands.say(RADIAL, "0.02")
        found = self.hands.found.crank_figures[0]
        self.assertIsNone(found.call)
        self.assertEqual(found.bounds.source.code, "none")
        self.hands.the_crank(**{RADIAL.key: "0.02"})
        self.assertEqual(self.displayed_verdict().code, "recorded")

    def test_webs_that_are_not_parallel_are_out_by_the_shops_rule(self):
        for fact_key, value in zip(WIDTHS, ("56.02", "55.95", "55.91", "55.95"), strict=True):
            self.hands.say(fact_key, value)
        spread = self.hands.found.crank_figures[1]
        self.assertEqual((spread.code, spread.state, spread.bounds.source.code), ("parallel", "out", "shop_rule"))
        self.assertAlmostEqual(spread.value, 0.11)

    def test_two_rods_are_felt_one_by_one(self):
        EngineCard.objects.update(layout="twin")
        questions = [question.slot for question in self.hands.work().questions()]
        self.assertIn(FactKey(rod(2), Property.BIG_END_RADIAL_PLAY), questions)
        self.assertIn(FactKey(rod(2), Property.BIG_END_SIDE_PLAY), questions)
        self.hands.say(FactKey(rod(2), Property.BIG_END_SIDE_PLAY), "0.40")
        self.assertEqual(self.hands.work().latest.question.text, "Side play of rod 2")

    def test_damage_is_stop_until_it_is_decided(self):
        self.hands.the_crank(damage="found")
        self.hands.answer("damage-where", "hairline at the left dowel")
        verdict = self.displayed_verdict()
        self.assertEqual((verdict.state, verdict.code, verdict.reason), ("stop", "damaged", "Hairline at the left dowel"))

    def test_a_figure_that_is_out_or_close_hides_no_damage(self):
        Spec.objects.create(
            card=self.made.card, name="Big-end side play", property="big-end-side-play", low=0.15, high=0.55, source="page 63"
        )
        for play in ("0.70", "0.55"):
            self.hands.the_crank(**{SIDE.key: play, "damage": "found"})
            self.hands.answer("damage-where", "hairline at the left dowel")
            self.assertEqual((self.displayed_verdict().state, self.displayed_verdict().code), ("stop", "damaged"))

    def test_what_is_read_of_two_rods_lies_over_nothing_else_on_a_desk_and_on_a_phone(self):
        EngineCard.objects.update(layout="twin")
        for each in (1, 2):
            self.hands.say(FactKey(rod(each), Property.BIG_END_RADIAL_PLAY), "0.000")
        for drawing in str(self.hands.work().drawing()).split("<svg")[1:]:
            texts = re.findall(r'<text x="([\d.-]+)" y="([\d.-]+)" class="label ([^"]*)" text-anchor="(\w+)">([^<]*)<', drawing)
            self.assertTrue([said for *_, said in texts if "rod 2" in said])
            around = [(said, box_of((float(x), float(y)), said, cls, anchor)) for x, y, cls, anchor, said in texts]
            boxes = [(said, Box(at.left + GAP, at.top + GAP, at.right - GAP, at.bottom - GAP)) for said, at in around]
            over = [(one, other) for (one, here), (other, there) in combinations(boxes, 2) if here.overlap(there)]
            self.assertEqual(over, [])

    def test_a_rod_over_two_bars_is_bent_or_not_and_nobody_is_led_to_it(self):
        self.hands.the_crank()
        self.assertNotEqual(next_tab(self.hands.found), "rod")
        self.hands.choose(part="rod")
        self.hands.answer(FactKey(rod(1), Property.BAR_SPAN).key, "80")
        bars = self.hands.found.bar
        for end, lies, text in (("small", "upright", "0.09"), ("big", "upright", "0.01"), ("small", "flat", "0.02"), ("big", "flat", "")):
            self.hands.answer(bars(end, lies).key, text)
        bend, twist = self.hands.found.rod_figures
        self.assertAlmostEqual(bend.value, 0.1)
        self.assertAlmostEqual(twist.value, 0.025)
        self.assertEqual((bend.state, twist.state, self.displayed_verdict().state), ("out", "in", "out"))
        self.assertIn("Bend of the rod", self.displayed_verdict().headline)
        self.assertIn("bar in the big end level", str(self.displayed_verdict().assumed))  # of the twist
        self.assertIn("rod-kit", [each.text for each in self.hands.work().findings()])

    def test_other_masses_give_the_balance_factor_before_the_crank_goes_together(self):
        self.hands.answer("masses", "other")
        self.hands.choose(part="masses")
        for fact_key, text in zip(MASSES, ("85 g", "62", "335 g", "310 g"), strict=True):
            self.hands.say(fact_key, text)
        verdict = self.displayed_verdict()
        self.assertEqual(verdict.headline, "Balance factor 0.439")
        self.assertIn("0.474 as it was, 0.439 with the new masses: the crank balances less of them", verdict.reason)
        self.assertIn("97 g must hang it level", verdict.next_step)
        self.assertIn("is not believable", self.hands.say(MASSES[2], "335 kg"))

    def test_an_unbelievable_reading_is_refused_and_kept_in_the_field(self):
        page = self.hands.say(RADIAL, "12 mm")
        self.assertIn("is not believable", page)
        self.assertIn('value="12 mm"', page)


class TheSeats(InspectCase):
    """47 N7: 46.967 to 46.992."""

    def setUp(self):
        super().setUp()
        self.hands.to(self.seat)

    def ring(self, text=""):
        self.hands.of(self.seat, Property.RING_DIAMETER, text)

    def test_a_seat_within_its_code_and_a_bearing_with_a_past_stay(self):
        self.hands.bearing(self.seat)
        self.hands.diameters(self.seat, 46.980, 46.981, 46.982, 46.980, 46.981, 46.982)
        self.ring()
        verdict = self.displayed_verdict()
        self.assertEqual((verdict.state, verdict.code), ("in", "keep"))
        self.assertIn("46.981", verdict.detail)

    def test_size_taper_and_ovality_are_told_apart(self):
        self.hands.diameters(self.seat, 46.970, 46.972, 46.989, 46.974, 46.976, 46.993)
        found = self.figures()
        self.assertAlmostEqual(found["size"].value, 46.979, places=3)
        self.assertAlmostEqual(found["taper"].value, 0.004, places=4)
        self.assertEqual(found["ovality"].state, "out")
        self.assertEqual(found["ovality"].bounds.source.code, "half_width")

    def test_a_diameter_far_from_the_seats_size_is_not_believed(self):
        self.assertIn("About 46.0 to 48.0 mm is possible", self.hands.say(self.across(), "4.698"))
        self.assertEqual(self.hands.found.own.all(self.across()), [])

    def test_a_seat_that_lost_its_grip_gets_its_decision_with_reasons(self):
        Compound.objects.create(name="Green retaining", kind="retaining", gap_mm=0.1)
        self.hands.bearing(self.seat)
        self.hands.diameters(self.seat, *[47.030] * 6)
        self.ring("46.992")
        self.hands.of(self.seat, Property.WALL_THICKNESS, "9")
        verdict = self.displayed_verdict()
        self.assertEqual((verdict.state, verdict.code, verdict.headline), ("out", "figure out", "Size is out"))
        self.assertIn("Retaining compound: 0.04", verdict.next_step)
        self.hands.of(self.seat, Property.SEAT_MEND, "sleeve")
        self.assertIn("Bore and sleeve: 9.0 mm of metal takes", self.displayed_verdict().next_step)
        self.hands.act("sign")
        result = self.hands.entry.result
        self.assertEqual((self.hands.entry.call_state, result["mends"]), ("out", {"Main, drive side": "sleeve"}))
        values = {fact.property: fact.text for fact in DerivedFact.objects.filter(entry=self.hands.entry)}
        self.assertEqual((values["seat-verdict"], values["bearing-decision"]), ("out", "keep"))

    def test_a_call_too_close_says_how_many_readings_settle_it_and_they_do(self):
        self.hands.bearing(self.seat)
        self.hands.diameters(self.seat, *[46.9907] * 6)
        self.ring()
        work = self.hands.work()
        self.assertEqual(work.displayed_verdict().headline, "Size too close")
        value, readings = work.analysis.settling
        self.assertIn(f"{readings} readings in all would settle it", work.displayed_verdict().next_step)
        self.hands.act("more")
        work = self.hands.work()
        self.assertEqual(work.next_question.slot, self.across())
        for _ in range(readings - 1):
            self.hands.diameters(self.seat, *[46.9907] * 6)
        work = self.hands.work()
        self.assertEqual((len(work.entry_data.all(self.across())), work.next_question), (readings, None))
        self.assertLess(self.figures()["size"].uncertainty, value.uncertainty)
        self.assertEqual(work.displayed_verdict().state, "in")

    def test_a_gauge_not_checked_for_a_year_is_less_sure(self):
        self.hands.diameters(self.seat, 46.980)
        sure = self.hands.found.own.fact(self.across()).uncertainty
        bore = Gauge.objects.get(kind="bore")
        bore.last_checked = date(2024, 1, 1)
        bore.save()
        self.assertGreater(self.hands.found.own.fact(self.across()).uncertainty, sure)

    def test_a_part_measured_warm_is_corrected_and_one_too_warm_gets_no_verdict(self):
        self.hands.diameters(self.seat, *[46.9845] * 6, warm="30")
        self.assertAlmostEqual(self.hands.seat_found(self.seat).diameters[0], 46.9800, places=3)
        self.hands.of(self.seat, Property.SEAT_TEMPERATURE, "60")
        self.hands.act("sign")  # refused: the bearing is not looked at
        self.assertIsNone(self.figures()["size"].call)
        self.hands.bearing(self.seat)
        self.ring()
        self.assertIn("Let it come to the room", self.displayed_verdict().detail)

    def test_a_bearing_hit_through_its_balls_goes_whatever_it_feels_like(self):
        self.hands.bearing(self.seat, hit="yes")
        self.hands.diameters(self.seat)
        self.hands.say(self.across(), "")
        self.ring()
        verdict = self.displayed_verdict()
        self.assertEqual((verdict.state, verdict.code), ("out", "replace"))
        self.assertIn("dented where nobody sees it", verdict.reason)

    def test_a_size_too_close_hides_no_bearing_that_goes_when_it_is_signed(self):
        self.hands.bearing(self.seat, hit="yes")
        self.hands.diameters(self.seat, *[46.9907] * 6)
        self.ring()
        self.assertEqual(
            (self.displayed_verdict().state, self.displayed_verdict().headline), ("too_close", "Size too close")
        )  # what to measure next
        self.hands.act("sign")
        self.assertEqual((self.hands.entry.call_state, self.hands.entry.call_code), ("out", "bearings replaced"))

    def test_the_marking_is_decoded_and_a_difference_from_the_card_is_raised(self):
        marking = FactKey(self.seat.part, Property.BEARING_MARKING)
        self.hands.say(marking, "6204-2RS C4")
        work = self.hands.work()
        self.assertEqual(work.contradictions()[0]["found"], "6204-2RS C4")
        self.assertIn(
            Property.SLOW_AND_HIDDEN, [question.slot.what for question in work.questions()]
        )  # sealed: slow and hard to reach is asked
        self.assertIn("sealed both sides", work.note(work.answers.last(marking.key)))
        self.assertIn("the card says 6204 C3. Recorded", self.hands.page())
        self.assertIn("strip-words", self.hands.say(marking, "qqq"))
        self.assertEqual(self.hands.found.own.said(marking), "6204-2RS C4")

    def test_clearance_left_is_an_estimate_cold_and_warm_from_the_measured_fit(self):
        self.hands.diameters(self.seat, *[46.970] * 6)
        tight = self.hands.seat_found(self.seat).clearance_left
        for index in range(6):
            self.hands.say(self.across(index), "46.990")
        slack = self.hands.seat_found(self.seat).clearance_left
        self.assertLess(tight[0].high_um, slack[0].high_um)
        labels = [source.label for source in self.hands.work().sources() if source.estimated]
        self.assertEqual(labels, ["Clearance left, cold", "Clearance left, warm"])

    def test_a_journal_is_read_with_the_micrometer_and_its_lobes_over_a_vee(self):
        Seat.objects.update(on="shaft", code="k5", half="crank")
        self.hands.diameters(self.seat, *[20.006] * 6)
        self.assertEqual(self.hands.work().answers.last(self.across().key).gauge.kind, "micrometer")
        self.hands.of(self.seat, Property.VEE_RUNOUT, "0.060")
        lobes = self.figures()["lobes"]
        self.assertAlmostEqual(lobes.value, 0.030, places=4)
        self.assertEqual(lobes.state, "out")

    def test_the_drawing_shows_the_shape_large_and_the_size_on_its_rule(self):
        self.assertIn("its shape is drawn here, large", str(self.hands.work().drawing()))
        self.hands.diameters(self.seat, 46.980, 46.984, 46.982, 46.980, 46.984, 46.982)
        work = self.hands.work()
        work.papers = ("wide", "narrow")
        drawing = str(work.drawing())
        self.assertRegex(drawing, r"ovality 0\.005, taper 0\.000; drawn ×\d+")
        self.assertIn("46.967", drawing)
        self.assertNotIn("nan", drawing)

    def test_the_words_lead_from_part_to_part_and_the_worst_is_signed(self):
        self.hands.choose(part="crank")
        self.hands.the_crank()
        self.assertEqual(self.hands.work().actions()[0].words, "Go on to Main, drive side")
        self.hands.act("next")
        self.assertEqual(self.hands.found.tab, self.seat.part.uid)
        self.hands.bearing(self.seat, history="no")
        self.hands.diameters(self.seat, *[46.980] * 6)
        self.hands.act("sign")
        entry = self.hands.entry
        self.assertEqual((entry.call_state, entry.call_code), ("out", "bearings replaced"))
        self.assertEqual(entry.result["bearings"]["Main, drive side"], {"verdict": "replace", "reasons": ["no_history"]})

    def test_what_several_readings_came_to_is_on_the_sheet_with_its_limits(self):
        self.hands.bearing(self.seat)
        self.hands.diameters(self.seat, *[46.980] * 6)
        self.hands.the_crank()
        self.hands.act("sign")
        values = {each["words"]: each for each in Entry.objects.get(pk=self.hands.entry.pk).record.content["figures"]}
        size = values["Size of Main, drive side, mean of six"]
        self.assertEqual((size["limits"], size["state"], size["source"]), ("46.967 to 46.992 mm", "in", "N7, ISO 286-1"))
