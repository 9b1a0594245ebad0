"""Every sentence of Inspect, by code."""

from __future__ import annotations

from django.utils.translation import gettext_lazy as _

from shopmath.amounts import celsius, kelvin, mm
from stator.engines.properties import Property
from stator.stations.framework.messages import BY_LIMIT, Options, Sentences, fixed
from stator.stations.inspect_parts.analysis import BIG_END, FLAT, MASSES, ROD, SMALL_END, UPRIGHT, WHOLE, Code

NAME = _("Inspect")
DRAWING = _("The part in hand and where it is measured")
EXAMPLE = fixed(
    _("Seat holds the bearing. The bore is {size}; {margin} inside its limit."),
    size=mm(46.984, 0.001, 0.003),
    margin=mm(0.004),
)
DONE = _("parts measured")
IN_HAND = _("In hand")
TABS = {WHOLE: _("Crank"), ROD: _("Rod"), MASSES: _("Balance factor")}
OF_ROD = _(" of {rod}")
ROD_END = {SMALL_END: _("Small end"), BIG_END: _("Big end")}
ROD_LIES = {UPRIGHT: _("rod upright"), FLAT: _("rod flat")}

HEADLINE = {
    Code.MEASURE: _("Measure it"),
    Code.DAMAGED: _("Damage found"),
    Code.RECORDED: _("Recorded, not judged"),
    Code.WITHIN: _("Good so far"),
    Code.FIGURE_OUT: _("{figure} is out"),
    Code.TOO_CLOSE: _("{figure} too close"),
    Code.KEEP: _("Keep the bearing"),
    Code.MAY_STAY: _("The bearing may stay"),
    Code.REPLACE: _("Replace the bearing"),
    Code.WEIGH: _("Weigh the parts"),
    Code.FACTOR: _("Balance factor {factor}"),
    Code.REPLACED: _("Bearings to be replaced"),
}
FIGURE = {
    Property.BIG_END_RADIAL_PLAY: _("Big-end up-and-down play"),
    Property.BIG_END_SIDE_PLAY: _("Big-end side play"),
    Property.SMALL_END_PLAY: _("Small-end play"),
    Property.SMALL_END_TILT: _("Tilt at the small end"),
    Property.WIDTH_OVER_WEBS: _("Width over the webs"),
    Property.ROD_BEND: _("Bend of the rod over 100 mm"),
    Property.ROD_TWIST: _("Twist of the rod over 100 mm"),
    "parallel": _("Webs out of parallel"),
    "size": _("Size"),
    "taper": _("Taper"),
    "ovality": _("Ovality"),
    "lobes": _("Three lobes"),
}
REASON = {
    **BY_LIMIT,
    "radial": _("Up and down along the throw is wear: there should be none to feel. Side play is there by design."),
    "side": _("Side to side is design: the card says how much. Up and down was wear."),
    "first": _("Measure before you judge: a clean part can be worn out."),
    "bearing_first": _("The bearing first, while it is in the hand: it stays or goes by rule, not by feel."),
    "around": _("Two depths, three angles: a seat can be oval or bell-mouthed where one reading looks right."),
    "rod": _("A bent or twisted rod wears its piston and its bearings from the first start. Two bars show it."),
    "masses": _("With other masses the crank balances another share of them."),
    "damage": _("{damage}"),
    "no_limits": _("The card gives no limits for what was measured here."),
    "no_limits_at_all": _("No limits on the card: nothing was judged."),
    "nothing": _("Nothing was measured here."),
    "too_warm": fixed(
        _("Measured more than {far} from the room: no verdict on its size. Let it come to the room's temperature."), far=kelvin(15)
    ),
    "figure": _("{figure}: {verdict}"),
    "keeping": _("{reasons}."),
    "keeping_unknown": _("{reasons}. Not known: {unknown}."),
    "weigh": _("The factor needs the mass that hangs it level, the small end and all that moves."),
    "factor_new": _("What it was is not known: recorded, not judged."),
    "factor_more": _("{old} as it was, {factor} with the new masses: the crank balances more of them."),
    "factor_less": _("{old} as it was, {factor} with the new masses: the crank balances less of them."),
    "seats": _("{seats}."),
    "may_stay": _("{seats}: looked at and felt, not proved."),
}
FAULT = {  # what it means when a figure is out
    Property.BIG_END_RADIAL_PLAY: _("the big-end bearing, pin or rod is worn"),
    Property.BIG_END_SIDE_PLAY: _("washers or webs have rubbed: side play is set by design"),
    Property.SMALL_END_PLAY: _("the small-end eye, pin or cage is worn"),
    Property.SMALL_END_TILT: _("the big-end bearing is worn: it rocks on its pin"),
    Property.WIDTH_OVER_WEBS: _("pressed too far, or not far enough"),
    "parallel": _("webs are pinched or spread"),
    Property.ROD_BEND: _("the rod is bent, and one that is bent back does not stay so"),
    Property.ROD_TWIST: _("the rod is twisted, and one that is turned back does not stay so"),
}
BEARING = {  # why a bearing stays or goes, as clauses
    "hit": _("driven or pulled through its balls: the races are dented where nobody sees it"),
    "marked": _("pits, blue or a step in the race"),
    "rough": _("rough when turned clean and dry"),
    "known": _("its history is known, it turns clean, nothing marks it"),
    "not_steel": _("its balls are not steel: it may feel tight and be good"),
    "slow": _("shielded, slow, turning clean and hard to reach"),
    "no_history": _("its history is not known and the engine is open: now it costs least"),
    "scrapped": _("decided at {station}"),
}
BEARING_UNKNOWN = {
    "hit": _("whether it was driven through its balls"),
    "turning": _("how it turns, clean and dry"),
    "races": _("whether the races are marked"),
}
NEXT = {
    "measure": _("{question}"),
    "sign": _("Everything is inspected: sign this entry."),
    "on_to": _("Go on to {part}."),
    "decide": _("Decide on the part before anything is fitted to it."),
    "worn": _("Measure that before it goes back: {fault}."),
    "not_back": _("Do not put it back as it is."),
    "mend": _("{mend}: {because}. Choose what is done."),
    "mended": _("{mend}: {because}."),
    "against": _("{mend}: {because}. Against advice; say why in the log."),
    "readings": _("{readings} readings in all would settle it."),
    "gauge": _("A gauge of {gauge} would settle it at once."),
    "readings_or_gauge": _("{readings} readings in all would settle it; a gauge of {gauge} would at once."),
    "nothing_settles": _("No number of readings settles it: it is at the limit. Decide by what it costs."),
    "weigh": _("Weigh the rest."),
    "hang": _("To keep {old}, {hung} must hang it level. Do that before the crank goes together."),
}
DETAIL = {
    "figure": _("{figure}: {verdict}"),
    "too_warm": REASON["too_warm"],
    "source": _("{limit_from}"),
    "bearing_too": _("{bearing}: {bearing_reasons}."),
    "seats_too": _("Bearings to be replaced too: {seats}."),
}
ASSUMED = {"code": _("fit {code} of {seat}"), "big_end_level": _("bar in the big end level")}
LIMIT_FROM: Sentences = {}

