"""Forms of check-in: the engine, the complaint, and the seat to be worked on."""

from __future__ import annotations

from typing import Any

from django import forms
from django.utils.functional import Promise
from django.utils.translation import gettext_lazy as _

from shopmath.bearings import lookup
from shopmath.iso286 import LARGEST_MM, limits
from shopmath.notation import size_and_code
from shopmath.thermal.limits import LEFT_IN
from shopmath.validation import BadInput
from stator.engines.card_copy import reusable
from stator.engines.fits import bearing_of, nominal_of
from stator.engines.layouts import LAYOUTS
from stator.engines.models import EngineCard, Seat, case_metals
from stator.ui.fields import QuantityField
from stator.ui.number_format import size, trade
from stator.ui.plain_text import PlainTextMixin, check_plain
from stator.ui.table_texts import from_table_lazily
from stator.ui.units import MM
from stator.workbench.check_in.case_forms import half_field
from stator.workbench.registry import WORK_ORDERS

DEVIATION_MM = 1.0  # a size smaller than this is how far a seat is off its nominal


def _size(label: str | Promise) -> QuantityField:
    return QuantityField("length", unit=MM, low=0, high=LARGEST_MM, required=False, label=label)


def _card_words(obj: Any) -> str:
    return f"{obj.name}, {obj.summary}" if obj.summary else str(obj.name)


