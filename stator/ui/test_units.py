"""Tests of numbers in the reader's units: shown, typed without a unit, and in fields."""

from __future__ import annotations

from django.test import SimpleTestCase
from django.utils import translation

from shopmath.amounts import Amount, celsius, gram_millimetres, kelvin, mm, newton_metres, newtons
from stator.ui.fields import QuantityField, SizesField
from stator.ui.number_format import as_read, band, bare, between, show, shown, thicknesses
from stator.ui.units import Units, read_as_typed, reading_in

READINGS = (mm(25, 0.001), mm(0.06, 0.01), mm(0.0391, 0.001, 0.004), mm(-0.5, 0.01))
INCHES = ["0.98425 in", "2.4 thou", "1.54 ± 0.16 thou", "−19.7 thou"]


class Shown(SimpleTestCase):
    def test_lengths_in_inches_are_told_in_thou_where_they_are_small_and_lose_nothing(self):
        with reading_in(Units.INCH):
            self.assertEqual([show(each) for each in READINGS], INCHES)
            self.assertEqual(show(mm(0.0254, 0.0127)), "1.0 thou")  # of a dial that steps half a thou

    def test_each_kind_has_its_unit(self):
        amounts = (celsius(110), kelvin(30), newton_metres(120), newton_metres(8, 0.1), newtons(4230), newtons(40_000))
        with reading_in(Units.INCH):
            texts = [show(each) for each in (*amounts, gram_millimetres(40, 1, 5), Amount(40, "pressure", 1.0))]
        self.assertEqual(texts, ["230 °F", "54 °F", "89 ft-lb", "71 in-lb", "950 lbf", "4.50 short tons", "1.57 ± 0.20 g·in", "5.8 psi"])

    def test_both_ends_of_a_range_are_in_one_unit(self):
        with reading_in(Units.INCH):
            self.assertEqual(band(newtons(1000), newtons(40_000)), "0.11 to 4.50 short tons")
            self.assertEqual(between(mm(0.002), mm(0.03)), "0.08 to 1.18 thou")
        self.assertEqual(between(mm(0.002), mm(0.03)), "0.002 to 0.030 mm")

    def test_a_small_length_is_told_in_µm_unless_a_larger_one_stands_beside_it(self):
        self.assertEqual((show(mm(0.004)), show(mm(0.004, 0.01)), show(mm(0.0))), ("4 µm", "0.00 mm", "0.000 mm"))
        self.assertEqual(shown({"value": mm(0.004), "limit": mm(0.03)}), {"value": "0.004 mm", "limit": "0.030 mm"})

    def test_a_drawing_says_thou_and_leaves_mm_out(self):
        self.assertEqual(bare(mm(0.06, 0.01)), "0.06")
        with reading_in(Units.INCH):
            self.assertEqual((bare(mm(0.06, 0.01)), bare(mm(52.0, 0.01))), ("2.4 thou", "2.0472"))
            self.assertEqual(thicknesses([0.1, 0.25]), "3.9 + 9.8 thou")

    def test_as_typed_each_kind_is_told_as_it_was_typed_last(self):
        with reading_in(Units.TYPED):
            read_as_typed({"length": "thou", "torque": "N*m"})
            self.assertEqual((show(mm(0.06, 0.01)), show(newton_metres(55))), ("2.4 thou", "55 N·m"))
            self.assertEqual(as_read(0.0635, "length", "inch", 0.001), "0.00250 in")
        self.assertEqual(as_read(25.4 / 26, "thread_pitch", "tpi", 0.01), "26 tpi")

    def test_a_decimal_comma_where_the_language_has_one(self):
        with translation.override("de"):
            self.assertEqual((show(mm(0.06, 0.01)), show(mm(-1.5, 0.1))), ("0,06 mm", "−1,5 mm"))


class Fields(SimpleTestCase):
    def test_a_bare_number_is_in_the_reader_s_unit_and_a_trade_size_in_mm(self):
        stroke = QuantityField("length", low=10, high=200)
        with reading_in(Units.INCH):
            self.assertAlmostEqual(stroke.clean("2.126"), 54.0, 2)
            self.assertEqual((stroke.clean("54 mm"), stroke.prepare_value(54.0)), (54.0, "54 mm"))
            self.assertFalse(stroke.has_changed(50.8, "2"))
            self.assertTrue(stroke.has_changed(50.8, "2.1"))
            with self.assertRaisesMessage(Exception, "18.9 in was understood; it must be above 0.394 in and may be up to 7.87 in."):
                stroke.clean("480 mm")
        self.assertEqual(stroke.clean("54"), 54.0)

    def test_shims_are_typed_in_thou_by_one_who_works_in_inches(self):
        with reading_in(Units.INCH):
            self.assertEqual([round(each, 4) for each in SizesField().clean("4 10 0.5mm")], [0.1016, 0.254, 0.5])
