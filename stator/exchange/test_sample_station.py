"""Tests that a definition and a line in the registry make a station: it asks, judges, draws, signs, reports and exports."""

from __future__ import annotations

from types import SimpleNamespace
from unittest.mock import patch

from django.test import TestCase

from shopmath.amounts import mm
from shopmath.verdict import judge
from stator.engines.fact_keys import FactKey
from stator.engines.models import Spec
from stator.engines.parts import CRANK
from stator.engines.properties import Property
from stator.exchange.job_export import job_as_json
from stator.exchange.trend import series
from stator.jobs.facts import Finding
from stator.jobs.models import DerivedFact, Entry, Job
from stator.stations.framework import Action, State, StationDefinition, Verdict, question_factory
from stator.stations.framework.limits import limit_values
from stator.stations.framework.messages import BY_LIMIT
from stator.stations.framework.registry import registry
from stator.stations.split_crankcase.tests import Halves
from tests.factories import job

RUNOUT = FactKey(CRANK, Property.CRANK_RUNOUT)
WORDS = SimpleNamespace(
    NAME="Spin it",
    DRAWING="A crank on two points",
    HEADLINE={"wait": "Spin the crank", "in": "It runs true", "out": "It does not run true"},
    REASON={**BY_LIMIT, "wait": "One turn between two points."},
    NEXT={"wait": "{question}", "sign": "Sign this entry."},
    DETAIL={},
    ASSUMED={},
    QUESTION={Property.CRANK_RUNOUT: "Runout (TIR)"},
    WHERE={},
    SKIP={},
    OPTIONS={},
    LABEL={Property.CRANK_RUNOUT: "runout between points"},
    CHECKS={"clean": ("Points clean.", True)},
    LIMIT_FROM={},
)


def facts(given):
    limit = given.facts.limit(Property.CRANK_RUNOUT)
    read = given.own.fact(RUNOUT)
    judged = judge(read.value, high=limit.high, uncertainty=0.001) if read and limit else None
    return SimpleNamespace(own=given.own, read=read, call=judged)


def verdict(found, asked):
    if found.call is None:
        return Verdict(State.WAIT, "wait")
    return Verdict(found.call.state, found.call.state, limit_values(found.call), found.call.code, "sign")


def actions(bound) -> tuple[Action, ...]:
    return (bound.sign_action(),)


TOY = StationDefinition(
    key="spin",
    name="Spin it",
    words=WORDS,
    gives=(Property.CRANK_RUNOUT,),
    facts=facts,
    questions=lambda found: [question_factory.question(WORDS, RUNOUT, gauges=("dial",))],
    verdict=verdict,
    checks=lambda found: question_factory.checks(WORDS),
    derived=lambda found: [Finding(FactKey(CRANK, Property.CENTRING), found.read.value / 2)],
    draw=lambda found, canvas: canvas.labels.at([((200, 200), "middle")], f"{found.read.value:.3f}" if found.read else "?"),
    actions=actions,
    result=lambda found: {"schema": "spin/1", "tir_mm": found.read.value},
)


class Spinner(Halves):
    """Hands at the made-up station."""

    key = "spin"


class MadeUp(TestCase):
    def setUp(self):
        self.enterContext(patch.dict(registry.by_key, {TOY.key: TOY}))
        self.made = job(order="crank")
        self.made.run.create(order=50, key="spin")
        Spec.objects.create(card=self.made.card, name="Crank runout", property="crank-runout", high=0.03, source="page 44")
        self.hands = Spinner(self.made)
        self.client = self.hands.client

    def signed(self, reading="0.010"):
        self.hands.answer("crank-runout", reading)
        self.hands.tick_all()
        self.hands.act("sign")
        return self.hands.entry

    def test_it_asks_in_its_words_and_refuses_what_cannot_be(self):
        page = self.client.get("/jobs/0412/spin/").content.decode()
        self.assertIn("Spin the crank", page)
        self.assertIn("Runout (TIR)", page)
        self.hands.answer("crank-runout", "21 mm")
        self.assertFalse(Entry.objects.filter(station__key="spin", readings__isnull=False).exists())

    def test_what_must_be_ticked_keeps_it_open(self):
        self.hands.answer("crank-runout", "0.021")
        self.assertIn("Points clean", self.hands.act("sign"))
        self.assertFalse(self.hands.entry.is_signed)

    def test_signed_it_is_judged_recorded_drawn_and_known_to_others(self):
        entry = self.signed()
        self.assertEqual((entry.call_state, entry.call_code, entry.result["tir_mm"]), ("in", "in", 0.01))
        reading = entry.readings.get()
        self.assertEqual((reading.subject.kind, reading.property), ("crank", "crank-runout"))
        self.assertEqual(DerivedFact.objects.get(entry=entry).value, 0.005)
        line = entry.record.content["figures"][0]
        self.assertEqual((line["words"], line["limits"], line["state"]), ("Runout between points", "max 0.03 mm", "in"))
        self.assertContains(self.client.get("/jobs/0412/spin/"), "It runs true")
        self.assertContains(self.client.get(f"/entries/{entry.pk}/sheet/"), "It runs true")

    def test_over_its_limit_it_is_out(self):
        self.assertEqual(self.signed("0.05").call_state, "out")

    def test_the_job_sheet_the_file_and_the_trend_know_it_without_being_told(self):
        self.signed()
        self.assertContains(self.client.get("/jobs/0412/sheet/"), "Runout between points")
        entry = next(each for each in job_as_json(Job.objects.get(pk=self.made.pk))["entries"] if each["station"] == "spin")
        self.assertEqual(entry["readings"][0]["property"], "crank-runout")
        self.assertEqual(series(self.made.card), {})  # one job is no trend

    def test_its_numbers_are_amounts_in_the_readers_units(self):
        self.signed()
        values = self.hands.entry.call_values
        self.assertEqual(values["limit"]["kind"], mm(0.03).kind)
