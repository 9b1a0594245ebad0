"""Tests of start, upgrade, backup and restore of a data folder: refusals change nothing."""

from __future__ import annotations

import sqlite3
import subprocess
import sys
import tempfile
from contextlib import closing
from pathlib import Path

from stator.exchange import backup
from tests.folders import ROOT, FolderCase

OLD = "This folder was made by Stator 0.x and cannot be upgraded. Run `bin/demo --fresh`."


def rows(path: Path) -> dict[str, int]:
    with closing(sqlite3.connect(path)) as found:
        tables = ("jobs_job", "jobs_entry", "jobs_reading", "jobs_timer", "engines_enginecard", "engines_seat", "shop_gauge", "shop_person")
        return {table: found.execute(f"SELECT count(*) FROM {table}").fetchone()[0] for table in tables}


def one_link(database: sqlite3.Connection) -> None:
    """Add a customer link to the job."""
    (person,), (job,) = (database.execute(f"SELECT id FROM {table}").fetchone() for table in ("shop_person", "jobs_job"))
    values = ("d" * 64, "2026-11-25", "2027-11-25", job, person)
    database.execute("INSERT INTO jobs_ownerlink (digest, made_at, expires_at, job_id, made_by_id) VALUES (?, ?, ?, ?, ?)", values)


class OldFolders(FolderCase):
    """Stator 0.x had no marker in its database."""

    def setUp(self):
        super().setUp()
        self.data.mkdir()
        with closing(sqlite3.connect(self.database)) as made, made:
            for table in ("django_migrations", "shop_person", "jobs_job", "engines_enginecard"):
                made.execute(f"CREATE TABLE {table} (id INTEGER PRIMARY KEY, app TEXT, name TEXT)")
            made.execute("INSERT INTO django_migrations (app, name) VALUES ('jobs', '0031_found_quickly')")
        (self.data / "secret").write_text("s" * 64)
        self.before = self.content()

    def content(self) -> dict[str, bytes]:
        return {str(path.relative_to(self.data)): path.read_bytes() for path in self.data.rglob("*") if path.is_file()}

    def test_every_command_recognizes_it_before_anything_is_written(self):
        serve = OLD.replace("Run `bin/demo --fresh`.", "Choose an empty folder in STATOR_DATA.")
        commands = {("upgrade",): OLD, ("load_demo",): OLD, ("restore", "b.zip", "--yes"): OLD, ("serve", "--listen", "127.0.0.1:0"): serve}
        for words, sentence in commands.items():
            with self.subTest(words[0]):
                done = self.manage(*words)
                self.assertEqual(done.returncode, 1)
                self.assertIn(sentence, done.stderr)
                self.assertNotIn("Traceback", done.stderr)
                self.assertEqual(self.content(), self.before)

    def test_it_is_not_backed_up_as_if_it_were_this_version(self):
        done = self.manage("backup", str(self.data.parent / "b.zip"))
        self.assertIn("made by Stator 0.x", done.stderr)


