"""Connected gauges: the simulated crank with Enter only, a lost gauge, and a verdict decided by repeats."""

from __future__ import annotations

import cmath
import math
import re
from typing import Any

from shopmath.truing import Misalignment
from stator.engines.models import EngineCard, Spec
from stator.instruments.gauge_hub import LISTENER
from stator.shop.models import Gauge, Press
from stator.simulators.crank import Crank, Truth
from tests.browser.base import BrowserCase
from tests.factories import job
from tests.simulated_gauges import Saying, StandIns, until


class Heard(BrowserCase):
    """A bench whose gauges have lines."""

    def setUp(self):
        self.shed = StandIns()
        self.addCleanup(self.shed.stop)
        self.addCleanup(LISTENER.stop)
        self.made = job(order="crank")
        EngineCard.objects.update(stroke_mm=58, crank="built_up")
        Spec.objects.create(
            card=self.made.card, name="Crank run-out", property="crank-runout", high=0.03, source="page 44", setup="between centres"
        )
        super().setUp()

    def hear(self, kind, port, **fields):
        Gauge.objects.filter(kind=kind).update(port=port, **fields)
        LISTENER.start()

    def reader(self):
        return LISTENER.reader(Gauge.objects.get(kind="dial").pk)

    def set_up(self):
        self.go("/jobs/0412/true/")
        for text, then in (("92", "Gauge on the drive side"), ("34", "Support on the magneto side"), ("92", "Gauge on the magneto side")):
            self.enter(text, then=then)
        self.enter("34", then="Drive side at 0°")

    def fresh(self):
        """Wait until the field shows what the gauge reads since the crank was last moved."""
        crank, reader = self.shed.thing("crank"), self.reader()
        where = f"{('left', 'right')[crank.end]}@{crank.angle}"
        until(lambda: reader.last and reader.last.line.label == where)
        seq = reader.last.seq + 1
        until(lambda: reader.last.seq > seq)
        self.sees("Live: press Enter to keep it", where="#live")

    def lever(self, words):
        """Use a control of a simulated gauge, in the panel above the reading bar."""
        panel = self.page.locator("#simulated")
        panel.locator("summary").wait_for()
        if panel.get_attribute("open") is None:
            panel.locator("summary").click()
        panel.get_by_role("button", name=words).click()

    def take(self, then):
        """Press Enter in an empty field, and wait for the next question."""
        begun = self.page.evaluate("Date.now()")
        self.fresh()
        self.page.wait_for_function("begun => Date.now() - begun > 500", arg=begun)  # an empty Enter sooner is a gauge's second one
        seen = self.page.locator("#strip-field").get_attribute("data-ask")
        self.page.keyboard.press("Enter")
        self.page.locator(f"#strip-field:not([data-ask='{seen}'])").wait_for()
        self.sees(then)


class TurningTheStandIn(Heard):
    def test_a_crank_turned_with_enter_alone_names_the_web_and_shows_where_the_reading_came_from(self):
        self.hear("dial", self.shed.port("crank"), resolution=0.002, repeatability=0.0008)
        crank = self.shed.thing("crank")
        crank.truth = Truth(Misalignment(0.15, -0.002, 0.003, 0.0))
        crank.noise_mm = 0.0002  # a steady one: of turns that scatter as its gauge does, three in a hundred are suspected of a slip
        self.set_up()
        self.assertAccessible()
        for name, after in (("Drive side", "Magneto side at 0°"), ("Magneto side", "Webs are twisted")):
            for angle in range(0, 360, 45):
                self.take(then=f"{name} at {angle + 45}°" if angle < 315 else f"{name} back at 0°")
                self.lever("Turn on 45°")
            self.take(then=after)
            if name == "Drive side":
                self.lever("Other end")
        self.sees("Strike the rim of the magneto side web at 270°")
        self.page.keyboard.type("sheet")
        self.page.keyboard.press("Enter")
        self.sees("Dial gauge", where="#sheet")
        readings = self.made.run.get(key="true").entries.get().readings.filter(ask__startswith="shaft-reading.left.")
        self.assertTrue(all(reading.extra.get("heard") and reading.gauge.kind == "dial" for reading in readings))
        self.assertQuiet()

    def test_what_is_typed_goes_before_what_is_heard(self):
        self.hear("dial", self.shed.port("crank"), resolution=0.002)
        self.set_up()
        self.fresh()
        self.enter("0.5", then="Drive side at 45°")
        reading = self.made.run.get(key="true").entries.get().readings.get(ask="shaft-reading.left.0")
        self.assertEqual((reading.canonical, reading.extra.get("heard")), (0.5, None))

    def test_the_gauges_page_shows_each_alive_and_moves_a_stand_in(self):
        self.hear("dial", self.shed.port("crank"), resolution=0.002)
        self.hear("load", self.shed.port("ram"))
        self.go("/gauges/")
        self.sees("Dial gauge is live")
        self.sees("Load cell is live")
        crank: Crank = self.shed.thing("crank")
        self.page.get_by_role("button", name="Turn on 45°").click()
        until(lambda: crank.angle == 45)
        self.assertAccessible()
        self.assertQuiet()


