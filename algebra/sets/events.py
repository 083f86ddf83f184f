"""What a teacher may ask to happen in a problem, and how it is told from the worked solution."""

from __future__ import annotations

from collections.abc import Callable, Mapping

from algebra.methods.worked_lines import problem_of
from algebra.reports.side_work import ProductSum
from algebra.reports.working import TaskError
from algebra.tree import nodes as n
from algebra.tree import statements as ln
from algebra.ways.solve import Solution

Event = Callable[[Solution], bool]
BIG_PAIR = 40
"""From this product on a pair of numbers is looked for among many."""


def _noticed(word: str) -> Event:
    return lambda solution: word in solution.difficulty.noticed


def _answers(test: Callable[[n.Node], bool]) -> Event:
    return lambda solution: any(test(tree) for tree in solution.answer_trees)


def _holds(*kinds: type[n.Node]) -> Callable[[n.Node], bool]:
    return lambda tree: any(isinstance(part, kinds) for part in n.parts_of(tree))


def _is_negative(tree: n.Node) -> bool:
    return isinstance(n.bare(tree), n.Signed) and not n.letters(tree)


def _body(solution: Solution) -> n.Node:
    return problem_of(solution.working).body


def _none_left(solution: Solution) -> bool:
    """Candidates were found and every one was rejected."""
    return not solution.answer and "extraneous" in solution.difficulty.noticed


def _double_root(solution: Solution) -> bool:
    """The one solution of a polynomial equation comes from a squared factor: (x − 3)² = 0."""
    if solution.working.task != "solve" or len(solution.answer) != 1:
        return False
    given = _body(solution)
    if _holds(n.Root, n.Absolute)(given) or "extraneous" in solution.difficulty.noticed:
        return False
    lines = [given, *(step.after for step in solution.all_steps if step.after is not None)]
    return any(_is_squared_factor_equal_to_0(line) for line in lines)


def _is_squared_factor_equal_to_0(line: n.Node) -> bool:
    if not isinstance(line, ln.Equation) or n.Integer(0) not in map(n.bare, line.sides):
        return False
    sides = [n.bare(side) for side in line.sides]
    factors = [factor for side in sides for factor in (side.factors if isinstance(side, n.Product) else (side,))]
    powers = [factor for factor in map(n.bare, factors) if isinstance(factor, n.Power)]
    return any(n.letters(power.base) and n.bare(power.exponent) == n.Integer(2) for power in powers)


def _big_pair(solution: Solution) -> bool:
    return any(
        isinstance(work, ProductSum) and abs(work.product) >= BIG_PAIR
        for step in solution.all_steps
        for work in step.side_work
    )


def _numerator_gone(solution: Solution) -> bool:
    """Everything above is cancelled: 1 is left."""
    return any(
        isinstance(n.bare(tree), n.Fraction) and n.bare(n.bare(tree).children[0]) == n.Integer(1)
        for tree in solution.answer_trees
    )


def _equal_fractions(solution: Solution) -> bool:
    """Two fractions of the given are equal."""
    found = [part for part in n.parts_of(_body(solution)) if isinstance(part, n.Fraction)]
    return len(found) > len(set(found))


def _prime_and_tempting(solution: Solution) -> bool:
    """Prime, though the pairs of the product nearly fit."""
    tried = [work for step in solution.all_steps for work in step.side_work if isinstance(work, ProductSum)]
    return "prime" in solution.difficulty.noticed and any(len(work.tried) >= 2 for work in tried)


def _stated(word: str) -> Event:
    """Whether a line of the features states this, with a value."""
    return lambda solution: any(step.line.startswith(word) and "none" not in step.line for step in solution.all_steps)


def _hole_on_an_axis(solution: Solution) -> bool:
    points = (
        part
        for step in solution.all_steps
        if step.line.startswith("hole") and step.after is not None
        for part in n.parts_of(step.after)
    )
    return any(isinstance(part, ln.Point) and n.Integer(0) in (n.bare(part.across), n.bare(part.up)) for part in points)


EVENTS: Mapping[str, Event] = {
    "extraneous": _noticed("extraneous"),
    "none-left": _none_left,
    "no-solution": lambda solution: solution.working.task == "solve" and not solution.answer,
    "all-reals": lambda solution: solution.answer[:1] == ("all",),
    "prime": _noticed("prime"),
    "prime-tempting": _prime_and_tempting,
    "common-factor": _noticed("common factor first"),
    "opposite": lambda solution: bool({"opposite denominators", "opposite factors"} & set(solution.difficulty.noticed)),
    "numerator-gone": _numerator_gone,
    "fractions": _noticed("fractions"),
    "fraction-answer": _answers(_holds(n.Fraction)),
    "root-answer": _answers(_holds(n.Root)),
    "zero-answer": _answers(lambda tree: n.bare(tree) == n.Integer(0)),
    "negative-answer": _answers(_is_negative),
    "double-root": _double_root,
    "hole": _stated("hole"),
    "hole-and-oblique": lambda solution: _stated("hole")(solution) and _stated("oblique")(solution),
    "hole-on-axis": _hole_on_an_axis,
    "equal-fractions": _equal_fractions,
    "big-pair": _big_pair,
    "two-letters": lambda solution: len(n.letters(_body(solution))) >= 2,
    "pattern": lambda solution: bool({"pattern", "substitution"} & set(solution.difficulty.noticed)),
    "substitution": _noticed("substitution"),
}
"""Every event by the name under which it is asked for."""


def event_named(name: str) -> Event:
    """The event of this name. Raises TaskError."""
    if name not in EVENTS:
        raise TaskError(f"Unknown event “{name}”; known are {', '.join(EVENTS)}.")
    return EVENTS[name]
