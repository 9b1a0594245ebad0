"""Engine cards: what an engine is made of and what it should measure, with the source of each figure.

A card on the shelf is copied for every job, so that a finished job keeps the card it was done by. What is unknown stays empty.
"""

from __future__ import annotations

import uuid

from django.core.validators import MaxValueValidator, MinValueValidator
from django.db import models
from django.db.models import Q

from shopmath import materials


def case_metals() -> list[tuple[str, str]]:
    return [(key, materials.get(key).name) for key in ("al-si7-mg", "al-si9-cu3", "adc12", "al-6082", "al-7075", "az91d", "gjl-250")]


class Hand(models.TextChoices):
    UNKNOWN = "", "unknown"
    RIGHT = "right", "right-hand"
    LEFT = "left", "left-hand"


class EngineCard(models.Model):
    """One engine type, as known. `family` ties the card on the shelf to its copies on jobs; `version` says which one was copied."""

    class Layout(models.TextChoices):
        SINGLE = "single", "single"
        TWIN = "twin", "twin"
        FLAT_TWIN = "flat_twin", "flat twin"
        VEE = "vee", "V"
        MULTI = "multi", "multi"

    class Crank(models.TextChoices):
        UNKNOWN = "", "unknown"
        BUILT_UP = "built_up", "built up, pressed"
        ONE_PIECE = "one_piece", "one piece"

    class Side(models.TextChoices):
        UNKNOWN = "", "unknown"
        LEFT = "left", "left"
        RIGHT = "right", "right"

    class Cone(models.TextChoices):
        UNKNOWN = "", "unknown"
        TAPER = "taper", "taper"
        STRAIGHT = "straight", "straight"

    class Key(models.TextChoices):
        UNKNOWN = "", "unknown"
        NONE = "none", "no key"
        WOODRUFF = "woodruff", "half-moon key"
        STRAIGHT = "straight", "straight key"
        STEPPED = "stepped", "stepped key"

    family = models.UUIDField(default=uuid.uuid4, editable=False, db_index=True)
    on_shelf = models.BooleanField(default=False, help_text="Kept to be copied for the next job.")
    name = models.CharField(max_length=60)
    summary = models.CharField(max_length=80, blank=True, help_text="In trade words: trials single, two-stroke.")
    layout = models.CharField(max_length=10, choices=Layout, default=Layout.SINGLE)
    case_material = models.CharField(max_length=20, default="al-si7-mg")
    case_material_assumed = models.BooleanField(default=True, help_text="Taken as usual, not read off a drawing.")
    left_name = models.CharField("left side", max_length=30, default="drive side")
    right_name = models.CharField("right side", max_length=30, default="magneto side")
    painted = models.BooleanField(default=False)
    crank = models.CharField(max_length=10, choices=Crank, blank=True)
    stroke_mm = models.FloatField("stroke", null=True, blank=True, validators=[MinValueValidator(10), MaxValueValidator(200)])
    lifts = models.CharField("the half that lifts off", max_length=5, choices=Side, blank=True)
    crank_stays = models.CharField("the crank stays in the", max_length=5, choices=Side, blank=True)
    face_w_mm = models.FloatField("joint face, across", default=240.0, validators=[MinValueValidator(40), MaxValueValidator(900)])
    face_h_mm = models.FloatField("joint face, up", default=200.0, validators=[MinValueValidator(40), MaxValueValidator(900)])
    face_assumed = models.BooleanField(default=True)
    underlay = models.FileField("picture of the face", upload_to="faces/", max_length=120, blank=True)
    cone = models.CharField("flywheel sits on a", max_length=8, choices=Cone, blank=True)
    taper_ratio = models.FloatField("flywheel taper, 1 in", null=True, blank=True, validators=[MinValueValidator(2), MaxValueValidator(30)])
    nut_d_mm = models.FloatField("flywheel nut thread", null=True, blank=True, validators=[MinValueValidator(4), MaxValueValidator(60)])
    nut_torque_nm = models.FloatField(
        "flywheel nut torque", null=True, blank=True, validators=[MinValueValidator(1), MaxValueValidator(600)]
    )
    shaft_d_mm = models.FloatField("shaft at the key", null=True, blank=True, validators=[MinValueValidator(4), MaxValueValidator(80)])
    boss_d_mm = models.FloatField("boss thread, size", null=True, blank=True, validators=[MinValueValidator(8), MaxValueValidator(80)])
    boss_pitch_mm = models.FloatField(
        "boss thread, pitch", null=True, blank=True, validators=[MinValueValidator(0.3), MaxValueValidator(6)]
    )
    boss_hand = models.CharField("boss thread, hand", max_length=5, choices=Hand, blank=True)
    key = models.CharField("key", max_length=10, choices=Key, blank=True)
    wheel_kg = models.FloatField("flywheel mass", null=True, blank=True, validators=[MinValueValidator(0.05), MaxValueValidator(200)])
    wheel_rpm = models.FloatField("working speed", null=True, blank=True, validators=[MinValueValidator(100), MaxValueValidator(30000)])
    flywheel_source = models.CharField("where these are from", max_length=80, blank=True)
    version = models.PositiveIntegerField(default=1)
    made_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        constraints = [
            models.UniqueConstraint(fields=["family"], condition=Q(on_shelf=True), name="one_card_of_a_family_on_the_shelf"),
        ]

    def __str__(self) -> str:
        return self.name

    def side(self, half: str) -> str:
        """A half in the trade's words for this engine; the bare half when it is not named."""
        return {"left": self.left_name, "right": self.right_name}.get(half, half)


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

    class Bottom(models.TextChoices):
        UNKNOWN = "", "unknown"
        OPEN = "open", "open: reached from behind"
        BLIND = "blind", "blind"

    class Faces(models.TextChoices):
        UNKNOWN = "", "unknown"
        MARKING_IN = "marking_in", "its marking to the inside"
        MARKING_OUT = "marking_out", "its marking to the outside"
        CAGE_IN = "cage_in", "its open cage side to the inside"
        CAGE_OUT = "cage_out", "its open cage side to the outside"
        SHIELD_IN = "shield_in", "its shield to the inside"
        SHIELD_OUT = "shield_out", "its shield to the outside"

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
    bottom = models.CharField("behind it", max_length=8, choices=Bottom, blank=True)
    thin_wall = models.BooleanField("thin wall behind it", default=False)
    faces = models.CharField("the bearing sits with", max_length=12, choices=Faces, blank=True)
    x_mm = models.FloatField(null=True, blank=True)
    y_mm = models.FloatField(null=True, blank=True)
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
        return "crank" if self.half == self.Half.CRANK else self.card.side(self.half)


