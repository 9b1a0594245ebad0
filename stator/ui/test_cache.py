"""The cache: one value for each version."""

from __future__ import annotations

from django.core.cache import cache
from django.test import SimpleTestCase

from stator.ui.cache import versioned


class Versions(SimpleTestCase):
    def setUp(self):
        self.loaded = []
        self.addCleanup(cache.clear)

    def load(self):
        self.loaded.append(len(self.loaded))
        return [f"value {len(self.loaded)}"]

    def test_a_value_is_loaded_again_with_another_version(self):
        found = [versioned("card-1", version, self.load) for version in ("a", "a", "b", "a")]
        self.assertEqual(found, [["value 1"], ["value 1"], ["value 2"], ["value 1"]])

    def test_nothing_is_stored_without_a_version(self):
        self.assertEqual([versioned("card-1", "", self.load) for _ in range(2)], [["value 1"], ["value 2"]])

    def test_what_one_request_changes_is_not_seen_by_another(self):
        versioned("card-1", "a", self.load).append("changed")
        self.assertEqual(versioned("card-1", "a", self.load), ["value 1"])
