"""Radical equations: let a root stand alone, raise both sides, and check every candidate in the given."""

from __future__ import annotations

from dataclasses import dataclass

from algebra.exact.errors import ExactError
from algebra.exact.evaluate.at_point import PointEvaluator
from algebra.exact.evaluate.symbolic import value_of
from algebra.exact.generators import Plan
from algebra.exact.writing import simplified_tree
from algebra.methods.paper import BRIEF, EVERY, NotThisWay, Paper, Problem
from algebra.methods.polynomial_equations import finish_polynomial
from algebra.methods.terms import Poly, number, shown, terms_of, wrapped
from algebra.parse.lines import read_expression
from algebra.reports.side_work import Candidate
from algebra.tree import nodes as n
from algebra.tree.plain import plain


@dataclass(frozen=True, slots=True)
class RootTerm:
    """coefficient · root of a radicand."""

    coefficient: Poly
    radicand: Poly
    index: int = 2

    @property
    def root(self) -> str:
        inner = str(self.radicand)
        sign = {2: "√", 3: "∛", 4: "∜"}[self.index]
        return f"{sign}{inner}" if len(inner) == 1 or inner.isdigit() else f"{sign}({inner})"

    def __str__(self) -> str:
        c = str(self.coefficient)
        if c in ("1", "-1"):
            return f"{c[:-1]}{self.root}"
        return f"{wrapped(c) if self.coefficient.degree or '/' in c else c}{self.root}"


@dataclass(frozen=True, slots=True)
class Side:
    """A polynomial and roots of polynomials."""

    poly: Poly
    roots: tuple[RootTerm, ...] = ()

    def __str__(self) -> str:
        parts = [str(root) for root in self.roots]
        if not self.poly.is_zero or not parts:
            text = str(self.poly)
            parts = [*parts, text] if self.poly.degree == 0 else [text, *parts]
        total = parts[0]
        for part in parts[1:]:
            total += f" - {part[1:]}" if part.startswith("-") else f" + {part}"
        return total


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
            root = RootTerm(Poly([-c for c in root.coefficient.parts], x), root.radicand, root.index)
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
        inner = _root_term(problem, bare.child)
        return RootTerm(Poly([-c for c in inner.coefficient.parts], x), inner.radicand, inner.index)
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
    try:
        left, right = problem.sides()
        sides = [side_of(problem, side) for side in (left, right)]
    except (NotThisWay, ExactError):
        return False
    return any(root.radicand.degree for side in sides for root in side.roots)


def isolate_and_square(problem: Problem) -> Paper:
    """One root alone, both sides raised, as often as needed; then every candidate is checked in the given."""
    if not is_radical(problem):
        raise NotThisWay("The unknown stands under no root.")
    paper = Paper(problem)
    left, right = (side_of(problem, side) for side in problem.sides())
    if any(root.radicand.degree == 0 for side in (left, right) for root in side.roots):
        raise NotThisWay("There are roots of numbers beside the roots of the unknown.")
    squared = False
    for _ in range(4):
        left, right = _gathered(paper, left, right)
        if not left.roots and not right.roots:
            break
        if not left.roots:
            left, right = right, left
        if _never(paper, left, right):
            return paper
        squared = squared or left.roots[0].index % 2 == 0
        left, right = _raise(paper, left, right)
    finish_polynomial(paper)
    check_candidates(paper, owed=squared)
    return paper


def _gathered(paper: Paper, left: Side, right: Side) -> tuple[Side, Side]:
    """One root alone on one side (or one root on each side); everything else on the other."""
    x = paper.problem.unknown
    everything = [
        *left.roots,
        *(RootTerm(Poly([-c for c in r.coefficient.parts], x), r.radicand, r.index) for r in right.roots),
    ]
    merged: dict[tuple[str, int], RootTerm] = {}
    for root in everything:
        key = (str(root.radicand), root.index)
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
    chosen = max(roots, key=lambda r: (r.radicand.degree, len(str(r.radicand)), r.coefficient.degree))
    rest = [root for root in roots if root is not chosen]
    negative = str(chosen.coefficient).startswith("-")

    def turned(root: RootTerm, minus: bool) -> RootTerm:
        return RootTerm(Poly([-c for c in root.coefficient.parts], x), root.radicand, root.index) if minus else root

    alone = Side(Poly([poly.parts[0] - poly.parts[0]], x), (turned(chosen, negative),))
    other = Side(Poly.of(poly.value if negative else -poly.value, x), tuple(turned(r, not negative) for r in rest))
    on_left = not right.roots or chosen.radicand.value in [r.radicand.value for r in left.roots]
    first, second = (alone, other) if on_left else (other, alone)
    coefficient = chosen.coefficient.numbers
    text = f"{first} = {second}"
    paper.write(text, "isolate-root", f"{alone.roots[0].root} stays on its side, the rest goes to the other")
    if coefficient is not None and len(coefficient) == 1 and abs(coefficient[0]) != 1 and not rest:
        scale = abs(coefficient[0])
        divided = [c / c.field.constant(scale) for c in other.poly.parts]
        if scale.denominator != 1 or all(d.constant is None or d.constant.denominator == 1 for d in divided):
            one = RootTerm(Poly([chosen.coefficient.parts[0].field.constant(1)], x), chosen.radicand, chosen.index)
            alone, other = Side(alone.poly, (one,)), Side(Poly(divided, x))
            first, second = (alone, other) if on_left else (other, alone)
            times = scale.denominator != 1 and scale.numerator == 1
            what = number(1 / scale if times else scale)
            paper.write(f"{first} = {second}", "multiply-both-sides" if times else "divide-both-sides", what,
                        move=f"{'×' if times else '÷'}{wrapped(what)}")  # fmt: skip
    return first, second


