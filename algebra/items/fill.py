"""To fill in: a worked solution in which numbers are left out."""

from __future__ import annotations

import random
from collections.abc import Sequence
from dataclasses import replace
from itertools import count

from algebra.derive.check import check
from algebra.formats.typeset import understood
from algebra.items.answers import LEFT_OPEN, answered, relation, trouble_in, unread
from algebra.parse.lines import read_line
from algebra.records import record
from algebra.reports.items import Shown
from algebra.reports.report import Link
from algebra.reports.working import TaskError, Working
from algebra.tree import nodes as n
from algebra.tree.plain import plain
from algebra.verify.check import decide
from algebra.ways.solve import work

BLANK = "□"
BLANKS = 4


@record(frozen=True)
class FillItem:
    """A worked solution with blanks (□) in its lines; `wanted` are the numbers that stood there, in reading order."""

    working: Working
    lines: tuple[str, ...]
    wanted: tuple[str, ...]


def make(working: Working, seed: int = 1) -> FillItem:
    """A worked solution with a few numbers left out, as `fill_item` makes it."""
    return fill_item(working, seed=seed)


def fill_item(working: Working, blanks: int = BLANKS, seed: int = 1) -> FillItem:
    """A worked solution with so many numbers left out, or as many as it has. Raises TaskError where the problem is not
    worked."""
    solution = work(replace(working, lines=()), method=working.method)
    draw = random.Random(f"{working.given} {seed}")
    places: list[tuple[int, n.Address, int]] = []
    trees: list[n.Node] = []
    for number, step in enumerate(step for step in solution.steps if step.kind == "line"):
        body = read_line(step.line).body
        if body is None:
            raise TaskError("A line of its solution has nothing that could be left out.")
        trees.append(body)
        places += [
            (number, at, node.value)
            for at, node in n.walk(body)
            if isinstance(node, n.Integer) and not _is_exponent(body, at)
        ]
    if not places:
        raise TaskError("Its solution has no number that could be left out.")
    chosen = sorted(draw.sample(range(len(places)), min(blanks, len(places))))
    wanted: list[tuple[int, int, str]] = []
    for place in reversed(chosen):
        number, address, value = places[place]
        trees[number] = n.replaced(trees[number], address, n.Letter(BLANK))
        wanted.append((number, place, str(value)))
    lines = tuple(plain(tree) for tree in trees)
    return FillItem(working, lines, tuple(value for *_, value in sorted(wanted)))


def _is_exponent(body: n.Node, address: n.Address) -> bool:
    above = n.at(body, address[:-1]) if address else None
    return isinstance(above, n.Power | n.Root) and address[-1] == 1


def is_filled(item: FillItem, answers: Sequence[str]) -> tuple[bool, ...]:
    """Whether each blank holds what makes its line right: a number equal to the one left out, or all of them numbers
    with which every line holds. Too few answers leave blanks wrong."""
    told = [*answers, *[""] * len(item.wanted)][: len(item.wanted)]
    found = tuple(_is_equal(item.working, *pair) for pair in zip(told, item.wanted, strict=True))
    if all(found) or not all(answer.strip() for answer in told):
        return found
    return (True,) * len(found) if _is_right_otherwise(item, told) else found


def _is_right_otherwise(item: FillItem, answers: Sequence[str]) -> bool:
    """Whether other numbers make every line right as well, as 2 and 25 for 25 and 2."""
    left = iter(answers)
    lines = tuple("".join(f"({next(left)})" if c == BLANK else c for c in line) for line in item.lines)
    return check(replace(item.working, lines=lines, method=None)).sound


def _is_equal(working: Working, answer: str, wanted: str) -> bool:
    if not answer.strip():
        return False
    return decide(Working("evaluate", wanted, (answer,), conventions=working.conventions)) == "holds"


def key(item: FillItem) -> tuple[str, ...]:
    """The numbers that were left out, a line each."""
    return item.wanted


def parts(item: FillItem) -> tuple[str, ...]:
    """A part for each blank."""
    return tuple(f"blank {k}" for k in range(1, len(item.wanted) + 1))


def links(item: FillItem, lines: Sequence[str]) -> list[Link]:
    """Each blank judged by itself; what is left open is no error."""
    told = ["" if text.strip() == LEFT_OPEN else text for text in lines[: len(item.wanted)]]
    found = []
    for number, (text, right) in enumerate(zip(told, is_filled(item, told), strict=False), start=1):
        trouble = trouble_in(number, text or "0", item.working, "blank")
        found.append(trouble or Link(number, relation(right) if text else None, "blank"))
    surplus = lines[len(item.wanted) :]
    return found + [unread(len(found) + k, "There are no more blanks.") for k in range(1, len(surplus) + 1)]


def shown(item: FillItem) -> Shown:
    """The lines with their blanks numbered, so that each can be named."""
    number = count(1)
    decimal = item.working.convention("decimal")
    lines = tuple(_numbered(understood(line, decimal=decimal).latex, number) for line in item.lines)
    return Shown("fill", lines=lines, blanks=len(item.wanted))


def _numbered(latex: str, number: count[int]) -> str:
    first, *rest = latex.split("\\square")
    return first + "".join(f"\\boxed{{\\scriptstyle {next(number)}}}{part}" for part in rest)


FORM = answered("fill", FillItem, "Write what is missing.", make=make, key=key, parts=parts, links=links, shown=shown)
