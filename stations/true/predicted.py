"""Blows predicted at True, held against what they moved."""

from __future__ import annotations

import statistics

from shopmath.amounts import share
from stations.base.predicted import Held, Prediction, Results
from stations.base.words import fill
from stations.true import words


def blows(results: Results) -> list[Held]:
    """Of the truing moves, what share of the twist predicted each took."""
    shares = []
    for each in results:
        moves = each.get("moves") or []
        twists = [*(move.get("twist_deg") for move in moves), each.get("twist_deg")]
        for move, before, after in zip(moves, twists, twists[1:], strict=False):
            if move.get("kind", "strike") == "strike" and isinstance(before, float) and isinstance(after, float) and abs(before) > 1e-6:
                shares.append((before - after) / before)
    if not shares:
        return []
    return [Held(str(words.ALL_OF_IT), len(shares), fill(words.BLOW_HELD, {"share": share(statistics.median(shares))}))]


PREDICTION = Prediction(words.BLOWS, words.PREDICTED, blows)
