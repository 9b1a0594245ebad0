"""Questions of Remove flywheel: puller, hub, turns and torque; then the state of taper, key, magnets and coils."""

from __future__ import annotations

from functools import partial
from typing import Any

from stator.engines.properties import Property
from stator.stations.framework import Method, Question
from stator.stations.framework.messages import OptionRow
from stator.stations.framework.question_factory import method, question
from stator.stations.remove_flywheel import messages
from stator.stations.remove_flywheel.analysis import FlywheelRemovalAnalysis, at

_ask = partial(question, messages)


def ask(what: Property, **more: Any) -> Question:
    return _ask(at(what), **more)


def questions(found: FlywheelRemovalAnalysis) -> list[Question]:
    asked = [*_threads(found), *_nut(found)]
    if found.pull and not found.is_free:
        asked.append(ask(Property.PULLING_TORQUE, repeats=True, example="25", resolution=1.0))
        if found.torque_nm is not None:
            asked.append(ask(Property.MOVED, repeats=True, quiet=True))
    return [*asked, *_once_off(found)] if found.is_free else asked


def _threads(found: FlywheelRemovalAnalysis) -> list[Question]:
    """Return the questions on threads; those of the shop's puller and of the card are known and quiet."""
    known, on_card = found.puller is not None, found.card_has_boss
    hidden = found.is_wrong or not found.is_shallow
    return [
        ask(Property.PULLER_DIAMETER, quiet=known, example="26.9", resolution=0.01),
        ask(Property.PULLER_PITCH, quiet=known, example="1.0", resolution=0.001),
        ask(Property.PULLER_HAND, quiet=known),
        ask(Property.BOSS_DIAMETER, quiet=on_card, example="26.0", resolution=0.01),
        ask(Property.BOSS_PITCH, quiet=on_card, example="1.0", resolution=0.001),
        ask(Property.BOSS_HAND, quiet=on_card),
        ask(Property.BOSS_DEPTH, optional=True, quiet=hidden, example="9", resolution=0.1),
        ask(Property.PULLER_TURNS, unit="turns", example="6", resolution=0.25),
        ask(Property.CENTRE_SCREW_DIAMETER, quiet=known, example="12", resolution=0.1),
        ask(Property.CENTRE_SCREW_PITCH, quiet=known, example="1.25", resolution=0.001),
    ]


def _nut(found: FlywheelRemovalAnalysis) -> list[Question]:
    """Return the question for the torque that seated the taper, if the card has none."""
    asked = []
    if found.card.nut_torque_nm is None:
        asked.append(ask(Property.NUT_TORQUE_WANTED, optional=True, quiet=found.is_wrong, example="55", resolution=1.0))
    if found.card.nut_d_mm is None:
        asked.append(ask(Property.NUT_THREAD, optional=True, quiet=found.is_wrong, example="12", resolution=0.1))
    return asked


def _once_off(found: FlywheelRemovalAnalysis) -> list[Question]:
    step = [ask(Property.KEY_STEP, example="0.40", resolution=0.01)] if found.own.said(at(Property.KEY_CONDITION)) == "stepped" else []
    return [
        ask(Property.TAPER_CONDITION),
        ask(Property.KEY_CONDITION),
        *step,
        ask(Property.MAGNETS),
        ask(Property.COILS),
        ask(Property.NOTE, optional=True),
    ]


def asks_first(found: FlywheelRemovalAnalysis) -> str | None:
    """Return whether it moved is asked once after that was offered, then the torque again."""
    return at(Property.MOVED).key if found.own.chosen.get("asking") == "moved" and not found.is_free else None


def methods(found: FlywheelRemovalAnalysis) -> tuple[Method, ...]:
    if found.is_free:
        return ()
    shelf: list[OptionRow] = [*messages.METHOD["puller"][1], *((str(each.pk), each.name) for each in found.pullers)]
    return (
        method(messages, "puller", str(found.puller.pk) if found.puller else "", shelf),
        method(messages, "condition", found.condition),
        method(messages, "holding", found.holding),
    )
