"""Measurement of the response to a saved reading, for `bin/bench`, with real readings at the place that the page asks for."""

from __future__ import annotations

import re
import statistics
import time
import uuid

from django.test import Client

from stator.benchmarks.timing import spread
from stator.shop.models import Gauge, Person

PAGE, A_ROUND, BETWEEN_S = "/jobs/0424/true/", 12, 0.1


class Bench:
    """A user who trues the crank of 0424 and undoes each round before it is complete, so that a question is always open."""

    def __init__(self) -> None:
        self.client = Client()
        self.client.force_login(Person.objects.get(username="skipper"))
        self.client.cookies["paper"] = "wide"
        self.page = self.client.post(f"{PAGE}act/", {"action": "again"}, headers={"HX-Request": "true"}).content.decode()

    def send(self, text: str) -> float:
        """Milliseconds from a word or reading to the screen that shows it."""
        found = re.search(r'name="ask" value="([\w.-]+)"', self.page)
        assert found, "nothing is asked"
        begun = time.perf_counter()
        values = {"ask": found[1], "text": text, "client_key": uuid.uuid4().hex}
        answer = self.client.post(f"{PAGE}keep/", values, headers={"HX-Request": "true"})
        took = 1000 * (time.perf_counter() - begun)
        self.page = answer.content.decode()
        assert answer["X-Kept"] == "yes", f"{found[1]} was refused {text}"
        assert "<svg" in self.page
        return took

    def round(self, pause_s: float) -> list[float]:
        times = []
        for number in range(A_ROUND):
            times.append(self.send(f"0.0{20 + number % 9}"))
            time.sleep(max(0.0, pause_s - times[-1] / 1000))
        for _ in range(A_ROUND):
            self.send("undo")
        return times


def kept() -> None:
    bench = Bench()
    bench.round(0.0)  # to warm up
    for name, pause_s in (("a kept reading to its screen", 0.0), ("the same, ten a second", BETWEEN_S)):
        times = [took for _ in range(4) for took in bench.round(pause_s)]
        median, high = statistics.median(times), statistics.quantiles(times, n=20)[-1]
        print(f"{name:40} {median:7.2f} ms   95 % {high:6.2f}   (target 25)")
    dial = Gauge.objects.get(kind="dial")
    median, high = spread(lambda: bench.client.get(f"/gauges/{dial.pk}/", {"device": "bench"}))
    print(f"{'a gauge asked for its latest':40} {median:7.2f} ms   95 % {high:6.2f}")
