"""What a part shows and the result of an attempt, as text in the reader's units."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

from django.utils.translation import gettext as _

from shopmath.amounts import Amount
from stator.practice import messages
from stator.practice.drawing import curve, dial, halves, history
from stator.practice.exercises.base import DisplayedValue, Exercise, Samples
from stator.practice.exercises.registry import EXERCISES
from stator.practice.models import Attempt
from stator.stations.framework.messages import capital
from stator.ui.number_format import show, shown

ENDS_OF = {"end": messages.SIDE, "place": messages.WORD, "sound": messages.WORD, "shook": messages.SHOOK}  # values that are codes of words
LAST = 10  # goes in the small plot
BENDS = ("twist", "pinch", "offset", "skew")


def _values(found: DisplayedValue) -> dict[str, Any]:
    """Return the values of a sentence with codes replaced by text."""
    values: dict[str, Any] = {"said": messages.WORD.get(found.said, found.said)}
    for name, value in found.values.items():
        values[name] = ENDS_OF[name].get(value, value) if name in ENDS_OF else value  # type: ignore[attr-defined]
    if "arcs" in values:
        values["arcs"] = values["arcs"] or messages.NO_ARCS
    return shown(values)


def where_said(exercise: str, found: DisplayedValue) -> str:
    """Return the present place as text; without a message, what is to be typed instead."""
    sentence = messages.SAID[exercise].shown.get(found.where)
    return capital(str(sentence).format(**_values(found))) if sentence else str(messages.NOTHING_YET)


def in_hands(kind: Exercise, found: DisplayedValue, samples: Samples | None) -> dict[str, Any]:
    """The panel: a dial, or what another gauge shows; and the same as a sentence for a reader."""
    where, reading = where_said(kind.key, found), show(found.amount) if found.amount else ""
    photo, told = "", None
    if found.dial_mm is not None:
        told = samples
        rounds = _("{where}: {reading}").format(where=where, reading=reading)
        photo = dial(found.dial_mm, rounds, found.round_mm, found.small_hand)
    said = messages.SAID[kind.key]
    return {
        "where": where,
        "reading": reading,
        "dial": photo,
        "samples": _sampled(kind, found, told) if told else None,
        "angle": found.values.get("angle", 0),
        "looks": _clusters(kind.key, kind.looks),
        "works": _clusters(kind.key, kind.works),
        "shares": messages.SHARE.items() if kind.hard else (),
        "begin": said.begin,
        "name": said.name,
    }


def _sampled(kind: Exercise, found: DisplayedValue, samples: Samples) -> dict[str, Any]:
    """Return what the page moves the needle by, and the line above it with its angle left open."""
    where = where_said(kind.key, replace(found, values={**found.values, "angle": "{angle}"}))
    return {
        "by": samples.by_deg,
        "on": samples.on_mm,
        "back": samples.back_mm,
        "angle": found.values["angle"],
        "round": found.round_mm,
        "rounds": found.small_hand is not None,
        "where": where,
    }


def _clusters(exercise: str, rows: tuple[tuple[str, ...], ...]) -> list[dict[str, Any]]:
    """Return groups of controls that differ only in their place, and the other controls."""
    found: list[dict[str, Any]] = []
    for control in (control for row in rows for control in row):
        group = messages.SAID[exercise].groups.get(control.partition("-")[0], "")
        if not found or found[-1]["group"] != group:
            found.append({"group": group, "levers": []})
        found[-1]["levers"].append((control, messages.lever(exercise, control), messages.move(exercise, control)))
    return found


def amount_of(plain: Any) -> str:
    """Return a true value as text from its stored form."""
    if isinstance(plain, list):
        value, kind, step = plain
        return show(Amount(float(value), str(kind), float(step)))
    return str(messages.WORD.get(plain, plain)) if plain else ""


def debriefed(attempt: Attempt) -> dict[str, Any]:
    """Return everything that the debriefing shows."""
    result, said = attempt.result, messages.SAID[attempt.exercise]
    kind, step = result["kind"], result["step"]

    def told(value: float) -> str:
        return show(Amount(float(value), kind, step))

    names = [messages.move(attempt.exercise, move["lever"]) for move in result["moves"]]
    moves = [
        {
            "said": name,
            "number": number,
            "before": told(move["before"]),
            "after": told(move["after"]),
            "wanted": messages.move(attempt.exercise, move["best"]) if move["best"] else messages.NO_MOVE,
            "right": move["right"],
        }
        for number, (name, move) in enumerate(zip(names, result["moves"], strict=True), 1)
    ]
    true_values = [(said.truth[code], amount_of(first), amount_of(last), amount_of(found)) for code, first, last, found in result["truth"]]
    return {
        "attempt": attempt,
        "result": result,
        "name": said.name,
        "left_called": capital(str(said.left)),
        "left": told(result["left"]),
        "limit": told(result["limit"]),
        "least": told(result["least"]) if result["least"] else "",
        "truth": true_values,
        "changed": any(first != last for _said, first, last, _found in true_values),
        "measured": any(found for *_rest, found in true_values),
        "moves": moves,
        "wrong": len(moves) - result["right"],
        "curve": curve(result) if moves else "",
        "halves": _halves_of(attempt),
        "fault": messages.FAULT.get(result["fault"], ""),
        "advice": messages.advice(attempt.exercise, result["advice"]),
        "damage": [messages.advice(attempt.exercise, code) for code in result["damage"] if code != result["advice"]],
        "level": messages.LEVEL[attempt.level],
        "calls": result["calls"],
        "history": history_of(attempt),
        "scored": scored(attempt.exercise),
    }


def _halves_of(attempt: Attempt) -> Any:
    """The halves of a pressed crank drawn over one another; nothing for what is none."""
    if attempt.exercise != "true-crank":
        return ""
    rows = {code: values for code, *values in attempt.result["truth"]}
    first, last, found = ({code: float(rows[code][at][0]) for code in BENDS if rows[code][at]} for at in range(3))
    return halves(first, last, found if len(found) == len(BENDS) else {})


def score(attempt: Attempt) -> float:
    """Return the number of moves relative to the shortest way; without moves, the error as a fraction of the tolerance."""
    result = attempt.result
    if not EXERCISES[attempt.exercise].works:
        return float(result["left"]) / float(result["limit"])
    return float(max(0, len(result["moves"]) - result["shortest"]))


def scored(exercise: str) -> str:
    """Return what a score is."""
    return _("moves over the shortest way") if EXERCISES[exercise].works else _("error, against what is allowed")


def history_of(attempt: Attempt) -> Any:
    """The last goes at the same exercise up to this one, plotted; nothing for the first."""
    goes = Attempt.objects.filter(person=attempt.person_id, exercise=attempt.exercise, pk__lte=attempt.pk).exclude(ended_at=None)
    last = list(reversed(goes[:LAST]))
    return history([score(each) for each in last]) if len(last) > 1 else ""
