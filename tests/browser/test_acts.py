"""How many acts a new shop needs: an act is an Enter, a tap or the choice of a key.

Each count is printed next to its target.

Counted from an empty shop, through the interface only.
"""

from __future__ import annotations

import sys
from io import StringIO
from unittest import mock

from django.core.management import call_command

from stator.engines.models import Mark, Seal, Seat
from stator.jobs.models import Reading
from stator.shop.models import Driver, Person
from stator.stations.close_crankcase.tests import CloseCase
from tests.browser.base import PASSWORD, BrowserCase
from tests.factories import person, without_what_comes_first

WANTED = {"the whole job": 300, "first fit answer": 3, "card from a lay-out": 25, "shop set-up": 20, "three rounds of eleven bolts": 3}


class Counted(BrowserCase):
    def setUp(self):
        super().setUp()
        self.acts = 0

    def tap(self, name, role="link"):
        self.acts += 1
        self.page.get_by_role(role, name=name).first.click()

    def types(self, label, text):
        """Type a text with Enter, which is one act."""
        self.page.get_by_label(label, exact=True).fill(text)

    def tells(self, what):
        print(f"acts: {what} {self.acts}, wanted {WANTED[what]}", file=sys.stderr)
        self.assertLessEqual(self.acts, WANTED[what], what)


class FirstAnswer(Counted):
    def test_of_a_fit(self):
        self.go("/")
        self.tap("Check one fit")
        self.types("Bearing or sizes", "6205 C3")
        self.sees("It drops in", where="#answer")
        self.tells("first fit answer")
        self.assertQuiet()


class ShopSetUp(Counted):
    def test_from_the_prompt_to_a_shelf_of_tools(self):
        Person.objects.all().delete()
        self.ctx.clear_cookies()
        typed = ["una", "", "", ""]
        with mock.patch("builtins.input", side_effect=typed), mock.patch("getpass.getpass", side_effect=[PASSWORD, PASSWORD]):
            call_command("first_account", stdout=StringIO())
        self.acts += len(typed) + 2  # an Enter each
        self.go("/sign-in/")
        self.page.fill("[name=username]", "una")
        self.page.fill("[name=password]", PASSWORD)
        self.acts += 1
        self.page.keyboard.press("Enter")
        self.sees("Welcome to Stator")
        self.tap("The shop")
        self.tap("Pullers, presses, drivers")
        self.tap("Add the usual tools", role="button")
        self.sees("tools were added")
        self.assertTrue(Driver.objects.exists())
        self.tells("shop set-up")
        self.assertQuiet()


class CardFromALayout(Counted):
    def test_every_marking_is_read_off_the_part(self):
        """Check in with a layout, then correct each bearing's marking and each seal's sizes, with a tap and an Enter each."""
        self.go("/")
        self.tap("Book in")
        self.page.fill("[name=name]", "Corrie 272")
        self.page.select_option("[name=layout]", label="two-stroke single with gearbox")
        self.page.fill("[name=complaint]", "Rumbles.")
        self.acts += 3  # into each field, or an option chosen
        self.tap("Book it in", role="button")
        self.sees("Gearbox input, drive side")
        self.assertEqual(6, Seat.objects.filter(marking_assumed=True).count())
        for seat in Seat.objects.order_by("pk"):
            self.tap(seat.name)
            self.page.fill("[name$=designation]", "6303 C3" if seat.is_main else seat.designation)
            self.acts += 1
            self.page.keyboard.press("Enter")
            self.page.locator("#seat-form form[novalidate]").wait_for(state="detached")
            self.sees("6303 C3")
        for seal in Seal.objects.order_by("pk")[:2]:
            self.tap(seal.name)
            self.page.fill("[name=seal-shaft_mm]", "17x35x7")
            self.acts += 1
            self.page.keyboard.press("Enter")
            self.page.locator("#seal-form form[novalidate]").wait_for(state="detached")
            self.sees("17 × 35 × 7")
        self.assertFalse(Seat.objects.filter(marking_assumed=True).exists())
        self.assertEqual(["6303 C3", "6303 C3"], [each.designation for each in Seat.objects.filter(role="main")])
        self.tells("card from a lay-out")
        self.assertAccessible()
        self.assertQuiet()


class Bolts(Counted):
    def setUp(self):
        CloseCase.setUp(self)
        for number in range(6, 12):
            Mark.objects.create(card=self.made.card, what="bolt", name=str(number), x_mm=-90 + 15 * number, y_mm=70, torque_nm=10)
        without_what_comes_first(self.made, "close")
        self.hands.answer("gears", "all")
        self.hands.tick_all()
        self.hands.act("close")
        super().setUp()

    def test_three_rounds_are_three_acts_and_nothing_is_told_as_measured(self):
        self.go("/jobs/0412/close/")
        for number in (1, 2, 3):
            self.tap(f"Round {number} of 3: all 11 bolts are done", role="button")
            self.page.get_by_role("button", name=f"Round {number} of 3").wait_for(state="detached")
        self.sees("Case is closed")
        self.tells("three rounds of eleven bolts")
        self.assertFalse(Reading.objects.filter(property="bolt-torque", by=person()).exists())
        self.assertAccessible()
        self.assertQuiet()
