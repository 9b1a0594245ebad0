"""What is known of a half being stripped: how the crank came out, what lies on the tray in which order, with what wear."""

from __future__ import annotations

import re
from dataclasses import dataclass
from enum import StrEnum
from functools import cached_property

from engines.parts import CRANK, JOINT, Kind, Part
from engines.properties import Property
from engines.slots import Slot
from jobs.facts import Own
from jobs.models import TrayPlace
from stations.base import Given

MOST_PARTS = 80
CRANK_OUT, CAME_EVENLY = Slot(CRANK, Property.CRANK_OUT), Slot(CRANK, Property.CAME_EVENLY)
NOTE = Slot(JOINT, Property.NOTE)
_COUNTED = re.compile(r"^\s*(\d{1,3})\s*[x×]\s*(\S.*)$", re.IGNORECASE)


class Code(StrEnum):
    """What a call at Strip can say."""

    STOP_PUSHING = "stop pushing"
    INTO_THE_TRAY = "into the tray"
    BARE = "bare"
    BARE_WITH_WEAR = "bare with wear"


@dataclass(frozen=True)
class TakenOut:
    """One part on its way to the tray, with what was said of it so far."""

    part: Part
    what: str
    from_where: str
    way: str
    wear: str

    def slot(self, what: Property) -> Slot:
        return Slot(self.part, what)

    @property
    def is_described(self) -> bool:
        return bool(self.what and self.way and self.wear)

    @property
    def counted(self) -> tuple[int, str]:
        """How many, and the name: `2 x washer` is two washers."""
        found = _COUNTED.match(self.what)
        return (max(1, int(found[1])), found[2]) if found else (1, self.what)


@dataclass(frozen=True)
class StripFacts:
    """All that Strip knows."""

    own: Own
    places: tuple[TrayPlace, ...]

    def part_number(self, number: int) -> TakenOut:
        part = Part(Kind.TRAY, f"strip-{number}")
        asked = (Property.TRAY_PART, Property.PART_FROM, Property.PART_WAY, Property.PART_WEAR)
        return TakenOut(part, *(self.own.said(Slot(part, what)) for what in asked))

    @cached_property
    def parts(self) -> list[TakenOut]:
        """Parts named so far, in order."""
        return [each for number in range(1, MOST_PARTS + 1) if (each := self.part_number(number)).what]

    @property
    def is_bare(self) -> bool:
        """Whether the mechanic has said that nothing is left."""
        return self.own.was_skipped(self.part_number(len(self.parts) + 1).slot(Property.TRAY_PART))

    @property
    def crank(self) -> str:
        return self.own.said(CRANK_OUT)

    @property
    def came(self) -> str:
        """How it came: `even` or `crooked`; empty where it was not pushed."""
        return self.own.said(CAME_EVENLY)

    @property
    def worn(self) -> list[TrayPlace]:
        return [place for place in self.places if place.wear]


def strip_facts(given: Given) -> StripFacts:
    """What Strip knows, built once for a page or an act."""
    return StripFacts(given.own, tuple(given.job.tray.all()) if given.job else ())
