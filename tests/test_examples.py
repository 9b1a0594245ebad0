"""Tests of the examples in the application's docstrings; those of the core are in `shopmath.tests.test_doctests`."""

from __future__ import annotations

import doctest
import importlib

from django.test import SimpleTestCase

from tests.folders import ROOT


class Examples(SimpleTestCase):
    def test_every_example_in_a_docstring_is_true(self):
        files = [path for path in (ROOT / "stator").rglob("*.py") if ">>>" in path.read_text()]
        self.assertGreater(len(files), 15)
        for path in files:
            name = ".".join(path.relative_to(ROOT).with_suffix("").parts)
            with self.subTest(name):
                self.assertEqual(doctest.testmod(importlib.import_module(name)).failed, 0)
