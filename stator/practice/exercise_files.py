"""Import and export of an instructor's exercise as JSON: true values, gauge, tolerance, text and goal.

Described in docs/practice.md.

A file is accepted or refused as a whole, with the place and the reason.
"""

from __future__ import annotations

import hashlib
import json
from dataclasses import asdict, fields, is_dataclass
from typing import Annotated, Any, Literal

from django.utils.translation import gettext as _
from pydantic import BaseModel, ConfigDict, Field, TypeAdapter, ValidationError

from shopmath.validation import BadInput
from stator.practice.attempts import exercise_of
from stator.practice.models import Attempt, Given
from stator.shop.models import Person
from stator.simulators.case_halves import PLACES as GAP_PLACES
from stator.simulators.heated_case_half import BEARINGS
from stator.simulators.seals import PLACES as SEAL_PLACES
from stator.ui import strict_json

SCHEMA, VERSION = "stator-exercise", 1
LARGEST_BYTES = 100_000
Share = Annotated[float, Field(ge=0, le=1)]
Degrees = Annotated[float, Field(ge=-1, le=1)]  # of a web or a half: more is no crank any more
Angle = Annotated[float, Field(ge=0, le=360)]
Small = Annotated[float, Field(ge=-0.5, le=0.5)]  # mm
Uneven = Annotated[float, Field(ge=1, le=3)]


class Strict(BaseModel):
    """Nothing that is not described is taken."""

    model_config = ConfigDict(extra="forbid", strict=False)


class BentIn(Strict):
    twist_deg: Degrees
    pinch_deg: Degrees
    offset_mm: Small
    skew_deg: Degrees


class CrankIn(Strict):
    bent: BentIn
    oval_mm: Annotated[float, Field(ge=0, le=0.2)] = 0.002
    uneven: Uneven = 1.5
    slips_mm: Small = 0.0
    slips_after: Annotated[int, Field(ge=0, le=100)] = 0
    rocks_mm: Annotated[float, Field(ge=0, le=0.2)] = 0.0


class WebsIn(Strict):
    left_deg: Degrees
    right_deg: Degrees
    left_along_mm: Small = 0.0
    right_along_mm: Small = 0.0
    uneven: Uneven = 1.5


class SwingsIn(Strict):
    left_mm: Annotated[float, Field(gt=0, le=0.9)]
    right_mm: Annotated[float, Field(gt=0, le=0.9)]
    left_deg: Angle
    right_deg: Angle
    backlash_mm: Annotated[float, Field(ge=0, le=0.05)] = 0.0
    trembles_mm: Annotated[float, Field(ge=0, le=0.01)] = 0.0005


class StuckIn(Strict):
    frees_n: Annotated[float, Field(ge=1000, le=200_000)]
    boss_d_mm: Annotated[float, Field(ge=10, le=60)] = 27.0
    boss_pitch_mm: Annotated[float, Field(ge=0.5, le=3)] = 1.0
    off_pitch_mm: Annotated[float, Field(ge=0, le=0.5)] = 0.0
    turns: Annotated[float, Field(ge=1, le=20)] = 7.0


class JointIn(Strict):
    leads: Annotated[float, Field(ge=0, le=2)]
    toward_deg: Angle
    forgotten: Literal["", *GAP_PLACES] = ""  # type: ignore[valid-type]
    tight: Annotated[float, Field(ge=0.3, le=2)] = 1.0


class OvenIn(Strict):
    tight_um: dict[Literal[*BEARINGS], Annotated[float, Field(ge=0, le=120)]]  # type: ignore[valid-type]
    tau_s: Annotated[float, Field(ge=60, le=3600)]
    below_k: Annotated[float, Field(ge=0, le=40)] = 0.0


class LotIn(Strict):
    made_for: tuple[Literal[*SEAL_PLACES], Literal[*SEAL_PLACES], Literal[*SEAL_PLACES]]  # type: ignore[valid-type]
    inside_up: tuple[bool, bool, bool]
    leans_mm: Annotated[float, Field(ge=0, le=2)]
    reads_off_mm: Annotated[float, Field(ge=0, le=0.3)] = 0.02


Pair = tuple[Annotated[float, Field(ge=0, le=3)], Annotated[float, Field(ge=0, le=3)]]


class WidthsIn(Strict):
    left_mm: Annotated[float, Field(ge=5, le=150)]
    right_mm: Annotated[float, Field(ge=5, le=150)]
    gasket_mm: Annotated[float, Field(ge=0, le=3)]
    crank_mm: Annotated[float, Field(ge=5, le=300)]
    bags_off_mm: Annotated[float, Field(ge=0, le=0.05)] = 0.0
    manuals: tuple[Pair, Pair]
    ours: Literal[0, 1]


class HeavyIn(Strict):
    gmm: Annotated[float, Field(ge=0, le=1000)]
    deg: Angle
    rubs_gmm: Annotated[float, Field(ge=0.5, le=100)] = 12.0
    sound: Literal["sound", "cracked"] = "sound"
    shook: bool = True
    keep_out: tuple[tuple[Angle, Angle], ...] = ()


