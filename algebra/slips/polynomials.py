"""Slips with polynomials and in factoring."""

from __future__ import annotations

from collections.abc import Iterator
from fractions import Fraction as Q
from itertools import product
from math import gcd, isqrt

from algebra.slips.parts import add, coefficient, factors, multiply, number_of, signed, terms, text, wrap
from algebra.slips.slip import Slip, Wrong
from algebra.tree import nodes as n
from algebra.tree.plain import plain

FACTOR = frozenset({"factor", "solve"})


def _unlike(node: n.Node) -> Iterator[Wrong]:
    if not isinstance(node, n.Sum):
        return
    items = terms(node)
    parts = signed(items)
    # a bracket that is a sum is no term that one would count together with another
    if parts is None or any(isinstance(p, n.Root | n.Fraction | n.Sum) for _, t in items for p in n.parts_of(t)):
        return
    for i in range(len(items)):
        for j in range(i + 1, len(items)):
            (a, rest), (b, other) = parts[i], parts[j]
            if rest == other or not (n.letters(items[i][1]) | n.letters(items[j][1])):
                continue
            left = [t for k, t in enumerate(items) if k not in (i, j)]
            what = f"{plain(items[i][1])} and {plain(items[j][1])} are unlike terms"
            bodies = {rest, other} - {""}
            if rest and other:
                bodies.add(f"({rest})·({other})")
            for body in sorted(bodies):
                yield add([("+", f"({text(a + b)})·{body}"), *left]), what


def _first_only(node: n.Node) -> Iterator[Wrong]:
    if not isinstance(node, n.Product):
        return
    items = factors(node)
    for k, factor in enumerate(items):
        inner = terms(factor)
        if len(inner) < 2 or not isinstance(n.bare(factor), n.Sum):
            continue
        others = [f for j, f in enumerate(items) if j != k]
        for reached in range(1, len(inner)):
            opened = [(s, multiply([*others, t])) if j < reached else (s, t) for j, (s, t) in enumerate(inner)]
            yield (
                add(opened),
                f"{multiply(others)} multiplies {plain(inner[reached][1])} as well as {plain(inner[0][1])}",
            )


def _trinomial(node: n.Node) -> tuple[str, int, int, int] | None:
    """(letter, a, b, c) of a whole-number quadratic in one letter, else None."""
    names = n.letters(node)
    if len(names) != 1 or not isinstance(node, n.Sum):
        return None
    letter = next(iter(names))
    found = {0: Q(0), 1: Q(0), 2: Q(0)}
    for sign, term in terms(node):
        parts = coefficient(term)
        if parts is None:
            return None
        power = {"": 0, letter: 1, f"({letter}^2)": 2}.get(parts[1])
        if power is None:
            return None
        found[power] += -parts[0] if sign == "-" else parts[0]
    if not found[2] or any(v.denominator != 1 for v in found.values()):
        return None
    return letter, int(found[2]), int(found[1]), int(found[0])


def _brackets(letter: str, p: int, q: int, front: int = 1) -> str:
    head = f"{front}·" if front != 1 else ""
    return f"{head}({letter} + ({p}))·({letter} + ({q}))"


def _factor_signs(node: n.Node) -> Iterator[Wrong]:
    found = _trinomial(node)
    if not found or found[1] != 1:
        return
    letter, _, b, c = found
    d = b * b - 4 * c
    if d < 0 or isqrt(d) ** 2 != d:
        return
    p, q = (b + isqrt(d)) // 2, (b - isqrt(d)) // 2
    for s, t in product((1, -1), repeat=2):
        if (s, t) != (1, 1):
            yield _brackets(letter, s * p, t * q), f"the numbers {abs(p)} and {abs(q)} are right, their signs are not"


