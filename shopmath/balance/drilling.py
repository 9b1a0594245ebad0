"""Drilling of a flywheel: where, how wide and how deep, with few holes and never more than necessary.

Holes lie about the heavy spot; what one takes off its axis counts by its cosine, so the plan adds them as vectors. A twist drill leaves
a cone below its full diameter: it takes mass too, and it is its tip that decides what wall is left.
"""

from __future__ import annotations

import cmath
import math
from collections.abc import Iterable, Sequence
from dataclasses import dataclass

from shopmath.balance.unbalance import Unbalance, after_holes
from shopmath.validation import BadInput, gettext_noop, not_negative, positive

POINT_DEG = 118.0
MOST_HOLES, MOST_DRILLS, MOST_ARCS, WIDEST_MM = 12, 30, 60, 1000.0  # what a plan is made for
GAP_MM = 3.0  # of metal between two holes
REACH_DEG = 75.0  # farther from the heavy spot a hole takes more aside than along
LEAST_MM = 0.5  # a shallower hole cannot be drilled to its depth
SHARE, NEAR = 0.9, 3.0  # of the need taken at once while more than so many times the permitted is left
SWEEPS = 60


def _tip_mm(diameter_mm: float, point_deg: float) -> float:
    return positive("diameter_mm", diameter_mm) / 2 / math.tan(math.radians(positive("point_deg", point_deg)) / 2)


def drilled_mass_g(diameter_mm: float, depth_mm: float, density: float, point_deg: float = POINT_DEG) -> float:
    """Return the mass that a blind hole removes.

    Parameters
    ----------
    diameter_mm : float
        Of the drill, mm.
    depth_mm : float
        Of the full diameter, mm; the cone is below it.
    density : float
        kg/m³.
    point_deg : float
        Angle of the drill's point.

    Returns
    -------
    float
        g.

    Raises
    ------
    BadInput
        Sizes not above 0, a negative depth.

    Source
    ------
    Cylinder and cone: πd²t/4 + πd³/(24·tan(point/2)).

    Examples
    --------
    >>> round(drilled_mass_g(6, 8, 7850), 3), round(drilled_mass_g(6, 8, 2700), 3)
    (1.909, 0.657)
    """
    d = positive("diameter_mm", diameter_mm)
    volume_mm3 = math.pi * d**2 / 4 * (not_negative("depth_mm", depth_mm) + _tip_mm(d, point_deg) / 3)
    return volume_mm3 * positive("density", density) / 1e6


def wall_left_mm(thickness_mm: float, diameter_mm: float, depth_mm: float, point_deg: float = POINT_DEG) -> float:
    """Wall left below the drill's tip, mm; negative when it comes through.

    Examples
    --------
    >>> round(wall_left_mm(14, 6, 8), 2)
    4.2
    """
    return positive("thickness_mm", thickness_mm) - not_negative("depth_mm", depth_mm) - _tip_mm(diameter_mm, point_deg)


@dataclass(frozen=True)
class Hole:
    """A hole as planned or drilled: where, with what, how deep at full diameter, and what it takes."""

    angle_deg: float
    radius_mm: float
    diameter_mm: float
    depth_mm: float
    mass_g: float

    @property
    def gmm(self) -> float:
        return self.mass_g * self.radius_mm


@dataclass(frozen=True)
class Drilled:
    """A hole that is there already, where nothing more can be taken."""

    angle_deg: float
    radius_mm: float
    diameter_mm: float


@dataclass(frozen=True)
class DrillLimits:
    """Limits of drilling.

    Radius, and a smaller one for the last small hole; thickness there and the wall to be left; the deepest hole; arcs that must not be
    touched (from, to, counter-clockwise, °): magnets, rivets, vanes, timing marks; existing holes.
    """

    radius_mm: float
    thickness_mm: float
    wall_mm: float = 3.0
    deepest_mm: float = 12.0
    finish_radius_mm: float | None = None
    keep_out_deg: tuple[tuple[float, float], ...] = ()
    earlier: tuple[Drilled, ...] = ()

    def depth_mm(self, diameter_mm: float, point_deg: float = POINT_DEG) -> float:
        """The deepest hole of a drill, by the wall at its tip; 0 or less when it may not be used at all."""
        return min(self.deepest_mm, self.thickness_mm - self.wall_mm - _tip_mm(diameter_mm, point_deg))

    def refusal(self, angle_deg: float, radius_mm: float, diameter_mm: float) -> str:
        """Return why a hole may not be here; empty when it may.

        Examples
        --------
        >>> DrillLimits(80, 14, keep_out_deg=((350, 20),)).refusal(5, 80, 6)
        'keep out: 350 to 20 degrees'
        """
        half = math.degrees(math.asin(min(1.0, diameter_mm / 2 / radius_mm)))
        for start, end in self.keep_out_deg:
            if (angle_deg - (start - half)) % 360 <= (end - start) % 360 + 2 * half:
                return f"keep out: {start:g} to {end:g} degrees"
        for hole in self.earlier:
            away = abs(cmath.rect(radius_mm, math.radians(angle_deg)) - cmath.rect(hole.radius_mm, math.radians(hole.angle_deg)))
            if away < (diameter_mm + hole.diameter_mm) / 2 + GAP_MM - 1e-9:
                return f"too near the hole at {hole.angle_deg:.0f} degrees"
        return ""


