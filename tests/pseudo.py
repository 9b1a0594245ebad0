"""A language for tests: every message has accents and is a third longer, so that untranslated text stands out."""

from __future__ import annotations

import gettext
import re
from collections.abc import Iterator
from contextlib import contextmanager
from functools import cache

from django.test import override_settings
from django.utils.translation import trans_real

CODE = "eo"  # one that Django knows and Stator has no catalogue of
ACCENTS = str.maketrans("aeioucnsyAEIOUCNSY", "áéíóúçñšýÁÉÍÓÚÇÑŠÝ")
KEPT = re.compile(r"(\{[^{}]*\}|%\(\w+\)[sd]|%[sd%]|<[^>]*>|&\w+;|\n)")  # values, tags and entities stay as they are
LONGER = 0.35


@cache
def accented(message: str) -> str:
    """A message with every vowel accented and a third longer.

    >>> accented("Keep {count} readings")
    'Kéép {count} réádíñgš~~~~~'
    """
    if not re.search("[A-Za-z]", KEPT.sub("", message)):
        return message
    parts = [part if KEPT.fullmatch(part) else part.translate(ACCENTS) for part in KEPT.split(message)]
    more = round(LONGER * len(KEPT.sub("", message)))
    words = "".join("~" if index % 9 < 8 else " " for index in range(more)).rstrip()
    return "".join(parts) + words


class Accented(gettext.NullTranslations):
    """Every message with accents."""

    domain = "django"
    plural = staticmethod(lambda number: int(number != 1))

    def gettext(self, message: str) -> str:
        return accented(message)

    def ngettext(self, msgid1: str, msgid2: str, n: int) -> str:
        return accented(msgid1 if n == 1 else msgid2)

    def language(self) -> str:
        return CODE

    def to_language(self) -> str:
        return CODE


@contextmanager
def everything_accented() -> Iterator[None]:
    """Add the test language to the others."""
    with override_settings(LANGUAGES=[("en-gb", "English"), (CODE, "Test")]):  # which empties what Django has read
        trans_real._translations[CODE] = Accented()  # type: ignore[attr-defined]
        try:
            yield
        finally:
            trans_real._translations.pop(CODE, None)  # type: ignore[attr-defined]
