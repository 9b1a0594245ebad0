"""Tests of audit lines in the server's log, and of the documented environment variables."""

from __future__ import annotations

import re
import subprocess
from pathlib import Path

from django.test import Client, SimpleTestCase, TestCase
from django.utils import timezone

from stator.exchange import customer_links
from stator.exchange.job_import import job_from_zip
from stator.exchange.job_zip import job_as_zip
from stator.exchange.report.views import JOB
from stator.jobs import entry_replacement, log
from stator.jobs.models import Job
from tests.factories import PASSWORD, Hands, job, person

ROOT = Path(__file__).parent.parent


class Told(TestCase):
    def said(self, act):
        with self.assertLogs("stator.told", "INFO") as found:
            act()
        return [record.getMessage() for record in found.records]

    def test_who_signed_in_signed_replaced_closed_read_in_and_gave_a_link(self):
        made = job()
        entry = log.open_entry(made.run.get(key="seals"), None, person())
        self.assertRegex(self.said(self.signs_in)[0], r"^una: signed in from ")
        self.assertEqual(
            self.said(lambda: log.sign(entry, person(), log.VerdictSnapshot("in", "Home", ""), {})), ["una: signed seals, in 0412"]
        )
        self.assertEqual(
            self.said(lambda: entry_replacement.replace_entry(entry, person(), "again")),
            ["una: began in place of a signed entry at seals 0412"],
        )
        self.assertEqual(self.said(lambda: log.close(made, entry.opened_at)), ["the log: closed 0412"])
        self.assertEqual(self.said(lambda: log.reopen(made)), ["the log: opened again 0412"])
        data = job_as_zip(JOB.get(pk=job(499).pk), person(), timezone.now())
        Job.objects.filter(number=499).delete()
        self.assertEqual(self.said(lambda: job_from_zip(data, person()))[-1], "una: read in 0499")
        self.assertEqual(
            self.said(lambda: customer_links.create_link(made, person(), 7)), ["una: gave a link for 7 days to the sheet of 0412"]
        )

    def signs_in(self):
        Client().post("/sign-in/", {"username": person().username, "password": PASSWORD})

    def test_an_ordinary_reading_leaves_no_line(self):
        hands = Hands(job())
        with self.assertNoLogs("stator.told", "INFO"):
            hands.keep("room", "18")


class Variables(SimpleTestCase):
    def test_every_variable_that_is_asked_for_is_written_down(self):
        listed = subprocess.run(["git", "ls-files", "*.py", "bin", ".ci"], cwd=ROOT, capture_output=True, text=True, check=True)
        texts = [(ROOT / path).read_text(errors="ignore") for path in listed.stdout.split()]
        asked = {name for text in texts for name in re.findall(r"\bSTATOR_[A-Z_]*[A-Z]", text)}
        told = (ROOT / "docs" / "installation.md").read_text()
        self.assertEqual({name for name in asked if f"`{name}`" not in told}, set())
