"""Print the readings of one connection without the web pages: `manage.py listen socket://127.0.0.1:5331 --kind length`."""

from __future__ import annotations

import time
from typing import Any

from django.core.exceptions import ValidationError
from django.core.management.base import BaseCommand, CommandError, CommandParser

from stator.instruments.gauge_reader import Reader
from stator.instruments.protocol import OWN_UNIT
from stator.shop.gauge_ports import check_port


class Command(BaseCommand):
    help = "Print what a gauge's line says and how Stator understands it; for setting one up."

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("port", help="/dev/ttyUSB0, COM3, socket://host:port")
        parser.add_argument("--kind", default="length", choices=list(OWN_UNIT))
        parser.add_argument("--baud", type=int, default=9600)
        parser.add_argument("--seconds", type=float, default=0.0, help="stop after so long; 0 goes on until interrupted")

    def handle(self, *args: Any, **options: Any) -> None:
        try:
            check_port(options["port"])
        except ValidationError as error:
            raise CommandError(error.messages[0]) from error
        reader = Reader("the gauge", options["port"], options["kind"], OWN_UNIT[options["kind"]], baud=options["baud"])
        reader.start()
        seen, words, until = 0, "", time.monotonic() + (options["seconds"] or 1e9)
        try:
            while time.monotonic() < until:
                for heard in reader.since(seen):
                    seen = heard.seq
                    self.stdout.write(f"{heard.line.text}  {heard.line.canonical:g}  {heard.line.label}".rstrip())
                if (now := reader.standing()).key != words:
                    words = now.key
                    self.stdout.write(f"({now.words})")
                time.sleep(0.1)
        except KeyboardInterrupt:
            pass
        finally:
            reader.stop()
