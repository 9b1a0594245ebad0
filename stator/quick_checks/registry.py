"""The quick checks, in the order of the page."""

from __future__ import annotations

from stator.quick_checks import bolts_and_units, cold, crank, fit, plugs, threads
from stator.quick_checks.base import QuickCheck

CHECKS: tuple[QuickCheck, ...] = (fit.CHECK, cold.CHECK, plugs.CHECK, *threads.CHECKS, *crank.CHECKS, *bolts_and_units.CHECKS)
BY_KEY = {check.key: check for check in CHECKS}
