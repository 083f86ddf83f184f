"""What was probably done on a broken line: the slips whose result is exactly the line written, simplest first.

A slip is applied at every place of the line before; its result is compared with the line written by value, in the
exact core, so that correct steps on the same line do not hide it. Nothing is named whose result differs.
"""

from __future__ import annotations

from collections.abc import Container, Iterable, Iterator
from dataclasses import dataclass
from fractions import Fraction as Q

from algebra import limits
from algebra.derive.careless import arithmetic, copied
from algebra.exact.decomposition import plan_of
from algebra.exact.effort import granted, has_some, spend
from algebra.exact.errors import ExactError
from algebra.exact.evaluate.symbolic import value_of
from algebra.exact.plus_minus import variants
from algebra.exact.radical_field import RadicalField
from algebra.exact.rational_functions import Field, Ratio, field_of
from algebra.methods.worked_lines import NotThisWay, at_grain
from algebra.parse.errors import ReadingError
from algebra.reports.working import TaskError, Working
from algebra.slips import BY_ID, MISCOPIED, SLIPS, Slip, Words
from algebra.slips.parts import holds_typed_fraction, with_fractions
from algebra.tree import nodes as n
from algebra.tree import statements as ln
from algebra.tree.plain import plain
from algebra.ways.solve import methods_in_order, problem_from, worked

MOST = 4


@dataclass(frozen=True, slots=True)
class Found:
    """A slip that explains a line: where in the line before and what fills its words.

    `second` is another one made on the same line; `start` the line that right steps led to before the slip was made.
    """

    slip: Slip
    at: n.Address
    what: Words
    second: Found | None = None
    start: n.Node | None = None
    exact: bool = True


@dataclass(frozen=True, slots=True)
class Tried:
    """A wrong line that a slip makes, and what it means."""

    slip: Slip
    at: n.Address
    what: Words
    part: n.Node
    meaning: object


NODES_A_UNIT = 16
"""How many nodes of a line are worked out for a unit of work."""


class Comparison:
    """Whether a wrong line is the line written, up to order and to arithmetic carried out."""

    def __init__(self, before: n.Node, after: n.Node, *, imaginary: bool) -> None:
        self.after = after
        self.numbers = "complex" if imaginary else "real"
        letters = n.letters(before) | n.letters(after)
        if imaginary:
            letters -= {"i"}
        names = tuple(sorted(letters))
        plan = plan_of([before, after, n.Root(n.Integer(2))], imaginary=imaginary)
        self.field: Field = field_of(names)
        if plan is not None:
            self.field = RadicalField(names, plan, {name: Q(3 + k) for k, name in enumerate(names)}, {}, formal=True)
        self.weight = sum(1 for _ in n.walk(before)) // NODES_A_UNIT
        self.goal = self._meaning(after)

    def _meaning(self, body: n.Node) -> object:
        """Expressions: the set of values; equations: the two sides, and the product of all differences."""
        if isinstance(body, ln.Alternatives | ln.Equation | ln.ValueList):
            pairs = [pair for item in _equations(body) for pair in self._pairs(item)]
            total = None
            for left, right in pairs:
                total = left - right if total is None else total * (left - right)
            return frozenset(map(_key, pairs)), total
        return frozenset(self.value(tree) for tree in variants(body))

    def value(self, tree: n.Node) -> Ratio:
        """The value of an expression in the field of the comparison. Raises ExactError."""
        return value_of(tree, self.field).ratio

    def _pairs(self, equation: n.Node) -> list[tuple[Ratio, Ratio]]:
        found = []
        for chosen in variants(equation):
            if chosen.children:  # a value that is only listed has no sides
                found.append((self.value(chosen.children[0]), self.value(chosen.children[-1])))
        return found

    def meaning_of(self, body: n.Node) -> object | None:
        """What a wrong line means; None where it says nothing that could be compared, or the work allowed is done."""
        if self.is_spent or isinstance(body, ln.STATEMENTS) != isinstance(self.after, ln.STATEMENTS):
            return None
        try:
            spend(self.weight)
            return self._meaning(body)
        except ExactError:
            return None

    @property
    def is_spent(self) -> bool:
        """Whether the work allowed for the search has been done."""
        return not has_some()

    def fits(self, found: object | None) -> int:
        """2 where this meaning is that of the line written, 1 where correct steps lead from it there, else 0."""
        if isinstance(found, tuple) and isinstance(self.goal, tuple):
            (pairs, total), (goal_pairs, goal_total) = found, self.goal
            if pairs == goal_pairs:
                return 2
            if total is None or goal_total is None or total.is_zero or goal_total.is_zero:
                return 0
            return int((total / goal_total).constant is not None)
        return 2 if found is not None and found == self.goal else 0

    def is_it(self, body: n.Node) -> int:
        """How a wrong line fits the line written, as `fits` says it."""
        return self.fits(self.meaning_of(body))


