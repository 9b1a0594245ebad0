"""Messages of the scripts in the reader's language: the page contains them as JSON, and `ui/storage.js` reads them."""

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
    "away_none_left": _("Nothing more can be answered without the shop's machine."),
    "away_next": _("Without connection: answer what can be measured"),
    "away_page": _("Keep this page open until then: without TLS it cannot be opened again."),
    "away_forget": _("Forget it"),
    "away_gone": _("There is no such place in this shop any more."),
    "away_needed": _("This one is needed. Type a reading, or go on later."),
    "away_refused": _("Came back: {question}, {text}. {said}"),
    "away_sent": _("Sent: {count}."),
    "away_sign_in": _("Sign in again to send what waits on this device: {count}."),
    "away_skips": _("Enter skips it: {means}"),
    "away_trouble": _("The shop's machine cannot keep it just now. It is tried again."),
    "away_waits": _("No connection to the shop's machine. Waiting to be sent: {count}. It is sent when the machine answers."),
    "away_word": _("That needs the shop's machine. Only skip and undo work without it."),
    "below": _("Below: {names}"),
    "broke": _("Not kept: an error in Stator. What you typed stays here; press Enter again."),
    "take_here": _("Use the gauge here"),
}
