"""Make the owner's account at the prompt, once, and stock the shelves."""

from __future__ import annotations

import getpass
from typing import Any

from django.contrib.auth.password_validation import validate_password
from django.core.exceptions import ValidationError
from django.core.management.base import BaseCommand

from shop.defaults import stock_shelves
from shop.models import Person


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
        stock_shelves()
        self.stdout.write(f"{name} may sign in.")
