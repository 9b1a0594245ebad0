"""Engine cards: parts of an engine and their limits, with the source of each value.

An engine template is copied for each job, so that a finished job retains its card. Unknown values are empty.
"""

from stator.engines.models.card import EngineCard, Hand, Subject, case_metals
from stator.engines.models.case import CasePart, Joint
from stator.engines.models.face import Mark, Spec
from stator.engines.models.places import Fitted, Seal, Seat

__all__ = ["CasePart", "EngineCard", "Fitted", "Hand", "Joint", "Mark", "Seal", "Seat", "Spec", "Subject", "case_metals"]
