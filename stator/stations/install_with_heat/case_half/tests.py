"""Tests of a heat for a case half: orientation, order, chilling, opening, one part at a time, jams and waits."""

from __future__ import annotations

from datetime import timedelta

import time_machine
from django.test import TestCase
from django.urls import reverse
from django.utils import timezone

from stator.engines.fact_keys import FactKey
from stator.engines.models import Seat
from stator.engines.properties import Property
from stator.jobs import log
from stator.jobs.models import Entry, Reading, Timer
from stator.shop.models import Chiller, Gauge, Heater
from stator.stations.framework.log_labels import words_of
from tests.factories import Hands, SheetHands, half_job, person

START = timezone.now().replace(hour=9, minute=0, second=0, microsecond=0)


class AtTheSheet(TestCase):
    def setUp(self):
        self.clock = time_machine.travel(START, tick=False)
        self.traveller = self.clock.start()
        self.addCleanup(self.clock.stop)
        self.job = half_job()
        self.hands = SheetHands(self.job)
        self.keys = {seat.name: seat.uid for seat in self.job.card.seats.all()}
        self.spindle, self.bush = (part.uid for part in self.job.card.fitted.all())
        self.keys["spindle"] = self.spindle

    def later(self, **passed):
        self.traveller.shift(timedelta(**passed))

    def work(self):
        return self.hands.work()

    def started(self, minutes=45):
        """Ticked, chilled, in the oven, and hot."""
        self.hands.tick_all()
        chill = next(action.key for action in self.work().actions() if action.key.startswith("chill"))
        self.hands.act(chill)
        self.later(minutes=20)
        self.hands.act("heat")
        self.later(minutes=minutes)

    def opened(self):
        self.started()
        self.hands.act("open")

    def ask_of(self, key):
        """Return the key of the question for the result of a part."""
        return f"circlip.{key.removesuffix('.circlip')}" if key.endswith(".circlip") else f"fit-outcome.{key}"

    def now(self):
        here = self.work().analysis.live_heat.here
        return here.key if here else ""

    def say(self, outcome="dropped", after_s=15):
        self.later(seconds=after_s)
        return self.hands.keep(self.ask_of(self.now()), outcome)


