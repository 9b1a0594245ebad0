"""Text that every page, file name and PDF can show."""

from __future__ import annotations

import unicodedata
from typing import Any

from django import forms
from django.core.exceptions import ValidationError
from django.utils.translation import gettext as _

ALLOWED = "\t\n\r"


def strange_in(text: str) -> str:
    """The first character that cannot be shown, by its number; empty when there is none.

    >>> strange_in("Main, drive side"), strange_in("bell \\x07")
    ('', 'U+0007')
    """
    for letter in text:
        control = unicodedata.category(letter) == "Cc" and letter not in ALLOWED
        if control or "\ud800" <= letter <= "\udfff" or letter in "\ufffe\uffff":
            return f"U+{ord(letter):04X}"
    return ""


def check_plain(text: str) -> None:
    """A form's validator."""
    strange = strange_in(text) if isinstance(text, str) else ""
    if strange:
        raise ValidationError(
            _("There is a character in it that cannot be shown ({strange}). Type it again without.").format(strange=strange)
        )


class PlainTextMixin:
    """A form whose text fields refuse what cannot be displayed, and whose required fields have clear messages."""

    fields: dict[str, forms.Field]

    def __init__(self, *args: Any, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        for field in self.fields.values():
            field.error_messages = {**field.error_messages, "required": _("Fill this in; it is needed.")}
            if isinstance(field, forms.CharField):
                field.validators.append(check_plain)
