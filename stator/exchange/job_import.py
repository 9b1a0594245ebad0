"""Import of a job from its ZIP: accepted or refused as a whole, with messages.

Nothing in the file is trusted.

People and equipment of the file belong to another shop and are stored with the mark of the file.
"""

from __future__ import annotations

import json
import uuid
import zlib
from collections.abc import Mapping
from functools import partial
from hashlib import sha256
from itertools import count
from typing import Any

from django.core.exceptions import ValidationError as Unfit
from django.db import transaction
from django.db.models import Max
from django.utils import timezone
from django.utils.translation import gettext as _

from shopmath.validation import BadInput
from stator.engines.fact_keys import FactKey, Location
from stator.engines.models import EngineCard
from stator.engines.parts import HALVES, Part
from stator.engines.properties import Property
from stator.exchange import import_dry_run
from stator.exchange.background_tasks import Tell, no_progress
from stator.exchange.card_files import card_from_json
from stator.exchange.import_schema import DerivedIn, EntryIn, FactKeyInput, JobFile, PartIn, PhotoIn, ReadingIn
from stator.exchange.job_archive import opened, refused, said_in
from stator.exchange.reference_names import KINDS, ReferenceNames
from stator.jobs import log
from stator.jobs.fact_loader import columns, subject_of
from stator.jobs.facts import Finding
from stator.jobs.models import Digest, Entry, Job, Move, Origin, Photo, Pin, Reading, Record, RunStation, Timer, TrayPlace
from stator.jobs.photos import Cleaned, keep_photo, reencoded_photo
from stator.shop import audit_log
from stator.shop.models import Gauge, Person
from stator.ui.static_svg import standalone_svg
from stator.ui.times import day

OWNERS = _("Only an owner of the shop reads in a job that was handed over.")


