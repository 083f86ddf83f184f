"""Slips with equations: linear, quadratic, rational, radical, absolute value."""

from __future__ import annotations

from collections.abc import Iterator
from fractions import Fraction as Q
from itertools import product
from math import gcd, lcm

from algebra.slips.parts import add, factors, multiply, number_of, over, signed, terms, text
from algebra.slips.slip import Ending, Slip, Wrong, sides
from algebra.tree import nodes as n
from algebra.tree.plain import plain


def _both_ways(body: n.Node) -> Iterator[tuple[n.Node, n.Node]]:
    pair = sides(body)
    if pair:
        yield pair
        yield pair[1], pair[0]


def _eq(left: str, right: str | n.Node) -> str:
    return f"{left} = {right if isinstance(right, str) else plain(right)}"


def _one_side(body: n.Node) -> Iterator[Wrong]:
    for own, other in _both_ways(body):
        items = terms(own)
        if len(items) > 1:
            for k in range(len(items)):
                yield (
                    _eq(add(t for j, t in enumerate(items) if j != k), other),
                    f"{plain(items[k][1])} went from one side only",
                )
        inner = factors(own)
        if len(inner) > 1 and any(n.letters(f) for f in inner):
            for k, f in enumerate(inner):
                if not n.letters(f):
                    rest = multiply(g for j, g in enumerate(inner) if j != k)
                    yield _eq(rest, other), f"only one side was divided by {plain(f)}"
        bare = n.bare(own)
        if isinstance(bare, n.Fraction) and not n.letters(bare.denominator):
            yield (
                _eq(plain(n.bare(bare.numerator)), other),
                f"only one side was multiplied by {plain(bare.denominator)}",
            )
        if isinstance(bare, n.Root) and n.letters(bare):
            yield _eq(plain(n.bare(bare.radicand)), other), f"only the side with {plain(bare)} was squared"


def _moved(body: n.Node) -> Iterator[Wrong]:
    for own, other in _both_ways(body):
        items = terms(own)
        if len(items) < 2 and not n.letters(own):
            continue
        for k, (sign, term) in enumerate(items):
            rest = [t for j, t in enumerate(items) if j != k]
            yield (
                _eq(add(rest) if rest else "0", add([("+", other), (sign, term)])),
                f"{plain(term)} crossed the equals sign unchanged",
            )


def _one_term_divided(body: n.Node) -> Iterator[Wrong]:
    for own, other in _both_ways(body):
        items = terms(own)
        parts = signed(items)
        if parts is None or len(items) < 2 or number_of(other) == 0:
            continue
        # one divides by the number before the unknown, or by what all the terms of the side share
        whole = [abs(int(a)) for a, _ in parts if a.denominator == 1]
        shared = gcd(*whole) if len(whole) == len(parts) else 1
        divisors = {Q(d) for d in range(2, min(shared, 60) + 1) if shared % d == 0}
        for number in sorted(divisors | {abs(a) for a, rest in parts if rest and abs(a) not in (0, 1)}):
            for k in range(len(items)):
                divided = [(s, over(t, text(number))) if j == k else (s, t) for j, (s, t) in enumerate(items)]
                yield (
                    _eq(add(divided), over(other, text(number))),
                    f"only {plain(items[k][1])} was divided by {text(number)}",
                )


def _alone(body: n.Node) -> Iterator[tuple[Q, str, Q]]:
    """(a, unknown part, c) of a·x = c."""
    for own, other in _both_ways(body):
        value = number_of(other)
        parts = signed(terms(own))
        if value is not None and parts is not None and len(parts) == 1 and parts[0][1] and parts[0][0] not in (0, 1):
            yield parts[0][0], parts[0][1], value


def _subtracted(body: n.Node) -> Iterator[Wrong]:
    for a, x, c in _alone(body):
        yield f"{x} = {text(c - a)}", f"{text(a)} was subtracted, but it multiplies"
        yield f"{x} = {text(c + a)}", f"{text(a)} was added, but it multiplies"
        if a < 0:
            yield f"{x} = {text(c / -a)}", f"both sides were divided by {text(-a)}, not by {text(a)}"


