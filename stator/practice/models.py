"""Practice: exercises of instructors, attempts, and learners who let the shop see theirs.

The job of an attempt is deleted when it is finished.
"""

from __future__ import annotations

from typing import Any

from django.conf import settings
from django.db import models
from django.utils import timezone
from django.utils.translation import gettext_lazy as _

from stator.jobs.models import Job


class Given(models.Model):
    """An exercise from an instructor's file: its kind, true values, goal and text for the learner."""

    name = models.CharField(max_length=60)
    words = models.CharField(max_length=400, blank=True)
    exercise = models.SlugField(max_length=30)
    level = models.CharField(max_length=10)
    seed = models.PositiveIntegerField()
    content = models.JSONField(help_text=_("The file as it was read."))
    digest = models.CharField(max_length=64, unique=True)
    brought_by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, related_name="+")
    brought_at = models.DateTimeField(default=timezone.now)
    retired = models.BooleanField(default=False)

    class Meta:
        ordering = ["pk"]

    def __str__(self) -> str:
        return self.name


class Attempt(models.Model):
    """An attempt at an exercise.

    `pulls` are the controls in order; with these the part is restored from its seed.
    """

    person = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="practice")
    exercise = models.SlugField(max_length=30)
    level = models.CharField(max_length=10)
    seed = models.PositiveIntegerField()
    given = models.ForeignKey(Given, on_delete=models.PROTECT, null=True, blank=True, related_name="attempts")
    job = models.OneToOneField(Job, on_delete=models.SET_NULL, null=True, blank=True, related_name="attempt")
    judges = models.BooleanField(
        default=False, help_text=_("Whether the learner says first what they make of it, before the call is shown.")
    )
    calls = models.JSONField(default=list, help_text=_("What the learner said, what Stator said, what was so."))
    pulls = models.JSONField(default=list)
    result = models.JSONField(default=dict, blank=True, help_text=_("What it came to, once it is finished."))
    started_at = models.DateTimeField(default=timezone.now)
    ended_at = models.DateTimeField(null=True, blank=True)

    class Meta:
        ordering = ["-pk"]

    def __str__(self) -> str:
        return f"{self.exercise} {self.seed}"

    @property
    def truth(self) -> dict[str, Any] | None:
        """Of the instructor's file; None where the seed draws it."""
        return self.given.content.get("truth") if self.given else None


class Learner(models.Model):
    """Whether a person lets the owners of the shop see the results of practice."""

    person = models.OneToOneField(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="learner")
    shown = models.BooleanField(default=False)

    def __str__(self) -> str:
        return str(self.person)
