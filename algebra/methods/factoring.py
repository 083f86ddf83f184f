"""Factoring: the common factor, special forms, trinomials in four ways, grouping; primes are said to be prime."""

from __future__ import annotations

from collections.abc import Sequence
from fractions import Fraction as Q
from math import gcd

from algebra.exact.algebraic_numbers import whole_root
from algebra.exact.rational_functions import Ratio
from algebra.exact.rational_functions import factored as factors_of_poly
from algebra.methods.polynomials import (
    factoring_of,
    integers,
    pair_words,
    powers_told,
    product_sum_work,
    shared,
    squared,
)
from algebra.methods.terms import Poly, factored, listed, same_terms, shown, spread
from algebra.methods.worked_lines import BOARD, BRIEF, EVERY, NotThisWay, Problem, WorkedLines, say
from algebra.reports.side_work import ProductSum, SideWork
from algebra.tree import build
from algebra.tree import nodes as n
from algebra.tree import statements as ln
from algebra.tree.plain import plain

PRIME = ln.Word("prime")


def sum_product(problem: Problem) -> WorkedLines:
    """Two numbers with the product and the sum; for a ≠ 1 the middle term is split."""
    return _factored(problem, "sum-product")


def area_grid(problem: Problem) -> WorkedLines:
    """The same pair read from a two by two box."""
    return _factored(problem, "area-grid", trinomial=True)


def ac_grouping(problem: Problem) -> WorkedLines:
    """Split the middle term, factor in pairs; with four terms, factor in pairs at once."""
    return _factored(problem, "ac-grouping", unlike_one=True)


def slide_and_divide(problem: Problem) -> WorkedLines:
    """Work with x² + bx + ac, divide by a, reduce, slide denominators in front."""
    return _factored(problem, "slide-and-divide", unlike_one=True, trinomial=True)


def special_forms(problem: Problem) -> WorkedLines:
    """Differences of squares, perfect squares, sums and differences of cubes."""
    paper = _factored(problem, "sum-product")
    special = {"difference-of-squares", "perfect-square", "sum-of-cubes"}
    if not any(step.rule.id in special for step in paper.steps):
        raise NotThisWay("It is none of the special forms.")
    return paper


