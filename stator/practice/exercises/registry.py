"""Every exercise, in the order in which they are offered."""

from __future__ import annotations

from stator.practice.exercises.balance import Balance
from stator.practice.exercises.base import Exercise
from stator.practice.exercises.install_with_heat import HotHalfExercise
from stator.practice.exercises.read_dial_indicator import ReadDial
from stator.practice.exercises.release_flywheel import FreeWheel
from stator.practice.exercises.seals import Seals
from stator.practice.exercises.set_end_play import EndFloat
from stator.practice.exercises.split import Split
from stator.practice.exercises.true_crank import TrueCrank
from stator.practice.exercises.true_outer_web import OuterWeb

EXERCISES: dict[str, Exercise] = {
    each.key: each
    for each in (ReadDial(), TrueCrank(), OuterWeb(), FreeWheel(), Split(), HotHalfExercise(), Seals(), EndFloat(), Balance())
}
