"""Places where something is fitted: bearing seats, seals, and pins or bushings."""

from __future__ import annotations

from django.core.validators import MaxValueValidator, MinValueValidator
from django.db import models
from django.db.models import Q
from django.utils.translation import gettext_lazy as _

from stator.engines.models.card import CardModel, EngineCard
from stator.engines.parts import Kind, Part


class Seat(CardModel):
    """A place a bearing sits: in a bore of the case, or on a shaft."""

    class Role(models.TextChoices):
        MAIN = "main", _("main bearing of the crank")
        GEARBOX = "gearbox", _("gearbox shaft")
        CAM = "cam", _("camshaft")
        OTHER = "other", _("something else")

    class On(models.TextChoices):
        CASE = "case", _("into the case")
        SHAFT = "shaft", _("onto a shaft")

    class Half(models.TextChoices):
        """The halves that every engine has.

        A case with more parts also has seats in those, by the identity of the part.
        """

        LEFT = "left", _("left half")
        RIGHT = "right", _("right half")
        CRANK = "crank", _("crank")

    class From(models.TextChoices):
        INSIDE = "inside", _("from inside")
        OUTSIDE = "outside", _("from outside")

    class Stop(models.TextChoices):
        SHOULDER = "shoulder", _("shoulder")
        CIRCLIP = "circlip", _("circlip")
        PLATE = "plate", _("plate")
        THROUGH = "through", _("through bore")

    class Bottom(models.TextChoices):
        UNKNOWN = "", _("unknown")
        OPEN = "open", _("open: reached from behind")
        BLIND = "blind", _("blind")

    class Faces(models.TextChoices):
        UNKNOWN = "", _("unknown")
        MARKING_IN = "marking_in", _("its marking to the inside")
        MARKING_OUT = "marking_out", _("its marking to the outside")
        CAGE_IN = "cage_in", _("its open cage side to the inside")
        CAGE_OUT = "cage_out", _("its open cage side to the outside")
        SHIELD_IN = "shield_in", _("its shield to the inside")
        SHIELD_OUT = "shield_out", _("its shield to the outside")

    card = models.ForeignKey(EngineCard, on_delete=models.CASCADE, related_name="seats")
    name = models.CharField(max_length=60)
    role = models.CharField(_("what turns in it"), max_length=8, choices=Role, default=Role.OTHER)
    role_assumed = models.BooleanField(default=False, help_text=_("Guessed from its name."))
    on = models.CharField(max_length=6, choices=On, default=On.CASE)
    half = models.CharField(max_length=32, default=Half.LEFT, help_text=_("The part of the case, by its identity; or the crank."))
    loads_from = models.CharField(max_length=8, choices=From, default=From.INSIDE)
    stop = models.CharField(max_length=10, choices=Stop, default=Stop.SHOULDER)
    designation = models.CharField(_("bearing marking"), max_length=40, blank=True)
    marking_assumed = models.BooleanField(default=False, help_text=_("Typical of such engines, not read off the ring."))
    bore_mm = models.FloatField(null=True, blank=True)
    outside_mm = models.FloatField(null=True, blank=True)
    width_mm = models.FloatField(null=True, blank=True)
    code = models.CharField(_("fit code of the seat"), max_length=6, blank=True)
    code_assumed = models.BooleanField(default=False)
    measured_mm = models.FloatField(_("seat measured"), null=True, blank=True)
    bottom = models.CharField(_("behind it"), max_length=8, choices=Bottom, blank=True)
    thin_wall = models.BooleanField(_("thin wall behind it"), default=False)
    faces = models.CharField(_("the bearing sits with"), max_length=12, choices=Faces, blank=True)
    x_mm = models.FloatField(null=True, blank=True)
    y_mm = models.FloatField(null=True, blank=True)
    left_in = models.JSONField(default=list, blank=True)
    shaft_material = models.CharField(max_length=20, default="42crmo4")
    source = models.CharField(max_length=80, blank=True, help_text=_("Manual page, drawing, measured, shop rule."))

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
                violation_error_message=_("Give the bearing's marking, or its bore, outside and width."),
            ),
            models.CheckConstraint(
                condition=~Q(code="") | Q(measured_mm__isnull=False, measured_mm__gt=0),
                name="seat_size_known",
                violation_error_message=_("Give the fit code of the seat, or its measured size."),
            ),
            models.UniqueConstraint(fields=["card", "name"], name="seat_named_once"),
            models.UniqueConstraint(fields=["card", "uid"], name="seat_uid_once"),
        ]

    read_marking = ""  # off the ring, where the card's own is only typical: set from a job's facts, kept in no row

    def __str__(self) -> str:
        return self.name

    @property
    def part(self) -> Part:
        return Part(Kind.SEAT, self.uid, self.name)

    @property
    def marking(self) -> str:
        """Return the marking of the bearing: as it was read if the card has only a typical one."""
        return self.read_marking or self.designation

    @property
    def marking_is_typical(self) -> bool:
        """Return True if nobody has read the marking off the ring."""
        return self.marking_assumed and not self.read_marking

    @property
    def is_main(self) -> bool:
        return self.role == self.Role.MAIN

    @property
    def side_name(self) -> str:
        """The half in the trade's words for this engine."""
        return "crank" if self.half == self.Half.CRANK else self.card.side(self.half)


