"""Cranks and seats of the demo: inspected, parted, pressed together."""

from __future__ import annotations

from datetime import datetime, timedelta

from shopmath.iso286 import limits
from stator.demo.demo_user import DemoUser
from stator.engines.fact_keys import FactKey, Location
from stator.engines.fits import nominal_of
from stator.engines.models import EngineCard, Seat
from stator.engines.parts import rod
from stator.engines.properties import Property
from stator.jobs import log
from stator.jobs.models import Job
from stator.stations.common.press_joint.analysis import at as joint_at
from stator.stations.inspect_parts.analysis import TWO_RODS, WIDTHS
from stator.stations.inspect_parts.seats import ROUND
from stator.stations.set_end_play.analysis import links_of, shim
from stator.workbench.work_plan import skip_station

OVAL = (0.000, 0.003, 0.002, -0.001, 0.002, 0.001)  # how the six diameters differ from the first, mm


def of(seat: Seat, what: Property) -> str:
    """The question about a seat."""
    return FactKey(seat.part, what).key


def bearing(seat: Seat, history: str = "yes") -> list[tuple[str, str]]:
    """A bearing looked at in the hand."""
    answers = (
        (Property.BEARING_MARKING, seat.designation),
        (Property.HIT_THROUGH_BALLS, "no"),
        (Property.BEARING_HISTORY, history),
        (Property.BEARING_FEEL, "clean"),
        (Property.RACES, "no"),
    )
    return [(of(seat, what), text) for what, text in answers]


def diameters(seat: Seat, above_mm: float) -> list[tuple[str, str]]:
    """Return six readings well above the lowest value that the code allows."""
    nominal = nominal_of(seat)
    lowest = nominal + limits(seat.code, nominal).lower_um / 1000 if seat.code else nominal
    slots = (FactKey(seat.part, Property.SEAT_DIAMETER, place) for place in ROUND)
    return [(fact_key.key, f"{lowest + above_mm + off:.3f}") for fact_key, off in zip(slots, OVAL, strict=True)]


WIDTHS_MM = ("55.94", "55.95", "55.96", "55.95")


def looked_at(job: Job) -> list[tuple[str, str]]:
    """The crank: plays, widths, no damage, the old masses."""
    found = [
        (FactKey(rod(1), Property.SMALL_END_PLAY).key, "-"),
        *((fact_key.key, text) for fact_key, text in zip(WIDTHS, WIDTHS_MM, strict=True)),
    ]
    for number in (1, 2) if job.card.layout in TWO_RODS else (1,):
        found.append((FactKey(rod(number), Property.BIG_END_RADIAL_PLAY).key, "0"))
        found.append((FactKey(rod(number), Property.BIG_END_SIDE_PLAY).key, "0.36"))
    return [*found, ("damage", "none"), ("masses", "same")]


def inspected(shed: DemoUser, job: Job, at: datetime) -> None:
    """Everything looked at, nothing out of the way."""
    shed.answer(job, "inspect", None, at, *looked_at(job))
    for seat in job.card.seats.all():
        shed.act(job, "inspect", None, at, "next")
        found, hidden = bearing(seat), of(seat, Property.SLOW_AND_HIDDEN)
        if any(question.key == hidden for question in shed.at(job, "inspect", None, at).questions()):
            found.append((hidden, "no"))
        found.append((of(seat, Property.SEAT_TEMPERATURE), "-"))
        ring = (of(seat, Property.RING_DIAMETER), "-")
        if seat.measured_mm and not seat.code:
            first = FactKey(seat.part, Property.SEAT_DIAMETER, ROUND[0]).key
            shed.answer(job, "inspect", None, at, *found, (first, "-"), ring)
            continue
        shed.answer(job, "inspect", None, at, *found, *diameters(seat, 0.009))
        rest = [(of(seat, Property.VEE_RUNOUT), "-")] if seat.on == Seat.On.SHAFT else []
        shed.answer(job, "inspect", None, at, *rest, ring)
    shed.act(job, "inspect", None, at, "sign")


def _sizes(diameter: float) -> list[tuple[str, str]]:
    sizes = (("PIN_LENGTH", f"{0.72 * diameter:.0f}"), ("WEB_WALL", f"{0.45 * diameter:.0f}"), ("WEB_WIDTH", f"{3.6 * diameter:.0f}"))
    return [(joint_at(Property[what]).key, text) for what, text in (*sizes, ("PIN_BORE", "-"))]


def _angle(job: Job, text: str) -> list[tuple[str, str]]:
    return [] if job.card.layout == EngineCard.Layout.SINGLE else [("throw-angle", text)]


PEAK = joint_at(Property.PRESS_PEAK).key


def parted(shed: DemoUser, job: Job, at: datetime) -> None:
    shed.answer(job, "apart", None, at, *_angle(job, "180"), (joint_at(Property.PIN_SHOWN).key, "22"), *_sizes(22))
    shed.tick(shed.at(job, "apart", None, at))
    shed.answer(job, "apart", None, at, (PEAK, "36 kN"), ("parts-order", "pin's oil hole toward the drive side"), ("scored", "no"))
    shed.act(job, "apart", None, at, "sign")


def together(shed: DemoUser, job: Job, at: datetime) -> None:
    pin = [(joint_at(Property.PIN_DIAMETER).key, "22.064"), (joint_at(Property.PIN_HOLE).key, "22.001")]
    shed.answer(job, "together", None, at, *pin, *_sizes(22))
    shed.tick(shed.at(job, "together", None, at))
    widths = [(fact_key.key, text) for fact_key, text in zip(WIDTHS, ("55.96", "55.95", "55.94", "55.95"), strict=True)]
    going = (("width-as-it-goes", "57.2"), ("width-as-it-goes", "-"))
    side = (FactKey(rod(1), Property.BIG_END_SIDE_PLAY).key, "0.34")
    shed.answer(job, "together", None, at, *going, (PEAK, "31 kN"), *widths, side, *_angle(job, "180.1"))
    shed.act(job, "together", None, at, "sign")