def _inverted(body: n.Node) -> Iterator[Wrong]:
    for a, x, c in _alone(body):
        if c:
            yield f"{x} = {text(a / c)}", f"{text(a)} was divided by {text(c)}"


def _minus_dropped(body: n.Node) -> Iterator[Wrong]:
    for a, x, c in _alone(body):
        if a == -1:
            yield f"{x} = {text(c)}", f"the minus of -{x} was dropped"


def _lcd_skips(body: n.Node) -> Iterator[Wrong]:
    pair = sides(body)
    if not pair:
        return
    both = [terms(side) for side in pair]
    bottoms = [n.bare(t).children[1] for items in both for _, t in items if isinstance(n.bare(t), n.Fraction)]
    numbers = [number_of(b) for b in bottoms]
    if not numbers or None in numbers:
        return
    common = lcm(*(int(v or 1) for v in numbers))
    for chosen in dict.fromkeys((common, *(int(v or 1) for v in numbers))):
        texts = []
        for items in both:
            texts.append(
                add((s, multiply([str(chosen), t])) if isinstance(n.bare(t), n.Fraction) else (s, t) for s, t in items)
            )
        whole = [plain(t) for items in both for _, t in items if not isinstance(n.bare(t), n.Fraction)]
        if whole:
            yield _eq(texts[0], texts[1]), f"{', '.join(whole)} was not multiplied by {chosen}"


# -- quadratics ----------------------------------------------------------------------------------------------------


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


def _no_plus_minus(body: n.Node) -> Iterator[Wrong]:
    for own, other in _both_ways(body):
        found = _squared(own)
        if found and not n.letters(other):
            scale, base = found
            what = f"{plain(other)} has two roots, one positive and one negative"
            yield f"√({text(scale)})·({plain(base)}) = √({plain(other)})", what
            yield f"√({text(scale)})·({plain(base)}) = -√({plain(other)})", what


def _collapsed(body: n.Node) -> Iterator[Wrong]:
    for own, other in _both_ways(body):
        if isinstance(other, n.Sum) and other.signs == ("±",):
            a, b = other.terms
            for sign in "+-":
                yield (
                    _eq(plain(own), f"±({plain(a)} {sign} {plain(b)})"),
                    f"{plain(a)} was joined to the number behind ±",
                )


def _half(own: n.Node) -> Q | None:
    """Half of b in x² + bx, else None."""
    parts = signed(terms(own))
    names = n.letters(own)
    if parts is None or len(names) != 1:
        return None
    x = next(iter(names))
    found = {rest: a for a, rest in parts}
    if found.get(f"({x}^2)") == 1 and x in found and set(found) <= {f"({x}^2)", x}:
        return found[x] / 2
    return None


def _square_one_side(body: n.Node) -> Iterator[Wrong]:
    for own, other in _both_ways(body):
        half = _half(own)
        if half:
            yield _eq(f"{plain(own)} + {text(half * half)}", other), f"{text(half * half)} was added on one side only"


def _half_not_squared(body: n.Node) -> Iterator[Wrong]:
    for own, other in _both_ways(body):
        half = _half(own)
        if half:
            x = next(iter(n.letters(own)))
            for added in dict.fromkeys((abs(half), half, 2 * half, abs(2 * half), 4 * half * half)):
                yield (
                    f"({x} + ({text(half)}))^2 = {plain(other)} + ({text(added)})",
                    f"{text(added)} was added, but half of {text(2 * half)}, squared, is {text(half * half)}",
                )


def _leading_left(body: n.Node) -> Iterator[Wrong]:
    for own, other in _both_ways(body):
        parts = signed(terms(own))
        names = n.letters(own)
        if parts is None or len(names) != 1:
            continue
        x = next(iter(names))
        found = {rest: a for a, rest in parts}
        a, b = found.get(f"({x}^2)"), found.get(x)
        value = number_of(other)
        if a and b and a != 1 and value is not None:
            for half in dict.fromkeys((b / 2, b / a / 2)):
                for added in dict.fromkeys(
                    (half * half, a * half * half, half * half / a, (b / 2) ** 2, a * (b / 2) ** 2)
                ):
                    yield (
                        f"{text(a)}·({x} + ({text(half)}))^2 = {text(value + added)}",
                        f"the square was completed before dividing by {text(a)}",
                    )