class Seal(models.Model):
    """A shaft seal and its seat. Where the lip faces is what it keeps in; an exception cites its page."""

    class Lip(models.TextChoices):
        UNKNOWN = "", "unknown"
        INSIDE = "inside", "lip and spring to the inside"
        OUTSIDE = "outside", "lip and spring to the outside"

    card = models.ForeignKey(EngineCard, on_delete=models.CASCADE, related_name="seals")
    name = models.CharField(max_length=60)
    half = models.CharField(max_length=6, choices=Seat.Half, default=Seat.Half.LEFT)
    seat = models.ForeignKey(Seat, on_delete=models.SET_NULL, null=True, blank=True, related_name="seals", verbose_name="in front of")
    shaft_mm = models.FloatField("shaft", validators=[MinValueValidator(3), MaxValueValidator(200)])
    bore_mm = models.FloatField("its bore", validators=[MinValueValidator(5), MaxValueValidator(250)])
    width_mm = models.FloatField("width", validators=[MinValueValidator(2), MaxValueValidator(40)])
    lip = models.CharField("lip faces", max_length=8, choices=Lip, blank=True)
    loads_from = models.CharField("goes in", max_length=8, choices=Seat.From, default=Seat.From.OUTSIDE)
    depth_mm = models.FloatField("depth below the face", default=0.0, validators=[MinValueValidator(-5), MaxValueValidator(60)])
    depth_assumed = models.BooleanField(default=True)
    source = models.CharField("where these are from", max_length=80, blank=True)

    class Meta:
        ordering = ["pk"]
        constraints = [
            models.UniqueConstraint(fields=["card", "name"], name="seal_named_once"),
            models.CheckConstraint(condition=Q(bore_mm__gt=models.F("shaft_mm"), shaft_mm__gt=0), name="seal_sizes_make_sense"),
        ]

    def __str__(self) -> str:
        return self.name


