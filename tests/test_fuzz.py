"""No input breaks a page: every address is sent what no page of Stator's would send."""

from __future__ import annotations

import os
import random
import re
from urllib.parse import quote

import django.test
from django.core.files.uploadedfile import SimpleUploadedFile
from django.db import transaction
from django.forms.forms import BaseForm
from django.test import Client
from django.urls import get_resolver
from django.utils import timezone
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st
from hypothesis.extra.django import TestCase

from stator.engines.models import Seal
from stator.jobs import log
from stator.jobs.models import Entry, Photo, TrayPlace
from stator.practice import attempts
from stator.shop.models import Person
from stator.stations.framework import bind
from stator.stations.framework.record_snapshot import frozen
from stator.stations.split_crankcase.tests import face
from stator.workbench.registry import STATION_BY_KEY, STATIONS
from tests.factories import Hands, half_job, person

WHOLE = bool(os.environ.get("STATOR_WHOLE"))
EXAMPLES = 5000 if WHOLE else 250
SAMPLE = 1 if WHOLE else 100  # one of so many requests to each address with each reader
NASTY = [
    *("", " ", "²", "٣", "5" * 5000, "-1", "0", "1e999", "NaN", "-inf", "∞", "1/0", "0,5", "1.2.3", "2.5 thou", "300F", "18 furlong"),
    *("\x00", "bell \x07", "\u202e", "\ufeff18", "<script>alert(1)</script>", "{{ 7*7 }}", "%s%d", "../../etc/passwd", "=1+1", "🦀"),
    *("a" * 20000, "[", "{}", "null", "true", "0-", "350-20", "1.0-1.1 0.9", "4 6 8", "7' 6\"", "46.98", "35 Nm", "2 x washer"),
    *("back", "undo", "sheet", "log", "?", "sign", "skip", "on", "off"),
]
FIELDS = [
    *("text", "ask", "action", "key", "on", "reading", "reason", "seen", "saw", "attempt", "latest", "client_key", "heard", "act"),
    *("name", "count", "note", "x", "y", "off", "part", "id", "mark", "place", "sure", "days", "gauge", "line", "do", "log", "station"),
    *("words", "back", "number", "heater", "wanted", "half", "t", "rev", "q", "figure", "since", "device", "mark-what", "mark-x_mm"),
    *("mark-y_mm", "mark-name", "seat-name", "seat-designation", "seat-bore_mm", "spec-name", "spec-low", "wheel-nut_torque_nm"),
    *("facts-name", "username", "password", "complaint", "work_order", "known", "lever", "old_password", "new_password1", "ton", "role"),
]
VALUES = st.one_of(st.sampled_from(NASTY), st.text(max_size=40).filter(lambda text: text.isprintable()), st.integers().map(str))
SKIPPED = ("sign-out", "job-zip", "report-pdf", "owner-pdf", "making", "made")  # made beside the page, or it would sign the sender out


def routes() -> list[str]:
    return [
        str(each.pattern)
        for pattern in get_resolver().url_patterns
        for each in pattern.url_patterns  # type: ignore[union-attr]
        if each.name not in SKIPPED
    ]


HUGE = "99999999999999999999"  # 20 digits, beyond 64 bit
WORDS = "word"
SYSTEMATIC = [  # what is sent to every address
    {},
    {"text": HUGE, "ask": "room", "number": HUGE, "count": HUGE, "days": HUGE, "reading": HUGE, "id": HUGE, "photo": HUGE, "x": HUGE},
    {"next": WORDS, "back": WORDS, "part": WORDS, "kind": WORDS, "order": WORDS, "act": WORDS, "action": WORDS, "key": WORDS, "on": "1"},
    {"part": "seat", "id": "1", "sure": "1", "reason": "x", "note": "x", "words": "x", "station": "seals", "name": "washer"},
]