def _key(pair: tuple[Ratio, Ratio]) -> frozenset[Ratio]:
    return frozenset(pair)


def _equations(body: n.Node) -> list[n.Node]:
    if isinstance(body, ln.Alternatives):
        return list(body.items)
    if isinstance(body, ln.ValueList):
        return [ln.Equation((body.left, item)) for item in body.items]
    return [body]


WrongLine = tuple[Slip, n.Address, Words, n.Node]
"""A slip, its place, what was done in words, and the line (or the part) that it makes."""


def wrong_lines(body: n.Node, task: str, slips: Iterable[Slip] = SLIPS) -> Iterator[WrongLine]:
    """Every wrong line that one slip makes of a line."""
    for slip, address, what, part in wrong_parts(body, task, slips):
        yield slip, address, what, _placed(body, address, part)


def wrong_parts(
    body: n.Node, task: str, slips: Iterable[Slip], places: Container[n.Address] | None = None
) -> Iterator[WrongLine]:
    """Every wrong part that one slip makes of a part of a line, of one at these places where they are given: as
    `wrong_lines`, with the part alone."""
    parts = [
        (address, part)
        for address, part in n.walk(body)
        if not isinstance(part, ln.STATEMENTS) and (places is None or address in places)
    ]
    joined = _product_of(body)
    if holds_typed_fraction(body):
        parts = [(address, with_fractions(part)) for address, part in parts]
        body = with_fractions(body)
    for slip in slips:
        if slip.tasks and task not in slip.tasks:
            continue
        if joined is not None and slip.of_factors:
            for wrong, what in slip.wrong(joined):
                yield slip, (), what, wrong
        if slip.scope in ("equation", "any") and isinstance(body, ln.Equation):
            for wrong, what in slip.wrong(body):
                yield slip, (), what, wrong
        if slip.scope in ("equation", "seen"):
            continue
        for address, part in parts:
            for wrong, what in slip.wrong(part):
                yield slip, address, what, wrong


def _product_of(body: n.Node) -> n.Node | None:
    """(x-6)(x+1) = 0 for x - 6 = 0 or x + 1 = 0; None for any other line."""
    if not isinstance(body, ln.Alternatives):
        return None
    pairs = [item.sides for item in body.items if isinstance(item, ln.Equation) and len(item.sides) == 2]
    if len(pairs) < len(body.items) or any(n.bare(right) != n.Integer(0) for _, right in pairs):
        return None
    return ln.Equation((n.Product(tuple(n.Group(left) for left, _ in pairs), ("",) * (len(pairs) - 1)), n.Integer(0)))


def _placed(body: n.Node, address: n.Address, part: n.Node) -> n.Node:
    """The line with the part at the address replaced, the new part in brackets."""
    return n.replaced(body, address, n.Group(part)) if address else part


def explain(before: n.Node, after: n.Node, task: str, *, imaginary: bool = False) -> list[Found]:
    """The slips that explain how `after` came from `before`, simplest first; empty where none does."""
    with granted(limits.EXPLAIN_WORK):
        try:
            return _explained(before, after, task, imaginary)
        except ExactError:  # what is too large to be explained stays unexplained
            return []


