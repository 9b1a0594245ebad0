"""The part of a torque that becomes preload, by the condition of the thread."""

from __future__ import annotations

from shopmath.estimate import Estimate
from shopmath.tables import rows
from shopmath.validation import one_of

AS_RECEIVED, DRY, OILED, LOCKER, ANTI_SEIZE, UNKNOWN = "as received", "dry", "oiled", "thread locker", "anti-seize", "unknown"
STATES = (AS_RECEIVED, DRY, OILED, LOCKER, ANTI_SEIZE, UNKNOWN)
_TABLE = {
    DRY: "dry, plain steel",
    OILED: "lightly oiled, plain steel",
    LOCKER: "medium threadlocker, wet",
    ANTI_SEIZE: "anti-seize or molybdenum-disulphide paste",
}
_TAKEN = {
    AS_RECEIVED: Estimate(0.15, 0.18, 0.22, "as received: lightly oiled to dry, plain or zinc plated"),
    UNKNOWN: Estimate(0.10, 0.17, 0.24, "what is on the thread is unknown: anti-seize to dry"),
}


def nut_factor(state: str = AS_RECEIVED) -> Estimate:
    """Nut factor K of torque = K·d·F, *estimate*.

    Parameters
    ----------
    state : str
        `as received`, `dry`, `oiled`, `thread locker`, `anti-seize` or `unknown`.

    Returns
    -------
    Estimate

    Raises
    ------
    BadInput
        Another state.

    Source
    ------
    Nut factor table, after VDI 2230 and ISO 10964.

    Examples
    --------
    >>> nut_factor("oiled").likely, nut_factor("unknown").low, nut_factor("unknown").high
    (0.16, 0.1, 0.24)
    """
    one_of("state", state, STATES)
    if state in _TAKEN:
        return _TAKEN[state]
    row = next(row for row in rows("friction_and_compounds") if row["group"] == "nut_factor" and row["condition"] == _TABLE[state])
    return Estimate(float(row["low"]), float(row["typical"]), float(row["high"]), row["condition"])
