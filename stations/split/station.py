"""Split: is every fastener out, does the splitter hold, how far does one side lead, what hangs loose."""

from __future__ import annotations

import math
from functools import cached_property
from typing import Any

from django.utils.safestring import SafeString

from engines.fits import bearing_of
from engines.models import Mark, Seat
from jobs import log, tray
from jobs.models import Reading
from shop.models import Splitter
from shop.shelves import shelves
from shopmath import __version__ as core_version
from shopmath import materials
from shopmath.checks import BadInput
from shopmath.estimate import Estimate
from shopmath.gapplane import GapPlane, Point, fit
from shopmath.quantity import Quantity
from shopmath.splitting import (
    Census,
    DowelFit,
    Move,
    Place,
    Screws,
    census,
    journal_grip_n,
    lead_allowed_mm,
    next_move,
    split_call,
    splitter_screws,
)
from shopmath.verdict import Call
from stations.base import Action, Ask, Caution, Method, Option, Plate, Row, Station, Trace, Work
from stations.split import asks, drawing, plates

LENGTH_OFF_MM = 1.0  # a bolt this much off its card is not that bolt
BEFORE = (
    Caution("drained", "Drained: oil and coolant out, fuel off the bench.", gate=True),
    Caution("topend", "Cylinder and head off, piston clear; ignition and its wires off.", gate=True),
    Caution("nuts", "Primary gear, clutch and sprocket nuts cracked loose while the cases still hold the crank.", gate=True),
    Caution("square", "Splitter square and centred on the crank; its load on the screws, not on the joint face."),
    Caution("catch", "Something under the tool for when it lets go; a hand for the gear shafts."),
)
MIND = (
    Caution("lever", "No screwdriver between the faces: a nick there leaks for good."),
    Caution("hammer", "Soft hammer on lugs only; never the crank's end, never a thin wall."),
    Caution("eyes", "Under tension it lets go at once: eyes covered, fingers out of the gap."),
    Caution("manual", "The engine's manual comes first; some halves lift only with a selector turned or a shaft held."),
)


