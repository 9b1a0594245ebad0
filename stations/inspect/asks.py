"""What is asked at Inspect, part by part: the crank, then each seat with its bearing, then masses when they change."""

from __future__ import annotations

from typing import TYPE_CHECKING

from engines.models import EngineCard, Seat
from shopmath.checks import BadInput
from stations.base import Ask, Option

if TYPE_CHECKING:
    from stations.inspect.station import Inspect

WIDTHS = (("pin", "at the pin"), ("90", "at 90°"), ("180", "opposite the pin"), ("270", "at 270°"))
ROUND = tuple(f"{depth}{angle}" for depth in "mb" for angle in (0, 60, 120))
DEPTH = {"m": "near its mouth", "b": "near its bottom"}
NO_YES = (Option("no", "no"), Option("yes", "yes"), Option("unknown", "unknown"))
FEEL = (Option("clean", "turns clean"), Option("rough", "rough"), Option("unknown", "not tried", "wash it first"))
CRACKS = (Option("none", "none found"), Option("found", "something found"))
MASSES = (Option("same", "the same"), Option("other", "other parts", "balance factor"))
CALLIPERS = ("micrometer", "calliper")
NOT = "not measured"
BOUNDS = {"radial": (0, 3), "side": (0, 5), "small": (0, 3), "width": (5, 400), "warm": (-40, 250), "vee": (0, 2), "wall": (0, 100)}
MASS_KG = (0.001, 20.0)


def rods(card: EngineCard) -> int:
    """Rods whose play is felt."""
    return 2 if card.layout in (EngineCard.Layout.TWIN, EngineCard.Layout.FLAT_TWIN, EngineCard.Layout.VEE) else 1


def asks(work: Inspect) -> list[Ask]:
    """Every part's asks; only those of the part in hand are asked in turn."""
    found = _crank(work)
    for seat in work.seats:
        found += _seat(work, seat)
    if work.said("masses") == "other":
        found += _masses(work)
    return found


def _pick(key: str, words: str, options: tuple[Option, ...], quiet: bool, where: str = "") -> Ask:
    return Ask(key, words, where, "words", "", options=options, quiet=quiet)


def _size(
    work: Inspect, key: str, words: str, where: str, gauges: tuple[str, ...], quiet: bool, *, example: str = "", left: str = NOT
) -> Ask:
    """A length that may be left out, and is asked again where its call was too close."""
    times = work.wanted_times(key)
    return Ask(key, words, where, optional=True, skip_means=left, quiet=quiet, times=times, gauges=gauges, example=example)


def _crank(work: Inspect) -> list[Ask]:
    quiet = work.part != "crank"
    found: list[Ask] = []
    count = rods(work.job.card)
    for rod in range(1, count + 1):
        of = f" of rod {rod}" if count > 1 else ""
        radial = "rod pushed and pulled along the throw; 0 if none"
        side = "rod against one web, blade in at the other"
        found.append(_size(work, f"radial-{rod}", f"Up-and-down play{of}", radial, ("dial",), quiet, example="0.00"))
        found.append(_size(work, f"side-{rod}", f"Side play{of}", side, ("feeler",), quiet, example="0.30"))
    found.append(_size(work, "small", "Small-end play", "pin in its eye, rocked", ("dial",), quiet, example="0.02"))
    for key, where in WIDTHS:
        found.append(_size(work, f"width-{key}", f"Width over the webs {where}", "rim to rim", CALLIPERS, quiet, example="52.05"))
    looked = "webs, pin ends, dowel holes, joint faces, oil screens"
    found.append(_pick("cracks", "Cracks or damage?", CRACKS, quiet, looked))
    if work.said("cracks") == "found":
        found.append(Ask("damage", "What, and where?", "a photo helps", "words", "", quiet=quiet))
    found.append(_pick("masses", "Piston and rod go back", MASSES, quiet))
    return found


