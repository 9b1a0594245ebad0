"""People of a new shop: adding someone, their own password, and switching them off."""

from __future__ import annotations

from stator.shop.models import Person
from tests.browser.base import BrowserCase
from tests.factories import job


class LettingPeopleIn(BrowserCase):
    def test_someone_is_let_in_chooses_a_password_and_is_switched_off(self):
        job()
        self.go("/shop/")
        self.sees("No backup yet in")
        self.page.get_by_role("link", name="People").click()
        self.page.get_by_label("Sign-in name").fill("piet")
        self.page.get_by_label("Name in the log").fill("Piet")
        tries = (("short", "too short"), ("password123", "easy to guess"), ("tarred-rope-417", "chooses a password of their own"))
        for password, words in tries:
            self.page.get_by_label("First password", exact=True).fill(password)
            self.page.get_by_label("First password once more").fill(password)
            self.page.get_by_role("button", name="Add this person").click()
            self.sees(words)
        self.assertAccessible()
        phone = self.device("bram").pages[0]
        phone.context.clear_cookies()
        phone.goto(f"{self.live_server_url}/cards/")
        phone.get_by_label("Username").fill("piet")
        phone.get_by_label("Password").fill("tarred-rope-417")
        phone.get_by_role("button", name="Sign in").click()
        phone.get_by_text("given to you by someone else").wait_for()
        phone.get_by_label("Old password").fill("tarred-rope-417")
        phone.get_by_label("New password", exact=True).fill("moored-skiff-88")
        phone.get_by_label("New password confirmation").fill("moored-skiff-88")
        phone.get_by_role("button", name="Change my password").click()
        phone.get_by_text("Workbench").first.wait_for()
        self.go("/shop/people/")
        self.sees("Linux, Chrome")
        self.page.get_by_role("button", name="Switch off Piet").click()
        self.sees("Piet cannot sign in any more, and was signed out in 1 place")
        self.assertFalse(Person.objects.get(username="piet").is_active)
        phone.goto(f"{self.live_server_url}/")
        phone.get_by_role("button", name="Sign in").wait_for()
        self.assertQuiet()
