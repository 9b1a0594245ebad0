from __future__ import annotations

import uuid
from dataclasses import replace

from django.test import SimpleTestCase, TestCase

from shopmath.splitting import Place
from stator.engines.models import EngineCard, Joint, Mark
from stator.engines.parts import Kind, Part
from stator.engines.properties import Property
from stator.jobs.fact_loader import facts_of
from stator.jobs.facts import EntryData, MeasuredReading, RecordedAction
from stator.jobs.models import DerivedFact, Entry, TrayPlace
from stator.stations.framework import State
from stator.stations.split_crankcase.analysis import Code, SplitAnalysis, length_of
from stator.stations.split_crankcase.analysis import Done as Hand
from stator.stations.split_crankcase.locations import GapPlace, gap_places
from stator.stations.split_crankcase.questions import questions
from stator.stations.split_crankcase.verdict import verdict
from tests.factories import Hands, job, without_what_comes_first, work_at

BOLTS = ((-100, 40, 40), (-60, -80, 40), (60, -80, 50), (100, 30, 50), (0, 90, 60))
PLACES = (("front", -110, 0), ("top", 0, 95), ("rear", 110, 0), ("sump", 0, -95))


def face(card):
    """Five bolts, one dowel, four named places."""
    EngineCard.objects.filter(pk=card.pk).update(lifts="right", crank_stays="left", face_w_mm=240, face_h_mm=210)
    for number, (x, y, length) in enumerate(BOLTS, 1):
        Mark.objects.create(card=card, name=str(number), x_mm=x, y_mm=y, length_mm=length, assumed=False)
    Mark.objects.create(card=card, what="dowel", name="dowel", x_mm=-90, y_mm=0, clearance_mm=0.03, engaged_mm=6)
    for name, x, y in PLACES:
        Mark.objects.create(card=card, what="gap", name=name, x_mm=x, y_mm=y)


class Halves(Hands):
    """Hands at Split."""

    key = "split"
    in_order = False  # whether what a station needs of others is asked for, or left out of the run

    def __init__(self, made):
        super().__init__(made)
        self.seat = None
        self.address = f"/jobs/{made.tag}/{self.key}/"
        if not self.in_order:
            without_what_comes_first(made, self.key)

    def work(self):
        return work_at(self.job, self.key)

    @property
    def entry(self):
        return Entry.objects.filter(job=self.job, station__key=self.key).order_by("-pk")[0]

    def answer(self, ask, text):
        return self.post("keep", ask=ask, text=text, client_key=uuid.uuid4().hex)

    def bolt(self, name, length=""):
        return self.answer(length_of(Mark.objects.get(card=self.job.card, name=name)).key, length)

    def bolts(self, *lengths):
        for name, length in zip("12345", lengths or ("40", "40", "50", "50", "60"), strict=False):
            self.bolt(name, length)

    def begin(self, turns="9"):
        self.bolts()
        for question, text in (("counted", "5"), ("screw-diameter", "6"), ("screw-pitch", "1.0"), ("screw-turns", turns)):
            self.answer(question, text)
        self.tick_all()
        return self.act("begin")

    def gaps(self, *values):
        for place, value in zip(self.work().analysis.places, values, strict=False):
            if value:
                self.answer(place.slot.key, value)

    def whole(self):
        """The whole of Split, signed; the face is laid where the card has none."""
        if not self.job.card.marks.exists():
            face(self.job.card)
        self.begin()
        self.gaps("1.00", "1.05", "1.10", "1.05")
        self.act("apart")
        self.answer("loose-part.split-1", "")
        self.answer("note", "")
        return self.act("sign")


class AtSeat(Halves):
    """Hands at the first seat of a card, at a station that goes seat by seat."""

    def __init__(self, made):
        super().__init__(made)
        self.seat = made.card.seats.first()
        self.address = f"/jobs/{made.tag}/{self.key}/{self.seat.pk}/"

    def work(self):
        return work_at(self.job, self.key, self.job.card.seats.first())


