"""Slips with equations: linear, rational, radical, absolute value."""

from __future__ import annotations

from collections.abc import Iterator
from fractions import Fraction as Q
from itertools import product
from math import gcd, lcm

from algebra.slips.parts import (
    Term,
    add,
    equals,
    factors,
    is_zero,
    multiply,
    number_of,
    opposite,
    over,
    power,
    signed,
    terms,
)
from algebra.slips.slip import Slip, Wrong, both_ways, sides
from algebra.slips.words import said
from algebra.tree import build
from algebra.tree import nodes as n
from algebra.tree.plain import plain

MAX_PAIRS = 16
"""Most pairs of terms of which both are carried across."""
MAX_SKIPPED = 4
"""Most terms of which each is tried as the one that was left out."""


def _holds_root(node: n.Node) -> bool:
    return any(isinstance(part, n.Root) for part in n.parts_of(node))


def _one_side(body: n.Node) -> Iterator[Wrong]:
    for own, other in both_ways(body):
        items = terms(own)
        if len(items) > 1:
            for k, (_, term) in enumerate(items):
                rest = add(t for j, t in enumerate(items) if j != k)
                yield equals(rest, other), said("{term} went from one side only", shows=term, term=term)
        parts = signed(items) if len(items) > 1 else None
        if parts is not None and n.letters(own) and all(a.denominator == 1 for a, _ in parts):
            shared = gcd(*(int(a) for a, _ in parts))
            for by in (d for d in range(2, min(shared, 60) + 1) if shared % d == 0):
                words = said("only one side was divided by {number}", number=by)
                yield equals(add((s, over(t, n.Integer(by))) for s, t in items), other), words
        inner = factors(own)
        if len(inner) > 1 and any(n.letters(f) for f in inner):
            for k, f in enumerate(inner):
                if not n.letters(f):
                    rest = multiply(g for j, g in enumerate(inner) if j != k)
                    yield equals(rest, other), said("only one side was divided by {number}", number=f)
        bare = n.bare(own)
        if isinstance(bare, n.Fraction) and not n.letters(bare.denominator):
            words = said("only one side was multiplied by {bottom}", bottom=bare.denominator)
            yield equals(n.bare(bare.numerator), other), words
        if isinstance(bare, n.Root) and n.letters(bare):
            words = said("only the side with {root} was squared", root=bare)
            yield equals(n.bare(bare.radicand), other), words
        roots = [f for f in factors(own) if isinstance(f, n.Root) and f.index is None and n.letters(f)]
        if len(roots) == 1 and len(factors(own)) > 1:
            beside = [f for f in factors(own) if f is not roots[0]]
            words = said("only the side with {root} was squared", root=roots[0])
            yield equals(multiply([*(power(f, 2) for f in beside), n.bare(roots[0].radicand)]), other), words
        if (
            isinstance(bare, n.Power)
            and n.letters(bare.base)
            and number_of(bare.exponent) is not None
            and not n.letters(other)
        ):
            words = said("only the side with {power} was rooted", power=bare)
            yield equals(n.bare(bare.base), other), words


def _moved(body: n.Node) -> Iterator[Wrong]:
    yield from _both_moved(body)
    for own, other in both_ways(body):
        items = terms(own)
        if len(items) < 2 and (not n.letters(own) or len(terms(other)) < 2):
            continue
        for k, (sign, term) in enumerate(items):
            rest = add(t for j, t in enumerate(items) if j != k)
            words = said("{term} crossed the equals sign unchanged", shows=term, term=term)
            yield equals(rest, add([("+", other), (sign, term)])), words


def _both_moved(body: n.Node) -> Iterator[Wrong]:
    """5x - 3 = 2x + 9 as 7x = 6: a term of each side carried across unchanged."""
    pair = sides(body)
    if not pair:
        return
    left, right = terms(pair[0]), terms(pair[1])
    if len(left) < 2 or len(right) < 2 or len(left) * len(right) > MAX_PAIRS:
        return
    for i, (s, t) in enumerate(left):
        for j, (z, u) in enumerate(right):
            if bool(n.letters(t)) == bool(n.letters(u)):
                continue
            here = add([*(item for k, item in enumerate(left) if k != i), (z, u)])
            there = add([*(item for k, item in enumerate(right) if k != j), (s, t)])
            words = said("{term} and {other} crossed the equals sign unchanged", shows=t, term=t, other=u)
            yield equals(here, there), words


