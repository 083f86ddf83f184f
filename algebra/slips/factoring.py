"""Slips in factoring."""

from __future__ import annotations

from collections.abc import Iterator
from fractions import Fraction as Q
from itertools import product
from math import gcd, isqrt

from algebra.exact.algebraic_numbers import divisors, whole_root
from algebra.slips.parts import (
    Counted,
    Term,
    add,
    coefficient,
    counted,
    factors,
    multiply,
    number_of,
    over,
    power,
    signed,
    square_of,
    terms,
)
from algebra.slips.slip import Slip, Wrong
from algebra.slips.words import listed, said
from algebra.tree import build
from algebra.tree import nodes as n

FACTOR = frozenset({"factor", "solve"})


def _trinomial(node: n.Node) -> tuple[str, int, int, int] | None:
    """(letter, a, b, c) of a whole-number quadratic in one letter, else None."""
    names = n.letters(node)
    if len(names) != 1 or not isinstance(node, n.Sum):
        return None
    letter = next(iter(names))
    places = {None: 0, n.Letter(letter): 1, square_of(letter): 2}
    found = [Q(0)] * 3
    for sign, term in terms(node):
        parts = coefficient(term)
        if parts is None or parts[1] not in places:
            return None
        found[places[parts[1]]] += -parts[0] if sign == "-" else parts[0]
    if not found[2] or any(v.denominator != 1 for v in found):
        return None
    return letter, int(found[2]), int(found[1]), int(found[0])


def _brackets(letter: str, *pairs: tuple[int, int], front: int = 1) -> n.Node:
    """(ax + p)(bx + q) for (a, p), (b, q), a number in front."""
    sums = [add([("+", counted(Q(a), n.Letter(letter))), ("+", build.number(p))]) for a, p in pairs]
    return multiply([n.Integer(front), *sums] if front != 1 else sums)


def _factor_signs(node: n.Node) -> Iterator[Wrong]:
    found = _trinomial(node)
    if not found or found[1] <= 0:
        return
    letter, a, b, c = found
    d = b * b - 4 * a * c
    if d < 0 or isqrt(d) ** 2 != d:
        return
    # x + p/a and x + q/a, each with its denominator multiplied in
    (p, m), (q, k) = ((Q(b + sign * isqrt(d), 2 * a)).as_integer_ratio() for sign in (1, -1))
    if m * k != a:
        return
    words = said("the numbers {p} and {q} are right, their signs are not", p=abs(p), q=abs(q))
    for s, t in ((-1, -1), (1, -1), (-1, 1)):  # both signs exchanged is what happens first
        yield _brackets(letter, (m, s * p), (k, t * q)), words


_WORTH_GUESSING = 5_000


