"""The verdict on pins, bushings and plugs installed cold: on the present one, and on all when each is done."""

from __future__ import annotations

from typing import Any

from shopmath import __version__ as core_version
from shopmath.verdict import OUT, TOO_CLOSE
from stator.stations.framework import Alternative, Question, State, Verdict
from stator.stations.install_without_heat import verdict as of_ring
from stator.stations.install_without_heat.analysis import Code
from stator.stations.install_without_heat.press_in_parts.analysis import PressInAnalysis
from stator.ui.number_format import listed


def verdict(found: PressInAnalysis, questions: list[Question]) -> Verdict:
    """Return the present verdict; `asked` are the open questions."""
    if not found.things:
        return Verdict(State.WAIT, Code.NO_PARTS, {}, "no_parts", "put_on_card", ways=(Alternative(page="card"),))
    return overall(found) if found.all_done else of_ring.verdict(found, questions)


def overall(found: PressInAnalysis) -> Verdict:
    """Return the verdict that is signed, on every part."""
    out = [each for each in found.things if not each.is_home or (each.seated and each.seated.state == OUT)]
    if out:
        return Verdict(State.OUT, Code.NOT_HOME, {"parts": listed([each.thing.name for each in out])}, "parts_out", "sign")
    close = [each for each in found.things if each.seated and each.seated.state == TOO_CLOSE]
    values = {"count": len(found.things), "parts": listed([each.thing.name for each in close])}
    if close:
        return Verdict(State.TOO_CLOSE, Code.PARTS_IN, values, "parts_close", "sign")
    return Verdict(State.IN, Code.PARTS_IN, values, "parts_in", "sign")


def result(found: PressInAnalysis) -> dict[str, Any]:
    """Return what a file carries of it: `fit-cold-parts/1`."""
    parts = [{**of_ring.result(each), "part": each.thing.name} for each in found.things]
    return {
        "schema": "fit-cold-parts/1",
        "core_version": core_version,
        "parts": [{name: value for name, value in each.items() if name not in ("schema", "core_version", "bearing")} for each in parts],
    }
