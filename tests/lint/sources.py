#!/usr/bin/env python3
"""Every source must be listed in the CMakeLists.txt above it, so that nothing lies about unbuilt. In the window's code no file
is longer than 450 lines, no class has more than 40 public functions unless its comment says why, and colours and heights of
type stand in the theme alone."""
import pathlib
import re
import sys

LONGEST = 450
MOST_FUNCTIONS = 40
COLOUR = re.compile(r"QColor\s*(\w+\s*)?[({]\s*(0x|\d)|\"#?[^\"]*#[0-9a-fA-F]{6}\b[^\"]*(border|background|color)")
TYPE = re.compile(r"theme::(words|figures)\(\d|setPixelSize\(\d|setPointSize")
CLASS = re.compile(r"((?:^///[^\n]*\n)*)^class (\w+)[^;{]*\{(.*?)^\};", re.M | re.S)

root = pathlib.Path(sys.argv[1])
wrong = []
for top in ("core", "cli", "desktop", "bench", "tests"):
    for file in sorted((root / top).rglob("*")):
        if file.suffix not in (".cpp", ".h", ".qrc"):
            continue
        lists = [folder / "CMakeLists.txt" for folder in file.parents if (folder / "CMakeLists.txt").exists() and folder != root]
        if not any(file.relative_to(listing.parent).as_posix() in listing.read_text().split() or
                   file.relative_to(listing.parent).as_posix() + ")" in listing.read_text().split() for listing in lists):
            wrong.append(f"{file.relative_to(root).as_posix()}: listed in no CMakeLists.txt")


def public_functions(body):
    access, count = "private", 0
    for line in body.split("\n"):
        words = line.strip()
        if words in ("public:", "protected:", "private:", "Q_SIGNALS:"):
            access = words
        elif access == "public:" and re.match(r"    \S", line) and "(" in words:
            count += 0 if words.startswith(("//", "struct", "enum", "using", "template", "static constexpr")) else 1
    return count


for file in sorted((root / "desktop").rglob("*")):
    if file.suffix not in (".cpp", ".h"):
        continue
    name = file.relative_to(root).as_posix()
    text = file.read_text()
    lines = text.split("\n")
    if len(lines) - 1 > LONGEST:
        wrong.append(f"{name}: {len(lines) - 1} lines, at most {LONGEST}")
    for comment, of, body in CLASS.findall(text):
        count = public_functions(body)
        if count > MOST_FUNCTIONS and "more" not in comment:
            wrong.append(f"{name}: {of} has {count} public functions, at most {MOST_FUNCTIONS}, or its comment says why")
    if name.startswith("desktop/kit/theme."):
        continue
    for number, line in enumerate(lines, 1):
        if COLOUR.search(line):
            wrong.append(f"{name}:{number}: a colour outside the theme")
        if TYPE.search(line):
            wrong.append(f"{name}:{number}: a height of type outside the theme")
print("\n".join(wrong) or "sources: all are listed, none is too long, looks come from the theme")
sys.exit(1 if wrong else 0)
