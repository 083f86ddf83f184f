"""Slips in the order of operations and in arithmetic with signs."""

from __future__ import annotations

import itertools
from collections.abc import Iterator, Sequence

from algebra.slips.parts import (
    add,
    counted,
    equals,
    factor,
    factors,
    multiply,
    number_of,
    opposite,
    over,
    power,
    signed,
    terms,
    two_of,
)
from algebra.slips.slip import Slip, Wrong, both_ways
from algebra.slips.words import said
from algebra.tree import build
from algebra.tree import nodes as n


def _goes_on(head: n.Node, operators: Sequence[str], rest: Sequence[n.Node]) -> n.Node:
    """A product that begins with something already put together."""
    if not rest:
        return head
    return n.Product((factor(head), *map(factor, rest)), tuple(op or "·" for op in operators))


def _left_to_right(node: n.Node) -> Iterator[Wrong]:
    """a + b·c as (a + b)·c; the eye-catching sum before the product beside it."""
    if not isinstance(node, n.Sum):
        return
    items = terms(node)
    for k in range(1, len(items)):
        sign, term = items[k]
        before = items[k - 1]
        if isinstance(term, n.Fraction) and not n.letters(term) and isinstance(n.bare(before[1]), n.Integer):
            joined = over(add([before, (sign, term.numerator)]), term.denominator)  # 8 + 12/4 as (8 + 12)/4
            words = said(
                "{before} " + sign + " {first} was taken before {term}",
                before=before[1],
                first=term.numerator,
                term=term,
            )
            yield add([*items[: k - 1], ("+", joined), *items[k + 1 :]]), words
        if not isinstance(term, n.Product):
            continue
        first, *rest = term.factors
        if number_of(first) is None or not all(number_of(f) is not None for f in factors(before[1])[:1]):
            continue
        if term.operators[0] == "" and isinstance(
            rest[0], n.Letter | n.Power
        ):  # 2x is one term, not a product to be seen
            continue
        product = _goes_on(n.Group(add([before, (sign, first)])), term.operators, rest)
        joined = add([*items[: k - 1], ("+", product), *items[k + 1 :]])
        words = said("{before} " + sign + " {first} was taken before {term}", before=before[1], first=first, term=term)
        yield joined, words


def _multiply_first(node: n.Node) -> Iterator[Wrong]:
    if not isinstance(node, n.Product) or "÷" not in node.operators:
        return
    for k, op in enumerate(node.operators[:-1]):
        following = node.operators[k + 1]
        if op == "÷" and following in "·×":
            head = multiply(node.factors[: k + 1]) if k else node.factors[0]
            product = multiply(node.factors[k + 1 : k + 3])
            whole = _goes_on(head, ("÷", *node.operators[k + 2 :]), (product, *node.factors[k + 3 :]))
            a, b = node.factors[k + 1], node.factors[k + 2]
            yield whole, said("{a} " + following + " {b} was taken first", a=a, b=b)


def _add_first(node: n.Node) -> Iterator[Wrong]:
    if not isinstance(node, n.Sum):
        return
    items = terms(node)
    for k in range(1, len(items) - 1):
        if items[k][0] == "-" and items[k + 1][0] == "+" and not n.letters(node):
            inner = add([("+", items[k][1]), items[k + 1]])
            words = said("{a} + {b} was added first", a=items[k][1], b=items[k + 1][1])
            yield add([*items[:k], ("-", inner), *items[k + 2 :]]), words


def _multiply_before_power(node: n.Node) -> Iterator[Wrong]:
    if not isinstance(node, n.Product):
        return
    for k, part in enumerate(node.factors[1:], start=1):
        before = node.factors[k - 1]
        if (
            isinstance(part, n.Power)
            and number_of(before) is not None
            and not n.letters(part.base)
            and node.operators[k - 1] != "÷"
        ):
            raised = power(multiply([before, part.base]), part.exponent)
            words = said("{before} was multiplied into the base {base}", shows=before, before=before, base=part.base)
            yield multiply([*node.factors[: k - 1], raised, *node.factors[k + 1 :]]), words


