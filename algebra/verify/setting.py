"""What a working is judged in: its letters, its unknown, its number system, and what every line means there."""

from __future__ import annotations

from fractions import Fraction as Q
from functools import cached_property

from algebra import limits
from algebra.exact.cell import Cell, Plan, SignUnknown
from algebra.exact.cells import Cells, between, plan_of
from algebra.exact.conjugates import by_conjugates
from algebra.exact.errors import OutOfScope, UndefinedValue
from algebra.exact.ground import NO_DOUBTS, SPARE
from algebra.exact.numbers import Number, rational
from algebra.exact.ratio import Field, Poly, Ratio, depends_on, field_of
from algebra.exact.realset import RealSet
from algebra.exact.roots import Exactly, RootSolver, parameter_roots
from algebra.exact.shortcuts import one_bar, one_surd
from algebra.exact.signs import variants
from algebra.exact.solutions import EMPTY, Solution, SolutionSet, Solver, from_real
from algebra.exact.values import Value, value_of
from algebra.model import EXPRESSION_TASKS, Relation, TaskError, Working
from algebra.tree import lines as ln
from algebra.tree import nodes as n
from algebra.tree.survey import surveyed
from algebra.verify.meaning import ExpressionMeaning, Pair, SetMeaning


class Setting:
    """Reads meanings. Raises TaskError when the unknown can't be told."""

    def __init__(self, working: Working, given: ln.Line, lines: list[ln.Line], *, spare: int = SPARE) -> None:
        self.working = working
        self.complex = working.numbers == "complex"
        self.definitions: dict[str, n.Node] = {}
        self._compared: dict[tuple[tuple[n.Node, ...], ...], tuple[Relation, dict[str, Q] | None]] = {}
        self.explains = True  # whether evidence is looked for
        trees = [] if given.body is None else [given.body]
        of_given = surveyed(trees)
        given_letters = frozenset(of_given.letters)
        if self.complex:
            given_letters -= {"i"}
        defined: set[str] = set()
        for line in lines:
            trees += [t for t in (line.body, line.subject, line.move.operand if line.move else None) if t is not None]
            if line.kind == "definition" and isinstance(line.subject, ln.Equation):
                defined.add(next(iter(n.letters(line.subject.sides[0]))))
        of_lines = surveyed(trees[1:] if given.body is not None else trees)
        letters = of_given.letters | of_lines.letters
        if len(letters) > limits.MAX_LETTERS:
            raise TaskError(f"More than {limits.MAX_LETTERS} different letters occur.")
        self.unknown = self._unknown(given_letters)
        self.holds_signs = of_given.signs or of_lines.signs  # ± or ∓, anywhere in the working
        needs_cells = self.complex or of_given.asks_for_more or of_lines.asks_for_more
        self.plan = plan_of(trees, imaginary=self.complex, spare=spare) if needs_cells else None
        if self.complex:
            letters -= {"i"}
        # a letter of the given keeps its own meaning; defining it is refused at its line
        names = tuple(sorted((letters - (defined - given_letters)) | {self.unknown}))
        self.field: Field = field_of(names)
        self.letters = sorted(given_letters)
        self.solver = Solver(self.field, self.unknown, complex_too=self.complex)
        self.given = given
        self._lines = lines
        self._given_trees: list[n.Node] | None = None
        if self.plan:
            self.cells = Cells(names or ("x",), self.plan, self.positive)
        # forms are compared in one field for the whole working; verdicts are made on cells
        self.home = (
            Cell(names, self.plan, {name: Q(3 + k) for k, name in enumerate(names)}, {}, formal=True)
            if self.plan
            else None
        )

    @cached_property
    def positive(self) -> frozenset[str]:
        """The letters that a convention or an assumption holds to be positive."""
        found: set[str] = set()
        if self.working.convention("roots_of_letters") == "non-negative" and self.working.task in EXPRESSION_TASKS:
            found |= set(self.letters)
        for line in self._lines:
            if line.kind != "assumption":
                continue
            body = line.body
            if isinstance(body, ln.ValueList) and body.operator in (">", "≥"):
                if n.bare(body.items[-1]) == n.Integer(0):
                    found |= {part.name for part in (body.left, *body.items[:-1]) if isinstance(part, n.Letter)}
            elif (
                isinstance(body, ln.Comparison)
                and body.operator in (">", "≥")
                and isinstance(body.left, n.Letter)
                and n.bare(body.right) == n.Integer(0)
            ):
                found.add(body.left.name)
        return frozenset(found) | {name for name in self.letters if name.startswith('"') or name == "π"}

    def _unknown(self, letters: frozenset[str]) -> str:
        variable = self.working.variable
        if variable:
            return variable
        if self.working.task in EXPRESSION_TASKS or len(letters) <= 1:
            return next(iter(sorted(letters)), "x")
        raise TaskError("Several letters occur: name the one to solve for.")

    def value(self, tree: n.Node) -> Value:
        """The value of an expression, definitions put in. Raises OutOfScope, TooLarge or UndefinedValue."""
        return value_of(self.filled(tree), self.home or self.field)

    def filled(self, tree: n.Node) -> n.Node:
        """The tree with every defined letter replaced by what it stands for."""
        if not self.definitions:
            return tree
        if isinstance(tree, n.Letter):
            meaning = self.definitions.get(tree.name)
            return n.Group(meaning) if meaning is not None else tree
        return tree.with_children(tuple(self.filled(child) for child in tree.children))

    def _variants(self, tree: n.Node) -> list[n.Node]:
        """The tree once for every choice of its ± signs."""
        return variants(tree) if self.holds_signs else [tree]

    def expression(self, tree: n.Node) -> ExpressionMeaning:
        trees = [self.filled(tree) for tree in self._variants(tree)]
        return ExpressionMeaning(trees, [self.value(tree) for tree in trees])

    def pair(self, left: n.Node, right: n.Node) -> Pair:
        return Pair(self.filled(left), self.filled(right), self.value(left), self.value(right))

    def _pairs(self, sides: list[tuple[n.Node, ...]]) -> list[Pair]:
        """The pairs of left and right sides; a side that all choices of ± share is worked out once."""
        pairs: list[Pair] = []
        for left, right in sides:
            tree = self.filled(left)
            first = pairs[0].left if pairs and pairs[0].left_tree is tree else self.value(left)
            pairs.append(Pair(tree, self.filled(right), first, self.value(right)))
        return pairs

    def _all_solved(self, line: SetMeaning) -> SolutionSet:
        total = self._solved(line.pairs[0], line)
        for pair in line.pairs[1:]:
            total = total.union(self._solved(pair, line))
        return total

    def _solved(self, pair: Pair, line: SetMeaning) -> SolutionSet:
        """The solutions of one equation of a line."""
        if self.plan is None:
            return self.solver.equation(pair.left, pair.right)
        if not line.rooted and self.home is not None:
            found = self.solver.zeros_of(self.home.in_letters(pair.difference.numerator), pair.nonzero)
            return self._with_parameter_roots(found) if len(self.field.letters) > 1 else found
        if line.plain_roots and self.home is not None:
            quick = self._by_a_shortcut(self.home, pair)
            if quick is not None:
                return quick
        if not line.certain and not self.complex and len(self.field.letters) == 1:
            quick = one_bar(self.solver, pair.left_tree, pair.right_tree)
            if quick is not None:
                return quick
        return self.solve(pair.left_tree, pair.right_tree)

    def _by_a_shortcut(self, home: Cell, pair: Pair) -> SolutionSet | None:
        sides, difference = (pair.left_tree, pair.right_tree), pair.difference
        if not pair.nonzero:
            found = one_surd(self.solver, home, difference)
            if found is not None and not pair.roots_over(self.unknown):
                return found
        return by_conjugates(home, sides, difference.numerator, difference.denominator, self.unknown)

    def solve(self, left: n.Node, right: n.Node) -> SolutionSet:
        """The solutions of one equation without ±, on its own natural domain."""
        left, right = self.filled(left), self.filled(right)
        if self.plan is None or self.home is None:
            return self.solver.equation(value_of(left, self.field), value_of(right, self.field))
        if not self._asks_for_cells([left, right]):
            found = self.solver.equation(value_of(left, self.field), value_of(right, self.field))
            return self._with_parameter_roots(found)
        return RootSolver(self.solver, self.plan, self.home).equation(left, right)

    def _with_parameter_roots(self, found: SolutionSet) -> SolutionSet:
        """Solutions in parameters written out, so that they can be compared with lines that hold roots."""
        assert self.home is not None
        members: set[Solution] = set()
        for solution in found.members:
            roots = None
            if solution.polynomial is not None:
                roots = parameter_roots(self.home, solution.polynomial, self.unknown)
            members |= {solution} if roots is None else set(roots)
        return SolutionSet(frozenset(members), found.cofinite, found.complex_factors)

    def compare(self, before: ExpressionMeaning, after: ExpressionMeaning) -> tuple[Relation, dict[str, Q] | None]:
        """`holds`, `breaks` (with a point of the cell on which they differ) or `unclear`."""
        if self.plan is None:
            same = {v.ratio for v in before.values} == {v.ratio for v in after.values}
            return ("holds" if same else "breaks"), None
        key = (tuple(before.trees), tuple(after.trees))
        if key not in self._compared:
            self._compared[key] = self._compare_on_cells(before, after)
        return self._compared[key]

    def _compare_on_cells(
        self, before: ExpressionMeaning, after: ExpressionMeaning
    ) -> tuple[Relation, dict[str, Q] | None]:
        assert self.plan is not None
        given = self.given_trees()

        def judge(cell: Cell) -> str:
            if any(_values(tree, cell) is None for tree in given):
                return "outside"
            first = [_values(tree, cell) for tree in before.trees]
            if None in first:
                return "outside"
            second = [_values(tree, cell) for tree in after.trees]
            if None in second:
                return "differs"
            return _same_values(cell, [v for v in first if v is not None], [v for v in second if v is not None])

        def judge_or_leave(cell: Cell) -> str:
            try:
                return judge(cell)
            except SignUnknown:
                raise
            except OutOfScope:
                if cell.bounded:
                    raise
                return "unknown"  # a cell that perhaps does not exist decides nothing

        judged = self.cells.each(judge_or_leave)
        for cell, verdict in judged:
            if verdict == "differs" and cell.bounded:
                return "breaks", cell.sample
        verdicts = {verdict for _, verdict in judged}
        if verdicts & {"differs", "unknown"} or verdicts == {"outside"}:
            return "unclear", None
        return "holds", None

    def holds_unknown(self, poly: Poly) -> bool:
        """Whether the unknown occurs in a polynomial, be it under a root or in an exponent."""
        home = self.home
        if depends_on(poly, self.unknown) or home is None:
            return depends_on(poly, self.unknown)
        degrees, place = poly.degrees(), home.position(self.unknown)
        return any(degrees[made.position] and place in home.letters_inside(made) for made in home.made.values())

    def has_roots(self, body: n.Node) -> bool:
        """Whether a line holds roots, bars, or letters in exponents."""
        return self.plan is not None and self._asks_for_cells([self.filled(body)])

    def _asks_for_cells(self, trees: list[n.Node]) -> bool:
        occurs = surveyed(trees)
        if occurs.roots or (self.complex and "i" in occurs.letters):
            return True
        return occurs.exponents and plan_of(trees, imaginary=False) is not None

    def is_defined(self, meaning: ExpressionMeaning) -> bool:
        """Whether an expression has a value on some cell."""
        if self.plan is None:
            return True
        judged = self.cells.each(lambda cell: all(_values(tree, cell) is not None for tree in meaning.trees))
        return any(defined for _, defined in judged)

    def domain(self, zeros: frozenset[Solution]) -> SolutionSet:
        """Where the given is defined, as a set of values of its one letter; `zeros` are the ledger's."""
        if self.plan is None or len(self.letters) > 1:
            return SolutionSet(zeros, cofinite=True)
        cells = Cells((self.unknown,), self.plan)
        trees = self.given_trees()
        judged = cells.each(lambda cell: all(_values(tree, cell) is not None for tree in trees))
        if all(defined for _, defined in judged) and not cells.polys:
            return SolutionSet(zeros, cofinite=True)
        ends = {s.number for s in self.solver.zeros(cells.polys.values()) | zeros if s.number is not None}
        ordered = sorted((end for end in ends if end.is_real), key=lambda end: end.approximation.real)

        def defined_at(number: Number) -> bool:
            exactly = Exactly(self.plan or Plan(), {self.unknown: number})
            return all(exactly.value(tree) is not None for tree in trees)

        def piece(k: int) -> bool:
            low = ordered[k - 1].approximation.real if k else None
            high = ordered[k].approximation.real if k < len(ordered) else None
            return defined_at(rational(between(low, high)))

        return from_real(RealSet.of(ordered, piece, defined_at))

    def given_trees(self) -> list[n.Node]:
        """The sides of the given, one tree for each choice of its ± signs; the same objects at every call."""
        if self._given_trees is None:
            body = self.given.body
            sides = () if body is None else body.children if isinstance(body, ln.STATEMENTS) else (body,)
            self._given_trees = [tree for side in sides for tree in self._variants(side)]
        return self._given_trees

    def equal(self, before: ExpressionMeaning, after: ExpressionMeaning) -> bool:
        return self.compare(before, after)[0] == "holds"

    def solutions(self, body: n.Node) -> SetMeaning:
        """The meaning of an equation or a solution statement.

        Raises OutOfScope, TooLarge; TaskError for what is neither.
        """
        if isinstance(body, ln.Equation):
            return self._equation(body)
        match body:
            case ln.NoSolution():
                return SetMeaning(body, EMPTY, statement=True)
            case ln.AllReals(exceptions):
                members = frozenset(s for tree in exceptions for s in self._equals_unknown(tree).solutions.members)
                return SetMeaning(body, SolutionSet(members, cofinite=True), statement=True)
            case ln.SetOf(items):
                return self._all_of(body, [self._equals_unknown(tree) for tree in items], statement=True)
            case ln.ValueList(left, items, "="):
                parts = [self._equation(ln.Equation((left, item))) for item in items]
                return self._all_of(body, parts, statement=all(part.statement for part in parts))
            case ln.Alternatives(items):
                parts = [self.solutions(item) for item in items if isinstance(item, n.Node)]
                return self._all_of(body, parts, statement=all(part.statement for part in parts))
        intervals = self._intervals(body)
        if intervals is not None:
            return SetMeaning(body, from_real(intervals), statement=True)
        raise TaskError("An equation or a statement of its solutions is expected here.")

    def _intervals(self, body: n.Node) -> RealSet | None:
        """The set that an inequality of the isolated unknown, or interval notation, names; else None."""
        unknown = n.Letter(self.unknown)
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
            case ln.Interval(low, high, low_closed, high_closed):
                ends = [None if end is None else self._end(end) for end in (low, high)]
                return RealSet.interval(ends[0], low_closed, ends[1], high_closed)
            case ln.Union(items):
                total = RealSet.points(())
                for item in items:
                    total = total.combined(self.solutions(item).solutions.as_real, lambda a, b: a or b)
                return total
        return None

    def _end(self, tree: n.Node) -> Number:
        found = self.candidate(tree)
        if found is None or found.number is None or not found.number.is_real:
            raise TaskError("An end of an interval must be a real number.")
        return found.number

    def _equals_unknown(self, tree: n.Node) -> SetMeaning:
        return self._equation(ln.Equation((n.Letter(self.unknown), tree)))

    def _all_of(self, body: n.Node, parts: list[SetMeaning], *, statement: bool) -> SetMeaning:
        def union() -> SolutionSet:
            total = EMPTY
            for part in parts:
                total = total.union(part.solutions)
            return total

        return SetMeaning(
            body, union, [pair for part in parts for pair in part.pairs], statement,
            rooted=any(part.rooted for part in parts), certain=all(part.certain for part in parts),
        )  # fmt: skip

    def _equation(self, body: ln.Equation) -> SetMeaning:
        """An equation, or a chain of them: all its equalities at once; ± stands for the union over its signs."""
        sides = body.sides
        chosen_signs = self._variants(body)
        if len(sides) == 2:
            if self.home is not None:
                self.home.doubts = NO_DOUBTS
            of_signs = self._pairs([chosen.children for chosen in chosen_signs])
            certain = self.home is not None and not self.home.sign_assumed
            rooted = self.has_roots(body)
            meaning = SetMeaning(
                body, EMPTY, of_signs, self.isolates(body), rooted=rooted, certain=certain or not rooted,
                plain_roots=rooted and certain and self._of_square_roots(),
            )  # fmt: skip
            meaning.found = lambda: self._all_solved(meaning)
            return meaning
        total, pairs, false_tail = EMPTY, [], None
        chained = SetMeaning(body, EMPTY, rooted=True, certain=False)
        for chosen in chosen_signs:
            parts = chosen.children
            pair = self.pair(parts[0], parts[1])
            found = self._solved(pair, chained)
            for left, right in zip(parts[1:], parts[2:], strict=False):
                also = self.solve(left, right)
                found = EMPTY if also.is_empty else found if also.cofinite else also
                if also.is_empty and self.unknown not in n.letters(left) | n.letters(right):
                    false_tail = (left, right)
            total = total.union(found)
            pairs.append(pair)
        return SetMeaning(body, total, pairs, self.isolates(body), false_tail)

    def _of_square_roots(self) -> bool:
        """Whether what was just read holds square roots of one letter, each of which settles the sign of what is in it."""
        plan, home = self.plan, self.home
        if plan is None or home is None or self.complex or len(self.field.letters) != 1:
            return False
        return (plan.index, plan.step) == (2, 1) and not home.joint and not home.not_real

    def isolates(self, body: ln.Equation) -> bool:
        """Whether the unknown stands alone on one side and not at all on the other."""
        for alone, other in ((body.sides[0], body.sides[-1]), (body.sides[-1], body.sides[0])):
            bare = n.bare(alone)
            if isinstance(bare, n.Letter) and bare.name == self.unknown:
                return self.unknown not in n.letters(self.filled(other))
        return False

    def candidate(self, tree: n.Node) -> Solution | None:
        """The single value that an expression without the unknown stands for."""
        found = self._equals_unknown(tree).solutions.members
        return next(iter(found)) if len(found) == 1 else None


def _values(tree: n.Node, cell: Cell) -> Ratio | None:
    """The value on a cell, or None where the tree is undefined there; worked out once for each cell."""
    known = cell.seen.get(id(tree))
    if known is None:
        try:
            found: Ratio | None = value_of(tree, cell).ratio
        except UndefinedValue:
            found = None
        # the tree is kept beside its value, so that its identity stays its own
        known = cell.seen[id(tree)] = (tree, found)
    return known[1]


def _same_values(cell: Cell, first: list[Ratio], second: list[Ratio]) -> str:
    """`equal` where every value of one list is in the other and back, `differs`, or `unknown`."""
    if set(first) == set(second):
        return "equal"
    unknown = False
    for here, there in ((first, second), (second, first)):
        for value in here:
            found = [cell.is_zero(value - other) for other in there]
            if True in found:
                continue
            if None not in found:
                return "differs"
            unknown = True
    return "unknown" if unknown else "equal"
