"""Fact keys: the part, its property, and the place on the part."""

from __future__ import annotations

from dataclasses import dataclass, field

from stator.engines.parts import Part
from stator.engines.properties import Property
from stator.engines.property_specs import ABOUT, PropertySpec


@dataclass(frozen=True)
class Location:
    """A place on a part, if the property has places: end, angle, clock position, depth and stage."""

    end: str = ""
    angle_deg: float | None = None
    clock: int | None = None
    depth: str = ""
    stage: int | None = None

    @property
    def key(self) -> str:
        angle = "" if self.angle_deg is None else f"{self.angle_deg:g}"
        clock = "" if self.clock is None else f"{self.clock}h"
        stage = "" if self.stage is None else f"s{self.stage}"
        return ".".join(filter(None, (self.end, angle, clock, self.depth, stage)))


ANYWHERE = Location()


@dataclass(frozen=True)
class FactKey:
    """The key of a reading or fact.

    >>> from stator.engines.parts import CRANK
    >>> FactKey(CRANK, Property.CRANK_RUNOUT, Location("left", 45)).key
    'crank-runout.left.45'
    """

    part: Part
    what: Property
    at: Location = field(default=ANYWHERE)

    @property
    def key(self) -> str:
        """Return the key as text, for addresses and the list of skipped questions."""
        return ".".join(filter(None, (self.what.value, self.part.key, self.at.key)))

    @property
    def about(self) -> PropertySpec:
        return ABOUT[self.what]
