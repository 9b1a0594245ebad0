"""Messages of Set end play by code."""

from __future__ import annotations

from django.utils.translation import gettext_lazy as _

from shopmath.amounts import kelvin, mm
from stator.engines.properties import Property
from stator.stations.framework.messages import BY_LIMIT, Methods, Options, fixed
from stator.stations.set_end_play.analysis import SQUARES, STACK, TABLE, WORST, Code

NAME = _("End float")
DRAWING = _("The stack across the crankcase")
EXAMPLE = fixed(
    _("Fit {shims}. {float} is above the limit of {limit}, with {margin} to spare."),
    shims=mm(0.3, 0.1),
    float=mm(0.122, 0.001, 0.003),
    limit=mm(0.1, 0.01),
    margin=mm(0.022),
)
DONE = _("end float set")

HEADLINE = {
    Code.TWO_CRANKS: _("Each crank has its own"),
    Code.MEASURE: _("Measure the stack"),
    Code.TOO_WARM: _("Too warm to judge"),
    Code.NO_SHIM: _("No shim fits"),
    Code.MEASURE_SHIM: _("Measure the shim"),
    Code.FIT: _("Fit {shims}"),
    Code.FIT_NONE: _("No shim needed"),
    Code.OUT: _("End float is out"),
    Code.TOO_CLOSE: _("Too close to call"),
}
REASON = {
    Code.TWO_CRANKS: _("Two cranks do not share one stack: this one would tell nothing of either."),
    **BY_LIMIT,
    Code.MEASURE: _("Each link counts, and so does its uncertainty."),
    Code.TOO_WARM: fixed(_("The case is more than {far} from the room: it is longer than it will be."), far=kelvin(15)),
    Code.MEASURE_SHIM: _("{shims} of the {whose} leaves {left} in {low} to {high}."),
    "kit_empty": _("No shim kit on the shelf: add one with its thicknesses first."),
    "none_fits": _("No {most} shims of this kit bring {free} into {low} to {high}: the nearest leaves {leaves}."),
    "outside_table": _("{distance} lies outside the table, which goes from {low} to {high}."),
}
NEXT = {
    Code.TWO_CRANKS: _("Leave this station out, and measure the float of each by dial once the case is closed."),
    Code.MEASURE: _("{question}"),
    "limits": _("Give the limits."),
    Code.TOO_WARM: _("Let it come to the room's temperature."),
    Code.NO_SHIM: _("Take another shim, or measure the stack again before anything is bought."),
    Code.MEASURE_SHIM: _("{question}"),
    "measure_it": _("Measure what goes in."),
    Code.FIT: _("Shim clean, on its side; then close and measure by dial."),
    Code.FIT_NONE: _("Close and measure by dial."),
    Code.OUT: _("Take another shim: the one measured is not what its bag says."),
    Code.TOO_CLOSE: _("Measure each link once more, or take the case's depth with a finer gauge."),
}
DETAIL = {
    "dial": _("± {uncertainty}; by dial again when the case is closed."),
    "dial_warm": _("± {uncertainty} cold; about {warm} when the engine is warm. By dial again when the case is closed."),
    "nearer": _("{others} would leave {others_left}, nearer the middle, with more pieces."),
}
ASSUMED: dict[str, str] = {}
WHOSE = {STACK: _("kit"), TABLE: _("table")}

