"""Inspect: what you have before anything is decided. Part by part; each figure against its spec, or kept where none is known."""

from __future__ import annotations

from functools import cached_property
from typing import Any

from django.utils.safestring import SafeString

from engines.fits import bearing_of, nominal_of
from engines.models import Seat
from engines.properties import Property
from engines.slots import Slot
from jobs import log
from jobs.facts import Finding
from jobs.models import Reading
from shop.models import Compound
from shop.shelves import shelves
from shopmath import __version__ as core_version
from shopmath.balance import balance_factor, hung_for_factor_g
from shopmath.bearings import Bearing, lookup
from shopmath.checks import BadInput
from shopmath.form import Mend, mends
from shopmath.quantity import Quantity
from shopmath.verdict import severity, what_settles
from stations.base import Action, Ask, Caution, Method, Option, Plate, Station, Told, Trace, Work
from stations.inspect import asks, drawing, figures, plates
from stations.inspect.figures import Figure
from stations.pieces import between


class Inspect(Work):
    """One crank and its seats."""

    # the parts

    @cached_property
    def seats(self) -> list[Seat]:
        found = list(self.job.card.seats.all())
        for seat in found:
            seat.card = self.job.card
        return found

    def parts(self) -> list[tuple[str, str]]:
        found = [("crank", "Crank"), *((f"s{seat.pk}", seat.name) for seat in self.seats)]
        return [*found, ("masses", "Balance factor")] if self.said("masses") == "other" else found

    @property
    def part(self) -> str:
        chosen = str(self.choices.get("part", ""))
        known = ["crank", *(f"s{seat.pk}" for seat in self.seats), "masses"]
        return chosen if chosen in known else "crank"

    def seat_in_hand(self) -> Seat | None:
        return next((seat for seat in self.seats if f"s{seat.pk}" == self.part), None)

    def next_part(self) -> tuple[str, str] | None:
        """The next part with something still to ask, after the one in hand."""
        parts = self.parts()
        at = next((index for index, (key, _) in enumerate(parts) if key == self.part), 0)
        return next((part for part in [*parts[at + 1 :], *parts[:at]] if self.open_in(part[0])), None)

    def open_in(self, part: str) -> list[Ask]:
        """What is still to be asked of one part."""
        skipped = self.skipped()
        return [ask for ask in self.wanted if self.part_of(ask) == part and len(self.live(ask.key)) < ask.times and ask.key not in skipped]

    def part_of(self, ask: Ask) -> str:
        head = ask.key.partition("-")[0]
        if head.isdigit():
            return f"s{head}"
        return "masses" if ask.key in ("hung", "smallend", "recip", "before") else "crank"

    # reading

    def bearing(self, seat: Seat) -> Bearing | None:
        """The bearing as found by its marking, else as on the card."""
        found = self.said(f"{seat.pk}-mark")
        try:
            return lookup(found) if found else bearing_of(seat)
        except BadInput:
            return None

    def nominal(self, seat: Seat) -> float | None:
        try:
            return nominal_of(seat)
        except BadInput:
            return None

    def seat_out(self, seat: Seat) -> bool:
        return any(each.call and each.call.state == "out" for each in figures.seat_figures(self, seat))

    def mends(self, seat: Seat) -> tuple[Mend, ...]:
        """Ways on for a seat that is out."""
        measured, shape = figures.fit_measured(self, seat), figures.form_of(self, seat)
        loose = max(0.0, -measured[1].min_interference_mm) if measured else 0.0
        fills = [each.gap_mm for each in shelves(self.shop).compounds if each.kind == Compound.Kind.RETAINING and each.gap_mm]
        worst = max(abs(shape.taper_mm), shape.ovality_mm) if shape else 0.0
        return mends(loose, worst, self.value(f"{seat.pk}-wall"), max(fills, default=None), seat.on)

    # judging

    def figures_of(self, part: str) -> list[Figure]:
        if part == "crank":
            return figures.crank(self)
        seat = next((each for each in self.seats if f"s{each.pk}" == part), None)
        return figures.seat_figures(self, seat) if seat else []

    @cached_property
    def all_figures(self) -> list[tuple[str, Figure]]:
        return [(name, figure) for key, name in self.parts() for figure in self.figures_of(key)]

    def factor(self) -> tuple[float, float | None, float | None] | None:
        """Balance factor with the new masses, with the old, and the mass that would hang to keep the old."""
        hung, small, new, old = (self.value(key) for key in ("hung", "smallend", "recip", "before"))
        if hung is None or small is None or new is None:
            return None
        hung, small, new = 1000 * hung, 1000 * small, 1000 * new
        was = balance_factor(hung, small, 1000 * old) if old else None
        return balance_factor(hung, small, new), was, hung_for_factor_g(was, small, new) if was is not None else None

    def settling(self) -> tuple[Figure, int] | None:
        """A figure of this part that is too close, and how many readings in all would settle it."""
        for figure in self.figures_of(self.part):
            reading = self.last(figure.keys[0])
            gauge = reading.gauge if reading else None
            if figure.call is None or figure.call.state != "too_close" or gauge is None:
                continue
            ratio = gauge.unsure(self.now.date(), self.values(figure.keys[0])) / figure.doubt
            margin = figure.call.margin * ratio
            found = what_settles(margin, gauge.resolution, self.spread(figure), gauge.calibration(self.now.date()))
            if found.readings and found.readings > len(self.values(figure.keys[0])):
                return figure, found.readings
        return None

    def spread(self, figure: Figure) -> float | None:
        reading = self.last(figure.keys[0])
        return reading.gauge.repeatability if reading and reading.gauge else None

    def finer(self, figure: Figure) -> float | None:
        """Resolution of a gauge that would settle it at once."""
        reading = self.last(figure.keys[0])
        if figure.call is None or reading is None or reading.gauge is None:
            return None
        return what_settles(figure.call.margin, reading.gauge.resolution, self.spread(figure)).resolution

    # the skeleton

    def asks(self) -> list[Ask]:
        return asks.asks(self)

    def check(self, ask: Ask, quantity: Quantity) -> None:
        asks.check(self, ask, quantity.canonical)

    def read(self, ask: Ask, text: str) -> Quantity:
        if ask.key.endswith("-mark"):
            lookup(text)  # an unreadable marking is refused in words
        return super().read(ask, text)

    def note(self, reading: Reading) -> str:
        if not reading.ask.endswith("-mark"):
            return ""
        try:
            found = lookup(reading.text)
        except BadInput:
            return ""
        strange = f"; not understood: {', '.join(found.not_understood)}" if found.not_understood else ""
        return f"{', '.join(found.understood)}{strange}"

    def contradictions(self) -> list[dict[str, str]]:
        rows = []
        for seat in self.seats:
            mark = self.said(f"{seat.pk}-mark")
            if mark and seat.designation and " ".join(mark.upper().split()) != " ".join(seat.designation.upper().split()):
                rows.append({"what": f"bearing of {seat.name}", "found": mark, "card": seat.designation, "where": seat.name})
        return rows

    def plate(self) -> Plate:
        return plates.plate(self)

    def verdict(self) -> Plate:
        return plates.verdict(self)

    def drawing(self, at_s: float | None = None) -> SafeString:
        return drawing.draw(self)

    def checks(self) -> tuple[Caution, ...]:
        return (Caution("clean", "Parts washed and dry, burrs off, at the room's temperature; gauges set on their standard."),)

    def cautions(self) -> tuple[Caution, ...]:
        if self.signed:
            return ()
        return (
            *self.raised(),
            Caution("spin", "Never spin a dry bearing with air: it scores at once, and can throw its cage."),
            Caution("manual", "The engine's own limits come first; a figure without one is kept, not judged."),
        )

    def methods(self) -> tuple[Method, ...]:
        return () if self.signed else self.gauge_methods()

    def traces(self) -> tuple[Trace, ...]:
        return tuple(plates.traces(self))

    def actions(self) -> tuple[Action, ...]:
        if self.signed or not self.entry:
            return ()
        found, settle, onward = [], self.settling(), self.next_part()
        done = not self.open_in(self.part)
        if done and settle:
            more = settle[1] - len(self.values(settle[0].keys[0]))
            words = f"{settle[0].name} {more} more time{'s' if more > 1 else ''}"
            found.append(Action("more", words, "more", True))
        if onward:
            found.append(Action("next", f"On to {onward[1]}", "next", done and not settle))
        found.append(Action("sign", "Sign it", "sign", not onward and not settle, self.may_sign()))
        return tuple(found)

    def tabs(self) -> Method | None:
        return Method("part", "In hand", tuple(Option(key, name) for key, name in self.parts()), self.part)

    def act(self, key: str) -> None:
        entry = self.opened(key)
        settle, onward = self.settling(), self.next_part()
        if key == "more" and settle:
            times = {**self.choices.get("times", {}), **dict.fromkeys(settle[0].keys, settle[1])}
            log.choose(entry, times=times)
        if key == "next" and onward:
            log.choose(entry, part=onward[0])
        if key == "sign":
            self.sign()

    def part_called(self, ask: str) -> str:
        return next((seat.name for seat in self.seats if ask.startswith(f"{seat.pk}-")), "")

    def told(self) -> list[Told]:
        return [
            Told(
                each.name,
                f"{each.value:.{each.digits}f} ± {each.doubt:.{each.digits}f} mm",
                part=part,
                limits=between(each.low, each.high, "mm"),
                source=each.source,
                state=each.call.state if each.call else "",
            )
            for part, each in self.all_figures
        ]

    def findings(self) -> list[Finding]:
        """Of each seat its size at 20 °C, whether it holds a bearing and how it is mended; of each bearing whether it stays."""
        found: list[Finding] = []
        for seat in self.seats:
            known = figures.seat_figures(self, seat)
            states = [each.call.state for each in known if each.call]
            if known:
                found.append(Finding(Slot(seat.part, Property.SEAT_SIZE), known[0].value, uncertainty=known[0].doubt, resolution=0.001))
            if states:
                found.append(Finding(Slot(seat.part, Property.SEAT_VERDICT), text=min(states, key=severity)))
            if mend := self.said(f"{seat.pk}-mend"):
                found.append(Finding(Slot(seat.part, Property.SEAT_MEND), text=mend))
            if kept := figures.keeping(self, seat):
                decision = "scrap" if kept.verdict == "replace" else "keep"
                found.append(Finding(Slot(seat.part, Property.BEARING_DECISION), text=decision))
        return found

    def result(self) -> dict[str, Any]:
        kept = {seat.name: figures.keeping(self, seat) for seat in self.seats}
        factor = self.factor()
        return {
            "schema": "inspect/1",
            "core_version": core_version,
            "figures": [
                {
                    "part": part,
                    "figure": each.name,
                    "value_mm": round(each.value, 4),
                    "uncertainty_mm": round(each.doubt, 4),
                    "low_mm": each.low,
                    "high_mm": each.high,
                    "source": each.source,
                    "call": each.call.state if each.call else None,
                }
                for part, each in self.all_figures
            ],
            "bearings": {name: {"verdict": each.verdict, "reasons": list(each.reasons)} for name, each in kept.items() if each},
            "mends": {seat.name: self.said(f"{seat.pk}-mend") for seat in self.seats if self.said(f"{seat.pk}-mend")},
            "cracks": self.said("damage") or self.said("cracks"),
            "balance_factor": round(factor[0], 4) if factor else None,
            "contradictions": self.contradictions(),
        }


STATION = Station("inspect", "Inspect", Inspect, drawn=True, as_found=True)
