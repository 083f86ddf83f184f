"""The line that would have been right: the same move as in a wrong line, done right; or none."""

from __future__ import annotations

import re
from collections.abc import Callable, Iterable, Iterator
from dataclasses import replace
from typing import NamedTuple

from algebra import limits
from algebra.derive.explain import Found
from algebra.exact.decomposition import field_for
from algebra.exact.effort import granted
from algebra.exact.errors import ExactError
from algebra.exact.evaluate.symbolic import value_of
from algebra.exact.generators import MoreRootsNeeded
from algebra.exact.rational_functions import Ratio
from algebra.exact.writing import simplified_tree
from algebra.methods.worked_lines import NotThisWay, at_grain
from algebra.parse.errors import ReadingError
from algebra.parse.lines import read_expression
from algebra.reports.working import TaskError, Working
from algebra.tree import build
from algebra.tree import nodes as n
from algebra.tree import statements as ln
from algebra.tree.plain import plain
from algebra.tree.substitute import substituted
from algebra.verify.check import check, decide
from algebra.ways.solve import methods_in_order, problem_from, worked

MOST_METHODS = 6
MOST_TRIED = 6
"""How many candidates are verified, the nearest first."""
NEAR, FARTHEST = 0.37, 0.75
"""Which share of the symbols may differ: up to the first it is the same move; beyond the second it is another one."""
_SYMBOL = re.compile(r"\d+|\S")
_OTHER_SIGN = {"+": "-", "-": "+"}

Candidate = tuple[n.Node, str]
"""A line, and how it is written with what stands behind the bar."""


def right_line(
    working: Working, before: n.Node, line: n.Node, found: Found, *, earlier: tuple[n.Node, ...] = ()
) -> str:
    """The same move done right: of the shape of the wrong line, and true after the line before; empty where there is
    none.

    A line that stands in the chain already (`earlier`) would be a step back.

    Candidates are the part at the place of the slip worked out, lines of worked solutions that go on from where it was
    made, and the wrong line with one sign or one untouched number put right. The nearest is verified, then the next. A
    line copied wrongly has none but that it was copied from.
    """
    if found.slip.miscopied:
        return plain(found.start) if found.start is not None else ""
    divisor = dict(found.what.slots).get("divisor")
    if isinstance(divisor, n.Node) and isinstance(
        line, ln.Equation
    ):  # the factor that was divided by is the other case
        both = build.alternatives((build.equation(divisor, build.ZERO), line))
        if _follows(working, before, both):
            return plain(both)
    start = before if found.start is None else found.start
    known = {before, start, line, *earlier}
    symbols = _symbols(line)
    far: list[_Ranked] = []
    try:
        with granted(limits.EXPLAIN_WORK):
            for candidates in _by_source(working, start, before, line, found):
                ranked = _all_ranked(candidates, symbols, known)
                near = sorted((each for each in ranked if each.share <= NEAR), key=lambda each: each.share)
                far += [each for each in ranked if NEAR < each.share <= FARTHEST]
                for each in near[:MOST_TRIED]:
                    if _follows(working, before, each.tree):
                        return each.text
            if found.start is not None:
                far.insert(0, _ranked((start, plain(start)), symbols))
            return next((each.text for each in far[:MOST_TRIED] if _follows(working, before, each.tree)), "")
    except ExactError:  # more work than is granted
        return ""


class _Ranked(NamedTuple):
    """A candidate, and which share of its symbols differ from those of the wrong line."""

    tree: n.Node
    text: str
    share: float


def _all_ranked(candidates: Iterable[Candidate], symbols: list[str], known: set[n.Node]) -> list[_Ranked]:
    """The candidates that are not known yet; they are from now on."""
    ranked = []
    for candidate in candidates:
        if candidate[0] not in known:
            known.add(candidate[0])
            ranked.append(_ranked(candidate, symbols))
    return ranked


def _ranked(candidate: Candidate, symbols: list[str]) -> _Ranked:
    tree, text = candidate
    one = _symbols(tree)
    longest = max(len(one), len(symbols))
    apart = abs(len(one) - len(symbols))  # so many symbols are put in or left out at least
    return _Ranked(tree, text, (apart if apart > FARTHEST * longest else _distance(one, symbols)) / longest)


def _by_source(
    working: Working, start: n.Node, before: n.Node, line: n.Node, found: Found
) -> Iterator[Iterable[Candidate]]:
    """Where right lines come from, what is likeliest to be the same move first."""
    solutions = _lines_that_go_on(working, start)
    signs = ((tree, plain(tree)) for tree in _signs_put_right(line))
    yield [*_part_worked_out(start, found.at), *signs, *next(solutions, [])]
    yield from solutions
    if found.slip.leaves_a_term:
        yield ((tree, plain(tree)) for tree in _number_put_right(working, before, line))


def _part_worked_out(before: n.Node, at: n.Address) -> Iterator[Candidate]:
    """The line with the part at this place worked out."""
    if isinstance(before, ln.STATEMENTS) and not at:
        return
    try:
        part = n.at(before, at)
        done = simplified_tree(value_of(part, field_for([part])).ratio)
    except (ExactError, MoreRootsNeeded, LookupError):
        return
    tree = _in_place(before, at, done)
    yield tree, plain(tree)


