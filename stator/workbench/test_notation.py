"""Sizes typed as the trade writes them: `52 N7`, `M27x1`, `M6`, `25x40x7`, `25x52x15`."""

from __future__ import annotations

from django.test import TestCase

from stator.engines.models import Mark, Seal
from stator.workbench.check_in.forms import SeatForm
from tests.factories import job, person

SEAL = {"part": "seal", "seal-name": "Output", "seal-half": "left", "seal-lip": "inside", "seal-loads_from": "outside"}


class AsTheTradeWritesThem(TestCase):
    def setUp(self):
        self.card = job(order="bottom-end").card
        self.client.force_login(person())

    def seat(self, **fields):
        usual = {"name": "Output", "on": "case", "half": "left", "stop": "shoulder", "loads_from": "inside"}
        values = {**usual, "role": "other", **fields}
        return SeatForm({f"{SeatForm.prefix}-{name}": value for name, value in values.items()}, card=self.card)

    def test_a_fit_code_may_stand_behind_its_size(self):
        for typed, code in (("52 N7", "N7"), ("52N7", "N7"), ("N7", "N7")):
            form = self.seat(designation="6205 C3", code=typed)
            form.is_valid()
            self.assertNotIn("code", form.errors)
            self.assertEqual(form.cleaned_data["code"], code)
        form = self.seat(designation="6205 C3", code="47 N7")
        self.assertFalse(form.is_valid(), form.errors)
        self.assertIn("47 N7 is not the fit of this bearing: it measures 52 mm there.", form.errors["code"])

    def test_a_small_code_for_a_bore_is_corrected_in_words(self):
        form = self.seat(designation="6205 C3", code="n7")
        self.assertFalse(form.is_valid())
        self.assertIn("For a bore write N7.", form.errors["code"][0])

    def test_a_deviation_is_a_size(self):
        form = self.seat(designation="6205 C3", measured_mm="-0.022")
        self.assertTrue(form.is_valid(), form.errors)
        self.assertEqual((form.cleaned_data["measured_mm"], form.instance.measured_mm), (51.978, 51.978))

    def test_a_taper_is_written_as_a_ratio(self):
        for typed, saved in (("1:5", 5.0), ("1 in 8", 8.0), ("10", 10.0), ("1:7,5", 7.5)):
            self.client.post("/jobs/0412/card/", {"part": "wheel", "wheel-taper_ratio": typed})
            self.card.refresh_from_db()
            self.assertEqual(self.card.taper_ratio, saved)
        answer = self.client.post("/jobs/0412/card/", {"part": "wheel", "wheel-taper_ratio": "5:1"})
        self.assertContains(answer, "5:1 is no ratio from 1:2 to 1:30. Write it as 1:5.")
        self.assertContains(self.client.get("/jobs/0412/card/?part=wheel"), 'value="1:7.5"')

    def test_the_sizes_of_a_bearing_stand_for_its_marking(self):
        form = self.seat(designation="25x52x15", code="N7")
        form.is_valid()
        self.assertNotIn("designation", form.errors)

    def test_a_seal_is_typed_in_one_field(self):
        self.client.post("/jobs/0412/card/", {**SEAL, "seal-shaft_mm": "25x40x7"})
        seal = Seal.objects.get(name="Output")
        self.assertEqual((seal.shaft_mm, seal.bore_mm, seal.width_mm), (25, 40, 7))

    def test_a_thread_brings_its_pitch(self):
        for x, thread, pitch in ((1, "M8x1", 1.0), (2, "M6", 1.0), (3, "M10", 1.5)):
            place = {"place": "bolt", "mark-x_mm": str(10 * x), "mark-y_mm": "0", "mark-what": "bolt", "mark-name": thread}
            self.client.post(f"/cards/{self.card.pk}/face/", {**place, "mark-d_mm": thread})
            mark = Mark.objects.get(name=thread)
            self.assertEqual((f"M{mark.d_mm:g}", mark.pitch_mm), (thread.split("x")[0], pitch))
        self.client.post("/jobs/0412/card/", {"part": "wheel", "wheel-boss_d_mm": "M27x1"})
        self.card.refresh_from_db()
        self.assertEqual((self.card.boss_d_mm, self.card.boss_pitch_mm), (27.0, 1.0))
