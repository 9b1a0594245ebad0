"""A crank on the demo's bench: readings as its hidden faults would make them."""

from __future__ import annotations

import math
import random
from datetime import datetime, timedelta

from shopmath.truing import Misalignment, PressedCrank, RunoutVector, runout_from
from stator.demo.demo_user import DemoUser
from stator.jobs.models import Job
from stator.stations.true_crank.analysis import CLOSING, SIDES, TURN, reading

SETUP = (("support-place.left", "92"), ("gauge-place.left", "34"), ("support-place.right", "92"), ("gauge-place.right", "34"))
NOT_CLOSED = tuple((reading(side, CLOSING).key, "-") for side in SIDES)


def turned(shed: DemoUser, job: Job, at: datetime, truth: Misalignment, noise_mm: float = 0.001) -> None:
    """Record one turn at each end, as a dial indicator would show it."""
    dice = random.Random(job.number)  # noqa: S311  the same demo every time
    throw = float(job.card.stroke_mm or 54) / 2
    runouts = runout_from(truth, PressedCrank(-92, 92, -34, 34, throw))
    shed.answer(job, "true", None, at, *NOT_CLOSED, *_readings(dice, noise_mm, *runouts))


def _readings(dice: random.Random, noise_mm: float, left: RunoutVector, right: RunoutVector) -> list[tuple[str, str]]:
    return [
        (
            reading(side, angle).key,
            f"{runout.tir_mm / 2 * math.cos(math.radians(angle - runout.high_spot_deg)) + dice.gauss(0, noise_mm):.3f}",
        )
        for side, runout in zip(SIDES, (left, right), strict=True)
        for angle in TURN
    ]


def outer_turn(shed: DemoUser, job: Job, at: datetime, left: RunoutVector, right: RunoutVector) -> None:
    """One turn at each outer shaft of a crank on its centre bearings."""
    dice = random.Random(job.number)  # noqa: S311  the same demo every time
    shed.answer(job, "true", None, at, *NOT_CLOSED, *_readings(dice, 0.001, left, right))


def twin_half_trued(shed: DemoUser, job: Job, now: datetime) -> None:
    """One outer web turned back, the other still to do."""
    shed.done_before(job, "true", now)
    begun = now - timedelta(minutes=50)
    shed.answer(job, "true", None, begun, ("rim-radius", "58"))
    shed.tick(shed.at(job, "true", None, begun))
    outer_turn(shed, job, begun, RunoutVector(0.082, 97), RunoutVector(0.046, 250))
    shed.act(job, "true", None, begun, "again")
    outer_turn(shed, job, now - timedelta(minutes=14), RunoutVector(0.016, 120), RunoutVector(0.046, 250))


def trued(shed: DemoUser, job: Job, at: datetime) -> None:
    """One move, then within its limit."""
    stroke = () if job.card.stroke_mm else (("stroke", "54"),)
    shed.answer(job, "true", None, at, *SETUP, *stroke)
    shed.tick(shed.at(job, "true", None, at))
    turned(shed, job, at, Misalignment(0.11, 0.002, 0.002, 0.001))
    shed.act(job, "true", None, at, "again")
    turned(shed, job, at, Misalignment(0.012, 0.002, 0.002, 0.001))
    shed.answer(job, "true", None, at, ("joint-lock", "plain"))
    shed.act(job, "true", None, at, "sign")


def half_trued(shed: DemoUser, job: Job, now: datetime) -> None:
    """Struck once, still twisted, a little spread."""
    shed.done_before(job, "true", now)
    begun = now - timedelta(minutes=40)
    shed.answer(job, "true", None, begun, *SETUP)
    shed.tick(shed.at(job, "true", None, begun))
    turned(shed, job, begun, Misalignment(0.19, -0.012, 0.003, 0.001))
    shed.act(job, "true", None, begun, "again")
    turned(shed, job, now - timedelta(minutes=6), Misalignment(0.12, -0.012, 0.003, 0.001))
