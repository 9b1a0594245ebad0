from __future__ import annotations

import re

from django.core.exceptions import ValidationError
from django.test import TestCase, override_settings

from stator.shop.defaults import stock_shelves
from stator.shop.models import Chiller, Driver, Gauge, Heater, Person, Shop
from tests.factories import PASSWORD, Hands, job, person

SHOP = {"units": "metric", "time_zone": "", "first_weekday": "1", "ton": "", "local_opening": "0.5", "handling_s": "25"}


class TheDoor(TestCase):
    def test_nobody_works_unsigned(self):
        job()
        for page in ("/", "/jobs/0412/", "/shop/", "/book-in/", "/jobs/0412/export.json", "/entries/1/sheet/"):
            with self.subTest(page):
                self.assertRedirects(self.client.get(page), f"/sign-in/?next={page}", fetch_redirect_response=False)

    def test_a_session_that_ends_in_mid_typing_gets_words_beside_the_field(self):
        hands = Hands(job())
        hands.client.logout()
        answer = hands.client.post(f"{hands.address}keep/", {"ask": "room", "text": "18"}, headers={"HX-Request": "true"})
        self.assertEqual((answer.status_code, answer["HX-Retarget"]), (401, "#strip-words"))
        self.assertContains(answer, "kept on this device", status_code=401)

    @override_settings(AXES_ENABLED=True)
    def test_five_wrong_passwords_shut_the_door_for_a_while(self):
        person()
        for _ in range(5):
            answer = self.client.post("/sign-in/", {"username": "una", "password": "wrong-wrong"})
        self.assertContains(answer, "The right password works again in 15 minutes", status_code=429)
        self.assertEqual(self.client.post("/sign-in/", {"username": "una", "password": PASSWORD}).status_code, 429)


class Shelves(TestCase):
    def setUp(self):
        stock_shelves()

    def test_ten_readings_of_one_thing_give_a_gauge_its_own_repeatability(self):
        self.client.force_login(person())
        gauge = Gauge.objects.get(kind="dial")
        page, fields = f"/shop/gauges/{gauge.pk}/", {"name": gauge.name, "kind": "dial", "resolution": "0.01", "baud": "9600"}
        answer = self.client.post(page, {**fields, "tried": "1.001 1.003 1.002"})
        self.assertContains(answer, "A check is 10 to 100 readings of one thing; 3 were given.")
        self.assertContains(answer, 'value="1.001 1.003 1.002"')
        self.client.post(page, {**fields, "tried": "1.001 1,003 1.002 1.002 1.001 1.004 1.002 1.003; 1.001 1.002"})
        gauge.refresh_from_db()
        self.assertAlmostEqual(gauge.repeatability, 0.00115, places=5)

    def test_a_mechanic_reads_the_shop_s_figures_and_the_owner_changes_them(self):
        oven = Heater.objects.get(name="Workshop oven")
        page = f"/shop/heaters/{oven.pk}/"
        self.client.force_login(person("bram", "mechanic"))
        self.assertContains(self.client.get("/shop/"), "The owner changes these figures")
        self.assertEqual(self.client.post(page, {"name": "Mine"}).status_code, 403)
        self.assertEqual(self.client.post("/shop/", {"name": "Mine"}).status_code, 403)
        self.client.force_login(person())
        self.client.post(page, {"name": "Kiln", "method": "oven", "highest_c": "480F"})
        oven.refresh_from_db()
        self.assertEqual((oven.name, oven.highest_c), ("Kiln", 248.888889))
        self.client.post("/shop/", {**SHOP, "name": "Net Loft", "ton": "tonne"})
        self.assertEqual((Shop.current().name, Shop.current().ton), ("Net Loft", "tonne"))

    def test_the_time_zone_is_one_of_the_machine_s_and_stands_chosen(self):
        self.client.force_login(person())
        page = self.client.get("/shop/").content.decode()
        self.assertIn('<option value="" selected>the server&#x27;s own', page)
        self.assertGreater(page.count("<option"), 400)
        self.client.post("/shop/", {**SHOP, "name": "The shed", "time_zone": "Pacific/Chatham"})
        self.assertEqual(Shop.current().time_zone, "Pacific/Chatham")
        page = self.client.get("/shop/").content.decode()
        self.assertEqual(re.findall(r'<option value="([^"]*)" selected>[^<]*/', page), ["Pacific/Chatham"])
        wrong = self.client.post("/shop/", {**SHOP, "name": "The shed", "time_zone": "Nowhere/<b>"})
        self.assertContains(wrong, "is not one of the available choices")
        self.assertNotContains(wrong, "Nowhere/<b>")
        self.assertEqual(Shop.current().time_zone, "Pacific/Chatham")

    def test_bad_figures_are_answered_beside_their_field(self):
        self.client.force_login(person())
        freezer = Chiller.objects.get(name="Freezer")
        answer = self.client.post(f"/shop/chillers/{freezer.pk}/", {"name": "Freezer", "method": "freezer", "temperature_c": "18 mm"})
        self.assertContains(answer, "mm is a unit of length")
        self.assertContains(answer, 'value="18 mm"')
        answer = self.client.post("/shop/gauges/", {"name": "Gun", "kind": "infrared", "resolution": "1"})
        self.assertContains(answer, "needs the emissivity")
        with self.assertRaises(ValidationError):
            Gauge(name="g", kind="infrared", resolution=1).full_clean()

    def test_the_owner_lets_someone_in(self):
        self.client.force_login(person())
        fields = {"username": "wren", "first_name": "Wren", "role": "mechanic", "password1": PASSWORD, "password2": PASSWORD}
        self.client.post("/shop/people/", fields)
        self.assertTrue(Person.objects.get(username="wren").check_password(PASSWORD))


class UsualTools(TestCase):
    def setUp(self):
        self.client.force_login(person())

    def test_they_are_added_in_one_act_once_and_by_an_owner_only(self):
        self.assertContains(self.client.get("/shop/tools/"), "Add the usual tools")
        self.assertContains(self.client.post("/shop/tools/usual/", follow=True), "23 tools were added.")
        self.assertNotContains(self.client.get("/shop/tools/"), "Add the usual tools")
        self.assertContains(self.client.post("/shop/tools/usual/", follow=True), "0 tools were added.")
        self.assertEqual(Driver.objects.get(name="Tube driver 46").inside_mm, 40)
        self.client.force_login(person("bram", "mechanic"))
        self.assertEqual(self.client.post("/shop/tools/usual/").status_code, 403)

    def test_one_is_saved_and_another_begun_and_what_is_wrong_stands_at_the_top(self):
        socket = {"name": "Old socket", "kind": "socket", "outside_mm": "27", "inside_mm": "0"}
        answer = self.client.post("/shop/drivers/", {**socket, "another": "1"}, follow=True)
        self.assertContains(answer, "Old socket was added.")
        self.assertContains(answer, "Save and add another")
        answer = self.client.post("/shop/drivers/", {"name": "", "kind": "socket", "outside_mm": "wide"})
        self.assertContains(answer, "Not saved yet. Look at:")
        self.assertContains(answer, 'href="#id_outside_mm"')
