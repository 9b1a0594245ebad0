"""Ways to take a bearing out, ranked for one seat with the reasons.

A way is refused where it would break something; the rest are ordered by how little they ask of case, seat and bearing.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

from shopmath.verdict import IN, STOP, TOO_CLOSE


@dataclass(frozen=True)
class SeatPicture:
    """What matters about a seat for getting its bearing out. `retained` names what holds it, `tools` what the shop has."""

    on_shaft: bool = False
    blind: bool | None = None
    retained: str = ""
    shields: str = "open"
    thin_wall: bool = False
    magnesium: bool = False
    frees_by_heat: str = IN
    frees_sprayed: str = IN
    tools: frozenset[str] = frozenset()


@dataclass(frozen=True)
class Way:
    """A way to do it: its state (`in`, `too_close`, `stop`), cost (lower is kinder) and the reasons in clauses."""

    key: str
    words: str
    state: str
    cost: float
    reasons: tuple[str, ...]


_Judge = Callable[[SeatPicture], tuple[str, float, list[str]]]


def _needs(picture: SeatPicture, tool: str, words: str) -> tuple[float, list[str]]:
    return (0.0, []) if tool in picture.tools else (25.0, [words])


def _heat_drop(seat: SeatPicture) -> tuple[str, float, list[str]]:
    if seat.frees_by_heat == IN:
        return IN, 5, ["the whole case opens evenly, nothing is struck"]
    if seat.frees_by_heat == TOO_CLOSE:
        return TOO_CLOSE, 14, ["frees most pairs, not the tightest, under the limit"]
    return TOO_CLOSE, 45, ["ring and case grow together: not enough under the limit"]


def _spray(seat: SeatPicture) -> tuple[str, float, list[str]]:
    cost, reasons = _needs(seat, "spray", "no freeze spray on the shelf")
    if seat.frees_sprayed != IN:
        return TOO_CLOSE, 40 + cost, ["even a sprayed ring holds under the limit", *reasons]
    return IN, 10 + cost, ["a cold ring in a hot case lets go at far less heat", *reasons]


def _heat_drive(seat: SeatPicture) -> tuple[str, float, list[str]]:
    if seat.blind:
        return STOP, 90, ["blind: nothing can be driven from behind"]
    reasons = ["through: a driver on the outer ring from behind, case hot and supported"]
    if seat.blind is None:
        return TOO_CLOSE, 30, ["look first whether it can be reached from behind"]
    return IN, 18 + (12 if seat.thin_wall else 0), [*reasons, *(["thin wall: support right behind it"] if seat.thin_wall else [])]


def _collet(seat: SeatPicture) -> tuple[str, float, list[str]]:
    cost, reasons = _needs(seat, "collet", "no collet puller on the shelf")
    blind = ["grips the bore from the front: right for a blind seat"] if seat.blind else ["pulls by the inner ring, through the balls"]
    return IN, (20 if seat.blind else 32) + cost, [*blind, "the bearing is scrap after", *reasons]


def _hydraulic(seat: SeatPicture) -> tuple[str, float, list[str]]:
    if seat.blind is False:
        return STOP, 90, ["through: nothing closes the space behind it"]
    if seat.shields != "both":
        return STOP, 88, ["open: grease goes past the balls, it needs a solid or fully shielded bearing"]
    if seat.thin_wall:
        return TOO_CLOSE, 50, ["thin wall behind: the pressure may break it out"]
    return (IN if seat.blind else TOO_CLOSE), 24, ["blind and shielded: packed grease, wax or wet paper and a close pin"]


def _punch(seat: SeatPicture) -> tuple[str, float, list[str]]:
    if seat.blind:
        return STOP, 92, ["blind: nothing to strike from behind"]
    return TOO_CLOSE, 60, ["walks it out crooked: brass punch, alternate corners, case hot, the last choice but one"]


def _cut(seat: SeatPicture) -> tuple[str, float, list[str]]:
    return TOO_CLOSE, 80, ["last resort: hard swarf, hurt seats; cover everything and write down why"]


def _pull(seat: SeatPicture) -> tuple[str, float, list[str]]:
    cost, reasons = _needs(seat, "puller", "no bearing puller on the shelf")
    return IN, 8 + cost, ["pulls on the tight ring alone", *reasons]


def _press(seat: SeatPicture) -> tuple[str, float, list[str]]:
    cost, reasons = _needs(seat, "press", "no press on the shelf")
    return IN, 15 + cost, ["square, and the force is read", *reasons]


def _warm(seat: SeatPicture) -> tuple[str, float, list[str]]:
    cost, reasons = _needs(seat, "puller", "no bearing puller on the shelf")
    return IN, 20 + cost, ["less force where it holds hard", *reasons]


_CASE: tuple[tuple[str, str, _Judge], ...] = (
    ("drop", "Heat the case, let it drop", _heat_drop),
    ("spray", "Heat the case, spray the ring", _spray),
    ("drive", "Heat the case, drive the outer ring", _heat_drive),
    ("collet", "Collet puller in the bore", _collet),
    ("hydraulic", "Push it out with packed grease", _hydraulic),
    ("punch", "Walk it out with a brass punch", _punch),
    ("cut", "Cut it out", _cut),
)
_SHAFT: tuple[tuple[str, str, _Judge], ...] = (
    ("pull", "Puller behind the inner ring", _pull),
    ("press", "Press the shaft out, ring on split plates", _press),
    ("warm", "Warm the inner ring, then pull", _warm),
    ("cut", "Cut it off", _cut),
)


def ways(seat: SeatPicture) -> tuple[Way, ...]:
    """Every way out of a seat, the kindest first, those refused last.

    Parameters
    ----------
    seat : SeatPicture

    Returns
    -------
    tuple of Way

    Examples
    --------
    >>> [way.key for way in ways(SeatPicture(blind=True, shields="both", tools=frozenset({"spray"})))][:3]
    ['drop', 'spray', 'hydraulic']
    >>> ways(SeatPicture(retained="circlip"))[0].reasons[0]
    'not before the circlip is out'
    """
    found = []
    for key, words, judge in _SHAFT if seat.on_shaft else _CASE:
        state, cost, reasons = judge(seat)
        if seat.retained:
            state, reasons = STOP, [f"not before the {seat.retained} is out", *reasons]
        if seat.magnesium and key in ("drop", "spray", "drive") and state != STOP:
            reasons = [*reasons, "magnesium: oven or hot plate only, no flame"]
        found.append(Way(key, words, state, cost, tuple(reasons)))
    return tuple(sorted(found, key=lambda way: (way.state == STOP, way.cost)))