def _factor_pair(node: n.Node) -> Iterator[Wrong]:
    found = _trinomial(node)
    if not found or found[1] <= 0 or not found[3] or max(abs(found[2]), abs(found[3])) > _WORTH_GUESSING:
        return
    letter, a, b, c = found
    if a != 1:
        yield from _wrong_middle(letter, a, b, c)
        return
    pairs = [(abs(p + c // p - b), p, c // p) for k in divisors(c) for p in (k, -k)]
    sums = range(-abs(b) - 12, abs(b) + 13)
    pairs += [(abs(p * (b - p) - c), p, b - p) for p in sums if p and b - p and abs(p) <= abs(b - p)]
    for off, p, q in sorted(pairs, key=lambda pair: pair[0]):  # what nearly fits is the most tempting
        if off:
            right, wrong = ("product", "sum") if p * q == c else ("sum", "product")
            words = said(
                "{p} and {q} have the " + right + " {held}, but not the " + wrong + " {missed}",
                shows=build.number(p),
                p=p,
                q=q,
                held=c if right == "product" else b,
                missed=b if right == "product" else c,
            )
            yield _brackets(letter, (1, p), (1, q)), words


def _wrong_middle(letter: str, a: int, b: int, c: int) -> Iterator[Wrong]:
    """2x² + 7x + 3 as (2x+3)(x+1): first and last terms are right, the middle one is not."""
    if a > _WORTH_GUESSING or b == 0:  # two terms alone are not guessed at like this
        return
    guesses = [(m, p, a // m, c // p) for m in divisors(a) for d in divisors(c) for p in (d, -d) if m * m >= a]
    x = n.Letter(letter)

    def unlikely(guess: tuple[int, int, int, int]) -> tuple[bool, int]:
        m, p, k, q = guess
        return gcd(m, p) * gcd(k, q) > 1, abs(m * q + p * k - b)  # a common factor would be taken out first

    for m, p, k, q in sorted(guesses, key=unlikely):
        made = m * q + p * k
        if made != b:
            shown = build.product(*(build.polynomial((end, front), letter) for front, end in ((m, p), (k, q))))
            words = said(
                "{brackets} has {made}{x} in the middle, not {middle}{x}", brackets=shown, made=made, middle=b, x=x
            )
            yield _brackets(letter, (m, p), (k, q)), words


def _common_lost(node: n.Node) -> Iterator[Wrong]:
    if isinstance(node, n.Product):
        sums = [f for f in factors(node) if isinstance(n.bare(f), n.Sum)]
        lost = [f for f in factors(node) if f not in sums]
        if lost and (len(sums) > 1 or any(len(terms(f)) > 2 for f in sums)):
            yield multiply(sums), said("the common factor {common} was left out", common=build.product(*lost))
    parts = signed(terms(node)) if isinstance(node, n.Sum) else None
    if parts is None or any(a.denominator != 1 for a, _ in parts):
        return
    common = gcd(*(int(a) for a, _ in parts))
    if len({rest for _, rest in parts}) < len(parts):
        return
    number: list[n.Node] = [n.Integer(common)] if common > 1 else []
    shared = _common_letters(terms(node))
    for lost in ([*number, *shared], number, shared) if number and shared else ([*number, *shared],):
        if lost:
            words = said("the common factor {common} was taken out and forgotten", common=build.product(*lost))
            yield over(node, multiply(lost)), words


def _wrong_rest(node: n.Node) -> Iterator[Wrong]:
    """A common factor in front, one of the terms not divided by it (or not wholly)."""
    if not isinstance(node, n.Sum) or not n.letters(node):
        return
    items = terms(node)
    parts = signed(items)
    if parts is None or any(a.denominator != 1 for a, _ in parts) or len(items) > 3:
        return
    if len({rest for _, rest in parts}) == 1:  # like terms are counted together
        return
    common = gcd(*(int(a) for a, _ in parts))
    if common > 1 or _common_letters(items):
        yield from _one_lost(items, parts, common)
    letters = _common_letters(items)
    for number, rest in ((common, []), (common, letters), (1, letters)):
        if number == 1 and not rest:
            continue
        pieces = [n.Integer(number), *rest]
        front = multiply(pieces)
        # a term is divided by all that was taken out, by a part of it, or not at all
        partly = dict.fromkeys([front, build.ONE, *(multiply(p for p in pieces if p is not left) for left in pieces)])
        taken = build.implied_product([p for p in pieces if p != build.ONE] or [build.ONE])
        for chosen in product(partly, repeat=len(items)):
            bad = [t for by, (_, t) in zip(chosen, items, strict=True) if by != front]
            if bad:
                inner = [(s, over(t, by)) for by, (s, t) in zip(chosen, items, strict=True)]
                verb = "was" if len(bad) == 1 else "were"
                words = said("{bad} " + verb + " not divided by {taken}", shows=bad[0], bad=listed(bad), taken=taken)
                yield multiply([front, add(inner)]), words
    if common > 1:
        yield from _subtracted(parts, common)


def _subtracted(parts: list[Counted], common: int) -> Iterator[Wrong]:
    """18a - 12 as 6(12a - 2): the factor was taken from a number, where it had to be divided by it."""
    for chosen in product((False, True), repeat=len(parts)):
        if any(chosen) and not any(c and abs(a) == common for c, (a, _) in zip(chosen, parts, strict=True)):
            inner = [
                (("+" if a > 0 else "-"), counted(abs(a) - common if c else abs(a) / common, rest))
                for c, (a, rest) in zip(chosen, parts, strict=True)
            ]
            first = next(abs(a) for c, (a, _) in zip(chosen, parts, strict=True) if c)
            words = said(
                "{common} was taken from {first}, not divided into it",
                shows=build.number(first),
                common=common,
                first=build.number(first),
            )
            yield multiply([n.Integer(common), add(inner)]), words


def _pair_sign(node: n.Node) -> Iterator[Wrong]:
    """6x² − 15x + 8x − 20 as 3x(2x−5) − 4(2x−5): a factor of the last two of four terms taken out with the wrong
    sign."""
    items = terms(node) if isinstance(node, n.Sum) else []
    parts = signed(items)
    if (
        len(items) != 4
        or parts is None
        or any(a.denominator != 1 for a, _ in parts)
        or any(s not in "+-" for s, _ in items)
    ):
        return
    (s, first), (t, second) = items[2:]
    if gcd(*(int(a) for a, _ in parts[2:])) == 1 and not _common_letters(items[2:]):
        return
    turned = {"+": "-", "-": "+"}
    words = said("the signs of {first} and {second} were turned round", shows=first, first=first, second=second)
    yield add([*items[:2], (turned[s], first), (turned[t], second)]), words
    yield (
        add([*items[:2], (s, first), (turned[t], second)]),
        said("the sign of {second} was turned round", shows=second, second=second),
    )


def _one_lost(items: list[Term], parts: list[Counted], common: int) -> Iterator[Wrong]:
    """7y + 7 as 7(y): the term that is the factor itself leaves a 1."""
    front = multiply([n.Integer(common), *_common_letters(items)])
    for k, (_, term) in enumerate(items):
        value, rest = parts[k]
        if abs(value) == common and (rest is None or [n.bare(f) for f in factors(rest)] == _common_letters(items)):
            kept = [(s, over(t, front)) for j, (s, t) in enumerate(items) if j != k]
            yield (
                multiply([front, add(kept)]),
                said("{term} divided by {front} leaves 1, not nothing", shows=term, term=term, front=front),
            )


def _common_letters(items: list[Term]) -> list[n.Node]:
    """The powers of letters that all terms share."""
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
    return [n.Power(n.Letter(name), n.Integer(k)) if k > 1 else n.Letter(name) for name, k in shared.items() if k]


def _nth_root(term: n.Node, index: int) -> n.Node | None:
    """The root of a product of a number and powers, where it needs no root sign; else None."""
    parts = coefficient(term)
    if parts is None or parts[0] <= 0 or parts[0].denominator != 1:
        return None
    size = whole_root(int(parts[0]), index)
    if size is None:
        return None
    pieces: list[n.Node] = [n.Integer(size)]
    for f in factors(term):
        bare = n.bare(f)
        if number_of(f) is not None:
            continue
        if not (isinstance(bare, n.Power) and isinstance(bare.exponent, n.Integer) and not bare.exponent.value % index):
            return None
        times = bare.exponent.value // index
        pieces.append(bare.base if times == 1 else power(bare.base, times))
    return multiply(pieces)


def _two_powers(node: n.Node, index: int) -> tuple[n.Node, n.Node, str] | None:
    """(a, b, sign) of a² ± b² or a³ ± b³, else None."""
    if not isinstance(node, n.Sum) or len(node.terms) != 2:
        return None
    first, second = (_nth_root(term, index) for _, term in terms(node))
    return None if first is None or second is None else (first, second, node.signs[0])


def _squares(node: n.Node) -> tuple[n.Node, n.Node, str] | None:
    return _two_powers(node, 2) if n.letters(node) else None


def _difference_square(node: n.Node) -> Iterator[Wrong]:
    found = _squares(node)
    if (
        found
        and found[2] == "-"
        and not any(isinstance(part, n.Sum) for base in found[:2] for part in n.parts_of(base))
    ):
        yield (
            power(add([("+", found[0]), ("-", found[1])]), 2),
            said("{difference} was taken for a square", difference=node),
        )


def _sum_of_squares(node: n.Node) -> Iterator[Wrong]:
    found = _squares(node)
    if found and found[2] == "+":
        plus, minus = (add([("+", found[0]), (sign, found[1])]) for sign in "+-")
        for wrong in (multiply([plus, minus]), power(plus, 2), power(minus, 2)):
            yield wrong, said("{sum} has no real factors", sum=node)


def _cubes(node: n.Node) -> Iterator[Wrong]:
    found = _two_powers(node, 3)
    if found is None:
        return
    a, b, right = found
    words = said("the pattern of the cubes has other signs, and its middle is not doubled")
    for first, middle, last, times in product("+-", "+-", "+-", (1, 2)):
        if (first, middle, last, times) != (right, "-" if right == "+" else "+", "+", 1):
            bracket = add([("+", power(a, 2)), (middle, multiply([n.Integer(times), a, b])), (last, power(b, 2))])
            yield multiply([add([("+", a), (first, b)]), bracket]), words
    middle = "-" if right == "+" else "+"
    for k, whole in enumerate((a, b)):
        scale = coefficient(whole)
        if scale is not None and scale[1] is not None and scale[0] != 1:  # (2x)² written as 2x²
            halfway = counted(scale[0], power(scale[1], 2))
            outer = [halfway if j == k else power(side, 2) for j, side in enumerate((a, b))]
            bracket = add([("+", outer[0]), (middle, multiply([a, b])), ("+", outer[1])])
            yield (
                multiply([add([("+", a), (right, b)]), bracket]),
                said("{number} was not squared in ({whole})²", number=scale[0], whole=whole),
            )
    words = said("the second bracket has a middle term: {a} times {b}", a=a, b=b)
    for last in "+-":
        yield multiply([add([("+", a), (right, b)]), add([("+", power(a, 2)), (last, power(b, 2))])]), words


def _leading_ignored(node: n.Node) -> Iterator[Wrong]:
    found = _trinomial(node)
    if not found or found[1] == 1:
        return
    letter, a, b, c = found
    bare = b * b - 4 * c
    if bare >= 0 and isqrt(bare) ** 2 == bare:
        p, q = (b + isqrt(bare)) // 2, (b - isqrt(bare)) // 2
        words = said("{p} and {q} fit {b} and {c}; the {a} in front is left out", p=p, q=q, b=b, c=c, a=a)
        yield _brackets(letter, (1, p), (1, q)), words
    d = b * b - 4 * a * c
    if d < 0 or isqrt(d) ** 2 != d:
        return
    p, q = (b + isqrt(d)) // 2, (b - isqrt(d)) // 2
    yield (
        _brackets(letter, (1, p), (1, q)),
        said(
            "{p} and {q} have the product {a}·{c}, but belong to {letter}² and not to {a}{letter}²",
            shows=build.number(p),
            p=p,
            q=q,
            a=a,
            c=c,
            letter=n.Letter(letter),
        ),
    )
    words = said("{p} and {q} were used as if {a} could stand in front", shows=build.number(p), p=p, q=q, a=a)
    yield _brackets(letter, (1, p), (1, q), front=a), words


SLIPS: tuple[Slip, ...] = (
    Slip(
        id="factor-signs",
        name="Wrong signs in the brackets",
        kind="care",
        topic="factoring",
        done="{what}.",
        why="Product and sum both fix the signs.",
        cue="Multiply the brackets out.",
        examples=(("x^2-3x-10", "(x+5)(x-2)"),),
        wrong=_factor_signs,
        tasks=FACTOR,
        innocent=(("x^2-3x-10", "(x-5)(x+2)"),),
        lurks_in=(
            "product-sum",
            "perfect-square",
            "factor-all",
            "factor-bottoms",
            "factor-numerator",
            "factor-side",
            "write-as-square",
        ),
        likely=3.2,
    ),
    Slip(
        id="factor-pair",
        name="Wrong pair of numbers",
        kind="procedure",
        topic="factoring",
        done="{what}.",
        why="The pair must have both, the product and the sum.",
        cue="Check the sum too.",
        examples=(("x^2+9x+20", "(x+10)(x+2)"), ("2x^2+7x+3", "(2x+3)(x+1)")),
        wrong=_factor_pair,
        tasks=FACTOR,
        innocent=(("x^2+9x+20", "(x+4)(x+5)"),),
        lurks_in=("product-sum", "area-grid", "split-middle", "not-factorable", "factor-side"),
        likely=2.6,
    ),
    Slip(
        id="common-factor-lost",
        name="Forgot the common factor",
        kind="care",
        topic="factoring",
        done="{what}.",
        why="What is taken out stays in front.",
        cue="Write the common factor first.",
        examples=(("2x^2+14x+20", "(x+2)(x+5)"),),
        wrong=_common_lost,
        tasks=frozenset({"factor", "simplify", "expand"}),
        innocent=(("2x^2+14x+20", "2(x+2)(x+5)"),),
        lurks_in=("common-factor", "common-bracket", "factor-side"),
        likely=3.0,
    ),
    Slip(
        id="common-factor-wrong-rest",
        name="Wrong rest after taking out",
        kind="procedure",
        topic="factoring",
        done="{what}.",
        why="Multiplying back must give each term.",
        cue="Multiply back.",
        examples=(("12x+8", "4(3x+8)"), ("x^5y^2+x^2y^5", "x^2y^2(x^5+y^5)")),
        wrong=_wrong_rest,
        innocent=(("12x+8", "4(3x+2)"),),
        lurks_in=("common-factor", "group-in-pairs", "factor-unknown"),
        likely=1.6,
    ),
    Slip(
        id="pair-sign",
        name="Sign lost in a pair",
        kind="procedure",
        topic="factoring",
        done="When the factor of the last two terms was taken out, {what}.",
        why="−4 times −5 is 20, not −20.",
        cue="Multiply the pair back, with its signs.",
        wrong=_pair_sign,
        tasks=FACTOR,
        examples=(("6x^2-15x+8x-20", "3x(2x-5)-4(2x-5)"), ("x^3+2x^2-9x-18", "x^2(x+2)-9(x-2)")),
        innocent=(("6x^2-15x+8x-20", "3x(2x-5)+4(2x-5)"),),
        lurks_in=("group-in-pairs",),
        likely=1.8,
    ),
    Slip(
        id="difference-as-square",
        name="Difference of squares as a square",
        kind="concept",
        topic="factoring",
        done="{what}.",
        why="5² − 3² is 16; (5 − 3)² is 4.",
        cue="Plus and minus: one bracket of each.",
        examples=(("x^2-81", "(x-9)^2"),),
        wrong=_difference_square,
        innocent=(("x^2-81", "(x-9)(x+9)"), ("x^2-18x+81", "(x-9)^2")),
        lurks_in=("difference-of-squares", "factor-denominators"),
        rank=10,
    ),
    Slip(
        id="sum-of-squares-factored",
        name="Factored a sum of squares",
        kind="concept",
        topic="factoring",
        done="{what}.",
        why="3² + 4² is 25; (3 + 4)(3 − 4) is −7.",
        cue="Plus between squares: prime.",
        examples=(("x^2+25", "(x+5)(x-5)"),),
        wrong=_sum_of_squares,
        innocent=(("x^2-25", "(x+5)(x-5)"),),
        lurks_in=("difference-of-squares", "not-factorable"),
        likely=2.0,
        rank=11,
    ),
    Slip(
        id="cubes-pattern",
        name="Pattern of the cubes",
        kind="care",
        topic="factoring",
        done="{what}.",
        why="The middle terms must cancel when multiplied out.",
        cue="Same, opposite, always plus.",
        examples=(("x^3-64", "(x-4)(x^2-4x+16)"),),
        wrong=_cubes,
        innocent=(("x^3-64", "(x-4)(x^2+4x+16)"),),
        lurks_in=("sum-of-cubes",),
    ),
    Slip(
        id="leading-coefficient-ignored",
        name="Ignored the leading coefficient",
        kind="procedure",
        topic="factoring",
        done="{what}.",
        why="The pair splits the middle term; it does not stand in the brackets yet.",
        cue="Split, then group.",
        examples=(("3x^2+10x+8", "(x+6)(x+4)"),),
        wrong=_leading_ignored,
        innocent=(("3x^2+10x+8", "(3x+4)(x+2)"),),
        lurks_in=("area-grid", "split-middle", "slide-and-divide", "factor-side"),
    ),
)
