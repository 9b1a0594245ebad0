"""The tables that ship: complete, consistent with each other, each row with its source."""

from __future__ import annotations

from unittest import TestCase

from shopmath import materials
from shopmath.iso286 import GRADES, limits, tolerance_um
from shopmath.tables import FOLDER, number, rows
from shopmath.thermal import surfaces
from shopmath.validation import BadInput


class Tables(TestCase):
    def test_every_row_names_its_source(self):
        for file in FOLDER.glob("*.csv"):
            with self.subTest(file.name):
                self.assertTrue(all(row["source"].strip() for row in rows(file.stem)))

    def test_delta_is_the_step_from_one_grade_to_the_next(self):
        for size, steps in zip(rows("iso286_it"), rows("iso286_delta"), strict=True):
            for grade in range(4, 9):
                if float(size["upto_incl_mm"]) <= 3:
                    continue  # the smallest sizes carry no delta
                with self.subTest(f"{size['upto_incl_mm']} IT{grade}"):
                    self.assertEqual(float(steps[f"delta_IT{grade}_um"]), float(size[f"IT{grade}_um"]) - float(size[f"IT{grade - 1}_um"]))

    def test_grades_widen_with_number_and_with_size(self):
        sizes = [2, 5, 9, 15, 25, 40, 70, 100, 150, 220]
        for grade in GRADES:
            widths = [tolerance_um(grade, size) for size in sizes]
            self.assertEqual(widths, sorted(widths))
        for size in sizes:
            widths = [tolerance_um(grade, size) for grade in GRADES]
            self.assertEqual(widths, sorted(widths))

    def test_the_size_on_a_band_edge_belongs_to_the_smaller_band(self):
        self.assertEqual(tolerance_um(7, 50), 25)
        self.assertEqual(tolerance_um(7, 50.001), 30)

    def test_holes_tighten_through_the_alphabet(self):
        for size in (20, 47, 52, 62):
            middles = [limits(f"{letter}7", size).mean_um for letter in "FGHKMNPRS"]
            self.assertEqual(middles, sorted(middles, reverse=True))

    def test_bearing_clearances_rise_from_group_to_group(self):
        for table in ("bearing_clearance_ball", "bearing_clearance_cyl_roller"):
            for row in rows(table):
                known = [number(row[f"group_{group}_{end}_um"]) for group in "2N345" for end in ("min",)]
                known = [value for value in known if value is not None]
                self.assertEqual(known, sorted(known))
                for group in "2N345":
                    low, high = number(row[f"group_{group}_min_um"]), number(row[f"group_{group}_max_um"])
                    if low is not None:
                        self.assertLess(low, high)

    def test_bearings_grow_outward(self):
        for row in rows("bearing_dims"):
            with self.subTest(row["designation"]):
                self.assertLess(float(row["d_mm"]), float(row["D_mm"]))
                self.assertGreater(float(row["B_mm"]), 0)

    def test_every_material_is_physically_possible(self):
        for key in materials.known():
            metal = materials.get(key)
            with self.subTest(key):
                self.assertTrue(2e-6 < metal.alpha < 3e-5)
                self.assertTrue(0.2 < metal.nu < 0.4)
                self.assertTrue(300 < metal.specific_heat < 1200)
                if metal.uts_mpa and metal.yield_mpa:
                    self.assertLess(metal.yield_mpa[0], metal.uts_mpa[1])
        with self.assertRaisesRegex(BadInput, "az91d"):
            materials.get("unobtainium")

    def test_only_magnesium_burns(self):
        self.assertEqual([key for key in materials.known() if materials.get(key).flammable], ["az91d"])

    def test_no_surface_reflects_or_radiates_more_than_all(self):
        for surface in surfaces():
            self.assertTrue(0 < surface.emissivity.low <= surface.emissivity.high <= 1, surface.name)
