"""The shop's own figures, in any unit."""

from __future__ import annotations

from typing import Any

from django import forms
from django.contrib.auth.forms import AuthenticationForm, BaseUserCreationForm, SetPasswordForm

from shop.models import (
    Blades,
    Chiller,
    Compound,
    Driver,
    Extractor,
    Gauge,
    Heater,
    Person,
    Press,
    Puller,
    PullIn,
    Shop,
    Splitter,
)
from shopmath.checks import BadInput
from shopmath.quantity import TONS, parse
from shopmath.verdict import repeatability_of
from ui.fields import QuantityField, SizesField
from ui.plain_text import PlainTextMixin


class SignInForm(AuthenticationForm):
    error_messages = {
        "invalid_login": "That name and password do not belong together. Capitals count.",
        "inactive": "This sign-in is switched off.",
    }


class ShopForm(PlainTextMixin, forms.ModelForm):
    ton = forms.ChoiceField(choices=[("", "ask each time"), *((ton, ton) for ton in TONS)], required=False, label="A bare ton here is a")

    class Meta:
        model = Shop
        fields = ("name", "ton", "local_opening", "handling_s")
        labels = {
            "name": "Name of the shop",
            "local_opening": "A boss heated alone opens, as a share",
            "handling_s": "Seconds from the heat to the seat",
        }


class HeaterForm(PlainTextMixin, forms.ModelForm):
    highest_c = QuantityField("temperature", "C", low=39, high=700, required=False, label="Highest setting")

    class Meta:
        model = Heater
        fields = ("name", "method", "highest_c", "fan", "cooks_food", "retired")


class ChillerForm(PlainTextMixin, forms.ModelForm):
    temperature_c = QuantityField("temperature", "C", low=-101, high=10, label="Temperature inside")

    class Meta:
        model = Chiller
        fields = ("name", "method", "temperature_c", "places", "retired")


class GaugeForm(PlainTextMixin, forms.ModelForm):
    field_order = ("name", "kind", "resolution", "repeatability", "tried")
    found: float | None = None  # what the readings of a check scatter by
    tried = forms.CharField(
        required=False,
        max_length=1500,
        label="Or a repeatability check: ten readings of one thing",
        help_text="take the gauge off and set it anew each time; spaces between. The scatter becomes its repeatability.",
        widget=forms.TextInput(attrs={"placeholder": "20.001 20.003 20.002 …", "autocomplete": "off"}),
    )

    class Meta:
        model = Gauge
        fields = ("name", "kind", "resolution", "repeatability", "emissivity", "last_checked", "port", "baud", "on_button", "retired")
        widgets = {"last_checked": forms.DateInput(attrs={"type": "date"})}

    def clean(self) -> dict[str, Any]:
        data = super().clean() or {}
        if data.get("kind") == Gauge.Kind.INFRARED and not data.get("emissivity"):
            self.add_error("emissivity", "An infrared gun needs the emissivity it is set to; most are fixed at 0.95.")
        return data

    def clean_tried(self) -> str:
        typed = str(self.cleaned_data["tried"]).replace(";", " ").split()
        if not typed:
            return ""
        try:
            self.found = repeatability_of([float(each.replace(",", ".")) for each in typed])
        except BadInput as error:
            raise forms.ValidationError(error.message) from error
        except ValueError as error:
            raise forms.ValidationError("Type plain numbers with spaces between, all in the gauge's unit.") from error
        return " ".join(typed)

    def save(self, commit: bool = True) -> Any:
        if self.found is not None:
            self.instance.repeatability = float(f"{self.found:.3g}")
        return super().save(commit)


class PullerForm(PlainTextMixin, forms.ModelForm):
    thread_mm = QuantityField("length", "mm", low=8, high=80, label="Thread, over the crests")
    pitch_mm = QuantityField("thread_pitch", "mm", low=0.3, high=6, label="Its pitch", help_text="1 mm or 26 tpi")
    screw_mm = QuantityField("length", "mm", low=5, high=40, label="Centre screw", initial="12")
    screw_pitch_mm = QuantityField("thread_pitch", "mm", low=0.5, high=4, label="Pitch of the centre screw", initial="1.25")
    tip_radius_mm = QuantityField("length", "mm", low=0.5, high=20, label="Radius its tip rubs at", initial="3")

    class Meta:
        model = Puller
        fields = ("name", "thread_mm", "pitch_mm", "hand", "screw_mm", "screw_pitch_mm", "tip_radius_mm", "retired")


