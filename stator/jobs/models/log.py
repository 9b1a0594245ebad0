"""The log: entries, their readings, actions and timers, and the record of each signed entry."""

from __future__ import annotations

from datetime import datetime, timedelta

from django.conf import settings
from django.db import models
from django.db.models import Q
from django.utils import timezone
from django.utils.translation import gettext_lazy as _

from stator.engines.models import Seat, Subject
from stator.jobs.models.job import Job, RunStation
from stator.shop.models import Gauge


class OfAHeater(models.Func):
    """The condition that a result contains a heater.

    It has no parameters, because SQLite uses a partial index only then.
    """

    template = """JSON_TYPE(%(expressions)s, '$."heater_id"') IS NOT NULL"""
    output_field = models.BooleanField()


class Entry(models.Model):
    """An entry of the log: readings, choices, verdict, user and times."""

    job = models.ForeignKey(Job, on_delete=models.PROTECT, related_name="entries")
    station = models.ForeignKey(RunStation, on_delete=models.PROTECT, related_name="entries")
    seat = models.ForeignKey(Seat, on_delete=models.PROTECT, null=True, blank=True, related_name="entries")
    subject = models.ForeignKey(Subject, on_delete=models.PROTECT, null=True, blank=True, related_name="entries")
    attempt = models.PositiveSmallIntegerField(default=1, help_text=_("The attempt or round that is open."))
    choices = models.JSONField(default=dict)
    ticks = models.JSONField(default=dict)
    opened_at = models.DateTimeField(default=timezone.now)
    opened_by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, related_name="+")
    signed_at = models.DateTimeField(null=True, blank=True)
    signed_by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, null=True, blank=True, related_name="+")
    call_state = models.CharField(max_length=10, blank=True)
    call_code = models.CharField(max_length=40, blank=True)
    call_values = models.JSONField(default=dict)
    call_words = models.CharField(max_length=80, blank=True)
    reason = models.CharField(max_length=300, blank=True)
    result = models.JSONField(default=dict)
    core_version = models.CharField(max_length=20, blank=True)
    supersedes = models.OneToOneField("self", on_delete=models.PROTECT, null=True, blank=True, related_name="superseded_by")

    class Meta:
        ordering = ["pk"]  # by identity: a clock may have been set back
        constraints = [
            models.UniqueConstraint(fields=["station", "seat"], condition=Q(signed_at__isnull=True), name="one_open_entry_a_seat"),
            models.UniqueConstraint(
                fields=["station"], condition=Q(signed_at__isnull=True, seat__isnull=True), name="one_open_entry_a_station"
            ),
            models.CheckConstraint(
                condition=Q(signed_at__isnull=True, signed_by__isnull=True) | Q(signed_at__isnull=False, signed_by__isnull=False),
                name="signed_by_someone",
            ),
        ]
        indexes = [models.Index(fields=["-signed_at"], condition=Q(OfAHeater("result")), name="heats_by_time")]

    def __str__(self) -> str:
        return f"{self.station} {self.seat or ''}".strip()

    @property
    def is_signed(self) -> bool:
        return self.signed_at is not None


class FactKeyFields(models.Model):
    """A fact key in columns: part, property and place on the part."""

    subject = models.ForeignKey(Subject, on_delete=models.PROTECT, null=True, blank=True, related_name="+")
    property = models.CharField(max_length=30, blank=True)
    end = models.CharField(max_length=20, blank=True, help_text=_("Which end, side or row of the part."))
    angle_deg = models.FloatField(null=True, blank=True)
    clock = models.PositiveSmallIntegerField(null=True, blank=True, help_text=_("12, 3, 6 or 9 o'clock."))
    depth = models.CharField(max_length=12, blank=True, help_text=_("How deep in a bore or how far along a shaft."))
    stage = models.PositiveSmallIntegerField(null=True, blank=True, help_text=_("Which stage of several, such as a round of torque."))

    class Meta:
        abstract = True


class Reading(FactKeyFields):
    """A value as typed, with its unit, gauge and place.

    A reading without a number (a choice, a note) has its words in `text`.
    """

    entry = models.ForeignKey(Entry, on_delete=models.PROTECT, related_name="readings")
    ask = models.CharField(max_length=80, help_text=_("Key of the question that it answers."))
    attempt = models.PositiveSmallIntegerField(default=1)
    repeat = models.PositiveSmallIntegerField(default=1, help_text=_("Which of several readings at one place."))
    turn = models.PositiveSmallIntegerField(default=1, help_text=_("Which revolution of a part that is turned."))
    carried_from = models.ForeignKey("self", on_delete=models.PROTECT, null=True, blank=True, related_name="carried_to")
    text = models.CharField(max_length=1000)
    kind = models.CharField(max_length=25)
    unit = models.CharField(max_length=20, blank=True)
    canonical = models.FloatField(null=True, blank=True)
    gauge = models.ForeignKey(Gauge, on_delete=models.PROTECT, null=True, blank=True, related_name="+")
    extra = models.JSONField(default=dict)
    taken_at = models.DateTimeField(default=timezone.now)
    by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, related_name="+")
    client_key = models.CharField(max_length=64, unique=True)
    withdrawn_at = models.DateTimeField(null=True, blank=True)
    withdrawn_by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, null=True, blank=True, related_name="+")
    came_second = models.BooleanField(default=False, help_text=_("Another device had answered the same question already."))

    class Meta:
        ordering = ["pk"]

    def __str__(self) -> str:
        return f"{self.ask}: {self.text}"


