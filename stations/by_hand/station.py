"""Work that Stator does not compute: what was done, in the mechanic's own words, signed like everything else."""

from __future__ import annotations

from typing import Any

from django.utils.safestring import SafeString

from stations.base import AS_SIGNED, Action, Ask, Caution, Plate, Station, Work
from ui.svg import Sheet, papers, wrapped

ENDS = {
    "true": "Gauge lifted and crank off its supports before any blow.",
    "seals": "Depth at four places; the lip faces what is kept in.",
}


class ByHand(Work):
    """Notes, each signed with who and when."""

    def asks(self) -> list[Ask]:
        return [Ask("note", "What was done, what was found?", self.station.name, "words", "", repeats=True)]

    def plate(self) -> Plate:
        notes = self.live("note", every_attempt=True)
        if self.signed:
            return self.signed_plate()
        if not notes:
            return Plate(
                "wait",
                "By hand",
                "Stator does not compute this station yet.",
                f"{ENDS.get(self.station.key, '')} Write what was done.".strip(),
            )
        return Plate(
            "wait",
            "Written down",
            f"{len(notes)} note{'s' if len(notes) > 1 else ''}, not signed.",
            "Add to it, or sign it.",
            standing=notes[-1].text,
        )

    def verdict(self) -> Plate:
        """Nothing is judged here: the last note stands for the entry."""
        return Plate("in", "Done by hand", self.live("note", every_attempt=True)[-1].text, "")

    def drawing(self, at_s: float | None = None) -> SafeString:
        notes = [reading.text for reading in self.live("note", every_attempt=True)]
        sizes = {"wide": (760, 62), "narrow": (430, 38)}
        return papers({name: _page(self.station.name, notes, *sizes[name]) for name in self.papers})

    def cautions(self) -> tuple[Caution, ...]:
        return (Caution("manual", "The engine's manual comes first; write down where you left it."),)

    def actions(self) -> tuple[Action, ...]:
        return () if self.signed else (Action("sign", "Sign it", "sign", bool(self.readings), self.may_sign()),)

    def act(self, key: str) -> None:
        self.opened(key)
        if key == "sign":
            self.sign()

    def result(self) -> dict[str, Any]:
        return {"schema": "by-hand/1", "notes": [reading.text for reading in self.live("note", every_attempt=True)]}


def _page(name: str, notes: list[str], width: int, letters: int) -> SafeString:
    """Ruled paper with the notes on it."""
    sheet = Sheet(width, 560, f"{name}, notes", ". ".join(notes) or "No notes yet.", "wide" if width > 500 else "narrow")
    margin = 60 if width > 500 else 12
    for index in range(10):
        sheet.line((margin, 90 + 46 * index), (width - margin, 90 + 46 * index), "rule")
    lines = [line for text in notes for line in wrapped(text, letters)] or wrapped(
        "What was done, what was found, what was put where.", letters
    )
    for index, line in enumerate(lines[-10:]):
        sheet.text((margin, 80 + 46 * index), line, "note" if notes else "note quiet")
    return sheet.render()


def by_hand(key: str, name: str) -> Station:
    return Station(key, name, ByHand, built=False)


AS_SIGNED["by-hand/1"] = ByHand  # entries of stations that were built only later
