"""Every example in the core's docstrings."""

from __future__ import annotations

import doctest
import importlib
import pkgutil
from typing import Any

import shopmath


def load_tests(loader: Any, tests: Any, pattern: Any) -> Any:
    for module in pkgutil.walk_packages(shopmath.__path__, "shopmath."):
        if ".tests" not in module.name:
            tests.addTests(doctest.DocTestSuite(importlib.import_module(module.name)))
    return tests
