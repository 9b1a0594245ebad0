"""Faults of a page's layout: cut text, overlapping labels, small targets, and what the reading bar covers.

`bin/look` checks every page at every size, in English and in the test language; the browser tests check some of them.
"""

from __future__ import annotations

from pathlib import Path
from typing import Any

SIZES = ((1280, 800), (1024, 768), (390, 844), (360, 740))
CHECK = (Path(__file__).parent / "layout.js").read_text()


def faults(page: Any, address: str) -> list[str]:
    """Return what is wrong with a page at the size it has now."""
    page.goto("about:blank")  # so that nothing of the page before is still under way
    page.goto(address)
    page.evaluate("document.fonts.ready")
    found: list[str] = page.evaluate(CHECK)
    return found