class Fitted(models.Model):
    """A part other than a bearing or a seal that is fitted into a half: how it is turned, what goes on it in which order."""

    class Kind(models.TextChoices):
        PIN = "pin", "pin or spindle"
        BUSH = "bush", "bush"
        PLUG = "plug", "plug"
        RUBBER = "rubber", "rubber bush"

    METALS = ("42crmo4", "c45", "100cr6", "bronze-wrought", "bronze-cast", "brass", "al-6082")

    card = models.ForeignKey(EngineCard, on_delete=models.CASCADE, related_name="fitted")
    name = models.CharField(max_length=60)
    kind = models.CharField("what it is", max_length=8, choices=Kind, default=Kind.PIN)
    half = models.CharField(max_length=6, choices=Seat.Half, default=Seat.Half.LEFT)
    loads_from = models.CharField("goes in", max_length=8, choices=Seat.From, default=Seat.From.INSIDE)
    d_mm = models.FloatField("outside", validators=[MinValueValidator(1), MaxValueValidator(200)])
    bore_mm = models.FloatField("inside", default=0.0, validators=[MinValueValidator(0), MaxValueValidator(199)])
    length_mm = models.FloatField("length", validators=[MinValueValidator(1), MaxValueValidator(300)])
    metal = models.CharField(max_length=20, default="42crmo4")
    hole_code = models.CharField("fit code of the hole", max_length=6, default="H7")
    part_code = models.CharField("fit code of the part", max_length=6, default="p6")
    depth_mm = models.FloatField("end below the face", default=0.0, validators=[MinValueValidator(-60), MaxValueValidator(60)])
    depth_within_mm = models.FloatField("within", default=0.3, validators=[MinValueValidator(0.01), MaxValueValidator(10)])
    turned = models.CharField("what is turned", max_length=30, blank=True, help_text="flat, groove, oil hole")
    angle_deg = models.FloatField("points to", null=True, blank=True, validators=[MinValueValidator(-360), MaxValueValidator(360)])
    angle_within_deg = models.FloatField("within", default=5.0, validators=[MinValueValidator(0.1), MaxValueValidator(45)])
    either_end = models.BooleanField("half a turn looks the same", default=False)
    order = models.CharField("on it, in order", max_length=200, blank=True, help_text="washer, rocker, spring washer")
    after = models.ForeignKey(
        Seat, on_delete=models.SET_NULL, null=True, blank=True, related_name="followed_by", verbose_name="goes in after"
    )
    source = models.CharField("where these are from", max_length=80, blank=True)

    class Meta:
        ordering = ["pk"]
        constraints = [
            models.UniqueConstraint(fields=["card", "name"], name="fitted_named_once"),
            models.CheckConstraint(condition=Q(d_mm__gt=models.F("bore_mm")), name="fitted_sizes_make_sense"),
        ]

    def __str__(self) -> str:
        return self.name

    @property
    def side_name(self) -> str:
        return self.card.side(self.half)

    @property
    def pieces(self) -> list[str]:
        """What goes on it, first to last."""
        return [piece.strip() for piece in self.order.split(",") if piece.strip()]


