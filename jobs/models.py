"""Jobs and their log.

The promise of the log: an entry is open until someone signs it. While it is open its readings may be withdrawn (they stay, struck
out) and its choices changed. Once signed nothing in it changes any more; a later entry may supersede it. `jobs.seal` holds that in
the database, `jobs.log` is the only way in.
"""

from __future__ import annotations

from datetime import datetime, timedelta
from typing import Any

from django.conf import settings
from django.db import models, transaction
from django.db.models import F, Q
from django.utils import timezone

from engines.models import EngineCard, Seat
from shop.models import Gauge


class Job(models.Model):
    """One engine on the bench, from booking in to handing over. `revision` grows with every write, so pages know they are stale."""

    number = models.PositiveIntegerField(unique=True)
    card = models.ForeignKey(EngineCard, on_delete=models.PROTECT, related_name="jobs")
    complaint = models.CharField(max_length=200)
    comes_back = models.CharField("must come back", max_length=200, blank=True)
    work_order = models.CharField(max_length=40)
    revision = models.PositiveIntegerField(default=0)
    booked_in_at = models.DateTimeField(default=timezone.now)
    booked_in_by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, related_name="+")
    gone_at = models.DateTimeField(null=True, blank=True, db_index=True)

    class Meta:
        ordering = ["number"]

    def __str__(self) -> str:
        return f"{self.tag} {self.card.name}"

    @property
    def tag(self) -> str:
        return f"{self.number:04d}"

    @classmethod
    def next_number(cls) -> int:
        return (cls.objects.aggregate(last=models.Max("number"))["last"] or 400) + 1

    @property
    def is_closed(self) -> bool:
        """Whether it was handed over: nothing in it changes until an owner of the shop opens it again."""
        return self.gone_at is not None

    def touch(self) -> None:
        Job.objects.filter(pk=self.pk).update(revision=F("revision") + 1)


class Origin(models.Model):
    """Where a job read in from a file came from. What the file says of people and equipment is that shop's word, not this one's."""

    job = models.OneToOneField(Job, on_delete=models.CASCADE, related_name="origin")
    shop = models.CharField(max_length=80, blank=True, help_text="As the file names it; empty when it does not.")
    digest = models.CharField(max_length=64, help_text="SHA-256 of the file.")
    read_at = models.DateTimeField(default=timezone.now)
    read_by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, related_name="+")
    left_out = models.JSONField(default=list, help_text="What the file names that could not be brought along, a sentence each.")

    def __str__(self) -> str:
        return f"{self.job.tag} from {self.shop or 'an unnamed shop'}, file {self.digest[:8]}"


class RunStation(models.Model):
    """One station in a job's run, and where it stands. The bench page reads these lines alone."""

    class State(models.TextChoices):
        AHEAD = "ahead", "ahead"
        NOW = "now", "on it"
        WAITS = "waits", "waits"
        DONE = "done", "done"
        SKIPPED = "skipped", "skipped"

    job = models.ForeignKey(Job, on_delete=models.CASCADE, related_name="run")
    order = models.PositiveSmallIntegerField()
    key = models.SlugField(max_length=30)
    state = models.CharField(max_length=8, choices=State, default=State.AHEAD)
    call_state = models.CharField(max_length=10, blank=True)
    next_move = models.CharField(max_length=200, blank=True)
    waits_for = models.CharField(max_length=100, blank=True)
    because = models.CharField(max_length=200, blank=True)

    class Meta:
        ordering = ["job", "order"]
        constraints = [
            models.UniqueConstraint(fields=["job", "order"], name="one_station_a_place"),
            models.UniqueConstraint(fields=["job", "key"], name="a_station_once"),
            models.CheckConstraint(condition=~Q(state="skipped") | ~Q(because=""), name="skipped_with_a_reason"),
        ]

    def __str__(self) -> str:
        return f"{self.job.tag} {self.key}"


