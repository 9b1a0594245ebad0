"""Tests that practice touches no real data, follows its true values, and shows them at the end."""

from __future__ import annotations

from datetime import timedelta

from django.db import DatabaseError, connection, transaction
from django.test import Client, TestCase
from django.utils import timezone

from stator.engines.card_copy import reusable
from stator.engines.models import EngineCard
from stator.jobs.models import Entry, Job, Photo, Reading, RunStation, Timer
from stator.jobs.search import with_word
from stator.practice import attempts
from stator.practice.exercises.base import ControlAction
from stator.practice.exercises.registry import EXERCISES
from stator.practice.exercises.true_crank import fault_of
from stator.practice.models import Attempt
from stator.shop.models import Gauge
from stator.simulators.crank import ENDS, Fault
from stator.stations.framework import bind
from stator.workbench.registry import STATION_BY_KEY
from tests.factories import Hands, job, person


class Learner(Hands):
    """Hands at a practice crank: they turn it, read its needle, and strike it."""

    def __init__(self, attempt):
        self.who, self.job, self.attempt, self.seat = attempt.person, attempt.job, attempt, None
        self.address = f"/jobs/{attempt.job.tag}/true/"

    def work(self):
        stage = RunStation.objects.get(job=self.job)
        return bind(STATION_BY_KEY["true"], Job.every.get(pk=self.job.pk), stage, None, self.who, timezone.now())

    def key(self, ask):
        return ask

    def lever(self, control, share="whole"):
        answer = self.client.post(
            f"/practice/{self.attempt.job.tag}/hands/", {"lever": control, "share": share}, headers={"HX-Request": "true"}
        )
        self.attempt.refresh_from_db()
        return answer.content.decode()

    def stands(self):
        return attempts.standing(self.attempt)

    def set_up(self):
        for key, text in (
            ("support-place.left", "92"),
            ("gauge-place.left", "34"),
            ("support-place.right", "92"),
            ("gauge-place.right", "34"),
        ):
            self.keep(key, text)
        for warning in self.work().checks():
            self.post("tick", key=warning.key, on="1")

    def one_round(self):
        """Save one turn at each end as the needle shows it."""
        for end in ENDS:
            while ENDS[self.stands().end] != end:
                self.lever("other")
            while self.stands().angle:
                self.lever("on-30")
            for angle in range(0, 360, 30):
                self.keep(f"shaft-reading.{end}.{angle}", f"{self.stands().shows_mm():.3f}")
                self.lever("on-30")


