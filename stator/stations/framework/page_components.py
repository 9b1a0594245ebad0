"""The components of a station's page: questions, verdicts, warnings, methods, actions and sources of numbers."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field, replace
from typing import Any

from django.utils.translation import gettext_lazy

from shopmath.quantity import UNITS
from stator.engines.fact_keys import FactKey
from stator.jobs.facts import Fact

MOST_PIECES = 999
WORD = "word"  # the ask of a strip that waits for a command alone

COMMANDS = {
    "back": gettext_lazy("to the reading before"),
    "sheet": gettext_lazy("all readings"),
    "skip": gettext_lazy("skips what is asked; skip all also what comes right behind it"),
    "timer": gettext_lazy("sound and flash of the timers"),
    "log": gettext_lazy("the job's log"),
    "undo": gettext_lazy("withdraw the last reading"),
    "?": gettext_lazy("these keys"),
}


@dataclass(frozen=True)
class Option:
    """One of a few answers, with what choosing it means."""

    key: str
    words: str
    hint: str = ""


@dataclass(frozen=True)
class Question:
    """A question for one reading: what to measure, where, and of what kind.

    A `quiet` question is skipped in the sequence but can be opened. `gauges` are the kinds of gauge that measure it. `times` readings at
    one place are averaged. `peak` takes the highest value of a gauge. `enter` is the answer that Enter alone gives, for users with full
    hands.
    """

    key: str
    text: str
    where: str = ""
    kind: str = "length"
    unit: str = "mm"  # in which a bare number is taken
    unit_name: str = ""  # how it is told to readers, where that is another word
    optional: bool = False
    skip_means: str = ""
    options: tuple[Option, ...] = ()
    repeats: bool = False
    quiet: bool = False
    resolution: float = 0.001
    example: str = ""
    gauges: tuple[str, ...] = ()
    times: int = 1
    peak: bool = False
    enter: str = ""  # the answer that Enter alone gives
    limits: tuple[float, float] | None = None  # closer than the property's own, where the part says what can be believed
    refusal: str = ""  # what is said outside those, where the usual sentence says too little
    check: Callable[[float], None] | None = field(default=None, compare=False)  # refuses a number that cannot be beside another
    reads: Callable[[str], object] | None = field(default=None, compare=False)  # refuses words that cannot be understood
    slot: FactKey | None = None  # where the answer belongs, for a station whose readings have addresses
    measure_again: bool = False  # measured or answered again, whatever another entry knows of it
    expects: float | None = None  # what it should come to, in the kind's own unit: far from it, it is asked once whether it was meant
    skip_means_done: bool = False  # left out, it was done as the question says, and not left unmeasured
    hide_until_answered: bool = False  # no line of the table until it is answered
    offer: Fact | None = None  # what another entry knows already: Enter alone uses it

    @property
    def is_words(self) -> bool:
        return self.kind == "words"

    @property
    def unit_shown(self) -> str:
        """Return the unit that is shown next to the field."""
        return self.unit_name or self.unit

    def asked_in(self, unit: str) -> Question:
        """The same question as a page asked it, whose reader may have turned to other units since."""
        return replace(self, unit=unit) if unit.lower() in UNITS.get(self.kind, {}) else self


@dataclass(frozen=True)
class Scale:
    """The margin as a small scale: value with its uncertainty against the limits, all in one unit."""

    value: float
    uncertainty: float
    low: float | None
    high: float | None
    unit: str
    digits: int = 3

    def plain(self) -> dict[str, Any]:
        """Return the scale for a record. Records call the uncertainty `doubt` since their first version."""
        saved = {"value": self.value, "doubt": self.uncertainty, "low": self.low, "high": self.high}
        return {**saved, "unit": self.unit, "digits": self.digits}

    @classmethod
    def recorded(cls, kept: Mapping[str, Any]) -> Scale:
        """As a record has it."""
        return cls(kept["value"], kept["doubt"], kept["low"], kept["high"], kept["unit"], kept.get("digits", 3))


@dataclass(frozen=True)
class RenderedAlternative:
    """An alternative as a button: it leads to a question, a choice or a page, or applies one option of a choice."""

    words: str
    address: str = ""
    choice: str = ""
    option: str = ""


@dataclass(frozen=True)
class RenderedVerdict:
    """A verdict as text, as the page shows it."""

    state: str
    headline: str
    reason: str
    next_step: str
    detail: str = ""
    scale: Scale | None = None
    next_step_without_times: str = ""  # the move as the bench page says it, where times would go stale
    assumed: tuple[str, ...] = ()  # what it rests on that nobody measured, in words
    code: str = ""  # the headline's, where the station has codes
    values: Mapping[str, Any] = field(default_factory=dict, hash=False)


@dataclass(frozen=True)
class SafetyWarning:
    """A hazard with its consequence and protection. A `required` one must be ticked before the step opens."""

    key: str
    words: str
    required: bool = False


@dataclass(frozen=True)
class Source:
    """The source of a number on the page."""

    label: str
    value: str
    source: str
    estimated: bool = False


@dataclass(frozen=True)
class ReportResult:
    """The result of readings for the job report: as found, as left and limits."""

    words: str
    found: str
    left: str = ""
    part: str = ""
    limits: str = ""
    source: str = ""
    state: str = ""
    slot: str = ""  # the same wherever the same is told
    code: str = ""
    kind: str = ""  # of quantity, where it is a number
    step: float | None = None  # that it is known to
    number: Mapping[str, float | None] | None = None  # value, uncertainty, low, high and what was found, all in the core's unit


@dataclass(frozen=True)
class Method:
    """A choice between methods, with the chosen one."""

    key: str
    words: str
    options: tuple[Option, ...]
    chosen: str

    @property
    def chosen_words(self) -> str:
        return next((option.words for option in self.options if option.key == self.chosen), self.chosen)


@dataclass(frozen=True)
class Action:
    """An action besides measuring. `word` is the command that can be typed for it."""

    key: str
    words: str
    word: str
    main: bool = False
    refused: str = ""
    do: Callable[[Any], None] | None = None  # what it writes, given the bound station


@dataclass(frozen=True)
class ReadingRow:
    """A line of the readings sheet."""

    question: Question
    reading: Any  # a Reading, or as the record has it; None where none was taken
    shown: str
    note: str = ""
