"""What may be done at Flywheel on, and what it writes."""

from __future__ import annotations

from typing import Any

from engines.properties import Property
from jobs import log
from stations.base import Action, State
from stations.base.words import fill
from stations.flywheel_on import words
from stations.flywheel_on.facts import FlywheelOnFacts, Hands, at
from stations.flywheel_on.verdict import judged_values


def actions(bound: Any) -> tuple[Action, ...]:
    found: FlywheelOnFacts = bound.found
    poor = found.contact is not None and found.contact.state != State.IN
    lap = [Action("lapped", str(words.ACTION["lapped"]), "lapped", True, do=lapped)] if poor else []
    return (*lap, bound.sign_action(main=not poor))


def lapped(bound: Any) -> None:
    """The taper was lapped: it is blued again; how it was found stays."""
    bound.move(Hands.LAPPED)
    for reading in bound.live(at(Property.CONTACT_AT_LARGE_END).key):
        log.withdraw(reading, bound.person)


def may_sign(bound: Any) -> str:
    """What is out is put right first."""
    found: FlywheelOnFacts = bound.found
    worst = found.judged[0] if found.judged else None
    if worst is None or worst.call.state not in (State.OUT, State.STOP):
        return ""
    return f"{words.HEADLINE[worst.code]}. {fill(words.REASON[worst.call.code], judged_values(found, worst))}"