MEND = {
    "compound": _("Retaining compound"),
    "sleeve": _("Bore and sleeve"),
    "oversize": _("A ring made to fit"),
    "replace": _("Another half"),
}
MEND_ON_SHAFT = {"sleeve": _("Build up and grind"), "replace": _("Another shaft")}
MEND_BECAUSE = {
    "no_compound": _("no retaining compound on the shelf says what gap it fills"),
    "too_hot": _("it runs hotter than a compound holds"),
    "too_loose": _("{loose} is more than the {gap} it fills"),
    "out_of_shape": _("{form} out of shape: it fills a gap, it does not centre a ring"),
    "fills": _("{loose} is within the {gap} it fills, and the seat is round"),
    "wall_unknown": _("measure the metal round the seat first"),
    "wall_thin": _("{wall} of metal leaves no wall behind a {sleeve} sleeve"),
    "wall_takes": _("{wall} of metal takes a {sleeve} sleeve; bored and pressed by a machine shop"),
    "made_to_fit": _("a plated or oversize ring, where one is to be had"),
    "another": _("always right, rarely cheap"),
}
NOT_HERE = _("not here")

WEB_PLACE = {0.0: _("at the pin"), 90.0: _("at 90°"), 180.0: _("opposite the pin"), 270.0: _("at 270°")}
DEPTH = {"mouth": _("near its mouth"), "bottom": _("near its bottom")}
SURFACE = {"bore": _("Bore"), "journal": _("Journal")}
RING = {"bore": _("Bore of the ring itself"), "outside": _("Outside of the ring itself")}
SEAT_NOT_MEASURED = _("seat not measured")
QUESTION = {
    Property.BIG_END_RADIAL_PLAY: _("Up-and-down play{of}"),
    Property.BIG_END_SIDE_PLAY: _("Side play{of}"),
    Property.SMALL_END_PLAY: _("Small-end play"),
    Property.SMALL_END_TILT: _("Small end, from side to side"),
    Property.ROD_LENGTH: _("Length of the rod"),
    Property.BIG_END_WIDTH: _("Width of the big-end bearing"),
    Property.WIDTH_OVER_WEBS: _("Width over the webs {where}"),
    Property.BAR_SPAN: _("Between the two places on the bar"),
    Property.BAR_LEAN: _("{end}, {lies}: one side higher by"),
    Property.DAMAGE: _("Cracks or damage?"),
    Property.DAMAGE_WHERE: _("What, and where?"),
    Property.MASSES: _("Piston and rod go back"),
    Property.HUNG_MASS: _("Bob weight to balance the crank"),
    Property.SMALL_END_MASS: _("Small end of the rod"),
    Property.RECIPROCATING_MASS: _("All that goes up and down, new"),
    Property.RECIPROCATING_MASS_BEFORE: _("All that went up and down, old"),
    Property.BEARING_MARKING: _("Marking on the ring"),
    Property.HIT_THROUGH_BALLS: _("Driven or pulled through its balls?"),
    Property.BEARING_HISTORY: _("Is its history known?"),
    Property.BEARING_FEEL: _("Washed and dry, it"),
    Property.RACES: _("Pits, blue, a step in the races?"),
    Property.SLOW_AND_HIDDEN: _("Slow, and hard to reach?"),
    Property.SEAT_TEMPERATURE: _("Temperature of the seat"),
    Property.SEAT_DIAMETER: _("{surface}, {depth}, {angle}°"),
    Property.VEE_RUNOUT: _("Runout (TIR) in a V-block"),
    Property.RING_DIAMETER: _("{surface}"),
    Property.WALL_THICKNESS: _("Wall thickness around the bore"),
    Property.SEAT_MEND: _("What is done with it?"),
}
WHERE = {
    Property.BIG_END_RADIAL_PLAY: _("rod pushed and pulled along the throw; 0 if none"),
    Property.BIG_END_SIDE_PLAY: _("rod against one web, blade in at the other"),
    Property.SMALL_END_PLAY: _("pin in its eye, rocked"),
    Property.SMALL_END_TILT: _("rocked along the crank, from one stop to the other"),
    Property.ROD_LENGTH: _("center to center"),
    Property.BIG_END_WIDTH: _("of its bearing, not of the rod"),
    Property.WIDTH_OVER_WEBS: _("rim to rim"),
    Property.BAR_SPAN: _("where the dial reads it, as far apart as it goes"),
    Property.BAR_LEAN: _("dial at both ends of its bar; minus where the other side is higher"),
    Property.DAMAGE: _("webs, pin ends, dowel holes, joint faces, oil screens"),
    Property.DAMAGE_WHERE: _("a photo helps"),
    Property.HUNG_MASS: _("from the small end's place, crank on level rails"),
    Property.SMALL_END_MASS: _("weighed with the rod level"),
    Property.RECIPROCATING_MASS: _("piston, pin, rings, clips, small end"),
    Property.RECIPROCATING_MASS_BEFORE: _("the same parts as they were"),
    Property.BEARING_MARKING: _("all of it"),
    Property.SEAT_TEMPERATURE: _("gauge beside it, as warm as it"),
    Property.SEAT_DIAMETER: _("straight across"),
    Property.VEE_RUNOUT: _("turned once in a 90° vee, dial straight over it"),
    Property.RING_DIAMETER: _("two places, the mean"),
    Property.WALL_THICKNESS: _("thinnest place"),
}
SKIP = {
    Property.BIG_END_RADIAL_PLAY: _("not measured"),
    Property.BIG_END_SIDE_PLAY: _("not measured"),
    Property.SMALL_END_PLAY: _("not measured"),
    Property.SMALL_END_TILT: _("not measured"),
    Property.ROD_LENGTH: _("not measured"),
    Property.BIG_END_WIDTH: _("not measured"),
    Property.WIDTH_OVER_WEBS: _("not measured"),
    Property.BAR_SPAN: _("rod not measured"),
    Property.BAR_LEAN: _("level, or not measured"),
    Property.RECIPROCATING_MASS_BEFORE: _("unknown"),
    Property.BEARING_MARKING: _("as on the card"),
    Property.SEAT_TEMPERATURE: fixed(_("as the room, {room}"), room=celsius(20)),
    Property.SEAT_DIAMETER: _("not measured"),
    Property.VEE_RUNOUT: _("not tried"),
    Property.RING_DIAMETER: _("by its class"),
    Property.WALL_THICKNESS: _("unknown"),
}
_NO_YES = (("no", _("no")), ("yes", _("yes")))
_NO_YES_UNKNOWN = (*_NO_YES, ("unknown", _("unknown")))
OPTIONS: Options = {
    Property.DAMAGE: (("none", _("none found")), ("found", _("something found"))),
    Property.MASSES: (("same", _("the same")), ("other", _("other parts"), _("balance factor"))),
    Property.HIT_THROUGH_BALLS: _NO_YES_UNKNOWN,
    Property.BEARING_HISTORY: _NO_YES_UNKNOWN,
    Property.BEARING_FEEL: (("clean", _("turns clean")), ("rough", _("rough")), ("unknown", _("not tried"), _("wash it first"))),
    Property.RACES: _NO_YES_UNKNOWN,
    Property.SLOW_AND_HIDDEN: _NO_YES,
    Property.SEAT_MEND: tuple((key, said) for key, said in MEND.items()),
}
LABEL = {
    Property.BIG_END_RADIAL_PLAY: _("up-and-down play, {part}"),
    Property.BIG_END_SIDE_PLAY: _("side play, {part}"),
    Property.SMALL_END_PLAY: _("small-end play, {part}"),
    Property.SMALL_END_TILT: _("tilt at the small end, {part}"),
    Property.ROD_LENGTH: _("length of {part}"),
    Property.BIG_END_WIDTH: _("width of the big-end bearing, {part}"),
    Property.WIDTH_OVER_WEBS: _("width over the webs at {angle}°"),
    Property.BAR_SPAN: _("places on the bars, apart"),
    Property.BAR_LEAN: _("bar, {at} end, {depth}"),
    Property.ROD_BEND: _("bend of {part} over 100 mm"),
    Property.ROD_TWIST: _("twist of {part} over 100 mm"),
    "mean width": _("width over the webs"),
    "parallel": _("webs, most out of parallel"),
    Property.DAMAGE: _("cracks or damage"),
    Property.DAMAGE_WHERE: _("damage"),
    Property.MASSES: _("piston and rod"),
    Property.HUNG_MASS: _("mass that hangs the crank level"),
    Property.SMALL_END_MASS: _("small end of {part}"),
    Property.RECIPROCATING_MASS: _("reciprocating mass, new"),
    Property.RECIPROCATING_MASS_BEFORE: _("reciprocating mass, old"),
    Property.BEARING_MARKING: _("marking of the bearing, {part}"),
    Property.HIT_THROUGH_BALLS: _("driven through its balls, {part}"),
    Property.BEARING_HISTORY: _("history of the bearing, {part}"),
    Property.BEARING_FEEL: _("feel of the bearing, {part}"),
    Property.RACES: _("races of the bearing, {part}"),
    Property.SLOW_AND_HIDDEN: _("slow and hard to reach, {part}"),
    Property.SEAT_TEMPERATURE: _("temperature of {part}"),
    Property.SEAT_DIAMETER: _("{part}, {depth}, {angle}°"),
    Property.VEE_RUNOUT: _("runout (TIR) over a vee, {part}"),
    Property.RING_DIAMETER: _("ring of {part}"),
    Property.WALL_THICKNESS: _("metal round {part}"),
    Property.SEAT_MEND: _("mend of {part}"),
    "size": _("size of {part}, mean of six"),
    "taper": _("taper of {part}"),
    "ovality": _("ovality of {part}"),
    "lobes": _("three lobes of {part}"),
    "bearing": _("bearing of {part}"),
}
UNDERSTOOD, NOT_UNDERSTOOD = _("{found}"), _("{found}; not understood: {strange}")