def _minus_inside(node: n.Node) -> Iterator[Wrong]:
    if isinstance(node, n.Signed) and node.sign == "-" and isinstance(node.child, n.Power):
        base = node.child.base
        words = said("-{power} was read as a power of -{base}", power=node.child, base=base)
        yield power(opposite(base), node.child.exponent), words
    if isinstance(node, n.Sum):
        items = terms(node)
        for k, (sign, term) in enumerate(items):
            first, *others = term.factors if isinstance(term, n.Product) and "÷" not in term.operators else (term,)
            if sign == "-" and (k or others) and isinstance(first, n.Power) and number_of(first.exponent) is not None:
                words = said("-{power} was read as a power of -{base}", power=first, base=first.base)
                turned = multiply([power(opposite(first.base), first.exponent), *others])
                yield add([*items[:k], ("+", turned), *items[k + 1 :]]), words
    if isinstance(node, n.Power):
        inner = n.bare(node.base)
        if isinstance(inner, n.Signed) and inner.sign == "-":
            words = said("the minus in {power} was left outside", power=node)
            yield opposite(power(inner.child, node.exponent)), words


def _sum_sign(node: n.Node) -> Iterator[Wrong]:
    """Signed numbers or like terms with a wrong sign in the sum."""
    if not isinstance(node, n.Sum):
        return
    items = signed(terms(node))
    if items is None:
        return
    for i, j, left in two_of(items):
        (a, rest), (b, other) = items[i], items[j]
        if rest != other or (a > 0 and b > 0):
            continue
        right, larger, smaller = a + b, abs(a) + abs(b), abs(abs(a) - abs(b))
        for value in dict.fromkeys((a - b, b - a, -right, larger, -larger, smaller, -smaller)):
            if value == right:
                continue
            others = [("+", counted(t, r)) for t, r in left]
            words = said(
                "{a} and {b} make {right}, not {value}", shows=build.number(a), a=a, b=b, right=right, value=value
            )
            yield add([("+", counted(value, rest)), *others]), words


def _divisor_sign(own: n.Node, other: n.Node) -> Iterator[Wrong]:
    """2x/(−3) = 4 as 2x = 12."""
    bare = n.bare(own)
    value = number_of(other)
    below = number_of(bare.denominator) if isinstance(bare, n.Fraction) else None
    if isinstance(bare, n.Fraction) and below is not None and below < 0 and value:
        words = said("the sign of ({below})·{value}", below=below, value=other)
        yield equals(n.bare(bare.numerator), build.number(-below * value)), words


def _product_sign(node: n.Node) -> Iterator[Wrong]:
    for own, other in both_ways(node):
        yield from _divisor_sign(own, other)
    if isinstance(node, n.Product) and any(_negative(f) for f in node.factors):
        yield opposite(node), said("the sign of {product}", product=node)
        sums = [k for k, f in enumerate(node.factors) if isinstance(n.bare(f), n.Sum)]
        if len(sums) == 1:
            yield from _one_sign(node.factors[sums[0]], multiply(f for k, f in enumerate(node.factors) if k != sums[0]))
    if isinstance(node, n.Product) and len(node.factors) == 2 and "÷" not in node.operators:
        yield from _sign_in_expansion(node)
    if isinstance(node, n.Signed) and node.sign == "-" and isinstance(node.child, n.Product):
        inside = [f for f in node.child.factors if isinstance(n.bare(f), n.Sum)]
        if len(inside) == 1:
            outer = n.Signed("-", multiply(f for f in node.child.factors if f is not inside[0]))
            yield from _one_sign(inside[0], outer)
        yield node.child, said("the sign of {product}", product=node)


def _sign_in_expansion(product: n.Product) -> Iterator[Wrong]:
    """Two brackets multiplied out, the sign of one product of two terms gone wrong: (x-2)(x^2-1) as x^3 - x - 2x^2 -
    2."""
    first, second = (terms(f) for f in product.factors)
    if len(first) < 2 or len(second) < 2:
        return
    for (s, a), (t, b) in itertools.product(first, second):
        if "-" in (s, t):
            doubled = multiply([n.Integer(2), a, b])
            words = said("{a} times {b}", shows=a, a=_with_sign(s, a), b=_with_sign(t, b))
            yield add([("+", product), ("-" if s == t else "+", doubled)]), words


def _with_sign(sign: str, term: n.Node) -> n.Node:
    return n.Signed("-", term) if sign == "-" else term


def _one_sign(bracket: n.Node, outer: n.Node) -> Iterator[Wrong]:
    """A product with a bracket in which the sign of one term goes wrong."""
    items = terms(bracket)
    for k, (sign, term) in enumerate(items):
        pieces = [("-" if (s == "-") != (j == k) else "+", t) for j, (s, t) in enumerate(items)]
        words = said("{outer} times {term}", outer=outer, term=_with_sign(sign, term))
        yield multiply([outer, add(pieces)]), words


