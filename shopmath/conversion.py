"""The unit registry, loaded when a conversion first needs it, and the factors it gives."""

from __future__ import annotations

import os
import pickle
import threading
from functools import lru_cache
from typing import TYPE_CHECKING, Any

from shopmath.validation import BadInput, gettext_noop, number

if TYPE_CHECKING:
    from pint import UnitRegistry

_lock = threading.Lock()
_registry: UnitRegistry[Any] | None = None


def _units() -> UnitRegistry[Any]:
    """Return the unit registry, created on the first conversion; its definitions come from a cache folder after the first time."""
    global _registry
    with _lock:
        if _registry is None:
            from pint import UnitRegistry

            try:
                _registry = UnitRegistry(cache_folder=os.environ.get("STATOR_UNIT_CACHE", ":auto:"))
            except (OSError, EOFError, pickle.UnpicklingError):
                # A folder that cannot be written, or a file that another process is still writing, costs a quarter of a
                # second and not the reading.
                _registry = UnitRegistry()
            _registry.define("tonne_force = 1000 * kgf")
            _registry.define("tenth_thou = 0.1 * thou")
        return _registry


_BY_TENS = {("N", "kN"): 0.001, ("kg", "g"): 1000.0, ("mm", "um"): 1000.0}


@lru_cache(maxsize=256)
def scale_of(unit: str, to: str) -> tuple[float, float]:
    """Factor and offset that turn a value in one unit into another: `value * factor + offset`.

    Parameters
    ----------
    unit, to : str
        As the unit registry names them; empty for a plain number.

    Raises
    ------
    BadInput
        Units of two kinds, or one that is not known.

    Source
    ------
    NIST SP 811 (conversion factors, through Pint's definitions).

    Examples
    --------
    >>> scale_of("mm", "mm"), scale_of("N", "kN"), [round(each, 6) for each in scale_of("degC", "degF")]
    ((1.0, 0.0), (0.001, 0.0), [1.8, 32.0])
    """
    if unit == to:
        return 1.0, 0.0
    if (unit, to) in _BY_TENS:  # needs no registry
        return _BY_TENS[unit, to], 0.0
    from pint import PintError

    units = _units()
    try:
        offset = float(units.Quantity(0.0, unit).to(to).magnitude)
        factor = float(units.Quantity(1.0, unit).to(to).magnitude) - offset
    except (PintError, AttributeError, TypeError) as error:
        raise BadInput("unit", gettext_noop("{unit} cannot be turned into {to}."), unit=unit, to=to) from error
    return float(f"{factor:.15g}"), float(f"{offset:.12g}")


def convert(value: float, unit: str, to: str) -> float:
    """A value in another unit of its kind; threads per inch become a pitch.

    Parameters
    ----------
    value : float
        In `unit`.
    unit, to : str
        As the unit registry names them, or `tpi`.

    Raises
    ------
    BadInput
        No number, a pitch of no threads, units of two kinds, or one that is not known.

    Source
    ------
    NIST SP 811 (conversion factors, through Pint's definitions).

    Examples
    --------
    >>> convert(2.5, "thou", "mm"), convert(20, "tpi", "mm"), round(convert(300, "degF", "degC"), 3)
    (0.0635, 1.27, 148.889)
    """
    number("value", value)
    if unit == to:
        return value
    if unit == "tpi":
        if value <= 0:
            raise BadInput("thread_pitch", gettext_noop("{value:g} tpi is no pitch; it must be above 0."), value=value)
        return 25.4 / value
    factor, offset = scale_of(unit, to)
    return value * factor + offset
