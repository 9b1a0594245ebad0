"""Messages of Install without heat, by code."""

from __future__ import annotations

from django.utils.translation import gettext_lazy as _

from shopmath.amounts import newtons
from stator.engines.properties import Property
from stator.stations.framework.messages import BY_LIMIT, Methods, Options, Sentences, fixed, plural
from stator.stations.install_without_heat.analysis import BY_HAMMER_N, CROOKED, LOOSE, STOPPED, Code

NAME = _("Fit cold")
DRAWING = _("Seat, ring and driver in section, force against what there is")
EXAMPLE = fixed(_("Goes in cold. It takes {high} at most, likely {likely}."), likely=newtons(1400), high=newtons(3900))
DONE = plural("{count} bearing fitted cold", "{count} bearings fitted cold", "count")

HEADLINE: Sentences = {
    Code.NO_PLAN: _("No plan"),
    Code.SEAT_IS_OUT: _("Seat is out"),
    Code.NOTHING_HOLDS: _("Nothing holds the ring"),
    Code.FORCE_UNKNOWN: _("Force not known"),
    Code.NO_PRESS: _("No press"),
    Code.GOES: _("Goes in cold"),
    Code.WARM_IS_BETTER: _("Better warm"),
    Code.NOT_COLD: _("Not cold"),
    Code.STARTS_CROOKED: _("Out of square"),
    Code.STARTS_UNSURE: _("Too close to call"),
    Code.STARTED: _("Stands square"),
    Code.STOPPED: _("It stopped short"),
    Code.CROOKED: _("It went in crooked"),
    Code.LOOSE: _("It fell in"),
    Code.BINDS: _("Screw is binding"),
    Code.IS_IT_HOME: _("Is it home?"),
    Code.NOT_HOME: _("Not home"),
    Code.CIRCLIP_LOOSE: _("Circlip not home"),
    Code.TOO_LITTLE_FORCE: _("Less force than any fit takes"),
    Code.HOME: _("Home"),
    Code.NO_PARTS: _("Nothing to fit"),
    Code.PARTS_IN: _("Parts are in"),
}
REASON = {
    "no_parts": _("Pins, bushes and plugs that go into the case stand on its card."),
    "parts_in": plural("{count} part is at its depth, and even.", "{count} parts are at their depths, and even.", "count"),
    "parts_close": _("Too close to tell: {parts}."),
    "parts_out": _("Not as it should be: {parts}."),
    **BY_LIMIT,
    Code.NO_PLAN: _("{said}"),
    Code.SEAT_IS_OUT: _("Inspect signed this seat as out; it has not been measured since."),
    "no_grip": _("Interference {least} to {most}: the seat is too large for the ring."),
    "cup_unknown": _("A drawn cup takes its size from its seat: without its outside measured no force can be worked out."),
    "takes": _("It takes {high} at most, likely {likely}."),
    "beyond_reach": _("It takes {high} at most, likely {likely}; {way} gives {able}."),
    "tight": _("It takes {high} at most, likely {likely}. Up to {most} of interference scores a bore that is pushed into cold."),
    "strains": _("It takes {high} at most, likely {likely}, and strains the bore to {stress} of the {yields} where it gives way."),
    STOPPED: _("It took {way}, and did not reach its shoulder."),
    CROOKED: _("A ring that is forced on out of square scores its seat for good."),
    LOOSE: _("It went in by hand: nothing holds it there."),
    "binds": _("{felt} after {done} turns, where {turns} lead to the shoulder."),
    "not_checked": _("In, not checked yet"),
    "circlip": _("A circlip that is not in its groove means the bearing is not seated."),
    "proud": _("It stands out of the face: the next part would press on it."),
    "little_force": _("{peak} was the most; no pair within the card's sizes takes less than {low}."),
}
NEXT = {
    Code.NO_PLAN: _("Correct that reading or the engine card."),
    Code.SEAT_IS_OUT: _("Mend it, then measure the seat here."),
    "mend": _("Mend the seat first; Inspect lists the ways."),
    "ask": _("{question}"),
    "required": _("{required}"),
    "push": _("Start it by hand, {driver} on the {ring}, and measure how it stands."),
    "another_way": _("Draw it in with a screw, or add the press to the shelf."),
    "warm_case": _("Warm the case to {case}: then nothing is forced."),
    "warm_ring": _("Warm the bearing instead: Heat and drop works out how far."),
    "start_again": _("Tap it out, turn it a little, start it again. It stands highest at {high_at} o'clock."),
    "on": _("On with it, {driver} on the {ring}, straight, to the shoulder."),
    "by_screw": _("Draw it in: {turns} turns, up to {torque_high} on the way; {home} says it is home."),
    "after_stopped": _("Do not force it on: out with it, look for a burr or dirt, then start again or warm the case."),
    "after_crooked": _("Out with it, dress the seat, start again, or warm the case."),
    "after_loose": _("Measure seat and ring; Inspect decides on the seat."),
    "back_it_out": _("Stop: back it out, it is crooked or something lies under it."),
    "seat_circlip": _("Push the ring home, then seat the circlip."),
    "push_on": _("Push it on where it stands out, then measure again."),
    "measure_or_sign": _("Measure ring and seat, or sign with this call."),
    "put_on_card": _("Put them on the card, with their fit and their depth."),
    "sign": _("Sign this entry."),
}
DETAIL = {
    "push": "",
    "required": _("First: {required}"),
    "ask": _("{question}"),
    "screw": _("{turns} turns of the screw, up to {torque_high} on the way; {home} says it is home."),
    "watch": _("Stop when it takes clearly more than expected, and look."),
    "short_turns": _("Fewer turns, or less torque at the end, than the shoulder gives: it may not be there."),
    "force_high": _("It took more than the tightest pair should: look at the seat for scores."),
}
ASSUMED = {
    "code": _("fit {code} of the seat"),
    "marking": _("bearing {marking}, typical and not read off its ring"),
    "wall": _("{wall} of metal round the seat"),
    "metal": _("metal of the case"),
}
WAY = {"tap": _("a driver and a hammer"), "press": _("the press"), "draw": _("the screw")}
RING = {"outer ring": _("outer ring"), "inner ring": _("inner ring"), "end": _("end of the part")}
PINS = _("Pins and bushes")
PART_IN_HAND, EVERY_PART = _("In hand"), _("Every part in, or left, first.")
PLAIN_END = _("the whole of its end, a driver a little smaller than the hole")
RING_END, CUP_END = _("the flat face of its {ring}"), _("its marked end, which is the hard one")
DRIVER, ANY_DRIVER = _("driver {name}"), _("a driver {low} to {high} over {inside}")
TURNS_WANTED = _("{turns} lead to the shoulder")
STANDS = (_("Stands out of the seat at {clock} o'clock"), _("as it starts, before it is pushed on; only differences count"))
CUP_FREE, CUP_UNKNOWN = _("as it lies there, the mean of four places"), _("force not known")
MEASURED_AT = _("measured at {station}")
WALL_TYPICAL = _("{wall}, typical")
TRAVEL_TYPICAL = _("its width, {width}")
MEASURED, NONE_FITS = _("measured"), _("none in this range")
TOO_FAR = _("{value} is more than {far} from the nominal {nominal}. Measure again, or correct the engine card.")