class WordsOfAGauge(Heard):
    """Gauges that are lost, silent, in use elsewhere, or send invalid lines: shown, and nothing typed is lost."""

    def setUp(self):
        self.saying = Saying()
        self.addCleanup(self.saying.close)
        super().setUp()
        self.hear("dial", self.saying.address, resolution=0.002)
        self.saying.answer(self.reader)

    def test_a_lost_gauge_is_said_typing_goes_on_and_it_is_heard_again(self):
        self.set_up()
        self.saying.stream("+0.012 mm")
        self.sees("Live: press Enter to keep it", where="#live")
        self.page.keyboard.type("0.01")
        self.saying.hang_up()
        self.sees("No line to Dial gauge", where="#live")
        self.assertEqual(self.page.input_value("#strip-field"), "0.01")
        self.enter("4", then="Drive side at 45°")
        self.saying.answer(self.reader)
        self.saying.stream("+0.020 mm")
        self.sees("Live: press Enter to keep it", where="#live")
        self.assertEqual(self.page.get_attribute("#strip-field", "placeholder"), "0.020")
        self.assertQuiet()

    def test_garbage_wrong_units_and_silence_are_said_in_words(self):
        self.set_up()
        self.saying.stream("ERR 7")
        self.sees("It said 'ERR 7', which is no reading. Nothing was kept", where="#live")
        self.saying.stream("20.5 C")
        self.sees("that is temperature, and here it measures length", where="#live")
        self.saying.stop()
        self.sees("Dial gauge has said nothing for", where="#live")
        self.assertEqual(self.made.run.get(key="true").entries.get().readings.filter(ask="shaft-reading.left.0").count(), 0)
        self.assertAccessible()

    def test_two_devices_do_not_share_a_gauge_until_one_takes_it(self):
        self.set_up()
        self.saying.stream("+0.012 mm")
        self.sees("Live: press Enter to keep it", where="#live")
        laptop = self.page
        self.page = self.device("bram").pages[0]
        self.go("/jobs/0412/true/")
        self.sees("Dial gauge feeds another page: 0412 True: Drive side at 0°", where="#live")
        self.page.get_by_role("button", name="Use the gauge here").click()
        self.saying.stream("+0.014 mm")
        self.page.locator("#strip-field.hearing").wait_for()
        self.page = laptop
        self.sees("feeds another page", where="#live")

    def test_a_gauge_with_a_button_keeps_each_line_it_sends(self):
        self.hear("dial", self.saying.address, on_button=True)
        self.saying.answer(self.reader)
        self.set_up()
        self.sees("its button keeps the reading", where="#live")
        self.saying.say("+0.012 mm")
        self.sees("Drive side at 45°")
        self.saying.say("+0.016 mm")
        self.sees("Drive side at 90°")
        self.saying.say("+0.018 mm", "+0.020 mm")  # two presses before the page has asked again
        self.sees("Drive side at 180°")
        readings = self.made.run.get(key="true").entries.get().readings
        self.assertEqual(
            [readings.get(ask=f"shaft-reading.left.{angle}").canonical for angle in (0, 45, 90, 135)], [0.012, 0.016, 0.018, 0.020]
        )


