"""Parse the answer to a question."""

from __future__ import annotations

from django.utils.translation import gettext as _

from shopmath.quantity import Quantity, parse
from shopmath.validation import BadInput
from stator.jobs import log
from stator.stations.framework.page_components import MOST_PIECES, Question
from stator.ui.plain_text import strange_in


def understood(ask: Question, text: str, ton: str | None) -> Quantity:
    """Return an answer as a quantity of the question's kind, one of its options, a count or words.

    Raises
    ------
    BadInput
        With what was typed and what is needed.
    """
    strange = strange_in(text)
    if strange:
        raise BadInput(
            ask.key, _("There is a character in it that cannot be shown ({strange}). Type it again without.").format(strange=strange)
        )
    if ask.options:
        return _option(ask, text.strip().lower(), text)
    if ask.kind == "count":
        counted = text.strip()
        if ask.slot and ask.slot.about.unit == "%":
            counted = counted.removesuffix("%").strip()
        if not (counted.isascii() and counted.isdecimal()) or len(counted) > 9 or int(counted) > MOST_PIECES:
            raise BadInput(
                ask.key,
                _("A whole number is wanted, such as {example}; {typed!r} was typed.").format(
                    example=ask.example or 12, typed=counted[:40]
                ),
            )
        return Quantity(float(counted), "", float(counted), counted, "count")
    if ask.is_words:
        if not text.strip():
            raise BadInput(ask.key, _("Nothing was typed."))
        return log.words(" ".join(text.split())[:1000])
    return parse(text, ask.kind, ask.unit, ton=ton)


def _option(ask: Question, typed: str, text: str) -> Quantity:
    found = [option for option in ask.options if typed == option.key] or [
        option for option in ask.options if typed and option.words.lower().startswith(typed)
    ]
    if len(found) != 1:
        words = ", ".join(option.words for option in ask.options)
        raise BadInput(ask.key, _("{typed!r} is none of these, or more than one: {words}.").format(typed=text.strip()[:40], words=words))
    return log.words(found[0].key)