def a_split(*gaps, how="feeler"):
    """Halves under load, gaps measured at four places, without a database."""
    card = EngineCard(name="Corrie 272", face_w_mm=240, face_h_mm=210, lifts="right")
    marks = [Mark(what="gap", name=name, x_mm=x, y_mm=y) for name, x, y in PLACES]
    marks.append(Mark(what="dowel", name="dowel", x_mm=-90, y_mm=0, clearance_mm=0.03, engaged_mm=6))
    places = tuple(GapPlace(mark.part, Place(mark.name, mark.x_mm, mark.y_mm)) for mark in marks if mark.what == "gap")
    taken = tuple(MeasuredReading(place.slot, gap) for place, gap in zip(places, gaps, strict=False))
    own = EntryData(taken, (RecordedAction(Hand.LOADED),), {"how": how})
    return SplitAnalysis(Joint(card=card, uid="joint", one="left", other="right"), own, tuple(marks), places, None, (), "right")


class Gaps(SimpleTestCase):
    def judged(self, *gaps, **more):
        return verdict(a_split(*gaps, **more), [])

    def test_level_halves_go_on_by_so_many_turns(self):
        found = self.judged(1.00, 1.05, 1.10, 1.05)
        self.assertEqual((found.state, found.code, found.next), (State.IN, Code.LEVEL, "go_on"))
        self.assertAlmostEqual(found.values["lead"].value, 0.10)
        self.assertEqual((found.values["leading"], found.values["lagging"]), ("rear", "front"))

    def test_nothing_is_tapped_by_three_gaps_while_a_fourth_place_can_check_them(self):
        found = a_split(0.9, 1.5, 2.1)
        asked = [each for each in questions(found) if each.slot == found.places[3].slot]
        self.assertEqual((verdict(found, asked).code, verdict(found, asked).reason), (Code.MEASURE, "one_more"))
        self.assertEqual(verdict(found, []).code, Code.UNEVEN)  # there is no fourth, or it was left out

    def test_a_leading_side_is_levelled_where_it_lags_before_another_turn(self):
        found = self.judged(0.9, 1.5, 2.1, 1.5)
        self.assertEqual((found.state, found.code, found.next, found.values["place"]), (State.TOO_CLOSE, Code.UNEVEN, "tap", "front"))

    def test_past_the_dowels_limit_it_binds_and_the_leader_goes_back(self):
        found = self.judged(0.2, 1.2, 2.2, 1.2)
        self.assertEqual((found.state, found.code, found.next, found.values["place"]), (State.STOP, Code.BINDING, "back", "rear"))
        self.assertLess(found.scale.high, found.scale.value)

    def test_once_the_dowels_are_out_it_lifts(self):
        self.assertEqual(self.judged(7.0, 7.2, 7.4, 7.2).code, Code.FREE)

    def test_three_places_are_enough(self):
        self.assertEqual(self.judged(1.00, 1.05, 1.10).code, Code.LEVEL)
        self.assertEqual(self.judged(1.00, 1.05).code, Code.MEASURE)

    def test_a_misread_gap_of_four_sends_all_back_before_any_tap(self):
        found = self.judged(1.00, 1.60, 1.10, 1.05)
        self.assertEqual((found.state, found.code, found.next), (State.TOO_CLOSE, Code.DISAGREE, "all_again"))
        self.assertEqual(found.values["places"], ("front", "top", "rear", "sump"))

    def test_a_misread_gap_of_five_is_named(self):
        split = a_split(1.00, 1.05, 1.10, 1.05)
        fifth = GapPlace(Part(Kind.GAP, "fifth", "fifth"), Place("fifth", 80, 70))
        own = EntryData((*split.own.taken, MeasuredReading(fifth.slot, 1.60)), (RecordedAction(Hand.LOADED),), {"how": "feeler"})
        found = verdict(replace(split, own=own, places=(*split.places, fifth)), [])
        self.assertEqual((found.code, found.next, found.values["places"]), (Code.DISAGREE, "one_again", ("fifth",)))

    def test_places_that_would_hide_a_misreading_get_one_more_well_apart(self):
        joint = Joint(card=EngineCard(face_w_mm=240, face_h_mm=210), uid="joint", one="left", other="right")
        marks = [Mark(what="gap", name=name, x_mm=x, y_mm=y) for name, x, y in PLACES]
        self.assertEqual(len(gap_places(joint, marks)), 4)
        self.assertEqual([place.place.name for place in gap_places(joint, marks[:3])][3:], ["bottom"])
        in_line = [Mark(what="gap", name=str(x), x_mm=x, y_mm=0) for x in (-100, 0, 100)]
        self.assertEqual(len(gap_places(joint, [*in_line, Mark(what="gap", name="up", x_mm=0, y_mm=90)])), 5)

    def test_a_call_on_assumed_dowels_says_so(self):
        found = self.judged(1.00, 1.05, 1.10, 1.05)
        self.assertEqual([each.code for each in found.assumed], ["dowels"])  # a mark's figures are assumed until someone gives their source

    def test_a_steel_rule_is_too_coarse_to_call_them_level(self):
        gaps = (0.70, 1.05, 1.40, 1.05)
        self.assertEqual((self.judged(*gaps).state, self.judged(*gaps, how="rule").state), (State.IN, State.TOO_CLOSE))


