from __future__ import annotations

from django.db import connection
from django.test import TestCase
from django.test.utils import CaptureQueriesContext

from stator.engines.fits import fit_of
from stator.engines.models import Seat
from stator.jobs import log
from stator.jobs.models import Job, RunStation
from stator.shop.defaults import stock_shelves
from tests.factories import Hands, job, person, press


class BookIn(TestCase):
    def setUp(self):
        stock_shelves()
        self.client.force_login(person())
        self.fields = {
            "name": "Plover 125",
            "complaint": "Rattles.",
            "work_order": "heat",
            "case_material": "al-si7-mg",
            "left_name": "drive side",
            "right_name": "magneto side",
            "on": "case",
            "half": "left",
            "loads_from": "inside",
            "stop": "shoulder",
            "designation": "6205 C3",
        }

    def post(self, **changes):
        of_seat = ("on", "half", "loads_from", "stop", "designation", "bore_mm", "outside_mm", "width_mm", "code", "measured_mm")
        fields = {**self.fields, **changes}
        return self.client.post("/book-in/", {f"seat-{name}" if name in of_seat else name: value for name, value in fields.items()})

    def test_an_engine_with_one_main_is_on_the_bench_in_one_page(self):
        self.post()
        made = Job.objects.get()
        self.assertEqual([stage.key for stage in made.run.all()], ["book-in", "heat-and-drop", "seals", "hand-over"])
        seat = made.card.seats.get()
        self.assertEqual((seat.code, seat.code_assumed), ("N7", True))
        self.assertContains(self.client.get(f"/jobs/{made.tag}/", follow=True), "It drops in")

    def test_a_bearing_without_a_marking_is_booked_in_by_its_sizes(self):
        self.post(designation="", bore_mm="25", outside_mm="51.993", width_mm="15", measured_mm="51.97 mm")
        seat = Seat.objects.get()
        fit = fit_of(seat)
        self.assertEqual((fit.nominal_mm, fit.inner.measured, fit.outer.measured), (52.0, True, True))

    def test_what_cannot_be_is_answered_beside_its_field_and_kept(self):
        for changes, words in [
            ({"designation": "69999"}, "has no bearing size known here"),
            ({"designation": ""}, "Type the marking on the ring"),
            ({"code": "Q7"}, "no hole letter"),
            ({"code": "k5"}, "is a shaft code"),
            ({"measured_mm": "12 C"}, "unit of temperature"),
            ({"measured_mm": "47"}, "more than 0.5 mm from"),
            ({"designation": "", "bore_mm": "52", "outside_mm": "25", "width_mm": "15"}, "must be larger than the bore"),
            ({"bore_mm": "-3"}, "it must be above 0 mm"),
            ({"complaint": ""}, "Fill this in; it is needed."),
            ({"name": ""}, "Give the engine a name"),
        ]:
            with self.subTest(changes):
                answer = self.post(**changes)
                self.assertContains(answer, words)
                self.assertFalse(Job.objects.exists())

    def test_a_marking_is_read_back_while_it_is_typed(self):
        self.assertContains(self.client.get("/book-in/read-marking/?seat-designation=6204-2RS+XQ"), "not understood: XQ")

    def test_a_known_engine_is_booked_in_again_without_typing_it(self):
        self.post()
        again = {"known": str(Job.objects.get().card.pk), "complaint": "Back again.", "work_order": "bearings"}
        self.client.post("/book-in/", {**again, "case_material": "al-si7-mg", "left_name": "l", "right_name": "r"})
        first, second = Job.objects.order_by("pk")
        self.assertNotEqual(first.card, second.card)  # each job keeps its own copy
        self.assertEqual(second.card.seats.get().designation, first.card.seats.get().designation)


class OldLinks(TestCase):
    def test_a_page_from_an_old_link_says_so_in_words(self):
        Hands(job())
        self.client.force_login(person())
        for page in (
            "/jobs/9999/",
            "/jobs/abc/",
            "/jobs/0412/nowhere/",
            "/jobs/0412/heat-and-drop/999/",
            "/entries/77/sheet/",
            "/photos/5/full.jpg",
        ):
            with self.subTest(page):
                self.assertContains(self.client.get(page), "The link may be old", status_code=404)

    def test_acts_from_a_page_that_has_moved_on_are_answered_and_do_nothing(self):
        hands = Hands(job())
        self.assertIn("moved on", hands.keep("gap12", "0"))
        self.assertIn("cannot be done at this point", hands.act("sign"))


class ByHand(TestCase):
    def test_a_station_without_numbers_keeps_notes_and_signs_them(self):
        made = job()
        client = Hands(made).client
        page = "/jobs/0412/seals/"
        self.assertContains(client.get(page), "lip faces what is kept in")
        client.post(f"{page}keep/", {"ask": "note", "text": "Both in, flush.", "client_key": "n1"})
        press(client, page, "sign")
        stage = made.run.get(key="seals")
        self.assertEqual((stage.state, stage.entries.get().reason), ("done", "Both in, flush."))


class TheBench(TestCase):
    def test_it_says_where_each_engine_stands_and_what_comes_due(self):
        made = job()
        hands = Hands(made)
        hands.keep("room", "18")
        log.start_timer(hands.entry, person(), "heat", {"code": "heat", "values": {"outer": "case"}}, "heat", 600)
        page = hands.client.get("/").content.decode()
        self.assertIn("Case: read the temperature in 10 min", page)
        self.assertIn("0412 case: read the temperature", page)

    def test_an_empty_bench_says_what_to_do(self):
        self.client.force_login(person())
        self.assertContains(self.client.get("/"), "Nothing on the bench")

    def test_fifteen_engines_cost_no_more_questions_than_one(self):
        hands = Hands(job())
        signed_in = hands.client
        with CaptureQueriesContext(connection) as one:
            signed_in.get("/")
        for number in range(500, 514):
            made = job(number)
            Hands(made).keep("room", "18")
        with CaptureQueriesContext(connection) as fifteen:
            signed_in.get("/")
        self.assertEqual(len(one), len(fifteen))
        self.assertLessEqual(len(fifteen), 12)

    def test_a_full_bench_is_looked_at_by_who_what_waits_and_what_is_due(self):
        for number in range(500, 507):
            hands = Hands(job(number), person("bram", "mechanic") if number < 503 else None)
            hands.keep("room", "18")
        RunStation.objects.filter(job__number=506, key="heat-and-drop").update(state="waits", waits_for="shims")
        hands.job.run.update(call_state="")
        page = hands.client.get(f"/?show=by-{person('bram').pk}")
        self.assertContains(page, 'class="bench-line"', 3)
        self.assertContains(page, "7 engines")
        self.assertContains(hands.client.get("/?show=waits"), 'class="bench-line"', 1)
        self.assertContains(hands.client.get("/?show=nonsense"), 'class="bench-line"', 7)
