"""Every public function of the core, called with impossible numbers in each argument, alone and all at once."""

from __future__ import annotations

import contextlib
import dataclasses
import importlib
import inspect
import math
import pkgutil
import types
import typing
from collections.abc import Callable, Iterator, Mapping, Sequence
from enum import Enum
from functools import cache
from typing import Any

import shopmath
from shopmath.bearings import lookup
from shopmath.materials import get
from shopmath.validation import BadInput

STRANGE = (math.nan, math.inf, -math.inf, 10**400, 1e300, -1e300, 0.0, -1.0, 1e-300)
PLAIN = 10.0
_hints = cache(typing.get_type_hints)
GIVEN = {"Material": lambda: get("al-si7-mg"), "Bearing": lambda: lookup("6205 C3")}


class Skip(Exception):
    """Nothing can be made for this annotation."""


def functions() -> Iterator[tuple[str, Callable[..., Any]]]:
    """Public functions, each once, by module and name."""
    for info in pkgutil.walk_packages(shopmath.__path__, "shopmath."):
        if ".tests" in info.name:
            continue
        module = importlib.import_module(info.name)
        for name, found in vars(module).items():
            if inspect.isfunction(found) and not name.startswith("_") and found.__module__ == info.name:
                yield f"{info.name}.{name}", found


def made(wanted: Any, number: float, depth: int = 0, length: int = 4) -> Any:
    """Return a value of an annotation with one number in every place; sequences have a length, nested ones at most four."""
    if depth > 6:
        raise Skip
    origin, args = typing.get_origin(wanted), typing.get_args(wanted)
    if wanted is int and isinstance(number, float) and math.isfinite(number) and abs(number) < 1e6:
        return int(number)
    if wanted in (float, int):
        return number
    if wanted is bool:
        return True
    if wanted is str:
        return "normal"
    if wanted is Any:
        return number
    if origin is typing.Union or isinstance(wanted, types.UnionType):
        return made(next(each for each in args if each is not type(None)), number, depth + 1, length)
    if origin is tuple:
        kinds = args[:1] * length if len(args) == 2 and args[1] is Ellipsis else args
        return tuple(made(each, number, depth + 1, min(length, 4)) for each in kinds)
    if origin in (list, Sequence) or (origin and isinstance(origin, type) and issubclass(origin, (list, Sequence))):
        return [made(args[0], number, depth + 1, min(length, 4))] * length
    if origin and isinstance(origin, type) and issubclass(origin, Mapping):
        return {"a": made(args[1], number, depth + 1, length)}
    if origin is not None and getattr(origin, "__name__", "") in ("Iterable", "Iterator", "Collection"):
        return [made(args[0], number, depth + 1, min(length, 4))] * length
    if isinstance(wanted, type) and issubclass(wanted, Enum):
        return next(iter(wanted))
    if isinstance(wanted, type) and dataclasses.is_dataclass(wanted):
        if wanted.__name__ in GIVEN:
            return GIVEN[wanted.__name__]()
        hints = _hints(wanted)
        return wanted(**{each.name: made(hints[each.name], number, depth + 1, length) for each in dataclasses.fields(wanted) if each.init})
    raise Skip


def calls(function: Callable[..., Any]) -> Iterator[tuple[str, dict[str, Any]]]:
    """Arguments to try: every number strange at once, then one argument at a time among plain ones."""
    hints = _hints(function)
    names = [name for name in inspect.signature(function).parameters if name in hints]
    for strange in STRANGE:
        yield f"all {strange!r:.12}", {name: (hints[name], strange) for name in names}
        for each in names:
            yield f"{each} {strange!r:.12}", {name: (hints[name], strange if name == each else PLAIN) for name in names}


LENGTHS = (0, 1, 2, 5000)


def by_length(function: Callable[..., Any]) -> Iterator[tuple[int, dict[str, Any]]]:
    """Return arguments of plain numbers with every sequence empty, short, or very long, without invalid ones."""
    hints = _hints(function)
    names = [name for name in inspect.signature(function).parameters if name in hints]
    for length in LENGTHS:
        with contextlib.suppress(Skip, BadInput):
            yield length, {name: made(hints[name], PLAIN, length=length) for name in names}


def impossible(value: Any, depth: int = 0) -> bool:
    """Return True if a result contains NaN."""
    if isinstance(value, float):
        return math.isnan(value)
    if depth > 5 or isinstance(value, str):
        return False
    if dataclasses.is_dataclass(value) and not isinstance(value, type):
        return any(impossible(getattr(value, each.name), depth + 1) for each in dataclasses.fields(value))
    if isinstance(value, Mapping):
        return any(impossible(each, depth + 1) for each in value.values())
    return any(impossible(each, depth + 1) for each in value) if isinstance(value, (tuple, list)) else False
