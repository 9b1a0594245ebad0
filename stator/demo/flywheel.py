"""A flywheel on the balance stand in the demo, and how every other one went back on."""

from __future__ import annotations

from datetime import datetime, timedelta

from stator.demo.demo_user import DemoUser
from stator.engines.models import EngineCard
from stator.jobs.models import Job


def on_the_stand(shed: DemoUser, job: Job, now: datetime) -> None:
    """Balance until the first hole is to be drilled: vibration, significant stops, and the trial mass."""
    facts = {"wheel_kg": 1.9, "wheel_rpm": 8500, "taper_ratio": 8, "nut_d_mm": 12, "nut_torque_nm": 55, "shaft_d_mm": 16}
    shed.done_before(job, "balance", now)
    EngineCard.objects.filter(pk=job.card_id).update(**facts)
    at = now - timedelta(minutes=18)
    marks = [("stop-angle", mark) for mark in ("184", "201", "176", "205", "195", "190")]
    first = [("shook", "yes"), ("wheel-sound", "sound"), ("rim-diameter", "190"), *marks]
    trial = [("trial-radius", "80"), ("trial-stays", "1.2 g"), ("trial-turns", "1.6 g")]
    where = [("drill-radius", "80"), ("finish-radius", "45"), ("rim-depth", "18"), ("keep-out", "205-232, 25-52"), ("drills", "4 6 8")]
    shed.answer(job, "balance", None, at, *first, *trial, *where)
    shed.tick(shed.at(job, "balance", None, at))
    shed.at(job, "balance", None, now).update_work_plan()
