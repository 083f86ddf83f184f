"""Slips with fractions and rational expressions."""

from __future__ import annotations

from collections.abc import Iterator

from algebra.slips.parts import add, factors, multiply, number_of, over, terms, text, wrap
from algebra.slips.slip import Slip, Wrong
from algebra.tree import nodes as n
from algebra.tree.plain import plain


def _without(items: list[tuple[str, n.Node]], k: int) -> str | None:
    rest = [t for j, t in enumerate(items) if j != k]
    return add(rest) if rest else None


def _cancelled_terms(node: n.Node) -> Iterator[Wrong]:
    """A term above and a term (or the whole) below that are alike, taken away."""
    if not isinstance(node, n.Fraction):
        return
    above, below = terms(node.numerator), terms(node.denominator)
    if len(above) == 1 and len(below) == 1:
        return
    for i, (_, a) in enumerate(above):
        for j, (_, b) in enumerate(below):
            if n.bare(a) != n.bare(b):
                continue
            what = f"{plain(a)} was cancelled, though it is a term of {plain(n.bare(node.numerator if len(above) > 1 else node.denominator))} and no factor"
            top, bottom = _without(above, i), _without(below, j)
            for t in dict.fromkeys((top or "1", add([("+", "1"), *(x for k, x in enumerate(above) if k != i)]))):
                for u in dict.fromkeys((bottom or "1", add([("+", "1"), *(x for k, x in enumerate(below) if k != j)]))):
                    yield over(t, u), what
    # a factor shared by one term above and one below
    for i, (s, a) in enumerate(above):
        for j, (z, b) in enumerate(below):
            shared = next((f for f in factors(a) if any(n.bare(f) == n.bare(g) for g in factors(b))), None)
            if shared is None or n.bare(a) == n.bare(b):
                continue
            p = _dropped(factors(a), shared)
            q = _dropped(factors(b), shared)
            top = add([*above[:i], (s, multiply(p)), *above[i + 1 :]])
            bottom = add([*below[:j], (z, multiply(q)), *below[j + 1 :]])
            yield over(top, bottom), f"{plain(shared)} was cancelled from one term only"


def _dropped(items: list[n.Node], gone: n.Node) -> list[n.Node]:
    found = list(items)
    found.remove(next(f for f in found if n.bare(f) == n.bare(gone)))
    return found


def _one_term(node: n.Node) -> Iterator[Wrong]:
    if not isinstance(node, n.Fraction) or len(terms(node.numerator)) < 2:
        return
    items = terms(node.numerator)
    for k, (sign, term) in enumerate(items):
        divided: list[tuple[str, n.Node | str]] = [*items[:k], (sign, over(term, node.denominator)), *items[k + 1 :]]
        yield add(divided), f"only {plain(term)} was divided by {plain(n.bare(node.denominator))}"


def _to_nothing(node: n.Node) -> Iterator[Wrong]:
    if not isinstance(node, n.Fraction):
        return
    above, below = factors(node.numerator), factors(node.denominator)
    for a in above:
        if len(above) == 1 and any(n.bare(a) == n.bare(b) for b in below):
            rest = multiply(_dropped(below, a))
            what = f"{plain(a)} was cancelled and nothing left above"
            yield rest, what
            yield "0", what


def _added_across(node: n.Node) -> Iterator[Wrong]:
    if not isinstance(node, n.Sum):
        return
    items = terms(node)
    for i in range(len(items)):
        for j in range(i + 1, len(items)):
            a, b = n.bare(items[i][1]), n.bare(items[j][1])
            if isinstance(a, n.Fraction) and isinstance(b, n.Fraction):
                top = add([(items[i][0], a.numerator), (items[j][0], b.numerator)])
                for second in dict.fromkeys((items[j][0], "+")):
                    bottom = add([("+", a.denominator), (second, b.denominator)])
                    rest = [t for k, t in enumerate(items) if k not in (i, j)]
                    yield (
                        add([("+", over(top, bottom)), *rest]),
                        f"tops and bottoms of {plain(a)} and {plain(b)} were added",
                    )


def _fraction_terms(node: n.Node) -> list[tuple[str, n.Fraction]] | None:
    if not isinstance(node, n.Sum):
        return None
    items = [(s, n.bare(t)) for s, t in terms(node)]
    found = [(s, t) for s, t in items if isinstance(t, n.Fraction)]
    return found if len(found) == len(items) else None


