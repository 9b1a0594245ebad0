"""What is asked at Flywheel off: puller, boss, turns, torque; then what the taper, the key, the magnets and the coils tell."""

from __future__ import annotations

from typing import TYPE_CHECKING

from shopmath.checks import BadInput
from stations.base import Ask, Option

if TYPE_CHECKING:
    from stations.flywheel_off.station import FlywheelOff

HANDS = (Option("right", "right-hand", "turns in clockwise"), Option("left", "left-hand", "turns in anticlockwise"))
TAPER = (
    Option("grey", "even grey", "good contact"),
    Option("rust", "rusty", "clean, look again"),
    Option("red", "red dust, picked up", "fretted: lap or replace"),
)
KEY = (Option("sound", "sound"), Option("sheared", "sheared or bent"), Option("stepped", "stepped"))
MOVED = (
    Option("nothing", "nothing"),
    Option("creaked", "it creaked, or crept"),
    Option("warmed", "nothing; boss warmed", "by hand heat, under its limit"),
)
COILS = (Option("sound", "sound"), Option("rubbed", "rubbed or burnt"))
MAGNETS = (Option("sound", "sound"), Option("cracked", "cracked or loose"))
BOUNDS = {
    "puller_d": (8, 80),
    "boss_d": (6, 80),
    "screw_d": (5, 40),
    "nut_d": (4, 60),
    "puller_pitch": (0.3, 6),
    "boss_pitch": (0.3, 6),
    "screw_pitch": (0.5, 4),
    "turns": (0, 40 * 360),
    "torque": (0, 1000),
    "nut_torque": (1, 1000),
    "step": (-3, 3),
    "boss_depth": (1, 60),
}


def asks(work: FlywheelOff) -> list[Ask]:
    card = work.job.card
    measured, on_card = work.puller is not None, bool(card.boss_d_mm and card.boss_pitch_mm)
    wrong = work.same is not None and work.same.state == "stop"
    pitch = {"kind": "thread_pitch", "unit": "mm"}
    found = [
        Ask("puller_d", "Puller thread, over the crests", "calliper", quiet=measured, example="26.9", resolution=0.01),
        Ask("puller_pitch", "Pitch of the puller", "leaf gauge; mm or tpi", quiet=measured, example="1.0", **pitch),  # type: ignore[arg-type]
        Ask("puller_hand", "Hand of the puller", "", "words", "", quiet=measured, options=HANDS),
        Ask("boss_d", "Boss thread, across its crests", "calliper jaws inside", quiet=on_card, example="26.0", resolution=0.01),
        Ask("boss_pitch", "Pitch in the boss", "leaf gauge; mm or tpi", quiet=on_card, example="1.0", **pitch),  # type: ignore[arg-type]
        Ask("boss_hand", "Hand of the boss", "", "words", "", quiet=on_card, options=HANDS),
        Ask(
            "boss_depth",
            "Depth of the boss's thread",
            "from its mouth; tells coating from a wrong thread",
            optional=True,
            skip_means="unknown",
            quiet=wrong or not work.shallow,
            example="9",
            resolution=0.1,
        ),
        Ask("turns", "Turns it goes in by hand", "count them; stop where it binds", "angle", "turns", example="6", resolution=0.25),
        Ask("screw_d", "Centre screw, over the crests", "", quiet=measured, example="12", resolution=0.1),
        Ask("screw_pitch", "Pitch of the centre screw", "leaf gauge", quiet=measured, example="1.25", **pitch),  # type: ignore[arg-type]
    ]
    if card.nut_torque_nm is None:
        nut = "Torque of the flywheel nut"
        found.append(Ask("nut_torque", nut, "manual page", "torque", "Nm", True, "unknown", quiet=wrong, example="55", resolution=1))
    if card.nut_d_mm is None:
        nut = "Thread of the flywheel nut"
        found.append(Ask("nut_d", nut, "over the crests", optional=True, skip_means="unknown", quiet=wrong, example="12", resolution=0.1))
    if work.found and not work.free:
        found.append(Ask("torque", "Torque on the centre screw", "as it is now", "torque", "Nm", repeats=True, example="25", resolution=1))
        if work.value("torque") is not None:
            found.append(
                Ask(
                    "moved",
                    "Did anything move?",
                    "after the wait, by eye and by ear",
                    "words",
                    "",
                    repeats=True,
                    quiet=True,
                    options=MOVED,
                )
            )
    if work.free or work.signed:
        found += [
            Ask("taper", "The taper", "both cones, wiped", "words", "", options=TAPER),
            Ask("key", "The key and its way", "", "words", "", options=KEY),
        ]
        if work.said("key") == "stepped":
            found.append(Ask("step", "Step of the key", "across its two halves", example="0.40", resolution=0.01))
        found.append(Ask("magnets", "The magnets", "look, tap, pull", "words", "", options=MAGNETS))
        found.append(Ask("coils", "Coils and the wires to them", "rubbed by the rim, burnt, oiled", "words", "", options=COILS))
        found.append(Ask("note", "Anything to remember?", "for the next one", "words", "", True, "nothing noted"))
    return found


def check(ask: Ask, value: float) -> None:
    """Refuse what cannot be, in words."""
    low, high = BOUNDS.get(ask.key, (float("-inf"), float("inf")))
    if not low <= value <= high:
        shown = value / 360 if ask.key == "turns" else value
        raise BadInput(ask.key, f"{ask.words}: {shown:g} is not believable. Check the unit and measure again.")
