"""Slips with exponents and with roots."""

from __future__ import annotations

from collections.abc import Iterator
from fractions import Fraction as Q
from math import isqrt

from algebra.slips.parts import (
    add,
    base_and_exponent,
    coefficient,
    factors,
    multiply,
    number_of,
    over,
    signed,
    terms,
    text,
    wrap,
)
from algebra.slips.slip import Slip, Wrong
from algebra.tree import nodes as n
from algebra.tree import statements as ln
from algebra.tree.plain import plain


def _pairs(node: n.Node) -> Iterator[tuple[list[n.Node], int, int, str, Q, Q]]:
    """Two factors of a product with the same base: all factors, their places, the base, both exponents."""
    items = factors(node)
    for i in range(len(items)):
        for j in range(i + 1, len(items)):
            a, b = base_and_exponent(items[i]), base_and_exponent(items[j])
            if a and b and a[0] == b[0] and (a[1] != 1 or b[1] != 1):
                yield items, i, j, a[0], a[1], b[1]


def _product_multiplied(node: n.Node) -> Iterator[Wrong]:
    if isinstance(node, n.Product):
        for items, i, j, base, m, k in _pairs(node):
            rest = [f for p, f in enumerate(items) if p not in (i, j)]
            yield multiply([f"{base}^({text(m * k)})", *rest]), f"{text(m)} and {text(k)} were multiplied"


def _bases_multiplied(node: n.Node) -> Iterator[Wrong]:
    if isinstance(node, n.Product):
        for items, i, j, base, m, k in _pairs(node):
            if base.isdigit():
                rest = [f for p, f in enumerate(items) if p not in (i, j)]
                yield multiply([f"{int(base) ** 2}^({text(m + k)})", *rest]), f"{base}·{base} was taken as the new base"


def _power_added(node: n.Node) -> Iterator[Wrong]:
    if not isinstance(node, n.Power):
        return
    outer = number_of(node.exponent)
    inner = factors(node.base)
    if outer is None or not any(isinstance(n.bare(f), n.Power) for f in inner):
        return
    pieces: list[n.Node | str] = []
    for factor in inner:
        found = base_and_exponent(factor)
        bare = n.bare(factor)
        if isinstance(bare, n.Power) and found:
            pieces.append(f"{found[0]}^({text(found[1] + outer)})")
        else:
            pieces.append(f"{wrap(factor)}^({text(outer)})")
    yield multiply(pieces), f"exponents were added to {text(outer)} in {plain(node)}"


def _quotient_divided(node: n.Node) -> Iterator[Wrong]:
    if not isinstance(node, n.Fraction):
        return
    above, below = factors(node.numerator), factors(node.denominator)
    for i, top in enumerate(above):
        for j, bottom in enumerate(below):
            a, b = base_and_exponent(top), base_and_exponent(bottom)
            if a and b and a[0] == b[0] and b[1] and (a[1] / b[1]).denominator == 1 and b[1] != 1:
                rest = [f for p, f in enumerate(above) if p != i]
                left = [f for p, f in enumerate(below) if p != j]
                yield (
                    over(multiply([f"{a[0]}^({text(a[1] / b[1])})", *rest]), multiply(left)),
                    f"{text(a[1])} was divided by {text(b[1])}",
                )


def _exponents_over_sum(node: n.Node) -> Iterator[Wrong]:
    if not isinstance(node, n.Sum):
        return
    items = terms(node)
    parts = signed(items)
    if parts is None:
        return
    for i in range(len(items)):
        for j in range(i + 1, len(items)):
            a, b = factors(items[i][1]), factors(items[j][1])
            p = [base_and_exponent(f) for f in a if number_of(f) is None]
            q = [base_and_exponent(f) for f in b if number_of(f) is None]
            if len(p) == len(q) == 1 and p[0] and q[0] and p[0][0] == q[0][0] and p[0][1] != q[0][1]:
                for size in dict.fromkeys((parts[i][0] + parts[j][0], parts[i][0] * parts[j][0])):
                    body = f"({text(size)})·{p[0][0]}^({text(p[0][1] + q[0][1])})"
                    rest = [t for k, t in enumerate(items) if k not in (i, j)]
                    yield add([("+", body), *rest]), f"{plain(items[i][1])} and {plain(items[j][1])} are unlike terms"


def _skips_factor(node: n.Node) -> Iterator[Wrong]:
    if not isinstance(node, n.Power) or not isinstance(n.bare(node.base), n.Product):
        return
    items = factors(node.base)
    for k, skipped in enumerate(items):
        pieces = [f if p == k else f"({plain(f)})^{wrap(node.exponent)}" for p, f in enumerate(items)]
        yield multiply(pieces), f"{plain(skipped)} was not raised"


