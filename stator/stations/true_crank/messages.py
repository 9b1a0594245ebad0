"""Every sentence of True, by code."""

from __future__ import annotations

from django.utils.translation import gettext_lazy as _

from shopmath.amounts import mm
from stator.engines.properties import Property
from stator.stations.framework.messages import BY_LIMIT, Methods, Options, fixed, plural
from stator.stations.true_crank.analysis import Code

NAME = _("True")
DRAWING = _("The crank between its supports")
EXAMPLE = fixed(
    _("Strike the right web at 270°, toward the axis. Runout (TIR) is {runout}; {best} is the best that truing can reach."),
    runout=mm(0.048),
    best=mm(0.012),
)
DONE = _("crank trued")

HEADLINE = {
    Code.SET_UP: _("Set it up"),
    Code.TURN_IT: _("Turn the crank"),
    Code.DISAGREE: _("Readings disagree"),
    Code.WITHIN: _("Runout within limit"),
    Code.TOO_CLOSE: _("Too close to call"),
    Code.STRIKE: _("Webs are twisted"),
    Code.SQUEEZE: _("Webs are open opposite the crankpin"),
    Code.WEDGE: _("Webs are closed opposite the crankpin"),
    Code.LEAVE: _("As true as it gets"),
    Code.REMEASURE: _("Cannot tell yet"),
    Code.REPLACE: _("Truing cannot cure it"),
    Code.NOT_HELD_SO: _("Not held on those"),
    Code.WEB_TURNED: _("A web has turned"),
    Code.WELDED: _("Measure it after the weld"),
}
REASON = {
    **BY_LIMIT,
    "places": _("Where supports and gauges stand decides what a reading means."),
    "sizes": _("The throw and the rim turn a runout into degrees, and degrees into a witness line's travel."),
    Code.TURN_IT: _("Round {round}. Zero the gauge anywhere; turn it counter-clockwise seen from the right end."),
    "slipped_high": _("{side}: back at the start it reads {off} higher: the gauge or a support has slipped."),
    "slipped_low": _("{side}: back at the start it reads {off} lower: the gauge or a support has slipped."),
    "one_reading": _("{side}: the reading at {angle} does not fit the rest of its turn."),
    "scatter": _("{side}: a scatter of {scatter} is more than the gauge's own: a loose support, dirt, or a seat not round."),
    "outer": _("Held on the outer journals a bent crank looks straight: they are what is measured."),
    "centres": _("Held on the centre holes of the outer shafts a bent crank looks straight: they are what is measured."),
    "weld_pulls": _("A weld pulls as it cools. Before it: {runout}"),
    "runout": _("{runout}"),
    "runout_why": _("{runout} {why}"),
}
RUNOUT = {
    "other_setup": _("{runout} runout (TIR); the card's limit is for {setup}: no verdict here."),
    "converted_in": _("{runout} runout (TIR); {limit} for {setup} is at least {low} here."),
    "converted_too_close": _("{runout} runout (TIR); {limit} for {setup} is {low} to {high} here: it depends on how it is bent."),
    "converted_out": _("{runout} runout (TIR); {limit} for {setup} is at most {high} here."),
    "no_limit": _("{runout} runout (TIR); no limit on the card: no verdict here."),
}
WHY = {  # what two runouts say of the halves
    "not_curable": _("Without twist and web opening, {best} is left, above {limit}: offset, skew or a bent half."),
    "blind": _("These gauges would not see a twist of {twist}: move them away from the supports."),
    "best": _("{now}, and {best} is the best that truing can reach."),
    "within_uncertainty": _("{now}, and what could still be cured is smaller than its uncertainty."),
    "ahead": _("The {web} web stands {turned} ahead."),
    "behind": _("The {web} web stands {turned} behind."),
    "closed": _("The webs are open opposite the crankpin by {turned}."),
    "spread": _("The webs are closed opposite the crankpin by {turned}."),
    "across": _("Most of the misalignment, {skew}, is at 90° and 270°. A wedge or a squeeze does not correct it."),
    "turned": _("The {web} web has turned {turned} about its pin."),
}
HALF = _("A smaller blow: it has gone back and forth.")
NEXT = {
    "ask": _("{question}"),
    "give_places": _("Give the places of supports and gauges."),
    "give_sizes": _("Give its sizes."),
    "read_the_rest": _("Read the rest."),
    "round_after_weld": _("Let it cool to the room, then read the whole round again."),
    "one_again": _("No blow: take the reading at {angle} again."),
    "few_again": _("No blow: take the readings at {angles} again."),
    "round_again": _("No blow: set gauge and supports fast, then measure the round again."),
    Code.WITHIN: _("Leave it, or go on for less: it is within its limit."),
    "turns_settle": _("{turns} turns in all at each end settle it; or a finer gauge."),
    Code.STRIKE: _("Strike the rim of the {web} web at {at}, toward the axis."),
    "strike_half": _("Strike the rim of the {web} web at {at}, toward the axis, {share} of the usual blow."),
    Code.SQUEEZE: _("Squeeze the rims together opposite the crankpin."),
    "squeeze_half": _("Squeeze the rims together opposite the crankpin with {share} of the usual force."),
    Code.WEDGE: _("Wedge the rims apart opposite the crankpin."),
    "wedge_half": _("Wedge the rims apart opposite the crankpin with {share} of the usual force."),
    Code.LEAVE: _("Leave it. Lock the joint as planned, then sign."),
    Code.REMEASURE: _("No blow yet."),
    Code.REPLACE: _("Apart again: no blow cures this."),
    "centre_bearings": _("Hold it on its centre bearings; then measure the outer shafts."),
    "accept": _("What is left is not turned webs: apart again, or accept it."),
    Code.WEB_TURNED: _("Turn the {web} web {direction}, seen from the right end: its witness line {travel} at the rim opposite its pin."),
}
DIRECTION = {"counter-clockwise": _("counter-clockwise"), "clockwise": _("clockwise"), "": _("no way")}
DETAIL = {"told": _("{told}")}
TOLD = {  # sentences of the detail
    "expected": _("The needles should then read {left} and {right}."),
    "expected_one": _("Its needle should then move {expected}."),
    "softer": _("The last blow went {took} times as far as the {part} it was for: softer."),
    "harder": _("The last blow took {took} of the {part} it was for: a little harder."),
    "as_hard": _("The last blow corrected {took} of the {part}. Strike with the same force."),
    "reach": _("{best} is the best that truing can reach."),
    "rest": _("Turning the webs leaves {rest}: it lies along the throws, no turning cures it."),
    "no_clearance": _("The bearing may have no clearance left warm: any runout loads it."),
    "over_clearance": _("{runout} is more than the {high} the bearing has left warm: it is loaded at every turn."),
    "near_clearance": _("The bearing has {low} to {high} left warm: a tight one is loaded at every turn."),
    "within_clearance": _("Within the {low} the tightest bearing has left warm."),
}
PART = {"twist": _("twist"), "pinch": _("web opening")}
ASSUMED: dict[str, str] = {}

