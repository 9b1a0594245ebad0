"""Every sentence of Split, by code."""

from __future__ import annotations

from django.utils.translation import gettext_lazy as _

from shopmath.amounts import mm
from stator.engines.properties import Property
from stator.stations.framework.messages import Methods, Options, Sentence, fixed, plural
from stator.stations.split_crankcase.analysis import Code

NAME = _("Split")
DRAWING = _("The joint face and how the halves part")
EXAMPLE = fixed(
    _("Level the halves first. The rear leads by {lead}; tap the front."),
    lead=mm(0.6, 0.01),
)
DONE = _("case opened")

HEADLINE = {
    Code.COUNT_AGAIN: _("Count again"),
    Code.BOLT_STILL_IN: _("One bolt still in"),
    Code.FASTENERS_OUT: _("Take the fasteners out"),
    Code.COUNT: _("Count the fasteners"),
    Code.MORE_THREAD: _("Screws need more thread"),
    Code.SCREWS_UNSURE: _("Too close to call"),
    Code.READY: _("Ready to part"),
    Code.ALL_OUT: _("All fasteners out"),
    Code.THREAD_NOT_CHECKED: _("Thread strength not checked"),
    Code.MEASURE: _("Round {round} of gaps"),
    Code.DISAGREE: _("Gaps do not agree"),
    Code.LEVEL: _("Halves are level"),
    Code.UNEVEN: _("Level the halves first"),
    Code.BINDING: _("Dowels are binding"),
    Code.FREE: _("Dowels are free"),
    Code.LOOK_FOR_LOOSE: _("Apart: look for loose parts"),
    Code.APART: _("Halves are apart"),
    Code.BY_HAND: _("Ready to come off"),
    Code.OFF: _("{Part} is off"),
    Code.ALL_APART: _("The case is apart"),
}

REASON = {
    "not_ticked": plural(
        "{count} of {places} fasteners is not ticked out: {missing}.",
        "{count} of {places} fasteners are not ticked out: {missing}.",
        "count",
    ),
    "not_counted": _("Every place is ticked. Count the pieces on the tray."),
    "too_few": plural(
        "{counted} on the tray for {places} places: {short} is still in, or lost.",
        "{counted} on the tray for {places} places: {short} are still in, or lost.",
        "short",
    ),
    "too_many": _("{counted} on the tray for {places} places: the card lacks {over}. Put the place on the card."),
    "all_out": _("All {counted} fasteners are out, by place and by count."),
    "ticked": _("{out} of {all} are ticked out. Type a length, or press Enter alone to tick a place."),
    "no_bolts": _("The card has no bolts: count by the parts list."),
    "strong_enough": plural(
        "{screws} screw, {turns} whole turns deep, stands {stands} at half strength; the halves may hold with {holds_low} to {holds_high}.",
        "{screws} screws, {turns} whole turns deep, stand {stands} at half strength; the halves may hold with {holds_low} to {holds_high}.",
        "screws",
    ),
    "perhaps_strong_enough": _(
        "At half strength {screws} screws, {turns} whole turns deep, stand {stands}; the halves may hold with {holds_low} to {holds_high}. "
        "{needed} turns would do."
    ),
    "too_weak": _(
        "At half strength {screws} screws, {turns} whole turns deep, stand {stands}; the halves may hold with {holds_low} to {holds_high}. "
        "The threads in the case may pull out; {needed} turns are needed."
    ),
    "not_checked": _("{fasteners} What the splitter's screws stand is unknown."),
    "measured": plural("{taken} of at least three places is measured.", "{taken} of at least three places are measured.", "taken"),
    "one_more": _("Three gaps always make a plane: one more place checks them before a tap."),
    "load_and_measure": _("Apply just enough load to move it, then measure round the joint."),
    "one_again": _("No flat half reads so: {places} is {off} off the plane of the others."),
    "all_again": _("No flat half reads so: they are {off} off any plane. One of them is misread."),
    "dowels_out": _("The dowels are out of their holes: nothing binds any more."),
    "level": _("No side leads; up to {allowed} is allowed."),
    "under_limit": _("{leading} is {lead} ahead of {lagging}; up to {allowed} is allowed."),
    "near_limit": _("{leading} is {lead} ahead of {lagging}; the dowels bind at {allowed}."),
    "over_limit": _("{leading} is {lead} ahead of {lagging}, past the {allowed} at which the dowels bind."),
    "oil_holds": _("Oil holds washers and shims to either half. What falls now can no longer be placed."),
    "apart": _("Rounds of gaps: {rounds}. Loose parts in the tray: {loose}."),
    "held_elsewhere": _("The bolts of the joint before held this one too."),
    "stays_closed": _("This joint stays closed."),
    "off": _("Loose parts in the tray: {loose}."),
    "all_apart": _("Joints opened: {opened} of {all}. Loose parts in the tray: {loose}."),
}

