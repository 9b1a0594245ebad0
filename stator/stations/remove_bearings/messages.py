"""Messages of Remove bearings by code."""

from __future__ import annotations

from django.utils.translation import gettext_lazy as _

from shopmath.amounts import celsius
from stator.engines.properties import Property
from stator.stations.framework.messages import BY_LIMIT, Methods, Options, fixed, plural
from stator.stations.remove_bearings.analysis import Code

NAME = _("Bearings out")
DRAWING = _("The seat, its bearing and what holds it")
EXAMPLE = fixed(
    _("Comes free at {low} to {high}. Case in the oven, mouth down; the bearing falls out or takes a light tap."),
    low=celsius(85),
    high=celsius(110),
)
DONE = plural("{count} bearing taken out", "{count} bearings taken out", "count")

HEADLINE = {
    Code.STILL_IN: _("Bearing still in"),
    Code.SEAL_FIRST: _("Check the seal first"),
    Code.SEAL_GOOD: _("Seal sat well"),
    Code.SEAL_UNSURE: _("Too close to call"),
    Code.SEAL_BAD: _("Seal sat wrong"),
    Code.RETAINED: _("Bearing is held by a {what}"),
    Code.REFUSED: _("Not that way"),
    Code.LOOK_FIRST: _("Look at the seat first"),
    Code.DROP: _("Heat: it will drop out"),
    Code.SPRAY: _("Heat the case, spray the ring"),
    Code.DRIVE: _("Heat and drive it out"),
    Code.OTHER_WAY: _("{way}"),
    Code.LAST_RESORT: _("Cut it out: last resort"),
    Code.LOOK_NOW: _("Out: look at it now"),
    Code.OUT_DAMAGED: _("Out, with damage"),
    Code.OUT_UNLIKE_CARD: _("Out; differs from the card"),
    Code.ON_CRANK: _("It stayed on the crank"),
    Code.ON_SHAFT: _("It stayed on its shaft"),
    Code.OUT: _("Bearing out, seat sound"),
}
WAY = {
    "drop": _("Heat the case, let it drop"),
    "spray": _("Heat the case, spray the ring"),
    "drive": _("Heat the case, drive the outer ring"),
    "collet": _("Blind bearing puller"),
    "hydraulic": _("Push it out with packed grease"),
    "punch": _("Drive it out with a brass punch"),
    "cut": _("Cut it out"),
    "pull": _("Puller behind the inner ring"),
    "press": _("Press the shaft out, bearing on a separator plate"),
    "warm": _("Warm the inner ring, then pull"),
}
TRY = _("Next: {way}")
WAYS = {"taken_out": _("The {what} is out now")}
BECAUSE = {  # reasons for and against a way, as clauses
    "retained": _("not before the {what} is out"),
    "opens_evenly": _("the whole case opens evenly, nothing is struck"),
    "frees_most": _("frees most pairs, not the tightest, under the limit"),
    "cup_by_heat": _("a drawn cup has no size of its own: how hot is not known"),
    "behind_the_shell": _("a collet behind the shell and a screw: slow and straight"),
    "grows_together": _("ring and case grow together: not enough under the limit"),
    "no_spray": _("no freeze spray on the shelf"),
    "sprayed_holds": _("even a sprayed ring holds under the limit"),
    "cold_ring": _("a cold ring in a hot case comes free at far less heat"),
    "blind_no_drive": _("blind: nothing can be driven from behind"),
    "driver_from_behind": _("through: a driver on the outer ring from behind, case hot and supported"),
    "look_behind": _("look first whether it can be reached from behind"),
    "support_thin_wall": _("thin wall: support right behind it"),
    "no_collet": _("no collet puller on the shelf"),
    "grips_from_front": _("grips the bore from the front: right for a blind seat"),
    "through_balls": _("pulls by the inner ring, through the balls"),
    "scrap_after": _("the bearing is scrap after"),
    "through_no_grease": _("through: nothing closes the space behind it"),
    "open_no_grease": _("open: grease goes past the balls, it needs a solid or fully shielded bearing"),
    "thin_wall_breaks": _("thin wall behind: the pressure may break it out"),
    "packed_grease": _("blind and shielded: packed grease, wax or wet paper and a close pin"),
    "blind_no_strike": _("blind: nothing to strike from behind"),
    "walks_crooked": _("comes out crooked: brass punch, alternate corners, case hot, the last choice but one"),
    "last_resort": _("hard swarf, damaged seats; cover everything and record why"),
    "no_puller": _("no bearing puller on the shelf"),
    "tight_ring_alone": _("pulls on the tight ring alone"),
    "no_press": _("no press on the shelf"),
    "square_and_read": _("square, and the force is read"),
    "less_force": _("less force for a tight bearing"),
    "magnesium": _("magnesium: oven or hot plate only, no flame"),
}
REASON = {
    **BY_LIMIT,
    "not_done": _("{way} did not do it."),
    "seal_tells": _("What the seal tells is lost once it is pulled."),
    "lip_wrong": _(
        "Its lip faced {lip}; the card has it {card}. Find out which is right before a new one goes in. {depth} deep, {lean} out of "
        "square, deepest at {deepest} o'clock."
    ),
    "seal_sat": _("{depth} deep, {lean} out of square, deepest at {deepest} o'clock. {verdict}"),
    "holds": _("Force now breaks the groove or the case."),
    "way": _("{way}: {reasons}."),
    "look_before_wiping": _("Look at seat and bearing before they are wiped clean."),
    "faults": _("{faults}."),
    "unlike_card": _("{what}: found {found}, the card says {card}."),
    "sound": _("{way}; the seat is sound."),
    "on_shaft": _("The seat in the cover is free and sound; its bearing sits on the shaft."),
    "on_crank": _("The seat is free and sound; its bearing sits on the crank."),
}
FAULT = {
    "hit_through_balls": _("it was driven through its balls, the races are dented: replace it"),
    "in_pieces": _("it came out in pieces: replace it"),
    "seat_spun": _("the ring has turned in its seat: Inspect measures the bore"),
    "seat_scored": _("the seat is scored or cracked: Inspect decides on it"),
    "seal_pressed": _("the seal pressed on the bearing"),
}
NEXT = {
    "ask": _("{question}"),
    "pull_seal": _("Pull the seal."),
    "try": _("{other}: {because}."),
    "ask_someone": _("Let it cool, think, ask somebody."),
    "take_out": _("Take the {what} out, into the tray, then answer again."),
    "gentlest": _("{other}: {because}."),
    "drop": _("{heat}mouth down over a soft pad, a tap on the case."),
    "spray": _("{heat}mouth down."),
    "drive": _("{heat}{driver}, toward the {side}."),
    "other": _("{way}, toward the {side}."),
    "off_shaft": _("Pull it off the shaft, puller behind its inner ring, then sign this entry."),
    "stays_on_shaft": _("It may stay there: it goes back into its seat with the cover. Sign this entry."),
    "off_crank": _("Pull it off the crank, puller behind its inner ring, then sign this entry."),
    "stays_on_crank": _("It may stay there: it goes back into its seat with the crank. Sign this entry."),
    "sign": _("Sign this entry."),
}
HEAT = _("Case to {likely}, {high} for the tightest; ")
SPRAYED = _("Case to {high}, then spray the ring through its bore; ")
DRIVER, ANY_DRIVER = _("driver {name}"), _("a driver {low} to {high} over {inside}")
DETAIL = {"so_far": _("So far: {so_far}")}
ASSUMED = {"code": _("fit {code} of the seat"), "marking": _("bearing {marking}, typical and not read off its ring")}
SIDE = {"inside": _("inside"), "outside": _("outside")}

