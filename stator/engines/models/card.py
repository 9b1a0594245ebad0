"""The card itself, and the subjects that readings are about."""

from __future__ import annotations

import uuid
from typing import Any

from django.core.validators import MaxValueValidator, MinValueValidator
from django.db import models
from django.db.models import Q
from django.utils.translation import gettext
from django.utils.translation import gettext_lazy as _

from shopmath import materials
from stator.engines.parts import HALVES, JOINT, Kind, Part, counted_name, new_uid, of_every_engine
from stator.ui.table_texts import from_table_lazily


def case_metals() -> list[tuple[str, Any]]:
    """Metals that cases are made of."""
    metals = ("al-si7-mg", "al-si9-cu3", "adc12", "al-6082", "al-7075", "az91d", "gjl-250")
    return [(key, from_table_lazily(materials.get(key).name)) for key in metals]


class Hand(models.TextChoices):
    UNKNOWN = "", _("unknown")
    RIGHT = "right", _("right-hand")
    LEFT = "left", _("left-hand")


class EngineCard(models.Model):
    """An engine type.

    `family` relates an engine template to its copies in jobs; `version` is the version that was copied.
    """

    class Layout(models.TextChoices):
        SINGLE = "single", _("single")
        TWIN = "twin", _("twin")
        FLAT_TWIN = "flat_twin", _("flat twin")
        VEE = "vee", "V"
        MULTI = "multi", _("multi")

    class Crank(models.TextChoices):
        UNKNOWN = "", _("unknown")
        BUILT_UP = "built_up", _("built up, pressed")
        ONE_PIECE = "one_piece", _("one piece")

    class Side(models.TextChoices):
        UNKNOWN = "", _("unknown")
        LEFT = "left", _("left")
        RIGHT = "right", _("right")

    class Cone(models.TextChoices):
        UNKNOWN = "", _("unknown")
        TAPER = "taper", _("taper")
        STRAIGHT = "straight", _("straight")

    class Key(models.TextChoices):
        UNKNOWN = "", _("unknown")
        NONE = "none", _("no key")
        WOODRUFF = "woodruff", _("Woodruff key")
        STRAIGHT = "straight", _("straight key")
        STEPPED = "stepped", _("offset key")

    family = models.UUIDField(default=uuid.uuid4, editable=False, db_index=True)
    on_shelf = models.BooleanField(default=False, help_text=_("Kept to be copied for the next job."))
    name = models.CharField(max_length=60)
    summary = models.CharField(max_length=80, blank=True, help_text=_("In trade words: trials single, two-stroke."))
    layout = models.CharField(max_length=10, choices=Layout, default=Layout.SINGLE)
    case_material = models.CharField(max_length=20, default="al-si7-mg")
    case_material_assumed = models.BooleanField(default=True, help_text=_("Taken as usual, not read off a drawing."))
    left_name = models.CharField(_("left side"), max_length=30, default="drive side")
    right_name = models.CharField(_("right side"), max_length=30, default="magneto side")
    painted = models.BooleanField(default=False)
    crank = models.CharField(max_length=10, choices=Crank, blank=True)
    two_cranks = models.BooleanField(default=False, help_text=_("One on each side of the centre section, instead of one through it."))
    stroke_mm = models.FloatField(_("stroke"), null=True, blank=True, validators=[MinValueValidator(10), MaxValueValidator(200)])
    lifts = models.CharField(_("the half that lifts off"), max_length=32, blank=True)
    crank_stays = models.CharField(_("the crank stays in the"), max_length=5, choices=Side, blank=True)
    face_w_mm = models.FloatField(_("joint face, across"), default=240.0, validators=[MinValueValidator(40), MaxValueValidator(900)])
    face_h_mm = models.FloatField(_("joint face, up"), default=200.0, validators=[MinValueValidator(40), MaxValueValidator(900)])
    face_assumed = models.BooleanField(default=True)
    underlay = models.FileField(_("picture of the face"), upload_to="faces/", max_length=120, blank=True)
    cone = models.CharField(_("flywheel sits on a"), max_length=8, choices=Cone, blank=True)
    taper_ratio = models.FloatField(
        _("flywheel taper, 1 in"), null=True, blank=True, validators=[MinValueValidator(2), MaxValueValidator(30)]
    )
    nut_d_mm = models.FloatField(_("flywheel nut thread"), null=True, blank=True, validators=[MinValueValidator(4), MaxValueValidator(60)])
    nut_torque_nm = models.FloatField(
        _("flywheel nut torque"), null=True, blank=True, validators=[MinValueValidator(1), MaxValueValidator(600)]
    )
    shaft_d_mm = models.FloatField(_("shaft at the key"), null=True, blank=True, validators=[MinValueValidator(4), MaxValueValidator(80)])
    boss_d_mm = models.FloatField(_("boss thread, size"), null=True, blank=True, validators=[MinValueValidator(8), MaxValueValidator(80)])
    boss_pitch_mm = models.FloatField(
        _("boss thread, pitch"), null=True, blank=True, validators=[MinValueValidator(0.3), MaxValueValidator(6)]
    )
    boss_hand = models.CharField(_("boss thread, hand"), max_length=5, choices=Hand, blank=True)
    key = models.CharField(_("key"), max_length=10, choices=Key, blank=True)
    wheel_kg = models.FloatField(_("flywheel mass"), null=True, blank=True, validators=[MinValueValidator(0.05), MaxValueValidator(200)])
    wheel_rpm = models.FloatField(_("working speed"), null=True, blank=True, validators=[MinValueValidator(100), MaxValueValidator(30000)])
    flywheel_source = models.CharField(_("where these are from"), max_length=80, blank=True)
    version = models.PositiveIntegerField(default=1)
    stamp = models.BigIntegerField(
        default=0, editable=False, help_text=_("Another one after every change; `stator.engines.card_loader` draws it.")
    )
    made_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        indexes = [models.Index(fields=["family", "on_shelf"], name="cards_by_family")]
        constraints = [
            models.UniqueConstraint(fields=["family"], condition=Q(on_shelf=True), name="one_card_of_a_family_on_the_shelf"),
        ]

    def __str__(self) -> str:
        return self.name

    def save(self, *args: Any, **kwargs: Any) -> None:
        """A card has its crank, throws, rods, flywheel, two halves of a case and their joint from the start."""
        super().save(*args, **kwargs)
        known = {(each.kind, each.uid) for each in self.subjects.all()}
        needed = [part for part in of_every_engine(self.cylinder_count) if (part.kind, part.uid) not in known]
        Subject.objects.bulk_create(Subject(card=self, kind=part.kind, uid=part.uid) for part in needed)
        for uid in HALVES if not self.case_parts.exists() else ():
            self.case_parts.create(uid=uid)
        if not self.joints.exists():
            self.joints.create(uid=JOINT.uid, one=HALVES[0], other=HALVES[1])

    @property
    def cylinder_count(self) -> int:
        """Return the number of throws and rods, as far as the layout shows."""
        return 1 if self.layout == self.Layout.SINGLE else 2

    def side(self, half: str) -> str:
        """Return the name of a side of the engine or of another case part; unchanged if it has no name."""
        if half in HALVES:
            return {"left": self.left_name, "right": self.right_name}[half]
        return next((part.name for part in self.case_parts.all() if part.uid == half), half) if self.pk else half

    def part_name(self, uid: str) -> str:
        """A part of the case as a sentence names it: drive side half, centre section."""
        return gettext("{side} half").format(side=self.side(uid)) if uid in HALVES else self.side(uid)

    @property
    def has_center_section(self) -> bool:
        return bool(self.pk) and any(part.what == "centre" for part in self.case_parts.all())


class Subject(models.Model):
    """A part or a place of one card that readings and entries refer to, by kind and identity.

    Seats, seals, fasteners and similar parts have tables of their own with the same identity. The row is created with the first reading.
    """

    card = models.ForeignKey(EngineCard, on_delete=models.CASCADE, related_name="subjects")
    kind = models.CharField(max_length=10, choices=Kind)
    uid = models.SlugField(max_length=32)
    name = models.CharField(max_length=80, blank=True, help_text=_("As it was called when the first reading was taken."))

    class Meta:
        ordering = ["pk"]
        constraints = [models.UniqueConstraint(fields=["card", "kind", "uid"], name="a_subject_once")]

    def __str__(self) -> str:
        return self.name or self.get_kind_display()

    @property
    def part(self) -> Part:
        return Part(self.kind, self.uid, self.name or counted_name(self.kind, self.uid))


class CardModel(models.Model):
    """A part of a card with an identity that its copies keep."""

    uid = models.SlugField(max_length=32, default=new_uid, editable=False)

    class Meta:
        abstract = True
