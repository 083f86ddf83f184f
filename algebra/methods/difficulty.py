"""How hard a problem is, from 1 to 10, with the parts a teacher can argue with."""

from __future__ import annotations

import re
from collections.abc import Iterable, Sequence
from math import exp, log2, log10

from algebra.methods.paper import Step
from algebra.reports.side_work import Box, CommonDenominator, LongDivision, ProductSum, SideWork, SyntheticDivision
from algebra.reports.solution import Difficulty

STEP, PAIR, ROOT_FOUND, LCD, NOTICE = 0.32, 0.30, 1.3, 0.22, 0.75
SCALE = 6.5
"""How fast the rating rises with the sum of its parts."""


def difficulty_of(steps: Sequence[Step], answer: Iterable[str]) -> Difficulty:
    """The difficulty of a problem from its worked solution as at the board."""
    answers = list(answer)
    lines = [step.after for step in steps if step.kind != "check"]
    parts = {
        "steps": STEP * sum(step.rule.weight for step in steps),
        "search": sum(_search(work) for step in steps for work in step.side_work),
        "numbers": _numbers(lines, answers),
        "noticing": NOTICE * len(noticed_in(steps)),
        "length": max((len(line) for line in lines), default=0) / 40,
    }
    raw = sum(parts.values())
    rating = 1 + 9 * (1 - exp(-raw / SCALE))
    return Difficulty(
        round(min(rating, 10.0), 1), {name: round(value, 2) for name, value in parts.items()}, noticed_in(steps)
    )


def noticed_in(steps: Iterable[Step]) -> tuple[str, ...]:
    """What has to be noticed, each once."""
    return tuple(dict.fromkeys(word for step in steps for word in step.noticed))


def _search(work: SideWork) -> float:
    match work:
        case ProductSum(product=product, tried=tried):
            return PAIR * log2(1 + len(tried)) + 0.12 * log10(abs(product) or 1)
        case SyntheticDivision():
            return ROOT_FOUND
        case CommonDenominator():
            return LCD * len(work.rows or work.denominators)
        case Box():
            return 0.5 if "/" in work.half else 0.2
        case LongDivision():
            return 1.2
    return 0.0


def _numbers(lines: Sequence[str], answers: Sequence[str]) -> float:
    found = [int(digits) for line in lines for digits in re.findall(r"\d+", line)]
    total = 0.35 * log10(max(found, default=1) + 1)
    joined = " ".join(answers)
    if re.search(r"\d/\d|\)/\d", joined):
        total += 0.5
    if "√" in joined or "∛" in joined:
        total += 0.7
    if "i" in joined and "√" not in joined and "prime" not in joined and "limit" not in joined:
        total += 0.2
    if any("/" in line and re.search(r"\d/\d", line) for line in lines):
        total += 0.3
    return total
