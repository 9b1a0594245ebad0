"""Messages of the job report."""

from __future__ import annotations

from django.utils.translation import gettext_lazy as _

from stator.stations.framework.messages import plural

NO_LIMIT = _("no limit")
NOT_MEASURED = _("not measured")
NOT_AGAIN = _("not remeasured")
HEADLINE = {
    "ready": _("Ready to run"),
    "reservations": _("Ready, with reservations"),
    "open": _("Still on the bench"),
    "ended": _("Closed without being finished"),
}
WITHIN = plural("{within} of {count} figure within its limits", "{within} of {count} figures within their limits", "count")
WITHOUT = plural("{without} recorded without a limit", "{without} recorded without a limit", "without")
NO_FIGURES = _("No figure with a limit was recorded.")
NOT_YET = _("Not handed over yet: this may still change.")
AGAINST = _("Signed against the verdict: {reason}")
REPLACED = _("{name}: {because}. The entry of {by}, {at}, said: {call}")
UNMEASURED = _("{name}: not measured: {what}")
COUNT_UNMEASURED = plural("{name}: {count} place not measured", "{name}: {count} places not measured", "count")
AND_MORE = plural("and {count} more", "and {count} more", "count")
GAUGE_WRONG = _("{gauge} was found wrong later ({because}). It was used at {stations}.")
CLOSING = _("Stator advises. The engine's manual, local codes and licensed or certified practice come first.")
KEY = _("Key that signs files of this job: {fingerprint}")
