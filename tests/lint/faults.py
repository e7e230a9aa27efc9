#!/usr/bin/env python3
"""Every fault id that the core or the CLI can give must be provoked by some test, and every id that a test names must exist.
A test provokes an id where it compares one with it or lists it in a table of cases; a remark or a made-up fault does not."""
import pathlib
import re
import sys

root = pathlib.Path(sys.argv[1])
ID = re.compile(r'"((?:lang|drive|finish|edit|file|picture|render|ground|link|base|operation|gpu|flow|droplets|ship|cli)\.[a-z-]+)"')


REMARK = re.compile(r"//[^\n]*")
# A fault that a test makes up itself, such as Fault{"lang.kind", ...}.
MADE_UP = re.compile(r'Fault\s*\{\s*"[a-z.-]+"')


def ids(*folders):
    text = "".join(f.read_text() for folder in folders for f in (root / folder).rglob("*") if f.suffix in (".cpp", ".h"))
    text = MADE_UP.sub("", REMARK.sub("", text)) if folders == ("tests",) else text
    return {name for name in ID.findall(text) if not name.endswith((".lacquer", ".png"))}


# Provoked through the program's words rather than by their ids.
BY_WORDS = {name for name in ids("cli") if name.startswith("cli.")}
# Needs an installation that is broken.
# a picture that is too large to encode, and a graphics driver that ends. That there is none is told by its words.
# A machine without a Vulkan driver, and shaders that are ours but that the library does not take.
CANNOT = {"picture.module", "picture.unwritable", "gpu.none", "gpu.lost", "gpu.no-vulkan", "ship.module", "ship.path"}
given = ids("core", "cli")
tested = ids("tests")
wrong = [f"{name}: no test provokes it" for name in sorted(given - tested - BY_WORDS - CANNOT)]
wrong += [f"{name}: a test names it, nothing gives it" for name in sorted(tested - given)]
print("\n".join(wrong) or f"faults: all {len(given)} ids are provoked")
sys.exit(1 if wrong else 0)
