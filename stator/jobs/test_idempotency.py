"""Done once: the same sent again, other content under a known key, who signs what, and a closed job."""

from __future__ import annotations

import re
from datetime import timedelta
from unittest.mock import patch

import time_machine
from django.db import DatabaseError, connection, transaction
from django.test import Client, TestCase
from django.urls import get_resolver
from django.utils import timezone

from shopmath.quantity import parse
from stator.engines.models import EngineCard, Mark, Spec
from stator.jobs import log
from stator.jobs.fact_loader import current_entry
from stator.jobs.models import Act, Entry, Job, Photo, Pin, Reading, RunStation, TrayPlace
from tests.factories import Hands, job, person, press, shown_on

PAGE = "/jobs/0412/true/"


class Keys(TestCase):
    def setUp(self):
        self.job = job(order="crank")
        self.client.force_login(person())

    def keep(self, text, key, ask="support-place.left", page=PAGE, client=None, **more):
        values = {"ask": ask, "text": text, "client_key": key, **more}
        return (client or self.client).post(f"{page}keep/", values, headers={"HX-Request": "true"})

    def standing(self):
        return list(Reading.objects.filter(withdrawn_at=None).values_list("ask", "text"))

    def test_the_same_again_is_answered_with_what_was_done(self):
        for _ in range(3):
            self.assertEqual(self.keep("92", "k")["X-Kept"], "yes")
        self.assertEqual((Reading.objects.count(), Act.objects.count()), (1, 1))

    def test_another_value_under_a_known_key_is_kept_and_says_what_it_replaced(self):
        self.keep("92", "k")
        for text in ("93", "94"):
            answer = self.keep(text, "k")
            self.assertContains(answer, f"{text} stands in its place")
        self.assertEqual(self.standing(), [("support-place.left", "94")])
        self.assertEqual(set(Reading.objects.filter(withdrawn_at=None).values_list("by", flat=True)), {person().pk})
        self.keep("94", "k")
        self.assertEqual(Reading.objects.count(), 3)

    def test_a_known_key_on_another_job_is_another_reading(self):
        other = Job.objects.create(number=413, card=job(414).card, complaint="x", work_order="crank", booked_in_by=person())
        RunStation.objects.create(job=other, order=0, key="true")
        self.keep("92", "k")
        self.keep("92", "k", page="/jobs/0413/true/")
        self.assertEqual(Reading.objects.filter(entry__job=other).get().text, "92")

    def test_what_was_refused_is_not_taken_for_done(self):
        self.assertEqual(self.keep("92 furlong", "k")["X-Kept"], "no")
        self.assertFalse(Entry.objects.exists() or Act.objects.exists())
        self.assertEqual(self.keep("92", "k")["X-Kept"], "yes")
        self.assertEqual(self.standing(), [("support-place.left", "92")])

    def test_a_repeat_that_is_wanted_conflicts_with_nobody(self):
        made = job(428, order="bottom-end")
        bram = Client()
        bram.force_login(person("bram", "mechanic"))
        self.keep("Rod big end felt", "a", ask="parts-used", page=f"/jobs/{made.tag}/hand-over/", saw="0")
        self.keep("Two seals", "b", ask="parts-used", page=f"/jobs/{made.tag}/hand-over/", saw="0", client=bram)
        self.assertEqual([text for _, text in self.standing()], ["Rod big end felt", "Two seals"])

    def test_a_reading_for_an_attempt_that_is_over_is_refused_and_stays_in_the_field(self):
        self.keep("92", "a")
        entry = Entry.objects.get()
        log.next_attempt(entry)
        answer = self.keep("34", "b", ask="gauge-place.left", attempt="1")
        self.assertContains(answer, "Attempt 2 was begun meanwhile")
        self.assertContains(answer, 'value="34"')

    def test_a_tray_place_of_another_job_is_never_overwritten(self):
        other = job(428)
        values = {"name": "thin washer", "count": "1", "client_key": "t"}
        self.client.post("/jobs/0412/tray/", values)
        self.client.post(f"/jobs/{other.tag}/tray/", {**values, "name": "circlip"})
        self.client.post("/jobs/0412/tray/", values)
        self.assertEqual(
            list(TrayPlace.objects.values_list("job__number", "number", "name")), [(412, 1, "thin washer"), (428, 1, "circlip")]
        )
        answer = self.client.post("/jobs/0412/tray/", {**values, "name": "thick washer"}, follow=True)
        self.assertContains(answer, "thick washer lies in place 2")

    def test_a_bolt_and_an_owner_s_link_sent_twice_are_there_once(self):
        face = f"/cards/{self.job.card_id}/face/"
        bolt = {"place": "bolt", "mark-name": "B1", "mark-x_mm": "3", "mark-y_mm": "4", "mark-d_mm": "6", "client_key": "b"}
        for _ in range(2):
            self.assertContains(self.client.post(face, bolt, headers={"HX-Request": "true"}, follow=True), "B1")
        self.assertEqual(Mark.objects.count(), 1)
        for _ in range(2):
            self.client.post("/jobs/0412/sheet/link/", {"days": "7", "client_key": "l"}, follow=True)
        self.assertEqual(self.job.links.count(), 1)

    def test_every_form_of_the_working_pages_carries_a_key(self):
        made = Hands(job(428))
        for page in (made.address, f"/jobs/{made.job.tag}/tray/", f"/jobs/{made.job.tag}/card/", f"/jobs/{made.job.tag}/run/", "/book-in/"):
            with self.subTest(page):
                answer = self.client.get(page)
                forms = re.findall(r"<form[^>]*method=\"post\".*?</form>", answer.content.decode(), re.S)
                self.assertTrue(forms)
                for form in forms:
                    self.assertIn('name="client_key"', form)
                self.assertIn("no-store", answer["Cache-Control"])


