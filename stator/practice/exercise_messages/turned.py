"""Messages of exercises in which something is trued, pulled or separated."""

from __future__ import annotations

from django.utils.translation import gettext_lazy as _

from shopmath.amounts import mm
from stator.practice.exercise_messages.form import Said, Sentence
from stator.stations.framework.messages import fixed

TURNED: dict[str, Sentence] = {
    "on-30": _("On 30°"),
    "on-45": _("On 45°"),
    "back-30": _("Back 30°"),
    "back-45": _("Back 45°"),
    "other": _("Other end"),
}
AT_ANGLE = _("{end}, crank at {angle}°")

TURNED_SAID: dict[str, Said] = {
    "read-dial": Said(
        name=_("Read a dial"),
        asks=_("Tell the runout of a shaft at both ends, and where it is high, with a needle that goes round more than once."),
        levels={
            "easy": _("a needle that stays within a round"),
            "middle": _("more than a round, and gears that lag"),
            "hard": _("several rounds, a needle that trembles"),
        },
        begin=_(
            "Turn it once round one way, by the keys or on the dial. Remember the largest and the smallest reading, with their rounds."
        ),
        levers={"on": _("On 15°"), "on-far": _("On 90°"), "back": _("Back 15°"), "other": _("Other end")},
        shown={"at_angle_rounds": _("{end}, crank at {angle}°; small hand at {rounds}")},
        truth={
            "tir_left": _("Runout, drive side"),
            "high_left": _("High at, drive side"),
            "tir_right": _("Runout, magneto side"),
            "high_right": _("High at, magneto side"),
        },
        left=_("error"),
        advice={
            "rounds": fixed(_("A round of the needle was lost. The small hand counts them: each is {round} here."), round=mm(0.2, 0.1)),
            "stopped_early": _("A runout was told wrong. Turn one way only: turned back, the needle lags by what its gears lose."),
            "high_spot": _("The runouts were right, where they are high was not: it is the angle at the greatest reading."),
            "not_begun": _("Nothing was kept. The greatest reading of a turn less the least is the runout."),
        },
    ),
    "true-crank": Said(
        name=_("True a pressed crank"),
        asks=_("Turn it, read its dial, strike it, measure again, until both ends are within the limit."),
        levels={
            "easy": _("even blows, a round journal, twist alone"),
            "middle": _("uneven blows, web opening too, sometimes an oval journal"),
            "hard": _("a gauge that slips, a support that rocks, a half that no truing cures"),
        },
        begin=fixed(
            _("Keys here turn it, or wheel, finger and arrows on the dial. Supports stand {support} out, gauges {gauge}; a line: {line}."),
            support=mm(92, 1.0),
            gauge=mm(34, 1.0),
            line=mm(0.002, 0.001),
        ),
        levers={
            **TURNED,
            "ahead": _("Strike right web, 270°"),
            "behind": _("Strike right web, 90°"),
            "squeeze": _("Squeeze"),
            "wedge": _("Wedge"),
        },
        shown={"at_angle": AT_ANGLE},
        truth={"swing": _("Runout (TIR)"), "twist": _("Twist"), "pinch": _("Web opening"), "offset": _("Offset"), "skew": _("Skew")},
        left=_("runout"),
        advice={
            "wrong_way": _(
                "Most blows went another way than the halves stood. Where it reads high is not where to strike: the call splits it first."
            ),
            "beaten": _("No blow cures offset or skew: the call said so before the first. It wants a new half."),
            "given_up_rightly": _("Rightly given up: what was wrong with it is beyond truing."),
        },
    ),
    "outer-web": Said(
        name=_("True the outer webs of a twin"),
        asks=_("On its centre bearings: which outer web has turned about its pin, how far, and which way back."),
        levels={
            "easy": _("one web has turned, blows fall even"),
            "middle": _("both have, blows fall uneven"),
            "hard": _("further, and shafts that stand off along the throw"),
        },
        begin=fixed(_("Pins 180° apart, rims {rim}. A line of the dial is {line}."), rim=mm(50, 1.0), line=mm(0.002, 0.001)),
        levers={
            **TURNED,
        },
        groups={"left": _("Left web"), "right": _("Right web")},
        shown={"at_angle": AT_ANGLE},
        truth={"swing": _("Larger runout (TIR)"), "web_left": _("Left web turned"), "web_right": _("Right web turned")},
        left=_("runout"),
    ),
    "free-wheel": Said(
        name=_("Free a flywheel"),
        asks=_("Measure both threads, screw the puller in, tighten as far as the thread stands, and wait. The thread must stay."),
        levels={
            "easy": _("a taper that lets go early"),
            "middle": _("one that wants time"),
            "hard": _("one that lets go late, and a puller that may be wrong by a hair"),
        },
        begin=_("Measure each thing here, and type what you see."),
        levers={
            "turns": _("Screw it in by hand"),
            "wrench": _("Read the wrench"),
            "more": _("Tighten on"),
            "less": _("Slacken"),
            "wait": _("Leave it loaded ten minutes"),
            "knock": _("Knock on the screw"),
            "swap": _("Take another puller"),
        },
        groups={"puller": _("Puller"), "boss": _("Boss"), "screw": _("Centre screw")},
        shown={
            "puller-across": _("across the puller's thread"),
            "puller-pitch": _("pitch of the puller's thread"),
            "boss-bore": _("bore of the thread in the boss"),
            "boss-pitch": _("pitch of the thread in the boss"),
            "turns": _("turns by hand, until it binds"),
            "screw-across": _("across the centre screw"),
            "screw-pitch": _("pitch of the centre screw"),
            "wrench": _("on the wrench: {said}"),
        },
        truth={
            "frees": _("Lets go at"),
            "strips": _("Thread goes at"),
            "peak": _("Tightened to"),
            "thread": _("Puller's thread"),
        },
        left=_("torque"),
        advice={
            "stripped": _("The thread in the boss is gone. The call names the torque to stop at: from there on, only time works."),
            "struck": _("It was struck. Magnets crack of a blow and lose their strength: a taper under load lets go with time."),
            "stopped_early": _("It is still on. Loaded up to the call's torque, time brings it; slackened, nothing happens."),
            "not_begun": _("Nothing was tightened. Measure both threads first: a wrong pitch goes in a turn and strips."),
        },
    ),
    "split": Said(
        name=_("Part a case evenly"),
        asks=_("Turn the screws, measure the gap at four places, level the halves before a dowel binds, until they are apart."),
        levels={
            "easy": _("halves that open nearly even"),
            "middle": _("one side leads"),
            "hard": _("tight dowels, and perhaps a bolt that is still in"),
        },
        begin=_("Eight bolts came out: count them here. Measure the gaps after every push."),
        levers={
            "count": _("Count the bolts"),
            "push": _("Turn the screws on"),
            "ease": _("Ease them half a turn"),
        },
        groups={"gap": _("Gap at"), "tap": _("Tap at"), "bolt": _("Look for a bolt at")},
        shown={
            "bolts_out": _("bolts lie on the bench"),
            "gap_at": _("blades at the {place}"),
            "bound": _("the screws are stiff"),
            "moved": _("it moved"),
            "closed": _("closed"),
        },
        truth={"lead": _("One side leads by"), "gap": _("Open in the middle"), "bolt": _("Bolt still in"), "bound": _("Bound, times")},
        left=_("lead"),
        advice={
            "bolt_forced": _("A bolt was still in, and the casting gave. Count them: one place that does not open is a bolt."),
            "scored": _("It bound again and again: a dowel is scored. Level the halves before the lead is what the dowels allow."),
            "stopped_early": _("They are not apart. Go on in small turns, the gaps measured after each."),
        },
    ),
}
