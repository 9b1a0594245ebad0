"""The job report as PDF: typeset with typst, drawings as vectors, photos at 200 dpi, with the fonts that ship with Stator."""

from __future__ import annotations

import io
import json
import logging
import tempfile
from concurrent.futures import ThreadPoolExecutor
from dataclasses import asdict
from itertools import groupby
from pathlib import Path
from typing import Any

from django.utils.translation import gettext as _
from PIL import Image

from stator.exchange.report.data import Report, ReportDrawing
from stator.exchange.report.messages import CLOSING, KEY
from stator.exchange.report.values import KeyValue, ReportValue
from stator.jobs.models import Photo
from stator.stations.framework import provenance
from stator.stations.framework.messages import format_message
from stator.ui.times import day, day_time, long_day_time, short_day

HERE = Path(__file__).resolve().parent
FONTS = HERE.parent / "fonts"
PAPERS = {"a4": "a4", "letter": "us-letter"}
DPI = 200
AT_ONCE = 2  # pictures made smaller, each on a core of its own where there are as many
SPARE = 1.4  # times the pixels wanted, that a JPEG is opened with at least: half its size is enough for most, and read four times as fast
FIRST_MM, REST_MM = 58.0, 87.0  # how wide a picture is printed on the first page, and after it
LOG = logging.getLogger(__name__)


def standalone(svg: str) -> bytes:
    """A recorded drawing as a file that a PDF can set."""
    return svg.replace("⌀", "Ø").encode()


def printed(photo: Photo, wide_mm: float) -> bytes:
    """Return a photo with as many pixels as its printed size needs."""
    pixels = round(wide_mm / 25.4 * DPI)
    stored = photo.image  # opened anew: it may stand on the sheet twice, and two are made at once
    with stored.storage.open(str(stored.name)) as file, Image.open(file, formats=["JPEG"]) as picture:
        if picture.width > pixels:
            picture.thumbnail((pixels, 4 * pixels), reducing_gap=SPARE)
        out = io.BytesIO()
        picture.convert("RGB").save(out, "JPEG", quality=88)
    return out.getvalue()


def _origin(report: Report) -> str:
    origin = report.origin
    if origin is None:
        return ""
    values = {"digest": origin.digest[:8], "shop": origin.shop, "day": day(origin.read_at), "said": provenance.render_provenance(origin)}
    if origin.shop:
        return _("Read in from file {digest} of {shop}, {day}. {said}").format(**values)
    return _("Read in from file {digest}, {day}. {said}").format(**values)


def _state(report: Report) -> str:
    if not report.job.gone_at:
        return _("Not handed over yet")
    values = {"day": day(report.job.gone_at), "by": report.signed.by if report.signed else ""}
    return (_("Handed over {day} by {by}") if report.signed else _("Handed over {day}")).format(**values)


def _data(report: Report, paper: str) -> dict[str, Any]:
    job, card = report.job, report.job.card
    facts = [[_("Booked in"), long_day_time(job.booked_in_at)]]
    facts += [[_("Must come back"), job.comes_back]] if job.comes_back else []
    raised = [
        _("{what}: found {found}, the card said {card}").format(what=row["what"], found=row["found"], card=row["card"])
        for row in report.otherwise
    ]
    lists = [
        [_("Found otherwise than the card said"), raised],
        [_("Entries that were replaced, and why"), report.replaced],
        [_("Skipped, and why"), [f"{name}: {because}" for name, because in report.left_out]],
    ]
    return {
        "paper": PAPERS[paper],
        "title": f"{job.tag} {card.name}",
        "tag": job.tag,
        "engine": f"{card.name}, {card.summary}" if card.summary else card.name,
        "whose": job.whose,
        "shop": report.shop,
        "state": _state(report),
        "origin": _origin(report),
        "closing": str(CLOSING),
        "key": format_message(KEY, {"fingerprint": report.fingerprint}) if report.fingerprint else "",
        "first": _first(report),
        "facts": facts,
        "calls": [
            {
                "station": each.station,
                "part": each.part,
                "state": each.state,
                "words": each.words,
                "reason": "; assumed: ".join([each.reason, *([", ".join(each.assumed)] if each.assumed else [])]),
                "by": f"{each.by}, {day_time(each.at)}",
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


def _first(report: Report) -> dict[str, Any]:
    first = report.first
    shown = [{"file": "first.svg", "title": first.drawing.title, "when": "", "alt": first.drawing.words}] if first.drawing else []
    for name, title, photo in (("before", "Before", first.before), ("after", "After", first.after)):
        if photo:
            alt = photo.caption or "without a caption"
            shown.append({"file": f"{name}.jpg", "title": title, "when": short_day(photo.taken_at), "alt": alt})
    paragraphs = [
        [_("Parts fitted"), f"{'; '.join(report.parts)}." if report.parts else ""],
        [_("Still unknown"), " ".join(line if line.endswith(".") else f"{line}." for line in report.unknown)],
        [_("A word to the owner"), report.note],
    ]
    return {
        "wrong": report.job.complaint or _("Nothing was said."),
        "done": first.done,
        "state": first.state,
        "headline": first.headline,
        "line": first.line,
        "decisions": report.decisions,
        "figures": [_matters(each) for each in first.figures],
        "shown": shown,
        "paragraphs": [each for each in paragraphs if each[1]],
    }


def _matters(each: KeyValue) -> dict[str, Any]:
    return {
        **{name: getattr(each, name) for name in ("name", "found", "left", "limits", "state", "call", "came", "again")},
        "lies": asdict(each.lies) if each.lies else None,
    }


def _row(value: ReportValue) -> dict[str, str]:
    values = {name: getattr(value, name) for name in ("part", "words", "found", "left", "limits", "source", "state", "call")}
    return {**values, "who": ", ".join(filter(None, (value.gauge, value.by, value.at)))}


def report_pdf(report: Report, paper: str = "a4") -> bytes:
    """Return the report as PDF, on A4 or Letter."""
    import typst

    data = json.dumps(_data(report, paper), ensure_ascii=False).replace("⌀", "Ø")
    with tempfile.TemporaryDirectory(prefix="stator-sheet-") as folder:
        root = Path(folder)
        (root / "main.typ").write_bytes((HERE / "report.typ").read_bytes())
        _pictures(report, root)
        found, warnings = typst.compile_with_warnings(
            str(root / "main.typ"), root=str(root), font_paths=[str(FONTS)], ignore_system_fonts=True, sys_inputs={"data": data}
        )
    for warning in warnings:
        LOG.warning("the sheet of %s: %s", report.job.tag, warning)
    return bytes(found)


def _pictures(report: Report, root: Path) -> None:
    """Write drawings and photos as files for the typesetter."""
    drawings: list[tuple[str, ReportDrawing]] = [(f"drawing{index}.svg", each) for index, each in enumerate(report.drawings)]
    drawings += [("first.svg", report.first.drawing)] if report.first.drawing else []
    for name, drawn in drawings:
        (root / name).write_bytes(standalone(drawn.svg))
    photos = [(f"photo{index}.jpg", photo, REST_MM) for index, photo in enumerate(report.photos)]
    photos += [(name, photo, FIRST_MM) for name, photo in (("before.jpg", report.first.before), ("after.jpg", report.first.after)) if photo]
    with ThreadPoolExecutor(AT_ONCE) as hands:
        for name, picture in [(name, hands.submit(printed, photo, wide)) for name, photo, wide in photos]:
            (root / name).write_bytes(picture.result())