def _one_term_divided(body: n.Node) -> Iterator[Wrong]:
    for own, other in both_ways(body):
        items = terms(own)
        parts = signed(items)
        if parts is None or len(items) < 2:
            continue
        # one divides by the number before the unknown, or by what all the terms of the side share
        whole = [abs(int(a)) for a, _ in parts if a.denominator == 1]
        shared = gcd(*whole) if len(whole) == len(parts) else 1
        divisors = {Q(d) for d in range(2, min(shared, 60) + 1) if shared % d == 0}
        for number in sorted(divisors | {abs(a) for a, rest in parts if rest is not None and abs(a) not in (0, 1)}):
            by = build.number(number)
            for k, (_, term) in enumerate(items):
                divided = [(s, over(t, by)) if j == k else (s, t) for j, (s, t) in enumerate(items)]
                words = said("only {term} was divided by {number}", shows=term, term=term, number=number)
                yield equals(add(divided), over(other, by)), words
                if n.letters(term):
                    yield equals(add(divided), other), words


def _alone(body: n.Node) -> Iterator[tuple[Q, n.Node, Q]]:
    """(a, unknown part, c) of a·x = c."""
    for own, other in both_ways(body):
        value = number_of(other)
        parts = signed(terms(own))
        if value is not None and parts is not None and len(parts) == 1:
            a, rest = parts[0]
            if rest is not None and a not in (0, 1):
                yield a, rest, value


def _subtracted(body: n.Node) -> Iterator[Wrong]:
    for own, other in both_ways(body):
        bare, value = n.bare(own), number_of(other)
        below = number_of(bare.denominator) if isinstance(bare, n.Fraction) and n.letters(bare.numerator) else None
        if isinstance(bare, n.Fraction) and below is not None and value is not None:  # x/3 = 12 as x = 9
            for verb, result in (("subtracted", value - below), ("added", value + below)):
                words = said("{below} was " + verb + ", but it divides", shows=bare.denominator, below=below)
                yield equals(n.bare(bare.numerator), build.number(result)), words
    for a, x, c in _alone(body):
        number = build.number(a)
        yield equals(x, build.number(c - a)), said("{a} was subtracted, but it multiplies", shows=number, a=a)
        yield equals(x, build.number(c + a)), said("{a} was added, but it multiplies", shows=number, a=a)
        if a < 0 and a != -1:  # of −x the minus was dropped
            words = said("both sides were divided by {size}, not by {a}", size=-a, a=a)
            yield equals(x, build.number(c / -a)), words


def _inverted(body: n.Node) -> Iterator[Wrong]:
    for own, other in both_ways(body):
        bare = n.bare(own)
        over_number = isinstance(bare, n.Fraction) and n.letters(bare.numerator) and not n.letters(bare.denominator)
        if isinstance(bare, n.Fraction) and over_number and not is_zero(other):
            words = said(
                "{other} was divided by {bottom}, by which {top} is divided already",
                other=other,
                bottom=bare.denominator,
                top=n.bare(bare.numerator),
            )
            yield equals(n.bare(bare.numerator), over(other, bare.denominator)), words
    for a, x, c in _alone(body):
        if c:
            words = said("{a} was divided by {c}", shows=build.number(a), a=a, c=c)
            yield equals(x, build.number(a / c)), words


def _minus_dropped(body: n.Node) -> Iterator[Wrong]:
    for a, x, c in _alone(body):
        if a == -1:
            yield equals(x, build.number(c)), said("the minus of -{x} was dropped", x=x)


def _lcd_skips(body: n.Node) -> Iterator[Wrong]:
    pair = sides(body)
    if not pair:
        return
    both = [terms(side) for side in pair]
    bottoms = [n.bare(n.bare(t).children[1]) for items in both for _, t in items if isinstance(n.bare(t), n.Fraction)]
    if not bottoms:
        return
    numbers = [number_of(b) for b in bottoms]
    if None not in numbers:
        common = lcm(*(int(v or 1) for v in numbers))
        multipliers: list[n.Node] = [n.Integer(v) for v in dict.fromkeys((common, *(int(v or 1) for v in numbers)))]
    else:
        size = lcm(*(int(v) for v in numbers if v is not None and v.denominator == 1))
        lettered = list(dict.fromkeys(b for b, v in zip(bottoms, numbers, strict=True) if v is None))
        multipliers = [multiply([*([n.Integer(size)] if size > 1 else []), *lettered])]
    whole = [t for items in both for _, t in items if not isinstance(n.bare(t), n.Fraction)]
    single = [[t] for t in whole if len(whole) > 1] if len(whole) <= MAX_SKIPPED else []
    for by in multipliers:
        for skipped in [whole, *single] if whole else []:
            scaled = [
                add((s, t) if any(t is other for other in skipped) else (s, multiply([by, t])) for s, t in items)
                for items in both
            ]
            words = said(
                "{whole} was not multiplied by {by}",
                shows=skipped[0] if len(skipped) == 1 else None,
                whole=", ".join(map(plain, skipped)),
                by=by,
            )
            yield equals(*scaled), words


