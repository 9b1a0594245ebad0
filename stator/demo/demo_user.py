"""Users of the demo, who answer, choose, tick and act through the same functions as a mechanic."""

from __future__ import annotations

import uuid
from collections.abc import Callable, Mapping
from datetime import datetime, timedelta
from typing import Any, ClassVar

from stator.engines.fact_keys import FactKey
from stator.engines.models import Seat
from stator.engines.parts import ENGINE
from stator.engines.properties import Property
from stator.jobs import log
from stator.jobs.models import Job, Reading, RunStation
from stator.shop.models import Person
from stator.stations.framework import BoundStation, bind
from stator.workbench.reading_commands import job_of, with_reading
from stator.workbench.registry import STATION_BY_KEY


class DemoUser:
    """Two people at the stations of a job, at a time of one's choosing."""

    skipper: Person
    hand: Person
    done: ClassVar[Mapping[str, Callable[..., None]]] = {}  # how a station is gone through when it is only passed

    def note(self, job: Job, key: str, text: str, at: datetime, sign: bool = True) -> None:
        stage = job.run.get(key=key)
        entry = log.open_entry(stage, None, self.hand)
        more: dict[str, Any] = {"at": at, "slot": FactKey(ENGINE, Property.NOTE)}
        log.save_reading(entry, self.hand, Property.NOTE, log.words(text), uuid.uuid4().hex, **more)
        work = bind(STATION_BY_KEY[key], job, stage, None, self.hand, at)
        if sign:
            work.sign()
        bind(STATION_BY_KEY[key], job, stage, None, self.hand, at).update_work_plan()

    def done_before(self, job: Job, key: str, now: datetime, **instead: Callable[..., None]) -> None:
        """Complete every station before one.

        `instead` are other ways for some stations, by station with underscores instead of hyphens.
        """
        done = {**self.done, **{station.replace("_", "-"): does for station, does in instead.items()}}
        stages = list(job.run.all())
        for index, stage in enumerate(stages[1 : [each.key for each in stages].index(key)]):
            at = now - timedelta(hours=30 - index)
            if stage.state == RunStation.State.SKIPPED:
                continue
            if stage.key in done:
                done[stage.key](self, job, at)
            else:
                self.note(job, stage.key, f"{STATION_BY_KEY[stage.key].name} done, nothing out of the way.", at)

    def answer(self, job: Job, key: str, seat: Seat | None, at: datetime, *answers: tuple[str, str]) -> BoundStation:
        """Open the station and answer its questions one after another; a dash skips one."""
        log.open_entry(job.run.get(key=key), seat, self.hand)
        work = self.at(job, key, seat, at)
        for question_key, text in answers:
            if text == "-":
                assert work.entry is not None
                log.set_method(work.entry, skipped=[*work.answers.skipped, question_key])
                work = self.at(job, key, seat, at)
            else:
                reading = self.read(work, question_key, text)
                work = self.at(job, key, seat, at) if work.has_follow_up else with_reading(work, reading)
        work.update_work_plan()
        return work

    def choose(self, work: BoundStation, **chosen: str) -> None:
        assert work.entry is not None
        log.set_method(work.entry, **chosen)

    def tick(self, work: BoundStation) -> None:
        for warning in work.checks():
            assert work.entry is not None
            log.tick_check(work.entry, self.hand, warning.key, True)

    def act(self, job: Job, key: str, seat: Seat | None, at: datetime, *acts: str) -> BoundStation:
        for act in acts:
            self.at(job, key, seat, at).act(act)
        work = self.at(job, key, seat, at)
        work.update_work_plan()
        return work

    def at(self, job: Job, key: str, seat: Seat | None, when: datetime) -> BoundStation:
        found = job_of(job.number)
        assert found is not None
        stage = next(each for each in found.run.all() if each.key == key)
        work: BoundStation = bind(STATION_BY_KEY[key], found, stage, seat, self.hand, when)
        return work

    def read(self, work: BoundStation, ask_key: str, text: str) -> Reading:
        """Save a reading as the reading bar would, at the time of the station."""
        question = next(each for each in work.current_questions if each.key == ask_key)
        quantity = work.parse_answer(question, text)
        gauge, extra = work.extra_for(question, quantity, {})
        assert work.entry is not None
        reading = log.save_reading(
            work.entry,
            self.hand,
            question.key,
            quantity,
            uuid.uuid4().hex,
            attempt=work.answers.attempt,
            gauge=gauge,
            extra=dict(extra),
            at=work.now,
            slot=question.slot,
        )
        if work.has_follow_up:
            bind(work.station, work.job, work.stage, work.seat, self.hand, work.now).after_save(reading)
        return reading
