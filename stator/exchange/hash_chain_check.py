"""Check of a job file: its signature, its chain of signed entries, and changes after signing."""

from __future__ import annotations

import hashlib
from collections.abc import Iterable, Mapping
from datetime import datetime
from typing import Any

from stator.exchange import signing
from stator.jobs.hash_chain import NAMES, Body, Link, broken, derived_values, move_values, place_values, reading_values
from stator.stations.framework.provenance import AGREES, CHANGED, OWN, UNSIGNED

Row = Mapping[str, Any]
MOST_NAMED = 6  # changes that are named for one entry
TIMES = ("taken_at", "withdrawn_at", "at")


def _at(text: str | None) -> datetime | None:
    return datetime.fromisoformat(text) if text else None


def _with_times(row: Row) -> dict[str, Any]:
    """Return a row with its times parsed, so that every time zone gives the same digest."""
    return {name: _at(value) if name in TIMES else value for name, value in row.items()}


def _place(row: Row) -> list[Any]:
    part = row.get("part")
    if not part:
        return place_values()
    at = (row.get("end", ""), row.get("angle_deg"), row.get("clock"), row.get("depth", ""), row.get("stage"))
    return place_values(part["kind"], part["uid"], row.get("property", ""), *at)


def _body(entry: Row, digests: Mapping[int, str]) -> Body:
    """Return an entry of a file as its digest was made."""
    verdict, record = entry.get("call") or {}, entry.get("record") or {}
    opened = _at(entry["opened_at"])
    assert opened is not None
    return Body(
        station=entry["station"],
        part=entry.get("seat") or "",
        opened_at=opened,
        opened_by=entry.get("opened_by") or "",
        signed_at=_at(entry.get("signed_at")),
        signed_by=entry.get("signed_by") or "",
        call=(verdict.get("state", ""), verdict.get("code", ""), verdict.get("words", ""), verdict.get("reason", "")),
        values=verdict.get("values", {}),
        attempt=entry.get("attempt", 1),
        ticks=entry.get("ticks", {}),
        result=entry.get("result", {}),
        core_version=entry.get("core_version", ""),
        because=str(entry.get("choices", {}).get("because", "")),
        readings=[reading_values(_place(r), _with_times(r), r.get("correction", {}), r) for r in entry.get("readings", ())],
        moves=[move_values(_place(m), _with_times(m), m.get("by") or "") for m in entry.get("moves", ())],
        derived=[derived_values(_place(d), d) for d in entry.get("derived") or ()],
        record=record.get("content", {}),
        drawing=record.get("drawing", ""),
        replaces=digests.get(entry.get("supersedes") or 0, ""),
    )


def check_file(document: Row, photos: Mapping[str, bytes]) -> dict[str, Any]:
    """Return the provenance of a file as `stator.stations.framework.provenance` describes it.

    Parameters
    ----------
    document : Mapping
        The parsed `job.json`.
    pictures : Mapping
        Content of each picture by its name in the file.

    Returns
    -------
    dict
        `code`, `fingerprint` of the key that signed the file, and `changed`: the entries that were changed, each with what was changed.
    """
    signer = signing.signer_of(document)
    fingerprint = signing.fingerprint_of(signer) if signer else ""
    changed = [*_changed_entries(document, photos), *_changed_file(document, photos)]
    if not changed and signer is None and document.get(signing.SIGNATURE):
        changed = [{"station": "", "part": "", "what": [{"code": "signature"}]}]
    if changed:
        code = CHANGED
    elif signer is None:
        code = UNSIGNED
    else:
        code = OWN if signing.is_own(signer) else AGREES
    return {"code": code, "fingerprint": fingerprint, "changed": changed}


def _changed_entries(document: Row, photos: Mapping[str, bytes]) -> list[dict[str, Any]]:
    entries = [entry for entry in document.get("entries", ()) if entry.get("signed_at")]
    digests = {entry["number"]: entry["digest"]["value"] for entry in entries if entry.get("digest")}
    links = {
        entry["number"]: Link(str(entry["number"]), entry["digest"]["previous"], entry["digest"]["value"], _body(entry, digests))
        for entry in entries
        if entry.get("digest")
    }
    changed = {link.name for link in broken(links.values())} | {str(each["number"]) for each in entries if each["number"] not in digests}
    here = _picture_digests(document, photos)
    found = []
    for entry in entries:
        what = _what(entry, links.get(entry["number"])) if str(entry["number"]) in changed else []
        named = (entry.get("record") or {}).get("content", {}).get("photos", [])
        what += [{"code": "picture"}] if set(filter(None, named)) - here else []
        if what:
            found.append({"station": entry["station"], "part": entry.get("seat") or "", "what": what})
    return found


