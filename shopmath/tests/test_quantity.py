from __future__ import annotations

import math
import os
import tempfile
from pathlib import Path
from unittest import TestCase, mock

from hypothesis import given
from hypothesis import strategies as st

from shopmath.conversion import scale_of
from shopmath.quantity import parse, show
from shopmath.validation import BadInput


class TypedQuantities(TestCase):
    def test_every_unit_a_bench_uses_becomes_the_core_s_own(self):
        cases = [
            ("2.5 thou", "length", 0.0635),
            ('.0025"', "length", 0.0635),
            ("1/2 in", "length", 12.7),
            ('1 1/4"', "length", 31.75),
            ("0,06 mm", "length", 0.06),
            ("0,065mm", "length", 0.065),
            ("-0.012 mm", "length", -0.012),
            ("300F", "temperature", 148.889),
            ("7.2 ft-lb", "torque", 9.762),
            ("86 in-lb", "torque", 9.717),
            ("24 tpi", "thread_pitch", 1.0583),
            ("8 short ton", "force", 71171.5),
            ("8 t", "force", 78453.2),
            ("8 long ton", "force", 79712.1),
            ("1°30'", "angle", 1.5),
            ("1:30", "time", 90),
            ("54 F", "temperature_difference", 30),
        ]
        for text, kind, needed in cases:
            with self.subTest(text):
                self.assertAlmostEqual(parse(text, kind).canonical, needed, delta=abs(needed) * 1e-4)

    def test_a_bare_ton_is_refused_with_its_three_meanings_unless_the_shop_has_set_its_own(self):
        with self.assertRaisesRegex(BadInput, "8 short ton / 8 tonne / 8 long ton"):
            parse("8 ton", "force")
        self.assertAlmostEqual(parse("8 ton", "force", ton="tonne").canonical, 78453.2)

    def test_a_comma_that_could_mean_two_things_is_refused_offering_both(self):
        with self.assertRaisesRegex(BadInput, r"8500 or 8\.500"):
            parse("8,500", "speed", "rpm")
        self.assertEqual(parse("0,125", "length", "mm").canonical, 0.125)

    def test_nonsense_is_refused_saying_what_was_understood(self):
        cases = [
            ("abc", "does not start with a number"),
            ("300 F", "300 was understood, but F is a unit of temperature"),
            ("3 4 mm", "Two numbers"),
            ("12 furlong", "12 was understood, but 'furlong'"),
            ("", "Nothing was typed"),
            ("nan mm", "does not start with a number"),
            ("inf", "does not start with a number"),
            ("1.2.3 mm", "more than one decimal point"),
            ("1/0 in", "divides by zero"),
            ("7", "of what"),
            ("9" * 400 + " mm", "characters long"),
        ]
        for text, words in cases:
            with self.subTest(text), self.assertRaisesRegex(BadInput, words):
                parse(text, "length")

    def test_colder_than_absolute_zero_is_refused(self):
        with self.assertRaisesRegex(BadInput, "absolute zero"):
            parse("-300 C", "temperature")

    def test_what_is_shown_has_no_more_digits_than_the_gauge(self):
        self.assertEqual(show(parse("2.5 thou", "length"), "metric", 0.01), "0.06 mm")
        self.assertEqual(show(parse("2.5 thou", "length"), "typed", 0.001), "2.5 thou")
        self.assertEqual(show(parse("230 F", "temperature"), "metric", 1), "110 °C")

    @given(st.floats(-500, 500), st.sampled_from(["mm", "thou", "in", "um", "cm"]))
    def test_units_round_trip(self, value, unit):
        typed = parse(f"{value:.6f} {unit}", "length")
        factor = {"mm": 1, "thou": 0.0254, "in": 25.4, "um": 0.001, "cm": 10}[unit]
        self.assertTrue(math.isclose(typed.canonical, float(f"{value:.6f}") * factor, rel_tol=1e-9, abs_tol=1e-9))

    @given(st.floats(-40, 300))
    def test_fahrenheit_and_celsius_name_the_same_heat(self, celsius):
        self.assertAlmostEqual(parse(f"{celsius * 1.8 + 32:.6f} F", "temperature").canonical, celsius, places=4)

    @given(st.text(max_size=30), st.sampled_from(["length", "temperature", "torque", "force", "time", "angle"]))
    def test_whatever_is_typed_is_read_or_refused_in_words(self, text, kind):
        try:
            self.assertTrue(math.isfinite(parse(text, kind).canonical))
        except BadInput as error:
            self.assertGreater(len(error.message), 10)


class UnitCache(TestCase):
    """Two processes that start together share the folder of the unit registry."""

    def test_a_file_that_another_process_is_still_writing_costs_no_reading(self) -> None:
        for written in (0, 100):
            folder = self.enterContext(tempfile.TemporaryDirectory())
            with self.subTest(written=written), mock.patch.dict(os.environ, STATOR_UNIT_CACHE=folder):
                self.assertEqual(self.read_anew(), 12.7)
                saved = list(Path(folder).glob("*.pickle"))
                self.assertTrue(saved)
                for file in saved:
                    file.write_bytes(file.read_bytes()[:written])
                self.assertEqual(self.read_anew(), 12.7)

    def read_anew(self) -> float:
        """As a process does that has read no unit yet."""
        scale_of.cache_clear()
        with mock.patch("shopmath.conversion._registry", None):
            return parse("1/2 in", "length").canonical
