"""Every database that main has ever made comes up to date and shows all its pages; what is released is never edited."""

from __future__ import annotations

import gzip
import hashlib
import os
import sqlite3
import subprocess
import sys
import tempfile
from contextlib import closing
from pathlib import Path

from django.test import SimpleTestCase

from exchange import backup

HERE = Path(__file__).parent
ROOT = HERE.parent
RELEASED = sorted((HERE / "released").glob("schema-*.sqlite3.gz"), key=lambda path: int(path.name.split(".")[0].split("-")[1]))
OLDER = HERE / "released" / "schema-9.sqlite3.gz"  # one that an upgrade has much to do on
FROZEN = HERE / "released" / "migrations.sha256"
COMPILED = Path(tempfile.gettempdir()) / f"stator-test-{os.getuid()}"
WHOLE = bool(os.environ.get("STATOR_WHOLE"))  # every released schema, or the first and the newest one
TRIED = RELEASED if WHOLE else [RELEASED[0], RELEASED[-1]]
UP_TO_DATE = ("jobs_record", "jobs_derivedfact")


def rows(path: Path) -> dict[str, int]:
    with closing(sqlite3.connect(path)) as found:
        tables = ("jobs_job", "jobs_entry", "jobs_reading", "jobs_timer", "engines_enginecard", "engines_seat", "shop_gauge", "shop_person")
        return {table: found.execute(f"SELECT count(*) FROM {table}").fetchone()[0] for table in tables}


class Shop(SimpleTestCase):
    """A data folder of its own, and commands run on it as a shop runs them."""

    def setUp(self):
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.data = Path(folder.name) / "stator"
        self.backups = Path(folder.name) / "stator-backups"
        self.database = self.data / "stator.sqlite3"

    def lay(self, released: Path) -> None:
        self.data.mkdir()
        self.database.write_bytes(gzip.decompress(released.read_bytes()))

    def run_on_it(self, *words: str) -> subprocess.CompletedProcess:
        env = {**os.environ, "STATOR_DATA": str(self.data), "STATOR_PLAIN_HTTP": "1", "DJANGO_SETTINGS_MODULE": "stator.settings"}
        env.update(PYTHONDONTWRITEBYTECODE="", PYTHONPYCACHEPREFIX=str(COMPILED))  # each start compiles nothing anew
        env.pop("STATOR_BACKUPS", None)
        return subprocess.run([sys.executable, "-W", "ignore", *words], env=env, cwd=ROOT, capture_output=True, text=True, check=False)

    def manage(self, *words: str) -> subprocess.CompletedProcess:
        return self.run_on_it("manage.py", *words)


class Released(Shop):
    cost = 45  # seconds, about

    def test_every_released_schema_is_brought_up_to_date_and_all_its_pages_answer(self):
        self.assertGreaterEqual(len(RELEASED), 8)
        for released in TRIED:
            with self.subTest(released.name):
                self.setUp()
                self.lay(released)
                before = rows(self.database)
                done = self.manage("upgrade")
                self.assertEqual(done.returncode, 0, done.stderr)
                as_it_was = released == RELEASED[-1] and not done.stdout  # nothing has changed in the database since it was released
                self.assertTrue(as_it_was or "Backed up as" in done.stdout, done.stdout)
                self.assertEqual({name: count for name, count in rows(self.database).items() if count < before[name]}, {})
                backup.check_database(self.database)
                walked = self.run_on_it("-m", "tests.walk_released")
                self.assertEqual(walked.returncode, 0, walked.stdout + walked.stderr[-2000:])
                if as_it_was:
                    continue
                kept = next(self.backups.glob("*before-upgrade.zip"))
                fresh = self.data.parent / "unpacked"
                fresh.mkdir()
                backup.unpack(kept, fresh)
                self.assertEqual(rows(fresh / "stator.sqlite3"), before)


