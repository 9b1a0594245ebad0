from __future__ import annotations

from django.test import TestCase

from engines.models import EngineCard, Seat, Spec
from shop.models import Compound, Gauge
from stations.inspect import figures
from stations.inspect.asks import ROUND
from stations.split.tests import Halves
from tests.shed import job


class Looker(Halves):
    """Hands at Inspect."""

    key = "inspect"

    def bearing(self, seat, mark="", hit="no", known="yes", feel="clean", races="no"):
        for key, text in (("mark", mark), ("hit", hit), ("known", known), ("feel", feel), ("races", races)):
            self.answer(f"{seat.pk}-{key}", text)

    def diameters(self, seat, *values, warm=""):
        self.answer(f"{seat.pk}-warm", warm)
        for place, value in zip(ROUND, values, strict=False):
            self.answer(f"{seat.pk}-{place}", f"{value:.4f}")

    def to(self, seat):
        self.choose(part=f"s{seat.pk}")

    def widths(self, *values):
        for key, value in zip(("pin", "90", "180", "270"), values, strict=True):
            self.answer(f"width-{key}", f"{value:.3f}")


class InspectCase(TestCase):
    def setUp(self):
        self.made = job(order="bottom-end")
        self.seat = self.made.card.seats.get()
        for kind, repeatability in (("bore", 0.0008), ("micrometer", 0.0008), ("feeler", 0.002)):
            Gauge.objects.filter(kind=kind).update(repeatability=repeatability, last_checked="2026-11-01")
        Gauge.objects.first().save()  # the shelves notice
        self.hands = Looker(self.made)

    def plate(self):
        return self.hands.work().plate()


class TheCrank(InspectCase):
    def test_it_asks_the_crank_first_and_tells_the_two_plays_apart(self):
        work = self.hands.work()
        self.assertEqual(work.next_ask.key, "radial-1")
        self.assertIn("Up and down along the throw is wear", work.plate().line)
        self.hands.answer("radial-1", "0")
        self.assertIn("Side to side is design", self.plate().line)
        self.assertIn("wear: none to be felt", str(self.hands.work().drawing()))
        self.assertIn("design: the card says how much", str(self.hands.work().drawing()))

    def test_side_play_is_judged_by_the_card_with_its_page(self):
        Spec.objects.create(
            card=self.made.card, name="Big-end side play", property="big-end-side-play", low=0.15, high=0.55, source="page 63"
        )
        self.hands.answer("side-1", "0.70")
        found = self.hands.work().figures_of("crank")[0]
        self.assertEqual((found.call.state, found.source), ("out", "manual page 63"))

    def test_without_a_limit_a_figure_is_kept_and_not_judged(self):
        self.hands.answer("radial-1", "0.02")
        found = self.hands.work().figures_of("crank")[0]
        self.assertIsNone(found.call)
        self.assertIn("no limit on the card", found.source)
        for ask in self.hands.work().open_in("crank"):
            self.hands.answer(ask.key, {"cracks": "none", "masses": "same"}.get(ask.key, ""))
        self.assertEqual(self.plate().words, "Kept, not judged")

    def test_webs_that_are_not_parallel_are_out_by_the_shops_rule(self):
        self.hands.widths(56.02, 55.95, 55.91, 55.95)
        spread = self.hands.work().figures_of("crank")[1]
        self.assertEqual((spread.call.state, spread.source), ("out", "shop rule"))
        self.assertAlmostEqual(spread.value, 0.11)

    def test_two_rods_are_felt_one_by_one(self):
        EngineCard.objects.update(layout="twin")
        keys = [ask.key for ask in self.hands.work().asks()]
        self.assertIn("radial-2", keys)
        self.assertIn("side-2", keys)

    def test_damage_is_stop_until_it_is_decided(self):
        for ask in self.hands.work().open_in("crank"):
            self.hands.answer(ask.key, {"cracks": "found", "masses": "same"}.get(ask.key, ""))
        self.hands.answer("damage", "hairline at the left dowel")
        plate = self.plate()
        self.assertEqual((plate.state, plate.line), ("stop", "hairline at the left dowel"))

    def test_other_masses_give_the_balance_factor_before_the_crank_goes_together(self):
        self.hands.answer("masses", "other")
        self.hands.choose(part="masses")
        for ask, text in (("hung", "85 g"), ("smallend", "62"), ("recip", "335 g"), ("before", "310 g")):
            self.hands.answer(ask, text)
        plate = self.plate()
        self.assertEqual(plate.words, "Factor 0.439")
        self.assertIn("0.474 as it was, 0.439 with the new masses: it answers less of them", plate.line)
        self.assertIn("97 g must hang it level", plate.move)
        self.assertIn("is not believable", self.hands.answer("recip", "335 kg"))

    def test_an_unbelievable_reading_is_refused_and_kept_in_the_field(self):
        page = self.hands.answer("radial-1", "12 mm")
        self.assertIn("is not believable", page)
        self.assertIn('value="12 mm"', page)


