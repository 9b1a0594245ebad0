"""Load the demo: a made-up repair shed at a small harbor with engines at many stations."""

from __future__ import annotations

import secrets
from pathlib import Path
from typing import Any

from django.conf import settings
from django.core.management.base import BaseCommand, CommandError, CommandParser
from django.db import connection, transaction
from django.utils import timezone

from stator.demo.demo_shop import DemoShop
from stator.jobs.models import Job
from stator.shop.data_format import EmptyDatabase, OldFolder, check_folder

SIGN_IN_FILE = "demo-sign-in.txt"


class Command(BaseCommand):
    help = __doc__

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("--password", default="", help="Sign-in of the demo people; made up when not given.")

    def handle(self, *args: Any, **options: Any) -> None:
        try:
            check_folder(Path(connection.settings_dict["NAME"]), Path(settings.MEDIA_ROOT))
        except (OldFolder, EmptyDatabase) as error:
            raise CommandError(str(error)) from error
        if Job.objects.exists():
            self.stdout.write("The bench is not empty; the demo is left as it is.")
            return
        password = options["password"] or f"harbour-{secrets.token_hex(6)}"
        self.stdout.write("Laying out the demo shed (half a minute, once) ...")
        self.stdout.flush()
        with transaction.atomic():  # broken off, it is begun anew the next time
            DemoShop(password).fill(timezone.now())
        file = settings.DATA_DIR / SIGN_IN_FILE
        file.write_text(f"skipper {password}\n", encoding="utf-8")
        file.chmod(0o600)
