"""Flywheel on: the taper blued, lapped if it is poor; the key and what it does to the timing; the nut; rim and air gap."""

from __future__ import annotations

from functools import cached_property
from typing import Any

from django.utils.safestring import SafeString

from engines.models import Spec
from engines.properties import Property
from jobs import log
from shopmath import __version__ as core_version
from shopmath.checks import BadInput
from shopmath.quantity import Quantity
from shopmath.taper import key_shift_deg
from shopmath.verdict import TOO_CLOSE, Call, call, severity
from shopmath.wheelfit import Holds, contact, holds
from stations.base import Action, Ask, Caution, Option, Plate, Scale, Station, Trace, Work
from stations.flywheel_on import drawing

LARGE = (Option("yes", "yes, a closed ring"), Option("no", "no, hollow there"))
KEYS = (
    Option("sound", "sound and in its place"),
    Option("stepped", "stepped on purpose"),
    Option("worn", "sheared or worn"),
    Option("none", "there is none"),
)
TORQUE_SHARE = 0.05  # of the manual's torque, shop rule
TIMING_DEG = 1.0  # a shift that a fixed ignition bears, shop rule
CONE = 1.12  # mean diameter of the cone against the shaft at the key, where nobody measured it: estimate
BOUNDS = {"blue": (0, 100), "step": (-5, 5), "torque": (1, 600), "cone": (5, 120), "asked": (0.1, 2000), "runout": (0, 5), "gap": (0, 10)}


