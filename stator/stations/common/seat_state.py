"""The state of a seat before a bearing is installed: its measured size, and whether it retains a bearing."""

from __future__ import annotations

from dataclasses import dataclass

from shopmath.iso286 import fit as fit_of_limits
from shopmath.verdict import OUT
from stator.engines.fits import SeatFit, fit_of
from stator.engines.models import Seat
from stator.engines.properties import Property
from stator.jobs.facts import Fact, Facts

Size = tuple[float, float]  # and its uncertainty, mm
FITTED_AT = ("heat-and-drop", "fit-cold")  # the stations that measure a seat to fit a bearing into it
COMPOUND = "compound"
FITS_ANEW = ("sleeve", "oversize", "replace")  # mends after which the seat has another size
TAKEN_U_MM = 0.005


def size_of(fact: Fact | None) -> Size | None:
    """A size that was read, with its uncertainty."""
    return (fact.value, fact.uncertainty or TAKEN_U_MM) if fact and fact.value else None


@dataclass(frozen=True)
class SeatState:
    """The results of other stations for a seat, and the measurements of this one."""

    measured_here: Size | None
    measured_before: Size | None = None
    verdict: str = ""
    mend: str = ""
    measured_at: str = ""  # key of the station, when it was not here

    @property
    def size(self) -> Size | None:
        """Return the size for planning: the latest measurement; one before a repair counts only until the repair is done."""
        return self.measured_here or (None if self.mend in FITS_ANEW else self.measured_before)

    @property
    def is_measured_before(self) -> bool:
        """Return True if another station's size is planned with when it is not measured here."""
        return bool(self.measured_before) and self.mend not in FITS_ANEW

    @property
    def is_condemned(self) -> bool:
        """Return True if it was signed as Not OK and not measured since.

        A retaining compound can hold where the fit does not.
        """
        return self.verdict == OUT and self.measured_here is None and self.mend != COMPOUND

    def holds_nothing(self, fit: SeatFit) -> bool:
        """Return True if as measured it is looser than its fit allows, so that the ring would turn in it."""
        if self.size is None or self.mend == COMPOUND or _grip_mm(fit) > 0:
            return False
        return not fit.seat.code or _grip_mm(fit_of(fit.seat)) > 0


def _grip_mm(fit: SeatFit) -> float:
    """Interference of the tightest pair, mm."""
    return fit_of_limits(fit.inner.limits, fit.outer.limits).max_interference_mm


def seat_known(known: Facts, seat: Seat, measured_here: Size | None = None) -> SeatState:
    """Return the state of a seat in the job; measurements on its page at this station count as measured here."""
    sizes = [fact for fact in known.history(seat.part, Property.SEAT_SIZE) if fact.measured]
    last_here = next((size_of(fact) for fact in reversed(sizes) if fact.station in FITTED_AT), None)
    before = next((fact for fact in reversed(sizes) if fact.station not in FITTED_AT), None)
    if before:
        known.best(seat.part, Property.SEAT_SIZE)  # so that the record says what it rests on
    verdict, mend = known.said(seat.part, Property.SEAT_VERDICT), known.said(seat.part, Property.SEAT_MEND)
    return SeatState(measured_here or last_here, size_of(before), verdict, mend, before.station if before else "")