class Entry(models.Model):
    """One act in the log: readings, choices, call, who, when."""

    job = models.ForeignKey(Job, on_delete=models.PROTECT, related_name="entries")
    station = models.ForeignKey(RunStation, on_delete=models.PROTECT, related_name="entries")
    seat = models.ForeignKey(Seat, on_delete=models.PROTECT, null=True, blank=True, related_name="entries")
    choices = models.JSONField(default=dict)
    ticks = models.JSONField(default=dict)
    opened_at = models.DateTimeField(default=timezone.now)
    opened_by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, related_name="+")
    signed_at = models.DateTimeField(null=True, blank=True)
    signed_by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, null=True, blank=True, related_name="+")
    call_state = models.CharField(max_length=10, blank=True)
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

    def __str__(self) -> str:
        return f"{self.station} {self.seat or ''}".strip()

    @property
    def is_signed(self) -> bool:
        return self.signed_at is not None


class Reading(models.Model):
    """One value as typed, with its unit, gauge and place. A reading without a number (a choice, a note) keeps its words in `text`."""

    entry = models.ForeignKey(Entry, on_delete=models.PROTECT, related_name="readings")
    ask = models.SlugField(max_length=40)
    heat = models.PositiveSmallIntegerField(default=1, help_text="Which attempt it belongs to.")
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
    came_second = models.BooleanField(default=False, help_text="Another device had answered the same question already.")

    class Meta:
        ordering = ["pk"]

    def __str__(self) -> str:
        return f"{self.ask}: {self.text}"


class Timer(models.Model):
    """A clock on the server. Pages only show it."""

    class Tone(models.TextChoices):
        HEAT = "heat", "heat"
        COLD = "cold", "cold"
        WINDOW = "window", "window"
        WAIT = "wait", "wait"

    job = models.ForeignKey(Job, on_delete=models.CASCADE, related_name="timers")
    entry = models.ForeignKey(Entry, on_delete=models.CASCADE, related_name="timers")
    key = models.SlugField(max_length=30)
    heat = models.PositiveSmallIntegerField(default=1)
    label = models.CharField(max_length=80)
    tone = models.CharField(max_length=8, choices=Tone)
    started_at = models.DateTimeField(default=timezone.now)
    due_at = models.DateTimeField(null=True, blank=True)
    ended_at = models.DateTimeField(null=True, blank=True)
    by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, related_name="+")

    class Meta:
        ordering = ["pk"]
        constraints = [models.UniqueConstraint(fields=["entry", "key", "heat"], name="a_timer_once_a_heat")]
        indexes = [models.Index(fields=["due_at"], condition=Q(ended_at=None), name="timers_that_run")]

    def __str__(self) -> str:
        return f"{self.job.tag} {self.label}"

    def long_over(self, at: datetime) -> bool:
        """Whether it came due so long ago that nobody waits for it."""
        return self.due_at is not None and at - self.due_at > timedelta(hours=12)

    def ran_s(self, at: datetime) -> float:
        return max(0.0, ((self.ended_at or at) - self.started_at).total_seconds())


def photo_path(photo: Photo, filename: str) -> str:
    return f"{photo.job.tag}/{filename}"


class Photo(models.Model):
    """A picture of a job, re-encoded on the way in, without place or camera."""

    job = models.ForeignKey(Job, on_delete=models.CASCADE, related_name="photos")
    station = models.ForeignKey(RunStation, on_delete=models.SET_NULL, null=True, blank=True, related_name="photos")
    image = models.FileField(upload_to=photo_path, max_length=200)
    thumb = models.FileField(upload_to=photo_path, max_length=200)
    width = models.PositiveIntegerField()
    height = models.PositiveIntegerField()
    caption = models.CharField(max_length=120, blank=True)
    taken_at = models.DateTimeField(default=timezone.now)
    by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, related_name="+")

    class Meta:
        ordering = ["pk"]

    def __str__(self) -> str:
        return self.caption or f"photo {self.pk}"

    def forget_files(self) -> None:
        for file in (self.image, self.thumb):
            file.delete(save=False)

    def delete(self, *args: Any, **kwargs: Any) -> tuple[int, dict[str, int]]:
        """The row first: a job that is closed refuses, and then its picture is still there."""
        gone = super().delete(*args, **kwargs)
        transaction.on_commit(self.forget_files)
        return gone


