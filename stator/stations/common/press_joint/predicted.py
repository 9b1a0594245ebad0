"""Press forces predicted at Apart and Together, held against the peaks that were read."""

from __future__ import annotations

import statistics

from stator.stations.common.press_joint import messages
from stator.stations.framework.messages import format_message
from stator.stations.framework.predictions import LATEST, TAG, Prediction, PredictionComparison, PredictionScore, Results
from stator.ui.number_format import figure


def forces(results: Results) -> list[PredictionScore]:
    """Return how many peak forces lay within the predicted range, and how they lay relative to its center."""
    found = [(each["force_n"], each["peak_n"]) for each in results if each.get("force_n") and each.get("peak_n")]
    if not found:
        return []
    inside = sum(band[0] <= peak <= band[2] for band, peak in found)
    middle = statistics.median(peak / band[1] for band, peak in found)
    values = {"inside": inside, "count": len(found), "middle": figure(middle, 2)}
    return [PredictionScore(str(messages.BAND), len(found), format_message(messages.BAND_HELD, values))]


def beside(results: Results) -> list[PredictionComparison]:
    """Return each peak force with its range as a fraction of the likely force, for the newest joints."""
    found = [(each.get(TAG, ""), each["force_n"], each["peak_n"]) for each in results if each.get("force_n") and each.get("peak_n")]
    return [PredictionComparison(tag, band[0] / band[1], band[2] / band[1], peak / band[1]) for tag, band, peak in found[-LATEST:]]


PREDICTION = Prediction(messages.FORCES, messages.PREDICTED, forces, beside, messages.FORCE_AXIS)