def _explained(before: n.Node, after: n.Node, task: str, imaginary: bool) -> list[Found]:
    try:
        comparison = Comparison(before, after, imaginary=imaginary)
    except ExactError:
        return []
    miscopied = copied(before, after)
    tried: list[Tried] = []
    found = _single(before, task, comparison, tried)
    if miscopied is not None:
        copy = Found(MISCOPIED, *miscopied)
        # one symbol differs and nothing was done: a law of algebra misused comes first only in an expression
        if isinstance(before, ln.Equation) or not found:
            return [copy, *found.values()]
        return [*found.values(), copy]
    singles = list(found.values())
    if singles and singles[0].exact:
        return singles
    later = _later(before, task, comparison)
    if later or singles:
        return [*later, *(f for f in singles if f.slip not in [item.slip for item in later])][:MOST]
    found_two = _together(before, task, tried, comparison) or _twice(before, task, comparison)
    if found_two:
        return found_two
    try:
        fact = arithmetic(before, after, Comparison(before, before, imaginary=imaginary))
    except ExactError:
        return []
    if fact is not None:
        return [Found(BY_ID["arithmetic"], (), fact)]
    return _copied_later(before, task, comparison)


def _right_steps(before: n.Node, task: str, numbers: str) -> list[n.Node]:
    """The first lines of the worked solution that goes on from a line. Raises TaskError, ReadingError, ExactError."""
    problem = problem_from(Working(task, plain(before), (), numbers=numbers))
    for method in methods_in_order(problem)[1][:2]:
        try:
            steps = [step for step in at_grain(worked(problem, method).steps, "every") if step.kind == "line"]
        except NotThisWay:
            continue
        return [step.after for step in steps[:3] if step.after is not None]
    return []


def _copied_later(before: n.Node, task: str, comparison: Comparison) -> list[Found]:
    """One symbol that differs from a right step on the same line."""
    if comparison.is_spent:
        return []
    try:
        for body in _right_steps(before, task, comparison.numbers):
            misread = copied(body, comparison.after)
            if misread is not None:
                return [Found(MISCOPIED, (), misread[1], None, body)]
    except (TaskError, ReadingError, ExactError):
        pass
    return []


def _single(before: n.Node, task: str, comparison: Comparison, tried: list[Tried]) -> dict[str, Found]:
    """The slips that explain the line each by itself; all that was tried is kept."""
    found: dict[str, Found] = {}
    strength: dict[str, int] = {}
    for slip, address, what, part in wrong_parts(before, task, SLIPS):
        if comparison.is_spent:
            break
        if strength.get(slip.id) == 2:
            continue
        meaning = comparison.meaning_of(_placed(before, address, part))
        if meaning is not None:
            tried.append(Tried(slip, address, what, part, meaning))
        fits = comparison.fits(meaning)
        if fits > strength.get(slip.id, 0):
            found[slip.id], strength[slip.id] = Found(slip, address, what, exact=fits == 2), fits
    # a slip that gives the very line comes before one from which correct steps lead on to it, and where a sum was
    # written as a product, one of factoring before others
    factored = isinstance(n.bare(before), n.Sum) and _holds_bracket(n.bare(comparison.after))
    ordered = sorted(found, key=lambda name: (-strength[name], factored and BY_ID[name].topic != "factoring"))[:MOST]
    return {name: found[name] for name in ordered}


def _holds_bracket(tree: n.Node) -> bool:
    """Whether an expression is a product with a sum in brackets among its factors, or a power of a sum."""
    factors = [n.bare(f) for f in (tree.children if isinstance(tree, n.Product) else (tree,))]
    bases = [n.bare(f.base) if isinstance(f, n.Power) else f for f in factors]
    return isinstance(tree, n.Product | n.Power) and any(isinstance(base, n.Sum) for base in bases)


