"""References of an entry's choices to equipment, by name in a file: an oven, a gauge.

Numbers differ between shops. Each station's definition lists which choices refer to equipment.
"""

from __future__ import annotations

import json
import re
from collections.abc import Iterable, Mapping
from typing import Any

from django.db.models import Value

from stator.engines.models import EngineCard
from stator.shop.models import Blades, Chiller, Compound, Gauge, Heater, Press, Puller, PullIn, Splitter
from stator.workbench.registry import STATION_BY_KEY

KINDS = {  # shelves, as a file calls them
    "heaters": Heater,
    "chillers": Chiller,
    "pullers": Puller,
    "pull-ins": PullIn,
    "presses": Press,
    "splitters": Splitter,
    "compounds": Compound,
    "blades": Blades,
    "gauges": Gauge,
}
GAUGE = "gauge-"  # the choice of a gauge, by its kind
NAMED = re.compile(r"@\{([\w-]+)/([^{}]*)\}")


def kind_of(station: str, key: str) -> str:
    """Return the kind of equipment that a choice refers to; empty if it refers to none.

    A name that ends in a dash applies to all names that begin with it.
    """
    if key.startswith(GAUGE):
        return "gauges"
    named: Mapping[str, str] = STATION_BY_KEY[station].equipment if station in STATION_BY_KEY else {}
    found = next((shelf for name, shelf in named.items() if key == name or (name.endswith("-") and key.startswith(name))), "")
    return found.replace("_", "-")


def _on_shelves() -> Iterable[tuple[str, int, str]]:
    """Everything that the shop has or had, by kind, number and name."""
    first, *rest = (
        model._default_manager.order_by().annotate(shelf=Value(kind)).values_list("shelf", "pk", "name") for kind, model in KINDS.items()
    )
    return first.union(*rest, all=True)


class ReferenceNames:
    """Numbers and names of the shop's equipment."""

    def __init__(self, card: EngineCard, shelf: dict[tuple[str, str], int] | None = None) -> None:
        """With `shelf` the equipment is that of a file, by kind and name; else the shop's own."""
        self.card = card
        self.names: dict[tuple[str, str], str] = {}
        self.numbers: dict[tuple[str, str], str] = {}
        for (kind, name), pk in (shelf or {}).items():
            self._know(kind, pk, name)
        for kind, pk, name in _on_shelves() if shelf is None else ():
            self._know(kind, pk, name)

    def _know(self, kind: str, pk: int, name: str) -> None:
        self.names[kind, str(pk)] = f"@{{{kind}/{name}}}"
        self.numbers[kind, name] = str(pk)

    def _name(self, kind: str, number: str) -> str:
        return self.names.get((kind, number), number)

    # out

    def choices_out(self, station: str, choices: dict[str, Any]) -> dict[str, Any]:
        """Return choices with every number replaced by the name of the equipment."""
        definition = STATION_BY_KEY.get(station)
        passing = definition.passing if definition else frozenset()
        return {key: self._said(station, key, value) for key, value in choices.items() if key not in passing}

    def _said(self, station: str, key: str, value: Any) -> Any:
        kind = kind_of(station, key)
        if not kind:
            return value
        number = re.search(r"\d+", str(value))
        return f"{value[: number.start()]}{self._name(kind, number[0])}{value[number.end() :]}" if number else value

    # in

    def choices_in(self, station: str, choices: dict[str, Any]) -> tuple[dict[str, Any], list[str]]:
        """Return choices with names replaced by numbers of this shop's equipment, and messages about what is not here.

        A number of another shop's equipment means nothing here.
        """
        left, saved = [], {}
        for key, value in choices.items():
            bare = re.search(r"(?:^|-)(\d+)(?::|$)", str(value)) if kind_of(station, key) else None
            if bare:
                left.append(f"{key.replace('-', ' ')}: number {bare[1][:12]} of another shop's shelves.")
                continue
            saved[key] = value
        found = self.into(saved)
        named = {kind: name for kind, name in NAMED.findall(json.dumps(saved, ensure_ascii=False)) if (kind, name) not in self.numbers}
        left += [f"{name} is not described in the file ({kind})." for kind, name in named.items()]
        return found, left

    def _back(self, text: str) -> str | None:
        """A text with its names turned into numbers again; None when one of them is not here."""
        missing = False

        def number(found: re.Match[str]) -> str:
            nonlocal missing
            pk = self.numbers.get((found[1], found[2]))
            missing = missing or pk is None
            return pk or ""

        back = NAMED.sub(number, text)
        return None if missing else back

    def into(self, value: Any) -> Any:
        """Return a value with names replaced by numbers; names of equipment that is not here are omitted."""
        if isinstance(value, str):
            return self._back(value)
        if isinstance(value, list):
            return [found for each in value if (found := self.into(each)) is not None]
        if isinstance(value, dict):
            pairs = [(self._back(str(key)), self.into(each), each) for key, each in value.items()]
            return {key: new for key, new, old in pairs if key is not None and (new is not None or old is None)}
        return value
