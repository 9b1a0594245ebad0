"""Restore a backup while the server is stopped: `manage.py restore FILE.zip`."""

from __future__ import annotations

import shutil
import sqlite3
import tempfile
from argparse import ArgumentParser
from pathlib import Path
from typing import Any

from django.conf import settings
from django.core.management.base import BaseCommand, CommandError
from django.db import connections
from django.db.migrations.loader import MigrationLoader

from stator.exchange import backup
from stator.server import data_folder
from stator.shop.audit_log import audit
from stator.shop.data_format import EmptyDatabase, OldFolder, check_folder

CARRIED = ("secret", "demo-sign-in.txt", "signing-key")  # of the folder as it is, unless the backup has it; sessions end in any case


class Command(BaseCommand):
    help = "Put database and photos of a backup back. Stop the server first; the folder as it is now is kept aside."

    def add_arguments(self, parser: ArgumentParser) -> None:
        parser.add_argument("file", type=Path)
        parser.add_argument("--yes", action="store_true", help="replace what is there")

    def handle(self, *args: Any, **options: Any) -> None:
        folder = Path(settings.DATA_DIR)
        try:
            check_folder(folder / backup.DATABASE, folder / "photos")
        except OldFolder as error:
            raise CommandError(str(error)) from error
        except (EmptyDatabase, sqlite3.DatabaseError):
            pass  # a restore is the remedy
        if (folder / backup.DATABASE).exists() and not options["yes"]:
            raise CommandError(f"{folder} holds a shop already. Say --yes to put the backup in its place; the folder is kept aside.")
        connections.close_all()
        known = set(MigrationLoader(None, ignore_no_migrations=True).disk_migrations)
        try:
            with data_folder.held(folder, "a restore"):
                data_folder.clear_leftovers(folder)
                fresh = Path(tempfile.mkdtemp(dir=folder.parent, prefix=f".{folder.name}.restoring-"))
                try:
                    count = backup.unpack(options["file"], fresh, known)
                    ended = backup.end_links(fresh / backup.DATABASE)
                    for name in CARRIED:
                        if (folder / name).exists() and not (fresh / name).exists():
                            shutil.copy2(folder / name, fresh / name)
                    aside = data_folder.swap_in(folder, fresh)
                finally:
                    shutil.rmtree(fresh, ignore_errors=True)
        except data_folder.FolderInUse as error:
            raise CommandError(f"{error} Nothing was changed.") from error
        except (backup.Damaged, OSError) as error:
            raise CommandError(f"{error} Nothing was changed.") from error
        audit("the machine", f"restored {count} files from", options["file"])
        self.stdout.write(f"{count} files are back in {folder}.")
        self.stdout.write(
            f"Owners' links that were open in it have ended ({ended}), and everyone signs in again. Give new links where wanted."
        )
        if aside:
            self.stdout.write(f"The folder as it was is kept as {aside}; delete it when the shop is right again.")
        self.stdout.write("The next start brings the database up to date by itself.")
