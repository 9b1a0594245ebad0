"""What follows from the same readings is said once; from others, of another moment or to another reader, anew."""

from __future__ import annotations

from datetime import timedelta
from unittest.mock import patch

import time_machine
from django.test import TestCase
from django.utils import timezone

from stator.jobs.models import Reading, Timer
from stator.shop.models import Gauge, Person, Shop
from stator.stations.framework import once, room
from stator.stations.true_crank import verdict
from tests.factories import Hands, job, person, work_at
from tests.runner import unproved


class Unproved(TestCase):
    """Without the proof of all other tests, which says everything anew."""

    def setUp(self):
        once.forget()
        self.enterContext(unproved())


class OfACrank(Unproved):
    def setUp(self):
        super().setUp()
        self.client.force_login(person())
        self.job = job(order="crank")
        self.page = f"/jobs/{self.job.tag}/true/"
        self.drawn = self.enterContext(patch.object(room, "render_drawing", wraps=room.render_drawing))

    def visits(self, count=2):
        """How often it is drawn in so many visits."""
        self.drawn.reset_mock()
        for _ in range(count):
            self.assertEqual(self.client.get(self.page).status_code, 200)
        return self.drawn.call_count

    def test_it_is_drawn_once_while_nothing_changes(self):
        self.assertEqual(self.visits(3), 1)
        self.assertEqual(self.visits(), 0)

    def test_a_reading_and_its_withdrawal_are_drawn(self):
        self.visits()
        self.drawn.reset_mock()
        ask = work_at(self.job, "true").next_question
        self.client.post(f"{self.page}keep/", {"ask": ask.key, "text": "92", "client_key": "one"}, headers={"HX-Request": "true"})
        self.assertEqual((Reading.objects.get().text, self.drawn.call_count), ("92", 1))  # with the answer
        self.assertEqual(self.visits(), 1)
        Reading.objects.update(withdrawn_at=timezone.now())
        self.assertEqual(self.visits(), 0)  # it is again what it was

    def test_figures_of_card_and_shop_are_drawn(self):
        self.visits()
        self.job.card.marks.create(name="B9", what="bolt", x_mm=1, y_mm=2, d_mm=6)
        self.assertEqual(self.visits(), 1)
        dial = Gauge.objects.filter(kind="dial").first()
        dial.name = "Dial on the wall"
        dial.save()
        self.assertEqual(self.visits(), 1)
        Shop.objects.update(handling_s=33)
        self.assertEqual(self.visits(), 1)

    def test_who_reads_in_inches_gets_a_drawing_of_his_own(self):
        self.visits()
        Person.objects.update(units="inch")
        self.assertEqual(self.visits(), 1)
        Person.objects.update(units="metric")
        self.assertEqual(self.visits(), 0)

    def test_what_is_done_and_recorded_is_worked_out_each_time(self):
        """A record tells what was asked of the facts, so all of it is asked."""
        self.visits()
        with patch.object(verdict, "shared_sources", wraps=verdict.shared_sources) as told:
            self.client.get(self.page)
            self.assertEqual(told.call_count, 0)
            self.assertTrue(work_at(self.job, "true").sources())
            self.assertEqual(told.call_count, 1)


class OfAHeat(Unproved):
    def setUp(self):
        super().setUp()
        self.client.force_login(person())
        self.hands = Hands(job())
        self.page = self.hands.address
        self.drawn = self.enterContext(patch.object(room, "render_drawing", wraps=room.render_drawing))

    def visit(self):
        self.drawn.reset_mock()
        return self.client.get(self.page).content.decode(), self.drawn.call_count

    def test_a_plan_is_drawn_once_and_a_heat_each_time(self):
        self.visit()
        self.assertEqual(self.visit()[1], 0)
        self.hands.tick_all()
        self.hands.act("heat")
        first, _ = self.visit()
        with time_machine.travel(timezone.now() + timedelta(minutes=9), tick=False):
            later, drawn = self.visit()
        self.assertEqual(drawn, 1)
        self.assertNotEqual(first, later)
        self.assertEqual(Timer.objects.filter(ended_at=None).count(), 1)
