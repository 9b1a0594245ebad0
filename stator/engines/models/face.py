"""Marks on a mating surface, and the limits of an engine card."""

from __future__ import annotations

from django.core.validators import MaxValueValidator, MinValueValidator
from django.db import models
from django.db.models import Q
from django.utils.functional import cached_property
from django.utils.translation import gettext_lazy as _

from stator.engines.models.card import CardModel, EngineCard
from stator.engines.parts import JOINT, Kind, Part
from stator.engines.properties import LIMITS
from stator.ui.number_format import plain


class Mark(CardModel):
    """A mark on a mating surface: x to the right and y up from its center, seen on the half that remains on the bench."""

    class What(models.TextChoices):
        BOLT = "bolt", _("bolt")
        SCREW = "screw", _("screw")
        STUD = "stud", _("stud and nut")
        DOWEL = "dowel", _("dowel")
        GAP = "gap", _("place to measure the gap")

    FASTENERS = ("bolt", "screw", "stud")

    card = models.ForeignKey(EngineCard, on_delete=models.CASCADE, related_name="marks")
    joint = models.CharField(max_length=32, default=JOINT.uid, help_text=_("The joint whose face it stands on, by its identity."))
    what = models.CharField(_("what it is"), max_length=6, choices=What, default=What.BOLT)
    name = models.CharField(max_length=40)
    x_mm = models.FloatField(validators=[MinValueValidator(-500), MaxValueValidator(500)])
    y_mm = models.FloatField(validators=[MinValueValidator(-500), MaxValueValidator(500)])
    d_mm = models.FloatField(_("thread"), default=6.0, validators=[MinValueValidator(2), MaxValueValidator(30)])
    pitch_mm = models.FloatField(_("pitch"), default=1.0, validators=[MinValueValidator(0.3), MaxValueValidator(4)])
    length_mm = models.FloatField(
        _("length under the head"), null=True, blank=True, validators=[MinValueValidator(3), MaxValueValidator(400)]
    )
    torque_nm = models.FloatField(_("torque"), null=True, blank=True, validators=[MinValueValidator(0.5), MaxValueValidator(400)])
    clearance_mm = models.FloatField(_("dowel's clearance"), default=0.03, validators=[MinValueValidator(0), MaxValueValidator(1)])
    engaged_mm = models.FloatField(
        _("dowel's depth in the other half"), default=8.0, validators=[MinValueValidator(0.5), MaxValueValidator(60)]
    )
    assumed = models.BooleanField(default=True, help_text=_("Its figures are usual ones, not read off anything."))
    source = models.CharField(_("where these are from"), max_length=80, blank=True)

    class Meta:
        ordering = ["pk"]
        constraints = [
            models.UniqueConstraint(fields=["card", "name"], name="a_mark_named_once"),
            models.UniqueConstraint(fields=["card", "uid"], name="mark_uid_once"),
        ]

    def __str__(self) -> str:
        return self.name

    @property
    def part(self) -> Part:
        kind = Kind.FASTENER if self.is_fastener else Kind.GAP if self.what == self.What.GAP else Kind.DOWEL
        return Part(kind, self.uid, self.name)

    @property
    def is_fastener(self) -> bool:
        return self.what in self.FASTENERS

    @property
    def thread(self) -> str:
        return f"M{plain(self.d_mm)}×{plain(self.pitch_mm)}"


class Spec(models.Model):
    """A limit of this engine with its source. Without a limit it is a value to be measured and recorded."""

    class From(models.TextChoices):
        MANUAL = "manual", _("manual page")
        DRAWING = "drawing", _("drawing")
        MEASURED = "measured", _("measured")
        RULE = "rule", _("shop rule")

    class Held(models.TextChoices):
        CENTRES = "centres", _("between centres")
        SEATS = "seats", _("on its main bearing seats")
        CENTRE = "centre", _("on its centre bearings")
        OUTER = "outer", _("on its outer journals")

    KINDS = ("length", "torque", "temperature", "mass", "angle", "speed", "force")

    card = models.ForeignKey(EngineCard, on_delete=models.CASCADE, related_name="specs")
    name = models.CharField(_("figure"), max_length=60)
    property = models.CharField(
        _("what it limits"), max_length=30, choices=[(key.value, words) for key, words in LIMITS.items()], blank=True, default=""
    )
    property_assumed = models.BooleanField(default=False, help_text=_("Guessed from its name."))
    kind = models.CharField(_("kind"), max_length=12, choices=[(kind, kind) for kind in KINDS], default="length")
    low = models.FloatField(_("at least"), null=True, blank=True)
    high = models.FloatField(_("at most"), null=True, blank=True)
    setup = models.CharField(_("measured how"), max_length=120, blank=True, help_text=_("supports and gauge places, where it matters"))
    held = models.CharField(_("crank held"), max_length=8, choices=Held, blank=True, default="")
    held_assumed = models.BooleanField(default=False, help_text=_("Guessed from how it is measured."))
    source_kind = models.CharField(_("from"), max_length=8, choices=From, default=From.MANUAL)
    source = models.CharField(_("which page, drawing, day"), max_length=80, blank=True)

    class Meta:
        ordering = ["pk"]
        constraints = [
            models.UniqueConstraint(fields=["card", "name"], name="figure_named_once"),
            models.CheckConstraint(condition=Q(low=None) | Q(high=None) | Q(low__lte=models.F("high")), name="limits_rise"),
        ]

    def __str__(self) -> str:
        return self.name

    @cached_property
    def origin(self) -> str:
        """Return the source as text, for example "manual page 44"."""
        kind: str = self.get_source_kind_display()
        source = self.source.removeprefix("page ") if kind.endswith("page") else self.source
        return f"{kind} {source}".strip()
