"""What is asked at End float: the links of the stack or the manual's table, the limits, the shims measured again."""

from __future__ import annotations

from typing import TYPE_CHECKING

from stations.base import Ask, Option

if TYPE_CHECKING:
    from stations.end_float.station import EndFloat

LINKS = (  # key, words, where, sign, optional means
    ("left", "Left case, face to bearing", "joint face to the ring's face the crank stands on", 1, ""),
    ("right", "Right case, face to bearing", "joint face to the ring's face the crank stands on", 1, ""),
    ("gasket", "Gasket, crushed", "an old one between the bolts", 1, "no gasket"),
    ("crank", "Crank, shoulder to shoulder", "where its rings stand", -1, ""),
    ("fitted", "Shims already in", "measured, together", -1, "none"),
)
SIDES = (Option("left", "left"), Option("right", "right"))
EXAMPLES = {"left": "38.42", "right": "31.10", "gasket": "0.45", "crank": "69.10", "fitted": "0.30"}
BY_MICROMETER = ("gasket", "crank", "fitted")


def asks(work: EndFloat) -> list[Ask]:
    warm = "warm aluminium is long"
    found = [Ask("warm", "The case's temperature", warm, "temperature", "C", True, "as the room", resolution=1.0, example="20")]
    found += _links(work) if work.how == "stack" else _table(work)
    if not (work.limit and work.limit.low is not None and work.limit.high is not None):
        found += [
            Ask("low", "End float, at least", "manual; source on the card is better", example="0.10", resolution=0.01),
            Ask("high", "End float, at most", "manual", example="0.20", resolution=0.01),
        ]
    for index, piece in enumerate(work.pieces):
        words, where = f"Shim of {piece:g} in your hand, measured", "clean, off the bag, three places"
        found.append(Ask(f"shim-{index + 1}", words, where, gauges=("micrometer",), example=f"{piece:.3f}"))
    if work.predicted:
        found.append(Ask("side", "Which side do the shims go?", "as the manual has it", "words", "", options=SIDES))
    return found


def _links(work: EndFloat) -> list[Ask]:
    found = []
    for key, words, where, _, left_out in LINKS:
        gauges = ("micrometer",) if key in BY_MICROMETER else ("calliper",)
        times, example = work.wanted_times(key), EXAMPLES[key]
        found.append(Ask(key, words, where, optional=bool(left_out), skip_means=left_out, gauges=gauges, example=example, times=times))
    return found


def _table(work: EndFloat) -> list[Ask]:
    rows = "distance shim; distance shim"
    found = [
        Ask("distance", "Distance, as the manual has it", "how it says", gauges=("calliper",), example="1.15"),
        Ask("table", "The manual's table", rows, "words", "", example="1.0-1.1 0.9; 1.1-1.2 1.0"),
    ]
    read = work.table[0]
    if read and read.between:
        options = tuple(
            Option(f"{row.shim_mm:g}".replace(".", "_"), f"{row.shim_mm:g}", f"leaves {left:.2f}")
            for row, left in zip(read.rows, read.floats_mm, strict=True)
        )
        found.append(Ask("row", "Between two rows: which shim?", "", "words", "", options=options))
    return found
