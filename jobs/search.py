"""What a job is found by, in one table of SQLite's full text (FTS5, trigrams): kept by triggers, so that no writer can forget it.

One row a job: its complaint, whose it is, its engine, its bearings, and every word that was written down. Practice is not in it.
"""

from __future__ import annotations

from collections.abc import Iterable
from typing import Any

from django.db import connections
from django.db.models import Q
from django.db.models.expressions import RawSQL

from engines.models import EngineCard, Seat
from jobs.models import Entry, Job, Reading

TABLE = "words_of_jobs"
SHORTEST = 3  # letters that a trigram has: shorter words are looked for row by row

JOB, CARD, SEAT, ENTRY, READING = (model._meta.db_table for model in (Job, EngineCard, Seat, Entry, Reading))
_OF_JOB = ("complaint", "comes_back", "customer", "registration", "frame_number", "engine_number")
_LINES = " || char(10) || ".join(
    (
        *(f"j.{name}" for name in _OF_JOB),
        "c.name",
        "c.summary",
        f"COALESCE((SELECT group_concat(s.name || char(10) || s.designation, char(10)) FROM {SEAT} s"  # noqa: S608
        " WHERE s.card_id = j.card_id), '')",
        f"COALESCE((SELECT group_concat(r.text, char(10)) FROM {READING} r JOIN {ENTRY} e ON e.id = r.entry_id"  # noqa: S608
        " WHERE e.job_id = j.id AND r.kind = 'words' AND r.withdrawn_at IS NULL), '')",
    )
)
_FILL = (
    f"INSERT INTO {TABLE}(rowid, words) SELECT j.id, {_LINES} FROM {JOB} j"  # noqa: S608  names of tables alone
    f" JOIN {CARD} c ON c.id = j.card_id WHERE NOT j.practice"
)
_CREATE = f"CREATE VIRTUAL TABLE IF NOT EXISTS {TABLE} USING fts5(words, tokenize = 'trigram')"


def _anew(which: str) -> str:
    """The rows of some jobs written anew."""
    gone = f"DELETE FROM {TABLE} WHERE rowid IN (SELECT j.id FROM {JOB} j WHERE {which});"  # noqa: S608
    return f"{gone} {_FILL} AND {which};"


def _differs(*names: str) -> str:
    return " OR ".join(f"OLD.{name} IS NOT NEW.{name}" for name in names)


def _triggers() -> dict[str, str]:
    """When a job's words change, and what is done then."""
    by_entry = f"j.id = (SELECT e.job_id FROM {ENTRY} e WHERE e.id = {{row}}.entry_id)"  # noqa: S608
    of_words = "{row}.kind = 'words'"
    return {
        "words_of_a_job": f"AFTER INSERT ON {JOB} BEGIN {_anew('j.id = NEW.id')} END",
        "words_of_a_job_changed": (f"AFTER UPDATE ON {JOB} WHEN {_differs(*_OF_JOB, 'card_id')} BEGIN {_anew('j.id = NEW.id')} END"),
        "words_of_a_job_gone": f"AFTER DELETE ON {JOB} BEGIN DELETE FROM {TABLE} WHERE rowid = OLD.id; END",  # noqa: S608
        "words_of_a_card_changed": (f"AFTER UPDATE ON {CARD} WHEN {_differs('name', 'summary')} BEGIN {_anew('j.card_id = NEW.id')} END"),
        "words_of_a_seat": f"AFTER INSERT ON {SEAT} BEGIN {_anew('j.card_id = NEW.card_id')} END",
        "words_of_a_seat_changed": (
            f"AFTER UPDATE ON {SEAT} WHEN {_differs('name', 'designation')} BEGIN {_anew('j.card_id = NEW.card_id')} END"
        ),
        "words_of_a_seat_gone": f"AFTER DELETE ON {SEAT} BEGIN {_anew('j.card_id = OLD.card_id')} END",
        "words_of_a_reading": (
            f"AFTER INSERT ON {READING} WHEN {of_words.format(row='NEW')} BEGIN {_anew(by_entry.format(row='NEW'))} END"
        ),
        "words_of_a_reading_changed": (
            f"AFTER UPDATE ON {READING} WHEN {of_words.format(row='NEW')} AND ({_differs('text', 'withdrawn_at', 'kind')})"
            f" BEGIN {_anew(by_entry.format(row='NEW'))} END"
        ),
        "words_of_a_reading_gone": (
            f"AFTER DELETE ON {READING} WHEN {of_words.format(row='OLD')} BEGIN {_anew(by_entry.format(row='OLD'))} END"
        ),
    }


def install(using: str = "default", **kwargs: Any) -> None:
    """Create the search table and its triggers, after every migration, and fill the table if it does not have every job."""
    with connections[using].cursor() as cursor:
        cursor.execute(_CREATE)
        for name, said in _triggers().items():
            cursor.execute(f"CREATE TRIGGER IF NOT EXISTS {name} {said}")
        cursor.execute(f"SELECT (SELECT count(*) FROM {JOB} WHERE NOT practice) <> (SELECT count(*) FROM {TABLE})")  # noqa: S608
        (lacks,) = cursor.fetchone()
        if lacks:
            cursor.execute(f"DELETE FROM {TABLE}")  # noqa: S608
            cursor.execute(_FILL)


def lines_with(jobs: Iterable[int], words: Iterable[str]) -> dict[int, list[str]]:
    """What stands written of some jobs, by their row: the lines that have one of the words, each once."""
    wanted, rows = [word.lower() for word in words], list(jobs)
    marks = ", ".join(["%s"] * len(rows))
    with connections["default"].cursor() as cursor:
        cursor.execute(f"SELECT rowid, words FROM {TABLE} WHERE rowid IN ({marks})", rows)  # noqa: S608
        told = dict(cursor.fetchall())
    return {
        row: [line for line in dict.fromkeys(text.split("\n")) if any(word in line.lower() for word in wanted)]
        for row, text in told.items()
    }


def with_word(word: str) -> Q:
    """Jobs that have a word somewhere, in capitals or not, whole or as part of another."""
    return with_words([word])


def with_words(words: Iterable[str]) -> Q:
    """Jobs that have every one of some words somewhere: the long ones are asked for at once, so that few jobs are gone through."""
    found, long = Q(), []
    for word in words:
        if len(word) >= SHORTEST:
            long.append('"{}"'.format(word.replace('"', '""')))
            continue
        like = "".join(f"\\{letter}" if letter in "\\%_" else letter for letter in word)
        found &= Q(pk__in=RawSQL(f"SELECT rowid FROM {TABLE} WHERE words LIKE %s ESCAPE '\\'", [f"%{like}%"]))  # noqa: S608, S611
    if long:
        found &= Q(pk__in=RawSQL(f"SELECT rowid FROM {TABLE} WHERE words MATCH %s", [" AND ".join(long)]))  # noqa: S608, S611
    return found