class Seal(CardModel):
    """A shaft seal and its seat.

    The direction of the lip follows from what it retains; an exception cites its page.
    """

    class Lip(models.TextChoices):
        UNKNOWN = "", _("unknown")
        INSIDE = "inside", _("lip and spring to the inside")
        OUTSIDE = "outside", _("lip and spring to the outside")

    card = models.ForeignKey(EngineCard, on_delete=models.CASCADE, related_name="seals")
    name = models.CharField(max_length=60)
    half = models.CharField(max_length=32, default=Seat.Half.LEFT, help_text=_("The part of the case, by its identity."))
    seat = models.ForeignKey(Seat, on_delete=models.SET_NULL, null=True, blank=True, related_name="seals", verbose_name=_("in front of"))
    shaft_mm = models.FloatField(_("shaft"), validators=[MinValueValidator(3), MaxValueValidator(200)])
    bore_mm = models.FloatField(_("its bore"), validators=[MinValueValidator(5), MaxValueValidator(250)])
    width_mm = models.FloatField(_("width"), validators=[MinValueValidator(2), MaxValueValidator(40)])
    sizes_assumed = models.BooleanField(default=False, help_text=_("Typical of such engines, not measured."))
    lip = models.CharField(_("lip faces"), max_length=8, choices=Lip, blank=True)
    loads_from = models.CharField(_("goes in"), max_length=8, choices=Seat.From, default=Seat.From.OUTSIDE)
    depth_mm = models.FloatField(_("depth below the face"), default=0.0, validators=[MinValueValidator(-5), MaxValueValidator(60)])
    depth_assumed = models.BooleanField(default=True)
    source = models.CharField(_("where these are from"), max_length=80, blank=True)

    class Meta:
        ordering = ["pk"]
        constraints = [
            models.UniqueConstraint(fields=["card", "name"], name="seal_named_once"),
            models.UniqueConstraint(fields=["card", "uid"], name="seal_uid_once"),
            models.CheckConstraint(condition=Q(bore_mm__gt=models.F("shaft_mm"), shaft_mm__gt=0), name="seal_sizes_make_sense"),
        ]

    def __str__(self) -> str:
        return self.name

    @property
    def part(self) -> Part:
        return Part(Kind.SEAL, self.uid, self.name)


def seal_in_front_of(card: EngineCard, seat: Seat) -> Seal | None:
    """Return the seal in front of a bearing: the seal of its seat, or the only seal of its half that has no seat."""
    seals = list(card.seals.all())
    here = next((seal for seal in seals if seal.seat_id == seat.pk), None)
    loose = [seal for seal in seals if seal.seat_id is None and seal.half == seat.half]
    alone = len([each for each in card.seats.all() if each.half == seat.half]) == 1
    return here or (loose[0] if len(loose) == 1 and alone else None)


