"""Import of readings from a gauge's own log: a preview of their places, then all in one request."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime

from django.contrib import messages
from django.db import transaction
from django.http import HttpRequest, HttpResponse
from django.shortcuts import redirect, render
from django.utils import timezone
from django.utils.translation import gettext as _
from django.utils.translation import ngettext
from django.views.decorators.http import require_POST

from shopmath.validation import BadInput
from stator.instruments.log_file import LogLine, read_log, text_of
from stator.instruments.protocol import OWN_UNIT
from stator.jobs.idempotency import IdempotentRequest
from stator.shop.equipment_snapshot import shelves
from stator.shop.models import Gauge
from stator.stations.framework import BoundStation, Question
from stator.workbench.reading_commands import again, opened, save_reading
from stator.workbench.station_commands import station_command
from stator.workbench.station_page import Answer

BY_CLOCK = _("Here the clock counts: each reading is taken as it happens. A log read in afterwards would start no clock in time.")


@dataclass(frozen=True)
class AssignedLine:
    """A line with what becomes of it."""

    line: LogLine
    chosen: bool
    asked: str = ""
    shown: str = ""
    at: datetime | None = None
    why_not: str = ""
    waits: str = ""  # for a line before it that has no place


def _ask_of(work: BoundStation, line: LogLine) -> Question:
    """The question a line answers: the one it names, else the next in turn."""
    named = line.place.casefold()
    found = (
        next(
            (question for question in work.current_questions if named and named in (question.key.casefold(), question.text.casefold())),
            None,
        )
        or work.next_question
    )
    if found is None:
        raise BadInput("line", _("Nothing more is asked."))
    if found.options or found.is_words or found.kind == "count":
        raise BadInput("line", _("{words!r} is asked now, and that is no gauge's to answer.").format(words=found.text))
    return found


def place(work: BoundStation, lines: list[LogLine], chosen: set[int], gauge: Gauge, name: str, key: str) -> list[AssignedLine]:
    """Keep the lines chosen, each where it belongs.

    Once one has no place nothing more goes in: all after it would be one place off.
    """
    found: list[AssignedLine] = []
    halted, now = "", timezone.now()
    work = opened(work)
    for line in lines:
        if line.number not in chosen:
            found.append(AssignedLine(line, False))
            continue
        try:
            if halted or line.refused:
                raise BadInput("line", halted or line.refused)
            question = _ask_of(work, line)
            since = max([work.job.booked_in_at, *(reading.taken_at for reading in work.readings if not reading.withdrawn_at)])
            at = line.at if line.at and since <= line.at <= now else None
            extra = {"heard": True, "log": name[:80]}
            reading = save_reading(work, question, line.text, f"{key}-{line.number}", gauge=gauge, at=at, extra=extra)
        except BadInput as error:
            found.append(AssignedLine(line, True, waits=error.message if halted else "", why_not="" if halted else error.message))
            halted = halted or _("waits for line {number}").format(number=line.number)
            continue
        found.append(AssignedLine(line, True, question.text, work.format_reading(reading, question), at))
        work = again(work)
    return found


@require_POST
@station_command
def log_file(request: HttpRequest, work: BoundStation) -> HttpResponse | Answer:
    """Show the contents of a file, then save the selected lines. Nothing is saved before."""
    upload = request.FILES.get("file")
    gauges = shelves(work.shop).gauges
    post = request.POST
    gauge = next((each for each in gauges if str(each.pk) == post.get("gauge")), None)
    name = (upload.name if upload else post.get("name", "")) or "log"
    try:
        if not work.from_log:
            raise BadInput("file", BY_CLOCK)
        if gauge is None:
            raise BadInput("gauge", _("Say which gauge wrote the log."))
        if upload is None and not post.get("log"):
            raise BadInput("file", _("No file was chosen."))
        text = text_of(upload.read() if upload else post["log"].encode())
        lines = read_log(text, gauge.measures, OWN_UNIT[gauge.measures], timezone.get_current_timezone())
    except BadInput as error:
        return Answer(work, error=BadInput(error.field, _("The log was not read. {reason}").format(reason=error.message)))
    picked = {int(each) for each in post.getlist("line") if each.isdigit()}
    chosen = picked if not upload else {line.number for line in lines}
    keep = post.get("do") == "keep"
    with transaction.atomic():
        doing: IdempotentRequest = request.act  # type: ignore[attr-defined]
        found = place(work, lines, chosen, gauge, name, doing.key)
        saved = [each for each in found if each.shown]
        if not keep or not saved:
            transaction.set_rollback(True)  # only to show what would be
    if keep and saved:
        again(work).update_work_plan()
        messages.success(
            request,
            ngettext("{kept} reading kept from {name}.", "{kept} readings kept from {name}.", len(saved)).format(
                kept=len(saved), name=name
            ),
        )
        return redirect(work.address)
    data_of = {"work": work, "job": work.job, "gauge": gauge, "gauges": gauges, "name": name, "found": found, "kept": len(saved)}
    return render(request, "instruments/log_file.html", {**data_of, "log": text})
