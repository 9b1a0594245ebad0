"""Disassembly of engines in the demo, through the same questions and actions as in the shop."""

from __future__ import annotations

import io
from collections.abc import Callable
from datetime import datetime, timedelta

from django.core.files.uploadedfile import SimpleUploadedFile
from PIL import Image, ImageDraw

from shopmath.seals import CLOCKS
from stator.demo.demo_user import DemoUser
from stator.engines.fact_keys import FactKey, Location
from stator.engines.models import Seat
from stator.engines.models.places import seal_in_front_of
from stator.engines.properties import Property
from stator.jobs import log
from stator.jobs.models import Job, Pin
from stator.jobs.photos import add_photo
from stator.shop.models import Puller
from stator.stations.split_crankcase.analysis import length_of


def wheel(shed: DemoUser, job: Job, at: datetime, puller: str, boss: str, turns: str, *more: tuple[str, str]) -> None:
    """Record readings at Remove flywheel with one of the shop's pullers."""
    entry = log.open_entry(job.run.get(key="flywheel-off"), None, shed.hand)
    log.set_method(entry, puller=str(Puller.objects.get(name=puller).pk))
    shed.answer(
        job,
        "flywheel-off",
        None,
        at,
        ("boss-diameter", boss),
        ("boss-pitch", "1.0"),
        ("boss-hand", "right"),
        ("puller-turns", turns),
        *more,
    )


def wheel_off(shed: DemoUser, job: Job, at: datetime) -> None:
    wheel(
        shed,
        job,
        at,
        "Small puller",
        "25.98",
        "6",
        ("nut-torque-wanted", "55 Nm"),
        ("nut-thread", "12"),
        ("pulling-torque", "25"),
        ("pulling-torque", "38"),
    )
    shed.tick(shed.at(job, "flywheel-off", None, at))
    shed.act(job, "flywheel-off", None, at, "free")
    shed.answer(
        job, "flywheel-off", None, at, ("taper-condition", "grey"), ("key-condition", "sound"), ("magnets", "sound"), ("coils", "sound")
    )
    shed.act(job, "flywheel-off", None, at, "sign")


def bolts_out(shed: DemoUser, job: Job, at: datetime, turns: str = "9") -> None:
    """Every fastener out with its length, counted; the splitter's screws in."""
    bolts = [mark for mark in job.card.marks.all() if mark.is_fastener]
    lengths = [(length_of(mark).key, f"{mark.length_mm:g}") for mark in bolts]
    first = [] if job.card.lifts else [("lifting-half", "right")]
    count = ("counted", str(len(bolts) or 12))
    shed.answer(job, "split", None, at, *first, *lengths, *([] if bolts else [("expected", "12")]), count, ("screw-turns", turns))
    shed.tick(shed.at(job, "split", None, at))
    shed.act(job, "split", None, at, "begin")


def gaps(shed: DemoUser, job: Job, at: datetime, *values: str) -> None:
    places = [
        question.key for question in shed.at(job, "split", None, at).questions() if question.slot and question.slot.what == Property.GAP
    ]
    shed.answer(job, "split", None, at, *zip(places, values, strict=False))


def split(shed: DemoUser, job: Job, at: datetime) -> None:
    bolts_out(shed, job, at)
    gaps(shed, job, at, "1.05", "1.12", "1.20", "1.10")
    shed.act(job, "split", None, at, "next")
    gaps(shed, job, at, "4.10", "4.25", "4.30", "4.15")
    shed.act(job, "split", None, at, "apart")
    washer = (("loose-part.split-1", "thin washer"), ("loose-from.split-1", "output, 1st"), ("loose-half.split-1", "right"))
    shed.answer(job, "split", None, at, *washer, ("loose-part.split-2", "-"))
    shed.act(job, "split", None, at, "sign")


def parts(shed: DemoUser, job: Job, at: datetime, *found: tuple[str, str, str, str]) -> None:
    for number, (what, where, orientation, wear) in enumerate(found, 1):
        values = {"part": what, "part-from": where, "part-way": orientation, "part-wear": wear}
        shed.answer(job, "strip", None, at, *((f"{asked}.strip-{number}", text) for asked, text in values.items()))


CLUSTER = (
    ("selector forks, shaft", "drum side", "picture", "none"),
    ("selector drum", "behind the forks", "either", "none"),
    ("gear cluster, input", "input, with its ends", "picture", "none"),
    ("gear cluster, output", "output, with its ends", "picture", "some"),
    ("2 x washer 1.0", "output, 2nd from the case", "either", "none"),
    ("kickstart shaft and spring", "below the drum", "marked", "none"),
)


def strip(shed: DemoUser, job: Job, at: datetime) -> None:
    shed.answer(job, "strip", None, at, ("crank-out", "pushed"), ("came-evenly", "even"))
    parts(shed, job, at, *CLUSTER[:3])
    shed.answer(job, "strip", None, at, ("part.strip-4", "-"))
    shed.tick(shed.at(job, "strip", None, at))
    shed.act(job, "strip", None, at, "sign")


def of_seat(shed: DemoUser, job: Job, seat: Seat, at: datetime, *answers: tuple[Property, str]) -> None:
    """Answer questions about the present seat."""
    shed.answer(job, "bearings-out", seat, at, *((FactKey(seat.part, what).key, text) for what, text in answers))


