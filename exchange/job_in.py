"""A job read in from its ZIP: taken whole or refused whole, in words. Nothing in the file is trusted."""

from __future__ import annotations

import io
import json
import math
import re
import uuid
import zipfile
from datetime import datetime
from typing import Any

from django.db import transaction
from django.utils.dateparse import parse_datetime

from engines.models import EngineCard
from exchange.card_files import card_from_json
from exchange.job_json import GAUGE, SCHEMA, VERSION
from exchange.making import Tell, quietly
from exchange.refs import Refs
from jobs.models import Entry, Job, Photo, Pin, Reading, RunStation, Timer, TrayPlace
from jobs.photos import Cleaned, cleaned, keep_photo
from shop.models import Gauge, Person
from shopmath.checks import BadInput
from stations.registry import BY_KEY, WORK_ORDERS

MOST_FILES, MOST_BYTES, MOST_JSON, MOST_RATIO = 600, 400_000_000, 30_000_000, 100
NAMES = re.compile(r"^(job\.json|readings\.csv|sheet\.pdf|drawings/[\w.-]{1,80}\.svg|photos/\d{3,4}\.jpg)$")
STATES = ("in", "too_close", "out", "stop", "wait", "")


def refused(words: str) -> BadInput:
    return BadInput("file", f"{words} Nothing was taken.")


# the file


def opened(data: bytes) -> dict[str, bytes]:
    """What is in a job's ZIP, by name; refused when it is damaged, hostile or something else."""
    try:
        with zipfile.ZipFile(io.BytesIO(data)) as found:
            infos = found.infolist()
            if len(infos) > MOST_FILES or sum(info.file_size for info in infos) > MOST_BYTES:
                raise refused("That file unpacks to more than any job has.")
            if len({info.filename for info in infos}) != len(infos):
                raise refused("It holds two files of one name.")
            for info in infos:
                if not NAMES.match(info.filename):
                    raise refused(f"{info.filename[:60]!r} has no place in a job.")
                if info.file_size > 1_000_000 and info.file_size > MOST_RATIO * max(info.compress_size, 1):
                    raise refused(f"{info.filename} would unpack to a hundred times its size.")
                if info.flag_bits & 1:
                    raise refused("It is locked with a password.")
            wanted = [info for info in infos if info.filename == "job.json" or info.filename.startswith("photos/")]
            return {info.filename: found.read(info) for info in wanted}
    except (zipfile.BadZipFile, OSError, EOFError, RuntimeError) as error:
        raise refused("That file is damaged, or no ZIP.") from error


class _Said:
    """A JSON object, read field by field; a wrong type is refused with its place."""

    def __init__(self, value: Any, where: str) -> None:
        if not isinstance(value, dict):
            raise refused(f"{where}: an object is wanted.")
        self.value, self.where = value, where

    def text(self, name: str, most: int = 200) -> str:
        found = self.value.get(name)
        if found is None:
            return ""
        if not isinstance(found, str) or len(found) > most:
            raise refused(f"{self.where}, {name}: a text of at most {most} letters is wanted.")
        return found

    def number(self, name: str) -> float | None:
        found = self.value.get(name)
        if found is None:
            return None
        if isinstance(found, bool) or not isinstance(found, (int, float)) or not math.isfinite(found):
            raise refused(f"{self.where}, {name}: a number is wanted.")
        return float(found)

    def whole(self, name: str, usual: int = 0, most: int = 1_000_000) -> int:
        found = self.number(name)
        if found is None:
            return usual
        if found != int(found) or not 0 <= found <= most:
            raise refused(f"{self.where}, {name}: a whole number is wanted.")
        return int(found)

    def when(self, name: str) -> datetime | None:
        found = self.text(name, 60)
        if not found:
            return None
        try:
            at = parse_datetime(found)
        except ValueError:
            at = None
        if at is None or at.tzinfo is None:
            raise refused(f"{self.where}, {name}: a time with its zone is wanted.")
        return at

    def at(self, name: str) -> datetime:
        found = self.when(name)
        if found is None:
            raise refused(f"{self.where}, {name}: a time is wanted.")
        return found

    def table(self, name: str, most: int = 5000) -> list[_Said]:
        found = self.value.get(name, [])
        if not isinstance(found, list) or len(found) > most:
            raise refused(f"{self.where}, {name}: a list of at most {most} is wanted.")
        return [_Said(each, f"{name} {index}") for index, each in enumerate(found, 1)]

    def thing(self, name: str) -> dict[str, Any]:
        found = self.value.get(name, {})
        if not isinstance(found, dict) or len(json.dumps(found)) > 200_000:
            raise refused(f"{self.where}, {name}: an object is wanted.")
        return found

    def one_of(self, name: str, known: Any) -> str:
        found = self.text(name)
        if found not in known:
            raise refused(f"{self.where}, {name}: {found[:40]!r} is not known here.")
        return found


