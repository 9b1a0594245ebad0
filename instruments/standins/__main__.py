"""`python -m instruments.standins [first port]`: a crank, a case, a ram and a wheel on four ports in a row."""

from __future__ import annotations

import asyncio
import contextlib
import sys

from instruments.standins.program import FIRST_PORT, HOST, run
from simulators.all import PARTS


def main() -> None:
    first = int(sys.argv[1]) if len(sys.argv) > 1 else FIRST_PORT
    for index, thing in enumerate(PARTS):
        print(f"socket://{HOST}:{first + index}  {thing.remark}", flush=True)
    with contextlib.suppress(KeyboardInterrupt):
        asyncio.run(run(range(first, first + len(PARTS))))


if __name__ == "__main__":
    main()
