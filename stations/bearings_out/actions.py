"""What may be done at Bearings out: it is signed once the bearing is out."""

from __future__ import annotations

from typing import Any

from stations.base import Action


def actions(bound: Any) -> tuple[Action, ...]:
    return (bound.sign_action(),) if bound.found.is_out else ()
