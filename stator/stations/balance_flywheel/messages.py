"""Every sentence of Balance, by code."""

from __future__ import annotations

from django.utils.translation import gettext_lazy as _

from shopmath.amounts import gram_millimetres
from stator.engines.properties import Property
from stator.stations.balance_flywheel.locations import Code
from stator.stations.framework.messages import BY_LIMIT, Methods, Options, fixed

NAME = _("Balance")
DRAWING = _("The wheel on its face, as seen when mounted")
EXAMPLE = fixed(
    _("Wheel is balanced. {amount} left, {permitted} permitted."),
    amount=gram_millimetres(12, 1.0, 5.0),
    permitted=gram_millimetres(40),
)
DONE = _("flywheel balanced")

HEADLINE = {
    Code.CRACKED: _("Wheel is out of use"),
    Code.REPAIRED: _("Send it to a balancing shop"),
    Code.TOO_FAST: _("Send it to a balancing shop"),
    Code.LEAVE: _("Leave it alone"),
    Code.TOUCH_IT: _("Should it be touched?"),
    Code.FIGURES: _("Measure the wheel first"),
    Code.ROLL: _("Let it roll"),
    Code.HEAVY_THERE: _("Heavy about there"),
    Code.SCATTERED: _("Stops too scattered to tell"),
    Code.HOW_MUCH: _("How much is heavy?"),
    Code.NOWHERE: _("No hole can do it"),
    Code.TOO_HEAVY: _("Too heavy there"),
    Code.ENOUGH_OFF: _("Enough taken off"),
    Code.THIN: _("Thin below the hole"),
    Code.PAST: _("Drilled too much"),
    Code.DRILL: _("Drill hole {number} of {holes}"),
    Code.ADD: _("Add mass opposite"),
    Code.CHECK: _("Check it on the stand"),
    Code.PROVE: _("Prove it with a mass"),
    Code.BY_ITSELF: _("It turns by itself"),
    Code.UNPROVED: _("Too close to call"),
    Code.BALANCED: _("Wheel is balanced"),
}
REASON = {
    **BY_LIMIT,
    Code.CRACKED: _("A cracked wheel bursts: it is never balanced, drilled or run."),
    Code.REPAIRED: _("Mended rims and glued magnets are for a shop that can spin and prove them."),
    Code.LEAVE: _("It did not shake. A small error here may balance something else on the shaft."),
    Code.TOUCH_IT: _("Most wheels are best left alone. First: should this one be touched?"),
    Code.FIGURES: _("Mass and speed decide how much it may have."),
    Code.ROLL: _("Let it roll and settle by itself, then mark the lowest point."),
    Code.HEAVY_THERE: _("{angle} so far."),
    "all_round": _("The marks lie all round: {chance} by chance alone."),
    "about": _("About {angle}, but {chance} by chance alone."),
    Code.HOW_MUCH: _("Heavy at {angle} ± {uncertainty}, {chance} by chance."),
    "nowhere": _("No drill takes so little here, or nothing may be drilled near the heavy spot."),
    "too_heavy": _("{amount} at {angle}; {permitted} permitted."),
    "too_heavy_unknown": _("{amount} at {angle}; nothing known of what is permitted."),
    Code.ENOUGH_OFF: _("{removed} are off, over two in a hundred of the wheel."),
    Code.THIN: _("{wall} are left under its tip."),
    Code.PAST: _("{rest} now lie at {angle}."),
    Code.DRILL: _("{rest} to take; {after} expected after all holes."),
    Code.CHECK: _("{rest} expected to be left; {permitted} permitted."),
    "check_unknown": _("{rest} expected to be left; nothing known of what is permitted."),
    Code.ADD: _("{amount} to be balanced by a mass at {light}."),
    "added_too_much": _("{rest} now lie at {angle}: the mass is too heavy."),
    "no_proof": _("{stops} stops lie all round. That is no proof: the stand's friction hides what is left."),
    "one_way": _("{amount} by the trial mass, along one line only; {permitted} permitted."),
    Code.BY_ITSELF: _("It turns without a mass at too many marks: a heavy spot is left."),
    Code.UNPROVED: _("{amount} left; {permitted} permitted."),
}
NEXT = {
    "ask": _("{question}"),
    "sign_off": _("Sign it; the wheel goes no further here."),
    "shop": _("A rim this fast for its metal is for a balancing shop."),
    Code.LEAVE: _("Sign it as left alone."),
    "push": _("A gentle push, now this way, now that."),
    "another": _("Let it roll again: {more} more at least."),
    "to_eight": _("Roll on to eight; then it is as good as the stand can tell."),
    "more": _("Roll {more} more."),
    "putty": _("Putty at {light}, a little more each time, weighed."),
    Code.NOWHERE: _("Take another radius or drill, add mass at {light}, or send it to a balancing shop."),
    "where": _("Say where it may be drilled."),
    Code.ENOUGH_OFF: _("No more holes: a balancing shop, or another wheel."),
    Code.THIN: _("No deeper; look from behind for a bulge or crack."),
    Code.PAST: _("Take the rest off at {angle}: roll it again first."),
    Code.DRILL: _("{drill} drill at {angle}, {radius} out, {depth} deep at full width."),
    Code.CHECK: _("Roll it again: it should stop near {angle}, or anywhere."),
    "sign": _("Sign this entry."),
    "fasten": _("Fasten {wanted} at {light}: rivet, or screw and locked nut."),
    "take_off": _("Take mass off there, then roll it again."),
    "level": _("Turn {mark} level with the axle. Add mass at that mark until the wheel turns."),
    "four_masses": _("Find the least mass that turns it, at four marks."),
    "roll_it": _("Roll it again and take the heavy spot off first."),
    "finer": _("Finer masses, a freer stand, or knife edges; then prove it again."),
}
DETAIL = {
    "only_what_shook": _("Balance only what shook the engine."),
    "direction": _("The roll gives the direction, not the amount."),
    "felt": _("{force} at {speed}, as if {weight} swung round {turns} times a second."),
    "as_much_as_may_be": _("As much as may be drilled near the heavy spot."),
    "nine_tenths": _("Nine tenths first; {later} after the next check."),
    "proof": _("Four masses show what is left, however much the stand rubs."),
    "friction": _("The stand rubs {friction}, and varies by {varies}."),
    "fastened": _("Then roll it again."),
}
ASSUMED: dict[str, str] = {}

