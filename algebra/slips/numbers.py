"""Slips in the order of operations and in arithmetic with signs."""

from __future__ import annotations

from collections.abc import Iterator

from algebra.slips.parts import add, factors, multiply, number_of, signed, terms, text, wrap
from algebra.slips.slip import Slip, Wrong
from algebra.tree import nodes as n
from algebra.tree.plain import plain


def _left_to_right(node: n.Node) -> Iterator[Wrong]:
    """a + b·c as (a + b)·c; the eye-catching sum before the product beside it."""
    if not isinstance(node, n.Sum):
        return
    items = terms(node)
    for k in range(1, len(items)):
        sign, term = items[k]
        if not isinstance(term, n.Product):
            continue
        before = items[k - 1]
        first, *rest = term.factors
        if number_of(first) is None or not all(number_of(f) is not None for f in factors(before[1])[:1]):
            continue
        head = add([before, (sign, first)])
        tail = "".join(f" {op or '·'} {wrap(f)}" for op, f in zip(term.operators, rest, strict=True))
        joined = add([*items[: k - 1], ("+", f"({head}){tail}"), *items[k + 1 :]])
        yield joined, f"{plain(before[1])} {sign} {plain(first)} was taken before {plain(term)}"


def _multiply_first(node: n.Node) -> Iterator[Wrong]:
    if not isinstance(node, n.Product) or "÷" not in node.operators:
        return
    for k, op in enumerate(node.operators[:-1]):
        following = node.operators[k + 1]
        if op == "÷" and following in "·×":
            head = multiply(node.factors[: k + 1]) if k else wrap(node.factors[0])
            product = multiply(node.factors[k + 1 : k + 3])
            tail = "".join(
                f" {o or '·'} {wrap(f)}" for o, f in zip(node.operators[k + 2 :], node.factors[k + 3 :], strict=True)
            )
            yield (
                f"{head} ÷ ({product}){tail}",
                f"{plain(node.factors[k + 1])} {following} {plain(node.factors[k + 2])} was taken first",
            )


def _add_first(node: n.Node) -> Iterator[Wrong]:
    if not isinstance(node, n.Sum):
        return
    items = terms(node)
    for k in range(1, len(items) - 1):
        if items[k][0] == "-" and items[k + 1][0] == "+":
            inner = add([("+", items[k][1]), items[k + 1]])
            yield (
                add([*items[:k], ("-", inner), *items[k + 2 :]]),
                f"{plain(items[k][1])} + {plain(items[k + 1][1])} was added first",
            )


def _multiply_before_power(node: n.Node) -> Iterator[Wrong]:
    if not isinstance(node, n.Product):
        return
    for k, factor in enumerate(node.factors[1:], start=1):
        before = node.factors[k - 1]
        if (
            isinstance(factor, n.Power)
            and number_of(before) is not None
            and number_of(factor.base) is not None
            and node.operators[k - 1] != "÷"
        ):
            power = f"({wrap(before)}·{wrap(factor.base)})^{wrap(factor.exponent)}"
            others: list[n.Node | str] = [*node.factors[: k - 1], power, *node.factors[k + 1 :]]
            yield multiply(others), f"{plain(before)} was multiplied into the base {plain(factor.base)}"


def _minus_inside(node: n.Node) -> Iterator[Wrong]:
    if isinstance(node, n.Signed) and node.sign == "-" and isinstance(node.child, n.Power):
        yield (
            f"(-{wrap(node.child.base)})^{wrap(node.child.exponent)}",
            f"-{plain(node.child)} was read as a power of {'-' + plain(node.child.base)}",
        )
    if isinstance(node, n.Power) and isinstance(n.bare(node.base), n.Signed):
        inner = n.bare(node.base)
        assert isinstance(inner, n.Signed)
        if inner.sign == "-":
            yield f"-({wrap(inner.child)})^{wrap(node.exponent)}", f"the minus in {plain(node)} was left outside"


