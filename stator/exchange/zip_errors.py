"""What can be raised when a ZIP is damaged, cut short, locked, or packed in a way nobody here packs."""

from __future__ import annotations

import lzma
import struct
import zipfile
import zlib

UNREADABLE = (
    *(zipfile.BadZipFile, zlib.error, lzma.LZMAError, struct.error),
    *(OSError, EOFError, RuntimeError, ValueError, KeyError, OverflowError),
)
