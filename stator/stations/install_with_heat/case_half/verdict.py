"""The verdict of each phase of a heat for a case half, and the sources of its numbers."""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from dataclasses import replace
from functools import partial
from typing import Any

from shopmath.amounts import DOWN, UP, celsius, chance, degrees, duration, kelvin, known_exactly, mm
from shopmath.thermal.plan import HeatPlan
from stator.engines.fits import fit_of
from stator.engines.models import Seat
from stator.engines.properties import Property
from stator.shop.models import Driver
from stator.stations.framework import Alternative, MessageRef, Question, SafetyWarning, Source, State, Verdict, question_factory
from stator.stations.framework.messages import capital, format_message, lazily
from stator.stations.install_with_heat import messages as shared
from stator.stations.install_with_heat import setup, shared_messages, warm_fit
from stator.stations.install_with_heat.case_half import messages
from stator.stations.install_with_heat.case_half.analysis import LAID, NO_PARTS, STUCK, CaseHalfAnalysis, Code, Phase
from stator.stations.install_with_heat.case_half.parts import HotPart
from stator.stations.install_with_heat.heat import HOME
from stator.stations.install_with_heat.shaft_assembly import verdict as assembly
from stator.ui.number_format import band, show
from stator.ui.table_texts import from_table

source = partial(question_factory.source, messages)
READY_S, EARLY_S, HOTTER_K = 1.0, 60.0, 5.0


def verdict(found: CaseHalfAnalysis, questions: list[Question]) -> Verdict:
    """Return the verdict on the present part, or on the whole heat."""
    if found.in_hand:
        mine = [question for question in questions if question.slot and question.slot.part == found.in_hand.fitted.part]
        return assembly.verdict(found.in_hand, mine)
    return of_the_heat(found, questions)


def overall(found: CaseHalfAnalysis) -> Verdict:
    """Return the verdict that is signed, on the heat as a whole."""
    return of_the_heat(found, [])


def of_the_heat(found: CaseHalfAnalysis, questions: list[Question]) -> Verdict:
    if found.trouble:
        if found.trouble.code == NO_PARTS:
            home = bool(found.everything) or found.attempt > 1
            return Verdict(State.IN, Code.ALL_HOME, {"half": found.called}, "every_part", "check_each") if home else _nothing()
        reason = "needs_oven" if found.trouble.field == "heater" else ""
        return Verdict(State.STOP, Code.NO_PLAN, {"said": found.trouble.message}, reason, ways=shared_messages.ways_on(found.trouble))
    by_phase = {Phase.PLAN: _plan, Phase.WARMING: _warming, Phase.HOT: _hot, Phase.AFTER: _after}
    judged = by_phase[found.phase](found, questions)
    return replace(judged, assumed=_assumed(found)) if found.phase in (Phase.PLAN, Phase.WARMING) else judged


def _assumed(found: CaseHalfAnalysis) -> tuple[MessageRef, ...]:
    """Fits that are typical and not read, where the seat was not measured; the metal; the air."""
    by_code = [part.name for part in found.plan.parts if part.is_bearing and part.seat and part.seat.code_assumed and not part.seat_mm]
    codes = [MessageRef("codes", {"parts": by_code})] if by_code else []
    by_marking = [part.name for part in found.plan.parts if part.is_bearing and part.seat and part.seat.marking_is_typical]
    codes += [MessageRef("markings", {"parts": by_marking})] if by_marking else []
    return (*codes, *shared_messages.assumed(found, found.card))


def _nothing() -> Verdict:
    return Verdict(State.WAIT, Code.NOTHING)


def named(parts: Iterable[HotPart]) -> list[str]:
    return [part.name for part in parts]


def number(count: int, *, small: bool = False) -> Any:
    """Return how many, as a word where there is one."""
    return messages.NUMBERS[count][1 if small else 0] if count < len(messages.NUMBERS) else str(count)


