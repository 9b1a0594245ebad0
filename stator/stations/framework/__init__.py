"""The framework of the stations: their definition, the bound station, and the parts of its page."""

from stator.jobs.facts import Finding
from stator.stations.framework import plausibility, question_factory
from stator.stations.framework.binding import bind
from stator.stations.framework.bound_station import BoundStation
from stator.stations.framework.canvas import Canvas
from stator.stations.framework.definition import Contradiction, DerivedValue, StationDefinition, StationInput
from stator.stations.framework.page_components import (
    COMMANDS,
    WORD,
    Action,
    Method,
    Option,
    Question,
    ReadingRow,
    RenderedVerdict,
    ReportResult,
    SafetyWarning,
    Scale,
    Source,
)
from stator.stations.framework.page_state import PageOutdated, PageState
from stator.stations.framework.prerequisites import Prerequisite
from stator.stations.framework.verdict import Alternative, MessageRef, State, Verdict, from_conformity

__all__ = [
    "COMMANDS",
    "WORD",
    "Action",
    "Alternative",
    "BoundStation",
    "Canvas",
    "Contradiction",
    "DerivedValue",
    "Finding",
    "MessageRef",
    "Method",
    "Option",
    "PageOutdated",
    "PageState",
    "Prerequisite",
    "Question",
    "ReadingRow",
    "RenderedVerdict",
    "ReportResult",
    "SafetyWarning",
    "Scale",
    "Source",
    "State",
    "StationDefinition",
    "StationInput",
    "Verdict",
    "bind",
    "from_conformity",
    "plausibility",
    "question_factory",
]
