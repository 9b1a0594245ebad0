"""The demo's apprentice: a month of practice, where there is none yet."""

from __future__ import annotations

from typing import Any

from django.core.management.base import BaseCommand
from django.db import transaction
from django.utils import timezone

from stator.practice.demo import month
from stator.practice.models import Attempt
from stator.shop.models import Person

APPRENTICE = "apprentice"


class Command(BaseCommand):
    help = __doc__

    def handle(self, *args: Any, **options: Any) -> None:
        person = Person.objects.filter(username=APPRENTICE).first()
        if person is None or Attempt.objects.filter(person=person).exists():
            return
        with transaction.atomic():
            self.stdout.write(f"The apprentice has practised {month(person, timezone.now())} times.")
