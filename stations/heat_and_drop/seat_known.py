"""What is known of a seat before a bearing goes into it: its size as measured, and whether it holds a bearing at all."""

from __future__ import annotations

from dataclasses import dataclass

from engines.fits import SeatFit, fit_of
from engines.models import Seat
from engines.properties import Property
from jobs.facts import Facts
from jobs.models import Reading
from shopmath.iso286 import fit as fit_of_limits
from shopmath.verdict import OUT, gauge_uncertainty
from stations.base.station import station_name

Size = tuple[float, float]  # and its uncertainty, mm
COMPOUND = "compound"
FITS_ANEW = ("sleeve", "oversize", "replace")  # mends after which the seat has another size
TAKEN_U_MM = 0.005
NO_GAUGE_U_MM = 0.02


def uncertainty_mm(reading: Reading) -> float:
    """Of a size by its gauge, or as one is taken for where no gauge is named."""
    return gauge_uncertainty(reading.gauge.resolution, reading.gauge.repeatability) if reading.gauge else NO_GAUGE_U_MM


@dataclass(frozen=True)
class SeatKnown:
    """What other stations found of a seat, and what was measured at it here."""

    measured_here: Size | None
    measured_before: Size | None = None
    verdict: str = ""
    mend: str = ""
    measured_at: str = ""  # the station, when it was not here

    @property
    def size(self) -> Size | None:
        """The size to plan with: what was measured last, before a mend that changes it only until that is done."""
        return self.measured_here or (None if self.mend in FITS_ANEW else self.measured_before)

    @property
    def otherwise(self) -> str:
        """What is planned with when it is not measured here."""
        return self.measured_at if self.measured_before and self.mend not in FITS_ANEW else "by its fit code"

    @property
    def is_condemned(self) -> bool:
        """Whether it was signed as out and nobody has measured it since; a retaining compound holds where the fit does not."""
        return self.verdict == OUT and self.measured_here is None and self.mend != COMPOUND

    def holds_nothing(self, fit: SeatFit) -> bool:
        """Whether as measured it is looser than its fit allows, so that the ring would turn in it."""
        if self.size is None or self.mend == COMPOUND or _grip_mm(fit) > 0:
            return False
        return not fit.seat.code or _grip_mm(fit_of(fit.seat)) > 0


def _grip_mm(fit: SeatFit) -> float:
    """Interference of the tightest pair, mm."""
    return fit_of_limits(fit.inner.limits, fit.outer.limits).max_interference_mm


def seat_known(known: Facts, seat: Seat, measured_here: Size | None) -> SeatKnown:
    """What the job knows of a seat."""
    size = known.as_left(seat.part, Property.SEAT_SIZE)
    before = (size.value, size.uncertainty or TAKEN_U_MM) if size and size.value else None
    verdict = known.as_left(seat.part, Property.SEAT_VERDICT)
    mend = known.as_left(seat.part, Property.SEAT_MEND)
    where = f"measured at {station_name(size.station)}" if size and not measured_here else ""
    return SeatKnown(measured_here, before, verdict.text if verdict else "", mend.text if mend else "", where)
