"""Small words for templates: durations, temperatures, the shapes of states."""

from __future__ import annotations

import math
import uuid
from datetime import datetime
from functools import cache
from typing import Any, Protocol

from django import template
from django.utils.html import escape, format_html, json_script
from django.utils.safestring import SafeString, mark_safe
from django.utils.translation import get_language, ngettext
from django.utils.translation import gettext as _

from shopmath.amounts import Amount
from shopmath.quantity import decimals
from stator.ui.number_format import bare, exact, figure, listed, plain, show, step_of, to_step, trade
from stator.ui.number_format import size as in_reader_unit
from stator.ui.script_messages import PAGE_WORDS
from stator.ui.table_texts import from_table
from stator.ui.times import day, day_time, long_day_time, short_day, time_of_day, to_the_second

register = template.Library()

_MARKS = {
    "ahead": '<circle cx="8" cy="8" r="3" class="hollow"/>',
    "now": '<path d="M4 2l9 6-9 6z" class="solid"/>',
    "done": '<path d="M2 8h12" class="bar"/>',
    "skipped": '<path d="M2 8h3M7 8h2M11 8h3" class="bar"/>',
    "waits": '<path d="M4 2h8L4 14h8z" class="hollow"/>',
    "in": '<path d="M2 8h12" class="bar"/>',
    "too_close": '<path d="M2 5h4M2 11h4M9 5h4M9 11h4" class="bar"/>',
    "out": '<rect x="3" y="3" width="10" height="10" class="hollow"/>',
    "stop": '<path d="M3 3l10 10M13 3L3 13" class="bar"/>',
}


@register.simple_tag
def act_key() -> SafeString:
    """The key under which a form's act is written down, so that it is done once however often it is sent."""
    return format_html('<input type="hidden" name="client_key" value="{}">', uuid.uuid4().hex)


@register.simple_tag
def page_words() -> SafeString:
    """Return the messages of the scripts in the reader's language."""
    return _page_words(get_language())


@cache
def _page_words(language: str | None) -> SafeString:
    return json_script({name: str(said) for name, said in PAGE_WORDS.items()}, "page-words")


@register.simple_tag
def mark(state: str) -> SafeString:
    """Return the shape of a state, which can be distinguished without color."""
    inner = _MARKS.get(state, _MARKS["ahead"])
    return mark_safe(f'<svg class="mark" viewBox="0 0 16 16" aria-hidden="true">{inner}</svg>')  # noqa: S308  from the table above


@register.filter
def clock(seconds: float | None) -> str:
    """Return seconds as 6:52 or 1:04:10, or as words if unknown."""
    if seconds is None or math.isnan(seconds):
        return _("unknown")
    if math.isinf(seconds):
        return _("no end")
    whole = round(abs(seconds))
    hours, rest = divmod(whole, 3600)
    minutes, left = divmod(rest, 60)
    text = f"{hours}:{minutes:02d}:{left:02d}" if hours else f"{minutes}:{left:02d}"
    return f"−{text}" if seconds < 0 else text


class _Lies(Protocol):
    at: float
    uncertainty: float
    limits: tuple[float, ...]


@register.simple_tag
def limit_position(lies: _Lies) -> SafeString:
    """Return a small drawing of the position of a value between its limits, for a line of a table."""

    def x(share: float) -> float:
        return round(150 * min(max(share, 0.0), 1.0), 1)

    low, high = x(lies.at - lies.uncertainty), x(lies.at + lies.uncertainty)
    parts = [
        '<line x1="0" y1="9" x2="150" y2="9"/>',
        f'<rect class="uncertainty" x="{low}" y="5" width="{round(high - low, 1)}" height="8"/>',
    ]
    parts += [f'<line class="limit" x1="{x(end)}" y1="2" x2="{x(end)}" y2="16"/>' for end in lies.limits]
    parts.append(f'<line class="at" x1="{x(lies.at)}" y1="3" x2="{x(lies.at)}" y2="15"/>')
    return mark_safe(f'<svg class="lies" viewBox="0 0 150 18" aria-hidden="true">{"".join(parts)}</svg>')  # noqa: S308  numbers only


class _Scale(Protocol):
    value: float
    uncertainty: float
    low: float | None
    high: float | None
    unit: str
    digits: int


KIND_OF = {"mm": "length", "N·m": "torque", "kN": "force", "°": "angle", "g·mm": "unbalance", "°C": "temperature"}  # of a scale's unit
PER_CORE_UNIT = {"kN": 1000.0}
LETTER = 7.3  # width of one on a scale, px


def _value_amount(scale: _Scale, kind: str) -> Amount:
    """Return the value of a scale with its uncertainty, in the core's unit."""
    per = PER_CORE_UNIT.get(scale.unit, 1.0)
    return Amount(scale.value * per, kind, 10.0**-scale.digits * per, scale.uncertainty * per)


def _value_label(scale: _Scale, kind: str) -> str:
    """Return the value of a scale rounded to its uncertainty, in the reader's unit but without it; unchanged in a unit of a press."""
    if kind:
        return bare(_value_amount(scale, kind))
    step = max(10.0**-scale.digits, step_of(scale.uncertainty) if scale.uncertainty else 0.0)
    return figure(to_step(scale.value, step), decimals(min(step, 1.0)))