MORE = _("Measure {figure} again: {readings} in all")
ON = _("Go on to {part}")
CHECKS = {"clean": (_("Parts washed and dry, burrs off, at the room's temperature; gauges set on their standard."), False)}
WARNINGS = {
    "spin": _("Never spin a dry bearing with air: it scores at once, and can throw its cage."),
    "manual": _("The engine's own limits come first; a figure without one is recorded, not judged."),
}
STATE = {"in": _("in"), "out": _("out"), "too_close": _("too close")}
SOURCE = {
    "judged": (_("{figure}"), _("{verdict}; {limits}; {limit_from}")),
    "unjudged": (_("{figure}"), _("{limit_from}")),
    "tilt": (_("Radial play by the tilt"), _("over the width of its bearing and the length of the rod")),
    "fit": (_("Fit, interference is +"), _("seat measured, ring {ring}")),
    "cold": (_("Clearance left, cold"), _("ISO 5753-1, thick rings; {other} assumed")),
    "warm": (_("Clearance left, warm"), _("ISO 5753-1, thick rings; {other} assumed")),
    "bearing": (_("Bearing"), _("{bore} × {outside} × {width}; {understood}")),
    "can": (_("{mend}"), _("{because}")),
}
CAN, CANNOT = _("possible"), _("not here")
ON_DRAWING = {
    "rod_upright": _("rod upright: bend"),
    "rod_flat": _("rod flat: twist"),
    "span": _("bars read {span} apart"),
    "over_100": _("{value} over 100 mm"),
    "up_and_down": _("up and down{of} {value}"),
    "sideways": _("sideways{of} {value}"),
    "wear": _("wear: none to be felt"),
    "design": _("design: the card says how much"),
    "small": _("small end {value}"),
    "width": _("width over the webs"),
    "width_seen": _("width over the webs, seen from the right end"),
    "bore": _("bore {size} {code}"),
    "journal": _("journal {size} {code}"),
    "size_unknown": _("size unknown"),
    "mouth": _("mouth"),
    "shape_later": _("its shape is drawn here, large"),
    "shape": _("ovality {ovality}, taper {taper}; drawn ×{times}"),
    "oval": _("ovality {ovality}"),
    "rings": _("thick: mouth, thin: bottom"),
    "hung": _("hung"),
    "factor": _("balance factor {factor}"),
    "formula": _("(hung + small end) / all that goes up and down"),
}
