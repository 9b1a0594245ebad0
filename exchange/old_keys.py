"""Keys of readings as files of earlier versions have them, station by station, and where each belongs now. Only their reader needs this."""

from __future__ import annotations

import re
from collections.abc import Callable

from engines.models import EngineCard, Seat
from engines.parts import CRANK, ENGINE, FLYWHEEL, JOINT, LEFT_CASE, RIGHT_CASE, Kind, Part, rod, throw
from engines.properties import Property
from engines.slots import At, Slot
from exchange.old_heat_keys import HEAT, of_heat

BY_HAND = "by-hand"  # an entry that was only written down, whatever its station

# keys of readings, station by station, as versions up to 2 have them once their numbers stand in them

_SPLIT_WHOLE = {
    "lifts": Property.LIFTING_HALF,
    "expected": Property.FASTENERS_EXPECTED,
    "counted": Property.FASTENERS_COUNTED,
    "screw_d": Property.SPLITTER_SCREW_DIAMETER,
    "screw_pitch": Property.SPLITTER_SCREW_PITCH,
    "turns": Property.SPLITTER_SCREW_TURNS,
    "note": Property.NOTE,
}
_SPLIT_LOOSE = {None: Property.LOOSE_PART, "-from": Property.LOOSE_FROM, "-half": Property.LOOSE_HALF}


def _split(ask: str, card: EngineCard, seat: Seat | None) -> Slot | None:
    if ask in _SPLIT_WHOLE:
        return Slot(JOINT, _SPLIT_WHOLE[ask])
    if loose := re.fullmatch(r"loose(\d+)(-from|-half)?", ask):
        return Slot(Part(Kind.TRAY, f"split-{loose[1]}"), _SPLIT_LOOSE[loose[2]])
    found = re.fullmatch(r"([bg])-(.+)", ask)
    if found and found[1] == "g" and not found[2].isdecimal():
        return Slot(Part(Kind.GAP, found[2], found[2]), Property.GAP)
    mark = next((each for each in card.marks.all() if found and str(each.pk) == found[2]), None)
    if found is None or mark is None:
        return None
    return Slot(mark.part, Property.BOLT_LENGTH if found[1] == "b" else Property.GAP)


_STRIP_WHOLE = {
    "crank": Slot(CRANK, Property.CRANK_OUT),
    "square": Slot(CRANK, Property.CAME_EVENLY),
    "note": Slot(JOINT, Property.NOTE),
}
_STRIP_PART = {None: Property.TRAY_PART, "-from": Property.PART_FROM, "-way": Property.PART_WAY, "-wear": Property.PART_WEAR}


def _strip(ask: str, card: EngineCard, seat: Seat | None) -> Slot | None:
    if ask in _STRIP_WHOLE:
        return _STRIP_WHOLE[ask]
    found = re.fullmatch(r"part(\d+)(-from|-way|-wear)?", ask)
    return Slot(Part(Kind.TRAY, f"strip-{found[1]}"), _STRIP_PART[found[2]]) if found else None


_FLYWHEEL_OFF = {
    "puller_d": Property.PULLER_DIAMETER,
    "puller_pitch": Property.PULLER_PITCH,
    "puller_hand": Property.PULLER_HAND,
    "boss_d": Property.BOSS_DIAMETER,
    "boss_pitch": Property.BOSS_PITCH,
    "boss_hand": Property.BOSS_HAND,
    "boss_depth": Property.BOSS_DEPTH,
    "turns": Property.PULLER_TURNS,
    "screw_d": Property.CENTRE_SCREW_DIAMETER,
    "screw_pitch": Property.CENTRE_SCREW_PITCH,
    "nut_torque": Property.NUT_TORQUE_WANTED,
    "nut_d": Property.NUT_THREAD,
    "torque": Property.PULLING_TORQUE,
    "moved": Property.MOVED,
    "taper": Property.TAPER_CONDITION,
    "key": Property.KEY_CONDITION,
    "step": Property.KEY_STEP,
    "magnets": Property.MAGNETS,
    "coils": Property.COILS,
    "note": Property.NOTE,
}


def _flywheel_off(ask: str, card: EngineCard, seat: Seat | None) -> Slot | None:
    return Slot(FLYWHEEL, _FLYWHEEL_OFF[ask]) if ask in _FLYWHEEL_OFF else None


