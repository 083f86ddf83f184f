"""Slips with fractions and rational expressions."""

from __future__ import annotations

from collections.abc import Iterator
from math import prod

from algebra.slips.parts import (
    Term,
    add,
    least_common_monomial,
    multiply,
    number_of,
    opposite,
    over,
    terms,
    two_of,
)
from algebra.slips.slip import Slip, Wrong
from algebra.slips.words import Words, said
from algebra.tree import build
from algebra.tree import nodes as n

EXPRESSIONS = frozenset({"evaluate", "simplify", "expand"})


def _added_across(node: n.Node) -> Iterator[Wrong]:
    if not isinstance(node, n.Sum):
        return
    items = terms(node)
    for i, j, rest in two_of(items):
        a, b = n.bare(items[i][1]), n.bare(items[j][1])
        if isinstance(a, n.Fraction) and isinstance(b, n.Fraction):
            top = add([(items[i][0], a.numerator), (items[j][0], b.numerator)])
            for second in dict.fromkeys((items[j][0], "+")):
                bottom = add([("+", a.denominator), (second, b.denominator)])
                whole = add([("+", over(top, bottom)), *rest])
                yield whole, said("tops and bottoms of {a} and {b} were added", a=a, b=b)


def _fraction_terms(node: n.Node) -> list[tuple[str, n.Fraction]] | None:
    if not isinstance(node, n.Sum):
        return None
    items = [(s, n.bare(t)) for s, t in terms(node)]
    found = [(s, t) for s, t in items if isinstance(t, n.Fraction)]
    return found if len(found) == len(items) else None


def _bottom_scaled(node: n.Node) -> Iterator[Wrong]:
    items = _fraction_terms(node)
    if not items:
        return
    bottom = multiply(t.denominator for _, t in items)
    yield (
        add((s, over(t.numerator, bottom)) for s, t in items),
        said("the denominators were made the same, but not the numerators"),
    )
    least = least_common_monomial([t.denominator for _, t in items])
    if least is not None and least != bottom:
        words = said("the denominators were made the same, but not the numerators")
        yield add((s, over(t.numerator, least)) for s, t in items), words
    numbers = [number_of(t.denominator) for _, t in items]
    for k, (_, one) in enumerate(items):  # one of them is scaled rightly
        others = multiply(t.denominator for j, (_, t) in enumerate(items) if j != k)
        tops = [multiply([t.numerator, others]) if j == k else t.numerator for j, (_, t) in enumerate(items)]
        words = said("the denominators were made the same, but only the numerator {top} was scaled", top=one.numerator)
        yield add((s, over(top, bottom)) for (s, _), top in zip(items, tops, strict=True)), words
    if None not in numbers:
        product = build.number(prod(int(v or 1) for v in numbers))
        yield add((s, over(t.numerator, product)) for s, t in items), said("the numerators were not scaled along")


def _incomplete_lcd(node: n.Node) -> Iterator[Wrong]:
    items = _fraction_terms(node)
    if items and len({t.denominator for _, t in items}) > 1:
        top = add((s, t.numerator) for s, t in items)
        for _, t in items:
            taken = n.bare(t.denominator)
            yield (
                over(top, t.denominator),
                said("{taken} was taken for the common denominator", shows=taken, taken=taken),
            )


def _no_flip(node: n.Node) -> Iterator[Wrong]:
    if isinstance(node, n.Product) and "÷" in node.operators:
        divisor = node.factors[node.operators.index("÷") + 1]
        yield multiply(node.factors), said("{divisor} was not turned over", shows=divisor, divisor=divisor)
    if isinstance(node, n.Fraction) and any(isinstance(n.bare(part), n.Fraction) for part in node.children):
        below = n.bare(node.denominator)
        yield multiply(node.children), said("{below} below the bar was not turned over", shows=below, below=below)


def _wrong_flip(node: n.Node) -> Iterator[Wrong]:
    if not isinstance(node, n.Product) or node.operators[:1] != ("÷",):
        return
    first = n.bare(node.factors[0])
    if isinstance(first, n.Fraction):
        turned = multiply([over(first.denominator, first.numerator), *node.factors[1:]])
        yield turned, said("{first} was turned over, the dividend", shows=first, first=first)