def _sum_sign(node: n.Node) -> Iterator[Wrong]:
    """Signed numbers or like terms with a wrong sign in the sum."""
    if not isinstance(node, n.Sum):
        return
    items = signed(terms(node))
    if items is None:
        return
    for i in range(len(items)):
        for j in range(i + 1, len(items)):
            (a, rest), (b, other) = items[i], items[j]
            if rest != other or (a > 0 and b > 0):
                continue
            right = a + b
            for value in {
                a - b,
                b - a,
                -a - b,
                abs(a) + abs(b),
                -(abs(a) + abs(b)),
                abs(abs(a) - abs(b)),
                -abs(abs(a) - abs(b)),
            } - {right}:
                body = text(value) if not rest else f"({text(value)})·{rest}"
                others = [(t, r) for k, (t, r) in enumerate(items) if k not in (i, j)]
                pieces = [("+", body), *(("+", text(t) if not r else f"({text(t)})·{r}") for t, r in others)]
                shown = f"{text(a)} and {text(b)} make {text(right)}, not {text(value)}"
                yield add(pieces), shown


def _product_sign(node: n.Node) -> Iterator[Wrong]:
    if isinstance(node, n.Product) and any(_negative(f) for f in node.factors):
        yield f"-({plain(node)})", f"the sign of {plain(node)}"
        sums = [k for k, f in enumerate(node.factors) if isinstance(n.bare(f), n.Sum)]
        if len(sums) == 1:
            yield from _one_sign(node.factors[sums[0]], multiply(f for k, f in enumerate(node.factors) if k != sums[0]))
    if isinstance(node, n.Signed) and node.sign == "-" and isinstance(node.child, n.Product):
        inside = [f for f in node.child.factors if isinstance(n.bare(f), n.Sum)]
        if len(inside) == 1:
            yield from _one_sign(inside[0], "-" + multiply(f for f in node.child.factors if f is not inside[0]))
        yield plain(node.child), f"the sign of {plain(node)}"


def _one_sign(bracket: n.Node, outer: str) -> Iterator[Wrong]:
    """A product with a bracket in which the sign of one term goes wrong."""
    items = terms(bracket)
    for k in range(len(items)):
        pieces = [("-" if (s == "-") != (j == k) else "+", t) for j, (s, t) in enumerate(items)]
        yield f"({outer})·({add(pieces)})", f"{outer} times {'-' if items[k][0] == '-' else ''}{plain(items[k][1])}"


def _negative(node: n.Node) -> bool:
    value = number_of(node)
    return (value is not None and value < 0) or isinstance(n.bare(node), n.Signed)


SLIPS = (
    Slip(id="left-to-right", name="Read from left to right", kind="procedure", topic="order of operations",
         done="{what}.", why="× and ÷ hold tighter than + and −.", cue="Underline the one operation that comes next.",
         examples=(("2 + 5·4", "7·4"), ("3/4 + 1/4÷1/4", "1÷1/4")), wrong=_left_to_right),
    Slip(id="multiply-before-divide", name="Multiplied before dividing", kind="procedure", topic="order of operations",
         done="{what}.", why="× and ÷ share a rank; ÷ stands first here.", cue="× and ÷ share a rank: from the left.",
         examples=(("36÷4·3", "36÷12"),), wrong=_multiply_first),
    Slip(id="add-before-subtract", name="Added before subtracting", kind="procedure", topic="order of operations",
         done="{what}.", why="+ and − share a rank; − stands first here.", cue="+ and − share a rank: from the left.",
         examples=(("19 - 6 + 8", "19 - 14"),), wrong=_add_first),
    Slip(id="multiply-before-power", name="Multiplied before raising", kind="procedure", topic="order of operations",
         done="{what}.", why="The exponent belongs to the base that it stands at.", cue="A power holds its base only.",
         examples=(("5·2^3", "10^3"),), wrong=_multiply_before_power),
    Slip(id="minus-inside-power", name="The minus taken into the power", kind="notation", topic="order of operations",
         done="{what}.", why="Without brackets the minus is not part of the base.", cue="Brackets or it is not in the base.",
         examples=(("-3^2", "9"), ("(-3)^2", "-9")), wrong=_minus_inside),
    Slip(id="sign-of-sum", name="Sign of a sum", kind="care", topic="polynomials", done="{what}.",
         why="With different signs the sizes are subtracted, with the same sign they are added.",
         cue="Same signs add, different signs subtract; the larger one gives the sign.", examples=(("-8x - 3x", "-5x"),), wrong=_sum_sign),
    Slip(id="sign-of-product", name="Sign of a product", kind="care", topic="polynomials", done="{what} went wrong.",
         why="Minus times minus is plus, minus times plus is minus.", cue="Settle the sign first, then the number.",
         examples=(("(-3)(-4)", "-12"),), wrong=_product_sign),
)  # fmt: skip