_FLYWHEEL_ON = {
    "blue": Property.CONTACT_SHARE,
    "large": Property.CONTACT_AT_LARGE_END,
    "key": Property.KEY_CONDITION,
    "step": Property.KEY_STEP,
    "cone": Property.CONE_DIAMETER,
    "asked": Property.TORQUE_TO_CARRY,
    "torque": Property.NUT_TORQUE,
    "runout": Property.RIM_RUNOUT,
    "gap": Property.AIR_GAP,
}


def _flywheel_on(ask: str, card: EngineCard, seat: Seat | None) -> Slot | None:
    return Slot(FLYWHEEL, _FLYWHEEL_ON[ask]) if ask in _FLYWHEEL_ON else None


_OF_SEAL = {"lip": Property.SEAL_LIP, "seal_out": Property.SEAL_OUT}
_OF_SEAT = {
    "behind": Property.BEARING_FACE_DEPTH,
    "retained": Property.RETAINED_BY,
    "bottom": Property.REACH,
    "shields": Property.SHIELDS,
    "faced": Property.WAY_ROUND,
    "keep": Property.BEARING_DECISION,
    "outcome": Property.CAME_OUT,
    "hit": Property.HIT_THROUGH_BALLS,
    "why": Property.REASON,
    "look": Property.SEAT_CONDITION,
    "marking": Property.BEARING_MARKING,
    "note": Property.NOTE,
}


def _bearings_out(ask: str, card: EngineCard, seat: Seat | None) -> Slot | None:
    if seat is None:
        return None
    if ask in _OF_SEAT:
        return Slot(seat.part, _OF_SEAT[ask])
    seal = card.seal_in_front_of(seat)
    if seal and (depth := re.fullmatch(r"depth(12|3|6|9)", ask)):
        return Slot(seal.part, Property.SEAL_DEPTH, At(clock=int(depth[1])))
    return Slot(seal.part, _OF_SEAL[ask]) if seal and ask in _OF_SEAL else None


_INSPECT_WHOLE = {
    "small": Slot(rod(1), Property.SMALL_END_PLAY),
    "cracks": Slot(CRANK, Property.DAMAGE),
    "damage": Slot(CRANK, Property.DAMAGE_WHERE),
    "masses": Slot(CRANK, Property.MASSES),
    "hung": Slot(CRANK, Property.HUNG_MASS),
    "smallend": Slot(rod(1), Property.SMALL_END_MASS),
    "recip": Slot(CRANK, Property.RECIPROCATING_MASS),
    "before": Slot(CRANK, Property.RECIPROCATING_MASS_BEFORE),
}
_INSPECT_SEAT = {
    "mark": Property.BEARING_MARKING,
    "hit": Property.HIT_THROUGH_BALLS,
    "known": Property.BEARING_HISTORY,
    "feel": Property.BEARING_FEEL,
    "races": Property.RACES,
    "slow": Property.SLOW_AND_HIDDEN,
    "warm": Property.SEAT_TEMPERATURE,
    "vee": Property.VEE_RUNOUT,
    "ring": Property.RING_DIAMETER,
    "wall": Property.WALL_THICKNESS,
    "mend": Property.SEAT_MEND,
}
_DEPTHS = {"m": "mouth", "b": "bottom"}
_PLAYS = {"radial": Property.BIG_END_RADIAL_PLAY, "side": Property.BIG_END_SIDE_PLAY}


def _width(ask: str) -> Slot | None:
    """Width over the webs, as two stations ask for it."""
    found = re.fullmatch(r"width-(pin|90|180|270)", ask)
    return Slot(CRANK, Property.WIDTH_OVER_WEBS, At(angle_deg=0.0 if found[1] == "pin" else float(found[1]))) if found else None


def _inspect(ask: str, card: EngineCard, seat: Seat | None) -> Slot | None:
    if ask in _INSPECT_WHOLE:
        return _INSPECT_WHOLE[ask]
    if play := re.fullmatch(r"(radial|side)-([12])", ask):
        return Slot(rod(int(play[2])), _PLAYS[play[1]])
    found = re.fullmatch(r"(\d+)-(?:([mb])(0|60|120)|(\w+))", ask)
    here = next((each for each in card.seats.all() if found and each.pk == int(found[1])), None)
    if found is None or here is None:
        return _width(ask)
    if found[2]:
        return Slot(here.part, Property.SEAT_DIAMETER, At(angle_deg=float(found[3]), depth=_DEPTHS[found[2]]))
    return Slot(here.part, _INSPECT_SEAT[found[4]]) if found[4] in _INSPECT_SEAT else None


