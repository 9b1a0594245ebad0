"""The call on the part in hand, and on the whole when it is signed."""

from __future__ import annotations

from typing import TYPE_CHECKING

from engines.clearance import PARTNER
from shopmath.bearings.keeping import KEEP, MAY_STAY
from shopmath.verdict import IN, severity
from stations.base import Plate, Scale, Trace
from stations.inspect import figures
from stations.inspect.figures import Figure

if TYPE_CHECKING:
    from engines.models import Seat
    from stations.inspect.station import Inspect

KEEP_WORDS = {KEEP: ("in", "Keep the bearing"), MAY_STAY: ("too_close", "The bearing may stay")}


def _scale(figure: Figure) -> Scale | None:
    judged = figure.low is not None or figure.high is not None
    return Scale(figure.value, figure.doubt, figure.low, figure.high, "mm", figure.digits) if judged else None


def _worst(found: list[Figure]) -> Figure | None:
    return min((each for each in found if each.call), key=lambda each: severity(each.call.state if each.call else IN), default=None)


def plate(work: Inspect) -> Plate:
    if work.signed:
        return work.signed_plate()
    seat = work.seat_in_hand()
    asked = work.open_in(work.part)
    worst = _worst(work.figures_of(work.part))
    if asked and not (worst and worst.call and worst.call.state == "out" and not asked[0].key.endswith(("mark", "m0"))):
        return _measure(work, seat, asked[0].words, asked[0].where)
    if work.part == "masses":
        return _factor(work)
    if worst and worst.call and worst.call.state != "in":
        return _figure(work, worst, seat)
    if seat:
        return _seat(work, seat, worst)
    if work.said("cracks") == "found":
        line = work.said("damage") or "Damage found."
        return Plate("stop", "Not as it is", line, "Decide on the part before anything is fitted to it.")
    if worst and worst.call:
        return Plate("in", "Good so far", f"{worst.name}: {worst.call.reason}", _onward(work), scale=_scale(worst))
    return Plate("wait", "Kept, not judged", "The card gives no limits for what was measured here.", _onward(work))


def _onward(work: Inspect) -> str:
    onward = work.next_part()
    return f"On to {onward[1]}." if onward else "Everything is looked at: sign it."


def _measure(work: Inspect, seat: Seat | None, words: str, where: str) -> Plate:
    if seat is None and work.part == "crank":
        radial = work.next_ask and work.next_ask.key.startswith("radial")
        line = (
            "Up and down along the throw is wear: there should be none to feel. Sideways is made so."
            if radial
            else "Side to side is design: the card says how much. Up and down was wear."
            if work.next_ask and work.next_ask.key.startswith("side")
            else "Measure before you judge: a clean part can be worn out."
        )
    elif seat is None:
        line = "Other masses change how much of them the crank answers."
    elif not work.next_ask or work.next_ask.options or work.next_ask.is_words:
        line = "The bearing first, while it is in the hand: it stays or goes by rule, not by feel."
    else:
        line = "Two depths, three angles: a seat can be oval or bell-mouthed where one reading looks right."
    return Plate("wait", "Measure it", line, f"{words}{', ' + where if where and len(where) < 30 else ''}.")


def _figure(work: Inspect, figure: Figure, seat: Seat | None) -> Plate:
    assert figure.call is not None
    if figure.call.state == "out":
        return Plate(
            "out", f"{figure.name.partition(',')[0]} is out", figure.call.reason, _mended(work, figure, seat), scale=_scale(figure)
        )
    settle, finer = work.settling(), work.finer(figure)
    ways = []
    if settle and settle[0].name == figure.name:
        ways.append(f"{settle[1]} readings in all would settle it")
    if finer:
        ways.append(f"a gauge of {finer:g} mm would settle it at once")
    move = f"{'; '.join(ways)}.".capitalize() if ways else "No number of readings settles it: it is at the limit. Decide by what it costs."
    return Plate("too_close", f"{figure.name.partition(',')[0]} too close", figure.call.reason, move, figure.source, _scale(figure))


def _mended(work: Inspect, figure: Figure, seat: Seat | None) -> str:
    if seat is None:
        return f"{figure.fault.capitalize()}: measure that before it goes back." if figure.fault else "Not to go back as it is."
    chosen = work.said(f"{seat.pk}-mend")
    way = next((each for each in work.mends(seat) if each.key == chosen), None)
    if way is None:
        best = next(each for each in work.mends(seat) if each.fits)
        return f"{best.words}: {best.reason}. Choose what is done."
    return f"{way.words}: {way.reason}{'' if way.fits else '. Against advice; say why in the log'}."


