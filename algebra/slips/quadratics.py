"""Slips with quadratic equations."""

from __future__ import annotations

from collections.abc import Iterator
from fractions import Fraction as Q
from itertools import product

from algebra.slips.parts import (
    add,
    both_signs,
    dropped,
    either,
    equals,
    factors,
    is_zero,
    multiply,
    number_of,
    opposite,
    over,
    power,
    root,
    signed,
    square_of,
    terms,
)
from algebra.slips.slip import Ending, Slip, Wrong, both_ways, sides
from algebra.slips.words import said
from algebra.tree import build
from algebra.tree import nodes as n
from algebra.tree import statements as ln


def _squared(own: n.Node) -> tuple[Q, n.Node] | None:
    """(c, base) of c·base², else None."""
    items = factors(own)
    powers = [
        f for f in items if isinstance(n.bare(f), n.Power) and n.bare(f).children[1] == n.Integer(2) and n.letters(f)
    ]
    rest = [f for f in items if f not in powers]
    if len(powers) != 1 or any(number_of(f) is None for f in rest):
        return None
    scale = Q(1)
    for f in rest:
        scale *= number_of(f) or 1
    return scale, n.bare(n.bare(powers[0]).children[0])


def _alone(own: n.Node, other: n.Node) -> tuple[n.Node, n.Node]:
    """x² - 9 = 0 with the square alone on its side."""
    items = terms(own)
    numbers = [(s, t) for s, t in items if number_of(t) is not None]
    if len(items) == 2 and len(numbers) == 1 and number_of(other) is not None:
        sign, number = numbers[0]
        value = (number_of(other) or 0) + (number_of(number) or 0) * (1 if sign == "-" else -1)
        held, term = next((s, t) for s, t in items if number_of(t) is None)
        if held == "+":
            return term, build.number(value)
    return own, other


def _no_plus_minus(body: n.Node) -> Iterator[Wrong]:
    for first, second in both_ways(body):
        own, other = _alone(first, second)
        found = _squared(own)
        if found and not n.letters(other):
            scale, base = found
            words = said("{other} has two roots, one positive and one negative", other=other)
            left = multiply([root(build.number(scale)), base])
            yield equals(left, root(other)), words
            yield equals(left, opposite(root(other))), words
        if isinstance(own, n.Power) and not n.letters(other):
            exponent = number_of(own.exponent)
            if exponent and exponent.numerator % 2 == 0 and exponent.denominator > 1:
                words = said("{other} has two roots, one positive and one negative", other=other)
                yield equals(n.bare(own.base), power(other, 1 / exponent)), words


def _collapsed(body: n.Node) -> Iterator[Wrong]:
    for own, other in both_ways(body):
        if isinstance(other, n.Sum) and other.signs == ("±",):
            a, b = other.terms
            words = said("{number} was joined to the number behind ±", shows=a, number=a)
            for sign in "+-":
                yield equals(own, both_signs(add([("+", a), (sign, b)]))), words


def _parts_in(own: n.Node) -> tuple[str, dict[n.Node | None, Q]] | None:
    """The one letter of a side, and the numbers of its terms by what stands behind them; else None."""
    parts = signed(terms(own))
    names = n.letters(own)
    if parts is None or len(names) != 1:
        return None
    return next(iter(names)), {rest: a for a, rest in parts}


def _half(own: n.Node) -> Q | None:
    """Half of b in x² + bx, else None."""
    found = _parts_in(own)
    if found is None:
        return None
    x, parts = found
    square, letter = square_of(x), n.Letter(x)
    if parts.get(square) == 1 and letter in parts and set(parts) <= {square, letter}:
        return parts[letter] / 2
    return None


def _shifted_square(x: str, half: Q) -> n.Node:
    return power(add([("+", n.Letter(x)), ("+", build.number(half))]), 2)


def _square_one_side(body: n.Node) -> Iterator[Wrong]:
    for own, other in both_ways(body):
        half = _half(own)
        if half:
            square = half * half
            words = said("{square} was added on one side only", shows=build.number(square), square=square)
            yield equals(add([*terms(own), ("+", build.number(square))]), other), words


