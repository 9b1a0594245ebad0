"""End float: the stack from case to case, how sure it is, the shims that put it right, and the shim measured again."""

from __future__ import annotations

import re
from functools import cached_property
from typing import Any

from django.utils.safestring import SafeString

from engines.models import Spec
from engines.parts import JOINT
from engines.properties import Property
from engines.slots import Slot
from jobs import log
from jobs.facts import Finding
from shop.models import Blades
from shop.shelves import shelves
from shopmath import __version__ as core_version
from shopmath.checks import BadInput
from shopmath.endfloat import Dimension, Float, ShimChoice, TableChoice, choose_shims, from_table, stack
from shopmath.quantity import Quantity
from shopmath.verdict import Call, call, combined, too_warm_to_judge
from stations.base import Action, Ask, Caution, Method, Option, Plate, Scale, Station, Trace, Work
from stations.end_float import asks, drawing

HOW = (Option("stack", "from the stack"), Option("table", "by the manual's table"))
SUM = (Option("rss", "root sum of squares", "usual"), Option("worst", "all against it", "cautious"))
BOUNDS = {"left": (0.5, 300), "right": (0.5, 300), "gasket": (0, 5), "crank": (5, 500), "fitted": (0, 10), "low": (0, 5), "high": (0, 5)}
ROW = re.compile(r"[\d.,]+(?:\s*(?:-|–|to)\s*[\d.,]+)?\s*[:=]?\s+[\d.,]+")


