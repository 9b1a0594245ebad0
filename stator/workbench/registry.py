"""All stations in the order of work, and the work plans of job types.

A new station is a folder and a line here.
"""

from __future__ import annotations

from django.utils.translation import gettext_lazy

from stator.jobs.models import Job, RunStation
from stator.stations.balance_flywheel.station import STATION as BALANCE
from stator.stations.center_crank.station import STATION as CENTRE
from stator.stations.close_crankcase.station import STATION as CLOSE
from stator.stations.disassemble_halves.station import STATION as STRIP
from stator.stations.framework import StationDefinition
from stator.stations.framework.messages import Sentence
from stator.stations.framework.next_step import render_next_step
from stator.stations.framework.registry import registry
from stator.stations.hand_over_engine.station import STATION as HAND_OVER
from stator.stations.inspect_parts.station import STATION as INSPECT
from stator.stations.install_crank.station import STATION as CRANK_IN
from stator.stations.install_flywheel.station import STATION as FLYWHEEL_ON
from stator.stations.install_seals.station import STATION as SEALS
from stator.stations.install_with_heat.station import STATION as HEAT_AND_DROP
from stator.stations.install_without_heat.station import STATION as FIT_COLD
from stator.stations.press_apart.station import STATION as APART
from stator.stations.press_together.station import STATION as TOGETHER
from stator.stations.remove_bearings.station import STATION as BEARINGS_OUT
from stator.stations.remove_flywheel.station import STATION as FLYWHEEL_OFF
from stator.stations.set_end_play.station import STATION as END_FLOAT
from stator.stations.split_crankcase.station import STATION as SPLIT
from stator.stations.true_crank.station import STATION as TRUE
from stator.stations.work_notes.station import by_hand

BOOK_IN = "book-in"
STATIONS: tuple[StationDefinition, ...] = (
    by_hand(BOOK_IN, gettext_lazy("Book in")),
    FLYWHEEL_OFF,
    SPLIT,
    STRIP,
    BEARINGS_OUT,
    INSPECT,
    APART,
    TOGETHER,
    TRUE,
    HEAT_AND_DROP,
    FIT_COLD,
    SEALS,
    END_FLOAT,
    CRANK_IN,
    CLOSE,
    CENTRE,
    BALANCE,
    FLYWHEEL_ON,
    HAND_OVER,
)
registry.register(*STATIONS)
STATION_BY_KEY = registry.by_key


def next_of(stage: RunStation) -> str:
    """Return the next step at a station as text."""
    station = STATION_BY_KEY.get(stage.key)
    return (render_next_step(station, stage.next_said) if station else "") or stage.next_move


WORK_ORDERS: dict[str, tuple[Sentence, list[str]]] = {  # a new station is in no job until it is added to one of these lists
    "bottom-end": (
        gettext_lazy("Bottom end with crank rebuild"),
        [
            *(BOOK_IN, "flywheel-off", "split", "strip", "bearings-out", "inspect", "apart", "together", "true"),
            *("heat-and-drop", "seals", "end-float", "crank-in", "close", "centre", "flywheel-on", "hand-over"),
        ],
    ),
    "bearings": (
        gettext_lazy("Bearings and seals only"),
        [
            *(BOOK_IN, "flywheel-off", "split", "strip", "bearings-out", "inspect"),
            *("heat-and-drop", "seals", "end-float", "crank-in", "close", "centre", "flywheel-on", "hand-over"),
        ],
    ),
    "heat": (gettext_lazy("One bearing, cases already bare"), [BOOK_IN, "heat-and-drop", "seals", "hand-over"]),
    "cold": (gettext_lazy("One bearing or bush, fitted cold"), [BOOK_IN, "fit-cold", "seals", "hand-over"]),
    "top-end": (gettext_lazy("Top end: rocker shafts and bearings"), [BOOK_IN, "bearings-out", "heat-and-drop", "hand-over"]),
    "crank": (gettext_lazy("Crank truing only"), [BOOK_IN, "inspect", "apart", "together", "true", "hand-over"]),
    "flywheel": (gettext_lazy("Flywheel only"), [BOOK_IN, "flywheel-off", "balance", "flywheel-on", "hand-over"]),
}


def create_work_plan(job: Job) -> None:
    """Create the stations of a job from its job type; check-in is done when the job is created."""
    _, keys = WORK_ORDERS[job.work_order]
    RunStation.objects.bulk_create(
        RunStation(job=job, order=order, key=key, state=RunStation.State.DONE if key == BOOK_IN else RunStation.State.AHEAD)
        for order, key in enumerate(keys)
    )


def current_station(job: Job) -> RunStation | None:
    """Return the station in progress, otherwise the next one ahead."""
    run = list(job.run.all())
    for state in (RunStation.State.NOW, RunStation.State.WAITS, RunStation.State.AHEAD):
        found = next((stage for stage in run if stage.state == state), None)
        if found:
            return found
    return run[-1] if run else None
