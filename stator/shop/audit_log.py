"""Audit lines in the server's log for what matters later: who, what, of which job. No secrets, no words of the work itself."""

from __future__ import annotations

import logging

LOG = logging.getLogger("stator.told")


def audit(who: object, what: str, about: object = "") -> None:
    """Write a line."""
    LOG.info("%s %s", f"{getattr(who, 'username', who)}:", f"{what} {about}".strip())
