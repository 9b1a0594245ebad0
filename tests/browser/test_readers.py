"""A whole station by keyboard in inch units, and on the phone in the test language."""

from __future__ import annotations

from stator.engines.models import Spec
from stator.shop.models import Blades, Gauge, Person
from tests.browser.base import BrowserCase
from tests.factories import job, without_what_comes_first
from tests.layout import CHECK
from tests.pseudo import CODE, accented, everything_accented


class FloatCase(BrowserCase):
    def setUp(self):
        made = job(order="bottom-end")
        without_what_comes_first(made, "end-float")
        Spec.objects.create(card=made.card, name="End float of the crank", property="end-float", low=0.10, high=0.20, source="page 61")
        Blades.objects.create(name="Crank shims", kind="shim", sizes_mm=[0.05, 0.1, 0.15, 0.2, 0.3])
        Gauge.objects.filter(kind__in=("calliper", "micrometer")).update(resolution=0.002, repeatability=0.0005, last_checked="2026-11-01")
        Gauge.objects.first().save()
        super().setUp()


class InInches(FloatCase):
    def test_end_float_by_keyboard(self):
        self.go("/jobs/0412/end-float/")
        self.page.keyboard.press("=")
        self.page.locator(".strip-unit", has_text="°F").wait_for()
        self.enter("", then="Left case, face to bearing")
        for text, then in (
            ("1.5126", "Right case, face to bearing"),
            ("1.2244", "Gasket, crushed"),
            ("skip", "Crank, shoulder to shoulder"),
            ("2.7205", "Shims already in"),
            ("skip", "Shim of 11.81 thou in your hand"),
            ("11.73", "Which side do the shims go?"),
        ):
            self.enter(text, then=then)
        self.sees("Fit 11.8 thou", where="#plate")
        self.sees("4.77 ± 0.12 thou is above the limit of 3.94 thou", where="#plate")
        self.assertNotIn(" mm", self.page.text_content("#plate"))
        self.page.keyboard.press("r")
        self.page.keyboard.press("Enter")
        self.page.locator("button[value=sign]:not([aria-disabled])").click()
        self.sees("Signed by Una")
        self.page.get_by_role("button", name="Readings").click()
        self.sees("38.420 mm (1.5126 in)")
        self.assertAccessible()
        self.assertQuiet()

    def test_what_is_typed_stays_when_the_units_are_turned_and_a_term_is_told(self):
        self.go("/jobs/0412/end-float/")
        self.page.keyboard.type("68 F")
        self.page.keyboard.press("=")
        self.assertEqual(self.page.input_value("#strip-field"), "68 F=")
        self.page.fill("#strip-field", "")
        self.page.keyboard.type("?")
        self.page.keyboard.press("Enter")
        self.sees("How far a shaft can move lengthways", where="#terms")
        self.assertAccessible()
        self.assertQuiet()


class OnThePhoneInAnotherLanguage(FloatCase):
    mobile = True

    def test_end_float_is_asked_and_judged_with_nothing_cut(self):
        Person.objects.filter(username="una").update(language=CODE)
        with everything_accented():
            self.go("/jobs/0412/end-float/")
            for text in ("", "38.42 mm", "31.10 mm", "", "69.10 mm", "", "0.298 mm"):
                asked = self.page.text_content(".strip-ask label")
                self.assertIn("~", asked)
                self.assertEqual(self.page.evaluate(CHECK), [], asked)
                self.page.fill("#strip-field", text)
                self.page.locator(".phone-keep").click()
                self.page.locator(".strip-ask", has_text=asked).wait_for(state="detached")
            self.page.locator("#plate h2", has_text=accented("Fit {shims}").partition(" ")[0]).wait_for()
            self.assertEqual(self.page.evaluate(CHECK), [])
            self.assertIn("0,122", self.page.text_content("#plate"))
            self.assertAccessible()
        self.assertQuiet()