class AtThePress(Heard):
    def test_the_peak_is_caught_while_the_pump_goes_on(self):
        Press.objects.create(name="Bottle press", capacity_text="12 t", capacity_n=117679.8)
        self.hear("load", self.shed.port("ram"), resolution=100)
        self.go("/jobs/0412/apart/")
        asks = ("Length of the pin", "Thinnest wall", "Width of the web", "Hole through the pin")
        for text, then in zip(("22", "16", "10", "80"), asks, strict=True):
            self.enter(text, then=then)
        self.enter("skip", then="Peak force when it released")
        for tick in ("Both webs and the pin marked", "Guard shut"):
            self.page.get_by_role("button", name=tick).click()
            self.page.locator(f".tick[aria-pressed=true]:has-text('{tick}')").wait_for()
        self.sees("Press is strong enough")
        self.page.locator("#simulated summary").wait_for()
        ram = self.shed.thing("ram")
        while not ram.slides:
            force = ram.force_n
            self.lever("Pump")
            until(lambda force=force: ram.force_n != force)
        reader = LISTENER.reader(Gauge.objects.get(kind="load").pk)
        until(lambda: any(each.line.canonical > 0.98 * ram.breaks_n for each in reader.since(0)))  # it has said where it released
        until(lambda: reader.last.line.canonical < 0.9 * ram.breaks_n)  # and slides now
        self.sees("press Enter to keep its peak", where="#live")
        self.page.locator("#strip-field[placeholder^='31.'], #strip-field[placeholder^='32.']").wait_for()
        self.page.locator("#strip-field").focus()
        self.page.keyboard.press("Enter")
        self.sees("Parted as planned")
        peak = self.made.run.get(key="apart").entries.get().readings.get(property="press-peak").canonical
        self.assertAlmostEqual(peak, ram.breaks_n, delta=300)
        self.assertAccessible()
        self.assertQuiet()


class OnTheStand(Heard):
    def test_a_wheel_is_rolled_until_it_tells_and_a_tap_on_its_rim_says_an_angle(self):
        made = job(413, order="flywheel")
        EngineCard.objects.filter(pk=made.card_id).update(wheel_kg=1.9, wheel_rpm=8500)
        Gauge.objects.create(name="Balance stand", kind="stand", resolution=1, port=self.shed.port("wheel"), on_button=True)
        LISTENER.start()
        self.go("/jobs/0413/balance/")
        self.page.get_by_role("button", name="yes, it shook").click()
        self.page.get_by_role("button", name="sound all over").click()
        self.sees("Across the rim")
        self.enter("190", then="It stops at")
        flywheel = self.shed.thing("wheel")
        for roll in range(1, 12):
            self.lever("Roll it")  # its button keeps the stop
            self.page.locator(".strip").get_by_text(re.compile(f"roll {roll + 1}:|Trial mass")).first.wait_for()
            if self.page.locator(".strip").get_by_text("Trial mass").count():
                break
        found = made.run.get(key="balance").entries.get().readings.filter(ask="stop-angle")
        self.assertGreaterEqual(found.count(), 4)
        at = sum(math.cos(math.radians(each.canonical - math.degrees(cmath.phase(flywheel.heavy)))) for each in found) / found.count()
        self.assertGreater(at, 0.9)
        self.sees("Putty at")
        self.enter("80", then="Mass at which it stays anywhere")
        self.enter("1.7 g", then="turns the other way")
        self.enter("2.0 g", then="may be drilled at a radius")
        self.assertAccessible()
        rim = self.page.locator("[data-dial]").first.bounding_box()
        self.page.mouse.click(rim["x"] + rim["width"] / 2, rim["y"] + 3)
        self.assertEqual(self.page.input_value("#strip-field"), "90")
        self.assertQuiet()


class AnswersAnotherQuestion(Heard):
    """A reading that a gauge sends while an answer is being sent is never saved for the next question."""

    def setUp(self):
        super().setUp()
        self.saying = Saying()
        self.addCleanup(self.saying.close)

    def kept(self):
        readings = self.made.run.get(key="true").entries.get().readings
        return {each.ask: each.text for each in readings.filter(ask__startswith="shaft-reading.left.", withdrawn_at=None)}

    def test_a_press_behind_a_refused_reading_is_dropped_in_words(self):
        self.hear("dial", self.saying.address, on_button=True)
        self.saying.answer(self.reader)
        self.set_up()
        self.sees("its button keeps the reading", where="#live")
        old: list[Any] = []
        self.page.route("**/gauges/**", lambda route: old.append((route, route.fetch())))  # what was heard before the press
        until(lambda: old or self.page.evaluate("0"))
        with self.held():
            self.page.keyboard.type("4 furlong")
            self.page.keyboard.press("Enter")
            self.page.wait_for_function("() => document.body?.dataset.sending")
            self.saying.say("+0.016 mm")
            until(lambda: (last := self.reader().last) and last.line.canonical == 0.016)
        self.sees("is no unit known here", where=".strip-words")
        for route, answer in old:
            route.fulfill(response=answer)
        self.page.unroute("**/gauges/**")
        self.sees("What the gauge sent meanwhile was not kept", where=".strip-words")
        self.page.locator("#strip-field").fill("0.01")
        self.page.keyboard.press("Enter")
        self.sees("Drive side at 30°", where=".strip")
        self.assertEqual(self.kept(), {"shaft-reading.left.0": "0.01"})
