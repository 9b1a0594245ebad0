"""Reading a seat off its card: every way a bearing and its seat may be known."""

from __future__ import annotations

from django.db import IntegrityError, transaction
from django.test import TestCase

from shopmath import materials
from shopmath.iso286 import Limits, fit
from shopmath.validation import BadInput
from stator.engines.fits import bearing_of, fit_of, nominal_of
from stator.engines.models import EngineCard, Seat, case_metals


class Cards(TestCase):
    def setUp(self):
        self.card = EngineCard.objects.create(name="Corrie 272")

    def seat(self, **fields):
        return Seat(card=self.card, **{"name": "Main", "designation": "6204", "code": "N7", **fields})

    def test_a_marked_bearing_in_a_coded_bore(self):
        found = fit_of(self.seat())
        self.assertEqual((found.nominal_mm, found.outer.limits, found.inner.limits), (47, Limits(-33, -8), Limits(-11, 0)))
        self.assertEqual((found.outer.words, found.inner.words), ("N7, ISO 286-1", "class Normal, ISO 492"))
        self.assertEqual((found.outer_material.key, found.inner_material.key), ("al-si7-mg", "100cr6"))

    def test_onto_a_shaft_the_bearing_is_the_outer_part(self):
        found = fit_of(self.seat(on="shaft", half="crank", designation="6205", code="k5"))
        self.assertEqual((found.nominal_mm, found.outer.limits, found.inner.limits), (25, Limits(-10, 0), Limits(2, 11)))
        self.assertTrue(found.onto_shaft)
        interference = fit(found.inner.limits, found.outer.limits)
        self.assertEqual((interference.min_interference_mm, interference.max_interference_mm), (0.002, 0.021))

    def test_a_finer_class_on_the_ring_narrows_it(self):
        self.assertEqual(fit_of(self.seat(designation="6204 P6")).inner.limits, Limits(-9, 0))

    def test_what_was_measured_at_the_bench_replaces_what_the_card_says(self):
        found = fit_of(self.seat(), seat_mm=(46.975, 0.004), ring_mm=(46.994, 0.002))
        self.assertEqual((found.outer.limits, found.inner.limits), (Limits(-31, -19), Limits(-9, -3)))
        self.assertTrue(found.outer.measured and found.inner.measured)

    def test_a_measured_seat_on_the_card_stands_where_there_is_no_code(self):
        found = fit_of(self.seat(code="", measured_mm=46.98))
        self.assertTrue(found.outer.measured)
        self.assertAlmostEqual(found.outer.limits.mean_um, -20)

    def test_an_unmarked_bearing_goes_by_its_sizes_to_the_whole_millimetre(self):
        seat = self.seat(designation="", bore_mm=20.002, outside_mm=46.993, width_mm=14)
        self.assertEqual(nominal_of(seat), 47)
        found = fit_of(seat)
        self.assertTrue(found.inner.measured)
        self.assertAlmostEqual(found.inner.limits.mean_um, -7)
        odd = self.seat(designation="", bore_mm=20.4, outside_mm=46.5, width_mm=14)
        self.assertEqual((bearing_of(odd).bore_mm, nominal_of(odd)), (20.4, 46.5))

    def test_a_code_the_table_does_not_have_is_refused(self):
        with self.assertRaises(BadInput):
            fit_of(self.seat(code="Q7"))

    def test_the_database_refuses_a_seat_that_nothing_is_known_of(self):
        for fields in ({"designation": ""}, {"code": ""}, {"designation": "", "bore_mm": 30, "outside_mm": 20, "width_mm": 9}):
            with self.subTest(fields), self.assertRaises(IntegrityError), transaction.atomic():
                self.seat(**fields).save()

    def test_a_seat_s_name_stands_once_on_a_card(self):
        self.seat().save()
        with self.assertRaises(IntegrityError), transaction.atomic():
            self.seat().save()

    def test_sides_are_said_in_the_trade_s_words_for_this_engine(self):
        self.card.left_name, self.card.right_name = "pulley side", "pump side"
        names = [self.seat(half=half).side_name for half in ("left", "right", "crank")]
        self.assertEqual(names, ["pulley side", "pump side", "crank"])

    def test_every_case_metal_offered_is_in_the_materials_table(self):
        for key, words in case_metals():
            self.assertEqual(materials.get(key).name, words)
