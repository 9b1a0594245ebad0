"""Cells for spreadsheets: none is ever taken for a formula."""

from __future__ import annotations

import re

_NUMBER = re.compile(r"[+-]?\d{1,15}(?:[.,]\d{1,15})?", re.ASCII)
_STARTS = "=+-@\t\r\n|%"


def plain(text: str) -> str:
    """Escape a text so that a spreadsheet shows it and does not compute it.

    An apostrophe precedes what could begin a formula; numbers are unchanged.

    >>> plain("-0.012"), plain("+1+cmd|' /C calc'!A0"), plain("drive side"), plain(" =1")
    ('-0.012', "'+1+cmd|' /C calc'!A0", 'drive side', "' =1")
    """
    if _NUMBER.fullmatch(text):
        return text
    return f"'{text}" if text.lstrip(" \u00a0\u3000")[:1] in _STARTS and text.strip() else text
