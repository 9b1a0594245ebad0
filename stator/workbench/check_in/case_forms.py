"""Parts of the case beyond its two halves, and the joints that they make."""

from __future__ import annotations

from typing import Any

from django import forms
from django.utils.translation import gettext_lazy as _

from stator.engines.case import OUTSIDE, case_choices, joined_anew
from stator.engines.models import CasePart, EngineCard, Joint
from stator.engines.parts import HALVES
from stator.ui.fields import QuantityField
from stator.ui.plain_text import PlainTextMixin


def half_field(card: EngineCard | None, *, crank: bool = False) -> forms.ChoiceField:
    """Return which part of the case something sits in."""
    return forms.ChoiceField(choices=case_choices(card, crank=crank), label=_("It sits in the"), initial=HALVES[0])


USUAL = {
    CasePart.What.CENTRE.value: _("centre section"),
    CasePart.What.GEARBOX.value: _("gearbox half"),
    CasePart.What.COVER.value: _("cover"),
}


class CasePartForm(PlainTextMixin, forms.ModelForm):
    """A centre section, a gearbox half or a cover. Its joints come with it."""

    prefix = "case"
    fastened_to = forms.ChoiceField(required=False, label=_("It is bolted to the"), help_text=_("of a cover or a gearbox half"))

    class Meta:
        model = CasePart
        fields = ("what", "name", "fastened_to")
        labels = {"name": _("What you call it"), "what": _("What it is")}
        help_texts = {"name": _("Clutch cover")}

    def __init__(self, *args: Any, card: EngineCard, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        self.card = card
        kinds = self.fields["what"]
        assert isinstance(kinds, forms.ChoiceField)
        kinds.choices = [(key, words) for key, words in CasePart.What.choices if key != CasePart.What.HALF]
        self.fields["name"].required = False
        others = self.fields["fastened_to"]
        assert isinstance(others, forms.ChoiceField)
        others.choices = [("", "—"), *((uid, words) for uid, words in case_choices(card) if uid != self.instance.uid)]

    def clean_name(self) -> str:
        text = (self.cleaned_data.get("name") or "").strip()
        name = text or str(USUAL.get(str(self.cleaned_data.get("what")), ""))
        others = self.card.case_parts.exclude(pk=self.instance.pk)
        if name and name in {self.card.side(each.uid) for each in others}:
            raise forms.ValidationError(_("This engine has a {name} already.").format(name=name))
        return name

    def clean(self) -> dict[str, Any]:
        data = super().clean() or {}
        if data.get("what") in OUTSIDE and not data.get("fastened_to") and "fastened_to" not in self.errors:
            self.add_error("fastened_to", _("Say which part it is bolted to."))
        if data.get("what") == CasePart.What.CENTRE:
            data["fastened_to"] = ""
        return data

    def save(self, commit: bool = True) -> CasePart:
        self.instance.card = self.card
        found: CasePart = super().save(commit)
        joined_anew(self.card)
        return found


class JointForm(PlainTextMixin, forms.ModelForm):
    """A joint other than the first: which part comes off, and the size of its mating surface."""

    prefix = "joint"
    lifts = forms.ChoiceField(required=False, label=_("The part that comes off"))
    face_w_mm = QuantityField("length", low=19.9, high=900, required=False, label=_("Its face, across"))
    face_h_mm = QuantityField("length", low=19.9, high=900, required=False, label=_("Its face, up and down"))

    class Meta:
        model = Joint
        fields = ("lifts", "face_w_mm", "face_h_mm")
        help_texts = {"face_w_mm": _("empty: as the first joint")}

    def __init__(self, *args: Any, card: EngineCard, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        lifts = self.fields["lifts"]
        assert isinstance(lifts, forms.ChoiceField)
        lifts.choices = [("", _("unknown")), *((uid, card.part_name(uid)) for uid in (self.instance.one, self.instance.other) if uid)]
