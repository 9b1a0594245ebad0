"""Every sentence of the quick checks that no station has already."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from django.utils.translation import gettext_lazy as _

from shopmath.amounts import celsius
from stator.stations.framework import RenderedVerdict, Scale
from stator.stations.framework.messages import fixed, sentence

FIT_CHANGES = {
    "no_chill": _("Without chilling: {call}."),
    "freezer": _("With the other part in the freezer: {call}."),
    "heat_torch": _("With a torch at the seat alone: {call}."),
    "heat_oven": _("With an oven: {call}."),
    "tighter": _("In a seat of {code}: {call}."),
}
THREAD_DRAWING = _("The thread's flanks")
THREAD_OFF = _("pitch off by {pitch}, diameter by {diameter}, flanks {flank}°")
SHIM_ROWS = {"free": _("End float without shims"), "shim": _("Shim")}
AS_TYPED = _("typed in a quick check")
AS_BAGGED = _("as marked on its bag; measure it before it goes in")
RUNOUT_DRAWING = _("The crank on its supports")
RUNOUT_HELD = {"its": _("As the limit's page holds it"), "here": _("As you hold it")}
RUNOUT_ROWS = {"sure": _("Surely within the limit up to"), "never": _("Surely over the limit above")}
BOLT_SOURCE = _("as typed: class {bolt_class}, {engaged} in the case")
WEAK = {"bolt": _("the bolt"), "thread": _("the thread in the case")}
BOLT_ROWS = {
    "preload": _("Preload"),
    "preload_from": _("by what is on the thread; estimate"),
    "proof": _("Proof load of the bolt"),
    "strip": _("Thread in the case strips at"),
}
UNBALANCE_ROWS = {
    "pulls": _("That much pulls"),
    "pulls_at": _("at the highest speed"),
    "at_radius": _("Mass at that radius"),
    "hole": _("Depth of one hole in steel"),
    "hole_of": _("6 mm drill, its point not counted"),
}
PLUG_TYPICAL = fixed(_("at {typical}, typical: not told"), typical=celsius(110))
PLUG_DRAWING, PLUG_SIZE = _("The plug over its hole"), _("turn to {size}")
PLUG_ROWS = {
    "cold_short": _("Grips cold"),
    "hot_short": _("Grips hot"),
    "cold": _("Interference cold"),
    "hot": _("Interference at its hottest"),
    "force": _("Force to push it in cold, oiled"),
    "drops": _("Case at which it drops in, plug cold"),
    "stress": _("Stress at the bore, tightest"),
    "too_hot": _("hotter than a cast case is made for a plug: chill the plug too"),
}
CONVERT = _("0.0025 in, 52.5 thou, 230 F, 20 kN, 12 psi, 1 1/4 in")
UNIT_NAMES = {
    "mm": _("millimetres"),
    "um": _("micrometres"),
    "inch": _("inches"),
    "thou": _("thousandths of an inch"),
    "degC": _("degrees Celsius"),
    "degF": _("degrees Fahrenheit"),
    "kelvin": _("kelvin"),
    "K": _("kelvin, as a difference"),
    "delta_degF": _("degrees Fahrenheit, as a difference"),
    "N*m": _("newton metres"),
    "ft_lb": _("foot pounds"),
    "inch*lbf": _("inch pounds"),
    "kgf*m": _("kilogram-force metres"),
    "N": _("newtons"),
    "kN": _("kilonewtons"),
    "lbf": _("pounds-force"),
    "kgf": _("kilograms-force"),
    "US_ton_force": _("short tons"),
    "g": _("grams"),
    "kg": _("kilograms"),
    "oz": _("ounces"),
    "lb": _("pounds"),
    "kPa": _("kilopascals"),
    "bar": _("bar"),
    "psi": _("pounds to the square inch"),
    "inHg": _("inches of mercury"),
    "rpm": _("revolutions a minute"),
    "deg": _("degrees"),
    "s": _("seconds"),
    "min": _("minutes"),
    "tpi": _("threads per inch"),
}
UNIT_SIGNS = {
    "um": "µm",
    "inch": "in",
    "degC": "°C",
    "degF": "°F",
    "kelvin": "K",
    "delta_degF": "°F",
    "N*m": "N·m",
    "ft_lb": "ft-lb",
    "inch*lbf": "in-lb",
    "kgf*m": "kgf·m",
    "US_ton_force": "short tons",
}
# by check and code: headline, reason, next step
CALLS: dict[str, dict[str, tuple[Any, Any, Any]]] = {
    "any": {"begin": (_("Ready"), "", ""), "cannot": (_("Cannot be worked out"), _("{reason}"), "")},
    "thread": {
        "sure": (_("It is {thread}"), _("Its pitch is off by {off}, and no other thread is near."), _("Try it by hand with a known nut.")),
        "two": (
            _("Too close to call"),
            _("{thread} and {other} are both near."),
            _("Use a leaf gauge over ten turns, or try both by hand: neither may be forced."),
        ),
        "off": (
            _("Too close to call"),
            _("{thread} is nearest, but its pitch is off by {off}."),
            _("Measure the pitch again, over ten turns."),
        ),
        "none": (
            _("No thread is near"),
            _("Nothing in the tables is within 0.15 mm of pitch and 0.9 mm of diameter."),
            _("Measure again."),
        ),
    },
    "runout": {
        "band": (
            _("At most {low} here"),
            _("Up to {low} every crank is within the limit; above {high} none is."),
            _("Type what your gauge reads to get a call."),
        ),
        "in": (_("Runout within limit"), _("{read} is under {low}, at which every crank is within the limit."), ""),
        "too_close": (
            _("Too close to call"),
            _("{read} lies between {low} and {high}: it depends on how the crank is bent."),
            _("Measure at the supports that the limit is meant for."),
        ),
        "out": (_("Runout over limit"), _("{read} is over {high}, above which no crank is within the limit."), _("True the crank.")),
    },
    "bolt": {
        "holds": (_("Torque is safe"), _("{band} of preload; {part} stands {weak}."), ""),
        "near": (
            _("Too close to call"),
            _("{band} of preload: near what {part} stands, {weak}."),
            _("Tighten less, or find out what is on the thread."),
        ),
        "past": (_("Do not tighten so far"), _("{band} of preload: more than {part} stands, {weak}."), _("Look the torque up again.")),
        "cannot": (_("Cannot be worked out"), _("{reason}"), ""),
    },
    "unbalance": {
        "allowed": (_("{allowed} allowed"), _("By its grade, mass and speed (ISO 21940-11)."), _("The manual's figure goes first.")),
    },
    "plug": {
        "grips": (
            _("Turn it to {size}"),
            _("It keeps {hot} of interference at {hottest}; the bore is strained to {stress} of {yields}."),
            _("Case at {drops}, plug cold: it drops in. Wipe the hole, a film of retaining compound, home in one go."),
        ),
        "strained": (
            _("Turn it to {size}"),
            _("That strains the bore to {stress} of the {yields} where it gives way: near its limit."),
            _("Rather a plug of the case's own metal, or a longer one with less grip and compound."),
        ),
        "unsure": (_("Turn it to {size}"), _("What this metal stands is not in the tables."), _("Try it on a scrap case first.")),
        "yields": (
            _("Not as a press fit"),
            _("A plug that holds at {hottest} strains the bore to {stress}, over the {yields} where it gives way."),
            _("Tap the hole and close it with a threaded plug and compound, or turn the plug from the case's own metal."),
        ),
    },
    "convert": {
        "same": (_("{first}"), _("{text}, in other units below."), ""),
        "cannot": (_("Type a number and a unit"), _("{reason}"), ""),
    },
}


def said(check: str, state: str, code: str, values: Mapping[str, Any] | None = None, scale: Scale | None = None) -> RenderedVerdict:
    """Return the verdict of a check as text."""
    known = values or {}
    headline, reason, move = CALLS[check][code]
    table = {"headline": headline, "reason": reason, "next": move}
    return RenderedVerdict(
        state, sentence(table, "headline", known), sentence(table, "reason", known), sentence(table, "next", known), scale=scale, code=code
    )
