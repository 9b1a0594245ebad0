"""Password rules: not made of the shop's own words, and not easy to guess."""

from __future__ import annotations

import re

from django.core.exceptions import ValidationError
from django.utils.translation import gettext as _

from stator.shop.models import Person, Shop

LEAST_LEFT = 6  # letters and figures that must be left when the shop's own words are taken out
LEAST_GUESSES = 9.0  # power of ten; as many tries as the limits on signing in allow in centuries
LONGEST = 72  # letters that are looked at
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


class GuessableValidator:
    """Refuse a password that is guessed quickly: common, a word with digits, a repeated word or a row of keys."""

    def validate(self, password: str, user: Person | None = None) -> None:
        from zxcvbn import zxcvbn  # loaded with the first password that is set: its word lists take memory

        if float(zxcvbn(password[:LONGEST])["guesses_log10"]) < LEAST_GUESSES:
            raise ValidationError(
                _("This password is easy to guess: it is a common word, perhaps with digits or repeated. Use several unrelated words."),
                code="guessable",
            )

    def get_help_text(self) -> str:
        return _("Several unrelated words, not one word with digits.")
