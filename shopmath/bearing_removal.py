"""Ways to take a bearing out, ranked for one seat with the reasons.

A way is refused where it would break something; the rest are ordered by how little they ask of case, seat and bearing.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

from shopmath.verdict import IN, STOP, TOO_CLOSE


@dataclass(frozen=True)
class SeatPicture:
    """Properties of a seat that matter for removing its bearing.

    `retained` names what holds it, `tools` what the shop has.
    """

    on_shaft: bool = False
    blind: bool | None = None
    retained: str = ""
    shields: str = "open"
    thin_wall: bool = False
    magnesium: bool = False
    frees_by_heat: str = IN
    frees_sprayed: str = IN
    tools: frozenset[str] = frozenset()
    drawn_cup: bool = False


@dataclass(frozen=True)
class RemovalMethod:
    """A method: its state (`in`, `too_close`, `stop`), cost (the lowest is the gentlest), the reasons in clauses, and their codes."""

    key: str
    words: str
    state: str
    cost: float
    reasons: tuple[str, ...]
    codes: tuple[str, ...] = ()


REASONS = {  # code: what it says, as a clause
    "retained": "not before the {retained} is out",
    "opens_evenly": "the whole case opens evenly, nothing is struck",
    "frees_most": "frees most pairs, not the tightest, under the limit",
    "cup_by_heat": "a drawn cup has no size of its own: how hot is not known",
    "behind_the_shell": "a collet behind the shell and a screw: slow and straight",
    "grows_together": "ring and case grow together: not enough under the limit",
    "no_spray": "no freeze spray on the shelf",
    "sprayed_holds": "even a sprayed ring holds under the limit",
    "cold_ring": "a cold ring in a hot case lets go at far less heat",
    "blind_no_drive": "blind: nothing can be driven from behind",
    "driver_from_behind": "through: a driver on the outer ring from behind, case hot and supported",
    "look_behind": "look first whether it can be reached from behind",
    "support_thin_wall": "thin wall: support right behind it",
    "no_collet": "no collet puller on the shelf",
    "grips_from_front": "grips the bore from the front: right for a blind seat",
    "through_balls": "pulls by the inner ring, through the balls",
    "scrap_after": "the bearing is scrap after",
    "through_no_grease": "through: nothing closes the space behind it",
    "open_no_grease": "open: grease goes past the balls, it needs a solid or fully shielded bearing",
    "thin_wall_breaks": "thin wall behind: the pressure may break it out",
    "packed_grease": "blind and shielded: packed grease, wax or wet paper and a close pin",
    "blind_no_strike": "blind: nothing to strike from behind",
    "walks_crooked": "walks it out crooked: brass punch, alternate corners, case hot, the last choice but one",
    "last_resort": "last resort: hard swarf, hurt seats; cover everything and write down why",
    "no_puller": "no bearing puller on the shelf",
    "tight_ring_alone": "pulls on the tight ring alone",
    "no_press": "no press on the shelf",
    "square_and_read": "square, and the force is read",
    "less_force": "less force where the ring is tight",
    "magnesium": "magnesium: oven or hot plate only, no flame",
}
_Judge = Callable[[SeatPicture], tuple[str, float, list[str]]]


def _needs(picture: SeatPicture, tool: str, words: str) -> tuple[float, list[str]]:
    return (0.0, []) if tool in picture.tools else (25.0, [words])


def _heat_drop(seat: SeatPicture) -> tuple[str, float, list[str]]:
    if seat.drawn_cup:
        return TOO_CLOSE, 34, ["cup_by_heat"]
    if seat.frees_by_heat == IN:
        return IN, 5, ["opens_evenly"]
    if seat.frees_by_heat == TOO_CLOSE:
        return TOO_CLOSE, 14, ["frees_most"]
    return TOO_CLOSE, 45, ["grows_together"]


def _spray(seat: SeatPicture) -> tuple[str, float, list[str]]:
    cost, reasons = _needs(seat, "spray", "no_spray")
    if seat.drawn_cup:
        return TOO_CLOSE, 36 + cost, ["cup_by_heat", *reasons]
    if seat.frees_sprayed != IN:
        return TOO_CLOSE, 40 + cost, ["sprayed_holds", *reasons]
    return IN, 10 + cost, ["cold_ring", *reasons]


def _heat_drive(seat: SeatPicture) -> tuple[str, float, list[str]]:
    if seat.blind:
        return STOP, 90, ["blind_no_drive"]
    reasons = ["driver_from_behind"]
    if seat.blind is None:
        return TOO_CLOSE, 30, ["look_behind"]
    return IN, 18 + (12 if seat.thin_wall else 0), [*reasons, *(["support_thin_wall"] if seat.thin_wall else [])]


def _collet(seat: SeatPicture) -> tuple[str, float, list[str]]:
    cost, reasons = _needs(seat, "collet", "no_collet")
    if seat.drawn_cup:
        return IN, 12 + cost, ["behind_the_shell", "scrap_after", *reasons]
    blind = ["grips_from_front"] if seat.blind else ["through_balls"]
    return IN, (20 if seat.blind else 32) + cost, [*blind, "scrap_after", *reasons]


def _hydraulic(seat: SeatPicture) -> tuple[str, float, list[str]]:
    if seat.blind is False:
        return STOP, 90, ["through_no_grease"]
    if seat.shields != "both":
        return STOP, 88, ["open_no_grease"]
    if seat.thin_wall:
        return TOO_CLOSE, 50, ["thin_wall_breaks"]
    return (IN if seat.blind else TOO_CLOSE), 24, ["packed_grease"]


def _punch(seat: SeatPicture) -> tuple[str, float, list[str]]:
    if seat.blind:
        return STOP, 92, ["blind_no_strike"]
    return TOO_CLOSE, 60, ["walks_crooked"]


def _cut(seat: SeatPicture) -> tuple[str, float, list[str]]:
    return TOO_CLOSE, 80, ["last_resort"]


def _pull(seat: SeatPicture) -> tuple[str, float, list[str]]:
    cost, reasons = _needs(seat, "puller", "no_puller")
    return IN, 8 + cost, ["tight_ring_alone", *reasons]


def _press(seat: SeatPicture) -> tuple[str, float, list[str]]:
    cost, reasons = _needs(seat, "press", "no_press")
    return IN, 15 + cost, ["square_and_read", *reasons]


def _warm(seat: SeatPicture) -> tuple[str, float, list[str]]:
    cost, reasons = _needs(seat, "puller", "no_puller")
    return IN, 20 + cost, ["less_force", *reasons]


_CASE: tuple[tuple[str, str, _Judge], ...] = (
    ("drop", "Heat the case, let it drop", _heat_drop),
    ("spray", "Heat the case, spray the ring", _spray),
    ("drive", "Heat the case, drive the outer ring", _heat_drive),
    ("collet", "Blind bearing puller", _collet),
    ("hydraulic", "Push it out with packed grease", _hydraulic),
    ("punch", "Walk it out with a brass punch", _punch),
    ("cut", "Cut it out", _cut),
)
_SHAFT: tuple[tuple[str, str, _Judge], ...] = (
    ("pull", "Puller behind the inner ring", _pull),
    ("press", "Press the shaft out, bearing on a separator plate", _press),
    ("warm", "Warm the inner ring, then pull", _warm),
    ("cut", "Cut it off", _cut),
)


def ways(seat: SeatPicture) -> tuple[RemovalMethod, ...]:
    """Return every removal method for a seat, the gentlest first, refused ones last.

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
    >>> ways(SeatPicture(drawn_cup=True, tools=frozenset({"collet"})))[0].key
    'collet'
    >>> ways(SeatPicture(retained="circlip"))[0].reasons[0]
    'not before the circlip is out'
    """
    found = []
    for key, words, judge in _SHAFT if seat.on_shaft else _CASE:
        state, cost, reasons = judge(seat)
        if seat.retained:
            state, reasons = STOP, ["retained", *reasons]
        if seat.magnesium and key in ("drop", "spray", "drive") and state != STOP:
            reasons = [*reasons, "magnesium"]
        said = tuple(REASONS[code].format(retained=seat.retained) for code in reasons)
        found.append(RemovalMethod(key, words, state, cost, said, tuple(reasons)))
    return tuple(sorted(found, key=lambda way: (way.state == STOP, way.cost)))