class Signing(TestCase):
    def setUp(self):
        self.job = job(order="bottom-end")
        self.client.force_login(person())
        self.page = "/jobs/0412/seals/"
        self.bram = Client()
        self.bram.force_login(person("bram", "mechanic"))
        self.keep("Both in, flush.")

    def keep(self, text, client=None):
        return (client or self.client).post(f"{self.page}keep/", {"ask": "note", "text": text})

    def seen(self):
        return shown_on(self.client.get(self.page).content.decode())

    def sign(self, **said):
        return self.client.post(f"{self.page}act/", {"action": "sign", **said}, headers={"HX-Request": "true"})

    def test_what_is_signed_is_what_the_page_showed(self):
        seen = self.seen()
        self.keep("One leans.", self.bram)
        answer = self.sign(seen=seen)
        self.assertContains(answer, "Not signed.")
        self.assertContains(answer, "Bram: ")
        self.assertContains(answer, "One leans.")
        self.assertFalse(Entry.objects.get().is_signed)
        self.sign(seen=self.seen())
        self.assertTrue(Entry.objects.get().is_signed)

    def test_a_page_that_does_not_say_what_it_shows_signs_nothing(self):
        self.assertContains(self.sign(), "Not signed.")
        self.assertContains(self.sign(seen="²|in|x"), "Not signed.")
        self.assertFalse(Entry.objects.get().is_signed)

    def test_signed_twice_it_is_signed_once(self):
        seen = self.seen()
        for _ in range(2):
            self.sign(seen=seen, client_key="s")
        self.assertEqual(Entry.objects.get().signed_by, person())
        self.assertEqual(Act.objects.filter(sent_key="s").count(), 1)

    def test_an_act_that_breaks_half_way_leaves_nothing_of_itself(self):
        seen = self.seen()
        with self.assertRaises(ZeroDivisionError), patch("stator.jobs.log.set_station", side_effect=ZeroDivisionError):
            self.sign(seen=seen)
        self.assertFalse(Entry.objects.get().is_signed)
        self.assertEqual(RunStation.objects.get(key="seals").state, "now")

    def test_undo_strikes_out_the_reading_that_the_page_shows_as_the_last(self):
        shown = Reading.objects.get()
        self.keep("One leans.", self.bram)
        values = {"ask": "note", "text": "undo", "latest": shown.pk}
        self.assertContains(self.client.post(f"{self.page}keep/", values, headers={"HX-Request": "true"}), "Meanwhile Bram kept One leans.")
        self.assertFalse(Reading.objects.exclude(withdrawn_at=None).exists())


