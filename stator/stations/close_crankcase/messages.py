"""Every sentence of Close, by code."""

from __future__ import annotations

from django.utils.translation import gettext_lazy as _

from shopmath.amounts import newton_metres
from shopmath.sealing import ANAEROBIC, CRANK, GEARS, SILICONE, SOLVENT, WATER
from stator.engines.properties import Property
from stator.stations.close_crankcase.analysis import DRY, GASKET, OPEN, SOUND, Code
from stator.stations.framework.messages import ON_THREADS, Methods, Options, fixed, plural

NAME = _("Close")
DRAWING = _("The joint face and the order of its bolts")
EXAMPLE = fixed(
    _("Close it. The sealant stays open for 10 min; all bolts in three rounds to {torque}."),
    torque=newton_metres(10),
)
DONE = _("case closed")

HEADLINE = {
    Code.ON_THE_TRAY: _("Still on the tray"),
    Code.GEAR: _("A gear does not select"),
    Code.NO_BOLTS: _("No bolts on the card"),
    Code.JOINT_DIFFERS: _("Joint and end float differ"),
    Code.TOO_MUCH: _("Too much torque"),
    Code.SETTING: _("Sealant is setting"),
    Code.BOLT_FAULT: _("A bolt cannot hold"),
    Code.READY: _("Ready to close?"),
    Code.CLOSE: _("Close it"),
    Code.TIGHTEN: _("Tighten the bolts"),
    Code.CLOSED: _("Case is closed"),
    Code.TOO_LONG: _("Too long for this sealant"),
    Code.NOT_THERE: _("That sealant does not hold there"),
}
REASON = {
    Code.ON_THE_TRAY: _("{places}."),
    "more_places": plural("{places} and one more.", "{places} and {more} more.", "more"),
    Code.GEAR: _("{fault}"),
    "gear_unknown": _("A case closed over a gear that does not select is opened again."),
    Code.NO_BOLTS: _("Order and rounds come from their places."),
    "gasket_missing": _("End float counted a gasket of {gasket}: without it the crank has that much less."),
    "gasket_added": _("End float counted no gasket: with one the crank has its thickness more."),
    "holds": _("{low} to {high} a bolt; {part} {weak}."),
    "near": _("{low} to {high} a bolt: near what {part} {weak}."),
    "past": _("{low} to {high} a bolt: more than {part} {weak}."),
    "has_set": _("The sealant has set: wipe it off both faces and begin again."),
    "will_set": _("{left} left before it sets, {needed} of work left: it will set before the last bolt."),
    "open": _("{left} left before it sets, {needed} of work left."),
    "snapped": _("Bolt {bolt} snapped: its shank is in the case."),
    "stripped": _("The thread of bolt {bolt} is stripped."),
    "first": _("Faces, dowels, screens and O-rings first; then the sealant, thin."),
    "required": _("{required}"),
    Code.CLOSED: _("{bolts} bolts in {rounds} rounds."),
    "swells_in_petrol": _("{sealant} at the crank's chamber: silicone swells in petrol and lets go."),
    Code.TOO_LONG: _("{sealant} stays open {left}; beads, drying, parts and the first round of every joint take {needed}."),
    "progress": _("{done} of {to_do} done. Crosswise from the middle, by hand first."),
    "progress_open": _("{done} of {to_do} done. {open}"),
}
PART = {"bolt": _("the bolt stands"), "thread": _("the case's thread stands")}
NEXT = {
    Code.ON_THE_TRAY: _("Put each back and empty its place; then close."),
    Code.GEAR: _("Drum, forks, shims: put it right now, while it is open."),
    Code.NO_BOLTS: _("Tap them onto the joint face of the card."),
    Code.JOINT_DIFFERS: _("Choose what End float counted, or do End float again for this joint."),
    Code.TOO_MUCH: _("Go back to the manual's torque: a thread or a bolt would fail."),
    Code.SETTING: _("Apart again, both faces clean; fresh sealant, thin."),
    Code.BOLT_FAULT: _("Turn the shank out or repair the thread, fit a new bolt, then say that it is sound."),
    "ask": _("{question}"),
    "tick": _("Tick the required checks."),
    "with_sealant": _("{sealant} on, thin, then close: the order begins at the middle."),
    Code.NOT_THERE: _("Another one for the crank's chamber; this one may stay at the passage."),
    "with_solvent": _("{sealant} on, thin; {wait} until it is tacky, then close: the order begins at the middle."),
    "beads": _("{sealant} on every joint, thin: its clock runs from the first bead to the last bolt of the first round."),
    Code.TOO_LONG: _("A slower sealant, or a second pair of hands. Lay no bead before."),
    "with_gasket": _("Gasket in, dry, then close: the order begins at the middle."),
    "with_nothing": _("Nothing between the faces: close; the order begins at the middle."),
    "nothing": "",
    Code.CLOSED: _("Turn the crank, pull and push it: nothing may drag."),
    "bolts_left": _("Bolts: {done} of {to_do} done."),
}
DETAIL: dict[str, str] = {}
ASSUMED = {"engaged": _("thread engaged {times} times its diameter")}

