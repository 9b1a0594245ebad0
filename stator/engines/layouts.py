"""Typical engine layouts that fill a new card: places of bearings and seals, each value marked as assumed.

Sizes are typical of such engines and of no particular engine. Each is read on the part before a verdict depends on it.
"""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Any

from django.utils.functional import Promise
from django.utils.translation import gettext, gettext_noop
from django.utils.translation import gettext_lazy as _

from stator.engines.case import joined_anew
from stator.engines.models import CasePart, EngineCard, Seal, Seat
from stator.engines.parts import HALVES, JOINT

LEFT, RIGHT, CRANK = Seat.Half.LEFT, Seat.Half.RIGHT, Seat.Half.CRANK
CENTRE = "centre"  # stands for the identity of the centre section
MAIN, GEARBOX, CAM = Seat.Role.MAIN, Seat.Role.GEARBOX, Seat.Role.CAM
TYPICAL = gettext_noop("typical of this lay-out")


@dataclass(frozen=True)
class Layout:
    """The initial content of a card: the engine, its seats (name, role, half, marking) and its seals (name, half, seat, sizes in mm)."""

    name: str | Promise
    engine: dict[str, Any]
    seats: tuple[tuple[str, str, str, str], ...]
    seals: tuple[tuple[str, str, str, tuple[float, float, float]], ...] = field(default=())
    centre: str = ""  # name of the section between the halves, where the crank lies in one


GEARS = (
    (gettext_noop("Gearbox input, drive side"), GEARBOX, LEFT, "6203"),
    (gettext_noop("Gearbox input, magneto side"), GEARBOX, RIGHT, "6202"),
    (gettext_noop("Gearbox output, drive side"), GEARBOX, LEFT, "6204"),
    (gettext_noop("Gearbox output, magneto side"), GEARBOX, RIGHT, "6203"),
)
DRIVE, MAGNETO = gettext_noop("Main, drive side"), gettext_noop("Main, magneto side")
BUILT_UP, ONE_PIECE = EngineCard.Crank.BUILT_UP, EngineCard.Crank.ONE_PIECE
SEAL_DRIVE, SEAL_MAGNETO, SEAL_OUTPUT = (
    gettext_noop("Crank seal, drive side"),
    gettext_noop("Crank seal, magneto side"),
    gettext_noop("Output seal"),
)

LAYOUTS: dict[str, Layout] = {
    "two-stroke-single": Layout(
        _("two-stroke single with gearbox"),
        {"layout": EngineCard.Layout.SINGLE, "crank": BUILT_UP},
        ((DRIVE, MAIN, LEFT, "6204 C3"), (MAGNETO, MAIN, RIGHT, "6204 C3"), *GEARS),
        (
            (SEAL_DRIVE, LEFT, DRIVE, (20, 35, 7)),
            (SEAL_MAGNETO, RIGHT, MAGNETO, (20, 35, 7)),
            (SEAL_OUTPUT, LEFT, GEARS[2][0], (20, 40, 7)),
        ),
    ),
    "four-stroke-single": Layout(
        _("four-stroke single with gearbox"),
        {"layout": EngineCard.Layout.SINGLE, "crank": BUILT_UP},
        ((DRIVE, MAIN, LEFT, "6206 C3"), (MAGNETO, MAIN, RIGHT, "6206 C3"), *GEARS),
        ((SEAL_MAGNETO, RIGHT, MAGNETO, (30, 47, 7)), (SEAL_OUTPUT, LEFT, GEARS[2][0], (20, 40, 7))),
    ),
    "flat-twin": Layout(
        _("flat twin"),
        {"layout": EngineCard.Layout.FLAT_TWIN, "crank": BUILT_UP},
        ((gettext_noop("Main, front"), MAIN, LEFT, "6207 C3"), (gettext_noop("Main, rear"), MAIN, RIGHT, "6207 C3")),
        (
            (gettext_noop("Crank seal, front"), LEFT, "Main, front", (35, 52, 7)),
            (gettext_noop("Crank seal, rear"), RIGHT, "Main, rear", (35, 52, 7)),
        ),
    ),
    "three-part-twin": Layout(
        _("twin with a case of three parts"),
        {"layout": EngineCard.Layout.TWIN, "crank": BUILT_UP},
        (
            (DRIVE, MAIN, LEFT, "6206 C3"),
            (gettext_noop("Main, centre left"), MAIN, CENTRE, "6206 C3"),
            (gettext_noop("Main, centre right"), MAIN, CENTRE, "6206 C3"),
            (MAGNETO, MAIN, RIGHT, "6206 C3"),
        ),
        ((SEAL_DRIVE, LEFT, DRIVE, (30, 47, 7)), (SEAL_MAGNETO, RIGHT, MAGNETO, (30, 47, 7))),
        gettext_noop("centre section"),
    ),
    "two-wheel-tractor": Layout(
        _("single of a two-wheel tractor"),
        {"layout": EngineCard.Layout.SINGLE, "crank": ONE_PIECE, "right_name": "flywheel side"},
        (
            (DRIVE, MAIN, LEFT, "6206"),
            (gettext_noop("Main, flywheel side"), MAIN, RIGHT, "6206"),
            (gettext_noop("Camshaft"), CAM, LEFT, "6202"),
        ),
        ((SEAL_DRIVE, LEFT, DRIVE, (30, 47, 7)), (gettext_noop("Crank seal, flywheel side"), RIGHT, "Main, flywheel side", (30, 47, 7))),
    ),
}


def apply_layout(card: EngineCard, key: str) -> None:
    """Fill an empty card with a usual lay-out: bearings, fits and seals, all marked as assumed."""
    layout = LAYOUTS[key]
    EngineCard.objects.filter(pk=card.pk).update(**layout.engine)
    centre = CasePart.objects.create(card=card, what=CasePart.What.CENTRE, name=gettext(layout.centre)) if layout.centre else None
    joined_anew(card)
    if centre:  # each half comes off the section
        EngineCard.objects.filter(pk=card.pk).update(lifts=HALVES[0])
        card.joints.exclude(uid=JOINT.uid).update(lifts=HALVES[1])
    made = {}
    for name, role, half, marking in layout.seats:
        part = centre.uid if centre and half == CENTRE else half
        fits: dict[str, Any] = {"designation": marking, "marking_assumed": True, "code": "N7", "code_assumed": True}
        made[name] = Seat.objects.create(
            card=card,
            name=gettext(name),
            role=role,
            half=part,
            source=gettext(TYPICAL),
            **fits,
        )
    for name, half, seat, (shaft, bore, width) in layout.seals:
        sizes = {"shaft_mm": shaft, "bore_mm": bore, "width_mm": width, "sizes_assumed": True}
        Seal.objects.create(card=card, name=gettext(name), half=half, seat=made[seat], source=gettext(TYPICAL), **sizes)
