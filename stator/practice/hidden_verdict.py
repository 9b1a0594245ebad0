"""The verdict of a practice job is hidden until the learner has given one, if the learner chose to judge first."""

from __future__ import annotations

from stator.practice.attempts import JUDGED
from stator.practice.models import Attempt
from stator.stations.framework import BoundStation


def judged_key(work: BoundStation) -> str:
    """Return what a judgement is of: a call, in its round."""
    return f"{work.answers.attempt} {work.current_verdict.code or work.current_verdict.headline}"


def hides(work: BoundStation) -> bool:
    """Return True if the learner judges first."""
    attempt = Attempt.objects.filter(job=work.job, judges=True).only("calls").first()
    if attempt is None or work.current_verdict.state not in JUDGED:
        return False
    return judged_key(work) not in {each["of"] for each in attempt.calls}
