"""The labels of states: one set of words, with the shapes that `mark` draws."""

from __future__ import annotations

from django.utils.translation import gettext_lazy as _

STATES = {"in": _("OK"), "too_close": _("Too close to call"), "out": _("Not OK"), "stop": _("Stop"), "wait": "", "": ""}


def state_words(state: str) -> str:
    return str(STATES.get(state, state))
