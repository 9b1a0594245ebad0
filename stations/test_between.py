"""What one station found is known at the next: scrap stays scrap, a seat that was signed as out gets no bearing."""

from __future__ import annotations

from django.test import TestCase

from engines.models import Spec
from engines.properties import Property
from shop.models import Blades, Compound
from stations.bearings_out.tests import Puller
from stations.close.tests import Closer
from stations.end_float.tests import Stacker
from stations.inspect.tests import Looker
from stations.split.tests import face
from tests.shed import Hands, SheetHands, job

SPUN_MM = 47.018


class Between(TestCase):
    def setUp(self):
        self.made = job(order="bottom-end")
        self.seat = self.made.card.seats.get()
        self.looker, self.heat = Looker(self.made), Hands(self.made)

    def inspected(self, size_mm, mend=""):
        self.looker.to(self.seat)
        self.looker.bearing(self.seat)
        self.looker.diameters(self.seat, *[size_mm] * 6)
        self.looker.of(self.seat, Property.RING_DIAMETER, "")
        if mend:
            self.looker.of(self.seat, Property.WALL_THICKNESS, "9")
            self.looker.of(self.seat, Property.SEAT_MEND, mend)
        self.looker.act("sign")

    def call(self):
        plate = self.heat.work().plate()
        return plate.state, plate.words

    def test_a_bearing_that_is_scrap_when_it_comes_out_is_not_kept_at_inspect(self):
        puller = Puller(self.made)
        puller.facts(decision="keep")
        puller.tick_all()
        puller.outcome(("came-out", "driven"), ("hit-through-balls", "yes"), ("seat-condition", "sound"))
        puller.act("sign")
        self.looker.to(self.seat)
        self.looker.bearing(self.seat)
        self.looker.diameters(self.seat, *[46.981] * 6)
        self.looker.of(self.seat, Property.RING_DIAMETER, "")
        plate = self.looker.work().plate()
        self.assertEqual((plate.state, plate.code), ("out", "replace"))
        self.assertIn("Decided at Bearings out", f"{plate.line} {plate.move} {plate.detail}")

    def test_a_seat_signed_as_spun_gets_no_bearing_until_it_is_mended_and_measured(self):
        self.assertEqual(self.call(), ("in", "It drops in"))
        self.inspected(SPUN_MM, mend="sleeve")
        self.assertEqual(self.call(), ("stop", "Seat is out"))
        self.heat.tick_all()
        self.assertIn("signed this seat as out", self.heat.act("heat"))
        self.heat.keep("seat", f"{SPUN_MM:.3f}")
        self.assertEqual(self.call(), ("out", "Nothing holds the ring"))
        self.heat.keep("seat", "46.981")
        self.assertEqual(self.call(), ("in", "It drops in"))

    def test_a_whole_half_is_not_heated_with_such_a_seat_in_it(self):
        self.inspected(SPUN_MM, mend="sleeve")
        sheet = SheetHands(self.made)
        plate = sheet.work().plate()
        self.assertEqual(plate.state, "stop")
        self.assertIn("the seat is out", plate.line)
        self.heat.keep("seat", "46.981")
        self.assertEqual(sheet.work().plate().state, "in")

    def test_a_retaining_compound_holds_what_the_fit_does_not(self):
        Compound.objects.create(name="Green retaining", kind="retaining", gap_mm=0.1)
        self.inspected(SPUN_MM, mend="compound")
        self.assertEqual(self.call()[0], "in")

    def test_the_bore_measured_at_inspect_is_planned_with(self):
        by_code = self.heat.work().found.plan.offering.clearance_mm
        self.inspected(46.981)
        work = self.heat.work()
        self.assertIn("measured at Inspect", next(each.source for each in work.traces() if each.label == "Grip when cold"))
        self.assertNotEqual(work.found.plan.offering.clearance_mm, by_code)


class TheJoint(TestCase):
    def setUp(self):
        self.made = job(order="bottom-end")
        face(self.made.card)
        Spec.objects.create(card=self.made.card, name="End float", property="end-float", low=0.10, high=0.30, source="page 61")
        Blades.objects.create(name="Crank shims", kind="shim", sizes_mm=[0.05, 0.1, 0.15, 0.2, 0.3])
        self.sealant = Compound.objects.create(name="Case sealant", kind="solvent", open_s=600)
        self.closer = Closer(self.made)

    def stacked(self, gasket):
        hands = Stacker(self.made)
        hands.whole(("gasket-crushed", gasket))
        self.assertTrue(hands.entry.signed_at)

    def test_sealant_in_place_of_a_gasket_that_the_end_float_counts_on_is_stop(self):
        self.stacked("0.30")
        self.assertEqual(self.closer.work().found.joint, "gasket")
        self.assertNotEqual(self.closer.work().plate().state, "stop")
        self.closer.choose(sealant=str(self.sealant.pk))
        plate = self.closer.work().plate()
        self.assertEqual((plate.state, plate.words), ("stop", "Joint and end float differ"))
        self.assertIn("a gasket of 0.30 mm", plate.line)

    def test_a_gasket_that_the_end_float_does_not_know_of_is_stop(self):
        self.stacked("")
        self.assertEqual(self.closer.work().found.joint, "dry")
        self.closer.choose(sealant=str(self.sealant.pk))
        self.assertNotEqual(self.closer.work().plate().state, "stop")
        self.closer.choose(sealant="gasket")
        self.assertEqual(self.closer.work().plate().state, "stop")
