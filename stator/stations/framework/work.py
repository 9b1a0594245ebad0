"""A bound station that can be signed: judged, recorded and closed in one transaction."""

from __future__ import annotations

from collections.abc import Sequence

from shopmath.validation import BadInput
from stator.engines.models import Seat
from stator.engines.properties import Property
from stator.jobs import log
from stator.jobs.models import Reading
from stator.stations.framework.bound import Bound
from stator.stations.framework.page_state import PageOutdated
from stator.stations.framework.record_snapshot import frozen
from stator.stations.framework.verdict import plain_values
from stator.ui.units import reading_in, units_now


class BoundStation(Bound):
    """What the rooms extend."""

    def sign(self) -> None:
        if self.may_sign() or not self.entry:
            raise BadInput("sign", self.may_sign())
        if self.seen is not None and self.seen != self.shows:
            raise PageOutdated(self.seen.revision)
        with reading_in(self.shop.units):
            told = self if units_now() == self.reader_units else self.anew()
            plate = told.verdict()
            call = log.VerdictSnapshot(plate.state, plate.words, plate.line or plate.move, plate.code, plain_values(plate.values))
            self.entry = log.sign(self.entry, self.person, call, told.result(), told.findings(), frozen(told, plate), at=self.now)

    def anew(self, readings: Sequence[Reading] = ()) -> BoundStation:
        """The same work with nothing said yet, its readings read unless given: a record is in the units of the shop, whoever signs."""
        again = type(self)(self.station, self.job, self.stage, self.seat, self.entry, self.person, self.now, self.shop, list(readings))
        again.papers, again.seen = self.papers, self.seen
        return again

    def every_seat_signed(self) -> bool:
        """Return True if a station that goes seat by seat has nothing open or unbegun; what another has fitted is not to be fitted here."""
        signed = set(self.stage.entries.filter(signed_at__isnull=False, seat__isnull=False).values_list("seat_id", flat=True))
        left = [each for each in self.job.card.seats.all() if each.pk not in signed and not self.fitted_elsewhere(each)]
        return not left and not self.stage.entries.filter(signed_at__isnull=True).exists()

    def fitted_elsewhere(self, seat: Seat) -> bool:
        """Return True if this station fits bearings, and another of the run has signed this one as home."""
        if Property.BEARING_HOME not in self.station.gives:
            return False
        home = self.known.best(seat.part, Property.BEARING_HOME)
        return home is not None and home.station != self.station.key