def _half_not_squared(body: n.Node) -> Iterator[Wrong]:
    for own, other in both_ways(body):
        half = _half(own)
        if half:
            x = next(iter(n.letters(own)))
            for added in dict.fromkeys((abs(half), half, 2 * half, abs(2 * half), 4 * half * half)):
                words = said(
                    "{added} was added, but half of {whole}, squared, is {square}",
                    shows=build.number(added),
                    added=added,
                    whole=2 * half,
                    square=half * half,
                )
                yield equals(_shifted_square(x, half), add([("+", other), ("+", build.number(added))])), words


def _leading_left(body: n.Node) -> Iterator[Wrong]:
    for own, other in both_ways(body):
        found = _parts_in(own)
        value = number_of(other)
        if found is None or value is None:
            continue
        x, parts = found
        a, b = parts.get(square_of(x)), parts.get(n.Letter(x))
        if not a or not b or a == 1:
            continue
        words = said("the square was completed before dividing by {a}", a=a)
        for half in dict.fromkeys((b / 2, b / a / 2)):
            square = half * half
            for added in dict.fromkeys((square, a * square, square / a, (b / 2) ** 2, a * (b / 2) ** 2)):
                left = multiply([build.number(a), _shifted_square(x, half)])
                yield equals(left, build.number(value + added)), words


def _not_zero(body: n.Node) -> Iterator[Wrong]:
    for own, other in both_ways(body):
        items = [f for f in factors(own) if n.letters(f)]
        if len(items) > 1 and number_of(other) not in (None, 0):
            words = said("the factors were set equal to {other}, not to 0", other=other)
            yield either(equals(n.bare(f), other) for f in items), words
            words = said("the factors were set equal to 0, but the product is {other}", other=other)
            yield either(equals(n.bare(f), build.ZERO) for f in items), words


def _roots(body: n.Node) -> list[tuple[str, Q, Q]] | None:
    """(unknown, a, b) of each linear factor a·x + b of a product that is 0."""
    for own, other in both_ways(body):
        if not is_zero(other):
            continue
        found = []
        for f in factors(own):
            if not n.letters(f):
                continue
            parts = _parts_in(f)
            if parts is None or not set(parts[1]) <= {n.Letter(parts[0]), None} or n.Letter(parts[0]) not in parts[1]:
                return None
            x, values = parts
            found.append((x, values[n.Letter(x)], values.get(None, Q(0))))
        if len(found) > 1:
            return found
    return None


_FEW_FACTORS = 5


def _sign_from_factor(body: n.Node) -> Iterator[Wrong]:
    found = _roots(body)
    if found:
        words = said("a root was read with the sign that stands in its factor")
        for wrong in _wrong_signs(len(found)):
            # who reads signs wrongly still reads a root from each factor: two that become one are another error
            merged = len({w * b / a for w, (_, a, b) in zip(wrong, found, strict=True)}) < len(
                {-b / a for _, a, b in found}
            )
            if any(w == 1 for w in wrong) and not merged:
                yield either(_value_of(x, w * b / a) for w, (x, a, b) in zip(wrong, found, strict=True)), words


def _wrong_signs(count: int) -> Iterator[tuple[int, ...]]:
    """Which signs may be wrong: any; of many factors all of them or one."""
    if count <= _FEW_FACTORS:
        yield from product((1, -1), repeat=count)
        return
    yield (1,) * count
    yield from (tuple(1 if k == at else -1 for k in range(count)) for at in range(count))


def _value_of(letter: str, value: Q) -> n.Node:
    return equals(n.Letter(letter), build.number(value))


def _not_divided(body: n.Node) -> Iterator[Wrong]:
    found = _roots(body)
    if found and any(a != 1 for _, a, _ in found):
        for sign in (1, -1):
            yield (
                either(_value_of(x, -b if a == 1 else sign * -b) for x, a, b in found),
                said("the coefficient in the factor was forgotten"),
            )


