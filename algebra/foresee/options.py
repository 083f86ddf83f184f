"""Multiple-choice options: the right answer among the likeliest wrong ones, each with its reason."""

from __future__ import annotations

import random
from collections.abc import Sequence
from contextlib import suppress
from functools import cmp_to_key

from algebra.exact.decomposition import plan_of
from algebra.exact.effort import granted
from algebra.exact.errors import ExactError
from algebra.exact.evaluate.symbolic import value_of
from algebra.exact.generators import Plan
from algebra.exact.radical_field import RadicalField
from algebra.exact.rational_functions import Ratio
from algebra.foresee.predict import Prediction, predict
from algebra.formats.typeset import values_in_latex
from algebra.parse.errors import ReadingError
from algebra.parse.lines import read_expression
from algebra.reports.prediction import Option, OptionOrder
from algebra.reports.working import Working
from algebra.tree import nodes as n

AT_MOST_AS_LONG = 3
"""An option many times as long as the right one gives itself away."""


def options(
    working: Working, *, count: int = 4, seed: int = 1, order: OptionOrder = "shuffled", found: Prediction | None = None
) -> tuple[Option, ...]:
    """Multiple-choice options: the right answer and the best distractors, each with its reason. Raises TaskError.

    `found` is what was foreseen for the working, where that is known already.
    """
    found = found or predict(working, most=count + 4)
    right = " or ".join(found.answer) if found.answer else "no solution"
    length = max(len(right), 4)
    fair = [item for item in found.wrong if len(item.text) <= AT_MOST_AS_LONG * length][: count - 1]
    rows = [Option(right, True, "", (), values_in_latex(found.answer))]
    rows += [Option(item.text, False, item.done, tuple(item.slips), values_in_latex(item.answer)) for item in fair]
    if order == "ascending":
        return tuple(rows[k] for k in ascending([found.answer, *(item.answer for item in fair)]))
    draw = random.Random(seed)
    trap = rows[1:2] if order == "trap-first" else []
    rest = rows[:1] + rows[2:] if trap else rows
    draw.shuffle(rest)
    return (*trap, *rest)


def ascending(answers: Sequence[Sequence[str]]) -> list[int]:
    """The places of these answers, each a list of values, the smallest value first; what is no number comes last, by
    length.

    No solution is the least. Values are compared exactly.
    """
    with granted():
        cell, values = _values(answers)
        places = range(len(answers))
        numbers = [k for k in places if values[k] is not None]

        def compare(first: int, second: int) -> int:
            for here, there in zip(values[first] or (), values[second] or (), strict=False):
                sign = cell.sign_of(here - there)
                if sign:
                    return sign
            return len(values[first] or ()) - len(values[second] or ())

        with suppress(ExactError):  # not decided: these stay in the order in which they were foreseen
            numbers = sorted(numbers, key=cmp_to_key(compare))
    others = sorted(set(places) - set(numbers), key=lambda k: (sum(map(len, answers[k])), list(answers[k])))
    return numbers + others


def _values(answers: Sequence[Sequence[str]]) -> tuple[RadicalField, list[list[Ratio] | None]]:
    """The values of answers in one field, each answer's from the smallest; None for an answer that is not of
    numbers."""
    trees = [[_read(text) for text in answer] for answer in answers]
    known = [tree for found in trees for tree in found if tree is not None]
    cell = RadicalField((), plan_of(known, imaginary=False) or Plan(), {}, {})
    values: list[list[Ratio] | None] = []
    for found in trees:
        try:
            each = [value_of(tree, cell).ratio for tree in found if tree is not None]
            each.sort(key=cmp_to_key(lambda a, b: cell.sign_of(a - b) or 0))
            values.append(each if len(each) == len(found) else None)
        except ExactError:
            values.append(None)
    return cell, values


def _read(text: str) -> n.Node | None:
    """The number that a text writes; None where it holds a letter or is no expression."""
    try:
        tree = read_expression(text)
    except ReadingError:
        return None
    return tree if not n.letters(tree) else None