def _plan(found: CaseHalfAnalysis, questions: list[Question]) -> Verdict:
    unsettled = found.unsettled()
    if unsettled:
        part = unsettled[0]
        assert part.seat is not None
        values = {"part": part.name, "found": Seat.Faces(found.contradicted(part)).label, "card": part.seat.get_faces_display()}
        return Verdict(State.STOP, Code.WHICH_WAY, values, ways=(Alternative(page="card"), Alternative(station="bearings-out")))
    if found.loose:
        return Verdict(State.STOP, Code.STOP, {"part": found.loose.name}, "loose", "change_method", ways=shared_messages.OTHER_HEAT)
    if found.stopped:
        judgment = found.stopped.call
        values = {**shared_messages.of_call(judgment), "partner": found.stopped.setup.inner_name}
        return Verdict(State.STOP, Code.STOP, values, judgment.code, "change_method", ways=shared_messages.OTHER_HEAT)
    return _in_one(found)


def _in_one(found: CaseHalfAnalysis) -> Verdict:
    """Return how many of the parts one heat takes, and what goes in first."""
    sheet, plan = found.core_sheet, found.plan
    fits, left, crowded = ([found.part(key) for key in keys] for keys in (sheet.order, sheet.left_out, sheet.crowded))
    total = len(plan.parts)
    step, how = _start(found)
    values: dict[str, Any] = {**how, "some": number(len(fits)), "all_small": number(total, small=True), "parts": named(left)}
    values["all"] = number(total)
    if crowded:
        chiller = crowded[0].chiller
        values |= {"chiller": str(chiller), "places": chiller.places if chiller else 0, "parts": named(crowded)}
        return Verdict(State.OUT, Code.TOO_MANY, values, "no_place", detail="some_in_one")
    values["chance"] = chance(min((part.planned.confidence for part in fits if part.planned), default=1.0), measured=found.read_by_contact)
    if left:
        hotter = plan.ceiling_c - plan.target_c
        values["more"] = kelvin(min(hotter, 20.0))
        detail, reason = "hotter" if hotter >= HOTTER_K else "no_hotter", "some_sure" if fits else "none_sure"
        return Verdict(State.TOO_CLOSE if fits else State.OUT, Code.SOME_IN_ONE, values, reason, step, detail)
    closes = [(found.closes_s(part, plan.target_c), part) for part in plan.parts if part.planned]
    soonest, first = min(closes, key=lambda pair: pair[0])
    last = max((step.to_s for step in sheet.steps if step.where == "in"), default=0.0)
    values |= {"last": duration(last, toward=UP), "first": duration(soonest, toward=DOWN), "part": first.name}
    return Verdict(State.IN, Code.IN_ONE if total > 1 else Code.ONE, values, "each_sure", step, "all_home_by")


def _start(found: CaseHalfAnalysis) -> tuple[str, dict[str, Any]]:
    """Return what goes in first, and how much later the rest: code and values."""
    plan, begins = found.plan, -found.core_sheet.begins_s
    soak = plan.soak.likely if plan.soak else 0.0
    cold = sorted({part.chiller.name for part in plan.parts if part.chiller})
    values: dict[str, Any] = {
        "heater": str(found.heater),
        "setting": celsius(plan.heat_c),
        "target": celsius(plan.target_c),
        **(shared_messages.lasts(plan.soak, "soak") if plan.soak else {}),
        "cold": [capital(name) if index == 0 else name for index, name in enumerate(cold)],
        "later": duration(begins - soak, shared_messages.half(plan.soak) if plan.soak else None),
    }
    return "cold_first" if cold and begins > soak + EARLY_S else "oven_meanwhile" if cold else "oven", values


def _half(found: CaseHalfAnalysis) -> float | None:
    """Return half of the width of the time that the case takes, which every other wait is added to."""
    return shared_messages.half(found.plan.soak) if found.plan.soak else None


def _warming(found: CaseHalfAnalysis, questions: list[Question]) -> Verdict:
    waits = {key: seconds for key, seconds in found.ready_in.items() if seconds > READY_S}
    if found.coarse:
        return Verdict(State.TOO_CLOSE, Code.UNSURE, shared_messages.coarse(found.coarse), "coarse", "coarse")
    here, in_oven = found.run.outer().c, bool(found.timer("heat"))
    values: dict[str, Any] = {"here": celsius(here), "order": named(found.part(key) for key in found.core_sheet.order)}
    if in_oven and here > found.plan.ceiling_c:
        what = lazily(shared.LIMIT_WHAT, found.plan.ceiling_code, {}, found.plan.ceiling_why)
        values |= {"what": what, "limit": celsius(found.plan.ceiling_c)}
        return Verdict(State.STOP, Code.STOP, values, "too_hot", "out_of_heat", ways=(Alternative(found.slot(Property.HOT_TEMPERATURE)),))
    if not waits:
        return Verdict(State.IN, Code.OPEN, values, detail="order", standing="open_door")
    door = max(waits.values())
    if not in_oven and waits.get("case", 0.0) >= door - EARLY_S:
        return Verdict(State.WAIT, Code.CASE_IN, values, detail="order", standing="case_standing")
    values["door"] = duration(door, _half(found))
    last = max(waits, key=lambda key: waits[key])
    if waits.get("case") != door:
        values["part"] = found.part(last).name
    step = "lay_bench"
    if not in_oven and "case" in waits:
        step, values["later"] = "half_later", duration(door - waits["case"], _half(found))
    reason = "waits_case" if waits.get("case") == door else "waits_part"
    return Verdict(State.WAIT, Code.NOT_YET, values, reason, step, "order", "lay_bench")


