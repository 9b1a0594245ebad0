"""Meaning of the marking on a bearing's ring."""

from __future__ import annotations

import re
from dataclasses import dataclass, field
from functools import cache, lru_cache

from shopmath.bearings.limits import bore_limits_um, outside_limits_um, radial_clearance_um
from shopmath.iso286 import Limits
from shopmath.notation import three_sizes
from shopmath.tables import number, rows
from shopmath.validation import BadInput, gettext_noop

# suffix -> (words, what it settles: a seal, or trait:value)
_SUFFIXES: dict[str, tuple[str, str]] = {
    "2RS": ("sealed both sides", "sealed"),
    "2RS1": ("sealed both sides", "sealed"),
    "RS": ("sealed one side", "sealed"),
    "RS1": ("sealed one side", "sealed"),
    **dict.fromkeys(("2RSH", "2RSR", "DDU", "LLU", "UU"), ("sealed both sides", "sealed")),
    **dict.fromkeys(("LLB", "VV", "2NSE"), ("non-contact seals both sides", "sealed")),
    "ZZ": ("shielded both sides", "shielded"),
    "2Z": ("shielded both sides", "shielded"),
    "Z": ("shielded one side", "shielded"),
    "TN": ("polymer cage", "cage:polymer"),
    "TN9": ("polymer cage", "cage:polymer"),
    "TNG": ("polymer cage", "cage:polymer"),
    "P": ("polymer cage", "cage:polymer"),
    "TVP": ("polymer cage", "cage:polymer"),
    "M": ("brass cage", "cage:brass"),
    "MA": ("brass cage", "cage:brass"),
    "J": ("steel cage", "cage:steel"),
    "E": ("reinforced design", ""),
    "EC": ("reinforced design", ""),
    "N": ("snap ring groove", ""),
    "NR": ("snap ring groove with its ring", ""),
    "P63": ("tolerance class 6, clearance more than normal", "class:6"),
    "P6": ("tolerance class 6", "class:6"),
    "P5": ("tolerance class 5, taken as 6", "class:6"),
    "P4": ("tolerance class 4, taken as 6", "class:6"),
    "S0": ("rings stable to 150 °C", "stable:150"),
    "S1": ("rings stable to 200 °C", "stable:200"),
}
_GROUP_IN = {"P63": "3"}  # a suffix that states a clearance group beside something else
_CLEARANCES = {"C2": "2", "CN": "N", "C0": "N", "C3": "3", "C4": "4", "C5": "5"}
_CLEARANCE_WORDS = {"2": "less than normal", "N": "normal", "3": "more than normal", "4": "more than C3", "5": "more than C4"}


_ENDS_IN_GROUP = re.compile(r"(.*?)(C[2345N0])?")  # a clearance group is read even behind what is not understood


@dataclass(frozen=True)
class Bearing:
    """A bearing as its marking describes it.

    `understood` and `not_understood` say which parts of the marking were read.

    `clearance_group` is empty, and `seal` is `unknown`, where the marking states none and something in it was not understood.
    """

    designation: str
    bore_mm: float
    outside_mm: float
    width_mm: float
    mass_kg: float | None
    clearance_group: str
    understood: tuple[str, ...]
    not_understood: tuple[str, ...] = ()
    kind: str = "ball"
    seal: str = "open"
    cage: str = ""
    tolerance_class: str = "Normal"
    stable_to_c: float = 120.0
    source: str = field(default="ISO 15", compare=False)

    @property
    def is_drawn_cup(self) -> bool:
        """Return True if it is a drawn cup needle bearing, which has its size only in its seat."""
        return self.kind == "needle_shell"

    @property
    def bore_limits_um(self) -> Limits:
        return bore_limits_um(self.bore_mm, self.tolerance_class)

    @property
    def outside_limits_um(self) -> Limits:
        return outside_limits_um(self.outside_mm, self.tolerance_class)

    @property
    def clearance_um(self) -> Limits:
        if not self.clearance_group:
            strange = ", ".join(self.not_understood)
            raise BadInput(
                "clearance_group",
                gettext_noop("{strange} was not understood: what clearance it has is not known."),
                "clearance_unknown",
                strange=strange,
            )
        return radial_clearance_um(self.bore_mm, self.clearance_group, self.kind)


_KINDS = {  # as the second table has it -> what its clearance and its limits go by
    "ball": "ball",
    "ball, inch": "inch_ball",
    "ball, two rows": "two_row_ball",
    "angular contact": "angular_contact",
    "angular contact, two rows": "angular_contact",
    "cylindrical roller": "cylindrical_roller",
    "needle shell, open ends": "needle_shell",
    "needle shell, closed end": "needle_shell",
}
_SHUT_WIDE = re.compile(r"sealed or shielded: ([\d.]+) wide")  # an inch or miniature bearing is wider with seals or shields in


@cache
def _dimensions() -> dict[str, dict[str, str]]:
    found: dict[str, dict[str, str]] = {}
    for row in rows("bearing_dims"):
        kind = "cylindrical roller" if row["series"].startswith("N") else "ball"
        for name in (row["designation"], *row["same_size_designation"].split()):
            found.setdefault(name.upper(), {**row, "kind": kind, "note": ""})
    for row in rows("bearing_dims_more"):
        found.setdefault(row["designation"].upper(), {**row, "mass_typical_kg": ""})
    return found