class EngineForm(PlainTextMixin, forms.Form):
    """The engine and its job."""

    known = forms.ModelChoiceField(EngineCard.objects.none(), required=False, label=_("Seen here before"), empty_label=_("no, a new one"))
    name = forms.CharField(max_length=60, required=False, label=_("Engine"), help_text=_("What you call it: Corrie 272."))
    layout = forms.ChoiceField(
        choices=[("", _("empty card")), *((key, each.name) for key, each in LAYOUTS.items())],
        required=False,
        label=_("Start its card from"),
        help_text=_("Usual bearings and seals, each marked assumed until you read it off the part."),
    )
    summary = forms.CharField(max_length=80, required=False, label=_("In a few words"), help_text=_("trials single, two-stroke"))
    complaint = forms.CharField(max_length=200, label=_("What is wrong with it"))
    comes_back = forms.CharField(max_length=200, required=False, label=_("What must come back"), help_text=_("bolts in a tin, carburettor"))
    work_order = forms.ChoiceField(
        choices=[(key, words) for key, (words, _) in WORK_ORDERS.items()],
        label=_("Work order"),
        initial="bearings",
        widget=forms.RadioSelect,
    )
    case_material = forms.ChoiceField(
        choices=case_metals, label=_("Case metal"), help_text=_("Usual for cast cases; mark it if you know better.")
    )
    painted = forms.BooleanField(required=False, label=_("The case is painted"))
    left_name = forms.CharField(
        max_length=30, initial="drive side", label=_("Its left is the"), help_text=_("as the rider or operator sits")
    )
    right_name = forms.CharField(max_length=30, initial="magneto side", label=_("Its right is the"))

    def __init__(self, *args: Any, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        field = self.fields["known"]
        assert isinstance(field, forms.ModelChoiceField)
        cards = reusable()
        field.queryset = EngineCard.objects.filter(pk__in=[card.pk for card in cards])
        field.choices = [("", field.empty_label), *((card.pk, _card_words(card)) for card in cards)]

    def clean(self) -> dict[str, Any]:
        data = super().clean() or {}
        if not data.get("known") and not data.get("name"):
            self.add_error("name", _("Give the engine a name, or pick one seen before."))
        return data


class SeatForm(PlainTextMixin, forms.ModelForm):
    """One bearing seat. A marking or three sizes; a fit code or a measured size."""

    prefix = "seat"

    bore_mm = _size(_("or its bore"))
    outside_mm = _size("outside")
    width_mm = _size("width")
    measured_mm = QuantityField(
        "length", unit=MM, low=-1, high=LARGEST_MM, required=False, label=_("or the seat measured, cold"), help_text=_("51.978, or -0.022")
    )
    left_in = forms.MultipleChoiceField(
        choices=[(key, from_table_lazily(limit.what)) for key, limit in LEFT_IN.items() if key != "paint"],
        required=False,
        label=_("Left in while it is heated"),
        widget=forms.CheckboxSelectMultiple,
    )

    size_typed: float | None = None  # that stands before the fit code

    class Meta:
        model = Seat
        fields = (
            "name",
            "role",
            "on",
            "half",
            "loads_from",
            "stop",
            "designation",
            "bore_mm",
            "outside_mm",
            "width_mm",
            "code",
            "measured_mm",
            "bottom",
            "thin_wall",
            "faces",
            "left_in",
            "source",
        )
        labels = {
            "name": _("Which seat"),
            "role": _("What turns in it"),
            "on": _("The bearing goes"),
            "loads_from": _("It goes in"),
            "stop": _("It stops against a"),
            "bottom": _("Behind the bearing it is"),
            "thin_wall": _("The wall behind it is thin"),
            "faces": _("The bearing sits with"),
            "designation": _("Bearing marking"),
            "code": _("Fit code of the seat"),
            "source": _("Where the fit is from"),
        }
        help_texts = {
            "name": _("Main bearing, drive side"),
            "designation": _("As stamped: 6205 C3; or its sizes, 25x52x15"),
            "code": _("N7 or 52 N7 for a bore, k5 for a shaft"),
            "source": _("manual page, drawing, measured"),
        }

    def __init__(self, *args: Any, card: EngineCard | None = None, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        self.card = card
        code = forms.CharField(max_length=14, label=self.fields["code"].label, help_text=self.fields["code"].help_text)
        code.validators.append(check_plain)
        self.fields["code"] = code  # longer than a code, for the size that may stand before it
        self.fields["half"] = half_field(card, crank=True)
        for name in ("name", "code", "role"):
            self.fields[name].required = False
        if self.instance.pk is None:
            self.fields["role"].initial = Seat.Role.MAIN
        self.fields["designation"].widget.attrs.update(
            {"hx-get": "/book-in/read-marking/", "hx-trigger": "input changed delay:250ms", "hx-target": "#marking-words"}
        )

    def clean_name(self) -> str:
        name = (self.cleaned_data.get("name") or "Main bearing").strip()
        if self.card and self.card.seats.filter(name=name).exclude(pk=self.instance.pk).exists():
            raise forms.ValidationError(_("This engine has a seat called {name!r} already.").format(name=name))
        return name

    def clean_role(self) -> str:
        return self.cleaned_data.get("role") or Seat.Role.OTHER

    def clean_designation(self) -> str:
        text = (self.cleaned_data.get("designation") or "").strip()
        if text:
            try:
                lookup(text)
            except BadInput as error:
                raise forms.ValidationError(error.message) from error
        return text

    def clean_code(self) -> str:
        """A fit code, alone or behind its size: `52 N7`."""
        text = str(self.cleaned_data.get("code") or "").strip()
        try:
            self.size_typed, code = size_and_code(text)
        except BadInput:
            return text
        return code

    def clean(self) -> dict[str, Any]:
        data = super().clean() or {}
        self.instance.role_assumed = self.instance.marking_assumed = False
        if "code" in self.changed_data:
            self.instance.code_assumed = False
        sizes = [data.get(name) for name in ("bore_mm", "outside_mm", "width_mm")]
        if not data.get("designation") and "designation" not in self.errors and not all(sizes):
            self.add_error("designation", _("Type the marking on the ring, or its bore, outside and width."))
        if all(sizes) and not 0 < sizes[0] < sizes[1]:  # type: ignore[operator]
            self.add_error(
                "outside_mm",
                _("The outside ({outside} mm) must be larger than the bore ({bore} mm).").format(
                    outside=trade(sizes[1] or 0.0), bore=trade(sizes[0] or 0.0)
                ),
            )
        if not data.get("code") and data.get("measured_mm") is None and not self.errors:
            data["code"], self.instance.code_assumed = ("k5" if data.get("on") == Seat.On.SHAFT else "N7"), True
        if not self.errors:
            self._check_fit(data)
        return data

    def _check_fit(self, data: dict[str, Any]) -> None:
        trial = Seat(**{key: data[key] for key in ("on", "designation", "bore_mm", "outside_mm", "width_mm")})
        nominal = nominal_of(trial)
        code = data.get("code", "")
        if self.size_typed and abs(self.size_typed - nominal) > 0.01:
            self.add_error(
                "code",
                _("{size} {code} is not the fit of this bearing: it measures {nominal} mm there.").format(
                    size=trade(self.size_typed), code=code, nominal=trade(nominal)
                ),
            )
        if code:
            try:
                limits(code, nominal)
            except BadInput as error:
                self.add_error("code", error.message)
            letter = code[:1]
            if letter.isupper() == (data["on"] == Seat.On.SHAFT) and "code" not in self.errors:
                self.add_error(
                    "code",
                    (
                        _("{code} is a bore code: capitals are bores, small letters shafts. For a shaft write {other}.")
                        if letter.isupper()
                        else _("{code} is a shaft code: capitals are bores, small letters shafts. For a bore write {other}.")
                    ).format(code=code, other=code.swapcase()),
                )
        measured = data.get("measured_mm")
        if measured is not None and abs(measured) < DEVIATION_MM:  # a deviation, as a bore gauge shows it
            data["measured_mm"] = self.instance.measured_mm = round(nominal + measured, 6)
        if data.get("measured_mm") and abs(data["measured_mm"] - nominal) > 0.5:
            self.add_error(
                "measured_mm",
                _("{measured} is more than {most} from the nominal {nominal} of {bearing}.").format(
                    measured=size(data["measured_mm"]), most=size(0.5), nominal=size(nominal), bearing=bearing_of(trial).designation
                ),
            )