QUESTION = {
    Property.GEARS: _("Shafts and drum back: do the gears select by hand?"),
    Property.GEAR_FAULT: _("Which one, and what holds it?"),
    Property.BOLT_TORQUE_WANTED: _("Torque of the case's bolts"),
    Property.BOLT_TORQUE_INSTEAD: _("Torque instead"),
    Property.REASON: _("Why more than the manual?"),
    Property.BOLT_TORQUE: _("Bolt {part} to {torque}"),
    Property.FASTENER_FAULT: _("Bolt {part}: how is it?"),
    Property.SQUEEZED_OUT: _("What squeezed out inside?"),
}
WHERE = {
    Property.BOLT_TORQUE_WANTED: _("manual; better on the card"),
    Property.BOLT_TORQUE_INSTEAD: _("checked against bolt and thread"),
    Property.REASON: _("the job sheet carries it"),
    Property.SQUEEZED_OUT: _("through the case's mouth, before it starts to set; then on with the bolts"),
    Property.BOLT_TORQUE: _("round {round} of {rounds}; {size}"),
}
SIZE, SIZE_LONG = _("{thread}"), _("{thread}, {length} long")
SKIP = {Property.BOLT_TORQUE: _("done, at {torque}")}
OPTIONS: Options = {
    Property.GEARS: (("all", _("every gear selects")), ("not", _("one does not")), ("none", _("no gears in it"))),
    Property.SQUEEZED_OUT: (
        ("wiped", _("wiped off, still soft")),
        ("hidden", _("cannot be reached"), _("so it was laid thin")),
        ("skinned", _("a skin has formed on it"), _("it may come off in strings")),
    ),
    Property.FASTENER_FAULT: (
        (SOUND, _("sound"), _("a good bolt in a good thread")),
        ("snapped", _("it snapped"), _("the shank is in the case")),
        ("stripped", _("its thread is stripped"), _("it turns and does not tighten")),
    ),
}
WAYS = {
    "fault": _("Bolt {bolt} snapped, or its thread strips"),
    "sound": _("Bolt {bolt} is put right"),
    "gears": _("Every gear selects now"),
}
LABEL = {
    Property.GEARS: _("gears selected by hand"),
    Property.GEAR_FAULT: _("gear that does not select"),
    Property.BOLT_TORQUE_WANTED: _("torque of the case's bolts"),
    Property.BOLT_TORQUE_INSTEAD: _("torque instead of the manual's"),
    Property.REASON: _("why more than the manual"),
    Property.BOLT_TORQUE: _("bolt {part}, round {stage}"),
    Property.FASTENER_FAULT: _("bolt {part} and its thread"),
    Property.SQUEEZED_OUT: _("what squeezed out inside"),
}

METHOD: Methods = {
    "sealant": (
        _("Between the faces"),
        ((GASKET, _("a gasket"), _("dry")), (DRY, _("nothing"), _("faces as they are"))),
    ),
    "faces": (_("On"), (("one", _("one face, thin")), ("both", _("both faces")))),
    WATER: (_("At a water passage"), (("", _("as the rest")),)),
    GEARS: (_("At the gearbox"), (("", _("as the rest")),)),
    "threads": (_("Threads are"), ON_THREADS),
    "school": (
        _("Torque"),
        (("manual", _("the manual's torque"), _("usual")), ("more", _("more than the manual"), _("needs a reason"))),
    ),
}
ACTION = {
    "round": plural("Round {round} of {rounds}: the last bolt is done", "Round {round} of {rounds}: all {bolts} bolts are done", "bolts"),
    "sealed": _("Sealant is on: close the case"),
    "beads": _("The first bead goes on: start its clock"),
    "close": _("Close the case"),
    "again": _("Open it and begin again"),
}
NOT_ALL = _("Every bolt, every round.")
TIMER = {OPEN: _("sealant sets")}
CHECKS = {
    "clean": (_("Both faces clean, dry, no old sealant in threads or oil ways."), True),
    "in": (_("Dowels, screens, O-rings and thrust washers in, each seen."), True),
    "holes": (_("Plugged, or meant to stay open: {holes}."), True),
    "hand": (_("Every bolt in its own place by length, turned in by hand."), False),
}
WARNINGS = {
    "coolant": _("Some solvent-based sealants soften in coolant: look at its sheet before it keeps water."),
    "meet": _("Anaerobic and silicone must not meet: neither grips over the other. End one before the other begins."),
    "wipe": _("Thin, and none within 2 mm of an oil way: wipe off what squeezes inside before it starts to set."),
    "skinned": _("Skinned sealant inside comes off in strings and blocks oil ways: wash it out, or open the case again."),
    "petrol": _("Silicone swells in petrol: not for a joint that petrol wets."),
    "missing": _("Bolt {bolts} was missing when the case came: find one of its thread and length."),
    "impact": _("Nothing run home with an impact tool: the last turns are felt, then measured."),
    "manual": _("The manual's torque and order come first; more only with a reason."),
}
SOURCE = {
    "load": (
        _("{thread} at {torque}"),
        _("proof load {proof}, the case strips at {strip}; {times} diameters of thread assumed"),
    ),
    "rounds": (_("Rounds"), _("order from the places on the face; torque {origin}")),
    "open": (_("Open time"), _("{sealant}, its own sheet")),
    "film": (_("Film"), _("{place}; fills up to {gap}; clean with: {clean}")),
}
ORIGIN = {
    "card": _("from the card"),
    "typed": _("as typed"),
    "more": _("more than the manual: {why}"),
    "no_reason": _("more than the manual, no reason yet"),
}
UNKNOWN = _("unknown")
PLACE = {CRANK: _("crank's chamber"), WATER: _("water passage"), GEARS: _("gearbox, or a cover")}
CLEAN = {
    ANAEROBIC: _("gasket remover or a plastic scraper, then a cleaner that leaves no film"),
    SOLVENT: _("brake cleaner or acetone, a rag; no scraper"),
    SILICONE: _("peel and rub it off; no solvent takes it, and none may stay where another kind goes"),
}
ON_DRAWING = {
    "no_bolts": _("no bolts on the card yet: tap them onto its face"),
    "failed": _("bolt {bolt}"),
    "joint": _("{Joint}; {seen}"),
    "order": _("numbers: the order"),
    "order_rings": _("numbers: the order; one ring a round"),
}