PIN, LEFT_OUTER_PIN = _("pin"), _("the left outer pin")
UNDER_GAUGE = _("{pin} under the gauge")
TURNED_ON = _("turned on to {angle}°, counter-clockwise seen from the right end")
COARSE = _("{pin} under the gauge; twelve angles, twice round: {step} steps are coarse against {limit}")
SECOND_TURN = _("{pin} under the gauge; turn {count} of the same end")
BACK_AT_START, ONCE_ROUND = _("{Side} back at 0°"), _("once round: it should read as it began")
SLIP_UNSEEN = _("a slipped gauge goes unseen")
QUESTION = {
    Property.SUPPORT_PLACE: _("Support on the {side}"),
    Property.GAUGE_PLACE: _("Gauge on the {side}"),
    Property.LIMIT_SUPPORT_PLACE: _("Supports that the limit is meant for"),
    Property.LIMIT_GAUGE_PLACE: _("Gauges that the limit is meant for"),
    Property.STROKE: _("Stroke"),
    Property.RIM_RADIUS: _("Rim of the outer webs"),
    Property.THROW_ANGLE: _("Angle between the outer pins"),
    Property.SHAFT_READING: _("{Side} at {angle}°"),
    Property.SHAFT_TIR: _("Runout (TIR) on the {side}"),
    Property.HIGH_SPOT: _("High spot on the {side}"),
    Property.JOINT_LOCK: _("How is the joint locked?"),
    Property.NOTE: _("Anything to remember?"),
}
WHERE = {
    Property.SUPPORT_PLACE: _("from the middle of the pin, along the crank"),
    Property.GAUGE_PLACE: _("from the middle of the pin, along the crank; not on the support"),
    Property.LIMIT_SUPPORT_PLACE: _("{setup}: from the middle of the pin to either support"),
    Property.LIMIT_GAUGE_PLACE: _("{setup}: from the middle of the pin to either gauge"),
    Property.STROKE: _("twice the throw; manual or measured"),
    Property.RIM_RADIUS: _("its radius, from the shaft"),
    Property.THROW_ANGLE: _("from the left outer pin to the right one, counter-clockwise seen from the right end"),
    Property.SHAFT_TIR: _("needle's whole travel in one turn"),
    Property.HIGH_SPOT: _("{pin} is 0°, counter-clockwise seen from the right end"),
}
SKIP = {
    Property.NOTE: _("nothing noted"),
    Property.LIMIT_SUPPORT_PLACE: _("the limit gives no verdict here"),
    Property.LIMIT_GAUGE_PLACE: _("the limit gives no verdict here"),
}
OPTIONS: Options = {
    Property.JOINT_LOCK: (
        ("plain", _("plain press fit")),
        ("compound", _("retaining compound"), _("its cure before any run")),
        ("weld", _("welded"), _("not to be parted again")),
    ),
}
LABEL = {
    Property.SUPPORT_PLACE: _("support, {at}"),
    Property.GAUGE_PLACE: _("gauge, {at}"),
    Property.LIMIT_SUPPORT_PLACE: _("supports of the limit"),
    Property.LIMIT_GAUGE_PLACE: _("gauges of the limit"),
    Property.STROKE: _("stroke"),
    Property.RIM_RADIUS: _("rim of the outer webs"),
    Property.THROW_ANGLE: _("angle between the outer pins"),
    Property.SHAFT_READING: _("{at} at {angle}°"),
    Property.SHAFT_TIR: _("runout (TIR), {at}"),
    Property.HIGH_SPOT: _("high spot, {at}"),
    Property.JOINT_LOCK: _("how the joint is locked"),
    Property.NOTE: _("note"),
    Property.CRANK_RUNOUT: _("runout (TIR), {at}"),
}
LIMIT_FROM: dict[str, str] = {}

