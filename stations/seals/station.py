"""Seals: which is which by its sizes, which way the lip faces and why, how deep, how square, how far from the bearing."""

from __future__ import annotations

from functools import cached_property
from typing import Any

from django.utils.safestring import SafeString

from engines.models import Seal
from jobs import log
from shop.models import Driver
from shop.shelves import shelves
from shopmath import __version__ as core_version
from shopmath import drivers
from shopmath.checks import BadInput
from shopmath.quantity import Quantity
from shopmath.seals import CLOCKS, Candidate, SealSeat, identify_seal, lip_side, seat_of_seal
from shopmath.verdict import severity
from stations.base import Action, Ask, Caution, Method, Option, Plate, Scale, Station, Trace, Work
from stations.by_hand.station import ByHand
from stations.seals import asks, drawing

FACING = {"inside": "inward", "outside": "outward"}


class Seals(Work):
    """Every seal of the card, one after another."""

    @cached_property
    def seals(self) -> list[Seal]:
        return list(self.job.card.seals.all())

    @property
    def part(self) -> str:
        chosen = str(self.choices.get("part", ""))
        known = [f"s{seal.pk}" for seal in self.seals]
        return chosen if chosen in known else known[0]

    @property
    def in_hand(self) -> Seal:
        return next(seal for seal in self.seals if f"s{seal.pk}" == self.part)

    def tabs(self) -> Method | None:
        return Method("part", "In hand", tuple(Option(f"s{seal.pk}", seal.name) for seal in self.seals), self.part)

    def open_of(self, seal: Seal) -> list[Ask]:
        skipped = self.skipped()
        return [ask for ask in self.wanted if ask.key.startswith(f"{seal.pk}-") and not self.last(ask.key) and ask.key not in skipped]

    def next_seal(self) -> Seal | None:
        at = self.seals.index(self.in_hand)
        return next((seal for seal in [*self.seals[at + 1 :], *self.seals[:at]] if self.open_of(seal)), None)

    # judging

    def found_as(self, seal: Seal) -> tuple[Candidate, ...] | None:
        """Where the measured seal belongs; None until it is measured."""
        shaft, bore = self.value(f"{seal.pk}-shaft"), self.value(f"{seal.pk}-bore")
        if shaft is None or bore is None:
            return None
        return identify_seal(shaft, bore, [Candidate(each.name, each.shaft_mm, each.bore_mm) for each in self.seals])

    def is_the_one(self, seal: Seal) -> bool:
        return any(place.name == seal.name for place in self.found_as(seal) or ())

    def rule(self, seal: Seal) -> str:
        """Which way the lip faces by what is kept; empty until said."""
        kept = self.said(f"{seal.pk}-kept")
        return lip_side(kept) if kept else ""

    def against_rule(self, seal: Seal) -> bool:
        """Whether it goes in otherwise than what it keeps says, as the card or the hand has it."""
        way, rule = self.said(f"{seal.pk}-way"), self.rule(seal)
        return bool(way and rule and way != rule)

    def way_settled(self, seal: Seal) -> bool:
        way = self.said(f"{seal.pk}-way")
        if not way or not self.rule(seal):
            return False
        return way == self.rule(seal) or bool(self.said(f"{seal.pk}-cite"))

    def seating(self, seal: Seal) -> SealSeat | None:
        """How it sits, once its four depths are in."""
        depths = [self.value(f"{seal.pk}-d{clock}") for clock in CLOCKS]
        if None in depths:
            return None
        doubt = max(self.unsure(f"{seal.pk}-d{clock}") for clock in CLOCKS)
        sizes = [float(depth or 0) for depth in depths]
        behind = self.value(f"{seal.pk}-behind")
        width = seal.width_mm if behind is not None else None
        return seat_of_seal(sizes, seal.bore_mm, seal.depth_mm, doubt, width_mm=width, bearing_depth_mm=behind)

    def drivers_for(self, seal: Seal) -> list[Driver]:
        window = drivers.seal(seal.shaft_mm, seal.bore_mm)
        return [each for each in shelves(self.shop).drivers if not window.refusal(each.outside_mm, each.inside_mm)]

    # the skeleton

    def asks(self) -> list[Ask]:
        return asks.asks(self)

    def check(self, ask: Ask, quantity: Quantity) -> None:
        asks.check(ask, quantity.canonical)
        head, _, part = ask.key.partition("-")
        shaft = quantity.canonical if part == "shaft" else self.value(f"{head}-shaft")
        bore = quantity.canonical if part == "bore" else self.value(f"{head}-bore")
        if part in ("shaft", "bore") and shaft and bore and bore <= shaft:
            raise BadInput(ask.key, f"A seal's bore ({bore:g} mm) is larger than its shaft ({shaft:g} mm).")

    def contradictions(self) -> list[dict[str, str]]:
        rows = []
        for seal in self.seals:
            way = self.said(f"{seal.pk}-way")
            if way and seal.lip and way != seal.lip:
                rows.append({"what": f"lip of {seal.name}", "found": FACING[way], "card": FACING[seal.lip], "where": seal.name})
        return rows

    def plate(self) -> Plate:
        if self.signed:
            return self.signed_plate()
        return self.plate_of(self.in_hand)

    def plate_of(self, seal: Seal) -> Plate:
        places, ask = self.found_as(seal), next(iter(self.open_of(seal)), None)
        move = f"{ask.words}." if ask else ""
        if places is None:
            return Plate("wait", "Which is it?", "Two seals of one engine can look alike: the sizes tell.", move)
        if not self.is_the_one(seal):
            other = f"It belongs at {places[0].name}." if places else "No place on this card has these sizes."
            return Plate(
                "stop",
                "Not this one",
                f"{seal.name} is {seal.shaft_mm:g} × {seal.bore_mm:g}. {other}",
                "Take the right one, or measure again.",
            )
        if self.against_rule(seal) and not self.said(f"{seal.pk}-cite"):
            rule = FACING[self.rule(seal)]
            line = f"What it keeps stands on the spring side: lip {rule}. Never say always: a page may say otherwise."
            return Plate("stop", "Wrong way round?", line, "Turn it round, or give the page.")
        seat = self.seating(seal)
        if seat is None:
            facing = self.said(f"{seal.pk}-way") or self.rule(seal)
            line = f"Lip {FACING[facing]}." if facing else "What it keeps stands on the side of its spring."
            tool = self.drivers_for(seal)
            press = f" Drive with {tool[0].name}, square." if tool and self.way_settled(seal) else ""
            return Plate("wait", "Lip and depth" if not self.way_settled(seal) else "Drive it in", f"{line}{press}", move)
        return self._seated(seal, seat)

    def _seated(self, seal: Seal, seat: SealSeat) -> Plate:
        scale = Scale(seat.depth_mm, self.unsure(f"{seal.pk}-d12"), seal.depth_mm - 0.5, seal.depth_mm + 0.5, "mm", 2)
        for found, words, move in (
            (seat.clear, "Touches the bearing", "Out a little: it must not run on the bearing's ring."),
            (seat.square, "Crooked", f"It is deepest at {seat.deepest}: drive the other side, square."),
            (seat.depth, "Depth", "Drive it on, or pull it and begin with a new one."),
        ):
            if found and found.state != "in":
                out = "Depth is out" if words == "Depth" else words
                name = out if found.state == "out" else f"{words.partition(' ')[0]} too close"
                return Plate(found.state, name, found.reason, move, scale=scale)
        onward = self.next_seal()
        gap = f" {seat.gap_mm:.2f} mm clear of the bearing." if seat.gap_mm is not None else ""
        line = f"{seat.depth_mm:.2f} mm deep, {seat.lean_mm:.2f} out of square.{gap}"
        return Plate("in", "Seated square", line, f"On to {onward.name}." if onward else "All are in: sign it.", scale=scale)

    def verdict(self) -> Plate:
        """The worst seal stands for all."""
        return min((self.plate_of(seal) for seal in self.seals), key=lambda plate: severity(plate.state))

    def drawing(self, at_s: float | None = None) -> SafeString:
        return drawing.draw(self)

    def checks(self) -> tuple[Caution, ...]:
        return (
            Caution("lip", "Lip and shaft greased, bore clean; rubber-covered rims with soapy water, no oil."),
            Caution("edge", "Shaft's edge and key way covered: a sleeve over them, or tape, thin."),
        )

    def cautions(self) -> tuple[Caution, ...]:
        if self.signed:
            return ()
        return (*self.raised(), Caution("manual", "The manual's page comes before the rule: some seals face the other way on purpose."))

    def methods(self) -> tuple[Method, ...]:
        if self.signed:
            return ()
        when = str(self.choices.get("when", "after"))
        return (Method("when", "Fitted", asks.WHEN, when), *self.gauge_methods())

    def traces(self) -> tuple[Trace, ...]:
        seal = self.in_hand
        window, fits = drivers.seal(seal.shaft_mm, seal.bore_mm), self.drivers_for(seal)
        rows = [Trace("Sizes on the card", f"{seal.shaft_mm:g} × {seal.bore_mm:g} × {seal.width_mm:g}", seal.source or "source unknown")]
        if seal.lip:
            rows.append(Trace("Lip on the card", FACING[seal.lip], seal.source or "source unknown"))
        size = f"{window.outside_low_mm:.1f} to {window.outside_high_mm:.1f}"
        rows.append(Trace("Driver, outside", size, f"inside over {window.inside_low_mm:.1f}: clear of the spring", True))
        others = ", ".join(each.name for each in fits[1:3]) or "of the shelf"
        rows.append(Trace("Drivers that fit", fits[0].name if fits else "none", others))
        seat = self.seating(seal)
        if seat:
            wanted = "taken as flush" if seal.depth_assumed and not seal.depth_mm else seal.source
            rows.append(Trace("Depth", f"{seat.depth_mm:.2f} mm", f"{seal.depth_mm:g} wanted, {wanted}; limits are shop rules"))
        if self.said(f"{seal.pk}-cite"):
            rows.append(Trace("Exception", FACING[self.said(f"{seal.pk}-way")], self.said(f"{seal.pk}-cite")))
        return tuple(rows)

    def actions(self) -> tuple[Action, ...]:
        if self.signed or not self.entry:
            return ()
        onward, done = self.next_seal(), not self.open_of(self.in_hand)
        found = [Action("next", f"On to {onward.name}", "next", done)] if onward else []
        return (*found, Action("sign", "Sign it", "sign", done and not onward, self.may_sign()))

    def act(self, key: str) -> None:
        entry, onward = self.opened(key), self.next_seal()
        if key == "next" and onward:
            log.choose(entry, part=f"s{onward.pk}")
        if key == "sign":
            self.sign()

    def may_sign(self) -> str:
        left = [seal.name for seal in self.seals if self.open_of(seal)]
        stopped = next((self.plate_of(seal).line for seal in self.seals if self.plate_of(seal).state == "stop"), "")
        return stopped or (f"Still to do: {', '.join(left)}." if left else "")

    def part_called(self, ask: str) -> str:
        return next((seal.name for seal in self.seals if ask.startswith(f"{seal.pk}-")), "")

    def result(self) -> dict[str, Any]:
        def one(seal: Seal) -> dict[str, Any]:
            seat = self.seating(seal)
            return {
                "lip": self.said(f"{seal.pk}-way"),
                "keeps": self.said(f"{seal.pk}-kept"),
                "cited": self.said(f"{seal.pk}-cite"),
                "depth_mm": round(seat.depth_mm, 3) if seat else None,
                "lean_mm": round(seat.lean_mm, 3) if seat else None,
                "gap_mm": round(seat.gap_mm, 3) if seat and seat.gap_mm is not None else None,
            }

        return {
            "schema": "seals/1",
            "core_version": core_version,
            "when": str(self.choices.get("when", "after")),
            "seals": {seal.name: one(seal) for seal in self.seals},
            "contradictions": self.contradictions(),
        }


def bind(station: Station, *more: Any) -> Work:
    """By the card's seals; without any on it, in the mechanic's own words."""
    job = more[0]
    return Seals(station, *more) if job.card.seals.all() else ByHand(station, *more)


STATION = Station("seals", "Seals", bind, drawn=True)
