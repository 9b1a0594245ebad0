"""The state of a page when something was submitted on it, to detect what was done meanwhile."""

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
    """The verdict on a page: the revision of the job, the state, and the headline without numbers, which change every second."""

    revision: int
    state: str
    headline: str

    @classmethod
    def now(cls, revision: int, state: str, headline: str) -> PageState:
        return cls(revision, state, " ".join(_FIGURES.sub("#", headline).replace("|", " ").split()))

    @classmethod
    def of(cls, text: str) -> PageState:
        """Return the state that a page sends; a page without one has seen nothing.

        >>> PageState.of(str(PageState.now(7, "in", "It drops in: 99 %")))
        PageState(revision=7, state='in', headline='It drops in: # %')
        """
        revision, _, rest = text[:200].partition("|")
        state, _, headline = rest.partition("|")
        known = revision.isascii() and revision.isdecimal() and len(revision) < 10
        return cls(int(revision), state, headline) if known else cls(0, "", "")

    def __str__(self) -> str:
        return f"{self.revision}|{self.state}|{self.headline}"


class PageOutdated(BadInput):
    """The verdict that would be signed differs from the one on the page."""

    def __init__(self, revision: int) -> None:
        super().__init__("sign", _("Since this page was shown the work has moved on."))
        self.revision = revision


def same_attempt(shown: int | None, attempt: int, key: str) -> None:
    """Refuse an answer from a page that shows an earlier attempt. A page without an attempt is accepted."""
    if shown is not None and shown != attempt:
        raise BadInput(key, ANOTHER_ATTEMPT.format(attempt=attempt))
