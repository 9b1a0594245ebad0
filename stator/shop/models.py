"""The shop's people and its own equipment, with the numbers that matter."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from contextlib import contextmanager
from contextvars import ContextVar
from datetime import date
from typing import Any
from zoneinfo import ZoneInfo, ZoneInfoNotFoundError

from django.conf import settings
from django.contrib.auth.models import AbstractUser
from django.core.validators import MaxValueValidator, MinValueValidator, URLValidator
from django.db import models
from django.http import HttpRequest
from django.utils.translation import gettext_lazy as _

from shopmath.gauges import gauge_uncertainty
from shopmath.thermal.seat import LOCAL_OPENING
from stator.shop.data_format import MARKER
from stator.shop.gauge_ports import check_port
from stator.ui.number_format import exact, show
from stator.ui.units import Units

UNIT_CHOICES = [
    (Units.METRIC.value, _("metric: mm, °C, N·m, kN")),
    (Units.INCH.value, _("inch: in, thou, °F, ft-lb, lbf")),
    (Units.TYPED.value, _("as they were typed")),
]
WEEK_BEGINS = [(1, _("Monday")), (6, _("Saturday")), (0, _("Sunday"))]
STEP_KINDS = {"temperature": "temperature_difference"}


_read_once: ContextVar[Shop | None] = ContextVar("shop", default=None)


class Person(AbstractUser):
    """A person who signs in. Owners may change the settings of the shop; everyone may work on jobs."""

    class Role(models.TextChoices):
        OWNER = "owner", _("owner")
        MECHANIC = "mechanic", _("mechanic")

    role = models.CharField(max_length=10, choices=Role, default=Role.MECHANIC)
    from_file = models.CharField(
        max_length=120, blank=True, editable=False, help_text=_("Of a person named in a file that was read in: which.")
    )
    units = models.CharField(max_length=8, blank=True, choices=UNIT_CHOICES, help_text=_("Empty: the shop's."))
    language = models.CharField(max_length=12, blank=True, help_text=_("Empty: the browser's."))
    welcomed = models.BooleanField(default=False, editable=False, help_text=_("Has seen what Stator does and how to begin."))
    must_change = models.BooleanField(
        default=False, help_text=_("The password was set by someone else and is changed at the next sign-in.")
    )

    @property
    def is_owner(self) -> bool:
        return self.role == self.Role.OWNER

    @property
    def called(self) -> str:
        """The name that goes into the log; of someone named in a file, with the file."""
        name = self.get_full_name() or self.username
        return f"{name} ({self.from_file})" if self.from_file else name


class DataFormat(models.Model):
    """Marker of the data format: one row, written by the initial migration."""

    version = models.PositiveSmallIntegerField()

    class Meta:
        db_table = MARKER

    def __str__(self) -> str:
        return f"format {self.version}"


class Shop(models.Model):
    """The settings of the shop, in one row."""

    name = models.CharField(max_length=80, default="The shop")
    ton = models.CharField(max_length=10, blank=True, help_text=_("What a bare ton means on the presses here."))
    local_opening = models.FloatField(
        default=LOCAL_OPENING.likely,
        validators=[MinValueValidator(0.1), MaxValueValidator(1.0)],
        help_text=_("How much of its full opening a boss reaches when it is heated alone (estimate)."),
    )
    handling_s = models.FloatField(default=20.0, validators=[MinValueValidator(1), MaxValueValidator(600)])
    units = models.CharField(max_length=8, default=Units.METRIC, choices=UNIT_CHOICES[:2])
    time_zone = models.CharField(max_length=64, blank=True, help_text=_("Empty: the server's."))
    first_weekday = models.PositiveSmallIntegerField(default=1, choices=WEEK_BEGINS)
    address = models.CharField(max_length=200, blank=True, validators=[URLValidator(schemes=["http", "https"])])
    stocked = models.CharField(max_length=32, blank=True, editable=False, help_text=_("Changes with every change on the shelves."))

    class Meta:
        constraints = [models.CheckConstraint(condition=models.Q(pk=1), name="one_shop")]

    def __str__(self) -> str:
        return self.name

    def save(self, *args: Any, **kwargs: Any) -> None:
        self.pk = 1
        super().save(*args, **kwargs)
        if _read_once.get():
            _read_once.set(self)

    @property
    def zone(self) -> ZoneInfo:
        """The shop's time zone; the server's where none was asked, or this machine does not know it."""
        try:
            return ZoneInfo(self.time_zone or settings.TIME_ZONE)
        except (ZoneInfoNotFoundError, ValueError):
            return ZoneInfo(settings.TIME_ZONE)

    def address_of(self, request: HttpRequest, path: str) -> str:
        """Return the address of a page for phones and customers: the shop's own, otherwise the server's, otherwise that of the request."""
        base = self.address or settings.ADDRESS
        return f"{base.rstrip('/')}{path}" if base else request.build_absolute_uri(path)

    @classmethod
    def current(cls) -> Shop:
        """The one row; its defaults while nobody has written it, so that reading writes nothing."""
        return _read_once.get() or cls.objects.filter(pk=1).first() or cls(pk=1)

    @contextmanager
    def for_this_page(self) -> Iterator[None]:
        """Make this row, or the one that is saved meanwhile, `current` during one request."""
        token = _read_once.set(self)
        try:
            yield
        finally:
            _read_once.reset(token)


class Equipment(models.Model):
    """A piece of equipment. It is retired and never deleted, because the log refers to it."""

    name = models.CharField(max_length=60, unique=True)
    retired = models.BooleanField(default=False)
    from_file = models.CharField(max_length=120, blank=True, editable=False, help_text=_("Of equipment described in a file: which file."))

    class Meta:
        abstract = True
        ordering = ["name"]

    def __str__(self) -> str:
        return self.name


class Heater(Equipment):
    """A heater for cases."""

    class Method(models.TextChoices):
        OVEN = "oven", _("oven")
        HOT_PLATE = "hot_plate", _("hot plate")
        TORCH = "torch", _("torch")
        HEAT_GUN = "heat_gun", _("heat gun")

    method = models.CharField(max_length=10, choices=Method)
    highest_c = models.FloatField(_("highest setting"), null=True, blank=True, validators=[MinValueValidator(40), MaxValueValidator(700)])
    fan = models.BooleanField(_("fan oven"), default=False)
    cooks_food = models.BooleanField(_("also cooks food"), default=False)


class Chiller(Equipment):
    """A device that chills bearings and shafts."""

    class Method(models.TextChoices):
        FREEZER = "freezer", _("freezer")
        DRY_ICE = "dry_ice", _("dry ice")
        SPRAY = "spray", _("freeze spray")

    method = models.CharField(max_length=10, choices=Method)
    places = models.PositiveSmallIntegerField(_("parts it holds"), default=6, validators=[MinValueValidator(1), MaxValueValidator(99)])
    temperature_c = models.FloatField(_("temperature"), validators=[MinValueValidator(-100), MaxValueValidator(10)])


class Puller(Equipment):
    """A flywheel puller: its thread in the boss, and its centre screw."""

    class Hand(models.TextChoices):
        RIGHT = "right", _("right-hand")
        LEFT = "left", _("left-hand")

    thread_mm = models.FloatField(_("thread, outside"), validators=[MinValueValidator(8), MaxValueValidator(80)])
    pitch_mm = models.FloatField(_("its pitch"), validators=[MinValueValidator(0.3), MaxValueValidator(6)])
    hand = models.CharField(max_length=5, choices=Hand, default=Hand.RIGHT)
    screw_mm = models.FloatField(_("centre screw"), default=12.0, validators=[MinValueValidator(5), MaxValueValidator(40)])
    screw_pitch_mm = models.FloatField(_("its pitch"), default=1.25, validators=[MinValueValidator(0.5), MaxValueValidator(4)])
    tip_radius_mm = models.FloatField(_("tip radius"), default=3.0, validators=[MinValueValidator(0.5), MaxValueValidator(20)])


class Driver(Equipment):
    """A tool that pushes a ring or a seal in or out: a tube, a socket or an old outer ring."""

    class Kind(models.TextChoices):
        TUBE = "tube", _("tube or driver")
        SOCKET = "socket", _("socket")
        RING = "ring", _("old ring")

    kind = models.CharField(max_length=8, choices=Kind, default=Kind.TUBE)
    outside_mm = models.FloatField(_("outside"), validators=[MinValueValidator(4), MaxValueValidator(250)])
    inside_mm = models.FloatField(_("inside"), default=0.0, validators=[MinValueValidator(0), MaxValueValidator(249)])

    class Meta(Equipment.Meta):
        constraints = [models.CheckConstraint(condition=models.Q(inside_mm__lt=models.F("outside_mm")), name="driver_is_hollow")]


class Splitter(Equipment):
    """A case splitter: its screws into the case, and the screw that pushes the crank."""

    thread_mm = models.FloatField(_("screws into the case"), default=6.0, validators=[MinValueValidator(4), MaxValueValidator(20)])
    pitch_mm = models.FloatField(_("their pitch"), default=1.0, validators=[MinValueValidator(0.5), MaxValueValidator(3)])
    screws = models.PositiveSmallIntegerField(_("how many"), default=2, validators=[MinValueValidator(1), MaxValueValidator(8)])
    push_pitch_mm = models.FloatField(_("pitch of the push screw"), default=1.5, validators=[MinValueValidator(0.5), MaxValueValidator(4)])


class PullIn(Equipment):
    """A tool that pulls the crank in through the inner ring."""

    thread_mm = models.FloatField(_("adapter thread"), validators=[MinValueValidator(5), MaxValueValidator(60)])
    thread_pitch_mm = models.FloatField(_("its pitch"), validators=[MinValueValidator(0.5), MaxValueValidator(4)])
    pitch_mm = models.FloatField(_("pitch of the pulling screw"), validators=[MinValueValidator(0.5), MaxValueValidator(6)])


class Press(Equipment):
    """A press with its capacity, stored in newtons and shown in its own unit."""

    capacity_n = models.FloatField(_("capacity in newtons"), validators=[MinValueValidator(1000), MaxValueValidator(5_000_000)])
    capacity_text = models.CharField(_("capacity"), max_length=40)


class Extractor(Equipment):
    """A tool that pulls bearings: a collet in the bore, arms behind the ring, or a grease pump."""

    class Kind(models.TextChoices):
        COLLET = "collet", _("collet puller")
        PULLER = "puller", _("bearing puller")
        HYDRAULIC = "hydraulic", _("grease pin or pump")

    kind = models.CharField(max_length=10, choices=Kind)
    low_mm = models.FloatField(_("from"), default=8.0, validators=[MinValueValidator(2), MaxValueValidator(250)])
    high_mm = models.FloatField(_("up to"), default=60.0, validators=[MinValueValidator(3), MaxValueValidator(400)])


class Blades(Equipment):
    """A set of thicknesses: shims to leave in, or feelers to measure with."""

    class Kind(models.TextChoices):
        SHIM = "shim", _("shim kit")
        FEELER = "feeler", _("feeler blades")

    kind = models.CharField(max_length=8, choices=Kind)
    sizes_mm = models.JSONField(_("thicknesses"), default=list)


class Compound(Equipment):
    """A retaining compound or sealant by its generic kind, with the values of its own data sheet."""

    class Kind(models.TextChoices):
        RETAINING = "retaining", _("retaining compound")
        THREADLOCK = "threadlock", _("threadlocker")
        ANAEROBIC = "anaerobic", _("sealant, anaerobic")
        SOLVENT = "solvent", _("sealant, solvent-based")
        SILICONE = "silicone", _("sealant, silicone")

    class Strength(models.TextChoices):
        UNKNOWN = "", _("unknown")
        MEDIUM = "medium", _("medium")
        HIGH = "high", _("high")
        HOT = "high temperature", _("high, for heat")

    kind = models.CharField(max_length=10, choices=Kind)
    strength = models.CharField(max_length=16, choices=Strength, blank=True, help_text=_("Of a retaining compound."))
    open_s = models.FloatField(_("open time"), null=True, blank=True, validators=[MinValueValidator(10), MaxValueValidator(86400)])
    cure_s = models.FloatField(_("cures in"), null=True, blank=True, validators=[MinValueValidator(60), MaxValueValidator(604800)])
    gap_mm = models.FloatField(_("fills up to"), null=True, blank=True, validators=[MinValueValidator(0.01), MaxValueValidator(3)])
    good_until = models.DateField(null=True, blank=True)


class Gauge(Equipment):
    """A gauge: its resolution, the date of its check, and its connection."""

    class Kind(models.TextChoices):
        CONTACT = "contact", _("contact thermometer")
        INFRARED = "infrared", _("infrared gun")
        BORE = "bore", _("bore gauge")
        MICROMETER = "micrometer", _("micrometer")
        CALLIPER = "calliper", _("calliper")
        FEELER = "feeler", _("feeler blades")
        DIAL = "dial", _("dial gauge")
        LOAD = "load", _("load cell")
        STAND = "stand", _("balance stand")

    TEMPERATURE = ("contact", "infrared")
    OF_SIZE = ("bore", "micrometer", "calliper")  # a dial shows differences, which an old check spoils little
    KINDS = {"contact": "temperature", "infrared": "temperature", "load": "force", "stand": "angle"}
    UNITS = {"temperature": "°C", "force": "N", "angle": "°", "length": "mm"}  # that its own figures are kept in
    CHECK_DAYS = 365

    kind = models.CharField(max_length=12, choices=Kind)
    resolution = models.FloatField(help_text=_("Smallest step shown: mm, K, N or °."), validators=[MinValueValidator(1e-6)])
    repeatability = models.FloatField(null=True, blank=True, help_text=_("Sample standard deviation, same unit; empty if unknown."))
    emissivity = models.FloatField(null=True, blank=True, validators=[MinValueValidator(0.05), MaxValueValidator(1.0)])
    last_checked = models.DateField(null=True, blank=True)
    port = models.CharField(
        _("heard at"),
        max_length=120,
        blank=True,
        validators=[check_port],
        help_text=_("/dev/ttyUSB0, COM3, socket://127.0.0.1:5331; empty: typed."),
    )
    baud = models.PositiveIntegerField(default=9600, validators=[MinValueValidator(300), MaxValueValidator(4_000_000)])
    on_button = models.BooleanField(_("sends only on its button"), default=False, help_text=_("Then each line it sends is kept at once."))

    wrong_from = models.DateField(null=True, blank=True, help_text=_("The first day on which its readings are not trusted."))
    wrong_because = models.CharField(max_length=160, blank=True)

    class Meta(Equipment.Meta):
        constraints = [
            models.CheckConstraint(condition=models.Q(resolution__gt=0), name="gauge_resolves"),
            models.CheckConstraint(condition=~models.Q(kind="infrared") | models.Q(emissivity__isnull=False), name="gun_has_emissivity"),
        ]

    @property
    def measures(self) -> str:
        """The kind of quantity it gives."""
        return self.KINDS.get(self.kind, "length")

    @property
    def unit(self) -> str:
        return self.UNITS[self.measures]

    @property
    def step_shown(self) -> str:
        """Its smallest step in the reader's unit."""
        return show(exact(self.resolution, STEP_KINDS.get(self.measures, self.measures), finest=1e-6))

    def was_wrong(self, on: date) -> bool:
        """Return True if readings on a day are no longer trusted."""
        return self.wrong_from is not None and on >= self.wrong_from

    def check_due(self, on: date) -> bool:
        """Return True if its last check is unknown or older than a year."""
        return self.last_checked is None or (on - self.last_checked).days > self.CHECK_DAYS

    def calibration(self, on: date) -> float:
        """Return the standard uncertainty of zero and scale (*estimate*): half a step for a gauge of size whose check is due."""
        return self.resolution / 2 if self.kind in self.OF_SIZE and self.check_due(on) else 0.0

    def unsure(self, on: date, repeats: Sequence[float] = ()) -> float:
        """Expanded uncertainty of a reading, or of the mean of repeats at one place."""
        return gauge_uncertainty(self.resolution, self.repeatability, repeats, self.calibration(on), kind=self.kind)
