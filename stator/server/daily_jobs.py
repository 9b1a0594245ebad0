"""Background jobs of the server: the daily backup, and renewal of its certificate."""

from __future__ import annotations

import logging
import ssl
import threading
from datetime import datetime, timedelta
from pathlib import Path
from typing import Protocol

from django.conf import settings
from django.utils import timezone

from stator.exchange import backup

LOG = logging.getLogger(__name__)
EVERY, LOOK_S = timedelta(hours=24), 600.0


def wanted(folder: Path, now: datetime) -> bool:
    """Return True if the last daily backup is a day old or missing; one dated in the future counts as missing."""
    saved = [each for each in backup.StoredBackup.all_in(folder) if each.at <= now + timedelta(minutes=5)] if folder.exists() else []
    return not saved or now - max(each.at for each in saved) >= EVERY


def write_if_wanted(now: datetime) -> bool:
    """Write the daily backup when it is due.

    Failures are logged, and the shop's page shows the age of the last backup.
    """
    folder, data = Path(settings.BACKUPS), Path(settings.DATA_DIR)
    if not settings.BACKUPS_KEPT or not wanted(folder, now):
        return False
    try:
        backup.write_daily(data / backup.DATABASE, data / "photos", folder, settings.BACKUPS_KEPT, now)
    except (backup.Damaged, OSError) as error:
        LOG.error("The daily backup into %s failed: %s", folder, error)
        return False
    return True


class Renewed(Protocol):
    """A certificate that is renewed in time."""

    def bring_up_to_date(self, now: datetime) -> bool: ...

    def load(self, context: ssl.SSLContext) -> None: ...


class Daily(threading.Thread):
    """A thread that checks every ten minutes whether a backup or the renewal of a certificate is due."""

    def __init__(self, own: Renewed | None = None, tls: ssl.SSLContext | None = None) -> None:
        super().__init__(name="daily backup", daemon=True)
        self.over = threading.Event()
        self.own, self.tls = own, tls

    def run(self) -> None:
        while not self.over.is_set():
            write_if_wanted(timezone.now())
            if self.own and self.tls and self.own.bring_up_to_date(timezone.now()):
                self.own.load(self.tls)
            self.over.wait(LOOK_S)

    def stop(self) -> None:
        self.over.set()