class Refused(FolderCase):
    def test_a_newer_database_is_refused(self):
        self.new_shop()
        with closing(sqlite3.connect(self.database)) as found, found:
            found.execute("INSERT INTO django_migrations (app, name, applied) VALUES ('jobs', '0999_of_tomorrow', '2027-01-01')")
        done = self.manage("upgrade")
        self.assertIn("written by a newer Stator (jobs.0999_of_tomorrow)", done.stderr)
        self.assertEqual(done.returncode, 1)

    def test_a_damaged_database_is_named_with_what_to_do(self):
        self.new_shop()
        whole = bytearray(self.database.read_bytes())
        whole[:4096] = b"\x00" * 4096
        self.database.write_bytes(bytes(whole))
        for words in (("upgrade",), ("serve", "--listen", "127.0.0.1:0")):
            with self.subTest(words[0]):
                done = self.manage(*words)
                self.assertIn("Restore a backup: manage.py restore FILE.zip --yes", done.stderr)
                self.assertNotIn("Traceback", done.stderr)

    def test_a_database_that_is_damaged_further_in_does_not_end_the_server_in_a_traceback(self):
        self.new_shop()
        whole = bytearray(self.database.read_bytes())
        for at in range(4096, len(whole) - 4096, 4096):
            whole[at : at + 64] = b"\xff" * 64
        self.database.write_bytes(bytes(whole))
        done = self.manage("serve", "--listen", "127.0.0.1:0")
        self.assertEqual(done.returncode, 1)
        self.assertIn("Stator does not start", done.stderr)
        self.assertNotIn("Traceback", done.stderr)

    def test_an_empty_secret_is_named_with_what_to_do(self):
        self.new_shop()
        (self.data / "secret").write_text("")
        done = self.manage("upgrade")
        self.assertIn("is empty or cut short. Delete it", done.stderr)

    def test_a_folder_that_cannot_be_written_to_is_named_with_what_to_do(self):
        self.new_shop()
        (self.data / "secret").write_text("s" * 64)
        (self.data / "lock").mkdir()  # writing fails for the superuser too, as on a read-only mount
        for words in (("upgrade",), ("serve", "--listen", "127.0.0.1:0"), ("restore", "b.zip", "--yes")):
            with self.subTest(words[0]):
                done = self.manage(*words)
                self.assertEqual(done.returncode, 1)
                self.assertIn(str(self.data), done.stderr)
                self.assertNotIn("Traceback", done.stderr)

    def test_an_empty_database_next_to_photos_is_no_new_shop(self):
        (self.data / "photos" / "0412").mkdir(parents=True)
        (self.data / "photos" / "0412" / "a.jpg").write_bytes(b"picture")
        commands = (("upgrade",), ("load_demo",), ("serve", "--listen", "127.0.0.1:0"))
        for content, tried in ((b"", commands[:1]), (None, commands)):
            with self.subTest(content=content):
                self.database.unlink(missing_ok=True)
                if content is not None:
                    self.database.write_bytes(content)
                for words in tried:
                    self.assertIn("but there are photos of jobs", self.manage(*words).stderr)
                self.assertIn("or it is empty", self.manage("backup", str(self.data.parent / "b.zip")).stderr)
                self.assertEqual(self.database.read_bytes() if self.database.exists() else None, content)

    def test_no_upgrade_without_a_backup_first(self):
        self.new_shop()
        with closing(sqlite3.connect(self.database)) as found, found:
            found.execute("DELETE FROM django_migrations WHERE app = 'practice'")
            found.executescript("DROP TABLE practice_attempt; DROP TABLE practice_learner; DROP TABLE practice_given")
        self.backups.write_text("a file where the folder should be")
        done = self.manage("upgrade")
        self.assertIn("Nothing was upgraded", done.stderr)
        with closing(sqlite3.connect(self.database)) as found:
            tables = {name for (name,) in found.execute("SELECT name FROM sqlite_master")}
        self.assertNotIn("practice_attempt", tables)
        self.backups.unlink()
        done = self.manage("upgrade")
        self.assertIn("Backed up as", done.stdout, done.stderr)


class Restore(FolderCase):
    cost = 12

    def setUp(self):
        super().setUp()
        self.file = self.data.parent / "b.zip"

    def test_a_wrong_folder_gives_no_empty_backup(self):
        done = self.manage("backup", str(self.file))
        self.assertIn("There is no database at", done.stderr)
        self.assertEqual((done.returncode, self.file.exists()), (1, False))

    def test_what_was_backed_up_comes_back_whole_with_links_ended(self):
        self.new_shop()
        (self.data / "photos" / "0412").mkdir(parents=True)
        (self.data / "photos" / "0412" / "a.jpg").write_bytes(b"picture")
        with closing(sqlite3.connect(self.database)) as found, found:
            one_link(found)
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
        self.new_shop()
        self.manage("backup", str(self.file))
        holder = "from stator.server.data_folder import held; from pathlib import Path; import sys\n"
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
        self.new_shop()
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
from stator.server import data_folder
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
                from stator.server.data_folder import clear_leftovers, finish_swap

                finish_swap(folder)
                clear_leftovers(folder)
                words = {(folder / name).read_text() for name in ("a", "b")}
                self.assertEqual(words, {"new"} if at >= 3 else {"old"})
                self.assertEqual([path.name for path in root.iterdir() if path.name.startswith(".")], [])