# the job


class _People:
    """Names of a file as people here: the same name is the same person; one unknown is kept without a way to sign in."""

    def __init__(self, reader: Person) -> None:
        self.known = {person.called: person for person in Person.objects.all()}
        self.reader = reader

    def named(self, called: str) -> Person:
        if not called:
            return self.reader
        if called not in self.known:
            person = Person(username=f"from-file-{uuid.uuid4().hex[:12]}", first_name=called[:150], is_active=False)
            person.set_unusable_password()
            person.save()
            self.known[called] = person
        return self.known[called]


def _gauges(said: _Said) -> dict[str, Gauge]:
    """Gauges by name: the shop's own, else a retired one with the file's figures, so that the log can point at it."""
    known = {gauge.name: gauge for gauge in Gauge.objects.all()}
    for each in said.table("gauges", 200):
        name = each.text("name", 60)
        if not name or name in known:
            continue
        kind, resolution, emissivity = each.one_of("kind", Gauge.Kind.values), each.number("resolution") or 0.01, each.number("emissivity")
        if resolution <= 0 or (kind == Gauge.Kind.INFRARED and not emissivity):
            raise refused(f"{each.where}: a gauge resolves more than nothing.")
        values = dict(zip(GAUGE, (name, kind, resolution, each.number("repeatability"), emissivity), strict=True))
        known[name] = Gauge.objects.create(**values, retired=True)
    return known


def job_from_zip(data: bytes, reader: Person, tell: Tell = quietly) -> Job:
    """The job of a file, with a number of its own when its number is taken."""
    files = opened(data)
    try:
        said = _Said(json.loads(files.get("job.json", b"")[:MOST_JSON]), "job.json")
    except (ValueError, RecursionError) as error:
        raise refused("There is no readable job.json in it.") from error
    if said.text("schema") != SCHEMA:
        raise refused("This is no job of Stator's.")
    if said.value.get("version") != VERSION:
        raise refused(f"Version {str(said.value.get('version'))[:20]} of a job; this Stator reads version {VERSION}.")
    pictures = _pictures(said, files, tell)
    tell("Writing it into this shop's books", 0.9)
    made: list[Photo] = []
    try:
        with transaction.atomic():
            return _job(said, pictures, reader, made)
    except BaseException:
        for photo in made:  # what was written beside the database goes with it
            photo.image.delete(save=False)
            photo.thumb.delete(save=False)
        raise


def _job(said: _Said, pictures: dict[str, Cleaned], reader: Person, made: list[Photo]) -> Job:
    try:
        card = card_from_json(json.dumps(said.thing("engine_card")).encode())
    except BadInput as error:
        raise refused(f"Its engine card: {error.message}") from error
    EngineCard.objects.filter(pk=card.pk).update(on_shelf=False)
    people, gauges, head = _People(reader), _gauges(said), _Said(said.value.get("job"), "job")
    number = head.whole("number", Job.next_number())
    job = Job.objects.create(
        number=Job.next_number() if Job.objects.filter(number=number).exists() else number,
        card=card,
        complaint=head.text("complaint"),
        comes_back=head.text("comes_back"),
        work_order=head.one_of("work_order", WORK_ORDERS),
        booked_in_at=head.at("booked_in_at"),
        booked_in_by=people.named(head.text("booked_in_by", 150)),
    )
    run: dict[str, RunStation] = {}
    for order, each in enumerate(said.table("run", 60)):
        key = each.one_of("station", BY_KEY)
        state, because = each.one_of("state", RunStation.State.values), each.text("because")
        if key in run or (state == RunStation.State.SKIPPED and not because):
            raise refused(f"{each.where}: a station comes once, and one left out says why.")
        more = {"call_state": each.one_of("call_state", STATES), "waits_for": each.text("waits_for", 100), "because": because}
        run[key] = RunStation.objects.create(job=job, order=order, key=key, state=state, **more)
    _entries(said, job, run, people, gauges)
    for each in said.table("tray", 500):
        TrayPlace.objects.create(
            job=job,
            number=each.whole("number", most=999),
            name=each.text("name", 80),
            count=max(1, each.whole("count", 1, 999)),
            where_from=each.text("where_from", 80),
            half=each.text("half", 6),
            way_round=each.text("way_round", 80),
            wear=each.text("wear", 120),
            taken_at=each.at("taken_at"),
            emptied_at=each.when("emptied_at"),
            by=reader,
            client_key=uuid.uuid4().hex,
        )
    _photos(said, job, run, pictures, reader, made)
    Job.objects.filter(pk=job.pk).update(gone_at=head.when("gone_at"))
    return Job.objects.get(pk=job.pk)


