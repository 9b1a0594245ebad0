"""Pictures with their pins, and the parts tray."""

from __future__ import annotations

from typing import Any

from django.conf import settings
from django.db import models, transaction
from django.db.models import Q
from django.utils import timezone
from django.utils.translation import gettext_lazy as _

from stator.engines.models import Subject
from stator.jobs.models.job import Job, RunStation


def photo_path(photo: Photo, filename: str) -> str:
    return f"{photo.job.tag}/{filename}"


class Photo(models.Model):
    """A picture of a job, re-encoded on the way in, without place or camera."""

    job = models.ForeignKey(Job, on_delete=models.CASCADE, related_name="photos")
    station = models.ForeignKey(RunStation, on_delete=models.SET_NULL, null=True, blank=True, related_name="photos")
    subject = models.ForeignKey(Subject, on_delete=models.SET_NULL, null=True, blank=True, related_name="+")
    image = models.FileField(upload_to=photo_path, max_length=200)
    thumb = models.FileField(upload_to=photo_path, max_length=200)
    width = models.PositiveIntegerField()
    height = models.PositiveIntegerField()
    caption = models.CharField(max_length=120, blank=True)
    digest = models.CharField(
        max_length=64, blank=True, help_text=_("SHA-256 of the picture as it was first kept; records name it by this.")
    )
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
    """A numbered marker on a photo with a note. Its position is a fraction of the width and the height."""

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
    """A position on the parts tray: the part, the quantity, the orientation and the origin, in the order of removal."""

    job = models.ForeignKey(Job, on_delete=models.CASCADE, related_name="tray")
    number = models.PositiveSmallIntegerField()
    name = models.CharField(max_length=80)
    count = models.PositiveSmallIntegerField(default=1)
    where_from = models.CharField(_("from"), max_length=80, blank=True, help_text=_("Which shaft or place, and the order on it."))
    half = models.CharField(_("hung on the"), max_length=32, blank=True)
    way_round = models.CharField(_("which way round"), max_length=80, blank=True)
    wear = models.CharField(_("wear seen"), max_length=120, blank=True)
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

    @property
    def found_on(self) -> str:
        """The part of the case that it was found on, as this engine calls it; empty where nobody knows."""
        return self.job.card.part_name(self.half) if self.half else ""
