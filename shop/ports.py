"""Where a gauge may be heard: a serial device, or a line over the network."""

from __future__ import annotations

import re

from django.core.exceptions import ValidationError

SCHEMES = ("socket", "rfc2217", "loop", "hwgrep")
_DEVICE = re.compile(r"(?:/dev/[\w./-]+|COM\d{1,3})", re.ASCII)


def check_port(port: str) -> None:
    """Refuse an address that is no line: one of pyserial's that opens files or loads code, or none at all."""
    scheme, found, _ = port.partition("://")
    if found and scheme in SCHEMES:
        return
    if _DEVICE.fullmatch(port) and ".." not in port:
        return
    known = ", ".join(f"{each}://" for each in SCHEMES)
    raise ValidationError(f"{port!r} is no line that can be listened to: a device such as /dev/ttyUSB0 or COM3, or {known}.")