def _in_place(before: n.Node, at: n.Address, done: n.Node) -> n.Node:
    """The line with another part at this place, in brackets where it could be misread without."""
    parent = n.at(before, at[:-1]) if at else None
    if isinstance(parent, n.Sum) and at[-1] == 0 and isinstance(done, n.Sum):
        return n.replaced(before, at[:-1], n.Sum((*done.terms, *parent.terms[1:]), (*done.signs, *parent.signs)))
    bare = isinstance(done, n.FACTOR_LIKE) or isinstance(parent, n.Group | ln.Equation | None)
    bare = bare or (isinstance(parent, n.Sum) and not isinstance(done, n.Sum | n.Signed))
    return n.replaced(before, at, done if bare else n.Group(done))


def _lines_that_go_on(working: Working, start: n.Node) -> Iterator[list[Candidate]]:
    """The lines of each worked solution from a line, coarse and fine."""
    try:
        problem = problem_from(_from(working, start))
    except (TaskError, ReadingError):
        return
    for method in methods_in_order(problem)[1][:MOST_METHODS]:
        try:
            steps = worked(problem, method).steps
        except NotThisWay:
            continue
        told = [*at_grain(steps, "board"), *at_grain(steps, "every")]
        yield [(step.after, step.text) for step in told if step.kind == "line" and step.after is not None]


def _from(working: Working, before: n.Node, *lines: str) -> Working:
    return replace(working, given=plain(before), lines=lines, method=None)


def _signs_put_right(line: n.Node) -> Iterator[n.Node]:
    """The wrong line with one sign the other way round, a minus less, or both signs before a side of the equation."""
    for at, node in n.walk(line):
        if isinstance(node, n.Sum):
            for k, sign in enumerate(node.signs):
                if sign in _OTHER_SIGN:
                    signs = (*node.signs[:k], _OTHER_SIGN[sign], *node.signs[k + 1 :])
                    yield n.replaced(line, at, n.Sum(node.terms, signs))
        elif isinstance(node, n.Signed) and node.sign == "-":
            yield n.replaced(line, at, node.child)
    if isinstance(line, ln.Equation) and isinstance(line.sides[-1], n.FACTOR_LIKE) and line.sides[-1] != build.ZERO:
        yield build.equation(*line.sides[:-1], n.Signed("-", line.sides[-1]))
        yield build.equation(*line.sides[:-1], n.Signed("±", line.sides[-1]))


def _number_put_right(working: Working, before: n.Node, line: n.Node) -> Iterator[n.Node]:
    """The wrong equation with a number that had been left as it was exchanged for the one that makes it right."""
    if not all(isinstance(body, ln.Equation) and len(body.sides) == 2 for body in (before, line)):
        return
    untouched = {node for _, node in n.walk(before) if isinstance(node, n.Integer)}
    try:
        excess = _excess(working, before, line)
    except (ExactError, MoreRootsNeeded, ReadingError):
        return
    for at, node in n.walk(line):
        if node in untouched:
            try:
                wanted = _root_of([excess(n.replaced(line, at, n.Integer(k))) for k in range(3)])
            except (ExactError, MoreRootsNeeded):
                continue
            if wanted is not None:
                yield n.replaced(line, at, n.Integer(wanted))


def _excess(working: Working, before: n.Node, line: n.Node) -> Callable[[n.Node], Ratio]:
    """By how much the left side of such a line is greater than the right one at a solution of the equation before.

    Raises ExactError where no solution can be told.
    """
    solutions = check(_from(working, before)).answer.expected
    if not solutions:
        raise ExactError("The line before has no solution.")
    unknown = n.Letter(working.variable or min(n.letters(before), default="x"))
    held: dict[n.Node, n.Node] = {unknown: n.Group(read_expression(solutions[0]))}
    over = field_for([substituted(_difference(line), held)])
    return lambda tree: value_of(substituted(_difference(tree), held), over).ratio


def _difference(equation: n.Node) -> n.Node:
    left, right = equation.children
    return n.Sum((left, n.Group(right)), ("-",))


def _root_of(values: list[Ratio]) -> int | None:
    """Where a linear function with these values at 0, 1 and 2 is zero: a positive whole number, or None."""
    slope = values[1] - values[0]
    if values[2] - values[1] != slope or not slope.numerator:
        return None
    root = -values[0] / slope
    if not (root.numerator.is_constant() and root.denominator.is_one()):
        return None
    wanted = int(root.numerator.leading_coefficient()) if root.numerator else 0
    return wanted if wanted > 0 else None


def _symbols(tree: n.Node) -> list[str]:
    return _SYMBOL.findall(plain(tree))


def _distance(one: list[str], other: list[str]) -> float:
    """How many symbols must be put in, left out or exchanged to make one line of the other (Levenshtein 1966); a number
    that is exchanged for another counts as half."""
    row = [float(k) for k in range(len(other) + 1)]
    for i, a in enumerate(one, start=1):
        above, row[0] = row[0], i
        for j, b in enumerate(other, start=1):
            above, row[j] = row[j], min(row[j] + 1, row[j - 1] + 1, above + _exchanged(a, b))
    return row[-1]


def _exchanged(one: str, other: str) -> float:
    if one == other:
        return 0
    return 0.5 if one.isdigit() and other.isdigit() else 1


def _follows(working: Working, before: n.Node, tree: n.Node) -> bool:
    relation = decide(_from(working, before, plain(tree)))
    both_signs = any(isinstance(part, n.Signed) and part.sign == "±" for part in n.parts_of(tree))
    return relation == "holds" or (relation == "widens" and not both_signs)
