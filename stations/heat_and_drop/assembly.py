"""Parts with an order, a direction, an end depth or a middle to be found: spindles with what goes on them, rubber bushes."""

from __future__ import annotations

import math
from typing import TYPE_CHECKING, Any

from django.utils.safestring import SafeString

from engines.models import Fitted
from shopmath.checks import BadInput
from shopmath.clocking import clocked
from shopmath.verdict import IN, OUT, STOP, TOO_CLOSE, Call, call, severity
from stations.base import Ask, Option, Plate, Scale
from stations.heat_and_drop.assembly_drawing import draw_assembly

if TYPE_CHECKING:
    from stations.heat_and_drop.whole_half import WholeHalf

PROTRACTOR_U_DEG = 1.0  # taken for a direction read with a protractor or square
SOAP = (Option("soap", "soapy water"), Option("dry", "dry"), Option("oil", "oil or grease", "it rots the rubber"))
ORDER = (Option("drawn", "as drawn"), Option("other", "otherwise"))
PLAY = (Option("felt", "just felt, turns freely"), Option("none", "none, it binds"), Option("slack", "slack, it knocks"))


def asks(work: WholeHalf, part: Fitted) -> list[Ask]:
    p = f"f{part.pk}-"
    sized: dict[str, Any] = {"gauges": ("calliper",), "resolution": 0.02}
    if part.kind == Fitted.Kind.RUBBER:
        return [
            Ask(f"{p}soap", "It goes in with", "soapy water lets it slide and dries off", "words", "", options=SOAP),
            Ask(f"{p}out1", "Stands out, inside", "bush end to boss", example="2.0", **sized),
            Ask(f"{p}out2", "Stands out, outside", "bush end to boss", example="2.0", **sized),
        ]
    found = []
    if part.pieces:
        found.append(Ask(f"{p}order", f"On it: {', '.join(part.pieces)}", "first to last, as drawn", "words", "", options=ORDER))
    if part.angle_deg is not None:
        where = f"counter-clockwise from the right; {part.angle_deg:g}° wanted"
        found.append(
            Ask(
                f"{p}angle",
                f"The {part.turned} points to",
                where,
                "angle",
                "deg",
                True,
                "not measured",
                resolution=0.5,
                example=f"{part.angle_deg:g}",
            )
        )
    wanted = f"{part.depth_mm:g} mm wanted; minus when it stands proud"
    found.append(Ask(f"{p}depth", "Its end below the face", wanted, optional=True, skip_means="not measured", example="0", **sized))
    if part.pieces:
        found.append(Ask(f"{p}play", "Side play on it", "push and pull along the spindle", "words", "", options=PLAY))
    return found


def every(work: WholeHalf, but: Fitted | None = None) -> list[Ask]:
    """The asks of all assemblies, for the sheet and the log."""
    return [ask for part in work.assemblies if part != but for ask in asks(work, part)]


def check(ask: Ask, value: float) -> None:
    if ask.kind == "length" and ask.key.startswith("f") and not -60 <= value <= 120:
        raise BadInput(ask.key, f"{ask.words}: {value:g} mm is not believable. Check the unit and measure again.")
    if ask.kind == "angle" and not -360 <= value <= 360:
        raise BadInput(ask.key, f"A direction lies between −360 and 360 degrees; {value:g} was understood.")


def angle_call(work: WholeHalf, part: Fitted) -> Call | None:
    found = work.value(f"f{part.pk}-angle")
    if found is None or part.angle_deg is None:
        return None
    return clocked(found, part.angle_deg, part.angle_within_deg, PROTRACTOR_U_DEG, either_end=part.either_end)


def depth_call(work: WholeHalf, part: Fitted) -> Call | None:
    """The end depth against the card's; of a rubber bush, how far its middle is off the boss's."""
    key = f"f{part.pk}-"
    if part.kind == Fitted.Kind.RUBBER:
        one, two = work.value(f"{key}out1"), work.value(f"{key}out2")
        if one is None or two is None:
            return None
        doubt = math.hypot(work.unsure(f"{key}out1"), work.unsure(f"{key}out2")) / 2
        return call((one - two) / 2, low=-part.depth_within_mm, high=part.depth_within_mm, uncertainty=doubt, unit="mm", digits=2)
    found = work.value(f"{key}depth")
    if found is None:
        return None
    low, high = part.depth_mm - part.depth_within_mm, part.depth_mm + part.depth_within_mm
    return call(found, low=low, high=high, uncertainty=work.unsure(f"{key}depth"), unit="mm", digits=2)


