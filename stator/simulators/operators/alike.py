"""Operators that fit three seals: by their sizes and four depths, or unmeasured."""

from __future__ import annotations

from shopmath.seals import CLOCKS, Candidate, identify_seal, seat_of_seal
from stator.simulators.seals import DEPTH_MM, LETTERS, PLACES, SealSet

CANDIDATES = [Candidate(name, shaft, bore) for name, (shaft, bore) in PLACES.items()]
SURE_MM = 0.05


def belongs(part: SealSet, letter: str) -> str:
    """Return where a seal belongs, by its sizes."""
    part.pull(f"take-{letter}")
    sizes = []
    for what in ("shaft", "bore"):
        seen = []
        for _ in range(5):
            part.pull(what)
            seen.append(part.shown)
        sizes.append(sum(seen) / len(seen))
    return identify_seal(sizes[0], sizes[1], CANDIDATES)[0].name


def by_the_sizes(part: SealSet) -> int:
    """Fit the seals by measured sizes and depths; return the number of wrong places."""
    for letter in LETTERS:
        place = belongs(part, letter)
        part.pull(f"place-{place}")
        if not part.inside[letter]:
            part.pull("round")
        part.pull("drive")
        for _ in range(12):
            depths = []
            for clock in CLOCKS:
                part.pull(f"depth-{clock}")
                depths.append(part.shown)
            seat = seat_of_seal(depths, PLACES[place][1], DEPTH_MM, SURE_MM)
            if seat.lean_mm <= 0.12:
                break
            part.pull(f"tap-{CLOCKS[depths.index(min(depths))]}")
    return part.wrong


def as_they_come(part: SealSet) -> int:
    """Fit each seal into the first place that it enters; return the number of wrong places."""
    for letter in LETTERS:
        part.pull(f"take-{letter}")
        for place in PLACES:
            part.pull(f"place-{place}")
            if place not in part.seated and part.in_hand:
                part.pull("drive")
    return part.wrong
