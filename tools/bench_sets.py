"""How long sheets take: a ladder, a page as it will print, a PDF of sheet and key, the same items among many."""

from __future__ import annotations

import statistics
import time
from collections import defaultdict
from collections.abc import Callable

from algebra import FAMILIES, LadderWish, Working, clear_caches, generate, ladder, likeness
from paper import Settings, Wanted, as_pdf, as_svg, planned, source_of

RUNS = 7
ITEMS, BANK = 30, 5_000
_WANTED = {"ladder": 2000, "preview": 300, "pdf": 1500, "bank": 200}
"""Milliseconds that a teacher should wait at most."""


def sets_table() -> str:
    """Milliseconds, the median of some runs with nothing kept from before, and what is wanted."""
    drawn = _drawn(ITEMS)
    bank = [Working(w.task, f"{w.given}", ()) for w in _drawn(BANK)]
    plan = planned("Bench", [Wanted(working) for working in drawn])
    rows = [
        (
            "a ladder of 12 worked items",
            "ladder",
            lambda: ladder(LadderWish(("quadratic-equations", "radical-equations"), 12)),
        ),
        ("the pages of that sheet as they will print", "preview", lambda: as_svg(source_of(plan, Settings("sheet")))),
        (f"a PDF of sheet and one of its worked key, {ITEMS} items, worked anew", "pdf", lambda: _sheet_and_key(drawn)),
        (f"the forms of {BANK} problems told and compared", "bank", lambda: _same(bank)),
    ]
    told = ["| | median ms | wanted ms |", "|---|--:|--:|"]
    told += [f"| {words} | {_median(ask):.0f} | {_WANTED[key]} |" for words, key, ask in rows]
    told.append("")
    told.append("The bank keeps the form of each problem: on a screen only the comparison is left, by the database.")
    return "### Sheets\n\n" + "\n".join(told) + "\n"


def _drawn(count: int) -> list[Working]:
    found: list[Working] = []
    seed = 0
    while len(found) < count:
        seed += 1
        for family in FAMILIES:
            level = seed % len(family.levels) + 1
            found += [solution.working for solution in generate(family.id, level, 12, seed)]
    return found[:: max(1, len(found) // count)][:count]


def _sheet_and_key(workings: list[Working]) -> None:
    plan = planned("Bench", [Wanted(working) for working in workings])
    for kind in ("sheet", "key"):
        as_pdf(source_of(plan, Settings(kind)))


def _same(workings: list[Working]) -> int:
    places: dict[str, list[int]] = defaultdict(list)
    for number, working in enumerate(workings):
        places[likeness(working)].append(number)
    return sum(len(found) > 1 for found in places.values())


def _median(ask: Callable[[], object]) -> float:
    times = []
    for _ in range(RUNS):
        clear_caches()
        started = time.perf_counter()
        ask()
        times.append((time.perf_counter() - started) * 1000)
    return statistics.median(times)
