"""Roots simplified, multiplied and added."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from fractions import Fraction as Q
from math import gcd, lcm

from algebra import limits
from algebra.exact.algebraic_numbers import prime_factors, whole_root
from algebra.exact.rational_functions import Ratio
from algebra.methods.order import tidy
from algebra.methods.terms import number, shown, terms_of
from algebra.methods.worked_lines import BRIEF, EVERY, NotThisWay, Problem, WorkedLines, say
from algebra.reports.side_work import FactorTree
from algebra.tree import build
from algebra.tree import nodes as n
from algebra.tree.plain import plain

INDICES = (2, 3, 4)
"""The indices of the roots that are worked out here."""


@dataclass(frozen=True, slots=True)
class RootTerm:
    """coefficient · √radicand with a whole radicand (1: the number alone), roots of one index."""

    coefficient: Q
    radicand: int = 1
    index: int = 2

    def times(self, other: RootTerm) -> RootTerm:
        """The product, the radicands under one root. Raises NotThisWay for roots of different indices."""
        if self.radicand != 1 and other.radicand != 1 and self.index != other.index:
            raise NotThisWay("Roots of different indices are multiplied.")
        index = self.index if self.radicand != 1 else other.index
        return RootTerm(self.coefficient * other.coefficient, self.radicand * other.radicand, index)

    def split(self) -> tuple[int, int]:
        """(a, b) with radicand = a^index · b and a as large as possible."""
        outside, inside = 1, 1
        for prime, power in prime_factors(self.radicand):
            outside *= int(prime) ** (int(power) // self.index)
            inside *= int(prime) ** (int(power) % self.index)
        return outside, inside

    def simplified(self) -> RootTerm:
        """The term with the largest power out of its root."""
        outside, inside = self.split()
        return RootTerm(self.coefficient * outside, inside, self.index)

    @property
    def opposite(self) -> RootTerm:
        """The term with the other sign."""
        return RootTerm(-self.coefficient, self.radicand, self.index)

    @property
    def root(self) -> n.Node:
        """The root alone; 1 for a number."""
        return build.ONE if self.radicand == 1 else build.root(n.Integer(self.radicand), self.index)

    @property
    def tree(self) -> n.Node:
        """The term as it is written: `2√3`, `√6/3`, `-5`."""
        return self.with_root(self.root)

    def with_root(self, root: n.Node) -> n.Node:
        """The term with its root written in another way."""
        size = build.product(n.Integer(abs(self.coefficient.numerator)), root)
        return build.minus_if(self.coefficient < 0, build.quotient(size, n.Integer(self.coefficient.denominator)))


def written(terms: Sequence[RootTerm]) -> n.Node:
    """The sum of the terms."""
    return build.sum_of(t.tree for t in terms if t.coefficient)


def like_combined(terms: Sequence[RootTerm]) -> list[RootTerm]:
    """Terms with the same root added, numbers first; those that come to 0 are left out."""
    found: dict[tuple[int, int], RootTerm] = {}
    for t in terms:
        key = (t.radicand, t.index if t.radicand != 1 else 2)
        known = found.get(key)
        found[key] = RootTerm(t.coefficient + (known.coefficient if known else 0), t.radicand, t.index)
    kept = [t for t in found.values() if t.coefficient]
    return sorted(kept, key=lambda t: t.radicand != 1)


def expanded(problem: Problem, tree: n.Node) -> list[RootTerm]:
    """The terms after multiplying out, roots multiplied under one sign, nothing simplified yet."""
    match tree:
        case n.Group(child):
            return expanded(problem, child)
        case n.Signed(sign, child) if sign in "+-":
            return [t.opposite if sign == "-" else t for t in expanded(problem, child)]
        case n.Sum():
            found: list[RootTerm] = []
            for sign, term in terms_of(tree):
                found += [t.opposite if sign == "-" else t for t in expanded(problem, term)]
            return found
        case n.Product(factors, operators) if "÷" not in operators:
            result = [RootTerm(Q(1))]
            for factor in factors:
                other = expanded(problem, factor)
                result = [a.times(b) for a in result for b in other]
            return result
        case n.Power(base, n.Integer(power)) if 0 < power <= 6:
            inner = expanded(problem, base)
            result = [RootTerm(Q(1))]
            for _ in range(power):
                result = [a.times(b) for a in result for b in inner]
            return result
        case n.Root(radicand, index):
            value = problem.value(radicand).constant
            kind = 2 if index is None else index.value if isinstance(index, n.Integer) else 0
            if value is None or kind not in INDICES or (value < 0 and kind % 2 == 0):
                raise NotThisWay("This root is not worked out here.")
            turned = -1 if value < 0 else 1
            size = abs(value)
            if size.denominator == 1:
                return [RootTerm(Q(turned), int(size), kind)]
            # √(a/b) = √(a·b^(k−1))/b
            return [RootTerm(Q(turned, size.denominator), int(size.numerator * size.denominator ** (kind - 1)), kind)]
        case n.Fraction(top, bottom):
            below = expanded(problem, bottom)
            if len(below) == 1 and below[0].radicand == 1 and below[0].coefficient:
                return [
                    RootTerm(t.coefficient / below[0].coefficient, t.radicand, t.index) for t in expanded(problem, top)
                ]
            raise NotThisWay("A root stands in the denominator.")
    value = problem.value(tree).constant
    if value is None:
        raise NotThisWay("Letters stand among the roots.")
    return [RootTerm(value)]


def has_roots(tree: n.Node) -> bool:
    """Whether a root sign occurs."""
    return any(isinstance(p, n.Root) for p in n.parts_of(tree))


def largest_square_factor(problem: Problem) -> WorkedLines:
    """Products first, then the largest square factor out of every root, then like radicals."""
    return _simplified(problem, primes=False)


def prime_pairs(problem: Problem) -> WorkedLines:
    """The same with every radicand written by primes, pairs going out."""
    return _simplified(problem, primes=True)


def _simplified(problem: Problem, *, primes: bool) -> WorkedLines:
    if not has_roots(problem.body):
        raise NotThisWay("There are no roots.")
    if n.letters(problem.body):
        return _with_letters(problem, primes=primes)
    paper = WorkedLines(problem)
    _perfect_roots(paper)
    _quotients(paper)
    body = n.bare(paper.line)
    if isinstance(body, n.Fraction) and isinstance(n.bare(body.numerator), n.Sum) and not has_roots(body.denominator):
        below = problem.value(body.denominator).constant
        above = expanded(problem, body.numerator)
        if below and not primes and not _needs_opening(body.numerator):
            reduced_over(paper, above, below)
            return paper
    simplify_terms(paper, expanded(problem, paper.line), primes=primes)
    return paper


def _perfect_roots(paper: WorkedLines) -> None:
    """Roots of perfect squares, cubes … worked out first: √49·√2 is 7√2 and not √98."""
    told: list[str] = []

    def worked(node: n.Node) -> n.Node:
        children = tuple(worked(child) for child in node.children)
        if isinstance(node, n.Root):
            inside, index = n.bare(node.radicand), node.index
            kind = 2 if index is None else index.value if isinstance(index, n.Integer) else 0
            value = whole_root(inside.value, kind) if isinstance(inside, n.Integer) and kind in INDICES else None
            if value is not None:
                told.append(say("{} = {}", node, n.Integer(value)))
                return n.Integer(value)
        if isinstance(node, n.Product) and children != node.children:
            return build.product(*children) if "÷" not in node.operators else node.with_children(children)
        return node.with_children(children) if children else node

    line = tidy(worked(paper.line))
    if told and has_roots(line):
        paper.write(line, "evaluate-root", ", ".join(dict.fromkeys(told)))


def _needs_opening(tree: n.Node) -> bool:
    """Whether brackets or products with roots are to be multiplied out."""
    return any(
        isinstance(p, n.Product | n.Power)
        and (any(isinstance(n.bare(c), n.Sum) for c in p.children) or sum(map(has_roots, p.children)) > 1)
        for p in n.parts_of(tree)
    )


def _quotients(paper: WorkedLines) -> None:
    """A root of a fraction with a square below, as one root over the other."""
    body = n.bare(paper.problem.body)
    if not isinstance(body, n.Root) or body.index is not None or not isinstance(n.bare(body.radicand), n.Fraction):
        return
    value = paper.problem.value(body.radicand).constant
    if value is None or value <= 0:
        raise NotThisWay("A negative number stands under the root.")
    paper.write(build.root(number(value)), "reduce-fraction", "the common number")
    below = whole_root(value.denominator, 2)
    if below is None:
        raise NotThisWay("The denominator is no square; rationalise it.")
    top, bottom = (build.root(n.Integer(part)) for part in (value.numerator, value.denominator))
    paper.write(build.quotient(top, bottom), "root-of-quotient", shown_at=EVERY)
    paper.write(
        build.quotient(top, n.Integer(below)),
        "root-of-square",
        build.equation(bottom, n.Integer(below)),
        shown_at=BRIEF,
    )
    paper.answer = [paper.line]


def simplify_terms(paper: WorkedLines, terms: list[RootTerm], *, primes: bool = False) -> None:
    """From multiplied-out terms to the end. Raises NotThisWay where a number is too long to be written."""
    if any(t.radicand.bit_length() > limits.MAX_POWER_BITS for t in terms):
        raise NotThisWay("This number is too long to be written out.")
    body = paper.line
    product = any(
        isinstance(p, n.Product | n.Power)
        and sum(has_roots(c) for c in p.children) > (0 if isinstance(p, n.Power) else 1)
        for p in n.parts_of(body)
    )
    opens = any(
        isinstance(p, n.Product | n.Power) and has_roots(p) and any(isinstance(n.bare(c), n.Sum) for c in p.children)
        for p in n.parts_of(body)
    )
    if product or opens:
        first = next(
            (p for p in n.parts_of(body) if isinstance(p, n.Product) and sum(has_roots(c) for c in p.children) > 1),
            body,
        )
        what: str | n.Node = multiplied_told(body) if opens else first
        paper.write(written(terms), "distribute-roots" if opens else "multiply-roots", what)
    splits = [t for t in terms if t.radicand != 1 and t.split()[0] != 1]
    if splits:
        told = ", ".join(
            dict.fromkeys(plain(build.equation(n.Integer(t.radicand), _taken_apart(t, primes))) for t in splits)
        )
        work = [FactorTree(t.radicand, tuple(_primes(t.radicand))) for t in splits]

        def line(root: Callable[[RootTerm], n.Node]) -> n.Node:
            return build.sum_of(t.with_root(root(t)) if t in splits else t.tree for t in terms if t.coefficient)

        squares = all(t.index == 2 for t in splits)
        if primes:
            rule = "prime-pairs" if squares else "prime-groups"
        else:
            rule = "largest-square-factor" if squares else "largest-power-factor"
        paper.write(line(lambda t: _split_root(t, primes)), rule, told, side=work if primes else ())
        roots = ", ".join(dict.fromkeys(plain(build.equation(*_square_root(t))) for t in splits))
        paper.write(line(lambda t: _apart(t, primes)), "root-of-product", shown_at=EVERY)
        rule = "root-of-square" if squares else "root-of-power"
        paper.write(line(_outside), rule, roots, shown_at=EVERY)
        terms = [t.simplified() for t in terms]
        paper.write(written(terms), rule, roots)
    combined = like_combined(terms)
    if len(combined) < len([t for t in terms if t.coefficient]):
        paper.write(written(combined), "combine-like-roots", added_told(terms), shown_at=BRIEF)
    _over_one_bar(paper, combined)


def multiplied_told(body: n.Node) -> str:
    """In words, what is multiplied by what, where a bracket with roots is opened."""
    for part in n.parts_of(body):
        if isinstance(part, n.Power) and isinstance(n.bare(part.base), n.Sum):
            return say("{} is the bracket times itself", part)
        if isinstance(part, n.Product):
            sums = [f for f in part.factors if isinstance(n.bare(f), n.Sum)]
            others = [f for f in part.factors if not isinstance(n.bare(f), n.Sum)]
            if len(sums) > 1:
                return say("each term of {} times each term of {}", n.bare(sums[0]), n.bare(sums[1]))
            if sums:
                front = build.product(*others)
                return say("{} times ", front) + " and ".join(
                    s.replace("+", "") + plain(t) for s, t in terms_of(sums[0])
                )
    return "the minus reaches every term"


def added_told(terms: Sequence[RootTerm]) -> str:
    """In words, what is added: `2√2 + 6√2 = 8√2`."""
    kinds = dict.fromkeys((t.radicand, t.index if t.radicand != 1 else 2) for t in terms)
    groups = [[t for t in terms if (t.radicand, t.index if t.radicand != 1 else 2) == kind] for kind in kinds]
    return ", ".join(say("{} = {}", written(some), written(like_combined(some))) for some in groups if len(some) > 1)


def reduced_over(paper: WorkedLines, top: list[RootTerm], bottom: Q) -> None:
    """The numerator simplified, then the fraction in lowest terms."""
    if bottom.denominator != 1:
        top, bottom = (
            [RootTerm(t.coefficient * bottom.denominator, t.radicand, t.index) for t in top],
            Q(bottom.numerator),
        )
    simple = [t.simplified() for t in top]
    below = number(bottom)
    if any(t.radicand != s.radicand for t, s in zip(top, simple, strict=True)):
        roots = [RootTerm(Q(1), t.radicand, t.index) for t in top if t.split()[0] != 1]
        what = ", ".join(dict.fromkeys(say("{} = {}", root.tree, root.simplified().tree) for root in roots))
        paper.write(build.quotient(written(simple), below), "root-of-square", what)
    combined = like_combined(simple)
    if len(combined) < len(simple):
        paper.write(build.quotient(written(combined), below), "combine-like-roots", added_told(simple))
    if not combined:
        paper.write(build.ZERO, "simplify-numerator", "the numerator is 0", shown_at=BRIEF)
        paper.answer = [build.ZERO]
        return
    if bottom < 0:
        combined, bottom = [t.opposite for t in combined], -bottom
        if bottom != 1:
            line = build.quotient(written(combined), number(bottom))
            paper.write(line, "minus-up", shown_at=EVERY)
    whole = all(t.coefficient.denominator == 1 for t in combined)
    common = gcd(int(bottom), *(int(t.coefficient) for t in combined)) if whole else 1
    small = [RootTerm(t.coefficient / common, t.radicand, t.index) for t in combined]
    line = build.bar(written(small), number(bottom / common)) if bottom != common else written(small)
    if common != 1:
        if len(small) > 1 or abs(small[0].coefficient) != 1:
            inner = build.product(n.Integer(common), n.Group(written(small)) if len(small) > 1 else written(small))
            below = build.product(n.Integer(common), number(bottom / common))
            paper.write(build.quotient(inner, below), "reduce-fraction", number(common), shown_at=EVERY)
        paper.write(line, "reduce-fraction", number(common), shown_at=BRIEF)
    else:
        paper.write(line, "one-fraction", shown_at=EVERY)
    paper.answer = [paper.line]


def _over_one_bar(paper: WorkedLines, terms: list[RootTerm]) -> None:
    """The convention of one fraction: terms with denominators under one bar."""
    below = lcm(1, *(t.coefficient.denominator for t in terms))
    if below != 1 and len(terms) > 1 and isinstance(paper.line, n.Sum):
        top = written([RootTerm(t.coefficient * below, t.radicand, t.index) for t in terms])
        paper.write(build.quotient(top, n.Integer(below)), "one-fraction", shown_at=BRIEF)
    paper.answer = [paper.line]


def _primes(value: int) -> list[int]:
    """The prime factors in rising order, each as often as it occurs."""
    return [int(p) for p, k in prime_factors(value) for _ in range(int(k))]


def _taken_apart(t: RootTerm, primes: bool) -> n.Node:
    """The radicand by its primes, or as the largest square (cube …) in it times the rest."""
    outside, inside = t.split()
    if primes:
        return build.dotted(*map(n.Integer, _primes(t.radicand)))
    if inside == 1:
        return n.Power(n.Integer(outside), n.Integer(t.index))
    return build.dotted(n.Integer(outside**t.index), n.Integer(inside))


def _split_root(t: RootTerm, primes: bool) -> n.Node:
    """The root with its radicand taken apart; of a whole square not taken apart by primes, as it is."""
    return t.root if t.split()[1] == 1 and not primes else build.root(_taken_apart(t, primes), t.index)


def _square_root(t: RootTerm) -> tuple[n.Node, n.Node]:
    """The root of the square (cube …) that comes out, and its value."""
    outside = t.split()[0]
    return build.root(n.Integer(outside**t.index), t.index), n.Integer(outside)


def _apart(t: RootTerm, primes: bool) -> n.Node:
    """The root of the square (by primes, where it is worked so) times the root of the rest."""
    outside, inside = t.split()
    square = (
        build.root(build.dotted(*map(n.Integer, _primes(outside**t.index))), t.index) if primes else _square_root(t)[0]
    )
    return build.dotted(square, *_left(inside, t.index))


def _outside(t: RootTerm) -> n.Node:
    """What came out beside what stays in the root, not yet multiplied by what stood there."""
    outside, inside = t.split()
    return build.product(n.Integer(outside), *_left(inside, t.index))


def _left(inside: int, index: int) -> list[n.Node]:
    """The root of what stays inside; nothing for 1."""
    return [] if inside == 1 else [build.root(n.Integer(inside), index)]


def _with_letters(problem: Problem, *, primes: bool) -> WorkedLines:
    """Roots of monomials: numbers as above, letters by halving their exponents."""
    body = n.bare(problem.body)
    factors = body.factors if isinstance(body, n.Product) and "÷" not in body.operators else (body,)
    paper = WorkedLines(problem)
    outside, radicands, index = problem.field.constant(1), [], 2
    for factor in factors:
        inner = n.bare(factor)
        if isinstance(inner, n.Root):
            index = 2 if inner.index is None else inner.index.value if isinstance(inner.index, n.Integer) else 0
            radicands.append(problem.value(inner.radicand))
        else:
            outside = outside * problem.value(inner)
    if index not in INDICES or not radicands:
        raise NotThisWay("This root is not worked out here.")
    inside = problem.field.constant(1)
    for r in radicands:
        inside = inside * r
    if not inside.is_polynomial or len(inside.numerator) != 1 or inside.denominator != 1:
        raise NotThisWay("A sum stands under the root.")
    coefficient = int(inside.numerator.leading_coefficient())
    if coefficient < 0:
        raise NotThisWay("A negative number stands under the root.")
    powers = dict(zip(problem.field.names, (int(k) for k in inside.numerator.monoms()[0]), strict=True))
    if len(radicands) > 1:
        whole = build.root(build.monomial(Q(coefficient), powers.items()), index)
        paper.write(_beside(outside, whole), "multiply-roots", "under one root")
    out_number, in_number = RootTerm(Q(1), coefficient, index).split()
    out_powers = {name: k // index for name, k in powers.items()}
    in_powers = {name: k % index for name, k in powers.items()}
    if out_number == 1 and not any(out_powers.values()):
        raise NotThisWay("The root is simplified already.")
    square = build.monomial(Q(out_number**index), [(name, k * index) for name, k in out_powers.items()])
    rest = build.monomial(Q(in_number), in_powers.items())
    if rest != build.ONE:
        what = say(f"{{}} is a perfect {'square' if index == 2 else 'power'}", square)
        split = build.root(build.product(square, rest), index)
        paper.write(_beside(outside, split), "largest-square-factor" if index == 2 else "largest-power-factor", what)
    bars = problem.convention("roots_of_letters") == "any-real" and index % 2 == 0
    pieces: list[n.Node] = [n.Integer(out_number)] if out_number != 1 else []
    for name, k in out_powers.items():
        if not k:
            continue
        power = build.power(build.letter(name), k)
        # an even power that comes out is never negative; an odd one needs bars, unless the radicand keeps the letter
        pieces.append(n.Absolute(power) if bars and k % 2 and not in_powers[name] else power)
    words = say("{} = {}", n.Root(n.Group(square), None if index == 2 else n.Integer(index)), build.product(*pieces))
    if any(isinstance(piece, n.Absolute) for piece in pieces):
        words += ": the root is never negative, so bars stay where the letter may be"
    root = build.ONE if rest == build.ONE else build.root(rest, index)
    paper.write(
        _beside(outside, *pieces, root), "root-of-square" if index == 2 else "root-of-power", words, shown_at=BRIEF
    )
    paper.answer = [paper.line]
    return paper


def _beside(outside: Ratio, *factors: n.Node) -> n.Node:
    """What stood before the root times these factors; two numbers are multiplied."""
    count = outside.constant
    if count is None:
        return build.product(shown(outside), *factors)
    first = factors[0]
    if isinstance(first, n.Integer):
        return build.multiple(count * first.value, build.product(*factors[1:]))
    return build.multiple(count, build.product(*factors))