def _factored(problem: Problem, how: str, *, trinomial: bool = False, unlike_one: bool = False) -> WorkedLines:
    value = problem.value(problem.body)
    if not value.is_polynomial or not value.denominator.is_constant():
        raise NotThisWay("It is no polynomial.")
    if abs(int(value.denominator.leading_coefficient())) != 1:
        raise NotThisWay("The coefficients are no whole numbers.")
    letters = [name for name, d in zip(value.field.names, value.numerator.degrees(), strict=True) if d > 0]
    if not letters:
        raise NotThisWay("There are no letters.")
    paper = WorkedLines(problem)
    expanded = listed(spread(problem, problem.body))
    if _is_sum_of_products(problem.body):
        paper.write(expanded, "distribute", "brackets are opened first")
        paper.write(shown(value), "like-terms", "like terms together")
    elif len(letters) == 1 and not (trinomial or unlike_one) and _number_first(paper, letters[0]):
        return paper
    elif len(letters) == 1:
        tree = Poly.of(value, letters[0]).tree
        paper.write(
            tree,
            "order-terms" if same_terms(tree, problem.body) else "like-terms",
            "like terms together, powers falling",
        )
    if len(letters) > 1:
        _in_letters(paper, value, how, trinomial or unlike_one)
        return paper
    poly = Poly.of(value, letters[0])
    whole = integers(poly) or []
    common = gcd(*whole)
    core = [c // common for c in whole[next(k for k, c in enumerate(whole) if c) :]]
    if (trinomial or unlike_one) and len(core) == 3 and core[1] == 0:
        raise NotThisWay("It has no middle term.")
    if trinomial and len(core) != 3:
        raise NotThisWay("It is no trinomial of the second degree.")
    if unlike_one and not ((len(core) == 3 and abs(core[-1]) != 1) or (len(core) == 4 and how == "ac-grouping")):
        raise NotThisWay("The leading coefficient is 1." if len(core) == 3 else "It has not three terms.")
    found = factoring_of(poly, how)
    if found is None:
        _prime(paper, core)
        return paper
    taught = sum(line.shown_at >= BOARD for line in found.lines)
    for k, (tree, rule, what, side, shown_at) in enumerate(found.lines):
        first = rule == "common-factor" and k == 0 and taught > 1
        last = BRIEF if k == len(found.lines) - 1 else shown_at
        paper.write(tree, rule, what, side=side, noticed=("common factor first",) if first else (), shown_at=last)
    if not found.lines:
        raise NotThisWay("It is factored already.")
    paper.answer = [paper.line]
    return paper


def _number_first(paper: WorkedLines, letter: str) -> bool:
    """25 - 4x² as (5 + 2x)(5 - 2x), 27 - x³ as (3 - x)(9 + 3x + x²): a difference that begins with its number stays
    so."""
    match n.bare(paper.problem.body):
        case n.Sum((n.Integer(whole), term), ("-",)):
            poly = Poly.of(paper.problem.value(term), letter)
        case _:
            return False
    numbers = integers(poly) or []
    degree = poly.degree
    if degree not in (2, 3) or any(numbers[:-1]) or numbers[-1] <= 0:
        return False
    a, b = whole_root(whole, degree), whole_root(numbers[-1], degree)
    if a is None or b is None:
        return False
    first, second = n.Integer(a), build.monomial(Q(b), [(letter, 1)])
    ends = [build.power(first, degree), squared(second) if degree == 2 else build.power(second, degree)]
    told = powers_told((n.Integer(whole), ends[0]), (term, ends[1]))
    paper.write(n.Sum((ends[0], ends[1]), ("-",)), "as-powers", told, shown_at=EVERY)
    less = n.Sum((first, second), ("-",))
    if degree == 2:
        more: n.Node = n.Sum((first, second), ("+",))
    else:
        products = [build.monomial(Q(a * b), [(letter, 1)]), build.monomial(Q(b * b), [(letter, 2)])]
        more = n.Sum((n.Integer(a * a), *products), ("+", "+"))
    product = build.product(more, less) if degree == 2 else build.product(less, more)
    rule = "difference-of-squares" if degree == 2 else "sum-of-cubes"
    paper.write(product, rule, say("a = {}, b = {}", first, second), shown_at=BRIEF)
    paper.answer = [paper.line]
    return True


def _is_sum_of_products(tree: n.Node) -> bool:
    bare = n.bare(tree)
    if not isinstance(bare, n.Sum):
        return isinstance(bare, n.Product | n.Power) and any(isinstance(n.bare(c), n.Sum) for c in bare.children)
    return any(isinstance(n.bare(p), n.Sum) for t in bare.terms for p in n.parts_of(t) if isinstance(p, n.Group))


def _prime(paper: WorkedLines, core: list[int]) -> None:
    """No pair, no pattern: prime over the rational numbers."""
    what = "no pattern fits and no rational number makes it zero."
    side: list[SideWork] = []
    if len(core) == 3:
        c, b, a = core
        work = product_sum_work(a * c, b)
        side = [work]
        tried = ", ".join(f"{p} and {q}" for p, q, _ in work.tried) or "none"
        what = f"no two whole numbers have the product {a * c} and the sum {b} (tried: {tried})."
        if b == 0 and c > 0:
            what = "a sum of squares does not factor over the real numbers."
    _say_prime(paper, what, side)


def _say_prime(paper: WorkedLines, what: str, side: Sequence[SideWork] = ()) -> None:
    paper.write(PRIME, "not-factorable", what, side=side, shown_at=BRIEF, noticed=("prime",))
    paper.answer = [PRIME]


def _in_letters(paper: WorkedLines, value: Ratio, how: str, strict: bool) -> None:
    """Two letters or more: the common monomial, then one pattern, then the irreducible factors."""
    content, factors = factors_of_poly(value.numerator)
    ring = value.field.ratio
    names = value.field.names
    monomials = [(f, int(p)) for f, p in factors if len(f) == 1]
    sums = [(f, int(p)) for f, p in factors if len(f) > 1]
    if not sums:
        raise NotThisWay("It is a single term.")
    final = factored(value)
    front = ring(value.numerator.context().constant(content))
    for f, power in monomials:
        front = front * ring(f) ** power
    rest = value / front
    alone = len(sums) == 1 and sums[0][1] == 1
    if front.constant != 1:
        bracket = n.Group(shown(rest))
        line = build.opposite(bracket) if front.constant == -1 else build.product(shown(front), bracket)
        rule, what = ("take-out-minus", "-") if front.constant == -1 else ("common-factor", plain(shown(front)))
        if rule == "common-factor":
            apart = (shared(shown(front), shown(term)) for term in spread(paper.problem, shown(rest)))
            paper.write(build.sum_of(apart), rule, what, shown_at=EVERY)
        paper.write(line, rule, what, shown_at=BRIEF if alone else 1, noticed=() if alone else ("common factor first",))
    if alone:
        if front.constant == 1:
            _say_prime(paper, "no pattern fits.")
        paper.answer = [paper.line]
        return
    pattern = _pattern(rest, names, sums)
    if pattern is None and strict and how != "ac-grouping":
        raise NotThisWay("It is no trinomial.")
    split = _split_in_letters(rest) if pattern and pattern[0] == "product-sum" else None
    pairs = None
    if pattern is None or (split and how != "area-grid"):
        # the given's own order shows its pairs
        own = paper.problem.body if front.constant == 1 and not _is_sum_of_products(paper.problem.body) else shown(rest)
        pairs = _grouped(paper.problem, split or spread(paper.problem, own), head=front)
    if pairs is not None:
        if pattern and split:
            apart_in_four = listed(split)
            if front.constant != 1:
                apart_in_four = build.product(shown(front), n.Group(apart_in_four, "["))
            paper.write(apart_in_four, "split-middle", pattern[1], side=pattern[2])
        grouped, taken, shared_bracket = pairs
        paper.write(grouped, "group-in-pairs", taken)
        paper.write(final, "common-bracket", shared_bracket, shown_at=BRIEF)
    else:
        rule, what, side = pattern or ("factor-all", "", [])
        paper.write(final, rule, what, side=side, shown_at=BRIEF)
    paper.answer = [paper.line]


def _pattern(
    rest: Ratio, names: tuple[str, ...], sums: Sequence[tuple[object, int]]
) -> tuple[str, str, list[SideWork]] | None:
    terms = sorted(((tuple(int(k) for k in m), int(c)) for m, c in rest.numerator.to_dict().items()), reverse=True)

    def roots(first: tuple[tuple[int, ...], int], last: tuple[tuple[int, ...], int], index: int) -> str | None:
        """In words, a and b whose powers the two terms are; None where they are none."""
        found = [_root(names, monomial, coefficient, index) for monomial, coefficient in (first, last)]
        a, b = found
        return None if a is None or b is None else say("a = {}, b = {}", a, b)

    if len(terms) == 2:
        squares, cubes = roots(terms[0], terms[1], 2), roots(terms[0], terms[1], 3)
        if terms[0][1] * terms[1][1] < 0 and squares is not None:
            return "difference-of-squares", squares, []
        if cubes is not None:
            return "sum-of-cubes", cubes, []
        return None
    if len(terms) == 3:
        (m1, a), (m2, b), (m3, c) = terms
        if all(x + y == 2 * z for x, y, z in zip(m1, m3, m2, strict=True)):
            squares = roots(terms[0], terms[2], 2)
            if len(sums) == 1 and sums[0][1] == 2 and squares is not None:
                return "perfect-square", squares, []
            work = product_sum_work(a * c, b)
            if work.pair:
                half = build.monomial(Q(1), [(name, k // 2) for name, k in zip(names, m3, strict=True)])
                whole = all(k % 2 == 0 for k in m3)
                return "product-sum", _pair_with(half, work) if a == 1 and whole else pair_words(work), [work]
    return None


def _pair_with(letter: n.Node, work: ProductSum) -> str:
    """In words, a pair with its letter: `3y · 4y = 12y^2 and 3y + 4y = 7y`."""
    if work.pair is None or letter == build.ONE:
        return pair_words(work)
    p, q = (build.multiple(Q(k), letter) for k in work.pair)
    product, total = build.multiple(Q(work.product), build.power(letter, 2)), build.multiple(Q(work.sum), letter)
    return say("{} = {} and {} = {}", build.dotted(p, build.factor(q)), product, build.sum_of([p, q]), total)


def searches_in(problem: Problem, tree: n.Node) -> list[SideWork]:
    """The side work of factoring every sum in a tree: the pairs that are tried, the tests, the divisions."""
    found: list[SideWork] = []
    for part in dict.fromkeys(n.bare(p) for p in n.parts_of(tree) if isinstance(n.bare(p), n.Sum)):
        value = problem.value(part)
        if not value.is_polynomial or value.denominator != 1:
            continue
        letters = [name for name, d in zip(value.field.names, value.numerator.degrees(), strict=True) if d > 0]
        if len(letters) == 1:
            factoring = factoring_of(Poly.of(value, letters[0]))
            found += [work for line in factoring.lines for work in line.side] if factoring else []
        elif letters:
            content, factors = factors_of_poly(value.numerator)
            sums = [(f, int(k)) for f, k in factors if len(f) > 1]
            rest = value
            for f, k in [(f, int(k)) for f, k in factors if len(f) == 1]:
                rest = rest / value.field.ratio(f) ** k
            pattern = _pattern(rest / value.field.constant(int(content)), value.field.names, sums) if sums else None
            found += pattern[2] if pattern else []
    return found


def _root(names: tuple[str, ...], monomial: tuple[int, ...], coefficient: int, index: int) -> n.Node | None:
    """The root of the size of a term, where it is a term again."""
    size = whole_root(abs(coefficient), index)
    if size is None or any(k % index for k in monomial):
        return None
    return build.monomial(Q(size), [(name, k // index) for name, k in zip(names, monomial, strict=True)])


def _split_in_letters(rest: Ratio) -> list[Ratio] | None:
    """2x² + 7xy + 3y² as 2x² + xy + 6xy + 3y²: its four terms; None where the leading coefficient is 1."""
    terms = sorted(((tuple(int(k) for k in m), int(c)) for m, c in rest.numerator.to_dict().items()), reverse=True)
    (m1, a), (m2, b), (m3, c) = terms
    pair = product_sum_work(a * c, b).pair
    if pair is None or abs(a) == 1:
        return None

    def term(coefficient: int, powers: tuple[int, ...]) -> Ratio:
        total = rest.field.constant(coefficient)
        for name, k in zip(rest.field.names, powers, strict=True):
            total = total * rest.field.letter(name) ** k
        return total

    return [term(a, m1), term(pair[0], m2), term(pair[1], m2), term(c, m3)]


def _grouped(problem: Problem, terms: list[Ratio], *, head: Ratio) -> tuple[n.Node, str, n.Node] | None:
    """Four terms in two pairs with the same bracket: the line, what was taken out, and the bracket."""
    if len(terms) != 4:
        return None
    for order in ((0, 1, 2, 3), (0, 2, 1, 3), (0, 3, 1, 2)):
        pairs = [(terms[order[0]], terms[order[1]]), (terms[order[2]], terms[order[3]])]
        fronts, brackets = [], []
        for a, b in pairs:
            front = problem.field.ratio(a.numerator.gcd(b.numerator))
            if build.is_minus(shown(a)):
                front = -front
            fronts.append(front)
            brackets.append((a + b) / front)
        if brackets[0] == brackets[1] or brackets[0] == -brackets[1]:
            if brackets[0] == -brackets[1]:
                fronts[1] = -fronts[1]
            inner = shown(brackets[0])
            line = build.sum_of(_taken_out(shown(front), n.Group(inner)) for front in fronts)
            if head.constant != 1:
                line = build.product(shown(head), n.Group(line, "["))
            return line, say("{} and {}", *map(shown, fronts)), inner
    return None


def _taken_out(front: n.Node, bracket: n.Node) -> n.Node:
    if build.is_minus(front):
        return n.Signed("-", build.product(front.children[0], bracket))
    return build.product(front, bracket)
