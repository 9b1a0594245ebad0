"""Hand over: what is still open, parts used, what was decided against advice, what stays unknown; then the job is sealed."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property
from typing import Any

from django.utils.safestring import SafeString

from jobs import log
from jobs.models import Entry, RunStation
from stations.base import Action, Ask, Caution, Plate, Station, Trace, Work
from stations.hand_over import drawing

State = RunStation.State
ADVISED_AGAINST = ("out", "stop", "too_close")


@dataclass(frozen=True)
class Line:
    """One station as it stands: its name's key, the call signed last, and why it was left out if it was."""

    key: str
    state: str
    call_state: str
    words: str
    because: str


class HandOver(Work):
    """One engine going back to its owner."""

    @cached_property
    def entries(self) -> list[Entry]:
        """Signed entries that stand, oldest first."""
        found = Entry.objects.filter(job=self.job, superseded_by=None).exclude(station=self.stage)
        return list(found.select_related("station", "seat", "signed_by"))

    @cached_property
    def lines(self) -> list[Line]:
        found = []
        for stage in self.job.run.all():
            if stage.pk == self.stage.pk:
                continue
            mine = [entry for entry in self.entries if entry.station_id == stage.pk and entry.is_signed]
            words = mine[-1].call_words if mine else ""
            found.append(Line(stage.key, stage.state, mine[-1].call_state if mine else "", words, stage.because))
        return found

    @property
    def unsigned(self) -> list[str]:
        """Stations begun and not signed, or ahead and neither done nor left out with a reason."""
        open_keys = [entry.station.key for entry in self.entries if not entry.is_signed]
        ahead = [line.key for line in self.lines if line.state not in (State.DONE, State.SKIPPED)]
        return list(dict.fromkeys([*open_keys, *ahead]))

    @cached_property
    def on_the_tray(self) -> list[str]:
        return [f"{place.number} {place.name}" for place in self.job.tray.filter(emptied_at=None)]

    @property
    def curing(self) -> list[str]:
        return [timer.label for timer in self.job.timers.all() if not timer.ended_at and timer.due_at and timer.due_at > self.now]

    @property
    def against(self) -> list[Entry]:
        """Signed although the call was not in."""
        return [entry for entry in self.entries if entry.is_signed and entry.call_state in ADVISED_AGAINST]

    def name_of(self, key: str) -> str:
        return key.replace("-", " ").capitalize()

    def asks(self) -> list[Ask]:
        found = [
            Ask(
                "parts",
                "Parts used",
                "one a line; Enter when all are in",
                "words",
                "",
                True,
                "none",
                repeats=True,
            )
        ]
        if self.against:
            names = ", ".join(f"{self.name_of(entry.station.key)}: {entry.call_words}" for entry in self.against[:3])
            found.append(Ask("advice", "Signed against the call, because", names, "words", ""))
        found.append(Ask("unknown", "What stays unknown?", "what the owner should watch", "words", "", True, "nothing"))
        found.append(Ask("note", "A word to the owner", "running in, first service", "words", "", True, "none"))
        return found

    def plate(self) -> Plate:
        if self.signed:
            return self.signed_plate()
        if self.unsigned:
            names = ", ".join(self.name_of(key) for key in self.unsigned[:4])
            return Plate("stop", "Not finished", f"Still open: {names}.", "Sign each, or leave it out of the run with a reason.")
        if self.on_the_tray:
            return Plate("stop", "Still on the tray", f"{', '.join(self.on_the_tray[:4])}.", "Find where it belongs first.")
        if self.curing:
            return Plate("wait", "Still curing", f"{', '.join(self.curing)}.", "Let it cure before it runs.")
        ask = self.next_ask
        if ask:
            return Plate("wait", "Last words", f"{len(self.entries)} entries signed.", f"{ask.words}.")
        if not self.person.is_owner:
            return Plate("wait", "For the owner to sign", "Only an owner of the shop signs an engine out.", "Call one over.")
        state = "too_close" if self.against else "in"
        words = "Ready, with reservations" if self.against else "Ready to go"
        return Plate(state, words, f"{len(self.entries)} entries, every station signed or left out.", "Sign it out; the job is sealed.")

    def drawing(self, at_s: float | None = None) -> SafeString:
        return drawing.draw(self)

    def cautions(self) -> tuple[Caution, ...]:
        if self.signed:
            return ()
        return (Caution("manual", "The sheet says what was measured here; the manual, local codes and licensed practice come first."),)

    def traces(self) -> tuple[Trace, ...]:
        left = [line for line in self.lines if line.state == State.SKIPPED]
        return tuple(Trace(self.name_of(line.key), "left out", line.because) for line in left)

    def actions(self) -> tuple[Action, ...]:
        return () if self.signed else (Action("sign", "Sign it out", "sign", not self.open_asks(), self.may_sign()),)

    def act(self, key: str) -> None:
        self.opened(key)
        if key == "sign":
            self.sign()
            self.__dict__.pop("call", None)  # the call is now the one that was signed
            self.settle()
            log.close(self.job, self.now)

    def settle(self) -> None:
        if not self.job.is_closed:
            super().settle()

    def may_sign(self) -> str:
        if self.unsigned:
            return f"Still open: {', '.join(self.name_of(key) for key in self.unsigned[:4])}."
        if self.on_the_tray:
            return f"Still on the tray: {', '.join(self.on_the_tray[:4])}."
        if not self.person.is_owner:
            return "Only an owner of the shop signs an engine out."
        return self.still_to_say()

    def still_to_say(self) -> str:
        if self.against and not self.said("advice"):
            return "Say why it was signed against the call."
        return ""

    def result(self) -> dict[str, Any]:
        return {
            "schema": "hand-over/1",
            "parts": [reading.text for reading in self.live("parts")],
            "against_advice": self.said("advice"),
            "unknown": self.said("unknown"),
            "note": self.said("note"),
        }


STATION = Station("hand-over", "Hand over", HandOver, open_when_closed=True)
