"""Tests of people and sign-in: added, switched off and signed out; passwords; limits on wrong attempts."""

from __future__ import annotations

from datetime import timedelta
from io import StringIO

import time_machine
from django.core.exceptions import ValidationError
from django.core.management import call_command
from django.test import Client, TestCase, override_settings
from django.utils import timezone

from stator.shop.gauge_ports import check_port
from stator.shop.models import Person, Shop
from stator.shop.passwords import GuessableValidator, ShopWordsValidator
from tests.factories import PASSWORD, person

NEW = "kelp-lantern-93"


class People(TestCase):
    def setUp(self):
        self.una, self.bram = person(), person("bram", "mechanic")
        self.client.force_login(self.una)

    def act(self, who, act, **more):
        return self.client.post(f"/shop/people/{who.pk}/", {"act": act, **more}, follow=True)

    def signed_in(self, name="bram", password=PASSWORD):
        client = Client()
        client.post("/sign-in/", {"username": name, "password": password}, headers={"User-Agent": "Mozilla/5.0 (Android 14) Firefox/130"})
        return client

    def test_someone_switched_off_is_out_at_once_and_comes_back_when_switched_on(self):
        phone = self.signed_in()
        self.assertEqual(phone.get("/").status_code, 200)
        self.assertContains(self.client.get("/shop/people/"), "Android, Firefox")
        self.assertContains(self.act(self.bram, "off"), "cannot sign in any more")
        self.assertEqual(phone.get("/").status_code, 302)
        self.assertEqual(self.signed_in().get("/").status_code, 302)
        self.act(self.bram, "on")
        self.assertEqual(self.signed_in().get("/").status_code, 200)

    def test_nobody_switches_off_oneself_so_an_owner_is_always_left(self):
        self.assertContains(self.act(self.una, "off"), "You cannot switch off yourself")
        self.assertTrue(Person.objects.get(pk=self.una.pk).is_active)
        other = person("olga", "owner")
        self.act(other, "off")
        self.assertFalse(Person.objects.get(pk=other.pk).is_active)

    def test_sessions_are_seen_and_ended(self):
        phone = self.signed_in()
        self.assertContains(self.act(self.bram, "out"), "signed out in 1 place.")
        self.assertEqual(phone.get("/").status_code, 302)

    def test_a_first_password_must_be_changed_before_anything_else(self):
        phone = self.signed_in()
        short = {"first-new_password1": "short", "first-new_password2": "short"}
        self.assertContains(self.act(self.bram, "password", **short), "too short")
        self.act(self.bram, "password", **{"first-new_password1": NEW, "first-new_password2": NEW})
        self.assertEqual(phone.get("/").status_code, 302)
        desk = self.signed_in(password=NEW)
        self.assertRedirects(desk.get("/cards/"), "/shop/password/")
        own = {"old_password": NEW, "new_password1": "tarred-rope-417", "new_password2": "tarred-rope-417"}
        desk.post("/shop/password/", own)
        self.assertEqual(desk.get("/cards/").status_code, 200)

    def test_changing_one_s_own_password_ends_every_other_session(self):
        phone, desk = self.signed_in(), self.signed_in()
        own = {"old_password": PASSWORD, "new_password1": NEW, "new_password2": NEW}
        self.assertContains(desk.post("/shop/password/", own, follow=True), "1 other session ended")
        self.assertEqual((desk.get("/").status_code, phone.get("/").status_code), (200, 302))

    def test_a_mechanic_lets_nobody_in(self):
        self.client.force_login(self.bram)
        self.assertEqual(self.client.get("/shop/people/").status_code, 403)
        self.assertEqual(self.act(self.una, "off").status_code, 403)

    def test_passwords_of_the_shop_s_own_words_or_everyone_s_are_refused(self):
        Shop.objects.update_or_create(pk=1, defaults={"name": "Gannet Harbour"})
        for bad in ("gannetharbour1", "Harbour2026!", "una-una-gannet", "stator12345"):
            with self.subTest(bad), self.assertRaises(ValidationError):
                ShopWordsValidator().validate(bad, self.una)
        ShopWordsValidator().validate(NEW, self.una)
        values = {"username": "piet", "first_name": "Piet", "role": "mechanic", "password1": "password123", "password2": "password123"}
        self.assertContains(self.client.post("/shop/people/", values), "easy to guess")

    def test_a_common_word_with_digits_or_twice_is_no_password(self):
        for bad in ("crankshaft1", "trustno1trustno1", "motorcycle2026", "flywheelflywheel", "qwertyuiop1", "Sparkplug12"):
            with self.subTest(bad), self.assertRaisesMessage(ValidationError, "easy to guess"):
                GuessableValidator().validate(bad)
        for good in (NEW, "gannet-and-gull-7", "x9#kL2mQ7pV4", "otter lantern kelp " * 9):
            GuessableValidator().validate(good)


