"""Tests of background tasks: progress for their owner only, and removal in the end."""

from __future__ import annotations

import threading
from unittest import mock

from django.test import SimpleTestCase, TestCase
from django.utils import timezone, translation

from shopmath.validation import BadInput
from stator.exchange import background_tasks
from stator.exchange.background_tasks import TaskOutput, TaskRegistry
from stator.ui.number_format import size
from stator.ui.units import Units, reading_in
from tests.factories import person
from tests.simulated_gauges import until


class AtTheBench(SimpleTestCase):
    def setUp(self):
        self.bench = TaskRegistry()

    def made(self, data=b"sheet", asker="person 1", what="the sheet"):
        found = self.bench.begin(asker, what, lambda tell: TaskOutput(data, "sheet.pdf", "application/pdf"))
        until(lambda: found.over)
        return found

    def test_it_tells_how_far_it_is_and_the_same_asked_for_twice_is_made_once(self):
        told, go_on = threading.Event(), threading.Event()

        def make(tell):
            tell("Drawing True", 0.4)
            told.set()
            go_on.wait(5)
            return TaskOutput(b"x", "x.pdf", "application/pdf")

        first = self.bench.begin("person 1", "the sheet", make)
        self.assertTrue(told.wait(5))
        self.assertEqual((first.words, first.share, first.over), ("Drawing True", 0.4, False))
        self.assertIs(self.bench.begin("person 1", "the sheet", make), first)
        self.assertIsNot(self.bench.begin("person 2", "the sheet", make), first)
        go_on.set()
        until(lambda: first.over)
        self.assertIsNot(self.made(), first)

    def test_it_is_made_in_the_units_the_language_and_the_time_zone_of_who_asked(self):
        def make(tell):
            return TaskOutput(goes=f"{size(2.54)} {translation.get_language()} {timezone.get_current_timezone()}")

        with reading_in(Units.INCH), translation.override("eo"), timezone.override("America/St_Johns"):
            found = self.bench.begin("person 1", "the sheet", make)
        until(lambda: found.over)
        self.assertEqual(found.made.goes, "0,100 in eo America/St_Johns")

    def test_only_its_asker_finds_it(self):
        found = self.made(asker="owner abc")
        self.assertIs(self.bench.found("owner abc", found.token), found)
        self.assertIsNone(self.bench.found("person 1", found.token))
        self.assertIsNone(self.bench.found("owner abc", "made-up"))

    def test_refused_it_says_why_and_broken_it_says_no_more_than_that(self):
        for error, words in (
            (BadInput("file", "That file is damaged."), "That file is damaged."),
            (OSError("/srv/secret"), background_tasks.BROKEN),
        ):
            with mock.patch.object(background_tasks.LOG, "exception"):
                found = self.bench.begin("person 1", str(error), mock.Mock(side_effect=error))
                until(lambda found=found: found.over)
            self.assertEqual((found.refused, found.made), (words, None))

    def test_what_is_long_done_is_forgotten_with_its_file(self):
        old = [self.made(what=f"sheet {index}") for index in range(background_tasks.MOST + 1)]
        self.made(what="one more")
        self.assertIsNone(self.bench.found("person 1", old[0].token))
        self.assertTrue(old[0].file.closed)
        self.assertIsNotNone(self.bench.found("person 1", old[-1].token))
        with mock.patch.object(background_tasks, "KEPT_S", -1):
            self.made(what="the last")
        self.assertIsNone(self.bench.found("person 1", old[-1].token))

    def test_too_many_at_once_are_refused_in_words(self):
        go_on = threading.Event()
        begun = [
            self.bench.begin("person 1", str(index), lambda tell: go_on.wait(5) and TaskOutput(goes="/"))
            for index in range(background_tasks.MOST)
        ]
        with self.assertRaisesRegex(BadInput, "Too much is being made"):
            self.made()
        go_on.set()
        until(lambda: all(each.over for each in begun))


class Asked(TestCase):
    def test_another_person_sees_nothing_of_it(self):
        skipper, hand = person("skipper"), person("hand")
        found = background_tasks.BENCH.begin(
            f"person {skipper.pk}", "all of 0412", lambda tell: TaskOutput(b"zip", "job-0412.zip", "application/zip")
        )
        until(lambda: found.over)
        address = f"/making/{found.token}/"
        self.assertRedirects(self.client.get(address), f"/sign-in/?next={address}")
        self.client.force_login(hand)
        self.assertEqual([self.client.get(f"{address}{file}").status_code for file in ("", "file")], [404, 404])
        self.client.force_login(skipper)
        self.assertEqual(self.client.get(address).json(), {"words": "Ready", "share": 1, "goes": f"{address}file"})
        answer = self.client.get(f"{address}file")
        self.assertEqual(
            (b"".join(answer.streaming_content), answer["Content-Disposition"]), (b"zip", 'attachment; filename="job-0412.zip"')
        )