OF_A_CASE = {Property.SEAT_SIZE: _("Bore of the seat"), Property.RING_SIZE: _("Outside of the bearing")}
OF_A_PART = {Property.SEAT_SIZE: _("Bore of the hole"), Property.RING_SIZE: _("Outside of the part")}
OF_A_SHAFT = {Property.SEAT_SIZE: _("Shaft at the seat"), Property.RING_SIZE: _("Bore of the bearing")}
QUESTION = {
    Property.WALL_THICKNESS: _("Wall thickness around the bore"),
    Property.CENTRE_SCREW_DIAMETER: _("Draw-in screw"),
    Property.CENTRE_SCREW_PITCH: _("Pitch of that screw"),
    Property.TRAVEL: _("From the start to the shoulder"),
    Property.SCREW_TURNS_DONE: _("Turns when it stopped"),
    Property.SCREW_TORQUE: _("Torque at the end"),
    Property.PRESS_PEAK: _("Most force the press showed"),
    Property.FIT_OUTCOME: _("How did it go?"),
    Property.SEATING_GAP: _("Gap to the {stop}, at {clock} o'clock"),
    Property.SEATING_DEPTH: _("Depth below the face, at {clock} o'clock"),
    Property.CIRCLIP: _("The circlip"),
    Property.NOTE: _("Anything to note?"),
}
WHERE = {
    Property.SEAT_SIZE: _("two places"),
    Property.RING_SIZE: "",
    Property.WALL_THICKNESS: _("thinnest place"),
    Property.CENTRE_SCREW_DIAMETER: _("as it is called, M12x1.75, or across its crests"),
    Property.SCREW_TURNS_DONE: _("counted from where it was hand tight"),
    Property.SCREW_TORQUE: _("what the wrench read when it stopped"),
    Property.PRESS_PEAK: _("the highest on its way, before the shoulder"),
    Property.FIT_OUTCOME: _("{part}"),
    Property.SEATING_GAP: _("thickest feeler gauge that fits; 0 if none fits"),
    Property.SEATING_DEPTH: _("minus where it stands out"),
    Property.CIRCLIP: _("turn it in its groove"),
    Property.NOTE: _("for whoever opens it next"),
}
SKIP = {
    Property.SEAT_SIZE: _("by its fit code"),
    Property.RING_SIZE: _("by its tolerance"),
    Property.WALL_THICKNESS: _("typical"),
    Property.TRAVEL: _("its width"),
    Property.SEATING_DEPTH: _("judged by eye"),
    Property.SCREW_TURNS_DONE: _("not counted"),
    Property.SCREW_TORQUE: _("not read"),
    Property.PRESS_PEAK: _("not read"),
    Property.NOTE: _("nothing to note"),
}
OPTIONS: Options = {
    Property.FIT_OUTCOME: (
        ("home", _("home"), _("it stopped at its shoulder or depth")),
        ("stopped", _("stopped short"), _("it would not go on")),
        ("crooked", _("crooked"), _("out of square")),
        ("loose", _("went in by hand"), _("nothing held it")),
    ),
    Property.CIRCLIP: (("in", _("in its groove all round")), ("loose", _("not in its groove"))),
}
LABEL = {
    Property.SEAT_SIZE: _("size of {part}"),
    Property.RING_SIZE: _("ring of {part}"),
    Property.WALL_THICKNESS: _("metal round {part}"),
    Property.CENTRE_SCREW_DIAMETER: _("screw"),
    Property.CENTRE_SCREW_PITCH: _("pitch of the screw"),
    Property.TRAVEL: _("travel to the shoulder"),
    Property.SCREW_TURNS_DONE: _("turns"),
    Property.SCREW_TORQUE: _("torque at the end"),
    Property.PRESS_PEAK: _("most force"),
    Property.FIT_OUTCOME: _("how it went"),
    Property.SEATING_GAP: _("gap at {clock} o'clock"),
    Property.SEATING_DEPTH: _("depth at {clock} o'clock"),
    Property.CIRCLIP: _("circlip of {part}"),
    Property.NOTE: _("note"),
}
METHOD: Methods = {
    "way": (
        _("Pushed in by"),
        (
            ("draw", _("a screw that draws it"), _("slow, straight, counted in turns")),
            ("press", _("the press"), _("straight, and the force is read")),
            ("tap", _("a driver and a hammer"), fixed(_("for light fits, up to about {most}"), most=newtons(BY_HAMMER_N))),
        ),
    ),
    "press": (_("Press"), ()),
    "oil": (_("Seat and ring"), (("oiled", _("oiled")), ("dry", _("dry"), _("takes about twice the force")))),
}
CHECKS = {
    "support": (_("The case rests right behind the seat, on wood or a tube, not on its joint face."), True),
    "driver": (_("It is pushed by {end}, never through balls or needles."), True),
    "clean": (_("Seat and ring are clean, the edge has no burr, and a film of oil is on both."), False),
    "square": (_("Started by hand and square, measured at four places before it is pushed on."), False),
}
WARNINGS = {
    "tap": _("Wear safety glasses: a hardened ring can splinter. Never hit it directly."),
    "press": _("A ring that jumps flies: guard in place, stand aside, stop when the force climbs and nothing moves."),
    "draw": _("Turn by hand, not with an impact tool: it hides the rise that says home and strips the screw."),
    "cup": _("A drawn cup dents under a driver wider than its lip or on its soft end; a closed one must not bottom on the shaft."),
    "manual": _("The engine's manual comes first."),
}
SOURCE = {
    "grip": (_("Interference"), _("seat {seat}, ring {ring}")),
    "force": (_("Force to push it home"), _("{basis}; Lamé, DIN 7190-1")),
    "boss": (_("Outside of what is stretched"), _("from the metal round the seat")),
    "inside": (_("Inside of the ring"), _("raceway by the bearing's section")),
    "stress": (_("Stress at the bore"), _("at the greatest interference; it gives way at {yields}")),
    "warm": (_("Case warm enough to force nothing"), _("the ring left cold, the tightest pair")),
    "turns": (_("Turns to the shoulder"), _("{travel} at its pitch")),
    "torque": (_("Torque on the way"), _("{basis}, for the whole length; VDI 2230-1")),
    "home": (_("Torque that says home"), _("half as much again as the most that friction explains")),
    "lean": (_("Lean allowed at the start"), _("as much as would add its own interference again")),
    "driver": (_("Driver, outside"), _("on the {on}; {basis}")),
    "shelf": (_("Drivers on the shelf that fit"), _("{names}")),
}
ON_DRAWING = {
    "push": _("pushed in from the {side}"),
    "onto": _("pushed onto the shaft"),
    "stop": _("to the {stop}"),
    "even": _("to its depth"),
    "wall": _("{wall} of metal"),
    "wall_typical": _("{wall} of metal, typical"),
    "force": _("Force"),
    "able": _("{way}: {able}"),
    "takes": _("{low} to {high}"),
    "unknown": _("force not known"),
    "starts": _("as it starts"),
    "lies": _("as it lies"),
    "free": _("nothing forced with the case at {case}"),
}
SIDE = {"inside": _("inside"), "outside": _("outside")}
ACTION = {"again": _("Start again")}
