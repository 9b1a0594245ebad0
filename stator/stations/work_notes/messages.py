"""Every sentence of work that is written down by hand, by code."""

from __future__ import annotations

from django.utils.translation import gettext_lazy as _

from stator.engines.properties import Property
from stator.stations.framework.messages import Options, plural
from stator.stations.work_notes.analysis import Code

NAME = _("By hand")
DRAWING = _("Notes")

HEADLINE = {Code.NOTHING_YET: _("By hand"), Code.WRITTEN: _("Written down"), Code.DONE: _("Done by hand")}
REASON = {
    Code.NOTHING_YET: _("Nothing is computed here: what you write stands for the work."),
    Code.WRITTEN: plural("{notes} note, not signed.", "{notes} notes, not signed.", "notes"),
    Code.DONE: _("{last}"),
}
NEXT = {
    Code.NOTHING_YET: _("Write what was done."),
    "true": _("Gauge lifted and crank off its supports before any blow. Write what was done."),
    "seals": _("Depth at four places; the lip faces what is kept in. Write what was done."),
    Code.WRITTEN: _("Add to it, or sign it."),
    Code.DONE: "",
    "last": _("{last}"),
}
DETAIL: dict[str, str] = {}
ASSUMED: dict[str, str] = {}
QUESTION = {Property.NOTE: _("What was done, what was found?")}
WHERE: dict[str, str] = {}
SKIP: dict[str, str] = {}
OPTIONS: Options = {}
LABEL = {Property.NOTE: _("note")}
WARNINGS = {"manual": _("The engine's manual comes first; write down where you left it.")}
ON_DRAWING = {"empty": _("What was done, what was found, what was put where.")}