class Mark(models.Model):
    """Something at a place on the joint face: x to the right, y up, from its middle, looking at the half that stays on the bench."""

    class What(models.TextChoices):
        BOLT = "bolt", "bolt"
        SCREW = "screw", "screw"
        STUD = "stud", "stud and nut"
        DOWEL = "dowel", "dowel"
        GAP = "gap", "place to measure the gap"

    FASTENERS = ("bolt", "screw", "stud")

    card = models.ForeignKey(EngineCard, on_delete=models.CASCADE, related_name="marks")
    what = models.CharField("what it is", max_length=6, choices=What, default=What.BOLT)
    name = models.CharField(max_length=40)
    x_mm = models.FloatField(validators=[MinValueValidator(-500), MaxValueValidator(500)])
    y_mm = models.FloatField(validators=[MinValueValidator(-500), MaxValueValidator(500)])
    d_mm = models.FloatField("thread", default=6.0, validators=[MinValueValidator(2), MaxValueValidator(30)])
    pitch_mm = models.FloatField("pitch", default=1.0, validators=[MinValueValidator(0.3), MaxValueValidator(4)])
    length_mm = models.FloatField("length under the head", null=True, blank=True, validators=[MinValueValidator(3), MaxValueValidator(400)])
    torque_nm = models.FloatField("torque", null=True, blank=True, validators=[MinValueValidator(0.5), MaxValueValidator(400)])
    clearance_mm = models.FloatField("dowel's clearance", default=0.03, validators=[MinValueValidator(0), MaxValueValidator(1)])
    engaged_mm = models.FloatField(
        "dowel's depth in the other half", default=8.0, validators=[MinValueValidator(0.5), MaxValueValidator(60)]
    )
    assumed = models.BooleanField(default=True, help_text="Its figures are usual ones, not read off anything.")
    source = models.CharField("where these are from", max_length=80, blank=True)

    class Meta:
        ordering = ["pk"]
        constraints = [models.UniqueConstraint(fields=["card", "name"], name="a_mark_named_once")]

    def __str__(self) -> str:
        return self.name

    @property
    def is_fastener(self) -> bool:
        return self.what in self.FASTENERS

    @property
    def thread(self) -> str:
        return f"M{self.d_mm:g}×{self.pitch_mm:g}"


class Spec(models.Model):
    """A limit for this engine, with its source. Without a limit it is a figure to be measured and kept."""

    class From(models.TextChoices):
        MANUAL = "manual", "manual page"
        DRAWING = "drawing", "drawing"
        MEASURED = "measured", "measured"
        RULE = "rule", "shop rule"

    KINDS = ("length", "torque", "temperature", "mass", "angle", "speed", "force")

    card = models.ForeignKey(EngineCard, on_delete=models.CASCADE, related_name="specs")
    name = models.CharField("figure", max_length=60)
    kind = models.CharField("kind", max_length=12, choices=[(kind, kind) for kind in KINDS], default="length")
    low = models.FloatField("at least", null=True, blank=True)
    high = models.FloatField("at most", null=True, blank=True)
    setup = models.CharField("measured how", max_length=120, blank=True, help_text="supports and gauge places, where it matters")
    source_kind = models.CharField("from", max_length=8, choices=From, default=From.MANUAL)
    source = models.CharField("which page, drawing, day", max_length=80, blank=True)

    class Meta:
        ordering = ["pk"]
        constraints = [
            models.UniqueConstraint(fields=["card", "name"], name="figure_named_once"),
            models.CheckConstraint(condition=Q(low=None) | Q(high=None) | Q(low__lte=models.F("high")), name="limits_rise"),
        ]

    def __str__(self) -> str:
        return self.name

    @property
    def origin(self) -> str:
        """Where it comes from, in words: manual page 44."""
        kind: str = self.get_source_kind_display()
        source = self.source.removeprefix("page ") if kind.endswith("page") else self.source
        return f"{kind} {source}".strip()
