"""Every sentence of Strip, by code."""

from __future__ import annotations

from django.utils.translation import gettext_lazy as _

from stator.engines.properties import Property
from stator.stations.disassemble_halves.analysis import Code
from stator.stations.framework.messages import Options

NAME = _("Strip")
DRAWING = _("The parts tray")
EXAMPLE = _("The half is bare. Eleven parts are on the tray, numbered as they came out.")
DONE = _("case stripped")

HEADLINE = {
    Code.STOP_PUSHING: _("Stop pushing"),
    Code.INTO_THE_TRAY: _("Parts into the tray"),
    Code.BARE: _("The half is bare"),
    Code.BARE_WITH_WEAR: _("Bare, with wear to check"),
}
REASON = {
    Code.STOP_PUSHING: _("A crank that is pushed crooked scores its seat and bends its end."),
    "nothing": _("One part at a time, in the order it comes."),
    "so_far": _("Places filled so far: {places}. The tray keeps the order in which the parts came."),
    "filled": _("Places filled on the tray: {places}."),
    "worn": _("Places filled on the tray: {places}; with wear to check: {worn}."),
}
NEXT = {
    "ask": _("{question}"),
    "sign": _("Sign this entry."),
    "begin_again": _("Ease the screw, centre it on the end of the crank, warm the boss and begin again; then answer again."),
}
DETAIL = {"worn": _("{parts}.")}
ASSUMED: dict[str, str] = {}
WORN_PART = _("{number} {name}: {wear}")

QUESTION = {
    Property.CRANK_OUT: _("How did the crank come out?"),
    Property.CAME_EVENLY: _("Did it come evenly?"),
    Property.TRAY_PART: _("What comes out next?"),
    Property.PART_FROM: _("From which shaft or place?"),
    Property.PART_WAY: _("Which way round was it?"),
    Property.PART_WEAR: _("Any wear on it?"),
    Property.NOTE: _("Anything to note?"),
}
FIRST_PART = _("What comes out first?")
WHERE = {
    Property.CRANK_OUT: _("screw centred on its end, pushed evenly"),
    Property.CAME_EVENLY: _("watch the gap round the web as it moves"),
    Property.TRAY_PART: _("with its count; several at once as a list: 2 x washer, fork shaft"),
    Property.PART_FROM: _("and its order there"),
    Property.PART_WEAR: _("look now, before it is wiped"),
    Property.NOTE: _("for whoever assembles it"),
}
SKIP = {
    Property.TRAY_PART: _("the half is bare"),
    Property.PART_FROM: _("unknown"),
    Property.NOTE: _("nothing to note"),
}
OPTIONS: Options = {
    Property.CRANK_OUT: (
        ("pushed", _("pushed out"), _("with the splitter, centred")),
        ("lifted", _("lifted out"), _("by hand, it was free")),
        ("stays", _("stays in for now")),
    ),
    Property.CAME_EVENLY: (("even", _("even all round")), ("crooked", _("crooked, or stuck"))),
    Property.PART_WAY: (
        ("marked", _("marked side out")),
        ("in", _("marked side in")),
        ("either", _("either way"), _("the same on both sides")),
        ("picture", _("see its photo")),
    ),
    Property.PART_WEAR: (
        ("none", _("none seen")),
        ("some", _("some: check later"), _("dogs, gears, forks, ends")),
        ("broken", _("broken")),
    ),
}
WAYS = {
    "straight": _("It is straight again"),
}
LABEL = {
    Property.CRANK_OUT: _("how the crank came out"),
    Property.CAME_EVENLY: _("whether it came evenly"),
    Property.TRAY_PART: _("part taken out"),
    Property.PART_FROM: _("where it was"),
    Property.PART_WAY: _("which way round"),
    Property.PART_WEAR: _("wear"),
    Property.NOTE: _("note"),
}
WEAR = {"some": _("wear seen: check"), "broken": _("broken")}  # as the tray has it

CHECKS = {
    "tray": (_("A clean tray with numbered places, bags and a pen."), True),
    "shafts": (_("Gear shafts and drum marked or photographed as they stand."), False),
}
WARNINGS = {
    "end": _("Never hammer the end of the crank: it mushrooms, and the webs move."),
    "drop": _("The crank is heavy and greasy: keep a hand or a pad under it as it comes free."),
    "order": _("The tray shows how it was, not how it should be: the manual decides."),
}
SOURCE = {"tray": (_("On the tray"), _("{places} places, with the loose parts from Split"))}
PIECES = _("{count} pieces")

ON_DRAWING = {
    "next": _("next"),
    "first": _("the first part"),
    "legend": _("in the order they came; a corner marks wear to check"),
    "times": _("× {count}"),
}
