"""The verdict of Install flywheel, and the sources of its numbers."""

from __future__ import annotations

from collections.abc import Iterator
from functools import partial
from typing import Any

from shopmath.amounts import degrees, mm, newton_metres, newtons, rough
from stator.engines.properties import Property
from stator.stations.framework import Finding, MessageRef, Question, Scale, Source, State, Verdict, question_factory
from stator.stations.framework.limits import limit_values
from stator.stations.framework.messages import format_message
from stator.stations.install_flywheel import messages
from stator.stations.install_flywheel.analysis import CONE, TIMING_DEG, Code, FlywheelInstallationAnalysis, Judged, at, shift_shown
from stator.ui.number_format import between, plain, show
from stator.ui.table_texts import from_table

source = partial(question_factory.source, messages)
KINDS = {Code.TIMING: ("angle", 0.1), Code.NUT: ("torque", 1.0), Code.RIM: ("length", 0.01), Code.AIR_GAP: ("length", 0.01)}


def verdict(found: FlywheelInstallationAnalysis, questions: list[Question]) -> Verdict:
    """The worst of what is judged; then what is still to be answered."""
    worst = found.judged[0] if found.judged else None
    if worst and worst.call.state != State.IN:
        return _judged(found, worst)
    reason, values = _so_far(found)
    assumed = _assumed(found)
    if questions and not questions[0].optional:
        blued = questions[0].slot is not None and questions[0].slot.what in (Property.CONTACT_SHARE, Property.CONTACT_AT_LARGE_END)
        return Verdict(State.WAIT, Code.BLUE_IT if blued else Code.GOING_ON, values, reason, "ask", assumed=assumed)
    if questions:
        return Verdict(State.WAIT, Code.OPTIONAL_LEFT, values, reason, "ask_or_skip", assumed=assumed)
    shift = found.shift_deg
    detail = "" if shift is None else "ahead" if shift > 0 else "back"
    more = {"shift": shift_shown(abs(shift))} if shift is not None else {}
    return Verdict(State.IN, Code.ON, {**values, **more}, reason, "sign", detail, scale=_scale(found), assumed=assumed)


def judged_values(found: FlywheelInstallationAnalysis, each: Judged) -> dict[str, Any]:
    """For the sentence that says why."""
    if each.code == Code.KEY_DIFFERS:
        key, step = found.key_found, found.step_found
        stepped = format_message(messages.STEP, {"step": step.amount}) if key and key.text == "stepped" and step and step.value else ""
        return {"found": messages.FOUND_KEY[key.text] if key else "", "step": stepped}
    if each.call.code in ("ahead", "back"):
        return {"shift": shift_shown(each.call.values["shift"])}
    return limit_values(each.call, *KINDS[each.code]) if each.code in KINDS else dict(each.call.values)


def _judged(found: FlywheelInstallationAnalysis, worst: Judged) -> Verdict:
    values = judged_values(found, worst)
    limited = {Code.RIM: Property.RIM_RUNOUT, Code.AIR_GAP: Property.AIR_GAP}.get(worst.code)
    limit = found.limit(limited) if limited else None
    guessed = (MessageRef("limit", {"name": limit.name}),) if limit and limit.assumed else ()
    assumed = guessed + (_assumed(found) if worst.code == Code.TAPER_SLIPS else ())
    return Verdict(worst.call.state, worst.code, values, worst.call.code, worst.next, scale=_scale(found), assumed=assumed)


def _so_far(found: FlywheelInstallationAnalysis) -> tuple[str, dict[str, Any]]:
    if found.holds:
        carries = found.holds.torque_nm
        values = {"low": rough(newton_metres(carries.low)), "high": rough(newton_metres(carries.high))}
        if not found.asks:
            return "carries_band", values
        asks = {"asks_low": rough(newton_metres(found.asks.low)), "asks_high": rough(newton_metres(found.asks.high))}
        return "carries_beside" if carries.low > found.asks.likely else "carries_little", {**values, **asks}
    return (found.contact.code, dict(found.contact.values)) if found.contact else ("key_places", {})


def _assumed(found: FlywheelInstallationAnalysis) -> tuple[MessageRef, ...]:
    said = [MessageRef("taper")] if found.is_on_taper and found.cone_assumed else []
    if found.holds and found.value(Property.CONE_DIAMETER) is None and found.cone_mm:
        said.append(MessageRef("cone", {"cone": mm(found.cone_mm, 0.1)}))
    return tuple(said)


def _scale(found: FlywheelInstallationAnalysis) -> Scale | None:
    asked = found.value(Property.TORQUE_TO_CARRY)
    if not found.holds or asked is None:
        return None
    carries = found.holds.torque_nm
    return Scale(carries.likely, (carries.high - carries.low) / 2, asked, None, "N·m", 0)


def derived(found: FlywheelInstallationAnalysis) -> Iterator[Finding]:
    """A key that was replaced, for the list of parts to order."""
    if found.key == "new":
        yield Finding(at(Property.REPLACED), text="key")


def sources(found: FlywheelInstallationAnalysis) -> Iterator[Source]:
    if found.holds:
        carries, seats = found.holds.torque_nm, found.holds.seating_n
        yield source("seats", (rough(newtons(seats.low)), rough(newtons(seats.high))), {"basis": from_table(seats.basis)}, estimated=True)
        yield source("carries", (rough(newton_metres(carries.low)), rough(newton_metres(carries.high))), estimated=True)
        if found.value(Property.CONE_DIAMETER) is None and found.cone_mm:
            yield source("cone", rough(mm(found.cone_mm, 0.1)), {"factor": plain(CONE)}, estimated=True)
    if found.asks:
        asks = rough(newton_metres(found.asks.low)), rough(newton_metres(found.asks.high))
        yield source("asks", asks, {"basis": from_table(found.asks.basis)}, estimated=True)
    if found.shift_deg is not None:
        yield source("shift", shift_shown(found.shift_deg), {"allowed": degrees(TIMING_DEG)})
    for code, what in (("rim", Property.RIM_RUNOUT), ("gap", Property.AIR_GAP)):
        value, limit = found.value(what), found.limit(what)
        if value is None:
            continue
        if limit is None:
            yield source(code, show(mm(value, 0.01)))
            continue
        low, high = (mm(end, 0.01) if end is not None else None for end in (limit.low, limit.high))
        values = {"name": messages.SOURCE[code][0], "limits": between(low, high), "source": limit.source}
        yield source("limit", show(mm(value, 0.01)), values, estimated=limit.assumed)
