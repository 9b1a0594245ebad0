"""Operators that pull a flywheel off its taper by the torque on the screw."""

from __future__ import annotations

from dataclasses import replace

from stator.simulators.flywheel_on_taper import StuckWheel

FETCHED_TURNS, SPARE = 7.0, 0.5  # of the puller that fits; of the torque at which the thread goes


def free_by_the_torque(flywheel: StuckWheel) -> bool:
    """Tighten by 5 N·m, wait, never strike, never exceed half of the stripping torque; return whether the flywheel came off undamaged."""
    if flywheel.truth.off_pitch_mm:  # seen on the pitch gauge: the right puller is fetched
        flywheel.truth = replace(flywheel.truth, off_pitch_mm=0.0, turns=FETCHED_TURNS)
    stop_nm = SPARE * flywheel.truth.strips_nm
    while not flywheel.is_free and not flywheel.is_stripped:
        if flywheel.torque_nm + flywheel.MORE_NM <= stop_nm:
            flywheel.pull("more")
            continue
        before = flywheel.holds
        for _ in range(60):
            flywheel.pull("wait")
            if flywheel.is_free:
                return True
        if flywheel.holds > 0.5 * before:
            return False
    return flywheel.is_free
