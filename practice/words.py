"""Every sentence of practice, by code."""

from __future__ import annotations

from django.utils.translation import gettext_lazy as _

LEVEL = {
    "easy": (_("learner"), _("even blows, a round journal, twist alone")),
    "middle": (_("at the bench"), _("uneven blows, pinch too, now and then an oval journal")),
    "hard": (_("whatever comes"), _("a gauge that slips, a support that rocks, a half that no truing cures")),
}
LEVER = {
    "ahead": _("Strike right web, 270°"),
    "behind": _("Strike right web, 90°"),
    "squeeze": _("Squeeze"),
    "wedge": _("Wedge"),
}
SHARE = {"tap": _("a tap"), "half": _("half"), "whole": _("whole")}
FAULT = {
    "pressed": _("twisted and pinched, no more"),
    "not curable": _("a half bent beyond truing"),
    "oval": _("a journal that was not round"),
    "slipped": _("a gauge that slipped in its holder"),
    "loose": _("a support that rocked"),
}
ADVICE = {
    "not_begun": _("Nothing was struck. Measure one turn at each end, and do the one move that the call names."),
    "wrong_way": _(
        "Most blows went another way than the halves stood. Where the needle reads high is not where to strike: the call splits it first."
    ),
    "stopped_early": _("It was left over the limit. Measure again after each blow, until nothing is worth one."),
    "overshot": _("Some blows went too far. When it goes back and forth, half the blow."),
    "well_done": _("Each blow had its reason. Take the next level."),
    "beaten": _("No blow cures offset or skew: the call said so before the first. It wants a new half."),
    "given_up_rightly": _("Rightly given up: what was wrong with it is beyond truing."),
}
HALVES = {
    "twist_deg": _("Twist"),
    "pinch_deg": _("Pinch"),
    "offset_mm": _("Offset"),
    "skew_deg": _("Skew"),
}
NO_BLOW = _("no blow")
