"""Failures of the shop's computer, distinguished from defects of the application."""

from __future__ import annotations

import errno

from django.db import DatabaseError
from django.http import HttpResponse
from django.utils.functional import Promise
from django.utils.html import format_html
from django.utils.translation import gettext_lazy as _

DISK_FULL = _("The disk of the shop's machine is full: nothing was kept. Free some space on it, then send it again.")
READ_ONLY = _("The data folder of the shop's machine cannot be written to: nothing was kept. Whoever looks after the machine must open it.")
DAMAGED = _("The database of the shop's machine is damaged: nothing was kept. Stop the server and put the last backup back.")
BUSY = _("The shop's machine is too busy to write: nothing was kept. Wait a moment, then send it again.")


def render_server_error(error: BaseException) -> tuple[int, str | Promise] | None:
    """Status and words for what the machine cannot do; None for what is a fault of ours."""
    text = str(error).lower()
    if isinstance(error, OSError) and error.errno in (errno.ENOSPC, errno.EDQUOT):
        return 507, DISK_FULL
    if isinstance(error, OSError) and error.errno in (errno.EROFS, errno.EACCES, errno.EPERM):
        return 503, READ_ONLY
    if not isinstance(error, DatabaseError):
        return None
    for words, answer in (
        ("disk is full", (507, DISK_FULL)),
        ("disk i/o error", (507, DISK_FULL)),
        ("readonly database", (503, READ_ONLY)),
        ("unable to open", (503, READ_ONLY)),
        ("malformed", (503, DAMAGED)),
        ("not a database", (503, DAMAGED)),
        ("locked", (503, BUSY)),
    ):
        if words in text:
            return answer
    return None


def page_of(status: int, words: str | Promise) -> HttpResponse:
    """A page that needs neither database nor disk."""
    page = format_html(
        "<!doctype html><html lang='en'><meta charset='utf-8'><title>Not kept · Stator</title>"
        "<h1>Not kept</h1><p>{}</p><p><a href='/'>Workbench</a></p></html>",
        words,
    )
    return HttpResponse(page, status=status)
