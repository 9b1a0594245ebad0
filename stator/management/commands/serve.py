"""Serve the pages and listen to the gauges, in one process: `manage.py serve --listen 127.0.0.1:8000`."""

from __future__ import annotations

import sqlite3
import ssl
from pathlib import Path
from typing import Any

from django.conf import settings
from django.core.management.base import BaseCommand, CommandError, CommandParser
from django.db import DatabaseError
from django.utils import timezone

from stator.exchange import backup
from stator.instruments.gauge_hub import LISTENER
from stator.server import data_folder
from stator.server.daily_jobs import Daily, Renewed
from stator.server.gc_tuning import tune_garbage_collection
from stator.shop.data_format import EmptyDatabase, OldFolder, check_folder


class Command(BaseCommand):
    help = "Serve the pages with waitress, listen to every gauge that has a port, and write the daily backup."

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("--listen", default="127.0.0.1:8000", help="address and port of the pages")
        parser.add_argument("--threads", type=int, default=16)
        parser.add_argument("--tls", action="store_true", help="speak TLS with a certificate of the shop's own, made and renewed here")
        parser.add_argument("--behind-proxy", action="store_true", help="believe the scheme and address that a proxy on this machine says")

    def handle(self, *args: Any, **options: Any) -> None:
        from stator.server.limits import guarded
        from stator.wsgi import application

        self._check(Path(settings.DATA_DIR))
        tune_garbage_collection()
        own, tls = _certificate() if options["tls"] else (None, None)
        daily = Daily(own, tls)
        try:
            with data_folder.held(Path(settings.DATA_DIR), "a server"):
                server = guarded(application, options["listen"], threads=options["threads"], behind_proxy=options["behind_proxy"], tls=tls)
                LISTENER.start()
                daily.start()
                try:
                    server.run()
                finally:
                    daily.stop()
                    LISTENER.stop()
        except (data_folder.FolderInUse, OSError, DatabaseError) as error:
            raise CommandError(f"Stator does not start: {error}") from error

    def _check(self, folder: Path) -> None:
        database = folder / backup.DATABASE
        try:
            check_folder(database, folder / "photos", advice="Choose an empty folder in STATOR_DATA.")
        except (OldFolder, EmptyDatabase) as error:
            raise CommandError(str(error)) from error
        except sqlite3.DatabaseError as error:
            raise CommandError(
                f"Stator does not start: the database {database} cannot be read ({error})."
                " Restore a backup: manage.py restore FILE.zip --yes"
            ) from error


def _certificate() -> tuple[Renewed, ssl.SSLContext]:
    """The shop's own, up to date.

    What makes one is loaded here: a server that needs none keeps that memory.
    """
    from stator.server.tls import OwnCertificate

    own = OwnCertificate(settings.TLS_FOLDER, settings.ALLOWED_HOSTS)
    own.bring_up_to_date(timezone.now())
    return own, own.context()