def _divided_out(body: n.Node) -> Iterator[Wrong]:
    pair = sides(body)
    if not pair:
        return
    for x in sorted(n.letters(body)):
        letter = build.letter(x)
        divided = [add((s, over(t, letter)) for s, t in terms(side)) for side in pair]
        yield equals(*divided), said("both sides were divided by {divisor}, which may be 0", divisor=letter)
    shared = [
        part
        for part in dict.fromkeys(n.bare(f) for _, t in terms(pair[0]) for f in factors(t))
        if n.letters(part)
        and not isinstance(part, n.Letter)
        and all(any(n.bare(f) == part for f in factors(t)) for side in pair for _, t in terms(side))
    ]
    for part in shared:
        divided = [add((s, multiply(dropped(factors(t), part))) for s, t in terms(side)) for side in pair]
        yield equals(*divided), said("both sides were divided by {divisor}, which may be 0", shows=part, divisor=part)


def _abc(body: n.Node) -> tuple[str, Q, Q, Q] | None:
    """(unknown, a, b, c) of ax² + bx + c = 0, else None."""
    for own, other in both_ways(body):
        if not is_zero(other):
            continue
        found = _parts_in(own)
        if found is None:
            return None
        x, parts = found
        square, letter = square_of(x), n.Letter(x)
        if set(parts) <= {square, letter, None} and parts.get(square):
            return x, parts[square], parts.get(letter, Q(0)), parts.get(None, Q(0))
    return None


def _formula(x: str, minus_b: Q, d: Q, below: Q) -> n.Node:
    top = n.Sum((build.number(minus_b), root(build.number(d))), ("±",))
    return equals(n.Letter(x), n.Fraction(n.Group(top), n.Group(build.number(below))))


def _formula_b(body: n.Node) -> Iterator[Wrong]:
    found = _abc(body)
    if found and found[2]:
        x, a, b, c = found
        yield _formula(x, b, b * b - 4 * a * c, 2 * a), said("−b is {opposite}", opposite=-b)


def _formula_d(body: n.Node) -> Iterator[Wrong]:
    found = _abc(body)
    if found and found[3]:
        x, a, b, c = found
        yield _formula(x, -b, b * b + 4 * a * c, 2 * a), said("−4ac is {value}", value=-4 * a * c)
        yield _formula(x, -b, -b * b - 4 * a * c, 2 * a), said("b² is {value}", value=b * b)


def _formula_2(body: n.Node) -> Iterator[Wrong]:
    found = _abc(body)
    if found and found[1] != 1:
        x, a, b, c = found
        for below in dict.fromkeys((Q(2), a)):
            words = said("it was divided by {below}, not by 2a = {right}", below=below, right=2 * a)
            yield _formula(x, -b, b * b - 4 * a * c, below), words


def _part_over(body: n.Node) -> Iterator[Wrong]:
    for own, other in both_ways(body):
        bare = n.bare(other)
        inner = n.bare(bare.numerator) if isinstance(bare, n.Fraction) else None
        if isinstance(bare, n.Fraction) and isinstance(inner, n.Sum) and inner.signs == ("±",):
            first, second = inner.terms
            bottom = bare.denominator
            for pair, part in (((first, over(second, bottom)), second), ((over(first, bottom), second), first)):
                words = said("only {part} was divided by {bottom}", shows=part, part=part, bottom=bottom)
                yield equals(own, n.Sum(pair, ("±",))), words
    found = _abc(body)
    if found and found[2]:
        x, a, b, c = found
        below, radical = build.number(2 * a), root(build.number(b * b - 4 * a * c))
        words = said("only a part of the numerator was divided by 2a = {below}", below=below)
        yield equals(n.Letter(x), n.Sum((build.number(-b), over(radical, below)), ("±",))), words
        yield equals(n.Letter(x), n.Sum((build.number(-b / (2 * a)), radical), ("±",))), words


def _root_skips(body: n.Node) -> Iterator[Wrong]:
    for own, other in both_ways(body):
        found = _squared(own)
        if found and found[0] != 1:
            scale, base = found
            left = multiply([build.number(scale), base])
            words = said("the root was taken of {base}² but not of {scale}", base=base, scale=scale)
            yield equals(left, both_signs(root(other))), words
            yield equals(left, root(other)), words


