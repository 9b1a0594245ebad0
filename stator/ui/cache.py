"""The one cache of the application: values with a version token, on Django's cache framework.

The cache pickles what it stores, so that no two requests share a mutable object. A database trigger draws a random token with each write.
It never comes twice, so that a value that was read in a transaction is never found after that transaction was rolled back.
"""

from __future__ import annotations

from collections.abc import Callable
from typing import TypeVar

from django.core.cache import cache

Value = TypeVar("Value")


def versioned(name: str, version: object, load: Callable[[], Value]) -> Value:
    """Return a value from the cache, or load and store it.

    Parameters
    ----------
    name : str
        What the value is, with the number of its row.
    version : object
        The random token of what it was loaded from. Nothing is stored without one.
    load : callable
        Reads the value from the database.
    """
    if not version:
        return load()
    key = f"{name}:{version}"
    found: Value | None = cache.get(key)
    if found is None:
        found = load()
        cache.set(key, found, None)
    return found
