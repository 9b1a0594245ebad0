"""Terms of the trade and of Stator with their meanings, shown behind `?` and on the page of keys."""

from __future__ import annotations

from dataclasses import dataclass

from django.utils.functional import Promise
from django.utils.translation import gettext_lazy as _


@dataclass(frozen=True)
class Term:
    """A word that readers meet, and what it means in one sentence."""

    word: str | Promise
    meaning: str | Promise


GLOSSARY = (
    Term(_("runout (TIR)"), _("Whole travel of a dial's needle in one turn: total indicator reading.")),
    Term(_("clearance"), _("Room between two parts that do not touch.")),
    Term(_("interference"), _("How much larger a part is than the hole it is pressed into.")),
    Term(_("end float"), _("How far a shaft can move lengthways.")),
    Term(_("uncertainty"), _("How far a value may be wrong, with 95 in 100 sure (k = 2): written as ± behind it.")),
    Term(_("limit"), _("What the engine card allows; a call is made against it with the uncertainty counted in.")),
    Term(_("too close to call"), _("The uncertainty reaches across the limit: another reading or a finer gauge settles it.")),
    Term(_("assumed"), _("A typical value, used because nobody measured it and the card does not say.")),
    Term(_("estimate"), _("Computed from typical figures, not from a standard.")),
    Term(
        _("twist"),
        _("The webs of a pressed crank stand turned to one another about the pin's axis direction: the shafts point past each other."),
    ),
    Term(_("web opening"), _("The webs of a pressed crank are open or closed opposite the crankpin: they are not parallel.")),
    Term(_("web"), _("The disc or arm of a crank between shaft and crankpin.")),
    Term(_("joint face"), _("The faces on which the crankcase halves meet.")),
    Term(_("dowel"), _("Pin or sleeve that places the halves to one another.")),
    Term(_("driver"), _("Tube, socket or old ring that pushes a bearing or a seal.")),
    Term(_("fit code"), _("A tolerance of ISO 286, such as N7 for a bore or k5 for a shaft.")),
    Term(_("heat plan"), _("What is heated and chilled, how far and how long, and in which order parts go in.")),
    Term(_("window"), _("The time in which a part still drops in after the case left the oven.")),
    Term(_("open time"), _("How long a sealant may lie before the faces must be together.")),
    Term(_("heavy spot"), _("Where a wheel that is out of balance carries too much mass; it comes to rest low.")),
    Term(_("unbalance"), _("Mass that is too much, times its distance from the axis.")),
    Term(_("balance factor"), _("Which share of the reciprocating mass the crank's counterweight balances.")),
    Term(_("taper"), _("The cone on which a flywheel sits.")),
    Term(_("preload"), _("The force with which a tightened bolt holds.")),
    Term(_("feeler gauge"), _("Blades of known thickness that measure a gap.")),
    Term(_("shim"), _("A thin washer that sets an end float.")),
    Term(_("circlip"), _("A spring ring that keeps a bearing or pin in place.")),
    Term(_("entry"), _("The work of one station, on one seat where it goes seat by seat.")),
    Term(_("record"), _("An entry as it was signed; it never changes.")),
    Term(_("engine card"), _("What is known of an engine: seats, seals, bolts, figures. Saved as a template it serves the next one.")),
    Term(_("run"), _("The stations of a job in their order.")),
    Term(_("withdrawn"), _("Of a reading: it does not count any more, and is still shown in the log.")),
)