class Pin(models.Model):
    """A numbered pin on a photo with a note: washer stuck here. Its place is a share of the picture's width and height."""

    photo = models.ForeignKey(Photo, on_delete=models.CASCADE, related_name="pins")
    number = models.PositiveSmallIntegerField()
    x = models.FloatField()
    y = models.FloatField()
    note = models.CharField(max_length=160)
    by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, related_name="+")

    class Meta:
        ordering = ["number"]
        constraints = [
            models.UniqueConstraint(fields=["photo", "number"], name="a_pin_number_once"),
            models.CheckConstraint(condition=Q(x__gte=0, x__lte=1, y__gte=0, y__lte=1), name="pin_on_its_picture"),
        ]

    def __str__(self) -> str:
        return f"{self.number} {self.note}"


class TrayPlace(models.Model):
    """A place on the parts tray: what lies there, how many, which way round, and where it came from. Places are kept in the order taken."""

    job = models.ForeignKey(Job, on_delete=models.CASCADE, related_name="tray")
    number = models.PositiveSmallIntegerField()
    name = models.CharField(max_length=80)
    count = models.PositiveSmallIntegerField(default=1)
    where_from = models.CharField("from", max_length=80, blank=True, help_text="Which shaft or place, and the order on it.")
    half = models.CharField("hung on the", max_length=6, blank=True)
    way_round = models.CharField("which way round", max_length=80, blank=True)
    wear = models.CharField("wear seen", max_length=120, blank=True)
    photo = models.ForeignKey(Photo, on_delete=models.SET_NULL, null=True, blank=True, related_name="+")
    station = models.ForeignKey(RunStation, on_delete=models.SET_NULL, null=True, blank=True, related_name="+")
    client_key = models.CharField(max_length=64, unique=True)
    taken_at = models.DateTimeField(default=timezone.now)
    by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, related_name="+")
    emptied_at = models.DateTimeField(null=True, blank=True)

    class Meta:
        ordering = ["job", "number"]
        constraints = [
            models.UniqueConstraint(fields=["job", "number"], name="a_tray_place_once"),
            models.CheckConstraint(condition=Q(count__gte=1), name="a_tray_place_holds_something"),
        ]

    def __str__(self) -> str:
        return f"{self.number} {self.name}"


class OwnerLink(models.Model):
    """A read-only link to one job's sheet for the engine's owner. Only a digest is kept: who has the link has it, nobody can look it up."""

    job = models.ForeignKey(Job, on_delete=models.CASCADE, related_name="links")
    digest = models.CharField(max_length=64, unique=True)
    made_at = models.DateTimeField(default=timezone.now)
    made_by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, related_name="+")
    expires_at = models.DateTimeField()
    revoked_at = models.DateTimeField(null=True, blank=True)

    class Meta:
        ordering = ["-pk"]

    def __str__(self) -> str:
        return f"{self.job.tag} until {self.expires_at:%d %b}"

    def holds(self, at: datetime) -> bool:
        return self.revoked_at is None and at < self.expires_at


class Act(models.Model):
    """One thing that one person did, written in the transaction that did it, so that the same request sent again is not done again.

    `sent_key` is the key the page sent; `key` is the same unless a page sent other content under a key that was known already.
    """

    key = models.CharField(max_length=64, unique=True)
    sent_key = models.CharField(max_length=40, db_index=True)
    digest = models.CharField(max_length=64)
    address = models.CharField(max_length=200)
    person = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, related_name="+")
    job = models.ForeignKey(Job, on_delete=models.CASCADE, null=True, blank=True, related_name="acts")
    revision = models.PositiveIntegerField(default=0, help_text="Of the job, after it.")
    outcome = models.JSONField(default=dict, help_text="What was done, and where the answer led.")
    at = models.DateTimeField(default=timezone.now)

    class Meta:
        ordering = ["pk"]

    def __str__(self) -> str:
        return f"{self.address} by {self.person_id}"
