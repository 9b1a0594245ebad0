"""Sealants of a joint: their passages, their resistance to what they seal, and their times."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass

from shopmath.sealing import CRANK, GEARS, WATER, Sealing, must_not_meet, sealing, suits
from shopmath.verdict import STOP, Conformity
from stator.shop.models import Compound

PASSAGES = (WATER, GEARS)  # stretches of a joint that may carry a sealant of their own


@dataclass(frozen=True)
class SealantBead:
    """A sealant on a stretch of the joint: what that keeps, the product, and its kind by the table."""

    place: str
    product: Compound
    by_table: Sealing

    @property
    def call(self) -> Conformity:
        """Return whether the sealant resists what it seals."""
        return suits(self.product.kind, self.place)


class Films(tuple[SealantBead, ...]):
    """The sealant of each stretch: of the joint, and of a passage in it that was given one of its own."""

    __slots__ = ()

    @property
    def tells_passages(self) -> bool:
        """Return True if the passages of the joint are distinguished, so that the first sealant is only that of the crank chamber."""
        return len(self) > 1

    @property
    def unfit(self) -> SealantBead | None:
        """Return a sealant that does not resist what it seals."""
        return next((film for film in self if self.tells_passages and film.call.state == STOP), None)

    @property
    def must_not_meet(self) -> bool:
        return bool(must_not_meet([film.product.kind for film in self]))

    @property
    def open_s(self) -> float | None:
        """Return the shortest open time of the sealants by their data sheets; None if none has one."""
        return min((film.product.open_s for film in self if film.product.open_s), default=None)

    @property
    def wait_s(self) -> float:
        """Return how long the slowest film dries before the surfaces meet, an estimate for its kind."""
        return max((60 * film.by_table.wait_min.likely for film in self if film.by_table.wait_min), default=0.0)

    @property
    def usual_faces(self) -> str:
        """On one face or both, as the kind of the first is used."""
        return "both" if self and self[0].by_table.both_faces else "one"


def films_of(first: Compound | None, shelf: Sequence[Compound], chosen: Callable[[str], str], *, outside: bool) -> Films:
    """Return the sealant films of a joint; `chosen` is the product of each passage.

    A cover seals gear oil only.
    """
    if first is None:
        return Films()
    if outside:
        return Films((SealantBead(GEARS, first, sealing(first.kind)),))
    found = [SealantBead(CRANK, first, sealing(first.kind))]
    for place in PASSAGES:
        other = next((each for each in shelf if str(each.pk) == chosen(place)), None)
        found += [SealantBead(place, other, sealing(other.kind))] if other and other != first else []
    return Films(found)
