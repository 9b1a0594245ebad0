from __future__ import annotations

import re
import uuid

from django.test import TestCase

from shopmath.flywheel_pulling import CONDITIONS, Screw, pull, same_thread, torque_call, wanted_force_n
from stator.engines.models import EngineCard
from stator.jobs.models import Entry
from stator.shop.models import Puller
from stator.stations.framework.log_labels import words_of
from stator.stations.remove_flywheel.analysis import Code
from tests.factories import Hands, job, work_at

KEY = "flywheel-off"
KEYS = {  # short names for the questions
    "puller_d": "puller-diameter",
    "puller_pitch": "puller-pitch",
    "puller_hand": "puller-hand",
    "boss_d": "boss-diameter",
    "boss_pitch": "boss-pitch",
    "boss_hand": "boss-hand",
    "boss_depth": "boss-depth",
    "turns": "puller-turns",
    "screw_d": "centre-screw-diameter",
    "screw_pitch": "centre-screw-pitch",
    "nut_torque": "nut-torque-wanted",
    "nut_d": "nut-thread",
    "torque": "pulling-torque",
    "taper": "taper-condition",
    "key": "key-condition",
    "step": "key-step",
}


class Wheel(Hands):
    """A mechanic at Remove flywheel."""

    def __init__(self, made):
        super().__init__(made)
        self.seat = None
        self.address = f"/jobs/{made.tag}/{KEY}/"

    def work(self):
        return work_at(self.job, KEY)

    @property
    def entry(self):
        return Entry.objects.filter(job=self.job, station__key=KEY).order_by("-pk")[0]

    def measure(self, **readings):
        for question, text in readings.items():
            self.post("keep", ask=KEYS.get(question, question), text=text, client_key=uuid.uuid4().hex)


BOSS = {"boss_d": "25.98", "boss_pitch": "1 mm", "boss_hand": "right"}


class WheelCase(TestCase):
    def setUp(self):
        made = job(order="flywheel")
        EngineCard.objects.update(taper_ratio=8, nut_d_mm=12, nut_torque_nm=55, shaft_d_mm=16, flywheel_source="manual page 41")
        self.puller = Puller.objects.create(name="Small puller", thread_mm=26.9, pitch_mm=1.0)
        self.old = Puller.objects.create(name="Old cycle puller", thread_mm=18.95, pitch_mm=25.4 / 26)
        self.hands = Wheel(made)

    def displayed_verdict(self):
        return self.hands.work().displayed_verdict()

    def ready(self, turns="6.5"):
        self.hands.choose(puller=str(self.puller.pk))
        self.hands.measure(**BOSS, turns=turns)

    def off(self, taper="grey", key="sound", magnets="sound", **more):
        self.ready()
        self.hands.tick_all()
        self.hands.measure(torque="30")
        self.hands.act("free")
        self.hands.measure(taper=taper, key=key, **more, magnets=magnets, coils="sound")


