"""Bearings and seals out, seat by seat: the seal as found, the kindest way, the driver, the heat; as found against the card."""

from __future__ import annotations

from functools import cached_property
from typing import Any

from django.utils.safestring import SafeString

from engines.fits import SeatFit, bearing_of, fit_of
from engines.models import Seal, Seat
from jobs.models import Reading
from shop.models import Driver
from shop.shelves import shelves
from shopmath import __version__ as core_version
from shopmath import drivers, materials
from shopmath.bearings import Bearing
from shopmath.checks import BadInput
from shopmath.iso286 import fit as fit_of_limits
from shopmath.quantity import Quantity
from shopmath.removal import SeatPicture, Way, ways
from shopmath.seals import CLOCKS, SealSeat, seat_of_seal
from shopmath.thermal.limits import case_limits, method_refusal, ring_hot_limits
from shopmath.thermal.taking_out import Freeing, freeing
from shopmath.verdict import gauge_uncertainty
from stations.base import Action, Ask, Caution, Method, Option, Plate, Station, Trace, Work
from stations.bearings_out import asks, drawing, plates

CALLIPER_U_MM = 0.05
DEPTHS = (-10.0, 120.0)


class BearingsOut(Work):
    """One seat with its bearing, and the seal in front of it."""

    seat: Seat

    # what is known

    @cached_property
    def bearing(self) -> Bearing:
        return bearing_of(self.seat)

    @cached_property
    def fit(self) -> SeatFit:
        return fit_of(self.seat)

    @cached_property
    def seal(self) -> Seal | None:
        """The seal in front of this bearing: the one the card puts there, else the only one of its half that is put nowhere."""
        seals = list(self.job.card.seals.all())
        here = next((seal for seal in seals if seal.seat_id == self.seat.pk), None)
        loose = [seal for seal in seals if seal.seat_id is None and seal.half == self.seat.half]
        alone = len([seat for seat in self.job.card.seats.all() if seat.half == self.seat.half]) == 1
        return here or (loose[0] if len(loose) == 1 and alone else None)

    def said(self, key: str) -> str:
        reading = self.last(key)
        return reading.text if reading else ""

    @property
    def retained(self) -> str:
        """What still holds the ring, as found; by the card until it was looked at."""
        found = self.said("retained")
        if found:
            return "" if found in ("none", "removed") else found
        return self.seat.stop if self.seat.stop in (Seat.Stop.CIRCLIP, Seat.Stop.PLATE) else ""

    @property
    def blind(self) -> bool | None:
        found = self.said("bottom") or self.seat.bottom
        return None if not found else found == "blind"

    @property
    def shields(self) -> str:
        """Open or closed, as found; by the marking until it was looked at."""
        marked = "open" if self.bearing.seal == "open" else "both" if any("both" in part for part in self.bearing.understood) else "one"
        return self.said("shields") or marked

    @cached_property
    def freeing(self) -> Freeing | None:
        """How hot the case must be; None for a ring on a shaft, or where nothing is known of the fit."""
        if self.fit.onto_shaft:
            return None
        grip = fit_of_limits(self.fit.inner.limits, self.fit.outer.limits)
        left_in = tuple(self.seat.left_in) + (("nitrile_seal",) if self.seal and not self.seal_is_out else ())
        limits = sorted((*case_limits(self.fit.outer_material, left_in), *ring_hot_limits(self.bearing)), key=lambda limit: limit.limit_c)
        if self.said("keep") == "scrap":
            limits = [limit for limit in limits if limit not in ring_hot_limits(self.bearing)]
        return freeing(
            self.fit.nominal_mm,
            max(0.0, grip.min_interference_mm),
            max(0.0, grip.max_interference_mm),
            self.fit.outer_material.alpha,
            self.fit.inner_material.alpha,
            limits[0] if limits else None,
        )

    @property
    def seal_is_out(self) -> bool:
        return self.said("seal_out") == "yes"

    @cached_property
    def picture(self) -> SeatPicture:
        shelf = shelves(self.shop)
        size = self.bearing.bore_mm if self.seat.on == Seat.On.CASE else self.bearing.outside_mm
        tools = {each.kind for each in shelf.extractors if each.low_mm <= size <= each.high_mm}
        tools |= {"press"} if shelf.presses else set()
        tools |= {"spray"} if any(each.method == "spray" for each in shelf.chillers) else set()
        found = self.freeing
        return SeatPicture(
            on_shaft=self.seat.on == Seat.On.SHAFT,
            blind=self.blind,
            retained=self.retained,
            shields=self.shields,
            thin_wall=self.seat.thin_wall,
            magnesium=materials.get(self.job.card.case_material).flammable,
            frees_by_heat=found.call.state if found else "in",
            frees_sprayed=found.sprayed_call.state if found else "in",
            tools=frozenset(tools),
        )

    @cached_property
    def ways(self) -> tuple[Way, ...]:
        return ways(self.picture)

    @cached_property
    def way(self) -> Way:
        """The way chosen, else the kindest."""
        chosen = str(self.choices.get("way", ""))
        return next((way for way in self.ways if way.key == chosen), self.ways[0])

    @cached_property
    def window(self) -> drivers.Window:
        return drivers.inner_ring(self.bearing) if self.seat.on == Seat.On.SHAFT else drivers.outer_ring(self.bearing)

    @cached_property
    def fitting(self) -> list[Driver]:
        """The shop's drivers that land on the tight ring and nothing else."""
        return [each for each in shelves(self.shop).drivers if not self.window.refusal(each.outside_mm, each.inside_mm)]

    @property
    def doubt_mm(self) -> float:
        gauge = next((each for each in shelves(self.shop).gauges if each.kind == "calliper"), None)
        return gauge_uncertainty(gauge.resolution, gauge.repeatability) if gauge else CALLIPER_U_MM

    @cached_property
    def seal_seat(self) -> SealSeat | None:
        """How the seal sat, once its depth is known at four places."""
        depths = [self.value(f"depth{clock}") for clock in CLOCKS]
        if not self.seal or any(depth is None for depth in depths):
            return None
        return seat_of_seal(
            [float(depth or 0) for depth in depths],
            self.seal.bore_mm,
            self.seal.depth_mm,
            self.doubt_mm,
            width_mm=self.seal.width_mm,
            bearing_depth_mm=self.value("behind"),
        )

    # asks

    def asks(self) -> list[Ask]:
        return asks.asks(self)

    def check(self, ask: Ask, quantity: Quantity) -> None:
        if ask.kind == "length" and not DEPTHS[0] <= quantity.canonical <= DEPTHS[1]:
            raise BadInput(ask.key, f"{ask.words}: {quantity.canonical:g} mm is not believable. Check the unit and measure again.")

    # as found against the card

    def contradictions(self) -> list[dict[str, str]]:
        found: list[dict[str, str]] = []

        def raised(what: str, is_so: str, card: str) -> None:
            found.append({"what": what, "found": is_so, "card": card, "where": f"Bearings out, {self.seat.name}"})

        if self.seal and self.said("lip") and self.seal.lip and self.said("lip") != self.seal.lip:
            raised(f"lip of {self.seal.name}", f"to the {self.said('lip')}", f"to the {self.seal.lip}")
        stop = {"circlip": "circlip", "plate": "plate"}.get(self.seat.stop, "none")
        if self.said("retained") and self.said("retained") != "removed" and self.said("retained") != stop:
            raised("what holds the bearing", self.said("retained"), self.seat.get_stop_display())
        if self.said("bottom") and self.seat.bottom and self.said("bottom") != self.seat.bottom:
            raised("behind the bearing", self.said("bottom"), self.seat.get_bottom_display())
        faced = self.said("faced")
        if faced and self.seat.faces and faced != self.seat.faces:
            raised("way round of the bearing", str(dict(Seat.Faces.choices)[faced]), self.seat.get_faces_display())
        marking = self.said("marking")
        if marking and "".join(marking.upper().split()) != "".join(self.bearing.designation.upper().split()):
            raised("marking of the bearing", marking, self.bearing.designation)
        if self.seal_seat and self.seal_seat.depth.state == "out":
            raised(
                f"depth of {self.seal.name if self.seal else 'the seal'}",
                f"{self.seal_seat.depth_mm:.2f} mm",
                f"{self.seal.depth_mm if self.seal else 0:g} mm",
            )
        return found

    # judging and showing

    def plate(self) -> Plate:
        return plates.plate(self)

    def drawing(self, at_s: float | None = None) -> SafeString:
        return drawing.draw(self)

    def checks(self) -> tuple[Caution, ...]:
        if self.said("outcome"):
            return ()
        side = "outside" if self.seat.loads_from == Seat.From.OUTSIDE else "inside"
        return (
            Caution("dry", "Washed, dry, no fuel or oil, no chlorinated cleaner left before any heat: its vapour is toxic.", gate=True),
            Caution("side", f"It comes out toward the {side}: nothing of the case in its way.", gate=True),
            Caution("support", "Case supported right behind the seat, on wood, not on its joint face."),
        )

    def cautions(self) -> tuple[Caution, ...]:
        mind = list(self.raised())
        if self.said("outcome"):
            return tuple(mind)
        refusal = method_refusal(materials.get(self.job.card.case_material), "torch")
        if refusal:
            mind.append(Caution("metal", refusal))
        more = {
            "spray": "Freeze spray burns skin, and its gas with a flame or hot metal: no flame in the room, air through it.",
            "hydraulic": "Eyes covered: grease under pressure cuts, and a thin wall breaks out without warning.",
            "cut": "Cover every opening: hard swarf. Eyes and ears covered; the seat is soft, stop short of it.",
            "punch": "Eyes covered: hard rings splinter. Brass, small steps, opposite corners.",
            "press": "Press joints let go at once: guard, and stand aside.",
        }
        if self.way.key in more:
            mind.append(Caution(self.way.key, more[self.way.key]))
        mind.append(Caution("hot", "Hot case: gloves, a clear path, nobody else's hands."))
        mind.append(Caution("manual", "The engine's manual comes first."))
        return tuple(mind)

    def methods(self) -> tuple[Method, ...]:
        if self.said("outcome") or self.signed:
            return ()
        options = tuple(
            Option(way.key, f"{index}. {way.words}" if way.state != "stop" else f"not: {way.words}", way.reasons[0])
            for index, way in enumerate(self.ways, 1)
        )
        return (Method("way", "Way, the kindest first", options, self.way.key),)

    def traces(self) -> tuple[Trace, ...]:
        return tuple(plates.traces(self))

    def actions(self) -> tuple[Action, ...]:
        if self.signed:
            return ()
        if self.said("outcome") and self.said("outcome") != "stuck":
            return (Action("sign", "Sign it", "sign", not self.open_asks(), self.may_sign()),)
        return ()

    def act(self, key: str) -> None:
        self.opened(key)
        self.sign()

    def may_sign(self) -> str:
        return self.still_to_say()

    def note(self, reading: Reading) -> str:
        raised = {"lip": "lip of", "marking": "marking of", "retained": "what holds", "bottom": "behind the"}.get(reading.ask)
        return "not as the card says" if raised and any(line["what"].startswith(raised) for line in self.contradictions()) else ""

    def whole_station_signed(self) -> bool:
        return self.every_seat_signed()

    def result(self) -> dict[str, Any]:
        freed, sat = self.freeing, self.seal_seat
        return {
            "schema": "bearings-out/1",
            "core_version": core_version,
            "way": self.way.key,
            "ranked": [way.key for way in self.ways],
            "frees_at_c": [round(freed.together.low), round(freed.together.high)] if freed and freed.together else None,
            "frees_sprayed_c": [round(freed.sprayed.low), round(freed.sprayed.high)] if freed else None,
            "driver_outside_mm": [round(self.window.outside_low_mm, 1), round(self.window.outside_high_mm, 1)],
            "outcome": self.said("outcome"),
            "hit_through_balls": self.said("hit") == "yes",
            "seat": self.said("look"),
            "seal_depth_mm": round(sat.depth_mm, 3) if sat else None,
            "seal_lean_mm": round(sat.lean_mm, 3) if sat else None,
            "seal_gap_mm": round(sat.gap_mm, 3) if sat and sat.gap_mm is not None else None,
            "contradicts": self.contradictions(),
        }


STATION = Station("bearings-out", "Bearings out", BearingsOut, by_seat=True, as_found=True)