class Planning(AtTheSheet):
    def test_everything_of_the_half_is_in_one_heat_and_the_circlip_follows_its_bearing(self):
        work = self.work()
        order = list(work.analysis.core_sheet.order)
        self.assertEqual(len(order), 6)  # four bearings, a circlip, a spindle; a rubber bush is never heated
        main = self.keys["Main, drive side"]
        self.assertGreater(order.index(f"{main}.circlip"), order.index(main))
        self.assertEqual(work.displayed_verdict().state, "in")

    def test_the_part_whose_window_closes_first_goes_first(self):
        work = self.work()
        closes = [work.analysis.closes_s(work.analysis.part(key), work.analysis.plan.target_c) for key in work.analysis.core_sheet.order]
        self.assertEqual(closes, sorted(closes))

    def test_all_share_one_case_temperature_under_the_lowest_limit(self):
        self.assertLessEqual(self.work().analysis.plan.heat_c, 150)
        Seat.objects.filter(name="Selector drum").update(left_in=["nitrile_seal"])
        plan = self.work().analysis.plan
        self.assertEqual((plan.ceiling_c, plan.ceiling_why), (100, "nitrile seal left in"))
        self.assertLessEqual(plan.heat_c, 100)

    def test_an_oven_set_too_cool_leaves_the_tight_ones_for_a_reheat_or_says_so(self):
        self.hands.keep("heat", "75")
        verdict = self.work().displayed_verdict()
        self.assertIn(verdict.state, ("too_close", "out"))
        self.assertIn("wait for a reheat", verdict.reason)

    def test_no_oven_no_sheet(self):
        Heater.objects.filter(method="oven").update(retired=True)
        verdict = self.work().displayed_verdict()
        self.assertEqual((verdict.state, verdict.headline), ("stop", "No plan"))
        self.assertIn("wants an oven", verdict.reason)

    def test_more_parts_than_the_freezer_holds(self):
        Chiller.objects.filter(method="freezer").update(places=3)
        verdict = self.work().displayed_verdict()
        self.assertEqual((verdict.state, verdict.headline), ("out", "Chiller is too small"))

    def test_a_part_left_out_or_a_must(self):
        drum = self.keys["Selector drum"]
        self.hands.choose(**{f"part-{drum}": "out"})
        self.assertNotIn(drum, self.work().analysis.core_sheet.order)
        freezer = Chiller.objects.get(method="freezer").pk
        self.hands.choose(**{f"part-{drum}": f"must-{freezer}"})
        self.assertTrue(self.work().analysis.part(drum).must)

    def test_seals_are_told_to_wait_for_a_cold_case(self):
        self.job.card.seals.create(name="Crank seal", shaft_mm=30, bore_mm=47, width_mm=7)
        self.assertIn("Crank seal", " ".join(warning.words for warning in self.work().warnings()))

    def test_found_otherwise_than_the_card_stops_the_heat_until_it_is_settled(self):
        seat = Seat.objects.get(name="Gearbox input")
        stage = self.job.run.create(order=99, key="bearings-out")
        entry, fact_key = log.open_entry(stage, seat, person()), FactKey(seat.part, Property.WAY_ROUND)
        log.save_reading(entry, person(), fact_key.key, log.words("marking_out"), "x1", slot=fact_key)
        verdict = self.work().displayed_verdict()
        self.assertEqual((verdict.state, verdict.headline), ("stop", "Which way round?"))
        self.hands.tick_all()
        self.assertTrue(all(action.refused for action in self.work().actions()))
        self.hands.keep(f"way-settled.{seat.uid}", "marking_in")
        self.assertEqual(self.work().displayed_verdict().state, "in")
        self.assertEqual(self.work().analysis.facing(self.work().analysis.part(seat.uid)), "marking_in")

    def test_nobody_knows_which_way_round_is_said_as_that(self):
        drawing = str(self.work().drawing())
        self.assertIn("way round unknown", drawing)

    def test_the_page_opens_at_the_sheet_and_each_seat_is_a_tap_away(self):
        answer = self.hands.client.get("/jobs/0428/heat-and-drop/")
        self.assertEqual(answer["Location"], "/jobs/0428/heat-and-drop/0/")
        self.assertIn("Seat by seat", self.hands.page())
        self.assertIn("One heat", Hands(self.job).page())

    def test_readings_that_cannot_be(self):
        self.assertIn("colder than the case", self.hands.keep("heat", "12 C"))
        self.assertIn("not believable", self.hands.keep("room", "95 C"))
        self.assertIn("unit of", self.hands.keep("room", "12 mm"))


