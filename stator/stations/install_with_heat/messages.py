"""Messages that one seat and a case half share: checks before heating, limits, thermometers and remedies."""

from __future__ import annotations

from django.utils.translation import gettext_lazy as _

from shopmath.amounts import celsius
from stator.engines.properties import Property
from stator.stations.framework.messages import OptionRow, fixed

CHECKS = {  # the line, and whether it opens the heat
    "dry": (_("Washed, dry, no oil or fuel left. Residue burns, and chlorinated cleaner turns to poison gas when hot."), True),
    "food": (_("This oven cooks food: bare washed metal only, air the kitchen, wipe it out after."), True),
    "flame": (_("No spray cans, thinner or duster near the flame. Keep it moving."), True),
    "ice": (_("Dry ice can suffocate and cause frostbite. Ventilate the room, wear gloves, and never use a closed container."), True),
    "spray": (_("Freeze spray causes frostbite and may be flammable. Switch off and remove heat sources before you spray."), True),
}
LIMIT_WHAT = {  # what sets a limit, by its code in `shopmath.thermal.limits`; a metal by its own name
    "nitrile_seal": _("nitrile seal left in"),
    "fluoro_seal": _("fluoro-rubber seal left in"),
    "rubber_mount": _("rubber bush left in"),
    "plastic_part": _("plastic part left in"),
    "paint": _("paint"),
    "ring_hot": _("bearing steel"),
    "sealed_hot": _("sealed bearing"),
    "shielded_hot": _("shielded bearing"),
    "cage_hot": _("polymer cage"),
    "ring_cold": _("bearing steel"),
    "closed_cold": _("sealed or shielded bearing"),
    "cage_cold": _("polymer cage"),
    "shaft_cold": _("hardened shaft"),
}
LIMIT_WHY = {
    "nitrile_seal": _("nitrile rubber hardens above it"),
    "fluoro_seal": _("overheated fluoro-rubber (FKM) gives off hydrofluoric acid"),
    "rubber_mount": _("bonded rubber lets go above it"),
    "plastic_part": _("switches, guides and sensors warp above it"),
    "paint": _("ordinary paint browns and lifts above it"),
    "ring_hot": _("ordinary rings grow and soften above it"),
    "sealed_hot": _("its grease runs and its seals harden above it"),
    "shielded_hot": _("its grease runs out above it"),
    "cage_hot": _("polyamide ages fast above it"),
    "ring_cold": _("hard steel grows for good below it, unless the maker allows less"),
    "closed_cold": _("grease and seal lips go stiff and crack below it"),
    "cage_cold": _("polyamide turns brittle below it"),
    "shaft_cold": _("hardened journals may grow for good below it"),
}
STOPPED = {  # why a plan is refused
    "refused_method": _("Magnesium and a flame: chips and thin edges catch fire and cannot be put out with water."),
    "planned_too_hot": _("{hottest} is planned; {what} allows {limit}: {why}."),
    "oven_too_hot": _("The oven is set to {hottest}; {what} allows {limit}: {why}."),
    "planned_too_cold": _("The {partner} would be at {coldest}; {what} allows {limit}: {why}."),
}
CREEPS = _("When the engine is warm this fit is {low} to {high}: the ring may creep. Retaining compound, or a tighter class.")
CREEP = _("When the engine is warm the rings of these may creep: {parts}. Retaining compound, or a tighter class.")
STAYS = {  # with which part a main bearing goes when its half is lifted hot
    "case": _("stays in the case: the crank slides out of it"),
    "crank": _("comes away with the crank: the hot case lets its ring go"),
    "either": _("either way: watch it, and do not let it fall"),
}
HELPS = {  # what would widen a fit
    "heat": _("the {outer} in an oven, {target}: +{gain}"),
    "hotter": _("the {outer} {more} hotter, {target}: +{gain}"),
    "whole_case": _("the whole case in an oven, not the boss alone: +{gain}"),
    "colder": _("the {partner} left in until {target}: +{gain}"),
    "freezer": _("the {partner} out of a freezer at {target}: +{gain}"),
    "dry_ice": _("dry ice, out at {target}: +{gain}"),
    "measure_bore": _("measuring the bore (less uncertainty, not more room): +{gain}"),
    "measure_ring": _("measuring the ring (less uncertainty, not more room): +{gain}"),
    "probe": _("a contact probe on the boss (less uncertainty, not more room): +{gain}"),
}
MEANS = {  # a way to take a temperature: on the list; in a question
    "contact": (_("{gauge}"), _("held on bare metal"), _("{gauge}")),
    "paint": (_("{gauge}, paint dot"), _("gun at {setting}"), _("{gauge}, on a paint dot")),
    "tape": (_("{gauge}, masking tape"), _("gun at {setting}"), _("{gauge}, on masking tape")),
    "marker": (_("{gauge}, marker ink"), _("gun at {setting}"), _("{gauge}, on marker ink")),
    "bare": (_("{gauge}, bare aluminium"), _("gun at {setting}"), _("{gauge}, on bare aluminium")),
    "weathered": (_("{gauge}, weathered aluminium"), _("gun at {setting}"), _("{gauge}, on weathered aluminium")),
    "bright": (_("{gauge}, bright steel"), _("gun at {setting}"), _("{gauge}, on bright steel")),
    "drop": (_("a drop of water"), _("coarse"), _("a drop of water")),
}
READ_BY = {  # what a temperature was read with, as the table of readings says it
    "contact": _("by contact"),
    "paint": _("by paint dot"),
    "tape": _("by masking tape"),
    "marker": _("by marker ink"),
    "bare": _("by bare aluminium"),
    "weathered": _("by weathered aluminium"),
    "bright": _("by bright steel"),
    "drop": _("by water drop"),
}
COARSE_BY = {  # the same as the subject of a sentence
    "bare": _("bare aluminium"),
    "weathered": _("weathered aluminium"),
    "bright": _("bright steel"),
    "drop": _("a water drop"),
}
TEMPERATURE_NOTE = {
    "contact": _("{range} by contact"),
    "sure": _("{shown} shown → {true} true ({range}) {by}"),
    "unsure": _("{shown} shown → {true} true ({range}) {by}, too coarse for a call"),
    "drop": _("{true} true ({range}) {by}, too coarse for a call"),
}
COARSE = _("{by} says only {low} to {high}.")
COARSE_NEXT = _("Put a dot of matt paint or tape on the boss, or hold a contact probe to it.")
DROP_ROWS: tuple[OptionRow, ...] = (
    ("sits", _("sits and dries slowly"), fixed(_("under {limit}"), limit=celsius(100))),
    ("sizzles", _("sizzles and is gone"), fixed(_("{low} to {high}"), low=celsius(100), high=celsius(150))),
    ("dances", _("rolls about as a ball"), fixed(_("over {limit}"), limit=celsius(150))),
)
OUTCOME_ROWS: tuple[OptionRow, ...] = (
    ("dropped", _("dropped in"), _("home under its own weight or a push")),
    ("tapped", _("tapped home"), _("went in, needed the driver")),
    ("jammed", _("jammed"), _("stuck part way")),
    ("crooked", _("crooked"), _("cocked in the bore")),
)
CIRCLIP_ROWS: tuple[OptionRow, ...] = (("in", _("in its groove all round")), ("loose", _("not in its groove")))
WANTED_HINT = _("1/{part} of the diameter")
ASSUMED = {  # what a call rests on that nobody measured and no card says
    "marking": _("bearing {marking}, typical and not read off its ring"),
    "markings": _("typical bearings, not read off their rings: {parts}"),
    "code": _("fit {code} of the seat"),
    "codes": _("fits of {parts}"),
    "metal": _("a case of {metal}"),
    "air": _("air at {air}"),
}
COLDER = _("{value} is colder than the {outer} itself: it cannot heat it.")
TOO_SHORT = _("A stay is longer than nothing and no longer than two days.")
NAMES = {"case": _("case"), "bearing": _("bearing"), "shaft": _("shaft")}
HEATED_BY, COOLED_BY = _("oven"), _("cold")  # where none is on the shelves