class FlywheelOn(Work):
    """One wheel going on."""

    @property
    def on_taper(self) -> bool:
        return self.job.card.cone != "straight"

    @cached_property
    def contact(self) -> Call | None:
        blue = self.mean("blue")
        return contact(blue / 100, self.said("large") == "yes") if blue is not None and self.said("large") else None

    @property
    def cone_mm(self) -> float | None:
        shaft = self.job.card.shaft_d_mm
        return self.value("cone") or (shaft * CONE if shaft else None)

    @property
    def torque_nm(self) -> float | None:
        return self.value("torque") or self.job.card.nut_torque_nm

    @cached_property
    def holds(self) -> Holds | None:
        """What the cone carries; None while something of it is unknown."""
        card = self.job.card
        if not (self.on_taper and card.taper_ratio and card.nut_d_mm and self.torque_nm and self.cone_mm):
            return None
        return holds(self.torque_nm, card.nut_d_mm, card.taper_ratio, self.cone_mm, self.value("asked"))

    @property
    def shift_deg(self) -> float | None:
        """How far the key turns the wheel on its shaft."""
        step, shaft = self.value("step"), self.job.card.shaft_d_mm
        return key_shift_deg(step, shaft) if step is not None and shaft else None

    def _timing(self, shift_deg: float) -> tuple[Call, str]:
        """A step that is there on purpose is set for; one that is wear lets the wheel turn."""
        if self.said("key") == "stepped":
            return Call(TOO_CLOSE, -abs(shift_deg), self._shift_words()), "Set the ignition to it."
        verdict = call(abs(shift_deg), high=TIMING_DEG, uncertainty=0.2, unit="°", digits=1)
        return verdict, "A new key: this one lets the wheel turn."

    def _by_card(self, key: str, limited: Property) -> tuple[Call | None, Spec | None]:
        """A figure against the card's; no verdict where the card says nothing."""
        value, spec = self.mean(key), self.spec(limited)
        if value is None or spec is None or (spec.low is None and spec.high is None):
            return None, spec
        return call(value, spec.low, spec.high, self.unsure(key), unit="mm", digits=2), spec

    @cached_property
    def judged(self) -> list[tuple[str, Call, str]]:
        """What has something to be judged by, worst first: what, call, move."""
        found: list[tuple[str, Call, str]] = []
        if self.contact:
            lap = "Lap it: fine paste, wheel turned on the bare shaft, no key; wash both, blue again."
            found.append(("Contact", self.contact, lap))
        if self.holds and self.holds.call:
            more = "Clean and dry, contact better, torque as the manual says; a key does not drive it."
            found.append(("Taper", self.holds.call, more))
        if self.shift_deg is not None:
            found.append(("Timing", *self._timing(self.shift_deg)))
        torque, manual = self.value("torque"), self.job.card.nut_torque_nm
        if torque and manual:
            low, high = manual * (1 - TORQUE_SHARE), manual * (1 + TORQUE_SHARE)
            found.append(("Nut", call(torque, low, high, 0.02 * torque, unit="N·m", digits=0), "To the manual's torque."))
        for name, key, limited, move in (
            ("Rim", "runout", Property.RIM_RUNOUT, "Off again: dirt on the taper, or a bent shaft."),
            ("Air gap", "gap", Property.AIR_GAP, "Shift the coil until it is in."),
        ):
            verdict_of, _ = self._by_card(key, limited)
            if verdict_of:
                found.append((name, verdict_of, move))
        return sorted(found, key=lambda each: severity(each[1].state))

    # the skeleton

    def asks(self) -> list[Ask]:
        found = []
        if self.on_taper:
            by = "blued thin, pushed on by hand, turned a little"
            found.append(Ask("blue", "How much of the taper shows blue", by, "count", "%", resolution=5, example="80"))
            found.append(Ask("large", "Does it reach the large end?", "", "words", "", options=LARGE))
        found.append(Ask("key", "The key is", "and its ways, in shaft and wheel", "words", "", options=KEYS))
        if self.said("key") in ("stepped", "worn"):
            ahead = "plus when the wheel stands ahead as it turns"
            found.append(Ask("step", "It is stepped by", ahead, gauges=("calliper",), resolution=0.02, example="0.4"))
        if self.on_taper:
            none = f"{CONE:g} times the shaft at the key" if self.job.card.shaft_d_mm else "what it holds stays unknown"
            found.append(
                Ask("cone", "Middle of the cone, across", "calliper", optional=True, skip_means=none, gauges=("calliper",), example="18")
            )
            most = "the most the engine asks of it"
            found.append(Ask("asked", "Torque it must carry", most, "torque", "Nm", True, "not known", resolution=1, example="40"))
        wanted = f"{self.job.card.nut_torque_nm:g} N·m by the card" if self.job.card.nut_torque_nm else "by the manual's page"
        found.append(Ask("torque", "Nut drawn to", wanted, "torque", "Nm", resolution=1, example="55"))
        dial: dict[str, Any] = {"optional": True, "skip_means": "not measured", "resolution": 0.01}
        found.append(Ask("runout", "Rim, full swing of the dial", "one turn by hand", gauges=("dial",), example="0.10", **dial))
        found.append(Ask("gap", "Air gap to the coil", "where it is narrowest", gauges=("feeler",), example="0.35", **dial))
        return found

    def check(self, ask: Ask, quantity: Quantity) -> None:
        low, high = BOUNDS.get(ask.key, (float("-inf"), float("inf")))
        if not low <= quantity.canonical <= high:
            raise BadInput(ask.key, f"{ask.words}: {quantity.canonical:g} is not believable. Check the unit and measure again.")

    def shown(self, reading: Any, ask: Ask | None = None) -> str:
        return f"{reading.canonical:.0f} %" if reading.ask == "blue" else super().shown(reading, ask)

    def plate(self) -> Plate:
        if self.signed:
            return self.signed_plate()
        ask = self.next_ask
        if self.judged and self.judged[0][1].state != "in":
            name, verdict, move = self.judged[0]
            words = {"Contact": "Lap it", "Taper": "Would it slip?", "Timing": "Timing moves"}.get(name, name)
            return Plate(verdict.state, words, verdict.reason, move, scale=self._scale())
        if ask and not ask.optional:
            return Plate("wait", "Clean, dry, blued" if ask.key in ("blue", "large") else "Going on", self._so_far(), f"{ask.words}.")
        if ask:
            return Plate("wait", "On", self._so_far(), f"{ask.words}: or leave it out.")
        return Plate("in", "It is on", self._so_far(), "Sign it.", self._shift_words(), self._scale())

    def _so_far(self) -> str:
        if self.holds:
            carries = self.holds.torque_nm
            return f"The taper carries {carries.low:.0f} to {carries.high:.0f} N·m by friction alone; the key only places it."
        return self.contact.reason if self.contact else "The taper drives, the key only places it."

    def _shift_words(self) -> str:
        if self.shift_deg is None:
            return ""
        return f"The step turns the wheel {abs(self.shift_deg):.1f}° {'ahead' if self.shift_deg > 0 else 'back'}: so much the spark moves."

    def _scale(self) -> Scale | None:
        if not self.holds or self.value("asked") is None:
            return None
        carries = self.holds.torque_nm
        return Scale(carries.likely, (carries.high - carries.low) / 2, self.value("asked"), None, "N·m", 0)

    def drawing(self, at_s: float | None = None) -> SafeString:
        return drawing.draw(self)

    def checks(self) -> tuple[Caution, ...]:
        return (
            Caution("dry", "Taper, bore and key ways wiped dry; no oil, no burr; magnets free of chips.", gate=True),
            Caution("hold", "The flywheel is held while the nut is drawn, not the crank."),
        )

    def cautions(self) -> tuple[Caution, ...]:
        if self.signed:
            return ()
        return (
            Caution("magnet", "Magnets pull it on: fingers clear, ease it over the coils."),
            Caution("first", "First run with the cover on, nobody in line with the rim."),
            Caution("manual", "The manual's torque and gap come first."),
        )

    def methods(self) -> tuple[Any, ...]:
        return () if self.signed else self.gauge_methods()

    def traces(self) -> tuple[Trace, ...]:
        rows = []
        if self.holds:
            carries, seats = self.holds.torque_nm, self.holds.seating_n
            rows.append(Trace("Nut seats it with", f"{seats.low / 1000:.0f} to {seats.high / 1000:.0f} kN", seats.basis, True))
            rows.append(Trace("Taper carries", f"{carries.low:.0f} to {carries.high:.0f} N·m", "μ·N·d/2 of the cone", True))
            if self.value("cone") is None:
                rows.append(Trace("Cone", f"{self.cone_mm:.1f} mm", f"{CONE:g} times the shaft at the key", True))
        if self.shift_deg is not None:
            rows.append(Trace("Timing", f"{self.shift_deg:+.1f}°", "2·asin(step/shaft); 1° borne, shop rule"))
        rows += [Trace(name, verdict.state.replace("_", " "), verdict.reason) for name, verdict, _ in self.judged]
        for key, words in (("runout", "rim run-out"), ("gap", "air gap")):
            if self.mean(key) is not None and not any(name.lower().startswith(words[:3]) for name, _, _ in self.judged):
                rows.append(Trace(words.capitalize(), f"{self.mean(key):.2f} mm", "no figure on the card: kept, not judged"))
        return tuple(rows)

    def actions(self) -> tuple[Action, ...]:
        if self.signed:
            return ()
        lap = self.contact is not None and self.contact.state != "in"
        found = [Action("lapped", "Lapped: blue it again", "lapped", True)] if lap else []
        return (*found, Action("sign", "Sign it", "sign", not found and not self.open_asks(), self.may_sign()))

    def act(self, key: str) -> None:
        entry = self.opened(key)
        if key == "lapped":
            for ask in ("blue", "large"):
                for reading in self.live(ask):
                    log.withdraw(reading, self.person)
            log.choose(entry, lapped=int(self.choices.get("lapped", 0)) + 1)
        if key == "sign":
            self.sign()

    def may_sign(self) -> str:
        worst = self.judged[0] if self.judged else None
        if worst and worst[1].state in ("out", "stop"):
            return f"{worst[0]}: {worst[1].reason}"
        return self.refused() or self.still_to_say()

    def result(self) -> dict[str, Any]:
        return {
            "schema": "flywheel-on/1",
            "core_version": core_version,
            "contact_share": (self.mean("blue") or 0) / 100 if self.on_taper else None,
            "lapped": int(self.choices.get("lapped", 0)),
            "key": self.said("key"),
            "key_shift_deg": self.shift_deg,
            "nut_torque_nm": self.value("torque"),
            "carries_nm": [self.holds.torque_nm.low, self.holds.torque_nm.likely, self.holds.torque_nm.high] if self.holds else None,
            "asked_nm": self.value("asked"),
            "rim_runout_mm": self.mean("runout"),
            "air_gap_mm": self.mean("gap"),
        }


STATION = Station("flywheel-on", "Flywheel on", FlywheelOn, drawn=True)