_END_FLOAT = {
    "warm": Slot(JOINT, Property.CASE_TEMPERATURE),
    "left": Slot(LEFT_CASE, Property.FACE_TO_BEARING),
    "right": Slot(RIGHT_CASE, Property.FACE_TO_BEARING),
    "gasket": Slot(JOINT, Property.GASKET_CRUSHED),
    "crank": Slot(CRANK, Property.CRANK_SHOULDERS),
    "fitted": Slot(CRANK, Property.SHIMS_FITTED),
    "low": Slot(CRANK, Property.END_FLOAT_LEAST),
    "high": Slot(CRANK, Property.END_FLOAT_MOST),
    "side": Slot(CRANK, Property.SHIM_SIDE),
    "distance": Slot(JOINT, Property.TABLE_DISTANCE),
    "table": Slot(JOINT, Property.TABLE),
    "row": Slot(CRANK, Property.TABLE_ROW),
}


def _end_float(ask: str, card: EngineCard, seat: Seat | None) -> Slot | None:
    if shim := re.fullmatch(r"shim-(\d)", ask):
        return Slot(CRANK, Property.SHIM_THICKNESS, At(stage=int(shim[1])))
    return _END_FLOAT.get(ask)


_CENTRE = {
    "left": Slot(CRANK, Property.SIDE_GAP, At(end="left")),
    "right": Slot(CRANK, Property.SIDE_GAP, At(end="right")),
    "spin": Slot(CRANK, Property.SPIN),
    "drag": Slot(CRANK, Property.DRAG),
    "float": Slot(CRANK, Property.END_FLOAT),
    "minutes": Slot(JOINT, Property.TEST_TIME),
    "why": Slot(JOINT, Property.REASON),
}


def _centre(ask: str, card: EngineCard, seat: Seat | None) -> Slot | None:
    if test := re.fullmatch(r"(pressure|vacuum)-([12])", ask):
        return Slot(JOINT, Property.TEST_PRESSURE, At(depth=test[1], stage=int(test[2])))
    return _CENTRE.get(ask)


_CLOSE = {
    "gears": Property.GEARS,
    "which": Property.GEAR_FAULT,
    "torque": Property.BOLT_TORQUE_WANTED,
    "more": Property.BOLT_TORQUE_INSTEAD,
    "why": Property.REASON,
}


def _close(ask: str, card: EngineCard, seat: Seat | None) -> Slot | None:
    bolt = re.fullmatch(r"s(\d)-(\d+)", ask)
    mark = next((each for each in card.marks.all() if bolt and str(each.pk) == bolt[2]), None)
    if bolt and mark:
        return Slot(mark.part, Property.BOLT_TORQUE, At(stage=int(bolt[1]) + 1))
    return Slot(JOINT, _CLOSE[ask]) if ask in _CLOSE else None


_CRANK_IN = {
    "thread_d": Slot(CRANK, Property.END_THREAD_DIAMETER),
    "thread_pitch": Slot(CRANK, Property.END_THREAD_PITCH),
    "hand": Slot(CRANK, Property.ADAPTER_TURNS),
    "travel": Slot(CRANK, Property.TRAVEL),
    "turns": Slot(CRANK, Property.SCREW_TURNS_DONE),
    "torque": Slot(CRANK, Property.SCREW_TORQUE),
    "gap-left": Slot(CRANK, Property.HOME_GAP, At(end="left")),
    "gap-right": Slot(CRANK, Property.HOME_GAP, At(end="right")),
}


def _crank_in(ask: str, card: EngineCard, seat: Seat | None) -> Slot | None:
    return _CRANK_IN.get(ask)


_SEALS = {
    "shaft": Property.SEAL_SHAFT,
    "bore": Property.SEAL_BORE,
    "kept": Property.SEAL_KEEPS,
    "way": Property.SEAL_LIP,
    "cite": Property.PAGE,
    "behind": Property.BEARING_FACE_DEPTH,
}


def _seals(ask: str, card: EngineCard, seat: Seat | None) -> Slot | None:
    found = re.fullmatch(r"(\d+)-(?:d(12|3|6|9)|(\w+))", ask)
    seal = next((each for each in card.seals.all() if found and str(each.pk) == found[1]), None)
    if found is None or seal is None:
        return _by_hand(ask, card, seat)
    if found[2]:
        return Slot(seal.part, Property.SEAL_DEPTH, At(clock=int(found[2])))
    return Slot(seal.part, _SEALS[found[3]]) if found[3] in _SEALS else None


_HAND_OVER = {
    "parts": Property.PARTS_USED,
    "advice": Property.AGAINST_ADVICE,
    "unknown": Property.STAYS_UNKNOWN,
    "note": Property.NOTE,
}


