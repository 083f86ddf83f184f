"""Slips with polynomials and in factoring."""

from __future__ import annotations

from collections.abc import Iterator

from algebra.slips.parts import (
    add,
    counted,
    factors,
    multiply,
    signed,
    terms,
    two_of,
)
from algebra.slips.slip import Slip, Wrong
from algebra.slips.words import said
from algebra.tree import build
from algebra.tree import nodes as n
from algebra.tree.plain import plain


def _unlike(node: n.Node) -> Iterator[Wrong]:
    if not isinstance(node, n.Sum):
        return
    items = terms(node)
    parts = signed(items)
    if parts is None:
        return
    # a bracket that is a sum is no term that one would count together with another
    whole = [not any(isinstance(p, n.Root | n.Fraction | n.Sum) for p in n.parts_of(t)) for _, t in items]
    for i, j, left in two_of(items):
        (a, rest), (b, other) = parts[i], parts[j]
        if rest == other or not (whole[i] and whole[j]) or not (n.letters(items[i][1]) | n.letters(items[j][1])):
            continue
        first, second = items[i][1], items[j][1]
        words = said("{first} and {second} are unlike terms", shows=first, first=first, second=second)
        bodies = [body for body in (rest, other) if body is not None]
        if len(bodies) == 2:
            bodies.append(multiply(bodies))
        for body in sorted(bodies, key=plain):
            yield add([("+", counted(a + b, body)), *left]), words


def _first_and_last(node: n.Node) -> Iterator[Wrong]:
    """(x+2)(x+5) as x² + 10."""
    if not isinstance(node, n.Product) or "÷" in node.operators:
        return
    items = factors(node)
    for i in range(len(items) - 1):
        left, right = terms(items[i]), terms(items[i + 1])
        if len(left) == len(right) == 2 and n.bare(items[i]) != n.bare(items[i + 1]):
            pairs = [("+" if a[0] == b[0] else "-", multiply([a[1], b[1]])) for a, b in zip(left, right, strict=True)]
            rest = [f for k, f in enumerate(items) if k not in (i, i + 1)]
            words = said(
                "only the first terms and the last terms of {left} and {right} were multiplied",
                left=items[i],
                right=items[i + 1],
            )
            yield multiply([add(pairs), *rest]), words


def _letters_cancelled(node: n.Node) -> Iterator[Wrong]:
    """8x³ - 3x³ as 5."""
    if not isinstance(node, n.Sum):
        return
    items = terms(node)
    parts = signed(items)
    if parts is None:
        return
    for i, j, left in two_of(items):
        (a, rest), (b, other) = parts[i], parts[j]
        if rest is None or rest != other or not n.letters(rest) or (a > 0) == (b > 0):
            continue
        first, second = items[i][1], items[j][1]
        words = said(
            "{rest} was cancelled in {first} and {second}, though nothing is divided",
            rest=n.bare(rest),
            first=first,
            second=second,
        )
        for value in dict.fromkeys((a + b, max(abs(a), abs(b)) * (1 if a > 0 else -1))):
            yield add([("+", build.number(value)), *left]), words


def _first_only(node: n.Node) -> Iterator[Wrong]:
    if isinstance(node, n.Sum | n.Signed):
        yield from _first_only_in_sum(node)
    if not isinstance(node, n.Product):
        return
    items = factors(node)
    for k, bracket in enumerate(items):
        inner = terms(bracket)
        if len(inner) < 2 or not isinstance(n.bare(bracket), n.Sum):
            continue
        others = [f for j, f in enumerate(items) if j != k]
        for reached in range(1, len(inner)):
            opened = [(s, multiply([*others, t])) if j < reached else (s, t) for j, (s, t) in enumerate(inner)]
            outer = multiply(others)
            yield (
                add(opened),
                said(
                    "{outer} multiplies {left_out} as well as {first}",
                    shows=outer,
                    outer=outer,
                    left_out=inner[reached][1],
                    first=inner[0][1],
                ),
            )


def _first_only_in_sum(node: n.Sum | n.Signed) -> Iterator[Wrong]:
    """5x - 2(x - 4) as 5x - 2x - 4, -2(x + 7) as -2x + 7: the rest of the bracket keeps the signs that stand there."""
    items = terms(node)
    for k, (sign, term) in enumerate(items):
        pieces = factors(term)
        brackets = [f for f in pieces if isinstance(n.bare(f), n.Sum)]
        if sign != "-" or len(brackets) != 1 or len(pieces) < 2:
            continue
        inner = terms(brackets[0])
        others = [f for f in pieces if f is not brackets[0]]
        head = ("-" if inner[0][0] == "+" else "+", multiply([*others, inner[0][1]]))
        outer = multiply(others)
        words = said(
            "{outer} multiplies {left_out} as well as {first}",
            shows=outer,
            outer=outer,
            left_out=inner[1][1],
            first=inner[0][1],
        )
        yield add([*items[:k], head, *inner[1:], *items[k + 1 :]]), words


SLIPS = (
    Slip(
        id="like-letters-cancelled",
        name="Cancelled the letters of like terms",
        kind="concept",
        topic="polynomials",
        done="{what}.",
        why="8 apples less 3 apples are 5 apples.",
        cue="Say what you count: 8 x less 3 x.",
        examples=(("8x^3 - 3x^3", "5"), ("5x - x", "5")),
        wrong=_letters_cancelled,
        innocent=(("8x^3 - 3x^3", "5x^3"), ("(8x^3)/(3x^3)", "8/3")),
        lurks_in=("like-terms",),
        likely=1.4,
        rank=90,
    ),
    Slip(
        id="first-and-last-only",
        name="First and last only",
        kind="concept",
        topic="polynomials",
        done="{what}.",
        why="(2 + 3)(2 + 4) is 30; 4 + 12 is 16.",
        cue="Four arrows: each term with each.",
        examples=(("(x+2)(x+5)", "x^2 + 10"), ("(2x-3)(x+4)", "2x^2 - 12")),
        wrong=_first_and_last,
        example_task="expand",
        innocent=(("(x+2)(x+5)", "x^2 + 7x + 10"), ("(x-2)(x+2)", "x^2 - 4")),
        lurks_in=("open-brackets", "distribute"),
        likely=3.0,
    ),
    Slip(
        id="distributed-first-only",
        name="Multiplied the first term only",
        kind="procedure",
        topic="polynomials",
        done="{what}.",
        why="4(5 + 3) is 32; 4·5 + 3 is 23.",
        cue="Draw an arrow to every term.",
        examples=(("4(x + 3)", "4x + 3"),),
        wrong=_first_only,
        innocent=(("4(x + 3)", "4x + 12"), ("4x + 3", "3 + 4x")),
        lurks_in=(
            "distribute-roots",
            "distribute",
            "simplify-numerator",
            "clear-fractions",
            "cross-multiply",
            "open-brackets",
        ),
        likely=3.6,
    ),
    Slip(
        id="unlike-terms-combined",
        name="Combined unlike terms",
        kind="concept",
        topic="polynomials",
        done="{what}.",
        why="6 apples and 2 are not 8 apples.",
        cue="Same letters, same exponents? Else leave them.",
        examples=(("6x + 2", "8x"),),
        wrong=_unlike,
        innocent=(("6x + 2x", "8x"),),
        lurks_in=("like-terms", "simplify-sides"),
        likely=2.6,
        rank=14,
    ),
)
