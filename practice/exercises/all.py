"""Every exercise, in the order in which they are offered."""

from __future__ import annotations

from practice.exercises.balance import Balance
from practice.exercises.base import Exercise
from practice.exercises.end_float import EndFloat
from practice.exercises.free_wheel import FreeWheel
from practice.exercises.hot_half import HotHalfExercise
from practice.exercises.outer_web import OuterWeb
from practice.exercises.read_dial import ReadDial
from practice.exercises.seals import Seals
from practice.exercises.split import Split
from practice.exercises.true_crank import TrueCrank

EXERCISES: dict[str, Exercise] = {
    each.key: each
    for each in (ReadDial(), TrueCrank(), OuterWeb(), FreeWheel(), Split(), HotHalfExercise(), Seals(), EndFloat(), Balance())
}
