"""Small words for templates: durations, temperatures, the shapes of states."""

from __future__ import annotations

import math
import uuid
from datetime import datetime
from typing import Protocol

from django import template
from django.utils.html import format_html
from django.utils.safestring import SafeString, mark_safe

from ui.numbers import figure

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
def mark(state: str) -> SafeString:
    """The shape of a state: told apart without colour."""
    inner = _MARKS.get(state, _MARKS["ahead"])
    return mark_safe(f'<svg class="mark" viewBox="0 0 16 16" aria-hidden="true">{inner}</svg>')  # noqa: S308  from the table above


@register.filter
def clock(seconds: float | None) -> str:
    """Seconds as 6:52 or 1:04:10; a dash when nobody knows."""
    if seconds is None or math.isnan(seconds):
        return "unknown"
    if math.isinf(seconds):
        return "no end"
    whole = round(abs(seconds))
    hours, rest = divmod(whole, 3600)
    minutes, left = divmod(rest, 60)
    text = f"{hours}:{minutes:02d}:{left:02d}" if hours else f"{minutes}:{left:02d}"
    return f"−{text}" if seconds < 0 else text


class _Lies(Protocol):
    at: float
    doubt: float
    limits: tuple[float, ...]


@register.simple_tag
def lies_on(lies: _Lies) -> SafeString:
    """Where a figure lies between its limits, small enough for a line of a table."""

    def x(share: float) -> float:
        return round(150 * min(max(share, 0.0), 1.0), 1)

    low, high = x(lies.at - lies.doubt), x(lies.at + lies.doubt)
    parts = ['<line x1="0" y1="9" x2="150" y2="9"/>', f'<rect class="doubt" x="{low}" y="5" width="{round(high - low, 1)}" height="8"/>']
    parts += [f'<line class="limit" x1="{x(end)}" y1="2" x2="{x(end)}" y2="16"/>' for end in lies.limits]
    parts.append(f'<line class="at" x1="{x(lies.at)}" y1="3" x2="{x(lies.at)}" y2="15"/>')
    return mark_safe(f'<svg class="lies" viewBox="0 0 150 18" aria-hidden="true">{"".join(parts)}</svg>')  # noqa: S308  numbers only


class _Scale(Protocol):
    value: float
    doubt: float
    low: float | None
    high: float | None
    unit: str
    digits: int


@register.simple_tag
def margin_scale(scale: _Scale) -> SafeString:
    """The margin drawn: limits as posts, the value as a line, its doubt as a bar."""
    limits = [limit for limit in (scale.low, scale.high) if limit is not None]
    zero = [] if len(limits) == 2 else [0.0]  # between two limits only what lies near them tells
    values = [scale.value - scale.doubt, scale.value + scale.doubt, *limits, *zero]
    low, high = min(values), max(values)
    pad = 0.08 * (high - low or 1.0)
    low, high = low - pad, high + pad

    def x(value: float) -> float:
        return 4 + 292 * (value - low) / (high - low)

    words = f"{figure(scale.value, scale.digits)} ± {scale.doubt:.{scale.digits}f} {scale.unit}"
    limit_words = " and ".join(figure(limit, scale.digits) for limit in limits)
    parts = ['<line x1="4" y1="22" x2="296" y2="22"/>']
    parts += [f'<line class="limit" x1="{x(limit):.1f}" y1="8" x2="{x(limit):.1f}" y2="34"/>' for limit in limits]
    parts.append(f'<line class="doubt" x1="{x(scale.value - scale.doubt):.1f}" y1="22" x2="{x(scale.value + scale.doubt):.1f}" y2="22"/>')
    parts.append(f'<line class="at" x1="{x(scale.value):.1f}" y1="11" x2="{x(scale.value):.1f}" y2="33"/>')
    label_x = x(scale.value)
    if len(limits) == 2:
        for limit, anchor in zip(limits, ("start", "end"), strict=True):
            parts.append(f'<text class="label" x="{x(limit):.1f}" y="46" text-anchor="{anchor}">{figure(limit, scale.digits)}</text>')
    else:
        limit_x = x(limits[0]) if limits else 0.0
        meant, anchor = "at most" if scale.low is None else "at least", "start" if limit_x < 220 else "end"
        parts.append(f'<text class="label" x="{limit_x:.1f}" y="46" text-anchor="{anchor}">{limit_words} {meant}</text>')
        text_x = min(label_x, 200.0)
        if abs(text_x - limit_x) > 115 or label_x < limit_x - 60:
            parts.append(f'<text class="label" x="{text_x:.1f}" y="46" text-anchor="start">{figure(scale.value, scale.digits)}</text>')
    title = f"{words}; limit {limit_words}"
    return mark_safe(f'<svg class="scale" viewBox="0 0 300 50" role="img" aria-label="{title}">{"".join(parts)}</svg>')  # noqa: S308  numbers only


@register.filter
def epoch(moment: datetime | None) -> str:
    """Milliseconds since 1970 for the page's clocks."""
    return str(int(moment.timestamp() * 1000)) if moment else ""


@register.filter
def ago(moment: datetime, now: datetime) -> str:
    """How long ago, in the coarsest words that help."""
    seconds = (now - moment).total_seconds()
    if seconds < 45:
        return "just now"
    if seconds < 5400:
        return f"{round(seconds / 60)} min ago"
    return f"{round(seconds / 3600)} h ago" if seconds < 129600 else f"{round(seconds / 86400)} days ago"


@register.filter
def get(mapping: object, key: str) -> object:
    """A value by a key that is itself a variable; empty when there is no mapping."""
    return mapping.get(key, "") if isinstance(mapping, dict) else ""