def _together(before: n.Node, task: str, tried: list[Tried], comparison: Comparison) -> list[Found]:
    """Two slips at two places of the line that lie apart.

    Which two may fit is found by their values, as if the places were terms or factors of one expression, or two sides;
    then both are written and the line is compared.
    """
    for first, second in _candidates(before, [t for t in tried if t.slip.scope in ("part", "any")], comparison):
        if comparison.is_spent:
            break
        a, b = first.at, second.at
        if a == b:
            continue
        if b[: len(a)] == a:
            first, second, a, b = second, first, b, a
        if a[: len(b)] == b:  # one place lies in the other: the inner slip comes first
            inner = _placed(before, a, first.part)
            lines = [line for *_, line in wrong_lines(inner, task, [second.slip])]
        else:
            lines = [_placed(_placed(before, a, first.part), b, second.part)]
        if any(comparison.is_it(line) == 2 for line in lines):
            return [Found(first.slip, a, first.what, Found(second.slip, b, second.what))]
    return []


def _candidates(before: n.Node, tried: list[Tried], comparison: Comparison) -> Iterator[tuple[Tried, Tried]]:
    if not isinstance(before, ln.Equation):
        goal, own = comparison.goal, comparison.meaning_of(before)
        if isinstance(goal, frozenset) and isinstance(own, frozenset) and len(goal) == len(own) == 1:
            values = [
                (t, next(iter(t.meaning))) for t in tried if isinstance(t.meaning, frozenset) and len(t.meaning) == 1
            ]
            yield from _pairs(values, next(iter(own)), next(iter(goal)))
        return
    sides: dict[int, list[tuple[Tried, Ratio]]] = {0: [], 1: []}
    try:
        body = comparison.after
        if not isinstance(body, ln.Equation) or len(variants(before)) > 1 or len(variants(body)) > 1:
            return
        own_values = [comparison.value(side) for side in before.sides[:2]]
        goals = [comparison.value(side) for side in body.sides[:2]]
    except ExactError:
        return
    for t in tried:
        try:
            written = _placed(before, t.at, t.part)
            if t.at and isinstance(written, ln.Equation) and len(variants(written)) == 1:
                sides[t.at[0]].append((t, comparison.value(written.sides[t.at[0]])))
        except ExactError:
            continue
    left = [t for t, value in sides[0] if value == goals[0]]
    right = [t for t, value in sides[1] if value == goals[1]]
    yield from ((a, b) for a in left for b in right)
    for k in (0, 1):
        if own_values[1 - k] == goals[1 - k]:
            yield from _pairs(sides[k], own_values[k], goals[k])


def _pairs(values: list[tuple[Tried, Ratio]], own: Ratio, goal: Ratio) -> Iterator[tuple[Tried, Tried]]:
    """Pairs with V₁ + V₂ − V = goal (places in two terms) or V₁·V₂ : V = goal (places in two factors)."""
    by_value: dict[Ratio, list[Tried]] = {}
    for t, value in values:
        by_value.setdefault(value, []).append(t)
    for t, value in values:
        for other in by_value.get(goal - value + own, ()):
            yield t, other
        if not value.is_zero and not own.is_zero:
            try:
                wanted = goal * own / value
            except ExactError:
                continue
            for other in by_value.get(wanted, ()):
                yield t, other


def _later(before: n.Node, task: str, comparison: Comparison) -> list[Found]:
    """A slip made after right steps on the same line: the worked solution goes on from the line before, and the slip is
    looked for on its first lines."""
    if comparison.is_spent:
        return []
    try:
        for body in _right_steps(before, task, comparison.numbers):
            for slip, address, what, part in wrong_parts(body, task, SLIPS):
                if comparison.is_spent:
                    return []
                if slip.kind != "care" and comparison.is_it(_placed(body, address, part)) == 2:
                    return [Found(slip, (), what, None, body)]
    except (TaskError, ReadingError, ExactError):
        pass
    return []


def _twice(before: n.Node, task: str, comparison: Comparison) -> list[Found]:
    """The same slip made at two places of one line, within the work that is left."""
    for slip, address, what, line in wrong_lines(before, task):
        if comparison.is_spent:
            return []
        if slip.kind == "care":
            continue
        if any(comparison.is_it(twice) for *_, twice in wrong_lines(line, task, [slip])):
            return [Found(slip, address, what)]
    return []