def _seat(work: Inspect, seat: Seat) -> list[Ask]:
    """The bearing first, while it is in the hand; then what it sits in or on."""
    p, quiet = f"{seat.pk}-", work.part != f"s{seat.pk}"
    bearing = work.bearing(seat)
    as_card = "as on the card"
    found = [
        Ask(f"{p}mark", "Marking on the ring", "all of it", "words", "", True, as_card, quiet=quiet, example="6205 C3"),
        _pick(f"{p}hit", "Driven or pulled through its balls?", NO_YES, quiet),
        _pick(f"{p}known", "Is its history known?", NO_YES, quiet),
        _pick(f"{p}feel", "Washed and dry, it", FEEL, quiet),
        _pick(f"{p}races", "Pits, blue, a step in the races?", NO_YES, quiet),
    ]
    if bearing and bearing.seal != "open":
        found.append(_pick(f"{p}slow", "Slow, and hard to reach?", NO_YES[:2], quiet))
    return [*found, *_diameters(work, seat, p, quiet)]


def _diameters(work: Inspect, seat: Seat, p: str, quiet: bool) -> list[Ask]:
    onto = seat.on == Seat.On.SHAFT
    gauges, other = (("micrometer",), ("bore",)) if onto else (("bore",), ("micrometer",))
    part, nominal = "Journal" if onto else "Bore", work.nominal(seat)
    example = f"{nominal:.3f}" if nominal else "47.012"
    beside, room = "gauge beside it, as warm as it", "as the room, 20 °C"
    found = [Ask(f"{p}warm", f"{part}'s temperature", beside, "temperature", "C", True, room, quiet=quiet, resolution=1.0, example="20")]
    for index, place in enumerate(ROUND):
        where, left = f"{DEPTH[place[0]]}, {place[1:]}°", NOT if index else "seat not measured"
        found.append(_size(work, f"{p}{place}", f"{part}, across", where, gauges, quiet, example=example, left=left))
        if not work.values(f"{p}{ROUND[0]}"):
            break
    if onto:
        where = "turned once in a 90° vee, dial straight over it"
        found.append(_size(work, f"{p}vee", "Swing over a vee", where, ("dial",), quiet, example="0.004", left="not tried"))
    ring = f"The ring itself, its {'bore' if onto else 'outside'}"
    found.append(_size(work, f"{p}ring", ring, "two places, the mean", other, quiet, example=example, left="by its class"))
    if work.seat_out(seat):
        ways = tuple(Option(way.key, way.words, "" if way.fits else "not here") for way in work.mends(seat))
        found.append(_size(work, f"{p}wall", "Metal round the seat", "thinnest place", ("calliper",), quiet, example="8", left="unknown"))
        found.append(_pick(f"{p}mend", "What is done with it?", ways, quiet))
    return found


def _masses(work: Inspect) -> list[Ask]:
    quiet = work.part != "masses"

    def mass(key: str, words: str, where: str, example: str, left: str = "") -> Ask:
        return Ask(key, words, where, "mass", "g", bool(left), left, quiet=quiet, example=example, resolution=1.0)

    return [
        mass("hung", "Mass that hangs it level", "from the small end's place, crank on level rails", "85"),
        mass("smallend", "Small end of the rod", "weighed with the rod level", "62"),
        mass("recip", "All that goes up and down, new", "piston, pin, rings, clips, small end", "330"),
        mass("before", "All that went up and down, old", "the same parts as they were", "310", "unknown"),
    ]


def check(work: Inspect, ask: Ask, value: float) -> None:
    """Refuse what cannot be, in words."""
    if ask.kind == "mass":
        low, high = MASS_KG
    else:
        head, _, tail = ask.key.partition("-")
        low, high = BOUNDS.get(tail if head.isdigit() else head, (float("-inf"), float("inf")))
        if head.isdigit() and (tail in ROUND or tail == "ring"):
            seat = next(each for each in work.seats if each.pk == int(head))
            nominal = work.nominal(seat)
            low, high = (nominal - 1.0, nominal + 1.0) if nominal else (3, 400)
    if not low <= value <= high:
        near = f" About {low:g} to {high:g} is possible." if high < 1e6 and ask.kind == "length" else ""
        raise BadInput(ask.key, f"{ask.words}: {value:g} is not believable.{near} Check the unit and measure again.")
