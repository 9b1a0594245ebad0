"""Messages of Install flywheel by code."""

from __future__ import annotations

from django.utils.translation import gettext_lazy as _

from shopmath.amounts import newton_metres
from stator.engines.properties import Property
from stator.stations.framework.messages import BY_LIMIT, ON_THREADS, Methods, Options, fixed
from stator.stations.install_flywheel.analysis import Code

NAME = _("Flywheel on")
DRAWING = _("The flywheel on its taper")
EXAMPLE = fixed(
    _("Taper holds. It carries {carries} by friction; the nut wants {nut}."),
    carries=newton_metres(210),
    nut=newton_metres(55),
)
DONE = _("flywheel fitted")

HEADLINE = {
    Code.BLUE_IT: _("Clean, dry and blue it"),
    Code.LAP: _("Lap the taper"),
    Code.TAPER_SLIPS: _("Taper may slip"),
    Code.KEY_DIFFERS: _("Key does not match"),
    Code.TIMING: _("Key shifts the timing"),
    Code.NUT: _("Nut torque is off"),
    Code.RIM: _("Rim runout over limit"),
    Code.AIR_GAP: _("Air gap is off"),
    Code.GOING_ON: _("Flywheel going on"),
    Code.OPTIONAL_LEFT: _("On; measure the rest"),
    Code.ON: _("The flywheel is on"),
}
REASON = {
    **BY_LIMIT,
    "key_differs": _("Flywheel off found this key {found}{step}; here it is called sound."),
    "hollow": _("{share} of the cone carries, but it is hollow at the large end: the wheel would rock."),
    "carries_enough": _("{share} of the cone carries; {wanted} is needed."),
    "carries_too_little": _("{share} of the cone carries; {wanted} is needed."),
    "carries": _("The taper carries {low} to {high} by friction; the engine asks {asked}."),
    "carries_band": _("The taper carries {low} to {high} by friction alone. The key only locates the flywheel."),
    "carries_beside": _("The taper carries {low} to {high} by friction alone; the wheel's inertia asks about {asks_low} to {asks_high}."),
    "carries_little": _(
        "The taper carries {low} to {high} by friction; the wheel's inertia asks about {asks_low} to {asks_high}: lap it, and "
        "keep to the nut's torque."
    ),
    "key_places": _("The taper drives; the key only places the wheel."),
    "ahead": _("The offset key advances the ignition by {shift}."),
    "back": _("The offset key retards the ignition by {shift}."),
}
STEP = _(", stepped by {step}")
FOUND_KEY = {"stepped": _("stepped"), "sheared": _("sheared or worn")}
NEXT = {
    "ask": _("{question}"),
    "ask_or_skip": _("{question} Or skip it."),
    "look_at_key": _("Look at the key again: answer new if it was replaced, otherwise as it is."),
    "lap": _("Lap it with fine paste, the wheel turned on the bare shaft without its key; wash both and blue it again."),
    "more_grip": _("Clean and dry it, improve the contact, torque as the manual says; a key does not drive it."),
    "set_ignition": _("Set the ignition to it."),
    "new_key": _("Fit a new key: this one lets the wheel turn."),
    "to_torque": _("Tighten it to the manual's torque."),
    "off_again": _("Take it off again: dirt on the taper, or a bent shaft."),
    "shift_coil": _("Shift the coil until the gap is within its limits."),
    "sign": _("Sign this entry."),
}
DETAIL = {"ahead": REASON["ahead"], "back": REASON["back"]}
ASSUMED = {
    "cone": _("middle of the cone {cone}"),
    "taper": _("the wheel sits on a taper"),
    "limit": _("what the figure {name} limits"),
}

