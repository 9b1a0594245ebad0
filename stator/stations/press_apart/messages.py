"""Every sentence of Apart, by code."""

from __future__ import annotations

from django.utils.translation import gettext_lazy as _

from shopmath.amounts import newtons
from stator.engines.properties import Property
from stator.stations.common.press_joint import messages as joint
from stator.stations.framework.messages import Methods, Options, Sentences, fixed
from stator.stations.press_apart.analysis import Code

NAME = _("Apart")
DRAWING = _("The joint under the press, to be parted")
EXAMPLE = fixed(
    _("Press is strong enough. Pump to {low}, look, then on slowly; stop at {stop}."),
    low=newtons(18_000),
    stop=newtons(46_000),
)
DONE = _("crank pressed apart")

HEADLINE: Sentences = {
    **joint.HEADLINE,
    Code.MARK_FIRST: _("Mark it first"),
    Code.LOOSE: _("Joint was loose"),
    Code.HARDER: _("Harder than planned"),
    Code.PARTED: _("Parted as planned"),
}
REASON = {
    **joint.REASON,
    "sizing": _("What it takes to start the pin follows from its size and the metal round it."),
    Code.LOOSE: _("It released at {peak}, under the {low} that even a slack joint takes."),
    Code.HARDER: _("It released at {peak}, over the {high} expected."),
    Code.PARTED: _("It released at {peak}, within {low} to {high}."),
}
NEXT = {
    **joint.NEXT,
    "pump": _("Pump to {low}, look, then on slowly. Stop at {stop}: something else holds it."),
    "pump_taper": _(
        "Restrain it: a taper releases all at once. Pump to {low}, look, then on slowly. Stop at {stop}: something else holds it."
    ),
    Code.LOOSE: _("Measure pin and hole: this joint had moved before."),
    Code.HARDER: _("Look for scoring, rust or compound; measure pin and hole before anything goes back."),
    Code.PARTED: _("Measure pin and hole, lay the parts out in order."),
}
DETAIL = joint.DETAIL
ASSUMED = joint.ASSUMED
QUESTION = {
    **joint.QUESTION,
    Property.PRESS_PEAK: _("Peak force when it released"),
    Property.OIL_SLOT: joint.OIL_SLOT,
    Property.PARTS_ORDER: _("Parts, order and sides"),
    Property.SCORED: _("Is a hole or the pin scored?"),
}
WHERE = {
    **joint.WHERE,
    Property.PRESS_PEAK: _("pump slowly, watch the needle"),
    Property.OIL_SLOT: joint.OIL_SLOT_WHERE,
    Property.PARTS_ORDER: _("as they came, left to right"),
    Property.THROW_ANGLE: _("from the first pin, counter-clockwise seen from the right end"),
}
SKIP = {**joint.SKIP, Property.OIL_SLOT: _("not looked at"), Property.PARTS_ORDER: _("nothing noted")}
OPTIONS: Options = {Property.OIL_SLOT: joint.OIL_SLOT_FACES, Property.SCORED: (("yes", _("yes")), ("no", _("no")))}
LABEL = {
    **joint.LABEL,
    Property.OIL_SLOT: joint.OIL_SLOT_LABEL,
    Property.PARTS_ORDER: _("parts, order and sides"),
    Property.SCORED: _("hole or pin scored"),
}
METHOD: Methods = {
    **joint.METHOD,
    "sizes": (
        _("Interference known from"),
        (("usual", _("its size"), _("nothing can be reached")), ("measured", _("pin and hole measured"))),
    ),
    "scrap": (_("Pin and bearing are"), (("keep", _("to be used again")), ("scrap", _("scrap already")))),
}
LETS_GO = _("That compound releases at {low} to {high}: past what a hardened pin stands. Only for scrap.")
CHECKS = {
    "marked": (_("Both webs and the pin marked across the joint, so that they go back as they were."), True),
    "guard": (_("Guard shut, ring square and close round the pin, the lower half caught on something soft."), True),
    "dry": (_("Fuel, oil and chlorinated cleaner all off before heat: the fumes are toxic."), True),
}
SOURCE = joint.SOURCE
