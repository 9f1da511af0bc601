#!/usr/bin/env python3
"""Changes one comparison, sign, constant or call at a time in a copy of core and io, builds, runs the tests that can
see it, and prints the changes that no test noticed.

Usage: mutants.py BUILD_FOLDER [COUNT] [SEED] [ROOM]   (ROOM: core or io, core if nothing is said)
"""
import concurrent.futures
import filecmp
import os
import random
import re
import shutil
import subprocess
import sys
import time

top = os.path.abspath(os.path.join(os.path.dirname(__file__), "..", ".."))
build = os.path.abspath(sys.argv[1])
count = int(sys.argv[2]) if len(sys.argv) > 2 else 100
seed = int(sys.argv[3]) if len(sys.argv) > 3 else 1
room = sys.argv[4] if len(sys.argv) > 4 else "core"
copy = os.path.join(build, "copy")

CHANGES = [
    (r" < ", " <= "), (r" <= ", " < "), (r" > ", " >= "), (r" >= ", " > "), (r" == ", " != "), (r" != ", " == "),
    (r" \+ ", " - "), (r" - ", " + "), (r" \* ", " / "), (r" && ", " || "), (r" \|\| ", " && "),
    (r"\btrue\b", "false"), (r"\bfalse\b", "true"), (r"(?<![\w.])1\.0\b", "2.0"), (r"(?<![\w.])0\.0\b", "1.0"),
    (r"\bstd::min\(", "std::max("), (r"\bstd::max\(", "std::min("), (r"\bif \((?!auto|const)", "if (!("),
    (r"^(\s+)(\w+(?:[.]|->)\w+\([^;{}]*\);)$", r"\1"),  # a call left out
]


def sites():
    """Every place that can be changed: file, line, start, end, what stands there then."""
    found = []
    for folder, _, names in os.walk(os.path.join(copy, room, "src")):
        for name in sorted(names):
            path = os.path.join(folder, name)
            for number, line in enumerate(open(path, encoding="utf-8").read().split("\n")):
                code = line.split("//")[0]
                if code.lstrip().startswith("#") or '"' in code or "refuse(" in code or "constexpr" in code:
                    continue
                for pattern, new in CHANGES:
                    for match in re.finditer(pattern, code):
                        text = match.expand(new)
                        if text == "if (!(":  # closes where the condition does
                            depth, at = 1, match.end()
                            while at < len(code) and depth:
                                depth += {"(": 1, ")": -1}.get(code[at], 0)
                                at += 1
                            if depth:
                                continue
                            found.append((path, number, match.start(), at - 1, "if (!(" + code[match.end():at - 1] + ")"))
                            continue
                        found.append((path, number, match.start(), match.end(), text))
    return found


def run(*command, limit):
    try:
        env = dict(os.environ, RC_PARAMS="seed=2026 max_success=100")
        return subprocess.run(command, stdout=subprocess.DEVNULL, stderr=subprocess.DEVNULL, timeout=limit, env=env).returncode
    except subprocess.TimeoutExpired:
        return -1


# What differs is copied with the time of now, such as what a run that was ended amid a change has left.
names = subprocess.run(["git", "-C", top, "ls-files"], capture_output=True, text=True).stdout.splitlines()
for folder, _, there in os.walk(copy):
    for path in (os.path.join(folder, name) for name in there):
        if os.path.relpath(path, copy) not in names:
            os.remove(path)
for name in names:
    path, own = os.path.join(copy, name), os.path.join(top, name)
    os.makedirs(os.path.dirname(path), exist_ok=True)
    if not os.path.exists(path) or not filecmp.cmp(own, path, shallow=False):
        shutil.copy(own, path)
objects = os.path.join(build, room)
configure = ["cmake", "-S", copy, "-B", objects, "-G", "Ninja", "-DCMAKE_BUILD_TYPE=", "-DUBBO_STRICT=OFF", "-DUBBO_TOOL=ON",
             "-DCMAKE_CXX_FLAGS=-O1 -D_GLIBCXX_ASSERTIONS",  # an index past an end, as CI notices it with sanitizers
             "-DCMAKE_CXX_COMPILER_LAUNCHER=ccache",
             "-DUBBO_LIGHT=ON", "-DUBBO_LIGHT_ONLY=_tests$"]  # of the room itself a change compiles its own file alone
# The tests that can see the room: its own first, then those of the room that stands on it.
suites = {"core": ["core_tests", "io_tests"], "io": ["io_tests"]}[room]
tests = [os.path.join(objects, "tests", suite) for suite in suites]
for command in (configure, ["cmake", "--build", objects, "--target", *suites]):
    made = subprocess.run(command, stdout=subprocess.PIPE, stderr=subprocess.STDOUT, text=True)
    if made.returncode:
        sys.exit("mutants: the copy does not build\n" + "\n".join(made.stdout.splitlines()[-30:]))
began = time.time()
if any(run(suite, limit=600) for suite in tests):
    sys.exit("mutants: the tests fail on the unchanged copy")
limit = 3 * (time.time() - began) + 20

places = sites()
random.Random(seed).shuffle(places)
caught = survived = 0


def try_out(programs, change):
    """Whether the tests notice the change; while they run, the next one is built."""
    global caught, survived
    noticed = any(run(program, "--abort", limit=limit) for program in programs)
    for program in programs:
        os.remove(program)
    if noticed:
        caught += 1
    else:
        survived += 1
        print(change, flush=True)
    if sys.stderr.isatty():
        print(f"\r{caught + survived} of {count}", end="", file=sys.stderr)
    elif (caught + survived) % 10 == 0:
        print(f"{caught} of {caught + survived} so far", file=sys.stderr, flush=True)


tested = 0
with concurrent.futures.ThreadPoolExecutor(1) as tester:
    before_it = tester.submit(lambda: None)
    for path, number, start, end, text in places:
        if tested == count:
            break
        whole = open(path, encoding="utf-8").read()
        lines = whole.split("\n")
        before = lines[number]
        lines[number] = before[:start] + text + before[end:]
        open(path, "w", encoding="utf-8").write("\n".join(lines))
        try:
            if run("cmake", "--build", objects, "--target", *suites, limit=1200):
                continue  # what does not compile is no change
        finally:
            open(path, "w", encoding="utf-8").write(whole)
        before_it.result()
        copies = [shutil.copy(program, program + "_changed") for program in tests]
        change = f"{os.path.relpath(path, copy)}:{number + 1}: {before.strip()}  ->  {lines[number].strip()}"
        before_it = tester.submit(try_out, copies, change)
        tested += 1
    before_it.result()
print(f"{caught} of {caught + survived} changes in {room} were noticed ({100 * caught // max(caught + survived, 1)} %), seed {seed}, {len(places)} places")
