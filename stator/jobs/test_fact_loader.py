"""Tests of loading: the readings of a job that others may use, and their authors and gauges."""

from __future__ import annotations

from django.db import connection
from django.test import TestCase
from django.test.utils import CaptureQueriesContext
from django.utils import timezone

from shopmath.quantity import parse
from stator.engines.fact_keys import FactKey, Location
from stator.engines.parts import CRANK
from stator.engines.properties import Property
from stator.jobs import log
from stator.jobs.entry_replacement import replace_entry
from stator.jobs.fact_loader import facts_of, readings_of
from stator.jobs.facts import Origin
from stator.jobs.models import DerivedFact, Digest, Entry, Reading
from stator.shop.models import Gauge, Person, Shop
from tests.factories import job, person

LEFT, RIGHT = (FactKey(CRANK, Property.CRANK_RUNOUT, Location(end)) for end in ("left", "right"))


class Gathered(TestCase):
    def setUp(self):
        self.job = job(order="crank")
        self.una, self.bram = person(), person("bram", "mechanic")
        self.dial = Gauge.objects.filter(kind="dial").first()
        self.true = self.entry("true")

    def entry(self, key):
        return log.open_entry(self.job.run.get(key=key), None, self.una)

    def read(self, entry, text, slot=LEFT, who=None, gauge=None):
        number = Reading.objects.count()
        return log.save_reading(entry, who or self.una, slot.key, parse(text, "length", "mm"), f"key {number}", slot=slot, gauge=gauge)

    def sign(self, entry):
        Entry.objects.filter(pk=entry.pk).update(signed_at=timezone.now(), signed_by=self.una)
        entry.refresh_from_db()

    def known(self, slot=LEFT, besides=None):
        return [fact.value for fact in facts_of(self.job, besides).history(slot.part, slot.what, slot.at)]


class Standing(Gathered):
    def test_others_know_what_stands_and_not_what_was_withdrawn_or_carried(self):
        first = self.read(self.true, "0.04")
        self.assertEqual(self.known(), [0.04])
        carried = self.read(self.entry("together"), "0.04")
        Reading.objects.filter(pk=carried.pk).update(carried_from=first.pk)
        self.assertEqual(self.known(), [0.04])
        log.withdraw(first, self.una)
        self.assertEqual(self.known(), [])

    def test_an_entry_does_not_know_itself_nor_what_it_replaces(self):
        self.read(self.true, "0.04")
        self.assertEqual((self.known(besides=self.true), self.known()), ([], [0.04]))
        self.sign(self.true)
        again = replace_entry(self.true, self.una, "another dial")
        self.assertEqual(self.known(besides=again), [])

    def test_a_replacement_counts_from_its_signature_on_and_then_in_its_place(self):
        self.read(self.true, "0.04")
        self.sign(self.true)
        again = replace_entry(self.true, self.una, "another dial")
        log.withdraw(again.readings.get(), self.una)
        self.read(again, "0.01")
        self.assertEqual(self.known(), [0.04])
        self.sign(again)
        self.assertEqual(self.known(), [0.01])

    def test_what_follows_from_an_entry_is_known_by_who_signed_it_once_it_is_signed(self):
        DerivedFact.objects.create(
            entry=self.true, subject=self.subject(), property=RIGHT.what.value, end="right", value=0.05, kind="length"
        )
        self.assertEqual(self.known(RIGHT), [])
        self.sign(self.true)
        (fact,) = facts_of(self.job).history(CRANK, RIGHT.what, RIGHT.at)
        self.assertEqual((fact.value, fact.origin, fact.by, fact.station), (0.05, Origin.MEASURED, self.una.called, "true"))
        self.assertEqual(self.known(RIGHT, besides=self.true), [])

    def subject(self):
        return self.read(self.true, "0.01").subject

    def test_each_is_as_sure_as_its_gauge_though_that_is_off_the_shelves(self):
        self.read(self.true, "0.04", gauge=self.dial)
        before = facts_of(self.job).best(CRANK, LEFT.what, LEFT.at)
        self.dial.retired = True
        self.dial.save()
        after = facts_of(self.job).best(CRANK, LEFT.what, LEFT.at)
        self.assertEqual((after.uncertainty, after.resolution), (before.uncertainty, self.dial.resolution))


class OfASignedEntry(Gathered):
    """Tests of facts that a signed entry provides."""

    def setUp(self):
        super().setUp()
        Shop.objects.get_or_create(pk=1)
        self.job.card.refresh_from_db()  # with the stamp that a trigger drew
        self.read(self.true, "0.04", gauge=self.dial, who=self.bram)
        self.sign(self.true)
        Digest.objects.create(entry=self.true, value="a" * 64)
        self.fact()

    def fact(self):
        return facts_of(self.job).best(CRANK, LEFT.what, LEFT.at)

    def test_what_an_open_entry_tells_is_read_each_time(self):
        self.read(self.entry("together"), "0.06", RIGHT)
        self.assertEqual(self.known(RIGHT), [0.06])
        self.read(self.entry("together"), "0.08", RIGHT)
        self.assertEqual(self.known(RIGHT), [0.07])

    def test_it_is_as_sure_as_its_gauge_is_now(self):
        before = self.fact().uncertainty
        self.dial.repeatability = 0.5
        self.dial.save()
        self.assertGreater(self.fact().uncertainty, before)

    def test_who_took_it_is_called_as_now(self):
        self.assertEqual(self.fact().by, self.bram.called)
        Person.objects.filter(pk=self.bram.pk).update(first_name="Bram", last_name="Tolley")
        self.assertEqual(self.fact().by, "Bram Tolley")

    def test_it_counts_until_its_replacement_is_signed(self):
        again = replace_entry(self.true, self.una, "another dial")
        self.assertEqual(self.known(), [0.04])
        log.withdraw(again.readings.get(), self.una)
        self.sign(again)
        self.assertEqual(self.known(), [])


class OfAnEntry(Gathered):
    def test_readings_come_with_people_and_gauges_in_one_query(self):
        for number in range(6):
            self.read(self.true, f"0.0{number}", who=(self.una, self.bram)[number % 2], gauge=self.dial)
        shop = Shop.current()
        readings_of(self.true, shop)
        with CaptureQueriesContext(connection) as asked:
            found = readings_of(self.true, shop)
            names = [each.by.called for each in found]
        self.assertEqual(len(asked), 1)
        self.assertEqual(names, [self.una.called, self.bram.called] * 3)
        self.assertEqual({each.gauge for each in found}, {self.dial})
        self.assertEqual([each.text for each in found], [f"0.0{number}" for number in range(6)])

    def test_whoever_came_with_a_file_is_called_by_it(self):
        Person.objects.filter(pk=self.bram.pk).update(first_name="Bram", last_name="Low", from_file="job 9 of the next shed")
        self.read(self.true, "0.04", who=self.bram)
        (found,) = readings_of(self.true, Shop.current())
        self.assertEqual(found.by.called, "Bram Low (job 9 of the next shed)")
        self.assertEqual((found.by.pk, found.by.role), (self.bram.pk, "mechanic"))

    def test_a_gauge_that_is_off_the_shelves_is_still_the_reading_s(self):
        self.dial.retired = True
        self.dial.save()
        self.read(self.true, "0.04", gauge=self.dial)
        self.read(self.true, "0.05")
        self.assertEqual([each.gauge for each in readings_of(self.true, Shop.current())], [self.dial, None])
