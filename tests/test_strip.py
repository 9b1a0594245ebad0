"""Requests to the working screen as a page, a gauge or an old tab would send them."""

from __future__ import annotations

import threading
import uuid

from django.db import connection
from django.test import TestCase, TransactionTestCase

from shopmath.quantity import parse
from stator.jobs import log
from stator.jobs.immutability import without_triggers
from stator.jobs.models import Reading
from tests.factories import Hands, job, person


class Words(TestCase):
    def setUp(self):
        self.hands = Hands(job())

    def test_first_letters_suffice(self):
        self.hands.tick_all()
        self.hands.keep("room", "ch")
        self.hands.keep("seat", "he")
        self.assertEqual({timer.key for timer in self.hands.entry.timers.all()}, {"chill", "heat"})

    def test_skip_and_an_empty_enter_leave_out_what_may_be_left_out(self):
        self.hands.keep("room", "skip")
        self.hands.keep("seat", "")
        self.assertEqual(self.hands.work().answers.skipped, ["air-temperature", self.hands.key("seat")])
        self.assertEqual(self.hands.work().question_for(None).key, self.hands.key("ring"))

    def test_what_is_needed_cannot_be_left_out(self):
        self.hands.choose(heater="none", chiller="none")
        self.hands.tick_all()
        self.hands.act("open")
        self.hands.keep("outcome", "dropped")
        self.assertIn("this one is needed", self.hands.keep("gap12", ""))

    def test_back_goes_to_the_ask_before_and_undo_strikes_out_the_last(self):
        self.hands.keep("room", "18")
        self.assertIn('data-ask="air-temperature"', self.hands.keep("seat", "back"))
        self.hands.keep("seat", "undo")
        self.assertIsNone(self.hands.work().answers.last("air-temperature"))
        self.assertIn("no reading to withdraw", self.hands.keep("seat", "undo"))

    def test_panels_open_by_word(self):
        for word, panel in (("sheet", "sheet"), ("?", "keys"), ("timer", "timer")):
            answer = self.hands.client.post(
                f"{self.hands.address}keep/",
                {"ask": "air-temperature", "text": word, "client_key": uuid.uuid4().hex},
                headers={"HX-Request": "true"},
            )
            self.assertIn(f'"{panel}"', answer["HX-Trigger-After-Settle"])

    def test_log_leads_to_the_log(self):
        answer = self.hands.client.post(
            f"{self.hands.address}keep/", {"ask": "air-temperature", "text": "log"}, headers={"HX-Request": "true"}
        )
        self.assertEqual((answer.status_code, answer["HX-Redirect"]), (200, "/jobs/0412/log/"))

    def test_digits_never_trigger_anything(self):
        self.hands.tick_all()
        for text in ("1", "12.5", "-3", ".5"):
            self.hands.keep("room", text)
        self.assertFalse(self.hands.entry.timers.exists())

    def test_a_measurement_again_replaces_the_one_before_and_keeps_it_withdrawn(self):
        self.hands.keep("room", "18")
        self.hands.keep("room", "19")
        self.assertEqual(self.hands.work().answers.value("air-temperature"), 19)
        self.assertEqual(self.hands.entry.readings.filter(withdrawn_at__isnull=False).get().text, "18")

    def test_one_reading_of_several_is_withdrawn_by_its_number(self):
        self.hands.keep("room", "18")
        self.hands.keep("seat", "46.98")
        first = self.hands.entry.readings.get(ask="air-temperature")
        self.assertIn('data-ask="air-temperature"', self.hands.post("undo", reading=str(first.pk)))
        self.assertEqual(self.hands.work().answers.value(self.hands.key("seat")), 46.98)


class WithoutScripts(TestCase):
    """The same doors without htmx: post, then back to the page."""

    def setUp(self):
        self.hands = Hands(job())

    def test_a_kept_reading_leads_back_to_the_page(self):
        answer = self.hands.client.post(f"{self.hands.address}keep/", {"ask": "air-temperature", "text": "18", "client_key": "x"})
        self.assertRedirects(answer, self.hands.address)

    def test_a_refused_one_shows_the_whole_page_with_the_words(self):
        answer = self.hands.client.post(f"{self.hands.address}keep/", {"ask": "air-temperature", "text": "18 mm", "client_key": "x"})
        self.assertContains(answer, "<title>")
        self.assertContains(answer, "mm is a unit of length")

    def test_reading_doors_are_not_opened_by_a_link(self):
        for word in ("keep", "act", "undo", "choose", "tick", "supersede"):
            self.assertEqual(self.hands.client.get(f"{self.hands.address}{word}/").status_code, 405)


class Pictures(TestCase):
    def test_an_instant_beyond_the_drawing_is_its_end_and_nonsense_its_start(self):
        hands = Hands(job())
        longest = hands.work().slider()[0]
        for asked, shown in (("1e9", longest), ("-5", 0), ("soon", 0)):
            text = hands.client.get(f"{hands.address}picture/?t={asked}").content.decode()
            self.assertIn(f"{int(shown // 60)}:{int(shown % 60):02d} after coming out", text)

    def test_a_live_page_gets_drawing_and_call_without_losing_its_field(self):
        hands = Hands(job())
        hands.tick_all()
        hands.act("chill")
        hands.job.refresh_from_db()
        answer = hands.client.get(f"{hands.address}pulse/?rev={hands.job.revision}&live=1", headers={"HX-Request": "true"})
        self.assertEqual(answer["HX-Reswap"], "none")
        self.assertContains(answer, 'hx-swap-oob="innerHTML:#plate"')
        self.assertNotContains(answer, "strip-field")


class TwoAtOnce(TransactionTestCase):
    """Real threads on a real file."""

    def _fixture_teardown(self):
        with without_triggers():
            super()._fixture_teardown()

    def together(self, act, times):
        def run(index):
            try:
                act(index)
            finally:
                connection.close()

        threads = [threading.Thread(target=run, args=(index,)) for index in range(times)]
        for thread in threads:
            thread.start()
        for thread in threads:
            thread.join()

    def test_one_key_sent_by_eight_at_once_is_kept_once(self):
        made = job()
        entry = log.open_entry(made.run.get(key="heat-and-drop"), made.card.seats.get(), person())
        quantity, una = parse("18 C", "temperature"), person()
        self.together(lambda index: log.save_reading(entry, una, "room", quantity, "the-same"), 8)
        self.assertEqual(Reading.objects.count(), 1)

    def test_eight_devices_writing_to_one_job_are_all_kept(self):
        hands = Hands(job())
        hands.tick_all()
        hands.choose(means="drop")
        hands.act("chill")
        before = hands.job.__class__.objects.get().revision
        self.together(lambda index: Hands(hands.job).keep("drop", "sits"), 8)
        self.assertEqual(Reading.objects.filter(property="water-drop").count(), 8)
        self.assertGreaterEqual(hands.job.__class__.objects.get().revision, before + 8)

    def test_two_who_open_a_seat_at_once_write_into_one_entry(self):
        made = job()
        stage, seat, una = made.run.get(key="heat-and-drop"), made.card.seats.get(), person()
        self.together(lambda index: log.open_entry(stage, seat, una), 6)
        self.assertEqual(made.entries.count(), 1)