@dataclass(frozen=True)
class DrillPlan:
    """Holes to drill, and the expected residual: its amount, and where the flywheel will then stop.

    `code` says the same as the reason: `nowhere`, `as_much_as_may_be`, `nine_tenths` (then `later_gmm` comes off after the next check),
    or empty where nothing is to be said.
    """

    holes: tuple[Hole, ...]
    rest: Unbalance
    reason: str
    code: str = ""
    later_gmm: float = 0.0


def _places(heavy_deg: float, limits: DrillLimits, radius_mm: float, diameter_mm: float) -> list[list[float]]:
    """Return rows of angles that may be drilled, nearest the heavy spot first: from its middle, from half a step aside, and straddling."""
    step = math.degrees(2 * math.asin(min(1.0, (diameter_mm + GAP_MM) / (2 * radius_mm))))
    count = int(REACH_DEG / step)

    def free(offset: float) -> bool:
        return abs(offset) <= REACH_DEG and not limits.refusal(heavy_deg + offset, radius_mm, diameter_mm)

    rows = [[step * (index + shift) for index in range(-count - 1, count + 2)] for shift in (0.0, 0.5)]
    sides = []
    for sign in (1, -1):
        first = next((float(sign * degree) for degree in range(int(REACH_DEG) + 1) if free(sign * degree)), None)
        sides += [] if first is None else [first + sign * step * index for index in range(count + 1)]
    straddling = sorted({round(offset, 6) for offset in sides}, key=abs)
    apart: list[float] = []
    for offset in straddling:
        if all(abs(offset - other) >= step - 1e-6 for other in apart):
            apart.append(offset)
    return [sorted((offset for offset in row if free(offset)), key=abs) for row in (*rows, apart)]


def _shares(target: complex, angles_deg: Sequence[float], most_gmm: float) -> list[float]:
    """Return the share of each hole by least squares, each between zero and its maximum, together never above the target."""
    units = [cmath.rect(1.0, math.radians(angle)) for angle in angles_deg]
    taken = [0.0] * len(units)
    for _ in range(SWEEPS):
        for index, unit in enumerate(units):
            others = sum((taken[k] * units[k] for k in range(len(units)) if k != index), 0j)
            along = ((target - others) * unit.conjugate()).real
            taken[index] = min(max(along, 0.0), most_gmm)
    along = sum(gmm * (unit * target.conjugate()).real for gmm, unit in zip(taken, units, strict=True)) / abs(target)
    past = max(1.0, along / abs(target))  # by the last digit that the sweeps have not settled
    return [gmm / past for gmm in taken]


def _hole(angle_deg: float, radius_mm: float, diameter_mm: float, gmm: float, density: float, point_deg: float) -> Hole | None:
    """The hole that takes so much; None when it would be too shallow to drill."""
    taper = drilled_mass_g(diameter_mm, 0.0, density, point_deg)
    full = drilled_mass_g(diameter_mm, 1.0, density, point_deg) - taper
    depth = (gmm / radius_mm - taper) / full
    if depth < LEAST_MM:
        return None
    return Hole(angle_deg % 360, radius_mm, diameter_mm, depth, taper + full * depth)


def _holes(
    target: complex, angles: Sequence[float], limits: DrillLimits, radius_mm: float, drill_mm: float, density: float, point_deg: float
) -> tuple[Hole, ...]:
    """Holes of one drill at given angles that come as near the target as they may."""
    deepest = limits.depth_mm(drill_mm, point_deg)
    if deepest < LEAST_MM:
        return ()
    most_gmm = drilled_mass_g(drill_mm, deepest, density, point_deg) * radius_mm
    made = []
    for angle, gmm in zip(angles, _shares(target, angles, most_gmm), strict=True):
        made.append(_hole(angle, radius_mm, drill_mm, gmm, density, point_deg) if gmm > 0 else None)
    return tuple(hole for hole in made if hole)


