"""`python -m stator.instruments.simulated [first port] [part ...]`: simulated parts on consecutive ports; by default the usual four."""

from __future__ import annotations

import argparse
import asyncio
import contextlib

from stator.instruments.simulated.server import FIRST_PORT, HOST, run
from stator.simulators.base import Part
from stator.simulators.registry import PARTS, PRACTISED

KNOWN = {each.name: each for each in (*PARTS, *PRACTISED)}


def known(name: str) -> type[Part]:
    if name not in KNOWN:
        raise argparse.ArgumentTypeError(f"{name} is none of {', '.join(KNOWN)}")
    return KNOWN[name]


def main() -> None:
    asked = argparse.ArgumentParser(prog="python -m instruments.standins", description="Simulated gauges, each on a port of its own.")
    asked.add_argument("port", nargs="?", type=int, default=FIRST_PORT, help="the first port")
    asked.add_argument("part", nargs="*", type=known, help=f"which parts speak: {', '.join(KNOWN)}")
    given = asked.parse_args()
    parts = tuple(given.part) or PARTS
    for index, thing in enumerate(parts):
        print(f"socket://{HOST}:{given.port + index}  {thing.remark}", flush=True)
    with contextlib.suppress(KeyboardInterrupt):
        asyncio.run(run(range(given.port, given.port + len(parts)), parts=parts))


if __name__ == "__main__":
    main()
