"""Every sentence of Centre, by code."""

from __future__ import annotations

from django.utils.translation import gettext_lazy as _

from shopmath.amounts import Amount, count, mm
from stator.engines.properties import Property
from stator.stations.center_crank.analysis import Code
from stator.stations.framework.messages import BY_LIMIT, Methods, Options, fixed

NAME = _("Centre")
DRAWING = _("The crank between its bearings")
EXAMPLE = fixed(
    _("Crank is off centre. Move it {move} toward the drive side: {turns} of a turn."),
    move=mm(0.09, 0.01),
    turns=count(0.06, 0.01),
)
DONE = _("crank centred")

HEADLINE = {
    Code.MEASURE: _("Measure both gaps"),
    Code.TOO_CLOSE: _("Too close to call"),
    Code.OFF_CENTRE: _("Crank is off centre"),
    Code.DRAGS: _("Crank drags"),
    Code.DIFFERS: _("Dial and stack differ"),
    Code.FLOAT_OUT: _("End float is out"),
    Code.FLOAT_CLOSE: _("End float too close"),
    Code.LEAKS: _("Case leaks"),
    Code.LEAK_CLOSE: _("Leak too close to call"),
    Code.TEST: _("Test the closed case"),
    Code.DONE: _("Crank is centred, no leak"),
    Code.CENTRED: _("Crank is centred"),
}
REASON = {
    **BY_LIMIT,
    Code.MEASURE: _("Web to bearing, the crank pushed to neither side."),
    "gaps_out": _("The gaps differ by {value}: {margin} over the limit of {limit}."),
    "gaps_too_close": _("The gaps differ by {value}, which reaches across the limit of {limit}."),
    Code.DRAGS: _("A crank that drags cold seizes hot."),
    "drags_at": _("{drag}"),
    "agree": _("{dial} by dial, {stack} by the stack: they agree within ± {uncertainty}."),
    "more": _("{dial} by dial is {off} more than the stack said, ± {uncertainty}."),
    "less": _("{dial} by dial is {off} less than the stack said, ± {uncertainty}."),
    "by_card": _("{test}: {rate} a minute; the card allows {limit}."),
    "by_rule": _("{test}: {rate} a minute; a cautious shop rule allows {limit}."),
    "in_the_middle": _("The crank stands in the middle."),
    "hard": _("The crank stands hard on its side, as chosen."),
    "oil": _("Seals wet with oil."),
    "not_tested": _("No pressure test."),
}
TEST = {"pressure": _("Pressure"), "vacuum": _("Vacuum")}
NEXT = {
    "ask": _("{question}"),
    Code.TOO_CLOSE: _("Measure both gaps again with thinner steps."),
    "move": _("Move it {move} toward the {side}: {turns} of a turn."),
    "move_turns": _("Move it {move} toward the {side}: {turns} turns."),
    Code.DRAGS: _("Find it before anything else: a lip turned over, a bearing loaded, a rod that touches. Open the case if you must."),
    Code.DIFFERS: _("Look for a bearing not home, another gasket than measured, a shim on the wrong side."),
    "shim": _("Fit another shim; measure the stack again."),
    "longer": _("Hold it {minutes} minutes, the gauge read at both ends: that tells."),
    "soap": _("Soapy water on seals, joint and plugs: the bubbles show where."),
    "sign": _("Sign this entry."),
}
DETAIL = {
    "then": _("Then {goal} on both sides."),
    "then_blades": _("Then {goal} on both sides: blades {blades}."),
    **{code: REASON[code] for code in ("agree", "more", "less")},
    "within_gauge": _("What it lost is within what the gauge can tell."),
}
ASSUMED = {"pitch": _("pitch of the tool")}

