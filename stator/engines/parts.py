"""Parts of an engine and places on them that readings refer to, by kind and identity."""

from __future__ import annotations

import uuid
from dataclasses import dataclass, field

from django.db import models
from django.utils.translation import gettext_lazy as _


class Kind(models.TextChoices):
    """Kinds of parts and places."""

    SEAT = "seat", _("bearing seat")
    SEAL = "seal", _("seal")
    FASTENER = "fastener", _("fastener")
    DOWEL = "dowel", _("dowel")
    GAP = "gap", _("place to measure the gap")
    FITTED = "fitted", _("fitted part")
    TRAY = "tray", _("place on the tray")
    CASE = "case", _("part of the case")
    JOINT = "joint", _("joint of the case")
    CRANK = "crank", _("crank")
    THROW = "throw", _("throw")
    ROD = "rod", _("connecting rod")
    FLYWHEEL = "flywheel", _("flywheel")
    ENGINE = "engine", _("engine")


@dataclass(frozen=True, order=True)
class Part:
    """A part or a place of one engine.

    `uid` distinguishes parts of a kind and is the same in copies of a card. The name is only a label.
    """

    kind: str
    uid: str
    name: str = field(default="", compare=False)

    @property
    def key(self) -> str:
        """Return the part as text for an address; empty if an engine has only one of its kind."""
        return "" if self.uid == self.kind else self.uid


CRANK, JOINT, FLYWHEEL = Part(Kind.CRANK, "crank"), Part(Kind.JOINT, "joint"), Part(Kind.FLYWHEEL, "flywheel")
ENGINE = Part(Kind.ENGINE, "engine")
HALVES = ("left", "right")  # of every case, by identity
LEFT_CASE, RIGHT_CASE = Part(Kind.CASE, "left", "left case"), Part(Kind.CASE, "right", "right case")


def rod(number: int = 1) -> Part:
    """A connecting rod, counted from the left."""
    return Part(Kind.ROD, str(number), f"rod {number}")


def throw(number: int = 1) -> Part:
    """A throw of the crank, counted from the left."""
    return Part(Kind.THROW, str(number), f"throw {number}")


def counted_name(kind: str, uid: str) -> str:
    """Return the name of a part that every engine has, with its number or its side."""
    if kind == Kind.CASE:
        return f"{uid} case"
    return f"{Kind(kind).value} {uid}" if kind in (Kind.ROD, Kind.THROW) else ""


def of_every_engine(cylinders: int) -> tuple[Part, ...]:
    """The parts that every card has from the start."""
    pairs = [part for number in range(1, cylinders + 1) for part in (throw(number), rod(number))]
    return (CRANK, JOINT, FLYWHEEL, LEFT_CASE, RIGHT_CASE, *pairs)


def new_uid() -> str:
    return uuid.uuid4().hex[:12]
