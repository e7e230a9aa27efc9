#!/usr/bin/env python3
"""Every source must be listed in the CMakeLists.txt above it, so that nothing lies about unbuilt."""
import pathlib
import sys

root = pathlib.Path(sys.argv[1])
missing = []
for top in ("core", "cli", "desktop", "bench", "tests"):
    for file in sorted((root / top).rglob("*")):
        if file.suffix not in (".cpp", ".h", ".qrc"):
            continue
        lists = [folder / "CMakeLists.txt" for folder in file.parents if (folder / "CMakeLists.txt").exists() and folder != root]
        if not any(file.relative_to(listing.parent).as_posix() in listing.read_text().split() or
                   file.relative_to(listing.parent).as_posix() + ")" in listing.read_text().split() for listing in lists):
            missing.append(file.relative_to(root).as_posix())
print("\n".join(f"{name}: listed in no CMakeLists.txt" for name in missing) or "sources: all are listed")
sys.exit(1 if missing else 0)
