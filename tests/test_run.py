"""Tests of work plans, timers and equipment."""

from __future__ import annotations

from datetime import timedelta

from django.db import IntegrityError, transaction
from django.test import TestCase
from django.utils import timezone

from stator.jobs import log
from stator.jobs.models import Job, RunStation, Timer
from stator.shop.defaults import stock_shelves
from stator.shop.equipment_snapshot import shelves
from stator.shop.models import Chiller, Gauge, Heater, Shop
from stator.workbench.registry import STATION_BY_KEY, STATIONS, WORK_ORDERS, current_station
from tests.factories import Hands, job, person, press


class Runs(TestCase):
    def test_every_work_order_lays_known_stations_in_working_order(self):
        order = [station.key for station in STATIONS]
        for name, (_, keys) in WORK_ORDERS.items():
            with self.subTest(name):
                self.assertEqual(keys, sorted(keys, key=order.index))
                self.assertEqual((keys[0], keys[-1]), ("book-in", "hand-over"))
        self.assertEqual(len(STATION_BY_KEY), len(STATIONS))

    def test_a_new_job_stands_at_the_station_after_the_door(self):
        self.assertEqual(current_station(job()).key, "heat-and-drop")
        self.assertEqual(current_station(job(413, order="bottom-end")).key, "flywheel-off")

    def test_it_moves_on_when_a_station_is_signed_and_stays_while_one_is_open(self):
        made = job(order="bottom-end")
        client = Hands(made).client
        client.post("/jobs/0412/seals/keep/", {"ask": "note", "text": "Parted square."})
        self.assertEqual(current_station(Job.objects.get()).key, "seals")
        press(client, "/jobs/0412/seals/", "sign")
        self.assertEqual(current_station(Job.objects.get()).key, "flywheel-off")
        self.assertRedirects(client.get("/jobs/0412/"), "/jobs/0412/flywheel-off/")

    def test_a_station_left_out_says_why(self):
        stage = job().run.get(key="seals")
        with self.assertRaises(IntegrityError), transaction.atomic():
            RunStation.objects.filter(pk=stage.pk).update(state="skipped")
        RunStation.objects.filter(pk=stage.pk).update(state="skipped", because="one-piece seal plate")

    def test_numbers_go_up_and_are_shown_in_four_figures(self):
        self.assertEqual(Job.next_number(), 401)
        self.assertEqual((job(7).tag, Job.next_number()), ("0007", 8))


class Clocks(TestCase):
    def setUp(self):
        made = job()
        self.entry = log.open_entry(made.run.get(key="heat-and-drop"), made.card.seats.get(), person())

    def start(self, **more):
        return log.start_timer(self.entry, person(), "heat", {"code": "heat", "values": {"outer": "case"}}, "heat", 600, **more)

    def test_a_clock_started_twice_runs_once(self):
        self.assertEqual(self.start(), self.start())
        self.assertEqual(Timer.objects.count(), 1)
        self.start(attempt=2)
        self.assertEqual(Timer.objects.count(), 2)

    def test_it_runs_by_the_server_s_time_and_stops_where_it_is_stopped(self):
        begun = timezone.now() - timedelta(minutes=10)
        timer = self.start(at=begun)
        self.assertEqual(timer.due_at, begun + timedelta(seconds=600))
        log.stop_timer(timer, begun + timedelta(minutes=4))
        timer.refresh_from_db()
        self.assertEqual(timer.ran_s(timezone.now()), 240)
        log.move_due(timer, timezone.now())
        timer.refresh_from_db()
        self.assertEqual(timer.due_at, begun + timedelta(seconds=600))  # what has stopped is moved no more

    def test_signing_stops_every_clock_of_the_entry(self):
        self.start()
        log.sign(self.entry, person(), log.VerdictSnapshot("in", "Seated", ""), {})
        self.assertFalse(Timer.objects.filter(ended_at__isnull=True).exists())
        with self.assertRaises(log.Signed):
            self.start(attempt=3)

    def test_ticks_carry_who_and_are_taken_back(self):
        bram = person("bram", "mechanic")
        self.assertEqual(log.tick_check(self.entry, bram, "dry", True).ticks["dry"]["by"], "Bram")
        self.assertEqual(log.tick_check(self.entry, bram, "dry", False).ticks, {})


class Shelves(TestCase):
    def setUp(self):
        stock_shelves()

    def test_they_are_read_once_until_something_changes(self):
        first = shelves(Shop.current())
        with self.assertNumQueries(1):
            self.assertEqual([gauge.name for gauge in shelves(Shop.current()).gauges], [gauge.name for gauge in first.gauges])
        Heater.objects.create(name="Kiln", method="oven")
        self.assertIn("Kiln", self.heaters())

    def heaters(self):
        return [heater.name for heater in shelves(Shop.current()).heaters]

    def test_what_was_read_in_a_transaction_that_is_rolled_back_is_not_found_again(self):
        self.heaters()
        with transaction.atomic():
            Heater.objects.create(name="Kiln", method="oven")
            self.assertIn("Kiln", self.heaters())
            transaction.set_rollback(True)
        self.assertNotIn("Kiln", self.heaters())
        Heater.objects.create(name="Furnace", method="oven")
        self.assertIn("Furnace", self.heaters())
        self.assertNotIn("Kiln", self.heaters())

    def test_what_is_retired_leaves_the_shelf_and_stays_in_the_log(self):
        chiller = Chiller.objects.get(name="Freezer")
        chiller.retired = True
        chiller.save()
        self.assertNotIn(chiller, shelves(Shop.current()).chillers)
        self.assertTrue(Chiller.objects.filter(pk=chiller.pk).exists())

    def test_a_gauge_that_resolves_nothing_and_a_gun_without_emissivity_are_no_gauges(self):
        for fields in ({"kind": "bore", "resolution": 0}, {"kind": "infrared", "resolution": 1, "emissivity": None}):
            with self.subTest(fields), self.assertRaises(IntegrityError), transaction.atomic():
                Gauge.objects.create(name="x", **fields)

    def test_there_is_one_shop(self):
        Shop(name="Another").save()
        self.assertEqual(Shop.objects.get().name, "Another")
