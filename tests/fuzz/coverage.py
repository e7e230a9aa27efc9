"""Prints how much of each parser the fuzz targets have reached: BUILD_FOLDER TARGET ...

Reads what `./check` has the targets write down. Fails where it is less than 90 of 100 lines.
"""

import json
import pathlib
import subprocess
import sys

LEAST = 90  # per cent of lines

build = pathlib.Path(sys.argv[1])
programs = [str(build / "bin" / target) for target in sys.argv[2:]]
parsers = pathlib.Path(__file__).with_name("parsers.txt").read_text().split()
root = pathlib.Path(__file__).resolve().parents[2]

reached = build / "reached"
merged = reached / "all"
written = [str(path) for path in sorted(reached.glob("*.profraw"))]
subprocess.run(["llvm-profdata", "merge", "-sparse", *written, "-o", merged], check=True)
objects = [word for program in programs[1:] for word in ("-object", program)]
command = ["llvm-cov", "export", "-summary-only", f"-instr-profile={merged}", programs[0], *objects]
told = subprocess.run([*command, *(str(root / parser) for parser in parsers)], check=True, capture_output=True)
files = {entry["filename"]: entry["summary"]["lines"] for entry in json.loads(told.stdout)["data"][0]["files"]}

short = False
for parser in parsers:
    lines = files.get(str(root / parser))
    if lines is None:
        sys.exit(f"{parser}: no target holds it")
    short = short or lines["percent"] < LEAST
    print(f"{lines['percent']:5.1f} % of {lines['count']:4} lines  {parser}")
every = sum(files[str(root / parser)]["count"] for parser in parsers)
all_reached = sum(files[str(root / parser)]["covered"] for parser in parsers)
print(f"{100 * all_reached / every:5.1f} % of {every:4} lines  of all parsers")
if short:
    sys.exit(f"fuzzing reaches less than {LEAST} % of a parser: give its target seeds, or words for its dictionary")
