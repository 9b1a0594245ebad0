"""Readings without a server: stored on the device, then sent once and in order."""

from __future__ import annotations

import http.client
import os
import socket
import sqlite3
import subprocess
import sys
import tempfile
import time
import urllib.request
from pathlib import Path

from django.conf import settings
from django.test import Client
from playwright.sync_api import expect

from stator.jobs.models import Reading
from tests.browser.base import PASSWORD
from tests.browser.test_drafts import PAGE, Turning
from tests.factories import person

FIRST = ("shaft-reading.left.0", "shaft-reading.left.45", "shaft-reading.left.90")


class Away(Turning):
    worker = "allow"

    def setUp(self):
        super().setUp()
        self.page.wait_for_function("() => navigator.serviceWorker.ready.then(() => localStorage.getItem('shell'))")
        self.noise.clear()

    def waits(self, count):
        self.sees(f"Waiting to be sent: {count}.", where="#strip-words")

    def asked(self, key):
        self.page.locator(f"#strip-field[data-ask='{key}']").wait_for()

    def arrives(self, *values):
        """They stand in the order in which they were typed, each once, and at the time when they were typed."""
        expect(self.page.locator("#strip-words")).to_contain_text(f"Sent: {len(values)}")
        self.assertEqual(self.standing(), dict(zip(FIRST, values, strict=False)))


class Typed(Away):
    def test_on_a_page_that_stays_open_and_sent_when_the_network_is_back(self):
        self.ctx.set_offline(True)
        self.types("0.01")
        self.waits(1)
        self.asked(FIRST[1])
        self.assertAccessible()
        self.types("0.02", "0.03")
        self.waits(3)
        self.assertEqual(self.standing(), {})
        before = Reading.objects.count()
        self.ctx.set_offline(False)
        self.arrives("0.01", "0.02", "0.03")
        self.assertEqual(Reading.objects.count(), before + 3)
        self.asked("shaft-reading.left.135")
        self.assertTrue(all(each.extra["sent_later"] > each.taken_at.isoformat() for each in Reading.objects.filter(ask__in=FIRST)))

    def test_a_reload_and_a_closed_tab_keep_them_and_the_page_goes_on_asking(self):
        self.ctx.set_offline(True)
        self.types("0.01")
        self.waits(1)
        self.page.reload()
        self.sees("The shop's machine does not answer")
        self.asked(FIRST[1])
        self.types("0.02")
        self.waits(2)
        self.page.close()
        self.page = self.ctx.new_page()
        self.go(PAGE)
        self.asked(FIRST[2])
        self.waits(2)
        self.page.keyboard.type("0.03")
        self.ctx.set_offline(False)
        self.page.get_by_text("Drive side at 90°").first.wait_for()
        self.arrives("0.01", "0.02")
        self.assertEqual(self.page.locator("#strip-field").input_value(), "0.03")
        self.page.keyboard.press("Enter")
        self.kept("0.03")

    def test_one_that_arrived_and_whose_answer_was_lost_stands_once(self):
        self.page.route("**/keep/", lambda route: (route.fetch(), route.abort()))
        self.types("0.01")
        self.waits(1)
        self.page.unroute("**/keep/")
        self.arrives("0.01")
        self.assertEqual(Reading.objects.filter(ask=FIRST[0]).count(), 1)

    def test_what_waits_can_be_changed_before_it_is_sent(self):
        self.ctx.set_offline(True)
        self.types("0.01", "0.02")
        self.waits(2)
        self.page.locator(".later .button", has_text="0.01").click()
        self.asked(FIRST[0])
        self.page.locator("#strip-field").fill("0.015")
        self.page.keyboard.press("Enter")
        self.waits(2)
        self.types("undo")
        self.ctx.set_offline(False)
        self.sees("Sent: 1")
        self.assertNotIn(FIRST[2], self.standing())

    def test_one_that_is_refused_comes_back_in_words_and_the_others_are_kept(self):
        self.ctx.set_offline(True)
        self.types("0.01", "4 furlong", "0.03")
        self.waits(3)
        self.ctx.set_offline(False)
        self.sees("is no unit known here", where="#strip-words")
        self.assertEqual(self.standing(), {FIRST[0]: "0.01", FIRST[2]: "0.03"})
        self.page.locator(".later .button", has_text="4 furlong").click()
        self.asked(FIRST[1])
        expect(self.page.locator("#strip-field")).to_have_value("4 furlong")
        self.page.locator("#strip-field").fill("0.02")
        self.page.keyboard.press("Enter")
        self.kept("0.02")

    def test_another_device_that_answered_meanwhile_was_first(self):
        self.ctx.set_offline(True)
        self.types("0.01")
        self.waits(1)
        client = Client()
        client.force_login(person("bram"))
        client.post(f"{PAGE}keep/", {"ask": FIRST[0], "text": "0.05"})
        self.ctx.set_offline(False)
        self.sees("0.05 from Bram stands. 0.01 from Una came after it")
        self.assertEqual(self.standing(), {FIRST[0]: "0.05"})

    def test_a_session_that_ended_keeps_them_for_the_one_who_typed_them(self):
        self.ctx.set_offline(True)
        self.types("0.01")
        self.waits(1)
        self.ctx.clear_cookies()
        self.ctx.set_offline(False)
        self.sees("Sign in again to send what waits on this device: 1.")
        self.sign_in("bram")
        self.go(PAGE)
        self.asked(FIRST[0])  # nothing of hers is sent in his name
        self.assertEqual(self.standing(), {})
        self.ctx.clear_cookies()
        self.sign_in("una")  # the first page that is hers sends them
        expect(self.page.locator("#later")).to_contain_text("Sent: 1")
        self.assertEqual(self.standing(), {FIRST[0]: "0.01"})
        self.assertEqual(Reading.objects.get(ask=FIRST[0]).by.username, "una")

    def sign_in(self, name):
        person(name)
        self.go("/sign-in/")
        self.page.fill("[name=username]", name)
        self.page.fill("[name=password]", PASSWORD)
        self.page.keyboard.press("Enter")
        self.sees("Workbench")


