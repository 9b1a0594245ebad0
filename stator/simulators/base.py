"""Base of all simulated parts: a seed, controls, and a gauge with a resolution."""

from __future__ import annotations

import random
from abc import ABC, abstractmethod
from collections.abc import Mapping
from typing import ClassVar

LEVELS = ("easy", "middle", "hard")


class Part(ABC):
    """A simulated part.

    `levers` are its controls and what they do; `every_s` is the interval of its gauge.
    """

    name: ClassVar[str]
    remark: ClassVar[str]
    every_s: ClassVar[float] = 0.1
    levers: ClassVar[Mapping[str, str]]

    def __init__(self, seed: int) -> None:
        self.dice = random.Random(seed)

    @abstractmethod
    def pull(self, control: str) -> None:
        """Run a control."""

    @abstractmethod
    def after(self, seconds: float) -> str | None:
        """Let time pass; the line the gauge says then, if it says one."""

    def passes(self, seconds: float) -> None:
        """Let time pass without a reading; most parts do not change."""

    def stepped(self, value: float, step: float, digits: int) -> str:
        """A value as a gauge of that step shows it."""
        return f"{round(value / step) * step + 0.0:+.{digits}f}"
