"""JSON from outside: read once, refused when anything in it could break what comes after."""

from __future__ import annotations

import json
import math
from typing import Any

from django.utils.translation import gettext as _

from shopmath.validation import BadInput
from stator.ui.plain_text import strange_in

DEEPEST, LONGEST_NUMBER, MOST_VALUES = 24, 40, 400_000


def read(data: bytes, most_bytes: int) -> Any:
    """The value of a JSON text.

    Raises
    ------
    BadInput
        Too large, not UTF-8, not JSON (with its line), nested too deeply, a name twice in one object, a number that no gauge shows, a text
        with control characters or half a character in it.
    """
    if len(data) > most_bytes:
        raise BadInput("file", _("That file is over {most} MB.").format(most=most_bytes // 1000000))
    try:
        text = data.decode("utf-8-sig")
    except UnicodeDecodeError as error:
        raise BadInput(
            "file", _("That file is no UTF-8 text (byte {start}). Save it as UTF-8 and send it again.").format(start=error.start)
        ) from error
    try:
        found = json.loads(text, object_pairs_hook=_once, parse_int=_whole, parse_float=_number, parse_constant=_no_constant)
    except json.JSONDecodeError as error:
        raise BadInput("file", _("Line {lineno}: this is no JSON ({msg}).").format(lineno=error.lineno, msg=error.msg)) from error
    except RecursionError as error:
        raise BadInput("file", TOO_DEEP) from error
    _walk(found)
    return found


TOO_DEEP = f"Values in it are nested more than {DEEPEST} deep: no file of Stator's is."


def _once(pairs: list[tuple[str, Any]]) -> dict[str, Any]:
    found = dict(pairs)
    if len(found) != len(pairs):
        names = [name for name, _ in pairs]
        twice = next(name for name in names if names.count(name) > 1)
        raise BadInput("file", _("{twice} stands twice in one object.").format(twice=shown(twice)))
    return found


def _whole(text: str) -> int:
    if len(text) > 15:
        raise BadInput("file", _("{number}… is no number that anything here could have.").format(number=text[:15]))
    return int(text)


def _number(text: str) -> float:
    found = float(text) if len(text) <= LONGEST_NUMBER else math.inf
    if not math.isfinite(found):
        raise BadInput("file", _("{number}… is no number that anything here could have.").format(number=text[:15]))
    return found


def _no_constant(text: str) -> float:
    raise BadInput("file", _("{text} is no number.").format(text=text))


def _walk(value: Any) -> None:
    """Every text and every depth, without calling itself."""
    waiting, seen = [(value, 1)], 0
    while waiting:
        each, depth = waiting.pop()
        seen += 1
        if depth > DEEPEST:
            raise BadInput("file", TOO_DEEP)
        if seen > MOST_VALUES:
            raise BadInput("file", _("It holds more than {most_values} values.").format(most_values=MOST_VALUES))
        if isinstance(each, str):
            check_text(each)
        elif isinstance(each, dict):
            for name, inner in each.items():
                check_text(name)
                waiting.append((inner, depth + 1))
        elif isinstance(each, list):
            waiting += [(inner, depth + 1) for inner in each]


def check_text(text: str) -> None:
    """Refuse what no page, file name or PDF can show: control characters except tabs and line ends, and surrogates."""
    strange = strange_in(text)
    if strange:
        raise BadInput(
            "file", _("{text} has a character in it that cannot be shown ({strange}).").format(text=shown(text), strange=strange)
        )


def shown(text: str) -> str:
    """A text of a file as a message quotes it."""
    return repr(text[:40].encode("ascii", "backslashreplace").decode() if not text.isprintable() else text[:40])
