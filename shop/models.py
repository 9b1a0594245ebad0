"""The shop's people and its own equipment, with the numbers that matter."""

from __future__ import annotations

from typing import Any

from django.contrib.auth.models import AbstractUser
from django.core.validators import MaxValueValidator, MinValueValidator
from django.db import models

from shopmath.thermal.seat import LOCAL_OPENING


class Person(AbstractUser):
    """Someone who signs in. Owners may change the shop's figures; everyone works at the bench."""

    class Role(models.TextChoices):
        OWNER = "owner", "owner"
        MECHANIC = "mechanic", "mechanic"

    role = models.CharField(max_length=10, choices=Role, default=Role.MECHANIC)

    @property
    def is_owner(self) -> bool:
        return self.role == self.Role.OWNER

    @property
    def called(self) -> str:
        """The name that goes into the log."""
        return self.get_full_name() or self.username


class Shop(models.Model):
    """What holds for the whole shop. One row."""

    name = models.CharField(max_length=80, default="The shop")
    ton = models.CharField(max_length=10, blank=True, help_text="What a bare ton means on the presses here.")
    local_opening = models.FloatField(
        default=LOCAL_OPENING.likely,
        validators=[MinValueValidator(0.1), MaxValueValidator(1.0)],
        help_text="How much of its full opening a boss reaches when it is heated alone (estimate).",
    )
    handling_s = models.FloatField(default=20.0, validators=[MinValueValidator(1), MaxValueValidator(600)])
    stocked = models.CharField(max_length=32, blank=True, editable=False, help_text="Changes with every change on the shelves.")

    class Meta:
        constraints = [models.CheckConstraint(condition=models.Q(pk=1), name="one_shop")]

    def __str__(self) -> str:
        return self.name

    def save(self, *args: Any, **kwargs: Any) -> None:
        self.pk = 1
        super().save(*args, **kwargs)

    @classmethod
    def current(cls) -> Shop:
        """The one row, made on first use."""
        return cls.objects.filter(pk=1).first() or cls.objects.get_or_create(pk=1)[0]


class Equipment(models.Model):
    """Something on the shelf. Retired, never deleted: the log points at it."""

    name = models.CharField(max_length=60, unique=True)
    retired = models.BooleanField(default=False)

    class Meta:
        abstract = True
        ordering = ["name"]

    def __str__(self) -> str:
        return self.name


class Heater(Equipment):
    """What heats cases."""

    class Method(models.TextChoices):
        OVEN = "oven", "oven"
        HOT_PLATE = "hot_plate", "hot plate"
        TORCH = "torch", "torch"
        HEAT_GUN = "heat_gun", "heat gun"

    method = models.CharField(max_length=10, choices=Method)
    highest_c = models.FloatField("highest setting", null=True, blank=True, validators=[MinValueValidator(40), MaxValueValidator(700)])
    fan = models.BooleanField("fan oven", default=False)
    cooks_food = models.BooleanField("also cooks food", default=False)


class Chiller(Equipment):
    """What chills bearings and shafts."""

    class Method(models.TextChoices):
        FREEZER = "freezer", "freezer"
        DRY_ICE = "dry_ice", "dry ice"
        SPRAY = "spray", "freeze spray"

    method = models.CharField(max_length=10, choices=Method)
    temperature_c = models.FloatField("temperature", validators=[MinValueValidator(-100), MaxValueValidator(10)])


class Puller(Equipment):
    """A flywheel puller: its thread in the boss, and its centre screw."""

    class Hand(models.TextChoices):
        RIGHT = "right", "right-hand"
        LEFT = "left", "left-hand"

    thread_mm = models.FloatField("thread, outside", validators=[MinValueValidator(8), MaxValueValidator(80)])
    pitch_mm = models.FloatField("its pitch", validators=[MinValueValidator(0.3), MaxValueValidator(6)])
    hand = models.CharField(max_length=5, choices=Hand, default=Hand.RIGHT)
    screw_mm = models.FloatField("centre screw", default=12.0, validators=[MinValueValidator(5), MaxValueValidator(40)])
    screw_pitch_mm = models.FloatField("its pitch", default=1.25, validators=[MinValueValidator(0.5), MaxValueValidator(4)])
    tip_radius_mm = models.FloatField("tip radius", default=3.0, validators=[MinValueValidator(0.5), MaxValueValidator(20)])


class Gauge(Equipment):
    """What measures, with what it can resolve and when it was last checked."""

    class Kind(models.TextChoices):
        CONTACT = "contact", "contact thermometer"
        INFRARED = "infrared", "infrared gun"
        BORE = "bore", "bore gauge"
        MICROMETER = "micrometer", "micrometer"
        CALLIPER = "calliper", "calliper"
        FEELER = "feeler", "feeler blades"

    TEMPERATURE = ("contact", "infrared")

    kind = models.CharField(max_length=12, choices=Kind)
    resolution = models.FloatField(help_text="Smallest step shown, mm or K.", validators=[MinValueValidator(1e-6)])
    repeatability = models.FloatField(null=True, blank=True, help_text="Sample standard deviation, mm or K; empty if unknown.")
    emissivity = models.FloatField(null=True, blank=True, validators=[MinValueValidator(0.05), MaxValueValidator(1.0)])
    last_checked = models.DateField(null=True, blank=True)

    class Meta(Equipment.Meta):
        constraints = [
            models.CheckConstraint(condition=models.Q(resolution__gt=0), name="gauge_resolves"),
            models.CheckConstraint(condition=~models.Q(kind="infrared") | models.Q(emissivity__isnull=False), name="gun_has_emissivity"),
        ]

    @property
    def unit(self) -> str:
        return "°C" if self.kind in self.TEMPERATURE else "mm"
