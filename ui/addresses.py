"""Numbers as they stand in an address."""

from __future__ import annotations

from functools import lru_cache

from django.http import Http404
from django.urls import reverse

LONGEST = 9  # figures; no job has a higher number
PRACTICE_FROM = 1_000_000_000  # numbers of jobs that are practice


@lru_cache(4096)
def station_address(tag: str, key: str, seat: int | None = None) -> str:
    """The page of a station of a job, or of one of its seats there; 0 stands for all seats at once."""
    return reverse("station", args=[tag, key]) if seat is None else reverse("seat", args=[tag, key, seat])


def job_tag(number: int) -> str:
    """How a job is called: four figures, or a P and three for one that is practice.

    >>> job_tag(412), job_tag(PRACTICE_FROM + 7)
    ('0412', 'P007')
    """
    return f"P{number - PRACTICE_FROM:03d}" if number >= PRACTICE_FROM else f"{number:04d}"


def job_number(tag: str) -> int:
    """The number a job's tag means; 404 for anything else. `isdigit` alone would take ² for a figure and ten thousand of them for a number.

    >>> job_number("0412"), job_number("P007") - PRACTICE_FROM
    (412, 7)
    """
    if tag.startswith("P") and tag[1:].isascii() and tag[1:].isdecimal() and len(tag) < LONGEST:
        return PRACTICE_FROM + int(tag[1:])
    if not (tag.isascii() and tag.isdecimal() and len(tag) <= LONGEST):
        raise Http404
    return int(tag)


def row_number(text: str) -> int | None:
    """The number of a row as a form sends it; None when it is none.

    >>> row_number("17"), row_number("²"), row_number("")
    (17, None, None)
    """
    return int(text) if text.isascii() and text.isdecimal() and len(text) <= LONGEST else None
