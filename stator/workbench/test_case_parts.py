"""Tests of cases with more than two parts: a center section between the halves, covers; separated and assembled joint by joint."""

from __future__ import annotations

from datetime import timedelta

from django.test import TestCase
from django.utils import timezone

from stator.engines.case import joined_anew, joints_of
from stator.engines.fact_keys import FactKey, Location
from stator.engines.layouts import apply_layout
from stator.engines.models import CasePart, EngineCard, Joint, Mark, Seat
from stator.engines.parts import CRANK
from stator.engines.properties import Property
from stator.jobs.models import DerivedFact, Reading, Timer, TrayPlace
from stator.shop.models import Compound, PullIn
from stator.stations.close_crankcase.tests import Closer
from stator.stations.install_crank.tests import Puller
from stator.stations.split_crankcase.tests import BOLTS, Halves, face
from tests.factories import Hands, job, person

FAR = FactKey(CRANK, Property.TRAVEL, Location(end="right"))


def three_parts(card: EngineCard) -> CasePart:
    """A centre section between the halves, the bolts of the right half on a joint of their own."""
    centre = CasePart.objects.create(card=card, what="centre", name="centre section")
    joined_anew(card)
    face(card)
    further = card.joints.exclude(uid="joint").get()
    Joint.objects.filter(pk=further.pk).update(lifts="right")
    EngineCard.objects.filter(pk=card.pk).update(lifts="left", crank_stays="")
    for number, (x, y, length) in enumerate(BOLTS, 6):
        Mark.objects.create(card=card, joint=further.uid, name=str(number), x_mm=x, y_mm=y, length_mm=length, assumed=False)
    return centre


def cover(card: EngineCard) -> CasePart:
    """A clutch cover of three screws on the right half, with two bearings."""
    found = CasePart.objects.create(card=card, what="cover", name="clutch cover", fastened_to="right")
    joined_anew(card)
    for number, (x, y) in enumerate(((-40, 0), (40, 0), (0, 50)), 21):
        Mark.objects.create(card=card, joint=f"joint-{found.uid}", what="screw", name=str(number), x_mm=x, y_mm=y, torque_nm=8)
    for name in ("Clutch release", "Kick shaft"):
        Seat.objects.create(card=card, name=name, half=found.uid, designation="6002", code="N7")
    return found


