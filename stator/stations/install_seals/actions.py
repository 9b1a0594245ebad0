"""Actions of Install seals: continue with the next seal, sign when all are installed."""

from __future__ import annotations

from shopmath.quantity import Quantity
from stator.engines.properties import Property
from stator.jobs import log
from stator.jobs.idempotency import new_key
from stator.stations.framework import Action, BoundStation
from stator.stations.framework.messages import format_message
from stator.stations.framework.remeasure import request_remeasurement
from stator.stations.install_seals import messages
from stator.stations.install_seals.analysis import TAB, SealAnalysis, SealFound
from stator.stations.install_seals.questions import is_open, next_seal
from stator.stations.install_seals.verdict import stopped


def actions(bound: BoundStation) -> tuple[Action, ...]:
    found: SealAnalysis = bound.analysis
    if not bound.entry:
        return ()
    other = other_seal(found)
    if other:
        return (Action("other", format_message(messages.OTHER, {"part": other.seal.name}), "other", True, do=take_as_other),)
    onward, done = next_seal(found), not is_open(found, found.in_hand)
    sign = bound.sign_action(main=done and not onward)
    if onward is None:
        return (sign,)
    return (Action("next", format_message(messages.ON, {"part": onward.seal.name}), "next", done, do=take_up_next), sign)


def other_seal(found: SealAnalysis) -> SealFound | None:
    """Return the seal of this engine whose sizes match the measured ones, if it is another one that was not measured yet."""
    of = found.in_hand
    if of.found_as is None or of.is_the_one:
        return None
    other = next((each for each in found.seals if each.seal.name == of.belongs_at), None)
    return other if other and other.found_as is None else None


def take_as_other(bound: BoundStation) -> None:
    """Record the sizes for the seal that they match, and continue with that seal."""
    found: SealAnalysis = bound.analysis
    other = other_seal(found)
    assert other is not None
    for what in (Property.SEAL_SHAFT, Property.SEAL_BORE):
        measured = bound.answers.live(found.in_hand.at(what).key)[-1]
        request_remeasurement(bound, [found.in_hand.at(what)])
        value = measured.canonical or 0.0
        size = Quantity(value, measured.unit, value, measured.text, measured.kind)
        fact_key = other.at(what)
        more = {"gauge": measured.gauge, "at": measured.taken_at, "attempt": bound.answers.attempt, "extra": measured.extra}
        log.save_reading(bound.open_entry, measured.by, fact_key.key, size, new_key(), slot=fact_key, **more)
    bound.choose(**{TAB: other.seal.uid})


def take_up_next(bound: BoundStation) -> None:
    onward = next_seal(bound.analysis)
    if onward:
        bound.choose(**{TAB: onward.seal.uid})


def may_sign(bound: BoundStation) -> str:
    """Not while a seal is the wrong one or the wrong way round, or not yet in."""
    found: SealAnalysis = bound.analysis
    stop = stopped(found)
    if stop:
        return str(bound.render_verdict(stop).reason)
    left = [each.seal.name for each in found.seals if is_open(found, each)]
    return format_message(messages.STILL_TO_DO, {"seals": ", ".join(left)}) if left else ""
