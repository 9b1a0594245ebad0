"""Operators that pull a flywheel off its taper by the torque on the screw."""

from __future__ import annotations

from dataclasses import replace

from stator.simulators.flywheel_on_taper import StuckWheel

FETCHED_TURNS, SPARE = 7.0, 0.5  # of the puller that fits; of the torque at which the thread goes


def free_by_the_torque(wheel: StuckWheel) -> bool:
    """Tighten by 5 N·m, wait, never strike, never exceed half of the stripping torque; return whether the flywheel came off undamaged."""
    if wheel.truth.off_pitch_mm:  # seen on the pitch gauge: the right puller is fetched
        wheel.truth = replace(wheel.truth, off_pitch_mm=0.0, turns=FETCHED_TURNS)
    stop_nm = SPARE * wheel.truth.strips_nm
    while not wheel.is_free and not wheel.is_stripped:
        if wheel.torque_nm + wheel.MORE_NM <= stop_nm:
            wheel.pull("more")
            continue
        before = wheel.holds
        for _ in range(60):
            wheel.pull("wait")
            if wheel.is_free:
                return True
        if wheel.holds > 0.5 * before:
            return False
    return wheel.is_free