def _limit_label(limit: float, scale: _Scale, kind: str) -> str:
    """Return a limit of a scale in the reader's unit but without it: a length with the digits of its gauge, others with those they need."""
    if kind == "length":
        return bare(Amount(limit, kind, 10.0**-scale.digits))
    text = plain(round(limit, scale.digits))
    per = PER_CORE_UNIT.get(scale.unit, 1.0)
    return bare(Amount(limit * per, kind, 10.0 ** -len(text.partition(".")[2]) * per)) if kind else text


def _one_limit(limit: str, highest: bool) -> str:
    return _("{limit} at most").format(limit=limit) if highest else _("{limit} at least").format(limit=limit)


@register.simple_tag
def margin_scale(scale: _Scale) -> SafeString:
    """The margin drawn: limits as posts, the value as a line, its uncertainty as a bar."""
    limits = [limit for limit in (scale.low, scale.high) if limit is not None]
    zero = [] if len(limits) == 2 else [0.0]  # between two limits only what lies near them tells
    values = [scale.value - scale.uncertainty, scale.value + scale.uncertainty, *limits, *zero]
    low, high = min(values), max(values)
    pad = 0.08 * (high - low or 1.0)
    low, high = low - pad, high + pad

    def x(value: float) -> float:
        return 4 + 292 * (value - low) / (high - low)

    kind = KIND_OF.get(scale.unit, "")
    value_words, limit_words = _value_label(scale, kind), [_limit_label(limit, scale, kind) for limit in limits]
    words = show(_value_amount(scale, kind)) if kind else f"{value_words} {scale.unit}"
    parts = ['<line x1="4" y1="22" x2="296" y2="22"/>']
    parts += [f'<line class="limit" x1="{x(limit):.1f}" y1="8" x2="{x(limit):.1f}" y2="34"/>' for limit in limits]
    left, right = x(scale.value - scale.uncertainty), x(scale.value + scale.uncertainty)
    parts.append(f'<line class="uncertainty" x1="{left:.1f}" y1="22" x2="{right:.1f}" y2="22"/>')
    parts.append(f'<line class="at" x1="{x(scale.value):.1f}" y1="11" x2="{x(scale.value):.1f}" y2="33"/>')
    label_x = x(scale.value)
    if len(limits) == 2:
        for limit, text, anchor in zip(limits, limit_words, ("start", "end"), strict=True):
            parts.append(f'<text class="label" x="{x(limit):.1f}" y="46" text-anchor="{anchor}">{text}</text>')
    else:
        limit_x = x(limits[0]) if limits else 0.0
        text = _one_limit(limit_words[0], scale.low is None) if limits else ""
        wide, own = LETTER * len(text), LETTER * len(value_words)
        anchor = "start" if limit_x + wide <= 298 else "end"
        first = limit_x if anchor == "start" else limit_x - wide
        parts.append(f'<text class="label" x="{limit_x:.1f}" y="46" text-anchor="{anchor}">{escape(text)}</text>')
        text_x = min(label_x, 298 - own)
        if text_x > first + wide + 8 or text_x + own < first - 8:
            parts.append(f'<text class="label" x="{text_x:.1f}" y="46" text-anchor="start">{value_words}</text>')
    title = escape(_("{value}; limit {limits}").format(value=words, limits=listed(limit_words)))
    return mark_safe(f'<svg class="scale" viewBox="0 0 300 50" role="img" aria-label="{title}">{"".join(parts)}</svg>')  # noqa: S308  numbers only


@register.filter
def epoch(moment: datetime | None) -> str:
    """Milliseconds since 1970 for the page's clocks."""
    return str(int(moment.timestamp() * 1000)) if moment else ""


def _moment(say: Any) -> Any:
    """A filter for a time that may be missing."""
    return lambda moment: say(moment) if moment else ""


for _say in (day, short_day, day_time, long_day_time, time_of_day, to_the_second):
    register.filter(_say.__name__, _moment(_say))


@register.filter
def ago(moment: datetime, now: datetime) -> str:
    """Return how long ago, in the coarsest words that help."""
    seconds = (now - moment).total_seconds()
    if seconds < 45:
        return _("just now")
    if seconds < 5400:
        return _("{count} min ago").format(count=round(seconds / 60))
    if seconds < 129600:
        return _("{count} h ago").format(count=round(seconds / 3600))
    days = round(seconds / 86400)
    return ngettext("{count} day ago", "{count} days ago", days).format(count=days)


@register.filter
def as_length(value_mm: float | None) -> str:
    """A length that somebody wrote down, in the reader's unit; a dash where there is none."""
    return "–" if value_mm is None else in_reader_unit(value_mm)


@register.filter
def mm_name(value_mm: float | None) -> str:
    """Return a size by its trade name, which is metric for every reader: of a bearing, a seal, a thread."""
    return "–" if value_mm is None else trade(value_mm)


@register.filter
def as_quantity(value: float | None, kind: str) -> str:
    """A number of a kind that somebody wrote down, in the reader's unit."""
    return "–" if value is None else show(exact(value, kind))


@register.filter
def table_text(text: str) -> str:
    """A text out of the core's tables in the reader's language."""
    return from_table(str(text))


@register.filter
def get(mapping: object, key: str) -> object:
    """A value by a key that is itself a variable; empty when there is no mapping."""
    return mapping.get(key, "") if isinstance(mapping, dict) else ""