METHOD: Methods = {
    "held": (
        _("Crank held"),
        (
            ("centres", _("between centres"), _("clean, whole centre holes")),
            ("seats", _("on the main bearing seats"), _("V-blocks or rollers")),
            ("centre", _("on its centre bearings"), _("V-blocks or rollers")),
            ("outer", _("on the outer journals")),
        ),
    ),
    "how": (
        _("Read at"),
        (
            ("turn", _("angles round the turn"), _("eight, or twelve; tells oval from bent")),
            ("swing", _("runout and high spot"), _("quicker, tells less")),
        ),
    ),
}
ACTION = {
    "turn": plural("{more} more turn at each end", "{more} more turns at each end", "more"),
    "cure": _("Start the cure timer"),
    "round": _("Measure the round again"),
    "these": _("Read {angles} again"),
    "done": _("Done: measure again"),
    "again": _("Measure again"),
    "welded": _("Cold again: measure it"),
    "turned": _("Turned: measure again"),
}
TIMER = {"cure": _("joint has cured")}
MEASURE_FIRST = _("Measure both ends first.")
WELDED_SINCE = _("It was welded after this round: measure it again, cold.")
CHECKS = {
    "clean_centres": _("Centre holes clean and whole; crank turns freely, nothing rubs."),
    "clean": _("Seats are clean and without burrs. V-blocks or rollers are level. The crank turns freely and nothing rubs."),
    "lifted": _("Before any blow: gauges lifted, crank off its supports, on wood."),
}
WARNINGS = {
    "rims": _("Soft heavy hammer, web rims only; never a shaft, never a threaded end."),
    "wedge": _(
        "A wedge or a squeeze tool can jump out. Wear safety glasses and keep hands clear. "
        "Measure the side clearance of the rod again after each one."
    ),
    "manual": _("The limit is the manual's, at the manual's supports; elsewhere it is no verdict."),
}
SOURCE = {
    "fitted": (_("Runout, {side}"), _("high at {high}; raw {raw}, oval {oval}, scatter {scatter}")),
    "swing": (_("Runout, {side}"), _("high at {high}")),
    "limit": (_("Limit"), _("{origin}; {setup}")),
    "limit_bare": (_("Limit"), _("{origin}; its set-up is not said")),
    "converted": (_("Limit at this set-up"), _("likely {likely}: {limit} for {setup}, carried over by the crank's geometry")),
    "clearance": (_("Bearing's clearance, warm"), _("{seat}, by fit codes")),
    "gauge": (_("One place read"), _("{gauge}, turns: {turns}")),
    "twist": (_("Twist"), _("± {uncertainty}; right web ahead is +")),
    "pinch": (_("Pinch"), _("± {uncertainty}; closed at the pin is +")),
    "offset": (_("Offset"), _("± {uncertainty}; truing does not cure it")),
    "skew": (_("Skew"), _("± {uncertainty}; truing does not cure it")),
    "move": (_("Round {round}: {kind}"), _("{where}; {expected} expected, {got}")),
    "move_none": (_("Round {round}"), _("readings disagreed")),
    "turned": (_("Turned, {side}"), _("{travel} at the rim, {direction}; ± {uncertainty}")),
    "throws": (_("Between the throws"), _("{off} from the nearest quarter")),
    "web": (_("Round {round}: {web} web"), _("{travel} {direction}; {expected} expected, {got}")),
}
KIND = {"strike": _("strike"), "squeeze": _("squeeze"), "wedge": _("wedge"), "again": _("measured again"), "turn": _("turned")}
KIND |= {"leave": _("left"), "remeasure": _("measured again"), "replace": _("not by truing")}
AT_WEB, OPPOSITE_PIN = _("{web} web at {at}"), _("opposite the pin")
GOT, GOT_TWO, NOT_SINCE = _("{got} measured"), _("{left} and {right} measured"), _("not measured since")
AND = _("{left} and {right}")
ON_DRAWING = {
    "seen": _("both seen from the right end, pin up; angles counter-clockwise"),
    "seen_outer": _("both seen from the right end, left outer pin up; counter-clockwise"),
    "across": _("bend drawn ×{times}, seen across the throw"),
    "in_plane": _("bend drawn ×{times}, seen in the plane of the throw"),
    "later": _("it will bend here as the needles say"),
    "lean": _("lean drawn ×{times}, centre bearings straight"),
    "lean_later": _("it will lean here as the needles say"),
    "needle": _("needle {needle}"),
    "strike": _("strike"),
    "squeeze": _("open opposite the crankpin: squeeze here"),
    "wedge": _("closed opposite the crankpin: wedge here"),
}

BLOW_AXIS = _("share of the twist that a blow took")
BLOWS, PREDICTED, ALL_OF_IT = _("Truing blows"), _("predicted"), _("the whole of it")
BLOW_HELD = _("the middle blow took {share} of the twist it was meant for")
