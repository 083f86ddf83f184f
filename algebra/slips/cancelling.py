"""Slips in cancelling: terms that are no factors, one term of several, what is left of all of them."""

from __future__ import annotations

from collections.abc import Iterator
from itertools import permutations

from algebra.slips.parts import (
    Term,
    add,
    base_and_exponent,
    dropped,
    factor,
    factors,
    multiply,
    number_of,
    over,
    power,
    terms,
)
from algebra.slips.slip import Slip, Wrong
from algebra.slips.words import said
from algebra.tree import build
from algebra.tree import nodes as n

MAX_DIVISOR = 12
"""Largest number by which top and bottom are divided one by one."""


MAX_TERMS = 4
"""Most terms above the bar in which the terms below are cancelled."""


def _without(items: list[Term], k: int) -> list[Term]:
    return [t for j, t in enumerate(items) if j != k]


def _taken_away(items: list[Term], k: int) -> list[n.Node]:
    """A side of a fraction with one term cancelled: gone, or a 1 in its place."""
    rest = _without(items, k)
    return list(dict.fromkeys((add(rest) if rest else build.ONE, add([("+", build.ONE), *rest]))))


def _cancelled_terms(node: n.Node) -> Iterator[Wrong]:
    """A term above and a term (or the whole) below that are alike, taken away."""
    if not isinstance(node, n.Fraction):
        return
    above, below = terms(node.numerator), terms(node.denominator)
    if len(above) == 1 and len(below) == 1:
        return
    whole = n.bare(node.numerator if len(above) > 1 else node.denominator)
    for i, (_, a) in enumerate(above):
        for j, (_, b) in enumerate(below):
            if n.bare(a) != n.bare(b):
                continue
            words = said("{a} was cancelled, though it is a term of {whole} and no factor", shows=a, a=a, whole=whole)
            for top in _taken_away(above, i):
                for bottom in _taken_away(below, j):
                    yield over(top, bottom), words
    yield from _cancelled_in_pairs(node)
    # a factor shared by one term above and one below
    for i, (s, a) in enumerate(above):
        for j, (z, b) in enumerate(below):
            shared = next((f for f in factors(a) if any(n.bare(f) == n.bare(g) for g in factors(b))), None)
            if shared is None or n.bare(a) == n.bare(b) or (len(below) == 1 and n.bare(shared) == n.bare(b)):
                continue  # the last is one term divided by the whole denominator
            p, q = multiply(dropped(factors(a), shared)), multiply(dropped(factors(b), shared))
            top = add([*above[:i], (s, p), *above[i + 1 :]])
            bottom = add([*below[:j], (z, q), *below[j + 1 :]])
            yield over(top, bottom), said("{shared} was cancelled from one term only", shows=shared, shared=shared)


def _cancelled_in_pairs(node: n.Fraction) -> Iterator[Wrong]:
    """(a²+3a+2)/(a+2) as a + 3a + 1: each term below divided into one term above, the others left as they are."""
    above, below = terms(node.numerator), terms(node.denominator)
    if not 1 < len(below) < len(above) <= MAX_TERMS:
        return
    for chosen in permutations(range(len(above)), len(below)):
        divided = dict(zip(chosen, below, strict=True))
        shared = [
            n.letters(above[k][1]) >= n.letters(b) and bool(n.letters(above[k][1])) == bool(n.letters(b))
            for k, (_, b) in divided.items()
        ]
        if all(shared):
            pieces = [
                ("+" if s == divided[k][0] else "-", over(a, divided[k][1])) if k in divided else (s, a)
                for k, (s, a) in enumerate(above)
            ]
            yield (
                add(pieces),
                said("each term of {bottom} was cancelled in a term above", bottom=n.bare(node.denominator)),
            )


def _term_by_term(node: n.Node) -> Iterator[Wrong]:
    """(2x+6)/(x+3) as 2 + 2, and a/(b+c) as a/b + a/c."""
    if not isinstance(node, n.Fraction) or len(terms(node.denominator)) < 2:
        return
    above, below = terms(node.numerator), terms(node.denominator)
    bottom = n.bare(node.denominator)
    if len(above) == len(below):
        pairs = [("+" if s == z else "-", over(a, b)) for (s, a), (z, b) in zip(above, below, strict=True)]
        yield (
            add(pairs),
            said("each term was divided by the term below it, but the whole is divided by {bottom}", bottom=bottom),
        )
    apart = [(sign, over(node.numerator, term)) for sign, term in below]
    yield add(apart), said("{bottom} was taken apart below the bar", shows=bottom, bottom=bottom)


