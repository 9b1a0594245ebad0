"""Messages of a heat for a case half, by code."""

from __future__ import annotations

from django.utils.translation import gettext_lazy as _

from shopmath.amounts import celsius
from stator.engines.properties import Property
from stator.stations.framework.messages import Options, Sentence, fixed
from stator.stations.install_with_heat import messages as shared
from stator.stations.install_with_heat.case_half.analysis import LAID, Code
from stator.stations.install_with_heat.shaft_assembly import messages as assembly

NAME = _("Heat and drop")
DRAWING = _("One heat, part by part")
EXAMPLE = fixed(
    _("All five in one heat at {heat}. Largest first; the last has 40 s to spare."),
    heat=celsius(115),
)

HEADLINE: dict[str, Sentence] = {
    **assembly.HEADLINE,
    Code.NO_PLAN: _("No plan"),
    Code.NOTHING: _("Nothing to heat"),
    Code.ALL_HOME: _("All home"),
    Code.WHICH_WAY: _("Which way round?"),
    Code.STOP: _("Stop"),
    Code.TOO_MANY: _("Chiller is too small"),
    Code.ONE: _("It goes in one heat"),
    Code.IN_ONE: _("{all} in one heat"),
    Code.SOME_IN_ONE: _("{some} of {all_small} in one heat"),
    Code.UNSURE: _("Too close to call"),
    Code.OPEN: _("Open the door"),
    Code.CASE_IN: _("Case in now"),
    Code.NOT_YET: _("Not yet"),
    Code.IN_HAND: _("{part}"),
    Code.SHUT: _("{part}: shut"),
    Code.WHAT_OF_THE_LAST: _("What of the last?"),
    Code.REHEAT: _("{waiting} for a reheat"),
}
REASON: dict[str, Sentence] = {
    **assembly.REASON,
    **shared.STOPPED,
    Code.NO_PLAN: _("{said}"),
    "needs_oven": _("A whole half wants an oven: a flame, a gun or a plate warms one boss at a time."),
    Code.NOTHING: _("No bearing, pin or bush of this half is on the card."),
    "every_part": _("Every part of the {half} is in."),
    "in_one_heat": _("{home} in one heat."),
    Code.WHICH_WAY: _("{part}: found with {found}, the card says {card}."),
    "loose": _("{part}: the seat is out. Mend it, then measure it on its own page, cold."),
    "no_place": _("The {chiller} holds {places}; no place for {parts}."),
    "each_sure": _("Least sure part: {chance}."),
    "some_sure": _("Least sure part: {chance}. These wait for a reheat: {parts}."),
    "none_sure": _("No part keeps its clearance long enough. Waits for a reheat: {parts}."),
    "coarse": shared.COARSE,
    "too_hot": _("The case is at {here}; {what} allows {limit}."),
    Code.OPEN: _("Case at {here}, everything cold."),
    Code.CASE_IN: _("The cold parts have had their head start."),
    "waits_case": _("Open the oven in about {door}: the case is not warm through yet."),
    "waits_part": _("Open the oven in about {door}: {part} is not ready yet."),
    "turn_it": _("Turn it in its groove all round."),
    "from": _("{from_side}."),
    "from_way": _("{from_side}, {way}."),
    Code.SHUT: _("It closed while it waited: it would not drop in now."),
    Code.WHAT_OF_THE_LAST: _("Its window closed: {parts}."),
    Code.REHEAT: _("{home} home. Still to go: {parts}."),
}
NEXT: dict[str, Sentence] = {
    **assembly.NEXT,
    Code.NO_PLAN: _("Correct that reading, the method or the engine card."),
    Code.NOTHING: _("Put them on the card, or take another half."),
    "check_each": _("Check each at its seat."),
    Code.WHICH_WAY: _("Settle it before anything is hot: a page or the drawing decides."),
    "change_method": _("Change the method, or take out what sets the limit."),
    Code.TOO_MANY: _("Choose another chiller for it, or leave it for a reheat."),
    "oven": _("{heater} at {setting}. Case to {target}: about {soak} in the oven ({soak_low} to {soak_high})."),
    "oven_meanwhile": _("{heater} at {setting}. Case to {target}: about {soak} in the oven ({soak_low} to {soak_high}). {cold} meanwhile."),
    "cold_first": _(
        "{cold} first. {heater} at {setting}. About {later} later, case to {target}: about {soak} in the oven ({soak_low} to {soak_high})."
    ),
    "coarse": shared.COARSE_NEXT,
    "out_of_heat": _("Take it out of the heat now."),
    Code.OPEN: _("Take the half out; fit the parts one by one as drawn."),
    "open_door": _("Open the door."),
    Code.CASE_IN: _("Put the half into the oven."),
    "case_standing": _("Put the half into the oven."),
    "lay_bench": _("Lay the bench out in the order drawn."),
    "half_later": _("The half goes into the oven in about {later}. Lay the bench out in the order drawn."),
    "enter": _("Enter when it is in."),
    "push": _("Square, push home within {left}. Enter when it is in."),
    "parts_go_in": _("Parts go in."),
    Code.SHUT: _("Put it aside. Do not drive it."),
    Code.WHAT_OF_THE_LAST: _("Say whether it went in."),
    Code.REHEAT: _("Then reheat for the rest."),
    "back_out": _("Stop. Back {stuck} out with the puller or lift it off, clean the bore. Then reheat for the rest."),
    "hold_down": _("Hold each down until the heat has gone across, then feel for a gap at its seat."),
    "note_or_sign": _("Note or sign."),
}
DETAIL: dict[str, Sentence] = {
    **assembly.DETAIL,
    "all_home_by": _("All home {last} after the door; the first window closes at {first} ({part})."),
    "some_in_one": _("{some} of {all_small} in one heat"),
    "hotter": _("{more} hotter gives every part longer; more cold, or a second pair of hands, too."),
    "no_hotter": _("A hotter case is not allowed here; more cold, or a second pair of hands, too."),
    "order": _("Order: {order}."),
    "jam": _("{stuck}: leave it, no hammer. It is lifted off or pulled after the rest, and reheated."),
    "waits": _("Waits for a reheat now: {lost}."),
    "jam_waits": _(
        "{stuck}: leave it, no hammer. It is lifted off or pulled after the rest, and reheated. Waits for a reheat now: {lost}."
    ),
    "peels": _("Never drive a cocked ring: it peels the bore."),
    "own_page": _("Each seat's own page asks for the gaps, cold."),
}
NUMBERS = (
    (_("None"), _("none")),
    (_("One"), _("one")),
    (_("Two"), _("two")),
    (_("Three"), _("three")),
    (_("Four"), _("four")),
    (_("Five"), _("five")),
    (_("Six"), _("six")),
    (_("Seven"), _("seven")),
    (_("Eight"), _("eight")),
    (_("Nine"), _("nine")),
    (_("Ten"), _("ten")),
    (_("Eleven"), _("eleven")),
    (_("Twelve"), _("twelve")),
)
FROM_SHORT = {"inside": _("from inside"), "outside": _("from outside")}  # where there is little room
WAY_SHORT = {
    "marking_in": _("marking in"),
    "marking_out": _("marking out"),
    "cage_in": _("open side in"),
    "cage_out": _("open side out"),
    "shield_in": _("shield in"),
    "shield_out": _("shield out"),
}
STUCK = {
    "jammed": _("{part} jammed"),
    "crooked": _("{part} went in crooked"),
    "loose": _("{part} is not in its groove"),
}
WAY = {  # which way round, and by whose word
    "circlip": _("sharp edge outward"),
    "turned": _("{turned} to {angle}"),
    "unknown": _("way round unknown"),
}
GOES = _("{from_side}, {way}")
DRIVER_WANTED = _("driver {sizes}")
PLIERS = _("circlip pliers")
SUPPORT = {"inside": _("block behind the boss"), "outside": _("face down on blocks")}
TOOL = _("{tool}; {support}")
ASSUMED = shared.ASSUMED

