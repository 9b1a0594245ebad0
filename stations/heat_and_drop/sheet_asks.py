"""What is asked for one heat of a whole half: how parts are turned, the air, the oven, the case as it warms, what became of each part."""

from __future__ import annotations

from dataclasses import replace
from typing import TYPE_CHECKING

from engines.models import Seat
from shopmath.checks import BadInput
from stations.base import Ask, Option
from stations.heat_and_drop import assembly, thermometers
from stations.heat_and_drop.asks import CIRCLIP, OUTCOMES, warmth

if TYPE_CHECKING:
    from stations.heat_and_drop.parts import HotPart
    from stations.heat_and_drop.sheet import HeatSheet

LATER = Option("later", "lay it by", "the next one first")
NOT_TRIED = Option("later", "not in", "it waits for a reheat")


def asks(work: HeatSheet) -> list[Ask]:
    """All asks of the moment; those of steps gone by stay, but are not asked in turn."""
    if work.in_hand and work.phase != "signed":
        return [*assembly.asks(work, work.in_hand), *_later(assembly.every(work, but=work.in_hand))]
    found = [ask for part in work.parts for ask in _way(work, part)]
    plan = work.phase == "plan"
    found.append(warmth("room", "Air in the shop", "away from the oven", "21", skip_means="taken as 20 °C", quiet=not plan))
    found.append(warmth("heat", f"{work.heater or 'Oven'} set to", "", "120", skip_means="as the plan says", quiet=not plan))
    found.append(warmth("target", "Case to reach", "in place of the plan's", quiet=True))
    if work.phase in ("warming", "hot"):
        found.append(_case(work))
    if work.phase in ("hot", "after", "signed"):
        found += [_home(work, part) for part in work.parts]
    if work.phase == "after":
        found.append(Ask("note", "Anything to remember?", "for the next one", "words", "", True, "nothing noted"))
    if work.phase in ("after", "signed"):
        found += _later(assembly.every(work))
    return found


def _later(found: list[Ask]) -> list[Ask]:
    return [replace(ask, quiet=True) for ask in found]


def _way(work: HeatSheet, part: HotPart) -> list[Ask]:
    """A bearing found otherwise than the card says is settled first; one nobody knows is asked."""
    if part.seat is None or part.is_circlip:
        return []
    found, faces = work.found_facing.get(part.seat.pk, ""), part.seat.faces
    way, quiet = f"{part.name}: which way round?", work.phase != "plan"
    contradicts = bool(work.contradicted(part)) or bool(work.said(f"way-{part.key}"))
    if contradicts and found and faces:
        options = (
            Option(faces, Seat.Faces(faces).label, f"as the card says ({part.seat.source or 'no source'})"),
            Option(found, Seat.Faces(found).label, "as it was found"),
        )
        where = "found and card say otherwise; a page or the drawing settles it, not what was found"
        return [Ask(f"way-{part.key}", way, where, "words", "", options=options, quiet=quiet)]
    if not faces and not found:
        turns = tuple(Option(faces, faces.label.removeprefix("its ")) for faces in (Seat.Faces.MARKING_OUT, Seat.Faces.MARKING_IN))
        where = "neither card nor strip-down says"
        return [Ask(f"way-{part.key}", way, where, "words", "", True, "left open", turns, quiet=quiet)]
    return []


def _case(work: HeatSheet) -> Ask:
    quiet = work.phase != "warming" or not work.timer("heat")
    where = "beside a bore, the thickest boss"
    if work.means == "drop":
        return Ask("case", "A drop of water on the case", where, "words", "", options=thermometers.DROP, repeats=True, quiet=quiet)
    option = next(each for each in thermometers.means_of(work.gauges) if each.key == work.means)
    return warmth("case", f"Case, by {option.words[:1].lower()}{option.words[1:]}", where, "105", optional=False, repeats=True, quiet=quiet)


def _home(work: HeatSheet, part: HotPart) -> Ask:
    """What became of a part. The one in hand is asked; Enter says that it dropped in."""
    options = CIRCLIP if part.is_circlip else OUTCOMES
    shut = work.phase == "after" and part in work.unsaid
    if work.phase == "hot":
        here = work.live_heat.here
        options, quiet = (*options, LATER), here is None or here.key != part.key
    else:
        options, quiet = (*options, NOT_TRIED), not shut
    where = part.from_words if not shut else "its window closed before it was said"
    hot = work.phase == "hot"
    enter = options[0].key if hot else ""
    return Ask(f"home-{part.key}", part.name, where, "words", "", options=options, quiet=quiet, repeats=hot and not quiet, enter=enter)


def check(work: HeatSheet, ask: Ask, value: float) -> None:
    """Refuse what cannot be, in words."""
    if ask.key == "room" and not -30 <= value <= 50:
        raise BadInput(ask.key, f"{value:.0f} °C is no air to work in. Check the unit.")
    if ask.key in ("case", "heat", "target") and not -100 <= value <= 700:
        raise BadInput(ask.key, f"{value:.0f} °C is beyond anything a case should see. Check the unit.")
    if ask.key == "heat" and value <= (work.value("room") or 20.0):
        raise BadInput(ask.key, f"{value:.0f} °C is colder than the case itself: it cannot heat it.")
    assembly.check(ask, value)
