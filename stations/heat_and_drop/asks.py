"""What is asked at each point of a heat, and what no answer can be."""

from __future__ import annotations

from typing import TYPE_CHECKING

from engines.models import Seat
from shop.models import Heater
from shopmath.checks import BadInput
from shopmath.verdict import WARM_K
from stations.base import Ask, Option
from stations.heat_and_drop import setup, thermometers, words

if TYPE_CHECKING:
    from stations.heat_and_drop.station import HeatAndDrop

CLOCKS = ("12", "3", "6", "9")
OUTCOMES = (
    Option("dropped", "dropped in", "home under its own weight or a push"),
    Option("tapped", "tapped home", "went in, needed the driver"),
    Option("jammed", "jammed", "stuck part way"),
    Option("crooked", "crooked", "cocked in the bore"),
)
HOME = ("dropped", "tapped")
CIRCLIP = (Option("in", "in its groove all round"), Option("loose", "not in its groove"))


def warmth(
    key: str,
    words: str,
    where: str = "",
    example: str = "",
    *,
    optional: bool = True,
    skip_means: str = "",
    quiet: bool = False,
    repeats: bool = False,
) -> Ask:
    """A temperature wanted, in °C unless said otherwise."""
    return Ask(key, words, where, "temperature", "C", optional, skip_means, (), repeats, quiet, 1.0, example)


def asks(work: HeatAndDrop) -> list[Ask]:
    """All asks of the moment; those of steps gone by stay, but are not asked in turn."""
    outer, partner = work.names()
    shaft = work.seat.on == Seat.On.SHAFT
    later = work.phase != "plan"
    size = f"{work.planned.fit.nominal_mm:.3f}" if not work.trouble else ""
    seat_words, ring_words = ("Shaft at the seat", "Bore of the bearing") if shaft else ("Bore of the seat", "Outside of the bearing")
    found = [
        warmth("room", "Air in the shop", "away from the oven", "21", skip_means="taken as 20 °C", quiet=later),
        Ask("seat", seat_words, "cold, two places", optional=True, skip_means=work.seat_known.otherwise, quiet=later, example=size),
        Ask("ring", ring_words, "cold", optional=True, skip_means="by its tolerance", quiet=later, example=size),
    ]
    if work.heater is not None and work.heater.method in (Heater.Method.OVEN, Heater.Method.HOT_PLATE):
        found.append(warmth("heat", f"{words.cap(work.heater_words())} set to", "", "120", skip_means="as the plan says", quiet=later))
    found.append(warmth("target", f"{words.cap(outer)} to reach", "in place of the plan's", quiet=True))
    stay = f"{words.cap(partner)} stays in the {work.chiller_words()}"
    found.append(Ask("stay", stay, "in place of the plan's", "time", "min", True, quiet=True, resolution=1.0))
    if work.phase in ("heating", "window", "after", "signed"):
        found += _temperatures(work, outer, partner)
    if work.phase in ("window", "after", "signed"):
        found.append(Ask("outcome", "What happened?", work.seat.name, "words", "", options=OUTCOMES))
    if work.phase in ("after", "signed"):
        if work.outcome in HOME:
            found += _seated(work, outer)
        found.append(Ask("note", "Anything to remember?", "for the next one who opens it", "words", "", True, "nothing noted"))
    return found


def _temperatures(work: HeatAndDrop, outer: str, partner: str) -> list[Ask]:
    where = {"case": f"beside the bore, {work.seat.side_name}", "bearing": "on the inner ring", "shaft": "on the seat"}
    quiet = work.phase != "heating"
    if work.means == "drop":
        drop = f"A drop of water on the {outer}"
        first = Ask("case", drop, where[outer], "words", "", options=thermometers.DROP, repeats=True, quiet=quiet)
    else:
        option = next(each for each in thermometers.means_of(work.gauges) if each.key == work.means)
        means = option.words[:1].lower() + option.words[1:]
        first = warmth("case", f"{words.cap(outer)}, by {means}", where[outer], "112", optional=False, repeats=True, quiet=quiet)
    return [first, warmth("partner", f"{words.cap(partner)}, as it comes out", where[partner], "-12", quiet=True)]


def _seated(work: HeatAndDrop, outer: str) -> list[Ask]:
    through = work.seat.stop == Seat.Stop.THROUGH
    part, what = ("depth", "Depth below the face") if through else ("gap", f"Gap to the {work.seat.get_stop_display()}")
    how = "" if through else "thinnest feeler that goes in; 0 for none"
    found = [Ask(f"{part}{clock}", f"{what}, at {clock} o'clock", how, example="0") for clock in CLOCKS]
    if work.seat.stop == Seat.Stop.CIRCLIP:
        found.append(Ask("circlip", "The circlip", "turn it in its groove", "words", "", options=CIRCLIP))
    if not through:
        cold = f"the {outer} within {WARM_K:.0f} K of the shop"
        found.append(Ask("cold", "Widest gap again, cold", cold, optional=True, skip_means="not checked cold", example="0"))
    return found


def check(work: HeatAndDrop, ask: Ask, value: float) -> None:
    """Refuse what cannot be, in words."""
    outer = work.names()[0]
    nominal = work.planned.fit.nominal_mm if not work.trouble else None
    if ask.key in ("seat", "ring") and nominal and abs(value - nominal) > 0.5:
        raise BadInput(
            ask.key, f"{value:g} mm is more than 0.5 mm from the nominal {nominal:g} mm. Measure again, or correct the engine card."
        )
    if ask.key.startswith(("gap", "cold", "depth")) and not 0 <= value <= 60:
        raise BadInput(ask.key, f"A gap is 0 or more; {value:g} mm was understood.")
    if ask.key == "room" and not -30 <= value <= 50:
        raise BadInput(ask.key, f"{value:.0f} °C is no air to work in. Check the unit.")
    if ask.key in ("case", "heat", "target", "partner") and not -100 <= value <= 700:
        raise BadInput(ask.key, f"{value:.0f} °C is beyond anything a {outer} should see. Check the unit.")
    if ask.key == "stay" and not 0 < value <= 48 * 3600:
        raise BadInput(ask.key, "A stay is longer than nothing and no longer than two days.")
    if ask.key == "heat" and value <= (work.value("room") or setup.ROOM_C):
        raise BadInput(ask.key, f"{value:.0f} °C is colder than the {outer} itself: it cannot heat it.")
    if ask.key == "cold" and not work.trouble and abs(work.run.outer().c - work.plan.setup.room_c) > WARM_K:
        warm = f"The {outer} is still about {work.run.outer().c:.0f} °C: too warm for a verdict."
        raise BadInput(ask.key, f"{warm} Wait until it is within {WARM_K:.0f} K of the shop.")
