"""Messages of Install crank by code."""

from __future__ import annotations

from django.utils.translation import gettext_lazy as _

from shopmath.amounts import newton_metres
from stator.engines.properties import Property
from stator.stations.framework.messages import AT_END, Methods, Options, fixed, plural
from stator.stations.install_crank.analysis import DROP, INNER, OUTER, PULL, Code

NAME = _("Crank in")
DRAWING = _("The crank going into its bearing")
EXAMPLE = fixed(
    _("Crank is home. Stop at {torque}: what is felt beyond is the shoulder."),
    torque=newton_metres(35),
)
DONE = _("crank pulled in")

HEADLINE = {
    Code.NOT_THAT_WAY: _("Not that way"),
    Code.NO_TOOL: _("No pulling tool"),
    Code.THREAD_DIFFERS: _("Adapter does not match"),
    Code.MORE_THREAD: _("Needs more thread"),
    Code.SET_UP: _("Set up the tool"),
    Code.READY: _("Ready to pull"),
    Code.PULL: _("Pull the crank in"),
    Code.AS_EXPECTED: _("Pull as expected"),
    Code.BINDS: _("Crank is binding"),
    Code.COME_HOME: _("Crank has come home"),
    Code.FELT_NOTHING: _("Is it home?"),
    Code.DROP: _("Drop the crank in"),
    Code.IS_IT_HOME: _("Is it home?"),
    Code.HOME: _("Crank is home"),
    Code.NOT_HOME: _("Crank is not home"),
    Code.TOO_CLOSE: _("Too close to call"),
    Code.AGAINST_FLOAT: _("Gaps contradict the end float"),
    Code.OTHER_END: _("Now the {side}"),
}
REASON = {
    "webs": _("A force through the webs pinches them: the crank is out of true and the rod may bind."),
    "hammer": _("A blow on the end twists the webs about the pin and dents the balls it goes through."),
    "impact": _("An impact wrench hides the torque that says stop, and strips the end's thread."),
    Code.NO_TOOL: _("No pull-in tool on the shelf."),
    "same_thread": _("Same pitch, same hand."),
    "other_diameter": _("The adapter is {adapter}, the crank's end {end}: not its thread."),
    "other_pitch": plural(
        "A pitch of {puller} on an end of {boss} is another thread. It jams after about {jams} turn.",
        "A pitch of {puller} on an end of {boss} is another thread. It jams after about {jams} turns.",
        "jams",
    ),
    "other_pitch_at_once": _("A pitch of {puller} on an end of {boss} is another thread. It jams at once."),
    Code.MORE_THREAD: _("{turns} turns by hand, {fewest} wanted: the rest would strip under load."),
    Code.SET_UP: _("The pull goes through the inner ring, never through the webs or the other half."),
    "bearing_unknown": _("The bearing is not known: feel for the first resistance and do not pass it."),
    "expected": _("{low} to {stop} expected; stop at {stop}."),
    "expected_turns": _("{wanted} turns. {low} to {stop} expected; stop at {stop}."),
    "as_expected": _("{left} turns to go; {low} to {stop} is as it should be."),
    "binds": _("{now} with {left} turns to go, {stop} is the most: crooked, or the rod is caught."),
    "come_home": _("{now} and the turns are done: it has come home."),
    "felt_nothing": _("The turns are done and the wrench feels only {now}: measure before it is called home."),
    "one_ahead": _("The {ahead} is {lead} ahead of the {behind}; up to {allowed} is allowed, or the centre bearings are pushed."),
    Code.DROP: _("Bearing hot, shaft cold: Heat and drop has the plan and its timers."),
    Code.IS_IT_HOME: _("Measure both sides before it is called home."),
    "against_float": _("The gaps add up to {both}; End float found {float} ± {unsure}. One of them is wrong."),
    "one_side": _("{gap} on the side it lies in, and {float} of end float in all."),
    "one_side_unknown": _("{gap} on the side it lies in; the end float is not known, so nothing tells whether that is home."),
    "over_float": _("{gap} on the side it lies in is more than the end float of {float}: it is not home."),
    "home": _("The gaps are equal within {limit}: home on both sides."),
    "not_home": _("The gap on the {side} is {difference} larger: that side is not home."),
    "too_close": _("The gap on the {side} is {difference} larger, too near the limit of {limit} to tell."),
}
NEXT = {
    "ask": _("{question}"),
    "nothing": "",
    "pull_or_drop": _("Pull it in by the inner ring, or drop it into a hot bearing."),
    "by_hand": _("By hand, with a wrench you can feel."),
    Code.NO_TOOL: _("Add the tool and its threads to the shelf, or drop the crank in."),
    Code.THREAD_DIFFERS: _("Take another adapter. A near miss holds three turns and strips."),
    Code.MORE_THREAD: _("Clean the thread, turn the adapter in by hand to the last turn."),
    "required": _("{required}"),
    "begin": _("Begin: half a turn, look, then on."),
    "call_it_home": _("Call it home."),
    Code.BINDS: _("Back off, look: rod, squareness, a shim caught. Never on by force."),
    Code.FELT_NOTHING: _("Turn on gently; if the wrench still feels nothing, measure."),
    "once_cold": _("Once it is cold: {question}"),
    Code.OTHER_END: _("Leave the {ahead} as it is. {question}"),
    Code.AGAINST_FLOAT: _("Measure both gaps again, then the stack at End float."),
    "one_side": _("Rod free, crank turns: go on to closing. Centre measures both sides."),
    "one_side_unknown": _("Set the end float first, or sign it as it is: Centre measures both sides once it is closed."),
    "over_float": _("Pull on, or warm the bearing; then measure again."),
    Code.HOME: _("Rod free, crank turns: go on to closing."),
    Code.NOT_HOME: _("Pull on that side, or warm its bearing; then measure both again."),
    Code.TOO_CLOSE: _("Measure both again with thinner blades."),
}
DETAIL: dict[str, str] = {}
ASSUMED = {"screw": _("screw of {screw}, nut turning on {radius}"), "journal": _("journal {code}")}

