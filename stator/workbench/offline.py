"""What a page takes along for a time without network: questions that can be answered then, to be sent when the machine answers again.

A choice steers what follows, and some readings move a clock: those wait for the machine. A question keeps its key, so that an answer
sent later goes to it or is refused in words, never to another.
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
    """For the page's scripts: where an answer goes, the questions, and in which order they are asked.

    `asked` is on the strip now.
    """
    asks = [] if work.signed or work.job.is_closed else [ask for ask in work.open_questions() if not _waits(work, ask)][:MOST]
    also = [asked] if asked and not _waits(work, asked) else []
    return {
        "address": f"{work.address}keep/",
        "page": work.address,
        "place": " ".join(filter(None, (work.job.tag, str(work.station.name), work.seat.name if work.seat else ""))),
        "attempt": work.answers.attempt,
        "questions": {ask.key: _plain(work, ask) for ask in (*also, *asks)},
        "turn": in_turn(work, asks),
    }


def _waits(work: BoundStation, ask: Question) -> bool:
    decides = bool(ask.options) or ask.key == WORD
    return decides or bool(ask.slot and ask.slot.what in work.station.at(work.seat).waits)


def in_turn(work: BoundStation, asks: list[Question]) -> list[str]:
    """Keys in the order in which they are asked: places that are read several times come round after round."""
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
    """When a reading that comes late was taken, as its page says in ms; None for one that was sent at once.

    Raises
    ------
    BadInput
        For a time that cannot be: ahead of the machine's clock, or weeks ago.
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