class TheClock(TestCase):
    def setUp(self):
        self.job = job(order="bottom-end")
        self.client.force_login(person())
        self.stage = self.job.run.get(key="seals")

    def keep(self, text):
        self.client.post("/jobs/0412/seals/keep/", {"ask": "note", "text": text})

    def test_set_back_an_hour_the_new_entry_is_still_the_current_one_and_undo_strikes_the_last(self):
        now = timezone.now()
        with time_machine.travel(now):
            self.keep("Both in.")
            press(self.client, "/jobs/0412/seals/", "sign")
        with time_machine.travel(now - timedelta(hours=1)):
            self.client.post("/jobs/0412/seals/supersede/", {"reason": "one leans"})
            self.keep("One leans.")
            self.assertContains(self.client.get("/jobs/0412/seals/"), "Set it right")
            press(self.client, "/jobs/0412/seals/", "sign")
            current = current_entry(self.stage, None)
            self.assertEqual((current.reason, current.supersedes.reason), ("One leans.", "Both in."))
            self.client.post("/jobs/0412/seals/supersede/", {"reason": "again"})
        with time_machine.travel(now):
            self.keep("first")
        with time_machine.travel(now - timedelta(hours=1)):
            self.keep("second")
            self.client.post("/jobs/0412/seals/undo/")
        struck = Reading.objects.get(withdrawn_at__isnull=False)
        self.assertEqual((struck.text, struck.withdrawn_by), ("second", person()))

    def test_a_clock_that_jumps_while_the_server_runs_is_said(self):
        from stator.jobs import clock

        self.keep("Both in.")
        clock.DRIFT._apart -= 3600
        self.addCleanup(setattr, clock.DRIFT, "_apart", clock.DRIFT._apart + 3600)
        self.assertContains(self.client.get("/jobs/0412/seals/"), "was set forward by 60 min")


