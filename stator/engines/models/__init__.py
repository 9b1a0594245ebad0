"""Engine cards: what an engine is made of and what it should measure, with the source of each figure.

A card on the shelf is copied for every job, so that a finished job keeps the card it was done by. What is unknown stays empty.
"""

from stator.engines.models.card import EngineCard, Hand, Subject, case_metals
from stator.engines.models.case import CasePart, Joint
from stator.engines.models.face import Mark, Spec
from stator.engines.models.places import Fitted, Seal, Seat

__all__ = ["CasePart", "EngineCard", "Fitted", "Hand", "Joint", "Mark", "Seal", "Seat", "Spec", "Subject", "case_metals"]