class Fitted(CardModel):
    """A part other than a bearing or a seal that is fitted into a half, with its orientation and the order of the parts on it."""

    class Kind(models.TextChoices):
        PIN = "pin", _("pin or spindle")
        BUSH = "bush", _("bush")
        PLUG = "plug", _("plug")
        RUBBER = "rubber", _("rubber bush")
        HOLE = "hole", _("hole left open")

    METALS = ("42crmo4", "c45", "100cr6", "bronze-wrought", "bronze-cast", "brass", "al-6082")

    card = models.ForeignKey(EngineCard, on_delete=models.CASCADE, related_name="fitted")
    name = models.CharField(max_length=60)
    kind = models.CharField(_("what it is"), max_length=8, choices=Kind, default=Kind.PIN)
    half = models.CharField(max_length=32, default=Seat.Half.LEFT, help_text=_("The part of the case, by its identity."))
    loads_from = models.CharField(_("goes in"), max_length=8, choices=Seat.From, default=Seat.From.INSIDE)
    d_mm = models.FloatField(_("outside"), validators=[MinValueValidator(1), MaxValueValidator(200)])
    bore_mm = models.FloatField(_("inside"), default=0.0, validators=[MinValueValidator(0), MaxValueValidator(199)])
    length_mm = models.FloatField(_("length"), validators=[MinValueValidator(1), MaxValueValidator(300)])
    metal = models.CharField(max_length=20, default="42crmo4")
    hole_code = models.CharField(_("fit code of the hole"), max_length=6, default="H7")
    part_code = models.CharField(_("fit code of the part"), max_length=6, default="p6")
    depth_mm = models.FloatField(_("end below the face"), default=0.0, validators=[MinValueValidator(-60), MaxValueValidator(60)])
    depth_within_mm = models.FloatField(_("within"), default=0.3, validators=[MinValueValidator(0.01), MaxValueValidator(10)])
    turned = models.CharField(_("what is turned"), max_length=30, blank=True, help_text=_("flat, groove, oil hole"))
    angle_deg = models.FloatField(_("points to"), null=True, blank=True, validators=[MinValueValidator(-360), MaxValueValidator(360)])
    angle_within_deg = models.FloatField(_("within"), default=5.0, validators=[MinValueValidator(0.1), MaxValueValidator(45)])
    either_end = models.BooleanField(_("half a turn looks the same"), default=False)
    order = models.CharField(_("on it, in order"), max_length=200, blank=True, help_text=_("washer, rocker, spring washer"))
    after = models.ForeignKey(
        Seat, on_delete=models.SET_NULL, null=True, blank=True, related_name="followed_by", verbose_name=_("goes in after")
    )
    source = models.CharField(_("where these are from"), max_length=80, blank=True)

    class Meta:
        ordering = ["pk"]
        constraints = [
            models.UniqueConstraint(fields=["card", "name"], name="fitted_named_once"),
            models.UniqueConstraint(fields=["card", "uid"], name="fitted_uid_once"),
            models.CheckConstraint(condition=Q(d_mm__gt=models.F("bore_mm")), name="fitted_sizes_make_sense"),
        ]

    def __str__(self) -> str:
        return self.name

    @property
    def part(self) -> Part:
        return Part(Kind.FITTED, self.uid, self.name)

    @property
    def side_name(self) -> str:
        return self.card.side(self.half)

    @property
    def goes_in_tight(self) -> bool:
        """Return True if it is pushed or dropped into its hole by its fit; a hole left open has nothing in it."""
        return self.kind not in (self.Kind.RUBBER, self.Kind.HOLE)

    @property
    def pieces(self) -> list[str]:
        """Return the parts on it, from first to last."""
        return [piece.strip() for piece in self.order.split(",") if piece.strip()]