NEXT = {
    "ask": _("{question}"),
    "look_there_it_lags": _("Look at {likely} first: the half lags there."),
    "look_there_unmeasured": _("Look at {likely} first: nobody has measured a bolt from there."),
    "look_again": _("Look again, at heads full of dirt first."),
    "tick_every_place": _("Tick every place."),
    "count": _("Count the pieces on the tray."),
    "more_thread": _("Get the screws {needed} whole turns in, or use longer ones."),
    "go_slowly_to": _("Go up slowly; stop at {stop} on each screw. The {half} lifts."),
    "load_up_to": _("The {half} lifts. Tick the lines below, then apply load; stop at {stop} on each screw."),
    "go_slowly": _("The {half} lifts. Go up slowly, a quarter turn at a time."),
    "measure_aside": _("Measure a place to the side: these lie in line."),
    "one_again": _("No tap yet: measure {places} again."),
    "all_again": _("No tap yet: measure {places} again."),
    "go_on": _("Turn each screw {turns}, then measure again."),
    "tap": _("Tap the lifting half outward at {place}. Turn no screw until it is level."),
    "back": _("Ease the screws half a turn. Tap the half back down at {place}, then measure again."),
    "lift": _("Lift the half straight off with both hands; hold the gear shafts down."),
    "sign": _("Sign this entry."),
    "by_hand": _(
        "Tick the lines below. Tap {part} loose at its lugs with a soft hammer, draw it off square, and hold each shaft back as it comes."
    ),
    "next_joint": _("Go on with the next joint."),
}

DETAIL = {
    "in_the_tray": plural("{loose} part is in the tray.", "{loose} parts are in the tray.", "loose"),
}

ASSUMED = {
    "dowels": _("dowel clearance {clearance} over {engaged}"),
    "grip": _("hold of the halves {low} to {high}"),
    "places": _("four places round the face"),
}

TURNS = {
    1: _("a quarter turn"),
    2: _("half a turn"),
    3: _("three quarters of a turn"),
    4: _("one turn"),
    5: _("one and a quarter turns"),
    6: _("one and a half turns"),
    7: _("one and three quarter turns"),
    8: _("two turns"),
}

WHICH_PART = _("Which part comes off?")
IN_HAND = _("Joint")
UNKNOWN_HALF = _("half that lifts")

QUESTION = {
    Property.LIFTING_HALF: _("Which half lifts off?"),
    Property.BOLT_LENGTH: _("{kind} {part} out: its length"),
    Property.FASTENER_FAULT: _("{kind} {part}: what is wrong with it?"),
    Property.FASTENERS_EXPECTED: _("Fasteners by the parts list"),
    Property.FASTENERS_COUNTED: _("Pieces on the tray"),
    Property.SPLITTER_SCREW_DIAMETER: _("Splitter screws, across the crests"),
    Property.SPLITTER_SCREW_PITCH: _("Pitch of the splitter screws"),
    Property.SPLITTER_SCREW_TURNS: _("Turns the screws go into the case"),
    Property.GAP: _("Gap at {part}"),
    Property.LOOSE_PART: _("Any loose washer or shim?"),
    Property.LOOSE_FROM: _("Which shaft was it on?"),
    Property.LOOSE_HALF: _("Found on"),
    Property.NOTE: _("Anything to note?"),
}
ANOTHER_LOOSE = _("Another loose washer or shim?")

WHERE = {
    Property.LIFTING_HALF: _("see the manual; the crank stays in the other"),
    Property.FASTENERS_EXPECTED: _("manual or parts list"),
    Property.FASTENERS_COUNTED: _("count them; do not trust the ticks"),
    Property.SPLITTER_SCREW_DIAMETER: _("calliper"),
    Property.SPLITTER_SCREW_PITCH: _("thread gauge"),
    Property.SPLITTER_SCREW_TURNS: _("by hand; the least of them"),
    Property.LOOSE_PART: _("oil holds them to either half: look at both"),
    Property.LOOSE_FROM: _("and which place on it, counted from the case"),
    Property.NOTE: _("for the next time this engine comes in"),
}
ON_CARD = _("{thread}, card: {length}")
NOT_ON_CARD = _("{thread}, no length on the card")

SKIP = {
    Property.BOLT_LENGTH: _("out, not measured"),
    Property.FASTENERS_EXPECTED: _("unknown"),
    Property.SPLITTER_SCREW_DIAMETER: _("not checked"),
    Property.SPLITTER_SCREW_PITCH: _("not checked"),
    Property.SPLITTER_SCREW_TURNS: _("not checked"),
    Property.GAP: _("cannot be reached"),
    Property.LOOSE_PART: _("no more loose parts"),
    Property.NOTE: _("nothing to note"),
}