def _not_zero(body: n.Node) -> Iterator[Wrong]:
    for own, other in _both_ways(body):
        items = [f for f in factors(own) if n.letters(f)]
        if len(items) > 1 and number_of(other) not in (None, 0):
            yield (
                " or ".join(_eq(plain(n.bare(f)), other) for f in items),
                f"the factors were set equal to {plain(other)}, not to 0",
            )


def _roots(body: n.Node) -> list[tuple[str, Q, Q]] | None:
    """(unknown, a, b) of each linear factor a·x + b of a product that is 0."""
    for own, other in _both_ways(body):
        if number_of(other) != 0:
            continue
        found = []
        for f in factors(own):
            if not n.letters(f):
                continue
            parts = signed(terms(f))
            names = n.letters(f)
            if parts is None or len(names) != 1:
                return None
            x = next(iter(names))
            values = {rest: a for a, rest in parts}
            if not set(values) <= {x, ""} or x not in values:
                return None
            found.append((x, values[x], values.get("", Q(0))))
        if len(found) > 1:
            return found
    return None


def _sign_from_factor(body: n.Node) -> Iterator[Wrong]:
    found = _roots(body)
    if found:
        for wrong in product((1, -1), repeat=len(found)):
            if any(w == 1 for w in wrong):
                yield (
                    " or ".join(f"{x} = {text(w * b / a)}" for w, (x, a, b) in zip(wrong, found, strict=True)),
                    "a root was read with the sign that stands in its factor",
                )


def _not_divided(body: n.Node) -> Iterator[Wrong]:
    found = _roots(body)
    if found and any(a != 1 for _, a, _ in found):
        for sign in (1, -1):
            yield (
                " or ".join(f"{x} = {text(-b if a == 1 else sign * -b)}" for x, a, b in found),
                "the coefficient in the factor was forgotten",
            )


def _divided_out(body: n.Node) -> Iterator[Wrong]:
    pair = sides(body)
    if not pair:
        return
    for x in sorted(n.letters(body)):
        texts = []
        for side in pair:
            pieces = []
            for s, t in terms(side):
                pieces.append((s, f"({plain(t)})/{x}"))
            texts.append(add(pieces))
        yield f"{texts[0]} = {texts[1]}", f"both sides were divided by {x}, which may be 0"


def _abc(body: n.Node) -> tuple[str, Q, Q, Q] | None:
    for own, other in _both_ways(body):
        if number_of(other) != 0:
            continue
        parts = signed(terms(own))
        names = n.letters(own)
        if parts is None or len(names) != 1:
            return None
        x = next(iter(names))
        found = {rest: a for a, rest in parts}
        if set(found) <= {f"({x}^2)", x, ""} and found.get(f"({x}^2)"):
            return x, found[f"({x}^2)"], found.get(x, Q(0)), found.get("", Q(0))
    return None


def _formula(x: str, minus_b: Q, d: Q, below: Q) -> str:
    return f"{x} = ({text(minus_b)} ± √({text(d)}))/({text(below)})"


def _formula_b(body: n.Node) -> Iterator[Wrong]:
    found = _abc(body)
    if found and found[2]:
        x, a, b, c = found
        yield _formula(x, b, b * b - 4 * a * c, 2 * a), f"−b is {text(-b)}"


def _formula_d(body: n.Node) -> Iterator[Wrong]:
    found = _abc(body)
    if found and found[3]:
        x, a, b, c = found
        yield _formula(x, -b, b * b + 4 * a * c, 2 * a), f"−4ac is {text(-4 * a * c)}"
        yield _formula(x, -b, -b * b - 4 * a * c, 2 * a), f"b² is {text(b * b)}"


