"""Addresses at which a gauge may be connected: a serial device of this computer or a port in the shop's own network."""

from __future__ import annotations

import ipaddress
import re

from django.conf import settings
from django.core.exceptions import ValidationError
from django.utils.translation import gettext as _

SCHEMES = ("socket", "rfc2217")
_DEVICE = re.compile(
    r"(?:/dev/(?:tty(?:USB|ACM|AMA|S|O)\d{1,3}|serial/by-(?:id|path)/[\w.:+-]{1,90}|cu\.[\w.-]{1,60}|rfcomm\d{1,2})|COM\d{1,3})", re.ASCII
)
_LINE = re.compile(r"(?P<scheme>[a-z0-9]+)://(?:\[(?P<v6>[0-9a-fA-F:]+)\]|(?P<host>[0-9.]+|localhost)):(?P<port>\d{1,5})", re.ASCII)
WANTED = _("a device such as /dev/ttyUSB0 or COM3, or a line such as socket://192.168.1.20:5331")


def check_port(port: str) -> None:
    """Refuse an address that cannot be a gauge's: another file, another protocol, or a host outside the shop's own network."""
    if _DEVICE.fullmatch(port):
        return
    found = _LINE.fullmatch(port)
    if not found or found["scheme"] not in SCHEMES or not 0 < int(found["port"]) < 65536:
        raise ValidationError(_("{port!r} cannot be listened to: type {wanted}.").format(port=port, wanted=WANTED))
    host = "127.0.0.1" if found["host"] == "localhost" else found["v6"] or found["host"]
    try:
        address = ipaddress.ip_address(host)
    except ValueError as error:
        raise ValidationError(_("{host!r} is no address: type {wanted}.").format(host=host, wanted=WANTED)) from error
    if not any(address in network for network in settings.GAUGE_NETWORKS):
        networks = ", ".join(str(network) for network in settings.GAUGE_NETWORKS)
        raise ValidationError(
            _("{host} is not in the shop's own network ({networks}; STATOR_GAUGE_NETWORKS).").format(host=host, networks=networks)
        )