class GaugeIn(Strict):
    step_mm: Annotated[float, Field(ge=0.0005, le=0.02)]
    noise_mm: Annotated[float, Field(ge=0, le=0.02)] = 0.0


TRUTHS: dict[str, type[Strict]] = {
    "true-crank": CrankIn,
    "outer-web": WebsIn,
    "read-dial": SwingsIn,
    "free-wheel": StuckIn,
    "split": JointIn,
    "hot-half": OvenIn,
    "seals": LotIn,
    "end-float": WidthsIn,
    "balance": HeavyIn,
}
UNDER_A_GAUGE = ("true-crank", "outer-web")
WITH_A_GOAL = ("true-crank", "outer-web", "read-dial", "balance")  # the others' goal is to be done, and nothing spoiled


class FileIn(Strict):
    """The whole file."""

    stator_exercise: Literal[1] = Field(alias="stator-exercise")
    exercise: Literal[*TRUTHS]  # type: ignore[valid-type]
    name: Annotated[str, Field(min_length=1, max_length=60)]
    words: Annotated[str, Field(max_length=400)] = ""
    level: Literal["easy", "middle", "hard"] = "middle"
    seed: Annotated[int, Field(ge=1, le=999_999)] = 1
    truth: dict[str, Any]
    gauge: GaugeIn | None = None
    goal: Annotated[float, Field(gt=0, le=1000)] | None = None


def read_in(data: bytes, person: Person) -> Given:
    """Keep an exercise from a file.

    Raises
    ------
    BadInput
        No JSON, no exercise of this kind, a value that is missing, strange or out of its range, seals that belong nowhere.
    """
    plain = strict_json.read(data, LARGEST_BYTES)
    found = _checked(FileIn, plain, "")
    true_values = _checked(TRUTHS[found.exercise], found.truth, "truth.")
    _makes_sense(found, true_values)
    content = {"truth": true_values.model_dump(mode="json"), "goal": found.goal, "gauge": found.gauge.model_dump() if found.gauge else None}
    whole = {"exercise": found.exercise, "level": found.level, "seed": found.seed, "name": found.name, "words": found.words}
    digest = hashlib.sha256(json.dumps([whole, content], sort_keys=True).encode()).hexdigest()
    known = Given.objects.filter(digest=digest).first()
    if known:
        Given.objects.filter(pk=known.pk).update(retired=False)
        return known
    return Given.objects.create(**whole, content=content, digest=digest, brought_by=person)


def _checked(kind: type[Strict], plain: Any, where: str) -> Any:
    try:
        return TypeAdapter(kind).validate_python(plain)
    except ValidationError as error:
        first = error.errors()[0]
        place = where + ".".join(str(each) for each in first["loc"])
        raise BadInput("file", _("{place}: {reason}").format(place=place or _("the file"), reason=first["msg"])) from error


def _makes_sense(found: Any, truth: Any) -> None:
    """Check the combination of values."""
    if found.gauge and found.exercise not in UNDER_A_GAUGE:
        raise BadInput("file", _("gauge: this exercise has no gauge that could be another one."))
    if found.goal and found.exercise not in WITH_A_GOAL:
        raise BadInput("file", _("goal: this exercise is to be done with nothing spoiled; it has no number for a goal."))
    if isinstance(truth, LotIn) and len(set(truth.made_for)) < len(truth.made_for):
        raise BadInput("file", _("truth.made_for: each seal belongs at a place of its own."))
    if isinstance(truth, OvenIn) and set(truth.tight_um) != set(BEARINGS):
        raise BadInput("file", _("truth.tight_um: all of {names} are wanted.").format(names=", ".join(BEARINGS)))
    if isinstance(truth, WidthsIn):
        room = truth.left_mm + truth.right_mm + truth.gasket_mm - truth.crank_mm
        if not 0.1 <= room <= 3 or any(low >= high for low, high in truth.manuals):
            raise BadInput("file", _("truth: the room without shims is 0.1 to 3 mm, and a manual's lower limit is below its upper."))


def of_attempt(attempt: Attempt) -> dict[str, Any]:
    """Return an attempt as a file with its true values."""
    kind = exercise_of(attempt)
    part = kind.part(attempt.seed, attempt.level, attempt.truth)
    given = attempt.given
    more = {name: given.content[name] for name in ("gauge", "goal") if given and given.content.get(name)}
    return {
        SCHEMA: VERSION,
        "exercise": attempt.exercise,
        "name": given.name if given else f"{attempt.exercise} {attempt.seed}",
        "words": given.words if given else "",
        "level": attempt.level,
        "seed": attempt.seed,
        "truth": _truth(part.truth),
        **more,
    }


def _truth(truth: Any) -> dict[str, Any]:
    """Return true values as plain values; those of a bent half as the four that an exercise file has."""
    assert is_dataclass(truth)
    found = asdict(truth)  # type: ignore[arg-type]
    if "bent" in found:
        found["bent"] = {name: found["bent"][name] for name in BentIn.model_fields}
    return {each.name: found[each.name] for each in fields(truth)}