def _formula_2(body: n.Node) -> Iterator[Wrong]:
    found = _abc(body)
    if found and found[1] != 1:
        x, a, b, c = found
        for below in dict.fromkeys((Q(2), a)):
            yield (
                _formula(x, -b, b * b - 4 * a * c, below),
                f"it was divided by {text(below)}, not by 2a = {text(2 * a)}",
            )


def _part_over(body: n.Node) -> Iterator[Wrong]:
    for own, other in _both_ways(body):
        bare = n.bare(other)
        if isinstance(bare, n.Fraction) and isinstance(n.bare(bare.numerator), n.Sum):
            inner = n.bare(bare.numerator)
            assert isinstance(inner, n.Sum)
            if inner.signs == ("±",):
                a, b = inner.terms
                yield (
                    _eq(plain(own), f"{plain(a)} ± ({plain(b)})/({plain(bare.denominator)})"),
                    f"only {plain(b)} was divided by {plain(bare.denominator)}",
                )
                yield (
                    _eq(plain(own), f"({plain(a)})/({plain(bare.denominator)}) ± {plain(b)}"),
                    f"only {plain(a)} was divided by {plain(bare.denominator)}",
                )


def _root_skips(body: n.Node) -> Iterator[Wrong]:
    for own, other in _both_ways(body):
        found = _squared(own)
        if found and found[0] != 1:
            scale, base = found
            for sign in ("±", ""):
                yield (
                    f"{text(scale)}·({plain(base)}) = {sign}√({plain(other)})",
                    f"the root was taken of {plain(base)}² but not of {text(scale)}",
                )


# -- rational, radical, bars -----------------------------------------------------------------------------------------


def _crossed_sum(body: n.Node) -> Iterator[Wrong]:
    """a/x + b = c/d as a·d + b = c·x."""
    for own, other in _both_ways(body):
        items = terms(own)
        right = n.bare(other)
        if len(items) < 2 or not isinstance(right, n.Fraction):
            continue
        for k, (sign, term) in enumerate(items):
            bare = n.bare(term)
            if isinstance(bare, n.Fraction):
                rest = [t for j, t in enumerate(items) if j != k]
                scaled = add([(sign, multiply([bare.numerator, right.denominator])), *rest])
                yield _eq(scaled, multiply([right.numerator, bare.denominator])), f"{plain(bare)} is not the whole side"


def _termwise(body: n.Node) -> Iterator[Wrong]:
    pair = sides(body)
    if not pair or not any(isinstance(p, n.Root) for s in pair for p in n.parts_of(s)):
        return
    for flip in product("+-", repeat=2):
        texts = []
        for side, sign in zip(pair, flip, strict=True):
            texts.append(add(("+" if s == "+" or sign == "+" else "-", f"({plain(t)})^2") for s, t in terms(side)))
        yield f"{texts[0]} = {texts[1]}", "each term was squared by itself"
        for own, other in ((pair[0], pair[1]), (pair[1], pair[0])):
            if len(terms(own)) == 2:
                # the term without a root stays as it is
                kept = add(
                    (s, f"({plain(t)})^2") if any(isinstance(p, n.Root) for p in n.parts_of(t)) else (s, t)
                    for s, t in terms(own)
                )
                yield f"{kept} = ({plain(other)})^2", "only the root was squared"


def _one_case(body: n.Node) -> Iterator[Wrong]:
    for own, other in _both_ways(body):
        bare = n.bare(own)
        if isinstance(bare, n.Absolute):
            yield _eq(plain(bare.child), other), f"{plain(bare.child)} may be the opposite of {plain(other)} as well"
            yield _eq(plain(bare.child), f"-({plain(other)})"), f"{plain(bare.child)} may be {plain(other)} as well"


def _signs_of_zeros(end: Ending) -> Iterator[Wrong]:
    """Excluded values read with the signs that stand in the factors."""
    turned = [value[1:] if value.startswith("-") else f"-{value}" for value in end.answer if value != "0"]
    if (
        end.task == "domain"
        and turned
        and not set(turned) & set(end.answer)
        and all(set(v) <= set("-0123456789/") for v in turned)
    ):
        yield f"{end.unknown} ≠ {', '.join(turned)}", "a zero was read with the sign that stands in its factor"


