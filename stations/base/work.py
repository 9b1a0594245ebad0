"""A bound station that can be signed: judged, recorded and closed in one transaction."""

from __future__ import annotations

from jobs import log
from shopmath.checks import BadInput
from stations.base.bound import Bound
from stations.base.recording import frozen
from stations.base.verdict import plain_values
from stations.seen import Moved


class BoundStation(Bound):
    """What the rooms extend."""

    def sign(self) -> None:
        if self.may_sign() or not self.entry:
            raise BadInput("sign", self.may_sign())
        if self.seen is not None and self.seen != self.shows:
            raise Moved(self.seen.revision)
        plate = self.verdict()
        call = log.Call(plate.state, plate.words, plate.line or plate.move, plate.code, plain_values(plate.values))
        self.entry = log.sign(self.entry, self.person, call, self.result(), self.findings(), frozen(self, plate), at=self.now)
