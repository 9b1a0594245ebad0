"""A job, its run, where it came from, who may look at it, and every act that changed it."""

from __future__ import annotations

from datetime import datetime
from typing import ClassVar

from django.conf import settings
from django.db import models
from django.db.models import F, Q
from django.utils import timezone
from django.utils.translation import gettext_lazy as _

from stator.engines.models import EngineCard
from stator.ui.url_values import job_tag


class ShopJobManager(models.Manager["Job"]):
    """Jobs of the shop: none that is practice."""

    def get_queryset(self) -> models.QuerySet[Job]:
        return super().get_queryset().filter(practice=False)


class Job(models.Model):
    """An engine in the shop, from check-in to handover.

    `revision` grows with every write, so that pages detect that they are out of date.
    """

    WHOSE = ("customer", "registration", "frame_number", "engine_number")

    number = models.PositiveIntegerField(unique=True)
    card = models.ForeignKey(EngineCard, on_delete=models.PROTECT, related_name="jobs")
    complaint = models.CharField(max_length=200)
    comes_back = models.CharField(_("must come back"), max_length=200, blank=True)
    customer = models.CharField(_("owner of the engine"), max_length=80, blank=True, default="")
    registration = models.CharField(_("registration"), max_length=30, blank=True, default="")
    frame_number = models.CharField(_("frame number"), max_length=40, blank=True, default="")
    engine_number = models.CharField(_("engine number"), max_length=40, blank=True, default="")
    ended_because = models.CharField(max_length=240, blank=True, default="")  # of one that was closed without being finished
    work_order = models.CharField(max_length=40)
    revision = models.PositiveIntegerField(default=0)
    booked_in_at = models.DateTimeField(default=timezone.now)
    booked_in_by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, related_name="+")
    gone_at = models.DateTimeField(null=True, blank=True, db_index=True)
    practice = models.BooleanField(default=False, editable=False, help_text=_("On an engine that does not exist; set once, as it is made."))
    ahead_s = models.FloatField(default=0.0, editable=False, help_text=_("By how much a practice job's clock is ahead of the machine's."))
    fast_since = models.DateTimeField(null=True, blank=True, editable=False, help_text=_("Since when a practice job's clock runs fast."))

    objects = ShopJobManager()  # what every list, search, prediction and file sees
    every: ClassVar[models.Manager[Job]] = models.Manager()  # for pages that name one job

    class Meta:
        ordering = ["number"]
        constraints = [
            models.CheckConstraint(condition=Q(practice=True) | Q(ahead_s=0.0, fast_since=None), name="only_practice_runs_ahead"),
        ]
        indexes = [models.Index(fields=["card"], condition=Q(practice=True), name="cards_of_practice")]

    def __str__(self) -> str:
        return f"{self.tag} {self.card.name}"

    @property
    def tag(self) -> str:
        return job_tag(self.number)

    @property
    def whose(self) -> str:
        """Return the customer and the numbers of the engine in one line; empty if unknown."""
        told = [self.customer] if self.customer else []
        told += [f"{Job._meta.get_field(name).verbose_name} {getattr(self, name)}" for name in Job.WHOSE[1:] if getattr(self, name)]  # type: ignore[union-attr]
        return ", ".join(told)

    @classmethod
    def next_number(cls) -> int:
        return (cls.objects.aggregate(last=models.Max("number"))["last"] or 400) + 1

    @property
    def is_closed(self) -> bool:
        """Return True if the job was handed over; only an owner of the shop can open it again."""
        return self.gone_at is not None

    def touch(self) -> None:
        Job.every.filter(pk=self.pk).update(revision=F("revision") + 1)
        self.revision += 1  # the transaction of an act holds the database for itself


class Origin(models.Model):
    """The origin of an imported job.

    What the file contains about people and equipment is the word of another shop.
    """

    job = models.OneToOneField(Job, on_delete=models.CASCADE, related_name="origin")
    shop = models.CharField(max_length=80, blank=True, help_text=_("As the file names it; empty when it does not."))
    digest = models.CharField(max_length=64, help_text=_("SHA-256 of the file."))
    read_at = models.DateTimeField(default=timezone.now)
    read_by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, related_name="+")
    told = models.JSONField(default=dict, help_text=_("Whether its digests agree, as a code, and what they say was changed."))
    left_out = models.JSONField(default=list, help_text=_("What the file names that could not be brought along, a sentence each."))

    def __str__(self) -> str:
        return f"{self.job.tag} from {self.shop or 'an unnamed shop'}, file {self.digest[:8]}"


class RunStation(models.Model):
    """A station in the work plan of a job and its state. The list of open jobs reads these rows only."""

    class State(models.TextChoices):
        AHEAD = "ahead", _("ahead")
        NOW = "now", _("on it")
        WAITS = "waits", _("waits")
        DONE = "done", _("done")
        SKIPPED = "skipped", _("skipped")

    job = models.ForeignKey(Job, on_delete=models.CASCADE, related_name="run")
    order = models.PositiveSmallIntegerField()
    key = models.SlugField(max_length=30)
    state = models.CharField(max_length=8, choices=State, default=State.AHEAD)
    call_state = models.CharField(max_length=10, blank=True)
    next_move = models.CharField(max_length=200, blank=True)  # in words, where no code says it
    next_said = models.JSONField(default=dict, blank=True)  # its code and values
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


class OwnerLink(models.Model):
    """A read-only link to one job report for the customer.

    Only a digest is stored, so that nobody can look it up.
    """

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
    """A request that was executed, stored in its transaction so that it is not executed again.

    `sent_key` is the key of the page. `key` is the same unless a page sent other content with a known key.
    """

    key = models.CharField(max_length=64, unique=True)
    sent_key = models.CharField(max_length=40, db_index=True)
    digest = models.CharField(max_length=64)
    address = models.CharField(max_length=200)
    person = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, related_name="+")
    job = models.ForeignKey(Job, on_delete=models.CASCADE, null=True, blank=True, related_name="acts")
    revision = models.PositiveIntegerField(default=0, help_text=_("Of the job, after it."))
    outcome = models.JSONField(default=dict, help_text=_("What was done, and where the answer led."))
    at = models.DateTimeField(default=timezone.now)

    class Meta:
        ordering = ["pk"]

    def __str__(self) -> str:
        return f"{self.address} by {self.person_id}"
