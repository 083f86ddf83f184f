"""How much of the code is tests: lines that are not empty, data and made files aside."""

from __future__ import annotations

import sys
from collections.abc import Iterator
from pathlib import Path

from tools import front

FOLDERS = ("algebra", "lanes", "paper", "cli", "server", "tools", "tests", "web/src")
KINDS = (".py", ".ts", ".vue")
MADE = ("schema.d.ts", "components.d.ts", "web/src/api/conventions.ts")
LEAST, MOST = 0.24, 0.34
"""A quarter to a third is wanted; the bounds leave a little room on either side."""


def main(arguments: list[str]) -> int:
    """Prints the share; returns 1 where it is outside of the bounds."""
    tests, whole = counted(front.ROOT)
    share = tests / whole
    print(f"uchuu: {tests} of {whole} lines are tests: {share:.1%}")
    if LEAST <= share <= MOST:
        return 0
    print(f"uchuu: between {LEAST:.0%} and {MOST:.0%} of the code is to be tests", file=sys.stderr)
    return 1


def counted(root: Path) -> tuple[int, int]:
    """The lines of tests, and of all code, below a folder."""
    tests = whole = 0
    for path in _files(root):
        lines = sum(1 for line in path.read_text(encoding="utf-8").splitlines() if line.strip())
        whole += lines
        tests += lines if is_test(path.relative_to(root)) else 0
    return tests, whole


def is_test(path: Path) -> bool:
    """Whether a file, named from the root of the project, is for tests."""
    return path.parts[0] == "tests" or path.name.endswith(".test.ts") or path.parts[:3] == ("web", "src", "testing")


def _files(root: Path) -> Iterator[Path]:
    for folder in FOLDERS:
        for path in sorted((root / folder).rglob("*")):
            own = path.relative_to(root).as_posix()
            if path.suffix in KINDS and "migrations" not in path.parts and not own.endswith(MADE):
                yield path
