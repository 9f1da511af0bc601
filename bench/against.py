#!/usr/bin/env python3
"""Runs two builds of the benchmarks in turn and compares them.

Usage: against.py OLD NEW [ROUNDS] [BENCHMARK OPTION...]
OLD and NEW are benchmark programs. Each round runs both, so that whatever else the machine does meets both
alike; what is printed is the fastest round of each, since what disturbs a run only ever makes it slower, and
the new one's as a share of the old one's. `bare`, a loop that is the same in both, shows how far to trust it.
Exit 1 where one is more than 5% slower.
"""
import json
import subprocess
import sys


def run(program, options):
    done = subprocess.run([program, "--benchmark_format=json", *options], capture_output=True, text=True, check=True)
    return {one["name"]: one["real_time"] for one in json.loads(done.stdout)["benchmarks"]}


def main():
    if len(sys.argv) < 3:
        sys.exit(__doc__.strip())
    old, new = sys.argv[1:3]
    rounds = int(sys.argv[3]) if len(sys.argv) > 3 else 25
    # Many short rounds: what else the machine does lasts longer than one. `pool` takes all cores for seconds.
    options = sys.argv[4:] or ["--benchmark_min_time=0.03", "--benchmark_filter=-pool"]
    times = {old: {}, new: {}}
    for turn in range(rounds):
        # The one that goes first takes turns too.
        for program in (old, new) if turn % 2 == 0 else (new, old):
            for name, time in run(program, options).items():
                times[program].setdefault(name, []).append(time)
        print(f"round {turn + 1} of {rounds}", file=sys.stderr)
    slower = []
    print(f"{'benchmark':<44} {'before':>12} {'now':>12} {'ratio':>7}")
    for name in times[new]:
        now = min(times[new][name])
        if name not in times[old]:
            print(f"{name:<44} {'':>12} {now:>12.1f}     new")
            continue
        before = min(times[old][name])
        print(f"{name:<44} {before:>12.1f} {now:>12.1f} {now / before:>7.2f}")
        if now > 1.05 * before:
            slower.append(name)
    if slower:
        print(f"\nmore than 5% slower: {', '.join(slower)}")
    sys.exit(1 if slower else 0)


main()
