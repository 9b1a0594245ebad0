"""What files of earlier versions leave to be guessed, and their old keys made new. Only their reader needs this."""

from __future__ import annotations

import re
from collections.abc import Iterable
from dataclasses import replace
from typing import Any

from engines.models import EngineCard, Seal, Seat, Spec
from engines.properties import LIMITS, Property
from engines.slots import Slot
from exchange.old_heat_keys import HEAT, part_of
from exchange.old_keys import SLOTS
from exchange.schema import MoveIn, PartIn
from jobs.models import Reading

_ROLES = (  # the first that fits
    (r"main\s*-?shaft|lay\s*shaft|gear|input|output|selector|clutch|sprocket|counter\s*shaft|primary", Seat.Role.GEARBOX),
    (r"\bcam", Seat.Role.CAM),
    (r"\bmains?\b|crank", Seat.Role.MAIN),
)
_LIMITS: tuple[tuple[str, Property | None], ...] = (
    (r"big[ -]?end.*(side|axial|float|end play)", Property.BIG_END_SIDE_PLAY),
    (r"big[ -]?end.*(radial|play|clearance)|radial play", Property.BIG_END_RADIAL_PLAY),
    (r"side play", Property.BIG_END_SIDE_PLAY),
    (r"(rod|small|piston|cam|gear|shaft).*float", None),
    (r"end float|end play|axial play of the crank", Property.END_FLOAT),
    (r"small[ -]?end", Property.SMALL_END_BORE),
    (r"width over|crank width", Property.WIDTH_OVER_WEBS),
    (r"(pin).*interference|interference.*(pin)", Property.PIN_INTERFERENCE),
    (r"(rim|flywheel|rotor).*run[ -]?out|run[ -]?out.*(rim|flywheel|rotor)", Property.RIM_RUNOUT),
    (r"run[ -]?out", Property.CRANK_RUNOUT),
    (r"centring|centred|off centre", Property.CENTRING),
    (r"leak", Property.LEAK),
    (r"air gap", Property.AIR_GAP),
)


_HELD = (  # how a manual says where its limit is measured, the first that fits
    (Spec.Held.CENTRE.value, ("centre bearing", "centre main", "inner main")),
    (Spec.Held.CENTRES.value, ("between centres", "centre hole", "lathe")),
    (Spec.Held.SEATS.value, ("on the mains", "main bearing", "on its seats", "vee", "roller")),
)


def role_of(name: str) -> str:
    """What turns in a seat of this name, as far as it tells."""
    return next((role for pattern, role in _ROLES if re.search(pattern, name.lower())), Seat.Role.OTHER)


def held_for(setup: str) -> str:
    """How the crank is held where a figure is measured so; empty when the words do not tell."""
    said = setup.lower()
    return next((held for held, words in _HELD if any(word in said for word in words)), "")


def limits_of(name: str, taken: set[str]) -> str:
    """What a figure of this name limits; empty when the name does not tell, or another limits that already."""
    found = next((limited for pattern, limited in _LIMITS if re.search(pattern, name.lower())), None)
    return found.value if found and found in LIMITS and found.value not in taken else ""


_ANSWERS = {("flywheel-on", "key", "worn"): "sheared"}  # answers that are said by another key now
_MOVES = {
    "split": {"begun": "loaded", "apart": "parted"},
    "flywheel-off": {"free": "freed"},
    "close": {"sealed": "closing"},
    "crank-in": {"begun": "begun", "home": "home"},
}  # station: choice -> what hands did


def slot_of_key(station: str, ask: str, card: EngineCard, seat: Seat | None = None, *, words: bool = False) -> Slot | None:
    """Where a reading of an earlier version belongs; None for a station that had no addresses, or a key that means nothing."""
    find = SLOTS.get(station)
    slot = find(ask, card, seat) if find else None
    drop = words and slot is not None and slot.what == Property.HOT_TEMPERATURE  # a drop of water was kept under the same key
    return replace(slot, what=Property.WATER_DROP) if slot and drop else slot


def answer_of(station: str, ask: str, text: str) -> str:
    """An answer of an earlier version, by the key that it has now."""
    return _ANSWERS.get((station, ask, text), text)


def choices_of(station: str, choices: dict[str, Any], card: EngineCard, seat: Seat | None = None) -> dict[str, Any]:
    """Choices that name questions or parts by their old keys, with those that they have now."""

    def key(ask: str) -> str:
        slot = slot_of_key(station, ask, card, seat)
        return slot.key if slot else ask

    found = dict(choices)
    if "skipped" in found:
        found["skipped"] = [key(ask) for ask in found["skipped"]]
    if "times" in found:
        found["times"] = {key(ask): times for ask, times in found["times"].items()}
    if station == HEAT:
        return {_heat_choice(name, card): _heat_part(value, card) if name == "tab" else value for name, value in found.items()}
    tabs: dict[str, list[Seat] | list[Seal]] = {"inspect": list(card.seats.all()), "seals": list(card.seals.all())}
    part = next((each.uid for each in tabs.get(station, []) if found.get("part") == f"s{each.pk}"), None)
    return {**found, "part": part} if part else found


