from __future__ import annotations

from datetime import UTC, datetime, timedelta

import time_machine
from django.test import TestCase

from shopmath.thermal import temperature_at_c
from stator.engines.models import Seat
from stator.engines.properties import Property
from stator.jobs import log
from stator.jobs.models import Reading, Timer
from stator.shop.models import Chiller, Gauge, Heater
from tests.factories import Hands, job, person

MORNING = datetime(2026, 5, 4, 9, 0, tzinfo=UTC)


def means(kind: str, surface: str) -> str:
    return f"{Gauge.objects.get(kind=kind).pk}:{surface}"


class Planning(TestCase):
    def setUp(self):
        self.hands = Hands(job())

    def displayed_verdict(self):
        return self.hands.work().displayed_verdict()

    def test_a_main_in_an_oven_with_the_ring_from_the_freezer_drops_in(self):
        verdict = self.displayed_verdict()
        self.assertEqual((verdict.state, verdict.headline), ("in", "It drops in"))
        self.assertRegex(verdict.next_step, r"Workshop oven at \d+ °C\. Case to \d+ °C in about \d+ min \(\d+ min to \d+ min\)")
        self.assertIn("freezer for", verdict.next_step)

    def test_a_measured_bore_replaces_the_fit_code(self):
        before = self.hands.work().analysis.plan.offering
        self.hands.keep("seat", "46.970")
        after = self.hands.work().analysis
        self.assertTrue(after.planned.fit.outer.measured)
        self.assertLess(after.plan.setup.bore_um.width_um, 25)
        self.assertNotEqual(after.plan.offering.clearance_mm, before.clearance_mm)

    def test_fahrenheit_or_celsius_the_plan_is_the_same(self):
        self.hands.keep("heat", "248F")
        fahrenheit = self.hands.work().analysis.plan
        self.hands.keep("heat", "120 C")
        self.assertAlmostEqual(fahrenheit.soak.likely, self.hands.work().analysis.plan.soak.likely, places=6)

    def test_a_seal_left_in_stops_an_oven_that_is_too_hot_for_it(self):
        Seat.objects.update(left_in=["nitrile_seal"])
        self.hands.keep("heat", "140")
        verdict = Hands(self.hands.job).work().displayed_verdict()
        self.assertEqual(verdict.state, "stop")
        self.assertIn("nitrile seal left in allows 100 °C", verdict.reason)
        self.hands.tick_all()
        self.assertIn("nitrile", self.hands.act("heat"))
        self.assertFalse(self.hands.entry.timers.exists())

    def test_a_torch_on_magnesium_is_stop(self):
        self.hands.job.card.case_material = "az91d"
        self.hands.job.card.save()
        self.hands.choose(heater=str(Heater.objects.get(method="torch").pk))
        self.assertEqual(self.displayed_verdict().state, "stop")

    def test_dry_ice_past_what_the_ring_stands_is_stop(self):
        self.hands.choose(chiller=str(Chiller.objects.get(method="dry_ice").pk))
        self.assertEqual(self.displayed_verdict().state, "in")  # left to the plan it comes out at -45
        self.hands.keep("stay", "2 h")
        self.assertEqual(self.displayed_verdict().state, "stop")
        self.assertIn("−50 °C", self.displayed_verdict().reason.replace("-50", "−50"))

    def test_a_plan_that_barely_works_says_what_would_widen_it_and_by_how_much(self):
        self.hands.choose(chiller="none")
        self.hands.keep("target", "62")
        verdict = self.displayed_verdict()
        self.assertEqual(verdict.state, "too_close")
        self.assertRegex(verdict.detail, r"the case 20 K hotter, 82 °C: \+0\.0\d\d mm")
        self.assertRegex(verdict.detail, r"freezer .*\+0\.0\d\d mm")

    def test_a_bearing_is_heated_onto_its_shaft_within_its_own_limits(self):
        hands = Hands(job(413, name="Crank, right", on="shaft", half="crank", designation="6205-2RS", code="k5"))
        verdict = hands.work().displayed_verdict()
        self.assertEqual(verdict.state, "too_close")  # a sealed bearing stands only 80 °C
        self.assertEqual(hands.work().analysis.plan.binding_limit.what, "sealed bearing")
        Seat.objects.filter(pk=hands.seat.pk).update(designation="6205")
        self.assertEqual(Hands(hands.job).work().displayed_verdict().headline, "It slides on")

    def test_every_number_says_where_it_comes_from(self):
        found = {source.label: source for source in self.hands.work().sources()}
        self.assertEqual(found["Grip when cold"].value, "−0.003 to 0.033 mm")
        self.assertIn("ISO 286-1", found["Grip when cold"].source)
        self.assertTrue(found["Soak"].estimated)
        self.assertEqual(found["Shop air"].source, "assumed, not measured")

    def test_what_a_plan_rests_on_that_nobody_measured_is_said_beside_it(self):
        Seat.objects.update(code_assumed=True)
        hands = Hands(self.hands.job)
        said = hands.work().displayed_verdict().assumed
        self.assertEqual([said[0], said[-1]], ["fit N7 of the seat", "air at 20 °C"])
        hands.keep("seat", "46.970")
        hands.keep("room", "18")
        self.assertNotIn("fit N7 of the seat", hands.work().displayed_verdict().assumed)
        self.assertEqual([each for each in hands.work().displayed_verdict().assumed if "air" in each], [])

    def test_the_heat_is_shut_until_the_riskiest_line_is_ticked(self):
        self.assertIn("poison gas", self.hands.act("heat"))
        self.assertFalse(Timer.objects.exists())
        self.hands.tick_all()
        self.hands.act("heat")
        self.assertTrue(self.hands.entry.timers.filter(key="heat").exists())