class TwoWays(Shop):
    cost = 10

    def test_a_reading_gets_one_address_whether_its_database_is_upgraded_or_its_file_is_read_in(self):
        for schema, files, fewest in (
            ("schema-10", "jobs-3", 500),
            ("schema-11", "jobs-3-late", 200),
            ("schema-12", "jobs-3-last", 200),
            ("schema-13", "jobs-4", 200),
            ("schema-14", "jobs-5", 200),
            ("schema-15", "jobs-6", 200),
            ("schema-16", "jobs-7", 200),
            ("schema-17", "jobs-8", 200),
            ("schema-18", "jobs-9", 200),
        )[0 if WHOLE else -1 :]:
            with self.subTest(schema):
                self.setUp()
                self.lay(HERE / "released" / f"{schema}.sqlite3.gz")
                self.assertEqual(self.manage("upgrade").returncode, 0)
                done = self.run_on_it("-m", "tests.two_ways", files)
                self.assertEqual(done.returncode, 0, done.stdout[-2000:] + done.stderr[-2000:])
                self.assertGreater(int(done.stdout.split()[0]), fewest)


class Frozen(Shop):
    def test_what_is_released_is_never_edited(self):
        said = dict(reversed(line.split()) for line in FROZEN.read_text().splitlines())
        for name, digest in said.items():
            with self.subTest(name):
                self.assertEqual(hashlib.sha256((ROOT / name).read_bytes()).hexdigest(), digest, "add a new migration instead")
        here = {
            str(path.relative_to(ROOT))
            for app in ("engines", "jobs", "shop", "practice")
            for path in (ROOT / app / "migrations").glob("0*.py")
        }
        self.assertLessEqual(set(said), here)


class RefusedStarts(Shop):
    def test_a_newer_database_is_refused(self):
        self.lay(OLDER)
        with closing(sqlite3.connect(self.database)) as found, found:
            found.execute("INSERT INTO django_migrations (app, name, applied) VALUES ('jobs', '0999_of_tomorrow', '2027-01-01')")
        done = self.manage("upgrade")
        self.assertIn("written by a newer Stator (jobs.0999_of_tomorrow)", done.stderr)
        self.assertEqual(done.returncode, 1)

    def test_a_damaged_database_is_named_with_what_to_do(self):
        self.lay(OLDER)
        whole = bytearray(self.database.read_bytes())
        whole[:4096] = b"\x00" * 4096
        self.database.write_bytes(bytes(whole))
        done = self.manage("upgrade")
        self.assertIn("Put a backup back", done.stderr)

    def test_an_empty_secret_is_named_with_what_to_do(self):
        self.lay(OLDER)
        (self.data / "secret").write_text("")
        done = self.manage("upgrade")
        self.assertIn("is empty or cut short. Delete it", done.stderr)

    def test_no_upgrade_without_a_backup_first(self):
        self.lay(OLDER)
        self.backups.write_text("a file where the folder should be")
        done = self.manage("upgrade")
        self.assertIn("Nothing was upgraded", done.stderr)
        with closing(sqlite3.connect(self.database)) as found:
            tables = {name for (name,) in found.execute("SELECT name FROM sqlite_master")}
        self.assertFalse(tables & set(UP_TO_DATE))


