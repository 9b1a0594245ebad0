"""Names of kinds of quantities in a sentence, with an article and without."""

from __future__ import annotations

from shopmath.validation import gettext_noop

A_KIND = {
    "length": gettext_noop("a length"),
    "temperature": gettext_noop("a temperature"),
    "temperature_difference": gettext_noop("a temperature difference"),
    "torque": gettext_noop("a torque"),
    "force": gettext_noop("a force"),
    "mass": gettext_noop("a mass"),
    "angle": gettext_noop("an angle"),
    "speed": gettext_noop("a speed"),
    "time": gettext_noop("a time"),
    "thread_pitch": gettext_noop("a thread pitch"),
    "pressure": gettext_noop("a pressure"),
}

OF_KIND = {
    "length": gettext_noop("length"),
    "temperature": gettext_noop("temperature"),
    "temperature_difference": gettext_noop("temperature difference"),
    "torque": gettext_noop("torque"),
    "force": gettext_noop("force"),
    "mass": gettext_noop("mass"),
    "angle": gettext_noop("angle"),
    "speed": gettext_noop("speed"),
    "time": gettext_noop("time"),
    "thread_pitch": gettext_noop("thread pitch"),
    "pressure": gettext_noop("pressure"),
}