class Refused(TestCase):
    """Tests that wrong input gets a message and remains in the field."""

    def setUp(self):
        self.hands = Hands(job())

    def test_impossible_units_and_sizes(self):
        for key, text, words in [
            ("room", "12 mm", "12 was understood, but mm is a unit of length"),
            ("seat", "46.9 C", "unit of temperature"),
            ("seat", "12 mm", "more than 0.5 mm from the nominal 47 mm"),
            ("seat", "-47", "not believable"),
            ("room", "-300", "below absolute zero"),
            ("room", "300", "not believable"),
            ("heat", "15", "colder than the case"),
            ("seat", "46,985", "can be read two ways"),
            ("stay", "0 min", "longer than nothing"),
        ]:
            with self.subTest(text):
                page = self.hands.keep(key, text)
                self.assertIn(words, page)
                self.assertIn(f'value="{text}"', page)
        self.assertFalse(Reading.objects.exists())

    def test_a_word_that_is_none_is_answered_with_the_words_there_are(self):
        self.assertIn("Known: ", self.hands.keep("room", "wibble"))

    def test_a_marking_that_is_not_known_leaves_no_plan_but_says_so(self):
        Seat.objects.update(designation="69999")
        page = Hands(self.hands.job).page()
        self.assertIn("has no bearing size known here", page)
        self.assertIn("No plan", page)

    def test_a_reading_sent_twice_is_kept_once(self):
        self.hands.keep("room", "18", key="one-and-the-same")
        self.hands.keep("room", "18", key="one-and-the-same")
        self.assertEqual(self.hands.entry.readings.count(), 1)

    def test_two_devices_on_one_job_lose_nothing_of_each_other(self):
        other = Hands(self.hands.job, person("bram", "mechanic"))
        self.hands.keep("room", "18")
        other.choose(chiller="none")
        self.hands.choose(wanted="generous")
        other.keep("seat", "46.980")
        entry = self.hands.entry
        self.assertEqual((entry.choices["chiller"], entry.choices["wanted"]), ("none", "generous"))
        self.assertEqual({reading.by.username for reading in entry.readings.all()}, {"una", "bram"})

    def test_the_page_hears_of_the_other_device(self):
        self.hands.keep("room", "18")
        self.hands.job.refresh_from_db()
        quiet = self.hands.client.get(f"{self.hands.address}pulse/?rev={self.hands.job.revision}&live=0")
        self.assertEqual(quiet.status_code, 204)
        Hands(self.hands.job).keep("seat", "46.980")
        stale = self.hands.client.get(f"{self.hands.address}pulse/?rev={self.hands.job.revision}&live=0", headers={"HX-Request": "true"})
        self.assertContains(stale, "46.980")


