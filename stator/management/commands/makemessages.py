"""Django's makemessages, which also collects plural sentences of the stations and the texts of the core's tables."""

from __future__ import annotations

import ast
import csv
from collections.abc import Iterator
from pathlib import Path
from typing import Any

from django.conf import settings
from django.core.management.commands import makemessages

CORE = Path(settings.BASE_DIR) / "shopmath"
COLLECTED = "texts_of_tables.py"  # stands in the locale folder while messages are collected, and is not kept
TEXT_COLUMNS = ("name", "what", "note", "condition", "reason", "source", "basis", "meaning", "label")


def table_texts() -> set[str]:
    """Return names and notes in the core's tables, texts on bearing markings, and sources of estimates."""
    found: set[str] = set()
    for path in (CORE / "data").glob("*.csv"):
        with path.open(encoding="utf-8", newline="") as file:
            for row in csv.DictReader(line for line in file if not line.startswith("#")):
                found.update(str(row[name]).strip() for name in TEXT_COLUMNS if row.get(name))
    for path in CORE.rglob("*.py"):
        if "tests" not in path.parts:
            found.update(_said_in(path))
    return {text for text in found if any(letter.isalpha() for letter in text)}


def _said_in(path: Path) -> Iterator[str]:
    for node in ast.walk(ast.parse(path.read_text(encoding="utf-8"))):
        if isinstance(node, ast.keyword) and node.arg in ("basis", "what", "reason", "name") and isinstance(node.value, ast.Constant):
            yield str(node.value.value)
        if isinstance(node, ast.Dict):  # tables of meanings, such as what follows a bearing's number
            yield from (str(value.value) for value in node.values if isinstance(value, ast.Constant) and " " in str(value.value))


class Command(makemessages.Command):
    xgettext_options = [*makemessages.Command.xgettext_options, "--keyword=plural:1,2"]

    def handle(self, *args: Any, **options: Any) -> None:
        folder = Path(settings.LOCALE_PATHS[0])
        folder.mkdir(parents=True, exist_ok=True)
        collected = Path.cwd() / COLLECTED
        lines = "".join(f"gettext_noop({text!r})\n" for text in sorted(table_texts()))
        collected.write_text(f"from django.utils.translation import gettext_noop\n\n{lines}", encoding="utf-8")
        options["ignore_patterns"] = [*options["ignore_patterns"], ".venv*", "node_modules", "tests", "*/test*.py", "shopmath/tests"]
        options["no_location"] = options.get("no_location") or False
        try:
            super().handle(*args, **options)
        finally:
            collected.unlink(missing_ok=True)