def _brackets_lost(node: n.Node) -> Iterator[Wrong]:
    """3/(x-3) as 3/x - 3, (x+1)/2 as x + 1/2, (x+1)^2 as x + 1^2."""
    if isinstance(node, n.Fraction):
        for k, part in enumerate(node.children):
            before: list[n.Node] = []
            *others, last = factors(part)
            if k and others and len(terms(last)) > 1:  # 1/(3(x-1)) as 1/(3x) - 1
                before, part = others, last
            items = terms(part)
            if len(items) < 2:
                continue
            words = said("the brackets of {part} were dropped", shows=n.bare(part), part=n.bare(part))
            if k:
                yield add([("+", over(node.numerator, multiply([*before, items[0][1]]))), *items[1:]]), words
                number, *rest = factors(items[0][1])
                if not before and rest and isinstance(number, n.Integer):  # 8/2x - 1, where only the 2 stands below
                    yield add([("+", multiply([over(node.numerator, number), *rest])), *items[1:]]), words
            else:
                yield add([*items[:-1], (items[-1][0], over(items[-1][1], node.denominator))]), words
    elif isinstance(node, n.Product) and isinstance(n.bare(node.factors[-1]), n.Fraction):
        last = n.bare(node.factors[-1])
        items = terms(last.children[0])
        if len(items) > 1:  # 3·(x+4)/2 as 3·x + 4/2
            words = said(
                "the brackets of {part} were dropped", shows=n.bare(last.children[0]), part=n.bare(last.children[0])
            )
            first = multiply([*node.factors[:-1], n.Signed("-", items[0][1]) if items[0][0] == "-" else items[0][1]])
            yield add([("+", first), *items[1:-1], (items[-1][0], over(items[-1][1], last.children[1]))]), words
    elif isinstance(node, n.Power) and len(terms(node.base)) > 1:
        items = terms(node.base)
        raised = n.Power(factor(items[-1][1]), node.exponent)
        yield (
            add([*items[:-1], (items[-1][0], raised)]),
            said("the brackets of {part} were dropped", shows=n.bare(node.base), part=n.bare(node.base)),
        )