class OnTheCard(TestCase):
    """Tests of case parts that are added on the page of the card, which creates their joints."""

    def setUp(self):
        self.made = job(order="bottom-end")
        self.card, self.hands = self.made.card, Hands(self.made)

    def put(self, **said):
        data = {"part": "case", **{f"case-{name}": value for name, value in said.items()}}
        return self.hands.client.post(f"/jobs/{self.made.tag}/card/", data)

    def joints(self):
        return [joint.called for joint in joints_of(EngineCard.objects.get(pk=self.card.pk))]

    def test_a_centre_section_makes_two_joints_and_the_first_keeps_its_bolts(self):
        face(self.card)
        self.assertEqual(self.joints(), ["drive side to magneto side"])
        self.assertEqual(self.put(what="centre").status_code, 302)
        self.assertEqual(self.joints(), ["drive side to centre section", "centre section to magneto side"])
        self.assertEqual(set(self.card.marks.values_list("joint", flat=True)), {"joint"})
        page = self.hands.client.get(f"/jobs/{self.made.tag}/card/").content.decode()
        self.assertIn("centre section to magneto side", page)

    def test_a_cover_says_what_it_is_bolted_to_and_no_name_stands_twice(self):
        self.assertContains(self.put(what="cover", name="Clutch cover"), "Say which part it is bolted to.")
        self.put(what="cover", name="Clutch cover", fastened_to="right")
        self.assertEqual(self.joints(), ["Clutch cover", "drive side to magneto side"])  # it opens first
        self.assertContains(self.put(what="cover", name="Clutch cover", fastened_to="left"), "has a Clutch cover already")

    def test_a_bolt_stands_on_the_joint_it_was_put_on_and_a_seat_in_its_part(self):
        part = cover(self.card)
        page = self.hands.client.get(f"/cards/{self.card.pk}/face/?mark-joint=joint-{part.uid}", headers={"HX-Request": "true"})
        self.assertContains(page, "Fasteners: 3")
        data = {"place": "screw", "mark-joint": f"joint-{part.uid}", "mark-x_mm": "0", "mark-y_mm": "-50"}
        self.hands.client.post(f"/cards/{self.card.pk}/face/", data, headers={"HX-Request": "true"})
        self.assertEqual(self.card.marks.filter(joint=f"joint-{part.uid}").count(), 4)
        self.assertEqual(Seat.objects.get(name="Kick shaft").side_name, "clutch cover")

    def test_a_part_with_something_in_it_stays_on_the_card(self):
        part = cover(self.card)
        values = {"part": "case", "id": part.pk, "sure": "1"}
        page = self.hands.client.post(f"/cards/{self.card.pk}/remove/", values, follow=True).content.decode()
        self.assertIn("stays on the card as long as Clutch release, Kick shaft", page)
        self.card.seats.filter(half=part.uid).delete()
        self.card.marks.filter(joint=f"joint-{part.uid}").delete()
        self.hands.client.post(f"/cards/{self.card.pk}/remove/", values)
        self.assertEqual(self.joints(), ["drive side to magneto side"])

    def test_a_lay_out_with_a_centre_section_has_its_middle_bearings_there(self):
        card = EngineCard.objects.create(name="Skerry twin")
        apply_layout(card, "three-part-twin")
        centre = card.case_parts.get(what="centre")
        self.assertEqual(card.seats.filter(half=centre.uid).count(), 2)
        self.assertEqual(len(joints_of(EngineCard.objects.get(pk=card.pk))), 2)


