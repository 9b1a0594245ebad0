from __future__ import annotations

from django.test import SimpleTestCase, TestCase

from stator.engines.fact_keys import FactKey
from stator.engines.models import EngineCard
from stator.engines.parts import CRANK
from stator.engines.properties import Property
from stator.jobs.facts import EntryData, Fact, Facts, GaugeSnapshot, MeasuredReading, Origin
from stator.shop.models import Gauge, PullIn
from stator.stations.install_crank.analysis import GAPS, Code, CrankInstallationAnalysis
from stator.stations.install_crank.questions import questions
from stator.stations.install_crank.verdict import verdict
from stator.stations.split_crankcase.tests import Halves
from tests.factories import job

FEELER = GaugeSnapshot("Feelers", 0.01, 0.003, kind="feeler")
SET_UP = ("end-thread-diameter", "end-thread-pitch", "adapter-turns", "travel")


class Puller(Halves):
    """A mechanic at Install crank."""

    key = "crank-in"

    def set_up(self, d="12.0", pitch="1.25", hand="8", travel="18"):
        for key, text in zip(SET_UP, (d, pitch, hand, travel), strict=True):
            self.answer(key, text)

    def begin(self):
        self.set_up()
        self.tick_all()
        self.act("begin")

    def feel(self, turns, torque):
        self.answer("screw-turns-done", turns)
        self.answer("screw-torque", torque)


class Home(SimpleTestCase):
    """Tests with the crank in the left half and a computed end play of 0.40 mm."""

    def found(self, left, right=None, known=0.40, stays="left"):
        card = EngineCard(crank_stays=stays)
        taken = [MeasuredReading(fact_key, gap, gauge=FEELER) for fact_key, gap in zip(GAPS, (left, right), strict=True) if gap is not None]
        own = EntryData(tuple(taken), (), {"school": "drop"}, skipped=frozenset([GAPS[1].key] if right is None else ()))
        float_slot = FactKey(CRANK, Property.END_FLOAT_PREDICTED)
        facts = (Fact(float_slot, known, "", Origin.MEASURED, uncertainty=0.03, station="end-float"),) if known else ()
        return CrankInstallationAnalysis(card, own, Facts(derived=facts), ())

    def said(self, *gaps, **more):
        judgment = self.found(*gaps, **more).sides
        return (judgment.state, judgment.code) if judgment else None

    def test_one_side_is_held_against_the_end_float(self):
        self.assertEqual(self.said(0.20), ("in", "one_side"))
        self.assertEqual(self.said(0.60), ("out", "over_float"))
        self.assertEqual(self.said(0.20, known=None), ("too_close", "one_side_unknown"))
        self.assertIsNone(self.said(0.20, stays=""))

    def test_equal_gaps_that_contradict_the_end_float_are_not_home(self):
        self.assertEqual(self.said(0.20, 0.20), ("in", "home"))
        self.assertEqual(self.said(0.45, 0.45), ("too_close", "against_float"))
        self.assertEqual(verdict(self.found(0.45, 0.45), []).code, Code.AGAINST_FLOAT)

    def test_the_gap_of_the_half_that_is_not_on_may_be_left_out(self):
        asked = {each.slot: each.optional for each in questions(self.found(0.20)) if each.slot in GAPS}
        self.assertEqual(asked, {GAPS[0]: False, GAPS[1]: True})