QUESTION = {
    Property.CASE_TEMPERATURE: _("Temperature of the case"),
    Property.FACE_TO_BEARING: _("{side} case, face to bearing"),
    Property.SECTION_WIDTH: _("Width of the {part}, face to face"),
    Property.GASKET_CRUSHED: _("Gasket, crushed"),
    Property.CRANK_SHOULDERS: _("Crank, shoulder to shoulder"),
    Property.SHIMS_FITTED: _("Shims already in"),
    Property.TABLE_DISTANCE: _("Distance, as the manual has it"),
    Property.TABLE: _("The manual's table"),
    Property.TABLE_ROW: _("Between two rows: which shim?"),
    Property.END_FLOAT_LEAST: _("End float, at least"),
    Property.END_FLOAT_MOST: _("End float, at most"),
    Property.SHIM_THICKNESS: _("Shim of {piece} in your hand, measured"),
    Property.SHIM_SIDE: _("Which side do the shims go?"),
}
GASKET_AT = _("Gasket, crushed: {part}")
SIDE = {"left": _("Left"), "right": _("Right")}
WHERE = {
    Property.CASE_TEMPERATURE: _("warm aluminium is long"),
    Property.FACE_TO_BEARING: _("joint face to the ring's face the crank stands on"),
    Property.SECTION_WIDTH: _("beside the crank, over both faces"),
    Property.GASKET_CRUSHED: _("an old one, between the bolts"),
    Property.CRANK_SHOULDERS: _("where its rings stand"),
    Property.SHIMS_FITTED: _("measured, together"),
    Property.TABLE_DISTANCE: _("how it says"),
    Property.TABLE: _("distance shim; distance shim, in mm"),
    Property.END_FLOAT_LEAST: _("manual; better on the card, with its page"),
    Property.END_FLOAT_MOST: _("manual"),
    Property.SHIM_THICKNESS: _("clean, off the bag, three places"),
    Property.SHIM_SIDE: _("as the manual has it"),
}
SKIP = {
    Property.CASE_TEMPERATURE: _("as the room"),
    Property.GASKET_CRUSHED: _("no gasket"),
    Property.SHIMS_FITTED: _("none"),
}
OPTIONS: Options = {Property.SHIM_SIDE: (("left", _("left")), ("right", _("right")))}
ROW_LEAVES = _("leaves {left}")
NOT_THAT_SHIM = _("That is not the shim of {piece}: look at its bag, or at what sticks to it.")
LABEL = {
    Property.CASE_TEMPERATURE: _("temperature of the case"),
    Property.FACE_TO_BEARING: _("{part}, face to bearing"),
    Property.SECTION_WIDTH: _("width of the {part}"),
    Property.GASKET_CRUSHED: _("gasket, crushed"),
    Property.CRANK_SHOULDERS: _("crank, shoulder to shoulder"),
    Property.SHIMS_FITTED: _("shims already in"),
    Property.TABLE_DISTANCE: _("distance, as the manual has it"),
    Property.TABLE: _("the manual's table"),
    Property.TABLE_ROW: _("row of the table"),
    Property.END_FLOAT_LEAST: _("end float, at least"),
    Property.END_FLOAT_MOST: _("end float, at most"),
    Property.SHIM_THICKNESS: _("shim {stage}, measured"),
    Property.SHIM_SIDE: _("side of the shims"),
    Property.END_FLOAT_PREDICTED: _("end float by the stack"),
    "by table": _("end float by the manual's table"),
}
LIMIT_FROM = {"typed": _("as typed from the manual")}

METHOD: Methods = {
    "how": (_("End float found"), ((STACK, _("from the stack")), (TABLE, _("by the manual's table")))),
    "sum": (
        _("Uncertainties added up"),
        ((SQUARES, _("root sum of squares"), _("usual")), (WORST, _("worst case"), _("cautious"))),
    ),
}
AGAIN = _("Measure each link once more")
NOT_YET = _("Measure the stack and its shims first.")
CHECKS = {
    "home": (_("Bearings home in their seats, no gap to the shoulder; faces clean, no old gasket."), False),
    "zero": (_("Gauges zeroed on what they stand on."), False),
}
WARNINGS = {"manual": _("The manual's method and its side for the shim come before this one.")}
SOURCE = {
    "makes": (_("{link}"), _("makes room; ± {uncertainty}")),
    "takes": (_("{link}"), _("takes room; ± {uncertainty}")),
    "free": (_("End float without shims"), _("± {squares} by root sum of squares, ± {worst} in the worst case")),
    "wanted": (_("End float wanted"), _("{origin}")),
    "warm": (_("End float when warm"), _("case at {case}, crank at {crank}; the case grows more")),
    "kit": (_("Kit"), _("{sizes}")),
    "row": (_("Row {low} to {high}"), _("leaves {left}")),
}
TYPED = _("as typed")
ON_DRAWING = {
    "left": _("left case"),
    "right": _("right case"),
    "crank": _("crank"),
    "centre": _("centre"),
    "gasket": _("gasket"),
    "fitted": _("shims in"),
    "later": _("the end float stands here between its limits"),
}
