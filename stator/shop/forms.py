"""The settings of the shop, in any unit."""

from __future__ import annotations

from functools import cache
from typing import Any
from zoneinfo import available_timezones

from django import forms
from django.conf import settings
from django.contrib.auth.forms import AuthenticationForm, BaseUserCreationForm, SetPasswordForm
from django.utils.translation import gettext_lazy as _

from shopmath.amounts import newtons
from shopmath.gauges import repeatability_of
from shopmath.quantity import TONS, parse
from shopmath.validation import BadInput
from stator.shop.models import (
    STEP_KINDS,
    UNIT_CHOICES,
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
from stator.ui.fields import LongSelect, QuantityField, SizesField
from stator.ui.number_format import exact, show, significant
from stator.ui.plain_text import PlainTextMixin
from stator.ui.units import MM


class SignInForm(AuthenticationForm):
    error_messages = {
        "invalid_login": _("That name and password do not belong together. Capitals count."),
        "inactive": _("This sign-in is switched off."),
    }


TON_NAMES = {"short ton": _("short ton (US)"), "tonne": _("tonne (metric)"), "long ton": _("long ton (UK)")}
STEP_UNITS = {"length": "mm", "temperature_difference": "K", "force": "N", "angle": "deg"}
LARGEST_STEP = 100_000.0


class ShopForm(PlainTextMixin, forms.ModelForm):
    ton = forms.ChoiceField(
        choices=[("", _("ask each time")), *((ton, TON_NAMES[ton]) for ton in TONS)], required=False, label=_("A bare ton here is a")
    )
    time_zone = forms.ChoiceField(required=False, label=_("Time zone"), widget=LongSelect)

    class Meta:
        model = Shop
        fields = ("name", "units", "time_zone", "first_weekday", "address", "ton", "local_opening", "handling_s")
        labels = {
            "name": _("Name of the shop"),
            "units": _("Units of the shop"),
            "first_weekday": _("The week begins on"),
            "address": _("Address in links and on labels"),
            "local_opening": _("A boss heated alone opens, as a share"),
            "handling_s": _("Seconds from the heat to the seat"),
        }
        help_texts = {
            "address": _("as phones and owners reach it, such as https://bench.lan:8000; empty: the server's own"),
            "units": _("of records, of the owner's link and of everyone who has not chosen"),
            "local_opening": _("0.5 is half of what the whole case would open (estimate)"),
        }

    def __init__(self, *args: Any, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        self.fields["time_zone"].choices = zones()  # type: ignore[attr-defined]


class OwnSettingsForm(forms.ModelForm):
    """The units and the language of one person."""

    language = forms.ChoiceField(required=False, label=_("Language"))

    class Meta:
        model = Person
        fields = ("units", "language")
        labels = {"units": _("Show numbers in")}
        help_texts = {"units": ""}

    def __init__(self, *args: Any, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        self.fields["language"].choices = [("", _("as the browser asks for")), *settings.LANGUAGES]  # type: ignore[attr-defined]
        self.fields["units"].choices = [("", _("the shop's units")), *UNIT_CHOICES]  # type: ignore[attr-defined]


@cache
def _places() -> tuple[str, ...]:
    """Time zones of the machine's tables, by region and place."""
    return tuple(
        sorted(name for name in available_timezones() if "/" in name and not name.startswith(("Etc/", "SystemV/", "posix/", "right/")))
    )


def zones() -> list[tuple[str, Any]]:
    """Time zones to choose from."""
    usual = _("the server's own ({zone})").format(zone=settings.TIME_ZONE)
    return [("", usual), ("UTC", "UTC"), *((name, name.replace("_", " ")) for name in _places())]


class HeaterForm(PlainTextMixin, forms.ModelForm):
    highest_c = QuantityField("temperature", low=39, high=700, required=False, label=_("Highest setting"))

    class Meta:
        model = Heater
        fields = ("name", "method", "highest_c", "fan", "cooks_food", "retired")


class ChillerForm(PlainTextMixin, forms.ModelForm):
    temperature_c = QuantityField("temperature", low=-101, high=10, label=_("Temperature inside"))

    class Meta:
        model = Chiller
        fields = ("name", "method", "temperature_c", "places", "retired")


class GaugeForm(PlainTextMixin, forms.ModelForm):
    field_order = ("name", "kind", "resolution", "repeatability", "tried")
    resolution = forms.CharField(max_length=20, label=_("Smallest step it shows"), help_text=_("with its unit: 0.01 mm, 0.5 thou, 1 C"))
    repeatability = forms.CharField(
        max_length=20,
        required=False,
        label=_("Repeatability"),
        help_text=_("standard deviation of readings of one thing; empty if unknown"),
    )
    found: float | None = None  # what the readings of a check scatter by
    tried = forms.CharField(
        required=False,
        max_length=1500,
        label=_("Or a repeatability check: ten readings of one thing"),
        help_text=_("take the gauge off and set it again each time; spaces between. The scatter becomes its repeatability."),
        widget=forms.TextInput(attrs={"placeholder": "20.001 20.003 20.002 …", "autocomplete": "off"}),
    )

    class Meta:
        model = Gauge
        fields = ("name", "kind", "resolution", "repeatability", "emissivity", "last_checked", "port", "baud", "on_button", "retired")
        labels = {"last_checked": _("Last checked"), "baud": _("Speed of its line, baud"), "port": _("Connected at")}
        widgets = {"last_checked": forms.DateInput(attrs={"type": "date"})}

    def __init__(self, *args: Any, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        gauge = self.instance
        for name in ("resolution", "repeatability"):
            value = getattr(gauge, name) if gauge.pk else None
            if value is not None:
                kind = STEP_KINDS.get(gauge.measures, gauge.measures)
                self.initial[name] = show(exact(value, kind, finest=1e-6))

    def _step(self, data: dict[str, Any], name: str) -> None:
        """A resolution or a repeatability in the unit of the gauge's kind; a number without a unit is in that unit."""
        text = str(data.get(name) or "")
        data[name] = None
        if not text:
            return
        measures = Gauge.KINDS.get(str(data.get("kind")), "length")
        kind = STEP_KINDS.get(measures, measures)
        try:
            found = parse(text, kind, STEP_UNITS[kind], ton=Shop.current().ton or None).canonical
        except BadInput as error:
            self.add_error(name, error.message)
            return
        if not 1e-6 <= found <= LARGEST_STEP:
            self.add_error(name, _("{found} was understood; a step lies above 0.").format(found=show(exact(found, kind, finest=1e-6))))
            return
        data[name] = significant(found, 6)

    def clean(self) -> dict[str, Any]:
        data = super().clean() or {}
        for name in ("resolution", "repeatability"):
            if name in data:
                self._step(data, name)
        if data.get("kind") == Gauge.Kind.INFRARED and not data.get("emissivity"):
            self.add_error("emissivity", _("An infrared gun needs the emissivity it is set to; most are fixed at 0.95."))
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
            raise forms.ValidationError(_("Type plain numbers with spaces between, all in the gauge's unit.")) from error
        return " ".join(typed)

    def save(self, commit: bool = True) -> Any:
        if self.found is not None:
            self.instance.repeatability = significant(self.found, 3)
        return super().save(commit)


class PullerForm(PlainTextMixin, forms.ModelForm):
    thread_mm = QuantityField("length", unit=MM, low=8, high=80, label=_("Thread, over the crests"))
    pitch_mm = QuantityField("thread_pitch", unit=MM, low=0.3, high=6, label=_("Its pitch"), help_text=_("1 mm or 26 tpi"))
    screw_mm = QuantityField("length", unit=MM, low=5, high=40, label=_("Centre screw"), initial=12.0)
    screw_pitch_mm = QuantityField("thread_pitch", unit=MM, low=0.5, high=4, label=_("Pitch of the centre screw"), initial=1.25)
    tip_radius_mm = QuantityField("length", low=0.5, high=20, label=_("Radius its tip rubs at"), initial=3.0)

    class Meta:
        model = Puller
        fields = ("name", "thread_mm", "pitch_mm", "hand", "screw_mm", "screw_pitch_mm", "tip_radius_mm", "retired")


class PersonForm(PlainTextMixin, BaseUserCreationForm):
    class Meta:
        model = Person
        fields = ("username", "first_name", "role")
        labels = {"username": _("Sign-in name"), "first_name": _("Name in the log")}
        help_texts = {"username": _("letters, figures and . - _")}

    def __init__(self, *args: Any, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        self.fields["username"].widget.attrs.pop("autofocus", None)
        self.fields["password1"].label, self.fields["password2"].label = _("First password"), _("First password once more")
        self.fields["password2"].help_text = ""


class FirstPasswordForm(SetPasswordForm):
    """A password given by the owner, to be changed at the next sign-in."""

    prefix = "first"

    def __init__(self, *args: Any, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        self.fields["new_password1"].label, self.fields["new_password2"].label = _("First password"), _("Once more")
        self.auto_id = f"id_{self.user.pk}_%s"


class DriverForm(PlainTextMixin, forms.ModelForm):
    outside_mm = QuantityField("length", low=4, high=250, label=_("Outside diameter"))
    inside_mm = QuantityField("length", low=-1, high=249, label=_("Inside diameter"), initial=0.0, help_text=_("0 when it is solid"))

    class Meta:
        model = Driver
        fields = ("name", "kind", "outside_mm", "inside_mm", "retired")

    def clean(self) -> dict[str, Any]:
        data = super().clean() or {}
        if data.get("outside_mm") and data.get("inside_mm") is not None and not 0 <= data["inside_mm"] < data["outside_mm"]:
            self.add_error("inside_mm", _("The inside is smaller than the outside, and 0 when it is solid."))
        return data


class SplitterForm(PlainTextMixin, forms.ModelForm):
    thread_mm = QuantityField(
        "length", unit=MM, low=3.9, high=20, label=_("Screws into the case"), initial=6.0, help_text=_("6 mm, 1/4 in")
    )
    pitch_mm = QuantityField("thread_pitch", unit=MM, low=0.49, high=3, label=_("Their pitch"), initial=1.0)
    push_pitch_mm = QuantityField("thread_pitch", unit=MM, low=0.49, high=4, label=_("Pitch of the push screw"), initial=1.5)

    class Meta:
        model = Splitter
        fields = ("name", "thread_mm", "pitch_mm", "screws", "push_pitch_mm", "retired")


class PullInForm(PlainTextMixin, forms.ModelForm):
    thread_mm = QuantityField("length", unit=MM, low=4.9, high=60, label=_("Adapter thread"))
    thread_pitch_mm = QuantityField("thread_pitch", unit=MM, low=0.49, high=4, label=_("Its pitch"))
    pitch_mm = QuantityField("thread_pitch", unit=MM, low=0.49, high=6, label=_("Pitch of the pulling screw"))

    class Meta:
        model = PullIn
        fields = ("name", "thread_mm", "thread_pitch_mm", "pitch_mm", "retired")


class PressForm(PlainTextMixin, forms.ModelForm):
    capacity_text = forms.CharField(max_length=40, label=_("Capacity"), help_text=_("12 t, 20 short ton, 100 kN"))

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
            values = {"found": show(newtons(found.canonical)), "low": show(newtons(1000.0)), "high": show(newtons(5e6))}
            raise forms.ValidationError(_("{found} was understood; a press has {low} to {high}.").format(**values))
        self.instance.capacity_n = found.canonical
        return text


class ExtractorForm(PlainTextMixin, forms.ModelForm):
    low_mm = QuantityField("length", low=1.9, high=250, label=_("Takes from"), initial=8.0)
    high_mm = QuantityField("length", low=2.9, high=400, label=_("up to"), initial=60.0)

    class Meta:
        model = Extractor
        fields = ("name", "kind", "low_mm", "high_mm", "retired")


class BladesForm(PlainTextMixin, forms.ModelForm):
    sizes_mm = SizesField(label=_("Thicknesses"), help_text=_("with spaces between: 0.05 0.10 0.15, or 2 thou 4 thou"))

    class Meta:
        model = Blades
        fields = ("name", "kind", "sizes_mm", "retired")


class CompoundForm(PlainTextMixin, forms.ModelForm):
    open_s = QuantityField("time", low=9, high=86400, required=False, label=_("Open time"), help_text=_("off its own sheet: 10 min"))
    cure_s = QuantityField("time", low=59, high=604800, required=False, label=_("Cured in"), help_text="24 h")
    gap_mm = QuantityField("length", low=0.009, high=3, required=False, label=_("Fills gaps up to"))

    class Meta:
        model = Compound
        fields = ("name", "kind", "strength", "open_s", "cure_s", "gap_mm", "good_until", "retired")
        labels = {"good_until": _("Good until")}
        widgets = {"good_until": forms.DateInput(attrs={"type": "date"})}
