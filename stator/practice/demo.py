"""A month of practice of an apprentice, which begins badly and improves, so that the demo has a history."""

from __future__ import annotations

import random
from dataclasses import replace
from datetime import datetime, timedelta
from typing import Any

from stator.practice.attempts import calls_said
from stator.practice.exercises.balance import where_to_drill
from stator.practice.exercises.base import ControlAction, Exercise, ExerciseOutcome
from stator.practice.exercises.registry import EXERCISES
from stator.practice.models import Attempt, Learner
from stator.shop.models import Person
from stator.simulators.crank import ENDS
from stator.simulators.flywheel_balance import Wheel
from stator.simulators.seals import LETTERS, SealSet

DAYS, MOST_MOVES, SURE = 30, 60, 0.25
PLAN = (  # what was practised in each week, and at which level
    ("read-dial", "true-crank", "free-wheel"),
    ("true-crank", "seals", "split", "read-dial"),
    ("true-crank", "hot-half", "end-float", "split"),
    ("true-crank", "outer-web", "balance", "true-crank"),
)
LEVEL_OF_WEEK = ("easy", "easy", "middle", "middle")


def month(person: Person, now: datetime) -> int:
    """Goes of the last four weeks, the learner's errors fewer in each; how many."""
    Learner.objects.update_or_create(person=person, defaults={"shown": True})
    dice, made = random.Random(17), []  # noqa: S311  the same month every time
    for week, exercises in enumerate(PLAN):
        for turn, key in enumerate([*exercises, *exercises]):
            at = now - timedelta(days=DAYS - 7 * week - 0.8 * turn, hours=dice.uniform(0, 3))
            errs = 0.55 * 0.55**week * 0.8 ** (turn // len(exercises))
            made.append(_go(person, EXERCISES[key], LEVEL_OF_WEEK[week], at, errs, dice))
    Attempt.objects.bulk_create(sorted(made, key=lambda each: each.started_at))
    return len(made)


def _go(person: Person, kind: Exercise, level: str, at: datetime, errs: float, dice: random.Random) -> Attempt:
    """Return one attempt in which each move is wrong with probability `errs`."""
    seed = dice.randint(1, 999_999)
    pulls = _pulls(kind, seed, level, errs, dice)
    part = kind.standing(seed, level, pulls)
    read = {}
    if kind.key == "read-dial":
        read = {f"shaft-tir.{end}": [part.truth.tir_mm(end) - (0.2 if dice.random() < errs else 0.002)] for end in ENDS}
    found = _measured(kind, part, dice) if errs < 0.2 and kind.station == "true" else {}
    minutes = round(9 + 0.7 * len(pulls) + dice.uniform(0, 8))
    result = kind.came_to(seed, level, pulls, read, found)
    judged = [{"said": "in" if dice.random() > errs else "out", "stator": "in", "true": "in"} for _ in range(len(pulls) // 3)]
    result |= {"readings": 4 * len(pulls) or 2 * len(read), "minutes": minutes, "calls": calls_said(judged)}
    rows = [each.row() for each in pulls]
    when = {"started_at": at, "ended_at": at + timedelta(minutes=minutes)}
    return Attempt(
        person=person, exercise=kind.key, level=level, seed=seed, pulls=rows, judges=bool(judged), calls=judged, result=result, **when
    )


def _pulls(kind: Exercise, seed: int, level: str, errs: float, dice: random.Random) -> list[ControlAction]:
    """Return controls that mostly do what is best."""
    part, pulls, at_s = kind.part(seed, level), list[ControlAction](), 0.0
    working = sorted(kind.working)
    for _ in range(MOST_MOVES):
        best = kind.best(part)
        if not best and kind.timed and not kind.reached(part, {}):
            part.passes(180.0)
            at_s += 180.0
        elif not best and isinstance(part, SealSet) and part.wrong:
            _go_to_next(kind, part, pulls)
        elif not best:
            break
        else:
            control = dice.choice(working) if dice.random() < errs else best[0]
            share = 1.0 if errs < SURE or not kind.hard else 0.5  # one who is sure strikes once
            pull = ControlAction(control, share, at_s, _hole(part) if isinstance(part, Wheel) else {})
            pulls.append(pull)
            kind.pull(part, pull)
    return pulls


def _measured(kind: Exercise, part: Any, dice: random.Random) -> dict[str, ExerciseOutcome]:
    """Return the true values as a dial indicator of 2 µm would show them."""
    true_values = {code: told for code, told in kind.truth(part).items() if not isinstance(told, str)}
    return {code: replace(told, value=_read(told.value, dice)) for code, told in true_values.items()}


def _read(value: float, dice: random.Random) -> float:
    """Return a measurement with an error of a few µm or a few percent."""
    return value + dice.gauss(0, 0.003) if abs(value) < 0.02 else value * dice.gauss(1, 0.04)


def _hole(part: Wheel) -> dict[str, float]:
    """Return a hole at the heavy spot, about as deep as necessary."""
    return {"mark": round(where_to_drill(part)) % 360, "bit": 4.0, "depth": round(min(12.0, part.gmm / 8), 1)}


def _go_to_next(kind: Exercise, part: SealSet, pulls: list[ControlAction]) -> None:
    """The next seal that sits nowhere, before its own place; or a place that is not right."""
    loose = [letter for letter in LETTERS if letter not in {each.letter for each in part.seated.values()}]
    place = part.made_for(loose[0]) if loose else next(place for place in part.seated if not part.is_right(place))
    for control in ([f"take-{loose[0]}"] if loose else []) + [f"place-{place}"]:
        pulls.append(ControlAction(control))
        kind.pull(part, pulls[-1])
