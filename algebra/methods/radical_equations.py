"""Radical equations: let a root stand alone, raise both sides, and check every candidate in the given."""

from __future__ import annotations

from dataclasses import dataclass

from algebra.exact.errors import ExactError
from algebra.exact.evaluate.at_point import PointEvaluator
from algebra.exact.evaluate.symbolic import value_of
from algebra.exact.generators import Plan
from algebra.exact.rational_functions import Ratio
from algebra.exact.writing import simplified_tree
from algebra.methods.linear import both
from algebra.methods.moves import dividing, multiplying
from algebra.methods.polynomial_equations import finish_polynomial
from algebra.methods.terms import Poly, candidates_named, number, shown, terms_of
from algebra.methods.worked_lines import BRIEF, EVERY, NotThisWay, Problem, WorkedLines, say
from algebra.reports.side_work import Candidate
from algebra.tree import build
from algebra.tree import nodes as n
from algebra.tree import statements as ln
from algebra.tree.plain import plain
from algebra.tree.substitute import substituted


@dataclass(frozen=True, slots=True)
class RootTerm:
    """coefficient · root of a radicand."""

    coefficient: Poly
    radicand: Poly
    index: int = 2

    @property
    def root(self) -> n.Node:
        """The root alone, as it is written."""
        return build.root(self.radicand.tree, self.index)

    @property
    def opposite(self) -> RootTerm:
        """The term with the other sign."""
        return RootTerm(self.coefficient.opposite, self.radicand, self.index)

    @property
    def tree(self) -> n.Node:
        """The term as it is written: `-3√x`, `√x/4`, `x√(x-2)`."""
        numbers = self.coefficient.numbers
        if numbers is not None and len(numbers) == 1:
            return build.multiple(numbers[0], self.root)
        return build.product(self.coefficient.tree, self.root)


@dataclass(frozen=True, slots=True)
class Side:
    """A polynomial and roots of polynomials."""

    poly: Poly
    roots: tuple[RootTerm, ...] = ()

    @property
    def tree(self) -> n.Node:
        """The side as it is written: a number behind the roots, a polynomial before them."""
        parts = [root.tree for root in self.roots]
        if not self.poly.is_zero or not parts:
            own = self.poly.tree
            parts = [*parts, own] if self.poly.degree == 0 else [own, *parts]
        return build.sum_of(parts)


def side_of(problem: Problem, tree: n.Node) -> Side:
    """Raises NotThisWay for roots that are nested or below a bar."""
    x = problem.unknown
    zero = problem.field.constant(0)
    poly, roots = zero, []
    for sign, term in terms_of(tree):
        held = [part for part in n.parts_of(term) if isinstance(part, n.Root)]
        if not held:
            value = problem.value(term)
            poly = poly - value if sign == "-" else poly + value
            continue
        root = _root_term(problem, term)
        if sign == "-":
            root = root.opposite
        roots.append(root)
    return Side(Poly.of(poly, x), tuple(roots))


def _root_term(problem: Problem, term: n.Node) -> RootTerm:
    bare = n.bare(term)
    x = problem.unknown
    one = problem.field.constant(1)
    if isinstance(bare, n.Root):
        if any(isinstance(part, n.Root) for part in n.parts_of(bare.radicand)):
            raise NotThisWay("A root stands under a root.")
        index = bare.index.value if isinstance(bare.index, n.Integer) else 2
        if index not in (2, 3, 4):
            raise NotThisWay("Only square, cube and fourth roots are worked out here.")
        return RootTerm(Poly([one], x), Poly.of(problem.value(bare.radicand), x), index)
    if isinstance(bare, n.Signed) and bare.sign == "-":
        return _root_term(problem, bare.child).opposite
    if isinstance(bare, n.Product) and "÷" not in bare.operators:
        held = [f for f in bare.factors if any(isinstance(p, n.Root) for p in n.parts_of(f))]
        if len(held) == 1:
            scale = one
            for factor in bare.factors:
                if factor is not held[0]:
                    scale = scale * problem.value(factor)
            inner = _root_term(problem, held[0])
            return RootTerm(Poly.of(inner.coefficient.value * scale, x), inner.radicand, inner.index)
    if isinstance(bare, n.Fraction) and not any(isinstance(p, n.Root) for p in n.parts_of(bare.denominator)):
        inner = _root_term(problem, bare.numerator)
        return RootTerm(
            Poly.of(inner.coefficient.value / problem.value(bare.denominator), x), inner.radicand, inner.index
        )
    raise NotThisWay("A root of the unknown is not a term of its own.")


