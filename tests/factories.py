"""A small shop for tests: people, equipment, an engine, and users who work as a mechanic does."""

from __future__ import annotations

import re
import uuid
from functools import cache, cached_property
from html import unescape
from typing import Any

from django.contrib.auth.hashers import make_password
from django.http import HttpRequest, HttpResponse
from django.test import Client, RequestFactory
from django.urls import resolve
from django.utils import timezone
from django_htmx.middleware import HtmxDetails

from stator.engines.models import EngineCard, Fitted, Seat
from stator.engines.properties import Property
from stator.jobs.models import Entry, Job
from stator.shop.defaults import stock_shelves
from stator.shop.models import Person, Shop
from stator.stations.framework import BoundStation, bind
from stator.workbench.reading_commands import job_of
from stator.workbench.registry import STATION_BY_KEY, create_work_plan

PASSWORD = "gannet-and-gull-7"


def person(name: str = "una", role: str = "owner") -> Person:
    found = Person.objects.filter(username=name).first()
    return found or Person.objects.create(username=name, password=_hashed(), first_name=name.title(), role=role)


@cache
def _hashed() -> str:
    return make_password(PASSWORD)


def job(number: int = 412, order: str = "heat", **seat: Any) -> Job:
    """Return a job of a trials single with one main seat."""
    stock_shelves()
    card_fields = {name: seat.pop(name) for name in ("case_material", "painted") if name in seat}
    card = EngineCard.objects.create(name="Corrie 272", summary="trials single", **card_fields)
    seat = {"name": "Main, drive side", "role": "main", "designation": "6204 C3", "code": "N7", **seat}
    Seat.objects.create(card=card, **seat)
    made = Job.objects.create(number=number, card=card, complaint="Rumbles.", work_order=order, booked_in_by=person())
    create_work_plan(made)
    return made


def half_job(number: int = 428, **card: Any) -> Job:
    """Return a job of a half with four bearings, a snap ring, a shaft and a rubber bushing, ready for its heat."""
    made = job(number, name="Main, drive side", designation="6206 C3", stop="circlip", faces="marking_out", source="drawing")
    EngineCard.objects.filter(pk=made.card_id).update(**card)
    for name, marking, more in (
        ("Gearbox input", "6203", {"faces": "marking_in"}),
        ("Gearbox output", "6204", {"loads_from": "outside", "faces": "marking_out"}),
        ("Selector drum", "6004", {}),
    ):
        Seat.objects.create(card=made.card, name=name, designation=marking, code="N7", **more)
    spindle = {"name": "Rocker spindle", "d_mm": 12, "length_mm": 62, "turned": "flat", "angle_deg": 90}
    Fitted.objects.create(card=made.card, order="washer, rocker, spring washer", source="drawing", **spindle)
    Fitted.objects.create(card=made.card, name="Mount bush", kind="rubber", d_mm=32, bore_mm=10, length_mm=44)
    return made


def without_what_comes_first(made: Job, key: str) -> None:
    """Skip the stations that another one requires, so that it can be tested separately; begun stations remain."""
    givers = {giver for need in STATION_BY_KEY[key].needs for giver in need.given_by} if key in STATION_BY_KEY else set()
    made.run.filter(key__in=givers, state="ahead", entries=None).update(state="skipped", because="tried by itself")


def shown_on(page: str) -> str:
    """Return the verdict that a page sends back."""
    return unescape(re.findall(r'data-seen="([^"]*)"', page)[0])


def press(client: Client, address: str, action: str, **more: Any) -> Any:
    """Press a button of a station's page in its present state."""
    return client.post(f"{address}act/", {"action": action, "seen": shown_on(client.get(address).content.decode()), **more})


IN_A_HEAT = {  # what the questions of a heat are called for short
    "room": Property.AIR_TEMPERATURE,
    "seat": Property.SEAT_SIZE,
    "ring": Property.RING_SIZE,
    "heat": Property.HEATER_SETTING,
    "target": Property.HEAT_TARGET,
    "stay": Property.CHILL_STAY,
    "case": Property.HOT_TEMPERATURE,
    "drop": Property.WATER_DROP,
    "partner": Property.COLD_TEMPERATURE,
    "outcome": Property.FIT_OUTCOME,
    "circlip": Property.CIRCLIP,
    "gap": Property.SEATING_GAP,
    "depth": Property.SEATING_DEPTH,
    "cold": Property.SEATING_GAP_COLD,
}


