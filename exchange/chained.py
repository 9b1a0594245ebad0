"""Digests in a job's file: held against what the file says when it is read in; and the mark that this shop knows its own by.

Whoever writes a whole chain anew is not found out by it: that takes the mark, which only the shop that wrote the file can make.
"""

from __future__ import annotations

import hashlib
import json
from collections.abc import Mapping
from datetime import datetime
from typing import Any

from django.utils.crypto import constant_time_compare, salted_hmac

from jobs.chain import Body, Link, broken, derived_row, move_row, place_row, reading_row
from stations.provenance import AGREES, CHANGED, NOTHING_TOLD, OWN

SALT = "stator.job-file"
MARK = "mark"
Row = Mapping[str, Any]


def mark_of(document: Row) -> str:
    """HMAC of a job's document under this shop's secret."""
    plain = {name: value for name, value in document.items() if name != MARK}
    text = json.dumps(plain, sort_keys=True, ensure_ascii=False, separators=(",", ":"))
    return salted_hmac(SALT, text, algorithm="sha256").hexdigest()


def is_own(document: Row) -> bool:
    """Whether this shop wrote it, and nothing was changed since."""
    return constant_time_compare(str(document.get(MARK) or ""), mark_of(document))


def _at(text: str | None) -> datetime | None:
    return datetime.fromisoformat(text) if text else None


def _place(row: Row) -> list[Any]:
    part = row.get("part")
    if not part:
        return place_row("", "", "", "", None, None, "", None)
    ends = (row.get("end", ""), row.get("angle_deg"), row.get("clock"), row.get("depth", ""), row.get("stage"))
    return place_row(part["kind"], part["uid"], row.get("property", ""), *ends)


def _body(entry: Row, values: Mapping[int, str]) -> Body:
    """An entry of a file, as its digest is made."""
    call, record = entry.get("call") or {}, entry.get("record") or {}
    opened = _at(entry["opened_at"])
    assert opened is not None
    return Body(
        entry["station"],
        entry.get("seat") or "",
        opened,
        _at(entry.get("signed_at")),
        (call.get("state", ""), call.get("code", ""), call.get("words", ""), call.get("reason", "")),
        [
            reading_row(
                _place(r),
                r["ask"],
                r.get("attempt", 1),
                r["typed"],
                r.get("unit", ""),
                r.get("canonical"),
                datetime.fromisoformat(r["taken_at"]),
                bool(r.get("withdrawn_at")),
            )
            for r in entry.get("readings", ())
        ],
        [
            move_row(_place(m), m["kind"], m.get("attempt", 1), m.get("amount"), m.get("text", ""), m.get("detail", {}), _at(m.get("at")))
            for m in entry.get("moves", ())
        ],
        [
            derived_row(_place(d), d.get("value"), d.get("text", ""), d.get("uncertainty"), d.get("assumed", False))
            for d in entry.get("derived") or ()
        ],
        record.get("content", {}),
        record.get("drawing", ""),
        values.get(entry.get("supersedes") or 0, ""),
    )


def held_against(document: Row, pictures: Mapping[str, bytes]) -> dict[str, Any]:
    """What a file's digests say of it: a code, and of each entry that was changed what of it is not as it was signed."""
    entries = [entry for entry in document.get("entries", ()) if entry.get("signed_at")]
    told = {entry["number"]: entry["digest"]["value"] for entry in entries if entry.get("digest")}
    if not told:
        return {"code": NOTHING_TOLD, "changed": []}
    links = {
        entry["number"]: Link(str(entry["number"]), entry["digest"]["previous"], entry["digest"]["value"], _body(entry, told))
        for entry in entries
        if entry.get("digest")
    }
    changed = {link.name for link in broken(list(links.values()))} | {str(each["number"]) for each in entries if each["number"] not in told}
    kept = {hashlib.sha256(data).hexdigest() for data in pictures.values()} | _saved_again(document)
    found = []
    for entry in entries:
        what = _what(entry, links.get(entry["number"])) if str(entry["number"]) in changed else []
        named = (entry.get("record") or {}).get("content", {}).get("photos", [])
        what += [{"code": "picture"}] if set(filter(None, named)) - kept else []
        if what:
            found.append({"station": entry["station"], "part": entry.get("seat") or "", "what": what})
    if found:
        return {"code": CHANGED, "changed": found}
    shown = {str(each["digest"]) for each in document.get("photos", ()) if each.get("digest")}
    return {"code": OWN if is_own(document) and shown <= kept else AGREES, "changed": []}


def _saved_again(document: Row) -> set[str]:
    """Pictures that a shop which read the job in has saved anew: what they were named by before."""
    return {str(each["digest"]) for each in document.get("photos", ()) if each.get("digest") and each.get("saved_again")}


def _what(entry: Row, link: Link | None) -> list[dict[str, Any]]:
    """What of an entry is not as its record has it; its record itself, where no reading tells."""
    if link is not None and link.agrees:
        return [{"code": "order"}]
    signed = [(each["at"], each["typed"], each["words"]) for each in (entry.get("record") or {}).get("content", {}).get("readings", [])]
    stands = [r for r in entry.get("readings", ()) if not r.get("withdrawn_at")]
    left = [(_at(at), typed, label) for at, typed, label in signed]
    added = []
    for reading in stands:
        pair = next((each for each in left if each[0] == _at(reading["taken_at"]) and each[1] == reading["typed"]), None)
        if pair:
            left.remove(pair)
        else:
            added.append(reading)
    found = []
    for reading in added:
        old = next((each for each in left if each[0] == _at(reading["taken_at"])), None)
        label = old[2] if old else reading.get("asked") or reading["ask"]
        if old:
            left.remove(old)
            found.append({"code": "reading", "values": {"label": label, "typed": reading["typed"], "recorded": old[1]}})
        elif any(each[1] == reading["typed"] for each in left):
            continue
        else:
            found.append({"code": "added", "values": {"label": label, "typed": reading["typed"]}})
    return found[:6] or [{"code": "record"}]
