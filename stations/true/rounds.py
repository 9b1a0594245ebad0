"""What every crank under two gauges shares: turns of readings round after round, how sure they are, the verdict on the swing."""

from __future__ import annotations

import math
from abc import abstractmethod
from datetime import timedelta
from functools import cached_property
from typing import Any

from engines.clearance import clearance_left
from engines.models import Seat, Spec
from engines.properties import Property
from jobs import log
from jobs.models import Reading
from shop.models import Compound, Gauge
from shop.shelves import shelves
from shopmath.bearings import MountedClearance
from shopmath.runout import RunoutFit, fit, turn_doubt
from shopmath.truing import Swing
from shopmath.verdict import Call, call, gauge_uncertainty, what_settles
from stations.base import Action, Ask, Caution, Method, Row, Scale, Told, Trace, Work
from stations.pieces import between
from stations.true import asks

DIAL_RESOLUTION_MM = 0.01
CURE_S = 24 * 3600.0  # where the compound's own sheet says nothing


class Rounds(Work):
    """Two places under the gauge, turned once or more, then again after each move."""

    @property
    def held(self) -> str:
        chosen, known = str(self.choices.get("held", "")), asks.held_by(self.job.card)
        return chosen if chosen in known else next(iter(known))

    @property
    def how(self) -> str:
        chosen = str(self.choices.get("how", "turn"))
        return chosen if chosen in asks.HOW else "turn"

    @cached_property
    def gauge(self) -> Gauge | None:
        return self.gauge_for(Ask("", "", gauges=asks.DIAL))

    @property
    def resolution(self) -> float:
        return self.gauge.resolution if self.gauge else DIAL_RESOLUTION_MM

    @property
    def turns(self) -> int:
        """How many turns this round wants at each place."""
        return int(self.choices.get("turns", {}).get(str(self.attempt), 1))

    def live(self, key: str, every_attempt: bool = False) -> list[Reading]:
        """Readings of an end belong to their round; the set-up and the words stand for all."""
        return super().live(key, every_attempt or not key.startswith(("l-", "r-")))

    @cached_property
    def reading_u_mm(self) -> float:
        """Expanded uncertainty of what stands for one place: one reading, or the mean of as many as there are."""
        spread = self.gauge.repeatability if self.gauge else None
        keys = [f"{key}-{angle}" for _, key in asks.SIDES for angle in asks.TURN] if self.how == "turn" else ["l-swing", "r-swing"]
        once = gauge_uncertainty(self.resolution, spread)
        return max((gauge_uncertainty(self.resolution, spread, found) for key in keys if (found := self.values(key))), default=once)

    @property
    def vector_u_mm(self) -> float:
        """Standard uncertainty of each component of a swing: eight readings share it, two ends of a swing carry it whole."""
        return self.reading_u_mm / 2 * math.sqrt(2 / len(asks.TURN)) if self.how == "turn" else self.reading_u_mm / 2

    # one round

    def _round(self, key: str, attempt: int) -> list[float | None]:
        wanted = [f"{key}-{angle}" for angle in asks.TURN] if self.how == "turn" else [f"{key}-swing", f"{key}-high"]
        found: list[float | None] = []
        for ask in wanted:
            taken = [reading.canonical or 0.0 for reading in Work.live(self, ask, every_attempt=True) if reading.attempt == attempt]
            found.append((taken[-1] if ask.endswith("-high") else sum(taken) / len(taken)) if taken else None)
        return found

    def fitted(self, key: str, attempt: int | None = None) -> RunoutFit | None:
        """One end's turn, fitted; None until every angle is read."""
        values = self._round(key, attempt or self.attempt)
        if self.how != "turn" or any(value is None for value in values):
            return None
        return fit([float(angle) for angle in asks.TURN], [float(value or 0) for value in values])

    def swing(self, key: str, attempt: int | None = None) -> Swing | None:
        if self.how == "turn":
            found = self.fitted(key, attempt)
            return Swing(found.tir_mm, found.high_spot_deg) if found else None
        values = self._round(key, attempt or self.attempt)
        return None if None in values else Swing(float(values[0] or 0), float(values[1] or 0) % 360)

    @cached_property
    def doubt(self) -> tuple[str, str]:
        """Why this round's numbers cannot come from a crank that turns on its supports, and the reading to blame; empty when they can."""
        if self.how != "turn":
            return "", ""
        for side, key in asks.SIDES:
            values = self._round(key, self.attempt)
            if None in values:
                continue
            words, angle = turn_doubt(asks.TURN, [float(value or 0) for value in values], self.reading_u_mm, self.value(f"{key}-360"))
            if words:
                where = self.job.card.side(side)
                return f"{where[:1].upper()}{where[1:]}: {words[:1].lower()}{words[1:]}", f"{key}-{angle:.0f}" if angle is not None else ""
        return "", ""

    # the verdict

    @cached_property
    def limit(self) -> Spec | None:
        found = self.spec(Property.CRANK_RUNOUT)
        return found if found and found.high is not None else None

    @property
    def limit_mm(self) -> float | None:
        """The spec's limit, where it is meant for this set-up."""
        return self.limit.high if self.limit and not self.other_setup else None

    @property
    def other_setup(self) -> str:
        """The spec's own set-up when it is not this one: its limit then gives no verdict."""
        said = self.limit.setup.lower() if self.limit else ""
        meant = {held for held, words in asks.SETUP_WORDS.items() if any(word in said for word in words)}
        return self.limit.setup if self.limit and meant and self.held not in meant else ""

    def needle_mm(self, key: str, attempt: int | None = None) -> float | None:
        """The needle's whole travel at one end in a round."""
        if self.how == "turn":
            turn = self.fitted(key, attempt)
            return turn.raw_swing_mm if turn else None
        swing = self.swing(key, attempt)
        return swing.tir_mm if swing else None

    @property
    def raw_mm(self) -> float | None:
        """The larger raw swing: what a manual's limit means."""
        found = [self.needle_mm(key) for _, key in asks.SIDES]
        return None if None in found else max(each for each in found if each is not None)

    @cached_property
    def verdict_on_swing(self) -> Call | None:
        """The raw swing against the card's limit; none where the card has none for this set-up."""
        raw, limit = self.raw_mm, self.limit_mm
        if raw is None or limit is None:
            return None
        return call(raw, high=limit, uncertainty=math.sqrt(2) * self.reading_u_mm, unit="mm", digits=3)

    def swing_line(self) -> str:
        """What the swing is against, in a sentence."""
        if self.verdict_on_swing:
            return self.verdict_on_swing.reason
        other = f"the card's limit is for {self.other_setup}" if self.other_setup else "no limit on the card"
        return f"{self.raw_mm or 0.0:.3f} mm swing; {other}: no verdict here."

    def swing_scale(self) -> Scale | None:
        raw, limit = self.raw_mm, self.limit_mm
        return Scale(raw, math.sqrt(2) * self.reading_u_mm, None, limit, "mm", 3) if raw is not None and limit else None

    def reread(self) -> str:
        """What to do about numbers that disagree."""
        key = self.doubt[1]
        if key:
            return f"Take the reading at {key.partition('-')[2]}° again."
        return "Set gauge and supports fast, then measure the round again."

    @cached_property
    def settled_by(self) -> int | None:
        """Turns in all that would settle a verdict too close to call; None when it is none, or no number would."""
        verdict = self.verdict_on_swing
        if verdict is None or verdict.state != "too_close" or self.gauge is None:
            return None
        found = what_settles(verdict.margin / math.sqrt(2), self.resolution, self.gauge.repeatability, most=6)
        return found.readings if found.readings and found.readings > self.turns else None

    @cached_property
    def clearance(self) -> tuple[Seat, MountedClearance] | None:
        """The least clearance left, warm, in a main bearing that the card names."""
        found = []
        for seat in self.job.card.seats.all():
            if seat.is_main:
                seat.card = self.job.card
                if left := clearance_left(seat):
                    found.append((seat, left[1]))
        return min(found, key=lambda pair: pair[1].low_um, default=None)

    def against_clearance(self) -> str:
        """What the swing means in the bearing; empty when nothing is known."""
        if self.clearance is None or self.raw_mm is None:
            return ""
        low, high = self.clearance[1].low_um / 1000, self.clearance[1].high_um / 1000
        if high <= 0:
            return "The bearing may have no clearance left warm: any swing loads it."
        if self.raw_mm > high:
            return f"{self.raw_mm:.3f} is more than the {high:.3f} mm the bearing has left warm: it is loaded at every turn."
        if self.raw_mm > max(low, 0.0):
            return f"The bearing has {max(low, 0):.3f} to {high:.3f} mm left warm: a tight one is loaded at every turn."
        return f"Within the {low:.3f} mm the tightest bearing has left warm."

    # the skeleton

    def shown(self, reading: Reading, ask: Ask | None = None) -> str:
        return f"{reading.canonical:.0f}°" if reading.kind == "angle" and reading.canonical is not None else super().shown(reading, ask)

    def sheet(self) -> list[Row]:
        """This round, then what the rounds before came to."""
        rows = super().sheet()
        for attempt in range(self.attempt - 1, 0, -1):
            for side, key in asks.SIDES:
                for name in [f"{key}-{angle}" for angle in asks.TURN] + [f"{key}-swing", f"{key}-high"]:
                    found = [reading for reading in Work.live(self, name, every_attempt=True) if reading.attempt == attempt]
                    rows += [
                        Row(Ask(name, f"Round {attempt}: {side} {name.partition('-')[2]}"), reading, self.shown(reading))
                        for reading in found
                    ]
        return rows

    def checks(self) -> tuple[Caution, ...]:
        on = "Centre holes clean and whole" if self.held == "centres" else "Seats clean, no burr; vees or rollers level"
        return (
            Caution("clean", f"{on}; crank turns freely, nothing rubs."),
            Caution("lifted", "Before any blow: gauges lifted, crank off its supports, on wood.", gate=True),
        )

    def cautions(self) -> tuple[Caution, ...]:
        return (
            Caution("rims", "Soft heavy hammer, web rims only; never a shaft, never a threaded end."),
            Caution("wedge", "A wedge or a squeeze can jump: eyes covered, hands clear. Side play of the rod again after each."),
            Caution("manual", "The limit is the manual's, at the manual's supports; elsewhere it is no verdict."),
        )

    def methods(self) -> tuple[Method, ...]:
        if self.signed:
            return ()
        held = Method("held", "Crank held", tuple(asks.held_by(self.job.card).values()), self.held)
        how = (Method("how", "Read at", tuple(asks.HOW.values()), self.how),) if self.attempt == 1 else ()
        return (held, *how, *self.gauge_methods())

    def swing_traces(self) -> list[Trace]:
        """Both swings, the limit, the bearing's clearance, the joint."""
        rows: list[Trace] = []
        for side, key in asks.SIDES:
            found, swing = self.fitted(key), self.swing(key)
            if found:
                rest = f"oval {found.ovality_mm:.3f}, scatter {found.residual_mm:.4f}"
                source = f"high at {found.high_spot_deg:.0f}°; raw {found.raw_swing_mm:.3f}, {rest}"
                rows.append(Trace(f"Swing, {self.job.card.side(side)}", f"{found.tir_mm:.3f} mm", source))
            elif swing:
                rows.append(Trace(f"Swing, {self.job.card.side(side)}", f"{swing.tir_mm:.3f} mm", f"high at {swing.high_spot_deg:.0f}°"))
        if self.limit:
            source = self.limit.origin
            setup = f"; {self.limit.setup}" if self.limit.setup else "; its set-up is not said"
            rows.append(Trace("Limit", f"{self.limit.high:g} mm", f"{source}{setup}".strip()))
        if self.clearance:
            seat, left = self.clearance
            band = f"{left.low_um:.0f} to {left.high_um:.0f} µm"
            rows.append(Trace("Bearing's clearance, warm", band, f"{seat.name}, by fit codes", True))
        if self.gauge:
            turns = f"{self.turns} turns" if self.turns > 1 else "one turn"
            rows.append(Trace("One place read", f"± {self.reading_u_mm:.4f} mm", f"{self.gauge.name}, {turns}"))
        return rows

    def told(self) -> list[Told]:
        """The raw swing at each end, of the first round and of the last."""
        found = []
        for side, key in asks.SIDES:
            rounds = [mm for attempt in range(1, self.attempt + 1) if (mm := self.needle_mm(key, attempt)) is not None]
            if not rounds:
                continue
            first, last, limit = rounds[0], rounds[-1], self.limit_mm
            verdict = call(last, high=limit, uncertainty=math.sqrt(2) * self.reading_u_mm, unit="mm", digits=3) if limit else None
            source = self.limit.origin if self.limit and limit else ""
            words = f"Swing, {self.job.card.side(side)}"
            more = {"limits": between(None, limit, "mm"), "source": source, "state": verdict.state if verdict else ""}
            found.append(Told(words, f"{first:.3f} mm", f"{last:.3f} mm", **more))
        return found

    # doing

    def turn_actions(self) -> list[Action]:
        """Another turn where that settles the call."""
        if self.settled_by is None or self.open_asks():
            return []
        more = self.settled_by - self.turns
        return [Action("turn", f"{more} more turn{'s' * (more > 1)} at each end", "turn", True)]

    def cure_actions(self) -> list[Action]:
        joint = self.last("joint")
        if not joint or joint.text != "compound" or self.timer_of("cure"):
            return []
        return [Action("cure", "Start the cure clock", "cure", True)]

    def timer_of(self, key: str) -> Any:
        return next((timer for timer in self.timers if timer.key == key), None)

    def act(self, key: str) -> None:
        entry = self.opened(key)
        if key == "turn" and self.settled_by:
            log.choose(entry, turns={**self.choices.get("turns", {}), str(self.attempt): self.settled_by})
        if key == "cure":
            compound = next((each for each in shelves(self.shop).compounds if each.kind == Compound.Kind.RETAINING), None)
            lasts = compound.cure_s if compound and compound.cure_s else CURE_S
            log.start_timer(entry, self.person, "cure", "joint has cured", "wait", timedelta(seconds=lasts).total_seconds(), at=self.now)
        if key == "again":
            left_out = [each for each in self.skipped() if not each.startswith(("l-", "r-"))]  # a new round asks for its own
            log.next_attempt(entry, skipped=left_out, moves=[*self.choices.get("moves", []), self.as_written()])
        if key == "sign":
            self.sign()

    @abstractmethod
    def as_written(self) -> dict[str, Any]:
        """The move as the log keeps it."""

    def turned(self) -> dict[str, Any]:
        """What is kept of the measuring beside the call."""
        return {
            "held": self.held,
            "rounds": self.attempt,
            "raw_swing_mm": round(self.raw_mm, 4) if self.raw_mm is not None else None,
            "reading_u_mm": round(self.reading_u_mm, 5),
            "limit_mm": self.limit_mm,
            "moves": self.choices.get("moves", []),
            "joint": next((reading.text for reading in self.live("joint")), None),
        }