def heat_key(short: str, seat: Seat | None) -> str:
    """The address of a question of a heat: of the whole heat, of its seat, or of a place there."""
    name, clock = re.fullmatch(r"([a-z]+)(\d*)", short).groups()  # type: ignore[union-attr]
    what = IN_A_HEAT[name]
    of_heat = seat is None or name in ("room", "heat", "target", "stay")
    return ".".join(filter(None, (what.value, "" if of_heat else seat.uid, f"{clock}h" if clock else "")))  # type: ignore[union-attr]


def work_at(made: Job, key: str, seat: Seat | None = None) -> BoundStation:
    """The work at a station as a page would read it now."""
    found = job_of(made.number)
    assert found is not None
    return bind(STATION_BY_KEY[key], found, next(each for each in found.run.all() if each.key == key), seat, person(), timezone.now())


class Page:
    """The page that answers an act, for a test that looks at it; most look only at what the act did."""

    def __init__(self, request: HttpRequest, answer: Any) -> None:
        self.request, self.answer = request, answer

    def __str__(self) -> str:
        page = self.answer if isinstance(self.answer, HttpResponse) else self.answer.render(self.request)
        assert page.status_code == 200, page.status_code
        return page.content.decode()

    def __contains__(self, words: str) -> bool:
        return words in str(self)

    def lower(self) -> str:
        return str(self).lower()

    def count(self, words: str) -> int:
        return str(self).count(words)

    def __add__(self, other: Page) -> str:
        return str(self) + str(other)


class Hands:
    """One person at one station, through the web.

    At a heat its questions may be called by their short names.
    """

    def __init__(self, made: Job, who: Person | None = None) -> None:
        self.who = who or person()
        self.job, self.seat = made, made.card.seats.first()
        self.address = f"/jobs/{made.tag}/heat-and-drop/{self.seat.pk}/"

    @cached_property
    def client(self) -> Client:
        """A browser that is signed in."""
        client = Client()
        client.force_login(self.who)
        client.cookies["paper"] = "wide"  # as a page on a desk says once it has run
        return client

    def work(self) -> BoundStation:
        return work_at(self.job, "heat-and-drop", self.seat)

    @property
    def entry(self) -> Entry:
        return Entry.objects.filter(job=self.job, seat=self.seat).order_by("-pk")[0]

    def post(self, word: str, **data: Any) -> Page:
        """Send what a page would send; the page that answers is made when somebody looks at it."""
        address = f"{self.address}{word}/"
        request = RequestFactory().post(address, data, headers={"HX-Request": "true"})
        request.user, request.htmx, request.COOKIES["paper"] = self.who, HtmxDetails(request), "wide"  # type: ignore[attr-defined]
        view = resolve(address)
        with Shop.current().for_this_page():
            return Page(request, view.func.answers(request, *view.args, **view.kwargs))  # type: ignore[attr-defined]

    def key(self, ask: str) -> str:
        """The address of a question that may be called for short."""
        return heat_key(ask, self.seat) if ask.rstrip("0123456789") in IN_A_HEAT else ask

    def keep(self, ask: str, text: str, key: str = "") -> str:
        return self.post("keep", ask=self.key(ask), text=text, client_key=key or uuid.uuid4().hex)

    def tick_all(self) -> None:
        for warning in self.work().checks():
            self.post("tick", key=warning.key, on="1")

    def act(self, action: str) -> str:
        """Press a button of the page in its present state."""
        return self.post("act", action=action, seen=shown_on(self.page()) if action == "sign" else "")

    def go_on(self, need: str, reason: str) -> str:
        """Continue without a prerequisite."""
        return self.post("go_on", need=need, reason=reason)

    def choose(self, **chosen: str) -> str:
        return self.post("choose", **chosen)

    def page(self) -> str:
        return self.client.get(self.address).content.decode()

    def readings(self) -> str:
        """All readings, as their panel shows them."""
        return self.client.get(f"{self.address}readings/").content.decode()


class SheetHands(Hands):
    """A user at one heat for a case half."""

    def __init__(self, made: Job, who: Person | None = None) -> None:
        super().__init__(made, who)
        self.seat = None
        self.address = f"/jobs/{made.tag}/heat-and-drop/0/"
