"""A gauge's own log: the file that a gauge or its program writes.

Plain lines as a gauge sends them, or columns with or without names. Known names of columns, in any order:

    value     value, reading, measurement, measured, result; its unit may stand with it: value (mm)
    unit      unit, units
    place     ask, place, position, label, point, name: what the reading belongs to
    time      time, timestamp, taken at, date time; date and time may be two columns
"""

from __future__ import annotations

import csv
import io
import re
from dataclasses import dataclass
from datetime import datetime, tzinfo

from django.utils import timezone
from django.utils.dateparse import parse_date, parse_datetime, parse_time
from django.utils.translation import gettext as _

from shopmath.validation import BadInput
from stator.instruments.protocol import InvalidLine, WrongUnit, read_line

LARGEST_BYTES, MOST_LINES = 100_000, 200
VALUE = ("value", "reading", "measurement", "measured", "result")
UNIT = ("unit", "units")
PLACE = ("ask", "place", "position", "label", "point", "name")
TIME = ("time", "timestamp", "taken at", "date time", "datetime")
_HEAD = re.compile(r"(?P<name>[^\[(]*?)\s*(?:[\[(](?P<unit>[^\])]*)[\])])?")


@dataclass(frozen=True)
class LogLine:
    """A line of the file: reading, place and time, or the reason why it is not a reading."""

    number: int
    said: str
    text: str = ""
    place: str = ""
    at: datetime | None = None
    refused: str = ""


def read_log(text: str, kind: str, unit: str, zone: tzinfo) -> list[LogLine]:
    """Every line that says something.

    Parameters
    ----------
    text : str
        The file, from `text_of`.
    kind, unit : str
        What the gauge measures, and the unit of lines that say none.
    zone : tzinfo
        Of times that say none.

    Raises
    ------
    BadInput
        When no line can be understood, with what is wrong with the first.

    Examples
    --------
    >>> from datetime import timezone
    >>> found = read_log("place;value (mm);time\\nleft;0,034;2026-03-02 10:31", "length", "mm", timezone.utc)
    >>> found[0].text, found[0].place, f"{found[0].at:%H:%M}"
    ('0,034 mm', 'left', '10:31')
    """
    rows = _rows(text)
    if not rows:
        raise BadInput("file", _("There is no line in that file."))
    if len(rows) > MOST_LINES:
        raise BadInput(
            "file",
            _("That file has over {most_lines} lines: a log that runs on cannot say which reading belongs where.").format(
                most_lines=MOST_LINES
            ),
        )
    whole = [_spoken(number, ",".join(cells), kind, unit) for number, cells in rows]
    if all(len(cells) == 1 for _, cells in rows) or not any(line.refused for line in whole):
        found = whole  # plain lines, a decimal comma among them
    else:
        columns = _Columns(rows[0][1])
        found = [columns.line(number, cells, kind, unit, zone) for number, cells in rows[1:]] if columns.named else []
        if not columns.named:
            raise BadInput(
                "file",
                _("Line {line}: no column is called {names}, so it cannot be told which is the reading.").format(
                    line=rows[0][0], names=" or ".join(VALUE)
                ),
            )
    if all(line.refused for line in found):
        raise BadInput(
            "file",
            _("Line {number}: {refused}").format(number=found[0].number, refused=found[0].refused)
            if found
            else _("There is no reading below its first line."),
        )
    return found


def text_of(data: bytes) -> str:
    """The file as text: UTF-8, UTF-16 with its mark, or Windows-1252."""
    if len(data) > LARGEST_BYTES:
        raise BadInput("file", _("That file is over 100 kB. Cut out the part that belongs here."))
    for code in ("utf-16",) if data[:2] in (b"\xff\xfe", b"\xfe\xff") else ("utf-8-sig", "cp1252"):
        try:
            text = data.decode(code)
        except UnicodeDecodeError:
            continue
        if "\0" not in text:
            return text
    raise BadInput("file", _("That file is no text."))


def _rows(text: str) -> list[tuple[int, list[str]]]:
    """Return lines as cells with their numbers, without comments and empty lines."""
    head = next((line for line in text.splitlines() if line.strip() and not line.startswith("#")), "")
    cut = next((mark for mark in ("\t", ";") if mark in head), ",")
    reader = csv.reader(io.StringIO(text, newline=""), delimiter=cut)
    try:
        rows = [(reader.line_num, [cell.strip() for cell in cells]) for cells in reader]
    except csv.Error as error:
        raise BadInput("file", _("Line {line_num}: it cannot be cut into columns.").format(line_num=reader.line_num)) from error
    return [(number, cells) for number, cells in rows if any(cells) and not cells[0].startswith("#")]


def _spoken(number: int, said: str, kind: str, unit: str) -> LogLine:
    """A line as the gauge would speak it."""
    try:
        line = read_line(said, kind, unit)
    except (InvalidLine, WrongUnit) as error:
        return LogLine(number, said[:80], refused=str(error))
    return LogLine(number, said[:80], line.text, line.label)


class _Columns:
    """The meaning of the columns by their names."""

    def __init__(self, head: list[str]) -> None:
        found = [_HEAD.fullmatch(cell) for cell in head]
        self.names = [" ".join((each["name"] if each else "").lower().replace("_", " ").split()) for each in found]
        self.units = [(each["unit"] or "") if each else "" for each in found]
        self.value, self.unit, self.place, self.time = (self._first(known) for known in (VALUE, UNIT, PLACE, TIME))
        self.date = self._first(("date",))
        self.named = self.value is not None

    def _first(self, known: tuple[str, ...]) -> int | None:
        return next((self.names.index(name) for name in known if name in self.names), None)

    def line(self, number: int, cells: list[str], kind: str, unit: str, zone: tzinfo) -> LogLine:
        def cell(column: int | None) -> str:
            return cells[column] if column is not None and column < len(cells) else ""

        over = self.units[self.value] if self.value is not None else ""
        found = _spoken(number, f"{cell(self.value)} {cell(self.unit) or over}".strip(), kind, unit)
        at = _when(cell(self.date), cell(self.time), zone)
        place = cell(self.place)[:80] or found.place
        return LogLine(number, found.said, found.text, place, at, found.refused)


def _when(date: str, time: str, zone: tzinfo) -> datetime | None:
    """Return a time as written, in the shop's zone if it names none; None if it is ambiguous."""
    said = re.sub(r"^(\d{1,2})\.(\d{1,2})\.(\d{4})", r"\3-\2-\1", f"{date} {time}".strip())
    try:
        at = parse_datetime(re.sub(r"^(\d{4})/(\d\d)/", r"\1-\2-", said))
        if at is None and not date and (clock := parse_time(said)) and ":" in said:
            at = datetime.combine(timezone.localdate(timezone=zone), clock)
        if at is None and (day := parse_date(date)) and (clock := parse_time(time)):
            at = datetime.combine(day, clock)
    except ValueError:
        return None
    return at.replace(tzinfo=zone) if at and at.tzinfo is None else at