class PersonForm(PlainTextMixin, BaseUserCreationForm):
    class Meta:
        model = Person
        fields = ("username", "first_name", "role")
        labels = {"username": "Sign-in name", "first_name": "Name in the log"}
        help_texts = {"username": "letters, figures and . - _"}

    def __init__(self, *args: Any, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        self.fields["username"].widget.attrs.pop("autofocus", None)
        self.fields["password1"].label, self.fields["password2"].label = "First password", "First password once more"
        self.fields["password2"].help_text = ""


class FirstPasswordForm(SetPasswordForm):
    """A password given by the owner, to be changed at the next sign-in."""

    prefix = "first"

    def __init__(self, *args: Any, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        self.fields["new_password1"].label, self.fields["new_password2"].label = "First password", "Once more"
        self.auto_id = f"id_{self.user.pk}_%s"


class DriverForm(PlainTextMixin, forms.ModelForm):
    outside_mm = QuantityField("length", "mm", low=4, high=250, label="Outside diameter")
    inside_mm = QuantityField("length", "mm", low=-1, high=249, label="Inside diameter", initial="0", help_text="0 when it is solid")

    class Meta:
        model = Driver
        fields = ("name", "kind", "outside_mm", "inside_mm", "retired")

    def clean(self) -> dict[str, Any]:
        data = super().clean() or {}
        if data.get("outside_mm") and data.get("inside_mm") is not None and not 0 <= data["inside_mm"] < data["outside_mm"]:
            self.add_error("inside_mm", "The inside is smaller than the outside, and 0 when it is solid.")
        return data


class SplitterForm(PlainTextMixin, forms.ModelForm):
    thread_mm = QuantityField("length", "mm", low=3.9, high=20, label="Screws into the case", initial="6", help_text="6 mm, 1/4 in")
    pitch_mm = QuantityField("thread_pitch", "mm", low=0.49, high=3, label="Their pitch", initial="1")
    push_pitch_mm = QuantityField("thread_pitch", "mm", low=0.49, high=4, label="Pitch of the push screw", initial="1.5")

    class Meta:
        model = Splitter
        fields = ("name", "thread_mm", "pitch_mm", "screws", "push_pitch_mm", "retired")


class PullInForm(PlainTextMixin, forms.ModelForm):
    thread_mm = QuantityField("length", "mm", low=4.9, high=60, label="Adapter thread")
    thread_pitch_mm = QuantityField("thread_pitch", "mm", low=0.49, high=4, label="Its pitch")
    pitch_mm = QuantityField("thread_pitch", "mm", low=0.49, high=6, label="Pitch of the pulling screw")

    class Meta:
        model = PullIn
        fields = ("name", "thread_mm", "thread_pitch_mm", "pitch_mm", "retired")


class PressForm(PlainTextMixin, forms.ModelForm):
    capacity_text = forms.CharField(max_length=40, label="Capacity", help_text="12 t, 20 short ton, 100 kN")

    class Meta:
        model = Press
        fields = ("name", "capacity_text", "retired")

    def clean_capacity_text(self) -> str:
        text = str(self.cleaned_data["capacity_text"])
        try:
            found = parse(text, "force", "N", ton=Shop.current().ton or None)
        except BadInput as error:
            raise forms.ValidationError(error.message) from error
        if not 1000 <= found.canonical <= 5_000_000:
            raise forms.ValidationError(f"{found.canonical / 1000:.1f} kN was understood; a press has 1 to 5000.")
        self.instance.capacity_n = found.canonical
        return text


class ExtractorForm(PlainTextMixin, forms.ModelForm):
    low_mm = QuantityField("length", "mm", low=1.9, high=250, label="Takes from", initial="8")
    high_mm = QuantityField("length", "mm", low=2.9, high=400, label="up to", initial="60")

    class Meta:
        model = Extractor
        fields = ("name", "kind", "low_mm", "high_mm", "retired")


class BladesForm(PlainTextMixin, forms.ModelForm):
    sizes_mm = SizesField(label="Thicknesses", help_text="with spaces between: 0.05 0.10 0.15, or 2 thou 4 thou")

    class Meta:
        model = Blades
        fields = ("name", "kind", "sizes_mm", "retired")


class CompoundForm(PlainTextMixin, forms.ModelForm):
    open_s = QuantityField("time", "s", low=9, high=86400, required=False, label="Open time", help_text="off its own sheet: 10 min")
    cure_s = QuantityField("time", "s", low=59, high=604800, required=False, label="Cured in", help_text="24 h")
    gap_mm = QuantityField("length", "mm", low=0.009, high=3, required=False, label="Fills gaps up to")

    class Meta:
        model = Compound
        fields = ("name", "kind", "strength", "open_s", "cure_s", "gap_mm", "good_until", "retired")
        widgets = {"good_until": forms.DateInput(attrs={"type": "date"})}
