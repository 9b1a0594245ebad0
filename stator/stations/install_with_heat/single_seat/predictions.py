"""Heats predicted, held against how the bearing went in."""

from __future__ import annotations

from collections.abc import Iterator

from shopmath.quantiles import share_band
from stator.stations.framework.messages import format_message
from stator.stations.framework.predictions import Prediction, PredictionComparison, PredictionScore, Results
from stator.stations.install_with_heat.heat import HOME
from stator.stations.install_with_heat.single_seat import messages

BINS = ((0.0, 0.5, "less"), (0.5, 0.9, "likely"), (0.9, 0.99, "nine"), (0.99, 1.01, "sure"))


def _promised(results: Results) -> Iterator[tuple[float, float, str, list[tuple[str, int]]]]:
    """The heats of each band of promises: outcome and jams."""
    sure = [
        (each["confidence"], str(each["outcome"]), int(each.get("jams") or 0))
        for each in results
        if isinstance(each.get("confidence"), int | float) and each.get("outcome")
    ]
    for low, high, code in BINS:
        yield low, min(high, 1.0), code, [(outcome, jams) for confidence, outcome, jams in sure if low <= confidence < high]


def beside(results: Results) -> list[PredictionComparison]:
    """Return the observed share of bearings that went in at the first try, with the predicted share."""
    found = []
    for low, high, code, here in _promised(results):
        home = sum(not jams and outcome in HOME for outcome, jams in here)
        if here:
            label = format_message(messages.PROMISED_TIMES, {"promised": str(messages.PROMISED[code]), "count": len(here)})
            found.append(PredictionComparison(label, low, high, home / len(here), share_band(home, len(here))))
    return found


def heats(results: Results) -> list[PredictionScore]:
    """Return how many bearings went in at the first try, by hand or with a tap, for each predicted probability.

    A jam counts as a failure, even if the case was heated again since.
    """
    found = []
    for _, _, code, here in _promised(results):
        jammed = sum(bool(jams) or outcome not in HOME for outcome, jams in here)
        dropped = sum(outcome == "dropped" and not jams for outcome, jams in here)
        values = {"home": len(here) - jammed, "count": len(here), "dropped": dropped, "jammed": jammed}
        if here:
            found.append(PredictionScore(str(messages.PROMISED[code]), len(here), format_message(messages.WENT_IN, values)))
    return found


PREDICTION = Prediction(messages.HEATS, messages.SAID_TO_GO, heats, beside, messages.SHARE_AXIS)
