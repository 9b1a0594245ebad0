"""Command line of Chromium for tests and screenshots."""

from __future__ import annotations

import os

CHROMIUM = os.environ.get("STATOR_CHROMIUM", "/usr/bin/chromium")
ARGS = [
    "--no-sandbox",
    "--disable-gpu",
    "--disable-quic",
    "--no-first-run",
    "--disable-dev-shm-usage",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
    "--font-render-hinting=none",  # letters as wide as a screen's, whichever of Debian's two it is
]