class PutBack(Shop):
    cost = 12

    def setUp(self):
        super().setUp()
        self.file = self.data.parent / "b.zip"

    def test_a_wrong_folder_gives_no_empty_backup(self):
        done = self.manage("backup", str(self.file))
        self.assertIn("There is no database at", done.stderr)
        self.assertEqual((done.returncode, self.file.exists()), (1, False))

    def test_what_was_backed_up_comes_back_whole_with_links_ended(self):
        self.lay(RELEASED[-1])
        self.manage("upgrade")
        (self.data / "photos" / "0412").mkdir(parents=True)
        (self.data / "photos" / "0412" / "a.jpg").write_bytes(b"picture")
        with closing(sqlite3.connect(self.database)) as found, found:
            made_by, job = found.execute("SELECT id FROM shop_person").fetchone()[0], found.execute("SELECT id FROM jobs_job").fetchone()[0]
            values = ("d" * 64, "2026-11-25", "2027-11-25", job, made_by)
            found.execute("INSERT INTO jobs_ownerlink (digest, made_at, expires_at, job_id, made_by_id) VALUES (?, ?, ?, ?, ?)", values)
        before = rows(self.database)
        self.assertIn("2 files in", self.manage("backup", str(self.file)).stdout)
        with closing(sqlite3.connect(self.database)) as found, found:
            found.execute("UPDATE shop_person SET first_name = 'changed'")
        (self.data / "photos" / "0412" / "b.jpg").write_bytes(b"later")
        self.assertIn("Say --yes", self.manage("restore", str(self.file)).stderr)
        done = self.manage("restore", str(self.file), "--yes")
        self.assertIn("2 files are back", done.stdout, done.stderr)
        self.assertIn("Owners' links that were open in it have ended (1)", done.stdout)
        self.assertEqual(rows(self.database), before)
        self.assertEqual([path.name for path in (self.data / "photos" / "0412").iterdir()], ["a.jpg"])
        with closing(sqlite3.connect(self.database)) as found:
            self.assertEqual(found.execute("SELECT count(*) FROM jobs_ownerlink WHERE revoked_at IS NULL").fetchone()[0], 0)
            self.assertEqual(found.execute("SELECT count(*) FROM shop_person WHERE first_name = 'changed'").fetchone()[0], 0)
        self.assertEqual(len(list(self.data.parent.glob("stator.before-*"))), 1)
        self.assertEqual(self.manage("upgrade").returncode, 0)

    def test_refused_while_a_server_runs(self):
        self.lay(OLDER)
        self.manage("backup", str(self.file))
        holder = "from stator.data_folder import held; from pathlib import Path; import sys\n"
        holder += "with held(Path(sys.argv[1]), 'a server'):\n  print('held', flush=True)\n  sys.stdin.read()"
        with subprocess.Popen(
            [sys.executable, "-c", holder, str(self.data)], cwd=ROOT, stdin=subprocess.PIPE, stdout=subprocess.PIPE, text=True
        ) as server:
            assert server.stdout is not None
            server.stdout.readline()
            done = self.manage("restore", str(self.file), "--yes")
            server.communicate("")
        self.assertIn("is in use by a server", done.stderr)
        self.assertIn("Nothing was changed", done.stderr)
        self.assertEqual(self.manage("restore", str(self.file), "--yes").returncode, 0)

    def test_another_program_s_database_is_not_taken(self):
        self.lay(OLDER)
        self.manage("backup", str(self.file))
        strange = self.data.parent / "strange.sqlite3"
        with closing(sqlite3.connect(strange)) as made, made:
            made.execute("CREATE TABLE seen (word TEXT)")
        with self.assertRaisesMessage(backup.Damaged, "not Stator's"):
            backup.write(strange, self.data / "photos", self.data.parent / "s.zip")
        self.assertFalse((self.data.parent / "s.zip").exists())

    def test_killed_at_any_step_the_old_or_the_new_folder_is_whole(self):
        """Each rename and each removal of the swap fails once, as if the process had been killed there."""
        script = """
import os, sys
from pathlib import Path
from stator import data_folder
folder, fresh, at = Path(sys.argv[1]), Path(sys.argv[2]), int(sys.argv[3])
step = 0
plain = Path.rename
def rename(self, to):
    global step
    step += 1
    if step == at:
        os._exit(9)
    return plain(self, to)
Path.rename = rename
data_folder.swap_in(folder, fresh)
"""
        for at in (1, 2, 3, 4):
            with self.subTest(at):
                root = Path(tempfile.mkdtemp(dir=self.data.parent))
                folder, fresh = root / "stator", root / ".stator.restoring-1"
                for made, word in ((folder, "old"), (fresh, "new")):
                    made.mkdir()
                    for name in ("a", "b"):
                        (made / name).write_text(word)
                subprocess.run([sys.executable, "-c", script, str(folder), str(fresh), str(at)], cwd=ROOT, check=False)
                from stator.data_folder import clear_leftovers, finish_swap

                finish_swap(folder)
                clear_leftovers(folder)
                words = {(folder / name).read_text() for name in ("a", "b")}
                self.assertEqual(words, {"new"} if at >= 3 else {"old"})
                self.assertEqual([path.name for path in root.iterdir() if path.name.startswith(".")], [])
