"""The demo: a made-up shed at a small harbour, five engines on its bench, one of them in the oven."""

from __future__ import annotations

import secrets
import uuid
from datetime import datetime, timedelta
from typing import Any

from django.conf import settings
from django.core.management.base import BaseCommand, CommandParser
from django.utils import timezone

from engines.models import EngineCard, Seat
from jobs import log
from jobs.models import Job, RunStation
from shop.defaults import stock_shelves
from shop.models import Gauge, Heater, Person, Puller, Shop
from shop.shelves import restock
from stations.base import Work
from stations.registry import BY_KEY, lay_run

SIGN_IN_FILE = "demo-sign-in.txt"


class Command(BaseCommand):
    help = __doc__

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("--password", default="", help="Sign-in of the demo people; made up when not given.")

    def handle(self, *args: Any, **options: Any) -> None:
        if Job.objects.exists():
            self.stdout.write("The bench is not empty; the demo is left as it is.")
            return
        password = options["password"] or f"harbour-{secrets.token_hex(4)}"
        Shed(password).fill(timezone.now())
        file = settings.DATA_DIR / SIGN_IN_FILE
        file.write_text(f"skipper {password}\n", encoding="utf-8")
        file.chmod(0o600)


class Shed:
    """Fills an empty shop through the same doors a mechanic uses."""

    def __init__(self, password: str) -> None:
        Shop.objects.update_or_create(pk=1, defaults={"name": "Slipway Shed"})
        stock_shelves()
        Heater.objects.filter(name="Workshop oven").update(name="Galley oven", cooks_food=True, fan=False)
        Gauge.objects.filter(name="Bore gauge").update(last_checked=datetime(2026, 9, 3).date())
        Puller.objects.create(name="Small puller", thread_mm=26.9, pitch_mm=1.0)
        Puller.objects.create(name="Old cycle puller", thread_mm=18.95, pitch_mm=25.4 / 26)
        restock()
        self.skipper = self._person("skipper", "Una", Person.Role.OWNER, password)
        self.hand = self._person("hand", "Bram", Person.Role.MECHANIC, password)

    @staticmethod
    def _person(name: str, called: str, role: str, password: str) -> Person:
        person = Person(username=name, first_name=called, role=role)
        person.set_password(password)
        person.save()
        return person

    def fill(self, now: datetime) -> None:
        corrie = self.card("Corrie 272", "trials single, two-stroke", [("Main, drive side", "6204 C3", "N7", {})])
        Seat.objects.create(
            card=corrie, name="Main, magneto side", half="right", designation="6205 C3", code="N7", stop="circlip", source="shop rule"
        )
        Seat.objects.create(
            card=corrie, name="Gearbox output", half="left", designation="6203-2RS", code="M7", stop="through", source="shop rule"
        )
        skerry = self.card("Skerry twin", "hovercraft, built-up crank", [("Centre main", "6206", "M7", {"stop": "plate"})], layout="twin")
        haugh = self.card(
            "Haugh tractor", "two-wheel, 297 cc single", [("Main, pulley side", "6206 C3", "N7", {})], case_material="gjl-250"
        )
        pump = self.card(
            "Bellows fire pump", "flat twin, aluminium cases", [("Main, pump end", "6305", "N7", {})], layout="flat_twin", painted=True
        )
        kart = self.card(
            "Plover 125", "kart, two-stroke single", [("Crank bearing, right", "6205 TN9 C4", "k5", {"on": "shaft", "half": "crank"})]
        )
        self.signed_heat(pump, now - timedelta(days=9), 409, "Weeps at the pump end, noisy when hot.")
        self.fire_pump(409, now)
        self.corrie(corrie, now)
        self.by_notes(
            self.job(415, skerry, "crank", "Shakes above half throttle since the refit.", now - timedelta(days=3)),
            ["inspect", "apart"],
            "true",
            now,
        )
        self.wrong_puller(self.job(418, haugh, "bottom-end", "Left standing two winters, turns over stiff.", now - timedelta(days=1)), now)
        self.shaft_plan(self.job(420, kart, "bearings", "Rattle from the right, play at the sprocket.", now - timedelta(days=2)), now)

    def card(self, name: str, summary: str, seats: list[tuple[str, str, str, dict[str, str]]], **more: Any) -> EngineCard:
        card = EngineCard.objects.create(
            name=name, summary=summary, taper_ratio=8, flywheel_source="drawing", case_material_assumed="case_material" not in more, **more
        )
        for seat, designation, code, extra in seats:
            Seat.objects.create(card=card, name=seat, designation=designation, code=code, source="drawing", **extra)
        return card

    def job(self, number: int, card: EngineCard, order: str, complaint: str, at: datetime) -> Job:
        job = Job.objects.create(
            number=number, card=card, work_order=order, complaint=complaint, booked_in_by=self.skipper, booked_in_at=at
        )
        lay_run(job)
        return job

    def note(self, job: Job, key: str, text: str, at: datetime, sign: bool = True) -> None:
        stage = job.run.get(key=key)
        entry = log.open_entry(stage, None, self.hand)
        log.keep_reading(
            entry, self.hand, "note", log.words(text), uuid.uuid4().hex, extra={"asked": "What was done, what was found?"}, at=at
        )
        work = BY_KEY[key].bind(job, stage, None, self.hand, at)
        if sign:
            work.sign()
        BY_KEY[key].bind(job, stage, None, self.hand, at).settle()

    def by_notes(self, job: Job, done: list[str], on: str, now: datetime) -> None:
        words = {
            "inspect": "Big end no play up and down, side play 0.42. Both outer mains pitted.",
            "apart": "Let go at 61 kN. Webs and pin marked, parts in order left to right.",
            "true": "Left outer web reads 0.05 high. Gauge set again before any blow.",
        }
        for index, key in enumerate(done):
            self.note(job, key, words[key], now - timedelta(hours=8 - index))
        self.note(job, on, words[on], now - timedelta(minutes=50), sign=False)

    def done_before(self, job: Job, key: str, now: datetime) -> None:
        stages = list(job.run.all())
        for index, stage in enumerate(stages[1 : [each.key for each in stages].index(key)]):
            at = now - timedelta(hours=30 - index)
            if stage.key == "flywheel-off":
                self.wheel_off(job, at)
            else:
                self.note(job, stage.key, f"{BY_KEY[stage.key].name} done, nothing out of the way.", at)

    def wheel(self, job: Job, at: datetime, puller: str, readings: list[tuple[str, str]]) -> None:
        """Readings at Flywheel off with one of the shed's pullers."""
        stage = job.run.get(key="flywheel-off")
        entry = log.open_entry(stage, None, self.hand)
        log.choose(entry, puller=str(Puller.objects.get(name=puller).pk))
        for key, text in readings:
            self.read(self.at(job, "flywheel-off", None, at), key, text)
        self.at(job, "flywheel-off", None, at).settle()

    def wrong_puller(self, job: Job, now: datetime) -> None:
        boss = [("boss_d", "18.05 mm"), ("boss_pitch", "1.0 mm"), ("boss_hand", "right"), ("turns", "2.5")]
        self.wheel(job, now - timedelta(minutes=50), "Old cycle puller", boss)

    def wheel_off(self, job: Job, at: datetime) -> None:
        boss = [
            ("boss_d", "25.98"),
            ("boss_pitch", "1.0"),
            ("boss_hand", "right"),
            ("turns", "6"),
            ("nut_torque", "55 Nm"),
            ("nut_d", "12"),
        ]
        self.wheel(job, at, "Small puller", [*boss, ("torque", "25"), ("torque", "38")])
        work = self.at(job, "flywheel-off", None, at)
        assert work.entry is not None
        for key in ("catcher", "hold"):
            log.tick(work.entry, self.hand, key, True)
        self.at(job, "flywheel-off", None, at).act("free")
        for key in ("taper", "key", "magnets"):
            self.read(self.at(job, "flywheel-off", None, at), key, "grey" if key == "taper" else "sound")
        work = self.at(job, "flywheel-off", None, at)
        work.sign()
        self.at(job, "flywheel-off", None, at).settle()

    def at(self, job: Job, key: str, seat: Seat | None, when: datetime) -> Work:
        stage = RunStation.objects.select_related("job__card").get(job=job, key=key)
        return BY_KEY[key].bind(stage.job, stage, seat, self.hand, when)

    def read(self, work: Work, ask_key: str, text: str) -> None:
        """Keep a reading as the strip would, at the work's own time."""
        ask = next(each for each in work.asks() if each.key == ask_key)
        quantity = work.read(ask, text)
        gauge, extra = work.extra_for(ask, quantity, {})
        assert work.entry is not None
        reading = log.keep_reading(
            work.entry,
            self.hand,
            ask.key,
            quantity,
            uuid.uuid4().hex,
            heat=work.heat,
            gauge=gauge,
            extra={**extra, "asked": ask.words},
            at=work.now,
        )
        fresh = work.station.bind(work.job, work.stage, work.seat, self.hand, work.now)
        fresh.after_keep(reading)

    def begin(self, job: Job, seat: Seat, when: datetime, ticks: tuple[str, ...], **choices: Any) -> Work:
        stage = job.run.get(key="heat-and-drop")
        entry = log.open_entry(stage, seat, self.hand)
        for key in ticks:
            log.tick(entry, self.hand, key, True)
        if choices:
            log.choose(entry, **choices)
        return self.at(job, "heat-and-drop", seat, when)

    def start(self, work: Work, key: str, when: datetime, label: str, tone: str, lasts_s: float) -> None:
        assert work.entry is not None
        log.start_timer(work.entry, self.hand, key, label, tone, lasts_s, heat=work.heat, at=when)

    def signed_heat(self, card: EngineCard, day: datetime, number: int, complaint: str) -> None:
        """A heat done last week on the same oven, so that the next plan has something to look back on."""
        job = self.job(number, card, "bearings", complaint, day - timedelta(days=1))
        self.done_before(job, "heat-and-drop", day)
        self.whole_heat(job, card.seats.get(), day, 1.13)
        older = self.job(406, card, "heat", "The same pump, the spring before.", day - timedelta(days=170))
        self.whole_heat(older, card.seats.get(), day - timedelta(days=168), 1.09)
        Job.objects.filter(pk=older.pk).update(gone_at=day - timedelta(days=167))

    def whole_heat(self, job: Job, seat: Seat, day: datetime, slower: float) -> None:
        probe = Gauge.objects.get(kind=Gauge.Kind.CONTACT)
        work = self.begin(job, seat, day, ("dry", "food", "tools"), means=f"{probe.pk}:contact")
        self.read(work, "room", "17")
        work = self.at(job, "heat-and-drop", seat, day)
        plan = work.plan  # type: ignore[attr-defined]
        self.start(work, "chill", day, "bearing is cold", "cold", plan.chill.likely)
        self.start(work, "heat", day + timedelta(minutes=20), "case comes out", "heat", plan.soak.likely)
        tau = plan.setup.heating.time_constant.likely * slower
        source = plan.setup.heating.surroundings_c
        for minutes in (6, 14):
            shown = source + (17 - source) * 2.718281828 ** (-60 * minutes / tau)
            self.read(self.at(job, "heat-and-drop", seat, day + timedelta(minutes=20 + minutes)), "case", f"{shown:.1f}")
        out = day + timedelta(minutes=40)
        self.at(job, "heat-and-drop", seat, out).act("open")
        self.read(self.at(job, "heat-and-drop", seat, out + timedelta(seconds=38)), "outcome", "dropped")
        later = out + timedelta(minutes=50)
        for ask in [each.key for each in self.at(job, "heat-and-drop", seat, later).asks() if each.key.startswith(("gap", "cold"))]:
            self.read(self.at(job, "heat-and-drop", seat, later), ask, "0")
        work = self.at(job, "heat-and-drop", seat, later)
        work.sign()
        self.at(job, "heat-and-drop", seat, later).settle()

    def fire_pump(self, number: int, now: datetime) -> None:
        job = Job.objects.get(number=number)
        self.note(job, "seals", "Both in, lips to the case, flush all round.", now - timedelta(days=8))
        job.run.filter(key="end-float").update(state="waits", waits_for="the shim kit, promised Thursday")

    def corrie(self, card: EngineCard, now: datetime) -> None:
        job = self.job(412, card, "bottom-end", "Rumbles on the overrun, oil past the drive-side seal.", now - timedelta(days=4))
        self.done_before(job, "heat-and-drop", now)
        gun = Gauge.objects.get(kind=Gauge.Kind.INFRARED)
        seat = card.seats.order_by("pk")[0]
        chilled = now - timedelta(minutes=47)
        work = self.begin(job, seat, chilled, ("dry", "food", "tools", "bagged"), means=f"{gun.pk}:paint")
        self.read(work, "room", "18")
        plan = self.at(job, "heat-and-drop", seat, chilled).plan  # type: ignore[attr-defined]
        heated = now - timedelta(minutes=8)
        self.start(work, "chill", chilled, "bearing is cold", "cold", plan.chill.likely)
        self.start(work, "heat", heated, "case comes out", "heat", plan.soak.likely)
        self.read(self.at(job, "heat-and-drop", seat, now - timedelta(minutes=4)), "case", "51")
        self.at(job, "heat-and-drop", seat, now).settle()

    def shaft_plan(self, job: Job, now: datetime) -> None:
        self.done_before(job, "heat-and-drop", now)
        seat = job.card.seats.get()
        work = self.begin(job, seat, now - timedelta(minutes=5), ())
        self.read(work, "room", "18")
        self.at(job, "heat-and-drop", seat, now).settle()