@override_settings(AXES_ENABLED=True)
class TheDoor(TestCase):
    def setUp(self):
        person()

    def try_it(self, password="wrong-wrong", name="una", address="10.0.0.9", client=None):
        return (client or self.client).post("/sign-in/", {"username": name, "password": password}, REMOTE_ADDR=address)

    def test_the_right_password_works_after_the_wait_whoever_tries_meanwhile(self):
        now = timezone.now()
        with time_machine.travel(now, tick=False):
            for _ in range(5):
                self.try_it()
            self.assertEqual(self.try_it(PASSWORD).status_code, 429)
        with time_machine.travel(now + timedelta(minutes=10), tick=False):
            self.assertEqual(self.try_it().status_code, 429)
        with time_machine.travel(now + timedelta(minutes=16), tick=False):
            self.assertEqual(self.try_it(PASSWORD).status_code, 302)

    def test_an_address_that_tries_many_names_waits_but_not_a_browser_known_here(self):
        known = Client()
        self.assertEqual(self.try_it(PASSWORD, client=known).status_code, 302)
        known.post("/sign-out/")
        for number in range(14):
            self.try_it(name=f"nobody{number}")
        slowed = self.try_it(PASSWORD)
        self.assertContains(slowed, "Try again in", status_code=429)
        self.assertGreater(int(slowed["Retry-After"]), 0)
        self.assertEqual(self.try_it(PASSWORD, client=known).status_code, 302)
        self.assertEqual(self.try_it(PASSWORD, address="10.0.0.10", client=Client()).status_code, 302)

    def test_a_browser_is_no_longer_known_when_its_person_may_not_sign_in(self):
        known = Client()
        self.try_it(PASSWORD, client=known)
        known.post("/sign-out/")
        for number in range(14):
            self.try_it(name=f"name{number}")
        self.assertEqual(self.try_it(name="other", client=known).status_code, 200)
        Person.objects.filter(username="una").update(is_active=False)
        self.assertEqual(self.try_it(name="other", client=known).status_code, 429)

    def test_an_owner_at_the_machine_opens_it(self):
        for _ in range(5):
            self.try_it()
        out = StringIO()
        call_command("unlock", "una", stdout=out)
        self.assertIn("for una", out.getvalue())
        self.assertEqual(self.try_it(PASSWORD).status_code, 302)

    def test_where_one_wanted_to_go_keeps_its_query(self):
        answer = self.client.get("/find/?q=corrie&page=2")
        self.assertEqual(answer["Location"], "/sign-in/?next=/find/%3Fq%3Dcorrie%26page%3D2")
        self.assertIn("geolocation=()", answer["Permissions-Policy"])


class Ports(TestCase):
    def test_only_serial_devices_and_the_shop_s_own_network(self):
        for bad in (
            *("/dev/sda", "/dev/../etc/passwd", "/dev/mem", "loop://", "hwgrep://x", "socket://8.8.8.8:80", "socket://evil.example:80"),
            *("socket://169.254.169.254:80", "socket://127.0.0.1:80?logging=debug", "socket://127.0.0.1:0", "COM", "../x", "http://x"),
            *("spy:///dev/ttyUSB0?file=/tmp/x", "alt:///dev/x?class=os", "/etc/passwd"),
        ):
            with self.subTest(bad), self.assertRaises(ValidationError):
                check_port(bad)
        for good in ("/dev/ttyUSB0", "/dev/serial/by-id/usb-Dial_1-if00", "COM4", "socket://192.168.1.20:5331", "rfc2217://localhost:4000"):
            with self.subTest(good):
                check_port(good)