SLIPS = (
    Slip(id="one-side-only", name="One side only", kind="procedure", topic="equations", done="{what}.", why="A balance tips when one side only is changed.",
         cue="Write the move below both sides.", examples=(("x + 8 = 3", "x = 3"),), wrong=_one_side, scope="equation"),
    Slip(id="negative-unknown-kept", name="Dropped the minus of the unknown", kind="care", topic="equations", done="{what}.", why="If −x is 9, x is −9.",
         cue="Divide by −1.", examples=(("-x = 9", "x = 9"),), wrong=_minus_dropped, scope="equation"),
    Slip(id="subtracted-coefficient", name="Took the opposite, not the inverse", kind="concept", topic="equations", done="{what}.", why="6·2 is 12; 12 − 6 is not 2.",
         cue="What is done to x? Undo just that.", examples=(("6x = 18", "x = 12"), ("-4x = 20", "x = 20/4")), wrong=_subtracted, scope="equation"),
    Slip(id="moved-same-sign", name="Carried across unchanged", kind="procedure", topic="equations", done="{what}.", why="What is taken from one side is taken from the other.",
         cue="Crossing over changes the sign.", examples=(("x + 8 = 3", "x = 11"),), wrong=_moved, scope="equation"),
    Slip(id="divided-one-term", name="Divided one term only", kind="concept", topic="equations", done="{what}.", why="The whole side is divided.",
         cue="Bracket the side before dividing.", examples=(("5x + 10 = 35", "x + 10 = 7"),), wrong=_one_term_divided, scope="equation"),
    Slip(id="division-inverted", name="Divided the wrong way round", kind="care", topic="equations", done="{what}.", why="8x = 4 makes x smaller than 1.",
         cue="Divide by the number at x.", examples=(("8x = 4", "x = 2"),), wrong=_inverted, scope="equation"),
    Slip(id="lcd-skips-term", name="The LCD skipped a term", kind="procedure", topic="equations", done="{what}.", why="Every term of both sides is multiplied.",
         cue="Write the LCD before every term.", examples=(("x/4 + 3 = 5/8", "2x + 3 = 5"),), wrong=_lcd_skips, scope="equation"),
    Slip(id="plus-minus-missing", name="One root only", kind="concept", topic="quadratics", done="{what}.", why="(−6)² is 36 too.", cue="Rooting both sides: write ±.",
         examples=(("x^2 = 36", "x = 6"),), wrong=_no_plus_minus, scope="equation"),
    Slip(id="plus-minus-collapsed", name="Joined the number behind ±", kind="concept", topic="quadratics", done="{what}.", why="−2 + 9 and −2 − 9 are not opposites.",
         cue="Write both cases out.", examples=(("x = -2 ± 9", "x = ±7"),), wrong=_collapsed, scope="equation"),
    Slip(id="square-completed-one-side", name="Completed on one side", kind="procedure", topic="quadratics", done="{what}.", why="Both sides get the box.",
         cue="Draw the box on both sides.", examples=(("x^2+8x = 5", "x^2+8x+16 = 5"),), wrong=_square_one_side, scope="equation"),
    Slip(id="half-not-squared", name="Half, but not squared", kind="procedure", topic="quadratics", done="{what}.", why="The corner of the square has the side b/2.",
         cue="Halve it, then square it.", examples=(("x^2+8x = 5", "(x+4)^2 = 5+4"),), wrong=_half_not_squared, scope="equation"),
    Slip(id="leading-coefficient-left", name="Did not divide by a first", kind="procedure", topic="quadratics", done="{what}.", why="The pattern starts with x², not with 2x².",
         cue="First make it x².", examples=(("2x^2+8x = 6", "2(x+4)^2 = 22"),), wrong=_leading_left, scope="equation"),
    Slip(id="zero-product-without-zero", name="Zero product without zero", kind="concept", topic="quadratics", done="{what}.", why="14 can be 2·7 or 28·½; only 0 forces a factor.",
         cue="Is the other side 0?", examples=(("(x-1)(x+4) = 14", "x-1 = 14 or x+4 = 14"),), wrong=_not_zero, scope="equation"),
    Slip(id="root-not-divided", name="Forgot the coefficient in the factor", kind="care", topic="quadratics", done="{what}.", why="3x − 5 = 0 still has to be divided by 3.",
         cue="Solve each factor as an equation.", examples=(("(3x-5)(x+1) = 0", "x = 5 or x = -1"),), wrong=_not_divided, scope="equation"),
    Slip(id="root-sign-from-factor", name="Sign read from the factor", kind="concept", topic="quadratics", done="{what}.", why="x − 3 is 0 for x = 3.",
         cue="Which x makes the bracket 0?", examples=(("(x-3)(x+8) = 0", "x = -3 or x = 8"),), wrong=_sign_from_factor, scope="equation", foreseen=_signs_of_zeros),
    Slip(id="variable-divided-out", name="Divided by the unknown", kind="concept", topic="quadratics", done="{what}.", why="x = 0 is lost.",
         cue="Bring it to one side and factor.", examples=(("x^2 = 9x", "x = 9"),), wrong=_divided_out, scope="equation"),
    Slip(id="formula-sign-of-b", name="−b taken as b", kind="care", topic="quadratics", done="{what}.", why="The formula starts with the opposite of b.",
         cue="Write a, b, c down with their signs.", examples=(("x^2-6x+4=0", "x = (-6 ± √20)/2"),), wrong=_formula_b, scope="equation"),
    Slip(id="formula-discriminant-sign", name="Sign in the discriminant", kind="care", topic="quadratics", done="{what}.", why="A negative c makes −4ac positive.",
         cue="Put every number in brackets.", examples=(("x^2+3x-5=0", "x = (-3 ± √(9-20))/2"),), wrong=_formula_d, scope="equation"),
    Slip(id="formula-2-for-2a", name="Divided by 2, not by 2a", kind="care", topic="quadratics", done="{what}.", why="The formula divides by 2a.",
         cue="2 times a, below everything.", examples=(("2x^2+5x+1=0", "x = (-5 ± √17)/2"),), wrong=_formula_2, scope="equation"),
    Slip(id="formula-part-over-2a", name="Part over 2a", kind="notation", topic="quadratics", done="{what}.", why="The bar runs under the whole numerator.",
         cue="Draw the bar long.", examples=(("x = (-3 ± √20)/2", "x = -3 ± √20/2"),), wrong=_part_over, scope="equation"),
    Slip(id="root-skips-factor", name="Rooted one factor only", kind="concept", topic="radicals", done="{what}.", why="√(3x²) is √3·|x|.",
         cue="Divide first, then take the root.", examples=(("3x^2 = 60", "3x = ±√60"),), wrong=_root_skips, scope="equation"),
    Slip(id="cross-multiplied-sum", name="Cross-multiplied a sum", kind="concept", topic="rational equations", done="{what}.", why="Only one fraction against one fraction crosses.",
         cue="Is each side one fraction?", examples=(("2/x + 1 = 7/3", "6 + 1 = 7x"),), wrong=_crossed_sum, scope="equation"),
    Slip(id="squared-termwise", name="Squared each term", kind="concept", topic="radical equations", done="{what}.", why="(2 + 3)² is 25; 2² + 3² is 13.",
         cue="Let the root stand alone; bracket the side.", examples=(("√x + 2 = √(x+12)", "x + 4 = x + 12"),), wrong=_termwise, scope="equation"),
    Slip(id="absolute-one-case", name="One case only", kind="concept", topic="absolute value", done="{what}.", why="|−5| is 5 too.",
         cue="Inside is it, or its opposite.", examples=(("|x-2| = 5", "x = 7"),), wrong=_one_case, scope="equation"),
)  # fmt: skip
