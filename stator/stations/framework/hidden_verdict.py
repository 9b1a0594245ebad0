"""Calls that are not shown yet. The rooms above put in here what hides one; nothing does at a job of the shop."""

from __future__ import annotations

from collections.abc import Callable

from stator.stations.framework import BoundStation

HIDES: list[Callable[[BoundStation], bool]] = []


def is_verdict_hidden(work: BoundStation) -> bool:
    """Return True if the call of this moment is to be judged by the learner first."""
    return work.job.practice and any(hides(work) for hides in HIDES)