class Practice(TestCase):
    def begin(self, level="middle", seed=7):
        return attempts.begin(person("bram", "mechanic"), "true-crank", level, seed)

    def test_it_is_hidden_from_everything_that_lists_jobs(self):
        real, attempt = job(412), self.begin()
        self.assertEqual(list(Job.objects.values_list("number", flat=True)), [412])
        self.assertEqual(Job.next_number(), 413)
        self.assertNotIn("Practice crank", [card.name for card in reusable()])
        learner = Learner(attempt)
        learner.keep("support-place.left", "92")
        soon = timezone.now() + timedelta(minutes=20)
        running = {"key": "heat", "label": "case comes out", "tone": "heat", "due_at": soon, "by": attempt.person}
        Timer.objects.create(job=attempt.job, entry=Entry.objects.get(job=attempt.job), **running)
        client = learner.client
        gauge = Gauge.objects.create(name="Old dial", kind="dial", resolution=0.01)
        Reading.objects.filter(entry__job=attempt.job).update(gauge=gauge)
        for page in ("/", "/find/?q=practice", "/cards/", "/missing/", f"/gauges/{gauge.pk}/rests/"):
            self.assertNotIn(attempt.job.tag, client.get(page).content.decode())
        for page in ("log", "run", "card", "sheet", "pictures", "tray"):
            self.assertEqual(client.get(f"/jobs/{attempt.job.tag}/{page}/").status_code, 404, page)
        self.assertEqual(client.get(f"/jobs/{real.tag}/run/").status_code, 200)

    def test_it_is_its_own_learners_and_is_set_once_and_never_signed(self):
        attempt = self.begin()
        learner = Learner(attempt)
        learner.client.force_login(person("una"))
        self.assertEqual(learner.client.get(learner.address).status_code, 404)
        for change in ("UPDATE jobs_job SET practice = 0", "UPDATE jobs_entry SET signed_at = '2026-01-01', signed_by_id = opened_by_id"):
            Learner(attempt).keep("support-place.left", "92")
            with self.assertRaises(DatabaseError), transaction.atomic(), connection.cursor() as cursor:
                cursor.execute(change)

    def test_the_needle_shows_what_is_bent_and_the_station_calls_the_blow_that_cures_it(self):
        attempt = self.begin()
        learner = Learner(attempt)
        learner.set_up()
        learner.one_round()
        work = learner.work()
        true_values = learner.stands().truth.bent
        self.assertAlmostEqual(work.analysis.mis.twist_deg, true_values.twist_deg, delta=0.02)
        self.assertNotIn("sign", [action.key for action in work.actions()])
        before = learner.stands().truth.worst_mm
        learner.lever("ahead" if true_values.twist_deg > 0 else "behind")
        self.assertLess(learner.stands().truth.worst_mm, before)
        self.assertEqual([each["lever"] for each in learner.attempt.pulls][-1:], ["ahead" if true_values.twist_deg > 0 else "behind"])

    def test_neither_its_card_nor_its_entries_are_shown_to_another_person(self):
        attempt = self.begin()
        Learner(attempt).keep("support-place.left", "92")
        entry, card = Entry.objects.get(job=attempt.job), attempt.job.card
        photo = Photo.objects.create(job=attempt.job, image="a.jpg", thumb="b.jpg", width=4, height=4, by=attempt.person)
        pages = [f"/entries/{entry.pk}/sheet/", f"/cards/{card.pk}/", f"/cards/{card.pk}/card.json", f"/cards/{card.pk}/trend/"]
        pages += [f"/cards/{card.pk}/figures.csv", f"/photos/{photo.pk}/", f"/photos/{photo.pk}/full.jpg"]
        own, other = Client(), Client()
        own.force_login(attempt.person)
        other.force_login(person("una"))
        for page in pages:
            with self.subTest(page):
                self.assertEqual(other.get(page).status_code, 404)
        self.assertEqual([own.get(page).status_code for page in pages[:3]], [200, 200, 200])

    def test_one_with_readings_that_come_from_another_reading_can_be_finished(self):
        attempt = self.begin()
        learner = Learner(attempt)
        learner.keep("support-place.left", "92")
        source = Reading.objects.filter(entry__job=attempt.job).first()
        values = {"entry": source.entry, "text": "92", "kind": "length", "by": source.by, "carried_from": source}
        for number in range(5):
            Reading.objects.create(ask=f"x{number}", client_key=f"c{number}", **values)
        attempts.finish(attempt)
        self.assertFalse(Reading.objects.exists())

    def test_no_word_finds_it(self):
        self.begin()
        self.assertEqual(Job.every.filter(with_word("practice")).count(), 0)

    def test_the_word_for_the_log_is_answered_in_words(self):
        learner = Learner(self.begin())
        self.assertIn("Practice keeps no log", learner.keep("shaft-reading.left.0", "log"))

    def test_finished_the_truth_is_opened_and_nothing_of_the_job_is_left(self):
        attempt = self.begin()
        learner = Learner(attempt)
        learner.set_up()
        learner.keep("shaft-reading.left.0", "0.01")
        learner.lever("ahead")
        learner.lever("wedge", "half")
        page = learner.client.post(f"/practice/{attempt.job.tag}/finish/", follow=True).content.decode()
        asked = learner.client.get(f"{learner.address}pulse/?rev=0&live=0")  # by a page that is still open, or is being left
        self.assertEqual((asked.status_code, asked["HX-Reswap"]), (286, "none"))
        pulled = learner.client.post(f"/practice/{attempt.job.tag}/hands/", {"lever": "on"}, headers={"HX-Request": "true"})
        self.assertEqual(pulled["HX-Redirect"], "/practice/")
        self.assertContains(learner.client.get("/practice/"), "finished, perhaps on another device")
        typed = learner.client.post(f"{learner.address}keep/", {"ask": "dial", "text": "3"}, headers={"HX-Request": "true"})
        self.assertContains(typed, "this is not here any more", status_code=404)
        self.assertEqual((typed["HX-Retarget"], typed["X-Kept"]), ("#strip-words", "no"))
        again = learner.client.post(f"/practice/{attempt.job.tag}/finish/", follow=True)
        self.assertContains(again, "finished, perhaps on another device")
        self.assertIn("What it really was", page)
        self.assertIn("Move by move", page)
        attempt.refresh_from_db()
        self.assertEqual((len(attempt.result["moves"]), attempt.result["readings"], attempt.job), (2, 5, None))
        self.assertEqual((Job.every.count(), Entry.objects.count(), Reading.objects.count(), EngineCard.objects.count()), (0, 0, 0, 0))
        self.assertContains(learner.client.get("/practice/"), "How it went")

    def test_a_number_gives_a_colleague_the_same_crank(self):
        first, second = self.begin(seed=55), attempts.begin(person("una"), "true-crank", "middle", 55)
        self.assertEqual(attempts.standing(first).truth, attempts.standing(second).truth)
        self.assertNotEqual(first.job_id, second.job_id)
        client = Learner(first).client
        number = {"exercise": "true-crank", "level": "easy"}
        self.assertEqual(client.post("/practice/", {**number, "seed": "55"}).status_code, 302)
        self.assertContains(client.post("/practice/", {**number, "seed": "many"}), "whole number")
        self.assertContains(client.get("/practice/?exercise=true-crank&level=easy&seed=55"), 'value="55"')

    def test_advice_names_the_largest_loss(self):
        kind = EXERCISES["true-crank"]
        beyond = next(seed for seed in range(200) if fault_of(seed, "hard") == Fault.NOT_CURABLE)
        self.assertEqual(kind.came_to(beyond, "hard", [], {}, {})["advice"], "given_up_rightly")
        twist = kind.part(7, "middle").truth.bent.twist_deg
        wrong = [ControlAction("behind" if twist > 0 else "ahead")] * 3
        result = kind.came_to(7, "middle", wrong, {}, {})
        self.assertEqual((result["advice"], result["right"]), ("wrong_way", 0))

    def test_a_lever_that_is_none_is_not_found(self):
        attempt = self.begin()
        self.assertEqual(Learner(attempt).client.post(f"/practice/{attempt.job.tag}/hands/", {"lever": "melt"}).status_code, 404)
        self.assertEqual(Attempt.objects.get().pulls, [])
