"""Names and addresses of this machine in the shop's network.

Use `python -m stator.server.network_addresses hosts`, or `tell https 8000`.
"""

from __future__ import annotations

import io
import ipaddress
import os
import socket
import sys
from collections.abc import Iterator

import psutil
import segno

HERE = ("localhost", "127.0.0.1")


def of_this_machine() -> list[str]:
    """Return addresses in private networks, then the name; none that only this machine can reach."""
    up = {name for name, said in psutil.net_if_stats().items() if said.isup}
    found = [
        each.address for name, all_of in psutil.net_if_addrs().items() if name in up for each in all_of if each.family == socket.AF_INET
    ]
    outside = [each for each in dict.fromkeys(found) if not ipaddress.ip_address(each).is_loopback]
    outside.sort(key=lambda each: not ipaddress.ip_address(each).is_private)
    return [*outside, *_names()]


def _names() -> Iterator[str]:
    name = socket.gethostname().partition(".")[0].lower()
    if name and name != "localhost" and name.isascii():
        yield name
        yield f"{name}.local"


def format_address(scheme: str, port: int, hosts: list[str]) -> str:
    """Return what the terminal says: each address, and the first as a code for a phone's camera."""
    reached = [each for each in hosts if each not in HERE and "*" not in each] or ["127.0.0.1"]
    addresses = [f"{scheme}://{each}:{port}/" for each in reached]
    lines = ["Stator answers at", *(f"  {each}" for each in addresses)]
    if reached[0] == "127.0.0.1":
        return "\n".join([*lines, "No network was found: it is reached from this machine alone."])
    return "\n".join([*lines, f"On a phone ({addresses[0]}):", _code(addresses[0])])


def _code(address: str) -> str:
    drawn = io.StringIO()
    segno.make(address, error="l", micro=False).terminal(drawn, border=2, compact=True)
    return drawn.getvalue()


def main(words: list[str]) -> None:
    hosts = [each for each in os.environ.get("STATOR_HOSTS", "").split(",") if each] or [*HERE, *of_this_machine()]
    if words == ["hosts"]:
        print(",".join(hosts))
    elif words == ["first"]:
        print(next((each for each in hosts if each not in HERE and "*" not in each), ""))
    else:
        print(format_address(words[1], int(words[2]), hosts))


if __name__ == "__main__":
    main(sys.argv[1:])
