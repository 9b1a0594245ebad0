"""Whether to use a bearing again: stated rules, each with its reason. Feel is not a measurement."""

from __future__ import annotations

from dataclasses import dataclass

KEEP, MAY_STAY, REPLACE = "keep", "may_stay", "replace"


@dataclass(frozen=True)
class BearingCondition:
    """The condition of a removed bearing; None means unknown."""

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
    """`keep`, `may_stay` or `replace`, the reasons in clauses, and what is still to be inspected; `codes` name the reasons."""

    verdict: str
    reasons: tuple[str, ...]
    unknown: tuple[str, ...]
    codes: tuple[str, ...] = ()
    unknown_codes: tuple[str, ...] = ()


AGAINST = {
    "hit": "driven or pulled through its balls: the races are dented where nobody sees it",
    "marked": "pits, blue or a step in the race",
    "rough": "rough when turned clean and dry",
}
UNKNOWN = {
    "hit": "whether it was driven through its balls",
    "turning": "how it turns, clean and dry",
    "races": "whether the races are marked",
}
OTHERWISE = {
    "known": "its history is known, it turns clean, nothing marks it",
    "not_steel": "its balls are not steel: it may feel tight and be good",
    "slow": "shielded, slow, turning clean and hard to reach",
    "no_history": "its history is not known and the engine is open: now it costs least",
}


def reuse_or_replace(found: BearingCondition) -> Keeping:
    """Return whether a bearing is used again, by rule.

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
    >>> reuse_or_replace(BearingCondition(hit_through_balls=True)).verdict
    'replace'
    >>> reuse_or_replace(BearingCondition(False, False, True, False, shielded=True, slow=True, hard_to_reach=True)).verdict
    'may_stay'
    >>> reuse_or_replace(BearingCondition(False, True, True, False)).verdict
    'keep'
    """
    seen = {"hit": found.hit_through_balls, "marked": found.marks, "rough": None if found.turns_clean is None else not found.turns_clean}
    against = tuple(code for code, so in seen.items() if so)
    asked = {"hit": found.hit_through_balls, "turning": found.turns_clean, "races": found.marks}
    unknown = tuple(code for code, answer in asked.items() if answer is None)
    if against:
        return _keeping(REPLACE, against, unknown)
    tight = ("not_steel",) if found.ceramic_balls else ()
    if found.history_known and not unknown:
        return _keeping(KEEP, ("known", *tight), ())
    if found.shielded and found.slow and found.hard_to_reach and found.turns_clean:
        return _keeping(MAY_STAY, ("slow", *tight), unknown)
    return _keeping(REPLACE, ("no_history",), unknown)


def _keeping(verdict: str, codes: tuple[str, ...], unknown: tuple[str, ...]) -> Keeping:
    values = {**AGAINST, **OTHERWISE}
    return Keeping(verdict, tuple(values[code] for code in codes), tuple(UNKNOWN[code] for code in unknown), codes, unknown)