def _suffixes(rest: str) -> list[str]:
    """Split what follows the number: `-2RS C3` and `ECP` alike, longest known piece first."""
    known = sorted((*_SUFFIXES, *_CLEARANCES), key=len, reverse=True)
    pieces: list[str] = []
    for part in re.split(r"[\s/\-.,]+", rest):
        while part:
            piece = next((name for name in known if part.startswith(name)), "")
            if not piece:
                strange, group = _ENDS_IN_GROUP.fullmatch(part).groups()  # type: ignore[union-attr]
                pieces += [each for each in (strange, group) if each]
                break
            pieces.append(piece)
            part = part[len(piece) :]
    return pieces


_MEASURED = re.compile(r"[\d.,]+\s*[X×*]\s*[\d.,]+\s*[X×*]\s*[\d.,]+")


def _measured(designation: str) -> Bearing:
    """A bearing of which only its sizes are known."""
    bore, outside, width = three_sizes(designation)
    words = f"measured: {bore:g} × {outside:g} × {width:g} mm"
    unread = ("clearance and seal: nothing stamped was typed",)
    return Bearing(" ".join(designation.split()), bore, outside, width, None, "", (words,), unread, seal="unknown", source="measured")


@lru_cache(512)
def lookup(designation: str) -> Bearing:
    """Parse a bearing's marking.

    Parameters
    ----------
    designation : str
        As stamped on the ring: size number, then what follows (`6205 C3`, `6204-2RS`, `NU205 ECP C3`); or bore, outside and width as
        measured (`25x52x15`), of which clearance and seal are then not known.

    Returns
    -------
    Bearing
        Sizes mm, mass kg (open bearing, typical; None where the table has none), clearance group, what was and was not understood.

    Raises
    ------
    BadInput
        No size number of the table in it; two clearance groups. The message says what was understood and offers to measure.

    Source
    ------
    ISO 15 (dimension plan); masses typical of catalogues.

    Examples
    --------
    >>> found = lookup("6205-2RS C3")
    >>> found.bore_mm, found.outside_mm, found.width_mm, found.clearance_group
    (25.0, 52.0, 15.0, '3')
    >>> found.understood
    ('6205: 25 × 52 × 15 mm', '2RS: sealed both sides', 'C3: clearance more than normal')
    >>> lookup("25x52x15").outside_mm, lookup("R4 ZZ").width_mm, lookup("HK0808").kind
    (52.0, 4.978, 'needle_shell')
    >>> lookup("6205T1XC3").clearance_group, lookup("6205 XQ7").clearance_group, lookup("6205 XQ7").seal
    ('3', '', 'unknown')
    """
    text = " ".join(str(designation).upper().split())
    if _MEASURED.fullmatch(text):
        return _measured(str(designation))
    sizes = sorted((name for name in _dimensions() if name in text), key=len, reverse=True)
    size = next((name for name in sizes if re.search(rf"(?<![0-9A-Z]){re.escape(name)}(?!\d)", text)), None)
    before, after = text.split(size, 1) if size else (text, "")
    understood: list[str] = []
    unknown = [word for word in before.split() if size]
    traits: dict[str, str] = {}
    groups: list[str] = []
    for piece in _suffixes(after if size else " ".join(text.split()[1:])):
        if piece in _CLEARANCES:
            groups.append(_CLEARANCES[piece])
            understood.append(f"{piece}: clearance {_CLEARANCE_WORDS[groups[-1]]}")
        elif piece in _SUFFIXES:
            meaning, trait = _SUFFIXES[piece]
            understood.append(f"{piece}: {meaning}")
            groups += [_GROUP_IN[piece]] if piece in _GROUP_IN else []
            name, _, value = trait.partition(":")
            traits[name if value else "seal"] = value or name or traits.get("seal", "")
        else:
            unknown.append(piece)
    if size is None:
        known = f" Understood: {'; '.join(understood)}." if understood else ""
        raise BadInput(
            "designation",
            gettext_noop("{strip!r} has no bearing size known here.{known} Measure bore, outside and width and type those instead."),
            strip=str(designation).strip(),
            known=known,
        )
    if len(set(groups)) > 1:
        raise BadInput(
            "designation",
            gettext_noop("{text} states two clearance groups: {groups}. Read the ring again."),
            "two_groups",
            text=text,
            groups=" and ".join(groups),
        )
    row = _dimensions()[size]
    bore, outside, width = float(row["d_mm"]), float(row["D_mm"]), float(row["B_mm"])
    seal = traits.get("seal") or ("sealed" if row["series"] in ("622", "623") else "unknown" if unknown else "open")
    shut = _SHUT_WIDE.search(row["note"])
    width = float(shut[1]) if shut and seal in ("sealed", "shielded") else width
    remarks = [row["note"]] if row["note"] and not shut else []
    if row["confidence"] == "medium" and not row["mass_typical_kg"]:
        remarks.append("one source only: check it against the part")
    return Bearing(
        designation=" ".join(str(designation).split()),
        bore_mm=bore,
        outside_mm=outside,
        width_mm=width,
        mass_kg=number(row["mass_typical_kg"]),
        clearance_group=groups[0] if groups else "" if unknown else "N",
        understood=(f"{size}: {bore:g} × {outside:g} × {width:g} mm", *remarks, *understood),
        not_understood=tuple(unknown),
        kind=_KINDS[row["kind"]],
        seal=seal,
        cage=traits.get("cage", ""),
        tolerance_class=traits.get("class", "Normal"),
        stable_to_c=float(traits.get("stable", 120)),
        source=row["source"],
    )