def _heat_choice(name: str, card: EngineCard) -> str:
    return f"part-{_heat_part(name.removeprefix('part-'), card)}" if name.startswith("part-") else name


def _heat_part(key: Any, card: EngineCard) -> Any:
    """What one heat calls a part now; anything else as it is."""
    part = part_of(key, card) if isinstance(key, str) else None
    return part.uid if part else key


def has_slots(station: str) -> bool:
    return station in SLOTS


def moves_in(station: str, choices: dict[str, Any], card: EngineCard, attempt: int) -> list[MoveIn]:
    """What hands did, taken out of the choices where earlier versions kept it."""
    found = [MoveIn(kind=kind, attempt=attempt) for choice, kind in _MOVES.get(station, {}).items() if choices.pop(choice, False)]
    if station == HEAT:
        for number, parts in choices.pop("cold", {}).items():
            chilled = [(part, at) for key, at in parts.items() if (part := part_of(key, card))]
            for part, at in chilled:
                whose = PartIn(kind=part.kind, uid=part.uid, name=part.name)
                cold = Property.COLD_TEMPERATURE.value
                found.append(MoveIn(kind="chilled", attempt=int(number), at=at, part=whose, property=cold))
    return found + _trued(choices.pop("moves", [])) + _drilled(choices.pop("holes", {}), choices.pop("amounts", {}))


def _trued(moves: list[dict[str, Any]]) -> list[MoveIn]:
    """What was done between two rounds at True."""
    found = []
    for number, done in enumerate(moves, 1):
        detail = {name: value for name, value in done.items() if name not in ("round", "kind", "web")}
        where: dict[str, Any] = {
            "part": _CRANK,
            "property": Property.CRANK_RUNOUT.value,
            "end": done.get("web", ""),
            "angle_deg": done.get("at_deg"),
        }
        more: dict[str, Any] = {"attempt": done.get("round", number), "text": done.get("kind", "strike"), "detail": detail}
        found.append(MoveIn(kind="trued", **where, **more))
    return found


def _drilled(holes: dict[str, list[dict[str, Any]]], amounts: dict[str, list[float] | None]) -> list[MoveIn]:
    """Holes of earlier goes at Balance, and what was to be taken off in each."""
    found = []
    for go in sorted({*holes, *amounts}, key=int):
        for each in holes.get(go) or []:
            detail = {name: value for name, value in each.items() if name not in ("deg", "depth_mm")}
            where: dict[str, Any] = {"part": _WHEEL, "property": Property.HOLE_DEPTH.value, "angle_deg": each.get("deg")}
            found.append(MoveIn(kind="drilled", attempt=int(go), amount=each.get("depth_mm"), detail=detail, **where))
        gmm, uncertainty = amounts.get(go) or (None, None)
        where = {"part": _WHEEL, "property": Property.UNBALANCE.value}
        found.append(MoveIn(kind="rolled", attempt=int(go), amount=gmm, detail={"uncertainty": uncertainty}, **where))
    return found


_CRANK, _WHEEL = PartIn(kind="crank", uid="crank"), PartIn(kind="flywheel", uid="flywheel")


_SHEET = "sheet"  # in earlier versions: the number of the reading that a copy was made of, in the shop that made it
_MEANS = {
    "paint dot": "paint",
    "masking tape": "tape",
    "marker ink": "marker",
    "bare aluminium": "bare",
    "weathered aluminium": "weathered",
    "bright steel": "bright",
    "water drop": "drop",
}


def was_carried(correction: dict[str, Any]) -> bool:
    return _SHEET in correction


def correction_of(correction: dict[str, Any]) -> dict[str, Any]:
    """What was worked out as a reading was taken, as it is said now."""
    found = {name: value for name, value in correction.items() if name != _SHEET}
    means = found.get("means")
    return {**found, "means": _MEANS.get(means, means)} if isinstance(means, str) else found


def source_of(copied: Reading, read: Iterable[Reading]) -> Reading | None:
    """The reading of the same station, for all its seats at once, that one was copied from: taken then, and of the same words at best."""
    whole = (each for each in read if each.entry.station_id == copied.entry.station_id and each.entry.seat_id is None)
    same = [each for each in whole if each.taken_at == copied.taken_at]
    return next((each for each in same if each.text == copied.text), same[0] if same else None)
