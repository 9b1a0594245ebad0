"""Texts out of the core's tables: the name of a metal, what a letter of a bearing's marking means, where an estimate is from.

`bin/messages` collects them for the catalogues, since they stand in no sentence of the code.
"""

from __future__ import annotations

from django.utils.functional import lazy
from django.utils.translation import gettext


def from_table(text: str) -> str:
    """A text of a table in the reader's language; of several that are joined, each by itself."""
    return "; ".join(gettext(each) if each else each for each in text.split("; "))


from_table_lazily = lazy(from_table, str)
