"""Django's runner, with the write-ahead log emptied before a worker copies the database, and a closing count."""

from __future__ import annotations

from typing import Any

from django.test.runner import DiscoverRunner, ParallelTestSuite

from stator.server.gc_tuning import tune_garbage_collection


class LongestFirst(ParallelTestSuite):
    """Classes that say what they `cost` begin first, so that no process waits for one of them at the end."""

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
        result = super().run_suite(suite, **kwargs)
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
