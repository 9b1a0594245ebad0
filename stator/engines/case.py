"""The case as it is put together: which of its parts meet, and in which order the joints open."""

from __future__ import annotations

from collections.abc import Iterator
from itertools import pairwise

from stator.engines.models import CasePart, EngineCard, Joint, Seat
from stator.engines.models.case import case_part, center_sections
from stator.engines.parts import HALVES, JOINT

OUTSIDE = (CasePart.What.COVER, CasePart.What.GEARBOX)  # they come off before the halves part, and go on last


def joint_wanted(card: EngineCard) -> Iterator[tuple[str, str, str]]:
    """Yield each joint of the parts of a card: its identity and the two parts, first those along the crank, then bolted-on parts."""
    along = [HALVES[0], *(part.uid for part in center_sections(card)), HALVES[1]]
    for number, (one, other) in enumerate(pairwise(along)):
        yield (f"{JOINT.uid}-{one}" if number else JOINT.uid), one, other
    for part in card.case_parts.all():
        if part.what in OUTSIDE:
            yield f"{JOINT.uid}-{part.uid}", part.uid, part.fastened_to or HALVES[0]


def joined_anew(card: EngineCard) -> None:
    """Update the joints of a card for its parts.

    A joint that remains has the same identity, mating surface and bolts.
    """
    card = EngineCard.objects.get(pk=card.pk)
    standing = {joint.uid: joint for joint in card.joints.all()}
    for uid, one, other in joint_wanted(card):
        joint = standing.pop(uid, None) or Joint(card=card, uid=uid)
        if joint.pk is None or (joint.one, joint.other) != (one, other):
            joint.one, joint.other = one, other
            joint.save()
    for joint in standing.values():
        joint.delete()


def joints_of(card: EngineCard) -> list[Joint]:
    """Its joints in the order in which they open: covers and a gearbox half first, then along the crank."""
    if card.pk is None:
        return [Joint(card=card, uid=JOINT.uid, one=HALVES[0], other=HALVES[1])]
    outside = {part.uid for part in card.case_parts.all() if part.what in OUTSIDE}
    found = list(card.joints.all())
    for joint in found:
        joint.card = card
    return sorted(found, key=lambda joint: joint.one not in outside)


def along(card: EngineCard) -> list[Joint]:
    """The joints along the crank, from left to right."""
    return [joint for joint in joints_of(card) if not is_outside(joint)]


def is_outside(joint: Joint) -> bool:
    """Return True if the joint is that of a cover or a gearbox half, which is not along the crank."""
    part = case_part(joint.card, joint.one)
    return part is not None and part.what in OUTSIDE


def case_choices(card: EngineCard | None, *, crank: bool = False) -> list[tuple[str, str]]:
    """Return what something may sit in: the parts of the case, as this engine calls them; and the crank."""
    if card is None:
        found = [(half.value, str(half.label)) for half in Seat.Half if half != Seat.Half.CRANK]
    else:
        found = [(uid, card.part_name(uid)) for uid in ([part.uid for part in card.case_parts.all()] if card.pk else HALVES)]
    return [*found, *([(Seat.Half.CRANK.value, str(Seat.Half.CRANK.label))] if crank else [])]


def keeps(part: CasePart) -> list[str]:
    """Return the names of what is fitted in a part or marked on its joint; such a part cannot be removed from the card."""
    card, uid = part.card, part.uid
    seated = [each.name for things in (card.seats, card.seals, card.fitted) for each in things.all() if each.half == uid]
    of_it = {joint.uid for joint in card.joints.all() if uid in (joint.one, joint.other) and joint.uid != JOINT.uid}
    bolted = [each.name for each in card.case_parts.all() if each.fastened_to == uid]
    return [*seated, *bolted, *(mark.name for mark in card.marks.all() if mark.joint in of_it)]
