"""Sentences on a press joint that Apart and Together share, by code."""

from __future__ import annotations

from django.utils.translation import gettext_lazy as _

from stator.engines.properties import Property
from stator.stations.common.press_joint.analysis import Code
from stator.stations.framework.messages import Methods, OptionRow, Options, Sentences

HEADLINE: Sentences = {
    Code.MEASURE: _("Measure the joint"),
    Code.TOO_HOT: _("Too hot"),
    Code.NO_PRESS: _("No press"),
    Code.TOO_SMALL: _("Press too small"),
    Code.STRONG_ENOUGH: _("Press is strong enough"),
    Code.MAY_NOT_DO: _("Press may not do"),
}
REASON = {
    "enough": _("It takes {low} to {high}, likely {likely}; the press has {has}."),
    "enough_for_most": _("It takes {low} to {high}, likely {likely}; the press has {has}: enough for most, not for the tightest."),
    "too_small": _("It takes {low} to {high}, likely {likely}; the press has only {has}."),
    "no_press": _("It takes {low} to {high}. No press on the shelf."),
    "fluoro_rubber": _("{at} is above {most}: fluoro-rubber (FKM) left in the part gives off hydrofluoric acid."),
    "web_too_hot": _("{at} is past the {most} this web stands."),
    "pin_too_hot": _("A hardened pin at {at} goes soft: {most} at most, unless it is scrap."),
}
NEXT = {
    "ask": _("{question}"),
    "sizes": _("Give the sizes."),
    "less_heat": _("Less heat."),
    "less_heat_or_scrap": _("Less heat, or record the parts as scrap."),
    Code.NO_PRESS: _("Add the press and its capacity to the shelf first."),
    "larger_press": _("Not on this press. It would take a press of {needs} or more."),
    "larger_press_or_heat": _("Not on this press. It would take a press of {needs} or more, or the web at {web} with the pin left cold."),
    "required": _("{required}"),
}
DETAIL = {
    "past_yield": _("The web's hole is at {stress}, past its yield: the force is an upper bound, and the hole has stretched."),
    "perhaps_past_yield": _(
        "With the interference assumed, the web's hole may be at {stress}, past its yield: it may have stretched. Measure pin and hole."
    ),
}
ASSUMED = {"usual_grip": _("interference of a crankpin of this size"), "solid": _("pin without a hole")}

QUESTION = {
    Property.PIN_SHOWN: _("Crankpin diameter"),
    Property.PIN_DIAMETER: _("Crankpin diameter"),
    Property.PIN_HOLE: _("Hole in the web"),
    Property.PIN_LENGTH: _("Length of the pin in the web"),
    Property.WEB_WALL: _("Thinnest wall round the hole"),
    Property.WEB_WIDTH: _("Width of the web there"),
    Property.PIN_BORE: _("Hole through the pin"),
    Property.PIN_TAPER: _("Taper, 1 in"),
    Property.WEB_TEMPERATURE: _("Web will reach"),
    Property.PIN_TEMPERATURE: _("Pin will reach"),
    Property.THROW_ANGLE: _("Angle between the throws"),
}
WHERE = {
    Property.PIN_SHOWN: _("where it shows between the webs"),
    Property.PIN_DIAMETER: _("where it sits in the web"),
    Property.PIN_HOLE: _("two depths, the smaller"),
    Property.PIN_LENGTH: _("thickness of the web there"),
    Property.WEB_WALL: _("to the nearest edge of the web"),
    Property.WEB_WIDTH: _("right across, through the hole"),
    Property.PIN_BORE: _("oil way"),
    Property.PIN_TAPER: _("drawing, or two diameters"),
    Property.WEB_TEMPERATURE: _("at the joint itself"),
    Property.PIN_TEMPERATURE: _("it warms too, unless cooled"),
}
SKIP = {Property.PIN_BORE: _("assumed solid")}
WEB_TOO_NARROW = _("A {d} hole with {wall} of wall on each side needs a web at least {needs} wide.")
WALL_TOO_THICK = _("A web {web} wide with a {d} hole leaves {most} of wall on each side at most.")
BORE_TOO_LARGE = _("A {d} pin cannot have a hole as large.")
PIN_TOO_SMALL = _("The pin's hole is recorded as {bore}: the pin is larger.")
OPTIONS: Options = {}
LABEL = {
    Property.PIN_SHOWN: _("pin, across"),
    Property.PIN_DIAMETER: _("pin, across, in the web"),
    Property.PIN_HOLE: _("hole in the web"),
    Property.PIN_LENGTH: _("length of the pin in the web"),
    Property.WEB_WALL: _("thinnest wall round the hole"),
    Property.WEB_WIDTH: _("width of the web"),
    Property.PIN_BORE: _("hole through the pin"),
    Property.PIN_TAPER: _("taper of the pin, 1 in"),
    Property.WEB_TEMPERATURE: _("web will reach"),
    Property.PIN_TEMPERATURE: _("pin will reach"),
    Property.PRESS_PEAK: _("peak force"),
    Property.THROW_ANGLE: _("angle between the throws"),
}