QUESTION = {
    Property.SEAL_LIP: _("{part}: lip and spring face"),
    Property.SEAL_DEPTH: _("{part}: depth at {clock} o'clock"),
    Property.SEAL_OUT: _("Is the seal out?"),
    Property.BEARING_FACE_DEPTH: _("Depth of the bearing's face"),
    Property.RETAINED_BY: _("What holds the bearing in?"),
    Property.REACH: _("Can it be reached from behind?"),
    Property.SHIELDS: _("The bearing is"),
    Property.WAY_ROUND: _("{what} faces"),
    Property.BEARING_DECISION: _("The bearing will be"),
    Property.CAME_OUT: _("How did it come out?"),
    Property.HIT_THROUGH_BALLS: _("Was it driven or pulled through its balls?"),
    Property.REASON: _("Why was no gentler way left?"),
    Property.SEAT_CONDITION: _("The seat, wiped, is"),
    Property.BEARING_MARKING: _("Marking on the ring"),
    Property.NOTE: _("Anything to note?"),
}
WHERE = {
    Property.SEAL_LIP: _("as found, before it is pulled"),
    Property.SEAL_DEPTH: _("below the face; minus when it stands proud"),
    Property.SEAL_OUT: _("hooked out toward its own side, without touching the bore"),
    Property.BEARING_FACE_DEPTH: _("below the same face as the seal"),
    Property.RETAINED_BY: _("the card says: {on_card}"),
    Property.REACH: _("the card says: {on_card}"),
    Property.SHIELDS: _("{marking} by the card"),
    Property.WAY_ROUND: _("as found, before it is moved"),
    Property.BEARING_DECISION: _("a hit through its balls ends it anyway"),
    Property.CAME_OUT: _("{part}"),
    Property.HIT_THROUGH_BALLS: _("by the ring that was not the tight one"),
    Property.REASON: _("the job sheet carries it"),
    Property.SEAT_CONDITION: _("bore or journal, and the shoulder"),
    Property.BEARING_MARKING: _("as found; the card says {marking}"),
    Property.NOTE: _("for the next time this engine comes in"),
}
SKIP = {
    Property.SEAL_LIP: _("not seen"),
    Property.SEAL_DEPTH: _("not measured"),
    Property.BEARING_FACE_DEPTH: _("not measured"),
    Property.WAY_ROUND: _("not seen"),
    Property.BEARING_MARKING: _("as the card says"),
    Property.NOTE: _("nothing to note"),
}
FACED_PART = {"marking": _("Its marking"), "cage": _("Its open cage side"), "shield": _("Its shield")}
FACES = {  # way round, by the key of the card
    "in": _("to the inside"),
    "out": _("to the outside"),
}
OPTIONS: Options = {
    Property.SEAL_LIP: (("inside", _("to the inside")), ("outside", _("to the outside"))),
    Property.SEAL_OUT: (
        ("yes", _("yes")),
        ("no", _("stays in for the heat"), fixed(_("the limit is then {low} to {high}"), low=celsius(80), high=celsius(100))),
    ),
    Property.RETAINED_BY: (
        ("none", _("nothing")),
        ("circlip", _("a circlip")),
        ("plate", _("a plate and screws")),
        ("removed", _("it was held; that is off now")),
    ),
    Property.REACH: (("open", _("yes, from behind"), _("a driver reaches it")), ("blind", _("no"), _("blind bore"))),
    Property.SHIELDS: (
        ("open", _("open"), _("balls can be seen")),
        ("one", _("closed on one side")),
        ("both", _("closed on both sides")),
    ),
    Property.WAY_ROUND: (
        *((f"{part}_out", FACES["out"]) for part in ("marking", "cage", "shield")),
        *((f"{part}_in", FACES["in"]) for part in ("marking", "cage", "shield")),
    ),
    Property.BEARING_DECISION: (("keep", _("kept if it can be")), ("scrap", _("scrapped"))),
    Property.CAME_OUT: (
        ("dropped", _("dropped out"), _("by heat alone")),
        ("driven", _("driven or pulled"), _("whole")),
        ("broke", _("in pieces"), _("ring left, or cut")),
        ("with_crank", _("on the crank"), _("came away with it")),
        ("with_shaft", _("on its shaft"), _("the cover came off without it")),
        ("stuck", _("still in")),
    ),
    Property.HIT_THROUGH_BALLS: (("no", _("no"), _("by the tight ring only")), ("yes", _("yes"), _("through the balls"))),
    Property.SEAT_CONDITION: (
        ("sound", _("smooth, tight marks")),
        ("spun", _("polished: the ring spun")),
        ("scored", _("scored or cracked")),
    ),
}
LABEL = {
    Property.SEAL_LIP: _("lip of {part}"),
    Property.SEAL_DEPTH: _("depth of {part} at {clock} o'clock"),
    "mean seal depth": _("depth of {part}"),
    Property.SEAL_OUT: _("whether {part} is out"),
    Property.BEARING_FACE_DEPTH: _("depth of the bearing's face"),
    Property.RETAINED_BY: _("what holds the bearing"),
    Property.REACH: _("reach from behind"),
    Property.SHIELDS: _("shields of the bearing"),
    Property.WAY_ROUND: _("way round of the bearing"),
    Property.BEARING_DECISION: _("decision on the bearing"),
    Property.CAME_OUT: _("how the bearing came out"),
    Property.HIT_THROUGH_BALLS: _("driven through its balls"),
    Property.REASON: _("why no gentler way was left"),
    Property.SEAT_CONDITION: _("condition of the seat"),
    Property.BEARING_MARKING: _("marking of the bearing"),
    Property.NOTE: _("note"),
}