QUESTION = {
    **shared.QUESTION,
    **assembly.QUESTION,
    Property.HEAT_TARGET: _("Case to reach"),
    Property.HOT_TEMPERATURE: _("Case, by {means}"),
    Property.WATER_DROP: _("A drop of water on the case"),
    Property.WAY_SETTLED: _("{part}: which way round?"),
    Property.FIT_OUTCOME: _("{part}"),
    Property.CIRCLIP: _("Circlip, {part}"),
}
WHERE = {
    **shared.WHERE,
    **assembly.WHERE,
    Property.HOT_TEMPERATURE: _("beside a bore, the thickest boss"),
    Property.WATER_DROP: _("beside a bore, the thickest boss"),
    Property.WAY_SETTLED: _("found and card say otherwise; a page or the drawing settles it, not what was found"),
    Property.NOTE: _("for whoever opens it next"),
}
NOBODY_SAYS = _("neither card nor strip-down says")
CLOSED_BEFORE = _("its window closed before it was said")
SKIP = {**shared.SKIP, **assembly.SKIP, Property.WAY_SETTLED: _("left open")}
OPTIONS: Options = {
    **assembly.OPTIONS,
    Property.WATER_DROP: shared.DROP_ROWS,
    Property.FIT_OUTCOME: (*shared.OUTCOME_ROWS, ("later", _("not in"))),
    Property.CIRCLIP: (*shared.CIRCLIP_ROWS, ("later", _("not in"))),
    Property.WAY_SETTLED: (
        ("marking_out", _("marking to the outside")),
        ("marking_in", _("marking to the inside")),
        ("cage_out", _("open cage side to the outside")),
        ("cage_in", _("open cage side to the inside")),
        ("shield_out", _("shield to the outside")),
        ("shield_in", _("shield to the inside")),
    ),
}
LATER_ROW = ("later", _("set it aside"), _("the next one first"))
NOT_TRIED_ROW = ("later", _("not in"), _("after a reheat"))
AS_CARD, AS_FOUND = _("as the card says ({source})"), _("as it was found")
LABEL = {**shared.LABEL, **assembly.LABEL, Property.WAY_SETTLED: _("which way round {part} goes")}
LIMIT_FROM: dict[str, str] = {}
WHOLE_NAME = _("One heat")
HALF_TAB = _("{Side}, one heat")
METHOD_OVEN, METHOD_TAB = _("Heat the half in"), _("What is in hand")
CHILLED, NOT_CHILLED = _("chilled: {chiller}"), _("not chilled")
MUST = _("must get in, {how}")
NOT_NOW = _("not in this heat")
CHECKS = {
    LAID: (_("Laid out in the order drawn: each part its way round, its driver beside it, supports, gloves."), False),
    "laid_circlip": (
        _("Laid out in the order drawn: each part its way round, its driver beside it, supports, gloves, circlip pliers."),
        False,
    ),
    "bagged": (_("Bearings bagged against frost, oil ready for afterwards."), False),
}
WARNINGS = {
    "hot": _("The hot case and tray cause burns. Wear gloves and safety glasses, and keep the path to the bench clear."),
    "jam": _("If one jams or cocks: stop, no hammer. Say so, take the next; it is lifted off or pulled, and reheated."),
    "frost": _("Wipe the frost off each part before it goes in; oil it at once after."),
    "seals": _("Seals come after, in a cold case: {seals}. In the heat they would harden."),
    "creep": shared.CREEP,
    "manual": _("The engine's manual and the bearing makers' limits come before these numbers."),
}
SHUT = {
    "way": _("Found and card say otherwise: settle which way round it goes."),
    "lay_out": _("Lay the bench out first: tick that line of the checklist."),
    "early": _("Nothing would go in yet: the case is not hot enough for any part."),
}
ACTION = {
    "chill": _("Put {part} into the {chiller} (start timer)"),
    "chill_many": _("Put {count} parts into the {chiller} (start timer)"),
    "heat": _("Put the {half} into the oven (start timer)"),
    "open": _("Take the half out and fit one part after another"),
    "again": _("Reheat for {count}"),
    "other": _("Now the {half}"),
}
TIMER = {
    "heat": _("{side} half: read the temperature"),
    "heat_part": _("{Part}: read the temperature"),
    "door": _("first window closes"),
    "home_by": _("{part}: home by"),
    "cold": _("{part} is cold"),
    "cold_many": _("{count} parts are cold"),
    "cool": _("cold enough to check"),
}
NOT_RUN = _("No heat has been run to its end yet.")
SOURCE = {
    "case": (_("Case to"), _("the hottest that any part here asks for, in one case")),
    "oven": (_("Oven at"), _("under {limit}: {what}")),
    "soak": (_("Soak"), _("{basis}")),
    "part": (_("{part}"), _("grip when cold {grip}; clearance wanted {wanted}, known to ± {uncertainty}")),
    "part_cold": (_("{part}, cold"), _("{basis}")),
    "order": (_("Order"), _("Moore and Hodgson: earliest window first, what cannot make it left out")),
    "air": (_("Shop air"), _("assumed, not measured")),
}
HOME_BY, MOST_IN = _("home by {time}"), _("most parts in")
TO_COLD = _("{time} to {cold}")
DRAWN = {
    "half": _("{Half}"),
    "half_again": _("{Half}, heat {heat}"),
    "nothing": _("nothing of this half is on the card"),
    "the_half": _("The half"),
    "oven": _("{heater} {setting}"),
    "oven_now": _("{heater} {setting}, now {here}"),
    "to": _("to {target}"),
    "door": _("door"),
    "minutes": _("minutes"),
    "now": _("now"),
    "name": _("{part}, {marking}"),
    "in": _("in"),
    "tapped": _("in, tapped"),
    "later": _("set aside"),
    "jammed": _("jammed"),
    "crooked": _("crooked"),
    "loose": _("loose"),
    "waits": _("waits for a reheat"),
    "row": _("{place}. {part}, {marking}, {how}, with {tool}"),
    "in_hand": _("In hand: {part}"),
    "time_left": _("Time left: {left}."),
    "to_go": _("{left} of {all} to go"),
    "case": _("case {here}"),
    "to_be_home": _("to be home"),
    "marking": _("marking"),
    "pliers": _("pliers; turn it in its groove"),
    "you": _("{From}. {Way}, toward you."),
    "away": _("{From}. {Way}, away from you."),
    "way": _("{From}. {Way}."),
    "unsaid": _("{From}. Way round: nobody has said."),
    "from": _("{From}."),
}
