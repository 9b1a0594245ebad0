"""Backup and restore: whole or not at all, also when the server dies in mid-write."""

from __future__ import annotations

import hashlib
import json
import shutil
import sqlite3
import subprocess
import sys
import tempfile
import textwrap
import zipfile
from contextlib import closing
from pathlib import Path

from django.test import SimpleTestCase

from stator.exchange import backup
from tests.folders import new_database

WRITER = """
    import sqlite3, sys
    at = sqlite3.connect(sys.argv[1], timeout=20)
    at.execute("PRAGMA journal_mode=WAL")
    at.execute("CREATE TABLE IF NOT EXISTS entry (id INTEGER PRIMARY KEY, readings INTEGER)")
    at.execute("CREATE TABLE IF NOT EXISTS reading (entry INTEGER)")
    number = 0
    while True:
        number += 1
        with at:
            at.execute("INSERT INTO entry VALUES (?, 5)", (number,))
            for _ in range(5):
                at.execute("INSERT INTO reading VALUES (?)", (number,))
        print(number, flush=True)
"""


class Backups(SimpleTestCase):
    def setUp(self):
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.root = Path(folder.name)
        self.database, self.photos, self.file = self.root / "stator.sqlite3", self.root / "photos", self.root / "b.zip"
        self.database.write_bytes(new_database())
        (self.photos / "0412").mkdir(parents=True)
        (self.photos / "0412" / "a.jpg").write_bytes(b"picture")
        self.fresh = self.root / "fresh"

    def unpacked(self):
        shutil.rmtree(self.fresh, ignore_errors=True)
        self.fresh.mkdir()
        return backup.unpack(self.file, self.fresh)

    def spoil(self, change, kind=zipfile.ZIP_STORED):
        """Change the backup and pack it again."""
        with zipfile.ZipFile(self.file) as found:
            files = {name: found.read(name) for name in found.namelist()}
        change(files)
        with zipfile.ZipFile(self.file, "w", kind) as out:
            for name, data in files.items():
                out.writestr(name, data)

    def refused(self):
        with self.assertRaises(backup.Damaged) as refusal:
            self.unpacked()
        return str(refusal.exception)

    def put(self, files, name, data):
        """Another file in it, with a manifest that agrees."""
        manifest = json.loads(files[backup.MANIFEST])
        manifest["sha256"][name] = hashlib.sha256(data).hexdigest()
        files.update({name: data, backup.MANIFEST: json.dumps(manifest).encode()})

    def test_what_was_backed_up_comes_back(self):
        self.assertEqual(backup.write(self.database, self.photos, self.file), 2)
        self.assertEqual(self.unpacked(), 2)
        self.assertEqual([path.name for path in (self.fresh / "photos" / "0412").iterdir()], ["a.jpg"])

    def test_a_damaged_or_strange_file_is_refused(self):
        self.file.write_bytes(b"no zip at all")
        self.assertIn("cannot be opened", self.refused())
        backup.write(self.database, self.photos, self.file)
        self.spoil(lambda files: files.update({"photos/0412/a.jpg": b"another"}))
        self.assertIn("not what was backed up", self.refused())

    def test_bytes_turned_over_are_refused_however_they_were_packed(self):
        for kind in (zipfile.ZIP_STORED, zipfile.ZIP_DEFLATED, zipfile.ZIP_BZIP2, zipfile.ZIP_LZMA):
            for member in (backup.MANIFEST, backup.DATABASE):
                with self.subTest(kind=kind, member=member):
                    backup.write(self.database, self.photos, self.file)
                    self.spoil(lambda files: None, kind)
                    with zipfile.ZipFile(self.file) as found:
                        info = found.getinfo(member)
                    data = bytearray(self.file.read_bytes())
                    body = info.header_offset + 30 + len(info.filename)
                    for at in range(body + 15, body + info.compress_size):  # past what says how it was packed
                        data[at] ^= 0xFF
                    self.file.write_bytes(data)
                    self.assertRegex(self.refused(), "no manifest in it|is damaged")

    def test_a_file_that_would_climb_out_is_refused(self):
        backup.write(self.database, self.photos, self.file)
        self.spoil(lambda files: self.put(files, "photos/../../evil", b"x"))
        self.assertIn("no place of a backup", self.refused())
        self.assertFalse((self.root.parent / "evil").exists())

    def test_a_database_that_is_damaged_or_another_s_is_refused(self):
        strange = self.root / "strange.sqlite3"
        with closing(sqlite3.connect(strange)) as made, made:
            made.execute("CREATE TABLE seen (word TEXT)")
        for data, words in ((strange.read_bytes(), "not Stator's"), (b"junk" * 999, "cannot be read")):
            backup.write(self.database, self.photos, self.file)
            self.spoil(lambda files, data=data: self.put(files, backup.DATABASE, data))
            self.assertIn(words, self.refused())

    def test_a_newer_version_and_a_file_too_many(self):
        backup.write(self.database, self.photos, self.file)
        self.spoil(lambda files: files.update({"extra.txt": b"x"}))
        self.assertIn("does not hold", self.refused())
        backup.write(self.database, self.photos, self.file)
        self.spoil(lambda files: files.update({backup.MANIFEST: files[backup.MANIFEST].replace(b'"version": 2', b'"version": 9')}))
        self.assertIn("version 9 of a backup. This Stator reads version 2.", self.refused())

    def test_a_backup_that_was_killed_leaves_nothing_for_long(self):
        (self.root / ".backup-killed").mkdir()
        backup.write(self.database, self.photos, self.file)
        self.assertEqual([path.name for path in self.root.glob(".backup-*")], [])

    def test_a_server_killed_in_mid_write_leaves_whole_entries_only(self):
        writer = subprocess.Popen([sys.executable, "-c", textwrap.dedent(WRITER), str(self.database)], stdout=subprocess.PIPE, text=True)
        try:
            assert writer.stdout is not None
            while int(writer.stdout.readline()) < 40:
                pass
            backup.write(self.database, self.photos, self.file)
        finally:
            writer.kill()
            writer.wait()
            writer.stdout.close()
        self.unpacked()
        for source in (self.database, self.fresh / backup.DATABASE):
            with closing(sqlite3.connect(source)) as found:
                entries = found.execute("SELECT count(*), coalesce(sum(readings), 0) FROM entry").fetchone()
                readings = found.execute("SELECT count(*) FROM reading").fetchone()[0]
            self.assertGreaterEqual(entries[0], 40)
            self.assertEqual(entries[1], readings)
