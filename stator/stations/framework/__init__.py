"""What all stations share: the definition of a station, what binds it to a job, its pieces and its sentences."""

from stator.jobs.facts import Finding
from stator.stations.framework import plausibility, question_factory
from stator.stations.framework.binding import bind
from stator.stations.framework.canvas import Canvas
from stator.stations.framework.definition import Contradiction, Given, Result, Station
from stator.stations.framework.page_components import (
    COMMANDS,
    WORD,
    Action,
    Caution,
    Method,
    Option,
    Question,
    Row,
    SaidVerdict,
    Scale,
    Told,
    Trace,
)
from stator.stations.framework.page_state import Moved, Seen
from stator.stations.framework.prerequisites import Need
from stator.stations.framework.room import Room
from stator.stations.framework.verdict import Said, State, Verdict, Way, of_call
from stator.stations.framework.work import BoundStation

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
    "bind",
    "of_call",
    "plausibility",
    "question_factory",
]
