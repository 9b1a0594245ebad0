"""What is asked at a seat: its seal as found, what holds the bearing, how it came out, what the seat tells."""

from __future__ import annotations

from typing import TYPE_CHECKING

from engines.models import Seat
from shopmath.seals import CLOCKS
from stations.base import Ask, Option

if TYPE_CHECKING:
    from stations.bearings_out.station import BearingsOut

BOTTOM = (Option("open", "from behind", "a driver reaches it"), Option("blind", "not at all", "blind bore"))
RETAINED = (
    Option("none", "nothing"),
    Option("circlip", "a circlip"),
    Option("plate", "a plate and screws"),
    Option("removed", "it did; it is off now"),
)
SHIELDS = (Option("open", "open", "balls to be seen"), Option("one", "one side closed"), Option("both", "both closed"))
LIP = (Option("inside", "to the inside"), Option("outside", "to the outside"))
OUTCOME = (
    Option("dropped", "dropped out", "by heat alone"),
    Option("driven", "driven or pulled", "whole"),
    Option("broke", "in pieces", "ring left, or cut"),
    Option("stuck", "still in"),
)
HIT = (Option("no", "no", "by the tight ring only"), Option("yes", "yes", "through the balls"))
SEAT_LOOK = (Option("sound", "smooth, tight marks"), Option("spun", "polished or spun"), Option("scored", "scored or cracked"))


def _faced(seat: Seat, quiet: bool) -> Ask:
    """Which way round it sat: by what the card goes by, else by its marking."""
    what = seat.faces.partition("_")[0] or "marking"
    words = {"marking": "Its marking", "cage": "Its open cage side", "shield": "Its shield"}[what]
    options = (Option(f"{what}_out", "to the outside"), Option(f"{what}_in", "to the inside"))
    return Ask("faced", f"{words} faces", "as found, before it is moved", "words", "", True, "not seen", options, quiet=quiet)


def asks(work: BearingsOut) -> list[Ask]:
    found: list[Ask] = []
    later = bool(work.said("outcome")) or work.signed
    if work.seal:
        found.append(
            Ask(
                "lip",
                f"{work.seal.name}: the lip and spring face",
                "as found, before it is pulled",
                "words",
                "",
                True,
                "not seen",
                LIP,
                quiet=later,
            )
        )
        found += [
            Ask(
                f"depth{clock}",
                f"{work.seal.name}: depth at {clock} o'clock",
                "below the face; minus when it stands proud",
                optional=True,
                skip_means="not measured",
                quiet=later,
                resolution=0.02,
                example="0.5",
            )
            for clock in CLOCKS
        ]
        found.append(
            Ask(
                "seal_out",
                "Is the seal out?",
                "hooked out toward its own side, off the bore",
                "words",
                "",
                options=(Option("yes", "yes"), Option("no", "stays in for the heat", "80 to 100 °C is then the limit")),
                quiet=later,
            )
        )
        if work.seal_is_out:
            found.append(
                Ask(
                    "behind",
                    "Depth of the bearing's face",
                    "below the same face as the seal",
                    optional=True,
                    skip_means="not measured",
                    quiet=later,
                    resolution=0.02,
                    example="8.0",
                )
            )
    found += [
        Ask(
            "retained",
            "What holds the bearing in?",
            f"the card says: {work.seat.get_stop_display()}",
            "words",
            "",
            options=RETAINED,
            quiet=later,
        ),
        Ask("bottom", "Can it be reached?", f"the card says: {work.seat.get_bottom_display()}", "words", "", options=BOTTOM, quiet=later),
        Ask("shields", "The bearing is", f"{work.bearing.designation} by the card", "words", "", options=SHIELDS, quiet=later),
        _faced(work.seat, quiet=later),
        Ask(
            "keep",
            "The bearing is to be",
            "a hit through its balls ends it anyway",
            "words",
            "",
            options=(Option("keep", "kept if it can be"), Option("scrap", "scrap")),
            quiet=later,
        ),
    ]
    found.append(
        Ask("outcome", "How did it come out?", work.seat.name, "words", "", options=OUTCOME, quiet=bool(work.refused() or work.retained))
    )
    if later:
        if work.said("outcome") in ("driven", "broke"):
            found.append(
                Ask(
                    "hit",
                    "Was it driven or pulled through its balls?",
                    "by the ring that was not the tight one",
                    "words",
                    "",
                    options=HIT,
                )
            )
        if work.said("outcome") == "broke" or work.way.key in ("cut", "punch"):
            found.append(Ask("why", "Why was no kinder way left?", "it goes into the log", "words", ""))
        found.append(Ask("look", "The seat, wiped", "bore or journal, and the shoulder", "words", "", options=SEAT_LOOK))
        found.append(
            Ask(
                "marking",
                "Marking on the ring, as found",
                f"the card says {work.bearing.designation}",
                "words",
                "",
                True,
                "as the card says",
                example=work.bearing.designation,
            )
        )
        found.append(Ask("note", "Anything to remember?", "for the next one", "words", "", True, "nothing noted"))
    return found
