"""The quick checks, in the order in which they stand on the page."""

from __future__ import annotations

from quick import cold, crank, figures, fit, plugs, threads
from quick.base import Check

CHECKS: tuple[Check, ...] = (fit.CHECK, cold.CHECK, plugs.CHECK, *threads.CHECKS, *crank.CHECKS, *figures.CHECKS)
BY_KEY = {check.key: check for check in CHECKS}