def _over_sum(node: n.Node) -> Iterator[Wrong]:
    if not isinstance(node, n.Power) or not isinstance(n.bare(node.base), n.Sum) or number_of(node.exponent) is None:
        return
    items = terms(node.base)
    raised = [(s, f"({plain(t)})^{wrap(node.exponent)}") for s, t in items]
    what = f"each term of {plain(node.base)} was raised by itself"
    yield add(raised), what
    if any(s == "-" for s, _ in items):
        yield add([("+", t) for _, t in raised]), what


def _negative_power(node: n.Node) -> Iterator[Wrong]:
    if not isinstance(node, n.Power):
        return
    power = number_of(node.exponent)
    if power is None or power >= 0:
        return
    what = f"{plain(node)} was taken for a negative number"
    yield f"-({wrap(node.base)}^{text(-power)})", what
    yield f"-(1/({wrap(node.base)}^{text(-power)}))", what


def _negative_moves_term(node: n.Node) -> Iterator[Wrong]:
    if not isinstance(node, n.Fraction) or not isinstance(n.bare(node.denominator), n.Sum):
        return
    items = terms(node.denominator)
    moved = []
    for sign, term in items:
        found = base_and_exponent(term)
        if found is None or found[1] >= 0:
            return
        moved.append((sign, f"{found[0]}^({text(-found[1])})"))
    yield multiply([node.numerator, add(moved)]), f"the terms of {plain(node.denominator)} were moved across the bar"


def _negative_takes_coefficient(node: n.Node) -> Iterator[Wrong]:
    if not isinstance(node, n.Product):
        return
    items = factors(node)
    numbers = [f for f in items if number_of(f) is not None]
    powers = [f for f in items if isinstance(f, n.Power) and (number_of(f.exponent) or 0) < 0]
    rest = [f for f in items if f not in numbers and f not in powers]
    if numbers and powers:
        below = [f"{wrap(p.base)}^({text(-(number_of(p.exponent) or 0))})" for p in powers if isinstance(p, n.Power)]
        yield (
            over(multiply(rest), multiply([*numbers, *below])),
            f"{plain(numbers[0])} went below the bar with {plain(powers[0])}",
        )


def _zero_power(node: n.Node) -> Iterator[Wrong]:
    if isinstance(node, n.Power) and number_of(node.exponent) == 0:
        yield "0", f"{plain(node)} was taken for 0"


def _top_only(node: n.Node) -> Iterator[Wrong]:
    if isinstance(node, n.Power) and isinstance(n.bare(node.base), n.Fraction):
        inner = n.bare(node.base)
        assert isinstance(inner, n.Fraction)
        yield (
            over(f"({plain(inner.numerator)})^{wrap(node.exponent)}", inner.denominator),
            f"{plain(inner.denominator)} was not raised",
        )


def _base_times_exponent(node: n.Node) -> Iterator[Wrong]:
    if isinstance(node, n.Power):
        yield (
            f"{wrap(node.base)}·{wrap(node.exponent)}",
            f"{plain(node)} was taken for {plain(node.base)} times {plain(node.exponent)}",
        )


# -- roots ---------------------------------------------------------------------------------------------------------


def _root(inner: str, root: n.Root) -> str:
    return f"root({plain(root.index)}, {inner})" if root.index is not None else f"√({inner})"


def _root_over_sum(node: n.Node) -> Iterator[Wrong]:
    if isinstance(node, n.Root) and isinstance(n.bare(node.radicand), n.Sum):
        items = terms(node.radicand)
        rooted = []
        for s, t in items:
            found = base_and_exponent(t)
            if found and found[1] % 2 == 0 and node.index is None and not found[0].isdigit():
                rooted.append((s, f"{found[0]}^({text(found[1] / 2)})"))
            else:
                rooted.append((s, _root(plain(t), node)))
        yield add(rooted), f"the root was taken of each term of {plain(n.bare(node.radicand))}"


def _root_terms(node: n.Node) -> Iterator[tuple[list[tuple[str, n.Node]], int, int, Q, Q, n.Root, n.Root]]:
    """Two terms of a sum that are a number times a root."""
    if not isinstance(node, n.Sum):
        return
    items = terms(node)
    for i in range(len(items)):
        for j in range(i + 1, len(items)):
            found = []
            for sign, term in (items[i], items[j]):
                roots = [f for f in factors(term) if isinstance(f, n.Root)]
                parts = coefficient(term)
                if (
                    len(roots) != 1
                    or parts is None
                    or any(number_of(f) is None and f is not roots[0] for f in factors(term))
                ):
                    break
                found.append((-parts[0] if sign == "-" else parts[0], roots[0]))
            if len(found) == 2 and found[0][1].index == found[1][1].index:
                yield items, i, j, found[0][0], found[1][0], found[0][1], found[1][1]


