#!/usr/bin/env python3
"""Holds every include to the layers of docs/architecture.md. ALLOW is their documentation: a folder may include itself and
what stands behind it here. Fails on a folder that it does not know and on Qt outside desktop/ and its tests."""
import pathlib
import re
import sys

ALLOW = {
    "core/base": [],
    "core/picture": ["core/base"],
    "core/lang": ["core/base"],
    "core/shader": ["core/lang", "core/base"],
    "core/drive": ["core/lang", "core/base"],
    "core/link": ["core/drive", "core/base"],
    "core/catalogue": ["core/lang", "core/base"],
    "core/scene": ["core/picture", "core/base"],
    "core/droplets": ["core/drive", "core/picture", "core/base"],
    "core/finish": ["core/shader", "core/droplets", "core/scene", "core/catalogue", "core/drive", "core/lang", "core/picture", "core/base"],
    "core/plan": ["core/finish", "core/lang", "core/picture", "core/base"],
    "core/flow": ["core/plan", "core/picture", "core/base"],
    "core/cpu": ["core/plan", "core/picture", "core/lang", "core/base"],
    "core/gpu": ["core/plan", "core/picture", "core/lang", "core/base"],
    "core/render": ["core/flow", "core/droplets", "core/cpu", "core/gpu", "core/plan", "core/scene", "core/finish", "core/drive", "core/lang", "core/picture", "core/base"],
    "core/inspect": ["core/render", "core/droplets", "core/finish", "core/drive", "core/lang", "core/picture", "core/base"],
    "core/ship": ["core/inspect", "core/cpu", "core/render", "core/droplets", "core/gpu", "core/plan", "core/scene", "core/finish", "core/drive", "core/lang", "core/picture", "core/base"],
    "core/batch": ["core/inspect", "core/render", "core/flow", "core/plan", "core/cpu", "core/finish", "core/catalogue", "core/drive", "core/lang", "core/picture", "core/base"],
    "library": ["core"],
    "cli": ["core"],
    "standin": ["core/link", "core/base"],
    "desktop/kit": ["core"],
    "desktop/document": ["desktop/kit", "core"],
    "desktop/playing": ["desktop/document", "desktop/kit", "core"],
    "desktop/drawing": ["desktop/playing", "desktop/document", "desktop/kit", "core"],
    "desktop/formulas": ["desktop/drawing", "desktop/playing", "desktop/document", "desktop/kit", "core"],
    **{
        f"desktop/{view}": ["desktop/formulas", "desktop/drawing", "desktop/playing", "desktop/document", "desktop/kit", "core"]
        for view in ("pages", "ladder", "code", "dials", "shelf", "stage", "tryon", "rehearse", "sweep", "ship")
    },
    "desktop/shell": ["desktop", "core"],
    "bench": ["core"],
    "tests": ["core", "desktop", "standin"],
}

INCLUDE = re.compile(r'^\s*#\s*include\s*[<"]([^>"]+)[>"]', re.M)


def layer_of(path):
    for layer in sorted(ALLOW, key=len, reverse=True):
        if path == layer or path.startswith(layer + "/"):
            return layer
    return None


def faults_in(root, file):
    name = file.relative_to(root).as_posix()
    layer = layer_of(name)
    if layer is None:
        yield f"{name}: in no layer that the table knows"
        return
    for include in INCLUDE.findall(file.read_text(encoding="utf-8")):
        if re.match(r"Q[A-Z]|Qt", include) and not layer.startswith("desktop/") and not name.startswith(("tests/desktop/", "tests/fuzz/fuzz_settings")):
            yield f"{name}: Qt outside the desktop ({include})"
        target = layer_of(include)
        if target is None or target == layer:
            continue
        if not any(target == allowed or target.startswith(allowed + "/") for allowed in ALLOW[layer]):
            yield f"{name}: {layer} may not use {target} ({include})"


def main():
    root = pathlib.Path(sys.argv[1])
    found = []
    for folder in ("core", "library", "cli", "desktop", "bench", "tests", "standin"):
        for file in sorted((root / folder).rglob("*")):
            if file.suffix in (".cpp", ".h"):
                found += faults_in(root, file)
    print("\n".join(found) or "layers: all includes point down")
    return 1 if found else 0


sys.exit(main())