LABEL = {
    Property.LIFTING_HALF: _("half that lifts off"),
    Property.BOLT_LENGTH: _("length of bolt {part}"),
    Property.FASTENER_FAULT: _("fault at bolt {part}"),
    Property.FASTENERS_EXPECTED: _("fasteners by the parts list"),
    Property.FASTENERS_COUNTED: _("fasteners counted"),
    Property.SPLITTER_SCREW_DIAMETER: _("splitter screws, diameter"),
    Property.SPLITTER_SCREW_PITCH: _("splitter screws, pitch"),
    Property.SPLITTER_SCREW_TURNS: _("splitter screws, turns in the case"),
    Property.GAP: _("gap at {part}"),
    Property.LOOSE_PART: _("loose part"),
    Property.LOOSE_FROM: _("shaft it was on"),
    Property.LOOSE_HALF: _("half it was found on"),
    Property.NOTE: _("note"),
}

OPTIONS: Options = {
    Property.LOOSE_HALF: (("fell", _("fell out"), _("side unknown")),),  # after the halves, as this engine calls them
    Property.FASTENER_FAULT: (
        ("snapped", _("it snapped"), _("the shank is still in the case")),
        ("missing", _("there is none"), _("the place was empty")),
        ("stripped", _("its thread came out with it"), _("the case needs a new thread")),
    ),
}
WAYS = {
    "fault": _("{kind} {part} snapped, or is missing"),
    "still_in": _("{kind} {part} is out: enter its length"),
    "count": _("Count again"),
    "turns": _("The screws go in further: enter the turns"),
}

HOW: dict[str, tuple[Sentence, Sentence]] = {
    "feeler": (_("feeler gauge"), _("feeler gauge, the thickest that goes in")),
    "calliper": (_("calliper"), _("calliper across both edges, less the wall")),
    "rule": (_("steel rule"), _("steel rule")),
}
METHOD: Methods = {
    "splitter": (_("Splitter"), (("", _("the one in hand, measured")),)),
    "how": (_("Gap measured with"), ()),
}

CHECKS = {  # key: words, whether it must be ticked first
    "drained": (_("Oil and coolant drained; fuel taken off the bench."), True),
    "topend": (_("Cylinder and head off, piston clear; ignition and its wires off."), True),
    "nuts": (_("Primary gear, clutch and sprocket nuts loosened while the case still holds the crank."), True),
    "square": (_("Splitter square and centred on the crank; its load on the screws, not on the joint face."), False),
    "catch": (_("Something under the tool to catch it; a hand for the gear shafts."), False),
}
WARNINGS = {
    "lever": _("Do not lever between the faces: a nick there leaks for good."),
    "hammer": _("Soft hammer on lugs only; never on the end of the crank, never on a thin wall."),
    "eyes": _("The halves release suddenly under load. Wear safety glasses and keep fingers out of the gap."),
    "snapped": _("Bolt {parts} snapped: its shank may still hold the halves there. Do not lever; warm the boss and turn the shank out."),
    "manual": _("The engine's manual comes first; some halves lift only with a selector turned or a shaft held."),
}

ACTION = {
    "rest": plural("The last fastener is out, not measured", "The other {left} fasteners are out, not measured", "left"),
    "begin": _("Apply load: first round of gaps"),
    "next": _("Start the next round"),
    "these": _("Measure {place} again"),
    "all_these": _("Measure all gaps again"),
    "apart": _("Halves are apart"),
    "off": _("{Part} is off"),
    "leave": _("This joint stays closed"),
}
THREE_GAPS_FIRST = _("Measure three gaps first.")

SOURCE = {  # code: label, where the number comes from
    "screws": (_("Screws hold"), _("{turns} whole turns; {basis}")),
    "grip": (_("Halves hold with"), _("{basis}")),
    "allowed": (_("Lead allowed"), _("dowel clearance {clearance} over {engaged}, less the gap, across {span}")),
    "dowels_out": (_("Lead allowed"), _("every dowel is out of its hole")),
    "gap": (_("Mean gap"), _("plane by least squares")),
    "round_level": (_("Round {round}"), _("no side was ahead")),
    "round": (_("Round {round}"), _("{leading} was {lead} ahead of {lagging}")),
    "places": (_("Places"), _("four round the face; put the engine's own on its card")),
}
ANY, ASSUMED_VALUE, NONE_THERE = _("any"), _("assumed"), _("none there")

ON_DRAWING = {
    "snapped": _("{bolt} snapped"),
    "stripped": _("{bolt} stripped"),
    "missing": _("{bolt} missing"),
    "no_bolts": _("no bolts on the card yet: tap them onto its face"),
    "lifts": _("{seen}; the {half} lifts"),
    "ahead": _("{name} is ahead"),
    "behind": _("{name} is behind"),
    "closed": _("the joint from the side, closed"),
    "apart": _("apart"),
    "scale": _("gap drawn {times} times"),
    "gap_of": _("{name} {gap}"),
}