def _can_be(limits: DrillLimits) -> None:
    """Refuse a rim that no flywheel has, and more arcs and holes than anybody would mark."""
    for field in ("radius_mm", "thickness_mm", "deepest_mm", *(("finish_radius_mm",) if limits.finish_radius_mm is not None else ())):
        if not 0 < positive(field, getattr(limits, field)) <= WIDEST_MM:
            raise BadInput(field, gettext_noop("No flywheel measures {limits:g} mm there."), "too_large", limits=getattr(limits, field))
    not_negative("wall_mm", limits.wall_mm)
    if len(limits.keep_out_deg) > MOST_ARCS or len(limits.earlier) > MOST_ARCS:
        raise BadInput(
            "keep_out_deg",
            gettext_noop("At most {most_arcs} arcs and {most_arcs} earlier holes are looked at."),
            "too_many",
            most=MOST_ARCS,
            most_arcs=MOST_ARCS,
        )


def drill_plan(
    found: Unbalance,
    limits: DrillLimits,
    density: float,
    diameters_mm: Iterable[float],
    *,
    within_gmm: float = 0.0,
    most: int = 6,
    point_deg: float = POINT_DEG,
) -> DrillPlan:
    """Return the fewest holes that remove the heavy spot, and never more.

    Parameters
    ----------
    found : Unbalance
        How much, and where.
    limits : DrillLimits
    density : float
        Of the wheel's rim, kg/m³.
    diameters_mm : iterable of float
        Drills available.
    within_gmm : float
        Permitted. While more than three times that is to go, nine tenths are taken and the rest after the next check.
    most : int
        Holes.
    point_deg : float

    Returns
    -------
    DrillPlan
        Fewest holes that leave no more than a twentieth of what is wanted, or than half the permitted; else those that leave least. At the
        smaller radius only the smallest drill works. No holes, with the reason, when none is possible.

    Raises
    ------
    BadInput
        No drill or more than 30, sizes not above 0 or past 1000 mm, most not from 1 to 12, more than 60 arcs or earlier holes.

    Notes
    -----
    Bounded least squares on vectors: a projection on a convex set that contains nothing at all is never longer than what it approaches.

    Examples
    --------
    >>> plan = drill_plan(Unbalance(120, 200), DrillLimits(80, 16), 7850, [6], within_gmm=13.4)
    >>> [(round(hole.angle_deg), round(hole.depth_mm, 1)) for hole in plan.holes], round(plan.rest.gmm)
    ([(200, 5.5)], 12)
    """
    drills = sorted({positive("diameters_mm", d) for d in diameters_mm})
    if not drills:
        raise BadInput("diameters_mm", gettext_noop("At least one drill is wanted."))
    if not 1 <= most <= MOST_HOLES:
        raise BadInput("most", gettext_noop("A plan has 1 to {most_holes} holes."), most_holes=MOST_HOLES)
    if len(drills) > MOST_DRILLS:
        raise BadInput(
            "diameters_mm", gettext_noop("At most {most_drills} drills are tried."), "too_many", most=MOST_DRILLS, most_drills=MOST_DRILLS
        )
    _can_be(limits)
    need, _ = positive("unbalance_gmm", found.gmm), not_negative("within_gmm", within_gmm)
    needed = need * SHARE if within_gmm and need > NEAR * within_gmm else need
    target = cmath.rect(needed, math.radians(found.deg))
    radii = [limits.radius_mm] + ([limits.finish_radius_mm] if limits.finish_radius_mm else [])
    enough = max(needed / 20, within_gmm / 2)
    best: tuple[float, tuple[Hole, ...]] | None = None
    for count in range(1, most + 1):
        for radius in radii:
            for drill in drills if radius == limits.radius_mm else drills[:1]:
                for row in _places(found.deg, limits, radius, drill):
                    angles = [found.deg + offset for offset in row[:count]]
                    holes = _holes(target, angles, limits, radius, drill, density, point_deg) if len(angles) == count else ()
                    left = abs(target - sum((cmath.rect(hole.gmm, math.radians(hole.angle_deg)) for hole in holes), 0j))
                    if holes and (best is None or left < best[0] - 1e-9):
                        best = (left, holes)
        if best and best[0] <= enough:
            break
    if best is None:
        return DrillPlan((), found, "no drill takes so little here, or nothing may be drilled near the heavy spot", "nowhere")
    rest = after_holes(found, [(hole.gmm, hole.angle_deg) for hole in best[1]])
    short = "" if best[0] <= enough else "as much as may be drilled near the heavy spot"
    later = need - needed if needed < need else 0.0
    reason = short or (f"nine tenths first; {later:.0f} g·mm after the next check" if later else "")
    return DrillPlan(best[1], rest, reason, "as_much_as_may_be" if short else "nine_tenths" if later else "", later)
