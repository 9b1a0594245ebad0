"""Every sentence of Seals, by code."""

from __future__ import annotations

from django.utils.translation import gettext_lazy as _

from shopmath.amounts import mm
from stator.engines.properties import Property
from stator.stations.framework.messages import BY_LIMIT, Methods, Options, fixed
from stator.stations.install_seals.analysis import Code

NAME = _("Seals")
DRAWING = _("The seal in its seat")
EXAMPLE = fixed(
    _("Right seal, right way round. Depth {depth}, square within {lean}."),
    depth=mm(0.8, 0.1),
    lean=mm(0.05, 0.01),
)
DONE = _("seals fitted")
IN_HAND = _("In hand")

HEADLINE = {
    Code.MEASURE: _("Measure the seal"),
    Code.NOT_THIS_ONE: _("Not this seal"),
    Code.WRONG_WAY: _("Lip faces the wrong way?"),
    Code.LIP: _("Lip and depth"),
    Code.DRIVE: _("Drive the seal in"),
    Code.TOUCHES: _("Seal touches the bearing"),
    Code.TOUCH_CLOSE: _("Gap too close to call"),
    Code.CROOKED: _("Seal is crooked"),
    Code.SQUARE_CLOSE: _("Too close to call"),
    Code.DEPTH_OUT: _("Depth is out"),
    Code.DEPTH_CLOSE: _("Depth too close to call"),
    Code.SEATED: _("Seal is seated"),
}
REASON = {
    **BY_LIMIT,
    Code.MEASURE: _("Two seals of one engine can look alike: the sizes tell."),
    "belongs_at": _("{seal} is {shaft} × {bore}. This one belongs at {other}."),
    "belongs_nowhere": _("{seal} is {shaft} × {bore}. No place on this card has the sizes of this one."),
    Code.WRONG_WAY: _("What it keeps stands on the spring side: lip {facing}. A manual's page may say otherwise."),
    "rule_unknown": _("What it keeps stands on the side of its spring."),
    "facing": _("Lip {facing}."),
    "drive_with": _("Lip {facing}. Drive it with {driver}, square."),
    "seated": _("{depth} deep, {lean} out of square."),
    "seated_clear": _("{depth} deep, {lean} out of square. {gap} clear of the bearing."),
}
NEXT = {
    "ask": _("{question}"),
    "nothing": "",
    Code.NOT_THIS_ONE: _("Take the right one, or measure again."),
    Code.WRONG_WAY: _("Turn it round, or give the page."),
    "out_a_little": _("Draw it out a little: it must not run on the bearing's ring."),
    "other_side": _("It is deepest at {deepest} o'clock: drive the other side, square."),
    "deeper": _("Drive it on, or pull it and begin with a new one."),
    "on_to": _("Go on to {part}."),
    "sign": _("All are in: sign this entry."),
}
DETAIL: dict[str, str] = {}
ASSUMED = {"flush": _("flush with its face")}
WAYS = {
    "turned": _("It is turned round: answer again"),
    "by_page": _("The manual shows it so: enter its page"),
    "depth": _("Measure again at {clock} o'clock"),
}
FACING = {"inside": _("to the inside"), "outside": _("to the outside")}

