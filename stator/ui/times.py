"""Dates and times in the shop's time zone, in the order and the words of the reader's language."""

from __future__ import annotations

from datetime import date, datetime, timedelta
from functools import lru_cache

from django.utils import timezone
from django.utils.formats import date_format, get_format
from django.utils.translation import get_language


def _local(moment: date | datetime) -> date | datetime:
    return timezone.localtime(moment) if isinstance(moment, datetime) and timezone.is_aware(moment) else moment


def _said(moment: date | datetime, form: str) -> str:
    """A day in one of the formats of the language, its month cut short: `j F Y` becomes `j M Y`."""
    local = _local(moment)
    return _day_said(local.date() if isinstance(local, datetime) else local, form, get_language())


@lru_cache(512)
def _day_said(on: date, form: str, language: str | None) -> str:
    return str(date_format(on, str(get_format(form, lang=language)).replace("F", "M").replace("N", "M")))


def time_of_day(moment: datetime) -> str:
    """`14:05`."""
    return f"{_local(moment):%H:%M}"


def to_the_second(moment: datetime) -> str:
    """`14:05:09`."""
    return f"{_local(moment):%H:%M:%S}"


def day(moment: date | datetime) -> str:
    """`5 Nov 2026`."""
    return _said(moment, "DATE_FORMAT")


def short_day(moment: date | datetime) -> str:
    """`5 Nov`."""
    return _said(moment, "MONTH_DAY_FORMAT")


def day_time(moment: datetime) -> str:
    """`5 Nov, 14:05`."""
    return f"{short_day(moment)}, {time_of_day(moment)}"


def long_day_time(moment: datetime) -> str:
    """`5 Nov 2026, 14:05`."""
    return f"{day(moment)}, {time_of_day(moment)}"


def month(moment: date | datetime) -> str:
    """`Nov 2026`."""
    return _said(moment, "YEAR_MONTH_FORMAT")


def week_of(moment: date | datetime, first_weekday: int) -> date:
    """Return the first day of the week of a moment; weekdays are counted from Sunday, 0.

    >>> week_of(date(2026, 11, 27), 1), week_of(date(2026, 11, 29), 0)
    (datetime.date(2026, 11, 23), datetime.date(2026, 11, 29))
    """
    local = _local(moment)
    on = local.date() if isinstance(local, datetime) else local
    return on - timedelta(days=(on.isoweekday() - first_weekday) % 7)