class TheSeats(InspectCase):
    """47 N7: 46.967 to 46.992."""

    def setUp(self):
        super().setUp()
        self.hands.to(self.seat)

    def test_a_seat_within_its_code_and_a_bearing_with_a_past_stay(self):
        self.hands.bearing(self.seat)
        self.hands.diameters(self.seat, 46.980, 46.981, 46.982, 46.980, 46.981, 46.982)
        self.hands.answer(f"{self.seat.pk}-ring", "")
        plate = self.plate()
        self.assertEqual((plate.state, plate.words), ("in", "Keep the bearing"))
        self.assertIn("46.981 mm is", plate.detail)

    def test_size_taper_and_ovality_are_told_apart(self):
        self.hands.diameters(self.seat, 46.970, 46.972, 46.989, 46.974, 46.976, 46.993)
        size, taper, oval = self.hands.work().figures_of(f"s{self.seat.pk}")
        self.assertAlmostEqual(size.value, 46.979, places=3)
        self.assertAlmostEqual(taper.value, 0.004, places=4)
        self.assertEqual(oval.call.state, "out")
        self.assertIn("half the width of N7", oval.source)

    def test_a_seat_that_lost_its_grip_gets_its_decision_with_reasons(self):
        Compound.objects.create(name="Green retaining", kind="retaining", gap_mm=0.1)
        self.hands.bearing(self.seat)
        self.hands.diameters(self.seat, *[47.030] * 6)
        self.hands.answer(f"{self.seat.pk}-ring", "46.992")
        self.hands.answer(f"{self.seat.pk}-wall", "9")
        plate = self.plate()
        self.assertEqual((plate.state, plate.words), ("out", "Size is out"))
        self.assertIn("Retaining compound: 0.04", plate.move)
        self.hands.answer(f"{self.seat.pk}-mend", "sleeve")
        self.assertIn("Bore and sleeve: 9 mm of metal takes", self.plate().move)
        self.hands.act("sign")
        result = self.hands.entry.result
        self.assertEqual((self.hands.entry.call_state, result["mends"]), ("out", {"Main, drive side": "sleeve"}))

    def test_a_call_too_close_says_how_many_readings_settle_it_and_they_do(self):
        self.hands.bearing(self.seat)
        self.hands.diameters(self.seat, *[46.9907] * 6)
        self.hands.answer(f"{self.seat.pk}-ring", "")
        work = self.hands.work()
        self.assertEqual(work.plate().words, "Size too close")
        figure, readings = work.settling()
        self.assertIn(f"{readings} readings in all would settle it", work.plate().move)
        self.hands.act("more")
        work = self.hands.work()
        self.assertEqual(work.next_ask.key, f"{self.seat.pk}-m0")
        for _ in range(readings - 1):
            self.hands.diameters(self.seat, *[46.9907] * 6)
        work = self.hands.work()
        self.assertEqual((len(work.values(f"{self.seat.pk}-m0")), work.next_ask), (readings, None))
        self.assertLess(work.figures_of(f"s{self.seat.pk}")[0].doubt, figure.doubt)
        self.assertEqual(work.plate().state, "in")

    def test_a_gauge_not_checked_for_a_year_is_less_sure(self):
        self.hands.diameters(self.seat, 46.980)
        sure = self.hands.work().unsure(f"{self.seat.pk}-m0")
        Gauge.objects.filter(kind="bore").update(last_checked="2024-01-01")
        self.assertGreater(self.hands.work().unsure(f"{self.seat.pk}-m0"), sure)

    def test_a_part_measured_warm_is_corrected_and_one_too_warm_gets_no_verdict(self):
        self.hands.diameters(self.seat, *[46.9845] * 6, warm="30")
        found = figures.diameters(self.hands.work(), self.seat)
        self.assertAlmostEqual(found[0], 46.9800, places=3)
        self.hands.answer(f"{self.seat.pk}-warm", "60")
        self.assertIsNone(self.hands.work().figures_of(f"s{self.seat.pk}")[0].call)
        self.hands.bearing(self.seat)
        self.hands.answer(f"{self.seat.pk}-ring", "")
        self.assertIn("Let it come to the room", self.plate().detail)

    def test_a_bearing_hit_through_its_balls_goes_whatever_it_feels_like(self):
        self.hands.bearing(self.seat, hit="yes")
        self.hands.diameters(self.seat)
        self.hands.answer(f"{self.seat.pk}-m0", "")
        self.hands.answer(f"{self.seat.pk}-ring", "")
        plate = self.plate()
        self.assertEqual((plate.state, plate.words), ("out", "Replace the bearing"))
        self.assertIn("dented where nobody sees it", plate.line)

    def test_the_marking_is_decoded_and_a_difference_from_the_card_is_raised(self):
        self.hands.answer(f"{self.seat.pk}-mark", "6204-2RS C4")
        work = self.hands.work()
        self.assertEqual(work.contradictions()[0]["found"], "6204-2RS C4")
        self.assertIn(f"{self.seat.pk}-slow", [ask.key for ask in work.asks()])  # sealed: slow and hard to reach is asked
        self.assertIn("sealed both sides", work.note(work.last(f"{self.seat.pk}-mark")))
        self.assertIn("the card says 6204 C3. Raised, and kept", self.hands.page())
        self.assertIn("strip-words", self.hands.answer(f"{self.seat.pk}-mark", "qqq"))
        self.assertEqual(self.hands.work().said(f"{self.seat.pk}-mark"), "6204-2RS C4")

    def test_clearance_left_is_an_estimate_cold_and_warm_from_the_measured_fit(self):
        self.hands.diameters(self.seat, *[46.970] * 6)
        tight = figures.clearances(self.hands.work(), self.seat)
        for place in ROUND:
            self.hands.answer(f"{self.seat.pk}-{place}", "46.990")
        slack = figures.clearances(self.hands.work(), self.seat)
        self.assertLess(tight[0].high_um, slack[0].high_um)
        labels = [trace.label for trace in self.hands.work().traces() if trace.estimated]
        self.assertEqual(labels, ["Clearance left, cold", "Clearance left, warm"])

    def test_a_journal_is_read_with_the_micrometer_and_its_lobes_over_a_vee(self):
        Seat.objects.update(on="shaft", code="k5", half="crank")
        self.hands.diameters(self.seat, *[20.006] * 6)
        self.assertEqual(self.hands.work().last(f"{self.seat.pk}-m0").gauge.kind, "micrometer")
        self.hands.answer(f"{self.seat.pk}-vee", "0.060")
        lobes = self.hands.work().figures_of(f"s{self.seat.pk}")[3]
        self.assertAlmostEqual(lobes.value, 0.030, places=4)
        self.assertEqual(lobes.call.state, "out")

    def test_the_drawing_shows_the_shape_large_and_the_size_on_its_rule(self):
        self.assertIn("its shape is drawn here, large", str(self.hands.work().drawing()))
        self.hands.diameters(self.seat, 46.980, 46.984, 46.982, 46.980, 46.984, 46.982)
        work = self.hands.work()
        work.papers = ("wide", "narrow")
        drawing = str(work.drawing())
        self.assertRegex(drawing, r"oval 0\.005, taper [-−+]?0\.000; drawn ×\d+")
        self.assertIn("46.967", drawing)
        self.assertNotIn("nan", drawing)

    def test_the_words_lead_from_part_to_part_and_the_worst_is_signed(self):
        self.hands.choose(part="crank")
        for ask in self.hands.work().open_in("crank"):
            self.hands.answer(ask.key, {"cracks": "none", "masses": "same"}.get(ask.key, ""))
        self.assertEqual(self.hands.work().actions()[0].words, "On to Main, drive side")
        self.hands.act("next")
        self.assertEqual(self.hands.work().part, f"s{self.seat.pk}")
        self.hands.bearing(self.seat, known="no")
        self.hands.diameters(self.seat, *[46.980] * 6)
        self.hands.act("sign")
        self.assertEqual((self.hands.entry.call_state, self.hands.entry.call_words), ("out", "Bearings to be replaced"))
        self.assertEqual(self.hands.entry.result["bearings"]["Main, drive side"]["verdict"], "replace")
