"""Flywheel off: is it the right puller, does its thread stand the pull, at which torque to stop; then what the taper looks like."""

from __future__ import annotations

from datetime import timedelta
from functools import cached_property
from typing import Any

from django.utils.safestring import SafeString

from jobs import log
from jobs.models import Reading
from shop.models import Puller
from shop.shelves import shelves
from shopmath import __version__ as core_version
from shopmath.pulling import CONDITIONS, PLAY_MM, Pull, Screw, bound_early, pull, same_size, same_thread, torque_call, wanted_force_n
from shopmath.quantity import Quantity
from shopmath.taper import key_shift_deg
from shopmath.threads import Match, identify, minor_diameter_mm
from shopmath.verdict import Call
from stations.base import Action, Ask, Caution, Method, Option, Plate, Station, Trace, Work
from stations.flywheel_off import asks, drawing, plates

FEW_TURNS = 3
LOADED_S = 600.0  # left loaded before the next turn
WARM_C = 80.0  # boss, for magnets and their glue
CONDITION_WORDS = {"clean": "clean, dry", "oiled": "oiled", "fretted": "long-standing or fretted"}


class FlywheelOff(Work):
    """One flywheel, one puller."""

    @cached_property
    def puller(self) -> Puller | None:
        chosen = str(self.choices.get("puller", ""))
        return next((each for each in shelves(self.shop).pullers if str(each.pk) == chosen), None)

    @property
    def condition(self) -> str:
        return str(self.choices.get("condition", "clean"))

    @cached_property
    def free(self) -> bool:
        return bool(self.choices.get("free"))

    def size(self, key: str) -> float | None:
        """A size by reading, else by the shelf's puller."""
        shelf = {"puller_d": "thread_mm", "puller_pitch": "pitch_mm", "screw_d": "screw_mm", "screw_pitch": "screw_pitch_mm"}
        read = self.value(key)
        if read is not None:
            return read
        card = self.job.card
        if key == "boss_pitch":
            return card.boss_pitch_mm
        if key == "boss_d" and card.boss_d_mm and card.boss_pitch_mm:
            return minor_diameter_mm(card.boss_d_mm, card.boss_pitch_mm)
        return getattr(self.puller, shelf[key], None) if self.puller and key in shelf else None

    def hand(self, key: str) -> str:
        reading = self.last(key)
        if reading:
            return reading.text
        if key == "boss_hand":
            return self.job.card.boss_hand or "right"
        return self.puller.hand if self.puller else "right"

    # asks

    def asks(self) -> list[Ask]:
        return asks.asks(self)

    def said(self, key: str) -> str:
        reading = self.last(key)
        return reading.text if reading else ""

    def check(self, ask: Ask, quantity: Quantity) -> None:
        asks.check(ask, quantity.canonical)

    def shown(self, reading: Reading, ask: Ask | None = None) -> str:
        if reading.ask == "turns" and reading.canonical is not None:
            return f"{reading.canonical / 360:g} turns"
        if reading.kind == "torque" and reading.canonical is not None:
            return f"{reading.canonical:.0f} N·m"
        if reading.kind == "thread_pitch" and reading.canonical is not None:
            return f"{reading.canonical:.3f} mm"
        return super().shown(reading, ask)

    def note(self, reading: Reading) -> str:
        if reading.ask in ("puller_d", "puller_pitch", "boss_d", "boss_pitch"):
            match = self.match(reading.ask.partition("_")[0])
            return f"nearest: {match.designation}" if match else ""
        if reading.ask == "step" and self.job.card.shaft_d_mm and reading.canonical:
            return f"shifts the timing {key_shift_deg(reading.canonical, self.job.card.shaft_d_mm):.1f}°"
        return ""

    # judging

    def match(self, side: str) -> Match | None:
        """The thread of the table nearest to what was measured."""
        d, pitch = self.size(f"{side}_d"), self.size(f"{side}_pitch")
        if d is None or pitch is None:
            return None
        return next(iter(identify(d, pitch, self.hand(f"{side}_hand"), internal=side == "boss")), None)

    @cached_property
    def same(self) -> Call | None:
        mine, its = self.size("puller_pitch"), self.size("boss_pitch")
        if mine is None or its is None:
            return None
        found = same_thread(mine, its, self.hand("puller_hand"), self.hand("boss_hand"))
        puller_d, boss_d = self.size("puller_d"), self.size("boss_d")
        if found.state == "in" and puller_d and boss_d:
            found = same_size(puller_d, boss_d, its)
        return found

    @property
    def depth_turns(self) -> float | None:
        """Turns the boss's own thread would take, by its depth."""
        depth, its = self.value("boss_depth"), self.size("boss_pitch")
        return depth / its if depth and its else None

    @property
    def shallow(self) -> bool:
        """So few turns that it matters why."""
        turns = self.value("turns")
        return turns is not None and turns / 360 < FEW_TURNS and not self.free

    @property
    def dirty(self) -> bool:
        """The right thread, but it bound early: coating or damage."""
        turns, free = self.value("turns"), self.depth_turns
        return turns is not None and free is not None and bound_early(turns / 360, free)

    @cached_property
    def found(self) -> Pull | None:
        """The pull weighed, once thread, turns and screw are known and the threads agree."""
        d, pitch, turns = self.size("puller_d"), self.size("puller_pitch"), self.value("turns")
        screw_d, screw_pitch = self.size("screw_d"), self.size("screw_pitch")
        if None in (d, pitch, turns, screw_d, screw_pitch) or self.same is None or self.same.state == "stop":
            return None
        card = self.job.card
        torque, nut = card.nut_torque_nm or self.value("nut_torque"), card.nut_d_mm or self.value("nut_d")
        known = torque and nut and card.taper_ratio
        wanted = wanted_force_n(float(torque), float(nut), float(card.taper_ratio), self.condition) if known else None  # type: ignore[arg-type]
        radius = self.puller.tip_radius_mm if self.puller else 3.0
        screw = Screw(float(screw_d or 0), float(screw_pitch or 0), radius)
        return pull(float(d or 0), float(pitch or 0), float(turns or 0) / 360, screw, wanted)

    @property
    def now_nm(self) -> float | None:
        return self.value("torque")

    def torque_now(self) -> Call | None:
        return torque_call(self.now_nm, self.found) if self.found and self.now_nm is not None else None

    def plate(self) -> Plate:
        return plates.plate(self)

    def drawing(self, at_s: float | None = None) -> SafeString:
        return drawing.draw(self)

    def checks(self) -> tuple[Caution, ...]:
        return (
            Caution("catcher", "Nut back on by a few threads as a catcher: a taper can let go unattended and throw the wheel.", gate=True),
            Caution("hold", "The flywheel is held, not the crank. Nobody in line with it.", gate=True),
            Caution("hand", "Puller in by hand to the last turn; no spanner on its thread."),
        )

    def cautions(self) -> tuple[Caution, ...]:
        if self.free or self.signed:
            return (Caution("magnets", "Magnets pull tools and pinch fingers; keep watches and swarf away."),)
        return (
            Caution("blows", "No blows: not on the rim, not on the screw. Magnets crack and lose strength, mains brinell."),
            Caution("warm", f"Warmth on the boss only, under {WARM_C:.0f} °C: magnets and their glue stand no more."),
            Caution("manual", "The engine's manual and its maker's puller come first."),
        )

    def methods(self) -> tuple[Method, ...]:
        if self.free or self.signed:
            return ()
        shelf = (Option("", "the one in hand, measured"), *(Option(str(each.pk), each.name) for each in shelves(self.shop).pullers))
        taper = tuple(Option(key, CONDITION_WORDS[key]) for key in CONDITIONS)
        hold = (Option("flywheel", "hold the flywheel", "usual"), Option("crank", "lock the crank", "loads rod and case"))
        return (
            Method("puller", "Puller", shelf, str(self.puller.pk) if self.puller else ""),
            Method("condition", "The taper has been", taper, self.condition),
            Method("holding", "Hold", hold, str(self.choices.get("holding", "flywheel"))),
        )

    def traces(self) -> tuple[Trace, ...]:
        rows: list[Trace] = []
        for side in ("puller", "boss"):
            match = self.match(side)
            if match:
                off = f"{match.diameter_error_mm:+.2f} on size, {match.pitch_error_mm:+.3f} on pitch"
                rows.append(Trace(f"{side.title()} thread", match.designation, f"{match.system}; {off}"))
        if self.same and self.same.state == "stop":
            rows.append(Trace("Play taken", f"{PLAY_MM:.2f}", "on diameter, medium fit", True))
        if self.found:
            rows += plates.traces(self.found, self.job.card.flywheel_source)
        return tuple(rows)

    # doing

    def actions(self) -> tuple[Action, ...]:
        if self.signed:
            return ()
        if self.free:
            return (Action("sign", "Sign it", "sign", not self.open_asks(), self.may_sign()),)
        if not self.found:
            return ()
        shut = self.refused() or (self.found.call.reason if self.found.call.state == "stop" else "")
        loaded = self.timer("loaded")
        found = [Action("free", "It let go", "free", bool(self.now_nm), shut)]
        if self.now_nm and not (loaded and not loaded.ended_at):
            found.append(Action("wait", "Leave it loaded ten minutes", "wait", False, shut))
        if self.now_nm:
            found.append(Action("moved", "Write down whether it moved", "moved"))
        return tuple(found)

    def act(self, key: str) -> None:
        entry = self.opened(key)
        if key == "wait":
            attempt = len([timer for timer in self.timers if timer.key == "loaded"]) + 1
            log.start_timer(entry, self.person, "loaded", "turn it again", "wait", LOADED_S, attempt=attempt, at=self.now)
        if key == "moved":
            log.choose(entry, asking="moved")
        if key == "free":
            for timer in self.timers:
                log.stop_timer(timer, self.now)
            log.choose(entry, free=True)
        if key == "sign":
            self.sign()

    def timer(self, key: str) -> Any:
        return next((timer for timer in reversed(self.timers) if timer.key == key), None)

    def ask_for(self, key: str | None) -> Ask | None:
        """Whether it moved is asked once after it was offered, then the torque again."""
        return super().ask_for(key or self.choices.get("asking"))

    def after_keep(self, reading: Reading) -> None:
        """A new torque begins a new wait."""
        if reading.ask == "moved" and self.entry:
            log.choose(self.entry, asking="")
        loaded = self.timer("loaded")
        if reading.ask == "torque" and loaded and not loaded.ended_at and self.now - loaded.started_at > timedelta(seconds=5):
            log.stop_timer(loaded, self.now)

    def may_sign(self) -> str:
        return self.still_to_say()

    def result(self) -> dict[str, Any]:
        found, match = self.found, {side: self.match(side) for side in ("puller", "boss")}
        pulled = [reading.canonical for reading in self.live("torque", every_attempt=True) if reading.canonical]
        return {
            "schema": "flywheel-off/1",
            "core_version": core_version,
            "puller_thread": match["puller"].designation if match["puller"] else None,
            "boss_thread": match["boss"].designation if match["boss"] else None,
            "turns": found.turns if found else None,
            "strength_n": [round(found.strength.low), round(found.strength.high)] if found else None,
            "wanted_n": [round(value) for value in (found.wanted.low, found.wanted.likely, found.wanted.high)]
            if found and found.wanted
            else None,
            "stop_torque_nm": round(found.stop_nm, 1) if found else None,
            "peak_torque_nm": max(pulled, default=None),
            "attempts": len(pulled),
            "taper": self.said("taper"),
            "key": self.said("key"),
            "key_step_mm": self.value("step"),
            "magnets": self.said("magnets"),
            "coils": self.said("coils"),
            "log": [
                {"torque_nm": reading.canonical, "at": reading.taken_at.isoformat(timespec="seconds")}
                if reading.ask == "torque"
                else {"moved": reading.text, "at": reading.taken_at.isoformat(timespec="seconds")}
                for reading in self.readings
                if reading.ask in ("torque", "moved") and not reading.withdrawn_at
            ],
        }


STATION = Station("flywheel-off", "Flywheel off", FlywheelOff, as_found=True, equipment={"puller": "pullers"})
