"""Tests of facts: which of several readings counts, its uncertainty, and the order of origins."""

from __future__ import annotations

from datetime import UTC, datetime, timedelta

from django.test import SimpleTestCase

from stator.engines.card_facts import CardFigure, Limit
from stator.engines.fact_keys import FactKey, Location
from stator.engines.parts import CRANK, FLYWHEEL, rod
from stator.engines.properties import Property
from stator.jobs.facts import EntryData, Fact, Facts, GaugeSnapshot, MeasuredReading, Origin, fact_of

MORNING = datetime(2026, 5, 4, 9, 0, tzinfo=UTC)
GAP = FactKey(FLYWHEEL, Property.AIR_GAP)
RIGHT, LEFT = (FactKey(CRANK, Property.CRANK_RUNOUT, Location(end)) for end in ("right", "left"))


def taken(slot, value=None, text="", **more):
    return MeasuredReading(slot, value, text or f"{value:g}", "words" if value is None else "length", **more)


def later(minutes):
    return MORNING + timedelta(minutes=minutes)


class OneFact(SimpleTestCase):
    def test_repeats_of_one_place_come_to_their_mean(self):
        fact = fact_of([taken(GAP, value) for value in (0.30, 0.32, 0.34)])
        self.assertAlmostEqual(fact.value, 0.32)
        self.assertEqual(fact.origin, Origin.MEASURED)

    def test_repeats_that_scatter_are_less_sure_than_the_gauge_alone(self):
        dial = GaugeSnapshot("Dial", 0.01)
        steady, scattered = (fact_of([taken(GAP, value, gauge=dial) for value in values]) for values in ((0.3, 0.3, 0.3), (0.2, 0.3, 0.4)))
        self.assertGreater(scattered.uncertainty, steady.uncertainty)

    def test_without_a_gauge_it_is_less_sure_than_with_a_fine_one(self):
        bare, fine = fact_of([taken(GAP, 0.30)]), fact_of([taken(GAP, 0.30, gauge=GaugeSnapshot("Micrometer", 0.001))])
        self.assertGreater(bare.uncertainty, fine.uncertainty)
        self.assertEqual((bare.resolution, fine.resolution), (0.1, 0.001))  # 0.3 was typed

    def test_an_answer_is_decided_and_has_no_number(self):
        fact = fact_of([taken(FactKey(FLYWHEEL, Property.KEY_CONDITION), text="stepped")])
        self.assertEqual((fact.origin, fact.text, fact.value, fact.uncertainty), (Origin.DECIDED, "stepped", None, None))


class Known(SimpleTestCase):
    def test_two_ends_of_one_part_are_two_places(self):
        facts = Facts([taken(LEFT, 0.02), taken(RIGHT, 0.05)])
        self.assertEqual([facts.best(CRANK, Property.CRANK_RUNOUT, Location(end)).value for end in ("left", "right")], [0.02, 0.05])
        self.assertIsNone(facts.best(CRANK, Property.CRANK_RUNOUT))
        self.assertEqual({at.end for at in facts.places(CRANK, Property.CRANK_RUNOUT)}, {"left", "right"})

    def test_the_same_of_another_part_is_not_known(self):
        side = Property.BIG_END_SIDE_PLAY
        facts = Facts([taken(FactKey(rod(1), side), 0.35)])
        self.assertEqual((facts.best(rod(1), side).value, facts.best(rod(2), side)), (0.35, None))

    def test_as_found_is_the_first_and_as_left_the_last_entry(self):
        found = [taken(GAP, value, entry=entry, at=later(entry)) for entry, value in ((2, 0.25), (1, 0.40))]
        facts = Facts(found)
        self.assertEqual((facts.as_found(FLYWHEEL, GAP.what).value, facts.as_left(FLYWHEEL, GAP.what).value), (0.40, 0.25))
        self.assertEqual(facts.best(FLYWHEEL, GAP.what).value, 0.25)

    def test_attempts_are_not_mixed_into_one_mean(self):
        facts = Facts([taken(GAP, 0.40, entry=1, attempt=1, at=later(1)), taken(GAP, 0.20, entry=1, attempt=2, at=later(2))])
        self.assertEqual([fact.value for fact in facts.history(FLYWHEEL, GAP.what)], [0.40, 0.20])

    def test_what_was_measured_goes_before_the_card_whatever_came_first(self):
        card = CardFigure(GAP, 0.30, source="page 12")
        self.assertEqual(Facts([], card=[card]).best(FLYWHEEL, GAP.what).origin, Origin.CARD)
        self.assertEqual(Facts([taken(GAP, 0.41)], card=[card]).best(FLYWHEEL, GAP.what).value, 0.41)

    def test_a_figure_that_was_taken_as_usual_stays_marked(self):
        fact = Facts([], card=[CardFigure(GAP, 0.30, assumed=True)]).best(FLYWHEEL, GAP.what)
        self.assertEqual((fact.origin, fact.assumed), (Origin.ASSUMED, True))

    def test_the_card_alone_is_neither_found_nor_left(self):
        facts = Facts([], card=[CardFigure(GAP, 0.30)])
        self.assertEqual((facts.as_found(FLYWHEEL, GAP.what), facts.as_left(FLYWHEEL, GAP.what)), (None, None))

    def test_what_was_taken_over_counts_once_where_it_was_measured(self):
        facts = Facts([taken(GAP, 0.30, entry=1), taken(GAP, 0.30, entry=2, carried=True)])
        self.assertEqual([fact.entry for fact in facts.history(FLYWHEEL, GAP.what)], [1])

    def test_what_follows_from_an_entry_goes_before_what_was_answered_in_it(self):
        decision = FactKey(FLYWHEEL, Property.KEY_CONDITION)
        answer = taken(decision, text="sound", entry=1, at=MORNING, number=7)
        follows = Fact(decision, None, "sheared", Origin.DECIDED, entry=1, at=later(5))
        self.assertEqual(Facts([answer], [follows]).said(FLYWHEEL, decision.what), "sheared")

    def test_it_notes_what_a_call_rests_on(self):
        facts = Facts(
            [taken(GAP, 0.30), taken(LEFT, 0.02)], limits=[Limit(Property.AIR_GAP, 0.2, 0.4), Limit(Property.RIM_RUNOUT, None, 0.1)]
        )
        facts.best(FLYWHEEL, GAP.what)
        facts.limit(Property.AIR_GAP)
        self.assertEqual((list(facts.used), list(facts.limits_used)), ([GAP.key], ["air-gap"]))
        self.assertIsNone(facts.limit(Property.CRANK_RUNOUT))


class OwnReadings(SimpleTestCase):
    def test_the_last_attempt_that_has_any_counts(self):
        own = EntryData((taken(GAP, 0.40, attempt=1), taken(GAP, 0.25, attempt=2)), attempt=3)
        self.assertEqual((own.value(GAP), own.value(GAP, 1), own.value(GAP, 3)), (0.25, 0.40, None))
        self.assertEqual(len(own.all(GAP)), 2)

    def test_left_out_is_not_the_same_as_not_answered(self):
        own = EntryData(skipped=frozenset({GAP.key}))
        self.assertEqual((own.was_skipped(GAP), own.has(GAP), own.was_skipped(LEFT)), (True, False, False))
