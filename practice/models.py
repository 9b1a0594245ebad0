"""One go at an exercise: whose, which truth, what hands did, what it came to. Its job is gone once it is finished."""

from __future__ import annotations

from django.conf import settings
from django.db import models
from django.utils import timezone
from django.utils.translation import gettext_lazy as _

from jobs.models import Job


class Attempt(models.Model):
    """A go at an exercise. `state` is the simulated part as it stands; `moves` what hands did to it, in order."""

    person = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="practice")
    exercise = models.SlugField(max_length=30)
    level = models.CharField(max_length=10)
    seed = models.PositiveIntegerField()
    job = models.OneToOneField(Job, on_delete=models.SET_NULL, null=True, blank=True, related_name="attempt")
    state = models.JSONField(default=dict)
    moves = models.JSONField(default=list)
    result = models.JSONField(default=dict, blank=True, help_text=_("What it came to, once it is finished."))
    started_at = models.DateTimeField(default=timezone.now)
    ended_at = models.DateTimeField(null=True, blank=True)

    class Meta:
        ordering = ["-pk"]

    def __str__(self) -> str:
        return f"{self.exercise} {self.seed}"

    @property
    def is_finished(self) -> bool:
        return self.ended_at is not None
