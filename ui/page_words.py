"""Sentences that scripts say on the page, in the reader's language: the page carries them as JSON, and `ui/store.js` reads them."""

from __future__ import annotations

from django.utils.translation import gettext_lazy as _

PAGE_WORDS = {
    "a_choice": _("A choice is asked here, no number."),
    "enter_on_its_way": _("Enter came while a reading was being saved. Look what is asked now, and press it again."),
    "forget": _("Forget these"),
    "gauge_not_for_this": _("What the gauge sent meanwhile was not kept: it was for the next place."),
    "gauge_sign_in": _("The gauge cannot be read here; sign in again."),
    "in_line": _("Waiting to be kept: {lines}"),
    "live": _("Live: press Enter to keep it."),
    "live_peak": _("Live {value}: press Enter to keep its peak."),
    "no_answer": _("The server does not answer. Ask again when it does."),
    "no_answer_file": _("The server does not answer. The file is still chosen: send it again when it does."),
    "no_connection": _("Not kept: no connection to the shop's machine. What you typed stays here; press Enter again."),
    "no_connection_gauge": _("No connection to the shop's machine; what you type stays here."),
    "not_done": _("What was pressed meanwhile was not done, since that was refused. Look, and press it again."),
    "not_sent": _("Typed, not sent:"),
    "off": _("off"),
    "on": _("on"),
    "below": _("Below: {names}"),
    "broke": _("Not kept: an error in Stator. What you typed stays here; press Enter again."),
    "take_here": _("Use the gauge here"),
}