def _is_as_exported(photo: Row, photos: Mapping[str, bytes]) -> bool:
    data = photos.get(photo.get("file", ""))
    return data is not None and hashlib.sha256(data).hexdigest() == photo.get("sha256")


def _picture_digests(document: Row, photos: Mapping[str, bytes]) -> set[str]:
    """Return the digests of the unchanged photos of a file, as they were saved first, whichever shop encoded them again."""
    return {str(photo["digest"]) for photo in document.get("photos", ()) if photo.get("digest") and _is_as_exported(photo, photos)}


def _changed_file(document: Row, photos: Mapping[str, bytes]) -> list[dict[str, Any]]:
    """Return what was changed in the file as a whole: signed entries cut off its end, or pictures."""
    signed = [entry for entry in document.get("entries", ()) if entry.get("signed_at")]
    values = [entry["digest"]["value"] for entry in signed if entry.get("digest")]
    followed = {entry["digest"]["previous"] for entry in signed if entry.get("digest")}
    last = [value for value in values if value not in followed]
    stated = document.get("chain") or {}
    what: list[dict[str, Any]] = []
    if stated.get("entries", 0) != len(signed) or (stated.get("last") or "") not in (last or [""]):
        what.append({"code": "cut", "values": {"stated": stated.get("entries", 0), "count": len(signed)}})
    if not all(_is_as_exported(photo, photos) for photo in document.get("photos", ())):
        what.append({"code": "picture"})
    return [{"station": "", "part": "", "what": what}] if what else []


def _what(entry: Row, link: Link | None) -> list[dict[str, Any]]:
    """Return the differences between an entry and its record; the record itself if no reading and no name differs."""
    if link is not None and link.agrees:
        return [{"code": "order"}]
    content = (entry.get("record") or {}).get("content", {})
    found = [*_changed_names(entry, content.get(NAMES, {})), *_changed_readings(entry, content.get("readings", []))]
    return found[:MOST_NAMED] or [{"code": "record"}]


def _changed_names(entry: Row, recorded: Row) -> Iterable[dict[str, Any]]:
    """Yield the signer, the people and the gauges that differ from those recorded when the entry was signed."""
    if not recorded:
        return
    if recorded.get("signed_by", "") != (entry.get("signed_by") or ""):
        yield {"code": "signer", "values": {"stated": entry.get("signed_by") or "", "recorded": recorded.get("signed_by", "")}}
    for reading, names in zip(entry.get("readings", ()), recorded.get("readings", ()), strict=False):
        for name, code in (("by", "taker"), ("gauge", "gauge")):
            if (reading.get(name) or "") != names.get(name, ""):
                label = reading.get("asked") or reading["ask"]
                yield {"code": code, "values": {"label": label, "stated": reading.get(name) or "", "recorded": names.get(name, "")}}


def _changed_readings(entry: Row, recorded: Iterable[Row]) -> Iterable[dict[str, Any]]:
    """Yield the readings whose typed value differs from the record."""
    left = [(_at(each["at"]), each["typed"], each["words"]) for each in recorded]
    added = []
    for reading in (r for r in entry.get("readings", ()) if not r.get("withdrawn_at")):
        pair = next((each for each in left if each[0] == _at(reading["taken_at"]) and each[1] == reading["typed"]), None)
        if pair:
            left.remove(pair)
        else:
            added.append(reading)
    for reading in added:
        old = next((each for each in left if each[0] == _at(reading["taken_at"])), None)
        label = old[2] if old else reading.get("asked") or reading["ask"]
        if old:
            left.remove(old)
            yield {"code": "reading", "values": {"label": label, "typed": reading["typed"], "recorded": old[1]}}
        elif not any(each[1] == reading["typed"] for each in left):
            yield {"code": "added", "values": {"label": label, "typed": reading["typed"]}}
