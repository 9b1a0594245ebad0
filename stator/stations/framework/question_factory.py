"""Questions, sources and check lists out of a station's tables of sentences."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from types import ModuleType
from typing import Any

from shopmath.amounts import Amount
from shopmath.quantity import parse
from shopmath.validation import BadInput
from stator.engines.fact_keys import FactKey
from stator.engines.properties import Property
from stator.engines.typical_ranges import USUAL
from stator.stations.framework.messages import AT_END, OptionRow, Sentence, format_message, render_message
from stator.stations.framework.page_components import Method, Option, Question, SafetyWarning, Source
from stator.ui.number_format import band, format_for, plain, show
from stator.ui.units import METRIC, Unit, question_unit

UNITLESS = ("words", "count")


def options(rows: Iterable[OptionRow], values: Mapping[str, Any] | None = None) -> tuple[Option, ...]:
    """Answers to choose from: key, words, and what choosing it means."""
    return tuple(Option(row[0], *(format_message(said, values or {}) for said in row[1:])) for row in rows)


def question(words: ModuleType, slot: FactKey, values: Mapping[str, Any] | None = None, **more: Any) -> Question:
    """Return the question for a fact key, with the station's messages.

    `text`, `where`, `choices` and `unit` replace the entries of the tables. Everything else is a field of the question.
    """
    what = slot.what
    filled = {"part": slot.part.name, **(values or {})}
    text = more.pop("text", None) or words.QUESTION[what]
    where = more.pop("where", None)
    where = words.WHERE.get(what, "") if where is None else where
    rows = more.pop("choices", None)
    rows = words.OPTIONS.get(what, ()) if rows is None else rows
    more.setdefault("skip_means", format_message(words.SKIP.get(what, ""), filled))
    kind = slot.about.kind
    if kind not in UNITLESS and "unit" not in more:
        unit = question_unit(kind, USUAL[what][1] if what in USUAL else None)
        more |= {"unit": unit.typed, "unit_name": unit.name}
        if "example" in more and unit != METRIC[kind]:
            more["example"] = _converted(more["example"], kind, unit, more.get("resolution", 0.001))
    else:
        more.setdefault("unit", "")
    return Question(
        slot.key, format_message(text, filled), format_message(where, filled), kind, slot=slot, options=options(rows, filled), **more
    )


def _converted(example: str, kind: str, unit: Unit, resolution: float) -> str:
    """Return an example in the reader's unit; unchanged if it is not a number."""
    try:
        value = parse(example, kind, METRIC[kind].typed).canonical
    except BadInput:
        return example
    return format_for(value, kind, unit, resolution)


def method(words: ModuleType, key: str, chosen: str, rows: Iterable[OptionRow] | None = None) -> Method:
    """A choice between ways of working."""
    label, usual = words.METHOD[key]
    return Method(key, str(label), options(usual if rows is None else rows), chosen)


def source(
    words: ModuleType,
    code: str,
    value: str | Sentence | Amount | tuple[Amount, Amount],
    values: Mapping[str, Any] | None = None,
    *,
    estimated: bool = False,
) -> Source:
    """Return the source of a number on the page. Two amounts are a range.

    Raises `TypeError` for an estimate that is not rounded to its uncertainty.
    """
    ends = (value,) if isinstance(value, Amount) else value if isinstance(value, tuple) else ()
    if estimated and not all(end.is_rounded for end in ends):
        raise TypeError(f"The estimate {code!r} has no uncertainty: see shopmath.amounts.estimate, rough and assumed.")
    text = band(*ends) if isinstance(value, tuple) else show(value) if isinstance(value, Amount) else str(value)
    label, said = words.SOURCE[code]
    return Source(format_message(label, values or {}), text, format_message(said, values or {}), estimated)


def checks(words: ModuleType, *keys: str) -> tuple[SafetyWarning, ...]:
    """Lines of the check list; all of them where none is named."""
    return tuple(SafetyWarning(key, str(said), required) for key, (said, required) in words.CHECKS.items() if not keys or key in keys)


def warnings(words: ModuleType, *keys: str) -> tuple[SafetyWarning, ...]:
    """Warnings; all of them where none is named."""
    return tuple(SafetyWarning(key, str(words.WARNINGS[key])) for key in keys or words.WARNINGS)


def label(words: ModuleType, slot: FactKey, code: str = "", side: str = "") -> str:
    """Return the label of a reading in a table or a link, by its own code if it is more than one reading.

    `side` is the engine's name for the end at which it was taken.
    """
    at = slot.at
    angle = "" if at.angle_deg is None else plain(at.angle_deg)
    values = {"part": slot.part.name, "at": side or at.end, "stage": at.stage, "clock": at.clock, "angle": angle, "depth": at.depth}
    apart = (f"{slot.what} {at.depth}", f"{slot.what} {AT_END}" if at.end else "", slot.what)  # the narrowest that there is a name for
    named = code or next((each for each in apart if each in words.LABEL), slot.what)
    return render_message(words.LABEL, named, values, slot.part.name)


def answer(words: ModuleType, what: Property, key: str) -> str:
    """Return the text of an option by its key."""
    return next((str(row[1]) for row in words.OPTIONS.get(what, ()) if row[0] == key), key)
