"""Run every simulation: `python -m simulations [--cases share of the usual] [--seed number] [--only name]`."""

from __future__ import annotations

import argparse
import random
import sys
import time

from stator.simulations.registry import SIMULATIONS


def main() -> int:
    """Print each share next to its target; return 1 if one misses it."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--cases", type=float, default=1.0, help="times the usual number of cases")
    parser.add_argument("--seed", type=int, default=1126)
    parser.add_argument("--only", choices=sorted(SIMULATIONS))
    given = parser.parse_args()
    short = 0
    for name, (simulate, cases) in SIMULATIONS.items():
        if given.only not in (None, name):
            continue
        started = time.monotonic()
        print(f"\n{name}, seed {given.seed}")
        for share in simulate(random.Random(given.seed), max(1, round(cases * given.cases))):
            print(f"  {share}", flush=True)
            short += not share.holds
        print(f"  {time.monotonic() - started:.0f} s")
    return int(short > 0)


if __name__ == "__main__":
    sys.exit(main())