class Page(Away):
    def test_a_page_never_opened_here_says_so_and_lists_those_that_were(self):
        self.ctx.set_offline(True)
        self.go("/jobs/0412/run/")
        self.sees("Opened on this device")
        self.assertAccessible()
        self.page.get_by_role("link", name="0412 True").click()
        self.asked(FIRST[0])

    def test_signing_waits_for_the_machine(self):
        self.ctx.set_offline(True)
        self.types("sign")
        self.sees("no connection to the shop's machine")
        self.assertEqual(self.page.locator("#strip-field").input_value(), "sign")


def free_port():
    """A port that no outgoing connection uses meanwhile."""
    for port in range(18200, 18300):
        with socket.socket() as door:
            if door.connect_ex(("127.0.0.1", port)):
                return port
    raise AssertionError("no port is free")


class Killed(Away):
    """A server of its own, on a copy of the shop, that is killed and started again."""

    def setUp(self):
        super().setUp()
        folder = self.enterContext(tempfile.TemporaryDirectory())
        self.data = Path(folder)
        with sqlite3.connect(settings.DATABASES["default"]["NAME"]) as shop:
            shop.execute("VACUUM INTO ?", [str(self.data / "stator.sqlite3")])
        shop.close()
        (self.data / "secret").write_bytes((Path(settings.DATA_DIR) / "secret").read_bytes())
        (self.data / "secret").chmod(0o600)
        self.at = f"http://127.0.0.1:{free_port()}"
        self.serve()
        self.addCleanup(self.kill)
        for cookie in self.ctx.cookies():
            self.ctx.add_cookies([{"name": cookie["name"], "value": cookie["value"], "url": self.at}])

    def serve(self):
        env = {**os.environ, "STATOR_DATA": str(self.data), "STATOR_PLAIN_HTTP": "1", "STATOR_BACKUPS_KEPT": "0"}
        env.pop("DJANGO_SETTINGS_MODULE", None)
        env["STATOR_STATIC"] = str(self.data / "static")
        subprocess.run([sys.executable, "manage.py", "collectstatic", "--noinput", "-v", "0"], env=env, cwd=settings.BASE_DIR, check=True)
        command = [sys.executable, "manage.py", "serve", "--listen", self.at.removeprefix("http://")]
        self.server = subprocess.Popen(command, env=env, cwd=settings.BASE_DIR, stderr=subprocess.DEVNULL)
        until = time.monotonic() + 30
        while True:
            try:
                urllib.request.urlopen(f"{self.at}/alive/").read()
                return
            except (OSError, http.client.HTTPException):
                if time.monotonic() > until:
                    raise

    def kill(self):
        self.server.kill()
        self.server.wait()

    def test_what_was_typed_meanwhile_arrives_once(self):
        self.page.goto(f"{self.at}{PAGE}")
        self.page.wait_for_function("() => navigator.serviceWorker.ready.then(() => localStorage.getItem('shell'))")
        self.types("0.01")
        self.kept("0.01")
        self.kill()
        self.types("0.02")
        self.waits(1)
        self.page.reload()
        self.sees("The shop's machine does not answer")
        self.types("0.03")
        self.waits(2)
        self.serve()
        self.sees("Sent: 2.")
        with sqlite3.connect(self.data / "stator.sqlite3") as shop:
            asks = "SELECT ask, text FROM jobs_reading WHERE ask LIKE 'shaft-reading.left.%' AND withdrawn_at IS NULL ORDER BY id"
            self.assertEqual(shop.execute(asks).fetchall(), list(zip(FIRST, ("0.01", "0.02", "0.03"), strict=True)))
        shop.close()