QUESTION = {
    Property.SHOOK: _("Did it shake the engine?"),
    Property.WHEEL_SOUND: _("Looked over and rung, the wheel is"),
    Property.WHEEL_MASS: _("The wheel weighs"),
    Property.WHEEL_SPEED: _("Its highest working speed"),
    Property.RIM_DIAMETER: _("Across the rim"),
    Property.STOP_ANGLE: _("It stops at"),
    Property.TRIAL_RADIUS: _("Trial mass sits at a radius of"),
    Property.TRIAL_STAYS: _("Mass at which it stays anywhere"),
    Property.TRIAL_TURNS: _("Mass at which it turns the other way"),
    Property.TURNING_MASS: _("{mark} level: it turns with"),
    Property.MASS_STEP: _("Mass was added in steps of"),
    Property.ADDED_RADIUS: _("Mass can be fastened at a radius of"),
    Property.ADDED_MASS: _("Mass fastened"),
    Property.DRILL_RADIUS: _("It may be drilled at a radius of"),
    Property.FINISH_RADIUS: _("And for the last small hole, at"),
    Property.RIM_DEPTH: _("Metal there is"),
    Property.KEEP_OUT: _("Keep out of"),
    Property.DRILLS: _("Drills available"),
    Property.HOLE_DEPTH: _("Hole {number}: {drill} at {angle}"),
    Property.NOTE: _("Anything to remember?"),
}
WHERE = {
    Property.SHOOK: _("before, in its own mounts"),
    Property.WHEEL_SOUND: _("hub, rivets, magnets, rim"),
    Property.WHEEL_MASS: _("with what turns on it"),
    Property.RIM_DIAMETER: _("calliper"),
    Property.STOP_ANGLE: _("roll {roll}: the mark at the bottom when it stops"),
    Property.TRIAL_RADIUS: _("at {light}, opposite the heavy spot"),
    Property.TRIAL_STAYS: _("putty, weighed: the least that does"),
    Property.TRIAL_TURNS: _("the least that does"),
    Property.TURNING_MASS: _("mass at that mark, least that turns it; 0 where it turns by itself"),
    Property.MASS_STEP: _("the finest that you can add"),
    Property.ADDED_RADIUS: _("at {light}, opposite the heavy spot"),
    Property.ADDED_MASS: _("at {light}; {wanted} wanted"),
    Property.DRILL_RADIUS: _("the thick of the rim"),
    Property.FINISH_RADIUS: _("nearer the centre"),
    Property.RIM_DEPTH: _("rim's depth where the drill goes"),
    Property.KEEP_OUT: _("magnets, rivets, vanes, marks: from-to in °"),
    Property.DRILLS: _("mm, spaces between"),
    Property.HOLE_DEPTH: _("{radius} out, {depth} deep to the shoulder of the point; depth as made"),
    Property.NOTE: _("for whoever opens it next"),
}
SKIP = {
    Property.FINISH_RADIUS: _("the same"),
    Property.KEEP_OUT: _("nothing"),
    Property.DRILLS: "4 6 8",
    Property.MASS_STEP: _("0.1 g, assumed"),
    Property.NOTE: _("nothing noted"),
}
OPTIONS: Options = {
    Property.SHOOK: (("yes", _("yes, it shook")), ("no", _("no, it ran smooth")), ("unknown", _("nobody knows"))),
    Property.WHEEL_SOUND: (
        ("sound", _("sound all over")),
        ("cracked", _("a crack, or it rang dull")),
        ("repaired", _("welded, mended, a magnet glued")),
    ),
}
PROOF_RADIUS = _("one radius for all four marks")
TURNS_WITH_MORE = _("It turns the other way with more than keeps it still ({stays}).")
OUTSIDE_RIM = _("That lies outside the rim, which is {rim} across.")
COMES_THROUGH = _("So deep it comes through: the metal is {thick}. Measure again.")
LABEL = {
    Property.SHOOK: _("whether it shook the engine"),
    Property.WHEEL_SOUND: _("state of the wheel"),
    Property.WHEEL_MASS: _("mass of the wheel"),
    Property.WHEEL_SPEED: _("highest working speed"),
    Property.RIM_DIAMETER: _("across the rim"),
    Property.STOP_ANGLE: _("where it stops"),
    Property.TRIAL_RADIUS: _("radius of the trial mass"),
    Property.TRIAL_STAYS: _("mass at which it stays anywhere"),
    Property.TRIAL_TURNS: _("mass at which it turns the other way"),
    Property.TURNING_MASS: _("turning mass with {angle}° level"),
    Property.MASS_STEP: _("step of the masses"),
    Property.ADDED_RADIUS: _("radius of the added mass"),
    Property.ADDED_MASS: _("added mass"),
    Property.DRILL_RADIUS: _("radius for drilling"),
    Property.FINISH_RADIUS: _("radius for the last hole"),
    Property.RIM_DEPTH: _("depth of the rim"),
    Property.KEEP_OUT: _("arcs to keep out of"),
    Property.DRILLS: _("drills available"),
    Property.HOLE_DEPTH: _("depth of hole {stage}"),
    Property.NOTE: _("note"),
    Property.UNBALANCE: _("unbalance"),
}
LIMIT_FROM = {"grade": _("ISO 21940-11, G {grade}")}
NO_HEAVY_SPOT = _("tells no heavy spot any more")