class Running(TestCase):
    """A whole heat, by the clock."""

    def setUp(self):
        self.hands = Hands(job())
        travel = time_machine.travel(MORNING, tick=False)
        self.clock = travel.start()
        self.addCleanup(travel.stop)

    def wait(self, seconds):
        self.clock.shift(timedelta(seconds=seconds))

    def begin(self):
        self.hands.tick_all()
        self.hands.choose(means=means("contact", "contact"))
        self.hands.keep("room", "20")
        self.hands.act("chill")
        plan = self.hands.work().analysis.plan
        self.wait(plan.chill.likely)
        self.hands.act("heat")
        return plan

    def test_the_clock_says_not_yet_then_it_drops_in(self):
        plan = self.begin()
        self.assertEqual(self.hands.work().displayed_verdict().headline, "Not yet")
        self.wait(plan.soak.likely + 5)
        verdict = self.hands.work().displayed_verdict()
        self.assertEqual(verdict.headline, "It drops in")
        self.assertIn("push it home", verdict.next_step)

    def test_two_readings_refit_the_case_and_move_its_clock(self):
        plan = self.begin()
        around, slow = plan.setup.heating.surroundings_c, plan.setup.heating.time_constant.likely * 1.4
        due = self.hands.entry.timers.get(key="heat").due_at
        for minutes in (2, 4):
            self.wait(120)
            self.hands.keep("case", f"{temperature_at_c(60 * minutes, 20, around, slow):.1f}")
        run = self.hands.work().analysis.run
        self.assertTrue(run.outer_in.fitted)
        self.assertAlmostEqual(run.outer_in.rate().likely / slow, 1, delta=0.03)
        self.assertGreater(self.hands.entry.timers.get(key="heat").due_at, due)

    def test_a_temperature_that_is_taken_back_takes_the_timer_back_with_it(self):
        self.begin()
        due = self.hands.entry.timers.get(key="heat").due_at
        self.wait(300)
        self.hands.keep("case", "21")
        self.assertGreater(self.hands.entry.timers.get(key="heat").due_at - due, timedelta(minutes=2))
        self.hands.post("undo")
        self.assertAlmostEqual(self.hands.entry.timers.get(key="heat").due_at, due, delta=timedelta(seconds=2))

    def test_the_timers_and_the_plate_do_not_contradict_each_other(self):
        plan = self.begin()
        self.wait(plan.soak.likely + 18)
        self.hands.keep("case", "40")
        self.assertEqual(self.hands.work().displayed_verdict().headline, "Not yet")
        self.assertIn("case: read the temperature", self.hands.page())
        heat, left = self.hands.entry.timers.get(key="heat"), self.hands.work().analysis.run.ready_in_s()
        self.assertAlmostEqual((heat.due_at - self.hands.work().now).total_seconds(), left, delta=2)

    def test_the_chill_timer_rings_at_the_shortest_time_to_read_the_temperature(self):
        plan = self.begin()
        chill = self.hands.entry.timers.get(key="chill")
        self.assertAlmostEqual((chill.due_at - chill.started_at).total_seconds(), plan.chill.low, delta=1)
        self.assertIn("bearing: read the temperature", self.hands.page())

    def test_a_gun_on_bare_aluminium_never_carries_the_call(self):
        plan = self.begin()
        self.hands.choose(means=means("infrared", "bare"))
        self.wait(plan.soak.likely + 60)
        walls = plan.setup.heating.surroundings_c  # read in the oven, bare metal mirrors its walls
        self.assertIn("cannot be shown", self.hands.keep("case", f"{walls - 40:.0f}"))
        self.hands.keep("case", f"{walls - 5:.0f}")
        verdict = self.hands.work().displayed_verdict()
        self.assertEqual(verdict.state, "too_close")
        self.assertIn("paint or tape", verdict.next_step)
        self.hands.choose(means=means("infrared", "paint"))
        page = self.hands.keep("case", f"{plan.target_c:.0f}")
        self.assertIn("by paint dot", page)
        self.assertEqual(self.hands.work().displayed_verdict().state, "in")

    def test_a_drop_of_water_is_a_coarse_band(self):
        self.begin()
        self.hands.choose(means="drop")
        self.hands.keep("drop", "sizzles")
        reading = self.hands.work().answers.last(self.hands.key("drop"))
        self.assertEqual((reading.extra["low_c"], reading.extra["high_c"], reading.extra["trusted"]), (100, 150, False))

    def test_a_case_over_its_limit_is_stop_while_it_heats(self):
        self.begin()
        self.hands.keep("case", "171")
        verdict = self.hands.work().displayed_verdict()
        self.assertEqual(verdict.state, "stop")
        self.assertIn("out of the heat now", verdict.next_step)

    def to_the_window(self):
        plan = self.begin()
        self.wait(plan.soak.likely + 5)
        self.hands.act("open")
        return plan

    def test_the_window_closes_by_the_clock(self):
        plan = self.to_the_window()
        self.assertEqual(self.hands.work().displayed_verdict().state, "in")
        self.wait(plan.window.high + 600)
        self.assertEqual(self.hands.work().displayed_verdict().headline, "The window is shut")

    def test_a_jam_is_stop_and_back_into_the_heat_begins_a_second_try(self):
        self.hands.keep("heat", "130")
        self.to_the_window()
        self.hands.keep("outcome", "jammed")
        verdict = self.hands.work().displayed_verdict()
        self.assertEqual((verdict.state, verdict.headline), ("out", "It jammed"))
        self.assertIn("Never drive a cocked ring", verdict.detail)
        self.hands.act("again")
        work = self.hands.work()
        self.assertEqual((work.answers.attempt, work.analysis.phase), (2, "plan"))
        self.assertEqual([each.text for each in work.answers.live(self.hands.key("outcome"), every_attempt=True)], ["jammed"])
        self.assertEqual(130, work.analysis.value(Property.HEATER_SETTING))
        self.assertNotIn(self.hands.key("heat"), [question.key for question in work.open_questions()])  # it stays set as it was

    def home(self, gaps=("0", "0", "0", "0")):
        self.to_the_window()
        self.wait(30)
        self.hands.keep("outcome", "dropped in")
        for clock, gap in zip((12, 3, 6, 9), gaps, strict=True):
            self.hands.keep(f"gap{clock}", gap)

    def test_a_gap_at_one_side_is_not_home(self):
        self.home(("0", "0.05", "0.20", "0.05"))
        self.assertEqual(self.hands.work().displayed_verdict().headline, "Not home")

    def test_a_gap_near_the_limit_is_too_close_to_call(self):
        self.home(("0", "0.03", "0", "0"))
        self.assertEqual(self.hands.work().displayed_verdict().state, "too_close")

    def test_a_hot_case_gets_no_cold_verdict(self):
        self.home()
        self.assertIn("too warm for a verdict", self.hands.keep("cold", "0"))
        self.wait(7200)
        self.assertNotIn("too warm", self.hands.keep("cold", "0"))

    def test_signed_it_stands_and_can_only_be_superseded(self):
        self.home()
        self.wait(7200)
        self.hands.keep("cold", "0")
        self.hands.act("sign")
        entry = self.hands.entry
        self.assertEqual((entry.call_state, entry.call_words), ("in", "Seated"))
        self.assertEqual(entry.result["outcome"], "dropped")
        self.assertEqual(entry.result["window_used_s"], 30)
        self.assertIn("signed meanwhile", self.hands.keep("note", "too late") + self.hands.post("tick", key="dry", on="0"))
        self.assertIn("why the signed entry is no longer right", self.hands.post("supersede", reason=" "))
        self.hands.post("supersede", reason="found it proud next morning")
        self.assertEqual(self.hands.entry.supersedes, entry)
        self.assertIn("found it proud", self.hands.client.get(f"/entries/{entry.pk}/sheet/").content.decode())

    def test_undo_strikes_a_reading_out_and_keeps_it(self):
        self.hands.keep("room", "41")
        self.hands.post("undo")
        self.assertIsNone(self.hands.work().answers.last(self.hands.key("room")))
        self.assertEqual(self.hands.entry.readings.get().text, "41")
        self.assertIsNotNone(self.hands.entry.readings.get().withdrawn_at)


class TheOvenIsRemembered(TestCase):
    def test_the_next_plan_shows_what_was_predicted_and_what_happened_and_learns_from_two(self):
        first = job()
        fresh = Hands(first).work().analysis.plan.soak.likely
        for number, ratio in ((501, 1.2), (502, 1.3)):
            past = job(number, name="Main")
            stage = past.run.get(key="heat-and-drop")
            entry = log.open_entry(stage, past.card.seats.get(), person())
            result = {"heater_id": Heater.objects.get(name="Workshop oven").pk, "on": "case", "confidence": 0.99}
            log.sign(entry, person(), log.VerdictSnapshot("in", "Seated", ""), {**result, "outcome": "tapped", "soak_tau_ratio": ratio})
        work = Hands(first).work()
        self.assertEqual([row["happened"] for row in work.history()], ["tapped home", "tapped home"])
        self.assertIn("30 % slower than the tables", work.history()[0]["speed"])
        self.assertAlmostEqual(work.analysis.plan.soak.likely / fresh, 1.25, places=6)