def seal_found(shed: DemoUser, job: Job, seat: Seat, at: datetime, lip: str, depths: tuple[str, ...], face: str = "-") -> None:
    """The seal in front of a bearing, as found, and pulled."""
    seal = seal_in_front_of(job.card, seat)
    assert seal is not None
    depth = [
        (FactKey(seal.part, Property.SEAL_DEPTH, Location(clock=int(clock))).key, text) for clock, text in zip(CLOCKS, depths, strict=True)
    ]
    first, last = FactKey(seal.part, Property.SEAL_LIP).key, FactKey(seal.part, Property.SEAL_OUT).key
    shed.answer(job, "bearings-out", seat, at, (first, lip), *depth, (last, "yes"))
    of_seat(shed, job, seat, at, (Property.BEARING_FACE_DEPTH, face))


def seat_out(shed: DemoUser, job: Job, seat: Seat, at: datetime) -> None:
    """One bearing out by heat, its seal looked at before."""
    if seal_in_front_of(job.card, seat):
        seal_found(shed, job, seat, at, "inside", ("0.1", "0.1", "0.1", "0.1"))
    holds = "removed" if seat.stop in ("circlip", "plate") else "none"
    faced = [(Property.WAY_ROUND, seat.faces if seat.name != "Gearbox output" else "marking_in")] if seat.faces else []
    of_seat(
        shed,
        job,
        seat,
        at,
        (Property.RETAINED_BY, holds),
        (Property.REACH, seat.bottom or "open"),
        (Property.SHIELDS, "open"),
        *faced,
        (Property.BEARING_DECISION, "scrap"),
    )
    shed.tick(shed.at(job, "bearings-out", seat, at))
    of_seat(shed, job, seat, at, (Property.CAME_OUT, "dropped"), (Property.SEAT_CONDITION, "sound"))
    shed.act(job, "bearings-out", seat, at, "sign")


def seats_out(shed: DemoUser, job: Job, at: datetime) -> None:
    for seat in job.card.seats.all():
        seat_out(shed, job, seat, at)


DONE: dict[str, Callable[[DemoUser, Job, datetime], None]] = {
    "flywheel-off": wheel_off,
    "split": split,
    "strip": strip,
    "bearings-out": seats_out,
}


# engines left standing in the middle of it


def parting(shed: DemoUser, job: Job, now: datetime) -> None:
    """Halves coming apart, one side leading."""
    shed.done_before(job, "split", now)
    at = now - timedelta(minutes=20)
    bolts_out(shed, job, at)
    gaps(shed, job, at, "0.95", "1.10", "1.22", "1.04")
    shed.act(job, "split", None, at, "next")
    gaps(shed, job, now - timedelta(minutes=3), "2.05", "2.40", "2.66", "2.31")
    picture(
        shed,
        job,
        "split",
        "As it stands in the splitter",
        now - timedelta(minutes=15),
        (0.32, 0.55, "stuck here before, tap"),
        (0.7, 0.4, "leads"),
    )


def in_the_tray(shed: DemoUser, job: Job, now: datetime) -> None:
    shed.done_before(job, "strip", now)
    at = now - timedelta(minutes=35)
    shed.answer(job, "strip", None, at, ("crank-out", "pushed"), ("came-evenly", "even"))
    shed.tick(shed.at(job, "strip", None, at))
    parts(shed, job, at, *CLUSTER)


def at_the_seats(shed: DemoUser, job: Job, now: datetime) -> None:
    """Remove a main bearing in a blind seat whose seal was tilted."""
    shed.done_before(job, "bearings-out", now)
    seat = job.card.seats.order_by("pk")[0]
    at = now - timedelta(minutes=12)
    seal_found(shed, job, seat, at, "outside", ("0.2", "0.3", "1.1", "0.5"), face="7.9")
    found = ((Property.RETAINED_BY, "none"), (Property.REACH, "blind"), (Property.SHIELDS, "open"), (Property.BEARING_DECISION, "scrap"))
    of_seat(shed, job, seat, at, *found)
    shed.tick(shed.at(job, "bearings-out", seat, at))
    shed.at(job, "bearings-out", seat, now).update_work_plan()


def picture(shed: DemoUser, job: Job, key: str, caption: str, at: datetime, *pins: tuple[float, float, str]) -> None:
    """Save a drawn photo as an upload would."""
    image = Image.new("RGB", (960, 640), "#8d8a82")
    pen = ImageDraw.Draw(image)
    pen.rounded_rectangle((120, 90, 840, 560), 120, fill="#b9b6ac", outline="#4c4a44", width=6)
    pen.ellipse((260, 210, 500, 450), fill="#6f6c64", outline="#3a3833", width=6)
    pen.ellipse((560, 260, 720, 420), fill="#77746c", outline="#3a3833", width=5)
    for x, y in ((170, 140), (480, 112), (790, 150), (800, 500), (480, 535), (160, 500)):
        pen.ellipse((x - 16, y - 16, x + 16, y + 16), fill="#4c4a44")
    out = io.BytesIO()
    image.save(out, "JPEG", quality=80)
    upload = SimpleUploadedFile("slip.jpg", out.getvalue(), "image/jpeg")
    photo = add_photo(job, job.run.get(key=key), upload, caption, shed.hand)
    type(photo).objects.filter(pk=photo.pk).update(taken_at=at)
    for number, (across, down, note) in enumerate(pins, 1):
        Pin.objects.create(photo=photo, number=number, x=across, y=down, note=note, by=shed.hand)
