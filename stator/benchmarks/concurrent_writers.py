"""Eight people who keep readings at once, against a server that runs: a part of `bin/bench`."""

from __future__ import annotations

import re
import time
import urllib.parse
import urllib.request
import uuid
from concurrent.futures import ThreadPoolExecutor

WRITERS, EACH_WRITES, OF_JOBS = 8, 40, ("0412", "0421", "0423", "0427")


def measure(base: str, cookie: str) -> None:
    """Each waits for its answer, then sends the next."""
    token = re.search(r"csrftoken=([^;]+)", cookie)
    took: list[float] = []

    def write(number: int) -> None:
        tag = OF_JOBS[number % len(OF_JOBS)]
        for count in range(EACH_WRITES):
            values = {"ask": "note", "text": f"writer {number}, {count}", "client_key": uuid.uuid4().hex}
            headers = {"Cookie": cookie, "X-CSRFToken": token[1] if token else "", "HX-Request": "true"}
            request = urllib.request.Request(f"{base}/jobs/{tag}/hand-over/keep/", urllib.parse.urlencode(values).encode(), headers)
            start = time.perf_counter()
            with urllib.request.urlopen(request, timeout=30) as answer:
                if answer.headers["X-Kept"] != "yes":
                    raise SystemExit("a reading of the bench was not kept")
                answer.read()
            took.append((time.perf_counter() - start) * 1000)

    with ThreadPoolExecutor(WRITERS) as people:
        list(people.map(write, range(WRITERS)))
    took.sort()
    times = f"{took[len(took) // 2]:7.0f} ms   95 % {took[int(0.95 * len(took))]:.0f} ms (target 250)"
    print(f"{f'{WRITERS} writers on {len(OF_JOBS)} jobs':40} {times}")
