"""Evaluates lines: values of expressions, solution sets of equations and of statements."""

from __future__ import annotations

from algebra.exact.algebraic_numbers import Number
from algebra.exact.decomposition import roots_over
from algebra.exact.errors import UndefinedValue
from algebra.exact.evaluate.symbolic import Value, value_of
from algebra.exact.generators import NO_DOUBTS
from algebra.exact.radical_field import RadicalField
from algebra.exact.real_sets import RealSet
from algebra.exact.solution_sets import EMPTY, Solution, SolutionSet, from_real
from algebra.exact.solve.absolute_value import one_bar
from algebra.exact.solve.conjugates import by_conjugates
from algebra.exact.solve.equation import solve_equation
from algebra.exact.solve.linear import one_surd
from algebra.exact.solve.parametric import parameter_roots
from algebra.reports.working import TaskError
from algebra.tree import build
from algebra.tree import nodes as n
from algebra.tree import statements as ln
from algebra.tree.plain import plain
from algebra.verify.context import Context
from algebra.verify.evaluated import EvaluatedExpression, EvaluatedStatement, Pair


class Evaluator:
    """Evaluates the lines of one working."""

    def __init__(self, context: Context) -> None:
        self.context = context

    def value(self, tree: n.Node) -> Value:
        """The value of an expression without ±, definitions put in. Raises OutOfScope, TooLarge or UndefinedValue."""
        context = self.context
        filled = context.filled(tree)
        try:
            return value_of(filled, context.home or context.field)
        except UndefinedValue:
            if context.home is None or not any(roots_over(filled, letter) for letter in context.field.letters):
                raise
            # undefined with the signs that forms are compared by, as 1/(|x| - x) is for |x| = x: it has no form, and
            # its cells decide
            context.home.sign_assumed = True
            return Value(context.home.constant(0))

    def expression(self, tree: n.Node) -> EvaluatedExpression:
        """The value of an expression, once for every choice of its ±. Raises as `value` does."""
        home = self.context.home
        if home is not None:
            home.doubts = NO_DOUBTS
        trees = [self.context.filled(one) for one in self.context.chosen(tree)]
        values = [self.value(tree) for tree in trees]
        return EvaluatedExpression(trees, values, self._is_certain(trees))

    def _is_certain(self, trees: list[n.Node]) -> bool:
        """Whether no sign was assumed for the values just formed: only numbers stand under roots and in bars, and each
        has its root."""
        home = self.context.home
        if home is None:
            return True
        return home.doubts == NO_DOUBTS and not any(
            roots_over(tree, letter) for tree in trees for letter in n.letters(tree)
        )

    def pair(self, left: n.Node, right: n.Node) -> Pair:
        """Both sides of an equation without ±. Raises as `value` does."""
        return Pair(self.context.filled(left), self.context.filled(right), self.value(left), self.value(right))

    def _pairs(self, sides: list[tuple[n.Node, ...]]) -> list[Pair]:
        """The pairs of left and right sides; a side that all choices of ± share is worked out once."""
        pairs: list[Pair] = []
        for left, right in sides:
            tree = self.context.filled(left)
            first = pairs[0].left if pairs and pairs[0].left_tree is tree else self.value(left)
            pairs.append(Pair(tree, self.context.filled(right), first, self.value(right)))
        return pairs

    # -- solution sets -------------------------------------------------------------------------------------------

    def _all_solved(self, line: EvaluatedStatement) -> SolutionSet:
        total = self._solved(line.pairs[0], line)
        for pair in line.pairs[1:]:
            total = total.union(self._solved(pair, line))
        return total

    def _solved(self, pair: Pair, line: EvaluatedStatement) -> SolutionSet:
        """The solutions of one equation of a line: by a quick way where one applies."""
        context = self.context
        if context.plan is None:
            return context.solver.equation(pair.left, pair.right)
        if not line.rooted and context.home is not None:
            found = context.solver.zeros_of(context.home.in_letters(pair.difference.numerator), pair.nonzero)
            return self._with_parameter_roots(found) if len(context.field.letters) > 1 else found
        if line.plain_roots and context.home is not None:
            quick = self._by_a_shortcut(context.home, pair)
            if quick is not None:
                return quick
        if not line.certain and not context.complex and len(context.field.letters) == 1:
            quick = one_bar(context.solver, pair.left_tree, pair.right_tree)
            if quick is not None:
                return quick
        return self.solve(pair.left_tree, pair.right_tree)

    def _by_a_shortcut(self, home: RadicalField, pair: Pair) -> SolutionSet | None:
        context, difference = self.context, pair.difference
        if not pair.nonzero:
            found = one_surd(context.solver, home, difference)
            if found is not None and not pair.roots_over(context.unknown):
                return found
        sides = (pair.left_tree, pair.right_tree)
        return by_conjugates(home, sides, difference.numerator, difference.denominator, context.unknown)

    def solve(self, left: n.Node, right: n.Node) -> SolutionSet:
        """The solutions of one equation without ±, on its own natural domain. Raises OutOfScope, TooLarge."""
        context = self.context
        left, right = context.filled(left), context.filled(right)
        if context.plan is None or context.home is None:
            return context.solver.equation(value_of(left, context.field), value_of(right, context.field))
        if not context.needs_cells([left, right]):
            found = context.solver.equation(value_of(left, context.field), value_of(right, context.field))
            return self._with_parameter_roots(found)
        return solve_equation(context.solver, context.plan, context.home, left, right)

    def _with_parameter_roots(self, found: SolutionSet) -> SolutionSet:
        """Solutions in parameters written out, so that they can be compared with lines that hold roots."""
        context = self.context
        assert context.home is not None
        members: set[Solution] = set()
        for solution in found.members:
            roots = None
            if solution.polynomial is not None:
                roots = parameter_roots(context.home, solution.polynomial, context.unknown)
            members |= {solution} if roots is None else set(roots)
        return SolutionSet(frozenset(members), found.cofinite, found.complex_factors)

    def statement(self, body: n.Node) -> EvaluatedStatement:
        """What an equation or a solution statement evaluates to. Raises OutOfScope, TooLarge; TaskError for what is
        neither."""
        if isinstance(body, ln.Equation):
            return self._equation(body)
        match body:
            case ln.NoSolution():
                return EvaluatedStatement(body, EMPTY, statement=True)
            case ln.AllReals(exceptions):
                members = frozenset(s for tree in exceptions for s in self._equals_unknown(tree).solutions.members)
                return EvaluatedStatement(body, SolutionSet(members, cofinite=True), statement=True)
            case ln.SetOf(items):
                return self._all_of(body, [self._equals_unknown(tree) for tree in items], statement=True)
            case ln.ValueList(left, items, "="):
                parts = [self._equation(build.equation(left, item)) for item in items]
                return self._all_of(body, parts, statement=all(part.statement for part in parts))
            case ln.Alternatives(items) if not any(isinstance(item, ln.STATEMENTS) for item in items):
                return self._all_of(body, [self._equals_unknown(tree) for tree in items], statement=True)
            case ln.AllOf(items):
                return self._within_all(body, items)
            case ln.ValueList(left, items, "≠") if n.bare(left) == self.context.unknown_letter:
                left_out = [self._equals_unknown(tree).solutions.members for tree in items]
                return EvaluatedStatement(
                    body, SolutionSet(frozenset().union(*left_out), cofinite=True), statement=True
                )
            case ln.Alternatives(items):
                parts = [self.statement(item) for item in items if isinstance(item, n.Node)]
                return self._all_of(body, parts, statement=all(part.statement for part in parts))
        intervals = self._intervals(body)
        if intervals is not None:
            empty = not isinstance(body, ln.Union) and not intervals.pieces
            senseless = f"{plain(body)} holds no number: the smaller end stands first." if empty else ""
            return EvaluatedStatement(body, from_real(intervals), statement=True, senseless=senseless)
        raise TaskError("An equation or a statement of its solutions is expected here.")

    def _intervals(self, body: n.Node) -> RealSet | None:
        """The set that an inequality of the isolated unknown, or interval notation, names; else None."""
        unknown = self.context.unknown_letter
        match body:
            case ln.Comparison(left, operator, right) if operator in "<>≤≥":
                if n.bare(right) == unknown:
                    left, right, operator = right, left, {"<": ">", ">": "<", "≤": "≥", "≥": "≤"}[operator]
                if n.bare(left) != unknown:
                    raise TaskError("An inequality must name the unknown alone, as in x ≥ 3.")
                end, closed = self._end(right), operator in "≤≥"
                if operator in ">≥":
                    return RealSet.interval(end, closed, None, False)
                return RealSet.interval(None, False, end, closed)
            case ln.Between(low, first, middle, second, high) if n.bare(middle) == unknown:
                if first in "<≤" and second in "<≤":
                    return RealSet.interval(self._end(low), first == "≤", self._end(high), second == "≤")
                if first in ">≥" and second in ">≥":
                    return RealSet.interval(self._end(high), second == "≥", self._end(low), first == "≥")
            case ln.Interval(ln.Infinity(), _, _, _) | ln.Interval(_, ln.Infinity(), _, _):
                return RealSet.points(())
            case ln.Interval(low, high, low_closed, high_closed):
                ends = [None if end is None else self._end(end) for end in (low, high)]
                return RealSet.interval(ends[0], low_closed, ends[1], high_closed)
            case ln.Union(items):
                total = RealSet.points(())
                for item in items:
                    total = total.combined(self.statement(item).solutions.as_real, lambda a, b: a or b)
                return total
        return None

    def _end(self, tree: n.Node) -> Number:
        found = self.candidate(tree)
        if found is None or found.number is None or not found.number.is_real:
            raise TaskError("An end of an interval must be a real number.")
        return found.number

    def _equals_unknown(self, tree: n.Node) -> EvaluatedStatement:
        return self._equation(build.equation(self.context.unknown_letter, tree))

    def _all_of(self, body: n.Node, parts: list[EvaluatedStatement], *, statement: bool) -> EvaluatedStatement:
        def union() -> SolutionSet:
            total = EMPTY
            for part in parts:
                total = total.union(part.solutions)
            return total

        return EvaluatedStatement(
            body,
            union,
            [pair for part in parts for pair in part.pairs],
            statement,
            rooted=any(part.rooted for part in parts),
            certain=all(part.certain for part in parts),
        )

    def _within_all(self, body: n.Node, items: tuple[n.Node, ...]) -> EvaluatedStatement:
        """Statements that all hold, `x ≥ 0 and x ≠ 4`."""
        total = SolutionSet(cofinite=True)
        for item in items:
            found = self.statement(item).solutions
            total = total.minus(total.minus(found))
        return EvaluatedStatement(body, total, statement=True)

    def _equation(self, body: ln.Equation) -> EvaluatedStatement:
        """An equation, or a chain of them: all its equalities at once; ± stands for the union over its signs."""
        if len(body.sides) > 2:
            return self._chained(body)
        context = self.context
        chosen_signs = context.chosen(body)
        if context.home is not None:
            context.home.doubts = NO_DOUBTS
        of_signs = self._pairs([chosen.children for chosen in chosen_signs])
        certain = context.home is not None and not context.home.sign_assumed
        rooted = context.has_roots(body)
        line = EvaluatedStatement(
            body,
            EMPTY,
            of_signs,
            context.isolates(body),
            rooted=rooted,
            certain=certain or not rooted,
            plain_roots=rooted and certain and context.has_plain_square_roots,
        )
        line.found = lambda: self._all_solved(line)
        return line

    def _chained(self, body: ln.Equation) -> EvaluatedStatement:
        """`x = 42/7 = 6`: all its equalities at once. Where the unknown stands on the first side alone, the others are
        one value (or, with ±, the same values) written in turn, or the first that is not stands in `false_tail`."""
        context = self.context
        sides = body.sides
        chained = EvaluatedStatement(body, EMPTY, rooted=True, certain=False)
        pairs = [self.pair(*chosen.children[:2]) for chosen in context.chosen(body)]
        if not any(context.unknown in n.letters(context.filled(side)) for side in sides[1:]):
            values = [self._all_solved_of(build.equation(sides[0], side), chained) for side in sides[1:]]
            differ = (k for k in range(1, len(values)) if not values[k].same_as(values[0]))
            first = next(differ, None)
            tail = None if first is None else (sides[first], sides[first + 1])
            return EvaluatedStatement(body, values[0], pairs, context.isolates(body), tail)
        total, false_tail = SolutionSet(cofinite=True), None
        for left, right in zip(sides, sides[1:], strict=False):
            found = self._all_solved_of(build.equation(left, right), chained)
            if found.is_empty and context.unknown not in n.letters(left) | n.letters(right):
                false_tail = (left, right)
            total = total.minus(total.minus(found))
        return EvaluatedStatement(body, total, pairs, context.isolates(body), false_tail)

    def _all_solved_of(self, equation: ln.Equation, line: EvaluatedStatement) -> SolutionSet:
        total = EMPTY
        for chosen in self.context.chosen(equation):
            total = total.union(self._solved(self.pair(*chosen.children), line))
        return total

    def candidate(self, tree: n.Node) -> Solution | None:
        """The single value that an expression without the unknown stands for; None where it is none, or several."""
        found = self._equals_unknown(tree).solutions.members
        return next(iter(found)) if len(found) == 1 else None
