"""The sealants of a joint: which lies on which stretch, whether each stands what it keeps, how long they leave."""

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
        """Return whether it stands what it keeps."""
        return suits(self.product.kind, self.place)


class Films(tuple[SealantBead, ...]):
    """The sealant of each stretch: of the joint, and of a passage in it that was given one of its own."""

    __slots__ = ()

    @property
    def tells_passages(self) -> bool:
        """Return True if the passages of the joint were told apart, so that the first sealant is that of the crank's chamber alone."""
        return len(self) > 1

    @property
    def unfit(self) -> SealantBead | None:
        """A sealant that does not stand what it keeps."""
        return next((film for film in self if self.tells_passages and film.call.state == STOP), None)

    @property
    def must_not_meet(self) -> bool:
        return bool(must_not_meet([film.product.kind for film in self]))

    @property
    def open_s(self) -> float | None:
        """Return how long the shortest-lived of the sealants stays open, by its own sheet; None where none has one."""
        return min((film.product.open_s for film in self if film.product.open_s), default=None)

    @property
    def wait_s(self) -> float:
        """Return how long the slowest film dries before the faces meet: estimate of its kind."""
        return max((60 * film.by_table.wait_min.likely for film in self if film.by_table.wait_min), default=0.0)

    @property
    def usual_faces(self) -> str:
        """On one face or both, as the kind of the first is used."""
        return "both" if self and self[0].by_table.both_faces else "one"


def films_of(first: Compound | None, shelf: Sequence[Compound], chosen: Callable[[str], str], *, outside: bool) -> Films:
    """The films of a joint; `chosen` tells the product chosen for a passage. A cover keeps gear oil alone."""
    if first is None:
        return Films()
    if outside:
        return Films((SealantBead(GEARS, first, sealing(first.kind)),))
    found = [SealantBead(CRANK, first, sealing(first.kind))]
    for place in PASSAGES:
        other = next((each for each in shelf if str(each.pk) == chosen(place)), None)
        found += [SealantBead(place, other, sealing(other.kind))] if other and other != first else []
    return Films(found)
