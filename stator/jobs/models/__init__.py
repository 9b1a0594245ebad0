"""Jobs and their log.

An entry is open until it is signed. While it is open, its readings may be withdrawn (they remain, struck out) and its choices changed. A
signed entry never changes; a later entry may replace it. `immutability` enforces this in the database, and `log` contains all writes.
"""

from stator.jobs.models.job import Act, Job, Origin, OwnerLink, RunStation
from stator.jobs.models.log import DerivedFact, Digest, Entry, Move, Reading, Record, Timer
from stator.jobs.models.photos import Photo, Pin, TrayPlace, photo_path

__all__ = [
    "Act",
    "DerivedFact",
    "Digest",
    "Entry",
    "Job",
    "Move",
    "Origin",
    "OwnerLink",
    "Photo",
    "Pin",
    "Reading",
    "Record",
    "RunStation",
    "Timer",
    "TrayPlace",
    "photo_path",
]