def _bottom_scaled(node: n.Node) -> Iterator[Wrong]:
    items = _fraction_terms(node)
    if items:
        bottom = multiply(t.denominator for _, t in items)
        yield (
            add((s, over(t.numerator, bottom)) for s, t in items),
            "the denominators were made the same, but not the numerators",
        )
        numbers = [number_of(t.denominator) for _, t in items]
        if None not in numbers:
            product = 1
            for v in numbers:
                product *= int(v or 1)
            yield add((s, over(t.numerator, text(product))) for s, t in items), "the numerators were not scaled along"


def _incomplete_lcd(node: n.Node) -> Iterator[Wrong]:
    items = _fraction_terms(node)
    if items and len({plain(t.denominator) for _, t in items}) > 1:
        top = add((s, t.numerator) for s, t in items)
        for _, t in items:
            yield over(top, t.denominator), f"{plain(n.bare(t.denominator))} was taken for the common denominator"


def _no_flip(node: n.Node) -> Iterator[Wrong]:
    if isinstance(node, n.Product) and "÷" in node.operators:
        pieces = [wrap(f) for f in node.factors]
        yield "·".join(pieces), f"{plain(node.factors[node.operators.index('÷') + 1])} was not turned over"


def _wrong_flip(node: n.Node) -> Iterator[Wrong]:
    if isinstance(node, n.Product) and node.operators[:1] == ("÷",) and isinstance(n.bare(node.factors[0]), n.Fraction):
        first = n.bare(node.factors[0])
        assert isinstance(first, n.Fraction)
        yield (
            multiply([over(first.denominator, first.numerator), *node.factors[1:]]),
            f"{plain(first)} was turned over, the dividend",
        )


def _minus_first_only(node: n.Node) -> Iterator[Wrong]:
    if not isinstance(node, n.Sum | n.Signed):
        return
    items = terms(node)
    for k, (sign, term) in enumerate(items):
        bare = n.bare(term)
        if sign != "-":
            continue
        if isinstance(bare, n.Sum) and isinstance(term, n.Group):
            inner = terms(bare)
            opened = [("-" if inner[0][0] == "+" else "+", inner[0][1]), *inner[1:]]
            yield (
                add([*items[:k], *opened, *items[k + 1 :]]),
                f"the minus before {plain(term)} reached {plain(inner[0][1])} only",
            )
        if isinstance(bare, n.Fraction) and isinstance(n.bare(bare.numerator), n.Sum):
            inner = terms(bare.numerator)
            top = [("-", inner[0][1]), *inner[1:]] if inner[0][0] == "+" else [("+", inner[0][1]), *inner[1:]]
            apart = [(s, over(t, bare.denominator)) for s, t in top]
            yield (
                add([*items[:k], *apart, *items[k + 1 :]]),
                f"the minus before {plain(term)} reached {plain(inner[0][1])} only, not the whole numerator",
            )
        if isinstance(bare, n.Product):
            for position, factor in enumerate(bare.factors):
                if isinstance(n.bare(factor), n.Sum):
                    inner = terms(factor)
                    others = [f for j, f in enumerate(bare.factors) if j != position]
                    spread = [
                        ("-" if (s == "+") == (j == 0) else "+", multiply([*others, t]))
                        for j, (s, t) in enumerate(inner)
                    ]
                    yield (
                        add([*items[:k], *spread, *items[k + 1 :]]),
                        f"the minus before {plain(term)} reached {plain(inner[0][1])} only",
                    )


def _opposite(node: n.Node) -> Iterator[Wrong]:
    """b − a read as a − b in a denominator or as a factor."""
    if isinstance(node, n.Fraction):
        for name, part in (("denominator", node.denominator), ("numerator", node.numerator)):
            items = terms(part)
            if len(items) == 2 and "-" in (items[0][0], items[1][0]):
                yield f"-({plain(node)})", f"{plain(n.bare(part))} in the {name} was read the other way round"


def _as_equation(node: n.Node) -> Iterator[Wrong]:
    items = _fraction_terms(node)
    if not items:
        return
    bottoms = list(dict.fromkeys(plain(n.bare(t.denominator)) for _, t in items))
    scaled = []
    for s, t in items:
        own = plain(n.bare(t.denominator))
        scaled.append((s, multiply([t.numerator, *(b for b in bottoms if b != own)])))
    yield add(scaled), "it was multiplied by the common denominator, which is then gone"


