"""Case parts and the joints between them: at least two halves and one joint, possibly a center section, a gearbox half or covers."""

from __future__ import annotations

from django.core.validators import MaxValueValidator, MinValueValidator
from django.db import models
from django.utils.translation import gettext as _now
from django.utils.translation import gettext_lazy as _

from stator.engines.models.card import CardModel, EngineCard
from stator.engines.parts import HALVES, JOINT, Kind, Part


class CasePart(CardModel):
    """A part of the case.

    The two halves are named after the sides of the engine and have no name of their own.
    """

    class What(models.TextChoices):
        HALF = "half", _("half of the case")
        CENTRE = "centre", _("centre section, between the halves")
        GEARBOX = "gearbox", _("gearbox half")
        COVER = "cover", _("cover")

    card = models.ForeignKey(EngineCard, on_delete=models.CASCADE, related_name="case_parts")
    name = models.CharField(_("what you call it"), max_length=40, blank=True)
    what = models.CharField(_("what it is"), max_length=8, choices=What, default=What.HALF)
    fastened_to = models.CharField(_("bolted to the"), max_length=32, blank=True, help_text=_("A cover or a gearbox half."))

    class Meta:
        ordering = ["pk"]
        constraints = [models.UniqueConstraint(fields=["card", "uid"], name="case_part_uid_once")]

    def __str__(self) -> str:
        return self.called

    @property
    def part(self) -> Part:
        return Part(Kind.CASE, self.uid, f"{self.uid} case" if self.uid in HALVES else self.name)

    @property
    def called(self) -> str:
        """As a sentence names it: drive side half, centre section."""
        return self.card.part_name(self.uid)

    @property
    def bolted_to(self) -> str:
        return self.card.part_name(self.fastened_to)


def case_part(card: EngineCard, uid: str) -> CasePart | None:
    """Return a part of the case by its identity."""
    return next((part for part in card.case_parts.all() if part.uid == uid), None) if card.pk else None


def center_sections(card: EngineCard) -> list[CasePart]:
    """Return the center sections, from left to right; none in a case of two halves."""
    return [part for part in card.case_parts.all() if part.what == CasePart.What.CENTRE] if card.pk else []


class Joint(CardModel):
    """A joint between two case parts.

    Sizes that it does not have are those of the first joint's mating surface.
    """

    card = models.ForeignKey(EngineCard, on_delete=models.CASCADE, related_name="joints")
    one = models.CharField(max_length=32)
    other = models.CharField(max_length=32)
    lifts = models.CharField(
        _("the part that comes off"), max_length=32, blank=True, help_text=_("Of the first joint the card itself says it.")
    )
    face_w_mm = models.FloatField(_("its face, across"), null=True, blank=True, validators=[MinValueValidator(20), MaxValueValidator(900)])
    face_h_mm = models.FloatField(_("its face, up"), null=True, blank=True, validators=[MinValueValidator(20), MaxValueValidator(900)])

    class Meta:
        ordering = ["pk"]
        constraints = [models.UniqueConstraint(fields=["card", "uid"], name="joint_uid_once")]

    def __str__(self) -> str:
        return self.called

    @property
    def part(self) -> Part:
        return Part(Kind.JOINT, self.uid, "" if self.is_first else self.called)

    @property
    def is_first(self) -> bool:
        """Return True if it is the one that every card has."""
        return self.uid == JOINT.uid

    @property
    def is_of_cover(self) -> bool:
        part = case_part(self.card, self.one)
        return part is not None and part.what == CasePart.What.COVER

    @property
    def lifting(self) -> str:
        """Return the identity of the part that comes off first; empty if unknown."""
        text = self.card.lifts if self.is_first else self.lifts or (self.one if self.is_of_cover else "")
        return text if text in (self.one, self.other) else ""

    @property
    def staying(self) -> str:
        """Return the part that remains on the bench when this joint is opened."""
        return {self.one: self.other, self.other: self.one}.get(self.lifting, "")

    @property
    def comes_off(self) -> str:
        """Return the name of the part that comes off; empty if unknown."""
        return self.card.part_name(self.lifting) if self.lifting else ""

    @property
    def face_mm(self) -> tuple[float, float]:
        """Return how far its face reaches, across and up."""
        return self.face_w_mm or self.card.face_w_mm, self.face_h_mm or self.card.face_h_mm

    @property
    def called(self) -> str:
        """A cover's joint by its cover; another by the two parts that meet."""
        if self.is_of_cover:
            return self.card.side(self.one)
        return _now("{one} to {other}").format(one=self.card.side(self.one), other=self.card.side(self.other))