def is_radical(problem: Problem) -> bool:
    """Whether the unknown stands under a root that is a term of its own."""
    try:
        left, right = problem.sides()
        sides = [side_of(problem, side) for side in (left, right)]
    except (NotThisWay, ExactError):
        return False
    return any(root.radicand.degree for side in sides for root in side.roots)


def isolate_and_square(problem: Problem) -> WorkedLines:
    """One root alone, both sides raised, as often as needed; then every candidate is checked in the given."""
    if not is_radical(problem):
        raise NotThisWay("The unknown stands under no root.")
    paper = WorkedLines(problem)
    left, right = (side_of(problem, side) for side in problem.sides())
    if any(root.radicand.degree == 0 for side in (left, right) for root in side.roots):
        raise NotThisWay("There are roots of numbers beside the roots of the unknown.")
    squared = False
    for _ in range(4):
        left, right = _gathered(paper, left, right)
        if not left.roots and not right.roots:
            break
        flipped = not left.roots
        if flipped:
            left, right = right, left
        if _never(paper, left, right):
            return paper
        squared = squared or left.roots[0].index % 2 == 0
        left, right = _raise(paper, left, right, flipped)
    finish_polynomial(paper)
    check_candidates(paper, owed=squared)
    return paper


def _gathered(paper: WorkedLines, left: Side, right: Side) -> tuple[Side, Side]:
    """One root alone on one side (or one root on each side); everything else on the other."""
    x = paper.problem.unknown
    everything = [*left.roots, *(root.opposite for root in right.roots)]
    merged: dict[tuple[Ratio, int], RootTerm] = {}
    for root in everything:
        key = (root.radicand.value, root.index)
        known = merged.get(key)
        total = root.coefficient.value + known.coefficient.value if known else root.coefficient.value
        merged[key] = RootTerm(Poly.of(total, x), root.radicand, root.index)
    roots = [root for root in merged.values() if not root.coefficient.is_zero]
    poly = Poly.of(left.poly.value - right.poly.value, x)
    if not roots:
        return Side(left.poly), Side(right.poly)
    if (len(roots) == 2 and poly.is_zero) or (len(roots) == 1 and len(everything) == 1 and _alone(left, right)):
        if len(roots) == 1:
            return left, right
        if len(left.roots) == 1 and len(right.roots) == 1:
            return left, right
    # the root with the longer radicand stands alone, with a positive sign
    chosen = max(roots, key=lambda r: (r.radicand.degree, len(plain(r.radicand.tree)), r.coefficient.degree))
    rest = [root for root in roots if root is not chosen]
    negative = build.starts_with_minus(chosen.coefficient.tree)
    lone = chosen.opposite if negative else chosen
    alone = Side(Poly([poly.parts[0] - poly.parts[0]], x), (lone,))
    other = Side(poly if negative else poly.opposite, tuple(rest if negative else (r.opposite for r in rest)))
    on_left = not right.roots or chosen.radicand.value in [r.radicand.value for r in left.roots]
    first, second = (alone, other) if on_left else (other, alone)
    line = build.equation(first.tree, second.tree)
    paper.write(line, "isolate-root", say("{} stays on its side, the rest goes to the other", lone.root))
    coefficient = chosen.coefficient.numbers
    if coefficient is not None and len(coefficient) == 1 and abs(coefficient[0]) != 1 and not rest:
        scale = abs(coefficient[0])
        divided = [c / c.field.constant(scale) for c in other.poly.parts]
        if scale.denominator != 1 or all(d.constant is None or d.constant.denominator == 1 for d in divided):
            field = paper.problem.field
            one = RootTerm(Poly([field.constant(1)], x), chosen.radicand, chosen.index)
            alone, other = Side(alone.poly, (one,)), Side(Poly(divided, x))
            first, second = (alone, other) if on_left else (other, alone)
            is_part = scale.denominator != 1 and scale.numerator == 1
            move = multiplying(field.constant(1 / scale)) if is_part else dividing(field.constant(scale))
            paper.write_move(build.equation(first.tree, second.tree), move)
    return first, second


