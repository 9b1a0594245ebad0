"""A whole job as one ZIP of open files: job.json, readings.csv, its drawings, photos and the report.

Described in docs/data-formats.md.
"""

from __future__ import annotations

import csv
import io
import json
import re
import zipfile
from datetime import datetime

from django.utils.translation import gettext as _

from shopmath.quantity import CANONICAL
from stator.exchange.background_tasks import Tell, no_progress
from stator.exchange.csv_escape import plain
from stator.exchange.job_export import job_as_json
from stator.exchange.report.data import report_of
from stator.exchange.report.pdf import report_pdf, standalone
from stator.jobs.models import Job, Reading
from stator.shop.models import Person
from stator.stations.framework.log_labels import called
from stator.ui.units import METRIC, scale_to, unit_for

COLUMNS = (
    *("station", "seat", "entry", "signed_at", "ask", "asked", "attempt"),
    *("typed", "canonical", "unit", "shown", "shown_unit", "gauge", "by", "taken_at", "struck_out_at"),
)


def _shown(reading: Reading) -> tuple[str, str]:
    """Return a reading in the units of the reader, next to those of the core."""
    if reading.canonical is None or reading.kind not in METRIC:
        return "", ""
    unit = unit_for(reading.kind, reading.canonical)
    return f"{reading.canonical * scale_to(reading.kind, unit)[0] + scale_to(reading.kind, unit)[1]:.6g}", unit.name


def readings_csv(job: Job) -> str:
    """Every reading of a job, a line each, withdrawn ones too."""
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\r\n")
    writer.writerow(COLUMNS)
    rows = Reading.objects.filter(entry__job=job).select_related("entry__station", "entry__seat", "gauge", "by", "subject").order_by("pk")
    for each in rows:
        entry = each.entry
        writer.writerow(
            [
                entry.station.key,
                plain(entry.seat.name) if entry.seat else "",
                entry.pk,
                entry.signed_at.isoformat() if entry.signed_at else "",
                plain(each.ask),
                plain(called(each, entry, job.card)),
                each.attempt,
                plain(each.text),
                "" if each.canonical is None else f"{each.canonical:.9g}",
                CANONICAL.get(each.kind, ""),
                *_shown(each),
                plain(each.gauge.name) if each.gauge else "",
                plain(each.by.called),
                each.taken_at.isoformat(),
                each.withdrawn_at.isoformat() if each.withdrawn_at else "",
            ]
        )
    return out.getvalue()


def job_as_zip(job: Job, person: Person, now: datetime, tell: Tell = no_progress) -> bytes:
    """Everything of a job. The JSON alone is enough to read it; the rest is for eyes and spreadsheets."""
    report = report_of(job, person, now, tell)
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as found:
        found.writestr("job.json", json.dumps(job_as_json(job), indent=2, ensure_ascii=False))
        found.writestr("readings.csv", readings_csv(job))
        tell(_("Setting the pages"), 0.7)
        found.writestr("sheet.pdf", report_pdf(report))
        for index, each in enumerate(report.drawings, 1):
            name = re.sub(r"[^a-z0-9]+", "-", each.title.lower()).strip("-")
            found.writestr(f"drawings/{index:02d}-{name}.svg", standalone(each.svg))
        for index, photo in enumerate(report.photos, 1):
            tell(f"Photo {index} of {len(report.photos)}", 0.8 + 0.2 * index / len(report.photos))
            with photo.image.open("rb") as file:
                found.writestr(f"photos/{index:03d}.jpg", file.read(), zipfile.ZIP_STORED)
    return out.getvalue()
