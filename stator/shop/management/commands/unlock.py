"""Unlock signing in after wrong passwords, for everyone or one name: `manage.py unlock [name]`."""

from __future__ import annotations

from argparse import ArgumentParser
from typing import Any

from axes.utils import reset
from django.core.management.base import BaseCommand


class Command(BaseCommand):
    help = "Forget the wrong tries at the sign-in page, of everyone or of one name."

    def add_arguments(self, parser: ArgumentParser) -> None:
        parser.add_argument("name", nargs="?", default="")

    def handle(self, *args: Any, **options: Any) -> None:
        name = options["name"]
        count = reset(username=name) if name else reset()
        self.stdout.write(f"{count} locks and counts forgotten{f' for {name}' if name else ''}.")