def _seat(work: Inspect, seat: Seat, worst: Figure | None) -> Plate:
    """Seat in or not measured: the bearing decides."""
    kept = figures.keeping(work, seat)
    line = f"{worst.name}: {worst.call.reason} " if worst and worst.call else ""
    if figures.too_warm(work, seat):
        line = "Measured more than 15 K from the room: no verdict on its size. Let it come to the room. "
    if kept is None:
        return Plate("wait", "Kept, not judged", line or "Nothing was measured here.", _onward(work))
    state, words = KEEP_WORDS.get(kept.verdict, ("out", "Replace the bearing"))
    first, *rest = kept.reasons
    unknown = f" Not known: {'; '.join(kept.unknown)}." if kept.unknown else ""
    reasons = f"{first[:1].upper()}{first[1:]}{'; ' + '; '.join(rest) if rest else ''}."
    return Plate(state, words, f"{reasons}{unknown}", _onward(work), line.strip(), _scale(worst) if worst else None)


def _factor(work: Inspect) -> Plate:
    found = work.factor()
    if found is None:
        return Plate("wait", "Weigh it", "The factor needs what hangs level, the small end and all that moves.", "Weigh the rest.")
    new, old, hang = found
    if old is None or hang is None:
        return Plate("wait", f"Factor {new:.3f}", "What it was is not known: kept, not judged.", _onward(work))
    less = "more" if new > old else "less"
    line = f"{old:.3f} as it was, {new:.3f} with the new masses: it answers {less} of them."
    return Plate("wait", f"Factor {new:.3f}", line, f"To keep {old:.3f}, {hang:.0f} g must hang it level. Before the crank goes together.")


def verdict(work: Inspect) -> Plate:
    """The worst of everything, for the log."""
    worst = _worst([figure for _, figure in work.all_figures])
    replaced = [seat.name for seat in work.seats if (kept := figures.keeping(work, seat)) and kept.verdict not in KEEP_WORDS]
    if work.said("cracks") == "found":
        return Plate("out", "Damage found", work.said("damage"), "")
    if worst and worst.call and worst.call.state != "in":
        return Plate(worst.call.state, f"{worst.name.partition(',')[0]}: {worst.call.state.replace('_', ' ')}", worst.call.reason, "")
    if replaced:
        return Plate("out", "Bearings to be replaced", f"{', '.join(replaced)}.", "")
    if worst and worst.call:
        return Plate("in", "Good to go on", worst.call.reason, "")
    return Plate("wait", "Measured and kept", "No limits on the card: nothing was judged.", "")


def traces(work: Inspect) -> list[Trace]:
    rows: list[Trace] = []
    seat = work.seat_in_hand()
    for figure in work.figures_of(work.part):
        says = {"in": "in", "out": "out", "too_close": "too close"}.get(figure.call.state if figure.call else "", "")
        limits = [f"{value:.{figure.digits}f}" for value in (figure.low, figure.high) if value is not None]
        against = f"{says}; {' to '.join(limits)}; {figure.source}" if says else figure.source
        rows.append(Trace(figure.name, f"{figure.value:.{figure.digits}f} mm", f"± {figure.doubt:.{figure.digits + 1}f}; {against}"))
    if seat is None:
        return rows
    measured, left = figures.fit_measured(work, seat), figures.clearances(work, seat)
    if measured:
        found, fit = measured
        band = f"{1000 * fit.min_interference_mm:+.0f} to {1000 * fit.max_interference_mm:+.0f} µm"
        ring = found.inner if seat.on == "case" else found.outer
        rows.append(Trace("Fit, overlap is +", band, f"seat measured, ring {ring.words}"))
    if left:
        other = PARTNER[seat.on][1]
        for words, each in (("Clearance left, cold", left[0]), ("Clearance left, warm", left[1])):
            rows.append(Trace(words, f"{each.low_um:.0f} to {each.high_um:.0f} µm", f"ISO 5753-1, thick rings; {other} taken", True))
    bearing = work.bearing(seat)
    if bearing:
        size = f"{bearing.bore_mm:g}×{bearing.outside_mm:g}×{bearing.width_mm:g}"
        rows.append(Trace("Bearing", bearing.designation, f"{size}; {', '.join(bearing.understood[:3])}"))
    for way in work.mends(seat) if work.seat_out(seat) else ():
        rows.append(Trace(way.words, "can" if way.fits else "not here", way.reason))
    return rows
