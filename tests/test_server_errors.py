"""Tests of failures of the computer and invalid requests: a message, and no secret in the log."""

from __future__ import annotations

import errno
import logging
import os
from unittest.mock import patch

from django.core.files.storage import FileSystemStorage, default_storage
from django.core.files.uploadedfile import SimpleUploadedFile
from django.db import DatabaseError
from django.test import Client, TestCase

from stator.exchange import customer_links
from stator.jobs.models import Reading
from stator.jobs.tests import picture
from stator.server.limits import Channel
from stator.server.log_filters import NoTokens
from stator.ui.server_errors import render_server_error
from tests.factories import Hands, job, person
from tests.folders import FolderCase, run_on

ON_FULL = """
import django; django.setup()
from django.conf import settings
settings.STORAGES = {**settings.STORAGES, "staticfiles": {"BACKEND": "django.contrib.staticfiles.storage.StaticFilesStorage"}}
settings.ALLOWED_HOSTS = ["*"]
from django.db import connection
from django.test import Client
from stator.jobs.models import Job
from stator.shop.models import Person
client = Client(raise_request_exception=False)
client.force_login(Person.objects.filter(role="owner")[0], backend="django.contrib.auth.backends.ModelBackend")
page = f"/jobs/{Job.objects.filter(gone_at=None)[0].tag}/tray/"
with connection.cursor() as cursor:
    cursor.execute("PRAGMA page_count")
    cursor.execute(f"PRAGMA max_page_count = {cursor.fetchone()[0]}")
for number in range(400):
    said = {"name": f"washer {number} " + "x" * 60, "where_from": "y" * 80, "client_key": f"full{number}"}
    answer = client.post(page, said, headers={"HX-Request": "true"})
    if answer.status_code != 302:
        break
print(answer.status_code, answer.get("HX-Retarget"), answer.content.decode())
print("shows", client.get(page).status_code)
"""


class AFullDisk(FolderCase):
    def test_it_is_named_and_looking_goes_on(self):
        self.new_shop()
        done = run_on(self.data, "-c", ON_FULL)
        self.assertIn("507 #strip-words", done.stdout, done.stderr[-1500:])
        self.assertIn("The disk of the shop's machine is full: nothing was kept", done.stdout)
        self.assertIn("shows 200", done.stdout)

    def test_a_folder_that_cannot_be_written_to_is_named_at_the_start(self):
        self.data.parent.joinpath("file").write_text("in the way")
        self.data = self.data.parent / "file" / "stator"
        done = self.manage("upgrade")
        self.assertIn("Stator does not start: the data folder", done.stderr)
        self.assertIn("Name another in STATOR_DATA", done.stderr)


class Named(TestCase):
    def setUp(self):
        self.hands = Hands(job())

    def test_each_is_told_apart_from_a_fault_of_ours(self):
        for error, words in (
            (OSError(errno.ENOSPC, os.strerror(errno.ENOSPC)), "is full"),
            (OSError(errno.EROFS, "read-only"), "cannot be written to"),
            (DatabaseError("attempt to write a readonly database"), "cannot be written to"),
            (DatabaseError("database disk image is malformed"), "put the last backup back"),
            (DatabaseError("file is not a database"), "put the last backup back"),
            (DatabaseError("database is locked"), "too busy"),
        ):
            with self.subTest(error=error):
                self.assertIn(words, render_server_error(error)[1])
        self.assertIsNone(render_server_error(DatabaseError("no such column: x")))
        self.assertIsNone(render_server_error(ValueError("disk is full")))

    def test_a_picture_that_finds_no_room_keeps_nothing(self):
        upload = SimpleUploadedFile("a.jpg", picture("JPEG"), "image/jpeg")
        full = OSError(errno.ENOSPC, os.strerror(errno.ENOSPC))
        with (
            patch("django.core.files.storage.FileSystemStorage._save", side_effect=full),
            self.assertLogs("stator.shop.middleware", "ERROR"),
        ):
            answer = self.hands.client.post("/jobs/0412/photos/", {"photo": upload})
        self.assertContains(answer, "is full: nothing was kept", status_code=507)
        self.assertFalse(self.hands.job.photos.exists())

    def test_when_the_second_finds_no_room_the_first_goes_too(self):
        plain, calls = FileSystemStorage._save, []

        def save(storage, name, content):
            calls.append(name)
            if len(calls) > 2:  # the picture and its small one fit
                raise OSError(errno.ENOSPC, os.strerror(errno.ENOSPC))
            return plain(storage, name, content)

        uploads = [SimpleUploadedFile(f"{name}.jpg", picture("JPEG"), "image/jpeg") for name in "ab"]
        with patch.object(FileSystemStorage, "_save", save), self.assertLogs("stator.shop.middleware", "ERROR"):
            self.hands.client.post("/jobs/0412/photos/", {"photo": uploads})
        self.assertFalse(self.hands.job.photos.exists())
        self.assertEqual([name for name in calls[:2] if default_storage.exists(name)], [])

    def test_a_damaged_database_is_said_beside_the_field(self):
        damaged = DatabaseError("database disk image is malformed")
        with patch("stator.jobs.log.save_reading", side_effect=damaged), self.assertLogs("stator.shop.middleware", "ERROR"):
            values = {"ask": "air-temperature", "text": "18"}
            answer = self.hands.client.post(f"{self.hands.address}keep/", values, headers={"HX-Request": "true"})
        self.assertEqual((answer.status_code, answer["HX-Retarget"], answer["X-Kept"]), (503, "#strip-words", "no"))
        self.assertFalse(Reading.objects.exists())


class NoPageSendsThat(TestCase):
    def test_a_form_that_is_out_of_date_is_said_in_words(self):
        strict = Client(enforce_csrf_checks=True)
        self.assertContains(strict.post("/sign-in/", {"username": "x"}), "The page is out of date", status_code=403)

    def test_a_strange_host_is_answered_plainly(self):
        with self.settings(ALLOWED_HOSTS=["stator.example"]):
            self.assertContains(self.client.get("/sign-in/", headers={"Host": "evil.example"}), "Not understood", status_code=400)

    def test_an_owner_s_token_never_stands_in_a_log(self):
        token = customer_links.create_link(job(), person(), 7)
        record = logging.LogRecord("django.request", logging.WARNING, "", 1, "Not Found: %s", (f"/owner/{token}/sheet.pdf",), None)
        NoTokens().filter(record)
        self.assertEqual(record.getMessage(), "Not Found: /owner/(secret)/sheet.pdf")


class TheServersDoor(TestCase):
    """Tests of requests that are refused before they are read, and of sign-out."""

    def test_a_request_that_drips_is_shown_out_and_one_that_gets_on_is_not(self):
        channel = Channel.__new__(Channel)
        channel.requests, channel.request, channel.begun, channel.last_activity, channel.total_outbufs_len = [], None, 0.0, 1000.0, 0
        self.assertTrue(channel.late(1011))
        channel.begun = 1000.0
        self.assertFalse(channel.late(1011))  # between two requests
        channel.request = type("Arriving", (), {"headers_finished": False, "body_bytes_received": 0})()
        self.assertEqual([channel.late(1009), channel.late(1011)], [False, True])
        channel.request = type("Arriving", (), {"headers_finished": True, "body_bytes_received": 2_000_000})()
        self.assertEqual([channel.late(1100), channel.late(1130)], [False, True])
