"""The demo shop: a made-up repair shed at a small harbor with its people, equipment and engines."""

from __future__ import annotations

from collections.abc import Callable
from datetime import date, datetime, timedelta
from typing import Any

from stator.demo import cards, cold_installation, crank, disassembly, flywheel, heating, three_part_case, truing
from stator.demo.demo_user import DemoUser
from stator.engines.card_copy import copied, save_as_template
from stator.engines.models import EngineCard, Seat
from stator.jobs import log
from stator.jobs.models import Job
from stator.shop.defaults import stock_shelves
from stator.shop.models import Blades, Compound, Driver, Extractor, Gauge, Heater, Person, Press, Puller, PullIn, Shop, Splitter
from stator.stations.framework import BoundStation
from stator.workbench.registry import create_work_plan

DONE: dict[str, Callable[..., None]] = {
    **disassembly.DONE,
    "inspect": crank.inspected,
    "apart": crank.parted,
    "together": crank.together,
    "true": truing.trued,
    "end-float": crank.floated,
    "crank-in": crank.pulled_in,
    "close": crank.closed,
    "seals": crank.sealed,
}


class DemoShop(DemoUser):
    """Fills an empty shop through the same doors a mechanic uses."""

    done = DONE

    def __init__(self, password: str) -> None:
        Shop.objects.update_or_create(pk=1, defaults={"name": "Slipway Shed"})
        stock_shelves()
        Heater.objects.filter(name="Workshop oven").update(name="Galley oven", cooks_food=True, fan=False)
        heard = (("Dial gauge", 5331), ("Infrared gun", 5332), ("Load cell", 5333))
        for name, port in heard:
            Gauge.objects.filter(name=name).update(port=f"socket://127.0.0.1:{port}")
        Gauge.objects.filter(name="Dial gauge").update(resolution=0.002, repeatability=0.001, last_checked=date(2026, 10, 12))
        Gauge.objects.filter(name__in=("Bore gauge", "Micrometer")).update(last_checked=date(2026, 9, 3))
        Gauge.objects.create(name="Balance stand", kind="stand", resolution=1, port="socket://127.0.0.1:5334", on_button=True)
        Puller.objects.create(name="Small puller", thread_mm=26.9, pitch_mm=1.0)
        Puller.objects.create(name="Old cycle puller", thread_mm=18.95, pitch_mm=25.4 / 26)
        Splitter.objects.create(name="Case splitter", thread_mm=6.0, pitch_mm=1.0, screws=2, push_pitch_mm=1.5)
        for name, kind, outside, inside in (
            ("44 tube", "tube", 44.0, 36.0),
            ("50 tube", "tube", 50.0, 41.0),
            ("32 mm socket", "socket", 43.5, 33.6),
            ("Old 6203 ring", "ring", 39.6, 33.0),
            ("Brass drift 38", "tube", 38.0, 0.0),
        ):
            Driver.objects.create(name=name, kind=kind, outside_mm=outside, inside_mm=inside)
        Extractor.objects.create(name="Collet set", kind="collet", low_mm=8, high_mm=32)
        Extractor.objects.create(name="Knife-edge puller", kind="puller", low_mm=15, high_mm=70)
        PullIn.objects.create(name="Crank puller", thread_mm=12.0, thread_pitch_mm=1.25, pitch_mm=1.5)
        Press.objects.create(name="Bottle press", capacity_text="12 t", capacity_n=117679.8)
        Blades.objects.create(name="Crank shims", kind="shim", sizes_mm=[0.05, 0.1, 0.15, 0.2, 0.3])
        Blades.objects.create(name="Long feelers", kind="feeler", sizes_mm=[0.03, 0.04, 0.05, 0.06, 0.08, 0.1, 0.15, 0.2, 0.3, 0.5])
        Compound.objects.create(name="Green retaining", kind="retaining", cure_s=86400, gap_mm=0.1, good_until=date(2027, 5, 1))
        Compound.objects.create(name="Case sealant", kind="solvent", open_s=600, cure_s=43200)
        self.skipper = self._person("skipper", "Una", Person.Role.OWNER, password)
        self.hand = self._person("hand", "Bram", Person.Role.MECHANIC, password)
        self._person("apprentice", "Wren", Person.Role.MECHANIC, password)

    @staticmethod
    def _person(name: str, called: str, role: str, password: str) -> Person:
        person = Person(username=name, first_name=called, role=role)
        person.set_password(password)
        person.save()
        return person

    def fill(self, now: datetime) -> None:
        with Shop.current().for_this_page():
            self._fill(now)

    def _fill(self, now: datetime) -> None:
        corrie, skerry, haugh, pump, kart = cards.corrie(), cards.skerry(), cards.haugh(), cards.pump(), cards.plover()
        self.signed_heat(pump, now - timedelta(days=9), 409, "Weeps at the pump end, noisy when hot.")
        self.fire_pump(409, now)
        self.corrie(corrie, now)
        truing.twin_half_trued(
            self, self.job(415, skerry, "crank", "Shakes above half throttle since the refit.", now - timedelta(days=3)), now
        )
        self.wrong_puller(self.job(418, haugh, "bottom-end", "Left standing two winters, turns over stiff.", now - timedelta(days=1)), now)
        self.shaft_plan(self.job(420, kart, "bearings", "Rattle from the right, play at the sprocket.", now - timedelta(days=2)), now)
        merle = cards.merle()
        at_seats = self.job(421, merle, "bearings", "Clutch side weeps, whines in top.", now - timedelta(days=2))
        disassembly.at_the_seats(self, at_seats, now)
        disassembly.in_the_tray(
            self, self.job(422, merle, "bottom-end", "Dropped on the slip, selects only two.", now - timedelta(days=1)), now
        )
        disassembly.parting(self, self.job(423, corrie, "bottom-end", "Seized once, freed, will not idle.", now - timedelta(hours=9)), now)
        truing.half_trued(self, self.job(424, merle, "crank", "Vibrates since the rebuild elsewhere.", now - timedelta(days=1)), now)
        crank.under_the_gauge(self, self.job(425, corrie, "bottom-end", "Whines, then knocks when hot.", now - timedelta(hours=7)), now)
        crank.on_the_press(self, self.job(426, kart, "crank", "Blue big end, rod still straight.", now - timedelta(hours=5)), now)
        crank.off_the_middle(self, self.job(427, merle, "bottom-end", "New crank, first start tomorrow.", now - timedelta(days=6)), now)
        curlew = cards.curlew()
        bare = self.job(428, curlew, "bottom-end", "All bearings on the bench, cases bare.", now - timedelta(days=4))
        heating.whole_half(self, bare, now)
        turned = self.job(429, kart, "flywheel", "Buzzes in the hands over 7000.", now - timedelta(days=1))
        flywheel.on_the_stand(self, turned, now)
        pressed_in = self.job(431, cards.cover(), "cold", "Kick start slips, its cover sings.", now - timedelta(hours=4))
        cold_installation.cover(self, pressed_in, now)
        three = self.job(432, cards.eider(), "bottom-end", "Howls at lift-off, oil at both joints.", now - timedelta(days=5))
        three_part_case.twin(self, three, now)
        for card in (corrie, merle, pump, curlew):
            save_as_template(card)

    def job(self, number: int, card: EngineCard, order: str, complaint: str, at: datetime) -> Job:
        card = copied(card) if card.jobs.exists() else card  # each job has its own copy
        job = Job.objects.create(
            number=number, card=card, work_order=order, complaint=complaint, booked_in_by=self.skipper, booked_in_at=at
        )
        create_work_plan(job)
        return job

    def wrong_puller(self, job: Job, now: datetime) -> None:
        disassembly.wheel(self, job, now - timedelta(minutes=50), "Old cycle puller", "18.05 mm", "2.5")

    def begin(self, job: Job, seat: Seat, when: datetime, ticks: tuple[str, ...], **choices: Any) -> BoundStation:
        stage = job.run.get(key="heat-and-drop")
        entry = log.open_entry(stage, seat, self.hand)
        for key in ticks:
            log.tick_check(entry, self.hand, key, True)
        if choices:
            log.set_method(entry, **choices)
        return self.at(job, "heat-and-drop", seat, when)

    def start(self, work: BoundStation, key: str, when: datetime, tone: str, lasts_s: float, **values: Any) -> None:
        assert work.entry is not None
        log.start_timer(
            work.entry,
            self.hand,
            key,
            {"code": key, "values": values, "whole": False},
            tone,
            lasts_s,
            attempt=work.answers.attempt,
            at=when,
        )

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
        self.read(work, "air-temperature", "17")
        work = self.at(job, "heat-and-drop", seat, day)
        plan = work.analysis.plan
        self.start(work, "chill", day, "cold", plan.chill.likely, partner="bearing")
        self.start(work, "heat", day + timedelta(minutes=20), "heat", plan.soak.likely, outer="case")
        tau = plan.setup.heating.time_constant.likely * slower
        source = plan.setup.heating.surroundings_c
        for minutes in (6, 14):
            shown = source + (17 - source) * 2.718281828 ** (-60 * minutes / tau)
            self.read(
                self.at(job, "heat-and-drop", seat, day + timedelta(minutes=20 + minutes)), f"hot-temperature.{seat.uid}", f"{shown:.1f}"
            )
        out = day + timedelta(minutes=40)
        self.at(job, "heat-and-drop", seat, out).act("open")
        self.read(self.at(job, "heat-and-drop", seat, out + timedelta(seconds=38)), f"fit-outcome.{seat.uid}", "dropped")
        later = out + timedelta(minutes=50)
        for key in [each.key for each in self.at(job, "heat-and-drop", seat, later).questions() if each.key.startswith("seating-gap")]:
            self.read(self.at(job, "heat-and-drop", seat, later), key, "0")
        work = self.at(job, "heat-and-drop", seat, later)
        work.sign()
        self.at(job, "heat-and-drop", seat, later).update_work_plan()

    def fire_pump(self, number: int, now: datetime) -> None:
        job = Job.objects.get(number=number)
        crank.sealed(self, job, now - timedelta(days=8))
        job.run.filter(key="end-float").update(state="waits", waits_for="the shim kit, promised Thursday")

    def corrie(self, card: EngineCard, now: datetime) -> None:
        job = self.job(412, card, "bottom-end", "Rumbles on the overrun, oil past the drive-side seal.", now - timedelta(days=4))
        self.done_before(job, "heat-and-drop", now)
        gun = Gauge.objects.get(kind=Gauge.Kind.INFRARED)
        seat = card.seats.order_by("pk")[0]
        chilled = now - timedelta(minutes=47)
        work = self.begin(job, seat, chilled, ("dry", "food", "tools", "bagged"), means=f"{gun.pk}:paint")
        self.read(work, "air-temperature", "18")
        plan = self.at(job, "heat-and-drop", seat, chilled).analysis.plan
        heated = now - timedelta(minutes=8)
        self.start(work, "chill", chilled, "cold", plan.chill.likely, partner="bearing")
        self.start(work, "heat", heated, "heat", plan.soak.likely, outer="case")
        self.read(self.at(job, "heat-and-drop", seat, now - timedelta(minutes=4)), f"hot-temperature.{seat.uid}", "51")
        self.at(job, "heat-and-drop", seat, now).update_work_plan()

    def shaft_plan(self, job: Job, now: datetime) -> None:
        self.done_before(job, "heat-and-drop", now)
        seat = job.card.seats.get()
        work = self.begin(job, seat, now - timedelta(minutes=5), ())
        self.read(work, "air-temperature", "18")
        self.at(job, "heat-and-drop", seat, now).update_work_plan()
