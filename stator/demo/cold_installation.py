"""A cover with a ball bearing and a drawn cup installed cold: one is seated, one is at its start."""

from __future__ import annotations

from datetime import datetime, timedelta

from stator.demo.demo_user import DemoUser
from stator.engines.fact_keys import FactKey, Location
from stator.engines.models import Seat
from stator.engines.properties import Property
from stator.jobs import log
from stator.jobs.models import Job
from stator.stations.install_without_heat.analysis import CLOCKS, DRAW, STARTING

KEY = "fit-cold"


def _depths(seat: Seat, what: Property, stage: int | None, *depths: str) -> list[tuple[str, str]]:
    return [(FactKey(seat.part, what, Location(clock=clock, stage=stage)).key, depth) for clock, depth in zip(CLOCKS, depths, strict=True)]


def _of(seat: Seat, *answers: tuple[Property, str]) -> list[tuple[str, str]]:
    return [(FactKey(seat.part, what).key, text) for what, text in answers]


def _begun(shed: DemoUser, job: Job, seat: Seat, at: datetime) -> None:
    entry = log.open_entry(job.run.get(key=KEY), seat, shed.hand)
    log.set_method(entry, way=DRAW)
    shed.tick(shed.at(job, KEY, seat, at))


def cover(shed: DemoUser, job: Job, now: datetime) -> None:
    """Install the ball bearing and sign; measure the drawn cup and put it at its start."""
    ball, shell = job.card.seats.order_by("pk")
    early = now - timedelta(minutes=55)
    _begun(shed, job, ball, early)
    sizes = _of(ball, (Property.SEAT_SIZE, "34.984"), (Property.RING_SIZE, "-"), (Property.WALL_THICKNESS, "7.5"))
    screw = ((Property.CENTRE_SCREW_DIAMETER, "12"), (Property.CENTRE_SCREW_PITCH, "1.75"), (Property.TRAVEL, "-"))
    shed.answer(job, KEY, ball, early, *sizes, *_of(ball, *screw))
    shed.answer(job, KEY, ball, early, *_depths(ball, Property.SEATING_DEPTH, STARTING, "9.1", "9.1", "9.15", "9.1"))
    felt = ((Property.SCREW_TURNS_DONE, "6"), (Property.SCREW_TORQUE, "16"), (Property.FIT_OUTCOME, "home"))
    shed.answer(job, KEY, ball, early, *_of(ball, *felt))
    shed.answer(job, KEY, ball, early, *_depths(ball, Property.SEATING_GAP, None, "0", "0", "0", "0"))
    shed.act(job, KEY, ball, early, "sign")
    late = now - timedelta(minutes=6)
    _begun(shed, job, shell, late)
    sizes = _of(shell, (Property.SEAT_SIZE, "25.976"), (Property.RING_SIZE, "26.004"), (Property.WALL_THICKNESS, "6"))
    shed.answer(job, KEY, shell, late, *sizes, *_of(shell, *screw))
    shed.answer(job, KEY, shell, late, *_depths(shell, Property.SEATING_DEPTH, STARTING, "14.6", "14.62", "14.6", "14.6"))
