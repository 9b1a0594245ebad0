"""Every sentence of Together, by code."""

from __future__ import annotations

from django.utils.translation import gettext_lazy as _

from shopmath.amounts import newtons
from stator.engines.properties import Property
from stator.stations.common.press_joint import messages as joint
from stator.stations.framework.messages import BY_LIMIT, Methods, Options, Sentences, fixed
from stator.stations.press_together.analysis import Code

NAME = _("Together")
DRAWING = _("The joint under the press, to be pressed together")
EXAMPLE = fixed(
    _("Joint is tight and square. The peak of {peak} lies in the predicted band."),
    peak=newtons(31_000),
)
DONE = _("crank pressed together")

HEADLINE: Sentences = {
    **joint.HEADLINE,
    Code.NO_GRIP: _("No interference"),
    Code.ROD_TURNED: _("Rod is the other way round"),
    Code.SQUARE_FIRST: _("Square it first"),
    Code.LOOSE: _("Joint is loose"),
    Code.MEASURE_NOW: _("Measure it now"),
    Code.JOINT_TIGHT: _("Joint is too tight"),
    Code.SIDE_PLAY: _("Side play is out"),
    Code.PARALLEL: _("Webs are not parallel"),
    Code.WIDTH: _("Width is out"),
    Code.THROWS: _("Throws are turned"),
    Code.DONE: _("Joint is tight and square"),
    "side play close": _("Side clearance: too close to call"),
    "webs parallel close": _("Webs too close to call"),
    "width close": _("Width too close"),
    "throws close": _("Throws too close to call"),
}
REASON = {
    **BY_LIMIT,
    **joint.REASON,
    "sizing": _("Pin and hole measured clean tell how it will grip, before any force does."),
    Code.NO_GRIP: _("{interference}: nothing holds it."),
    Code.ROD_TURNED: _("Its oil slot faced the {side} before it was parted: turned, its big end runs dry."),
    "loose": _("{peak} is under the {low} that even a slack joint takes: loose, not to be used."),
    "tight": _("{peak} is over the {high} expected: crooked, scored, or tighter than measured."),
    "grips": _("{peak} lies between {low} and {high}: it grips as it should."),
}
NEXT = {
    **joint.NEXT,
    Code.ROD_TURNED: _("Turn the rod before anything is pressed."),
    Code.NO_GRIP: _("Take another pin or another web. No compound makes a press joint."),
    "press_slowly": _("Press slowly, stop for width and side play. Under {low} at the end it is loose and must not be used."),
    Code.LOOSE: _("Apart again: another pin or web. It would turn under load."),
    Code.JOINT_TIGHT: _("Look at the pin and hole: crooked or scored."),
    Code.SIDE_PLAY: _("Wedge or squeeze at the pin until it is in; then measure again."),
    Code.PARALLEL: _("True it next: it shows whether a wedge, a squeeze or none of them cures this."),
    Code.WIDTH: _("Press on, or ease the webs apart, until the width is in."),
    Code.THROWS: _("Apart again: the throws must stand as they were marked."),
    Code.DONE: _("Go on to truing between its supports."),
}
DETAIL = {**joint.DETAIL, "grips": REASON["grips"], "tight": REASON["tight"]}
ASSUMED = joint.ASSUMED
WEB_PLACE = {0.0: _("at the pin"), 90.0: _("at 90°"), 180.0: _("at 180°"), 270.0: _("at 270°")}
QUESTION = {
    **joint.QUESTION,
    Property.OIL_SLOT: joint.OIL_SLOT,
    Property.PRESS_PEAK: _("Peak force on the way in"),
    Property.WIDTH_AS_IT_GOES: _("Width over the webs, as it goes"),
    Property.WIDTH_OVER_WEBS: _("Width over the webs {where}"),
    Property.BIG_END_SIDE_PLAY: _("Side play of the rod"),
}
WHERE = {
    **joint.WHERE,
    Property.OIL_SLOT: joint.OIL_SLOT_WHERE,
    Property.PRESS_PEAK: _("its highest, not its last"),
    Property.WIDTH_AS_IT_GOES: _("stop and measure now and then"),
    Property.WIDTH_OVER_WEBS: _("rim to rim"),
    Property.BIG_END_SIDE_PLAY: _("rod pushed to one side, blade in at the other"),
    Property.THROW_ANGLE: _("as it is now"),
}
SKIP = {**joint.SKIP, Property.OIL_SLOT: _("not looked at"), Property.WIDTH_AS_IT_GOES: _("near enough")}
OPTIONS: Options = {Property.OIL_SLOT: joint.OIL_SLOT_FACES}
LABEL = {
    **joint.LABEL,
    Property.OIL_SLOT: joint.OIL_SLOT_LABEL,
    Property.WIDTH_AS_IT_GOES: _("width over the webs, as it went"),
    Property.WIDTH_OVER_WEBS: _("width over the webs at {angle}°"),
    Property.BIG_END_SIDE_PLAY: _("side play, {part}"),
}
METHOD: Methods = {**joint.METHOD, "compound": (_("Joint locked with"), joint.METHOD["compound"][1])}
CHECKS = {
    "square": (_("Jig or V under the webs, pin started square; marks across the joint in line."), True),
    "way": (_("Oil hole and thrust washers the right way, rod and cage on the pin."), True),
    "spacer": (_("Spacer for the side play between rod and web."), True),
}
JUDGED = {
    Code.JOINT_TIGHT: _("The joint"),
    Code.SIDE_PLAY: _("Side play"),
    Code.PARALLEL: _("Webs out of parallel"),
    Code.WIDTH: _("Width over the webs"),
    Code.THROWS: _("Throws, turned by"),
}
STATE = {"in": _("in"), "out": _("out"), "too_close": _("too close")}
SOURCE = {
    **joint.SOURCE,
    "widths": (_("Width over the webs"), _("spread {spread}")),
    "judged": (_("{figure}"), _("{said}")),
}
