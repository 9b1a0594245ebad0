"""Keep a bearing or replace it: stated rules, each with its reason. Feel is no measurement."""

from __future__ import annotations

from dataclasses import dataclass

KEEP, MAY_STAY, REPLACE = "keep", "may_stay", "replace"


@dataclass(frozen=True)
class Found:
    """What is known of a bearing in the hand; None means not known."""

    hit_through_balls: bool | None = None
    history_known: bool | None = None
    turns_clean: bool | None = None
    marks: bool | None = None
    shielded: bool = False
    slow: bool = False
    hard_to_reach: bool = False
    ceramic_balls: bool = False


@dataclass(frozen=True)
class Keeping:
    """`keep`, `may_stay` or `replace`, the reasons in clauses, and what is still to be looked at."""

    verdict: str
    reasons: tuple[str, ...]
    unknown: tuple[str, ...]


def keep_or_replace(found: Found) -> Keeping:
    """Whether a bearing stays, by rule.

    Parameters
    ----------
    found : Found

    Returns
    -------
    Keeping
        Any reason to replace wins. Shielded, slow, clean and hard to reach may stay. What is not known counts as a reason to replace
        while the engine is open.

    Source
    ------
    Shop rules: a ring driven through the balls is dented where nobody sees it; an open engine is the cheap moment.

    Examples
    --------
    >>> keep_or_replace(Found(hit_through_balls=True)).verdict
    'replace'
    >>> keep_or_replace(Found(False, False, True, False, shielded=True, slow=True, hard_to_reach=True)).verdict
    'may_stay'
    >>> keep_or_replace(Found(False, True, True, False)).verdict
    'keep'
    """
    against, unknown = [], []
    if found.hit_through_balls:
        against.append("driven or pulled through its balls: the races are dented where nobody sees it")
    if found.marks:
        against.append("pits, blue or a step in the race")
    if found.turns_clean is False:
        against.append("rough when turned clean and dry")
    unknown += ["whether it was driven through its balls"] if found.hit_through_balls is None else []
    unknown += ["how it turns, clean and dry"] if found.turns_clean is None else []
    unknown += ["whether the races are marked"] if found.marks is None else []
    if against:
        return Keeping(REPLACE, tuple(against), tuple(unknown))
    tight = ("its balls are not steel: it may feel tight and be good",) if found.ceramic_balls else ()
    if found.history_known and not unknown:
        return Keeping(KEEP, ("its history is known, it turns clean, nothing marks it", *tight), ())
    if found.shielded and found.slow and found.hard_to_reach and found.turns_clean:
        return Keeping(MAY_STAY, ("shielded, slow, turning clean and hard to reach", *tight), tuple(unknown))
    return Keeping(REPLACE, ("its history is not known and the engine is open: now it costs least",), tuple(unknown))
