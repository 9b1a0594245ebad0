"""Triggers, indexes and search tables: none is lost when migrations or names change.

A new one is added to the saved list.
"""

from __future__ import annotations

import re
from pathlib import Path

from django.db import connection
from django.db.utils import DatabaseError, OperationalError
from django.test import TestCase

from stator.engines import card_loader
from stator.engines.models import EngineCard, Seat, Subject
from stator.jobs import immutability, search
from stator.jobs.models import Digest, Job
from stator.shop import equipment_snapshot
from stator.shop.models import Heater, Shop

SAVED = Path(__file__).parent / "data" / "database_objects.txt"
RENAMED: dict[str, str] = {}  # table or column in the saved list -> its name now


def objects() -> set[str]:
    """Return every trigger, index and search table of the database, a line each."""
    found = set()
    with connection.cursor() as cursor:
        cursor.execute("SELECT type, name, tbl_name, sql FROM sqlite_master")
        for kind, name, table, sql in cursor.fetchall():
            if kind == "trigger":
                when, event = re.search(r"\b(BEFORE|AFTER)\s+(INSERT|UPDATE|DELETE)\b", sql).groups()
                found.add(f"trigger {name} on {table}: {when.lower()} {event.lower()}")
            elif kind == "index":
                found.add(_index(cursor, name, table, sql or ""))
            elif sql and sql.startswith("CREATE VIRTUAL"):
                found.add(f"search table {name}")
    return found


def _index(cursor, name: str, table: str, sql: str) -> str:
    cursor.execute(f'PRAGMA index_xinfo("{name}")')
    columns = [f"{column}{' desc' if descending else ''}" for _, _, column, descending, _, key in cursor.fetchall() if key]
    cursor.execute(f'PRAGMA index_list("{table}")')
    unique = next(row[2] for row in cursor.fetchall() if row[1] == name)
    where = sql.partition(" WHERE ")[2].replace('"', "")
    return f"{'unique ' if unique else ''}index on {table} ({', '.join(columns)})" + (f" where {where}" if where else "")


class DatabaseObjects(TestCase):
    def saved(self) -> set[str]:
        text = SAVED.read_text(encoding="utf-8")
        for old, new in RENAMED.items():
            text = re.sub(rf"\b{old}\b", new, text)
        return set(text.splitlines())

    def test_the_database_has_exactly_the_saved_objects(self):
        found, saved = objects(), self.saved()
        self.assertGreater(len(saved), 300)
        self.assertEqual((sorted(saved - found), sorted(found - saved)), ([], []))

    def test_an_installer_fails_if_a_table_is_missing(self):
        for installer, model in ((immutability, Digest), (card_loader, Seat), (search, Job), (equipment_snapshot, Heater)):
            with self.subTest(installer.__name__), connection.cursor() as cursor:
                cursor.execute("SAVEPOINT missing")
                cursor.execute(f"SELECT name FROM sqlite_master WHERE type = 'trigger' AND tbl_name = '{model._meta.db_table}'")
                for (name,) in cursor.fetchall():
                    cursor.execute(f"DROP TRIGGER {name}")
                cursor.execute(f'ALTER TABLE "{model._meta.db_table}" RENAME TO elsewhere')
                with self.assertRaises((OperationalError, DatabaseError)):
                    installer.install()
                cursor.execute("ROLLBACK TO missing")


class RenamedPart(TestCase):
    def test_readings_of_a_seat_that_is_renamed_carry_its_new_name(self):
        card = EngineCard.objects.create(name="Corrie 272")
        seat = Seat.objects.create(card=card, name="Main", designation="6204", code="N7")
        subject = Subject.objects.create(card=card, kind="seat", uid=seat.uid, name="Main")
        Seat.objects.filter(pk=seat.pk).update(name="Main, drive side")
        subject.refresh_from_db()
        self.assertEqual(subject.part.name, "Main, drive side")

    def test_equipment_changed_in_bulk_is_read_anew(self):
        Shop.objects.get_or_create(pk=1)
        oven = Heater.objects.create(name="Galley oven", method="oven", highest_c=250)
        self.assertEqual([each.highest_c for each in equipment_snapshot.shelves(Shop.current()).heaters], [250])
        Heater.objects.filter(pk=oven.pk).update(highest_c=180)
        self.assertEqual([each.highest_c for each in equipment_snapshot.shelves(Shop.current()).heaters], [180])
        with connection.cursor() as cursor:
            cursor.execute("UPDATE shop_heater SET highest_c = 150")
        self.assertEqual([each.highest_c for each in equipment_snapshot.shelves(Shop.current()).heaters], [150])

    def test_equipment_of_a_shop_without_a_row_is_read_each_time(self):
        Heater.objects.create(name="Galley oven", method="oven", highest_c=250)
        equipment_snapshot.shelves(Shop.current())
        Heater.objects.update(highest_c=180)
        self.assertEqual([each.highest_c for each in equipment_snapshot.shelves(Shop.current()).heaters], [180])
