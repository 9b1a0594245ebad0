"""A form for a limit of the card, in any unit."""

from __future__ import annotations

from typing import Any

from django import forms
from django.utils.translation import gettext_lazy as _

from shopmath.quantity import parse
from shopmath.validation import BadInput
from stator.engines.models import EngineCard, Spec
from stator.engines.properties import LIMITS
from stator.ui.fields import typed_again
from stator.ui.number_format import exact, show
from stator.ui.plain_text import PlainTextMixin
from stator.ui.units import KG, Unit, question_unit


def limit_unit(kind: str) -> Unit:
    """Return the unit of a limit without a unit: thou for small lengths if the reader works in inches."""
    return KG if kind == "mass" else question_unit(kind, 0.0)


class SpecForm(PlainTextMixin, forms.ModelForm):
    """A limit in any unit, with its source."""

    prefix = "spec"
    low = forms.CharField(max_length=40, required=False, label=_("At least"), help_text=_("0.10 mm, 4 thou; empty when there is none"))
    high = forms.CharField(max_length=40, required=False, label=_("At most"))

    class Meta:
        model = Spec
        fields = ("name", "property", "kind", "low", "high", "setup", "held", "source_kind", "source")
        labels = {
            "name": _("Figure"),
            "property": _("What it limits"),
            "setup": _("Measured how"),
            "held": _("Crank held, for its runout"),
            "source_kind": _("From"),
            "source": _("Which page, drawing, day"),
        }
        help_texts = {"name": _("as the manual calls it"), "property": _("only a figure that says what it limits is used to judge")}

    def __init__(self, *args: Any, card: EngineCard, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        self.card = card
        for name in ("low", "high"):
            value = getattr(self.instance, name)
            if value is not None and name not in (kwargs.get("initial") or {}):
                self.initial[name] = typed_again(value, self.instance.kind, limit_unit(self.instance.kind))
        limited = self.fields["property"]
        assert isinstance(limited, forms.ChoiceField)
        limited.choices = [("", _("another figure, recorded only")), *((key.value, words) for key, words in LIMITS.items())]

    def clean_property(self) -> str:
        limited = str(self.cleaned_data.get("property") or "")
        other = self.card.specs.filter(property=limited).exclude(pk=self.instance.pk).first() if limited else None
        if other:
            raise forms.ValidationError(
                _("The figure {name!r} limits this already. Change that one, or choose another meaning.").format(name=other.name)
            )
        return limited

    def clean_name(self) -> str:
        name = str(self.cleaned_data["name"]).strip()
        if self.card.specs.filter(name=name).exclude(pk=self.instance.pk).exists():
            raise forms.ValidationError(_("This card has a figure called {name!r} already.").format(name=name))
        return name

    def clean(self) -> dict[str, Any]:
        data = super().clean() or {}
        kind = data.get("kind") or "length"
        for name in ("low", "high"):
            text = (data.get(name) or "").strip()
            data[name] = None
            if text:
                try:
                    data[name] = round(parse(text, kind, limit_unit(kind).typed).canonical, 6)
                except BadInput as error:
                    self.add_error(name, error.message)
        if data.get("low") is not None and data.get("high") is not None and data["low"] > data["high"]:
            low, high = (show(exact(data[name], kind)) for name in ("low", "high"))
            self.add_error("high", _("At most ({high}) lies under at least ({low}).").format(high=high, low=low))
        return data

    def save(self, commit: bool = True) -> Spec:
        self.instance.card, self.instance.property_assumed, self.instance.held_assumed = self.card, False, False
        found: Spec = super().save(commit)
        return found