NOT_ON_YET = _("only if that half is on already")
QUESTION = {
    Property.END_THREAD_DIAMETER: _("Thread on the crank's end"),
    Property.END_THREAD_PITCH: _("Its pitch"),
    Property.ADAPTER_TURNS: _("Adapter in by hand"),
    Property.TRAVEL: _("How far it has to go"),
    Property.SCREW_TURNS_DONE: _("Turns done in all"),
    Property.SCREW_TORQUE: _("Torque on the screw"),
    Property.HOME_GAP: _("Gap on the {side}"),
}
GAP_OF = {OUTER: _("Gap outside, crank of the {side}"), INNER: _("Gap toward the centre, crank of the {side}")}
SIDE_OF = {OUTER: _("outside, {side}"), INNER: _("side of the centre, {side}")}
QUESTION_AT = {  # where both ends are pulled, in turn
    Property.END_THREAD_DIAMETER: _("Thread on the crank's end, {side}"),
    Property.END_THREAD_PITCH: _("Its pitch, {side}"),
    Property.ADAPTER_TURNS: _("Adapter in by hand, {side}"),
    Property.TRAVEL: _("How far it has to go, {side}"),
    Property.SCREW_TURNS_DONE: _("Turns done in all, {side}"),
    Property.SCREW_TORQUE: _("Torque on the screw, {side}"),
}
WHERE = {
    Property.END_THREAD_DIAMETER: _("over the crests"),
    Property.END_THREAD_PITCH: _("leaf gauge"),
    Property.ADAPTER_TURNS: _("whole turns, no wrench"),
    Property.TRAVEL: _("shoulder to ring"),
    Property.SCREW_TORQUE: _("as it is now"),
    Property.HOME_GAP: _("web to bearing, feeler gauge with light drag"),
}
IN_ALL, FROM_FIRST = _("{turns} in all"), _("from the first resistance")
FEWER = _("{done} turns were done already: the turns in all, not since the last time.")
SKIP = {Property.HOME_GAP: _("that half is not on yet; Centre measures it")}
OPTIONS: Options = {}
LABEL = {
    Property.END_THREAD_DIAMETER: _("thread on the crank's end"),
    Property.END_THREAD_PITCH: _("pitch of the crank's end"),
    Property.ADAPTER_TURNS: _("adapter in by hand, turns"),
    Property.TRAVEL: _("how far it has to go"),
    Property.SCREW_TURNS_DONE: _("turns done in all"),
    Property.SCREW_TORQUE: _("torque on the screw"),
    Property.HOME_GAP: _("gap at the {at}"),
    f"{Property.END_THREAD_DIAMETER} {AT_END}": _("thread on the crank's end, {at}"),
    f"{Property.END_THREAD_PITCH} {AT_END}": _("pitch of the crank's end, {at}"),
    f"{Property.ADAPTER_TURNS} {AT_END}": _("adapter in by hand, turns, {at}"),
    f"{Property.TRAVEL} {AT_END}": _("how far it has to go, {at}"),
    f"{Property.SCREW_TURNS_DONE} {AT_END}": _("turns done in all, {at}"),
    f"{Property.SCREW_TORQUE} {AT_END}": _("torque on the screw, {at}"),
    f"{Property.HOME_GAP} {OUTER}": _("gap outside, crank of the {at}"),
    f"{Property.HOME_GAP} {INNER}": _("gap toward the centre, crank of the {at}"),
}

