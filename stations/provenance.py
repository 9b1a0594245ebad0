"""What is known of a job that came from a file: whether it is as it was signed, and what of it is not."""

from __future__ import annotations

from django.utils.translation import gettext_lazy as _

from jobs.models import Origin
from stations.base.station import station_name
from stations.base.words import fill

OWN, AGREES, NOTHING_TOLD, CHANGED = "own", "agrees", "nothing told", "changed"
SENTENCE = {
    OWN: _("This shop wrote the file, and it is unchanged."),
    AGREES: _("Its digests agree; authorship unproven."),
    NOTHING_TOLD: _("It carries no digests: whether it was changed cannot be told."),
    CHANGED: _("Changed after it was signed: {entries}."),
}
ENTRY, WITH = _("{station}, {part}"), _("{entry} ({what})")
CHANGES = {
    "reading": _("{label} reads {typed}, signed as {recorded}"),
    "added": _("{label} {typed} was not there"),
    "record": _("its record or its verdict"),
    "order": _("an entry before it is missing"),
    "picture": _("a picture is missing or another one"),
}


def said(origin: Origin) -> str:
    """How far a job's file can be trusted, in a sentence."""
    entries = tuple(_entry(each) for each in origin.told.get("changed", []))
    return fill(SENTENCE.get(origin.told.get("code", NOTHING_TOLD), SENTENCE[NOTHING_TOLD]), {"entries": entries})


def _entry(each: dict[str, object]) -> str:
    name = station_name(str(each["station"]))
    name = fill(ENTRY, {"station": name, "part": each["part"]}) if each["part"] else name
    what: object = each["what"]
    listed = tuple(fill(CHANGES[one["code"]], one.get("values", {})) for one in what) if isinstance(what, list) else ()
    return fill(WITH, {"entry": name, "what": listed}) if listed else name
