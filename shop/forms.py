"""The shop's own figures, in any unit."""

from __future__ import annotations

from typing import Any

from django import forms
from django.contrib.auth.forms import AuthenticationForm, BaseUserCreationForm

from shop.models import Chiller, Gauge, Heater, Person, Shop
from shopmath.checks import BadInput
from shopmath.quantity import TONS, parse


class TemperatureField(forms.CharField):
    """A temperature typed in any unit, kept in °C."""

    def clean(self, value: Any) -> float | None:
        text = super().clean(value)
        if not text:
            return None
        try:
            return round(parse(text, "temperature", "C").canonical, 1)
        except BadInput as error:
            raise forms.ValidationError(error.message) from error


class SignInForm(AuthenticationForm):
    error_messages = {
        "invalid_login": "That name and password do not belong together. Capitals count.",
        "inactive": "This sign-in is switched off.",
    }


class ShopForm(forms.ModelForm):
    ton = forms.ChoiceField(choices=[("", "ask each time"), *((ton, ton) for ton in TONS)], required=False, label="A bare ton here is a")

    class Meta:
        model = Shop
        fields = ("name", "ton", "local_opening", "handling_s")
        labels = {
            "name": "Name of the shop",
            "local_opening": "A boss heated alone opens, as a share",
            "handling_s": "Seconds from the heat to the seat",
        }


class HeaterForm(forms.ModelForm):
    highest_c = TemperatureField(required=False, label="Highest setting")

    class Meta:
        model = Heater
        fields = ("name", "method", "highest_c", "fan", "cooks_food", "retired")


class ChillerForm(forms.ModelForm):
    temperature_c = TemperatureField(label="Temperature inside")

    class Meta:
        model = Chiller
        fields = ("name", "method", "temperature_c", "retired")


class GaugeForm(forms.ModelForm):
    class Meta:
        model = Gauge
        fields = ("name", "kind", "resolution", "repeatability", "emissivity", "last_checked", "retired")
        widgets = {"last_checked": forms.DateInput(attrs={"type": "date"})}

    def clean(self) -> dict[str, Any]:
        data = super().clean() or {}
        if data.get("kind") == Gauge.Kind.INFRARED and not data.get("emissivity"):
            self.add_error("emissivity", "An infrared gun needs the emissivity it is set to; most are fixed at 0.95.")
        return data


class PersonForm(BaseUserCreationForm):
    class Meta:
        model = Person
        fields = ("username", "first_name", "role")
        labels = {"username": "Sign-in name", "first_name": "Name in the log"}
