"""A small shed for the tests: people, shelves, one engine, and hands that use the pages as a mechanic does."""

from __future__ import annotations

import uuid
from typing import Any

from django.test import Client
from django.utils import timezone

from engines.models import EngineCard, Seat
from jobs.models import Entry, Job
from shop.defaults import stock_shelves
from shop.models import Person
from stations.base import Work
from stations.registry import BY_KEY, lay_run

PASSWORD = "gannet-and-gull-7"


def person(name: str = "una", role: str = "owner") -> Person:
    found = Person.objects.filter(username=name).first()
    return found or Person.objects.create_user(name, password=PASSWORD, first_name=name.title(), role=role)


def job(number: int = 412, order: str = "heat", **seat: Any) -> Job:
    """A trials single with one main seat, booked in."""
    stock_shelves()
    card_fields = {name: seat.pop(name) for name in ("case_material", "painted") if name in seat}
    card = EngineCard.objects.create(name="Corrie 272", summary="trials single", **card_fields)
    seat = {"name": "Main, drive side", "designation": "6204 C3", "code": "N7", **seat}
    Seat.objects.create(card=card, **seat)
    made = Job.objects.create(number=number, card=card, complaint="Rumbles.", work_order=order, booked_in_by=person())
    lay_run(made)
    return made


class Hands:
    """One person at one station, through the web."""

    def __init__(self, made: Job, who: Person | None = None) -> None:
        self.client = Client()
        self.client.force_login(who or person())
        self.job, self.seat = made, made.card.seats.first()
        self.address = f"/jobs/{made.tag}/heat-and-drop/{self.seat.pk}/"

    def work(self) -> Work:
        stage = self.job.run.select_related("job__card").get(key="heat-and-drop")
        return BY_KEY["heat-and-drop"].bind(stage.job, stage, self.seat, person(), timezone.now())

    @property
    def entry(self) -> Entry:
        return Entry.objects.filter(job=self.job, seat=self.seat).order_by("-pk")[0]

    def post(self, word: str, **data: Any) -> str:
        answer = self.client.post(f"{self.address}{word}/", data, headers={"HX-Request": "true"})
        assert answer.status_code == 200, answer.status_code
        return answer.content.decode()

    def keep(self, ask: str, text: str, key: str = "") -> str:
        return self.post("keep", ask=ask, text=text, client_key=key or uuid.uuid4().hex)

    def tick_all(self) -> None:
        for caution in self.work().checks():
            self.post("tick", key=caution.key, on="1")

    def act(self, action: str) -> str:
        return self.post("act", action=action)

    def choose(self, **chosen: str) -> str:
        return self.post("choose", **chosen)

    def page(self) -> str:
        return self.client.get(self.address).content.decode()