def form_fields() -> dict[str, str]:
    """Every field of every form, with its prefix, filled with a number beyond 64 bit."""

    def kinds(kind):
        for each in kind.__subclasses__():
            yield each
            yield from kinds(each)

    return {f"{kind.prefix}-{name}" if kind.prefix else name: HUGE for kind in kinds(BaseForm) for name in getattr(kind, "base_fields", {})}


class EveryAddress(django.test.TestCase):
    """Every address with every role, unit system and job state: no request ends in a server error."""

    cost = 40

    @classmethod
    def setUpTestData(cls):
        cls.jobs = {}
        for number, state in ((412, "open"), (413, "closed"), (414, "practice")):
            made = half_job(number)
            face(made.card)
            Seal.objects.create(card=made.card, name="Crank seal", shaft_mm=30, bore_mm=47, width_mm=7)
            for order, station in enumerate(STATIONS, 40):
                if not made.run.filter(key=station.key).exists():
                    made.run.create(order=order, key=station.key)
            hands = Hands(made)
            hands.keep("room", "18")
            Photo.objects.create(job=made, image="a.jpg", thumb="b.jpg", width=4, height=4, by=person())
            TrayPlace.objects.create(job=made, number=1, name="thin washer", client_key=f"t{number}", by=person())
            cls.jobs[state] = made
        cls.sign(cls.jobs["closed"])
        cls.attempt = attempts.begin(person("wren", "mechanic"), "read-dial", "plain", 1)
        readers = [(role, units) for role in ("owner", "mechanic") for units in ("metric", "inch", "typed")]
        cls.readers = {(role, units): person(f"{role}-{units}", role) for role, units in readers}
        for (_, units), reader in cls.readers.items():
            Person.objects.filter(pk=reader.pk).update(units=units)

    @classmethod
    def sign(cls, made):
        """Sign an entry with a bare record and an empty drawing, as a file may have it, and hand the job over."""
        entry = log.open_entry(made.run.get(key="hand-over"), None, person())
        log.save_reading(entry, person(), "note", log.words("Fetched."), f"fuzz-{made.number}")
        content = bind(STATION_BY_KEY["hand-over"], made, entry.station, None, person(), timezone.now())
        content = frozen(content, content.displayed_verdict()).content
        record = log.RecordSnapshot(content, b"")
        log.sign(entry, person(), log.VerdictSnapshot("in", "Handed over", ""), {"schema": "hand-over/1"}, record=record)
        log.close(made, entry.opened_at)

    def addresses(self, state):
        """Yield each address for a job in a state, also with numbers beyond 64 bits and with words."""
        made = self.jobs[state]
        usual = {
            "tag": made.tag,
            "key": "seals",
            "seat": str(made.card.seats.first().pk),
            "number": "1",
            "shelf": "gauges",
            "what": "figures",
            "size": "full",
            "token": "x",
            "owner": "x",
            "paper": "a4",
        }
        for route in routes():
            first = Entry.objects.filter(job=made).first()
            keys = {"cards": made.card_id, "entries": first.pk, "photos": made.photos.first().pk}
            pk = str(keys.get(route.split("/")[0], 1))
            for odd in (False, True):

                def value(found, odd=odd, pk=pk):
                    return (HUGE if found[1] == "row:" else WORDS) if odd and found[2] != "tag" else usual.get(found[2], pk)

                address = "/" + re.sub(r"<(\w+:)?(\w+)>", value, route)
                stations = [address.replace("/seals/", f"/{station.key}/") for station in STATIONS] if "/seals/" in address else [address]
                yield from stations

    def test_no_request_ends_in_a_fault_of_the_server(self):
        clients = {}
        for reader, who in self.readers.items():
            clients[reader] = Client(raise_request_exception=False)
            clients[reader].force_login(who)
        requests = [
            (reader, state, address, how, said)
            for state in self.jobs
            for address in dict.fromkeys(self.addresses(state))
            for reader in clients
            for how, said in [("get", {}), *(("post", said) for said in (*SYSTEMATIC, {**form_fields(), **SYSTEMATIC[-1]}))]
        ]
        dice = random.Random(33)
        for reader, state, address, how, said in requests if SAMPLE == 1 else dice.sample(requests, len(requests) // SAMPLE):
            with self.subTest(reader=reader, state=state, address=address, how=how, said=str(said)[:300]), transaction.atomic():
                headers = dice.choice([{}, {"HX-Request": "true"}, {"X-Partial": "1"}])
                answer = getattr(clients[reader], how)(address, said, headers=headers)
                self.assertLess(answer.status_code, 500)
                transaction.set_rollback(True)


class Fuzz(TestCase):
    cost = 20

    def setUp(self):
        self.made = half_job(412)
        face(self.made.card)
        Seal.objects.create(card=self.made.card, name="Crank seal", shaft_mm=30, bore_mm=47, width_mm=7)
        for order, station in enumerate(STATIONS, 40):
            if not self.made.run.filter(key=station.key).exists():
                self.made.run.create(order=order, key=station.key)
        Hands(self.made).keep("room", "18")
        self.photo = Photo.objects.create(job=self.made, image="a.jpg", thumb="b.jpg", width=4, height=4, by=person())
        TrayPlace.objects.create(job=self.made, number=1, name="thin washer", client_key="t", by=person())
        self.asked = self.wanted()
        self.client = Client(raise_request_exception=False)
        self.client.force_login(person())

    def known(self, name, route):
        """Return the usual values of a part of an address."""
        if name == "pk":
            return [str(self.photo.pk if route.startswith("photos") else self.made.card_id), "1", "999999"]
        usual = {
            "tag": ["0412", "412", "9999"],
            "key": [station.key for station in STATIONS],
            "seat": [*(str(seat.pk) for seat in self.made.card.seats.all()), "0"],
            "number": ["1", "7"],
            "shelf": ["gauges", "heaters"],
        }
        return usual.get(name, ["full", "figures", "x"])

    def wanted(self):
        """Questions and actions that the stations have."""
        found = {"ask": [], "action": []}
        for stage in self.made.run.select_related("job__card"):
            station = STATION_BY_KEY[stage.key]
            seat = self.made.card.seats.first() if station.by_seat else None
            work = bind(station, stage.job, stage, seat, person(), timezone.now())
            found["ask"] += [question.key for question in work.current_questions]
            found["action"] += [action.key for action in work.actions()]
        return found

    @settings(max_examples=EXAMPLES, deadline=None, derandomize=True, database=None, suppress_health_check=list(HealthCheck))
    @given(st.data())
    def test_no_request_is_answered_with_a_fault_of_ours(self, data):
        route = data.draw(st.sampled_from(routes()))

        def filled(found):
            usual = st.sampled_from(self.known(found[2], route))
            odd = VALUES.map(lambda text: quote(text[:2000], safe="") or "x") if found[1] != "row:" else st.integers(0, 10**30).map(str)
            return data.draw(st.one_of(usual, usual, usual, odd))

        address = "/" + re.sub(r"<(\w+:)?(\w+)>", filled, route)
        values = data.draw(st.dictionaries(st.sampled_from(FIELDS), VALUES, max_size=8))
        for field in ("ask", "action"):
            if data.draw(st.booleans()):
                values[field] = data.draw(st.sampled_from(self.asked[field]))
        headers = data.draw(st.sampled_from([{}, {"HX-Request": "true"}, {"X-Partial": "1"}, {"HX-Request": "true", "X-Panel": "sheet"}]))
        how = data.draw(st.sampled_from(["get", "post", "post", "post", "file"]))
        if how == "file":
            content = data.draw(st.one_of(st.binary(max_size=200), VALUES.map(lambda text: text.encode("utf-8", "replace"))))
            name = data.draw(st.sampled_from(["file", "photo", "underlay"]))
            values = {**values, name: SimpleUploadedFile(data.draw(st.sampled_from(["a.jpg", "a.csv", "a.zip", "a.json"])), content)}
        answer = (self.client.get if how == "get" else self.client.post)(address, values, headers=headers)
        self.assertLess(answer.status_code, 500, f"{how} {address} {values}")