QUESTION = {
    Property.CONTACT_SHARE: _("How much of the taper shows blue?"),
    Property.CONTACT_AT_LARGE_END: _("Does the blue reach the large end?"),
    Property.KEY_CONDITION: _("The key is"),
    Property.KEY_STEP: _("Step of the key"),
    Property.CONE_DIAMETER: _("Middle of the cone, across"),
    Property.TORQUE_TO_CARRY: _("Torque it must carry"),
    Property.NUT_TORQUE: _("Nut tightened to"),
    Property.RIM_RUNOUT: _("Runout of the rim (TIR)"),
    Property.AIR_GAP: _("Air gap to the coil"),
}
WHERE = {
    Property.CONTACT_SHARE: _("blued thin, pushed on by hand, turned a little"),
    Property.KEY_CONDITION: _("and its keyways, in shaft and wheel"),
    Property.KEY_STEP: _("plus when the wheel stands ahead as it turns"),
    Property.CONE_DIAMETER: _("calliper"),
    Property.TORQUE_TO_CARRY: _("the most the engine asks of it"),
    Property.RIM_RUNOUT: _("one turn by hand"),
    Property.AIR_GAP: _("where it is narrowest"),
}
BY_CARD, BY_MANUAL = _("{torque} by the card"), _("by the manual's page")
SKIP = {
    Property.CONE_DIAMETER: _("estimated from the shaft, or unknown"),
    Property.TORQUE_TO_CARRY: _("not known"),
    Property.RIM_RUNOUT: _("not measured"),
    Property.AIR_GAP: _("not measured"),
}
OPTIONS: Options = {
    Property.CONTACT_AT_LARGE_END: (("yes", _("yes, a closed ring")), ("no", _("no, hollow there"))),
    Property.KEY_CONDITION: (
        ("sound", _("the same, sound")),
        ("new", _("a new one")),
        ("stepped", _("stepped on purpose")),
        ("sheared", _("sheared or worn")),
        ("none", _("there is none")),
    ),
}
LABEL = {
    Property.CONTACT_SHARE: _("contact of the taper"),
    Property.CONTACT_AT_LARGE_END: _("contact at the large end"),
    Property.KEY_CONDITION: _("key"),
    Property.KEY_STEP: _("step of the key"),
    Property.CONE_DIAMETER: _("middle of the cone"),
    Property.TORQUE_TO_CARRY: _("torque to carry"),
    Property.NUT_TORQUE: _("torque of the flywheel nut"),
    Property.RIM_RUNOUT: _("runout of the rim"),
    Property.AIR_GAP: _("air gap"),
}
METHOD: Methods = {"nut": (_("Thread of the nut is"), ON_THREADS)}
CHECKS = {
    "dry": (_("Taper, bore and keyways wiped dry; no oil, no burr; magnets free of chips."), True),
    "hold": (_("The flywheel is held while the nut is tightened, not the crank."), False),
}
WARNINGS = {
    "magnet": _("Magnets pull the wheel on: keep fingers clear and ease it over the coils."),
    "first": _("First run with the cover on, nobody in line with the rim."),
    "manual": _("The manual's torque and gap come first."),
}
ACTION = {"lapped": _("Lapped: blue it again")}
SOURCE = {
    "seats": (_("Nut seats it with"), _("{basis}")),
    "asks": (_("Asked by the wheel"), _("{basis}; a blow comes on top")),
    "carries": (_("Taper carries"), _("friction, normal force and half the cone's diameter")),
    "cone": (_("Cone"), _("{factor} times the shaft at the key")),
    "shift": (_("Timing"), _("2·asin(step/shaft); {allowed} is allowed, shop rule")),
    "rim": (_("Runout of the rim"), _("no limit on the card: recorded, not judged")),
    "gap": (_("Air gap"), _("no limit on the card: recorded, not judged")),
    "limit": (_("{name}"), _("{limits}; {source}")),
}
ON_DRAWING = {
    "carries": _("{share} carries"),
    "ratio": _("1:{ratio}"),
    "taper_unknown": _("taper unknown"),
    "straight": _("straight"),
    "contact": _("contact in ink along the cone; the key only places the wheel"),
    "step": _("by the key's step; drawn {times} times"),
}
