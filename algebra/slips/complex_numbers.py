"""Slips with complex numbers."""

from __future__ import annotations

from collections.abc import Iterator

from algebra.slips.parts import (
    add,
    coefficient,
    factors,
    multiply,
    number_of,
    opposite,
    root,
    square_root,
    terms,
    two_of,
)
from algebra.slips.slip import Slip, Wrong
from algebra.slips.words import said
from algebra.tree import build
from algebra.tree import nodes as n


def _i_squared_one(node: n.Node) -> Iterator[Wrong]:
    if isinstance(node, n.Power) and n.bare(node.base) == n.Letter("i"):
        exponent = number_of(node.exponent)
        if exponent is not None and exponent.denominator == 1 and exponent % 4 == 2:
            yield build.ONE, said("{power} was taken for 1; it is −1", power=node)


def _wrong_power_of_i(node: n.Node) -> Iterator[Wrong]:
    """i⁷ as i."""
    if not (isinstance(node, n.Power) and n.bare(node.base) == n.Letter("i")):
        return
    exponent = number_of(node.exponent)
    if exponent is None or exponent.denominator != 1 or exponent < 3:
        return
    fours, rest = divmod(int(exponent), 4)
    values = [build.ONE, n.Letter("i"), opposite(build.ONE), opposite(n.Letter("i"))]
    for k in (1, 3, 0, 2):
        if k != rest:
            words = said(
                "{exponent} is 4·{fours} + {rest}, and i⁴ is 1", exponent=int(exponent), fours=fours, rest=rest
            )
            yield values[k], words


def _negative_roots_multiplied(node: n.Node) -> Iterator[Wrong]:
    """√(−4)·√(−9) as √36."""
    if not isinstance(node, n.Product):
        return
    items = factors(node)
    for j, k, rest in two_of(items):
        one, other = items[j], items[k]
        if not (isinstance(one, n.Root) and isinstance(other, n.Root)) or one.index or other.index:
            continue
        a, b = number_of(one.radicand), number_of(other.radicand)
        if a is None or b is None or not (a < 0 and b < 0):
            continue
        words = said("{one} and {other} were put under one root", one=one, other=other)
        taken = square_root(a * b)
        yield multiply([*rest, root(build.number(a * b))]), words
        if taken is not None:
            yield multiply([*rest, taken]), words


def _conjugates_as_difference(node: n.Node) -> Iterator[Wrong]:
    """(2 − 3i)(2 + 3i) as 4 − 9."""
    if not isinstance(node, n.Product) or len(node.factors) != 2:
        return
    (s, a), (t, b) = pair if len(pair := terms(node.factors[0])) == 2 else [("+", build.ZERO)] * 2
    other = terms(node.factors[1])
    if s != "+" or len(other) != 2 or other[0] != ("+", a) or other[1][1] != b or other[1][0] == t:
        return
    real, imaginary = number_of(a), coefficient(b)
    if real is None or imaginary is None or imaginary[1] != n.Letter("i"):
        return
    squares = [("+", build.number(real**2)), ("-", build.number(imaginary[0] ** 2))]
    yield (
        add(squares),
        said("the square of {b} was taken for {square}; with i it is −{square}", b=b, square=imaginary[0] ** 2),
    )


SLIPS: tuple[Slip, ...] = (
    Slip(
        id="negative-roots-multiplied",
        name="Multiplied roots of negatives",
        kind="concept",
        topic="complex numbers",
        done="{what}.",
        why="√(−1)·√(−1) is i², and that is −1; √((−1)(−1)) is 1.",
        cue="Take out the i of each root first.",
        numbers="complex",
        wrong=_negative_roots_multiplied,
        examples=(("√(-4)·√(-9)", "√36"), ("√(-2)·√(-8)", "4")),
        innocent=(("√(-4)·√(-9)", "2i·3i"), ("√4·√9", "√36")),
        lurks_in=("negative-radicand",),
        likely=4.4,
        rank=6,
    ),
    Slip(
        id="wrong-power-of-i",
        name="Wrong power of i",
        kind="procedure",
        topic="complex numbers",
        done="{what}.",
        why="The powers of i are i, −1, −i, 1, and then again.",
        cue="Divide the exponent by 4 and keep the rest.",
        numbers="complex",
        wrong=_wrong_power_of_i,
        examples=(("i^7", "i"), ("2 + i^12", "2 + i")),
        innocent=(("i^7", "-i"),),
        lurks_in=("powers-of-i",),
        rank=12,
    ),
    Slip(
        id="conjugates-as-difference",
        name="Conjugates as a difference",
        kind="concept",
        topic="complex numbers",
        done="{what}.",
        why="(2 − i)(2 + i) is 4 − i², and −i² is +1.",
        cue="With i the squares are added.",
        numbers="complex",
        wrong=_conjugates_as_difference,
        examples=(("(2-3i)(2+3i)", "4 - 9"), ("(5(2+i))/((2-i)(2+i))", "(5(2+i))/3")),
        innocent=(("(2-3i)(2+3i)", "4 + 9"),),
        lurks_in=("multiply-complex",),
        likely=3.6,
        rank=6,
    ),
    Slip(
        id="i-squared-one",
        name="Took i² for 1",
        kind="concept",
        topic="complex numbers",
        done="{what}.",
        why="i is a number with the square −1.",
        cue="Write (−1) for i².",
        examples=(("3 - 10i - 8i^2", "3 - 10i - 8"), ("10/(4 - i^2)", "10/(4-1)")),
        wrong=_i_squared_one,
        numbers="complex",
        innocent=(("3 - 10i - 8i^2", "3 - 10i + 8"),),
        lurks_in=("powers-of-i",),
        likely=4.4,
        rank=8,
    ),
)
