"""Put a backup back while the server is stopped: manage.py restore FILE.zip"""

from __future__ import annotations

from argparse import ArgumentParser
from pathlib import Path
from typing import Any

from django.conf import settings
from django.core.management import call_command
from django.core.management.base import BaseCommand, CommandError
from django.db import connections

from exchange import backup


class Command(BaseCommand):
    help = "Put database and photos of a backup back. Stop the server first; what is there now is replaced."

    def add_arguments(self, parser: ArgumentParser) -> None:
        parser.add_argument("file", type=Path)
        parser.add_argument("--yes", action="store_true", help="replace what is there")

    def handle(self, *args: Any, **options: Any) -> None:
        database = Path(str(settings.DATABASES["default"]["NAME"]))
        if database.exists() and not options["yes"]:
            raise CommandError(f"{database} is there already. Say --yes to replace it; back it up first.")
        connections.close_all()
        try:
            count = backup.read(options["file"], database, Path(settings.MEDIA_ROOT))
        except backup.Damaged as error:
            raise CommandError(f"{error} Nothing was changed.") from error
        call_command("migrate", verbosity=0)
        self.stdout.write(f"{count} files are back")
