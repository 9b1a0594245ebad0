"""A heat for a case half in the demo: parts chilled, the half in the oven, parts laid out in order."""

from __future__ import annotations

from datetime import datetime, timedelta

from stator.demo.demo_user import DemoUser
from stator.jobs.models import Job
from stator.shop.models import Gauge


def whole_half(shed: DemoUser, job: Job, now: datetime) -> None:
    """Prepare four bearings and two pins, eleven minutes after the half was put in the oven, with orientations decided."""
    shed.done_before(job, "heat-and-drop", now)
    cold = now - timedelta(minutes=58)
    probe = Gauge.objects.get(kind=Gauge.Kind.CONTACT)
    output = job.card.seats.get(name="Gearbox output")
    drum = job.card.seats.get(name="Selector drum")
    shed.answer(
        job,
        "heat-and-drop",
        None,
        cold,
        (f"way-settled.{output.uid}", "marking_out"),
        (f"way-settled.{drum.uid}", "marking_out"),
        ("air-temperature", "18"),
        ("heater-setting", "-"),
    )
    work = shed.at(job, "heat-and-drop", None, cold)
    shed.tick(work)
    shed.choose(work, means=f"{probe.pk}:contact")
    chill = next(action.key for action in shed.at(job, "heat-and-drop", None, cold).actions() if action.key.startswith("chill-"))
    shed.act(job, "heat-and-drop", None, cold, chill)
    shed.act(job, "heat-and-drop", None, now - timedelta(minutes=11), "heat")
    shed.answer(job, "heat-and-drop", None, now - timedelta(minutes=3), ("hot-temperature", "63"))
    shed.at(job, "heat-and-drop", None, now).update_work_plan()