class Split(Work):
    """Two halves, a splitter between them."""

    # what the card and the log say

    @cached_property
    def marks(self) -> list[Mark]:
        return list(self.job.card.marks.all())

    @property
    def fasteners(self) -> list[Mark]:
        return [mark for mark in self.marks if mark.is_fastener]

    @cached_property
    def places(self) -> list[tuple[str, Place]]:
        """Where the gap is measured: the card's places, else four round the face, taken."""
        found = [(f"g-{mark.pk}", Place(mark.name, mark.x_mm, mark.y_mm)) for mark in self.marks if mark.what == Mark.What.GAP]
        if found:
            return found
        w, h = 0.46 * self.job.card.face_w_mm, 0.46 * self.job.card.face_h_mm
        usual = (("right", w, 0.0), ("top", 0.0, h), ("left", -w, 0.0), ("bottom", 0.0, -h))
        return [(f"g-{name}", Place(name, x, y)) for name, x, y in usual]

    @property
    def places_taken(self) -> bool:
        return not any(mark.what == Mark.What.GAP for mark in self.marks)

    @cached_property
    def dowels(self) -> list[DowelFit]:
        return [DowelFit(mark.clearance_mm, mark.engaged_mm) for mark in self.marks if mark.what == Mark.What.DOWEL] or [DowelFit()]

    @property
    def dowels_assumed(self) -> bool:
        dowels = [mark for mark in self.marks if mark.what == Mark.What.DOWEL]
        return not dowels or any(mark.assumed for mark in dowels)

    @cached_property
    def splitter(self) -> Splitter | None:
        shelf = shelves(self.shop).splitters
        chosen = str(self.choices.get("splitter", shelf[0].pk if len(shelf) == 1 else ""))
        return next((each for each in shelf if str(each.pk) == chosen), None)

    @property
    def how(self) -> str:
        chosen = str(self.choices.get("how", "feeler"))
        return chosen if chosen in asks.HOW else "feeler"

    @property
    def begun(self) -> bool:
        return bool(self.choices.get("begun"))

    @property
    def apart(self) -> bool:
        return bool(self.choices.get("apart"))

    @property
    def lifts(self) -> str:
        """The half that lifts: the card's, else as answered."""
        reading = self.last("lifts")
        return self.job.card.lifts or (reading.text if reading else "")

    @property
    def lifting_half(self) -> str:
        return f"{self.job.card.side(self.lifts)} half" if self.lifts else "half that lifts"

    def live(self, key: str, every_attempt: bool = False) -> list[Reading]:
        """Gaps belong to their round; everything else is asked once."""
        return super().live(key, every_attempt or not key.startswith("g-"))

    # asks

    def asks(self) -> list[Ask]:
        return asks.asks(self)

    def check(self, ask: Ask, quantity: Quantity) -> None:
        asks.check(self, ask, quantity.canonical)

    def shown(self, reading: Reading, ask: Ask | None = None) -> str:
        if reading.ask == "turns" and reading.canonical is not None:
            return f"{reading.canonical / 360:g} turns"
        return super().shown(reading, ask)

    def note(self, reading: Reading) -> str:
        mark = next((mark for mark in self.fasteners if f"b-{mark.pk}" == reading.ask), None)
        return f"the card says {mark.length_mm:g} mm" if mark and mark.length_mm and self._off(mark, reading) else ""

    @staticmethod
    def _off(mark: Mark, reading: Reading | None) -> bool:
        known = reading is not None and reading.canonical is not None and mark.length_mm
        return bool(known and abs(float(reading.canonical or 0) - float(mark.length_mm or 0)) > LENGTH_OFF_MM)  # type: ignore[union-attr]

    def contradictions(self) -> list[dict[str, str]]:
        """What was found otherwise than the card says."""
        found = []
        for mark in self.fasteners:
            reading = self.last(f"b-{mark.pk}")
            if reading and self._off(mark, reading):
                length = f"{mark.length_mm:g} mm"
                found.append(
                    {"what": f"length of {mark.what} {mark.name}", "found": f"{reading.canonical:g} mm", "card": length, "where": "Split"}
                )
        counted = self.value("counted")
        if counted and self.fasteners and counted > len(self.fasteners):
            found.append({"what": "fasteners", "found": f"{counted:.0f}", "card": str(len(self.fasteners)), "where": "Split"})
        return found

    # judging

    @property
    def out(self) -> list[str]:
        """Names of the fasteners ticked out, by length or by a bare Enter."""
        done = self.skipped()
        return [mark.name for mark in self.fasteners if self.last(f"b-{mark.pk}") or f"b-{mark.pk}" in done]

    @cached_property
    def census(self) -> Census:
        counted = self.value("counted")
        places = [Place(mark.name, mark.x_mm, mark.y_mm) for mark in self.fasteners]
        out = self.out
        if not places:
            expected = self.value("expected")
            places = [Place(str(number), 0.0, 0.0) for number in range(1, int(expected or counted or 0) + 1)]
            out = [place.name for place in places]
        unmeasured = [mark.name for mark in self.fasteners if not self.last(f"b-{mark.pk}")]
        lagging = None
        if self.plane:
            at = {place.name: place for _, place in self.places}[self.plane.lagging_name]
            lagging = (at.x_mm, at.y_mm)
        return census(places, out, None if counted is None else int(counted), unmeasured, lagging)

    @cached_property
    def wanted_n(self) -> Estimate:
        mains = [seat for seat in self.job.card.seats.all() if seat.on == Seat.On.CASE and seat.half == self.lifts and seat.is_main]
        return journal_grip_n([bearing_of(seat) for seat in mains])

    @cached_property
    def screws(self) -> Screws | None:
        turns = self.value("turns")
        d = self.splitter.thread_mm if self.splitter else self.value("screw_d")
        pitch = self.splitter.pitch_mm if self.splitter else self.value("screw_pitch")
        if turns is None or d is None or pitch is None:
            return None
        metal = materials.get(self.job.card.case_material)
        return splitter_screws(
            d, pitch, turns / 360, metal.uts_mpa[0] if metal.uts_mpa else 200.0, self.splitter.screws if self.splitter else 2, self.wanted_n
        )

    def plane_of(self, attempt: int) -> GapPlane | None:
        """The plane through one round's gaps; None while it cannot be told."""
        points = []
        for key, place in self.places:
            found = [reading for reading in Work.live(self, key, every_attempt=True) if reading.attempt == attempt]
            if found and found[-1].canonical is not None:
                points.append(Point(place.name, place.x_mm, place.y_mm, found[-1].canonical))
        try:
            return fit(points) if len(points) >= 3 else None
        except BadInput:
            return None

    @cached_property
    def plane(self) -> GapPlane | None:
        return self.plane_of(self.attempt)

    @property
    def ends_mm(self) -> tuple[float, float]:
        """Fitted gap at the laggard and at the leader."""
        taken = [(place.name, value) for key, place in self.places if (value := self.value(key)) is not None]
        fitted = {name: value - off for (name, value), off in zip(taken, self.plane.residuals if self.plane else (), strict=False)}
        return (fitted[self.plane.lagging_name], fitted[self.plane.leading_name]) if self.plane else (0.0, 0.0)

    @property
    def span_mm(self) -> float:
        """Across the joint from leader to laggard."""
        if not self.plane:
            return self.job.card.face_w_mm
        at = {place.name: place for _, place in self.places}
        a, b = at[self.plane.leading_name], at[self.plane.lagging_name]
        return max(math.hypot(a.x_mm - b.x_mm, a.y_mm - b.y_mm), 1.0)

    @property
    def allowed_mm(self) -> float:
        return lead_allowed_mm(self.dowels, max(0.0, self.plane.mean_mm) if self.plane else 0.0, self.span_mm)

    @property
    def doubt_mm(self) -> float:
        return math.sqrt(2) * asks.UNCERTAIN_MM[self.how]

    @cached_property
    def lead(self) -> Call | None:
        return split_call(self.plane, self.allowed_mm, self.doubt_mm) if self.plane else None

    @cached_property
    def move(self) -> Move | None:
        pitch = self.splitter.push_pitch_mm if self.splitter else 1.5
        return next_move(self.plane, self.allowed_mm, self.lead.state, pitch) if self.plane and self.lead else None

    @property
    def round_open(self) -> list[Ask]:
        return [ask for ask in self.open_asks() if ask.key.startswith("g-")]

    def plate(self) -> Plate:
        return plates.plate(self)

    def drawing(self, at_s: float | None = None) -> SafeString:
        return drawing.draw(self)

    def checks(self) -> tuple[Caution, ...]:
        return BEFORE if not self.apart else ()

    def cautions(self) -> tuple[Caution, ...]:
        return (*self.raised(), *(() if self.apart else MIND))

    def methods(self) -> tuple[Method, ...]:
        if self.apart or self.signed:
            return ()
        shelf = (Option("", "the one in hand, measured"), *(Option(str(each.pk), each.name) for each in shelves(self.shop).splitters))
        hows = tuple(Option(key, key, f"±{asks.UNCERTAIN_MM[key]:g} mm") for key in asks.HOW)
        return (
            Method("splitter", "Splitter", shelf, str(self.splitter.pk) if self.splitter else ""),
            Method("how", "Gap measured with", hows, self.how),
        )

    def traces(self) -> tuple[Trace, ...]:
        return tuple(plates.traces(self))

    def sheet(self) -> list[Row]:
        """This round's readings, then the gaps of the rounds before."""
        rows = super().sheet()
        for attempt in range(self.attempt - 1, 0, -1):
            for key, place in self.places:
                found = [reading for reading in Work.live(self, key, every_attempt=True) if reading.attempt == attempt]
                rows += [Row(Ask(key, f"Round {attempt}: gap at {place.name}"), reading, self.shown(reading)) for reading in found]
        return rows

    # doing

    def actions(self) -> tuple[Action, ...]:
        if self.signed:
            return ()
        if self.apart:
            return (Action("sign", "Sign it", "sign", not self.open_asks(), self.may_sign()),)
        shut = self.refused()
        if not self.begun:
            barred = (
                self.census.call.reason
                if self.census.call.state == "stop"
                else ""
                if self.value("counted")
                else "Count the pieces on the tray."
            )
            weak = self.screws.call.reason if self.screws and self.screws.call.state == "stop" else ""
            return (Action("begin", "Load on: first round of gaps", "begin", not (shut or barred or weak), shut or barred or weak),)
        more = [
            Action(
                "next", "Done that: next round", "next", bool(self.plane and not self.round_open), "" if self.plane else "Three gaps first."
            )
        ]
        barred = self.census.call.reason if self.census.call.state == "stop" else ""
        return (*more, Action("apart", "They are apart", "apart", False, barred))

    def act(self, key: str) -> None:
        entry = self.opened(key)
        if key == "begin":
            log.choose(entry, begun=True)
        if key == "next":
            log.next_attempt(entry)
        if key == "apart":
            log.choose(entry, apart=True)
        if key == "sign":
            self.sign()

    def after_keep(self, reading: Reading) -> None:
        """A loose part whose half is known goes into the tray."""
        key = reading.ask.partition("-")[0]
        what, where, hung = self.last(key), self.last(f"{key}-from"), self.last(f"{key}-half")
        if key.startswith("loose") and what and where and hung:
            half = hung.text if hung.text in ("left", "right") else ""
            tray.put(
                self.job,
                self.person,
                f"{reading.entry_id}-{key}",
                name=what.text,
                station=self.stage,
                where_from=where.text[:80],
                half=half,
            )

    def may_sign(self) -> str:
        return self.still_to_say()

    def result(self) -> dict[str, Any]:
        rounds = [found for attempt in range(1, self.attempt + 1) if (found := self.plane_of(attempt))]
        return {
            "schema": "split/1",
            "core_version": core_version,
            "lifted": self.lifts or None,
            "fasteners": len(self.fasteners) or None,
            "counted": self.value("counted"),
            "screw_turns": self.screws.turns if self.screws else None,
            "screw_strength_n": [round(self.screws.strength.low), round(self.screws.strength.high)] if self.screws else None,
            "rounds": [
                {
                    "mean_mm": round(plane.mean_mm, 3),
                    "lead_mm": round(plane.lead_mm, 3),
                    "leading": plane.leading_name,
                    "lagging": plane.lagging_name,
                }
                for plane in rounds
            ],
            "loose": [reading.text for number in range(1, asks.MOST_LOOSE + 1) if (reading := self.last(f"loose{number}"))],
            "contradicts": self.contradictions(),
        }


STATION = Station("split", "Split", Split)
