"""Strip: the crank pushed out centred, then everything into the tray in the order it comes, looked at for wear at once."""

from __future__ import annotations

import re
from functools import cached_property
from typing import Any

from django.utils.safestring import SafeString

from jobs import tray
from jobs.models import Reading, TrayPlace
from shopmath import __version__ as core_version
from stations.base import Action, Ask, Caution, Option, Plate, Station, Trace, Work
from stations.strip import drawing

MOST_PARTS = 80
CRANK = (
    Option("pushed", "pushed out", "with the splitter, centred"),
    Option("lifted", "lifted out", "by hand, it was free"),
    Option("stays", "stays in for now"),
)
SQUARE = (Option("even", "even all round"), Option("crooked", "crooked, or stuck"))
WAY = (
    Option("marked", "marked side out"),
    Option("in", "marked side in"),
    Option("either", "either way", "the same on both sides"),
    Option("picture", "see its picture"),
)
WAY_WORDS = {option.key: option.words for option in WAY}
WEAR = (Option("none", "none seen"), Option("some", "some: look again", "dogs, gears, forks, ends"), Option("broken", "broken"))
_COUNTED = re.compile(r"^\s*(\d{1,3})\s*[x×]\s*(\S.*)$", re.IGNORECASE)


class Strip(Work):
    """One half with everything still in it."""

    @cached_property
    def places(self) -> list[TrayPlace]:
        return list(self.job.tray.all())

    @property
    def parts(self) -> list[str]:
        """Keys of the parts named so far, in order."""
        return [key for number in range(1, MOST_PARTS + 1) if self.last(key := f"part{number}")]

    @property
    def closed(self) -> bool:
        """Whether the mechanic has said that nothing is left."""
        return f"part{len(self.parts) + 1}" in self.skipped()

    def asks(self) -> list[Ask]:
        found = [Ask("crank", "The crank", "screw centred on its end, pushed evenly", "words", "", options=CRANK)]
        crank = self.last("crank")
        if crank and crank.text == "pushed":
            found.append(Ask("square", "Did it come evenly?", "look at the gap round the web as it moves", "words", "", options=SQUARE))
        for number in range(1, min(len(self.parts) + 2, MOST_PARTS + 1)):
            key = f"part{number}"
            words = "What comes out next?" if number > 1 else "What comes out first?"
            found.append(
                Ask(key, words, "with its count: 2 x washer", "words", "", True, "the half is bare", example="gear cluster, output")
            )
            if not self.last(key):
                break
            found.append(
                Ask(f"{key}-from", "From which shaft or place?", "and the order on it", "words", "", True, "unknown", example="output, 2nd")
            )
            found.append(Ask(f"{key}-way", "Which way round did it sit?", "", "words", "", options=WAY))
            found.append(Ask(f"{key}-wear", "Wear on it?", "now, before it is wiped", "words", "", options=WEAR))
        if self.closed or self.signed:
            found.append(Ask("note", "Anything to remember?", "for the one who puts it back", "words", "", True, "nothing noted"))
        return found

    def after_keep(self, reading: Reading) -> None:
        """A part of which all is said lies in its place of the tray; an answer taken again corrects it there."""
        key = reading.ask.partition("-")[0]
        what, way, where, worn = self.last(key), self.last(f"{key}-way"), self.last(f"{key}-from"), self.last(f"{key}-wear")
        if not key.startswith("part") or not what or not way or not worn:
            return
        counted = _COUNTED.match(what.text)
        count, name = (int(counted[1]), counted[2]) if counted else (1, what.text)
        words = {"some": "wear seen: look again", "broken": "broken"}.get(worn.text, "")
        tray.put(
            self.job,
            self.person,
            f"{reading.entry_id}-{key}",
            name=name,
            count=max(1, count),
            station=self.stage,
            where_from=where.text[:80] if where else "",
            way_round=WAY_WORDS[way.text],
            wear=words,
        )

    def plate(self) -> Plate:
        if self.signed:
            return self.signed_plate()
        square = self.last("square")
        ask = self.next_ask
        move = f"{ask.words}" if ask else "Sign it."
        if square and square.text == "crooked" and not self.closed:
            line = "A crank pushed crooked scores its seat and bends its end."
            return Plate(
                "stop", "Stop pushing", line, "Ease the screw, centre it on the crank's end, warm the boss, begin again; then answer anew."
            )
        worn = [place for place in self.places if place.wear]
        if self.closed:
            line = f"{len(self.places)} places in the tray" + (f", {len(worn)} with wear to look at." if worn else ".")
            state = "too_close" if worn else "in"
            return Plate(
                state, "Bare" if not worn else "Bare, with wear", line, move, "; ".join(f"{p.number} {p.name}: {p.wear}" for p in worn[:4])
            )
        line = (
            f"{len(self.places)} places in the tray so far, in the order they came."
            if self.places
            else "One part at a time, in the order it comes."
        )
        return Plate("wait", "Into the tray", line, move)

    def drawing(self, at_s: float | None = None) -> SafeString:
        return drawing.draw(self)

    def checks(self) -> tuple[Caution, ...]:
        return (
            Caution("tray", "A clean tray with numbered places, bags and a pen.", gate=True),
            Caution("shafts", "Gear shafts and drum marked or pictured as they stand."),
        )

    def cautions(self) -> tuple[Caution, ...]:
        return (
            Caution("end", "Never hammer the crank's end: it mushrooms, and the webs move."),
            Caution("drop", "The crank is heavy and greasy: a hand or a pad under it when it lets go."),
            Caution("order", "What lies in the tray is how it was, not proof of how it should be: the manual decides."),
        )

    def traces(self) -> tuple[Trace, ...]:
        counted = sum(place.count for place in self.places)
        return (
            (Trace("In the tray", f"{counted} pieces", f"{len(self.places)} places, Split's loose parts with them"),) if self.places else ()
        )

    def actions(self) -> tuple[Action, ...]:
        if self.signed or not self.closed:
            return ()
        return (Action("sign", "Sign it", "sign", not self.open_asks(), self.may_sign()),)

    def act(self, key: str) -> None:
        self.opened(key)
        self.sign()

    def may_sign(self) -> str:
        return self.refused() or self.still_to_say()

    def result(self) -> dict[str, Any]:
        crank, square = self.last("crank"), self.last("square")
        return {
            "schema": "strip/1",
            "core_version": core_version,
            "crank": crank.text if crank else None,
            "came_evenly": square.text == "even" if square else None,
            "tray": [
                {
                    "number": place.number,
                    "name": place.name,
                    "count": place.count,
                    "from": place.where_from,
                    "way_round": place.way_round,
                    "wear": place.wear,
                }
                for place in self.places
            ],
        }


STATION = Station("strip", "Strip", Strip, as_found=True)