def _radicands_added(node: n.Node) -> Iterator[Wrong]:
    for items, i, j, a, b, first, second in _root_terms(node):
        if abs(a) == abs(b) == 1:
            sign = "+" if a == b else "-"
            body = f"({text(a)})·{_root(f'({plain(first.radicand)}) {sign} ({plain(second.radicand)})', first)}"
            yield (
                add([("+", body), *(t for k, t in enumerate(items) if k not in (i, j))]),
                f"{plain(first)} and {plain(second)} were put under one root",
            )
        else:
            size = a + b
            body = f"({text(size)})·{_root(f'({plain(first.radicand)}) + ({plain(second.radicand)})', first)}"
            yield (
                add([("+", body), *(t for k, t in enumerate(items) if k not in (i, j))]),
                f"the numbers under {plain(first)} and {plain(second)} were added as well",
            )


def _unlike_combined(node: n.Node) -> Iterator[Wrong]:
    for items, i, j, a, b, first, second in _root_terms(node):
        rest = [t for k, t in enumerate(items) if k not in (i, j)]
        what = f"{plain(first)} and {plain(second)} are unlike"
        if first.radicand == second.radicand:
            continue
        radicands = [number_of(first.radicand), number_of(second.radicand)]
        choices = [plain(first.radicand), plain(second.radicand)]
        if None not in radicands:
            x, y = radicands
            assert x is not None
            assert y is not None
            choices += [text(x + y), text(abs(x - y))]
        for inside in choices:
            yield add([("+", f"({text(a + b)})·{_root(inside, first)}"), *rest]), what


def _integer_joined(node: n.Node) -> Iterator[Wrong]:
    if not isinstance(node, n.Sum):
        return
    items = terms(node)
    for i, (s, t) in enumerate(items):
        value = number_of(t)
        for j, (s2, u) in enumerate(items):
            roots = [f for f in factors(u) if isinstance(f, n.Root)]
            parts = coefficient(u)
            if i != j and value is not None and len(roots) == 1 and parts is not None:
                total = (-value if s == "-" else value) + (-parts[0] if s2 == "-" else parts[0])
                rest = [v for k, v in enumerate(items) if k not in (i, j)]
                yield (
                    add([("+", f"({text(total)})·{parts[1]}"), *rest]),
                    f"{plain(t)} was added to the number before {plain(roots[0])}",
                )


def _not_rooted(node: n.Node) -> Iterator[Wrong]:
    if not isinstance(node, n.Root) or node.index is not None:
        return
    value = number_of(node.radicand)
    if value is None or value.denominator != 1 or value < 4:
        return
    whole = int(value)
    for size in range(isqrt(whole), 1, -1):
        if whole % (size * size) == 0:
            yield (
                f"{size * size}·√{whole // (size * size)}",
                f"{size * size} came out of {plain(node)} without its root",
            )


def _bottom_only(node: n.Node) -> Iterator[Wrong]:
    if isinstance(node, n.Fraction):
        roots = [f for f in factors(node.denominator) if isinstance(f, n.Root) and f.index is None]
        if len(roots) == 1:
            others = [f for f in factors(node.denominator) if f is not roots[0]]
            yield (
                over(node.numerator, multiply([*others, roots[0].radicand])),
                f"only the denominator was multiplied by {plain(roots[0])}",
            )


def _no_conjugate(node: n.Node) -> Iterator[Wrong]:
    if not isinstance(node, n.Fraction) or len(terms(node.denominator)) != 2:
        return
    items = terms(node.denominator)
    if not any(isinstance(p, n.Root) for p in n.parts_of(node.denominator)):
        return
    squares = add([("+", f"({plain(t)})^2") for _, t in items])
    top = multiply([node.numerator, plain(n.bare(node.denominator))])
    yield over(top, squares), f"{plain(n.bare(node.denominator))} was multiplied by itself, and the middle left out"


def _both_signs(node: n.Node) -> Iterator[Wrong]:
    if isinstance(node, n.Root) and node.index is None and not n.letters(node):
        yield f"(±{plain(node)})", f"{plain(node)} means the non-negative root"


