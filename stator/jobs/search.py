"""Search index of jobs: a full-text table of SQLite (FTS5, trigrams) that database triggers update with every write.

A job has one row for its complaint, customer, engine and bearings, and one row for each text reading, so that saving a reading never
indexes the other texts of its job again. Practice jobs are not indexed.
"""

from __future__ import annotations

from collections.abc import Iterable
from typing import Any

from django.db import connections
from django.db.models import Q
from django.db.models.expressions import RawSQL

from stator.engines.models import EngineCard, Seat
from stator.jobs.models import Entry, Job, Reading

TABLE = "words_of_jobs"
SHORTEST = 3  # letters of a trigram: shorter words are searched row by row

JOB, CARD, SEAT, ENTRY, READING = (model._meta.db_table for model in (Job, EngineCard, Seat, Entry, Reading))
_OF_JOB = ("complaint", "comes_back", "customer", "registration", "frame_number", "engine_number")
_LINES = " || char(10) || ".join(
    (
        *(f"j.{name}" for name in _OF_JOB),
        "c.name",
        "c.summary",
        f"COALESCE((SELECT group_concat(s.name || char(10) || s.designation, char(10)) FROM {SEAT} s"  # noqa: S608
        " WHERE s.card_id = j.card_id), '')",
    )
)
_ROW_OF_JOB, _ROW_OF_READING = "2 * {row}.id", "2 * {row}.id + 1"  # rows of the index, told apart by their last bit
_FILL_JOBS = (
    f"INSERT INTO {TABLE}(rowid, words, job) SELECT {_ROW_OF_JOB.format(row='j')}, {_LINES}, j.id FROM {JOB} j"  # noqa: S608
    f" JOIN {CARD} c ON c.id = j.card_id WHERE NOT j.practice"
)
_FILL_READINGS = (
    f"INSERT INTO {TABLE}(rowid, words, job) SELECT {_ROW_OF_READING.format(row='r')}, r.text, j.id FROM {READING} r"  # noqa: S608
    f" JOIN {ENTRY} e ON e.id = r.entry_id JOIN {JOB} j ON j.id = e.job_id"
    " WHERE r.kind = 'words' AND r.withdrawn_at IS NULL AND NOT j.practice"
)
_CREATE = f"CREATE VIRTUAL TABLE IF NOT EXISTS {TABLE} USING fts5(words, job UNINDEXED, tokenize = 'trigram')"


def _again(which: str) -> str:
    """Return the statements that index the rows of some jobs again."""
    gone = f"DELETE FROM {TABLE} WHERE rowid IN (SELECT {_ROW_OF_JOB.format(row='j')} FROM {JOB} j WHERE {which});"  # noqa: S608
    return f"{gone} {_FILL_JOBS} AND {which};"


def _differs(*names: str) -> str:
    return " OR ".join(f"OLD.{name} IS NOT NEW.{name}" for name in names)


def _triggers() -> dict[str, str]:
    """Return the triggers by name: the event, and what it does."""
    gone = f"DELETE FROM {TABLE} WHERE rowid = "  # noqa: S608
    reading_gone = f"{gone}{_ROW_OF_READING.format(row='OLD')};"
    reading = f"{_FILL_READINGS} AND r.id = NEW.id;"
    return {
        "words_of_a_job": f"AFTER INSERT ON {JOB} BEGIN {_again('j.id = NEW.id')} END",
        "words_of_a_job_changed": f"AFTER UPDATE ON {JOB} WHEN {_differs(*_OF_JOB, 'card_id')} BEGIN {_again('j.id = NEW.id')} END",
        "words_of_a_job_gone": f"AFTER DELETE ON {JOB} BEGIN {gone}{_ROW_OF_JOB.format(row='OLD')}; END",
        "words_of_a_card_changed": (f"AFTER UPDATE ON {CARD} WHEN {_differs('name', 'summary')} BEGIN {_again('j.card_id = NEW.id')} END"),
        "words_of_a_seat": f"AFTER INSERT ON {SEAT} BEGIN {_again('j.card_id = NEW.card_id')} END",
        "words_of_a_seat_changed": (
            f"AFTER UPDATE ON {SEAT} WHEN {_differs('name', 'designation')} BEGIN {_again('j.card_id = NEW.card_id')} END"
        ),
        "words_of_a_seat_gone": f"AFTER DELETE ON {SEAT} BEGIN {_again('j.card_id = OLD.card_id')} END",
        "words_of_a_reading": f"AFTER INSERT ON {READING} WHEN NEW.kind = 'words' BEGIN {reading} END",
        "words_of_a_reading_changed": (
            f"AFTER UPDATE ON {READING} WHEN {_differs('text', 'withdrawn_at', 'kind')} BEGIN {reading_gone} {reading} END"
        ),
        "words_of_a_reading_gone": f"AFTER DELETE ON {READING} WHEN OLD.kind = 'words' BEGIN {reading_gone} END",
    }


def install(using: str = "default", **kwargs: Any) -> None:
    """Create the index and its triggers after every migration, and fill the index if it does not have every job."""
    with connections[using].cursor() as cursor:
        cursor.execute(_CREATE)
        for name, does in _triggers().items():
            cursor.execute(f"CREATE TRIGGER IF NOT EXISTS {name} {does}")
        jobs = f"SELECT count(*) FROM {JOB} WHERE NOT practice"  # noqa: S608
        cursor.execute(f"SELECT ({jobs}) <> (SELECT count(*) FROM {TABLE} WHERE rowid % 2 = 0)")  # noqa: S608
        (incomplete,) = cursor.fetchone()
        if incomplete:
            cursor.execute(f"DELETE FROM {TABLE}")  # noqa: S608
            cursor.execute(_FILL_JOBS)
            cursor.execute(_FILL_READINGS)


def lines_with(jobs: Iterable[int], words: Iterable[str]) -> dict[int, list[str]]:
    """Return the lines of some jobs that contain one of the words, each line once, by the row of the job."""
    needed, rows = [word.lower() for word in words], list(jobs)
    marks = ", ".join(["%s"] * len(rows))
    found: dict[int, list[str]] = {row: [] for row in rows}
    with connections["default"].cursor() as cursor:
        cursor.execute(f"SELECT job, words FROM {TABLE} WHERE rowid IN ({marks})", [2 * row for row in rows])  # noqa: S608
        texts = cursor.fetchall()
    read = Reading.objects.filter(entry__job__in=rows, kind="words", withdrawn_at=None).order_by("pk")
    for job, text in [*texts, *read.values_list("entry__job", "text")]:
        found[job] += [line for line in text.split("\n") if line not in found[job] and any(word in line.lower() for word in needed)]
    return found


def with_word(word: str) -> Q:
    """Return the condition for jobs that contain a word, in upper or lower case, as a whole or as part of another word."""
    if len(word) < SHORTEST:
        like = "".join(f"\\{letter}" if letter in "\\%_" else letter for letter in word)
        return Q(pk__in=RawSQL(f"SELECT job FROM {TABLE} WHERE words LIKE %s ESCAPE '\\'", [f"%{like}%"]))  # noqa: S608, S611
    quoted = '"{}"'.format(word.replace('"', '""'))
    return Q(pk__in=RawSQL(f"SELECT job FROM {TABLE} WHERE words MATCH %s", [quoted]))  # noqa: S608, S611


def with_words(words: Iterable[str]) -> Q:
    """Return the condition for jobs that contain every one of some words."""
    found = Q()
    for word in words:
        found &= with_word(word)
    return found
