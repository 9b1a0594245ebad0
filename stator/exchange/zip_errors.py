"""Exceptions of a ZIP that is damaged, cut short, encrypted, or packed in an unsupported way."""

from __future__ import annotations

import lzma
import struct
import zipfile
import zlib

UNREADABLE = (
    *(zipfile.BadZipFile, zlib.error, lzma.LZMAError, struct.error),
    *(OSError, EOFError, RuntimeError, ValueError, KeyError, OverflowError),
)
