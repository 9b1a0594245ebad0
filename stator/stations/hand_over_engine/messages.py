"""Every sentence of Hand over, by code."""

from __future__ import annotations

from django.utils.translation import gettext_lazy as _

from stator.engines.properties import Property
from stator.stations.framework.messages import Options, plural
from stator.stations.hand_over_engine.analysis import Code

NAME = _("Hand over")
DRAWING = _("Every station as it was signed")
EXAMPLE = _("Ready to hand over. Every station is signed or skipped with a reason.")

HEADLINE = {
    Code.NOT_FINISHED: _("Not finished"),
    Code.ON_THE_TRAY: _("Still on the tray"),
    Code.CURING: _("Still curing"),
    Code.LAST_WORDS: _("Last questions"),
    Code.OWNER_SIGNS: _("For the owner to sign"),
    Code.READY: _("Ready to go"),
    Code.RESERVATIONS: _("Ready, with reservations"),
}
REASON = {
    Code.NOT_FINISHED: _("Still open: {stations}."),
    Code.ON_THE_TRAY: _("{places}."),
    Code.CURING: _("{timers}."),
    Code.LAST_WORDS: plural("{entries} entry signed.", "{entries} entries signed.", "entries"),
    Code.OWNER_SIGNS: _("Only an owner of the shop signs an engine out."),
    "ready": _("Entries: {entries}; every station is signed or skipped."),
}
NEXT = {
    Code.NOT_FINISHED: _("Sign each, or skip it in the run with a reason."),
    Code.ON_THE_TRAY: _("Find where it belongs first."),
    Code.CURING: _("Let it cure before it runs."),
    "ask": _("{question}"),
    Code.OWNER_SIGNS: _("Call one over."),
    "sign": _("Sign it out: the job is closed."),
}
DETAIL: dict[str, str] = {}
ASSUMED: dict[str, str] = {}
STATION_CALL = _("{station}: {call}")
STILL_ON_THE_TRAY = _("Still on the tray: {places}.")

QUESTION = {
    Property.PARTS_USED: _("Parts used"),
    Property.AGAINST_ADVICE: _("Signed against the call, because"),
    Property.STAYS_UNKNOWN: _("What stays unknown?"),
    Property.NOTE: _("A word to the owner"),
}
WHERE = {
    Property.PARTS_USED: _("one a line; Enter when all are in"),
    Property.AGAINST_ADVICE: _("{calls}"),
    Property.STAYS_UNKNOWN: _("what the owner should watch"),
    Property.NOTE: _("running in, first service"),
}
SKIP = {
    Property.PARTS_USED: _("none"),
    Property.STAYS_UNKNOWN: _("nothing"),
    Property.NOTE: _("none"),
}
OPTIONS: Options = {}
LABEL = {
    Property.PARTS_USED: _("parts used"),
    Property.AGAINST_ADVICE: _("signed against the call, because"),
    Property.STAYS_UNKNOWN: _("what stays unknown"),
    Property.NOTE: _("a word to the owner"),
}
SIGN_OUT = _("Sign the engine out")
WARNINGS = {"manual": _("The sheet says what was measured here; the manual, local codes and licensed practice come first.")}
SOURCE = {"left_out": (_("{station}"), _("{because}"))}
LEFT_OUT = _("skipped")
ON_DRAWING = {
    "station": _("Station: {station}"),
    "left_out": _("skipped: {because}"),
    "open": _("open"),
    "done": _("done"),
    "cut": _("{line} …"),
}
