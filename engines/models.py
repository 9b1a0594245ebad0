"""Engine cards: what an engine is made of and what it should measure, with the source of each figure."""

from __future__ import annotations

from django.core.validators import MaxValueValidator, MinValueValidator
from django.db import models
from django.db.models import Q

from shopmath import materials


def case_metals() -> list[tuple[str, str]]:
    return [(key, materials.get(key).name) for key in ("al-si7-mg", "al-si9-cu3", "adc12", "al-6082", "al-7075", "az91d", "gjl-250")]


class EngineCard(models.Model):
    """One engine type, as known. A job keeps the version of the card it was done by."""

    class Layout(models.TextChoices):
        SINGLE = "single", "single"
        TWIN = "twin", "twin"
        FLAT_TWIN = "flat_twin", "flat twin"
        VEE = "vee", "V"
        MULTI = "multi", "multi"

    name = models.CharField(max_length=60)
    summary = models.CharField(max_length=80, blank=True, help_text="In trade words: trials single, two-stroke.")
    layout = models.CharField(max_length=10, choices=Layout, default=Layout.SINGLE)
    case_material = models.CharField(max_length=20, default="al-si7-mg")
    case_material_assumed = models.BooleanField(default=True, help_text="Taken as usual, not read off a drawing.")
    left_name = models.CharField("left side", max_length=30, default="drive side")
    right_name = models.CharField("right side", max_length=30, default="magneto side")
    painted = models.BooleanField(default=False)
    taper_ratio = models.FloatField("flywheel taper, 1 in", null=True, blank=True, validators=[MinValueValidator(2), MaxValueValidator(30)])
    nut_d_mm = models.FloatField("flywheel nut thread", null=True, blank=True, validators=[MinValueValidator(4), MaxValueValidator(60)])
    nut_torque_nm = models.FloatField(
        "flywheel nut torque", null=True, blank=True, validators=[MinValueValidator(1), MaxValueValidator(600)]
    )
    shaft_d_mm = models.FloatField("shaft at the key", null=True, blank=True, validators=[MinValueValidator(4), MaxValueValidator(80)])
    flywheel_source = models.CharField("where these are from", max_length=80, blank=True)
    version = models.PositiveIntegerField(default=1)
    made_at = models.DateTimeField(auto_now_add=True)

    def __str__(self) -> str:
        return self.name


class Seat(models.Model):
    """A place a bearing sits: in a bore of the case, or on a shaft."""

    class On(models.TextChoices):
        CASE = "case", "into the case"
        SHAFT = "shaft", "onto a shaft"

    class Half(models.TextChoices):
        LEFT = "left", "left half"
        RIGHT = "right", "right half"
        CRANK = "crank", "crank"

    class From(models.TextChoices):
        INSIDE = "inside", "from inside"
        OUTSIDE = "outside", "from outside"

    class Stop(models.TextChoices):
        SHOULDER = "shoulder", "shoulder"
        CIRCLIP = "circlip", "circlip"
        PLATE = "plate", "plate"
        THROUGH = "through", "through bore"

    card = models.ForeignKey(EngineCard, on_delete=models.CASCADE, related_name="seats")
    name = models.CharField(max_length=60)
    on = models.CharField(max_length=6, choices=On, default=On.CASE)
    half = models.CharField(max_length=6, choices=Half, default=Half.LEFT)
    loads_from = models.CharField(max_length=8, choices=From, default=From.INSIDE)
    stop = models.CharField(max_length=10, choices=Stop, default=Stop.SHOULDER)
    designation = models.CharField("bearing marking", max_length=40, blank=True)
    bore_mm = models.FloatField(null=True, blank=True)
    outside_mm = models.FloatField(null=True, blank=True)
    width_mm = models.FloatField(null=True, blank=True)
    code = models.CharField("fit code of the seat", max_length=6, blank=True)
    code_assumed = models.BooleanField(default=False)
    measured_mm = models.FloatField("seat measured", null=True, blank=True)
    left_in = models.JSONField(default=list, blank=True)
    shaft_material = models.CharField(max_length=20, default="42crmo4")
    source = models.CharField(max_length=80, blank=True, help_text="Manual page, drawing, measured, shop rule.")

    class Meta:
        ordering = ["pk"]
        constraints = [
            models.CheckConstraint(
                condition=~Q(designation="")
                | Q(
                    # an unknown size compares as unknown, which a check lets pass: say it outright
                    bore_mm__isnull=False,
                    outside_mm__isnull=False,
                    width_mm__isnull=False,
                    bore_mm__gt=0,
                    outside_mm__gt=models.F("bore_mm"),
                    width_mm__gt=0,
                ),
                name="seat_bearing_known",
                violation_error_message="Give the bearing's marking, or its bore, outside and width.",
            ),
            models.CheckConstraint(
                condition=~Q(code="") | Q(measured_mm__isnull=False, measured_mm__gt=0),
                name="seat_size_known",
                violation_error_message="Give the fit code of the seat, or its measured size.",
            ),
            models.UniqueConstraint(fields=["card", "name"], name="seat_named_once"),
        ]

    def __str__(self) -> str:
        return self.name

    @property
    def side_name(self) -> str:
        """The half in the trade's words for this engine."""
        return {"left": self.card.left_name, "right": self.card.right_name}.get(self.half, "crank")
