"""Actions of Install flywheel, and what they record."""

from __future__ import annotations

from stator.engines.properties import Property
from stator.jobs import log
from stator.stations.framework import Action, BoundStation, State
from stator.stations.framework.messages import format_message
from stator.stations.install_flywheel import messages
from stator.stations.install_flywheel.analysis import FlywheelInstallationAnalysis, Hands, at
from stator.stations.install_flywheel.verdict import judged_values


def actions(bound: BoundStation) -> tuple[Action, ...]:
    found: FlywheelInstallationAnalysis = bound.analysis
    poor = found.contact is not None and found.contact.state != State.IN
    lap = [Action("lapped", str(messages.ACTION["lapped"]), "lapped", True, do=lapped)] if poor else []
    return (*lap, bound.sign_action(main=not poor))


def lapped(bound: BoundStation) -> None:
    """Record that the taper was lapped, so that its contact is checked again; the first result remains."""
    bound.record_action(Hands.LAPPED)
    for reading in bound.answers.live(at(Property.CONTACT_AT_LARGE_END).key):
        log.withdraw(reading, bound.person)


def may_sign(bound: BoundStation) -> str:
    """Return what must be corrected before signing."""
    found: FlywheelInstallationAnalysis = bound.analysis
    worst = found.judged[0] if found.judged else None
    if worst is None or worst.call.state not in (State.OUT, State.STOP):
        return ""
    return f"{messages.HEADLINE[worst.code]}. {format_message(messages.REASON[worst.call.code], judged_values(found, worst))}"
