"""Numbers in addresses, and addresses that a page may lead to."""

from __future__ import annotations

from functools import lru_cache

from django.http import Http404
from django.urls import reverse
from django.urls.converters import IntConverter
from django.utils.http import url_has_allowed_host_and_scheme

LONGEST = 9  # figures; no job has a higher number
PRACTICE_FROM = 1_000_000_000  # numbers of jobs that are practice


@lru_cache(4096)
def station_address(tag: str, key: str, seat: int | None = None) -> str:
    """Return the address of a station of a job, or of one of its seats; 0 means all seats."""
    return reverse("station", args=[tag, key]) if seat is None else reverse("seat", args=[tag, key, seat])


def job_tag(number: int) -> str:
    """Return the tag of a job: four digits, or P and three digits for practice.

    >>> job_tag(412), job_tag(PRACTICE_FROM + 7)
    ('0412', 'P007')
    """
    return f"P{number - PRACTICE_FROM:03d}" if number >= PRACTICE_FROM else f"{number:04d}"


def job_number(tag: str) -> int:
    """Return the number of a job's tag; raise 404 for anything else, such as ² or thousands of digits, which `isdigit` accepts.

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


def local_address(text: str, otherwise: str) -> str:
    """Return an address of this site that a page sent, or another address if it is not one."""
    return text if text.startswith("/") and url_has_allowed_host_and_scheme(text, None) else otherwise


class RowConverter(IntConverter):
    """A row number in an address: at most 18 digits, because SQLite has no larger integers."""

    regex = "[0-9]{1,18}"
