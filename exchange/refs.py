"""What the log points at by number, said by name in a file: a bolt, a seat, an oven. Numbers differ from shop to shop; names travel."""

from __future__ import annotations

import json
import re
from typing import Any

from engines.models import EngineCard
from shop.models import Blades, Chiller, Compound, Gauge, Heater, Press, Puller, PullIn, Splitter

PARTS = ("seats", "seals", "marks", "fitted")
SHELF = {
    "heater": ("heaters", Heater),
    "chiller": ("chillers", Chiller),
    "puller": ("pullers", Puller),
    "tool": ("pull-ins", PullIn),
    "press": ("presses", Press),
    "splitter": ("splitters", Splitter),
    "sealant": ("compounds", Compound),
    "kit": ("blades", Blades),
}
KINDS = dict([*SHELF.values(), ("gauges", Gauge)])
ASKS = (  # station, the ask with its number, what the number is of
    ("split", r"^([bg]-)(\d+)()$", "marks"),
    ("heat-and-drop", r"^((?:way|home)-[sc])(\d+)()$", "seats"),
    ("heat-and-drop", r"^((?:way|home)-f)(\d+)()$", "fitted"),
    ("heat-and-drop", r"^(f)(\d+)(-.+)$", "fitted"),
)
NAMED = re.compile(r"@\{([\w-]+)/([^{}]*)\}")


class Refs:
    """Numbers and names of one card's parts and of the shop's shelves."""

    def __init__(self, card: EngineCard, shelf: dict[tuple[str, str], int] | None = None) -> None:
        """With `shelf` the equipment is that of a file, by kind and name; else the shop's own."""
        self.names: dict[tuple[str, str], str] = {}
        self.numbers: dict[tuple[str, str], str] = {}
        for kind in PARTS:
            for each in getattr(card, kind).all():
                self._know(kind, each.pk, each.name)
        for (kind, name), pk in (shelf or {}).items():
            self._know(kind, pk, name)
        for kind, model in KINDS.items() if shelf is None else ():
            for pk, name in model._default_manager.values_list("pk", "name"):
                self._know(kind, pk, name)

    def _know(self, kind: str, pk: int, name: str) -> None:
        self.names[kind, str(pk)] = f"@{{{kind}/{name}}}"
        self.numbers[kind, name] = str(pk)

    def _name(self, kind: str, number: str) -> str:
        return self.names.get((kind, number), number)

    # out

    def ask_out(self, station: str, ask: str) -> str:
        for key, pattern, kind in ASKS:
            found = re.match(pattern, ask) if key == station else None
            if found:
                return f"{found[1]}{self._name(kind, found[2])}{found[3]}"
        return ask

    def _key_out(self, station: str, key: str) -> str:
        found = re.match(r"^(part-)?([scf])(\d+)$", key)
        if not found or station != "heat-and-drop":
            return key
        kind = "fitted" if found[2] == "f" else "seats"
        return f"{found[1] or ''}{found[2]}{self._name(kind, found[3])}"

    def choices_out(self, station: str, choices: dict[str, Any]) -> dict[str, Any]:
        """Choices with every number said by name."""
        out: dict[str, Any] = {}
        for key, value in choices.items():
            named = self._key_out(station, key)
            if key in SHELF and str(value).isdecimal():
                out[named] = self._name(SHELF[key][0], str(value))
            elif key.startswith("gauge-") or key == "means":
                number, colon, rest = str(value).partition(":")
                out[named] = f"{self._name('gauges', number)}{colon}{rest}"
            elif key.startswith("part-"):
                word, dash, number = str(value).partition("-")
                out[named] = f"{word}{dash}{self._name('chillers', number)}"
            elif key in ("part", "tab"):
                out[named] = self._key_out(station, str(value))
            elif key == "skipped":
                out[named] = [self.ask_out(station, str(each)) for each in value]
            elif key == "times":
                out[named] = {self.ask_out(station, ask): times for ask, times in value.items()}
            elif key == "cold":
                out[named] = {heat: {self._key_out(station, part): at for part, at in parts.items()} for heat, parts in value.items()}
            elif key == "turns" and station == "heat-and-drop":
                continue  # only while a heat runs, and by numbers of readings
            else:
                out[named] = value
        return out

    # in

    def choices_in(self, choices: dict[str, Any]) -> tuple[dict[str, Any], list[str]]:
        """Choices with names turned into numbers of what is here; and what could not be brought along, in words.

        A bare number of equipment is another shop's own and means nothing here.
        """
        left, kept = [], {}
        for key, value in choices.items():
            number = str(value).partition(":")[0]
            bare = key in SHELF or key.startswith("gauge-") or key == "means"
            if bare and number.isdecimal():
                left.append(f"{key.replace('-', ' ')}: number {number[:12]} of another shop's shelves.")
                continue
            kept[key] = value
        found = self.into(kept)
        named = {kind: name for kind, name in NAMED.findall(json.dumps(kept, ensure_ascii=False)) if (kind, name) not in self.numbers}
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
        """Names turned into numbers wherever they stand; what names something that is not here is left out."""
        if isinstance(value, str):
            return self._back(value)
        if isinstance(value, list):
            return [found for each in value if (found := self.into(each)) is not None]
        if isinstance(value, dict):
            pairs = [(self._back(str(key)), self.into(each), each) for key, each in value.items()]
            return {key: new for key, new, old in pairs if key is not None and (new is not None or old is None)}
        return value