class Apart(TestCase):
    """Joint by joint."""

    def setUp(self):
        self.made = job(order="bottom-end", x_mm=-30, y_mm=10)
        self.card, self.hands = self.made.card, Halves(self.made)

    def take_off(self, numbers):
        for name, (_x, _y, length) in zip(numbers, BOLTS, strict=True):
            self.hands.bolt(str(name), str(length))

    def test_both_joints_are_opened_before_it_is_signed(self):
        centre = three_parts(self.card)
        far = f"joint-{centre.uid}"
        self.take_off(range(1, 6))
        for question, text in (
            ("counted", "5"),
            ("screw-diameter", "6"),
            ("screw-pitch", "1"),
            ("screw-turns", "9"),
        ):
            self.hands.answer(question, text)
        self.hands.tick_all()
        self.assertIn("drive side half lifts", self.hands.work().displayed_verdict().next_step)
        self.hands.act("begin")
        self.hands.gaps("1.00", "1.05", "1.10", "1.05")
        self.hands.act("apart")
        self.hands.answer("loose-part.split-1", "washer 1.0")
        self.hands.answer("loose-from.split-1", "output")
        self.hands.answer("loose-half.split-1", centre.uid)
        self.assertEqual(TrayPlace.objects.get().found_on, "centre section")
        self.hands.answer("loose-part.split-2", "")
        work = self.hands.work()
        self.assertEqual((work.analysis.joint.uid, work.next_question.slot.part.uid), (far, Mark.objects.get(name="6").uid))
        self.assertIn("moved on", self.hands.act("sign"))
        self.take_off(range(6, 11))
        self.hands.answer(f"counted.{far}", "4")
        self.assertEqual(self.hands.work().displayed_verdict().state, "stop")  # one is still in, at this joint
        self.hands.answer(f"counted.{far}", "5")
        self.hands.answer(f"screw-turns.{far}", "")
        self.hands.act("begin")
        self.assertEqual(self.hands.work().displayed_verdict().headline, "Round 1 of gaps")
        self.hands.gaps("1.00", "1.05", "1.10", "1.05")
        self.hands.act("apart")
        self.hands.answer(f"loose-part.split-{far}-1", "")
        self.hands.answer("note", "")
        self.hands.act("sign")
        self.assertEqual((self.hands.entry.call_words, self.hands.entry.call_code), ("The case is apart", "all apart"))
        self.assertEqual(DerivedFact.objects.filter(property=Property.HALVES_APART).count(), 2)
        self.assertEqual([each["joint"] for each in self.hands.entry.result["joints"]], ["joint", far])

    def test_through_bolts_are_counted_once(self):
        centre = three_parts(self.card)
        self.card.marks.filter(joint=f"joint-{centre.uid}").delete()
        self.hands.begin()
        self.hands.gaps("1.00", "1.05", "1.10", "1.05")
        self.hands.act("apart")
        self.hands.answer("loose-part.split-1", "")
        self.assertEqual(self.hands.work().next_question.slot.what, Property.SPLITTER_SCREW_DIAMETER)

    def test_a_cover_comes_off_by_hand_or_stays_on(self):
        face(self.card)
        part = cover(self.card)
        work = self.hands.work()
        self.assertEqual(
            (work.analysis.joint.uid, [each.key for each in work.actions()]), (f"joint-{part.uid}", ["rest", "apart", "leave"])
        )
        self.hands.act("rest")
        self.hands.answer(f"counted.joint-{part.uid}", "3")
        self.assertIn("soft hammer", self.hands.work().displayed_verdict().next_step)
        self.assertIn("drained", self.hands.act("apart"))
        self.hands.tick_all()
        self.hands.act("apart")
        self.assertEqual(self.hands.work().displayed_verdict().headline, "Apart: look for loose parts")
        self.hands.answer(f"loose-part.split-joint-{part.uid}-1", "")
        self.assertEqual(self.hands.work().analysis.joint.uid, "joint")

    def test_a_joint_chosen_by_its_tab_is_left_once_it_is_through(self):
        face(self.card)
        part = cover(self.card)
        self.hands.choose(tab="joint")
        self.assertEqual(self.hands.work().analysis.joint.uid, "joint")
        self.hands.choose(tab=f"joint-{part.uid}")
        self.hands.act("leave")
        self.assertEqual(self.hands.work().analysis.joint.uid, "joint")

    def test_a_joint_that_stays_closed_is_none_to_close(self):
        face(self.card)
        cover(self.card)
        self.hands.act("leave")
        self.assertEqual(self.hands.work().analysis.joint.uid, "joint")
        self.hands.whole()
        self.assertEqual(self.hands.entry.call_code, "all apart")
        closer = Closer(self.made)
        self.assertEqual([each.joints[0].uid for each in closer.work().analysis.every], ["joint"])