def _reduced_unequally(node: n.Node) -> Iterator[Wrong]:
    """45/60 as 9/20: the top divided by 5, the bottom by 3."""
    if not isinstance(node, n.Fraction):
        return
    top, bottom = number_of(node.numerator), number_of(node.denominator)
    if top is None or bottom is None or top.denominator != 1 or bottom.denominator != 1:
        return
    a, b = int(top), int(bottom)
    by = [d for d in range(2, MAX_DIVISOR + 1) if a % d == 0 or b % d == 0]
    for p in (d for d in by if a % d == 0):
        for q in (d for d in by if b % d == 0 and d != p):
            words = said(
                "{top} was divided by {p}, and {bottom} by {q}", top=node.numerator, bottom=node.denominator, p=p, q=q
            )
            yield over(build.number(a // p), build.number(b // q)), words


def _one_term(node: n.Node) -> Iterator[Wrong]:
    if not isinstance(node, n.Fraction) or len(terms(node.numerator)) < 2:
        return
    items = terms(node.numerator)
    for k, (sign, term) in enumerate(items):
        divided = [*items[:k], (sign, over(term, node.denominator)), *items[k + 1 :]]
        yield (
            add(divided),
            said("only {term} was divided by {bottom}", shows=term, term=term, bottom=n.bare(node.denominator)),
        )


def _to_nothing(node: n.Node) -> Iterator[Wrong]:
    if not isinstance(node, n.Fraction):
        return
    above, below = factors(node.numerator), factors(node.denominator)
    powers = [base_and_exponent(f) for f in above]
    if all(found is not None and n.letters(found[0]) for found in powers) and above != below:
        rest = list(below)
        for found in powers:
            assert found is not None
            held = next(
                (f for f in rest if (own := base_and_exponent(f)) and own[0] == found[0] and own[1] > found[1]), None
            )
            own = base_and_exponent(held) if held is not None else None
            if held is None or own is None:
                break
            rest[rest.index(held)] = power(own[0], own[1] - found[1])
        else:
            gone = n.bare(node.numerator)
            yield multiply(rest), said("{gone} was cancelled and nothing left above", shows=gone, gone=gone)
    left = list(below)
    for part in above:
        if all(n.bare(part) != n.bare(b) for b in left):
            return
        left = dropped(left, part)
    gone = n.bare(node.numerator)
    words = said("{gone} was cancelled and nothing left above", shows=gone, gone=gone)
    if left:
        yield multiply(left), words
        yield build.ZERO, words


SLIPS: tuple[Slip, ...] = (
    Slip(
        id="cancelled-terms",
        claim="(a + b)/a = b",
        name="Cancelled terms",
        kind="concept",
        topic="fractions",
        done="{what}.",
        why="(6 + 3)/6 is 3/2, not 3.",
        cue="Only factors of the whole top and the whole bottom cancel: bracket every sum first.",
        examples=(("(x+9)/x", "9"), ("(√7+2)/√7", "2"), ("x^2/(x^2+4)", "1/4")),
        wrong=_cancelled_terms,
        innocent=(("(9x)/x", "9"), ("(x(x+4))/(x^2(x+4))", "1/x")),
        lurks_in=("reduce-fraction", "factor-all", "cancel-factors"),
        likely=4.0,
        rank=13,
    ),
    Slip(
        id="divided-term-by-term",
        name="Took the denominator apart",
        kind="concept",
        topic="fractions",
        done="{what}.",
        why="6/(1 + 2) is 2; 6/1 + 6/2 is 9.",
        cue="A sum below the bar stays together.",
        examples=(("(2x+6)/(x+3)", "2 + 2"), ("6/(3+√3)", "2 + 6/√3")),
        wrong=_term_by_term,
        innocent=(("(2x+6)/2", "x + 3"), ("(3+√3)/6", "3/6 + √3/6")),
        lurks_in=("cancel-factors", "reduce-fraction", "multiply-by-conjugate"),
        likely=2.0,
    ),
    Slip(
        id="brackets-dropped",
        name="Dropped the brackets",
        kind="notation",
        topic="fractions",
        done="{what}.",
        why="3/(4 − 1) is 1; 3/4 − 1 is not.",
        cue="The bar and the exponent hold the bracket together: write it.",
        examples=(("3/(x-3)", "3/x - 3"), ("(x+1)/2", "x + 1/2")),
        wrong=_brackets_lost,
        innocent=(("3/x - 3", "(3 - 3x)/x"), ("(x+1)/2", "x/2 + 1/2")),
        lurks_in=("cancel-factors", "square-both-sides"),
        likely=1.4,
        rank=110,
    ),
    Slip(
        id="reduced-unequally",
        name="Divided top and bottom by different numbers",
        kind="care",
        topic="fractions",
        done="{what}.",
        why="Only dividing both by one number keeps the value.",
        cue="Say the number, then divide both.",
        examples=(("45/60", "9/20"),),
        wrong=_reduced_unequally,
        innocent=(("45/60", "3/4"), ("45/60", "9/12")),
        lurks_in=("reduce-fraction", "reduce-solution"),
        likely=1.2,
        rank=111,
    ),
    Slip(
        id="cancelled-one-term",
        name="Cancelled in one term only",
        kind="concept",
        topic="fractions",
        done="{what}.",
        why="The bar holds for every term above it.",
        cue="The factor must be in every term.",
        examples=(("(10+5√3)/5", "2+5√3"),),
        wrong=_one_term,
        innocent=(("(10+5√3)/5", "2+√3"),),
        lurks_in=("cancel-factors", "reduce-solution"),
    ),
    Slip(
        id="cancelled-to-nothing",
        name="Cancelled to nothing",
        kind="concept",
        topic="fractions",
        done="{what}.",
        why="3/(3·5) is 1/5.",
        cue="A 1 is left.",
        examples=(("(x-2)/((x-2)(x+5))", "x+5"),),
        wrong=_to_nothing,
        innocent=(("(x-2)/((x-2)(x+5))", "1/(x+5)"),),
        lurks_in=("cancel-factors",),
    ),
)