METHOD: Methods = {
    "school": (
        _("The crank goes in"),
        (
            (PULL, _("pulled in"), _("screw tool, through the inner ring")),
            (DROP, _("dropped in"), _("bearing hot")),
            ("webs", _("pressed through the webs")),
            ("hammer", _("tapped in")),
            ("impact", _("with an impact wrench")),
        ),
    ),
    "tool": (_("Tool"), ()),
}
A_TURN = _("{pitch} a turn")
ACTION = {
    "begin": _("Begin to pull"),
    "home": _("The crank is home"),
    "begin_at": _("The tool is on: {side}"),
    "home_at": _("It is home: {side}"),
}
CHECKS = {
    "bars": (_("Spacer bars on the case's own wall: the load stays off bosses and gasket."), True),
    "rod": (_("Rod supported, clear of the case mouth all the way."), True),
    "oil": (_("Journal and inner ring clean, a film of oil; screw greased."), False),
}
CHECKS_DROP = {"rod": (_("Rod supported, its way clear; gloves, the case is hot."), True)}
WARNINGS = {
    "impact": _("No impact wrench, no hammer on the end: balls dent, webs twist out of true."),
    "in_turn": _("Both ends in turn, a turn or two each: pulled at one alone, the crank goes through the centre bearings. Then the bolts."),
    "manual": _("The manual's tool and its order come first."),
}
SOURCE = {
    "end": (_("Crank's end"), _("{system}; {off} on size")),
    "tool": (_("Tool"), _("{tool}; adapter {diameter} × {pitch}")),
    "torque": (_("Torque"), _("{low} to {high}; {code} in {bearing}")),
    "screw": (_("Screw assumed"), _("nut turns on {radius}, greased")),
    "in_turn": (_("One end may be ahead"), _("shop rule; the {ahead} is {lead} ahead")),
    "gaps": (_("Gaps allowed to differ"), _("shop rule")),
}
ON_DRAWING = {
    "travel": _("travel"),
    "gap_left": _("left gap {gap}"),
    "gap_right": _("right gap {gap}"),
    "nut": _("nut: this turns"),
    "turns": _("{done} of {wanted} turns, {left} to go"),
    "turns_at": _("{side}: {done} of {wanted} turns, {left} to go"),
    "stop": _("stop {torque}"),
}
