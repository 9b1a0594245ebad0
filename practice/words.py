"""Every sentence of practice, by code: those that all exercises share, then each exercise's own."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field

from django.utils.functional import Promise
from django.utils.translation import gettext_lazy as _

Sentence = str | Promise

LEVEL = {"easy": _("learner"), "middle": _("at the bench"), "hard": _("whatever comes")}
SHARE = {"tap": _("a tap"), "half": _("half"), "whole": _("whole")}
SIDE = {"left": _("drive side"), "right": _("magneto side")}
CALL = {
    "in": _("In: within the limit"),
    "out": _("Out of the limit"),
    "too_close": _("Too close to call"),
    "stop": _("Stop: not like this"),
}
CALLS = {"in": _("in"), "out": _("out"), "too_close": _("too close"), "stop": _("stop"), "wait": _("wait")}
NO_MOVE = _("nothing")
NOTHING_YET = _("Nothing done yet.")

WORD = {  # answers in words that a truth or a gauge may give
    "": _("not found"),
    "none": _("none"),
    "nothing": _("empty"),
    "right": _("right"),
    "wrong": _("wrong"),
    "crooked": _("crooked or not its own"),
    "lip_out": _("lip the wrong way"),
    "sound": _("sound all over"),
    "cracked": _("cracked"),
    "inside": _("to the inside"),
    "outside": _("to the outside"),
    "front": _("front"),
    "top": _("top"),
    "rear": _("rear"),
    "sump": _("sump"),
    "drive": _("crank, drive side"),
    "magneto": _("crank, magneto side"),
    "output": _("gearbox output"),
    "holds": _("it holds"),
    "free": _("it is off"),
    "stripped": _("the thread is gone"),
    "ccw": _("counter-clockwise"),
    "cw": _("clockwise"),
    "across": _("across"),
    "bore": _("bore"),
    "pitch": _("pitch"),
    "first": _("first"),
    "second": _("second"),
}
ADVICE: Mapping[str, Sentence] = {
    "not_begun": _("Nothing was done. Measure, and do the one move that the call names."),
    "wrong_way": _("Most moves went another way than they should. Measure again before each, and take the call before the feeling."),
    "stopped_early": _("It was left short of its goal. Measure again after each move, until nothing is worth one."),
    "overshot": _("Some moves went too far. When it goes back and forth, half the move."),
    "well_done": _("Well worked: hardly a move without its reason. Take the next level."),
    "beaten": _("Nothing that hands do cures this: the call said so before the first move."),
    "given_up_rightly": _("Rightly left alone: what was wrong with it is beyond this work."),
}
FAULT: Mapping[str, Sentence] = {
    "pressed": _("twisted and pinched, no more"),
    "not curable": _("a half bent beyond truing"),
    "oval": _("a journal that was not round"),
    "slipped": _("a gauge that slipped in its holder"),
    "loose": _("a support that rocked"),
    "cracked": _("a wheel with a crack, which is never balanced"),
    "calm": _("a wheel that ran smooth, and was to be left alone"),
    "forgotten": _("a bolt that was still in"),
    "wrong_thread": _("a puller whose thread is wrong by a hair"),
    "tight_seat": _("one seat tighter than its code"),
}


@dataclass(frozen=True)
class Said:
    """The sentences of one exercise. `levels` says what each level brings; a lever or a truth that is not here has none."""

    name: Sentence
    asks: Sentence  # what is to be done
    take: Sentence
    levels: Mapping[str, Sentence]
    begin: Sentence  # what to type where the station asks for what hands cannot see
    levers: Mapping[str, Sentence]
    shown: Mapping[str, Sentence]
    truth: Mapping[str, Sentence]
    left: Sentence
    groups: Mapping[str, Sentence] = field(default_factory=dict)  # of levers that differ only in where: what stands before them
    advice: Mapping[str, Sentence] = field(default_factory=dict)
    typed: Mapping[str, Sentence] = field(default_factory=dict)


TURNED: dict[str, Sentence] = {
    "on-30": _("On 30°"),
    "on-45": _("On 45°"),
    "back-30": _("Back 30°"),
    "back-45": _("Back 45°"),
    "other": _("Other end"),
}
AT_ANGLE = _("{end}, crank at {angle}°")

SAID: dict[str, Said] = {
    "read-dial": Said(
        name=_("Read a dial"),
        asks=_("Tell the runout of a shaft at both ends, and where it is high, with a needle that goes round more than once."),
        take=_("Take a shaft"),
        levels={
            "easy": _("a needle that stays within a round"),
            "middle": _("more than a round, and gears that lag"),
            "hard": _("several rounds, a needle that trembles"),
        },
        begin=_("Turn it once round one way, by the keys or on the dial; keep the most and the least in mind, rounds and all."),
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
            "rounds": _("A round of the needle was lost. The small hand counts them: each is 0.2 mm here."),
            "stopped_early": _("A runout was told wrong. Turn one way only: turned back, the needle lags by what its gears lose."),
            "high_spot": _("The runouts were right, where they are high was not: it is the angle at the greatest reading."),
            "not_begun": _("Nothing was kept. The greatest reading of a turn less the least is the runout."),
        },
    ),
    "true-crank": Said(
        name=_("True a pressed crank"),
        asks=_("Turn it, read its dial, strike it, measure again, until both ends are within the limit."),
        take=_("Take a crank"),
        levels={
            "easy": _("even blows, a round journal, twist alone"),
            "middle": _("uneven blows, pinch too, now and then an oval journal"),
            "hard": _("a gauge that slips, a support that rocks, a half that no truing cures"),
        },
        begin=_("Keys here turn it, or wheel, finger and arrows on the dial. Supports stand 92 out, gauges 34; a line is 2 µm."),
        levers={
            **TURNED,
            "ahead": _("Strike right web, 270°"),
            "behind": _("Strike right web, 90°"),
            "squeeze": _("Squeeze"),
            "wedge": _("Wedge"),
        },
        shown={"at_angle": AT_ANGLE},
        truth={"swing": _("Swing"), "twist": _("Twist"), "pinch": _("Pinch"), "offset": _("Offset"), "skew": _("Skew")},
        left=_("swing"),
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
        take=_("Take a twin crank"),
        levels={
            "easy": _("one web has turned, blows fall even"),
            "middle": _("both have, blows fall uneven"),
            "hard": _("further, and shafts that stand off along the throw"),
        },
        begin=_("Pins 180° apart, rims 50. A line of the dial is 2 µm."),
        levers={
            **TURNED,
        },
        groups={"left": _("Left web"), "right": _("Right web")},
        shown={"at_angle": AT_ANGLE},
        truth={"swing": _("Larger swing"), "web_left": _("Left web turned"), "web_right": _("Right web turned")},
        left=_("swing"),
    ),
    "free-wheel": Said(
        name=_("Free a flywheel"),
        asks=_("Measure both threads, screw the puller in, tighten as far as the thread stands, and wait. The thread must stay."),
        take=_("Take a flywheel"),
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
        take=_("Take a case"),
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
    "hot-half": Said(
        name=_("One hot half, five bearings"),
        asks=_("Warm the half, read it with the gun, drop five bearings while it is hot. What jams is lifted out, never knocked."),
        take=_("Take a half"),
        levels={
            "easy": _("an oven as its dial says"),
            "middle": _("a slow oven, and one seat tighter than its code"),
            "hard": _("slower still, and colder than its dial"),
        },
        begin=_("The gun is set to 0.95; a dot of matt paint is on the half. Waits can be shortened."),
        levers={
            "oven": _("Into the oven"),
            "out": _("Out of it"),
            "paint": _("Gun at the paint dot"),
            "bare": _("Gun at bare metal"),
        },
        groups={"set": _("Oven to, °C"), "drop": _("Drop"), "lift": _("Lift out"), "knock": _("Knock down")},
        shown={
            "paint": _("gun at the paint dot"),
            "bare": _("gun at bare metal"),
            "home": _("{name} is home; {home} of 5 are"),
            "jammed": _("{name} has jammed"),
            "in_oven": _("the half is in the oven"),
            "lifted": _("{name} is out again"),
            "heating": _("in the oven, set to {set}"),
            "on_bench": _("on the bench, the oven set to {set}"),
        },
        truth={
            **{f"wants_{name}": words for name, words in (("A", _("A falls from")), ("B", _("B falls from")), ("C", _("C falls from")))},
            **{f"wants_{name}": words for name, words in (("D", _("D falls from")), ("E", _("E falls from")))},
            "hottest": _("Hottest that it was"),
            "home": _("Home"),
            "knocked": _("Knocked"),
        },
        left=_("bearings left"),
        advice={
            "too_hot": _("The half was hotter than its metal stands. A gun at bare metal reads far too low: aim at the dot."),
            "knocked": _("A bearing was knocked down cold: it is marked. Lift it out, warm the half further, drop it again."),
            "stopped_early": _("Not all are home. Warm it on; the call says what the tightest seat wants."),
        },
    ),
    "seals": Said(
        name=_("Three seals that look alike"),
        asks=_("Measure each, take it to its own place, lip to the inside, drive it in and tap it square by four depths."),
        take=_("Take three seals"),
        levels={
            "easy": _("a driver that goes in straight"),
            "middle": _("a driver that leans"),
            "hard": _("it leans further, and the calliper wanders"),
        },
        begin=_("All three keep oil in. Depth wanted 0.8 mm."),
        levers={
            "shaft": _("Calliper: shaft"),
            "bore": _("Calliper: bore"),
            "lip": _("See its lip"),
            "round": _("Turn it round"),
            "drive": _("Drive it in"),
            "draw": _("Draw it out"),
        },
        groups={"take": _("Take seal"), "place": _("Go to"), "depth": _("Depth at"), "tap": _("Tap at")},
        shown={
            "does_not_enter": _("seal {letter} does not enter at the {place}"),
            "lip": _("lip of seal {letter}: {said}"),
            "shaft": _("seal {letter}, shaft it is for"),
            "bore": _("seal {letter}, bore it is for"),
            "depth": _("{place}, depth at {clock}"),
            "in_hand": _("seal {letter} in hand, before the {place}"),
            "not_in_hand": _("seal {letter} sits already"),
            "seated": _("seal {letter} sits in the {place}"),
            "empty": _("{place}: empty"),
        },
        truth={
            "seal_A": _("Seal A belongs at"),
            "seal_B": _("Seal B belongs at"),
            "seal_C": _("Seal C belongs at"),
            "at_drive": _("Crank, drive side"),
            "at_magneto": _("Crank, magneto side"),
            "at_output": _("Gearbox output"),
            "spoiled": _("Spoiled"),
        },
        left=_("places wrong"),
        advice={
            "drawn": _("A seal was drawn out again, and is spoiled. Measure before it is driven: two sizes tell the three apart."),
            "stopped_early": _("A place is not right. Four depths tell a crooked seal; its lip faces what it keeps in."),
        },
    ),
    "end-float": Said(
        name=_("End float, and two manuals"),
        asks=_("Find which manual is this crank's, measure the stack, put shims in, and close the case once."),
        take=_("Take a case"),
        levels={
            "easy": _("manuals that nearly agree, shims as their bags say"),
            "middle": _("manuals that differ, shims that differ a little"),
            "hard": _("manuals that exclude each other, shims that are not what their bags say"),
        },
        begin=_("No shims are fitted at first. Type the limits of the manual that is right for this crank."),
        levers={
            "number": _("Crank's number"),
            "measure-left": _("left half"),
            "measure-right": _("right half"),
            "measure-gasket": _("gasket, crushed"),
            "measure-crank": _("crank's shoulders"),
            "measure-shims": _("shims that are on"),
            "close": _("Close it, lift the crank under a dial"),
            "off": _("All off"),
        },
        groups={"manual": _("Manual"), "measure": _("Measure"), "add": _("Add a shim of, mm")},
        shown={
            "manual_first": _("first manual, cranks up to 4000: {low} to {high}"),
            "manual_second": _("second manual, cranks from 4001: {low} to {high}"),
            "number": _("on the crank: {number}"),
            "measure-left": _("face to bearing, left half"),
            "measure-right": _("face to bearing, right half"),
            "measure-gasket": _("gasket, crushed"),
            "measure-crank": _("over the crank's shoulders"),
            "measure-shims": _("the shims together"),
            "close": _("float, by dial"),
            "shims": _("shims on, by their bags: {bags}"),
        },
        truth={
            "room": _("Room without shims"),
            "float": _("Float"),
            "low": _("Limit, from"),
            "high": _("Limit, to"),
            "closed": _("Closed, times"),
        },
        left=_("off the middle of its limits"),
        advice={
            "other_manual": _("The limits were the other manual's: the number on the crank says which one is meant."),
            "binds": _("The crank binds: more shim is in than there is room. Measure the shims themselves, not their bags."),
            "stopped_early": _("The float is outside its limits. Add up the stack, then choose."),
        },
    ),
    "balance": Said(
        name=_("Balance a flywheel"),
        asks=_("Is it to be touched at all? Roll it, weigh the heavy spot with a mass, drill where it may be, and prove it."),
        take=_("Take a wheel"),
        levels={
            "easy": _("a free stand, nothing in the way"),
            "middle": _("a stand that rubs, ribs where nothing may be drilled"),
            "hard": _("more so, and perhaps a wheel that must not be touched"),
        },
        begin=_("Rim 190, mass and holes sit 80 out, the rim is 18 thick there. Look at it first."),
        levers={
            "look": _("Look it over"),
            "roll": _("Roll it"),
            "let-go": _("Mass at the mark, mark level, let go"),
            "drill": _("Drill at the mark"),
        },
        shown={
            "": _("on its arbor"),
            "looked": _("{sound}; {shook}; ribs at {arcs}"),
            "rolled": _("at the bottom"),
            "stays": _("it stays, mark level"),
            "turns": _("it turns down with the mass, mark level"),
            "back": _("it turns back, mark level"),
            "drilled": _("deep, as it came"),
        },
        truth={"heavy": _("Heavy by"), "heavy_at": _("Heavy at"), "wheel": _("The wheel is")},
        left=_("unbalance"),
        advice={
            "cracked": _("The wheel has a crack and was drilled: a cracked wheel is scrap, whatever it weighs."),
            "calm": _("It ran smooth, and was drilled all the same. What does not shake is left alone."),
            "rib": _("A hole went into a rib. Type where nothing may be drilled: the plan goes round it."),
            "thin": _("A hole went too deep: less than 3 mm of wall is left under it."),
            "beaten": _("This wheel was not to be touched, and was."),
            "given_up_rightly": _("Rightly left alone."),
        },
        typed={"mark": _("Mark, °"), "mass": _("Mass, g"), "bit": _("Drill, mm"), "depth": _("Depth, mm")},
    ),
}
SHOOK = {True: _("it shook"), False: _("it ran smooth")}
NO_ARCS = _("nowhere")


def lever(exercise: str, key: str) -> str:
    """A lever's name as it stands behind its group, or by itself."""
    own = SAID[exercise].levers.get(key)
    return str(own if own is not None else WORD.get(key.partition("-")[2], key.partition("-")[2]))


def move(exercise: str, key: str) -> str:
    """The same in full, as a move that was made."""
    group = SAID[exercise].groups.get(key.partition("-")[0])
    return f"{group} {lever(exercise, key)}" if group else lever(exercise, key)


def advice(exercise: str, code: str) -> Sentence:
    """The line of a code: the exercise's own where it has one."""
    return SAID[exercise].advice.get(code) or ADVICE.get(code, ADVICE["stopped_early"])