class JobImporter:
    """A job that is written from a file. Without `pictures` it is a dry run, which saves no file."""

    def __init__(
        self, said: JobFile, digest: str, person: Person, agrees: dict[str, Any], photos: Mapping[str, Cleaned] | None = None
    ) -> None:
        self.said, self.digest, self.person, self.agrees, self.pictures = said, digest, person, agrees, photos
        self.mark = f"{f'{said.shop.name}, ' if said.shop.name else ''}file {digest[:8]}, read in {day(timezone.now())}"
        self.people: dict[str, Person] = {}
        self.shelf: dict[tuple[str, str], int] = {}
        self.gauges: dict[str, Gauge] = {}
        self.left_out: list[str] = []
        self.places: dict[FactKey, dict[str, Any]] = {}  # columns of each address
        self.free_rows = count(1)  # rows of readings in the database, in the order of the file
        self.by_key: dict[str, int] = {}  # row of a reading by its key in the file
        self.made: list[Photo] = []

    def named(self, called: str) -> Person:
        """Someone the file names: never a person of this shop, and nobody who can sign in."""
        name = " ".join(called.split()) or _("someone unnamed")
        if name not in self.people:
            found = Person(username=f"from-file-{uuid.uuid4().hex[:12]}", first_name=name[:150], is_active=False, from_file=self.mark[:120])
            found.set_unusable_password()
            found.save()
            self.people[name] = found
        return self.people[name]

    def equip(self) -> None:
        """Add the file's equipment as retired equipment of this shop, so that the log can refer to it."""
        for index, each in enumerate(self.said.gauges, 1):
            values = each.model_dump(exclude={"name"})
            gauge = self._shelved("gauges", each.name, values, f"gauges {index}")
            self.gauges[each.name] = gauge
        for index, thing in enumerate(self.said.equipment, 1):
            if thing.kind not in KINDS or thing.kind == "gauges":
                raise refused(_("equipment {index}, kind: {kind!r} is not known here.").format(index=index, kind=thing.kind[:40]))
            self._shelved(thing.kind, thing.name, thing.figures, f"equipment {index}")

    def _shelved(self, kind: str, name: str, figures: dict[str, Any], where: str) -> Any:
        model: Any = KINDS[kind]
        named = f"{name[:42]} (file {self.digest[:8]})"
        known = model._default_manager.filter(name=named, from_file=self.mark[:120]).first()
        if known is None:
            fields = {field.name for field in model._meta.concrete_fields} - {"id", "name", "retired", "from_file"}
            try:
                known = model(name=named, retired=True, from_file=self.mark[:120], **{k: v for k, v in figures.items() if k in fields})
                known.full_clean()
                known.save()
            except (Unfit, TypeError, ValueError) as error:
                raise refused(
                    _("{where}, {name!r}: its figures are not those of {verbose_name}.").format(
                        where=where, name=name[:40], verbose_name=model._meta.verbose_name
                    )
                ) from error
        self.shelf[kind, name] = known.pk
        return known

    def job(self) -> Job:
        """Write the job and everything that belongs to it."""
        said = self.said
        card = self._card()
        self.equip()
        number = said.job.number
        job = Job.objects.create(
            number=Job.next_number() if Job.objects.filter(number=number).exists() else number,
            card=card,
            complaint=said.job.complaint,
            comes_back=said.job.comes_back,
            **{name: getattr(said.job, name) for name in Job.WHOSE},
            ended_because=said.job.ended_because[:240],
            work_order=said.job.work_order,
            booked_in_at=said.job.booked_in_at,
            booked_in_by=self.named(said.job.booked_in_by),
        )
        run = self._run(job)
        self._number_readings()
        self._entries(job, run)
        self._tray(job)
        for photo in said.photos:
            self._photo(job, run, photo)
        values = {"told": self.agrees, "left_out": self.left_out[:100]}
        Origin.objects.create(job=job, shop=said.shop.name, digest=self.digest, read_by=self.person, **values)
        if said.job.gone_at:
            Job.objects.filter(pk=job.pk).update(gone_at=said.job.gone_at)
        return Job.objects.get(pk=job.pk)

    def _card(self) -> EngineCard:
        try:
            card = card_from_json(json.dumps(self.said.engine_card).encode())
        except BadInput as error:
            raise refused(_("Its engine card: {reason}").format(reason=error.message)) from error
        EngineCard.objects.filter(pk=card.pk).update(on_shelf=False)
        return card

    def _run(self, job: Job) -> dict[str, RunStation]:
        run: dict[str, RunStation] = {}
        for order, each in enumerate(self.said.run):
            if each.station in run or (each.state == RunStation.State.SKIPPED and not each.because):
                raise refused(_("run {number}: a station comes once, and one left out says why.").format(number=order + 1))
            more = {"state": each.state, "call_state": each.call_state, "waits_for": each.waits_for, "because": each.because}
            run[each.station] = RunStation.objects.create(job=job, order=order, key=each.station, **more)
        return run

    def _entries(self, job: Job, run: dict[str, RunStation]) -> None:
        """Entries with their readings, signed last: a signed entry takes nothing more."""
        refs = ReferenceNames(job.card, self.shelf)
        seats = {seat.name: seat for seat in job.card.seats.all()}
        by_number: dict[int, Entry] = {}
        for index, each in enumerate(self.said.entries, 1):
            where = f"entries {index}"
            if each.seat and each.seat not in seats:
                raise refused(_("{where}, seat: {seat!r} is not on the card.").format(where=where, seat=each.seat))
            if each.station not in run:
                raise refused(_("{where}, station: {station!r} is not in its run.").format(where=where, station=each.station))
            before = by_number.get(each.supersedes) if each.supersedes is not None else None
            if each.supersedes is not None and (before is None or not before.is_signed):
                raise refused(
                    _("{where}, supersedes: {supersedes} is no signed entry before it.").format(where=where, supersedes=each.supersedes)
                )
            if each.number in by_number:
                raise refused(_("{where}, number: {number} stands twice.").format(where=where, number=each.number))
            choices, left = refs.choices_in(each.station, each.choices)
            self.left_out += [f"{each.station}: {words}" for words in left]
            by_number[each.number] = self._entry(job, run[each.station], seats.get(each.seat), each, choices, before, where)

    def _entry(
        self,
        job: Job,
        stage: RunStation,
        seat: Any,
        each: EntryIn,
        choices: dict[str, Any],
        before: Entry | None,
        where: str,
    ) -> Entry:
        heads = Entry.objects.filter(station=stage, seat=seat, superseded_by=None).exclude(pk=before.pk if before else 0)
        if heads.exists():
            raise refused(_("{where}: another entry of that station stands already, and this one does not replace it.").format(where=where))
        opened_by = self.named(each.opened_by)
        entry = Entry.objects.create(
            job=job,
            station=stage,
            seat=seat,
            attempt=each.attempt,
            choices=choices,
            ticks=each.ticks,
            opened_at=each.opened_at,
            opened_by=opened_by,
            supersedes=before,
        )
        Reading.objects.bulk_create(self._reading(row, entry, f"{where}, readings {number}") for number, row in enumerate(each.readings, 1))
        for move in each.moves:
            more = {"amount": move.amount, "text": move.text, "detail": move.detail, "attempt": move.attempt, "at": move.at}
            Move.objects.create(entry=entry, kind=move.kind, by=self.named(move.by), **self._where(move, job), **more)
        for timer in each.timers:
            Timer.objects.create(job=job, entry=entry, by=opened_by, **timer.model_dump())
        if each.signed_at:
            assert each.call and each.record and each.digest  # the schema refuses a signed entry without them
            entry.call_state, entry.call_words, entry.reason = each.call.state, each.call.words, each.call.reason
            entry.result, entry.core_version, entry.signed_at = each.result, each.core_version, each.signed_at
            entry.signed_by = self.named(each.signed_by)
            entry.call_code, entry.call_values = each.call.code, each.call.values
            log.derive(entry, [finding for row in each.derived if (finding := _finding(row))])
            entry.save()
            content = each.record.content.model_dump(exclude_unset=True)
            Record.objects.create(entry=entry, content=content, drawing=self._drawn(each.record.drawing, where))
            Digest.objects.create(entry=entry, previous=each.digest.previous, value=each.digest.value)
        return entry

    def _drawn(self, svg: str, where: str) -> bytes:
        """A drawing of the file, with nothing in it but lines and words."""
        try:
            return zlib.compress(standalone_svg(svg).encode(), 9) if svg else b""
        except BadInput as error:
            raise refused(_("{where}, record: its drawing is none.").format(where=where)) from error

    def _where(self, row: FactKeyInput, job: Job) -> dict[str, Any]:
        """Columns of the address that a row has in its file; none where it has none."""
        if row.part is None or not row.property:
            return {}
        fact_key = _slot(row, row.part)
        if fact_key not in self.places:
            self.places[fact_key] = columns(job.card_id, fact_key)
        return self.places[fact_key]

    def _reading(self, row: ReadingIn, entry: Entry, where: str) -> Reading:
        if not row.ask or len(row.ask) > 80:
            raise refused(_("{where}, ask: it belongs to nothing on the card.").format(where=where))
        if row.gauge and row.gauge not in self.gauges:
            raise refused(_("{where}, gauge: {gauge!r} is not among the file's gauges.").format(where=where, gauge=row.gauge[:40]))
        if len(row.kind) > 25:
            raise refused(_("{where}, kind: it is not known here.").format(where=where))
        placed = self._where(row, entry.job)
        if row.part and placed and _slot(row, row.part).key != row.ask:
            raise refused(_("{where}, ask: it belongs to nothing on the card.").format(where=where))
        return Reading(
            pk=next(self.free_rows),
            entry=entry,
            **placed,
            ask=row.ask,
            attempt=row.attempt,
            text=row.typed,
            kind=row.kind,
            unit=row.unit,
            canonical=row.canonical,
            gauge=self.gauges.get(row.gauge),
            extra={**row.correction, **({"asked": row.asked} if row.asked and not placed else {})},
            taken_at=row.taken_at,
            by=self.named(row.by),
            client_key=uuid.uuid4().hex,
            withdrawn_at=row.withdrawn_at,
            withdrawn_by=self.named(row.withdrawn_by) if row.withdrawn_at and row.withdrawn_by else None,
            came_second=row.came_second,
            carried_from_id=self.by_key.get(row.carried_from) if row.carried_from else None,
        )

    def _number_readings(self) -> None:
        """Choose the numbers of all readings in advance: a signed entry cannot be changed, and a reading may come from a later one."""
        first = (Reading.objects.aggregate(last=Max("pk"))["last"] or 0) + 1
        rows = [row for entry in self.said.entries for row in entry.readings]
        self.free_rows = count(first)
        self.by_key = {row.client_key: number for number, row in enumerate(rows, first) if row.client_key}

    def _tray(self, job: Job) -> None:
        numbers = [each.number for each in self.said.tray]
        if len(set(numbers)) != len(numbers):
            raise refused(_("tray: a place stands twice."))
        parts = {part.uid for part in job.card.case_parts.all()} | {*HALVES, ""}
        for each in self.said.tray:
            if each.half not in parts:
                raise refused(_("tray {number}, half: {half!r} is not on the card.").format(number=each.number, half=each.half))
            TrayPlace.objects.create(job=job, by=self.named(""), client_key=uuid.uuid4().hex, **each.model_dump())

    def _photo(self, job: Job, run: dict[str, RunStation], said: PhotoIn) -> None:
        about = subject_of(job.card_id, Part(said.part.kind, said.part.uid, said.part.name)) if said.part else None
        more: dict[str, Any] = {"subject": about, "digest": said.digest}
        if self.pictures is None:
            photo = Photo.objects.create(
                job=job,
                station=run.get(said.station),
                caption=said.caption,
                width=1,
                height=1,
                image="none.jpg",
                thumb="none.jpg",
                by=self.named(""),
                **more,
            )
        else:
            photo = keep_photo(job, run.get(said.station), self.pictures[said.file], said.caption, self.named(""), **more)
            self.made.append(photo)
        Photo.objects.filter(pk=photo.pk).update(taken_at=said.taken_at)
        numbers = [pin.number for pin in said.pins]
        for pin in said.pins:
            if not (0 <= pin.x <= 1 and 0 <= pin.y <= 1) or numbers.count(pin.number) > 1:
                raise refused(_("{file}: a pin lies on its picture, x and y from 0 to 1, each number once.").format(file=said.file))
            Pin.objects.create(photo=photo, number=pin.number, x=pin.x, y=pin.y, note=pin.note, by=self.named(""))

    def forget_pictures(self) -> None:
        """Delete the photo files that were written for the job."""
        for photo in self.made:
            photo.forget_files()


