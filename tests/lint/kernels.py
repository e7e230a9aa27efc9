#!/usr/bin/env python3
"""Kernels must give the same bits on every processor: no functions of the C library's mathematics, no hwy/contrib/math, no
fused multiply-add, no approximations."""
import pathlib
import re
import sys

BANNED = [r"hwy/contrib/math", r"\bstd::(sin|cos|tan|a?sinh?|a?cosh?|a?tanh?|atan2|exp2?|log2?|pow|sqrt|fma|fmod)\b",
          r"\bMulAdd\b", r"\bMulSub\b", r"\bNegMulAdd\b", r"\bApproximateReciprocal", r"#include <cmath>"]
found = []
root = pathlib.Path(sys.argv[1])
for file in sorted([*(root / "core/cpu").glob("kernels_*.cpp"), *(root / "core").glob("*/*_kernels.cpp")]):
    for number, line in enumerate(file.read_text().splitlines(), 1):
        found += [f"{file.name}:{number}: {line.strip()}" for pattern in BANNED if re.search(pattern, line)]
print("\n".join(found) or "kernels: nothing that differs between processors")
sys.exit(1 if found else 0)
