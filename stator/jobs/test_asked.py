"""A query that is worded once answers as the ORM does, in whichever thread and for whichever job it is asked."""

from __future__ import annotations

from threading import Thread

from django.db import connection
from django.test import TestCase, TransactionTestCase
from django.test.utils import CaptureQueriesContext

from stator.jobs.asked import Asked, hold
from stator.jobs.models import Job, Reading
from tests.factories import job, person

READ = ("pk", "text", "taken_at", "extra__heard", "entry__signed_at", "by__username", "withdrawn_at")


def told(first: int, second: int):
    return Reading.objects.exclude(entry=second).filter(entry__job=first).order_by("pk").values_list(*READ)


class Kept:
    """Readings of two jobs, one of them heard and one withdrawn."""

    def setUp(self):
        super().setUp()
        self.jobs = [job(number, order="crank") for number in (412, 413)]
        self.client.force_login(person())
        for number, made in enumerate(self.jobs):
            for text in ("92", "93", "undo", "94.5"):
                said = {"ask": "support-place.left", "text": text, "client_key": f"{made.tag}{text}", "heard": "1" * number}
                self.client.post(f"/jobs/{made.tag}/true/keep/", said, headers={"HX-Request": "true"})
        self.asked = Asked(told, 2)


class Worded(Kept, TestCase):
    def test_it_answers_as_the_orm_does(self):
        for made in self.jobs:
            for entry in (0, made.entries.get().pk):
                with self.subTest(made.tag, entry=entry):
                    self.assertEqual(list(self.asked.rows(made.pk, entry)), list(told(made.pk, entry)))
        self.assertGreater(len(list(self.asked.rows(self.jobs[0].pk, 0))), 2)

    def test_it_is_one_question_to_the_database(self):
        made, entry = self.jobs[1], self.jobs[1].entries.get().pk
        with CaptureQueriesContext(connection) as asked:
            rows = list(self.asked.rows(made.pk, entry + 1000))
        self.assertEqual((len(asked), rows), (1, list(told(made.pk, entry + 1000))))

    def test_a_row_that_was_read_in_part_fetches_the_rest_and_is_written_back(self):
        (found,) = Asked(lambda text: Reading.objects.filter(text=text, entry__job=self.jobs[0]).only("text"), 1).models("94.5")
        self.assertEqual(found.get_deferred_fields() & {"text", "kind"}, {"kind"})
        self.assertEqual((found.kind, found._state.adding), ("length", False))
        found.text = "95.5"
        found.save()
        self.assertEqual(Reading.objects.get(pk=found.pk).text, "95.5")

    def test_rows_come_as_models_with_what_was_joined(self):
        made = self.jobs[1]
        by_word = Asked(lambda entry, text: Reading.objects.filter(entry=entry, text=text).select_related("entry__station", "by"), 2)
        entry = made.entries.get()
        with CaptureQueriesContext(connection) as asked:
            (found,) = by_word.models(entry.pk, "94.5")
            said = (found.entry.station.key, found.by.username, found.extra.get("heard"))
        self.assertEqual((len(asked), found, said), (1, entry.readings.get(text="94.5"), ("true", "una", True)))
        self.assertEqual(by_word.models(entry.pk, "17"), [])
        found.text = "95"
        self.assertEqual(by_word.models(entry.pk, "94.5")[0].text, "94.5")  # read anew each time

    def test_held_rows_know_theirs_and_are_not_taken_for_all_there_are(self):
        first, second = (Job.objects.get(pk=made.pk) for made in self.jobs)
        hold(first, "run", list(first.run.filter(key="true")))
        with CaptureQueriesContext(connection) as asked:
            self.assertEqual([(stage.key, stage.job is first) for stage in first.run.all()], [("true", True)])
        self.assertEqual(len(asked), 0)
        self.assertEqual({stage.job_id for stage in first.run.exclude(key="true")}, {first.pk})
        self.assertGreater(second.run.count(), 1)


class Threads(Kept, TransactionTestCase):
    def test_it_is_asked_by_the_connection_of_its_own_thread(self):
        expected = list(self.asked.rows(self.jobs[0].pk, 0))
        found = []

        def ask() -> None:
            found.extend(self.asked.rows(self.jobs[0].pk, 0))
            connection.close()

        other = Thread(target=ask)
        other.start()
        other.join()
        self.assertEqual(found, expected)
