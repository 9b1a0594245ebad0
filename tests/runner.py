"""Django's runner, with the write-ahead log emptied before a worker copies the database, and a closing count."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager
from functools import wraps
from inspect import unwrap
from typing import Any
from unittest.mock import patch

from django.test.runner import DiscoverRunner, ParallelTestSuite

from stator.server.gc_tuning import tune_garbage_collection


class LongestFirst(ParallelTestSuite):
    """Classes that say what they `cost` begin first, so that no process waits for one of them at the end."""

    def __init__(self, subsuites: Any, *args: Any, **kwargs: Any) -> None:
        super().__init__(
            sorted(subsuites, key=lambda suite: -max((getattr(test, "cost", 0) for test in suite), default=0)), *args, **kwargs
        )


def prove_parts() -> None:
    """Through all tests: two parts that are made of the same say the same, so that a page may keep one for the other."""
    from stator.ui.templatetags.parts import Part, made_of, once_left_out

    render, said = Part.render, {}

    @wraps(render)
    def proved(part: Any, context: Any) -> Any:
        key = part.key.resolve(context) if part.key else None
        if key:
            html = once_left_out(part.nodelist.render(context))
            partial = bool(context.get("partial"))  # a partial answer leaves out, of some, what no page ever loses
            first = said.setdefault((part.opens, made_of(key), partial), html) if part.opens else html
            if html != first:
                raise AssertionError(f"Made of the same ({key}), but not the same:\n{first}\n\n{html}")
        return render(part, context)

    Part.render = proved  # type: ignore[method-assign]


@contextmanager
def unproved() -> Iterator[None]:
    """As a server answers, without the proofs: for what is counted."""
    from stator.ui.templatetags.parts import Part

    with patch.object(Part, "render", unwrap(Part.render)):
        yield


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
        prove_parts()
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
