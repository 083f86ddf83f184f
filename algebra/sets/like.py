"""Another problem like one that stands: the same structure, the same events, other numbers."""

from __future__ import annotations

import random
from collections.abc import Sequence
from dataclasses import replace
from math import isqrt

from algebra.exact.effort import granted
from algebra.exact.errors import ExactError
from algebra.limits import LIKE_WORK
from algebra.methods.difficulty import largest_number
from algebra.parse.errors import ReadingError
from algebra.parse.lines import read_line
from algebra.reports.working import TaskError, Working
from algebra.sets.events import EVENTS
from algebra.sets.likeness import likeness
from algebra.tree import nodes as n
from algebra.tree import statements as ln
from algebra.tree.plain import plain
from algebra.verify.check import check
from algebra.ways.solve import Solution, work

TRIES = 500
NEAR = 0.7
"""How far the difficulty may be from that of the first."""
SMALL = 12
_FIXED = frozenset(
    {"extraneous", "none-left", "no-solution", "all-reals", "prime", "common-factor", "opposite", "double-root"}
)
"""Events that make a problem what it is: another like it has them and no other of these."""


def like(working: Working, count: int = 1, seed: int = 1, *, known: Sequence[Working] = ()) -> list[Solution]:
    """Worked problems with the structure and the events of this one; none is the same item as it, as another of them,
    or as one of `known`. Fewer than `count` where no more are found. Raises TaskError where the problem is not worked,
    ReadingError."""
    first = work(replace(working, lines=()), method=working.method)
    decimal = working.convention("decimal")
    comma = decimal == "comma"
    body = read_line(working.given, decimal=decimal).body
    assert body is not None
    places = _numbers_of(body)
    seen = {likeness(each) for each in (working, *known)}
    draw = random.Random(f"{working.given} {seed}")
    found: list[Solution] = []
    reach = max(largest_number(body), SMALL)
    for attempt in range(TRIES if places else 0):
        if len(found) >= count:
            break
        given = plain(_changed(body, places, draw, reach, wide=attempt > TRIES // 3), comma=comma)
        other = replace(working, given=given, lines=())
        try:
            key = likeness(other)
            if key in seen or not _may_fit(first, other):
                continue
            solution = work(other, method=working.method)
        except (TaskError, ReadingError):
            continue
        if _is_like(first, solution):
            seen.add(key)
            found.append(solution)
    return found


def _numbers_of(body: n.Node) -> list[tuple[n.Address, n.Integer | n.Decimal]]:
    """The numbers that may change: not exponents or indices."""
    return [
        (address, node)
        for address, node in n.walk(body)
        if isinstance(node, n.Integer | n.Decimal) and not _is_raised(body, address)
    ]


def _is_raised(body: n.Node, address: n.Address) -> bool:
    for length in range(len(address)):
        above = n.at(body, address[:length])
        if isinstance(above, n.Power | n.Root) and address[length] == 1:
            return True
    return False


def _changed(
    body: n.Node,
    places: list[tuple[n.Address, n.Integer | n.Decimal]],
    draw: random.Random,
    reach: int,
    *,
    wide: bool,
) -> n.Node:
    """The problem with other numbers, each of the kind of the one in its place; equal ones stay equal half of the
    time."""
    drawn: dict[n.Node, n.Node] = {}
    together = draw.random() < 0.5
    for address, number in places:
        new = drawn[number] if together and number in drawn else _another_number(number, draw, reach, wide=wide)
        drawn.setdefault(number, new)
        body = n.replaced(body, address, new)
    return body


def _another_number(number: n.Integer | n.Decimal, draw: random.Random, reach: int, *, wide: bool) -> n.Node:
    """A whole number for a whole number, a decimal with as many places for a decimal."""
    if isinstance(number, n.Integer):
        return n.Integer(_another(number.value, draw, reach if wide else max(2 * number.value, SMALL)))
    whole, _, places = number.digits.partition(".")
    value = int(whole + places)
    digits = str(_another(value, draw, max(2 * value, SMALL))).rjust(len(places) + 1, "0")
    return n.Decimal(f"{digits[: -len(places)]}.{digits[-len(places) :]}" if places else digits)


def _another(value: int, draw: random.Random, reach: int) -> int:
    """A number like this one: 0 and 1 stay, squares stay squares, others keep about their size."""
    if value in (0, 1):
        return value
    root = isqrt(value)
    if root * root == value and value > 1:
        return draw.randint(2, max(root + 3, 5)) ** 2
    return draw.randint(2, reach)


def _may_fit(first: Solution, other: Working) -> bool:
    """Whether the answer of another problem is of the kind of the first's; quicker than working it."""
    if other.task != "solve":
        return True
    try:
        with granted(LIKE_WORK):
            expected = check(other).answer.expected
    except ExactError:
        return False
    return sorted(map(_kind, expected)) == sorted(map(_kind, first.answer))


def _kind(answer: str) -> str:
    if answer == "all":
        return "all"
    return (
        "root"
        if any(sign in answer for sign in "√∛∜^")
        else "i"
        if "i" in answer
        else "fraction"
        if "/" in answer
        else "whole"
    )


def _is_like(first: Solution, other: Solution) -> bool:
    if other.family != first.family or other.method != first.method or bool(other.already) != bool(first.already):
        return False
    if [step.rule.id for step in other.all_steps] != [step.rule.id for step in first.all_steps]:
        return False
    if any(EVENTS[name](first) != EVENTS[name](other) for name in _FIXED):
        return False
    if sorted(map(_kind, first.answer)) != sorted(map(_kind, other.answer)):
        return False
    if _shape_of(first) != _shape_of(other):
        return False
    mine, theirs = first.difficulty.rating, other.difficulty.rating
    return mine is None or theirs is None or abs(mine - theirs) <= NEAR


def _shape_of(solution: Solution) -> list[str]:
    """What kinds of tree the answer consists of."""
    return sorted(type(n.bare(tree)).__name__ for tree in solution.answer_trees if not isinstance(tree, ln.STATEMENTS))