def _finding(row: DerivedIn) -> Finding | None:
    if row.part is None or not row.property:
        return None
    fact_key = _slot(row, row.part)
    return Finding(fact_key, row.value, row.text, row.uncertainty, row.resolution, row.assumed)


def _slot(row: FactKeyInput, part: PartIn) -> FactKey:
    at = Location(row.end, row.angle_deg, row.clock, row.depth, row.stage)
    return FactKey(Part(part.kind, part.uid, part.name), Property(row.property), at)


def job_from_zip(data: bytes, person: Person, tell: Tell = no_progress) -> Job:
    """Import the job of a file, with a new number if its number is in use.

    Parameters
    ----------
    data : bytes
        The ZIP.
    person : Person
        The user who imports it. Only an owner of the shop may import a job that was handed over.
    tell : Tell
        Receives the progress.

    Raises
    ------
    BadInput
        With what is wrong and where; nothing was imported.
    """
    files = opened(data)
    said, agrees = said_in(files)
    if said.job.gone_at and not person.is_owner:
        raise refused(OWNERS)
    photos = _pictures(said, files, tell)
    reader = partial(JobImporter, said, sha256(data).hexdigest(), person, agrees)
    with import_dry_run.copy_of_database(), transaction.atomic():
        import_dry_run.dry_run(reader().job(), person, lambda words, share: tell(words, 0.5 + 0.4 * share))
    tell(_("Saving the job"), 0.9)
    saving = reader(photos)
    try:
        with transaction.atomic():
            made = saving.job()
    except BaseException:
        saving.forget_pictures()
        raise
    audit_log.audit(person, "read in", made.tag)
    return made


def _pictures(said: JobFile, files: dict[str, bytes], tell: Tell) -> dict[str, Cleaned]:
    """Return the file's photos by name, validated and encoded for storage."""
    found: dict[str, Cleaned] = {}
    for index, each in enumerate(said.photos):
        if each.file not in files:
            raise refused(_("photos {number}: its picture {file!r} is not in the file.").format(number=index + 1, file=each.file[:40]))
        tell(
            _("Looking at picture {number} of {photos}").format(number=index + 1, photos=len(said.photos)),
            0.1 + 0.4 * index / len(said.photos),
        )
        if each.file in found:
            continue
        try:
            found[each.file] = reencoded_photo(files.pop(each.file))
        except BadInput as error:
            raise refused(f"{each.file}: {error.message}") from error
    return found