def _factor_pair(node: n.Node) -> Iterator[Wrong]:
    found = _trinomial(node)
    if not found or found[1] != 1 or not found[3]:
        return
    letter, _, b, c = found
    for size in range(1, abs(c) + 1):
        if c % size == 0:
            for p in (size, -size):
                if p + c // p != b:
                    yield _brackets(letter, p, c // p), f"{p} and {c // p} have the product {c}, but not the sum {b}"
    for p in range(-abs(b) - 12, abs(b) + 13):
        if p and b - p and p * (b - p) != c and abs(p) <= abs(b - p):
            yield _brackets(letter, p, b - p), f"{p} and {b - p} have the sum {b}, but not the product {c}"


def _common_lost(node: n.Node) -> Iterator[Wrong]:
    parts = signed(terms(node)) if isinstance(node, n.Sum) else None
    if parts is None or any(a.denominator != 1 for a, _ in parts):
        return
    common = gcd(*(int(a) for a, _ in parts))
    if common > 1 and len({rest for _, rest in parts}) == len(parts):
        yield f"({plain(node)})/{common}", f"the common factor {common} was taken out and forgotten"


def _wrong_rest(node: n.Node) -> Iterator[Wrong]:
    """A common factor in front, one of the terms not divided by it (or not wholly)."""
    if not isinstance(node, n.Sum):
        return
    items = terms(node)
    parts = signed(items)
    if parts is None or any(a.denominator != 1 for a, _ in parts):
        return
    common = gcd(*(int(a) for a, _ in parts))
    letters = _common_letters(items)
    choices = [(common, ""), (common, letters), (1, letters)]
    for number, rest in choices:
        if number == 1 and not rest:
            continue
        front = multiply([str(number), *([rest] if rest else [])])
        pieces = [str(number), *rest.split("·")] if rest else [str(number)]
        # a term is divided by all that was taken out, by a part of it, or not at all
        partly = dict.fromkeys([front, "1", *("·".join(p for p in pieces if p != left) or "1" for left in pieces)])
        for chosen in product(partly, repeat=len(items)) if len(items) <= 3 else ():
            bad = [plain(t) for by, (_, t) in zip(chosen, items, strict=True) if by != front]
            if bad:
                inner = [(s, f"({plain(t)})/({by})") for by, (s, t) in zip(chosen, items, strict=True)]
                taken = f"{'' if number == 1 and rest else number}{rest.replace('·', '')}"
                verb = "was" if len(bad) == 1 else "were"
                yield f"({front})·({add(inner)})", f"{' and '.join(bad)} {verb} not divided by {taken}"


def _common_letters(items: list[tuple[str, n.Node]]) -> str:
    powers: list[dict[str, int]] = []
    for _, term in items:
        own: dict[str, int] = {}
        for f in factors(term):
            bare = n.bare(f)
            if isinstance(bare, n.Letter):
                own[bare.name] = own.get(bare.name, 0) + 1
            elif isinstance(bare, n.Power) and isinstance(bare.base, n.Letter) and isinstance(bare.exponent, n.Integer):
                own[bare.base.name] = own.get(bare.base.name, 0) + bare.exponent.value
        powers.append(own)
    shared = {name: min(p.get(name, 0) for p in powers) for name in powers[0]}
    return "·".join(f"{name}^{k}" if k > 1 else name for name, k in shared.items() if k)


def _squares(node: n.Node) -> tuple[str, str, str] | None:
    """(a, b, sign) of a² ± b², else None."""
    if not isinstance(node, n.Sum) or len(node.terms) != 2 or not n.letters(node):
        return None
    roots = []
    for _, term in terms(node):
        parts = coefficient(term)
        if parts is None or parts[0] <= 0 or parts[0].denominator != 1 or isqrt(int(parts[0])) ** 2 != parts[0]:
            return None
        letters = []
        for f in factors(term):
            bare = n.bare(f)
            if number_of(f) is not None:
                continue
            if not (
                isinstance(bare, n.Power) and isinstance(bare.exponent, n.Integer) and bare.exponent.value % 2 == 0
            ):
                return None
            letters.append(f"{wrap(bare.base)}^{bare.exponent.value // 2}")
        roots.append(multiply([str(isqrt(int(parts[0]))), *letters]))
    return roots[0], roots[1], node.signs[0]


def _difference_square(node: n.Node) -> Iterator[Wrong]:
    found = _squares(node)
    if found and found[2] == "-":
        yield f"({found[0]} - {found[1]})^2", f"{plain(node)} was taken for a square"


def _sum_of_squares(node: n.Node) -> Iterator[Wrong]:
    found = _squares(node)
    if found and found[2] == "+":
        a, b, _ = found
        for wrong in (f"({a} + {b})·({a} - {b})", f"({a} + {b})^2", f"({a} - {b})^2"):
            yield wrong, f"{plain(node)} has no real factors"


def _cubes(node: n.Node) -> Iterator[Wrong]:
    if not isinstance(node, n.Sum) or len(node.terms) != 2:
        return
    roots = []
    for _, term in terms(node):
        parts = coefficient(term)
        if parts is None or parts[0] <= 0:
            return
        size = round(float(parts[0]) ** (1 / 3))
        if size**3 != parts[0]:
            return
        letters = []
        for f in factors(term):
            bare = n.bare(f)
            if number_of(f) is None:
                if not (
                    isinstance(bare, n.Power) and isinstance(bare.exponent, n.Integer) and bare.exponent.value % 3 == 0
                ):
                    return
                letters.append(f"{wrap(bare.base)}^{bare.exponent.value // 3}")
        roots.append(multiply([str(size), *letters]))
    a, b = roots
    right = node.signs[0]
    for first, middle, last, times in product("+-", "+-", "+-", ("1", "2")):
        if (first, middle, last, times) != (right, "-" if right == "+" else "+", "+", "1"):
            yield (
                f"({a} {first} {b})·(({a})^2 {middle} {times}·{a}·{b} {last} ({b})^2)",
                "the pattern of the cubes has other signs, and its middle is not doubled",
            )


def _leading_ignored(node: n.Node) -> Iterator[Wrong]:
    found = _trinomial(node)
    if not found or found[1] == 1:
        return
    letter, a, b, c = found
    d = b * b - 4 * a * c
    if d >= 0 and isqrt(d) ** 2 == d:
        p, q = (b + isqrt(d)) // 2, (b - isqrt(d)) // 2
        yield (
            _brackets(letter, p, q),
            f"{p} and {q} have the product {a}·{c}, but belong to {letter}² and not to {a}{letter}²",
        )
        yield _brackets(letter, p, q, a), f"{p} and {q} were used as if {a} could stand in front"


SLIPS = (
    Slip(id="distributed-first-only", name="Multiplied the first term only", kind="procedure", topic="polynomials", done="{what}.",
         why="4(5 + 3) is 32; 4·5 + 3 is 23.", cue="Draw an arrow to every term.", examples=(("4(x + 3)", "4x + 3"),), wrong=_first_only),
    Slip(id="unlike-terms-combined", name="Combined unlike terms", kind="concept", topic="polynomials", done="{what}.",
         why="6 apples and 2 are not 8 apples.", cue="Same letters, same exponents? Else leave them.", examples=(("6x + 2", "8x"),), wrong=_unlike),
    Slip(id="factor-signs", name="Wrong signs in the brackets", kind="care", topic="factoring", done="{what}.",
         why="Product and sum both fix the signs.", cue="Multiply the brackets out.", examples=(("x^2-3x-10", "(x+5)(x-2)"),), wrong=_factor_signs, tasks=FACTOR),
    Slip(id="factor-pair", name="Wrong pair of numbers", kind="procedure", topic="factoring", done="{what}.",
         why="The pair must have both, the product and the sum.", cue="Check the sum too.", examples=(("x^2+9x+20", "(x+10)(x+2)"),), wrong=_factor_pair, tasks=FACTOR),
    Slip(id="common-factor-lost", name="Forgot the common factor", kind="care", topic="factoring", done="{what}.",
         why="What is taken out stays in front.", cue="Write the common factor first.", examples=(("2x^2+14x+20", "(x+2)(x+5)"),), wrong=_common_lost,
         tasks=frozenset({"factor", "simplify", "expand"})),
    Slip(id="common-factor-wrong-rest", name="Wrong rest after taking out", kind="procedure", topic="factoring", done="{what}.",
         why="Multiplying back must give each term.", cue="Multiply back.", examples=(("12x+8", "4(3x+8)"), ("x^5y^2+x^2y^5", "x^2y^2(x^5+y^5)")), wrong=_wrong_rest),
    Slip(id="difference-as-square", name="Difference of squares as a square", kind="concept", topic="factoring", done="{what}.",
         why="5² − 3² is 16; (5 − 3)² is 4.", cue="Plus and minus: one bracket of each.", examples=(("x^2-81", "(x-9)^2"),), wrong=_difference_square),
    Slip(id="sum-of-squares-factored", name="Factored a sum of squares", kind="concept", topic="factoring", done="{what}.",
         why="3² + 4² is 25; (3 + 4)(3 − 4) is −7.", cue="Plus between squares: prime.", examples=(("x^2+25", "(x+5)(x-5)"),), wrong=_sum_of_squares),
    Slip(id="cubes-pattern", name="Pattern of the cubes", kind="care", topic="factoring", done="{what}.",
         why="The middle terms must cancel when multiplied out.", cue="Same, opposite, always plus.", examples=(("x^3-64", "(x-4)(x^2-4x+16)"),), wrong=_cubes),
    Slip(id="leading-coefficient-ignored", name="Ignored the leading coefficient", kind="procedure", topic="factoring", done="{what}.",
         why="The pair splits the middle term; it does not stand in the brackets yet.", cue="Split, then group.",
         examples=(("3x^2+10x+8", "(x+6)(x+4)"),), wrong=_leading_ignored),
)  # fmt: skip