METHOD: Methods = {
    "press": (_("Press"), ()),
    "joint": (_("Joint"), (("plain", _("plain pin")), ("taper", _("taper"), _("releases all at once")))),
    "condition": (_("It is"), (("dry", _("dry and clean")), ("oiled", _("oiled")))),
    "warmth": (_("Pressed"), (("cold", _("cold")), ("warm", _("web warmed"), _("pin stays cooler")))),
    "compound": (
        _("Compound in it"),
        (
            ("", _("none")),
            ("medium", _("medium strength")),
            ("high", _("high strength")),
            ("high temperature", _("high, for heat")),
        ),
    ),
}
WARNINGS = {
    "fumes": _(
        "Hot retaining compound gives off fumes. Ventilate the room and keep your face away from the work. "
        "Burnt fluoro-rubber (FKM) leaves hydrofluoric acid: do not touch the residue."
    ),
    "taper": _("A taper releases all at once: chain or strap the parts, stand aside, never over it."),
    "go": _("A press joint releases suddenly and throws parts. Close the guard, keep everyone out of line, and wear safety glasses."),
    "manual": _("The engine's and the press's manual come first; what is beyond them goes to a crank shop."),
}
SOURCE = {
    "grip_measured": (_("Interference"), _("± {uncertainty}; pin less hole, both measured")),
    "grip_card": (_("Interference"), _("± {uncertainty}; card, {origin}")),
    "grip_usual": (_("Interference"), _("± {uncertainty}; typical crankpin, shop rule")),
    "force": (_("Force"), _("{low} to {high}; {basis}")),
    "compound": (_("Compound's share"), _("{basis}")),
    "stress": (_("Stress at the hole"), _("yield from {yield_mpa}; Lamé, von Mises")),
    "stress_past": (_("Stress at the hole"), _("past its yield of {yield_mpa}, the force is an upper bound; Lamé, von Mises")),
    "ring": (_("The web holds like"), _("ring round the pin")),
    "press": (_("Press"), _("{force}; {name}")),
    "peak": (_("Peak reached"), _("load cell or typed")),
}
ON_DRAWING = {
    "ram": _("ram"),
    "guard": _("guard"),
    "carried": _("web carried on plates close round the pin, square on the bed"),
    "pin": _("pin"),
    "hole": _("hole"),
    "length": _("length"),
    "wall": _("wall"),
    "web": _("width of the web"),
    "web_c": _("web °C"),
    "pin_c": _("pin °C"),
    "low": _("{force} low"),
    "likely": _("{force} likely"),
    "high": _("{force} high"),
    "press": _("press"),
    "peak": _("peak {force}"),
    "later": _("its force"),
}

FORCE_AXIS = _("peak, as a share of the likeliest force")
FORCES, PREDICTED, BAND = _("Press forces"), _("predicted"), _("low to high estimate")
BAND_HELD = _("{inside} of {count} inside; the middle one {middle} of the likely")

OIL_SLOT, OIL_SLOT_WHERE = _("Oil slot of the rod faces"), _("or the mark on its shank")
OIL_SLOT_LABEL = _("oil slot of {part}")
OIL_SLOT_FACES: tuple[OptionRow, ...] = (
    ("left", _("the {left}")),
    ("right", _("the {right}")),
    ("none", _("neither: both sides alike")),
)
