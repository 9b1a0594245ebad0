"""A twin with a center section: both joints opened, both ends pulled in by turns, before the first bead of sealant."""

from __future__ import annotations

from datetime import datetime, timedelta

from stator.demo import disassembly
from stator.demo.crank import SET_UP
from stator.demo.demo_user import DemoUser
from stator.engines.parts import HALVES
from stator.engines.properties import Property
from stator.jobs.models import Job
from stator.stations.set_end_play.analysis import links_of, shim
from stator.stations.split_crankcase.analysis import length_of
from stator.workbench.work_plan import skip_station

OPENED = (("1.05", "1.12", "1.20", "1.10"), ("0.95", "1.02", "1.00", "0.98"))  # gaps of the two joints, mm


def split(shed: DemoUser, job: Job, at: datetime) -> None:
    """One joint after the other; a shim hangs on the centre section."""
    for number, gaps in enumerate(OPENED):
        found = shed.at(job, "split", None, at).analysis
        lengths = [(length_of(mark).key, f"{mark.length_mm:g}") for mark in found.fasteners]
        counted = (found.of(Property.FASTENERS_COUNTED).key, str(len(lengths)))
        shed.answer(job, "split", None, at, *lengths, counted, (found.of(Property.SPLITTER_SCREW_TURNS).key, "9"))
        shed.tick(shed.at(job, "split", None, at))
        shed.act(job, "split", None, at, "begin")
        disassembly.gaps(shed, job, at, *gaps)
        shed.act(job, "split", None, at, "apart")
        first, second = (found.loose_number(each) for each in (1, 2))
        if number == 0:
            told = ((Property.LOOSE_PART, "shim 0.2"), (Property.LOOSE_FROM, "crank, thrust side"), (Property.LOOSE_HALF, "centre"))
            shed.answer(job, "split", None, at, *((first.slot(what).key, text) for what, text in told))
        last = second if number == 0 else first
        shed.answer(job, "split", None, at, (last.slot(Property.LOOSE_PART).key, "-"))
    shed.act(job, "split", None, at, "sign")


def floated(shed: DemoUser, job: Job, at: datetime) -> None:
    """The stack over all three parts, without gaskets."""
    sizes = ("-", "34.42", "88.00", "33.10", "-", "-", "154.90", "-")
    keys = ("case-temperature", *(link.slot.key for link in links_of(job.card)))
    limits = (("end-float-least", "0.15"), ("end-float-most", "0.30"))
    shed.answer(job, "end-float", None, at, *zip(keys, sizes, strict=True), *limits)
    pieces: tuple[float, ...] = shed.at(job, "end-float", None, at).analysis.pieces
    shed.answer(job, "end-float", None, at, *((shim(number).key, f"{piece:.3f}") for number, piece in enumerate(pieces, 1)))
    shed.answer(job, "end-float", None, at, ("shim-side", "right"))
    shed.act(job, "end-float", None, at, "sign")


def pulled_in(shed: DemoUser, job: Job, at: datetime) -> None:
    """Pull each end in by a turn or two alternately until both are seated."""
    for end in HALVES:
        known = zip(SET_UP, ("11.95", "1.25", "9", "6"), strict=True)
        shed.answer(job, "crank-in", None, at, *((f"{key}.{end}", text) for key, text in known))
        shed.tick(shed.at(job, "crank-in", None, at))
        shed.act(job, "crank-in", None, at, "begin")
    for turns, torque in (("1", "4 Nm"), ("2", "5 Nm"), ("3", "6 Nm"), ("4", "26 Nm")):
        for end in HALVES:
            shed.answer(job, "crank-in", None, at, (f"screw-turns-done.{end}", turns))
            shed.answer(job, "crank-in", None, at, (f"screw-torque.{end}", torque))
    shed.act(job, "crank-in", None, at, "home")
    shed.act(job, "crank-in", None, at, "home")
    shed.answer(job, "crank-in", None, at, ("home-gap.left", "0.10"), ("home-gap.right", "0.11"))
    shed.act(job, "crank-in", None, at, "sign")


def twin(shed: DemoUser, job: Job, now: datetime) -> None:
    """Everything up to Close, where one clock will run over both joints."""
    for station in job.run.filter(key__in=("apart", "together", "true")):
        skip_station(station, shed.skipper, "the crank runs true and stays whole")
    skip_station(job.run.get(key="heat-and-drop"), shed.skipper, "bearings stayed in, all four sound")
    shed.done_before(job, "close", now, split=split, end_float=floated, crank_in=pulled_in)
    job.tray.update(emptied_at=now)
    at = now - timedelta(minutes=6)
    shed.answer(job, "close", None, at, ("gears", "none"))
