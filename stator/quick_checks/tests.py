"""Readings in, verdict out, without a job; and the job that a check becomes."""

from __future__ import annotations

from html import escape, unescape
from urllib.parse import urlencode

from django.test import TestCase

from stator.engines.models import EngineCard, Seat
from stator.jobs.models import Job, Reading
from stator.quick_checks.registry import BY_KEY, CHECKS
from stator.shop.defaults import stock_shelves
from stator.shop.models import Heater, Person, Shop
from tests.factories import person

FIT = {"designation": "6205 C3", "code": "N7"}


class Checks(TestCase):
    def setUp(self):
        stock_shelves()
        self.client.force_login(person())

    def see(self, key, **inputs):
        """Return the answer as a script requests it."""
        answer = self.client.get(f"/check/{key}/", inputs, headers={"HX-Request": "true"})
        self.assertEqual(answer.status_code, 200)
        self.page = unescape(answer.content.decode())
        return answer.context["plate"]

    def example(self, key, **other):
        return self.see(key, **{**BY_KEY[key].example, **other})

    def test_every_check_begins_with_a_sentence_answers_its_example_and_stores_nothing(self):
        for check in CHECKS:
            with self.subTest(check.key):
                self.assertContains(self.client.get(f"/check/{check.key}/"), escape(str(check.begin)))
                self.assertEqual(self.example(check.key).state, "in")
                self.assertEqual(self.client.get(f"/check/{check.key}/?{urlencode(check.example)}").status_code, 200)
        self.assertEqual((Job.objects.count(), Reading.objects.count(), Heater.objects.filter(name="torch").count()), (0, 0, 0))

    def test_a_fit_is_answered_as_the_station_answers_it_with_what_would_change_it(self):
        verdict = self.see("fit", **FIT)
        self.assertEqual((verdict.state, verdict.headline), ("in", "It drops in"))
        self.assertIn("at least 0.050 mm clearance", verdict.reason)
        self.assertIn("Without chilling: it drops in.", self.page)
        self.assertIn("52 N7", self.page)
        self.assertIn("gloves", self.page)
        self.assertEqual(self.see("fit", **FIT, heat="none", chill="none").state, "out")
        self.assertEqual(self.see("fit", designation="25x52x15", code="52 N7").state, "in")
        self.assertIn("capitals are bores", self.see("fit", designation="6205", code="k5").reason)

    def test_a_measured_seat_answers_and_a_typo_is_told_beside_its_field(self):
        self.assertIn("at least", self.see("fit", designation="6205", measured_mm="51.974").reason)
        self.assertIn("more than 0.5 mm from the nominal", self.see("fit", designation="6205", measured_mm="57.974").reason)
        self.assertRegex(self.page, r'id="id_measured_mm_error"[^>]*>57.97 mm is more than')
        self.assertIn("has no bearing size known", self.see("fit", designation="62O5").reason)

    def test_half_typed_it_says_what_is_still_wanted(self):
        verdict = self.see("shims", left_mm="38.42")
        self.assertEqual((verdict.state, verdict.headline), ("wait", "Right case, face to bearing"))
        self.assertNotIn("needed", self.page)

    def test_a_wrong_puller_and_one_with_too_few_turns_are_stopped(self):
        self.assertEqual(self.example("puller", puller="M27x1.25").headline, "Thread does not match")
        self.assertEqual(self.example("puller", turns="1", nut_torque_nm="250 Nm").state, "stop")
        self.assertEqual(self.example("puller", turns="").state, "wait")

    def test_a_thread_between_two_is_too_close(self):
        self.assertEqual(self.see("thread", diameter_mm="26.9", pitch_mm="1.04").state, "too_close")
        self.assertEqual(self.see("thread", diameter_mm="95", pitch_mm="7").state, "out")
        self.assertIn("1/4", self.see("thread", diameter_mm="6.25", pitch_mm="20 tpi").headline + self.page)

    def test_shims_force_torque_and_runout_at_their_limits(self):
        self.assertIn("Fit 0.3", self.example("shims").headline)
        self.assertEqual(self.example("press", press_n="9 kN").headline, "Press too small")
        self.assertEqual(self.example("bolt", torque_nm="16 Nm").state, "stop")
        self.assertEqual(self.example("bolt", torque_nm="12 Nm").state, "too_close")
        self.example("runout")
        self.assertIn("As you hold it", self.page)
        self.assertEqual(self.example("runout", read_mm="0.03 mm").state, "too_close")
        self.assertEqual(self.example("runout", read_mm="0.012 mm").state, "in")
        self.assertEqual(self.example("runout", read_mm="0.07 mm").state, "out")

    def test_a_plug_is_turned_so_that_it_holds_hot_and_one_that_breaks_its_boss_is_not(self):
        own = self.example("plug", wall_mm="20")
        steel = self.example("plug", metal="c45", wall_mm="20")
        self.assertLess(own.headline, steel.headline)  # one of the case's own metal loses nothing
        self.assertEqual((own.state, steel.state), ("in", "too_close"))
        self.assertEqual(self.example("plug", metal="c45", hottest_c="200 C", wall_mm="3").headline, "Not as a press fit")
        self.assertIn("threaded plug", self.example("plug", metal="c45", hottest_c="200 C", wall_mm="3").next_step)
        self.assertEqual(self.example("plug", hottest_c="20 C").state, "wait")

    def test_unbalance_and_conversion(self):
        self.assertIn("13.4 g·mm", self.example("unbalance").headline)
        self.assertIn("0.217 g", self.page)
        for typed, words in (("7.2 ft-lb", "9.76189 N·m"), ("2.5 thou", "0.0635 mm"), ("300 F", "148.889 °C"), ("20 tpi", "1.27 mm")):
            self.assertEqual(self.see("convert", text=typed).headline, words)
        self.assertEqual(self.see("convert", text="seven").state, "wait")

    def test_a_link_that_was_sent_is_read_in_the_units_of_its_sender(self):
        Person.objects.update(units="inch")
        answer = self.client.get("/check/fit/", {"designation": "6205", "measured_mm": "51.974", "u": "metric"})
        self.assertRedirects(answer, "/check/fit/?designation=6205&measured_mm=51.974+mm&u=inch", fetch_redirect_response=False)
        answer = self.client.get("/check/fit/", {"designation": "6205", "heater_c": "100", "u": "metric"})
        self.assertIn("heater_c=212", answer["Location"])

    def test_it_becomes_a_job_with_every_number_where_its_station_asks_for_it(self):
        inputs = {**FIT, "measured_mm": "51.974", "heater_c": "110", "room_c": "18", "chill": "none"}
        answer = self.client.post("/check/fit/job/", {**inputs, "engine": "Corrie 272", "complaint": "Rumbles.", "client_key": "k"})
        job, seat = Job.objects.get(), Seat.objects.get()
        self.assertRedirects(answer, f"/jobs/{job.tag}/heat-and-drop/{seat.pk}/")
        page = self.client.get(answer["Location"]).content.decode()
        self.assertIn("at 110 °C", page)
        values = {reading.property: reading.canonical for reading in Reading.objects.all()}
        self.assertEqual(values, {"seat-size": 51.974, "heater-setting": 110.0, "air-temperature": 18.0})
        self.assertEqual((seat.code, seat.designation, job.card.name), ("N7", "6205 C3", "Corrie 272"))
        self.client.post("/check/fit/job/", {**inputs, "engine": "Corrie 272", "complaint": "Rumbles.", "client_key": "k"})
        self.assertEqual(Job.objects.count(), 1)

    def test_a_pin_that_is_pressed_out_is_taken_up_where_it_is_and_dry_ice_stays_dry_ice(self):
        posted = {**BY_KEY["press"].example, "moving": "out", "engine": "Kart", "complaint": "Rod.", "client_key": "p"}
        self.assertIn("/apart/", self.client.post("/check/press/job/", posted)["Location"])
        posted = {**FIT, "chill": "dry_ice", "chiller_c": "-60", "engine": "Kart", "complaint": "Rumbles.", "client_key": "d"}
        page = self.client.get(self.client.post("/check/fit/job/", posted)["Location"]).content.decode()
        self.assertIn("dry ice", page.lower())

    def test_an_untried_dial_counts_with_what_its_kind_repeats_to(self):
        self.assertEqual(self.example("runout", read_mm="0.02 mm").state, "too_close")

    def test_each_of_them_that_can_becomes_one(self):
        for check in CHECKS:
            if check.known is None or check.key == "fit":
                continue
            with self.subTest(check.key):
                before = Reading.objects.count()
                posted = {**check.example, "engine": check.key, "complaint": "to be done", "client_key": check.key}
                answer = self.client.post(f"/check/{check.key}/job/", posted)
                self.assertEqual(self.client.get(answer["Location"]).status_code, 200)
                card = EngineCard.objects.get(name=check.key)
                self.assertTrue(card.wheel_kg or card.marks.exists() or Reading.objects.count() - before >= 3)

    def test_a_bolt_is_taken_up_where_the_case_is_closed(self):
        posted = {**BY_KEY["bolt"].example, "torque_nm": "16 Nm", "engine": "Pump", "complaint": "Stripped.", "client_key": "b"}
        page = self.client.get(self.client.post("/check/bolt/job/", posted)["Location"]).content.decode()
        self.assertIn("/close/", page)
        bolt = EngineCard.objects.get(name="Pump").marks.get()
        self.assertEqual((bolt.d_mm, bolt.torque_nm, bolt.assumed), (6.0, 16.0, False))
        self.assertIn("class 8.8, 12.0 mm in the case", bolt.source)

    def test_the_shop_s_own_kit_and_inches_answer_too(self):
        Shop.objects.update_or_create(pk=1, defaults={"units": "inch"})
        self.assertIn("thou", self.example("shims").reason)
        self.assertIn("°F", self.see("fit", **FIT).next_step)
        self.client.logout()
        self.assertEqual(self.client.get("/check/fit/").status_code, 302)
