"""Sentences that every station shares, and how a sentence is made from its code and values."""

from __future__ import annotations

from collections.abc import Mapping
from functools import lru_cache
from string import Formatter
from typing import Any, Protocol

from django.utils.functional import Promise, lazy
from django.utils.translation import gettext_lazy as _
from django.utils.translation import ngettext_lazy

from stator.engines.properties import Property
from stator.ui.number_format import shown

Sentence = str | Promise
Sentences = Mapping[str, Sentence]
OptionRow = tuple[str, Sentence] | tuple[str, Sentence, Sentence]  # key of an answer, its words, what choosing it means
Options = Mapping[Property, tuple[OptionRow, ...]]
Methods = Mapping[str, tuple[Sentence, tuple[OptionRow, ...]]]
AT_END = "at an end"  # behind the key of a name: of what is only sometimes told apart by its end


class Words(Protocol):
    """The messages of one station: a module with these tables, each from a code to a sentence with named values."""

    NAME: Sentence
    DRAWING: Sentence
    HEADLINE: Sentences
    REASON: Sentences
    NEXT: Sentences
    DETAIL: Sentences
    ASSUMED: Sentences
    LABEL: Sentences


def render_message(table: Sentences, code: str, values: Mapping[str, Any], default: str = "") -> str:
    """The sentence of a code with its values set in; the default where the table has none."""
    sentence = table.get(code)
    return default if sentence is None else format_message(sentence, values)


def sentence(table: Sentences, code: str, values: Mapping[str, Any], default: str = "") -> str:
    """Return a message as a complete sentence that begins with a capital letter."""
    return capital(render_message(table, code, values, default))


def capital(text: str) -> str:
    return text[:1].upper() + text[1:]


def format_message(sentence: Sentence, values: Mapping[str, Any]) -> str:
    """A sentence with those of the values that it names, in the reader's language and units."""
    text = str(sentence)
    if not text:  # one that depends on how many, which it learns from its values
        return str(sentence.format(**shown(values)))  # type: ignore[union-attr]
    return text.format(**shown(values, _names(text)))


@lru_cache(2048)
def _names(sentence: str) -> frozenset[str]:
    """The values that a sentence names."""
    return frozenset(name for _before, name, _form, _as in Formatter().parse(sentence) if name)


def fixed(sentence: Sentence, **values: Any) -> Any:
    """Return a sentence with fixed values, formatted in the reader's units: `fixed(_("under {limit}"), limit=celsius(100))`."""
    return lazy(lambda: format_message(sentence, values), str)()


lazily = lazy(render_message, str)  # a sentence inside another one's values: made when that one is


def plural(one: str, many: str, by: str) -> Any:
    """Return a sentence that depends on a number, with both forms marked for translation."""
    return ngettext_lazy(one, many, by)


ON_THREADS = (  # what is on a thread, by the keys of `shopmath.screw_threads.STATES`
    ("as received", _("as received"), _("lightly oiled to dry")),
    ("dry", _("dry")),
    ("oiled", _("oiled")),
    ("thread locker", _("thread locker, wet")),
    ("anti-seize", _("anti-seize paste")),
    ("unknown", _("not known"), _("widest band")),
)
BY_LIMIT = {  # a value against one limit, as `shopmath.verdict.call` has judged it
    "inside_low": _("{value} is above the limit of {limit}, with {margin} to spare."),
    "inside_high": _("{value} is under the limit of {limit}, with {margin} to spare."),
    "outside_low": _("{value} is under the limit of {limit} by {margin}."),
    "outside_high": _("{value} is over the limit of {limit} by {margin}."),
    "across_low": _("{value} reaches across the limit of {limit}."),
    "across_high": _("{value} reaches across the limit of {limit}."),
}
LIMIT_FROM = {  # where a limit comes from
    "card": _("{origin}"),
    "card_setup": _("{origin} {setup}"),
    "iso": _("{code}, ISO 286-1"),
    "iso_assumed": _("{code} (typical, not read), ISO 286-1"),
    "half_width": _("half the width of {code}, shop rule"),
    "shop_rule": _("shop rule"),
    "none": _("no limit on the card"),
}
NEEDS = {  # what should be so first; each ends with what to do about it
    "halves_apart": _("Split is not signed with the halves apart."),
    "bearings_home": _("Not signed as home in their seats: {parts}."),
    "crank_home": _("Crank in is not signed with the crank home."),
    "closed": _("Close is not signed: the case may still be open."),
}
OVERRIDES = {  # the same as a decision that somebody took, with the reason behind it
    "halves_apart": _("Gone on before the halves were signed as apart:"),
    "bearings_home": _("Gone on before every bearing was signed as home:"),
    "crank_home": _("Gone on before the crank was signed as home:"),
    "closed": _("Gone on before the case was signed as closed:"),
}
AS_ASKED = plural("Done as asked and not read: {count} place", "Done as asked and not read: {count} places", "count")
TURNS = _("{turns} turns")
GAUGE_WRONG = _("{gauge} was found wrong later: {because}. Measure again what it read here.")
STILL_TO_ANSWER = _("Still to answer: {questions}.")
READING = _("Reading: {label}")
SIGNED_BY = _("Signed by {person}.")
TYPO = {  # a number that is probably mistyped
    "beside": _("{typed}? The others are about {expected}. Press Enter again to keep {typed}, or correct it."),
    "beside_meant": _("{typed}? The others are about {expected}. Did you mean {meant}? Press Enter again to keep {typed}, or correct it."),
    "asked": _("{typed}? {expected} is asked for. Press Enter again to keep {typed}, or correct it."),
    "asked_meant": _("{typed}? {expected} is asked for. Did you mean {meant}? Press Enter again to keep {typed}, or correct it."),
    "usual": _("{typed}? Usual here is {range}. Press Enter again to keep {typed}, or correct it."),
    "usual_meant": _("{typed}? Usual here is {range}. Did you mean {meant}? Press Enter again to keep {typed}, or correct it."),
}
MARKED = {
    "confirmed": _("unusual; confirmed as typed"),
    "doubtful": _("unusual; sent by the gauge and not confirmed"),
    "sent_later": _("typed without connection, sent later"),
    "of_all": _("told once for all places"),
}
AS_WRITTEN = _("told as {thread}, not measured")
AS_AT = _("as at {part}, in one answer")
NOT_BELIEVABLE = _("{question}: {typed} is not believable. Check the unit and measure again.")
BELIEVABLE = _("About {range} is possible.")
ROUND_LABEL = _("Round {attempt}: {label}")
OFFERED = _("{station} has {value}, {when}. Press Enter to use it.")
SIGN = _("Sign this entry")
ALTERNATIVE = {  # on from a call that is not OK
    "again": _("Correct: {label}"),
    "choice": _("Change: {choice}"),
    "option": _("{choice}: {option}"),
    "shop": _("Open shop equipment"),
    "card": _("Open the engine card"),
    "tray": _("Open the parts tray"),
    "run": _("Mark as waiting, or skip this station"),
    "station": _("Go to {station}"),
    "add": _("Add {station} to the run"),
}