class CrankIn(TestCase):
    """A 6204 into a k5 crank: about 3 to 13 N·m on an M16 screw."""

    def setUp(self):
        self.made = job(order="bottom-end")
        PullIn.objects.create(name="Crank puller", thread_mm=12.0, thread_pitch_mm=1.25, pitch_mm=1.5)
        Gauge.objects.filter(kind="feeler").update(repeatability=0.003)
        Gauge.objects.first().save()
        self.hands = Puller(self.made)

    def displayed_verdict(self):
        return self.hands.work().displayed_verdict()

    def test_webs_hammer_and_impact_are_refused_in_words(self):
        for school, words in (("webs", "pinches them"), ("hammer", "dents the balls"), ("impact", "hides the torque")):
            self.hands.choose(school=school)
            rendered = self.displayed_verdict()
            self.assertEqual((rendered.state, rendered.headline), ("stop", "Not that way"))
            self.assertIn(words, rendered.reason)
            self.assertEqual(self.hands.work().questions(), [])

    def test_another_thread_is_stop_before_any_turn(self):
        self.hands.set_up(pitch="1.5")
        self.assertEqual(self.displayed_verdict().headline, "Adapter does not match")
        self.hands.answer("end-thread-pitch", "1.25")
        self.hands.answer("end-thread-diameter", "14")
        self.assertIn("not its thread", self.displayed_verdict().reason)

    def test_too_few_turns_by_hand_are_stop(self):
        self.hands.set_up(hand="4")
        self.assertEqual((self.displayed_verdict().state, self.displayed_verdict().headline), ("stop", "Needs more thread"))

    def test_bars_and_rod_come_before_the_first_turn(self):
        self.hands.set_up()
        self.assertIn("Spacer bars", self.displayed_verdict().next_step)
        self.assertIn("Spacer bars", self.hands.act("begin"))
        self.assertFalse(self.hands.work().analysis.has_begun)

    def test_turns_count_down_and_the_wrench_is_judged(self):
        self.hands.begin()
        work = self.hands.work()
        self.assertEqual((work.analysis.wanted_turns, work.next_question.key), (12.0, "screw-turns-done"))
        stop = work.analysis.torque.stop_nm
        self.hands.feel("4", "4 Nm")
        self.assertEqual((self.displayed_verdict().state, self.displayed_verdict().headline), ("in", "Pull as expected"))
        self.assertIn("8.0 turns to go", self.displayed_verdict().reason)
        self.assertEqual(self.hands.work().next_question.key, "screw-turns-done")
        self.hands.feel("6", f"{stop + 8:.0f} Nm")
        self.assertEqual((self.displayed_verdict().state, self.displayed_verdict().headline), ("stop", "Crank is binding"))
        self.assertIn("crooked, or the rod is caught", self.hands.act("home"))

    def test_turns_are_counted_in_all_and_never_fewer(self):
        self.hands.begin()
        self.hands.feel("4", "4 Nm")
        self.assertIn("in all, not since the last time", self.hands.answer("screw-turns-done", "2"))

    def test_turns_done_without_the_wrench_feeling_it_is_not_called_home(self):
        self.hands.begin()
        self.hands.feel("12", "4 Nm")
        self.assertEqual((self.displayed_verdict().state, self.displayed_verdict().headline), ("too_close", "Is it home?"))
        self.hands.feel("12", "25 Nm")
        self.assertEqual((self.displayed_verdict().state, self.displayed_verdict().headline), ("in", "Crank has come home"))

    def test_home_is_felt_on_both_sides_and_the_larger_gap_named(self):
        self.hands.begin()
        self.hands.feel("12", "25 Nm")
        self.hands.act("home")
        self.hands.answer("home-gap.left", "0.30")
        self.hands.answer("home-gap.right", "0.70")
        rendered = self.displayed_verdict()
        self.assertEqual((rendered.state, rendered.headline), ("out", "Crank is not home"))
        self.assertIn("gap on the magneto side is 0.40 mm larger", rendered.reason)
        self.assertIn("not home", self.hands.act("sign"))
        self.hands.answer("home-gap.right", "0.31")
        self.assertEqual(self.displayed_verdict().headline, "Crank is home")
        self.hands.act("sign")
        result = self.hands.entry.result
        self.assertEqual((result["school"], result["turns"], result["peak_torque_nm"]), ("pull", 12, 25))

    def test_dropped_in_it_is_felt_once_cold(self):
        self.hands.choose(school="drop")
        self.assertEqual(self.displayed_verdict().headline, "Drop the crank in")
        self.hands.answer("home-gap.left", "0.30")
        self.hands.answer("home-gap.right", "0.31")
        self.hands.tick_all()
        self.hands.act("sign")
        self.assertEqual(self.hands.entry.call_state, "in")

    def test_without_a_tool_on_the_shelf_it_says_so(self):
        PullIn.objects.all().delete()
        self.assertEqual((self.displayed_verdict().state, self.displayed_verdict().headline), ("stop", "No pulling tool"))

    def test_the_drawing_shows_turns_to_go_and_where_to_stop(self):
        self.hands.begin()
        self.hands.feel("4", "4 Nm")
        drawing = str(self.hands.work().drawing())
        self.assertIn("4 of 12.0 turns, 8.0 to go", drawing)
        self.assertRegex(drawing, r"stop \d+ N·m")