class FlywheelOff(WheelCase):
    def test_it_asks_for_puller_and_boss_before_anything_else(self):
        verdict = self.displayed_verdict()
        self.assertEqual((verdict.state, verdict.code), ("wait", Code.WHICH_THREAD))
        self.assertEqual(self.hands.work().question_for(None).key, "puller-diameter")
        self.assertEqual(self.hands.work().actions(), ())

    def test_the_puller_in_hand_is_measured_in_any_unit(self):
        self.hands.measure(puller_d="1.06 in", puller_pitch="1,0 mm", puller_hand="r")
        self.assertEqual(self.hands.work().analysis.match("puller").designation, "M27x1")

    def test_a_26_tpi_puller_in_a_1_mm_boss_is_stop_and_says_when_it_jams(self):
        self.hands.choose(puller=str(self.old.pk))
        self.hands.measure(boss_d="18.05", boss_pitch="1", boss_hand="right", turns="2.5")
        verdict = self.displayed_verdict()
        self.assertEqual((verdict.state, verdict.code), ("stop", Code.WRONG_THREAD))
        self.assertRegex(verdict.reason, r"jams after about 3 turns. It bound after 2.5 turns")
        self.assertIn("take off no metal", verdict.next_step)
        self.assertIsNone(self.hands.work().analysis.pull)

    def test_the_only_puller_that_fits_the_boss_is_chosen_until_another_is(self):
        self.hands.measure(**BOSS)
        self.assertEqual(self.puller, self.hands.work().analysis.puller)
        self.assertNotIn("puller-diameter", [question.key for question in self.hands.work().open_questions()])
        self.hands.choose(puller=str(self.old.pk))
        self.assertEqual(self.old, self.hands.work().analysis.puller)
        self.hands.choose(puller="")
        self.assertIsNone(self.hands.work().analysis.puller)
        Puller.objects.create(name="Second of the same", thread_mm=26.95, pitch_mm=1.0)
        other = Wheel(job(number=500, order="flywheel"))
        other.measure(**BOSS)
        self.assertIsNone(other.work().analysis.puller)

    def test_a_left_hand_boss_is_told_from_a_right_hand_puller(self):
        self.hands.choose(puller=str(self.puller.pk))
        self.hands.measure(boss_d="25.98", boss_pitch="1", boss_hand="left")
        self.assertIn("boss left-hand", self.displayed_verdict().reason)

    def test_enough_turns_hold_and_the_scale_says_where_to_stop(self):
        self.ready()
        work = self.hands.work()
        self.assertEqual((work.displayed_verdict().state, work.analysis.pull.turns), ("in", 6))
        self.assertRegex(work.displayed_verdict().next_step, r"release by \d+ N·m; stop at 49")
        self.assertIn("manual page 41", next(each.source for each in work.sources() if each.label == "Taper needs"))

    def test_one_turn_is_stop_and_says_how_many_more_and_what_they_buy(self):
        self.ready(turns="1")
        self.hands.choose(condition="fretted")
        verdict = self.displayed_verdict()
        self.assertEqual((verdict.state, verdict.code), ("stop", Code.MORE_THREAD))
        self.assertRegex(verdict.next_step, r"Get \d+ more turns? in, \d+ whole ones; each whole turn adds 1\d kN")
        self.hands.tick_all()
        self.assertIn("the thread goes before the taper", self.hands.act("free"))

    def test_what_is_unknown_is_shown_as_unknown_and_the_thread_still_sets_a_stop(self):
        EngineCard.objects.update(nut_torque_nm=None)
        self.ready()
        verdict = self.displayed_verdict()
        self.assertEqual(verdict.state, "too_close")
        self.assertIn("unknown", verdict.reason)
        self.assertRegex(verdict.next_step, r"stop at 49 N·m")
        self.hands.measure(nut_torque="40 ft-lb")
        self.assertEqual(self.displayed_verdict().state, "in")

    def test_the_pull_is_shut_until_the_catcher_and_the_hold_are_ticked(self):
        self.ready()
        self.assertIn("catcher", self.hands.act("free"))
        self.hands.tick_all()
        self.hands.act("free")
        self.assertEqual(self.displayed_verdict().code, Code.LOOK_AT_IT)

    def test_each_attempt_is_kept_and_a_torque_past_the_stop_is_stop(self):
        self.ready()
        self.hands.tick_all()
        self.hands.measure(torque="25")
        self.assertEqual(self.displayed_verdict().code, Code.PULLING)
        self.hands.act("wait")
        self.assertEqual(words_of(self.hands.entry.timers.get()), "turn the puller again")
        self.hands.measure(torque="40")
        self.assertEqual(self.displayed_verdict().code, Code.HOLDS_HARD)
        self.hands.measure(torque="95 Nm")
        self.assertEqual(self.displayed_verdict().state, "stop")
        self.assertEqual([reading.text for reading in self.hands.work().answers.live("pulling-torque")], ["25", "40", "95 Nm"])

    def test_a_taper_that_let_go_far_above_what_was_expected_is_remarked_on_and_kept(self):
        self.ready()
        self.hands.tick_all()
        self.hands.measure(torque="45")
        self.hands.act("free")
        self.assertIn("It released at 45 N·m; 29 N·m at most was expected.", self.displayed_verdict().detail)
        self.assertTrue(self.hands.work().analysis.released_hard)

    def test_a_puller_too_small_for_the_boss_is_stop_though_its_pitch_agrees(self):
        self.hands.measure(puller_d="26.2", puller_pitch="1", puller_hand="right", **BOSS)
        verdict = self.displayed_verdict()
        self.assertEqual((verdict.state, verdict.code), ("stop", Code.WRONG_SIZE))
        self.assertIn("little more than the crests hold", verdict.reason)
        self.assertIn("puller of this size", verdict.next_step)

    def test_the_right_thread_that_binds_early_is_dirty_not_wrong(self):
        self.ready(turns="2.5")
        self.assertEqual(self.hands.work().next_question.key, "boss-depth")
        self.hands.measure(boss_depth="9 mm")
        verdict = self.displayed_verdict()
        self.assertEqual((verdict.state, verdict.code), ("too_close", Code.CLEAN_FIRST))
        self.assertIn("bound at 2.5 of 9 turns: coating or damage", verdict.reason)
        self.hands.measure(turns="8")
        self.assertEqual(self.displayed_verdict().code, Code.THREAD_HOLDS)

    def test_the_card_s_boss_thread_is_not_asked_again(self):
        EngineCard.objects.update(boss_d_mm=27, boss_pitch_mm=1, boss_hand="left")
        self.hands.choose(puller=str(self.puller.pk))
        self.assertEqual(self.hands.work().next_question.key, "puller-turns")
        self.assertIn("boss left-hand", self.displayed_verdict().reason)
        EngineCard.objects.update(boss_hand="right")
        self.hands.measure(turns="6")
        self.assertEqual(self.displayed_verdict().state, "in")

    def test_whether_it_moved_is_written_down_between_the_torques(self):
        self.ready()
        self.hands.tick_all()
        self.hands.measure(torque="25")
        self.assertIn("Did anything move?", self.hands.act("moved"))
        self.hands.measure(moved="creaked")
        self.assertEqual(self.hands.work().question_for(None).key, "pulling-torque")
        self.hands.measure(torque="35")
        self.hands.act("free")
        self.hands.measure(taper="grey", key="sound", magnets="sound", coils="rubbed")
        self.assertIn("coils are rubbed", self.displayed_verdict().reason)
        self.hands.act("sign")
        found = self.hands.entry.result["log"]
        self.assertEqual([line.get("torque_nm") or line["moved"] for line in found], [25, "creaked", 35])

    def test_off_and_looked_at_it_is_signed_with_what_it_took(self):
        self.off()
        self.assertEqual(self.displayed_verdict().code, Code.OFF)
        self.hands.act("sign")
        entry = self.hands.entry
        self.assertEqual((entry.call_state, entry.result["peak_torque_nm"], entry.result["boss_thread"]), ("in", 30, "M27x1"))
        self.assertEqual(self.hands.job.run.get(key=KEY).state, "done")

    def test_it_is_not_signed_before_it_is_looked_at(self):
        self.ready()
        self.hands.tick_all()
        self.hands.act("free")
        self.assertIn("Still to answer: the taper looks", self.hands.act("sign"))

    def test_a_stepped_key_says_what_it_does_to_the_timing(self):
        self.off(key="stepped", step="0.4")
        self.assertIn("shifts the ignition timing by 2.9°", self.displayed_verdict().reason)

    def test_a_picked_up_taper_and_a_cracked_magnet_are_out(self):
        self.off(taper="red", magnets="cracked")
        verdict = self.displayed_verdict()
        self.assertEqual(verdict.state, "out")
        self.assertIn("lap it before it goes back", verdict.reason)
        self.assertIn("cracked magnet", verdict.detail)

    def test_what_cannot_be_is_refused_in_words(self):
        self.ready()
        for key, text, words in [
            ("boss_d", "300 mm", "not believable"),
            ("boss_pitch", "0 tpi", "no pitch"),
            ("turns", "90 turns", "not believable"),
            ("torque", "25 mm", "unit of length"),
            ("torque", "-5", "not believable"),
            ("boss_hand", "up", "none of these"),
        ]:
            with self.subTest(text):
                self.assertIn(words, self.hands.keep(KEYS[key], text))

    def test_the_drawing_shows_the_turns_engaged_and_the_three_stretches(self):
        self.ready(turns="4")
        text = str(self.hands.work().drawing())
        self.assertIn("4 turns in", text)
        self.assertIn("releases", text)
        self.assertRegex(text, r"stop \d+")
        self.assertEqual(len(re.findall(r'class="ink"', text.split("narrow")[0])) % 2, 1)  # two marks a turn, one for the likely pull

    def test_figures_of_the_flywheel_are_kept_on_the_card_in_any_unit(self):
        fields = {"part": "wheel", "wheel-taper_ratio": "7", "wheel-nut_d_mm": "1/2 in", "wheel-nut_torque_nm": "40 ft-lb"}
        self.hands.client.post("/jobs/0412/card/", fields)
        card = EngineCard.objects.get()
        self.assertEqual((card.taper_ratio, card.nut_d_mm, round(card.nut_torque_nm)), (7, 12.7, 54))
        answer = self.hands.client.post("/jobs/0412/card/", {**fields, "wheel-nut_torque_nm": "40 mm"})
        self.assertContains(answer, "mm is a unit of length")
        self.assertContains(answer, 'value="40 mm"')