def _signs_of_zeros(end: Ending) -> Iterator[Wrong]:
    """Excluded values read with the signs that stand in the factors."""
    values = [number_of(tree) for tree in end.answer]
    if end.task != "domain" or None in values:
        return
    zeros = [value for value in values if value]
    if zeros and not {-value for value in zeros} & set(zeros):
        items = tuple(build.number(-value) for value in zeros)
        words = said("a zero was read with the sign that stands in its factor")
        yield ln.ValueList(n.Letter(end.unknown), items, "≠"), words


SLIPS = (
    Slip(
        id="plus-minus-missing",
        name="One root only",
        kind="concept",
        topic="quadratics",
        done="{what}.",
        why="(−6)² is 36 too.",
        cue="Rooting both sides: write ±.",
        examples=(("x^2 = 36", "x = 6"), ("x^2 - 9 = 0", "x = 3"), ("x^(2/3) = 16", "x = 64")),
        wrong=_no_plus_minus,
        scope="equation",
        innocent=(("x^2 = 36", "x = ±6"),),
        lurks_in=("root-both-sides",),
        likely=4.4,
    ),
    Slip(
        id="plus-minus-collapsed",
        name="Joined the number behind ±",
        kind="concept",
        topic="quadratics",
        done="{what}.",
        why="−2 + 9 and −2 − 9 are not opposites.",
        cue="Write both cases out.",
        examples=(("x = -2 ± 9", "x = ±7"),),
        wrong=_collapsed,
        scope="equation",
        innocent=(("x = -2 ± 9", "x = 7 or x = -11"),),
        lurks_in=("split-plus-minus",),
    ),
    Slip(
        id="square-completed-one-side",
        leaves_a_term=True,
        name="Completed on one side",
        kind="procedure",
        topic="quadratics",
        done="{what}.",
        why="Both sides get the box.",
        cue="Draw the box on both sides.",
        examples=(("x^2+8x = 5", "x^2+8x+16 = 5"),),
        wrong=_square_one_side,
        scope="equation",
        innocent=(("x^2+8x = 5", "x^2+8x+16 = 21"),),
        lurks_in=("complete-the-square",),
        likely=3.7,
    ),
    Slip(
        id="half-not-squared",
        name="Half, but not squared",
        kind="procedure",
        topic="quadratics",
        done="{what}.",
        why="The corner of the square has the side b/2.",
        cue="Halve it, then square it.",
        examples=(("x^2+8x = 5", "(x+4)^2 = 5+4"),),
        wrong=_half_not_squared,
        scope="equation",
        innocent=(("x^2+8x = 5", "(x+4)^2 = 5+16"),),
        lurks_in=("complete-the-square",),
    ),
    Slip(
        id="leading-coefficient-left",
        name="Did not divide by a first",
        kind="procedure",
        topic="quadratics",
        done="{what}.",
        why="The pattern starts with x², not with 2x².",
        cue="First make it x².",
        examples=(("2x^2+8x = 6", "2(x+4)^2 = 22"),),
        wrong=_leading_left,
        scope="equation",
        innocent=(("2x^2+8x = 6", "2(x+2)^2 = 14"),),
        lurks_in=("complete-the-square",),
        rank=4,
    ),
    Slip(
        id="zero-product-without-zero",
        name="Zero product without zero",
        kind="concept",
        topic="quadratics",
        done="{what}.",
        why="14 can be 2·7 or 28·½; only 0 forces a factor.",
        cue="Is the other side 0?",
        examples=(("(x-1)(x+4) = 14", "x-1 = 14 or x+4 = 14"),),
        wrong=_not_zero,
        scope="equation",
        innocent=(("(x-1)(x+4) = 0", "x-1 = 0 or x+4 = 0"),),
        lurks_in=("all-on-one-side", "zero-product"),
        likely=3.6,
    ),
    Slip(
        id="root-not-divided",
        of_factors=True,
        name="Forgot the coefficient in the factor",
        kind="care",
        topic="quadratics",
        done="{what}.",
        why="3x − 5 = 0 still has to be divided by 3.",
        cue="Solve each factor as an equation.",
        examples=(("(3x-5)(x+1) = 0", "x = 5 or x = -1"),),
        wrong=_not_divided,
        scope="equation",
        innocent=(("(3x-5)(x+1) = 0", "x = 5/3 or x = -1"),),
        lurks_in=("read-solution",),
    ),
    Slip(
        id="root-sign-from-factor",
        of_factors=True,
        name="Sign read from the factor",
        kind="concept",
        topic="quadratics",
        done="{what}.",
        why="x − 3 is 0 for x = 3.",
        cue="Which x makes the bracket 0?",
        examples=(("(x-3)(x+8) = 0", "x = -3 or x = 8"),),
        wrong=_sign_from_factor,
        scope="equation",
        foreseen=_signs_of_zeros,
        innocent=(("(x-3)(x+8) = 0", "x = 3 or x = -8"),),
        lurks_in=("rational-root", "read-solution", "zero-product"),
    ),
    Slip(
        id="variable-divided-out",
        name="Divided by the unknown",
        kind="concept",
        topic="quadratics",
        done="{what}.",
        why="x = 0 is lost.",
        cue="Bring it to one side and factor.",
        examples=(("x^2 = 9x", "x = 9"),),
        wrong=_divided_out,
        scope="equation",
        innocent=(("x^2 = 9x", "x(x - 9) = 0"), ("2x = 18", "x = 9")),
        lurks_in=("zero-product",),
        likely=4.6,
    ),
    Slip(
        id="formula-sign-of-b",
        name="−b taken as b",
        kind="care",
        topic="quadratics",
        done="{what}.",
        why="The formula starts with the opposite of b.",
        cue="Write a, b, c down with their signs.",
        examples=(("x^2-6x+4=0", "x = (-6 ± √20)/2"),),
        wrong=_formula_b,
        scope="equation",
        innocent=(("x^2-6x+4=0", "x = (6 ± √20)/2"),),
        lurks_in=("quadratic-formula",),
        rank=0,
    ),
    Slip(
        id="formula-discriminant-sign",
        name="Sign in the discriminant",
        kind="care",
        topic="quadratics",
        done="{what}.",
        why="A negative c makes −4ac positive.",
        cue="Put every number in brackets.",
        examples=(("x^2+3x-5=0", "x = (-3 ± √(9-20))/2"),),
        wrong=_formula_d,
        scope="equation",
        innocent=(("x^2+3x-5=0", "x = (-3 ± √(9+20))/2"),),
        lurks_in=("quadratic-formula", "discriminant"),
        rank=1,
    ),
    Slip(
        id="formula-2-for-2a",
        name="Divided by 2, not by 2a",
        kind="care",
        topic="quadratics",
        done="{what}.",
        why="The formula divides by 2a.",
        cue="2 times a, below everything.",
        examples=(("2x^2+5x+1=0", "x = (-5 ± √17)/2"),),
        wrong=_formula_2,
        scope="equation",
        innocent=(("2x^2+5x+1=0", "x = (-5 ± √17)/4"),),
        lurks_in=("quadratic-formula",),
        rank=2,
    ),
    Slip(
        id="formula-part-over-2a",
        name="Part over 2a",
        kind="notation",
        topic="quadratics",
        done="{what}.",
        why="The bar runs under the whole numerator.",
        cue="Draw the bar long.",
        examples=(("x = (-3 ± √20)/2", "x = -3 ± √20/2"), ("x^2+4x-3=0", "x = -4 ± √28/2")),
        wrong=_part_over,
        scope="equation",
        innocent=(("x = (-3 ± √20)/2", "x = -3/2 ± √20/2"),),
        lurks_in=("quadratic-formula",),
        rank=3,
    ),
    Slip(
        id="root-skips-factor",
        name="Rooted one factor only",
        kind="concept",
        topic="radicals",
        done="{what}.",
        why="√(3x²) is √3·|x|.",
        cue="Divide first, then take the root.",
        examples=(("3x^2 = 60", "3x = ±√60"),),
        wrong=_root_skips,
        scope="equation",
        innocent=(("3x^2 = 60", "x = ±√20"),),
        lurks_in=("root-of-product", "root-of-quotient", "root-both-sides"),
    ),
)
