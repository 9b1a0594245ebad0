"""Questions of Install flywheel: contact, key, needed torque, nut, rim and air gap."""

from __future__ import annotations

from functools import partial
from typing import Any

from shopmath.amounts import newton_metres
from stator.engines.properties import Property
from stator.stations.framework import Method, Question
from stator.stations.framework.messages import format_message
from stator.stations.framework.question_factory import method, question
from stator.stations.install_flywheel import messages
from stator.stations.install_flywheel.analysis import OLD_KEY, FlywheelInstallationAnalysis, at

_ask = partial(question, messages)


def ask(what: Property, **more: Any) -> Question:
    return _ask(at(what), **more)


def methods(found: FlywheelInstallationAnalysis) -> tuple[Method, ...]:
    """Return what is on the nut's thread: it decides how much of a torque seats the taper."""
    return (method(messages, "nut", found.on_nut),) if found.is_on_taper else ()


def questions(found: FlywheelInstallationAnalysis) -> list[Question]:
    asked: list[Question] = []
    if found.is_on_taper:
        blue_again = found.share is None and found.lapped > 0
        times = len(found.own.all(at(Property.CONTACT_SHARE))) + 1 if blue_again else 1
        asked.append(ask(Property.CONTACT_SHARE, unit="%", resolution=5.0, example="80", times=max(times, 1)))
        asked.append(ask(Property.CONTACT_AT_LARGE_END))
    asked.append(ask(Property.KEY_CONDITION))
    if found.key in OLD_KEY:
        asked.append(ask(Property.KEY_STEP, gauges=("calliper",), resolution=0.02, example="0.4"))
    if found.is_on_taper:
        asked.append(ask(Property.CONE_DIAMETER, optional=True, gauges=("calliper",), example="18"))
        asked.append(ask(Property.TORQUE_TO_CARRY, optional=True, resolution=1.0, example="40"))
    by_card = found.card.nut_torque_nm
    needed = format_message(messages.BY_CARD, {"torque": newton_metres(by_card)}) if by_card else str(messages.BY_MANUAL)
    asked.append(ask(Property.NUT_TORQUE, where=needed, expects=by_card, resolution=1.0, example="55"))
    asked.append(ask(Property.RIM_RUNOUT, optional=True, gauges=("dial",), resolution=0.01, example="0.10"))
    asked.append(ask(Property.AIR_GAP, optional=True, gauges=("feeler",), resolution=0.01, example="0.35"))
    return asked
