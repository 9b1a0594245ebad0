"""Data folders for tests, and commands run on them in a process of their own, as a shop runs them."""

from __future__ import annotations

import fcntl
import os
import subprocess
import sys
import tempfile
from functools import cache
from pathlib import Path

from django.test import SimpleTestCase

ROOT = Path(__file__).parent.parent
RUN_FOLDER = "TEST_RUN_FOLDER"  # the variable with the folder that the processes of a run share
COMPILED = Path(tempfile.gettempdir()) / f"stator-test-{os.getuid()}"


def run_on(data: Path, *words: str) -> subprocess.CompletedProcess:
    """Run Python on a data folder with the settings of the product."""
    env = {**os.environ, "STATOR_DATA": str(data), "STATOR_PLAIN_HTTP": "1", "DJANGO_SETTINGS_MODULE": "stator.settings"}
    env.update(PYTHONDONTWRITEBYTECODE="", PYTHONPYCACHEPREFIX=str(COMPILED))  # each start uses compiled files
    env.pop("STATOR_BACKUPS", None)
    return subprocess.run([sys.executable, "-W", "ignore", *words], env=env, cwd=ROOT, capture_output=True, text=True, check=False)


@cache
def new_database() -> bytes:
    """Return the database of a new shop with one person and one job, as one file."""
    with tempfile.TemporaryDirectory() as folder:
        data = Path(folder) / "stator"
        run_on(data, "manage.py", "upgrade")
        add = "import django; django.setup(); from django.db import connection; from tests.factories import job; job()"
        done = run_on(data, "-c", f"{add}; connection.cursor().execute('PRAGMA journal_mode=DELETE')")
        if done.returncode:
            raise AssertionError(done.stderr)
        return (data / "stator.sqlite3").read_bytes()


class FolderCase(SimpleTestCase):
    """A data folder of its own."""

    def setUp(self):
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.data = Path(folder.name) / "stator"
        self.backups = Path(folder.name) / "stator-backups"
        self.database = self.data / "stator.sqlite3"

    def new_shop(self) -> None:
        self.data.mkdir()
        self.database.write_bytes(new_database())

    def manage(self, *words: str) -> subprocess.CompletedProcess:
        return run_on(self.data, "manage.py", *words)


def demo_folder() -> Path:
    """Return a data folder with the demo, created once for all processes of a run.

    Tests copy what they change. Its signed entries are in the test language. Their estimates are in `estimates.json` next to it.
    """
    folder = Path(os.environ[RUN_FOLDER])
    data = folder / "demo" / "stator"
    with (folder / "demo.lock").open("w") as lock:
        fcntl.flock(lock, fcntl.LOCK_EX)
        if not data.exists():
            for words in (("manage.py", "upgrade"), ("-m", "tests.estimates", str(data.with_name("estimates.json")))):
                done = run_on(data, *words)
                if done.returncode:
                    raise AssertionError(done.stderr)
    return data