METHOD: Methods = {"way": (_("Way, the gentlest first"), ())}
NUMBERED, REFUSED_WAY = _("{number}. {way}"), _("not: {way}")
CHECKS = {
    "dry": _("Washed and dry, no fuel, oil or chlorinated cleaner left before any heat: its vapour is toxic."),
    "side": _("It comes out toward the {side}: nothing of the case is in its way."),
    "support": _("Case supported right behind the seat, on wood, not on its joint face."),
}
WARNINGS = {
    "metal": _("Magnesium case: fire risk. Use no flame, only an oven or a hot plate. Never use water on a magnesium fire."),
    "spray": _("Freeze spray burns skin, and its gas is dangerous with a flame or hot metal: no flame in the room, air moving."),
    "hydraulic": _("Wear safety glasses. Grease under pressure can pierce skin, and a thin wall breaks without warning."),
    "cut": _("Cover every opening: hard swarf. Protect eyes and ears; the seat is soft, stop short of it."),
    "punch": _("Wear safety glasses: hardened rings splinter. Use a brass punch and light blows on alternate sides."),
    "press": _("Press joints release suddenly: use the guard and stand aside."),
    "hot": _("Hot case: gloves, a clear path, nobody else's hands near."),
    "manual": _("The engine's manual comes first."),
}
SOURCE = {
    "together": (_("Comes free, ring hot too"), _("{basis}; the case grows more than the ring")),
    "sprayed": (_("Comes free, ring sprayed"), fixed(_("ring held near {ring}"), ring=celsius(0))),
    "holds": (_("Force to draw it out cold"), _("dry, typical metal round the seat; a screw takes its width over its pitch in turns")),
    "limit": (_("Limit"), _("{what}: {reason}")),
    "driver_outside": (_("Driver, outside"), _("on the {on}; {basis}")),
    "driver_inside": (_("Driver, inside"), _("clear of the other ring")),
    "shelf": (_("Drivers on the shelf that fit"), _("{names}")),
    "square": (_("Seal out of square"), _("{verdict} Shop rule.")),
    "gap": (_("Seal to bearing"), _("deepest place; {verdict}")),
    "way": (_("{number}. {way}"), _("{reasons}")),
}
OR_MORE, NONE_FITS = _("{size} or more"), _("none in this range")
WAY_STATE = {"in": _("good"), "too_close": _("perhaps"), "stop": _("no")}
RING = {"outer ring": _("outer ring"), "inner ring": _("inner ring")}
DRIVER_SIZES = _("{name} {outside}/{inside}")

ON_DRAWING = {
    "out_toward": _("out toward the {side}"),
    "off_shaft": _("off the shaft"),
    "circlip": _("held by a circlip"),
    "plate": _("held by a plate"),
    "fit": _("held by its fit alone"),
    "blind": _("blind behind"),
    "open": _("open behind"),
    "unknown": _("behind it: unknown"),
    "thin": _("{behind}, thin wall"),
    "case_c": _("case {likely} to {high}"),
    "lip_inside": _("lip to the inside"),
    "lip_outside": _("lip to the outside"),
    "lip_unknown": _("lip: unknown"),
    "by_card": _("{lip} (card)"),
    "depth": _("seal depth"),
    "driver": _("Driver on the {on}"),
    "bore": _("bore {size}"),
    "outside": _("outside {size}"),
    "none_fits": _("none on the shelf fits"),
}
UNLIKE = _("differs from the card")
