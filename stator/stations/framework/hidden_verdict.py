"""Verdicts that are not shown yet. A hook decides; at a job of the shop nothing is hidden."""

from __future__ import annotations

from collections.abc import Callable

from stator.stations.framework import BoundStation

_hooks: list[Callable[[BoundStation], bool]] = []


def hide_when(hook: Callable[[BoundStation], bool]) -> None:
    """Register a hook that returns True if the user judges before the verdict is shown.

    Call it in `AppConfig.ready`.
    """
    _hooks.append(hook)


def is_verdict_hidden(work: BoundStation) -> bool:
    """Return True if the verdict of this moment is to be judged by the user first."""
    return work.job.practice and any(hook(work) for hook in _hooks)