class EndFloat(Work):
    """One stack."""

    @property
    def how(self) -> str:
        return "table" if self.choices.get("how") == "table" else "stack"

    # the stack

    @cached_property
    def links(self) -> list[Dimension] | None:
        """The stack's links as measured; None until all that are needed are in."""
        found = []
        for key, words, _, sign, left_out in asks.LINKS:
            value = self.mean(key)
            if value is None and (not left_out or key not in self.skipped()):
                return None
            if value is not None:
                found.append(Dimension(words, value, self.unsure(key), sign))
        return found

    @cached_property
    def free(self) -> Float | None:
        return stack(self.links) if self.links else None

    @property
    def doubt_mm(self) -> float:
        if self.free is None:
            return 0.0
        return self.free.worst_mm if self.choices.get("sum") == "worst" else self.free.rss_mm

    @cached_property
    def limit(self) -> Spec | None:
        return self.spec(Property.END_FLOAT)

    @cached_property
    def limits(self) -> tuple[float, float] | None:
        """What the float should be: the card's, else as typed from the manual."""
        if self.limit and self.limit.low is not None and self.limit.high is not None:
            return self.limit.low, self.limit.high
        low, high = self.value("low"), self.value("high")
        return (low, high) if low is not None and high is not None and low <= high else None

    @cached_property
    def kit(self) -> Blades | None:
        return next((each for each in shelves(self.shop).blades if each.kind == Blades.Kind.SHIM and each.sizes_mm), None)

    @cached_property
    def choice(self) -> tuple[ShimChoice | None, str]:
        """The shims to fit, or why there are none."""
        if self.free is None or self.limits is None:
            return None, ""
        if self.kit is None:
            return None, "No shim kit on the shelf: put its thicknesses there first."
        try:
            return choose_shims(self.free.value_mm, *self.limits, self.kit.sizes_mm, 2, self.doubt_mm), ""
        except BadInput as error:
            return None, error.message

    @cached_property
    def table(self) -> tuple[TableChoice | None, str]:
        """What the manual's table says of the distance."""
        distance, said = self.mean("distance"), self.said("table")
        if distance is None or not said:
            return None, ""
        try:
            return from_table(distance, read_table(said)), ""
        except BadInput as error:
            return None, error.message

    @property
    def pieces(self) -> tuple[float, ...]:
        """Shims to be fitted: chosen from the kit, or taken from the table."""
        if self.how == "stack":
            return self.choice[0].shims_mm if self.choice[0] else ()
        found = self.table[0]
        if found is None:
            return ()
        picked = self.said("row")
        row = next(
            (row for row in found.rows if f"{row.shim_mm:g}" == picked.replace("_", ".")), found.rows[0] if not found.between else None
        )
        return (row.shim_mm,) if row else ()

    @property
    def measured(self) -> list[float]:
        return [value for index in range(len(self.pieces)) if (value := self.mean(f"shim-{index + 1}")) is not None]

    @cached_property
    def predicted(self) -> tuple[float, float] | None:
        """Float with the shims as measured, and how unsure, mm."""
        base = self.free.value_mm if self.how == "stack" and self.free else self.mean("distance")
        if base is None or len(self.measured) < len(self.pieces) or not self.chosen_known:
            return None
        doubts = [self.unsure(f"shim-{index + 1}") for index in range(len(self.pieces))]
        first = self.doubt_mm if self.how == "stack" else self.unsure("distance")
        return base - sum(self.measured), combined(first, *doubts)

    @property
    def chosen_known(self) -> bool:
        return self.choice[0] is not None if self.how == "stack" else bool(self.pieces)

    @property
    def too_warm(self) -> bool:
        warm = self.value("warm")
        return warm is not None and too_warm_to_judge(warm, 20.0)

    @cached_property
    def call_on_float(self) -> Call | None:
        if self.predicted is None or self.limits is None or self.too_warm:
            return None
        return call(self.predicted[0], *self.limits, self.predicted[1], unit="mm", digits=3)

    # the skeleton

    def asks(self) -> list[Ask]:
        return asks.asks(self)

    def check(self, ask: Ask, quantity: Quantity) -> None:
        low, high = (0.005, 10) if ask.key.startswith("shim") else BOUNDS.get(ask.key, (float("-inf"), float("inf")))
        if not low <= quantity.canonical <= high:
            raise BadInput(ask.key, f"{ask.words}: {quantity.canonical:g} is not believable. Check the unit and measure again.")
        if ask.key.startswith("shim") and abs(quantity.canonical - self.pieces[int(ask.key[-1]) - 1]) > 0.06:
            piece = self.pieces[int(ask.key[-1]) - 1]
            raise BadInput(ask.key, f"{quantity.canonical:.3f} is not the shim of {piece:g}: look at the bag, or at what sticks to it.")

    def read(self, ask: Ask, text: str) -> Quantity:
        if ask.key == "table":
            read_table(text)
        return super().read(ask, text)

    def plate(self) -> Plate:
        if self.signed:
            return self.signed_plate()
        ask = self.next_ask
        if self.too_warm:
            return Plate(
                "too_close",
                "Too warm to judge",
                "More than 15 K from the room: the case is longer than it will be.",
                "Let it come to the room.",
            )
        if self.call_on_float and not (ask and ask.key.startswith("shim")):
            return self._judged(self.call_on_float)
        trouble = self.choice[1] if self.how == "stack" else self.table[1]
        if trouble:
            return Plate("stop", "No such shim", trouble, "Another shim, or measure the stack again before anything is bought.")
        if self.pieces and self.limits:
            said = " + ".join(f"{piece:g}" for piece in self.pieces)
            left = self.choice[0].float_mm if self.choice[0] else (self.mean("distance") or 0.0) - sum(self.pieces)
            whose = "kit" if self.how == "stack" else "table"
            line = f"{said} of the {whose} leaves {left:.3f} mm in {self.limits[0]:g} to {self.limits[1]:g}."
            move = f"{ask.words}." if ask else "Measure what goes in."
            return Plate("wait", "Measure the shim", line, move, scale=self._scale(left, self.doubt_mm))
        move = f"{ask.words}." if ask else "Give the limits."
        return Plate("wait", "Stack it up", "Each link counts, and so does how sure it is.", move)

    def _scale(self, value: float, doubt: float) -> Scale | None:
        return Scale(value, doubt, *self.limits, "mm", 3) if self.limits else None

    def _judged(self, found: Call) -> Plate:
        assert self.predicted is not None
        value, doubt = self.predicted
        scale, detail = self._scale(value, doubt), f"± {doubt:.3f} mm; by dial again when the case is closed."
        if found.state == "in":
            fit = " + ".join(f"{piece:g}" for piece in self.pieces) or "no shim"
            return Plate("in", f"Fit {fit}", found.reason, "Shim clean, on its side; then close and measure by dial.", detail, scale)
        if found.state == "out":
            return Plate("out", "Float is out", found.reason, "Another shim: the one measured is not what its bag says.", detail, scale)
        return Plate(
            "too_close",
            "Too close to call",
            found.reason,
            "Measure each link once more, or take the case's depth with a finer gauge.",
            detail,
            scale,
        )

    def drawing(self, at_s: float | None = None) -> SafeString:
        return drawing.draw(self)

    def checks(self) -> tuple[Caution, ...]:
        return (
            Caution("home", "Bearings home in their seats, no gap to the shoulder; faces clean, no old gasket."),
            Caution("zero", "Gauges zeroed on what they stand on."),
        )

    def cautions(self) -> tuple[Caution, ...]:
        return () if self.signed else (Caution("manual", "The manual's method and its side for the shim come before this one."),)

    def methods(self) -> tuple[Method, ...]:
        if self.signed:
            return ()
        found = [Method("how", "Float found", HOW, self.how)]
        if self.how == "stack":
            found.append(Method("sum", "Doubt added up", SUM, "worst" if self.choices.get("sum") == "worst" else "rss"))
        return (*found, *self.gauge_methods())

    def traces(self) -> tuple[Trace, ...]:
        rows = [Trace(each.name, f"{each.sign * each.value_mm:+.3f}", f"± {each.uncertainty_mm:.3f} mm") for each in self.links or ()]
        if self.free:
            doubt = f"± {self.free.rss_mm:.3f} by squares, {self.free.worst_mm:.3f} all against it"
            rows.append(Trace("Float without shims", f"{self.free.value_mm:.3f} mm", doubt))
        if self.limits:
            source = self.limit.origin if self.limit else "as typed"
            rows.append(Trace("Float wanted", f"{self.limits[0]:g} to {self.limits[1]:g}", source))
        if self.kit and self.how == "stack":
            rows.append(Trace("Kit", self.kit.name, " ".join(f"{size:g}" for size in sorted(self.kit.sizes_mm))))
        if self.table[0]:
            for row, left in zip(self.table[0].rows, self.table[0].floats_mm, strict=True):
                rows.append(Trace(f"Row {row.from_mm:g} to {row.to_mm:g}", f"{row.shim_mm:g} mm", f"leaves {left:.3f}"))
        return tuple(rows)

    def actions(self) -> tuple[Action, ...]:
        if self.signed or self.call_on_float is None:
            return ()
        close = self.call_on_float.state == "too_close" and self.how == "stack" and not self.open_asks()
        more = [Action("more", "Measure each link once more", "more", True)] if close else []
        return (*more, Action("sign", "Sign it", "sign", not self.open_asks() and not close, self.may_sign()))

    def act(self, key: str) -> None:
        entry = self.opened(key)
        if key == "more":
            times = {each[0]: self.wanted_times(each[0]) + 1 for each in asks.LINKS if self.values(each[0])}
            log.choose(entry, times=times)
        if key == "sign":
            self.sign()

    def may_sign(self) -> str:
        return self.still_to_say() or ("" if self.call_on_float else "Measure the stack and its shims first.")

    def findings(self) -> list[Finding]:
        """The gasket that the float was worked out with, crushed; none is a thickness of 0."""
        if self.how != "stack" or self.predicted is None:
            return []
        gasket = self.mean("gasket")
        uncertainty = self.unsure("gasket") if gasket is not None else None
        return [Finding(Slot(JOINT, Property.GASKET_THICKNESS), gasket or 0.0, uncertainty=uncertainty, resolution=0.01)]

    def result(self) -> dict[str, Any]:
        return {
            "schema": "end-float/1",
            "core_version": core_version,
            "how": self.how,
            "free_mm": round(self.free.value_mm, 4) if self.free else None,
            "shims_mm": [round(value, 4) for value in self.measured],
            "side": self.said("side"),
            "float_mm": round(self.predicted[0], 4) if self.predicted else None,
            "float_u_mm": round(self.predicted[1], 4) if self.predicted else None,
            "limits_mm": list(self.limits) if self.limits else None,
        }


def read_table(text: str) -> list[tuple[float, ...]]:
    """Rows of a manual's table as typed: `1.0 0.9; 1.1 1.0` or `1.0-1.1 0.9; 1.1-1.2 1.0`, mm."""
    rows = []
    for part in (each.strip() for each in re.split(r"[;\n]", text)):
        if not part:
            continue
        if not ROW.fullmatch(part):
            raise BadInput("table", f"{part!r} is no row: a distance and a shim, such as 1.0-1.1 0.9, with ; between rows.")
        numbers = [float(number.replace(",", ".")) for number in re.findall(r"\d*[.,]?\d+", part)]
        rows.append(tuple(numbers))
    from_table(rows[0][0] if rows else 0.0, rows)  # refuses what falls or is empty
    return rows


STATION = Station("end-float", "End float", EndFloat, drawn=True)
