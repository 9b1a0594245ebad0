"""A password is not made of the shop's own words."""

from __future__ import annotations

import re

from django.core.exceptions import ValidationError
from django.utils.translation import gettext as _

from shop.models import Person, Shop

LEAST_LEFT = 6  # letters and figures that must be left when the shop's own words are taken out
_OWN = ("stator", "password", "workshop")


class ShopWordsValidator:
    """Refuse a password that is little more than the shop's name, someone's name, or the program's."""

    def validate(self, password: str, user: Person | None = None) -> None:
        words = set(_OWN) | set(_words(Shop.current().name))
        for person in Person.objects.filter(from_file=""):
            words |= set(_words(f"{person.username} {person.first_name} {person.last_name}"))
        if user is not None:
            words |= set(_words(f"{user.username} {user.first_name} {user.last_name}"))
        left = password.casefold()
        for word in sorted(words, key=len, reverse=True):
            left = left.replace(word, "")
        if left != password.casefold() and len(set(re.sub(r"\W", "", left))) < LEAST_LEFT:
            raise ValidationError(_("That is made of the shop's own words, which anyone here would try first."), code="shop_words")

    def get_help_text(self) -> str:
        return _("Not the shop's name or anyone's here.")


def _words(text: str) -> list[str]:
    return [word for word in re.split(r"\W+", text.casefold()) if len(word) >= 4]