class Warming(AtTheSheet):
    def test_the_oven_starts_so_that_all_is_ready_at_once(self):
        self.hands.tick_all()
        sheet = self.work().analysis.core_sheet
        self.hands.act(next(action.key for action in self.work().actions() if action.key.startswith("chill")))
        case = next(step for step in sheet.steps if step.where == "oven")
        self.later(seconds=case.from_s - sheet.begins_s)
        verdict = self.work().displayed_verdict()
        self.assertIn(verdict.headline, ("Case in now", "Not yet"))
        self.hands.act("heat")
        waits = self.work().analysis.ready_in
        self.assertAlmostEqual(max(waits.values()), waits["case"], delta=2)
        door = self.work().analysis.door_at
        self.later(minutes=3)
        self.assertAlmostEqual((self.work().analysis.door_at - door).total_seconds(), 0, delta=1)

    def test_a_case_that_reads_low_moves_the_door(self):
        self.started(minutes=32)
        self.hands.choose(means=f"{Gauge.objects.get(kind='contact').pk}:contact")
        door = self.work().analysis.door_at
        self.hands.keep("case", "60")
        self.assertGreater(self.work().analysis.door_at, door)
        self.assertGreater(self.work().answers.timer("heat").due_at, door)

    def test_a_gun_on_bare_metal_carries_no_call(self):
        self.started(minutes=30)
        self.hands.choose(means=f"{Gauge.objects.get(kind='infrared').pk}:bare")
        self.hands.keep("case", "140")
        self.assertEqual(self.work().displayed_verdict().state, "too_close")

    def test_too_hot_is_stop(self):
        self.started(minutes=20)
        self.hands.choose(means=f"{Gauge.objects.get(kind='contact').pk}:contact")
        self.hands.keep("case", "180")
        self.assertEqual(self.work().displayed_verdict().state, "stop")

    def test_the_door_stays_shut_until_the_bench_is_laid_out(self):
        self.started()
        self.hands.post("tick", key="laid", on="0")
        opening = next(action for action in self.work().actions() if action.key == "open")
        self.assertIn("Lay the bench out", opening.refused)

    def test_it_stays_shut_while_nothing_would_go_in(self):
        self.started(minutes=2)
        opening = next(action for action in self.work().actions() if action.key == "open")
        self.assertIn("not hot enough", opening.refused)

    def test_ready_says_so(self):
        self.started(minutes=60)
        self.assertEqual(self.work().displayed_verdict().headline, "Open the door")

    def test_out_of_dry_ice_one_at_a_time(self):
        ice = Chiller.objects.get(method="dry_ice").pk
        for key in (self.keys["Gearbox input"], self.keys["Selector drum"]):
            self.hands.choose(**{f"part-{key}": f"in-{ice}"})
        self.hands.tick_all()
        self.hands.act(f"chill-{ice}")
        self.assertEqual(len(self.work().analysis.cold_since), 1)
        self.hands.act(f"chill-{ice}")
        self.assertEqual(len(self.work().analysis.cold_since), 2)