QUESTION = {
    Property.SEAL_SHAFT: _("Shaft the seal runs on"),
    Property.SEAL_BORE: _("Bore it sits in"),
    Property.SEAL_KEEPS: _("What does it keep in, or out?"),
    Property.SEAL_LIP: _("In your hand it goes in"),
    Property.PAGE: _("Which page says so?"),
    Property.SEAL_DEPTH: _("Depth at {clock} o'clock"),
    Property.BEARING_FACE_DEPTH: _("Depth of the bearing behind"),
}
WHERE = {
    Property.SEAL_SHAFT: _("calliper, or off the seal"),
    Property.SEAL_BORE: _("calliper, or off the seal"),
    Property.PAGE: _("an exception needs its page"),
    Property.SEAL_DEPTH: _("face to seal; minus when it stands proud"),
    Property.BEARING_FACE_DEPTH: _("same face to the bearing's ring"),
}
SKIP = {Property.BEARING_FACE_DEPTH: _("gap not computed")}
OPTIONS: Options = {
    Property.SEAL_KEEPS: (
        ("oil", _("oil in"), _("lip inward")),
        ("pressure", _("crankcase pressure in"), _("lip inward")),
        ("dirt", _("dirt or water out"), _("lip outward")),
    ),
    Property.SEAL_LIP: (("inside", _("lip and spring inward")), ("outside", _("lip and spring outward"))),
}
BORE_SMALLER = _("A seal's bore is larger than its shaft: {shaft} on the shaft.")
SHAFT_LARGER = _("A seal's bore is larger than its shaft: {bore} in the bore.")
LABEL = {
    Property.SEAL_SHAFT: _("shaft of {part}"),
    Property.SEAL_BORE: _("bore of {part}"),
    Property.SEAL_KEEPS: _("what {part} keeps"),
    Property.SEAL_LIP: _("lip of {part}"),
    Property.PAGE: _("page for {part}"),
    Property.SEAL_DEPTH: _("depth of {part} at {clock} o'clock"),
    Property.BEARING_FACE_DEPTH: _("bearing behind {part}"),
    "mean depth": _("depth of {part}"),
    "lean": _("{part}, out of square"),
    "gap": _("{part} to the bearing"),
}
LIMIT_FROM: dict[str, str] = {}

METHOD: Methods = {
    "when": (
        _("Fitted"),
        (
            ("before", _("before the crank"), _("sleeve over the shaft")),
            ("after", _("after the crank"), _("the shaft guides it")),
        ),
    ),
    "case": (_("Its outside is"), (("rubber", _("rubber-covered")), ("metal", _("bare metal")))),
}
ON = _("Go on to {part}")
OTHER = _("It is the {part}: use these sizes there")
STILL_TO_DO = _("Still to do: {seals}.")
CHECKS = {
    "lip": (_("Lip and shaft greased, bore clean; rubber-covered rims with soapy water, no oil."), False),
    "support": (_("Case on wood or a tube right behind the seat; the driver on the seal's rim, a little under its bore."), False),
    "edge": (_("Shaft's edge and keyway covered: a sleeve over them, or tape, thin."), False),
}
WARNINGS = {"manual": _("The manual's page comes before the rule: some seals face the other way on purpose.")}
TOO_FAST = _("At {speed} a plain nitrile lip burns. What stands it: {lips}.")
RUNS_OUT = _("The shaft runs out {runout} here; a lip follows {most} at this speed: true the crank first, or expect it to weep.")
LIP = {"nitrile": _("nitrile"), "polyacrylate": _("polyacrylate"), "fluoro-rubber": _("fluoro-rubber")}
NO_LIP = _("no rubber lip")
SOURCE = {
    "lip_speed": (_("Speed under the lip"), _("at {rpm}, the card's working speed; stands it: {lips}")),
    "lip_runout": (_("Runout that a lip follows"), _("at {rpm}")),
    "sizes": (_("Sizes on the card"), _("{origin}")),
    "lip": (_("Lip on the card"), _("{origin}")),
    "driver": (_("Driver, outside"), _("inside over {inside}: clear of the spring")),
    "drivers": (_("Drivers that fit"), _("{others}")),
    "force": (_("Force, metal case"), _("{basis}; ISO 6194-1 allowances")),
    "force_rubber": (_("Force"), _("rubber-covered: by hand on the driver; one that needs more is crooked")),
    "depth": (_("Depth"), _("{wanted} wanted, {origin}; limits are shop rules")),
    "exception": (_("Exception"), _("{page}")),
}
NOT_RECKONED = _("not known")
UNKNOWN, NONE, OF_THE_SHELF, FLUSH = _("source unknown"), _("none"), _("of the shelf"), _("assumed flush")
ON_DRAWING = {
    "spring": _("spring"),
    "outside": _("outside"),
    "inside": _("inside"),
    "oil": _("oil"),
    "pressure": _("pressure"),
    "dirt": _("dirt, water"),
    "deep": _("{depth} deep"),
    "wanted": _("{depth} deep wanted"),
    "flush": _("flush wanted"),
    "gap": _("{gap} to the bearing"),
    "seen": _("seen from outside"),
}
