"""A signed entry, shown as it was recorded and never computed again."""

from __future__ import annotations

import zlib
from collections.abc import Mapping
from dataclasses import dataclass
from datetime import datetime
from typing import Any

from django.urls import reverse
from django.utils.html import format_html
from django.utils.safestring import SafeString
from django.utils.translation import gettext as _

from shopmath.amounts import Amount
from stator.jobs.models import Origin, Record
from stator.stations.framework import messages as shared
from stator.stations.framework import next_step
from stator.stations.framework.bound_station import BoundStation
from stator.stations.framework.messages import format_message
from stator.stations.framework.page_components import Method, Option, Question, ReadingRow, RenderedVerdict, SafetyWarning, Scale, Source
from stator.ui.number_format import beside
from stator.ui.static_svg import in_page
from stator.ui.units import METRIC


@dataclass(frozen=True)
class ReadingAuthor:
    """The name of the person who took a reading."""

    called: str


@dataclass(frozen=True)
class SignedReading:
    """A reading as the record has it."""

    text: str
    taken_at: datetime
    by: ReadingAuthor
    gauge: str = ""


FRAME = '<div class="recorded-frame" role="group" tabindex="0" aria-label="{}">{}</div>'  # on a phone the drawing is pushed along in it


def number_of(recorded: Mapping[str, Any], name: str = "value") -> Amount | None:
    """Return a number of a record with its kind; None if an older record does not contain it."""
    kind, value = recorded.get("kind", ""), recorded.get(name)
    return Amount(value, kind, recorded.get("step") or 0.001) if kind in METRIC and value is not None else None


class SignedStation(BoundStation):
    """BoundStation to an entry that has a record."""

    @property
    def record(self) -> Record:
        assert self.entry is not None
        return self.entry.record

    @property
    def content(self) -> dict[str, Any]:
        content: dict[str, Any] = self.record.content
        return content

    # nothing is computed

    def questions(self) -> list[Question]:
        return []

    def is_live(self) -> bool:
        return False

    def every_check(self) -> tuple[SafetyWarning, ...]:
        return ()

    def checks(self) -> tuple[SafetyWarning, ...]:
        return ()

    def tabs(self) -> Method | None:
        return None

    def slider(self) -> tuple[float, float] | None:
        return None

    def history(self) -> list[dict[str, str]]:
        return []

    def verdict(self) -> RenderedVerdict:
        return self.displayed_verdict()

    def displayed_verdict(self) -> RenderedVerdict:
        verdict = self.content["call"]
        by = self.entry.signed_by.called if self.entry and self.entry.signed_by else ""
        return RenderedVerdict(
            verdict["state"],
            verdict["headline"],
            verdict["reason"],
            format_message(shared.SIGNED_BY, {"person": by}),
            verdict.get("detail", ""),
            Scale.recorded(verdict["scale"]) if verdict.get("scale") else None,
            assumed=tuple(verdict.get("assumed", ())),
            code=verdict.get("code", ""),
        )

    def drawing(self, at_s: float | None = None) -> SafeString:
        """The recorded drawing; one that was drawn in another shop only as a picture, which can do nothing."""
        verdict = self.content["call"]
        if Origin.objects.filter(job=self.job).exists() or not self.record.drawing:
            words = f"{self.station.name}: {verdict['headline']}. {verdict['reason']}"
            drawn = format_html('<img class="recorded" src="{}" alt="{}">', self.drawing_address, words)
        else:
            drawn = in_page(zlib.decompress(bytes(self.record.drawing)).decode(), f"record{self.record.entry_id}")
        return format_html(FRAME, _("Drawing as it was signed"), drawn)

    @property
    def drawing_address(self) -> str:
        return reverse("record-drawing", args=[self.record.entry_id])

    def sources(self) -> tuple[Source, ...]:
        return tuple(Source(each["label"], each["value"], each["source"], each["estimated"]) for each in self.content["sources"])

    def recorded_methods(self) -> tuple[Method, ...]:
        """Return what was chosen, as words."""
        return tuple(Method("", each["words"], (Option("", each["chosen"]),), "") for each in self.content["methods"])

    def contradictions(self) -> list[dict[str, str]]:
        rows: list[dict[str, str]] = self.content["otherwise"]
        return rows

    def warnings(self) -> tuple[SafetyWarning, ...]:
        return self.raised_warnings()

    def readings_table(self) -> list[ReadingRow]:
        return [
            ReadingRow(
                Question("", each["words"]),
                SignedReading(each["typed"], datetime.fromisoformat(each["at"]), ReadingAuthor(each["by"]), each["gauge"]),
                beside(each["shown"], self.content.get("units", ""), number_of(each)),
                each["note"],
            )
            for each in self.content["readings"]
        ]

    @property
    def latest(self) -> ReadingRow | None:
        rows = self.readings_table()
        return rows[-1] if rows else None

    def actions(self) -> tuple[()]:
        return ()

    def next_step_code(self) -> dict[str, Any]:
        by = self.entry.signed_by.called if self.entry and self.entry.signed_by else ""
        return next_step.next_step_code(next_step.SIGNED, {"person": by}, whole=False)

    def whole_station_signed(self) -> bool:
        return self.every_seat_signed() if self.station.by_seat else True
