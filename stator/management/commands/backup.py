"""Write a backup while the server runs: manage.py backup FILE.zip"""

from __future__ import annotations

from argparse import ArgumentParser
from pathlib import Path
from typing import Any

from django.conf import settings
from django.core.management.base import BaseCommand, CommandError

from stator.exchange import backup


class Command(BaseCommand):
    help = "Back up database and photos into one checksummed ZIP, also while the server runs."

    def add_arguments(self, parser: ArgumentParser) -> None:
        parser.add_argument("file", type=Path)

    def handle(self, *args: Any, **options: Any) -> None:
        def progress(done: int, of: int) -> None:
            if done % 100 == 0 or done == of:
                self.stderr.write(f"{done} of {of} pictures")

        folder = Path(settings.DATA_DIR)
        try:
            count = backup.write(folder / backup.DATABASE, folder / "photos", options["file"], progress)
        except (backup.Damaged, OSError) as error:
            raise CommandError(f"No backup was written. {error}") from error
        self.stdout.write(f"{count} files in {options['file']}")
