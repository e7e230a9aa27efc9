#!/usr/bin/env python3
"""Every fault id that the core or the CLI can give must be provoked by some test, and every id that a test names must exist."""
import pathlib
import re
import sys

root = pathlib.Path(sys.argv[1])
ID = re.compile(r'"((?:lang|drive|finish|edit|file|picture|render|ground|link|cli)\.[a-z-]+)"')


def ids(*folders):
    text = "".join(f.read_text() for folder in folders for f in (root / folder).rglob("*") if f.suffix in (".cpp", ".h"))
    return {name for name in ID.findall(text) if not name.endswith(".lacquer")}


# Provoked through the program's words rather than by their ids.
BY_WORDS = {name for name in ids("cli") if name.startswith("cli.")}
# Needs an installation that is broken.
# and a picture that is too large to encode.
CANNOT = {"picture.module", "picture.unwritable"}
given = ids("core", "cli")
tested = ids("tests")
wrong = [f"{name}: no test provokes it" for name in sorted(given - tested - BY_WORDS - CANNOT)]
wrong += [f"{name}: a test names it, nothing gives it" for name in sorted(tested - given)]
print("\n".join(wrong) or f"faults: all {len(given)} ids are provoked")
sys.exit(1 if wrong else 0)