class Split(TestCase):
    def setUp(self):
        made = job(order="bottom-end", x_mm=-30, y_mm=0)
        face(made.card)
        self.hands = Halves(made)

    def displayed_verdict(self):
        return self.hands.work().displayed_verdict()

    def call(self):
        rendered = self.displayed_verdict()
        return rendered.state, rendered.code

    def test_every_place_is_ticked_by_its_length_or_a_bare_enter(self):
        self.hands.bolt("1", "40")
        self.hands.bolt("2")
        rendered = self.displayed_verdict()
        self.assertEqual((rendered.code, rendered.reason[:6]), (Code.FASTENERS_OUT, "2 of 5"))
        self.assertIn("Bolt 3 out", rendered.next_step)

    def test_a_count_that_falls_short_is_stop_and_shows_the_likely_place(self):
        self.hands.bolts("40", "40", "", "50", "60")
        self.hands.answer("counted", "4")
        rendered = self.displayed_verdict()
        self.assertEqual(self.call(), ("stop", Code.BOLT_STILL_IN))
        self.assertEqual(rendered.reason, "4 on the tray for 5 places: 1 is still in, or lost.")
        self.assertIn("Look at 3 first", rendered.next_step)  # the one nobody had in the hand to measure
        self.assertIn('class="bolt likely"', self.hands.page())
        self.hands.tick_all()
        self.assertIn("still in, or lost", self.hands.act("begin"))

    def test_a_count_in_words_or_in_parts_is_refused_and_kept(self):
        page = self.hands.answer("counted", "4.5")
        self.assertIn("A whole number is wanted", page)
        self.assertIn('value="4.5"', page)

    def test_a_length_that_cannot_be_is_refused_with_the_question(self):
        page = self.hands.bolt("1", "900")
        self.assertIn("Bolt 1 out: its length: 900 is not believable", page)

    def test_a_bolt_of_another_length_is_raised_against_the_card_and_kept(self):
        self.hands.bolts("40", "45", "50", "50", "60")
        found = self.hands.work().contradictions()
        self.assertEqual([(line["what"], line["found"], line["card"]) for line in found], [("length of bolt 2", "45.0 mm", "40.0 mm")])
        self.assertIn("Length of bolt 2: found 45.0 mm, the card says 40.0 mm", self.hands.page())

    def test_too_few_turns_in_the_casting_are_stop_with_how_many_are_wanted(self):
        page = self.hands.begin(turns="1")
        self.assertIn("The threads in the case may pull out", page)
        self.assertEqual(self.call(), ("stop", Code.MORE_THREAD))
        self.assertRegex(self.displayed_verdict().next_step, r"the screws \d+ whole turns in")
        self.assertFalse(self.hands.work().analysis.is_loaded)

    def test_nothing_is_loaded_before_the_held_nuts_are_loosened(self):
        self.hands.bolts()
        self.hands.answer("counted", "5")
        self.assertIn("drained", self.hands.act("begin"))
        self.assertFalse(self.hands.work().analysis.is_loaded)

    def test_level_gaps_say_how_far_to_turn_in_words(self):
        self.hands.begin()
        self.hands.gaps("1.00", "1.05", "1.10", "1.05")
        rendered = self.displayed_verdict()
        self.assertEqual(self.call(), ("in", Code.LEVEL))
        self.assertIn("Rear is 0.10 ± 0.04 mm ahead of front", rendered.reason)
        self.assertRegex(rendered.next_step, r"^Turn each screw .*turns?, then measure again")
        self.assertIn("dowel clearance 0.03 mm over 6.0 mm", self.hands.page())  # beside the call, as assumed

    def test_a_new_round_keeps_the_old_one_and_the_drawing_tilts(self):
        self.hands.begin()
        self.hands.gaps("1.00", "1.05", "1.10", "1.05")
        page = self.hands.act("next")
        self.assertEqual(self.hands.work().answers.attempt, 2)
        self.assertIn("Round 2", page)
        self.hands.gaps("3.0", "3.1", "3.2", "3.1")
        page = self.hands.page()
        self.assertRegex(page, r"gap drawn \d+")
        self.assertIn("Round 1: gap at front", self.hands.readings())
        self.assertIn("rear is ahead", page)

    def test_what_hangs_loose_goes_into_the_tray_with_shaft_and_side(self):
        self.hands.begin()
        self.hands.act("apart")
        for key, text in (("loose-part", "washer 1.0"), ("loose-from", "output, 1st"), ("loose-half", "left")):
            self.hands.answer(f"{key}.split-1", text)
        place = TrayPlace.objects.get()
        self.assertEqual((place.number, place.name, place.where_from, place.half), (1, "washer 1.0", "output, 1st", "left"))
        self.hands.answer("loose-part.split-2", "")
        self.hands.act("sign")
        entry = self.hands.entry
        self.assertEqual((entry.call_code, entry.result["loose"], entry.result["counted"]), (Code.APART, ["washer 1.0"], 5))
        self.assertEqual(self.hands.job.run.get(key="split").state, "done")
        self.assertTrue(DerivedFact.objects.filter(entry=entry, property=Property.HALVES_APART).exists())

    def test_an_empty_card_is_parted_by_count_and_four_places_assumed(self):
        Mark.objects.all().delete()
        EngineCard.objects.update(lifts="")
        self.hands.answer("lifting-half", "right")
        self.hands.answer("expected", "12")
        self.hands.answer("counted", "11")
        self.assertEqual(self.displayed_verdict().state, "stop")
        self.hands.answer("counted", "12")
        for key in ("screw-diameter", "screw-pitch", "screw-turns"):
            self.hands.answer(key, "")
        self.assertEqual(self.call(), ("too_close", Code.THREAD_NOT_CHECKED))
        self.hands.tick_all()
        self.hands.act("begin")
        self.hands.gaps("1.0", "1.0", "1.1", "1.0")
        self.assertEqual(self.displayed_verdict().code, Code.LEVEL)
        self.assertIn("four places round the face", self.hands.page())


