"""Django's test runner with an emptied write-ahead log before the database is copied, times per class, and a final count."""

from __future__ import annotations

import os
import tempfile
import time
from pathlib import Path
from typing import Any

from django.test.runner import DiscoverRunner, ParallelTestSuite, RemoteTestRunner

from stator.server.gc_tuning import tune_garbage_collection
from tests.folders import RUN_FOLDER

SHOWN = 15  # classes whose times are printed
TIMES = "times"  # the file in the folder of the run that the worker processes append to


class TimedRunner(RemoteTestRunner):
    """Run the tests of a class and record its wall time and CPU time, with that of the processes it started."""

    def run(self, test: Any) -> Any:
        name = next((f"{type(each).__module__}.{type(each).__qualname__}" for each in test), "")
        started, cpu = time.perf_counter(), sum(os.times()[:4])
        result = super().run(test)
        with (Path(os.environ[RUN_FOLDER]) / TIMES).open("a") as file:
            file.write(f"{sum(os.times()[:4]) - cpu:.1f} {time.perf_counter() - started:.1f} {name}\n")
        return result


def _print_times(file: Path) -> None:
    """Print the classes that took the most CPU time."""
    rows = [line.split() for line in file.read_text().splitlines()]
    print(f"{len(rows)} classes took {sum(float(cpu) for cpu, *_ in rows):.0f} s of CPU; the longest, CPU and wall time in s:")
    for cpu, wall, name in sorted(rows, key=lambda row: -float(row[0]))[:SHOWN]:
        print(f"{cpu:>7} {wall:>7}  {name}")


class LongestFirst(ParallelTestSuite):
    """A suite whose classes with the highest `cost` begin first, so that no process waits at the end."""

    runner_class = TimedRunner

    def __init__(self, subsuites: Any, *args: Any, **kwargs: Any) -> None:
        super().__init__(
            sorted(subsuites, key=lambda suite: -max((getattr(test, "cost", 0) for test in suite), default=0)), *args, **kwargs
        )


class Runner(DiscoverRunner):
    closing = ""
    parallel_test_suite = LongestFirst

    def setup_databases(self, **kwargs: Any) -> Any:
        from django.db import connections
        from django.db.models.signals import post_migrate

        def checkpoint(using: str, **more: Any) -> None:
            with connections[using].cursor() as cursor:
                cursor.execute("PRAGMA wal_checkpoint(TRUNCATE)")

        post_migrate.connect(checkpoint, weak=False, dispatch_uid="wal-checkpoint")
        try:
            return super().setup_databases(**kwargs)
        finally:
            post_migrate.disconnect(dispatch_uid="wal-checkpoint")

    def run_suite(self, suite: Any, **kwargs: Any) -> Any:
        tune_garbage_collection()  # as the server does
        with tempfile.TemporaryDirectory() as folder:
            os.environ[RUN_FOLDER] = folder
            result = super().run_suite(suite, **kwargs)
            if self.parallel > 1:
                _print_times(Path(folder) / TIMES)
        failed = len(result.failures) + len(result.errors) + len(result.unexpectedSuccesses)
        skipped = len(result.skipped)
        self.closing = f"{max(result.testsRun - failed - skipped, 0)} passed, {failed} failed" + (f", {skipped} skipped" if skipped else "")
        return result

    def run_tests(self, test_labels: list[str], **kwargs: Any) -> int:
        try:
            return int(super().run_tests(test_labels, **kwargs))
        finally:
            if self.closing:
                print(self.closing, flush=True)
