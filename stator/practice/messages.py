"""Every sentence of practice, by code; each exercise's own stand in `practice/said/`."""

from __future__ import annotations

from collections.abc import Mapping

from django.utils.translation import gettext_lazy as _

from shopmath.amounts import Amount
from stator.practice.exercise_messages.fitted import FITTED_SAID
from stator.practice.exercise_messages.form import Said, Sentence
from stator.practice.exercise_messages.turned import TURNED_SAID
from stator.ui.number_format import show

SAID: Mapping[str, Said] = {**TURNED_SAID, **FITTED_SAID}

LEVEL = {"easy": _("learner"), "middle": _("at the bench"), "hard": _("whatever comes")}
SHARE = {"tap": _("a tap"), "half": _("half"), "whole": _("whole")}
SIDE = {"left": _("drive side"), "right": _("magneto side")}
CALL = {
    "in": _("In: within the limit"),
    "out": _("Out of the limit"),
    "too_close": _("Too close to call"),
    "stop": _("Stop: not like this"),
}
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
    "pressed": _("twist and web opening only"),
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


SHOOK = {True: _("it shook"), False: _("it ran smooth")}
NO_ARCS = _("nowhere")


def lever(exercise: str, key: str) -> str:
    """Return the name of a control in its group or alone."""
    said, (group, _dash, where) = SAID[exercise], key.partition("-")
    if group in said.counted:
        kind, step = said.counted[group]
        return show(Amount(float(where), kind, step))
    own = said.levers.get(key)
    return str(own if own is not None else WORD.get(where, where))


def move(exercise: str, key: str) -> str:
    """The same in full, as a move that was made."""
    group = SAID[exercise].groups.get(key.partition("-")[0])
    return f"{group} {lever(exercise, key)}" if group else lever(exercise, key)


def advice(exercise: str, code: str) -> Sentence:
    """The line of a code: the exercise's own where it has one."""
    return SAID[exercise].advice.get(code) or ADVICE.get(code, ADVICE["stopped_early"])