class Hot(AtTheSheet):
    def test_one_part_after_another_to_the_end_and_each_seat_goes_on_from_there(self):
        self.opened()
        order = list(self.work().analysis.core_sheet.order)
        for key in order:
            self.assertEqual(self.now(), key)
            self.say("in" if key.endswith("circlip") else "dropped")
        work = self.work()
        self.assertEqual((work.analysis.phase, work.displayed_verdict().headline), ("after", "All home"))
        seat = Seat.objects.get(name="Main, drive side")
        entry = Entry.objects.get(job=self.job, seat=seat)
        self.assertEqual(sorted(entry.timers.values_list("key", flat=True)), ["chill", "heat", "window"])
        hands = Hands(self.job)
        self.assertEqual((hands.work().analysis.phase, hands.work().analysis.outcome), ("after", "dropped"))
        self.assertEqual(hands.work().answers.said(hands.key("circlip")), "in")
        self.assertEqual(next(question.key for question in hands.work().open_questions()), hands.key("gap12"))
        self.assertGreater(hands.work().analysis.run.here.clearance_mm, 0)

    def test_the_clock_in_the_tag_runs_for_the_part_that_closes_first(self):
        self.opened()
        door = Timer.objects.get(job=self.job, key="door")
        work = self.work()
        first = min(work.analysis.live_heat.order, key=work.analysis.live_heat.left_s)
        self.assertEqual(words_of(door), f"{first.name}: home by")
        self.assertAlmostEqual((door.due_at - door.started_at).total_seconds(), work.analysis.live_heat.left_s(first), delta=1)

    def test_a_reload_in_the_middle_shows_the_same_part_with_less_time(self):
        self.opened()
        self.say()
        before = self.work()
        key, left = self.now(), before.analysis.live_heat.left_s(before.analysis.live_heat.here)
        self.later(seconds=20)
        self.assertIn(before.analysis.live_heat.here.name, self.hands.page())
        after = self.work()
        self.assertEqual(self.now(), key)
        self.assertLess(after.analysis.live_heat.left_s(after.analysis.live_heat.here), left - 5)

    def test_one_that_jams_is_left_alone_with_what_follows_it(self):
        self.opened()
        main = self.keys["Main, drive side"]
        while self.now() != main:
            self.say()
        page = self.say("jammed")
        work = self.work()
        self.assertNotIn(f"{main}.circlip", [part.key for part in work.analysis.live_heat.order])
        self.assertTrue("leave it, no hammer" in page or "Stop. Back" in page)
        while self.now():
            self.say()
        self.assertEqual((self.work().displayed_verdict().state, self.work().displayed_verdict().headline), ("out", "Two for a reheat"))
        self.assertIn("puller", self.work().displayed_verdict().next_step)
        self.hands.act("again")
        work = self.work()
        self.assertEqual([part.key for part in work.analysis.parts], [main, f"{main}.circlip"])
        self.assertEqual((work.analysis.phase, work.answers.attempt), ("plan", 2))

    def test_one_laid_by_comes_back_last(self):
        self.opened()
        first = self.now()
        self.say("later")
        self.assertNotEqual(self.now(), first)
        while self.now() != first:
            self.say("in" if self.now().endswith("circlip") else "dropped")
        self.say()
        self.assertEqual(self.work().displayed_verdict().headline, "All home")

    def test_one_that_takes_for_ever_costs_the_late_ones_their_turn(self):
        self.opened()
        self.say(after_s=1500)
        work = self.work()
        self.assertTrue(work.analysis.live_heat.remaining.left_out)
        while self.now():
            self.say("in" if self.now().endswith("circlip") else "dropped", after_s=1)
        verdict = self.work().displayed_verdict()
        self.assertEqual(verdict.headline, "What of the last?")
        for part in work.analysis.waiting:
            if not self.work().analysis.fate(part):
                self.hands.keep(self.ask_of(part.key), "later")
        self.assertIn("for a reheat", self.work().displayed_verdict().headline)

    def test_the_part_in_hand_stays_in_hand_when_its_window_closes(self):
        self.opened()
        first = self.now()
        self.later(minutes=40)
        self.assertEqual(self.now(), first)
        self.assertEqual(self.work().displayed_verdict().state, "out")
        self.assertIn("Do not drive it", self.work().displayed_verdict().next_step)

    def test_a_case_that_reads_low_shortens_every_window(self):
        self.opened()
        self.hands.choose(means=f"{Gauge.objects.get(kind='contact').pk}:contact")
        before = self.work().analysis.live_heat
        self.later(seconds=5)
        self.hands.keep("case", "92")
        after = self.work().analysis.live_heat
        self.assertTrue(all(after.left_s(part) < before.left_s(part) for part in before.order if part.planned))

    def test_withdrawn_on_the_sheet_is_withdrawn_at_the_seat(self):
        self.opened()
        while self.now() == self.spindle:
            self.say()
        key = self.now()
        self.say()
        found = Reading.objects.filter(entry__seat__uid=key, property="fit-outcome")
        self.assertIsNone(found.get().withdrawn_at)
        self.hands.post("undo")
        self.assertIsNotNone(found.get().withdrawn_at)
        self.assertEqual(self.now(), key)

    def test_the_same_key_twice_puts_one_part_in(self):
        self.opened()
        question = self.ask_of(self.now())
        self.hands.keep(question, "dropped", key="once")
        self.hands.keep(question, "dropped", key="once")
        self.assertEqual(Reading.objects.filter(entry__seat=None, ask=question, withdrawn_at=None).count(), 1)

    def test_signed_it_keeps_what_was_predicted_and_what_happened(self):
        self.opened()
        while self.now():
            self.say("in" if self.now().endswith("circlip") else "dropped")
        for question in self.work().open_questions():
            self.hands.keep(question.key, "went well")
        self.hands.act("sign")
        entry = Entry.objects.get(job=self.job, seat=None)
        self.assertEqual((entry.call_state, entry.call_words), ("in", "All home"))
        self.assertEqual(len(entry.result["parts"]), 6)
        self.assertTrue(all(part["left_s"] > 0 for part in entry.result["parts"]))
        self.assertIn("All home", self.hands.client.get(reverse("entry-sheet", args=[entry.pk])).content.decode())