def _entries(said: _Said, job: Job, run: dict[str, RunStation], people: _People, gauges: dict[str, Gauge]) -> None:
    """Entries with their readings, signed last: a signed entry takes nothing more."""
    refs = Refs(job.card)
    seats = {seat.name: seat for seat in job.card.seats.all()}
    by_number: dict[int, Entry] = {}
    for each in said.table("entries"):
        seat_name = each.text("seat", 60)
        if seat_name and seat_name not in seats:
            raise refused(f"{each.where}, seat: {seat_name!r} is not on the card.")
        entry = Entry.objects.create(
            job=job,
            station=run[each.one_of("station", run)],
            seat=seats.get(seat_name),
            choices=refs.into(each.thing("choices")),
            ticks=each.thing("ticks"),
            opened_at=each.at("opened_at"),
            opened_by=people.named(each.text("opened_by", 150)),
            supersedes=by_number.get(each.whole("supersedes")),
        )
        by_number[each.whole("number")] = entry
        for row in each.table("readings"):
            _reading(row, entry, refs, people, gauges)
        for row in each.table("timers", 200):
            Timer.objects.create(
                job=job,
                entry=entry,
                key=row.text("key", 30),
                heat=max(1, row.whole("heat", 1, 99)),
                label=row.text("label", 80),
                tone=row.one_of("tone", Timer.Tone.values),
                started_at=row.at("started_at"),
                due_at=row.when("due_at"),
                ended_at=row.when("ended_at"),
                by=entry.opened_by,
            )
        signed = each.when("signed_at")
        if signed:
            called = _Said(each.value.get("call"), f"{each.where}, call")
            entry.call_state, entry.call_words = called.one_of("state", STATES), called.text("words", 80)
            entry.reason, entry.result = called.text("reason", 300), each.thing("result")
            entry.core_version, entry.signed_at = each.text("core_version", 20), signed
            entry.signed_by = people.named(each.text("signed_by", 150))
            entry.save()


def _reading(row: _Said, entry: Entry, refs: Refs, people: _People, gauges: dict[str, Gauge]) -> None:
    ask = refs.into(row.text("ask", 120))
    if not ask or len(ask) > 40:
        raise refused(f"{row.where}, ask: it belongs to nothing on the card.")
    asked = row.text("asked", 300)
    Reading.objects.create(
        entry=entry,
        ask=ask,
        heat=max(1, row.whole("heat", 1, 99)),
        text=row.text("typed", 1000),
        kind=row.text("kind", 25),
        unit=row.text("unit", 20),
        canonical=row.number("canonical"),
        gauge=gauges.get(row.text("gauge", 60)),
        extra={**row.thing("correction"), **({"asked": asked} if asked else {})},
        taken_at=row.at("taken_at"),
        by=people.named(row.text("by", 150)),
        client_key=uuid.uuid4().hex,
        withdrawn_at=row.when("withdrawn_at"),
    )


def _pictures(said: _Said, files: dict[str, bytes], tell: Tell) -> dict[str, Cleaned]:
    """The file's pictures made fit to be kept, by name."""
    found: dict[str, Cleaned] = {}
    wanted = said.table("photos", 500)
    for index, each in enumerate(wanted):
        name = each.text("file", 40)
        if name not in files:
            raise refused(f"{each.where}: its picture {name[:40]!r} is not in the file.")
        tell(f"Looking at picture {index + 1} of {len(wanted)}", 0.1 + 0.8 * index / len(wanted))
        try:
            found[name] = found[name] if name in found else cleaned(files[name])
        except BadInput as error:
            raise refused(f"{name}: {error.message}") from error
    return found


def _photos(said: _Said, job: Job, run: dict[str, RunStation], pictures: dict[str, Cleaned], reader: Person, made: list[Photo]) -> None:
    for each in said.table("photos", 500):
        picture = pictures[each.text("file", 40)]
        photo = keep_photo(job, run.get(each.text("station")), picture, each.text("caption", 120), reader)
        made.append(photo)
        Photo.objects.filter(pk=photo.pk).update(taken_at=each.at("taken_at"))
        for pin in each.table("pins", 100):
            x, y = pin.number("x"), pin.number("y")
            if x is None or y is None or not (0 <= x <= 1 and 0 <= y <= 1):
                raise refused(f"{pin.where}: a pin lies on its picture, x and y from 0 to 1.")
            Pin.objects.create(photo=photo, number=pin.whole("number", most=999), x=x, y=y, note=pin.text("note", 160), by=reader)
