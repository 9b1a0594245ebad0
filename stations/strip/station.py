"""Strip: the crank pushed out centred, then everything into the tray in the order it comes, looked at for wear at once."""

from __future__ import annotations

from typing import Any

from engines.properties import Property
from shopmath import __version__ as core_version
from stations.base import Room, Station
from stations.base.asking import checks, warnings
from stations.base.needs import HALVES_APART
from stations.strip import actions, drawing, questions, verdict, words
from stations.strip.facts import StripFacts, strip_facts


def result(found: StripFacts) -> dict[str, Any]:
    """What a file carries of a strip: `strip/1`."""
    tray = [
        {
            "number": place.number,
            "name": place.name,
            "count": place.count,
            "from": place.where_from,
            "way_round": place.way_round,
            "wear": place.wear,
        }
        for place in found.places
    ]
    came = found.came == "even" if found.came else None
    return {"schema": "strip/1", "core_version": core_version, "crank": found.crank or None, "came_evenly": came, "tray": tray}


STATION = Station(
    key="strip",
    sees_tray=True,
    name=words.NAME,
    binds=Room,
    words=words,
    done=words.DONE,
    as_found=True,
    needs=(HALVES_APART,),
    gives=(Property.CRANK_OUT, Property.TRAY_PART),
    facts=strip_facts,
    questions=questions.questions,
    verdict=verdict.verdict,
    checks=lambda _found: checks(words),
    warnings=lambda _found: warnings(words),
    sources=verdict.sources,
    draw=drawing.draw,
    actions=actions.actions,
    kept=actions.kept,
    result=result,
)
