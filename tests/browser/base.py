"""Base of the browser tests: headless Chromium, one per process, a silent console, and an accessibility check."""

from __future__ import annotations

import atexit
import re
from contextlib import contextmanager
from threading import Event
from typing import Any, ClassVar

from django.conf import settings
from django.contrib.staticfiles.testing import StaticLiveServerTestCase
from django.test import Client, tag

from stator.jobs.immutability import without_triggers
from tests.browser.chromium import ARGS, CHROMIUM
from tests.factories import PASSWORD, person


class _Browser:
    pw: ClassVar[Any] = None
    browser: ClassVar[Any] = None

    @classmethod
    def get(cls):
        if cls.browser is None:
            from playwright.sync_api import sync_playwright

            cls.pw = sync_playwright().start()
            cls.browser = cls.pw.chromium.launch(executable_path=CHROMIUM, args=ARGS)
            atexit.register(cls.close)
        return cls.browser

    @classmethod
    def close(cls):
        cls.browser.close()
        cls.pw.stop()


@tag("browser")
class BrowserCase(StaticLiveServerTestCase):
    mobile = False
    worker = "block"  # the service worker; allowed where it is what is tested

    def setUp(self):
        super().setUp()
        self.ctx = self.device()
        self.page = self.ctx.pages[0]

    def device(self, name="una", scheme="light"):
        """A device signed in as someone, with its console listened to."""
        context = _Browser.get().new_context(
            viewport={"width": 390, "height": 844} if self.mobile else {"width": 1280, "height": 800},
            has_touch=self.mobile,
            is_mobile=self.mobile,
            color_scheme=scheme,
            reduced_motion="reduce",
            locale="en-GB",
            timezone_id="UTC",
            service_workers=self.worker,
        )
        self.addCleanup(context.close)
        page = context.new_page()
        page.set_default_timeout(15000)
        self.noise = getattr(self, "noise", [])
        page.on("console", self.hears)
        page.on("pageerror", lambda error: self.noise.append(f"pageerror: {error}"))
        client = Client()
        client.force_login(person(name))
        session = client.cookies[settings.SESSION_COOKIE_NAME].value
        context.add_cookies([{"name": settings.SESSION_COOKIE_NAME, "value": session, "url": self.live_server_url}])
        return context

    def hears(self, said):
        if "htmx:sendAbort" in said.text:  # the page was left while it asked: the two lines are about that alone
            self.noise = [line for line in self.noise if "htmx:afterRequest" not in line]
        elif said.type in ("error", "warning") and "registration blocked by Playwright" not in said.text:
            self.noise.append(f"{said.type}: {said.text}")

    def go(self, path):
        self.page.goto(f"{self.live_server_url}{path}")

    def sees(self, words, where="body"):
        """Wait until the page is loaded with its scripts and the words can be read."""
        self.page.wait_for_load_state()
        try:
            self._visible(where, words).first.wait_for()
        except Exception as error:
            said = self.page.evaluate("[...document.querySelectorAll('.strip-words, .strip, .plate')].map((e) => e.innerText).join(' | ')")
            field = self.page.evaluate("document.getElementById('strip-field')?.value")
            raise AssertionError(f"{words!r} was not seen. The page says: {said!r}; in the field: {field!r}.") from error

    def _visible(self, where, words):
        return self.page.locator(where).get_by_text(re.compile(re.escape(words))).locator("visible=true")

    def enter(self, text, then):
        """Type a text with Enter, and wait for the text that appears next, which must not be visible before."""
        self.assertEqual(self._visible("body", then).count(), 0, f"{then!r} is visible before {text!r} is entered")
        self.page.keyboard.type(text)
        self.page.keyboard.press("Enter")
        self.sees(then)

    @contextmanager
    def held(self, path="**/keep/"):
        """Hold the requests to a path until the block ends; then send them in their order."""
        waiting: list[Any] = []
        done = Event()
        self.page.route(path, lambda route: route.continue_() if done.is_set() else waiting.append(route))
        yield
        done.set()
        for route in waiting:
            route.continue_()
        self.page.unroute(path)

    def assertQuiet(self):
        self.assertEqual(self.noise, [])

    def assertAccessible(self):
        from axe_playwright_python.sync_playwright import Axe

        found = Axe().run(self.page)
        self.assertEqual(found.violations_count, 0, found.generate_report())

    def _fixture_teardown(self):
        with without_triggers():
            super()._fixture_teardown()


__all__ = ["PASSWORD", "BrowserCase"]
