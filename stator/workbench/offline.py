"""Questions that can be answered without network; the answers are sent when the server responds again.

A choice determines what follows, and some readings move a timer, so these need the server. A question has the same key then, so that a late
answer is saved for it or refused with a message, never saved for another question.
"""

from __future__ import annotations

from datetime import UTC, datetime, timedelta
from itertools import groupby
from typing import Any

from django.utils.translation import gettext as _

from shopmath.validation import BadInput
from stator.stations.framework import WORD, BoundStation, Question

MOST = 60  # questions
KEPT_FOR = timedelta(days=14)


def offline_bundle(work: BoundStation, asked: Question | None) -> dict[str, Any]:
    """Return, for the scripts, the address of an answer, the questions, and their order.

    `asked` is the present question.
    """
    asks = (
        [] if work.signed or work.job.is_closed else [question for question in work.open_questions() if not _waits(work, question)][:MOST]
    )
    also = [asked] if asked and not _waits(work, asked) else []
    return {
        "address": f"{work.address}keep/",
        "page": work.address,
        "place": " ".join(filter(None, (work.job.tag, str(work.station.name), work.seat.name if work.seat else ""))),
        "attempt": work.answers.attempt,
        "questions": {question.key: _plain(work, question) for question in (*also, *asks)},
        "turn": in_turn(work, asks),
    }


def _waits(work: BoundStation, ask: Question) -> bool:
    decides = bool(ask.options) or ask.key == WORD
    return decides or bool(ask.slot and ask.slot.what in work.station.at(work.seat).waits)


def in_turn(work: BoundStation, asks: list[Question]) -> list[str]:
    """Return the keys in the order of the questions: places that are read several times follow round by round."""
    found: list[str] = []
    for times, group in groupby(asks, key=lambda ask: ask.times):
        places = list(group)
        for turn in range(times):
            found += [ask.key for ask in places if ask.repeats or len(work.answers.live(ask.key)) <= turn]
    return found


def _plain(work: BoundStation, ask: Question) -> dict[str, Any]:
    return {
        "words": str(ask.text),
        "where": str(ask.where),
        "unit": ask.unit,
        "shown": "" if ask.is_words else str(ask.unit_shown),
        "text": ask.is_words,
        "example": ask.example,
        "skips": str(ask.skip_means or "") if ask.optional else "",
        "empty": ask.optional or bool(ask.offer),
        "repeats": ask.repeats,
        "saw": len(work.answers.live(ask.key)),
    }


def typed_at(text: str, now: datetime) -> datetime | None:
    """Return when a late reading was taken, from the page's time in ms; None for one that was sent immediately.

    Raises
    ------
    BadInput
        For a time ahead of the server's clock, or weeks ago.
    """
    if not text:
        return None
    try:
        at = datetime.fromtimestamp(int(text) / 1000, UTC)
    except (ValueError, OverflowError, OSError):
        at = None
    if at is None or at > now + timedelta(minutes=5) or now - at > KEPT_FOR:
        raise BadInput(
            "at", _("The clock of that device cannot be right: the reading would be ahead of this machine, or weeks old. Type it again.")
        )
    return min(at, now)