class Weighing(TestCase):
    """The core of the pull."""

    def test_more_turns_never_weaken_the_call(self):
        order = ["stop", "too_close", "in"]
        needed = wanted_force_n(55, 12, 8, "fretted")
        states = [order.index(pull(27, 1, turns, Screw(12, 1.25), needed).call.state) for turns in range(1, 12)]
        self.assertEqual(states, sorted(states))
        self.assertEqual((states[0], states[-1]), (0, 1))  # the centre screw may give first, however far the puller goes in
        strong = pull(27, 1, 11, Screw(16, 1.5), needed, screw_class="12.9")
        self.assertEqual(strong.call.state, "in")

    def test_the_turns_asked_for_are_enough_and_one_less_is_not(self):
        required = wanted_force_n(55, 12, 8, "fretted")
        needed = pull(27, 1, 1, Screw(20, 2.0), required).turns_wanted
        self.assertEqual(pull(27, 1, needed, Screw(20, 2.0), required).call.state, "in")
        self.assertNotEqual(pull(27, 1, needed - 1, Screw(20, 2.0), required).call.state, "in")

    def test_a_fretted_taper_wants_more_than_a_clean_one_and_that_more_than_an_oiled(self):
        likely = {condition: wanted_force_n(55, 12, 8, condition).likely for condition in CONDITIONS}
        self.assertTrue(likely["oiled"] < likely["clean"] < likely["fretted"])

    def test_parts_of_a_turn_do_not_count(self):
        needed = wanted_force_n(55, 12, 8, "clean")
        self.assertEqual(pull(27, 1, 4.9, Screw(12, 1.25), needed).strength, pull(27, 1, 4, Screw(12, 1.25), needed).strength)

    def test_no_turn_stands_nothing(self):
        found = pull(27, 1, 0.8, Screw(12, 1.25), None)
        self.assertEqual((found.turns, found.stop_nm), (0, 0.0))
        self.assertEqual(torque_call(5, found).state, "stop")

    def test_the_same_leaf_twice_is_the_same_thread(self):
        self.assertEqual(same_thread(1.0, 1.005, "left", "left").state, "in")
