"""Complex numbers worked out on paper: roots of negatives as i, brackets multiplied out, i² = −1, quotients by the
conjugate."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from fractions import Fraction as Q
from math import gcd

from algebra.methods.complex_terms import I, Term, combined, one_term, place, terms_in, written
from algebra.methods.surds import square_part
from algebra.methods.terms import terms_of
from algebra.methods.worked_lines import BOARD, BRIEF, EVERY, NotThisWay, Problem, WorkedLines, say
from algebra.tree import build
from algebra.tree import nodes as n
from algebra.tree.plain import plain

MOST_LINES = 60
LARGEST_EXPONENT = 4
"""Brackets with a higher exponent are not multiplied out by hand."""


Change = Callable[[n.Node], n.Node | None]
"""What is written in place of a node; None where the step does not act on it."""


def _innermost(node: n.Node, change: Change) -> n.Node:
    """The node with the change made wherever nothing inside changes, brackets kept where the notation needs them."""
    children = tuple(_innermost(child, change) for child in node.children)
    if all(new is old for new, old in zip(children, node.children, strict=True)):
        return change(node) or node
    match node:
        case n.Sum():
            signs = ("+", *node.signs)
            return build.sum_of(_with_sign(s, n.bare(c)) for s, c in zip(signs, children, strict=True))
        case n.Signed(sign, _):
            return build.signed(sign, n.bare(children[0]))
        case n.Product() if "÷" not in node.operators:
            join = build.dotted if set(node.operators) == {"·"} else build.product
            return join(*(n.bare(c) for c in children))
        case n.Fraction():
            return build.quotient(n.bare(children[0]), n.bare(children[1]))
        case n.Group():
            return n.Group(n.bare(children[0]), node.bracket)
    return node.with_children(children)


def _with_sign(sign: str, term: n.Node) -> n.Node:
    """A term of a sum with the sign before it; two minus signs join to a plus."""
    return build.negated(term) if sign == "-" and not isinstance(term, n.Sum) else build.signed(sign, term)


def i_squared(problem: Problem) -> WorkedLines:
    """Sums, products, powers and quotients of complex numbers, step by step until the form a + bi is left."""
    if not problem.complex or n.letters(problem.body) - {"i"}:
        raise NotThisWay("These are no complex numbers.")
    paper = WorkedLines(problem)
    for _ in range(MOST_LINES):
        if not any(step(paper) for step in _STEPS):
            break
    terms = terms_in(paper.line)
    if terms is None:
        raise NotThisWay("This is not worked out by hand here.")
    paper.write(written(sorted(terms, key=place)), "combine-parts", "the real part comes first", shown_at=BRIEF)
    paper.answer = [paper.line]
    return paper


def _rewritten(
    paper: WorkedLines, change: Change, rule: str, what: str | n.Node = "", *, shown_at: int = BOARD
) -> bool:
    """Whether the change acts somewhere in the line; it is written then."""
    line = n.bare(_innermost(paper.line, change))
    if plain(line) == plain(paper.line):
        return False
    paper.write(line, rule, what, shown_at=shown_at)
    return True


def _roots_of_negatives(paper: WorkedLines) -> bool:
    """√(-12) as i√12, then as 2i√3."""

    def first(node: n.Node) -> n.Node | None:
        size = _negative_radicand(node)
        return None if size is None or size == 1 else build.product(I, build.root(n.Integer(size)))

    def whole(node: n.Node) -> n.Node | None:
        size = _negative_radicand(node)
        return None if size is None else Term(Q(1), 1, size).small.tree

    found = dict.fromkeys(p for p in n.parts_of(paper.line) if whole(p) is not None)
    if not found:
        return False
    told = ", ".join(say("{} = {}", root, whole(root) or root) for root in found)
    line = n.bare(_innermost(paper.line, whole))
    _rewritten(paper, first, "negative-radicand", told, shown_at=EVERY)
    paper.write(line, "negative-radicand", told)
    return True


def _negative_radicand(node: n.Node) -> int | None:
    """n of √(−n)."""
    if isinstance(node, n.Root) and node.index is None:
        match n.bare(node.radicand):
            case n.Signed("-", n.Integer(size)) if size:
                return size
    return None


def _simplify_roots(paper: WorkedLines) -> bool:
    def change(node: n.Node) -> n.Node | None:
        match node:
            case n.Root(radicand, None):
                inside = n.bare(radicand)
                if isinstance(inside, n.Integer) and inside.value > 0 and square_part(inside.value)[0] > 1:
                    return Term(Q(1), 0, inside.value).small.tree
        return None

    found = dict.fromkeys(p for p in n.parts_of(paper.line) if change(p) is not None)
    return _rewritten(paper, change, "root-of-square", ", ".join(say("{} = {}", p, change(p) or p) for p in found))


def _powers_of_i(paper: WorkedLines) -> bool:
    """i² as (−1), then as a sign; higher powers by i⁴ = 1."""
    found = sorted({power for p in n.parts_of(paper.line) if (power := _exponent_of_i(p)) is not None})
    if not found:
        return False
    told = ", ".join(map(_power_told, found))

    def high(node: n.Node) -> n.Node | None:
        """i^23 as (i^4)^5·i^3."""
        power = _exponent_of_i(node)
        if power is None or power <= 4:
            return None
        fours, rest = divmod(power, 4)
        four = n.Power(n.Group(build.power(I, 4)), n.Integer(fours)) if fours > 1 else build.power(I, 4)
        return build.dotted(four, build.power(I, rest)) if rest else four

    def in_brackets(node: n.Node) -> n.Node | None:
        return n.Group(n.Signed("-", build.ONE)) if node == build.power(I, 2) else None

    def signed(node: n.Node) -> n.Node | None:
        one = one_term(node)
        return one.small.tree if one is not None and one.power not in (0, 1) else None

    line = paper.line
    final = n.bare(_innermost(line, _outermost_terms(signed, line)))
    if any(power > 4 for power in found):
        _rewritten(paper, high, "powers-of-i", told)
    elif plain(line) != plain(build.power(I, 2)):
        paper.write(_with_brackets(line, in_brackets), "powers-of-i", told, shown_at=EVERY)
    paper.write(final, "powers-of-i", told)
    return True


def _outermost_terms(change: Change, line: n.Node) -> Change:
    """The change kept to whole terms: 6i² and not the i² within it."""
    inside: set[int] = set()
    for part in n.parts_of(line):
        if change(part) is not None and id(part) not in inside:
            inside |= {id(p) for p in n.parts_of(part) if p is not part}
    return lambda node: None if id(node) in inside else change(node)


def _with_brackets(node: n.Node, change: Change) -> n.Node:
    """The node with i² as (−1) in its place, a dot nowhere."""
    new = change(node)
    if new is not None:
        return new
    children = tuple(_with_brackets(child, change) for child in node.children)
    return node.with_children(children) if children else node


def _exponent_of_i(node: n.Node) -> int | None:
    """The whole exponent of a power of i other than i itself; None for anything else."""
    match node:
        case n.Power(n.Letter("i"), n.Integer(exponent)) if exponent != 1:
            return exponent
    return None


def _power_told(power: int) -> str:
    if power <= 4:
        return {0: "i^0 = 1", 2: "i^2 = -1", 3: "i^3 = -i", 4: "i^4 = 1"}[power]
    fours, rest = divmod(power, 4)
    shown = f" + {rest}" if rest else ""
    return f"i^4 = 1 and {power} = 4·{fours}{shown}, so i^{power} = {plain(Term(Q(1), rest).small.tree)}"


def _negative_exponents(paper: WorkedLines) -> bool:
    """A power with a negative exponent as a fraction."""

    def change(node: n.Node) -> n.Node | None:
        match node:
            case n.Power(base, exponent):
                above = n.bare(exponent)
                if isinstance(above, n.Signed) and above.sign == "-" and isinstance(above.child, n.Integer):
                    return build.quotient(build.ONE, build.power(n.bare(base), above.child.value))
        return None

    told = ", ".join(say("{} = {}", p, change(p) or p) for p in n.parts_of(paper.line) if change(p) is not None)
    return _rewritten(paper, change, "negative-exponent", told)


def _division(paper: WorkedLines) -> bool:
    """a ÷ b as a fraction."""

    def change(node: n.Node) -> n.Node | None:
        if isinstance(node, n.Product) and node.operators == ("÷",):
            return build.quotient(n.bare(node.factors[0]), n.bare(node.factors[1]))
        return None

    return _rewritten(paper, change, "one-fraction")


def _combine(paper: WorkedLines) -> bool:
    """Real parts together, imaginary parts together; brackets that are added or subtracted opened first."""
    told: list[str] = []

    def change(node: n.Node) -> n.Node | None:
        terms = terms_in(node, opened=True) if isinstance(node, n.Sum | n.Signed) else None
        if terms is None or (isinstance(node, n.Signed) and not isinstance(n.bare(node.child), n.Sum)):
            return None
        new = combined(terms)
        if len(new) < len(terms):
            told.extend(_added(terms))
        return written(new) if len(new) < len(terms) else None

    whole = _outermost_terms(change, paper.line)
    told.clear()
    line = n.bare(_innermost(paper.line, whole))
    if plain(line) == plain(paper.line):
        return False
    _open_brackets(paper, "combine-parts", shown_at=EVERY)
    paper.write(line, "combine-parts", ", ".join(dict.fromkeys(told)) or "like terms together", shown_at=BRIEF)
    return True


def _open_brackets(paper: WorkedLines, rule: str, *, shown_at: int = BOARD) -> bool:
    """Whether brackets that are added or subtracted were opened in a line of their own."""

    def change(node: n.Node) -> n.Node | None:
        terms = terms_in(node, opened=True) if isinstance(node, n.Sum) else None
        return None if terms is None or terms_in(node) is not None else written(terms)

    minus = any(
        isinstance(p, n.Sum) and any(s == "-" and isinstance(n.bare(t), n.Sum) for s, t in terms_of(p))
        for p in n.parts_of(paper.line)
    )
    told = "the minus changes the sign of every term in its bracket" if minus else "brackets after a plus can go"
    return _rewritten(paper, _outermost_terms(change, paper.line), rule, told, shown_at=shown_at)


def _added(terms: Sequence[Term]) -> Iterator[str]:
    """In words, what is added: `6 - 3 = 3`, `3i + 4i = 7i`."""
    kinds = sorted({(t.small.power, t.small.radicand) for t in terms})
    for kind in kinds:
        like = [t.small for t in terms if (t.small.power, t.small.radicand) == kind]
        if len(like) > 1:
            yield say("{} = {}", written(like), written(combined(like)))


def _powers_of_brackets(paper: WorkedLines) -> bool:
    """(2+i)³ as (2+i)²(2+i); a square as the bracket times itself; the power of a single term worked out."""

    def change(node: n.Node) -> n.Node | None:
        if not (isinstance(node, n.Power) and isinstance(node.exponent, n.Integer)) or node.base == I:
            return None
        terms, power = terms_in(node.base), node.exponent.value
        if terms is None or not 2 <= power <= 12:
            return None
        if len(terms) == 1:
            [one] = terms
            outside = one.radicand ** (power // 2)
            rest = one.radicand ** (power % 2)
            return Term(one.coefficient**power * outside, one.power * power, rest).tree
        if power > LARGEST_EXPONENT:
            return None
        square = n.Power(node.base, n.Integer(2))
        if power == 2:
            return build.implied_product([node.base, node.base])
        return n.Power(n.Group(square), n.Integer(2)) if power == 4 else build.implied_product([square, node.base])

    found = [p for p in n.parts_of(paper.line) if change(p) is not None]
    if not found:
        return False
    square = all(isinstance(n.bare(p.children[0]), n.Sum) and p.children[1] == n.Integer(2) for p in found)
    told = ", ".join(dict.fromkeys(say("{} = {}", p, change(p) or p) for p in found))
    return _rewritten(paper, change, "power-as-product", told, shown_at=EVERY if square else BOARD)


def _multiply(paper: WorkedLines) -> bool:
    """Every term by every term, i² not yet replaced; conjugates at once as a difference of squares."""
    told: list[str] = []

    def change(node: n.Node) -> n.Node | None:
        held = _factors(node) if isinstance(node, n.Product) else None
        if held is None or len(held) < 2:
            return None
        singles = next((k for k, terms in enumerate(held) if len(terms) > 1), len(held))
        count = max(singles, 2)
        made = held[0]
        for terms in held[1:count]:
            told.append(_times_told(made, terms))
            made = _multiplied(made, terms)
        return build.product(*(written(terms) for terms in (made, *held[count:])))

    line = n.bare(_innermost(paper.line, change))
    if plain(line) == plain(paper.line):
        return False
    opened = WorkedLines(paper.here)
    opened.line = line
    flat = _open_brackets(opened, "multiply-complex")
    what = ", ".join(dict.fromkeys(told))
    paper.write(line, "multiply-complex", what, shown_at=EVERY if flat else BOARD)
    if flat:
        paper.write(opened.line, "multiply-complex", what)
    return True


def _factors(node: n.Product) -> list[list[Term]] | None:
    """The factors as sums of terms, a coefficient, i and a root side by side as one; None where one is something
    else."""
    if "÷" in node.operators:
        return None
    found: list[list[Term]] = []
    run: list[n.Node] = []
    for factor in node.factors:
        terms = terms_in(factor)
        if terms is None:
            return None
        joined = (
            one_term(n.Product((*run, factor), ("",) * len(run))) if run and not isinstance(factor, n.Group) else None
        )
        if joined is not None:
            found[-1] = [joined]
            run.append(factor)
        else:
            found.append(terms)
            run = [factor]
    return found


def _times_told(first: Sequence[Term], second: Sequence[Term]) -> str:
    """In words, what is multiplied by what."""
    conjugates = _conjugates_told(first, second)
    if conjugates:
        return conjugates
    if len(first) == 1 == len(second):
        return say("{} = {}", build.dotted(first[0].tree, second[0].tree), first[0].times(second[0]).tree)
    if len(first) == 1 or len(second) == 1:
        one, several = (first, second) if len(first) == 1 else (second, first)
        return say("{} times ", one[0].tree) + " and ".join(plain(t.tree) for t in several)
    return say("each term of {} times each term of {}", written(first), written(second))


def _multiplied(first: Sequence[Term], second: Sequence[Term]) -> list[Term]:
    products = [a.times(b) for a in first for b in second]
    return [products[0], products[3]] if _conjugates_told(first, second) else products


def _conjugates_told(first: Sequence[Term], second: Sequence[Term]) -> str:
    """`(a + b)(a − b) = a² − b²`, for two such brackets; else an empty text."""
    if len(first) == 2 == len(second) and first[0] == second[0] and first[1] == second[1].opposite:
        return "(a + b)(a − b) = a² − b²"
    return ""


def _conjugate(paper: WorkedLines) -> bool:
    """A quotient by a number with i: top and bottom times the conjugate; by one term with i: times i."""
    told: list[str] = []
    rules: list[str] = []

    def change(node: n.Node) -> n.Node | None:
        if not isinstance(node, n.Fraction):
            return None
        below, above = terms_in(node.denominator), terms_in(node.numerator)
        if not below or above is None or len(below) > 2 or all(t.is_rational for t in below):
            return None
        if len(below) == 1:
            factor: n.Node = Term(Q(1), below[0].power, below[0].radicand).tree
            rules.insert(0, "multiply-by-i" if below[0].power else "multiply-by-root")
        else:
            rules.append("complex-conjugate")
            a, b = below
            factor = n.Group(written([a, b.opposite] if b.power or not a.power else [a.opposite, b]))
        told.append(plain(n.bare(factor)))
        top = _dotted(n.bare(node.numerator), factor)
        return n.Fraction(build.beside_slash(top), build.beside_slash(_dotted(n.bare(node.denominator), factor)))

    line = n.bare(_innermost(paper.line, change))
    if not told:
        return False
    paper.write(line, rules[-1], " and ".join(dict.fromkeys(told)))
    return True


def _dotted(front: n.Node, other: n.Node) -> n.Node:
    """A product not worked out yet: `(3+2i)(2+i)`, `5(2+i)`, `5·i`."""
    if front == build.ONE:
        return n.bare(other)
    if isinstance(front, n.Sum) and isinstance(other, n.Group):
        return build.implied_product([n.Group(front), other])
    if build.is_minus(front):
        return n.Signed("-", _dotted(front.children[0], other))
    if isinstance(other, n.Group) or (isinstance(front, n.Integer) and not build.starts_with_digit(other)):
        return build.product(front, other)
    return build.dotted(build.factor(front), other)


def _real_denominator(paper: WorkedLines) -> bool:
    """(6+4i)/10 as 3/5 + 2i/5."""
    told: list[str] = []

    def change(node: n.Node) -> n.Node | None:
        if not isinstance(node, n.Fraction) or (one_term(node) is not None and _is_reduced(node)):
            return None
        below, above = terms_in(node.denominator), terms_in(node.numerator)
        if above is None or below is None or len(below) != 1 or not below[0].is_rational or not below[0].coefficient:
            return None
        told.append(plain(n.bare(node.denominator)))
        return written(
            sorted((Term(t.coefficient / below[0].coefficient, t.power, t.radicand) for t in above), key=place)
        )

    line = n.bare(_innermost(paper.line, change))
    if plain(line) == plain(paper.line):
        return False
    paper.write(line, "standard-form", " and ".join(dict.fromkeys(told)), shown_at=BRIEF)
    return True


def _is_reduced(node: n.Fraction) -> bool:
    """Whether a fraction of one term is in lowest terms and without a sign below."""
    top = terms_in(node.numerator)
    return (
        top is not None
        and isinstance(node.denominator, n.Integer)
        and gcd(int(top[0].coefficient), node.denominator.value) == 1
    )


_STEPS = (
    _division,
    _roots_of_negatives,
    _negative_exponents,
    _simplify_roots,
    _powers_of_i,
    _combine,
    _powers_of_brackets,
    _multiply,
    _conjugate,
    _real_denominator,
)
"""What one looks for in a line, in this order; the first that acts writes the next line."""
