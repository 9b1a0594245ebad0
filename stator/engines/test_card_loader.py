"""Tests that a cached engine card is always up to date."""

from __future__ import annotations

from django.test import TestCase

from stator.engines.card_loader import load_card
from stator.engines.models import EngineCard, Mark, Seal, Seat, Spec


class Kept(TestCase):
    def setUp(self):
        self.card = EngineCard.objects.create(name="Corrie 272")
        self.seat = Seat.objects.create(card=self.card, name="Main", designation="6204", code="N7", half="left")
        self.mark = Mark.objects.create(card=self.card, what="bolt", name="1", x_mm=10, y_mm=10)
        self.seal = Seal.objects.create(card=self.card, name="Drive", half="left", shaft_mm=20, bore_mm=35, width_mm=7)
        self.spec = Spec.objects.create(card=self.card, name="Float", kind="length", low=0.1, high=0.3)

    def now(self):
        return load_card(EngineCard.objects.get(pk=self.card.pk))

    def test_it_is_read_once_for_as_long_as_it_stands(self):
        self.now()
        with self.assertNumQueries(1):
            card = self.now()
            said = [each.name for part in ("seats", "marks", "seals", "specs") for each in getattr(card, part).all()]
        self.assertEqual(said, ["Main", "1", "Drive", "Float"])

    def test_every_change_of_it_or_of_a_part_is_seen(self):
        self.now()
        old = EngineCard.objects.get(pk=self.card.pk)
        Seat.objects.filter(pk=self.seat.pk).update(code="M7")
        self.assertEqual(self.now().seats.get().code, "M7")
        self.assertEqual([each.code for each in self.now().seats.all()], ["M7"])
        Spec.objects.filter(pk=self.spec.pk).update(high=0.5)
        self.assertEqual([each.high for each in self.now().specs.all()], [0.5])
        self.mark.delete()
        self.assertEqual([*self.now().marks.all()], [])
        Seal.objects.create(card=self.card, name="Pump", half="right", shaft_mm=20, bore_mm=35, width_mm=7)
        self.assertEqual(len(self.now().seals.all()), 2)
        old.name = "Corrie 280"
        old.save()  # read before all that: its old stamp does not come back
        self.assertEqual((self.now().name, [each.code for each in self.now().seats.all()]), ("Corrie 280", ["M7"]))

    def test_what_one_page_does_to_its_card_no_other_sees(self):
        self.now().seats.all()[0].code = "K7"
        self.assertEqual([each.code for each in self.now().seats.all()], ["N7"])

    def test_a_part_that_moves_to_another_card_is_missed_on_one_and_found_on_the_other(self):
        other = EngineCard.objects.create(name="Plover 125")
        self.now(), load_card(EngineCard.objects.get(pk=other.pk))
        Seat.objects.filter(pk=self.seat.pk).update(card=other)
        self.assertEqual([[*load_card(EngineCard.objects.get(pk=pk)).seats.all()] for pk in (self.card.pk, other.pk)], [[], [self.seat]])
