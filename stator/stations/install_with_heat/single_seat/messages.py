"""Every sentence of one bearing in one heat, by code."""

from __future__ import annotations

from django.utils.translation import gettext_lazy as _

from shopmath.amounts import celsius, mm
from stator.engines.properties import Property
from stator.stations.framework.messages import BY_LIMIT, Options, Sentence, fixed, plural
from stator.stations.install_with_heat import messages as shared
from stator.stations.install_with_heat.single_seat.analysis import Code

NAME = _("Heat and drop")
DRAWING = _("Seat and ring in section, clearance against time")
EXAMPLE = fixed(
    _("Will drop in. More than 95 % sure at {heat}; at least {clearance} clearance for 2:30."),
    heat=celsius(110),
    clearance=mm(0.035),
)
DONE = plural("{count} bearing fitted", "{count} bearings fitted", "count")

HEADLINE = {
    Code.NO_PLAN: _("No plan"),
    Code.SEAT_IS_OUT: _("Seat is out"),
    Code.NOTHING_HOLDS: _("Nothing holds the ring"),
    Code.STOP: _("Stop"),
    Code.GOES: _("It drops in"),
    Code.GOES_ON: _("It slides on"),
    Code.UNSURE: _("Too close to call"),
    Code.WONT: _("It will not go in"),
    Code.WONT_ON: _("It will not go on"),
    Code.NOT_YET: _("Not yet"),
    Code.SHUT: _("The window is shut"),
    Code.JAMMED: _("It jammed"),
    Code.CROOKED: _("It went in crooked"),
    Code.CIRCLIP_LOOSE: _("Circlip not home"),
    Code.IS_IT_HOME: _("Is it home?"),
    Code.NOT_HOME: _("Not home"),
    Code.SEATED: _("Seated"),
}
REASON = {
    **BY_LIMIT,
    **shared.STOPPED,
    Code.NO_PLAN: _("{said}"),
    Code.SEAT_IS_OUT: _("Inspect signed this seat as out; it has not been measured since."),
    Code.NOTHING_HOLDS: _("As measured, the seat is too large for any interference with the ring."),
    "to_spare": _("{chance} sure; at least {least} clearance"),
    "already": _("already {chance} sure; at least {least} clearance"),
    "no_room": _("{clearance} of clearance where {wanted} is wanted: it will not go in by hand."),
    "room_unsure": _("{clearance} reaches under the {wanted} wanted."),
    "chance_no_room": _("{chance} sure: {clearance} of clearance where {wanted} is wanted: it will not go in by hand."),
    "sure_too_short": _("{clearance} at first, but it fits for {sure} only; {handling} of handling are needed."),
    "chance_unsure": _("{chance} sure. {clearance} reaches under the {wanted} wanted."),
    "too_hot": _("The {outer} is at {here}; {what} allows {limit}: {why}."),
    "too_cold": _("The {partner} is at {here}; {what} allows {limit}: {why}."),
    "coarse": shared.COARSE,
    Code.NOT_YET: _("{now} now, {wanted} wanted"),
    Code.JAMMED: _("{clearance} of clearance was expected."),
    Code.CROOKED: _("{clearance} of clearance was expected."),
    Code.CIRCLIP_LOOSE: _("A circlip that is not in its groove means the bearing is not seated."),
    Code.IS_IT_HOME: _("In, not checked yet"),
}
NEXT = {
    Code.NO_PLAN: _("Correct that reading or the engine card."),
    Code.SEAT_IS_OUT: _("Mend it, then measure the seat here, cold."),
    Code.NOTHING_HOLDS: _("Mend the seat first; Inspect lists the ways."),
    "change_method": _("Change the method, or take out what sets the limit."),
    "widen": _("Get more clearance first."),
    "oven": _("{heater} at {setting}. {Outer} to {target} in about {soak} ({soak_low} to {soak_high})."),
    "oven_chill": _(
        "{heater} at {setting}. {Outer} to {target} in about {soak} ({soak_low} to {soak_high}). "
        "{Partner}: {chiller} for {stay}, then read the temperature ({cold})."
    ),
    "flame": _("{Outer} to {target}, by thermometer."),
    "flame_chill": _("{Outer} to {target}, by thermometer. {Partner}: {chiller} for {stay}, then read the temperature ({cold})."),
    "chill": _("{Partner}: {chiller} for {stay}, then read the temperature ({cold})."),
    "push": _("Nothing to heat or chill: push it home."),
    "out_of_heat": _("Take the {outer} out of the heat now."),
    "out_of_cold": _("Take the {partner} out of the cold now."),
    "coarse": shared.COARSE_NEXT,
    "not_in": _("{not_in}."),
    "wait": _("Wait for {waits}."),
    "not_in_wait": _("{not_in}. Wait for {waits}."),
    "now_or_later": _("If you take it out now, you have {sure}. Wait for {waits} and you have {later}."),
    "now_or_in": _("If you take it out now, you have {sure}. With {not_yet} in, you have {later}."),
    "longer": _("Leave it in longer, or gain clearance as listed below."),
    "out_oven": _("Switch the oven off, take it out, start it square, push it home. Hold it down for 30 s."),
    "out": _("Take it out, start it square, push it home."),
    "lay_out": _("Lay out driver, gloves and a support behind the seat."),
    "lay_out_circlip": _("Lay out driver, gloves, circlip pliers and a support behind the seat."),
    "push_home": _("Start it square and push it home. You have {sure}."),
    "one_try": _("One try, by hand, square. If it does not fall, back into the heat."),
    Code.SHUT: _("Back into the heat. Do not drive it."),
    Code.JAMMED: _("Stop. Back it out with the puller or lift it off, clean the bore, then back into the heat."),
    Code.CROOKED: _("Stop. Back it out with the puller or lift it off, clean the bore, then back into the heat."),
    Code.CIRCLIP_LOOSE: _("Press the ring home, then seat the circlip."),
    Code.IS_IT_HOME: _("Hold it against the {stop} until the heat has gone across, then feel at four places."),
    Code.NOT_HOME: _("Back into the heat and press it home all round."),
    "thinner": _("Measure again with a thinner blade."),
    "to_do": _("Still to do: {waiting}."),
    "sign": _("Sign it."),
}
DETAIL = {
    "would_turn": _("It would drop in, and turn."),
    "helps": _("What would help: {helps}."),
    "helps_now": _("{helps}."),
    "jam": _("If it jams or cocks: stop, do not hammer. Lift it off or back it out with the puller, heat again, start square."),
    "say_jam": _(
        "Then say what happened. If it jams or cocks: stop, do not hammer. Lift it off or back it out with the puller, heat again, "
        "start square."
    ),
    "sure": _("You have {sure} once it is out; when it touches, about {seating}."),
    "cold_first": _(
        "Chill first: the {outer} goes into the heat about {later} later. You have {sure} once it is out; when it touches, about {seating}."
    ),
    "within": _("Fit it within {sure}; once it touches, you have about {seating}."),
    "lay_out": NEXT["lay_out"],
    "lay_out_circlip": NEXT["lay_out_circlip"],
    "peels": _("Never drive a cocked ring: it peels the bore."),
    "agree": _("All four places agree."),
    "agree_tapped": _("All four places agree. It needed the driver: turn it by hand and feel for a rough spot."),
}
WAITS = {  # what a heat still waits for
    "outer": _("the {outer} for about another {left}"),
    "outer_reads": _("the {outer} to read {target}"),
    "partner": _("the {partner} for about another {left}"),
}
NOT_IN = {
    "outer": _("the {outer} is not in the heat yet"),
    "partner": _("the {partner} is not being chilled yet"),
}
NOT_YET_IN = {"outer": _("the {outer}"), "partner": _("the {partner}")}
ASSUMED = shared.ASSUMED