class Corrected(TestCase):
    def setUp(self):
        made = job(order="bottom-end")
        face(made.card)
        self.hands = Halves(made)
        self.hands.begin()
        self.hands.gaps("1.00", "1.05", "1.10", "1.05")
        self.hands.act("apart")
        self.hands.answer("loose-part.split-1", "")
        self.hands.act("sign")
        self.first = self.hands.entry

    def test_a_wrong_bolt_is_put_right_after_signing_in_three_acts_and_nothing_else_is_asked_again(self):
        before = list(self.first.readings.filter(withdrawn_at=None).values_list("ask", "text", "by", "gauge", "taken_at"))
        self.hands.post("supersede", reason="bolt 3 was read off the wrong pile")
        new = self.hands.entry
        self.assertEqual(list(new.readings.values_list("ask", "text", "by", "gauge", "taken_at")), before)
        self.assertEqual((new.supersedes, new.attempt, new.moves.count()), (self.first, self.first.attempt, self.first.moves.count()))
        self.hands.bolt("3", "45")
        self.hands.act("sign")
        self.assertTrue(self.hands.entry.is_signed)
        self.assertEqual(self.first.readings.get(ask=length_of(Mark.objects.get(name="3")).key).text, "50")  # stays as it was signed

    def test_until_it_is_signed_the_old_one_stands(self):
        self.hands.post("supersede", reason="counted again")
        self.hands.bolt("3", "45")
        facts = facts_of(self.hands.job)
        bolt = length_of(Mark.objects.get(name="3"))
        self.assertEqual([each.value for each in facts.history(bolt.part, bolt.what) if each.measured], [50])
        self.hands.act("sign")
        facts = facts_of(self.hands.job)
        self.assertEqual([each.value for each in facts.history(bolt.part, bolt.what) if each.measured], [45])
