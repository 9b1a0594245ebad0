"""A job's file as typed models: the reader of `stator-job`. docs/data-formats.md describes the format."""

from __future__ import annotations

from typing import Annotated, Any, Literal, Self

from pydantic import ConfigDict, Field, ValidationError, model_validator

from stator.engines.parts import Kind
from stator.engines.properties import Property
from stator.exchange.field_types import (
    Attempt,
    Count,
    MaybeDate,
    MaybeTime,
    Number,
    Part,
    Share,
    State,
    Text20,
    Text30,
    Text40,
    Text60,
    Text80,
    Text100,
    Text120,
    Text150,
    Text160,
    Text200,
    Text300,
    Text1000,
    Time,
    one_of,
)
from stator.exchange.record_schema import RecordIn
from stator.jobs.models import RunStation, Timer
from stator.shop.models import Gauge
from stator.workbench.registry import STATION_BY_KEY, WORK_ORDERS

MOST_READINGS, MOST_ENTRIES, MOST_ROWS = 1000, 300, 10_000  # of an entry, of a job, of all entries of a job

Station = Annotated[str, one_of(tuple(STATION_BY_KEY))]


class JobHead(Part):
    number: Annotated[int, Field(ge=1, le=99_999_999)]
    complaint: Text200 = ""
    comes_back: Text200 = ""
    customer: Text80 = ""
    registration: Text30 = ""
    frame_number: Text40 = ""
    engine_number: Text40 = ""
    ended_because: Text300 = ""
    work_order: Annotated[str, one_of(tuple(WORK_ORDERS))]
    booked_in_at: Time
    booked_in_by: Text150 = ""
    gone_at: MaybeTime = None


class Stage(Part):
    station: Station
    state: Annotated[str, one_of(RunStation.State.values)]
    call_state: State = ""
    waits_for: Text100 = ""
    because: Text200 = ""


class Call(Part):
    state: State
    words: Text80 = ""
    reason: Text300 = ""
    code: Text40 = ""
    values: dict[str, Any] = Field(default_factory=dict, max_length=60)


Uid = Annotated[str, Field(pattern=r"^[0-9a-z-]{1,32}$")]


class PartIn(Part):
    """A part of the card, by kind and identity."""

    kind: Annotated[str, one_of(Kind.values)]
    uid: Uid
    name: Text80 = ""


class FactKeyInput(Part):
    """Address of a row: part, property and place."""

    part: PartIn | None = None
    property: Annotated[str, one_of(("", *Property))] = ""
    end: Text20 = ""
    angle_deg: Number | None = None
    clock: Annotated[int, Field(ge=1, le=12)] | None = None
    depth: Text20 = ""
    stage: Annotated[int, Field(ge=0, le=99)] | None = None


class MoveIn(FactKeyInput):
    kind: Text20
    attempt: Attempt = 1
    amount: Number | None = None
    text: Text200 = ""
    detail: dict[str, Any] = Field(default_factory=dict, max_length=20)
    at: MaybeTime = None
    by: Text150 = ""


class DerivedIn(FactKeyInput):
    """A derived fact of a signed entry."""

    value: Number | None = None
    text: Text200 = ""
    uncertainty: Number | None = None
    resolution: Number | None = None
    assumed: bool = False


class ReadingIn(FactKeyInput):
    ask: Text120
    asked: Text300 = ""
    attempt: Attempt = 1
    typed: Text1000 = ""
    kind: Text30 = ""
    unit: Text20 = ""
    canonical: Number | None = None
    gauge: Text100 = ""
    correction: dict[str, Any] = Field(default_factory=dict, max_length=40)
    taken_at: Time
    by: Text150 = ""
    withdrawn_at: MaybeTime = None
    withdrawn_by: Text150 = ""
    came_second: bool = False
    client_key: Text80 = ""
    carried_from: Text80 = ""  # key of the reading that one act wrote into several entries


class TimerIn(Part):
    key: Text30
    attempt: Attempt = 1
    label: Text80 = ""
    said: dict[str, Any] = Field(default_factory=dict, max_length=4)
    tone: Annotated[str, one_of(Timer.Tone.values)]
    started_at: Time
    due_at: MaybeTime = None
    ended_at: MaybeTime = None


class Moves(Part):
    """Of a truing move: what it was meant for, and the twist before it."""

    kind: Text20 = ""
    twist_deg: Number | None = None


Digest64 = Annotated[str, Field(pattern=r"^([0-9a-f]{64})?$")]


class Choices(Part):
    """The choices of an entry that the program counts with; the others are words."""

    model_config = ConfigDict(strict=True, extra="allow", frozen=True)
    skipped: list[Text120] = Field(default_factory=list, max_length=500)
    times: dict[str, Annotated[int, Field(ge=1, le=99)]] = Field(default_factory=dict, max_length=500)
    turns: dict[str, Any] = Field(default_factory=dict, max_length=200)
    lapped: Count = 0


OUTCOMES = ("dropped", "tapped", "jammed", "crooked")


class HeatResult(Part):
    """The values that predictions are compared with: predicted probability and outcome."""

    confidence: Share | None = None
    outcome: Annotated[str, one_of((*OUTCOMES, ""))]


class PressResult(Part):
    force_n: Annotated[list[Number], Field(min_length=3, max_length=3)] | None = None
    peak_n: Number | None = None


class TrueResult(Part):
    moves: list[Moves] = Field(default_factory=list, max_length=200)
    twist_deg: Number | None = None


RESULTS: dict[str, type[Part]] = {"heat-and-drop": HeatResult, "apart": PressResult, "together": PressResult, "true": TrueResult}


class DigestIn(Part):
    previous: Digest64 = ""
    value: Digest64