def _negative_root(node: n.Node) -> Iterator[Wrong]:
    """√(−25) taken for −5 or 5, or x² = −9 solved with ±3."""
    if isinstance(node, n.Root) and (node.index is None or number_of(node.index) == 2):
        value = number_of(node.radicand)
        if value is not None and value < 0 and _is_square(-value):
            root = text(Q(isqrt(-value.numerator), isqrt(value.denominator)))
            yield f"(-{root})", f"√({text(value)}) was taken for -{root}"
            yield root, f"√({text(value)}) was taken for {root}"
    elif isinstance(node, ln.Equation) and len(node.sides) == 2:
        power, right = n.bare(node.sides[0]), number_of(node.sides[1])
        if (
            isinstance(power, n.Power)
            and number_of(power.exponent) == 2
            and right is not None
            and right < 0
            and _is_square(-right)
        ):
            root = text(Q(isqrt(-right.numerator), isqrt(right.denominator)))
            yield f"{plain(n.bare(power.base))} = ±{root}", f"no real number has the square {text(right)}"
            yield f"{plain(n.bare(power.base))} = -{root}", f"no real number has the square {text(right)}"


def _is_square(value: Q) -> bool:
    return isqrt(value.numerator) ** 2 == value.numerator and isqrt(value.denominator) ** 2 == value.denominator


def _absolute_lost(node: n.Node) -> Iterator[Wrong]:
    if isinstance(node, n.Root) and node.index is None and n.letters(node):
        pieces: list[n.Node | str] = []
        for f in factors(node.radicand):
            found = base_and_exponent(f)
            value = number_of(f)
            if value is not None:
                pieces.append(f"√{wrap(f)}")
            elif found and found[1] % 2 == 0:
                pieces.append(f"{found[0]}^({text(found[1] / 2)})")
            else:
                return
        yield multiply(pieces), f"{plain(node)} is never negative"


