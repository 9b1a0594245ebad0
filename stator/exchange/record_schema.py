"""The record of a signed entry in a file."""

from __future__ import annotations

from typing import Annotated, Any

from pydantic import AfterValidator, Field

from stator.exchange.field_types import (
    ANY_TEXT,
    Attempt,
    Count,
    Number,
    Part,
    State,
    Text20,
    Text40,
    Text60,
    Text80,
    Text100,
    Text150,
    Text200,
    Text300,
    Text1000,
    said_time,
)

Text2000 = Annotated[str, ANY_TEXT, Field(max_length=2000)]


class RecordedScale(Part):
    value: Number
    doubt: Number
    low: Number | None
    high: Number | None
    unit: Text20
    digits: Annotated[int, Field(ge=0, le=9)] = 3


class RecordedCall(Part):
    state: State
    code: Text40
    values: Annotated[dict[str, Any], Field(max_length=60)]
    headline: Text200
    reason: Text2000
    next: Text2000
    detail: Text2000
    assumed: Annotated[list[Text300], Field(max_length=40)]
    scale: RecordedScale | None


class RecordedNumber(Part):
    """A value and its limits in one unit."""

    value: Number
    doubt: Number
    low: Number | None
    high: Number | None
    found: Number | None = None


class RecordedLine(Part):
    """A value in the job report."""

    key: Text200
    words: Text300
    part: Text100
    value: Text100
    left: Text100
    limits: Text100
    source: Text300
    state: State
    gauge: Text100
    by: Text150
    at: Text40
    slot: Text200
    code: Text40
    kind: Text40
    step: Number | None = None
    number: RecordedNumber | None = None


class RecordedReading(Part):
    words: Text300
    shown: Text1000
    typed: Text1000
    note: Text300
    gauge: Text100
    by: Text150
    at: Annotated[str, AfterValidator(said_time)]
    attempt: Attempt
    kind: Text40 = ""
    value: Number | None = None
    step: Number | None = None


class RecordedSource(Part):
    label: Text300
    value: Text300
    source: Text1000
    estimated: bool


class RecordedWords(Part):
    """A method chosen, or a line that was ticked."""

    words: Text1000
    chosen: Text300 = ""
    by: Text150 = ""
    at: Text40 = ""


class Otherwise(Part):
    what: Text200
    found: Text200
    card: Text200
    where: Text200


class RecordedNames(Part):
    """The people and the gauge of a reading."""

    by: Text150 = ""
    gauge: Text100 = ""
    withdrawn_by: Text150 = ""


class EntryNames(Part):
    """Names in an entry, in the order of its readings and actions."""

    opened_by: Text150 = ""
    signed_by: Text150 = ""
    readings: list[RecordedNames] = Field(default_factory=list, max_length=5000)
    moves: list[Text150] = Field(default_factory=list, max_length=2000)


class RecordContent(Part):
    """A record as it was signed: complete, because pages compute nothing instead.

    Unknown keys are ignored.
    """

    version: Annotated[int, Field(ge=3, le=3)]
    core_version: Text20
    units: Text20
    station: Text60
    part: Text80
    by: Text300
    call: RecordedCall
    figures: Annotated[list[RecordedLine], Field(max_length=2000)]
    readings: Annotated[list[RecordedReading], Field(max_length=5000)]
    sources: Annotated[list[RecordedSource], Field(max_length=300)]
    checks: Annotated[list[RecordedWords], Field(max_length=100)]
    methods: Annotated[list[RecordedWords], Field(max_length=100)]
    otherwise: Annotated[list[Otherwise], Field(max_length=200)]
    decisions: Annotated[list[Text1000], Field(max_length=200)]
    unmeasured: Count
    unmeasured_what: Annotated[list[Text300], Field(max_length=500)]
    facts: Annotated[list[dict[str, Any]], Field(max_length=2000)]
    equipment: Annotated[list[dict[str, Any]], Field(max_length=200)]
    photos: Annotated[list[Text80], Field(max_length=300)]
    names: EntryNames


class RecordIn(Part):
    content: RecordContent
    drawing: Annotated[str, ANY_TEXT, Field(max_length=2_000_000)] = ""
