"""Days and times as a reader sees them: in the shop's time zone and the reader's language."""

from __future__ import annotations

from datetime import date, datetime

from django.utils import timezone
from django.utils.formats import date_format


def _said(moment: date | datetime, form: str) -> str:
    local = timezone.localtime(moment) if isinstance(moment, datetime) and timezone.is_aware(moment) else moment
    return str(date_format(local, form))


def day(moment: date | datetime) -> str:
    """`5 Nov 2026`."""
    return _said(moment, "j M Y")


def short_day(moment: date | datetime) -> str:
    """`5 Nov`."""
    return _said(moment, "j M")


def day_time(moment: datetime) -> str:
    """`5 Nov 14:05`."""
    return _said(moment, "j M H:i")


def long_day_time(moment: datetime) -> str:
    """`5 Nov 2026 14:05`."""
    return _said(moment, "j M Y H:i")


def month(moment: date | datetime) -> str:
    """`Nov 26`."""
    return _said(moment, "M y")