def _hot(found: CaseHalfAnalysis, questions: list[Question]) -> Verdict:
    live = found.live_heat
    part = live.here
    assert part is not None
    left, orientation = live.left_s(part), way_words(found, part)
    lost = [each for each in found.plan.parts if each.key in live.remaining.left_out and each.key != part.key]
    stuck = [lazily(messages.STUCK, found.fate(each), {"part": each.name}) for each in live.jammed]
    detail = "jam_waits" if stuck and lost else "jam" if stuck else "waits" if lost else ""
    values: dict[str, Any] = {
        "part": part.name,
        "from_side": capital(part.from_words),
        "way": orientation,
        "left": duration(left, toward=DOWN),
    }
    values |= {"lost": named(lost), "stuck": stuck}
    more: dict[str, Any] = {"detail": detail, "standing": "parts_go_in"}
    if part.is_circlip:
        return Verdict(State.IN, Code.IN_HAND, values, "turn_it", "enter", **more)
    if left <= 0:
        return Verdict(State.OUT, Code.SHUT, values, **more)
    state = State.TOO_CLOSE if left < found.shop.handling_s else State.IN
    return Verdict(state, Code.IN_HAND, values, "from_way" if orientation else "from", "push", **more)


def _after(found: CaseHalfAnalysis, questions: list[Question]) -> Verdict:
    if found.unsaid:
        return Verdict(State.WAIT, Code.WHAT_OF_THE_LAST, {"parts": named(found.unsaid)})
    home = len([part for part in found.parts if found.fate(part) in HOME])
    values: dict[str, Any] = {"home": number(home), "parts": named(found.waiting), "waiting": number(len(found.waiting))}
    if found.waiting:
        stuck = [part for part in found.waiting if found.fate(part) in STUCK]
        return Verdict(State.OUT, Code.REHEAT, {**values, "stuck": named(stuck)}, next="back_out" if stuck else "", detail="peels")
    step = "note_or_sign" if questions else "hold_down"
    return Verdict(State.IN, Code.ALL_HOME, values, "in_one_heat", step, "own_page")


# words for the hands: which way round, with what, on what


def way_words(found: CaseHalfAnalysis, part: HotPart) -> str:
    """Return which way round it goes; empty when nobody knows."""
    if part.is_circlip:
        return str(messages.WAY["circlip"])
    if part.fitted:
        if part.fitted.angle_deg is None:
            return ""
        return format_message(messages.WAY["turned"], {"turned": part.fitted.turned, "angle": degrees(part.fitted.angle_deg)})
    faces = found.facing(part)
    return str(Seat.Faces(faces).label) if faces else ""


def how_words(found: CaseHalfAnalysis, part: HotPart) -> str:
    """From where it goes in, and which way round."""
    orientation = way_words(found, part)
    if part.is_circlip:
        return orientation
    if not orientation and part.seat is None:
        return part.from_words
    return format_message(messages.GOES, {"from_side": part.from_words, "way": orientation or messages.WAY["unknown"]})


def short_words(found: CaseHalfAnalysis, part: HotPart) -> str:
    """The same in few letters, for a phone."""
    if part.is_circlip:
        return way_words(found, part)
    orientation = str(messages.WAY_SHORT.get(found.facing(part), messages.WAY["unknown"])) if part.seat else way_words(found, part)
    side = str(messages.FROM_SHORT[part.thing.loads_from])
    return format_message(messages.GOES, {"from_side": side, "way": orientation}) if orientation else side


