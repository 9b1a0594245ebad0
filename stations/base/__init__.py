"""What all stations share: the definition of a station, what binds it to a job, its pieces and its sentences."""

from jobs.facts import Finding
from stations.base import asking, plausible
from stations.base.binding import bind
from stations.base.canvas import Canvas
from stations.base.needs import Need
from stations.base.room import Room
from stations.base.station import Contradiction, Given, Result, Station
from stations.base.verdict import Said, State, Verdict, Way, of_call
from stations.base.work import BoundStation
from stations.pieces import COMMANDS, WORD, Action, Caution, Method, Option, Question, Row, SaidVerdict, Scale, Told, Trace
from stations.seen import Moved, Seen

__all__ = [
    "COMMANDS",
    "WORD",
    "Action",
    "BoundStation",
    "Canvas",
    "Caution",
    "Contradiction",
    "Finding",
    "Given",
    "Method",
    "Moved",
    "Need",
    "Option",
    "Question",
    "Result",
    "Room",
    "Row",
    "Said",
    "SaidVerdict",
    "Scale",
    "Seen",
    "State",
    "Station",
    "Told",
    "Trace",
    "Verdict",
    "Way",
    "asking",
    "bind",
    "of_call",
    "plausible",
]
