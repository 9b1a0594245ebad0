"""Create the owner's account at the prompt, and add the initial equipment."""

from __future__ import annotations

import getpass
import os
from pathlib import Path
from typing import Any
from zoneinfo import available_timezones

from django.conf import settings
from django.contrib.auth.password_validation import validate_password
from django.core.exceptions import ValidationError
from django.core.management.base import BaseCommand

from stator.shop.defaults import stock_shelves
from stator.shop.models import Person, Shop
from stator.ui.units import Units

UNITS = {"m": Units.METRIC, "i": Units.INCH}
WEEKS = {"mon": 1, "sat": 6, "sun": 0}


def zone_here() -> str:
    """Return the time zone of this computer, or that of the settings if it is unknown."""
    named = os.environ.get("TZ", "").lstrip(":")
    if not named:
        found = Path("/etc/localtime").resolve().as_posix().partition("zoneinfo/")[2]
        named = found.removeprefix("posix/").removeprefix("right/")
    return named if named in available_timezones() else settings.TIME_ZONE


class Command(BaseCommand):
    help = __doc__

    def handle(self, *args: Any, **options: Any) -> None:
        if Person.objects.exists():
            return
        self.stdout.write("The first account is the owner's.")
        name = input("Sign-in name: ").strip()
        while not name:
            name = input("A name, please: ").strip()
        person = Person(username=name, role=Person.Role.OWNER)
        while True:
            password = getpass.getpass("Password, ten letters or more: ")
            try:
                validate_password(password, person)
            except ValidationError as error:
                self.stdout.write(" ".join(error.messages))
                continue
            if getpass.getpass("Once more: ") == password:
                break
            self.stdout.write("The two were not the same.")
        person.set_password(password)
        person.save()
        self._settings()
        stock_shelves()
        self.stdout.write(f"{name} may sign in.")

    def _settings(self) -> None:
        """Set the location of the shop and its units; Enter accepts the value in brackets."""
        shop, zones = Shop.current(), available_timezones()
        usual = zone_here()
        zone = input(f"Time zone of the shop [{usual}]: ").strip() or usual
        while zone not in zones:
            zone = input(f"{zone} is no time zone; one is called such as Europe/Oslo [{usual}]: ").strip() or usual
        units = input("Units, m for metric or i for inch [m]: ").strip().lower()[:1] or "m"
        while units not in UNITS:
            units = input("m for mm, °C and N·m, or i for inches, °F and ft-lb [m]: ").strip().lower()[:1] or "m"
        week = input("The week begins on mon, sat or sun [mon]: ").strip().lower()[:3] or "mon"
        while week not in WEEKS:
            week = input("mon, sat or sun [mon]: ").strip().lower()[:3] or "mon"
        shop.time_zone, shop.units, shop.first_weekday = zone, UNITS[units], WEEKS[week]
        shop.save()