def tool_words(part: HotPart, shelf: Iterable[Driver]) -> str:
    """The shop's driver that lands on its outer ring, or what to look for."""
    if part.is_circlip:
        return str(messages.PLIERS)
    driver = part.driver(shelf)
    ends = {"sizes": band(mm(part.window.outside_low_mm, 1.0), mm(part.window.outside_high_mm, 1.0))}
    return driver.name if driver else format_message(messages.DRIVER_WANTED, ends)


def support_words(part: HotPart) -> str:
    """Return what supports the case while a part is pushed in: directly behind the seat."""
    return "" if part.is_circlip else str(messages.SUPPORT["inside" if part.thing.loads_from == Seat.From.INSIDE else "outside"])


# around the call


def checks(found: CaseHalfAnalysis) -> tuple[SafetyWarning, ...]:
    if found.phase == Phase.HOT or found.in_hand:
        return ()
    used = {part.chiller.method for part in found.parts if part.chiller}
    clip = any(part.is_circlip for part in found.parts)
    laid = SafetyWarning(LAID, str(messages.CHECKS["laid_circlip" if clip else LAID][0]))
    return (*shared_messages.gates(found.heater, used), laid, *question_factory.checks(messages, "bagged"))


def warnings(found: CaseHalfAnalysis) -> tuple[SafetyWarning, ...]:
    needed = []
    if found.is_live:
        needed.append("hot")
    if found.phase == Phase.HOT:
        needed += ["jam", "frost"]
    seals = [seal.name for seal in found.card.seals.all() if seal.half == found.half]
    if seals and not found.is_live:
        needed.append("seals")
    creep = [] if found.trouble or found.phase != Phase.PLAN else [each.name for each in found.plan.parts if _creeps(each)]
    if creep:
        needed.append("creep")
    if found.phase == Phase.PLAN:
        needed.append("manual")
    return tuple(SafetyWarning(key, format_message(messages.WARNINGS[key], {"seals": seals, "parts": creep})) for key in needed)


def _creeps(part: HotPart) -> bool:
    return bool(part.seat and part.planned and warm_fit.may_creep(fit_of(part.seat, part.seat_mm)))


def sources(found: CaseHalfAnalysis) -> Iterator[Source]:
    if found.trouble or found.in_hand:
        return
    for part, told in _sources(found):
        yield replace(told, value=_home_by(found, part)) if part else told


def _home_by(found: CaseHalfAnalysis, part: HotPart) -> str:
    return format_message(messages.HOME_BY, {"time": duration(found.closes_s(part, found.plan.target_c), toward=DOWN)})


def _sources(found: CaseHalfAnalysis) -> Iterator[tuple[HotPart | None, Source]]:
    """Yield the sources of the heat and of each part; the part's line omits its remaining time, which is shown elsewhere."""
    plan = found.plan
    yield None, source("case", show(celsius(plan.target_c)))
    what = lazily(shared.LIMIT_WHAT, plan.ceiling_code, {}, plan.ceiling_why)
    yield None, source("oven", show(celsius(plan.heat_c)), {"limit": celsius(plan.ceiling_c), "what": what})
    if plan.soak:
        yield None, source("soak", shared_messages.times(plan.soak), {"basis": from_table(plan.soak.basis)}, estimated=True)
    for part in plan.parts:
        if part.planned:
            yield from _of_part(part, part.planned)
    yield None, source("order", str(messages.MOST_IN))
    if found.value(Property.AIR_TEMPERATURE) is None:
        yield None, source("air", known_exactly(celsius(setup.ROOM_C)), estimated=True)


def _of_part(part: HotPart, made: HeatPlan) -> Iterator[tuple[HotPart | None, Source]]:
    interference = mm(made.setup.interference_mm, uncertainty=(made.setup.bore_um.width_um + made.setup.inner_um.width_um) / 2000)
    values = {"part": part.name, "grip": interference, "wanted": mm(made.setup.wanted_mm)}
    values["uncertainty"] = mm(2 * made.offering.spread_mm)
    yield part, source("part", "", values, estimated=True)
    if made.chill:
        to = format_message(messages.TO_COLD, {"time": shared_messages.times(made.chill), "cold": known_exactly(celsius(made.chill_c))})
        yield None, source("part_cold", to, {"part": part.name, "basis": from_table(made.chill.basis)}, estimated=True)
