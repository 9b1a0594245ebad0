"""Every example in the core's docstrings."""

from __future__ import annotations

import doctest
import importlib
import io
import pkgutil
import unittest

import shopmath

MODULES = [module.name for module in pkgutil.walk_packages(shopmath.__path__, "shopmath.") if ".tests" not in module.name]


class Examples(unittest.TestCase):
    def test_every_module_is_looked_at(self):
        self.assertGreater(len(MODULES), 40)


def _runs(name: str):
    def test(self):
        found = doctest.DocTestFinder(exclude_empty=True).find(importlib.import_module(name))
        words = io.StringIO()
        runner = doctest.DocTestRunner()
        for each in found:
            if each.examples:
                runner.run(each, out=words.write)
        self.assertEqual(runner.failures, 0, words.getvalue())

    return test


for _name in MODULES:
    setattr(Examples, f"test_{_name.replace('.', '_')}", _runs(_name))
