"""Audit lines in the server's log: who did what to which job.

They contain no secrets and no content of the work.
"""

from __future__ import annotations

import logging

LOG = logging.getLogger("stator.told")


def audit(who: object, what: str, about: object = "") -> None:
    """Write a line."""
    LOG.info("%s %s", f"{getattr(who, 'username', who)}:", f"{what} {about}".strip())
