"""`./uchuu bench --memory`: how much memory a process that checks workings holds, over many of them."""

from __future__ import annotations

import itertools
from collections.abc import Iterator
from dataclasses import replace
from pathlib import Path

from algebra import FAMILIES, Working, check, generate

STEPS = 10


def memory_table(count: int) -> str:
    """Megabytes held after each tenth of so many workings: right ones of every family, and as many with a wrong
    line."""
    rows = ["### Memory of one process", "", "| workings checked | megabytes |", "|--:|--:|", f"| 0 | {_held():.0f} |"]
    workings = itertools.cycle(list(_workings()))
    for step in range(1, STEPS + 1):
        for working in itertools.islice(workings, count // STEPS):
            check(working)
        rows.append(f"| {step * (count // STEPS):,} | {_held():.0f} |")
    return "\n".join(rows) + "\n"


def _workings() -> Iterator[Working]:
    """Some hundreds, so that caches are turned over as in a school: each family and level, right and with a digit
    changed."""
    for family in FAMILIES:
        for level in range(1, len(family.levels) + 1):
            for solution in generate(family.id, level, 6, 11):
                lines = solution.lines
                yield replace(solution.working, lines=lines)
                last = lines[-1] if lines else ""
                digit = next((k for k in range(len(last) - 1, -1, -1) if last[k] in "23456789"), None)
                if digit is not None:
                    wrong = last[:digit] + str(11 - int(last[digit])) + last[digit + 1 :]
                    yield replace(solution.working, lines=(*lines[:-1], wrong))


def _held() -> float:
    pages = int(Path("/proc/self/statm").read_text(encoding="ascii").split()[1])
    return pages * 4096 / 2**20