def _alone(left: Side, right: Side) -> bool:
    own = left if left.roots else right
    numbers = own.roots[0].coefficient.numbers
    return own.poly.is_zero and numbers == [1]


def _never(paper: WorkedLines, left: Side, right: Side) -> bool:
    """Whether a root would have to be negative; writes that there is no solution."""
    if len(left.roots) != 1 or right.roots or left.roots[0].index % 2 or right.poly.degree:
        return False
    numbers = left.roots[0].coefficient.numbers
    value, scale = right.poly.parts[0].constant, numbers[0] if numbers else None
    if value is None or scale is None or value * scale >= 0 or not left.poly.is_zero:
        return False
    what = say("{} can't be {}", left.roots[0].root, number(value / scale))
    paper.write(ln.NoSolution(), "root-never-negative", what, shown_at=BRIEF, noticed=("no solution",))
    paper.answer = []
    return True


def _raise(paper: WorkedLines, left: Side, right: Side, flipped: bool) -> tuple[Side, Side]:
    """Both sides raised to the index of the root on the left; `flipped` where that side is written on the right."""
    x = paper.problem.unknown
    index = left.roots[0].index
    if any(root.index != index for side in (left, right) for root in side.roots):
        raise NotThisWay("Roots of different indices stand together.")
    if index != 2 and right.roots:
        raise NotThisWay("Two roots that are no square roots stand together.")
    rule, move = ("square-both-sides", "square") if index == 2 else ("power-both-sides", f"^{index}")
    raised, other = (build.power(side.tree, index) for side in (left, right))
    paper.write(both(raised, other, not flipped), rule, str(index), shown_at=EVERY, move=move)
    raised, other = (_power_told(side, index) for side in (left, right))
    noticed = ("squared",) if right.roots or right.poly.degree else ()
    paper.write(both(raised, other, not flipped), rule, str(index), noticed=noticed)
    new_left, new_right = _powered(left, index, x), _powered(right, index, x)
    paper.write(
        both(new_left.tree, new_right.tree, not flipped),
        "open-brackets",
        "a square of a sum has a middle term",
        shown_at=EVERY if not new_right.roots and not right.poly.degree else 1,
    )
    return (new_right, new_left) if flipped else (new_left, new_right)


def _power_told(side: Side, index: int) -> n.Node:
    """The side raised: the root gone where it stands alone, a sum written as a power."""
    if len(side.roots) == 1 and side.poly.is_zero:
        root = side.roots[0]
        c = root.coefficient.numbers
        inner = root.radicand.tree
        if c is not None and len(c) == 1:
            return build.product(number(c[0] ** index), inner)
        return build.product(build.power(root.coefficient.tree, index), inner)
    if not side.roots and side.poly.degree == 0 and side.poly.parts[0].constant is not None:
        return shown(side.poly.parts[0] ** index)
    return build.power(side.tree, index)


def _powered(side: Side, index: int, x: str) -> Side:
    """The value of the side raised to the index; for squares, with the root that its middle term keeps."""
    if not side.roots:
        return Side(Poly.of(side.poly.value**index, x))
    first = side.roots[0]
    if len(side.roots) == 1:
        own = first.coefficient.value**index * first.radicand.value
        if side.poly.is_zero:
            return Side(Poly.of(own, x))
        middle = side.poly.value * first.coefficient.value * first.radicand.value.field.constant(2)
        return Side(Poly.of(side.poly.value**2 + own, x), (RootTerm(Poly.of(middle, x), first.radicand),))
    if len(side.roots) == 2 and side.poly.is_zero:
        second = side.roots[1]
        own = first.coefficient.value**2 * first.radicand.value + second.coefficient.value**2 * second.radicand.value
        middle = first.coefficient.value * second.coefficient.value * own.field.constant(2)
        inside = Poly.of(first.radicand.value * second.radicand.value, x)
        return Side(Poly.of(own, x), (RootTerm(Poly.of(middle, x), inside),))
    raise NotThisWay("Three terms with two roots would have to be squared.")


