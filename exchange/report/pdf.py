"""A job's sheet as PDF: typeset by typst, drawings as vectors, only the fonts that ship with Stator."""

from __future__ import annotations

import json
import logging
import tempfile
from itertools import groupby
from pathlib import Path
from typing import Any

from exchange.report.data import Figure, Report
from jobs.models import Job, Origin

HERE = Path(__file__).resolve().parent
FONTS = HERE.parent / "fonts"
PAPERS = {"a4": "a4", "letter": "us-letter"}
LOG = logging.getLogger(__name__)
CLOSING = "Stator advises. The engine's manual, local codes and licensed or certified practice come first."


def standalone(svg: str) -> bytes:
    """A recorded drawing as a file that a PDF can set."""
    return svg.replace("⌀", "Ø").encode()


def _origin(job: Job) -> str:
    origin = Origin.objects.filter(job=job).first()
    return f". Read in from {origin.shop or 'an unnamed shop'}, file {origin.digest[:8]}, {origin.read_at:%d %b %Y}" if origin else ""


def _data(report: Report, paper: str, footer: str) -> dict[str, Any]:
    job, card = report.job, report.job.card
    gone = f"Handed over {job.gone_at:%d %b %Y}" if job.gone_at else "Not handed over yet: this may still change"
    facts = [["Booked in", f"{job.booked_in_at:%d %b %Y %H:%M} by {job.booked_in_by.called}"]]
    facts += [["Must come back", job.comes_back]] if job.comes_back else []
    by = report.signed.signed_by if report.sealed and report.signed else None
    if report.signed and by:
        facts.append(["Sealed by", f"{by.called}, {report.signed.signed_at:%d %b %Y %H:%M}"])
    raised = [f"{row['what']}: found {row['found']}, the card said {row['card']}" for row in report.otherwise]
    lists = [
        ["Decided otherwise than advised", report.decisions],
        ["Found otherwise than the card said", raised],
        ["What remains unknown", report.unknown],
        ["Whose it is", [job.whose] if job.whose else []],
        ["Closed without being finished", [job.ended_because] if job.ended_because else []],
        ["Left out, and why", [f"{name}: {because}" for name, because in report.left_out]],
        ["Parts used", report.parts],
        ["A word to the owner", [report.note] if report.note else []],
    ]
    return {
        "paper": PAPERS[paper],
        "title": f"{job.tag} {card.name}",
        "tag": job.tag,
        "engine": card.name,
        "summary": card.summary,
        "complaint": job.complaint,
        "shop": report.shop.name,
        "state": f"{gone}{_origin(job)}",
        "facts": facts,
        "footer": footer,
        "closing": CLOSING,
        "calls": [
            {
                "station": each.station,
                "part": each.part,
                "state": each.state,
                "words": each.words,
                "reason": "; assumed: ".join([each.reason, *([", ".join(each.assumed)] if each.assumed else [])]),
                "by": f"{each.by}, {each.at:%d %b %H:%M}",
            }
            for each in report.calls
        ],
        "figures": [
            {"station": station, "rows": [_row(each) for each in rows]}
            for station, rows in groupby(report.figures, lambda each: each.station)
        ],
        "lists": [[title, lines] for title, lines in lists if lines],
        "drawings": [
            {"file": f"drawing{index}.svg", "title": each.title, "words": each.words} for index, each in enumerate(report.drawings)
        ],
        "photos": [
            {"file": f"photo{index}.jpg", "caption": each.caption or "without a caption"} for index, each in enumerate(report.photos)
        ],
    }


def _row(figure: Figure) -> dict[str, str]:
    said = {name: getattr(figure, name) for name in ("part", "words", "found", "left", "limits", "source", "state")}
    return {**said, "who": ", ".join(filter(None, (figure.gauge, figure.by, figure.at)))}


def report_pdf(report: Report, paper: str = "a4") -> bytes:
    """The sheet as PDF, on A4 or Letter."""
    import typst

    footer = f"{report.shop.name}. Made by Stator; figures as measured, sources beside them."
    data = json.dumps(_data(report, paper, footer), ensure_ascii=False).replace("⌀", "Ø")
    with tempfile.TemporaryDirectory(prefix="stator-sheet-") as folder:
        root = Path(folder)
        (root / "main.typ").write_bytes((HERE / "report.typ").read_bytes())
        for index, each in enumerate(report.drawings):
            (root / f"drawing{index}.svg").write_bytes(standalone(each.svg))
        for index, photo in enumerate(report.photos):
            with photo.thumb.open("rb") as file:
                (root / f"photo{index}.jpg").write_bytes(file.read())
        found, warnings = typst.compile_with_warnings(
            str(root / "main.typ"), root=str(root), font_paths=[str(FONTS)], ignore_system_fonts=True, sys_inputs={"data": data}
        )
    for warning in warnings:
        LOG.warning("the sheet of %s: %s", report.job.tag, warning)
    return bytes(found)
