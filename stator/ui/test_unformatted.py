"""Tests that every number that readers see is formatted by `stator.ui.number_format`, in templates, drawings, sentences and pages."""

from __future__ import annotations

import ast
import re
from pathlib import Path

from django.test import SimpleTestCase

ROOT = Path(__file__).parent.parent.parent
APPS = ("engines", "exchange", "instruments", "jobs", "shop", "stations", "workbench", "ui")
NOT_READ = ("migrations", "demo", "simulated", "management", "test")  # of the shop's machine, or not of the app
FOR_MACHINES = {  # numbers that a page, a file or a field's own unit wants as they are: file -> how many
    "stator/engines/fact_keys.py": 1,  # key of an address
    "stator/exchange/card_files.py": 1,
    "stator/exchange/job_zip.py": 2,
    "stator/workbench/check_in/notation.py": 1,  # what stands in a field
    "stator/stations/common/press_joint/drawing.py": 1,  # how far a needle moves on the page
    "stator/stations/set_end_play/analysis.py": 1,  # key of an answer
    "stator/workbench/bulk_answers.py": 2,  # what is kept as the text of a thread told by its name
    "stator/workbench/reading_commands.py": 1,  # what is kept as the text of a reading taken over
    "stator/ui/fields.py": 1,
}
SPEC = re.compile(r"[+.\d,]*[gfe]$")
BARE = re.compile(r"\{\{\s*(?!next\.)[\w.]+_(?:mm|nm|kg|c|n|s|deg|gmm|kpa)\s*(?:\|default[^}]*)?\}\}")  # `next.` is what stands in a field


def formatted(path: Path) -> list[int]:
    """Return the lines of a module where a number is formatted by Python's own formats."""
    found, tree = [], ast.parse(path.read_text())
    examples = {id(part) for node in ast.walk(tree) if _is_example(node) for part in ast.walk(node)}  # `asking` converts those
    for node in ast.walk(tree):
        if id(node) in examples:
            continue
        if isinstance(node, ast.FormattedValue) and isinstance(node.format_spec, ast.JoinedStr):
            spec = "".join(str(each.value) if isinstance(each, ast.Constant) else "9" for each in node.format_spec.values)
            if SPEC.fullmatch(spec):
                found.append(node.lineno)
    return found


def _is_example(node: ast.AST) -> bool:
    if isinstance(node, ast.keyword):
        return node.arg == "example"
    if isinstance(node, ast.Dict):
        return any(isinstance(key, ast.Constant) and key.value == "example" for key in node.keys)
    return isinstance(node, ast.Assign) and any(isinstance(each, ast.Name) and each.id == "example" for each in node.targets)


class Unformatted(SimpleTestCase):
    def test_no_sentence_or_drawing_spells_a_number_by_itself(self):
        found = {}
        for app in APPS:
            for path in (ROOT / "stator" / app).rglob("*.py"):
                name = str(path.relative_to(ROOT))
                if any(each in name for each in NOT_READ) or name in (
                    "stator/ui/number_format.py",
                    "stator/ui/svg.py",
                    "stator/ui/templatetags/stator_tags.py",
                ):
                    continue
                lines = formatted(path)
                if len(lines) > FOR_MACHINES.get(name, 0):
                    found[name] = lines
        self.assertEqual(found, {}, str(found))

    def test_no_template_shows_a_number_in_the_core_s_unit_or_cuts_one_for_a_machine_by_the_reader_s_locale(self):
        found = []
        for path in ROOT.glob("stator/*/templates/**/*.html"):
            text = path.read_text()
            found += [f"{path.name}: {each[0]}" for each in BARE.finditer(text)]
            found += [f"{path.name}: {each[0]}" for each in re.finditer(r'\|floatformat(?!:"-?\d+u")[^}]*', text)]
        self.assertEqual(found, [])
