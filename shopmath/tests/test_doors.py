"""Tests that no public function of the core answers impossible input with NaN or an error that no user could read."""

from __future__ import annotations

import contextlib
import inspect
from unittest import TestCase

from shopmath.tests.public_functions import Skip, by_length, calls, functions, impossible, made
from shopmath.validation import BadInput

REFUSED = (BadInput, TypeError)  # a wrong type may stay a TypeError


class EveryDoor(TestCase):
    cost = 15

    def comes_through(self, function):
        """Return the first call that accepts an impossible value, as text; empty if there is none."""
        for label, needed in calls(function):
            try:
                answer = function(**{name: made(kind, number) for name, (kind, number) in needed.items()})
                answer = list(answer) if inspect.isgenerator(answer) else answer
            except (*REFUSED, Skip):
                continue
            except Exception as error:  # that is what is looked for
                return f"{label}: {error!r:.80}"
            if impossible(answer):
                return f"{label}: NaN in {answer!r:.80}"
        return ""

    def test_nothing_impossible_comes_through(self):
        count = 0
        for name, function in functions():
            count += 1
            with self.subTest(name):
                self.assertEqual(self.comes_through(function), "")
        self.assertGreater(count, 200)

    def test_sequences_may_be_empty_or_far_too_long(self):
        for name, function in functions():
            for length, arguments in by_length(function):
                with self.subTest(name, length=length), contextlib.suppress(*REFUSED):
                    answer = function(**arguments)
                    self.assertFalse(impossible(list(answer) if inspect.isgenerator(answer) else answer))
