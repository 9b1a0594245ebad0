"""Messages of timers, for templates."""

from __future__ import annotations

from django import template

from stator.jobs.models import Timer
from stator.stations.framework.log_labels import words_of

register = template.Library()


@register.filter
def counts(timer: Timer) -> str:
    """Return the message of a timer."""
    return words_of(timer)