class Closed(TestCase):
    """A job that was handed over."""

    def setUp(self):
        self.job = job(order="bottom-end")
        card = self.job.card
        self.things = {
            "mark": Mark.objects.create(card=card, what="bolt", name="B1", x_mm=1, y_mm=1),
            "spec": Spec.objects.create(card=card, name="End float", property="end-float", low=0.1, high=0.3, source="p"),
            "seat": card.seats.first(),
        }
        self.hands = Hands(self.job)
        self.hands.keep("room", "18")
        self.photo = Photo.objects.create(job=self.job, image="a.jpg", thumb="b.jpg", width=4, height=4, by=person())
        Pin.objects.create(photo=self.photo, number=1, x=0.5, y=0.5, note="washer", by=person())
        TrayPlace.objects.create(job=self.job, number=1, name="thin washer", client_key="t", by=person())
        log.close(self.job, timezone.now())
        self.bram = Client()
        self.bram.force_login(person("bram", "mechanic"))

    def everything(self):
        with connection.cursor() as cursor:
            cursor.execute("SELECT name FROM sqlite_master WHERE type = 'table' AND (name LIKE 'jobs_%' OR name LIKE 'engines_%')")
            tables = sorted(name for (name,) in cursor.fetchall() if name not in ("jobs_act",))
            found = {}
            for table in tables:
                cursor.execute(f"SELECT * FROM {table} ORDER BY id")
                found[table] = cursor.fetchall()
        return found

    def addresses(self):
        """Every address there is, filled in with this job and what belongs to it."""
        values = {"tag": "0412", "key": "heat-and-drop", "seat": self.things["seat"].pk, "number": 1, "size": "full", "what": "figures"}
        for pattern in get_resolver().url_patterns:
            for each in pattern.url_patterns:
                route = str(each.pattern)
                if (
                    "owner/" in route
                    or "making/" in route
                    or route.startswith(("shop/", "sign-", "gauges/", "book-in/", "jobs/read", "cards/read/"))
                ):
                    continue
                pk = self.photo.pk if route.startswith("photos/") else self.job.card_id
                yield "/" + re.sub(
                    r"<(?:\w+:)?(\w+)>", lambda found, pk=pk: str({**values, "pk": pk, "paper": "a4", "other": 1}[found[1]]), route
                )

    def test_no_address_changes_anything_in_it(self):
        before = self.everything()
        thing = {f"{part}": each.pk for part, each in self.things.items()}
        values = {
            "ask": "room",
            "text": "19",
            "action": "heat",
            "key": "seals",
            "on": "1",
            "act": "leave",
            "words": "no",
            "number": "1",
            "name": "x",
            "note": "x",
            "x": "0.2",
            "y": "0.2",
            "off": "1",
            "sure": "1",
            "place": "bolt",
            "mark-x_mm": "3",
            "mark-y_mm": "3",
            "reason": "because",
            "heater": "none",
            "mark": thing["mark"],
        }
        for address in self.addresses():
            for more in (
                {},
                {"part": "seat", "id": thing["seat"]},
                {"part": "wheel", "wheel-nut_torque_nm": "60"},
                {"act": "gone"},
                {"act": "empty"},
            ):
                if "to-shelf" in address or "sheet/link" in address:
                    continue  # a copy for the next engine, and the owner's link, are no part of it
                with self.subTest(address, **more):
                    self.assertLess(self.bram.post(address, {**values, **more}).status_code, 500)
        self.assertEqual(self.everything(), before)

    def test_its_pages_offer_nothing_that_would_be_refused(self):
        for page in ("run", "tray", "tray/1", "pictures"):
            with self.subTest(page):
                answer = self.bram.get(f"/jobs/0412/{page}/")
                self.assertContains(answer, "nothing in this job changes any more")
                self.assertNotContains(answer, 'method="post"')
        self.assertNotContains(self.bram.get(f"/photos/{self.photo.pk}/"), 'method="post"')

    def test_the_database_refuses_too(self):
        changes = [
            lambda: Job.objects.update(complaint="none"),
            lambda: RunStation.objects.update(state="done"),
            lambda: Entry.objects.update(choices={}),
            lambda: Reading.objects.update(canonical=1),
            lambda: Photo.objects.all()._raw_delete("default"),
            lambda: Pin.objects.create(photo=self.photo, number=2, x=0, y=0, note="x", by=person()),
            lambda: TrayPlace.objects.update(name="x"),
            lambda: EngineCard.objects.filter(pk=self.job.card_id).update(name="x"),
            lambda: Spec.objects.update(high=9),
            lambda: Mark.objects.all()._raw_delete("default"),
            lambda: self.job.delete(),
        ]
        for number, change in enumerate(changes):
            with self.subTest(number), self.assertRaises(DatabaseError), transaction.atomic():
                change()

    def test_only_an_owner_opens_it_again(self):
        stage = self.job.run.get(key="hand-over")
        log.reopen(self.job)
        entry = log.open_entry(stage, None, person())
        log.save_reading(entry, person(), "note", parse("18 C", "temperature"), "n")
        log.sign(entry, person(), log.VerdictSnapshot("in", "Ready to go", ""), {})
        log.close(self.job, timezone.now())
        page = "/jobs/0412/hand-over/supersede/"
        self.assertContains(self.bram.post(page, {"reason": "back"}, headers={"HX-Request": "true"}), "Only an owner of the shop")
        self.assertTrue(Job.objects.get(pk=self.job.pk).is_closed)
        self.hands.client.post(page, {"reason": "It weeps."})
        self.assertFalse(Job.objects.get(pk=self.job.pk).is_closed)


class LookingWritesNothing(TestCase):
    def test_no_page_writes(self):
        hands = Hands(job(order="bottom-end"))
        hands.keep("room", "18")
        hands.tick_all()
        hands.act("heat")
        pages = ["/", "/cards/", "/find/?q=corrie", "/shop/", "/shop/tools/", "/held/", "/gauges/", "/bench.csv", "/jobs/0412/log/"]
        pages += [f"/jobs/0412/{stage.key}/" for stage in hands.job.run.all()]
        pages += [f"{hands.address}{word}" for word in ("", "pulse/?rev=1&live=1", "pulse/?rev=0", "readings/", "picture/?t=30")]

        def refuse(execute, sql, params, many, context):
            if sql.lstrip()[:6].upper() in ("INSERT", "UPDATE", "DELETE"):
                raise AssertionError(f"a page wrote: {sql[:200]}")
            return execute(sql, params, many, context)

        signed_in = hands.client
        for page in pages:
            with self.subTest(page), connection.execute_wrapper(refuse):
                self.assertLess(signed_in.get(page).status_code, 400)