QUESTION = {
    Property.AIR_TEMPERATURE: _("Air in the shop"),
    Property.HEATER_SETTING: _("{heater} set to"),
    Property.NOTE: _("Anything to remember?"),
}
WHERE = {
    Property.AIR_TEMPERATURE: _("away from the oven"),
    Property.HEAT_TARGET: _("in place of the plan's"),
    Property.CHILL_STAY: _("in place of the plan's"),
}
SKIP = {
    Property.AIR_TEMPERATURE: fixed(_("assumed {air}"), air=celsius(20)),
    Property.HEATER_SETTING: _("as the plan says"),
    Property.NOTE: _("nothing noted"),
}
LABEL = {
    Property.AIR_TEMPERATURE: _("air in the shop"),
    Property.HEATER_SETTING: _("heater set to"),
    Property.HEAT_TARGET: _("temperature to reach"),
    Property.CHILL_STAY: _("time to chill"),
    Property.HOT_TEMPERATURE: _("temperature of the hot part"),
    Property.WATER_DROP: _("drop of water on the hot part"),
    Property.COLD_TEMPERATURE: _("temperature of the cold part"),
    Property.FIT_OUTCOME: _("how {part} went in"),
    Property.CIRCLIP: _("circlip of {part}"),
    Property.NOTE: _("note"),
}
METHOD_LABEL = {
    "wanted": _("Clearance wanted"),
    "means": _("Temperature by"),
}
LIMIT_LABEL, LIMIT_SOURCE = _("Limit, {what}"), _("{why} ({source})")
