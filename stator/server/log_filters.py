"""Removal of secrets from log lines: of a customer link, or of a background task."""

from __future__ import annotations

import logging
import re

_TOKEN = re.compile(r"(/(?:owner|making)/)[\w-]{8,}")


class NoTokens(logging.Filter):
    """Puts a mark in the place of every token before a record is written."""

    def filter(self, record: logging.LogRecord) -> bool:
        message = record.getMessage()
        if _TOKEN.search(message):
            record.msg, record.args = _TOKEN.sub(r"\1(secret)", message), ()
        if record.exc_info or record.exc_text:
            text = record.exc_text or logging.Formatter().formatException(record.exc_info)  # type: ignore[arg-type]
            record.exc_text = _TOKEN.sub(r"\1(secret)", text)
        return True