def faults(work: WholeHalf, part: Fitted) -> list[tuple[str, str, str]]:
    """What is wrong, worst first: state, words, and the move."""
    key = f"f{part.pk}-"
    found = []
    if work.said(f"{key}soap") == "oil":
        found.append((STOP, "Oil swells and rots rubber.", "Out with it, wash it, soapy water."))
    if work.said(f"{key}order") == "other":
        found.append(
            (OUT, "The order on it is not as drawn.", "Take it apart and lay it in the drawn order, or correct the card with its page.")
        )
    play = work.said(f"{key}play")
    if play == "none":
        found.append((OUT, "It binds: no side play.", "Tap the spindle back until it turns freely."))
    if play == "slack":
        found.append((OUT, "It knocks: too much side play.", "Look for a washer left out, or one that is worn."))
    return found


def plate(work: WholeHalf, part: Fitted) -> Plate:
    wrong = faults(work, part)
    if wrong:
        state, line, move = wrong[0]
        return Plate(state, "Stop" if state == STOP else part.name, line, move)
    angle, depth = angle_call(work, part), depth_call(work, part)
    calls = [each for each in (angle, depth) if each]
    open_ask = next((ask for ask in work.open_asks() if ask.key.startswith(f"f{part.pk}-")), None)
    if not calls:
        line = (
            f"{part.order}."
            if part.pieces
            else "Soapy water, never oil."
            if part.kind == Fitted.Kind.RUBBER
            else part.source or "By the card."
        )
        return Plate("wait", part.name, line, f"{open_ask.words}." if open_ask else "Measure it.", _limits(part))
    verdict = min(calls, key=lambda each: severity(each.state))
    value, low, high, unit = _worst(work, part, angle, depth)
    scale = Scale(value, PROTRACTOR_U_DEG if unit == "°" else work.unsure(_sized_key(part)), low, high, unit, 1 if unit == "°" else 2)
    words = {IN: "As drawn", TOO_CLOSE: "Too close to call", OUT: "Not as drawn"}[verdict.state]
    move = {IN: f"{open_ask.words}." if open_ask else "On to the next.", TOO_CLOSE: "Measure again, finer."}.get(
        verdict.state, _mend(part, angle)
    )
    return Plate(verdict.state, words, verdict.reason, move, _limits(part), scale)


def _sized_key(part: Fitted) -> str:
    return f"f{part.pk}-{'out1' if part.kind == Fitted.Kind.RUBBER else 'depth'}"


def _worst(work: WholeHalf, part: Fitted, angle: Call | None, depth: Call | None) -> tuple[float, float, float, str]:
    """The figure the scale shows: the direction while it is not in, else the depth."""
    if angle and part.angle_deg is not None and (angle.state != IN or depth is None):
        return work.value(f"f{part.pk}-angle") or 0.0, part.angle_deg - part.angle_within_deg, part.angle_deg + part.angle_within_deg, "°"
    within = part.depth_within_mm
    if part.kind == Fitted.Kind.RUBBER:
        return ((work.value(f"f{part.pk}-out1") or 0.0) - (work.value(f"f{part.pk}-out2") or 0.0)) / 2, -within, within, "mm"
    return work.value(f"f{part.pk}-depth") or 0.0, part.depth_mm - within, part.depth_mm + within, "mm"


def _mend(part: Fitted, angle: Call | None) -> str:
    if part.kind == Fitted.Kind.RUBBER:
        return "Push it toward the short side, half the difference."
    if angle and angle.state == OUT:
        return f"Turn it until the {part.turned} points to {part.angle_deg:g}°; a tight one is drawn and heated again."
    return "Draw it or push it to its depth while it still moves."


def _limits(part: Fitted) -> str:
    if part.kind == Fitted.Kind.RUBBER:
        return f"Its middle within {part.depth_within_mm:g} mm of the boss's."
    turned = f"{part.turned} to {part.angle_deg:g}° within {part.angle_within_deg:g}°; " if part.angle_deg is not None else ""
    return f"{turned}end {part.depth_mm:g} below the face within {part.depth_within_mm:g} mm ({part.source or 'no source'})."


def draw(work: WholeHalf, part: Fitted) -> SafeString:
    return draw_assembly(
        work.papers,
        part,
        work.value(f"f{part.pk}-angle"),
        work.value(f"f{part.pk}-depth"),
        plate(work, part),
        work.job.card.side(part.half),
    )


def result(work: WholeHalf, part: Fitted) -> dict[str, Any]:
    angle, depth = angle_call(work, part), depth_call(work, part)
    return {
        "part": part.name,
        "order": part.pieces,
        "order_as_drawn": work.said(f"f{part.pk}-order"),
        "angle_deg": work.value(f"f{part.pk}-angle"),
        "angle_state": angle.state if angle else "not_measured",
        "depth_state": depth.state if depth else "not_measured",
        "side_play": work.said(f"f{part.pk}-play"),
    }
