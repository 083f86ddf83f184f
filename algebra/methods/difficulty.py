"""How hard a problem is, from 1 to 10, with the parts a teacher can argue with."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from math import exp, log2, log10

from algebra.methods.worked_lines import Step
from algebra.reports.side_work import Box, CommonDenominator, LongDivision, ProductSum, SideWork, SyntheticDivision
from algebra.reports.solution import Difficulty
from algebra.tree import build
from algebra.tree import nodes as n

STEP, PAIR, ROOT_FOUND, LCD, NOTICE = 0.32, 0.30, 1.3, 0.22, 0.75
SCALE = 6.5
"""How fast the rating rises with the sum of its parts."""


def difficulty_of(steps: Sequence[Step], answer: Sequence[n.Node]) -> Difficulty:
    """The difficulty of a problem from its worked solution as at the board."""
    written = [step for step in steps if step.kind != "check"]
    lines = [tree for step in written for tree in (step.after, step.subject) if tree is not None]
    parts = {
        "steps": STEP * sum(step.rule.weight for step in steps),
        "search": sum(_search(work) for step in steps for work in step.side_work),
        "numbers": _numbers(lines, answer),
        "noticing": NOTICE * len(noticed_in(steps)),
        "length": max((len(step.line) for step in written), default=0) / 40,
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


def _numbers(lines: Sequence[n.Node], answers: Sequence[n.Node]) -> float:
    """How large the numbers get, and whether there are fractions, roots or i."""
    parts = [part for line in lines for part in n.parts_of(line)]
    found = [part for answer in answers for part in n.parts_of(answer)]
    total = 0.35 * log10(max((largest_number(line) for line in lines), default=1) + 1)
    roots = any(isinstance(part, n.Root) for part in found)
    if any(_over_number(part, sums=True) for part in found):
        total += 0.5
    if roots:
        total += 0.7
    elif n.Letter("i") in found:
        total += 0.2
    if any(_over_number(part) for part in parts):
        total += 0.3
    return total


def _over_number(part: n.Node, *, sums: bool = False) -> bool:
    """A fraction of numbers, such as 3/4 or √5/2; with `sums`, a sum over a number too."""
    if isinstance(part, n.Mixed):
        return True
    if not isinstance(part, n.Fraction) or not build.starts_with_digit(part.denominator):
        return False
    return build.ends_with_digit(part.numerator) or (sums and isinstance(part.numerator, n.Group))


def largest_number(tree: n.Node) -> int:
    """The largest whole number that is written in the tree; 0 where there is none."""
    largest = 0
    for part in n.parts_of(tree):
        match part:
            case n.Integer(value):
                largest = max(largest, value)
            case n.Mixed(whole, top, bottom):
                largest = max(largest, whole, top, bottom)
            case n.Decimal(digits):
                largest = max(largest, *(int(piece or "0") for piece in digits.split(".")))
    return largest