def check_candidates(
    paper: WorkedLines, *, owed: bool, why: str = "{} came in when both sides were raised to an even power."
) -> None:
    """Each candidate put into the given; those that fail are dropped, and `why` says how they came in."""
    problem = paper.problem
    x = problem.unknown
    if not owed or paper.answer == [ln.AllReals()]:
        return
    if len(problem.field.letters) > 1:
        return
    kept = [value for value in paper.answer if write_check(paper, value)]
    if len(kept) < len(paper.answer):
        lost = [value for value in paper.answer if value not in kept]
        paper.answer = kept
        paper.write(
            build.solutions(x, kept),
            "keep-what-solves",
            why.format(candidates_named(x, lost)),
            shown_at=BRIEF,
            noticed=("extraneous",),
        )


def write_check(paper: WorkedLines, value: n.Node, *, shown_at: int = BRIEF) -> bool:
    """A candidate put into the given: the given with its value, at the finest grain, then what comes of it. Whether it
    holds."""
    problem = paper.problem
    claim, holds = put_in(problem, value)
    candidate = build.equation(n.Letter(problem.unknown), value)
    goes_in = say("{} goes into the given.", candidate)
    put = build.equation(*(_with_value(side, problem.unknown, value) for side in problem.sides()))
    if isinstance(claim, ln.Equation | ln.Comparison) and plain(put) != plain(claim):
        begun = put if holds else ln.Comparison(put.sides[0], "≠", put.sides[1])
        paper.write(begun, "check-candidate", goes_in, kind="check", subject=candidate, shown_at=EVERY)
    what = say("{} solves the given." if holds else "{} does not solve the given.", candidate)
    work = Candidate(plain(value), plain(claim), holds)
    paper.write(claim, "check-candidate", what, kind="check", subject=candidate, shown_at=shown_at, side=[work])
    return holds


def _with_value(side: n.Node, unknown: str, value: n.Node) -> n.Node:
    """The side with a value in place of the unknown, in brackets where it needs them."""
    if side == n.Letter(unknown):
        return value
    placed = substituted(side, {n.Letter(unknown): n.Group(value)})
    return placed if isinstance(value, n.Letter) else _unbracketed(placed, value)


def _unbracketed(tree: n.Node, value: n.Node) -> n.Node:
    """Brackets around a bare number dropped where it is a term, or stands alone."""
    children = tuple(_unbracketed(child, value) for child in tree.children)
    new = tree.with_children(children) if children else tree
    if not isinstance(value, n.Integer):
        return new
    alone = n.Group(value)
    if isinstance(new, n.Sum | n.Fraction | n.Root | n.Group | n.Absolute) and alone in new.children:
        return new.with_children(tuple(value if child == alone else child for child in new.children))
    return new


def put_in(problem: Problem, value: n.Node) -> tuple[n.Node, bool]:
    """`3 = 3` or `2 ≠ -2`: both sides of the given with the value put in, and whether they are equal."""
    exactly = PointEvaluator(Plan(index=12, imaginary=problem.complex), {})
    places: dict[n.Node, n.Node] = {n.Letter(problem.unknown): n.Group(value)}
    try:
        left, right = (value_of(substituted(side, places), exactly.cell).ratio for side in problem.sides())
    except ExactError:
        return ln.Word("undefined"), False
    same = bool(exactly.same(left, right))
    sides = simplified_tree(left), simplified_tree(right)
    return (build.equation(*sides) if same else ln.Comparison(sides[0], "≠", sides[1])), same