def _by_hand(ask: str, card: EngineCard, seat: Seat | None) -> Slot | None:
    return Slot(ENGINE, Property.NOTE) if ask == "note" else None


def _hand_over(ask: str, card: EngineCard, seat: Seat | None) -> Slot | None:
    return Slot(ENGINE, _HAND_OVER[ask]) if ask in _HAND_OVER else None


_JOINT = {
    "d": Property.PIN_SHOWN,
    "pin": Property.PIN_DIAMETER,
    "hole": Property.PIN_HOLE,
    "length": Property.PIN_LENGTH,
    "bore": Property.PIN_BORE,
    "wall": Property.WEB_WALL,
    "web": Property.WEB_WIDTH,
    "ratio": Property.PIN_TAPER,
    "web_c": Property.WEB_TEMPERATURE,
    "pin_c": Property.PIN_TEMPERATURE,
    "peak": Property.PRESS_PEAK,
}
_PRESSED_CRANK = {
    "phase": Slot(CRANK, Property.THROW_ANGLE),
    "order": Slot(CRANK, Property.PARTS_ORDER),
    "hurt": Slot(CRANK, Property.SCORED),
    "going": Slot(CRANK, Property.WIDTH_AS_IT_GOES),
    "side": Slot(rod(1), Property.BIG_END_SIDE_PLAY),
}


def _press(ask: str, card: EngineCard, seat: Seat | None) -> Slot | None:
    if ask in _JOINT:
        return Slot(throw(1), _JOINT[ask])
    return _PRESSED_CRANK.get(ask) or _width(ask)


_BALANCE = {
    "shook": Property.SHOOK,
    "sound": Property.WHEEL_SOUND,
    "mass": Property.WHEEL_MASS,
    "rpm": Property.WHEEL_SPEED,
    "rim": Property.RIM_DIAMETER,
    "stop": Property.STOP_ANGLE,
    "arm": Property.TRIAL_RADIUS,
    "stays": Property.TRIAL_STAYS,
    "turns": Property.TRIAL_TURNS,
    "radius": Property.DRILL_RADIUS,
    "finish": Property.FINISH_RADIUS,
    "thick": Property.RIM_DEPTH,
    "keepout": Property.KEEP_OUT,
    "drills": Property.DRILLS,
    "note": Property.NOTE,
}


def _balance(ask: str, card: EngineCard, seat: Seat | None) -> Slot | None:
    if hole := re.fullmatch(r"d(\d+)", ask):
        return Slot(FLYWHEEL, Property.HOLE_DEPTH, At(stage=int(hole[1])))
    return Slot(FLYWHEEL, _BALANCE[ask]) if ask in _BALANCE else None


_SIDES = {"l": "left", "r": "right"}
_TRUE = {
    "stroke": Property.STROKE,
    "rim": Property.RIM_RADIUS,
    "phase": Property.THROW_ANGLE,
    "joint": Property.JOINT_LOCK,
}


def _true(ask: str, card: EngineCard, seat: Seat | None) -> Slot | None:
    if ask in _TRUE:
        return Slot(CRANK, _TRUE[ask])
    if ask == "note":
        return Slot(ENGINE if card.crank == EngineCard.Crank.ONE_PIECE else CRANK, Property.NOTE)
    if place := re.fullmatch(r"(support|gauge)-(left|right)", ask):
        return Slot(CRANK, Property.SUPPORT_PLACE if place[1] == "support" else Property.GAUGE_PLACE, At(end=place[2]))
    found = re.fullmatch(r"([lr])-(swing|high|\d+)", ask)
    if found is None:
        return None
    if found[2].isdecimal():
        return Slot(CRANK, Property.SHAFT_READING, At(end=_SIDES[found[1]], angle_deg=float(found[2])))
    return Slot(CRANK, Property.SHAFT_TIR if found[2] == "swing" else Property.HIGH_SPOT, At(end=_SIDES[found[1]]))


SLOTS: dict[str, Callable[[str, EngineCard, Seat | None], Slot | None]] = {
    "split": _split,
    "strip": _strip,
    "flywheel-off": _flywheel_off,
    "flywheel-on": _flywheel_on,
    "bearings-out": _bearings_out,
    "inspect": _inspect,
    "end-float": _end_float,
    "centre": _centre,
    "close": _close,
    "crank-in": _crank_in,
    "seals": _seals,
    "apart": _press,
    "balance": _balance,
    "true": _true,
    "together": _press,
    "hand-over": _hand_over,
    HEAT: of_heat,
    "book-in": _by_hand,
    BY_HAND: _by_hand,
}
