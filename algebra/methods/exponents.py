"""Products and quotients of powers, by the laws of exponents in three orders of work; powers in sums."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass, field, replace
from fractions import Fraction as Q
from math import gcd, prod

from algebra.exact.algebraic_numbers import prime_factors, whole_root
from algebra.exact.errors import ExactError
from algebra.exact.rational_functions import Ratio
from algebra.methods.order import literal, order_of_operations, tidy
from algebra.methods.terms import number, shown
from algebra.methods.worked_lines import BRIEF, EVERY, NotThisWay, Problem, WorkedLines, say
from algebra.tree import build
from algebra.tree import nodes as n
from algebra.tree.plain import plain

MAX_EVALUATED = 10_000


@dataclass(frozen=True, slots=True)
class PowerOf:
    """base^exponent above (way 1) or below (way −1) the bar; the base is a letter, a number or a bracket.

    `in_work` is the exponent before it is worked out: 5·3, 5 + 3, 7 − 5.
    """

    base: n.Node
    exponent: Ratio
    way: int = 1
    in_work: n.Node | None = field(default=None, compare=False)

    @property
    def size(self) -> Q | None:
        """The exponent where it is a number; else None."""
        return self.exponent.constant

    @property
    def is_number(self) -> bool:
        """Whether the base is a whole number."""
        return isinstance(self.base, n.Integer)

    @property
    def number(self) -> int:
        """The base, where it is a number."""
        assert isinstance(self.base, n.Integer)
        return self.base.value

    @property
    def value(self) -> int | None:
        """The power worked out, where it is a whole number below MAX_EVALUATED: 8^(2/3) is 4; else None."""
        if not self.is_number or self.size is None or self.size < 0:
            return None
        root = whole_root(self.number, self.size.denominator)
        if root is None or root.bit_length() * self.size.numerator > 2 * MAX_EVALUATED.bit_length():
            return None
        found = root**self.size.numerator
        return found if found < MAX_EVALUATED else None

    @property
    def tree(self) -> n.Node:
        """The power as it is written, whichever side of the bar it is on."""
        return build.power(self.base, shown(self.exponent))

    @property
    def tree_in_work(self) -> n.Node:
        """The power with its exponent not worked out yet: `x^(5·3)`."""
        return self.tree if self.in_work is None else build.power(self.base, n.Group(self.in_work))

    @property
    def turned(self) -> PowerOf:
        """The same power with the opposite exponent."""
        return replace(self, exponent=-self.exponent)

    def raised(self, power: Ratio) -> PowerOf:
        """The power raised to another: the exponents are multiplied."""
        one = self.exponent.constant == 1 or power.constant == 1
        in_work = None if one else build.dotted(_in_product(shown(self.exponent)), _in_product(shown(power)))
        return replace(self, exponent=self.exponent * power, in_work=in_work)


def _in_product(exponent: n.Node) -> n.Node:
    """An exponent as a factor; a sign gets brackets."""
    return n.Group(exponent) if isinstance(exponent, n.Sum | n.Signed | n.Fraction) else exponent


def flatten(problem: Problem, tree: n.Node, way: int = 1) -> tuple[int, list[PowerOf]]:
    """The sign and the powers of a product or quotient. Raises NotThisWay where a sum stands in it."""
    one = problem.field.constant(1)
    match tree:
        case n.Group(child):
            return flatten(problem, child, way)
        case n.Signed("-", child):
            sign, parts = flatten(problem, child, way)
            return -sign, parts
        case n.Product(factors, operators):
            sign, found = flatten(problem, factors[0], way)
            for operator, factor in zip(operators, factors[1:], strict=True):
                s, more = flatten(problem, factor, -way if operator == "÷" else way)
                sign, found = sign * s, found + more
            return sign, found
        case n.Fraction(top, bottom):
            s1, above = flatten(problem, top, way)
            s2, below = flatten(problem, bottom, -way)
            return s1 * s2, above + below
        case n.Power(base, exponent):
            power = problem.value(exponent)
            inner_sign, inner = flatten(problem, base, way)
            count = power.constant
            if inner_sign < 0 and (count is None or count.denominator != 1):
                raise NotThisWay("A negative base has an exponent that is no whole number.")
            sign = -1 if inner_sign < 0 and count is not None and int(count) % 2 else 1
            return sign, [p.raised(power) for p in inner]
        case n.Integer(value) if value > 0:
            return 1, [PowerOf(tree, one, way)]
        case n.Decimal():
            size = tree.value
            return 1, [PowerOf(n.Integer(size.numerator), one, way), PowerOf(n.Integer(size.denominator), one, -way)]
        case n.Letter() | n.Unit():
            return 1, [PowerOf(tree, one, way)]
    raise NotThisWay("A sum stands between the powers.")


def written(sign: int, parts: Sequence[PowerOf], *, in_work: bool = False) -> n.Node:
    """The product, what is below under a bar; `in_work` with exponents that are not worked out yet."""
    top, bottom = (_product([p for p in parts if p.way == way and p.base != build.ONE], in_work) for way in (1, -1))
    return build.minus_if(sign < 0, build.quotient(top, bottom))


def _product(parts: Sequence[PowerOf], in_work: bool = False) -> n.Node:
    """The powers side by side, a dot before a word."""
    product = build.product(*(part.tree_in_work if in_work else part.tree for part in parts))
    if not isinstance(product, n.Product):
        return product
    words = [isinstance(f.base if isinstance(f, n.Power) else f, n.Unit) for f in product.factors[1:]]
    operators = ("·" if word else sign for word, sign in zip(words, product.operators, strict=True))
    return n.Product(product.factors, tuple(operators))


def combined(parts: Sequence[PowerOf], *, across: bool) -> list[PowerOf]:
    """Powers of the same base put together; `across` the bar too. Plain numbers are multiplied."""
    found: dict[tuple[n.Node, int], PowerOf] = {}
    for part in parts:
        key = (part.base, 0 if across else part.way)
        known = found.get(key)
        exponent = part.exponent if not across or part.way > 0 else -part.exponent
        if known is None:
            found[key] = replace(part, exponent=exponent, way=1 if across else part.way, in_work=None)
        else:
            added = build.signed("-" if across and part.way < 0 else "+", shown(part.exponent))
            before = known.in_work or shown(known.exponent)
            found[key] = replace(known, exponent=known.exponent + exponent, in_work=build.sum_of([before, added]))
    return list(found.values())


def exponent_laws(problem: Problem) -> WorkedLines:
    """Powers of products and powers first, then same bases, then negative exponents, then numbers."""
    return _worked(problem, lambda paper, tree: tree)


def prime_bases(problem: Problem) -> WorkedLines:
    """Every numeric base written by primes first."""
    return _worked(problem, _by_primes)


def reciprocal_first(problem: Problem) -> WorkedLines:
    """Fractions with a negative exponent turned over first."""
    return _worked(problem, _turned)


def _worked(problem: Problem, first: Callable[[WorkedLines, n.Node], n.Node]) -> WorkedLines:
    if not any(isinstance(p, n.Power) for p in n.parts_of(problem.body)):
        raise NotThisWay("There are no powers.")
    if not n.letters(problem.body) and isinstance(n.bare(problem.body), n.Sum):
        raise NotThisWay("A sum of numbers is worked out in the order of operations.")
    paper = WorkedLines(problem)
    tree = first(paper, problem.body)
    try:
        sign, parts = flatten(problem, tree)
    except NotThisWay:
        return with_sums(paper, tree)
    _powers(paper, tree, sign, parts)
    return paper


def _powers(paper: WorkedLines, tree: n.Node, sign: int, parts: list[PowerOf]) -> None:
    inside = next(
        (
            p
            for p in n.parts_of(tree)
            if isinstance(p, n.Power) and isinstance(n.bare(p.base), n.Product | n.Fraction | n.Power | n.Signed)
        ),
        None,
    )
    rule, what = "product-of-powers", ""
    if inside is not None:
        base = n.bare(inside.base)
        rule = (
            "power-of-power"
            if isinstance(base, n.Power)
            else "power-of-quotient"
            if isinstance(base, n.Fraction)
            else "power-of-product"
        )
        what = plain(inside.exponent)
    ones = [p for p in parts if p.base != build.ONE]
    zero = [p for p in ones if p.size == 0]
    if inside is not None:
        _write(paper, sign, ones, rule, what)
    if zero:
        ones = [p for p in ones if p.size != 0]
        paper.write(written(sign, ones), "zero-exponent")
    same = sorted(combined(ones, across=False), key=_order)
    if len(same) < len(ones):
        twice = next(p for p in ones if sum(q.base == p.base and q.way == p.way for q in ones) > 1)
        added = build.sum_of(shown(q.exponent) for q in ones if q.base == twice.base and q.way == twice.way)
        what = plain(added).replace(" - ", " − ")
        _write(paper, sign, same, "product-of-powers", what)
    if any(p.size == 0 for p in same):
        same = [p for p in same if p.size != 0]
        paper.write(written(sign, same), "zero-exponent")
    both = combined([p for p in same if not _plain_number(p)], across=True)
    plain_numbers = [p for p in same if _plain_number(p)]
    above_and_below = {p.base for p in same if p.way > 0} & {p.base for p in same if p.way < 0} - {
        p.base for p in plain_numbers
    }
    current = same
    if above_and_below:
        shared = min(above_and_below, key=plain)
        top = next(p for p in same if p.base == shared and p.way > 0)
        bottom = next(p for p in same if p.base == shared and p.way < 0)
        kept = [p if p.base not in above_and_below else None for p in same]
        current = [p for p in kept if p is not None] + [p for p in both if p.base in above_and_below and p.size != 0]
        current.sort(key=_order)
        what = f"{plain(shown(top.exponent))} − {plain(build.factor(shown(bottom.exponent)))}"
        in_work = [p for p in kept if p is not None] + [p for p in both if p.base in above_and_below]
        _write(paper, sign, current, "quotient-of-powers", what, in_work=sorted(in_work, key=_order))
    negative = [p for p in current if p.size is not None and p.size < 0]
    if negative:
        first, turned = negative[0].tree, negative[0].turned.tree
        if negative[0].way < 0:
            told = build.equation(build.quotient(build.ONE, first), turned)
        else:
            told = build.equation(first, build.quotient(build.ONE, turned))
        current = [replace(p, exponent=-p.exponent, way=-p.way) if p in negative else p for p in current]
        current = sorted(combined(current, across=False), key=_order)
        paper.write(written(sign, current), "negative-exponent", told)
        again = {p.base for p in current if p.way > 0} & {p.base for p in current if p.way < 0}
        if any(not isinstance(b, n.Integer) for b in again):
            merged = combined([p for p in current if not p.is_number], across=True)
            current = [p for p in current if p.is_number] + [
                replace(
                    p, way=1 if (p.size or 0) >= 0 else -1, exponent=p.exponent if (p.size or 0) >= 0 else -p.exponent
                )
                for p in merged
                if p.size != 0
            ]
            paper.write(written(sign, current), "quotient-of-powers", "same bases above and below")
    _numbers(paper, sign, current)


def _write(
    paper: WorkedLines, sign: int, parts: list[PowerOf], rule: str, what: str, *, in_work: list[PowerOf] | None = None
) -> None:
    """The powers with their exponents still to be worked out, at the finest grain, then worked out."""
    paper.write(written(sign, in_work or parts, in_work=True), rule, what, shown_at=EVERY)
    paper.write(written(sign, parts), rule, what)


def _order(part: PowerOf) -> tuple[bool, bool, int, str]:
    """What is above first, numbers before letters."""
    return part.way < 0, not part.is_number, part.number if part.is_number else 0, plain(part.base)


def _plain_number(part: PowerOf) -> bool:
    return part.is_number and part.size == 1


def _numbers(paper: WorkedLines, sign: int, parts: list[PowerOf]) -> None:
    """Numeric powers worked out where they are short, and the numbers reduced."""
    leave = paper.problem.convention("powers") == "leave"
    total, kept = Q(1), []
    values: dict[PowerOf, int] = {}
    for p in parts:
        value = p.value if not leave or p.size == 1 else None
        if value is None:
            kept.append(p)
        else:
            values[p] = value
            total = total * value if p.way > 0 else total / value
    above = [p.number for p in kept if p.is_number and p.way > 0] + [total.numerator]
    below = [p.number for p in kept if p.is_number and p.way < 0] + [total.denominator]
    if any(gcd(a, b) > 1 for a in above for b in below):
        raise NotThisWay("Large powers of different bases still share a factor; write them by primes.")
    one = paper.problem.field.constant(1)
    front = []
    if total.numerator != 1:
        front.append(PowerOf(n.Integer(total.numerator), one, 1))
    if total.denominator != 1:
        front.append(PowerOf(n.Integer(total.denominator), one, -1))
    powers = [p for p in values if p.size != 1]
    what = ", ".join(say("{} = {}", p.tree, number(Q(values[p]))) for p in powers)
    kept.sort(key=_order)
    final = written(sign, [*front, *kept])
    raw = [PowerOf(n.Integer(values[p]), one, p.way) if p in powers else p for p in sorted(parts, key=_order)]
    if powers:
        paper.write(written(sign, raw), "evaluate-numeric-power", what)
    sizes = [[values[p] for p in parts if p in values and p.way == way] for way in (1, -1)]
    top, bottom = prod(sizes[0]), prod(sizes[1])
    if gcd(top, bottom) > 1:
        paper.write(final, "reduce-fraction", str(gcd(top, bottom)), shown_at=BRIEF)
    else:
        told = (
            say("{} = {}", build.dotted(*map(n.Integer, some)), n.Integer(prod(some)))
            for some in sizes
            if len(some) > 1
        )
        paper.write(final, "multiply-numbers", ", ".join(told) or "the numbers first, then the letters", shown_at=BRIEF)
    paper.answer = [paper.line]


def _by_primes(paper: WorkedLines, tree: n.Node) -> n.Node:
    """Each numeric base that is no prime as a product of powers of primes, in brackets."""
    changed: list[str] = []

    def rewritten(node: n.Node) -> n.Node:
        if isinstance(node, n.Power):
            base = n.bare(node.base)
            value = literal(base)
            if value is not None and value > 0 and value.denominator == 1 and value != 1:
                new = _prime_product(int(value))
                if new is not None:
                    changed.append(say("{} = {}", number(value), new))
                    return n.Power(n.Group(new), node.exponent)
            if value is not None and value > 0 and value.denominator != 1:
                new = _prime_fraction(value)
                changed.append(say("{} = {}", node.base, new))
                return n.Power(n.Group(new), node.exponent)
            return node
        if isinstance(node, n.Integer) and node.value > 1:
            new = _prime_product(node.value)
            if new is not None:
                changed.append(say("{} = {}", node, new))
                return new
            return node
        return node.with_children(tuple(rewritten(c) for c in node.children))

    new = rewritten(tree)
    if not changed:
        raise NotThisWay("Every base is a prime or a letter already.")
    new = dotted_numbers(new)
    paper.write(new, "prime-base", ", ".join(dict.fromkeys(changed)))
    return new


def dotted_numbers(node: n.Node) -> n.Node:
    """The tree with a dot wherever a number follows a factor."""
    if isinstance(node, n.Product):
        factors = tuple(dotted_numbers(f) for f in node.factors)
        flat: list[n.Node] = []
        operators: list[str] = []
        for k, factor in enumerate(factors):
            pieces = factor.factors if isinstance(factor, n.Product) else (factor,)
            for j, piece in enumerate(pieces):
                if flat:
                    own = node.operators[k - 1] if j == 0 else "·"
                    operators.append("·" if own == "" and build.starts_with_digit(piece) else own)
                flat.append(piece)
        return n.Product(tuple(flat), tuple(operators))
    if isinstance(node, n.Fraction):
        parts = [dotted_numbers(c) for c in node.children]
        parts = [p if isinstance(p, n.FACTOR_LIKE) else n.Group(p) for p in parts]
        return n.Fraction(parts[0], parts[1])
    return node.with_children(tuple(dotted_numbers(c) for c in node.children))


def _prime_product(value: int) -> n.Node | None:
    factors = [(int(p), int(k)) for p, k in prime_factors(value)]
    if not factors or (len(factors) == 1 and factors[0][1] == 1):
        return None
    parts: list[n.Node] = [n.Integer(p) if k == 1 else n.Power(n.Integer(p), n.Integer(k)) for p, k in factors]
    return parts[0] if len(parts) == 1 else n.Product(tuple(parts), ("·",) * (len(parts) - 1))


def _prime_fraction(value: Q) -> n.Node:
    parts = [_prime_product(part) or n.Integer(part) for part in (value.numerator, value.denominator)]
    top, bottom = (p if isinstance(p, n.FACTOR_LIKE) else n.Group(p) for p in parts)
    return n.Fraction(top, bottom)


def _turned(paper: WorkedLines, tree: n.Node) -> n.Node:
    """Every bracket with a negative exponent as its reciprocal with a positive one."""
    changed = False

    def rewritten(node: n.Node) -> n.Node:
        nonlocal changed
        if isinstance(node, n.Power) and isinstance(n.bare(node.base), n.Fraction):
            power = literal(node.exponent)
            inner = n.bare(node.base)
            if power is not None and power < 0 and isinstance(inner, n.Fraction):
                changed = True
                flipped = n.Fraction(inner.denominator, inner.numerator)
                base: n.Node = n.bare(inner.denominator) if inner.numerator == n.Integer(1) else flipped
                exponent = n.Integer(int(-power))
                wrap = base if isinstance(base, n.Integer | n.Letter) else n.Group(base)
                return wrap if exponent.value == 1 else n.Power(wrap, exponent)
        return node.with_children(tuple(rewritten(c) for c in node.children))

    new = rewritten(tree)
    if not changed:
        raise NotThisWay("No fraction has a negative exponent.")
    new = dotted_numbers(new)
    paper.write(new, "reciprocal-of-base")
    return new


def with_sums(paper: WorkedLines, tree: n.Node) -> WorkedLines:
    """Powers in a sum: negative exponents become fractions, or the smallest power is taken out."""
    problem = paper.problem
    if not n.letters(tree):
        paper.go_on(order_of_operations(problem.about(tree)))
        return paper
    bare = n.bare(tree)
    top = n.bare(bare.numerator) if isinstance(bare, n.Fraction) else bare
    bottom = n.bare(bare.denominator) if isinstance(bare, n.Fraction) else None
    taken = [_common_power(problem, part) if isinstance(part, n.Sum) else None for part in (top, bottom)]
    if not any(taken):
        raise NotThisWay("The terms share no power.")
    parts = [found[1] if found else part for part, found in zip((top, bottom), taken, strict=True) if part is not None]
    what = next(found[0] for found in taken if found)
    paper.write(build.quotient(parts[0], parts[1]) if len(parts) > 1 else parts[0], "factor-out-power", what)
    final = tidy(_evaluated_brackets(problem, paper.line))
    paper.write(final, "like-terms", "the numbers in the brackets")
    try:
        sign, powers = flatten(paper.here, paper.line)
    except (NotThisWay, ExactError):
        paper.answer = [paper.line]
        return paper
    _powers(paper, paper.line, sign, powers)
    return paper


def _common_power(problem: Problem, tree: n.Sum) -> tuple[n.Node, n.Node] | None:
    """What can be taken out of a sum of powers with letters above, and the product that this gives."""
    terms = [(1, tree.terms[0]), *((-1 if s == "-" else 1, t) for s, t in zip(tree.signs, tree.terms[1:], strict=True))]
    flat = []
    for sign, term in terms:
        try:
            s, parts = flatten(problem, term)
        except NotThisWay:
            return None
        merged = {p.base: p.exponent for p in combined(parts, across=True)}
        flat.append((sign * s, merged))
    base = next((b for b, e in flat[0][1].items() if e.constant is None and all(b in m for _, m in flat)), None)
    if base is None:
        return None
    exponents = [m[base] for _, m in flat]
    differences = [(e - exponents[0]).constant for e in exponents]
    if None in differences:
        return None
    smallest = min(d for d in differences if d is not None)
    low = exponents[0] + problem.field.constant(smallest)
    front = PowerOf(base, low).tree
    inside = []
    for (sign, merged), difference in zip(flat, differences, strict=True):
        rest = [PowerOf(b, e) for b, e in merged.items() if b != base]
        extra = problem.field.constant((difference or Q(0)) - smallest)
        if not extra.is_zero:
            rest = [PowerOf(base, extra), *rest]
        inside.append(build.minus_if(sign < 0, _product(rest)))
    return front, build.dotted(front, build.sum_of(inside))


def _evaluated_brackets(problem: Problem, tree: n.Node) -> n.Node:
    if isinstance(tree, n.Group) and not n.letters(tree) and isinstance(tree.child, n.Sum):
        value = problem.value(tree.child).constant
        if value is not None and value.denominator == 1 and value >= 0:
            return n.Integer(int(value))
    return tree.with_children(tuple(_evaluated_brackets(problem, c) for c in tree.children))
