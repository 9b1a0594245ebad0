"""The kinds of values that a file may hold: texts of a length, numbers, times, one of a few words."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import UTC, date, datetime
from typing import Annotated, Any

from pydantic import BaseModel, BeforeValidator, ConfigDict, Field

STATES = ("in", "too_close", "out", "stop", "wait", "")
EARLIEST, LATEST = datetime(1990, 1, 1, tzinfo=UTC), datetime(2200, 1, 1, tzinfo=UTC)


def _time(value: Any) -> Any:
    """A time with its zone, in the years in which there can be one."""
    if value is None:
        return None
    try:
        found = datetime.fromisoformat(value) if isinstance(value, str) and len(value) <= 60 else None
        if found is not None and found.tzinfo is not None and EARLIEST <= found <= LATEST:
            return found
    except (ValueError, OverflowError):
        pass
    raise ValueError("a time with its zone is wanted, such as 2026-11-25T14:05:00+00:00.")


def _date(value: Any) -> Any:
    """Parse a date in the same years."""
    try:
        found = None if value is None else date.fromisoformat(value) if isinstance(value, str) and len(value) <= 10 else date.min
    except ValueError:
        found = date.min
    if found is not None and not EARLIEST.date() <= found <= LATEST.date():
        raise ValueError("a date is wanted, such as 2026-11-25.")
    return found


def said_time(value: str) -> str:
    """A time that stays as it was written."""
    _time(value)
    return value


def one_of(known: Sequence[str]) -> Any:
    def check(value: Any) -> Any:
        if value is None and "" in known:
            return ""
        if value not in known:
            raise ValueError(f"{str(value)[:40]!r} is not known here.")
        return value

    return BeforeValidator(check)


def _or_empty(value: Any) -> Any:
    return "" if value is None else value


ANY_TEXT = BeforeValidator(_or_empty)
Text20 = Annotated[str, ANY_TEXT, Field(max_length=20)]
Text30 = Annotated[str, ANY_TEXT, Field(max_length=30)]
Text40 = Annotated[str, ANY_TEXT, Field(max_length=40)]
Text60 = Annotated[str, ANY_TEXT, Field(max_length=60)]
Text80 = Annotated[str, ANY_TEXT, Field(max_length=80)]
Text100 = Annotated[str, ANY_TEXT, Field(max_length=100)]
Text120 = Annotated[str, ANY_TEXT, Field(max_length=120)]
Text150 = Annotated[str, ANY_TEXT, Field(max_length=150)]
Text160 = Annotated[str, ANY_TEXT, Field(max_length=160)]
Text200 = Annotated[str, ANY_TEXT, Field(max_length=200)]
Text300 = Annotated[str, ANY_TEXT, Field(max_length=300)]
Text1000 = Annotated[str, ANY_TEXT, Field(max_length=1000)]
Time = Annotated[datetime, BeforeValidator(_time)]
MaybeDate = Annotated[date | None, BeforeValidator(_date)]
MaybeTime = Annotated[datetime | None, BeforeValidator(_time)]
Number = Annotated[float, Field(allow_inf_nan=False, ge=-1e12, le=1e12)]
Count = Annotated[int, Field(ge=0, le=1_000_000)]
Attempt = Annotated[int, Field(ge=1, le=99)]
Share = Annotated[float, Field(ge=0, le=1)]
State = Annotated[str, one_of(STATES)]


class Part(BaseModel):
    model_config = ConfigDict(strict=True, extra="ignore", frozen=True)
