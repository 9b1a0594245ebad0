"""What a page showed when something was done on it, and what else was done meanwhile."""

from __future__ import annotations

import re
from dataclasses import dataclass
from datetime import timedelta

from django.utils.translation import gettext as _
from django.utils.translation import gettext_lazy

from shopmath.validation import BadInput

_FIGURES = re.compile(r"[-+−]?\d+(?:[.,:]\d+)*")
ANOTHER_ATTEMPT = gettext_lazy(
    "Attempt {attempt} was begun meanwhile, on another device. What you typed is still here: look, then press Enter again."
)
SAID_FOR = timedelta(minutes=10)  # how long a page says that a question was answered twice


@dataclass(frozen=True)
class PageState:
    """The call on a page: the job's revision it was made from, its state, and its headline without figures, which change by the second."""

    revision: int
    state: str
    headline: str

    @classmethod
    def now(cls, revision: int, state: str, headline: str) -> PageState:
        return cls(revision, state, " ".join(_FIGURES.sub("#", headline).replace("|", " ").split()))

    @classmethod
    def of(cls, text: str) -> PageState:
        """As a page sends it; a page that says nothing has seen nothing.

        >>> PageState.of(str(PageState.now(7, "in", "It drops in: 99 %")))
        Seen(revision=7, state='in', headline='It drops in: # in #')
        """
        revision, _, rest = text[:200].partition("|")
        state, _, headline = rest.partition("|")
        known = revision.isascii() and revision.isdecimal() and len(revision) < 10
        return cls(int(revision), state, headline) if known else cls(0, "", "")

    def __str__(self) -> str:
        return f"{self.revision}|{self.state}|{self.headline}"


class PageOutdated(BadInput):
    """The call that would be signed is not the one that the page showed."""

    def __init__(self, revision: int) -> None:
        super().__init__("sign", _("Since this page was shown the work has moved on."))
        self.revision = revision


def same_attempt(shown: int | None, attempt: int, key: str) -> None:
    """Refuse what was typed on a page that shows an attempt before the one under way; a page that says none is believed."""
    if shown is not None and shown != attempt:
        raise BadInput(key, ANOTHER_ATTEMPT.format(attempt=attempt))
