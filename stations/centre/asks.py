"""What is asked at Centre: gaps, spin, float by dial, pressure and vacuum held so long."""

from __future__ import annotations

from typing import TYPE_CHECKING

from shopmath.checks import BadInput
from stations.base import Ask, Option

if TYPE_CHECKING:
    from stations.centre.station import Centre

SCHOOL = (Option("centre", "in the middle", "equal gaps"), Option("hard", "hard on one side", "as the manual says"))
PROOF = (
    Option("pressure", "pressure and vacuum", "crankcase compression"),
    Option("oil", "oil primed", "four-stroke"),
    Option("none", "not here", "say why in the log"),
)
SPIN = (Option("free", "spins free"), Option("drags", "drags"))
BOUNDS = {"left": (0, 5), "right": (0, 5), "float": (0, 5), "minutes": (20, 3600), "pressure": (5, 60), "vacuum": (5, 60)}
TESTS = (("pressure", "Pressure"), ("vacuum", "Vacuum"))


def asks(work: Centre) -> list[Ask]:
    found: list[Ask] = []
    if work.school == "centre":
        for key in ("left", "right"):
            words = f"Gap on the {work.job.card.side(key)}"
            found.append(Ask(key, words, "web to bearing, blades that just go", example="0.15", resolution=0.01, gauges=("feeler",)))
    if not work.centred_enough:
        return found
    found.append(Ask("spin", "Spun by hand, it", "", "words", "", options=SPIN))
    if work.said("spin") == "drags":
        found.append(Ask("drag", "Where does it drag?", "once a turn, or all round", "words", ""))
        return found
    dial = "dial on the shaft's end, pushed and pulled"
    found.append(Ask("float", "End float by dial", dial, optional=True, skip_means="not measured", gauges=("dial",), example="0.15"))
    if work.proof == "pressure":
        found.append(Ask("minutes", "How long is it held?", "5 min usually", "time", "s", example="5 min", resolution=1.0))
        for key, words in TESTS:
            held = {"kind": "pressure", "unit": "kPa", "resolution": 0.1}
            found.append(Ask(f"{key}-1", f"{words} at the start", "ports plugged, 40 kPa", example="40", **held))  # type: ignore[arg-type]
            found.append(Ask(f"{key}-2", f"{words} at the end", "the same gauge", example="38", **held))  # type: ignore[arg-type]
    if work.proof == "none":
        found.append(Ask("why", "Why is it not proved?", "", "words", ""))
    return found


def check(ask: Ask, value: float) -> None:
    """Refuse what cannot be, in words."""
    low, high = BOUNDS.get(ask.key.partition("-")[0], (float("-inf"), float("inf")))
    if not low <= (abs(value) if ask.kind == "pressure" else value) <= high and not ask.key.endswith("-2"):
        raise BadInput(ask.key, f"{ask.words}: {value:g} is not believable. Check the unit and measure again.")
