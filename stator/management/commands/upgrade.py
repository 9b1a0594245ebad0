"""Upgrade the database: `manage.py upgrade`. It checks and backs up the database first, and refuses a newer one."""

from __future__ import annotations

import os
import sqlite3
from pathlib import Path
from typing import Any

from django.conf import settings
from django.core.management import call_command
from django.core.management.base import BaseCommand, CommandError
from django.db import DatabaseError, connection
from django.db.migrations.executor import MigrationExecutor
from django.utils import timezone

from stator.exchange import backup
from stator.server import data_folder
from stator.shop.data_format import EmptyDatabase, OldFolder, check_folder

GIVE_ACCESS = "Give this account write access to the folder, or choose another folder in STATOR_DATA."
RESTORE = "Restore a backup: manage.py restore FILE.zip --yes"


class Command(BaseCommand):
    help = "Check the data folder, back up, and bring the database up to date."

    def handle(self, *args: Any, **options: Any) -> None:
        folder = Path(settings.DATA_DIR)
        database = folder / backup.DATABASE
        self._check(folder, database)
        try:
            with data_folder.held(folder, "an upgrade"):
                data_folder.clear_leftovers(folder)
                self._upgrade(folder, database)
        except data_folder.FolderInUse as error:
            raise CommandError(str(error)) from error
        except OSError as error:
            raise CommandError(f"{folder} cannot be written to ({error}). {GIVE_ACCESS}") from error

    def _check(self, folder: Path, database: Path) -> None:
        try:
            check_folder(database, folder / "photos")
        except (OldFolder, EmptyDatabase) as error:
            raise CommandError(str(error)) from error
        except sqlite3.DatabaseError as error:
            raise CommandError(f"The database {database} cannot be read ({error}). {RESTORE}") from error

    def _upgrade(self, folder: Path, database: Path) -> None:
        if not os.access(folder, os.W_OK) or (database.exists() and not os.access(database, os.W_OK)):
            raise CommandError(f"{folder} cannot be written to. {GIVE_ACCESS}")
        try:
            executor = MigrationExecutor(connection)
            newer = backup.newer_than_known(executor.loader.applied_migrations, executor.loader.disk_migrations)
        except (DatabaseError, sqlite3.DatabaseError) as error:
            raise CommandError(f"The database {database} cannot be read ({error}). {RESTORE}") from error
        if newer:
            raise CommandError(f"The database was written by a newer Stator ({newer[0]}). Start that one, or put an older backup back.")
        plan = executor.migration_plan(executor.loader.graph.leaf_nodes())
        if plan and executor.loader.applied_migrations:
            try:
                saved = backup.write_daily(database, folder / "photos", Path(settings.BACKUPS), 0, timezone.now(), "before-upgrade")
            except (backup.Damaged, OSError) as error:
                raise CommandError(f"Nothing was upgraded, since no backup could be written first: {error}") from error
            self.stdout.write(f"Backed up as {saved.path} before {len(plan)} changes to the database.")
        call_command("migrate", interactive=False, verbosity=0)