class Timer(models.Model):
    """A clock on the server. Pages only show it."""

    class Tone(models.TextChoices):
        HEAT = "heat", _("heat")
        COLD = "cold", _("cold")
        WINDOW = "window", _("window")
        WAIT = "wait", _("wait")

    job = models.ForeignKey(Job, on_delete=models.CASCADE, related_name="timers")
    entry = models.ForeignKey(Entry, on_delete=models.CASCADE, related_name="timers")
    key = models.SlugField(max_length=30)
    attempt = models.PositiveSmallIntegerField(default=1)
    label = models.CharField(max_length=80, blank=True, help_text=_("In words, where no code says it."))
    said = models.JSONField(default=dict, blank=True, help_text=_("What it counts, by code and values."))
    tone = models.CharField(max_length=8, choices=Tone)
    started_at = models.DateTimeField(default=timezone.now)
    due_at = models.DateTimeField(null=True, blank=True)
    ended_at = models.DateTimeField(null=True, blank=True)
    by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, related_name="+")

    class Meta:
        ordering = ["pk"]
        constraints = [models.UniqueConstraint(fields=["entry", "key", "attempt"], name="a_timer_once_an_attempt")]
        indexes = [models.Index(fields=["due_at"], condition=Q(ended_at=None), name="timers_that_run")]

    def __str__(self) -> str:
        return f"{self.job.tag} {self.key}"

    def long_over(self, at: datetime) -> bool:
        """Return True if it came due so long ago that nobody waits for it."""
        return self.due_at is not None and at - self.due_at > timedelta(hours=12)

    def ran_s(self, at: datetime) -> float:
        return max(0.0, ((self.ended_at or at) - self.started_at).total_seconds())


class Move(FactKeyFields):
    """An action between readings, for example the splitter was loaded, the halves parted, or a hole was drilled."""

    entry = models.ForeignKey(Entry, on_delete=models.PROTECT, related_name="moves")
    kind = models.CharField(max_length=20)
    attempt = models.PositiveSmallIntegerField(default=1)
    amount = models.FloatField(null=True, blank=True)
    amount_kind = models.CharField(max_length=25, blank=True)
    text = models.CharField(max_length=200, blank=True)
    detail = models.JSONField(default=dict, blank=True, help_text=_("Numbers that go with it, by name with their unit."))
    at = models.DateTimeField(null=True, blank=True, help_text=_("Empty where the time was not kept."))
    by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, related_name="+")

    class Meta:
        ordering = ["pk"]

    def __str__(self) -> str:
        return self.kind


class DerivedFact(FactKeyFields):
    """A fact that followed from the readings of an entry when it was signed, such as a runout, a mean bore or a decision."""

    entry = models.ForeignKey(Entry, on_delete=models.PROTECT, related_name="derived")
    value = models.FloatField(null=True, blank=True)
    text = models.CharField(max_length=200, blank=True)
    kind = models.CharField(max_length=25, blank=True)
    uncertainty = models.FloatField(null=True, blank=True, help_text=_("Expanded (k = 2), in the unit of the value."))
    resolution = models.FloatField(null=True, blank=True)
    assumed = models.BooleanField(default=False, help_text=_("Whether something assumed went into it."))

    class Meta:
        ordering = ["pk"]

    def __str__(self) -> str:
        return f"{self.property}: {self.text or self.value}"


class Digest(models.Model):
    """The SHA-256 digest of a signed entry, its record and the previous digest. It never changes."""

    entry = models.OneToOneField(Entry, on_delete=models.PROTECT, related_name="digest")
    previous = models.CharField(max_length=64, blank=True, help_text=_("Of the entry signed before it; empty for the first of a job."))
    value = models.CharField(max_length=64)

    class Meta:
        ordering = ["pk"]

    def __str__(self) -> str:
        return self.value[:12]


class Record(models.Model):
    """A signed entry as it was: verdict, text, values, facts, equipment and drawing."""

    entry = models.OneToOneField(Entry, on_delete=models.PROTECT, related_name="record")
    content = models.JSONField(default=dict)
    drawing = models.BinaryField(default=bytes, help_text=_("SVG, compressed with zlib."))
    made_at = models.DateTimeField(default=timezone.now)

    class Meta:
        ordering = ["pk"]

    def __str__(self) -> str:
        return f"record of {self.entry_id}"
