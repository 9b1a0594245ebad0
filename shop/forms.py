"""The shop's own figures, in any unit."""

from __future__ import annotations

from typing import Any

from django import forms
from django.contrib.auth.forms import AuthenticationForm, BaseUserCreationForm

from shop.models import Chiller, Gauge, Heater, Person, Puller, Shop
from shopmath.quantity import TONS
from ui.fields import QuantityField


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
    highest_c = QuantityField("temperature", "C", low=39, high=700, required=False, label="Highest setting")

    class Meta:
        model = Heater
        fields = ("name", "method", "highest_c", "fan", "cooks_food", "retired")


class ChillerForm(forms.ModelForm):
    temperature_c = QuantityField("temperature", "C", low=-101, high=10, label="Temperature inside")

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


class PullerForm(forms.ModelForm):
    thread_mm = QuantityField("length", "mm", low=8, high=80, label="Thread, over the crests")
    pitch_mm = QuantityField("thread_pitch", "mm", low=0.3, high=6, label="Its pitch", help_text="1 mm or 26 tpi")
    screw_mm = QuantityField("length", "mm", low=5, high=40, label="Centre screw", initial="12")
    screw_pitch_mm = QuantityField("thread_pitch", "mm", low=0.5, high=4, label="Pitch of the centre screw", initial="1.25")
    tip_radius_mm = QuantityField("length", "mm", low=0.5, high=20, label="Radius its tip rubs at", initial="3")

    class Meta:
        model = Puller
        fields = ("name", "thread_mm", "pitch_mm", "hand", "screw_mm", "screw_pitch_mm", "tip_radius_mm", "retired")


class PersonForm(BaseUserCreationForm):
    class Meta:
        model = Person
        fields = ("username", "first_name", "role")
        labels = {"username": "Sign-in name", "first_name": "Name in the log"}