METHOD: Methods = {
    "grade": (
        _("Grade"),
        (("6.3", _("G 6.3, flywheels")), ("2.5", _("G 2.5, fast and smooth")), ("16", _("G 16, rough service"))),
    ),
    "metal": (_("The rim is"), ()),
}
ACTION = {
    "anyway": _("Balance it anyway"),
    "again": _("Roll it again"),
    "prove": _("Prove it again"),
    "add": _("Add mass instead"),
}
NOT_YET = _("Not balanced yet: what is asked comes first.")
CHECKS = {
    "arbor": (_("Arbor runs true in the bore, stand level both ways, knife edges or bearings clean, no draught."), True),
    "zero": (_("Mark 0 at the keyway, degrees counter-clockwise on the outer face."), False),
    "eyes": (_("For drilling: wear safety glasses, clamp the wheel, and keep chips off the magnets."), False),
}
WARNINGS = {
    "burst": _("A cracked or mended wheel bursts at speed: out of use, whatever it says on the stand."),
    "first": _("First run after drilling: guard on, nobody in line with the rim."),
    "fastened": _(
        "Added mass must never come off: rivet, or screw and locked nut, none of it proud of the rim. No putty, no glue in a run."
    ),
    "manual": _("The maker's own limits come first; a balancing shop where anything is unsure."),
}
STATE = {"in": _("in"), "out": _("out"), "too_close": _("too close")}
SOURCE = {
    "permitted": (_("Permitted"), _("ISO 21940-11: 9549·G·m/n, G {grade}, {mass}, {speed}")),
    "heavy": (_("Heavy at"), _("circular mean of {stops}, one stop ± {spread}; Rayleigh's test p {p}")),
    "unbalance": (_("Unbalance"), _("mean of both trial masses, times their radius")),
    "proof": (_("Unbalance"), _("half the difference of opposite turning masses, times their radius")),
    "friction": (_("Stand's friction"), _("mean of opposite turning masses; varies by {varies}")),
    "pulls": (_("Pulls"), _("U·ω² at working speed")),
    "rim": (_("Rim speed"), _("{said}")),
    "removed": (_("Off it so far"), _("{metal}, holes with their cones")),
}
ON_DRAWING = {
    "tap": _("tap the rim, or type the angle"),
    "degrees": _("degrees counter-clockwise from the keyway, seen when mounted"),
    "hole": _("{drill} × {depth}"),
    "mass": _("mass here, this mark level"),
}