def _straight_across(body: n.Node) -> Iterator[Wrong]:
    """2/x = 3/(x+1) as 2x = 3(x+1): each numerator times its own denominator."""
    pair = sides(body)
    if not pair:
        return
    left, right = n.bare(pair[0]), n.bare(pair[1])
    if isinstance(left, n.Fraction) and isinstance(right, n.Fraction):
        words = said(
            "{top} was multiplied by {bottom}, its own denominator", top=left.numerator, bottom=left.denominator
        )
        yield equals(multiply(left.children), multiply(right.children)), words
        bottoms, tops = ([getattr(side, part) for side in (left, right)] for part in ("denominator", "numerator"))
        words = said("the two bottoms were multiplied, and the two tops")
        yield equals(multiply(bottoms), multiply(tops)), words


def _power_of(node: n.Node) -> tuple[n.Node, n.Node] | None:
    """The base and the exponent of a power with a letter above; None for anything else."""
    bare = n.bare(node)
    return (
        (n.bare(bare.base), n.bare(bare.exponent)) if isinstance(bare, n.Power) and n.letters(bare.exponent) else None
    )


def _exponents_set_equal(body: n.Node) -> Iterator[Wrong]:
    """2^(3x) = 8 as 3x = 8, 2^x = 16 as x = 8, and 3^(x+1) = 9^x as x + 1 = x."""
    for own, other in both_ways(body):
        raised, second = _power_of(own), _power_of(other)
        if raised is None or n.letters(raised[0]):
            continue
        base, exponent = raised
        if second is not None and second[0] != base:
            words = said(
                "the exponents were set equal, though {base} and {other} are different bases",
                base=base,
                other=second[0],
            )
            yield equals(exponent, second[1]), words
        elif isinstance(n.bare(other), n.Power) and not n.letters(other) and n.bare(n.bare(other).children[0]) != base:
            lower, upper = n.bare(other).children
            words = said(
                "the exponents were set equal, though {base} and {other} are different bases",
                base=base,
                other=n.bare(lower),
            )
            yield equals(exponent, n.bare(upper)), words
        elif second is None and not n.letters(other):
            words = said(
                "the exponent was set equal to {other}, which is no exponent of {base}", other=other, base=base
            )
            yield equals(exponent, other), words
            yield equals(exponent, over(other, base)), said("{other} was divided by {base}", other=other, base=base)


def _crossed_sum(body: n.Node) -> Iterator[Wrong]:
    """a/x + b = c/d as a·d + b = c·x."""
    for own, other in both_ways(body):
        items = terms(own)
        right = n.bare(other)
        if len(items) < 2 or not isinstance(right, n.Fraction):
            continue
        for k, (sign, term) in enumerate(items):
            bare = n.bare(term)
            if isinstance(bare, n.Fraction) and (n.letters(bare.denominator) or n.letters(right.denominator)):
                rest = [t for j, t in enumerate(items) if j != k]
                scaled = add([(sign, multiply([bare.numerator, right.denominator])), *rest])
                words = said("{fraction} is not the whole side", shows=bare, fraction=bare)
                yield equals(scaled, multiply([right.numerator, bare.denominator])), words


def _termwise(body: n.Node) -> Iterator[Wrong]:
    pair = sides(body)
    if not pair or not any(_holds_root(side) for side in pair):
        return
    for flip in product("+-", repeat=2):
        squared = [
            add(("+" if s == "+" or sign == "+" else "-", power(t, 2)) for s, t in terms(side))
            for side, sign in zip(pair, flip, strict=True)
        ]
        yield equals(*squared), said("each term was squared by itself")
        for own, other in (pair, pair[::-1]):
            if len(terms(own)) == 2:
                # the term without a root stays as it is
                kept: list[Term] = [(s, power(t, 2)) if _holds_root(t) else (s, t) for s, t in terms(own)]
                yield equals(add(kept), power(other, 2)), said("only the root was squared")


