"""Tests that stations use each other's results: scrap remains scrap, and a seat that is not OK gets no bearing."""

from __future__ import annotations

from django.test import TestCase

from stator.engines.models import Mark, Spec
from stator.engines.properties import Property
from stator.shop.models import Blades, Compound
from stator.stations.close_crankcase.tests import Closer
from stator.stations.inspect_parts.tests import Looker
from stator.stations.remove_bearings.tests import Puller
from stator.stations.set_end_play.tests import Stacker
from stator.stations.split_crankcase.tests import face
from tests.factories import Hands, SheetHands, job

SPUN_MM = 47.018


class Closing(Closer):
    """At Close, with what it needs of others asked for."""

    in_order = True


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
        verdict = self.heat.work().displayed_verdict()
        return verdict.state, verdict.headline

    def test_a_bearing_that_is_scrap_when_it_comes_out_is_not_kept_at_inspect(self):
        puller = Puller(self.made)
        puller.facts(decision="keep")
        puller.tick_all()
        puller.outcome(("came-out", "driven"), ("hit-through-balls", "yes"), ("seat-condition", "sound"))
        puller.act("sign")
        self.looker.to(self.seat)
        in_turn = {each.slot.what for each in self.looker.work().open_questions()}
        self.assertEqual(in_turn, {Property.SEAT_TEMPERATURE, Property.SEAT_DIAMETER})  # of the bearing nothing more
        self.looker.diameters(self.seat, *[46.981] * 6)
        verdict = self.looker.work().displayed_verdict()
        self.assertEqual((verdict.state, verdict.code), ("out", "replace"))
        self.assertIn("Decided at Bearings out", f"{verdict.reason} {verdict.next_step} {verdict.detail}")

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
        verdict = sheet.work().displayed_verdict()
        self.assertEqual(verdict.state, "stop")
        self.assertIn("the seat is out", verdict.reason)
        self.heat.keep("seat", "46.981")
        self.assertEqual(sheet.work().displayed_verdict().state, "in")

    def test_a_retaining_compound_holds_what_the_fit_does_not(self):
        Compound.objects.create(name="Green retaining", kind="retaining", gap_mm=0.1)
        self.inspected(SPUN_MM, mend="compound")
        self.assertEqual(self.call()[0], "in")

    def test_the_bore_measured_at_inspect_is_planned_with(self):
        by_code = self.heat.work().analysis.plan.offering.clearance_mm
        self.inspected(46.981)
        work = self.heat.work()
        self.assertIn("measured at Inspect", next(each.source for each in work.sources() if each.label == "Grip when cold"))
        self.assertNotEqual(work.analysis.plan.offering.clearance_mm, by_code)


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
        self.assertEqual(self.closer.work().analysis.between, "gasket")
        self.assertNotEqual(self.closer.work().displayed_verdict().state, "stop")
        self.closer.choose(sealant=str(self.sealant.pk))
        verdict = self.closer.work().displayed_verdict()
        self.assertEqual((verdict.state, verdict.headline), ("stop", "Joint and end float differ"))
        self.assertIn("a gasket of 0.30 mm", verdict.reason)

    def test_a_gasket_that_the_end_float_does_not_know_of_is_stop(self):
        self.stacked("")
        self.assertEqual(self.closer.work().analysis.between, "dry")
        self.closer.choose(sealant=str(self.sealant.pk))
        self.assertNotEqual(self.closer.work().displayed_verdict().state, "stop")
        self.closer.choose(sealant="gasket")
        self.assertEqual(self.closer.work().displayed_verdict().state, "stop")


class InOrder(TestCase):
    """Tests of the order of stations: prerequisites are shown, and continuing without one needs a reason."""

    def setUp(self):
        self.made = job(order="bottom-end", x_mm=-30, y_mm=0)
        face(self.made.card)
        Mark.objects.filter(what="bolt").update(torque_nm=10)
        self.closer = Closing(self.made)

    def closed(self):
        self.closer.answer("gears", "all")
        self.closer.tick_all()
        self.closer.answer("gasket-thickness", "0.30")
        self.closer.act("close")
        for stage in range(len(self.closer.work().analysis.rounds)):
            self.closer.round(stage)
        self.closer.answer("note", "")

    def lacking(self, hands):
        return [code for code, _ in hands.work().unmet_prerequisites]

    def test_close_with_the_heat_still_open_says_so_at_its_top_and_in_the_run_and_is_not_signed(self):
        self.assertEqual(self.lacking(self.closer), ["bearings_home", "crank_home"])
        self.assertIn("Not signed as home in their seats: Main, drive side.", self.closer.page())
        self.assertContains(self.closer.client.get("/jobs/0412/run/"), "Not signed as home in their seats: Main, drive side.")
        self.closed()
        self.assertIn("Main, drive side", self.closer.act("sign"))
        self.assertFalse(self.closer.entry.is_signed)

    def test_a_reason_goes_on_all_the_same_and_stands_on_the_sheet(self):
        self.closed()
        self.assertFalse(self.closer.work().entry.is_signed)
        self.assertIn("Give the reason", self.closer.go_on("bearings_home", " "))
        self.closer.go_on("bearings_home", "the main never came out")
        self.closer.go_on("crank_home", "it went in at the other shed")
        self.closer.act("sign")
        self.assertTrue(self.closer.entry.is_signed)
        sheet = self.closer.client.get("/jobs/0412/sheet/").content.decode()
        self.assertIn("Gone on before every bearing was signed as home: the main never came out", sheet)

    def test_a_bearing_signed_as_home_meets_it_and_one_that_jammed_does_not(self):
        heat = Hands(self.made)
        heat.choose(heater="none", chiller="none")
        heat.tick_all()
        heat.act("open")
        heat.keep("outcome", "dropped")
        for clock in (12, 3, 6, 9):
            heat.keep(f"gap{clock}", "0")
        self.assertIn("bearings_home", self.lacking(self.closer))  # said, not signed
        heat.keep("room", "20")
        heat.keep("cold", "skip")
        heat.act("sign")
        self.assertTrue(heat.entry.is_signed)
        self.assertEqual(self.lacking(self.closer), ["crank_home"])

    def test_what_no_station_of_this_run_can_give_is_not_asked_for(self):
        self.made.run.filter(key__in=("heat-and-drop", "crank-in")).update(state="skipped", because="cases came assembled")
        self.assertEqual(self.lacking(self.closer), [])

    def test_a_flywheel_and_the_crank_in_the_closed_case_want_it_closed(self):
        for key in ("flywheel-on", "centre"):
            text = self.closer.client.get(f"/jobs/0412/{key}/").content.decode()
            self.assertIn("Close is not signed: the case may still be open.", text)
