"""Heats predicted, held against how the bearing went in."""

from __future__ import annotations

from stations.base.predicted import Held, Prediction, Results
from stations.base.words import fill
from stations.fit.heat import HOME
from stations.fit.one_seat import words

BINS = ((0.0, 0.5, "less"), (0.5, 0.9, "likely"), (0.9, 0.99, "nine"), (0.99, 1.01, "sure"))


def heats(results: Results) -> list[Held]:
    """Of the heats promised so surely, how many went in at the first try, by hand or with a tap; a jam counts, also one reheated since."""
    sure = [
        (each["confidence"], each.get("outcome"), each.get("jams") or 0)
        for each in results
        if isinstance(each.get("confidence"), int | float) and each.get("outcome")
    ]
    found = []
    for low, high, code in BINS:
        here = [(outcome, jams) for confidence, outcome, jams in sure if low <= confidence < high]
        jammed = sum(bool(jams) or outcome not in HOME for outcome, jams in here)
        dropped = sum(outcome == "dropped" and not jams for outcome, jams in here)
        values = {"home": len(here) - jammed, "count": len(here), "dropped": dropped, "jammed": jammed}
        if here:
            found.append(Held(str(words.PROMISED[code]), len(here), fill(words.WENT_IN, values)))
    return found


PREDICTION = Prediction(words.HEATS, words.SAID_TO_GO, heats)
