"""Jobs and their log.

The promise of the log: an entry is open until someone signs it. While it is open its readings may be withdrawn (they stay, struck
out) and its choices changed. Once signed nothing in it changes any more; a later entry may supersede it. `immutability` holds that in
the database, `log` is the only way in.
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
