"""Tests of several answers in one request: all round, skipped together, as the previous part; each can be changed separately."""

from __future__ import annotations

from stator.engines.models import Seat
from stator.jobs.models import Entry, Reading
from stator.workbench.test_navigation import Around


class Several(Around):
    page = ""

    def setUp(self):
        super().setUp()
        self.first = self.card.seats.get()
        self.second = Seat.objects.create(card=self.card, name="Output", role="gearbox", half="left", designation="6203", code="N7")

    def at(self, key, seat):
        self.page = f"/jobs/0412/{key}/{seat.pk}/"
        return self

    def shown(self):
        return self.client.get(self.page).context

    def sends(self, word="keep", **data):
        shown = self.shown()
        values = {"ask": shown["ask"].key if shown["ask"] else "", "attempt": shown["work"].answers.attempt, **data}
        return self.client.post(f"{self.page}{word}/", values, headers={"hx-request": "true"})

    def answers(self, **wanted):
        for text in wanted.values():
            self.sends(text=text)


class AllRound(Several):
    def fit(self):
        entry_page = self.at("bearings-out", self.first)
        self.card.seals.create(name="Crank seal", seat=self.first, shaft_mm=20, bore_mm=35, width_mm=7)
        self.sends(text="inside")
        return entry_page

    def test_the_same_at_every_place_is_one_line_and_a_reading_each(self):
        self.fit()
        self.assertContains(self.client.get(self.page), "Skip these 4")
        self.sends(text="0.5")
        self.assertContains(self.client.get(self.page), "0.50 mm at the other 3 too")
        self.sends(text="0.5 all")
        depths = Reading.objects.filter(property="seal-depth").order_by("pk")
        self.assertEqual([each.canonical for each in depths], [0.5] * 4)
        self.assertEqual([bool(each.extra.get("of_all")) for each in depths], [False, True, True, True])
        self.assertContains(self.client.get(self.page, headers={"x-panel": "sheet"}), "told once for all places", count=3)
        self.sends("undo", latest=depths[3].pk)
        self.assertEqual(depths.filter(withdrawn_at=None).count(), 1)  # what one act told, one undo takes back

    def test_undo_takes_back_all_that_one_act_told_and_one_of_them_may_be_taken_back_alone(self):
        self.fit()
        self.sends(text="0.6")
        self.sends(text="0.5 all")
        last = Reading.objects.filter(property="seal-depth").order_by("pk").last()
        self.sends("undo", reading=last.pk)
        self.assertEqual(Reading.objects.filter(property="seal-depth", withdrawn_at=None).count(), 3)
        self.sends(text="0.5")
        self.sends("undo")  # the one just typed, alone
        self.sends("undo")
        self.assertEqual([each.text for each in Reading.objects.filter(property="seal-depth", withdrawn_at=None)], ["0.6"])

    def test_where_one_place_is_left_it_is_that_place(self):
        self.fit()
        for text in ("0.5", "0.6", "0.5", "0.5 all"):
            self.sends(text=text)
        depths = Reading.objects.filter(property="seal-depth").order_by("pk")
        self.assertEqual([each.text for each in depths], ["0.5", "0.6", "0.5", "0.5"])
        self.assertFalse(any(each.extra.get("of_all") for each in depths))

    def test_what_is_no_round_takes_no_all(self):
        self.at("heat-and-drop", self.first)
        self.assertContains(self.sends(text="20 all"), "20 all")
        self.assertFalse(Reading.objects.exists())

    def test_what_may_be_left_out_is_left_out_together_and_asked_again_when_it_is_taken_up(self):
        self.fit()
        self.sends(text="skip all")
        entry = Entry.objects.get()
        self.assertEqual(len(entry.choices["skipped"]), 4)
        self.assertEqual(self.shown()["ask"].slot.what, "seal-out")
        self.client.post(
            f"{self.page}keep/", {"ask": entry.choices["skipped"][1], "attempt": 1, "text": "0.6"}, headers={"hx-request": "true"}
        )
        self.assertEqual(Reading.objects.get(property="seal-depth").canonical, 0.6)

    def test_words_are_left_out_together_too(self):
        self.at("bearings-out", self.first)
        for text in ("none", "open", "open", "marking_out", "scrap"):
            while not self.shown()["ask"].options:
                self.sends(text="skip")
            self.sends(text=text)
        for check in self.shown()["work"].checks():
            self.sends("tick", key=check.key, on="1")
        self.sends(text="dropped")
        self.sends(text="sound")
        self.assertEqual([each.slot.what for each in self.shown()["together"]], ["bearing-marking", "note"])
        self.sends(text="skip all")
        self.assertFalse(Reading.objects.filter(text__startswith="skip").exists())
        self.assertIsNone(self.shown()["work"].next_question)


class Threads(Several):
    def test_a_thread_may_be_told_by_its_name_and_is_marked_as_not_measured(self):
        self.page = "/jobs/0412/flywheel-off/"
        self.sends(text="M27x1")
        self.assertEqual(self.shown()["ask"].slot.what, "puller-hand")
        self.sends(text="right")
        self.sends(text="m27×1")
        saved = {each.property: each.canonical for each in Reading.objects.filter(kind__in=("length", "thread_pitch"))}
        self.assertEqual(saved, {"puller-diameter": 27, "puller-pitch": 1, "boss-diameter": 25.92, "boss-pitch": 1})
        self.assertContains(self.client.get(self.page, headers={"x-panel": "sheet"}), "told as M27x1, not measured", count=2)
        self.sends(text="right")
        self.assertNotIn("stop", self.shown()["plate"].state)

    def test_of_two_devices_that_tell_a_thread_the_first_stands(self):
        self.page = "/jobs/0412/flywheel-off/"
        for text in ("M27x1", "M26x1"):
            self.client.post(f"{self.page}keep/", {"ask": "puller-diameter", "text": text, "saw": "0"}, headers={"hx-request": "true"})
        self.assertEqual([each.canonical for each in Reading.objects.filter(property="puller-diameter")], [27])


class AsBefore(Several):
    def test_the_next_seat_is_described_as_the_one_before_in_one_act_but_not_how_it_came_out(self):
        self.at("bearings-out", self.first)
        self.assertIsNone(self.shown()["as_before"])
        for text in ("circlip", "open", "one", "marking_out", "scrap"):
            self.sends(text=text) if self.shown()["ask"].options else self.sends(text="skip")
        before = {each.property: each.text for each in Reading.objects.filter(entry__seat=self.first)}
        self.at("bearings-out", self.second)
        while not self.shown()["ask"].options:
            self.sends(text="skip")
        self.assertContains(self.client.get(self.page), f"As at {self.first.name}")
        self.sends(as_before="1", text="")
        here = Reading.objects.filter(entry__seat=self.second)
        self.assertEqual({each.property: each.text for each in here}, before)
        self.assertEqual({each.extra["as_at"] for each in here}, {self.first.name})
        self.assertNotIn("came-out", before)
