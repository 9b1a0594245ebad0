"""Record what the formatter makes of each estimate.

`python -m tests.estimates FILE` loads the demo, with its signed entries in the test language, and saves the record.
"""

from __future__ import annotations

import json
import os
import sys
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from functools import partial
from pathlib import Path
from typing import Any
from unittest.mock import patch

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "stator.settings")


@contextmanager
def recorded(estimates: list[dict[str, Any]]) -> Iterator[None]:
    """Record each formatted estimate with its uncertainty and its text."""
    from django.utils import translation

    from shopmath.amounts import Amount
    from stator.stations.framework import Source
    from stator.ui import number_format as numbers

    spell, spell_in_words = numbers._bare, dict(numbers.IN_WORDS)

    def record(amount: Amount, factor: float, text: str) -> str:
        half = amount.uncertainty * factor if amount.uncertainty else amount.uncertainty
        known = {"kind": amount.kind, "half": half, "step": amount.resolution * factor, "toward": amount.toward}
        estimates.append({**known, "text": text.replace(",", ".")})
        return text

    def in_words(write: Callable[[Amount], str], amount: Amount) -> str:
        with translation.override("en"):
            record(amount, 1.0, write(amount))
        return write(amount)

    def spelled(amount: Amount, unit: numbers.Unit) -> str:
        text = spell(amount, unit)
        return record(amount, numbers.scale_to(amount.kind, unit)[0], text) if amount.uncertainty or amount.toward else text

    round_to = numbers.to_step

    def rounded(value: float, step: float, toward: str = "nearest") -> float:
        result = round_to(value, step, toward)
        estimates.append({"kind": "rounded", "text": numbers.plain(result).replace(",", ".")})
        return result

    initialize = Source.__init__

    def source(made: Source, label: str, value: str, source: str, estimated: bool = False) -> None:
        initialize(made, label, value, source, estimated)
        if estimated:
            estimates.append({"kind": "source", "label": label, "text": value.replace(",", ".")})

    with (
        patch.object(numbers, "_bare", spelled),
        patch.object(numbers, "to_step", rounded),
        patch.dict(numbers.IN_WORDS, {kind: partial(in_words, write) for kind, write in spell_in_words.items()}),
        patch.object(Source, "__init__", source),
    ):
        yield


def load_demo(file: Path) -> None:
    """Load the demo, whose signed entries store what is displayed, and save the estimates that it contains."""
    import django
    from django.conf import settings

    settings.USE_I18N = True  # off in the product while it has one language
    django.setup()
    from django.core.management import call_command
    from django.utils import translation

    from tests.pseudo import CODE, everything_accented

    estimates: list[dict[str, Any]] = []
    with recorded(estimates), everything_accented(), translation.override(CODE):
        call_command("load_demo", password="gannet-and-gull-7")
    file.write_text(json.dumps(estimates))


if __name__ == "__main__":
    load_demo(Path(sys.argv[1]))