def _minus_first_only(node: n.Node) -> Iterator[Wrong]:
    if not isinstance(node, n.Sum | n.Signed):
        return
    items = terms(node)
    for k, (sign, term) in enumerate(items):
        bare = n.bare(term)
        if sign != "-":
            continue
        if isinstance(bare, n.Sum) and isinstance(term, n.Group):
            inner = terms(bare)
            opened: list[Term] = [("-" if inner[0][0] == "+" else "+", inner[0][1]), *inner[1:]]
            yield add([*items[:k], *opened, *items[k + 1 :]]), _reached(term, inner[0][1])
        if isinstance(bare, n.Fraction) and isinstance(n.bare(bare.numerator), n.Sum):
            inner = terms(bare.numerator)
            head = ("-", inner[0][1]) if inner[0][0] == "+" else ("+", inner[0][1])
            apart = [(s, over(t, bare.denominator)) for s, t in (head, *inner[1:])]
            yield (
                add([*items[:k], *apart, *items[k + 1 :]]),
                said(
                    "the minus before {term} reached {first} only, not the whole numerator",
                    shows=term,
                    term=term,
                    first=inner[0][1],
                ),
            )
        if isinstance(bare, n.Product):
            for position, part in enumerate(bare.factors):
                if isinstance(n.bare(part), n.Sum):
                    inner = terms(part)
                    others = [f for j, f in enumerate(bare.factors) if j != position]
                    spread = [
                        ("-" if (s == "+") == (j == 0) else "+", multiply([*others, t]))
                        for j, (s, t) in enumerate(inner)
                    ]
                    yield add([*items[:k], *spread, *items[k + 1 :]]), _reached(term, inner[0][1])


def _reached(term: n.Node, first: n.Node) -> Words:
    return said("the minus before {term} reached {first} only", shows=term, term=term, first=first)


def _opposite(node: n.Node) -> Iterator[Wrong]:
    """b − a read as a − b in a denominator or as a factor."""
    if isinstance(node, n.Fraction):
        for name, part in (("denominator", node.denominator), ("numerator", node.numerator)):
            items = terms(part)
            if len(items) == 2 and "-" in (items[0][0], items[1][0]):
                yield opposite(node), said("{part} in the " + name + " was read the other way round", part=n.bare(part))


def _as_equation(node: n.Node) -> Iterator[Wrong]:
    items = _fraction_terms(node)
    if not items:
        return
    bottoms = list(dict.fromkeys(n.bare(t.denominator) for _, t in items))
    scaled = [(s, multiply([t.numerator, *(b for b in bottoms if b != n.bare(t.denominator))])) for s, t in items]
    yield add(scaled), said("it was multiplied by the common denominator, which is then gone")


def _mixed_product(node: n.Node) -> Iterator[Wrong]:
    if isinstance(node, n.Mixed):
        part = over(n.Integer(node.numerator), n.Integer(node.denominator))
        yield multiply([n.Integer(node.whole), part]), said("{number} was read as a product", number=node)