def _mixed_product(node: n.Node) -> Iterator[Wrong]:
    if isinstance(node, n.Mixed):
        yield f"{node.whole}·({node.numerator}/{node.denominator})", f"{plain(node)} was read as a product"


SLIPS = (
    Slip(id="cancelled-terms", name="Cancelled terms", kind="concept", topic="fractions", done="{what}.",
         why="(6 + 3)/6 is 3/2, not 3.", cue="Only factors of the whole top and the whole bottom cancel: bracket every sum first.",
         examples=(("(x+9)/x", "9"), ("(√7+2)/√7", "2"), ("x^2/(x^2+4)", "1/4")), wrong=_cancelled_terms),
    Slip(id="cancelled-one-term", name="Divided one term only", kind="concept", topic="fractions", done="{what}.",
         why="The bar holds for every term above it.", cue="The factor must be in every term.", examples=(("(10+5√3)/5", "2+5√3"),), wrong=_one_term),
    Slip(id="cancelled-to-nothing", name="Cancelled to nothing", kind="concept", topic="fractions", done="{what}.",
         why="3/(3·5) is 1/5.", cue="A 1 is left.", examples=(("(x-2)/((x-2)(x+5))", "x+5"),), wrong=_to_nothing),
    Slip(id="added-across", name="Added tops and bottoms", kind="concept", topic="fractions", done="{what}.",
         why="1/2 + 1/2 is 1, not 2/4.", cue="Same denominator first; then only the tops.", examples=(("1/4 + 2/3", "3/7"),), wrong=_added_across),
    Slip(id="scaled-bottom-only", name="Scaled the bottom only", kind="procedure", topic="fractions", done="{what}.",
         why="Scaling keeps the value only when top and bottom take the factor.", cue="What the bottom gets, the top gets.",
         examples=(("3/x + 1/(x+2)", "3/(x(x+2)) + 1/(x(x+2))"),), wrong=_bottom_scaled),
    Slip(id="lcd-incomplete", name="Incomplete common denominator", kind="procedure", topic="fractions", done="{what}, though it lacks a factor.",
         why="Every denominator must divide the common one.", cue="List the factors of each denominator.", examples=(("3/x + 1/(x+2)", "4/(x+2)"),), wrong=_incomplete_lcd),
    Slip(id="divided-without-flip", name="Did not turn the divisor over", kind="procedure", topic="fractions", done="{what}.",
         why="6 ÷ 1/2 is 12.", cue="Keep, change, turn over.", examples=(("(a/3)÷(b/6)", "(ab)/18"),), wrong=_no_flip),
    Slip(id="flipped-the-first", name="Turned the dividend over", kind="procedure", topic="fractions", done="{what}.",
         why="The fraction after ÷ is turned over.", cue="The one behind ÷ turns.", examples=(("(x/3)÷(x^2/6)", "(3/x)·(x^2/6)"),), wrong=_wrong_flip),
    Slip(id="minus-on-first-term-only", name="Minus on the first term only", kind="notation", topic="fractions", done="{what}.",
         why="9 − (5 + 2) is 2; 9 − 5 + 2 is 6.", cue="Bracket the whole numerator.", examples=(("4 - (x+3)", "4 - x + 3"), ("1/x - (x-2)/x", "(1 - x - 2)/x")), wrong=_minus_first_only),
    Slip(id="opposite-sign-lost", name="Lost the sign of an opposite", kind="concept", topic="fractions", done="{what}.",
         why="7 − 4 is 3, and 4 − 7 is −3.", cue="b − a = −(a − b).", examples=(("6/(x-5) + 1/(5-x)", "7/(x-5)"),), wrong=_opposite),
    Slip(id="expression-as-equation", name="Dropped the denominator", kind="concept", topic="fractions", done="{what}.",
         why="An expression has no other side that could be multiplied too.", cue="Is there an equals sign? Else the bottom stays.",
         examples=(("1/x + 2/3", "3 + 2x"),), wrong=_as_equation),
    Slip(id="mixed-number-product", name="Mixed number as a product", kind="notation", topic="fractions", done="{what}.",
         why="Two and a quarter is 2 + 1/4.", cue="Read it aloud: two AND a quarter.", examples=(("2 1/4", "1/2"),), wrong=_mixed_product),
)  # fmt: skip
