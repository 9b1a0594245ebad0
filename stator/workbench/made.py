"""What those parts of the working screen are made of that seldom change: a page that holds one made of the same keeps it.

Whatever a part's template says must follow from its values here, from the reader's language and units, and from nothing else.
"""

from __future__ import annotations

from collections.abc import Hashable, Mapping
from typing import Any

from stator.jobs.models import Job, Timer
from stator.stations.framework import BoundStation, SafetyWarning
from stator.stations.framework.log_labels import words_of


def made(data: Mapping[str, Any], panel: str) -> dict[str, Hashable]:
    """By the id of each part; none for a panel that is open, whose rows are in it."""
    work, job = data["work"], data["job"]
    return {
        "tag": _tag(job, data["timers"]),
        "run": _run(work, data["run"]),
        "keys": (work.address, data["inches"], tuple((each.word, each.words) for each in data["actions"])),
        "checklist": _checklist(work, data["checks"], data["gate"]),
        "methods": (work.address, data["methods"]),
        "tabs": (work.address, data["tabs"], tuple(each.pk for each in data["seats"][:1])),
        "seats": (work.address, data["offers_whole"], tuple((each.pk, each.name) for each in data["seats"])),
        "snap": (work.address, job.tag, work.stage.key, work.seat and work.seat.uid),
        "sheet": panel != "sheet" and (work.address, "sheet"),
        "pictures": panel != "pictures" and (work.address, work.stage.key, job.tag, job.is_closed, work.seat and work.seat.uid),
    }


def _tag(job: Job, timers: list[Timer]) -> Hashable:
    clocks = tuple((each.pk, each.tone, each.due_at, each.started_at, words_of(each)) for each in timers)
    return (job.tag, job.practice, job.card.name, job.card.summary, job.complaint, clocks)


def _run(work: BoundStation, run: list[Any]) -> Hashable:
    stages = tuple((each.pk, each.state, each.call_state, each.waits_for, each.because, address) for each, _, address in run)
    return (work.job.tag, work.job.practice, work.stage.pk, stages)


def _checklist(work: BoundStation, checks: tuple[SafetyWarning, ...], gate: str) -> Hashable:
    ticks = work.entry.ticks if work.entry else {}
    return (work.address, bool(gate), tuple((each, each.key in ticks and bool(ticks[each.key])) for each in checks))