SLIPS = (
    Slip(
        id="added-across",
        claim="1/a + 1/b = 1/(a + b)",
        name="Added tops and bottoms",
        kind="concept",
        topic="fractions",
        done="{what}.",
        why="1/2 + 1/2 is 1, not 2/4.",
        cue="Same denominator first; then only the tops.",
        examples=(("1/4 + 2/3", "3/7"),),
        wrong=_added_across,
        innocent=(("1/4·2/3", "2/12"),),
        lurks_in=(
            "multiply-fractions",
            "common-denominator-numbers",
            "add-fractions",
            "one-fraction",
            "lcd",
            "combine-top-and-bottom",
            "spot-structure",
        ),
        likely=3.6,
    ),
    Slip(
        id="scaled-bottom-only",
        name="Scaled the bottom only",
        kind="procedure",
        topic="fractions",
        done="{what}.",
        why="Scaling keeps the value only when top and bottom take the factor.",
        cue="What the bottom gets, the top gets.",
        examples=(("3/x + 1/(x+2)", "3/(x(x+2)) + 1/(x(x+2))"),),
        wrong=_bottom_scaled,
        innocent=(("3/x + 1/(x+2)", "(3(x+2))/(x(x+2)) + x/(x(x+2))"),),
        lurks_in=("common-denominator-numbers", "lcd"),
    ),
    Slip(
        id="lcd-incomplete",
        name="Incomplete common denominator",
        kind="procedure",
        topic="fractions",
        done="{what}, though it lacks a factor.",
        why="Every denominator must divide the common one.",
        cue="List the factors of each denominator.",
        examples=(("3/x + 1/(x+2)", "4/(x+2)"),),
        wrong=_incomplete_lcd,
        innocent=(("3/(x+2) + 1/(x+2)", "4/(x+2)"),),
        lurks_in=("lcd",),
    ),
    Slip(
        id="divided-without-flip",
        name="Did not turn the divisor over",
        kind="procedure",
        topic="fractions",
        done="{what}.",
        why="6 ÷ 1/2 is 12.",
        cue="Keep, change, turn over.",
        examples=(("(a/3)÷(b/6)", "(ab)/18"), ("(x/4)/(y/8)", "(xy)/32")),
        wrong=_no_flip,
        innocent=(("(a/3)÷(b/6)", "(a/3)·(6/b)"),),
        lurks_in=("divide-by-fraction", "flip-divisor"),
    ),
    Slip(
        id="flipped-the-first",
        name="Turned the dividend over",
        kind="procedure",
        topic="fractions",
        done="{what}.",
        why="The fraction after ÷ is turned over.",
        cue="The one behind ÷ turns.",
        examples=(("(x/3)÷(x^2/6)", "(3/x)·(x^2/6)"),),
        wrong=_wrong_flip,
        innocent=(("(x/3)÷(x^2/6)", "(x/3)·(6/x^2)"),),
        lurks_in=("divide-by-fraction", "flip-divisor"),
    ),
    Slip(
        id="minus-on-first-term-only",
        claim="a - (b - c) = a - b - c",
        name="Minus on the first term only",
        kind="notation",
        topic="fractions",
        done="{what}.",
        why="9 − (5 + 2) is 2; 9 − 5 + 2 is 6.",
        cue="Bracket the whole numerator.",
        examples=(("4 - (x+3)", "4 - x + 3"), ("1/x - (x-2)/x", "(1 - x - 2)/x")),
        wrong=_minus_first_only,
        innocent=(("4 - (x+3)", "4 - x - 3"), ("4 - x + 3", "7 - x")),
        lurks_in=("distribute", "take-out-minus", "combine-numerators", "open-brackets"),
        likely=3.6,
    ),
    Slip(
        id="opposite-sign-lost",
        name="Lost the sign of an opposite",
        kind="concept",
        topic="fractions",
        done="{what}.",
        why="7 − 4 is 3, and 4 − 7 is −3.",
        cue="b − a = −(a − b).",
        examples=(("6/(x-5) + 1/(5-x)", "7/(x-5)"),),
        wrong=_opposite,
        innocent=(("6/(x-5) + 1/(5-x)", "5/(x-5)"),),
        lurks_in=("opposite-factors",),
        rank=12,
    ),
    Slip(
        id="expression-as-equation",
        name="Dropped the denominator",
        kind="concept",
        topic="fractions",
        done="{what}.",
        why="An expression has no other side that could be multiplied too.",
        cue="Is there an equals sign? Else the bottom stays.",
        examples=(("1/x + 2/3", "3 + 2x"),),
        wrong=_as_equation,
        tasks=EXPRESSIONS,
        innocent=(("1/x + 2/3", "(3 + 2x)/(3x)"),),
        lurks_in=("lcd",),
    ),
    Slip(
        id="mixed-number-product",
        name="Mixed number as a product",
        kind="notation",
        topic="fractions",
        done="{what}.",
        why="Two and a quarter is 2 + 1/4.",
        cue="Read it aloud: two AND a quarter.",
        examples=(("2 1/4", "1/2"),),
        wrong=_mixed_product,
        innocent=(("2 1/4", "9/4"),),
        lurks_in=("improper-fraction", "mixed-number"),
    ),
)