SLIPS = (
    Slip(id="product-rule-multiplied", name="Multiplied the exponents", kind="concept", topic="exponents", done="{what}; in a product of powers they are added.",
         why="x²·x⁵ is two factors and five more: seven.", cue="Write the factors out once.", examples=(("x^2·x^5", "x^10"),), wrong=_product_multiplied),
    Slip(id="power-rule-added", name="Added the exponents", kind="concept", topic="exponents", done="{what}; in a power of a power they are multiplied.",
         why="(x²)⁵ is x² five times.", cue="How many times does the inner power stand there?", examples=(("(x^2)^5", "x^7"),), wrong=_power_added),
    Slip(id="quotient-rule-divided", name="Divided the exponents", kind="concept", topic="exponents", done="{what}; in a quotient of powers they are subtracted.",
         why="Of twelve factors three cancel: nine are left.", cue="Cancel factor by factor.", examples=(("x^12/x^3", "x^4"),), wrong=_quotient_divided),
    Slip(id="bases-multiplied", name="Multiplied the bases", kind="concept", topic="exponents", done="{what}; the base stays.",
         why="3²·3⁴ is six factors 3, not six factors 9.", cue="Same base: keep it.", examples=(("3^2·3^4", "9^6"),), wrong=_bases_multiplied),
    Slip(id="exponents-added-over-sum", name="Added exponents in a sum", kind="concept", topic="exponents", done="{what}: a sum has no law of exponents.",
         why="2³ + 2⁴ is 24, and 2⁷ is 128.", cue="Laws of exponents are for products.", examples=(("x^3 + x^4", "x^7"),), wrong=_exponents_over_sum),
    Slip(id="power-skips-factor", name="Raised one factor only", kind="concept", topic="exponents", done="{what}.",
         why="The exponent holds for every factor in the bracket.", cue="Give every factor the exponent.", examples=(("(4x)^2", "4x^2"), ("(5√(x-1))^2", "5(x-1)")), wrong=_skips_factor),
    Slip(id="power-over-sum", name="Raised each term", kind="concept", topic="exponents", done="{what}: the middle term is missing.",
         why="(3 + 4)² is 49, and 3² + 4² is 25.", cue="Write the bracket twice and multiply out.", examples=(("(x+7)^2", "x^2+49"), ("(1+√(x+4))^2", "1+x+4")), wrong=_over_sum),
    Slip(id="negative-power-negative", name="Negative exponent, negative number", kind="concept", topic="exponents", done="{what}.",
         why="A negative exponent makes a reciprocal; it says nothing of the sign.", cue="Turn it over, then drop the minus.", examples=(("3^-2", "-9"), ("3^-2", "-1/9")), wrong=_negative_power),
    Slip(id="negative-power-moves-term", name="Moved a term across the bar", kind="concept", topic="exponents", done="{what} as if they were factors.",
         why="Only factors of the whole numerator or denominator move.", cue="In a sum, write each power as a fraction first.", examples=(("1/(2^-1 + 5^-1)", "2 + 5"),), wrong=_negative_moves_term),
    Slip(id="negative-power-takes-coefficient", name="Took the coefficient along", kind="concept", topic="exponents", done="{what}.",
         why="The exponent belongs to its base only.", cue="What does the exponent touch?", examples=(("6x^-1", "1/(6x)"),), wrong=_negative_takes_coefficient),
    Slip(id="zero-power-zero", name="Exponent 0 made 0", kind="concept", topic="exponents", done="{what}.",
         why="Going down, 9², 9¹, 9⁰ is divided by 9 each time: 81, 9, 1.", cue="a⁰ is 1.", examples=(("9^0", "0"),), wrong=_zero_power),
    Slip(id="power-of-fraction-top-only", name="Raised the numerator only", kind="concept", topic="exponents", done="{what}.",
         why="(3/5)² is 3/5 times 3/5.", cue="Write the fraction twice.", examples=(("(3/5)^2", "9/5"),), wrong=_top_only),
    Slip(id="root-over-sum", name="Root of each term", kind="concept", topic="radicals", done="{what}.",
         why="√(9 + 16) is 5, and √9 + √16 is 7.", cue="A root goes over products only.", examples=(("√(x^2+36)", "x+6"),), wrong=_root_over_sum),
    Slip(id="unlike-radicals-combined", name="Combined unlike radicals", kind="concept", topic="radicals", done="{what}, like x and y.",
         why="Only the same root can be counted together.", cue="Same root? Else leave it.", examples=(("3√2 + 5√3", "8√5"),), wrong=_unlike_combined),
    Slip(id="radicands-added", name="Added under one root", kind="concept", topic="radicals", done="{what}.",
         why="√9 + √16 is 7, and √25 is 5.", cue="Simplify each root first.", examples=(("√12 + √27", "√39"), ("5√2 + 2√2", "7√4")), wrong=_radicands_added),
    Slip(id="integer-joined-to-radical", name="Added a number into the coefficient", kind="concept", topic="radicals", done="{what}.",
         why="4 + 3x is not 7x; the root is such an x.", cue="A number and a root are unlike terms.", examples=(("4 + 3√6", "7√6"),), wrong=_integer_joined),
    Slip(id="factor-not-rooted", name="Took the square out without its root", kind="procedure", topic="radicals", done="{what}.",
         why="√25 is 5, so 5 comes out.", cue="Say the root of what comes out.", examples=(("√50", "25√2"),), wrong=_not_rooted),
    Slip(id="rationalised-bottom-only", name="Multiplied the denominator only", kind="procedure", topic="radicals", done="{what}.",
         why="Multiplying by 1 means top and bottom alike.", cue="Write the root beside the bar, above and below.", examples=(("7/√5", "7/5"),), wrong=_bottom_only),
    Slip(id="conjugate-not-used", name="No conjugate", kind="concept", topic="radicals", done="{what}.",
         why="Only with the other sign does the middle cancel.", cue="Change the sign in the middle.", examples=(("2/(1+√3)", "(2(1+√3))/(1+3)"),), wrong=_no_conjugate),
    Slip(id="root-given-both-signs", name="± for a root sign", kind="notation", topic="radicals", done="{what}.",
         why="The sign √ names one number.", cue="± comes when you take the root, not when it stands there.", examples=(("√49", "±7"),), wrong=_both_signs),
    Slip(id="negative-root-real", name="Real root of a negative number", kind="concept", topic="radicals", done="{what}.", scope="any", numbers="complex",
         why="5² and (−5)² are both 25: the root of −25 needs i.", cue="First take the −1 out as i.", examples=(("√(-25)", "-5"), ("2√(-9) + 1", "2·3 + 1")), wrong=_negative_root),
    Slip(id="absolute-lost", name="Dropped the bars", kind="concept", topic="radicals", done="{what}, but the letter may be.",
         why="√((−3)²) is 3.", cue="Even root of an even power: bars.", examples=(("√(y^2)", "y"),), wrong=_absolute_lost),
    Slip(id="base-times-exponent", name="Multiplied base and exponent", kind="concept", topic="exponents", done="{what}.",
         why="4³ is 4·4·4 = 64, and 4·3 is 12.", cue="The exponent counts factors.", examples=(("4^3", "12"),), wrong=_base_times_exponent),
)  # fmt: skip
