"""Blows predicted at True, held against what they moved."""

from __future__ import annotations

import statistics

from shopmath.amounts import estimate, share
from stator.stations.framework.messages import format_message
from stator.stations.framework.predictions import LATEST, TAG, Prediction, PredictionComparison, PredictionScore, Results
from stator.stations.true_crank import messages
from stator.stations.true_crank.verdict import TOOK_HALF_WIDTH


def _shares(results: Results) -> list[tuple[str, float]]:
    """Of each truing move, what share of the twist it took; with its job."""
    shares = []
    for each in results:
        moves = each.get("moves") or []
        twists = [*(move.get("twist_deg") for move in moves), each.get("twist_deg")]
        for move, before, after in zip(moves, twists, twists[1:], strict=False):
            if move.get("kind", "strike") == "strike" and isinstance(before, float) and isinstance(after, float) and abs(before) > 1e-6:
                shares.append((each.get(TAG, ""), (before - after) / before))
    return shares


def beside(results: Results) -> list[PredictionComparison]:
    """Return each blow as a fraction of the twist, for the newest blows."""
    return [PredictionComparison(tag, 1.0, 1.0, took) for tag, took in _shares(results)[-LATEST:]]


def blows(results: Results) -> list[PredictionScore]:
    """Of the truing moves, what share of the twist predicted each took."""
    shares = [took for _, took in _shares(results)]
    if not shares:
        return []
    return [
        PredictionScore(
            str(messages.ALL_OF_IT),
            len(shares),
            format_message(messages.BLOW_HELD, {"share": estimate(share(statistics.median(shares)), TOOK_HALF_WIDTH)}),
        )
    ]


PREDICTION = Prediction(messages.BLOWS, messages.PREDICTED, blows, beside, messages.BLOW_AXIS)
