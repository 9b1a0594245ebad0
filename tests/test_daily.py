"""Tests of the daily backup: one per day, with a limited number."""

from __future__ import annotations

import os
from datetime import timedelta

from django.test import SimpleTestCase
from django.utils import timezone

from stator.exchange import backup, test_backup
from stator.server import daily_jobs


class Daily(SimpleTestCase):
    setUp = test_backup.Backups.setUp

    def test_one_a_day_and_so_many_kept(self):
        folder, now = self.root / "backups", timezone.now()
        self.assertTrue(daily_jobs.wanted(folder, now))
        for day in range(5):
            saved = backup.write_daily(self.database, self.photos, folder, 3, now - timedelta(days=4 - day))
            stamp = (now - timedelta(days=4 - day)).timestamp()
            os.utime(saved.path, (stamp, stamp))
        self.assertEqual(len(backup.StoredBackup.all_in(folder)), 3)
        self.assertFalse(daily_jobs.wanted(folder, now + timedelta(hours=23)))
        self.assertTrue(daily_jobs.wanted(folder, now + timedelta(hours=25)))

    def test_one_dated_after_now_is_none(self):
        folder, now = self.root / "backups", timezone.now()
        saved = backup.write_daily(self.database, self.photos, folder, 3, now)
        later = (now + timedelta(days=30)).timestamp()
        os.utime(saved.path, (later, later))
        self.assertTrue(daily_jobs.wanted(folder, now))
