"""Questions of a heat for a case half: orientation, air, oven, the case while it warms, and the result of each part."""

from __future__ import annotations

from dataclasses import replace
from functools import partial
from typing import Any

from stator.engines.models import Seat
from stator.engines.properties import Property
from stator.shop.models import Heater
from stator.stations.framework import Method, Option, Question
from stator.stations.framework.messages import OptionRow, capital, format_message
from stator.stations.framework.question_factory import options, question
from stator.stations.install_with_heat import messages as shared
from stator.stations.install_with_heat import shared_messages
from stator.stations.install_with_heat.case_half import messages
from stator.stations.install_with_heat.case_half.analysis import CaseHalfAnalysis, Phase
from stator.stations.install_with_heat.case_half.contents import way_slot
from stator.stations.install_with_heat.case_half.parts import HotPart
from stator.stations.install_with_heat.shaft_assembly import questions as assembly
from stator.stations.install_with_heat.shaft_assembly.analysis import Assembly
from stator.stations.install_with_heat.shaft_assembly.messages import NO_SOURCE

ask = partial(question, messages)


def questions(found: CaseHalfAnalysis) -> list[Question]:
    """All questions of the moment; those of steps gone by stay, but are not asked in turn."""
    if found.in_hand:
        return [*assembly.questions(found.in_hand), *_of_others(found, found.in_hand)]
    plan = found.phase == Phase.PLAN
    asked = [each for part in found.parts for each in _way(found, part)]
    asked.append(shared_messages.air(messages, found, not plan))
    heats = partial(shared_messages.heats, "case", found.room_c, found.slot(Property.HEATER_SETTING).key)
    heater = {"heater": capital(found.heater.name if found.heater else str(shared.HEATED_BY))}
    quiet = not plan or found.is_as_before(Property.HEATER_SETTING)
    more: dict[str, Any] = {"optional": True, "quiet": quiet, "resolution": 1.0, "example": "120", "check": heats}
    asked.append(ask(found.slot(Property.HEATER_SETTING), heater, **more))
    asked.append(ask(found.slot(Property.HEAT_TARGET), optional=True, quiet=True, resolution=1.0))
    if found.phase in (Phase.WARMING, Phase.HOT):
        asked.append(_case(found))
    if found.phase in (Phase.HOT, Phase.AFTER):
        asked += [_home(found, part) for part in found.parts]
    if found.phase == Phase.AFTER:
        asked.append(ask(found.slot(Property.NOTE), optional=True))
        asked += _of_others(found)
    return asked


def _of_others(found: CaseHalfAnalysis, but: Assembly | None = None) -> list[Question]:
    """Return the questions of all assemblies, for the readings table and the log."""
    others = (each for each in found.assemblies if but is None or each.fitted != but.fitted)
    return [replace(each, quiet=True) for other in others for each in assembly.questions(other)]


def _way(found: CaseHalfAnalysis, part: HotPart) -> list[Question]:
    """A bearing found otherwise than the card says is settled first; one nobody knows is asked."""
    if part.seat is None or part.is_circlip:
        return []
    found_way, on_card, quiet = found.found_facing(part), part.seat.faces, found.phase != Phase.PLAN
    if (found.contradicted(part) or found.settled(part)) and found_way and on_card:
        source = {"source": part.seat.source or str(NO_SOURCE)}
        rows: list[OptionRow] = [
            (on_card, Seat.Faces(on_card).label, format_message(messages.AS_CARD, source)),
            (found_way, Seat.Faces(found_way).label, messages.AS_FOUND),
        ]
        return [ask(way_slot(part), choices=rows, quiet=quiet, measure_again=True)]
    if not on_card and not found_way:
        rows = [row for row in messages.OPTIONS[Property.WAY_SETTLED] if row[0].startswith("marking")]
        return [ask(way_slot(part), where=messages.NOBODY_SAYS, choices=rows, optional=True, quiet=quiet, measure_again=True)]
    return []


def _case(found: CaseHalfAnalysis) -> Question:
    quiet = found.phase != Phase.WARMING or not found.timer("heat")
    if found.by_drop:
        return ask(found.slot(Property.WATER_DROP), repeats=True, quiet=quiet)
    more: dict[str, Any] = {"repeats": True, "quiet": quiet, "resolution": 1.0, "example": "105"}
    return ask(found.slot(Property.HOT_TEMPERATURE), {"means": shared_messages.with_what(found.means)}, **more)


def _home(found: CaseHalfAnalysis, part: HotPart) -> Question:
    """Return the question for the result of a part.

    That of the present part is asked; Enter means that it dropped in.
    """
    rows = list(shared.CIRCLIP_ROWS if part.is_circlip else shared.OUTCOME_ROWS)
    hot, shut = found.phase == Phase.HOT, found.phase == Phase.AFTER and part in found.unsaid
    here = found.live_heat.here if hot else None
    quiet = (here is None or here.key != part.key) if hot else not shut
    more: dict[str, Any] = {"quiet": quiet, "repeats": hot and not quiet, "enter": rows[0][0] if hot else ""}
    rows.append(messages.LATER_ROW if hot else messages.NOT_TRIED_ROW)
    where = messages.CLOSED_BEFORE if shut else part.from_words
    return ask(part.slot, where=where, choices=rows, **more)


def tabs(found: CaseHalfAnalysis) -> Method | None:
    """Return a tab for each half and each part that is assembled separately."""
    if found.phase == Phase.HOT:
        return None
    halves = found.halves if found.phase == Phase.PLAN else [found.half]
    offered = [Option(half, format_message(messages.HALF_TAB, {"Side": capital(str(found.card.side(half)))})) for half in halves]
    offered += [Option(each.fitted.uid, each.fitted.name) for each in found.assemblies]
    return Method("tab", str(messages.METHOD_TAB), tuple(offered), found.tab)


def methods(found: CaseHalfAnalysis) -> tuple[Method, ...]:
    if found.in_hand or found.phase == Phase.AFTER:
        return ()
    means = Method("means", str(shared.METHOD_LABEL["means"]), options(shared_messages.means_rows(found)), found.means.key)
    if found.phase != Phase.PLAN:
        return (means,)
    ovens = tuple(Option(str(each.pk), each.name) for each in found.heaters if each.method == Heater.Method.OVEN)
    oven = Method("heater", str(messages.METHOD_OVEN), ovens, str(found.heater.pk) if found.heater else "")
    return (
        oven,
        shared_messages.wanted_method(found.wanted),
        means,
        *(_of_part(found, part) for part in found.offered if not part.is_circlip),
    )


def _of_part(found: CaseHalfAnalysis, part: HotPart) -> Method:
    """Return whether a part goes into this heat, at any price or not, and out of which chiller."""
    cold = [(str(each.pk), format_message(messages.CHILLED, {"chiller": each.name})) for each in found.stays] + [
        ("", str(messages.NOT_CHILLED))
    ]
    rows = [Option(f"in-{pk}", how) for pk, how in cold]
    rows += [Option(f"must-{pk}", format_message(messages.MUST, {"how": how})) for pk, how in cold]
    chosen = found.chosen.get(part.key, found.usual)
    word = "out" if not chosen.taken else f"{'must' if chosen.must else 'in'}-{chosen.chiller.pk if chosen.chiller else ''}"
    return Method(f"part-{part.key}", part.name, (*rows, Option("out", str(messages.NOT_NOW))), word)
