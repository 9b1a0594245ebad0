"""Tests that a job is found by every saved word, and no longer by one that was removed or withdrawn."""

from __future__ import annotations

from django.db import connection
from django.test import TestCase

from stator.engines.models import EngineCard, Seat
from stator.jobs import log, search
from stator.jobs.models import Job, Reading, RunStation
from tests.factories import job, person


def found(*words):
    jobs = Job.objects.filter(search.with_words(words))
    return list(jobs.order_by("number").values_list("number", flat=True))


class FoundByItsWords(TestCase):
    def test_of_the_job_its_engine_and_its_bearings(self):
        made = job(412)
        for word in ("rumbles", "CORRIE", "orri", "272", "6204", "c3", "drive side"):
            self.assertEqual(found(word), [412], word)
        self.assertEqual((found("corrie", "6999"), found("corrie", "6204")), ([], [412]))
        Job.objects.filter(pk=made.pk).update(customer="Ferrymen's union", complaint='Says "tock" at 50 % load')
        for word in ("ferrymen's", '"tock"', "50 %", "%"):
            self.assertEqual(found(word), [412], word)
        self.assertEqual((found("rumbles"), found("_")), ([], []))

    def test_of_its_card_and_seats_as_they_change(self):
        made = job(412)
        EngineCard.objects.filter(pk=made.card_id).update(name="Tystie 60")
        Seat.objects.filter(card=made.card).update(designation="6305")
        self.assertEqual((found("corrie"), found("tystie"), found("6204"), found("6305")), ([], [412], [], [412]))
        Seat.objects.create(card=made.card, name="Idler", designation="HK1612", code="N7")
        self.assertEqual(found("hk1612"), [412])
        Seat.objects.filter(designation="HK1612").delete()
        self.assertEqual(found("hk1612"), [])

    def test_of_what_was_written_down_until_it_is_withdrawn(self):
        made = job(412)
        stage = RunStation.objects.filter(job=made).first()
        entry = log.open_entry(stage, None, person())
        log.save_reading(entry, person(), "note", log.words("smells of kelp"), "k1")
        self.assertEqual(found("kelp"), [412])
        Reading.objects.filter(text__contains="kelp").update(withdrawn_at=made.booked_in_at)
        self.assertEqual(found("kelp"), [])

    def test_a_job_that_is_gone_is_not_found(self):
        made = job(412)
        RunStation.objects.filter(job=made).delete()
        Job.every.filter(pk=made.pk).delete()
        self.assertEqual(found("rumbles"), [])

    def test_by_its_number_among_other_words(self):
        self.client.force_login(person())
        job(412)
        job(413)
        for asked, numbers in (
            ("412", ["0412"]),
            ("0412 rumbles", ["0412"]),
            ("412 0412 412", ["0412"]),
            ("6204 rumbles 413 c3", ["0413"]),
            ("corrie 6204", ["0413", "0412"]),
            ("412 413", []),
            ("412 howls", []),
            ("1 2 3 4 5 6", []),
            ("9" * 60, []),
        ):
            page = self.client.get("/find/", {"q": asked}).context
            self.assertEqual([each.tag for each in page["jobs"]], numbers, asked)

    def test_the_page_says_in_which_line_it_was_found(self):
        made = job(412)
        log.save_reading(
            log.open_entry(RunStation.objects.filter(job=made).first(), None, person()), person(), "note", log.words("smells of kelp"), "k1"
        )
        self.client.force_login(person())
        page = self.client.get("/find/?q=kelp")
        self.assertContains(page, "smells of kelp")
        self.assertNotContains(self.client.get("/find/?q=rumbles"), "found-in")  # it stands there anyway

    def test_jobs_of_before_are_taken_in_once(self):
        job(412)
        with connection.cursor() as cursor:
            cursor.execute(f"DELETE FROM {search.TABLE}")
        self.assertEqual(found("rumbles"), [])
        search.install()
        self.assertEqual(found("rumbles"), [412])
