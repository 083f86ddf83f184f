"""Slips with exponents."""

from __future__ import annotations

from collections.abc import Iterator
from fractions import Fraction as Q

from algebra.slips.parts import (
    add,
    base_and_exponent,
    counted,
    equals,
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


def _pairs(node: n.Node) -> Iterator[tuple[list[n.Node], n.Node, Q, Q]]:
    """Two factors of a product with the same base: the other factors, the base, both exponents."""
    items = factors(node)
    for i, j, rest in two_of(items):
        a, b = base_and_exponent(items[i]), base_and_exponent(items[j])
        if a and b and a[0] == b[0] and (a[1] != 1 or b[1] != 1):
            yield rest, a[0], a[1], b[1]


def _raised(node: n.Node) -> tuple[n.Node, n.Node] | None:
    """The base and the exponent of a power; a letter or number alone has the exponent 1."""
    bare = n.bare(node)
    if isinstance(bare, n.Power):
        return n.bare(bare.base), n.bare(bare.exponent)
    return (bare, build.ONE) if isinstance(bare, n.Letter | n.Integer) else None


def _letters_above(node: n.Node) -> Iterator[tuple[list[n.Node], n.Node, n.Node, n.Node]]:
    """Two factors with the same base of which one has a letter above: the other factors, the base, both exponents."""
    items = factors(node)
    for i, j, rest in two_of(items):
        a, b = _raised(items[i]), _raised(items[j])
        if a and b and a[0] == b[0] and (n.letters(a[1]) or n.letters(b[1])):
            yield rest, a[0], a[1], b[1]


def _product_multiplied(node: n.Node) -> Iterator[Wrong]:
    if isinstance(node, n.Product):
        for rest, base, above, other in _letters_above(node):
            words = said("{above} and {other} were multiplied", shows=above, above=above, other=other)
            yield multiply([power(base, n.Group(multiply([above, other]))), *rest]), words
        for rest, base, m, k in _pairs(node):
            words = said("{m} and {k} were multiplied", shows=build.number(m), m=m, k=k)
            yield multiply([power(base, m * k), *rest]), words


def _bases_joined(node: n.Node) -> Iterator[Wrong]:
    """x²·y³ as (xy)⁵."""
    if not isinstance(node, n.Product):
        return
    items = factors(node)
    for i, j, rest in two_of(items):
        a, b = base_and_exponent(items[i]), base_and_exponent(items[j])
        if (
            a
            and b
            and a[0] != b[0]
            and (a[1] > 1 or b[1] > 1)
            and isinstance(items[i], n.Power)
            and isinstance(items[j], n.Power)
        ):
            words = said("{first} and {second} have different bases", shows=items[i], first=items[i], second=items[j])
            yield multiply([power(multiply([a[0], b[0]]), a[1] + b[1]), *rest]), words


def _factor_lost(node: n.Node) -> Iterator[Wrong]:
    """2x·3x as 6x, or x·x as 2x."""
    if not isinstance(node, n.Product):
        return
    items = factors(node)
    for i, j, rest in two_of(items):
        letter = items[i]
        if isinstance(letter, n.Letter) and letter == items[j]:
            once = said("{letter}·{letter} was written as {letter}", shows=letter, letter=letter)
            yield multiply([letter, *rest]), once
            if not rest:
                added = said("{letter}·{letter} was taken for {letter} + {letter}", shows=letter, letter=letter)
                yield multiply([n.Integer(2), letter]), added


def _bases_multiplied(node: n.Node) -> Iterator[Wrong]:
    if isinstance(node, n.Product):
        for rest, base, above, other in _letters_above(node):
            if isinstance(base, n.Integer):
                square = n.Integer(base.value**2)
                words = said("{base}·{base} was taken as the new base", base=base)
                yield multiply([power(square, n.Group(add([("+", above), ("+", other)]))), *rest]), words
        for rest, base, m, k in _pairs(node):
            if isinstance(base, n.Integer):
                square = n.Integer(base.value**2)
                words = said("{base}·{base} was taken as the new base", base=base)
                yield multiply([power(square, m + k), *rest]), words


def _power_added(node: n.Node) -> Iterator[Wrong]:
    if not isinstance(node, n.Power):
        return
    outer = number_of(node.exponent)
    inner = factors(node.base)
    raised = _raised(node.base)
    if isinstance(n.bare(node.base), n.Power) and raised and (n.letters(node.exponent) or n.letters(raised[1])):
        above = add([("+", raised[1]), ("+", n.bare(node.exponent))])
        words = said("exponents were added to {outer} in {power}", outer=n.bare(node.exponent), power=node)
        yield power(raised[0], n.Group(above)), words
        return
    if outer is None or not any(isinstance(n.bare(f), n.Power) for f in inner):
        return
    pieces: list[n.Node] = []
    for part in inner:
        found = base_and_exponent(part)
        if isinstance(n.bare(part), n.Power) and found:
            pieces.append(power(found[0], found[1] + outer))
        else:
            pieces.append(power(part, outer))
    yield multiply(pieces), said("exponents were added to {outer} in {power}", outer=outer, power=node)


def _quotient_divided(node: n.Node) -> Iterator[Wrong]:
    if not isinstance(node, n.Fraction):
        return
    above, below = factors(node.numerator), factors(node.denominator)
    yield from _all_divided(above, below)
    for i, top in enumerate(above):
        for j, bottom in enumerate(below):
            a, b = base_and_exponent(top), base_and_exponent(bottom)
            if a and b and a[0] == b[0] and b[1] and (a[1] / b[1]).denominator == 1 and b[1] != 1:
                rest = [f for p, f in enumerate(above) if p != i]
                left = [f for p, f in enumerate(below) if p != j]
                yield (
                    over(multiply([power(a[0], a[1] / b[1]), *rest]), multiply(left)),
                    said("{a} was divided by {b}", shows=build.number(a[1]), a=a[1], b=b[1]),
                )


def _all_divided(above: list[n.Node], below: list[n.Node]) -> Iterator[Wrong]:
    """a⁸b⁶/(a⁴b) as a²b⁶: every exponent above divided by the one below, also by 1."""
    rest, left, words = list(above), list(below), None
    pieces: list[n.Node] = []
    for top in above:
        for bottom in left:
            a, b = base_and_exponent(top), base_and_exponent(bottom)
            if a and b and n.letters(a[0]) and a[0] == b[0] and a[1] > 1 and (a[1] / b[1]).denominator == 1:
                pieces.append(power(a[0], a[1] / b[1]))
                rest.remove(top)
                left.remove(bottom)
                if b[1] != 1:
                    words = said("{a} was divided by {b}", shows=build.number(a[1]), a=a[1], b=b[1])
                break
    if words is not None and len(pieces) > 1:
        yield over(multiply([*pieces, *rest]), multiply(left)), words


def _exponents_over_sum(node: n.Node) -> Iterator[Wrong]:
    if not isinstance(node, n.Sum):
        return
    items = terms(node)
    parts = signed(items)
    if parts is None:
        return
    for i, j, rest in two_of(items):
        a, b = factors(items[i][1]), factors(items[j][1])
        p = [base_and_exponent(f) for f in a if number_of(f) is None]
        q = [base_and_exponent(f) for f in b if number_of(f) is None]
        if len(p) == len(q) == 1 and p[0] and q[0] and p[0][0] == q[0][0]:
            raised = power(p[0][0], p[0][1] + q[0][1])
            first, second = items[i][1], items[j][1]
            words = said("{first} and {second} are unlike terms", shows=first, first=first, second=second)
            if p[0][1] == q[0][1]:  # x² + x² as x⁴
                words = said(
                    "the exponents of {first} and {second} were added, though the terms are added",
                    first=first,
                    second=second,
                )
            if parts[i][0] > 0 > parts[j][0] and p[0][1] > q[0][1]:  # x⁵ − x² as x³
                lowered = power(p[0][0], p[0][1] - q[0][1])
                size = parts[i][0] + parts[j][0] or parts[i][0]
                yield add([("+", counted(size, lowered)), *rest]), words
            sizes = [parts[i][0] + parts[j][0], parts[i][0] * parts[j][0]]
            for size in dict.fromkeys(sizes if (p[0][1], q[0][1]) != (1, 1) else sizes[:1]):  # 2x + 3x as 5x²
                yield add([("+", counted(size, raised)), *rest]), words


def _skips_factor(node: n.Node) -> Iterator[Wrong]:
    yield from _root_squared_alone(node)
    if not isinstance(node, n.Power):
        return
    inner = n.bare(node.base)
    if isinstance(inner, n.Signed) and isinstance(n.bare(inner.child), n.Product) and inner.sign == "-":
        first, *others = factors(inner.child)
        negative = opposite(first)
        words = said("{skipped} was not raised", shows=first, skipped=negative)
        yield multiply([n.Group(negative), *(power(f, node.exponent) for f in others)]), words
        yield from _only_one_raised([n.Group(negative), *others], node.exponent)
    if not isinstance(inner, n.Product):
        return
    items = factors(node.base)
    for k, skipped in enumerate(items):
        pieces = [f if p == k else power(f, node.exponent) for p, f in enumerate(items)]
        yield multiply(pieces), said("{skipped} was not raised", shows=skipped, skipped=skipped)
    yield from _only_one_raised(items, node.exponent)


def _root_squared_alone(body: n.Node) -> Iterator[Wrong]:
    """2√(x + 1) = 6 as 2(x + 1) = 36: both sides were squared, but for the factor before the root."""
    for own, other in both_ways(body):
        inner = factors(own)
        roots = [f for f in inner if isinstance(n.bare(f), n.Root)]
        scale = [f for f in inner if f not in roots]
        if len(terms(own)) == 1 and len(roots) == 1 and scale and n.letters(roots[0]):
            words = said("the root was squared, but not {scale}", shows=scale[0], scale=multiply(scale))
            yield equals(multiply([*scale, power(roots[0], 2)]), power(other, 2)), words


def _only_one_raised(items: list[n.Node], exponent: n.Node) -> Iterator[Wrong]:
    """(5xy)^2 as 5xy^2."""
    for k, raised in enumerate(items if len(items) > 2 else ()):
        pieces = [power(f, exponent) if p == k else f for p, f in enumerate(items)]
        others = multiply(f for p, f in enumerate(items) if p != k)
        yield (
            multiply(pieces),
            said("only {raised} was raised, not {others}", shows=raised, raised=raised, others=others),
        )


def _over_sum(node: n.Node) -> Iterator[Wrong]:
    if not isinstance(node, n.Power) or not isinstance(n.bare(node.base), n.Sum) or number_of(node.exponent) is None:
        return
    raised = [(s, power(t, node.exponent)) for s, t in terms(node.base)]
    words = said("each term of {base} was raised by itself", base=node.base)
    yield add(raised), words
    if any(s == "-" for s, _ in raised):
        yield add([("+", t) for _, t in raised]), words


def _negative_power(node: n.Node) -> Iterator[Wrong]:
    if not isinstance(node, n.Power):
        return
    exponent = number_of(node.exponent)
    if exponent is None or exponent >= 0:
        return
    raised = power(node.base, -exponent)
    words = said("{power} was taken for a negative number", power=node)
    yield opposite(raised), words
    yield opposite(over(build.ONE, raised)), words


def _negative_moves_term(node: n.Node) -> Iterator[Wrong]:
    if isinstance(node, n.Fraction) and isinstance(n.bare(node.numerator), n.Sum):
        items = terms(node.numerator)
        for k, (sign, term) in enumerate(items):
            pieces = factors(term)
            gone = [f for f in pieces if isinstance(f, n.Power) and (number_of(f.exponent) or 0) < 0]
            if len(gone) == 1 and isinstance(gone[0], n.Power):
                rest = [f for f in pieces if f is not gone[0]]
                below = power(gone[0].base, -(number_of(gone[0].exponent) or 0))
                top = add([*items[:k], (sign, multiply(rest)), *items[k + 1 :]])
                words = said(
                    "{power} was moved across the bar out of its term as if it were a factor",
                    shows=gone[0],
                    power=gone[0],
                )
                yield over(top, multiply([node.denominator, below])), words
                if not rest and len(items) > 1:  # nothing is left of the term, so it is not written any more
                    yield over(add([*items[:k], *items[k + 1 :]]), multiply([node.denominator, below])), words
    if not isinstance(node, n.Fraction) or not isinstance(n.bare(node.denominator), n.Sum):
        return
    items = terms(node.denominator)
    for k, (sign, term) in enumerate(items):
        found = base_and_exponent(term)
        if sign == "+" and found is not None and found[1] < 0:  # 1/(3^-1 + 2) as 3/2
            words = said(
                "{power} was moved across the bar out of its sum as if it were a factor", shows=term, power=term
            )
            raised = power(found[0], -found[1])
            yield over(multiply([node.numerator, raised]), add([*items[:k], *items[k + 1 :]])), words
    moved = []
    for sign, term in items:
        found = base_and_exponent(term)
        if found is None or found[1] >= 0:
            return
        moved.append((sign, power(found[0], -found[1])))
    words = said("the terms of {bottom} were moved across the bar as if they were factors", bottom=node.denominator)
    yield multiply([node.numerator, add(moved)]), words


def _negative_takes_coefficient(node: n.Node) -> Iterator[Wrong]:
    if not isinstance(node, n.Product):
        return
    items = factors(node)
    numbers = [f for f in items if number_of(f) is not None]
    powers = [f for f in items if isinstance(f, n.Power) and (number_of(f.exponent) or 0) < 0]
    rest = [f for f in items if f not in numbers and f not in powers]
    if numbers and powers:
        below = [power(p.base, -(number_of(p.exponent) or 0)) for p in powers if isinstance(p, n.Power)]
        words = said("{number} went below the bar with {power}", shows=numbers[0], number=numbers[0], power=powers[0])
        yield over(multiply(rest), multiply([*numbers, *below])), words


def _zero_power(node: n.Node) -> Iterator[Wrong]:
    if isinstance(node, n.Power) and number_of(node.exponent) == 0:
        yield build.ZERO, said("{power} was taken for 0", power=node)


def _top_only(node: n.Node) -> Iterator[Wrong]:
    inner = n.bare(node.base) if isinstance(node, n.Power) else None
    if isinstance(node, n.Power) and isinstance(inner, n.Fraction):
        bottom = inner.denominator
        words = said("{bottom} was not raised", shows=bottom, bottom=bottom)
        yield over(power(inner.numerator, node.exponent), bottom), words


def _base_times_exponent(node: n.Node) -> Iterator[Wrong]:
    if isinstance(node, n.Power):
        words = said(
            "{power} was taken for {base} times {exponent}", power=node, base=node.base, exponent=node.exponent
        )
        yield multiply([node.base, node.exponent]), words
        above = n.bare(node.exponent)
        if isinstance(above, n.Fraction) and number_of(above) is not None:  # 16^(3/4) as (16/4)^3
            words = said(
                "{base} was divided by {index}, where its root is taken", base=node.base, index=above.denominator
            )
            yield power(over(node.base, above.denominator), above.numerator), words


SLIPS = (
    Slip(
        id="square-lost-in-product",
        name="Wrote a factor once",
        kind="procedure",
        topic="exponents",
        done="{what}.",
        why="3·3 is 9, not 3 and not 6.",
        cue="Count how often the letter stands as a factor.",
        examples=(("2x·3x", "6x"), ("x·x", "2x")),
        wrong=_factor_lost,
        innocent=(("2x·3x", "6x^2"), ("2x + 3x", "5x")),
        lurks_in=("product-of-powers", "distribute"),
        likely=1.6,
    ),
    Slip(
        id="unlike-bases-joined",
        name="Joined different bases",
        kind="concept",
        topic="exponents",
        done="{what}.",
        why="2²·3³ is 108, and 6⁵ is 7776.",
        cue="Only powers of one base come together.",
        examples=(("x^2·y^3", "(xy)^5"), ("2^3·3^2", "6^5")),
        wrong=_bases_joined,
        innocent=(("x^2·x^3", "x^5"), ("x^2·y^2", "(xy)^2")),
        lurks_in=("product-of-powers", "prime-base"),
        likely=1.6,
    ),
    Slip(
        id="product-rule-multiplied",
        name="Multiplied the exponents",
        kind="concept",
        topic="exponents",
        done="{what}; in a product of powers they are added.",
        why="x²·x⁵ is two factors and five more: seven.",
        cue="Write the factors out once.",
        examples=(
            ("x^2·x^5", "x^10"),
            ("x^n·x^3", "x^(3n)"),
        ),
        wrong=_product_multiplied,
        innocent=(("x^2·x^5", "x^7"), ("(x^2)^5", "x^10")),
        lurks_in=("product-of-powers",),
    ),
    Slip(
        id="power-rule-added",
        claim="(a^2)^3 = a^5",
        name="Added the exponents",
        kind="concept",
        topic="exponents",
        done="{what}; in a power of a power they are multiplied.",
        why="(x²)⁵ is x² five times.",
        cue="How many times does the inner power stand there?",
        examples=(
            ("(x^2)^5", "x^7"),
            ("(x^n)^2", "x^(n+2)"),
        ),
        wrong=_power_added,
        innocent=(("(x^2)^5", "x^10"), ("x^2·x^5", "x^7")),
        lurks_in=("power-of-power", "common-base", "substitute"),
    ),
    Slip(
        id="quotient-rule-divided",
        name="Divided the exponents",
        kind="concept",
        topic="exponents",
        done="{what}; in a quotient of powers they are subtracted.",
        why="Of twelve factors three cancel: nine are left.",
        cue="Cancel factor by factor.",
        examples=(("x^12/x^3", "x^4"),),
        wrong=_quotient_divided,
        innocent=(("x^12/x^3", "x^9"),),
        lurks_in=("quotient-of-powers",),
    ),
    Slip(
        id="bases-multiplied",
        name="Multiplied the bases",
        kind="concept",
        topic="exponents",
        done="{what}; the base stays.",
        why="3²·3⁴ is six factors 3, not six factors 9.",
        cue="Same base: keep it.",
        examples=(("3^2·3^4", "9^6"),),
        wrong=_bases_multiplied,
        innocent=(("3^2·3^4", "3^6"), ("3^4·3^4", "9^4")),
        lurks_in=("product-of-powers", "prime-base", "equate-exponents"),
    ),
    Slip(
        id="exponents-added-over-sum",
        claim="a^2 + a^3 = a^5",
        name="Added exponents in a sum",
        kind="concept",
        topic="exponents",
        done="{what}: a sum has no law of exponents.",
        why="2³ + 2⁴ is 24, and 2⁷ is 128.",
        cue="Laws of exponents are for products.",
        examples=(("x^3 + x^4", "x^7"),),
        wrong=_exponents_over_sum,
        innocent=(("x^3·x^4", "x^7"), ("x^3 + x^3", "2x^3")),
        lurks_in=("factor-out-power", "like-terms"),
        likely=2.0,
    ),
    Slip(
        id="power-skips-factor",
        claim="(2a)^3 = 2a^3",
        name="Raised one factor only",
        kind="concept",
        topic="exponents",
        done="{what}.",
        why="The exponent holds for every factor in the bracket.",
        cue="Give every factor the exponent.",
        examples=(("(4x)^2", "4x^2"), ("(5√(x-1))^2", "5(x-1)"), ("2√x = x - 3", "2x = x^2 - 6x + 9")),
        wrong=_skips_factor,
        scope="any",
        innocent=(("(4x)^2", "16x^2"), ("4(x)^2", "4x^2")),
        lurks_in=("power-of-product", "square-both-sides"),
    ),
    Slip(
        id="power-over-sum",
        claim="(a + b)^2 = a^2 + b^2",
        name="Raised each term",
        kind="concept",
        topic="exponents",
        done="{what}: the middle term is missing.",
        why="(3 + 4)² is 49, and 3² + 4² is 25.",
        cue="Write the bracket twice and multiply out.",
        examples=(("(x+7)^2", "x^2+49"), ("(1+√(x+4))^2", "1+x+4")),
        wrong=_over_sum,
        innocent=(("(x+7)^2", "x^2+14x+49"), ("(7x)^2", "49x^2")),
        lurks_in=("power-of-product", "distribute-roots", "square-of-sum", "square-both-sides"),
        likely=4.0,
    ),
    Slip(
        id="negative-power-negative",
        claim="a^-2 = -a^2",
        name="Negative exponent, negative number",
        kind="concept",
        topic="exponents",
        done="{what}.",
        why="A negative exponent makes a reciprocal; it says nothing of the sign.",
        cue="Turn it over, then drop the minus.",
        examples=(("3^-2", "-9"), ("3^-2", "-1/9")),
        wrong=_negative_power,
        innocent=(("3^-2", "1/9"), ("-3^2", "-9")),
        lurks_in=("negative-exponent", "reciprocal-of-base", "power-never-negative"),
    ),
    Slip(
        id="negative-power-moves-term",
        name="Moved a term across the bar",
        kind="concept",
        topic="exponents",
        done="{what}.",
        why="Only factors of the whole numerator or denominator move.",
        cue="In a sum, write each power as a fraction first.",
        examples=(("1/(2^-1 + 5^-1)", "2 + 5"), ("(2x^-1 + 3)/5", "(2 + 3)/(5x)")),
        wrong=_negative_moves_term,
        rank=20,
        innocent=(("1/(2^-1·5^-1)", "2·5"),),
        lurks_in=("negative-exponent", "reciprocal-both-sides"),
    ),
    Slip(
        id="negative-power-takes-coefficient",
        name="Took the coefficient along",
        kind="concept",
        topic="exponents",
        done="{what}.",
        why="The exponent belongs to its base only.",
        cue="What does the exponent touch?",
        examples=(("6x^-1", "1/(6x)"),),
        wrong=_negative_takes_coefficient,
        innocent=(("6x^-1", "6/x"), ("(6x)^-1", "1/(6x)")),
        lurks_in=("negative-exponent",),
    ),
    Slip(
        id="zero-power-zero",
        name="Exponent 0 made 0",
        kind="concept",
        topic="exponents",
        done="{what}.",
        why="Going down, 9², 9¹, 9⁰ is divided by 9 each time: 81, 9, 1.",
        cue="a⁰ is 1.",
        examples=(("9^0", "0"),),
        wrong=_zero_power,
        innocent=(("9^0", "1"), ("0^9", "0")),
        lurks_in=("zero-exponent",),
    ),
    Slip(
        id="power-of-fraction-top-only",
        claim="(a/b)^2 = a^2/b",
        name="Raised the numerator only",
        kind="concept",
        topic="exponents",
        done="{what}.",
        why="(3/5)² is 3/5 times 3/5.",
        cue="Write the fraction twice.",
        examples=(("(3/5)^2", "9/5"),),
        wrong=_top_only,
        innocent=(("(3/5)^2", "9/25"),),
        lurks_in=("power-of-quotient",),
    ),
    Slip(
        id="base-times-exponent",
        name="Multiplied base and exponent",
        kind="concept",
        topic="exponents",
        done="{what}.",
        why="4³ is 4·4·4 = 64, and 4·3 is 12.",
        cue="The exponent counts factors.",
        examples=(("4^3", "12"),),
        wrong=_base_times_exponent,
        innocent=(("4^3", "64"), ("4·3", "12")),
        lurks_in=("evaluate-power", "prime-base", "evaluate-numeric-power", "common-base"),
        likely=2.0,
    ),
)
