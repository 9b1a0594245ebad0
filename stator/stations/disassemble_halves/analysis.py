"""Analysis of a half being disassembled: how the crank came out, and the parts on the tray with their order and wear."""

from __future__ import annotations

import re
from dataclasses import dataclass
from enum import StrEnum
from functools import cached_property

from stator.engines.fact_keys import FactKey
from stator.engines.parts import CRANK, JOINT, Kind, Part
from stator.engines.properties import Property
from stator.jobs.facts import EntryData
from stator.jobs.models import TrayPlace
from stator.stations.framework import StationInput

MOST_PARTS = 80
CRANK_OUT, CAME_EVENLY = FactKey(CRANK, Property.CRANK_OUT), FactKey(CRANK, Property.CAME_EVENLY)
NOTE = FactKey(JOINT, Property.NOTE)
_COUNTED = re.compile(r"^\s*(\d{1,3})\s*[x×]\s*(\S.*)$", re.IGNORECASE)
_SEVERAL = re.compile(r"^\s*(\d{1,2})\s+([^\W\d]+s\b.*)$", re.IGNORECASE)  # 3 forks; not 12 mm spacer
_COMMA = re.compile(r"\s*[,;]\s+|\s*;\s*")
_LINE = re.compile(r"\s*;\s*")


class Code(StrEnum):
    """Codes of the verdicts of Disassemble halves."""

    STOP_PUSHING = "stop pushing"
    INTO_THE_TRAY = "into the tray"
    BARE = "bare"
    BARE_WITH_WEAR = "bare with wear"


@dataclass(frozen=True)
class TakenOut:
    """A part on its way to the tray, with its answers so far."""

    part: Part
    what: str
    from_where: str
    way: str
    wear: str

    def slot(self, what: Property) -> FactKey:
        return FactKey(self.part, what)

    @property
    def is_described(self) -> bool:
        return bool(self.what and self.way and self.wear)

    @property
    def items(self) -> list[tuple[int, str]]:
        """Return the parts with their quantities: `2 x washer 1.0, fork shaft, 3 forks` is a list of three.

        A comma separates parts only if one of them has a quantity: `gear cluster, output` is one part.
        """
        found = [_counted(each) for each in _COMMA.split(self.what) if each.strip()]
        if not any(counted for _count, _name, counted in found):
            found = [_counted(each) for each in _LINE.split(self.what) if each.strip()]
        return [(count, name) for count, name, _counted_ in found]


def _counted(text: str) -> tuple[int, str, bool]:
    """Return the quantity, the name, and whether a number was typed: `2 x washer` is two washers."""
    found = _COUNTED.match(text) or _SEVERAL.match(text)
    return (max(1, int(found[1])), found[2].strip(), True) if found else (1, text.strip(), False)


@dataclass(frozen=True)
class DisassemblyAnalysis:
    """All that Strip knows."""

    own: EntryData
    places: tuple[TrayPlace, ...]

    def part_number(self, number: int) -> TakenOut:
        part = Part(Kind.TRAY, f"strip-{number}")
        properties = (Property.TRAY_PART, Property.PART_FROM, Property.PART_WAY, Property.PART_WEAR)
        return TakenOut(part, *(self.own.said(FactKey(part, what)) for what in properties))

    @cached_property
    def parts(self) -> list[TakenOut]:
        """Parts named so far, in order."""
        return [each for number in range(1, MOST_PARTS + 1) if (each := self.part_number(number)).what]

    @property
    def is_bare(self) -> bool:
        """Return True if the mechanic confirmed that nothing is left in the half."""
        return self.own.was_skipped(self.part_number(len(self.parts) + 1).slot(Property.TRAY_PART))

    @property
    def crank(self) -> str:
        return self.own.said(CRANK_OUT)

    @property
    def came(self) -> str:
        """Return how it came: `even` or `crooked`; empty where it was not pushed."""
        return self.own.said(CAME_EVENLY)

    @property
    def worn(self) -> list[TrayPlace]:
        return [place for place in self.places if place.wear]


def strip_facts(given: StationInput) -> DisassemblyAnalysis:
    """Return what Strip knows, built once for a page or an act."""
    return DisassemblyAnalysis(given.own, given.tray)
