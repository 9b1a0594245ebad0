"""What is asked at Close: gears, the torque when the card has none, then every bolt in its order, round after round."""

from __future__ import annotations

from typing import TYPE_CHECKING

from shopmath.checks import BadInput
from stations.base import Ask, Option

if TYPE_CHECKING:
    from stations.close.station import Close

GEARS = (Option("all", "every gear selects"), Option("not", "one does not"), Option("none", "no gears in it"))
FACES = (Option("one", "one face, thin"), Option("both", "both faces"))
SCHOOL = (Option("manual", "the manual's torque", "usual"), Option("more", "more than the manual", "needs a reason"))
BOUNDS = {"torque": (0.5, 400), "more": (0.5, 400), "s0": (0, 400), "s1": (0, 400), "s2": (0, 400)}


def asks(work: Close) -> list[Ask]:
    past = work.sealed or work.signed
    found = [Ask("gears", "Shafts and drum back: by hand,", "", "words", "", quiet=past, options=GEARS)]
    if work.said("gears") == "not":
        found.append(Ask("which", "Which one, and what holds it?", "", "words", "", quiet=past))
    if not work.from_card:
        where = "manual; on the card is better"
        found.append(Ask("torque", "Torque of the case's bolts", where, "torque", "Nm", quiet=past, example="10", resolution=0.5))
    if work.school == "more":
        weighed = "weighed against bolt and thread"
        found.append(Ask("more", "Torque instead", weighed, "torque", "Nm", quiet=past, example="12", resolution=0.5))
        found.append(Ask("why", "Why more than the manual?", "it goes into the log", "words", "", quiet=past))
    if not work.ready or not work.sealed:
        return found
    for stage, torque in enumerate(work.stages):
        for mark in work.ordered:
            nm = f"{torque * work.torque_of(mark):.3g}"
            size = f"{mark.thread}{f', {mark.length_mm:g} long' if mark.length_mm else ''}"
            words = f"Bolt {mark.name} to {nm} N·m"
            where = f"round {stage + 1} of {len(work.stages)}; {size}"
            left = f"done, at {nm}"
            found.append(Ask(f"s{stage}-{mark.pk}", words, where, "torque", "Nm", True, left, example=nm, resolution=0.5))
    return found


def check(ask: Ask, value: float) -> None:
    """Refuse what cannot be, in words."""
    low, high = BOUNDS.get(ask.key.partition("-")[0], (float("-inf"), float("inf")))
    if not low <= value <= high:
        raise BadInput(ask.key, f"{ask.words}: {value:g} N·m is not believable. Check the unit.")
