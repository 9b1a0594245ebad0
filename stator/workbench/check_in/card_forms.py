"""The parts of an engine card, each with its own small form.

What is unknown stays empty; what is usual is marked as taken.
"""

from __future__ import annotations

from typing import Any

from django import forms
from django.forms.models import model_to_dict
from django.utils.translation import gettext
from django.utils.translation import gettext_lazy as _

from shopmath import materials
from shopmath.iso286 import limits
from shopmath.notation import metric_thread, three_sizes
from shopmath.validation import BadInput
from stator.engines.case import case_choices
from stator.engines.models import EngineCard, Fitted, Joint, Mark, Seal, case_metals
from stator.ui.fields import QuantityField, RatioField
from stator.ui.number_format import size, trade
from stator.ui.plain_text import PlainTextMixin
from stator.ui.table_texts import from_table_lazily
from stator.ui.units import KG, MM
from stator.workbench.check_in.case_forms import half_field
from stator.workbench.check_in.notation import spread


class FactsForm(PlainTextMixin, forms.ModelForm):
    """The engine."""

    prefix = "facts"
    stroke_mm = QuantityField("length", low=10, high=200, required=False, label=_("Stroke"), help_text=_("54 mm; empty if unknown"))
    face_w_mm = QuantityField("length", low=40, high=900, label=_("Joint face, across"))
    face_h_mm = QuantityField("length", low=40, high=900, label=_("Joint face, up and down"))
    case_material = forms.ChoiceField(choices=case_metals, label=_("Case metal"))
    lifts = forms.ChoiceField(required=False, label=_("The half that lifts off"))

    class Meta:
        model = EngineCard
        fields = (
            "name",
            "summary",
            "layout",
            "crank",
            "two_cranks",
            "stroke_mm",
            "case_material",
            "painted",
            "left_name",
            "right_name",
            "lifts",
            "crank_stays",
            "face_w_mm",
            "face_h_mm",
        )
        labels = {
            "name": _("Engine"),
            "summary": _("In a few words"),
            "left_name": _("Its left is the"),
            "right_name": _("Its right is the"),
            "crank_stays": _("The crank stays in the"),
            "painted": _("The case is painted"),
            "two_cranks": _("Two cranks, one on each side of the centre section"),
        }

    def __init__(self, *args: Any, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        lifts = self.fields["lifts"]
        assert isinstance(lifts, forms.ChoiceField)
        lifts.choices = [("", _("unknown")), *case_choices(self.instance)]

    def save(self, commit: bool = True) -> EngineCard:
        if "case_material" in self.changed_data:
            self.instance.case_material_assumed = False
        if {"face_w_mm", "face_h_mm"} & set(self.changed_data):
            self.instance.face_assumed = False
        found: EngineCard = super().save(commit)
        return found


class FlywheelForm(PlainTextMixin, forms.ModelForm):
    """The taper and the data of the flywheel.

    Unknown values are empty and shown as unknown where they are needed.
    """

    prefix = "wheel"
    taper_ratio = RatioField(low=2, high=30, required=False, label=_("Taper ratio"), help_text=_("1:5; empty if unknown"))
    nut_d_mm = QuantityField("length", unit=MM, low=4, high=60, required=False, label=_("Nut thread"), help_text=_("12 mm, 1/2 in"))
    nut_torque_nm = QuantityField("torque", low=1, high=600, required=False, label=_("Nut torque"), help_text=_("55 Nm, 40 ft-lb"))
    shaft_d_mm = QuantityField("length", low=4, high=80, required=False, label=_("Shaft at the key"))
    boss_d_mm = QuantityField(
        "length", unit=MM, low=8, high=80, required=False, label=_("Puller thread in the boss, its size"), help_text=_("27 mm, or M27x1")
    )
    boss_pitch_mm = QuantityField(
        "thread_pitch", unit=MM, low=0.3, high=6, required=False, label=_("Its pitch"), help_text=_("1 mm or 26 tpi")
    )
    wheel_kg = QuantityField("mass", unit=KG, low=0.05, high=200, required=False, label=_("Flywheel mass"))
    wheel_rpm = QuantityField("speed", low=100, high=30000, required=False, label=_("Working speed"))

    class Meta:
        model = EngineCard
        fields = (
            "cone",
            "taper_ratio",
            "nut_d_mm",
            "nut_torque_nm",
            "shaft_d_mm",
            "key",
            "boss_d_mm",
            "boss_pitch_mm",
            "boss_hand",
            "wheel_kg",
            "wheel_rpm",
            "flywheel_source",
        )
        labels = {"flywheel_source": _("Where these are from"), "cone": _("It sits on a"), "boss_hand": _("Its hand")}
        help_texts = {"flywheel_source": _("manual page, drawing, measured")}

    def __init__(self, data: Any = None, *args: Any, **kwargs: Any) -> None:
        super().__init__(spread(data, self.prefix, ("boss_d_mm", "boss_pitch_mm"), metric_thread), *args, **kwargs)


class MarkForm(PlainTextMixin, forms.ModelForm):
    """A bolt, dowel or gap place put on the face."""

    prefix = "mark"
    x_mm = QuantityField("length", low=-5000, high=5000, label="x", help_text=_("to the right of the middle"))
    y_mm = QuantityField("length", low=-5000, high=5000, label="y", help_text=_("up from the middle"))
    d_mm = QuantityField(
        "length", unit=MM, low=1.99, high=30, required=False, label=_("Thread"), initial=6.0, help_text=_("6 mm, M6 or M8x1")
    )
    pitch_mm = QuantityField("thread_pitch", unit=MM, low=0.29, high=4, required=False, label=_("Pitch"), initial=1.0)
    length_mm = QuantityField("length", low=2.9, high=400, required=False, label=_("Length under the head"))
    torque_nm = QuantityField("torque", low=0.49, high=400, required=False, label=_("Torque"))
    clearance_mm = QuantityField("length", small=True, low=-0.001, high=1, required=False, label=_("Dowel's clearance"))
    engaged_mm = QuantityField("length", low=0.49, high=60, required=False, label=_("Dowel's depth in the other half"))
    joint = forms.SlugField(required=False, max_length=32, widget=forms.HiddenInput)

    class Meta:
        model = Mark
        fields = (
            "what",
            "name",
            "x_mm",
            "y_mm",
            "d_mm",
            "pitch_mm",
            "length_mm",
            "torque_nm",
            "clearance_mm",
            "engaged_mm",
            "source",
            "joint",
        )
        labels = {"source": _("Where these are from")}

    def __init__(self, data: Any = None, *args: Any, card: EngineCard, **kwargs: Any) -> None:
        super().__init__(spread(data, self.prefix, ("d_mm", "pitch_mm"), metric_thread), *args, **kwargs)
        self.card = card
        self.fields["name"].required = False

    @property
    def face(self) -> Joint | None:
        """Return the joint of the part."""
        uid = self.cleaned_data.get("joint") or self.instance.joint
        return next((joint for joint in self.card.joints.all() if joint.uid == uid), None)

    def clean_joint(self) -> str:
        if self.face is None:
            raise forms.ValidationError(_("This card has no joint {name!r}.").format(name=self.cleaned_data.get("joint")))
        return self.face.uid

    def clean_name(self) -> str:
        name = (self.cleaned_data.get("name") or "").strip()
        others = self.card.marks.exclude(pk=self.instance.pk)
        taken = {mark.name for mark in others}
        if not name:
            what = self.data.get(self.add_prefix("what"), "bolt")
            word = {"dowel": "dowel ", "gap": "gap "}.get(what, "")
            name = next(f"{word}{number}" for number in range(1, 400) if f"{word}{number}" not in taken)
        if name in taken:
            raise forms.ValidationError(_("There is a {name!r} on this face already.").format(name=name))
        return name

    def clean(self) -> dict[str, Any]:
        data = super().clean() or {}
        for name in ("d_mm", "pitch_mm", "clearance_mm", "engaged_mm"):
            if data.get(name) is None:
                data[name] = getattr(self.instance, name)
        reaches = self.face.face_mm if self.face else (self.card.face_w_mm, self.card.face_h_mm)
        for name, half in zip(("x_mm", "y_mm"), (side / 2 for side in reaches), strict=True):
            if data.get(name) is not None and abs(data[name]) > half + 0.01:
                self.add_error(
                    name,
                    _("The face reaches {half} from its middle; {place} lies off it. Make the face larger first.").format(
                        half=size(half), place=size(data[name])
                    ),
                )
        return data

    def save(self, commit: bool = True) -> Mark:
        measured = {"d_mm", "pitch_mm", "length_mm", "torque_nm", "clearance_mm", "engaged_mm", "source"}
        self.instance.card = self.card
        self.instance.assumed = self.instance.assumed and not (measured & set(self.changed_data) and self.cleaned_data.get("source"))
        found: Mark = super().save(commit)
        return found


class SealForm(PlainTextMixin, forms.ModelForm):
    """A shaft seal."""

    prefix = "seal"
    shaft_mm = QuantityField("length", unit=MM, low=3, high=200, label=_("Shaft"), help_text=_("25 mm, or all three: 25x40x7"))
    bore_mm = QuantityField("length", unit=MM, low=5, high=250, label=_("Its bore in the case"))
    width_mm = QuantityField("length", unit=MM, low=1.9, high=40, label=_("Width"))
    depth_mm = QuantityField(
        "length", low=-5, high=60, required=False, label=_("Depth below the face"), help_text=_("empty: flush, marked as assumed")
    )

    class Meta:
        model = Seal
        fields = ("name", "half", "seat", "shaft_mm", "bore_mm", "width_mm", "lip", "loads_from", "depth_mm", "source")
        labels = {
            "name": _("Which seal"),
            "seat": _("In front of the bearing of"),
            "source": _("Where these are from"),
        }

    def __init__(self, data: Any = None, *args: Any, card: EngineCard, **kwargs: Any) -> None:
        super().__init__(spread(data, self.prefix, ("shaft_mm", "bore_mm", "width_mm"), three_sizes), *args, **kwargs)
        self.card = card
        self.fields["name"].required = False
        self.fields["half"] = half_field(card)
        seats = self.fields["seat"]
        assert isinstance(seats, forms.ModelChoiceField)
        seats.queryset = card.seats.all()

    def clean_name(self) -> str:
        name = (self.cleaned_data.get("name") or gettext("Crank seal")).strip()
        if self.card.seals.filter(name=name).exclude(pk=self.instance.pk).exists():
            raise forms.ValidationError(_("This engine has a seal called {name!r} already.").format(name=name))
        return name

    def clean(self) -> dict[str, Any]:
        data = super().clean() or {}
        if data.get("shaft_mm") and data.get("bore_mm") and data["bore_mm"] <= data["shaft_mm"]:
            self.add_error(
                "bore_mm",
                _("The bore ({bore} mm) must be larger than the shaft ({shaft} mm).").format(
                    bore=trade(data["bore_mm"]), shaft=trade(data["shaft_mm"])
                ),
            )
        self.instance.depth_assumed, self.instance.sizes_assumed = data.get("depth_mm") is None, False
        data["depth_mm"] = data.get("depth_mm") or 0.0
        return data

    def save(self, commit: bool = True) -> Seal:
        self.instance.card = self.card
        found: Seal = super().save(commit)
        return found


class FittedForm(PlainTextMixin, forms.ModelForm):
    """A pin, bushing, plug or rubber bushing: its fit, its orientation, and the parts on it."""

    prefix = "fitted"
    d_mm = QuantityField("length", low=0.9, high=200, label=_("Outside"))
    bore_mm = QuantityField("length", low=-0.001, high=199, required=False, label=_("Inside"), help_text=_("empty when it is solid"))
    length_mm = QuantityField("length", low=0.9, high=300, label=_("Length"))
    depth_mm = QuantityField("length", low=-60, high=60, required=False, label=_("Its end below the face"), help_text=_("0 is flush"))
    depth_within_mm = QuantityField("length", small=True, low=0.009, high=10, required=False, label=_("within"), initial=0.3)
    metal = forms.ChoiceField(
        choices=[(key, from_table_lazily(materials.get(key).name)) for key in Fitted.METALS], label=_("Metal"), required=False
    )

    class Meta:
        model = Fitted
        fields = (
            "name",
            "kind",
            "half",
            "loads_from",
            "d_mm",
            "bore_mm",
            "length_mm",
            "metal",
            "hole_code",
            "part_code",
            "depth_mm",
            "depth_within_mm",
            "turned",
            "angle_deg",
            "angle_within_deg",
            "either_end",
            "order",
            "after",
            "source",
        )
        labels = {
            "name": _("Which part"),
            "after": _("It goes in after the bearing of"),
            "turned": _("What is turned"),
            "angle_deg": _("It points to, degrees"),
            "source": _("Where these are from"),
        }
        help_texts = {"angle_deg": _("counter-clockwise from the right, as the face is drawn; empty when it has no direction")}

    def __init__(self, *args: Any, card: EngineCard, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        self.card = card
        for name in ("hole_code", "part_code", "angle_within_deg", "metal"):
            self.fields[name].required = False
        self.fields["half"] = half_field(card)
        after = self.fields["after"]
        assert isinstance(after, forms.ModelChoiceField)
        after.queryset = card.seats.all()

    def clean_name(self) -> str:
        name = str(self.cleaned_data["name"]).strip()
        if self.card.fitted.filter(name=name).exclude(pk=self.instance.pk).exists():
            raise forms.ValidationError(_("This engine has a part called {name!r} already.").format(name=name))
        return name

    def clean(self) -> dict[str, Any]:
        data = super().clean() or {}
        for name in ("bore_mm", "depth_mm"):
            data[name] = data.get(name) or 0.0
        usual = model_to_dict(Fitted())
        for name in ("depth_within_mm", "hole_code", "part_code", "angle_within_deg", "metal"):
            data[name] = data.get(name) or usual[name]
        if data.get("d_mm") and data["bore_mm"] >= data["d_mm"]:
            self.add_error(
                "bore_mm",
                _("The inside ({inside}) is smaller than the outside ({outside}).").format(
                    inside=size(data["bore_mm"]), outside=size(data["d_mm"])
                ),
            )
        for name in (
            ("hole_code", "part_code") if data.get("d_mm") and data.get("kind") not in (Fitted.Kind.RUBBER, Fitted.Kind.HOLE) else ()
        ):
            try:
                limits(data[name], data["d_mm"])
            except BadInput as error:
                self.add_error(name, error.message)
        if data.get("angle_deg") is not None and not data.get("turned"):
            self.add_error("turned", _("Say what points there: the flat, a groove, the oil hole."))
        return data

    def save(self, commit: bool = True) -> Fitted:
        self.instance.card = self.card
        found: Fitted = super().save(commit)
        return found