def _alone(left: Side, right: Side) -> bool:
    own = left if left.roots else right
    numbers = own.roots[0].coefficient.numbers
    return own.poly.is_zero and numbers == [1]


def _never(paper: Paper, left: Side, right: Side) -> bool:
    """Whether a root would have to be negative; writes that there is no solution."""
    if len(left.roots) != 1 or right.roots or left.roots[0].index % 2 or right.poly.degree:
        return False
    numbers = left.roots[0].coefficient.numbers
    value, scale = right.poly.parts[0].constant, numbers[0] if numbers else None
    if value is None or scale is None or value * scale >= 0 or not left.poly.is_zero:
        return False
    paper.write("no solution", "root-never-negative", f"{left.roots[0].root} can't be {number(value / scale)}", shown_at=BRIEF,
                noticed=("no solution",))  # fmt: skip
    paper.answer = []
    return True


def _raise(paper: Paper, left: Side, right: Side) -> tuple[Side, Side]:
    """Both sides raised to the index of the root on the left."""
    x = paper.problem.unknown
    index = left.roots[0].index
    flipped = not paper.line.replace(" ", "").startswith(str(left).replace(" ", ""))
    if any(root.index != index for side in (left, right) for root in side.roots):
        raise NotThisWay("Roots of different indices stand together.")
    if index != 2 and right.roots:
        raise NotThisWay("Two roots that are no square roots stand together.")
    raw, done = _power_texts(left, index), _power_texts(right, index)
    rule, move = ("square-both-sides", "square") if index == 2 else ("power-both-sides", f"^{index}")

    def line(a: str, b: str) -> str:
        return f"{b} = {a}" if flipped else f"{a} = {b}"

    paper.write(line(_raised(left, index), _raised(right, index)), rule, str(index), shown_at=EVERY, move=move)
    paper.write(line(raw, done), rule, str(index), noticed=("squared",) if right.roots or right.poly.degree else ())
    new_left, new_right = _powered(left, index, x), _powered(right, index, x)
    if str(new_right) != done or str(new_left) != raw:
        paper.write(line(str(new_left), str(new_right)), "open-brackets", "a square of a sum has a middle term",
                    shown_at=EVERY if not new_right.roots and not right.poly.degree else 1)  # fmt: skip
    return (new_right, new_left) if flipped else (new_left, new_right)


def _raised(side: Side, index: int) -> str:
    text = str(side)
    return f"{text}^{index}" if text.isalnum() else f"({text})^{index}"


def _power_texts(side: Side, index: int) -> str:
    """The side raised: the root gone where it stands alone, a sum written as a power."""
    if len(side.roots) == 1 and side.poly.is_zero:
        root = side.roots[0]
        c = root.coefficient.numbers
        inner = str(root.radicand)
        if c is not None and len(c) == 1:
            scale = c[0] ** index
            return inner if scale == 1 else f"{wrapped(number(scale))}{wrapped(inner)}"
        return f"({root.coefficient})^{index}{wrapped(inner)}"
    if not side.roots and side.poly.degree == 0 and side.poly.parts[0].constant is not None:
        return shown(side.poly.parts[0] ** index)
    if not side.roots and str(side.poly) == side.poly.unknown:
        return f"{side.poly}^{index}"
    return f"({side})^{index}"


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


def check_candidates(paper: Paper, *, owed: bool) -> None:
    """Each candidate put into the given; those that fail are dropped."""
    problem = paper.problem
    x = problem.unknown
    if not owed or paper.answer == ["all"]:
        return
    if len(problem.field.letters) > 1:
        return
    kept = []
    for value in paper.answer:
        claim, holds = check_text(problem, value)
        paper.write(f"check {x} = {value}: {claim}", "check-candidate",
                    f"{x} = {value} {'solves' if holds else 'does not solve'} the given.", kind="check", shown_at=BRIEF,
                    side=[Candidate(value, claim, holds)])  # fmt: skip
        if holds:
            kept.append(value)
    if len(kept) < len(paper.answer):
        lost = [value for value in paper.answer if value not in kept]
        paper.answer = kept
        text = " or ".join(f"{x} = {v}" for v in kept) if kept else "no solution"
        paper.write(text, "keep-what-solves", f"{x} = {' and '.join(lost)} came in when both sides were raised to an even power.",
                    shown_at=BRIEF, noticed=("extraneous",))  # fmt: skip


def check_text(problem: Problem, value: str) -> tuple[str, bool]:
    """`3 = 3` or `2 ≠ -2`: both sides of the given with the value put in, and whether they are equal."""
    tree = read_expression(value)
    left, right = problem.sides()
    exactly = PointEvaluator(Plan(index=12, imaginary=problem.complex), {})
    try:
        sides = [value_of(_put(side, problem.unknown, tree), exactly.cell).ratio for side in (left, right)]
    except ExactError:
        return "undefined", False
    same = exactly.same(sides[0], sides[1])
    texts = [plain(simplified_tree(side)) for side in sides]
    return (f"{texts[0]} = {texts[1]}" if same else f"{texts[0]} ≠ {texts[1]}"), bool(same)


def _put(tree: n.Node, name: str, value: n.Node) -> n.Node:
    if tree == n.Letter(name):
        return n.Group(value)
    return tree.with_children(tuple(_put(child, name, value) for child in tree.children))
