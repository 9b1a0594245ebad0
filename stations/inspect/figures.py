"""Readings at Inspect turned into figures: what each is, against what, how sure."""

from __future__ import annotations

from dataclasses import dataclass
from typing import TYPE_CHECKING

from engines.clearance import clearance_left
from engines.fits import SeatFit, fit_of
from engines.models import Seat, Spec
from engines.properties import Property
from shopmath.bearings import Found, Keeping, keep_or_replace
from shopmath.bearings.mounted import MountedClearance
from shopmath.checks import BadInput
from shopmath.form import Form, form, lobing_mm
from shopmath.iso286 import Fit, Limits, limits
from shopmath.iso286 import fit as fit_um
from shopmath.materials import get
from shopmath.verdict import Call, at_20c, call, combined, too_warm_to_judge
from stations.base.station import station_name
from stations.inspect.asks import ROUND, WIDTHS

if TYPE_CHECKING:
    from stations.inspect.station import Inspect

GAUGE_ALPHA = 11.5e-6
ROOM_C = 20.0
Rule = tuple[float | None, float | None, str]
SPREAD_MM = 0.05  # width over the webs, one place against another: shop rule


@dataclass(frozen=True)
class Figure:
    """One figure as found: its readings' keys, value, doubt and limits in mm; no call where nothing says what it should be."""

    name: str
    keys: tuple[str, ...]
    value: float
    doubt: float
    low: float | None
    high: float | None
    source: str
    call: Call | None
    fault: str = ""  # what it means when it is out
    digits: int = 3
    estimated: bool = False


def judged(
    work: Inspect,
    name: str,
    keys: tuple[str, ...],
    value: float,
    doubt: float,
    spec: Spec | None,
    fault: str = "",
    rule: Rule | None = None,
) -> Figure:
    """A figure against the card's spec, else a stated rule, else nothing."""
    low, high, source = rule or (None, None, "")
    if spec is not None:
        low, high, source = spec.low, spec.high, f"{spec.origin} {spec.setup}".strip()
    known, digits = low is not None or high is not None, work.digits(keys[0])
    found = call(value, low, high, doubt, unit="mm", digits=digits) if known else None
    return Figure(name, keys, value, doubt, low, high, source or "no limit on the card: kept, not judged", found, fault, digits)


def crank(work: Inspect) -> list[Figure]:
    """Play, width over the webs, small end."""
    found: list[Figure] = []
    for ask in work.wanted:
        kind = ask.key.partition("-")[0]
        value = work.mean(ask.key) if kind in ("radial", "side", "small") else None
        if value is None:
            continue
        limited = {"radial": Property.BIG_END_RADIAL_PLAY, "side": Property.BIG_END_SIDE_PLAY, "small": Property.SMALL_END_BORE}[kind]
        fault = {
            "radial": "big-end bearing, pin or rod is worn",
            "side": "washers or webs: side play is set by design, wear of it is rubbing",
            "small": "small-end eye, pin or cage is worn",
        }[kind]
        found.append(judged(work, ask.words, (ask.key,), value, work.unsure(ask.key), work.spec(limited), fault))
    keys = tuple(f"width-{key}" for key, _ in WIDTHS)
    values = [work.mean(key) for key in keys]
    if None not in values:
        sizes = [float(value or 0) for value in values]
        doubt = max(work.unsure(key) for key in keys)
        spec = work.spec(Property.WIDTH_OVER_WEBS)
        found.append(judged(work, "Width over the webs", keys, sum(sizes) / 4, doubt, spec, "pressed too far, or not far enough"))
        rule = (None, SPREAD_MM, "shop rule")
        spread = judged(work, "Webs parallel", keys, max(sizes) - min(sizes), combined(doubt, doubt), None, "webs pinched or spread", rule)
        found.append(spread)
    return found


def diameters(work: Inspect, seat: Seat) -> list[float] | None:
    """The six diameters at 20 °C; None until all are in."""
    values = [work.mean(f"{seat.pk}-{place}") for place in ROUND]
    if None in values:
        return None
    part_c = work.value(f"{seat.pk}-warm")
    if part_c is None:
        return [float(value or 0) for value in values]
    alpha = get(seat.shaft_material if seat.on == Seat.On.SHAFT else seat.card.case_material).alpha
    return [at_20c(float(value or 0), alpha, part_c, GAUGE_ALPHA, part_c) for value in values]


