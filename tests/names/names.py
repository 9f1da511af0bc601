#!/usr/bin/env python3
"""Prints every public name, or the words in names that stand in no vocabulary.

names.py UBBO            all names: of the C++ headers, and of what the command UBBO tells of
names.py UBBO --check    the words in them that docs/vocabulary.txt does not hold, and names that comments speak of
                         and that no code has (any more); exit 1 where there is one
"""
import json
import pathlib
import re
import subprocess
import sys

ROOT = pathlib.Path(__file__).resolve().parents[2]
SKIP = re.compile(r'//[^\n]*|/\*.*?\*/|"(?:[^"\\\n]|\\.)*"|\'(?:[^\'\\\n]|\\.)*\'|#[^\n]*', re.S)
STD = re.compile(r"\bstd(?:::\w+)+|\bnlohmann(?:::\w+)+")
PRIVATE = re.compile(r"\n private:.*?(?=\n (?:public|protected):|\n\};)", re.S)
DETAIL = re.compile(r"\nnamespace (?:ubbo::)?detail \{.*?\n\}  // namespace (?:ubbo::)?detail", re.S)
CPP = set("""alignas auto bool break case catch char class const consteval constexpr const_cast continue decltype default
delete do double else enum explicit export extern false final float for friend goto if inline int long mutable namespace
new noexcept not nullptr operator or override private protected public requires return short signed size_t sizeof static
static_assert static_cast dynamic_cast struct switch template this thread_local throw true try typedef typename union unsigned
using virtual void while concept nodiscard maybe_unused uint8_t uint32_t uint64_t int64_t noreturn std""".split())


def header_names():
    for path in sorted(ROOT.glob("*/include/ubbo/**/*.hpp")):
        text = DETAIL.sub("", PRIVATE.sub("", SKIP.sub(" ", path.read_text())))
        for name in re.findall(r"\b[A-Za-z_]\w*", STD.sub(" ", text)):
            if name not in CPP and len(name) > 2:
                yield name


def told(ubbo, *args):
    return json.loads(subprocess.run([ubbo, *args, "--json"], capture_output=True, text=True, check=True).stdout)


def strings(value, keys):
    """The values of these keys, wherever they are."""
    if isinstance(value, dict):
        for key, inner in value.items():
            if key in keys and isinstance(inner, str):
                yield inner
            yield from strings(inner, keys)
    elif isinstance(value, list):
        for inner in value:
            yield from strings(inner, keys)


def tool_names(ubbo):
    for verb in ("settings", "parts", "decisions"):
        yield from strings(told(ubbo, verb), {"name", "kind", "setting", "reading", "action"})
    top = subprocess.run([ubbo, "--help"], capture_output=True, text=True).stdout
    verbs = re.findall(r"^  ([a-z]+) ", top, re.M)
    for verb in verbs:
        text = subprocess.run([ubbo, verb, "--help"], capture_output=True, text=True).stdout
        yield verb
        yield from (option[2:] for option in re.findall(r"--[a-z][a-z-]+", text))


def words_of(name):
    for part in re.split(r"[^A-Za-z]+", name):
        for word in re.findall(r"[A-Z]+(?![a-z])|[A-Z]?[a-z]+", part):
            if len(word) > 2:
                yield word.lower()


def vocabulary():
    lines = (ROOT / "docs/vocabulary.txt").read_text().splitlines()
    return {word for line in lines if not line.startswith("#") for word in line.split()}


def stale_names():
    """What comments of public headers, and docs, call a name of the code, and is none."""
    code = set(re.findall(r"[A-Za-z_]\w*", (ROOT / "docs/settings.md").read_text()))
    sources = [path for kind in ("hpp", "cpp", "h") for room in ROOT.iterdir() if room.name != "build"
               for path in (room.rglob(f"*.{kind}") if room.is_dir() and room.name[0] != "." else ())
               if "node_modules" not in path.parts]
    for path in sources:
        if path.relative_to(ROOT).parts[0] in {"tests", "fuzz", "bench"}:
            continue
        code.update(re.findall(r"[A-Za-z_]\w*", re.sub(r"//[^\n]*|/\*.*?\*/", " ", path.read_text(), flags=re.S)))
    code |= {"measureText"}  # a browser's
    for path in sources:
        if "include" not in path.parts:
            continue
        for number, line in enumerate(path.read_text().splitlines(), 1):
            for tick in re.findall(r"`([A-Za-z_][\w:.]*)(?:\([^`]*\))?`", line.partition("//")[2]):
                for name in re.findall(r"[A-Za-z_]\w*", tick):
                    if name not in code:
                        yield f"{path.relative_to(ROOT)}:{number}: no code has '{name}', which `{tick}` speaks of"
    for path in [*ROOT.glob("*.md"), *(ROOT / "docs").rglob("*.md")]:
        if path.name == "CHANGELOG.md":
            continue
        for number, line in enumerate(path.read_text().splitlines(), 1):
            for tick in re.findall(r"`((?:\w+::)+\w+)(?:\([^`]*\))?`", line):
                for name in tick.split("::"):
                    if name not in code:
                        yield f"{path.relative_to(ROOT)}:{number}: no code has '{name}', which `{tick}` speaks of"


def main():
    names = sorted(set(header_names()) | set(tool_names(sys.argv[1])))
    if "--check" not in sys.argv[2:]:
        print("\n".join(names))
        return 0
    known = vocabulary()
    missing = {}
    for name in names:
        for word in words_of(name):
            if word not in known:
                missing.setdefault(word, name)
    for word, name in sorted(missing.items()):
        print(f"'{word}', as in {name}, stands in no vocabulary; take a word of docs/vocabulary.txt, or add it there")
    used = {word for name in names for word in words_of(name)}
    for word in sorted(known - used):
        print(f"'{word}' stands in docs/vocabulary.txt, and no name has it")
    stale = list(stale_names())
    print("".join(one + "\n" for one in stale), end="")
    return 1 if missing or known - used or stale else 0


if __name__ == "__main__":
    sys.exit(main())
