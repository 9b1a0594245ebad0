"""Messages for a shaft with its parts, or a rubber bushing, by code."""

from __future__ import annotations

from django.utils.translation import gettext_lazy as _

from stator.engines.properties import Property
from stator.stations.framework.messages import BY_LIMIT, Options, Sentence
from stator.stations.install_with_heat.shaft_assembly.analysis import Code

HEADLINE: dict[str, Sentence] = {
    Code.OILED: _("Stop"),
    Code.OTHER_ORDER: _("{part}"),
    Code.BINDS: _("{part}"),
    Code.KNOCKS: _("{part}"),
    Code.MEASURE: _("{part}"),
    Code.AS_DRAWN: _("As drawn"),
    Code.UNSURE: _("Too close to call"),
    Code.NOT_AS_DRAWN: _("Not as drawn"),
}
REASON = {
    **BY_LIMIT,
    Code.OILED: _("Oil swells and rots rubber."),
    Code.OTHER_ORDER: _("The order on it is not as drawn."),
    Code.BINDS: _("There is no side play: the parts bind."),
    Code.KNOCKS: _("It knocks: too much side play."),
    "order": _("{order}."),
    "rubber": _("Soapy water, never oil."),
    "source": _("{source}"),
    "card": _("By the card."),
}
NEXT = {
    Code.OILED: _("Take it out, wash it, and use soapy water."),
    Code.OTHER_ORDER: _("Take it apart and lay it in the drawn order, or correct the card with its page."),
    Code.BINDS: _("Tap the spindle back until it turns freely."),
    Code.KNOCKS: _("Look for a washer left out, or one that is worn."),
    "ask": _("{question}"),
    "measure": _("Measure it."),
    "on": _("On to the next."),
    Code.UNSURE: _("Measure again with a finer gauge."),
    "short_side": _("Push it toward the short side, half the difference."),
    "turn": _("Turn it until the {turned} points to {angle}; a tight one is drawn and heated again."),
    "to_depth": _("Draw it or push it to its depth while it still moves."),
}
DETAIL = {
    "rubber": _("Its middle within {within} of the boss's."),
    "turned": _("{turned} to {angle} within {angle_within}; end {depth} below the face within {within} ({source})."),
    "depth": _("End {depth} below the face within {within} ({source})."),
}
NO_SOURCE = _("no source")
QUESTION = {
    Property.BUSH_LUBRICANT: _("It goes in with"),
    Property.STANDS_OUT: _("Stands out, {end}"),
    Property.PIECES_ORDER: _("On it: {pieces}"),
    Property.DIRECTION: _("The {turned} points to"),
    Property.END_DEPTH: _("Its end below the face"),
    Property.SPINDLE_PLAY: _("Side play on it"),
}
ENDS = {"inside": _("inside"), "outside": _("outside")}
WHERE = {
    Property.BUSH_LUBRICANT: _("soapy water lets it slide and dries off"),
    Property.STANDS_OUT: _("bush end to boss"),
    Property.PIECES_ORDER: _("first to last, as drawn"),
    Property.DIRECTION: _("counter-clockwise from the right; {angle} wanted"),
    Property.END_DEPTH: _("{depth} wanted; minus when it stands proud"),
    Property.SPINDLE_PLAY: _("push and pull along the spindle"),
}
SKIP = {
    Property.DIRECTION: _("not measured"),
    Property.END_DEPTH: _("not measured"),
}
OPTIONS: Options = {
    Property.BUSH_LUBRICANT: (
        ("soap", _("soapy water")),
        ("dry", _("dry")),
        ("oil", _("oil or grease"), _("it rots the rubber")),
    ),
    Property.PIECES_ORDER: (("drawn", _("as drawn")), ("other", _("otherwise"))),
    Property.SPINDLE_PLAY: (
        ("felt", _("just felt, turns freely")),
        ("none", _("none, the parts bind")),
        ("slack", _("slack, it knocks")),
    ),
}
LABEL = {
    Property.BUSH_LUBRICANT: _("{part} went in with"),
    Property.STANDS_OUT: _("{part} stands out, {at}"),
    Property.PIECES_ORDER: _("order on {part}"),
    Property.DIRECTION: _("direction of {part}"),
    Property.END_DEPTH: _("end of {part} below the face"),
    Property.SPINDLE_PLAY: _("side play on {part}"),
}
DRAWING = _("{part}: order and direction")
DRAWN = {
    "case": _("case"),
    "turned": _("{turned} to {angle}"),
    "within": _("within {within}"),
    "measured": _("{angle} measured"),
    "flush": _("end flush"),
    "below": _("end {depth} below the face"),
    "proud": _("end {depth} proud of the face"),
    "face": _("seen on the face of the {half}"),
    "inside": ENDS["inside"],
    "outside": ENDS["outside"],
    "rubber": _("soapy water, never oil; the same stands out on both sides"),
}