def too_warm(work: Inspect, seat: Seat) -> bool:
    part_c = work.value(f"{seat.pk}-warm")
    return part_c is not None and too_warm_to_judge(part_c, ROOM_C)


def form_of(work: Inspect, seat: Seat) -> Form | None:
    found = diameters(work, seat)
    return form(found[:3], found[3:]) if found else None


def _code(seat: Seat) -> Limits | None:
    try:
        return limits(seat.code, fit_of(seat).nominal_mm) if seat.code else None
    except BadInput:
        return None


def seat_figures(work: Inspect, seat: Seat) -> list[Figure]:
    """Size, taper, ovality and lobing of a seat, against its fit code."""
    shape, nominal = form_of(work, seat), work.nominal(seat)
    if shape is None or nominal is None:
        return []
    keys = tuple(f"{seat.pk}-{place}" for place in ROUND)
    doubt, code = max(work.unsure(key) for key in keys), _code(seat)
    source = f"{seat.code}{' (usual, not read)' if seat.code_assumed else ''}, ISO 286-1; {seat.source}".rstrip("; ")
    size: Rule | None = None
    round_to: Rule | None = None
    if code and not too_warm(work, seat):
        size = (nominal + code.lower_um / 1000, nominal + code.upper_um / 1000, source)
        round_to = (None, code.width_um / 2000, f"half the width of {seat.code}, shop rule")
    onto = seat.on == Seat.On.SHAFT
    loose = "worn: the ring may have spun" if onto else "the ring may have spun, or the case has grown"
    found = [
        judged(work, "Size, mean of six", keys, shape.mean_mm, doubt, None, loose, size),
        judged(work, "Taper, mouth to bottom", keys, abs(shape.taper_mm), combined(doubt, doubt) / 1.7, None, "bell-mouthed", round_to),
        judged(work, "Ovality", keys, shape.ovality_mm, combined(doubt, doubt), None, "oval: pulled, or hammered", round_to),
    ]
    swing = work.mean(f"{seat.pk}-vee")
    if swing is not None:
        vee = (f"{seat.pk}-vee",)
        lobes = lobing_mm(swing, shape.ovality_mm)
        found.append(judged(work, "Three lobes, by vee", vee, lobes, work.unsure(vee[0]), None, "ground out of round", round_to))
    return found


def fit_measured(work: Inspect, seat: Seat) -> tuple[SeatFit, Fit] | None:
    """The fit against the real ring where it was measured, else against its class."""
    shape = form_of(work, seat)
    if shape is None:
        return None
    ring = work.mean(f"{seat.pk}-ring")
    doubt = max(work.unsure(f"{seat.pk}-{place}") for place in ROUND)
    pair = (ring, work.unsure(f"{seat.pk}-ring")) if ring is not None else None
    found = fit_of(seat, (shape.mean_mm, doubt), pair)
    return found, fit_um(found.inner.limits, found.outer.limits)


def clearances(work: Inspect, seat: Seat) -> tuple[MountedClearance, MountedClearance] | None:
    """Clearance left in the bearing once fitted, cold and warm, *estimate*: its other ring is taken as usually fitted."""
    measured = fit_measured(work, seat)
    return clearance_left(seat, measured[1], work.bearing(seat)) if measured else None


def keeping(work: Inspect, seat: Seat) -> Keeping | None:
    """The rule on the bearing, once it has been looked at."""
    decided = work.known.best(seat.part, Property.BEARING_DECISION)
    if decided and decided.text == "scrap":
        return Keeping("replace", (f"decided at {station_name(decided.station)}",), ())
    answers = {key: work.said(f"{seat.pk}-{key}") for key in ("hit", "known", "feel", "races", "slow")}
    if not all(answers[key] for key in ("hit", "known", "feel", "races")):
        return None
    truth = {"yes": True, "no": False}
    bearing = work.bearing(seat)
    return keep_or_replace(
        Found(
            hit_through_balls=truth.get(answers["hit"]),
            history_known=truth.get(answers["known"]),
            turns_clean={"clean": True, "rough": False}.get(answers["feel"]),
            marks=truth.get(answers["races"]),
            shielded=bool(bearing and bearing.seal != "open"),
            slow=answers["slow"] == "yes",
            hard_to_reach=answers["slow"] == "yes",
        )
    )
