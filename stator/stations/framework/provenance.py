"""Provenance of an imported job: the key that signed its file, whether the file is complete, and what was changed."""

from __future__ import annotations

from django.utils.translation import gettext_lazy as _

from stator.jobs.models import Origin
from stator.stations.framework.messages import format_message
from stator.stations.framework.registry import station_name

OWN, AGREES, UNSIGNED, CHANGED = "own", "agrees", "unsigned", "changed"
SENTENCE = {
    OWN: _("This shop wrote the file, and it is unchanged."),
    AGREES: _("The file is complete and unchanged since it was signed with the key {fingerprint}."),
    UNSIGNED: _("The file has no signature. It is not known which shop wrote it or whether it is complete."),
    CHANGED: _("Changed after it was signed: {entries}."),
}
ENTRY, WITH = _("{station}, {part}"), _("{entry} ({what})")
WHOLE_FILE = _("the file")
CHANGES = {
    "reading": _("{label} reads {typed}, signed as {recorded}"),
    "added": _("{label} {typed} was added"),
    "record": _("its record or its verdict"),
    "order": _("an entry before it is missing"),
    "picture": _("a picture is missing or was replaced"),
    "signer": _("signed by {stated}, recorded as {recorded}"),
    "taker": _("{label}: measured by {stated}, recorded as {recorded}"),
    "gauge": _("{label}: measured with {stated}, recorded as {recorded}"),
    "cut": _("signed entries: {count} in the file, {stated} stated"),
    "signature": _("its signature does not match its content"),
}


def render_provenance(origin: Origin) -> str:
    """Return a sentence about the provenance of a job's file."""
    entries = tuple(_entry(each) for each in origin.told.get("changed", []))
    values = {"entries": entries, "fingerprint": origin.told.get("fingerprint", "")}
    return format_message(SENTENCE.get(origin.told.get("code", UNSIGNED), SENTENCE[UNSIGNED]), values)


def _entry(each: dict[str, object]) -> str:
    name = station_name(str(each["station"])) if each["station"] else str(WHOLE_FILE)
    name = format_message(ENTRY, {"station": name, "part": each["part"]}) if each["part"] else name
    what: object = each["what"]
    listed = tuple(format_message(CHANGES[one["code"]], one.get("values", {})) for one in what) if isinstance(what, list) else ()
    return format_message(WITH, {"entry": name, "what": listed}) if listed else name