QUESTION = {
    Property.SIDE_GAP: _("Gap on the {side}"),
    Property.SPIN: _("Spun by hand, it"),
    Property.DRAG: _("Where does it drag?"),
    Property.END_FLOAT: _("End float by dial"),
    Property.TEST_TIME: _("How long is it held?"),
    Property.TEST_PRESSURE: _("{test} at the {when}"),
    Property.TEST_TEMPERATURE: _("{test}, {when}: temperature of the case"),
    Property.REASON: _("Why is it not tested?"),
}
WHEN = {1: _("start"), 2: _("end")}
WHERE = {
    Property.SIDE_GAP: _("web to bearing, feeler gauge with light drag"),
    Property.DRAG: _("once a turn, or all round"),
    Property.END_FLOAT: _("dial on the shaft's end, pushed and pulled"),
    Property.TEST_TIME: _("5 min usually"),
    Property.TEST_PRESSURE: _("{how}"),
    Property.TEST_TEMPERATURE: _("air that cools loses pressure without a leak"),
}
HOW = {1: fixed(_("ports plugged, {pressure}"), pressure=Amount(40.0, "pressure", 1.0)), 2: _("the same gauge")}
SKIP = {Property.END_FLOAT: _("not measured"), Property.TEST_TEMPERATURE: _("the same at both ends, assumed")}
OPTIONS: Options = {Property.SPIN: (("free", _("spins free")), ("drags", _("drags")))}
GAINED = _("It has gained: the part warms or the gauge has moved. Let it stand and begin again.")
WAYS = {"turns_free": _("It turns free now: answer again")}
LABEL = {
    Property.SIDE_GAP: _("gap at the {at}"),
    Property.SPIN: _("how it spins"),
    Property.DRAG: _("where it drags"),
    Property.END_FLOAT: _("end float by dial"),
    Property.LEAK: _("leak a minute, {depth} test"),
    Property.TEST_TIME: _("time of the test"),
    Property.TEST_PRESSURE: _("{depth} test, reading {stage}"),
    Property.TEST_TEMPERATURE: _("{depth} test, temperature {stage}"),
    Property.REASON: _("why it is not tested"),
}

METHOD: Methods = {
    "school": (
        _("Crank stands"),
        (("centre", _("in the middle"), _("equal gaps")), ("hard", _("hard on one side"), _("as the manual says"))),
    ),
    "proof": (
        _("Tested by"),
        (
            ("pressure", _("pressure and vacuum"), _("crankcase compression")),
            ("oil", _("priming with oil"), _("four-stroke")),
            ("none", _("not tested here"), _("say why")),
        ),
    ),
}
AGAIN = _("Crank moved: measure both gaps again")
CHECKS = {"closed": (_("Case closed to its torque, nothing hangs on the crank."), False)}
WARNINGS = {
    "blow": fixed(
        _("Use low pressure only, at most {pressure}. Plug the ports and secure the plugs: they can fly out."),
        pressure=Amount(50.0, "pressure", 1.0),
    ),
    "manual": _("The manual's method comes first: some cranks stand hard on one side."),
}
STATE = {"in": _("in"), "out": _("out"), "too_close": _("too close")}
SOURCE = {
    "limit_card": (_("Gaps allowed to differ"), _("{origin}")),
    "limit_rule": (_("Gaps allowed to differ"), _("shop rule")),
    "pitch": (_("Pitch of the tool"), _("{tool}")),
    "pitch_assumed": (_("Pitch of the tool"), _("assumed (typical value)")),
    "gap": (_("Gap on the {side}"), _("blades {blades}")),
    "gap_no_blades": (_("Gap on the {side}"), _("no blades on the shelf")),
    "predicted": (_("End float by the stack"), _("End float, ± {uncertainty}")),
    "leak": (_("{test} test"), _("{said}")),
    "warmth": (_("{test} at the end"), _("as it would be at the first temperature")),
}
ON_DRAWING = {
    "move": _("{move}, {turns} turns"),
    "large": _("gaps drawn large"),
    "later": _("gaps stand here once measured"),
    "minutes": _("{minutes} min"),
    "held": _("held, {unit}"),
    "pressure": _("pressure"),
    "vacuum": _("vacuum"),
    "unknown": _("?"),
}
