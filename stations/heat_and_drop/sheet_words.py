"""Check lists, cautions, methods, what may be done, and the origin of each number, for one heat of a whole half."""

from __future__ import annotations

from typing import TYPE_CHECKING

from shop.models import Chiller, Heater
from shopmath.thermal.expansion import WANTED
from stations.base import Action, Caution, Method, Option, Trace
from stations.heat_and_drop import thermometers
from stations.heat_and_drop.words import cap, degrees, gates, minutes

if TYPE_CHECKING:
    from stations.heat_and_drop.parts import HotPart
    from stations.heat_and_drop.sheet import HeatSheet

LAID = "laid"


def half_words(work: HeatSheet) -> str:
    return f"{work.job.card.side(work.half)} half"


def checks(work: HeatSheet) -> tuple[Caution, ...]:
    if work.phase == "hot" or work.in_hand:
        return ()
    used = {part.chiller.method for part in work.parts if part.chiller}
    tools = "gloves" + (", circlip pliers" if any(part.is_circlip for part in work.parts) else "")
    laid = Caution(LAID, f"Laid out in the order drawn: each part its way round, its driver beside it, supports, {tools}.")
    return (*gates(work.heater, used), laid, Caution("bagged", "Bearings bagged against frost, oil at hand for after."))


def cautions(work: HeatSheet) -> tuple[Caution, ...]:
    if work.phase == "signed":
        return ()
    found = []
    if work.phase in ("warming", "hot"):
        found.append(Caution("hot", "Case and tray burn at a touch: gloves, eyes covered, a clear path to the bench."))
    if work.phase == "hot":
        found.append(
            Caution("jam", "If one jams or cocks: stop, no hammer. Say so, take the next; it is lifted off or pulled, and reheated.")
        )
        found.append(Caution("frost", "Wipe the frost off each part before it goes in; oil it at once after."))
    seals = [seal.name for seal in work.job.card.seals.all() if seal.half == work.half]
    if seals and work.phase in ("plan", "after"):
        found.append(Caution("seals", f"Seals come after, in a cold case: {', '.join(seals)}. In the heat they would harden."))
    if work.phase == "plan":
        found.append(Caution("manual", "The engine's manual and the bearing makers' limits come before these numbers."))
    return tuple(found)


def methods(work: HeatSheet) -> tuple[Method, ...]:
    means = Method("means", "Temperature by", thermometers.means_of(work.gauges), work.means)
    if work.in_hand:
        return ()
    if work.phase != "plan":
        return (means,) if work.phase in ("warming", "hot") else ()
    ovens = tuple(Option(str(each.pk), each.name) for each in work.heaters if each.method == Heater.Method.OVEN)
    room = tuple(Option(key, key, f"1/{value:.0f} of the diameter") for key, value in WANTED.items())
    found = [
        Method("heater", "Heat the half in", ovens, str(work.heater.pk) if work.heater else ""),
        Method("wanted", "Clearance wanted", room, str(work.choices.get("wanted", "usual"))),
        means,
    ]
    return (*found, *(_of_part(work, part) for part in work.offered if not part.is_circlip))


def _of_part(work: HeatSheet, part: HotPart) -> Method:
    cold = [(str(each.pk), f"chilled: {each.name}") for each in work.stays] + [("", "not chilled")]
    options = [Option(f"in-{pk}", words) for pk, words in cold]
    options += [Option(f"must-{pk}", f"must get in, {words}") for pk, words in cold]
    chosen = work.chosen.get(part.key, work.usual)
    word = "out" if not chosen.taken else f"{'must' if chosen.must else 'in'}-{chosen.chiller.pk if chosen.chiller else ''}"
    return Method(f"part-{part.key}", part.name, (*options, Option("out", "not in this heat")), word)


def to_chill(work: HeatSheet, chiller: Chiller) -> list[HotPart]:
    """What goes into a chiller now: everything into a freezer; the next one alone into dry ice, which would chill it too deep."""
    waiting = [part for part in work.plan.parts if part.chiller == chiller and part.planned and part.planned.chill]
    begins = {step.part: step.from_s for step in work.core_sheet.steps if step.where == chiller.name}
    waiting = sorted(
        (part for part in waiting if part.key in begins and part.key not in work.cold_since), key=lambda part: begins[part.key]
    )
    return waiting if chiller.method == Chiller.Method.FREEZER else waiting[:1]


def actions(work: HeatSheet) -> tuple[Action, ...]:
    if work.trouble or work.phase in ("signed", "hot") or work.in_hand:
        return ()
    found: list[Action] = []
    if work.phase in ("plan", "warming"):
        shut = work.refused() or work.stopped
        for chiller in work.stays:
            going = to_chill(work, chiller)
            if going:
                words = (
                    f"{going[0].name} goes into the {chiller.name}" if len(going) == 1 else f"{len(going)} parts into the {chiller.name}"
                )
                found.append(
                    Action(f"chill-{chiller.pk}", words, "chill" if not found else f"chill {chiller.name.lower()}", not found, shut)
                )
        if not work.timer("heat"):
            found.append(Action("heat", f"{cap(half_words(work))} goes into the oven", "heat", not found, shut))
        if work.timer("heat"):
            ticks = work.entry.ticks if work.entry else {}
            laid = "" if LAID in ticks else "Lay the bench out first: tick the line under Ready at hand."
            early = "" if work.may_open else "Nothing would go in yet: the case is not hot enough for any part."
            ready = not found and all(seconds <= 1 for seconds in work.ready_in.values())
            found.append(Action("open", "Out, and one by one", "open", ready, shut or laid or early))
    if work.phase == "after":
        if work.waiting:
            found.append(Action("again", f"Reheat for {len(work.waiting)}", "again", True))
        if work.other_left:
            found.append(Action("other", f"Now the {work.job.card.side(work.other_half)} half", "other", not found))
        found.append(Action("sign", "Sign it", "sign", not found and not work.open_asks(), work.may_sign()))
    return tuple(found)


def traces(work: HeatSheet) -> tuple[Trace, ...]:
    plan = work.plan
    found = [
        Trace("Case to", degrees(plan.target_c), "the hottest that any part here asks for, in one case"),
        Trace("Oven at", degrees(plan.heat_c), f"under {degrees(plan.ceiling_c)}: {plan.ceiling_why}"),
    ]
    if plan.soak:
        found.append(Trace("Soak", f"{minutes(plan.soak.low)} to {minutes(plan.soak.high)}", plan.soak.basis, True))
    for part in plan.parts:
        if part.planned:
            made = part.planned
            grip = made.setup.interference_mm
            how = f"mean grip {grip:+.3f} mm cold, {made.setup.wanted_mm:.3f} wanted, ± {2 * made.offering.spread_mm:.3f}"
            found.append(Trace(part.name, f"home by {minutes(work.closes_s(part, plan.target_c))}", how, True))
            if made.chill:
                found.append(
                    Trace(f"{part.name}, cold", f"{minutes(made.chill.likely)} to {degrees(made.chill_c)}", made.chill.basis, True)
                )
    found.append(Trace("Order", "most parts in", "Moore and Hodgson: earliest window first, what cannot make it left out"))
    if work.value("room") is None:
        found.append(Trace("Shop air", "20 °C", "assumed, not measured", True))
    return tuple(found)
