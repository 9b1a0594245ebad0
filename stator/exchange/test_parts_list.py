"""Tests of the list of parts that stations decide to replace."""

from __future__ import annotations

import csv
import io

from django.test import TestCase

from stator.engines.fact_keys import FactKey
from stator.engines.models import Seal, Spec
from stator.engines.parts import rod
from stator.engines.properties import Property
from stator.exchange.parts_list import wanted
from stator.jobs.models import Job
from stator.shop.models import Blades
from stator.stations.inspect_parts.tests import Looker
from stator.stations.remove_bearings.tests import Puller
from stator.stations.set_end_play.tests import Stacker
from tests.factories import job


class PartsToOrder(TestCase):
    def setUp(self):
        self.made = job(order="bottom-end", designation="6205 C3")
        self.seat = self.made.card.seats.get()
        self.puller, self.looker = Puller(self.made), Looker(self.made)

    def wanted(self):
        return [(each.what, each.size, each.place, each.station) for each in wanted(Job.objects.get(pk=self.made.pk))]

    def out(self, decision="scrap"):
        self.puller.facts(decision=decision)
        self.puller.tick_all()
        self.puller.outcome(("came-out", "driven"), ("hit-through-balls", "no"), ("seat-condition", "sound"))

    def test_nothing_is_ordered_before_an_entry_is_signed(self):
        self.out()
        self.assertEqual(self.wanted(), [])
        self.assertContains(self.puller.client.get("/jobs/0412/parts/"), "Nothing to order yet")
        self.puller.act("sign")
        self.assertEqual(self.wanted(), [("bearing", "6205 C3", "Main, drive side", "Bearings out")])

    def test_a_bearing_that_stays_is_not_ordered_and_one_that_inspect_condemns_is(self):
        self.looker.to(self.seat)
        self.looker.bearing(self.seat, mark="6205 C4", history="no")
        self.looker.diameters(self.seat, *[51.980] * 6)
        self.looker.of(self.seat, Property.RING_DIAMETER, "")
        self.looker.act("sign")
        self.assertEqual(self.wanted(), [("bearing", "6205 C4", "Main, drive side", "Inspect")])

    def test_a_seal_that_was_pulled_is_ordered_by_its_sizes(self):
        Seal.objects.create(card=self.made.card, seat=self.seat, name="Crank seal", shaft_mm=20, bore_mm=35, width_mm=7, depth_mm=0.5)
        self.puller.answer("seal-out", "yes")
        self.out(decision="keep")
        self.puller.act("sign")
        self.assertEqual(self.wanted(), [("seal", "20 × 35 × 7", "Crank seal", "Bearings out")])

    def test_a_worn_big_end_wants_a_rod_kit(self):
        Spec.objects.create(card=self.made.card, name="Big-end play", property="big-end-radial-play", high=0.02, source="page 61")
        self.looker.the_crank(**{FactKey(rod(1), Property.BIG_END_RADIAL_PLAY).key: "0.08"})
        self.looker.act("sign")
        self.assertEqual(self.wanted(), [("rod-kit", "", "rod 1", "Inspect")])

    def test_the_gasket_that_the_end_float_counts_on_is_ordered(self):
        Spec.objects.create(card=self.made.card, name="End float", property="end-float", low=0.10, high=0.30, source="page 61")
        Blades.objects.create(name="Crank shims", kind="shim", sizes_mm=[0.05, 0.1, 0.15, 0.2, 0.3])
        Stacker(self.made).whole(("gasket-crushed", "0.30"))
        self.assertEqual([each[0] for each in self.wanted()], ["gasket"])

    def test_it_goes_out_as_csv_and_no_cell_is_a_formula(self):
        self.seat.name = "=1+1"
        self.seat.save()
        self.out()
        self.puller.act("sign")
        answer = self.puller.client.get("/jobs/0412/parts.csv")
        rows = list(csv.DictReader(io.StringIO(answer.content.decode())))
        self.assertEqual((rows[0]["part"], rows[0]["size"], rows[0]["place"]), ("Bearing", "6205 C3", "'=1+1"))
        self.assertIn("parts-0412.csv", answer["Content-Disposition"])

    def test_only_people_of_the_shop_see_it(self):
        self.client.logout()
        self.assertEqual(self.client.get("/jobs/0412/parts/").status_code, 302)