class Together(TestCase):
    """One clock over the joints along the crank, covers after them."""

    def setUp(self):
        self.made = job(order="bottom-end", x_mm=-30, y_mm=0)
        self.card = self.made.card
        three_parts(self.card)
        self.card.marks.filter(what="bolt").update(torque_nm=10)
        self.hands = Closer(self.made)

    def ready(self, open_s):
        sealant = Compound.objects.create(name="Case sealant", kind="solvent", open_s=open_s)
        self.hands.choose(sealant=str(sealant.pk))
        self.hands.answer("gears", "all")
        self.hands.tick_all()

    def test_a_plan_longer_than_the_open_time_is_told_before_the_first_bead(self):
        self.ready(300)
        verdict = self.hands.work().displayed_verdict()
        self.assertEqual((verdict.state, verdict.headline), ("too_close", "Too long for this sealant"))
        self.assertIn("stays open 5 min", verdict.reason)
        self.assertIn("Lay no bead", verdict.next_step)

    def test_one_clock_runs_over_both_joints_until_both_are_drawn_together(self):
        self.ready(900)
        self.assertEqual([each.words for each in self.hands.work().actions()], ["The first bead goes on: start its clock"])
        self.hands.act("close")
        self.hands.act("round")
        self.assertTrue(self.hands.work().analysis.faces_together)
        self.assertEqual(len(self.hands.work().analysis.ordered), 10)
        self.assertEqual(Timer.objects.filter(key="open").count(), 1)
        self.hands.answer("squeezed-out", "wiped")
        for _number in range(2):
            self.hands.act("round")
        self.hands.act("sign")
        closed = DerivedFact.objects.filter(property=Property.CASE_CLOSED)
        self.assertEqual(closed.count(), 2)

    def test_the_clock_counts_the_second_joint_too(self):
        self.ready(900)
        self.hands.act("close")
        began = timezone.now() - timedelta(seconds=500)
        Timer.objects.filter(key="open").update(started_at=began, due_at=began + timedelta(seconds=900))
        self.assertEqual(
            (self.hands.work().displayed_verdict().state, self.hands.work().displayed_verdict().headline),
            ("too_close", "Tighten the bolts"),
        )
        began = timezone.now() - timedelta(seconds=600)
        Timer.objects.filter(key="open").update(started_at=began, due_at=began + timedelta(seconds=900))
        self.assertEqual(self.hands.work().displayed_verdict().headline, "Sealant is setting")

    def test_a_cover_goes_on_last_and_is_done_again_by_itself(self):
        part = cover(self.card)
        TrayPlace.objects.create(job=self.made, number=1, name="kick spring", half=part.uid, client_key="a", by=person())
        self.hands.answer("gears", "all")
        self.hands.tick_all()
        self.hands.act("close")  # what hung on the cover does not keep the case open
        for _number in range(3):
            self.hands.act("round")
        self.assertEqual(self.hands.work().displayed_verdict().headline, "Still on the tray")
        TrayPlace.objects.update(emptied_at=timezone.now())
        work = self.hands.work()
        self.assertEqual((work.analysis.joint.uid, work.analysis.sealant_choice), (f"joint-{part.uid}", f"sealant-joint-{part.uid}"))
        self.hands.act("close")
        self.hands.act("round")
        self.hands.act("again")
        self.assertEqual([each.all_tight for each in self.hands.work().analysis.every], [True, False])
        self.hands.tick_all()
        self.hands.act("close")
        for _number in range(3):
            self.hands.act("round")
        self.hands.act("sign")
        self.assertEqual(self.hands.entry.call_words, "Case is closed")
        self.assertEqual(self.hands.entry.result["covers"][0]["order"], ["23", "21", "22"])


class BothEnds:
    """A crank in a centre section, to be pulled into both outer halves."""

    def setUp(self):
        super().setUp()
        self.made = job(order="bottom-end")
        three_parts(self.made.card)
        Seat.objects.create(card=self.made.card, name="Main, far", role="main", half="right", designation="6205 C3", code="N7")
        PullIn.objects.create(name="Crank puller", thread_mm=12.0, thread_pitch_mm=1.25, pitch_mm=1.5)
        self.hands = Puller(self.made)

    def set_up(self, end):
        for question, text in (("end-thread-diameter", "12"), ("end-thread-pitch", "1.25"), ("adapter-turns", "8"), ("travel", "18")):
            self.hands.answer(f"{question}.{end}", text)
        self.hands.tick_all()
        self.hands.act("begin")

    def feel(self, end, turns, torque="4 Nm"):
        self.hands.answer(f"screw-turns-done.{end}", turns)
        self.hands.answer(f"screw-torque.{end}", torque)


