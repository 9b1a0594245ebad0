"""Texts of the core's tables: names of metals, meanings of suffixes of bearing markings, sources of estimates.

`bin/messages` collects them for the catalogs, because no sentence of the code contains them.
"""

from __future__ import annotations

from django.utils.functional import lazy
from django.utils.translation import gettext


def from_table(text: str) -> str:
    """Return a text of a table in the reader's language; joined texts are translated one by one."""
    return "; ".join(gettext(each) if each else each for each in text.split("; "))


from_table_lazily = lazy(from_table, str)