QUESTION = {
    **shared.QUESTION,
    Property.HEAT_TARGET: _("{Outer} to reach"),
    Property.CHILL_STAY: _("{Partner} stays in the {chiller}"),
    Property.HOT_TEMPERATURE: _("{Outer}, by {means}"),
    Property.WATER_DROP: _("A drop of water on the {outer}"),
    Property.COLD_TEMPERATURE: _("{Partner}, as it comes out"),
    Property.FIT_OUTCOME: _("What happened?"),
    Property.SEATING_GAP: _("Gap to the {stop}, at {clock} o'clock"),
    Property.SEATING_DEPTH: _("Depth below the face, at {clock} o'clock"),
    Property.SEATING_GAP_COLD: _("Widest gap again, cold"),
    Property.CIRCLIP: _("The circlip"),
}
OF_A_CASE = {Property.SEAT_SIZE: _("Bore of the seat"), Property.RING_SIZE: _("Outside of the bearing")}
OF_A_SHAFT = {Property.SEAT_SIZE: _("Shaft at the seat"), Property.RING_SIZE: _("Bore of the bearing")}
WHERE_HOT = {"case": _("beside the bore, {side}"), "bearing": _("on the inner ring"), "shaft": _("on the seat")}
WHERE = {
    **shared.WHERE,
    Property.SEAT_SIZE: _("cold, two places"),
    Property.RING_SIZE: _("cold"),
    Property.FIT_OUTCOME: _("{part}"),
    Property.SEATING_GAP: _("thickest feeler gauge that fits; 0 if none fits"),
    Property.SEATING_GAP_COLD: _("the {outer} within {warm} of the shop"),
    Property.CIRCLIP: _("turn it in its groove"),
    Property.NOTE: _("for whoever opens it next"),
}
SKIP = {
    **shared.SKIP,
    Property.SEAT_SIZE: _("by its fit code"),
    Property.RING_SIZE: _("by its tolerance"),
    Property.SEATING_GAP_COLD: _("not checked cold"),
}
MEASURED_AT = _("measured at {station}")
OPTIONS: Options = {
    Property.WATER_DROP: shared.DROP_ROWS,
    Property.FIT_OUTCOME: shared.OUTCOME_ROWS,
    Property.CIRCLIP: shared.CIRCLIP_ROWS,
}
TOO_FAR = _("{value} is more than {far} from the nominal {nominal}. Measure again, or correct the engine card.")
TOO_WARM = _("The {outer} is still about {here}: too warm for a verdict. Wait until it is within {warm} of the shop.")
LABEL = {
    **shared.LABEL,
    Property.SEAT_SIZE: _("size of {part}"),
    Property.RING_SIZE: _("ring of {part}"),
    Property.SEATING_GAP: _("gap at {clock} o'clock"),
    Property.SEATING_DEPTH: _("depth at {clock} o'clock"),
    Property.SEATING_GAP_COLD: _("widest gap, cold"),
}
LIMIT_FROM: dict[str, str] = {}
METHOD_HEAT, METHOD_COLD = _("Heat the {outer} with"), _("Chill the {partner} in")
NO_HEAT, NO_CHILL = _("no heat"), _("no chilling")
CHECKS = {
    "tools": (_("Laid out: driver, gloves, support behind the seat."), False),
    "tools_circlip": (_("Laid out: driver, gloves, support behind the seat, circlip and pliers."), False),
    "bagged": (_("Bearing bagged against frost, oil ready for afterwards."), False),
}
WARNINGS = {
    "hot": _("The hot {outer} and tray cause burns. Wear gloves and safety glasses, and keep the path to the bench clear."),
    "frost": _("Wipe the frost off the {partner} before it goes in; oil it at once after."),
    "magnesium": _(
        "Magnesium: fire risk. Use no flame and clear away chips. Have dry sand or a class "
        "D extinguisher ready. Never use water on a magnesium fire."
    ),
    "jam": _("If it jams or cocks: stop, no hammer. Lift it off or pull it, heat again, start square."),
    "creeps": shared.CREEPS,
    "manual": _("The engine's manual and the bearing maker's limits come before these numbers."),
}
SOURCE = {
    "grip": (_("Grip when cold"), _("{outer}; {inner}")),
    "opens": (_("{Outer} opens"), _("{metal}, {rate} µm/m·K")),
    "boss_opens": (_("{Outer} opens"), _("{metal}, {rate} µm/m·K, boss alone opens {share}")),
    "shrinks": (_("{Partner} shrinks"), _("{metal}")),
    "warm": (_("Grip when warm"), fixed(_("case at {case} and ring at {ring}; negative is play"), case=celsius(90), ring=celsius(95))),
    "stays": (_("When the hot half is lifted it"), _("pull that frees it: {case} in the case, {crank} on the crank")),
    "wanted": (_("Wanted"), _("{wanted}, after DIN 7190-1")),
    "combined": (_("Combined uncertainty (k = 2)"), _("sizes; {outer} ± {outer_u}, {partner} ± {partner_u}")),
    "last": (_("Last temperature"), _("{note}")),
    "rate": (_("{Outer}'s own rate"), _("{basis}")),
    "soak": (_("Soak"), _("{basis}")),
    "chill": (_("Chill"), _("{basis}")),
    "window": (_("Window"), _("{basis}")),
    "home": (_("Home once touching"), _("{basis}")),
    "bearing": (_("Bearing"), _("{understood}")),
    "bearing_partly": (_("Bearing"), _("{understood}; not understood: {unknown}")),
    "air": (_("Shop air"), _("assumed, not measured")),
}
DRAWN = {
    "nothing": _("Nothing to draw until the sizes are settled."),
    "described": _("{Partner} at {inner_c}, {outer} at {outer_c}, {time} after coming out: {side} a side."),
    "plot": _("{title}, {unit}"),
    "since": _("Clearance since it came out"),
    "now": _("Clearance if it comes out now"),
    "after": _("Clearance after it comes out at {target}"),
    "overlap": _("overlap a side"),
    "apart": _("a side"),
    "scale": _("drawn ×{factor}"),
    "overlap_scale": _("overlap a side, drawn ×{factor}"),
    "apart_scale": _("a side, drawn ×{factor}"),
    "measured": _("measured"),
    "in": _("in its seat"),
    "shaft": _("Shaft"),
    "case": _("Case"),
    "wanted": _("wanted {wanted}"),
    "touches": _("metal touches"),
    "sure": _("fits until {sure}"),
    "always": _("sure all the while"),
}
SPOT: dict[str, tuple[Sentence, Sentence]] = {  # where to measure next, in two lines
    Property.SEAT_SIZE: (_("here, cold"), _("two ways across")),
    Property.RING_SIZE: (_("outside, cold"), ""),
    Property.HOT_TEMPERATURE: (_("gun or probe here"), _("beside the bore")),
    Property.WATER_DROP: (_("gun or probe here"), _("beside the bore")),
    Property.SEATING_GAP: (_("look here, 4 places"), _("no gap to the {stop}")),
    Property.SEATING_GAP_COLD: (_("look here, 4 places"), _("no gap to the {stop}")),
    Property.SEATING_DEPTH: (_("look here, 4 places"), _("depth")),
}
ACTION = {
    "chill": _("Start chilling the {partner} (start timer)"),
    "heat": _("Put the {outer} in the heat (start timer)"),
    "flame": _("Start heating (start timer)"),
    "open": _("Take the {outer} out and fit the {partner}"),
    "open_shaft": _("Take the {outer} out and slide it on"),
    "open_cold": _("Push it home now"),
    "again": _("Heat it again"),
}
TIMER = {
    "heat": _("{outer}: read the temperature"),
    "chill": _("{partner}: read the temperature"),
    "window": _("window closes"),
    "cold": _("cold enough to check"),
}
NOT_SAID = _("Say what happened first.")
HAPPENED = {"dropped": _("dropped in"), "tapped": _("tapped home"), "jammed": _("jammed"), "crooked": _("crooked")}
SLOWER, QUICKER = _("{share} slower than the tables"), _("{share} quicker than the tables")

HEATS, SAID_TO_GO = _("Heats"), _("said to go in")
PROMISED_TIMES, SHARE_AXIS = _("{promised} ({count})"), _("share that went in at the first try")
PROMISED = {
    "less": _("less than even"),
    "likely": _("likely"),
    "nine": _("90 % or better"),
    "sure": _("99 % or better"),
}
WENT_IN = _("{home} of {count} went in at the first try, {dropped} of them dropped; {jammed} jammed")