class InTurn(BothEnds, TestCase):
    """It is pulled a little at each in turn."""

    def test_the_end_that_lags_is_pulled_before_the_other_goes_on(self):
        self.set_up("left")
        self.assertIn("magneto side", self.hands.work().next_question.text)
        self.set_up("right")
        self.assertIsNone(self.hands.work().analysis.gaps)
        self.feel("left", "2")
        self.assertEqual(self.hands.work().analysis.end, "right")
        self.assertEqual(self.hands.work().displayed_verdict().state, "too_close")
        self.assertIn("drive side is 3.0 mm ahead of the magneto side", self.hands.work().displayed_verdict().reason)
        self.feel("right", "3")
        self.assertEqual((self.hands.work().analysis.end, self.hands.work().analysis.main.name), ("left", "Main, drive side"))
        for end in ("left", "right"):
            self.feel(end, "12", "40 Nm")
        self.assertEqual(self.hands.work().analysis.end, "left")
        self.hands.act("home")
        self.assertEqual([each.words for each in self.hands.work().actions()], ["It is home: magneto side"])
        self.hands.act("home")
        for end in ("left", "right"):
            self.hands.answer(f"home-gap.{end}", "0.20")
        self.assertEqual(self.hands.work().displayed_verdict().headline, "Crank is home")
        self.hands.act("sign")
        self.assertEqual([each["end"] for each in self.hands.entry.result["ends"]], ["left", "right"])
        labels = {line["words"] if "words" in line else line["label"] for line in self.hands.entry.record.content["readings"]}
        self.assertIn("Turns done in all, magneto side", labels)

    def test_a_thread_typed_as_it_is_called_keeps_the_pitch_of_its_own_end(self):
        for end, thread in (("left", "M12x1.5"), ("right", "M12x1.25")):
            self.hands.answer(f"end-thread-diameter.{end}", thread)
        saved = {each.ask: each.canonical for each in Reading.objects.filter(property="end-thread-pitch")}
        self.assertEqual(saved, {"end-thread-pitch.left": 1.5, "end-thread-pitch.right": 1.25})


class TwoCranks(BothEnds, TestCase):
    """Each crank goes into its own half: nothing at one moves the other, and each has its two gaps."""

    def setUp(self):
        super().setUp()
        EngineCard.objects.filter(pk=self.made.card_id).update(two_cranks=True)

    def test_the_end_float_of_two_cranks_is_not_taken_from_one_stack(self):
        hands = Halves(self.made)
        hands.key, hands.address = "end-float", f"/jobs/{self.made.tag}/end-float/"
        self.assertEqual((hands.work().questions(), hands.work().displayed_verdict().headline), ([], "Each crank has its own"))
        self.assertIn("Leave this station out", hands.work().displayed_verdict().next_step)

    def test_neither_waits_for_the_other(self):
        self.set_up("left")
        self.set_up("right")
        self.feel("left", "12", "40 Nm")
        self.assertEqual((self.hands.work().analysis.end, self.hands.work().analysis.turn), ("left", None))
        self.hands.act("home")
        self.feel("right", "12", "40 Nm")
        self.hands.act("home")
        for end, gaps in (("left", ("0.20", "0.22")), ("right", ("0.60", "0.20"))):
            for where, gap in zip(("outer", "inner"), gaps, strict=True):
                self.hands.answer(f"home-gap.{end}.{where}", gap)
        self.assertEqual(self.hands.work().displayed_verdict().headline, "Crank is not home")
        self.assertIn("The gap on the outside, magneto side is 0.40 mm larger", self.hands.work().displayed_verdict().reason)
        self.hands.answer("home-gap.right.outer", "0.21")
        self.assertEqual(self.hands.work().displayed_verdict().headline, "Crank is home")


class Stack(TestCase):
    def test_the_width_of_the_section_and_both_gaskets_are_links(self):
        made = job(order="bottom-end")
        centre = three_parts(made.card)
        hands = Halves(made)
        hands.key = "end-float"
        hands.address = f"/jobs/{made.tag}/end-float/"
        values = {
            "case-temperature": "",
            "face-to-bearing.left": "38.42",
            f"section-width.{centre.uid}": "62.00",
            "face-to-bearing.right": "31.10",
            "gasket-crushed": "0.45",
            f"gasket-crushed.joint-{centre.uid}": "0.45",
            "crank-shoulders": "132.00",
            "shims-fitted": "",
        }
        for key, text in values.items():
            self.assertEqual(hands.work().next_question.key, key)
            hands.answer(key, text)
        self.assertAlmostEqual(hands.work().analysis.free.value_mm, 0.42)