def _one_case(body: n.Node) -> Iterator[Wrong]:
    for own, other in both_ways(body):
        bare = n.bare(own)
        if isinstance(bare, n.Absolute):
            inside = bare.child
            words = said("{inside} may be the opposite of {other} as well", inside=inside, other=other)
            yield equals(inside, other), words
            yield equals(inside, opposite(other)), said("{inside} may be {other} as well", inside=inside, other=other)


def _turned_over(body: n.Node) -> Iterator[Wrong]:
    """1/f = 1/p + 1/q as f = p + q."""
    pair = sides(body)
    if not pair or not any(isinstance(n.bare(side), n.Sum) for side in pair):
        return
    turned = []
    for side in pair:
        fractions = [(sign, n.bare(term)) for sign, term in terms(side)]
        flipped = [(s, over(t.denominator, t.numerator)) for s, t in fractions if isinstance(t, n.Fraction)]
        if len(flipped) < len(fractions):
            return
        turned.append(add(flipped))
    yield equals(*turned), said("each fraction was turned over by itself")


SLIPS = (
    Slip(
        id="turned-over-by-term",
        name="Turned over term by term",
        kind="concept",
        topic="rational equations",
        done="{what}.",
        why="1/2 + 1/2 is 1; turned over by itself each is 2, and 2 + 2 is not 1.",
        cue="Make one fraction of each side first.",
        examples=(("1/x = 1/2 + 1/3", "x = 5"), ("1/x + 1/3 = 1/2", "x + 3 = 2")),
        wrong=_turned_over,
        scope="equation",
        innocent=(("1/x = 5/6", "x = 6/5"), ("1/x = 1/2 + 1/3", "x = 6/5")),
        lurks_in=("reciprocal-both-sides",),
        rank=6,
    ),
    Slip(
        id="one-side-only",
        leaves_a_term=True,
        name="One side only",
        kind="procedure",
        topic="equations",
        done="{what}.",
        why="A balance tips when one side only is changed.",
        cue="Write the move below both sides.",
        examples=(("x + 8 = 3", "x = 3"), ("x^2 = 50", "x = 50")),
        wrong=_one_side,
        scope="equation",
        innocent=(("x + 8 = 3", "x = -5"),),
        lurks_in=("add-to-both-sides", "subtract-from-both-sides", "multiply-both-sides", "square-both-sides"),
    ),
    Slip(
        id="negative-unknown-kept",
        name="Dropped the minus of the unknown",
        kind="procedure",
        topic="equations",
        done="{what}.",
        why="If −x is 9, x is −9.",
        cue="Divide by −1.",
        examples=(("-x = 9", "x = 9"),),
        wrong=_minus_dropped,
        scope="equation",
        innocent=(("-x = 9", "x = -9"),),
        lurks_in=("divide-both-sides",),
        rank=5,
    ),
    Slip(
        id="subtracted-coefficient",
        name="Took the opposite, not the inverse",
        kind="concept",
        topic="equations",
        done="{what}.",
        why="6·2 is 12; 12 − 6 is not 2.",
        cue="What is done to x? Undo just that.",
        examples=(("6x = 18", "x = 12"), ("-4x = 20", "x = 20/4")),
        wrong=_subtracted,
        scope="equation",
        innocent=(("6x = 18", "x = 3"), ("x + 6 = 18", "x = 12")),
        lurks_in=("divide-both-sides",),
        rank=6,
    ),
    Slip(
        id="moved-same-sign",
        name="Carried across unchanged",
        kind="procedure",
        topic="equations",
        done="{what}.",
        why="What is taken from one side is taken from the other.",
        cue="Crossing over changes the sign.",
        examples=(("x + 8 = 3", "x = 11"),),
        wrong=_moved,
        scope="equation",
        innocent=(("x + 8 = 3", "x = 3 - 8"), ("x - 8 = 3", "x = 11")),
        lurks_in=("add-to-both-sides", "subtract-from-both-sides", "all-on-one-side", "isolate-root"),
        likely=3.0,
    ),
    Slip(
        id="divided-one-term",
        leaves_a_term=True,
        name="Divided one term only",
        kind="concept",
        topic="equations",
        done="{what}.",
        why="The whole side is divided.",
        cue="Bracket the side before dividing.",
        examples=(("5x + 10 = 35", "x + 10 = 7"),),
        wrong=_one_term_divided,
        scope="equation",
        innocent=(("5x + 10 = 35", "x + 2 = 7"),),
        lurks_in=("divide-both-sides", "divide-by-common"),
        likely=2.2,
        rank=7,
    ),
    Slip(
        id="division-inverted",
        name="Divided the wrong way round",
        kind="care",
        topic="equations",
        done="{what}.",
        why="8x = 4 makes x smaller than 1.",
        cue="Divide by the number at x.",
        examples=(("8x = 4", "x = 2"),),
        wrong=_inverted,
        scope="equation",
        innocent=(("8x = 4", "x = 1/2"),),
        lurks_in=("divide-both-sides",),
        rank=90,
    ),
    Slip(
        id="lcd-skips-term",
        leaves_a_term=True,
        name="The LCD skipped a term",
        kind="procedure",
        topic="equations",
        done="{what}.",
        why="Every term of both sides is multiplied.",
        cue="Write the LCD before every term.",
        examples=(("x/4 + 3 = 5/8", "2x + 3 = 5"), ("1/x + 1/3 = 2", "3 + x = 2"), ("2/x + 1 = 5", "2 + x = 5")),
        wrong=_lcd_skips,
        scope="equation",
        innocent=(("x/4 + 3 = 5/8", "2x + 24 = 5"),),
        lurks_in=("clear-small-denominators", "multiply-both-sides", "clear-fractions", "clear-denominators"),
        likely=2.8,
    ),
    Slip(
        id="cross-multiplied-sum",
        name="Cross-multiplied a sum",
        rank=6,
        kind="concept",
        topic="rational equations",
        done="{what}.",
        why="Only one fraction against one fraction crosses.",
        cue="Is each side one fraction?",
        examples=(("2/x + 1 = 7/3", "6 + 1 = 7x"),),
        wrong=_crossed_sum,
        scope="equation",
        innocent=(("2/x = 7/3", "6 = 7x"),),
        lurks_in=("clear-denominators", "cross-multiply"),
    ),
    Slip(
        id="crossed-straight",
        name="Multiplied straight across",
        kind="procedure",
        topic="rational equations",
        done="{what}.",
        why="1/2 = 2/4, but 1·2 is not 2·4.",
        cue="Cross: each top goes to the other bottom.",
        examples=(("2/x = 3/(x+1)", "2x = 3(x+1)"),),
        wrong=_straight_across,
        scope="equation",
        innocent=(("2/x = 3/(x+1)", "2(x+1) = 3x"),),
        lurks_in=("cross-multiply", "clear-denominators"),
        likely=1.6,
    ),
    Slip(
        id="exponents-without-base",
        name="Set exponents equal without one base",
        kind="concept",
        topic="exponential equations",
        done="{what}.",
        why="2³ is 8, and 2⁸ is 256.",
        cue="First write both sides as powers of one base.",
        examples=(("2^(3x) = 8", "3x = 8"), ("2^x = 16", "x = 8")),
        wrong=_exponents_set_equal,
        scope="equation",
        innocent=(("2^(3x) = 8", "3x = 3"),),
        lurks_in=("common-base", "equate-exponents"),
        likely=2.6,
    ),
    Slip(
        id="squared-termwise",
        name="Squared each term",
        kind="concept",
        topic="radical equations",
        done="{what}.",
        why="(2 + 3)² is 25; 2² + 3² is 13.",
        cue="Let the root stand alone; bracket the side.",
        examples=(("√x + 2 = √(x+12)", "x + 4 = x + 12"),),
        wrong=_termwise,
        scope="equation",
        innocent=(("√x = √(x+12) - 2", "x = x + 12 - 4√(x+12) + 4"),),
        lurks_in=("square-both-sides", "power-both-sides", "isolate-root"),
        likely=3.6,
    ),
    Slip(
        id="absolute-one-case",
        name="One case only",
        kind="concept",
        topic="absolute value",
        done="{what}.",
        why="|−5| is 5 too.",
        cue="Inside is it, or its opposite.",
        examples=(("|x-2| = 5", "x = 7"),),
        wrong=_one_case,
        scope="equation",
        innocent=(("|x-2| = 5", "x - 2 = 5 or x - 2 = -5"),),
        lurks_in=("two-cases", "bars-never-negative"),
        likely=3.6,
    ),
)