def on_the_press(shed: DemoUser, job: Job, now: datetime) -> None:
    """Sized, marked, waiting for the pump."""
    shed.done_before(job, "apart", now)
    at = now - timedelta(minutes=12)
    shed.answer(job, "apart", None, at, (joint_at(Property.PIN_SHOWN).key, "20"), *_sizes(20))
    shed.tick(shed.at(job, "apart", None, at))


def under_the_gauge(shed: DemoUser, job: Job, now: datetime) -> None:
    """Record a seat at its limit, whose verdict is too close to call."""
    shed.done_before(job, "inspect", now)
    at = now - timedelta(minutes=25)
    shed.answer(job, "inspect", None, at, *looked_at(job))
    shed.act(job, "inspect", None, at, "next")
    seat = job.card.seats.order_by("pk")[0]
    close = [(key, f"{float(text) + 0.0225:.3f}") for key, text in diameters(seat, 0.0)]
    left = ((of(seat, Property.SEAT_TEMPERATURE), "-"), (of(seat, Property.RING_DIAMETER), "-"))
    shed.answer(job, "inspect", None, at, *bearing(seat, history="no"), left[0], *close, left[1])


def floated(shed: DemoUser, job: Job, at: datetime) -> None:
    """The stack measured, its shims fitted."""
    known = job.card.specs.filter(property=Property.END_FLOAT).exists()
    limits = [] if known else [("end-float-least", "0.10"), ("end-float-most", "0.20")]
    sizes = ("-", "38.42", "31.10", "-", "69.11", "-")
    keys = ("case-temperature", *(link.slot.key for link in links_of(job.card)))
    shed.answer(job, "end-float", None, at, *zip(keys, sizes, strict=True), *limits)
    pieces: tuple[float, ...] = shed.at(job, "end-float", None, at).analysis.pieces
    shed.answer(job, "end-float", None, at, *((shim(number).key, f"{piece:.3f}") for number, piece in enumerate(pieces, 1)))
    shed.answer(job, "end-float", None, at, ("shim-side", "right"))
    shed.act(job, "end-float", None, at, "sign")


def off_the_middle(shed: DemoUser, job: Job, now: datetime) -> None:
    """Closed, both gaps felt: not in the middle yet."""
    skip_station(job.run.get(key="heat-and-drop"), shed.skipper, "bearings were in from the last time")
    shed.done_before(job, "centre", now)
    shed.answer(job, "centre", None, now - timedelta(minutes=9), ("side-gap.left", "0.10"), ("side-gap.right", "0.28"))


SET_UP = ("end-thread-diameter", "end-thread-pitch", "adapter-turns", "travel")


def pulled_in(shed: DemoUser, job: Job, at: datetime) -> None:
    """Pull the crank in by the inner ring until it is seated on both sides."""
    shed.answer(job, "crank-in", None, at, *zip(SET_UP, ("11.95", "1.25", "9", "18"), strict=True))
    shed.tick(shed.at(job, "crank-in", None, at))
    shed.act(job, "crank-in", None, at, "begin")
    for turns, torque in (("4", "4 Nm"), ("8", "5 Nm"), ("12", "26 Nm")):
        shed.answer(job, "crank-in", None, at, ("screw-turns-done", turns))
        shed.answer(job, "crank-in", None, at, ("screw-torque", torque))
    shed.act(job, "crank-in", None, at, "home")
    shed.answer(job, "crank-in", None, at, ("home-gap.left", "0.05"), ("home-gap.right", "0.06"))
    shed.act(job, "crank-in", None, at, "sign")


def closed(shed: DemoUser, job: Job, at: datetime) -> None:
    """Every bolt in its rounds."""
    job.tray.update(emptied_at=at)
    shed.answer(job, "close", None, at, ("gears", "all"))
    shed.tick(shed.at(job, "close", None, at))
    shed.act(job, "close", None, at, "close")
    skipped = [
        question.key
        for question in shed.at(job, "close", None, at).questions()
        if question.slot and question.slot.what == Property.BOLT_TORQUE
    ]
    entry = shed.at(job, "close", None, at).entry
    assert entry is not None
    log.set_method(entry, skipped=skipped)
    shed.act(job, "close", None, at, "sign")


def sealed(shed: DemoUser, job: Job, at: datetime) -> None:
    """Install each seal by its sizes, with the lip toward what it retains, flush."""
    seals = list(job.card.seals.all())
    if not seals:
        shed.note(job, "seals", "Both in, lips to the case, flush all round.", at)
        return
    for index, seal in enumerate(seals):
        if index:
            shed.act(job, "seals", None, at, "next")
        saved = "oil" if seal.lip != "outside" else "dirt"
        sizes = ((Property.SEAL_SHAFT, f"{seal.shaft_mm:g}"), (Property.SEAL_BORE, f"{seal.bore_mm:g}"), (Property.SEAL_KEEPS, saved))
        known = [(FactKey(seal.part, what).key, text) for what, text in (*sizes, (Property.SEAL_LIP, seal.lip or "inside"))]
        depths = ((12, "0.05"), (3, "0.00"), (6, "0.08"), (9, "0.05"))
        read = [(FactKey(seal.part, Property.SEAL_DEPTH, Location(clock=clock)).key, text) for clock, text in depths]
        shed.answer(job, "seals", None, at, *known, *read, (FactKey(seal.part, Property.BEARING_FACE_DEPTH).key, "-"))
    shed.act(job, "seals", None, at, "sign")