def _negative(node: n.Node) -> bool:
    value = number_of(node)
    return (value is not None and value < 0) or isinstance(n.bare(node), n.Signed)


SLIPS = (
    Slip(
        id="left-to-right",
        against_rank=True,
        name="Read from left to right",
        kind="procedure",
        topic="order of operations",
        done="{what}.",
        why="× and ÷ hold tighter than + and −.",
        cue="Underline the one operation that comes next.",
        examples=(("2 + 5·4", "7·4"), ("3/4 + 1/4÷1/4", "1÷1/4")),
        wrong=_left_to_right,
        innocent=(("2·5 + 4", "10 + 4"), ("(2 + 5)·4", "7·4")),
        lurks_in=("work-inside-brackets", "multiply-and-divide"),
        likely=4.2,
        rank=15,
    ),
    Slip(
        id="multiply-before-divide",
        against_rank=True,
        name="Multiplied before dividing",
        kind="procedure",
        topic="order of operations",
        done="{what}.",
        why="× and ÷ share a rank; ÷ stands first here.",
        cue="× and ÷ share a rank: from the left.",
        examples=(("36÷4·3", "36÷12"),),
        wrong=_multiply_first,
        innocent=(("36÷4·3", "9·3"), ("36÷(4·3)", "36÷12")),
        lurks_in=("multiply-and-divide",),
    ),
    Slip(
        id="add-before-subtract",
        against_rank=True,
        name="Added before subtracting",
        kind="procedure",
        topic="order of operations",
        done="{what}.",
        why="+ and − share a rank; − stands first here.",
        cue="+ and − share a rank: from the left.",
        examples=(("19 - 6 + 8", "19 - 14"),),
        wrong=_add_first,
        innocent=(("19 - 6 + 8", "13 + 8"), ("19 - (6 + 8)", "19 - 14")),
        lurks_in=("add-and-subtract",),
    ),
    Slip(
        id="multiply-before-power",
        claim="2(a + b)^2 = (2a + 2b)^2",
        against_rank=True,
        name="Multiplied before raising",
        kind="procedure",
        topic="order of operations",
        done="{what}.",
        why="The exponent belongs to the base that it stands at.",
        cue="A power holds its base only.",
        examples=(("5·2^3", "10^3"),),
        wrong=_multiply_before_power,
        innocent=(("5·2^3", "5·8"), ("(5·2)^3", "10^3")),
        lurks_in=("evaluate-power",),
    ),
    Slip(
        id="minus-inside-power",
        claim="-a^2 = (-a)^2",
        against_rank=True,
        name="The minus taken into the power",
        kind="notation",
        topic="order of operations",
        done="{what}.",
        why="Without brackets the minus is not part of the base.",
        cue="Brackets or it is not in the base.",
        examples=(("-3^2", "9"), ("(-3)^2", "-9")),
        wrong=_minus_inside,
        innocent=(("-3^2", "-9"), ("(-3)^2", "9")),
        lurks_in=("evaluate-power", "evaluate-bars"),
    ),
    Slip(
        id="sign-of-sum",
        name="Sign of a sum",
        kind="care",
        topic="polynomials",
        done="{what}.",
        why="With different signs the sizes are subtracted, with the same sign they are added.",
        cue="Same signs add, different signs subtract; the larger one gives the sign.",
        examples=(("-8x - 3x", "-5x"),),
        wrong=_sum_sign,
        innocent=(("-8x - 3x", "-11x"), ("-8x + 3x", "-5x")),
        lurks_in=("add-and-subtract", "join-signs", "like-terms", "simplify-numerator", "simplify-sides"),
        likely=2.4,
    ),
    Slip(
        id="sign-of-product",
        name="Sign of a product",
        kind="care",
        topic="polynomials",
        done="{what} went wrong.",
        why="Minus times minus is plus, minus times plus is minus.",
        cue="Settle the sign first, then the number.",
        examples=(("(-3)(-4)", "-12"), ("(x-2)(x^2+3x-1)", "x^3 + 3x^2 - x - 2x^2 - 6x - 2")),
        wrong=_product_sign,
        innocent=(("(-3)(-4)", "12"),),
        lurks_in=("multiply-and-divide", "distribute"),
        likely=2.4,
        rank=13,
        scope="any",
    ),
)