class EntryIn(Part):
    number: Count
    station: Station
    seat: Text60 = ""
    opened_at: Time
    opened_by: Text150 = ""
    signed_at: MaybeTime = None
    signed_by: Text150 = ""
    call: Call | None = None
    attempt: Attempt = 1
    record: RecordIn | None = None
    digest: DigestIn | None = None
    choices: dict[str, Any] = Field(default_factory=dict, max_length=500)
    ticks: dict[str, dict[str, str]] = Field(default_factory=dict, max_length=200)
    result: dict[str, Any] = Field(default_factory=dict, max_length=200)
    core_version: Text20 = ""
    supersedes: Count | None = None
    readings: list[ReadingIn] = Field(default_factory=list, max_length=MOST_READINGS)
    timers: list[TimerIn] = Field(default_factory=list, max_length=200)
    moves: list[MoveIn] = Field(default_factory=list, max_length=2000)
    derived: list[DerivedIn] = Field(default_factory=list, max_length=500)

    @model_validator(mode="after")
    def _signed_completely(self) -> Self:
        """A signed entry has a verdict, a record and a digest."""
        missing = [name for name in ("call", "record", "digest") if self.signed_at and getattr(self, name) is None]
        if missing:
            raise ValueError(f"a signed entry has a {missing[0]}.")
        return self


class GaugeIn(Part):
    name: Annotated[str, Field(min_length=1, max_length=60)]
    kind: Annotated[str, one_of(Gauge.Kind.values)]
    resolution: Annotated[float, Field(gt=0, le=1e6)] = 0.01
    repeatability: Annotated[float, Field(ge=0, le=1e6)] | None = None
    emissivity: Annotated[float, Field(ge=0.05, le=1)] | None = None
    wrong_from: MaybeDate = None
    wrong_because: Text160 = ""


class EquipmentIn(Part):
    """Equipment other than gauges that the log refers to, with its data."""

    kind: Text20
    name: Annotated[str, Field(min_length=1, max_length=60)]
    figures: dict[str, Any] = Field(default_factory=dict, max_length=20)


class TrayIn(Part):
    number: Annotated[int, Field(ge=1, le=999)]
    name: Text80
    count: Annotated[int, Field(ge=1, le=999)] = 1
    where_from: Text80 = ""
    half: Annotated[str, Field(pattern=r"^[0-9a-z-]{0,32}$")] = ""  # uid of a part of the case
    way_round: Text80 = ""
    wear: Text120 = ""
    taken_at: Time
    emptied_at: MaybeTime = None


class PinIn(Part):
    number: Annotated[int, Field(ge=1, le=999)]
    x: float
    y: float
    note: Text160 = ""


class PhotoIn(Part):
    file: Text40
    caption: Text120 = ""
    taken_at: Time
    station: Text30 = ""
    part: PartIn | None = None
    digest: Digest64 = ""
    pins: list[PinIn] = Field(default_factory=list, max_length=100)


class ShopIn(Part):
    name: Text80 = ""


class JobFile(Part):
    schema_: Literal["stator-job"] = Field(alias="schema")
    version: int
    shop: ShopIn = ShopIn()
    job: JobHead
    engine_card: dict[str, Any]
    run: list[Stage] = Field(default_factory=list, max_length=60)
    entries: list[EntryIn] = Field(default_factory=list, max_length=MOST_ENTRIES)
    gauges: list[GaugeIn] = Field(default_factory=list, max_length=200)
    equipment: list[EquipmentIn] = Field(default_factory=list, max_length=200)
    tray: list[TrayIn] = Field(default_factory=list, max_length=500)
    photos: list[PhotoIn] = Field(default_factory=list, max_length=300)

    @model_validator(mode="after")
    def _not_too_many(self) -> Self:
        rows = sum(len(entry.readings) + len(entry.moves) + len(entry.derived) + len(entry.timers) for entry in self.entries)
        if rows > MOST_ROWS:
            raise ValueError(f"the entries of a job have at most {MOST_ROWS} readings, actions, facts and timers together.")
        return self


_WANTED = {
    "missing": "it is missing.",
    "float_type": "a number is wanted.",
    "finite_number": "a number is wanted.",
    "int_type": "a whole number is wanted.",
    "int_from_float": "a whole number is wanted.",
    "bool_type": "true or false is wanted.",
    "string_type": "a text is wanted.",
    "string_too_long": "a text of at most {max_length} letters is wanted.",
    "string_too_short": "a text is wanted.",
    "list_type": "a list is wanted.",
    "too_long": "at most {max_length} entries are wanted.",
    "dict_type": "an object is wanted.",
    "model_type": "an object is wanted.",
    "greater_than_equal": "{ge} or more is wanted.",
    "greater_than": "more than {gt} is wanted.",
    "less_than_equal": "at most {le} is wanted.",
}


def said_of(error: ValidationError, where: str = "") -> str:
    """The first thing wrong, with its place: `entries 1, readings 2, canonical: a number is wanted.`"""
    first = error.errors(include_url=False, include_input=False)[0]
    place = ""
    for step in first["loc"]:
        place += f" {step + 1}" if isinstance(step, int) else f", {step}"
    context = first.get("ctx", {})
    words = _WANTED.get(first["type"], "").format(**{name: context.get(name, "") for name in ("max_length", "ge", "gt", "le")})
    if first["type"] == "value_error":
        words = str(context.get("error", ""))
    return f"{where}{place.removeprefix(', ') if not where else place}: {words or 'it is not what it should be.'}"


def check_result(result: dict[str, Any]) -> None:
    """Check the values of a result that later pages compute with; raise `ValidationError`."""
    model = RESULTS.get(str(result.get("schema", "")).partition("/")[0])
    if model:
        model.model_validate(result)
