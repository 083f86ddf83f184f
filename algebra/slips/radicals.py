"""Slips with roots."""

from __future__ import annotations

from collections.abc import Iterator
from fractions import Fraction as Q
from math import isqrt, prod

from algebra.exact.algebraic_numbers import divisors, squarefree_part
from algebra.slips.parts import (
    Term,
    add,
    base_and_exponent,
    both_signs,
    coefficient,
    counted,
    equals,
    factors,
    multiply,
    number_of,
    opposite,
    over,
    power,
    root,
    square_root,
    terms,
    two_of,
)
from algebra.slips.slip import Slip, Wrong
from algebra.slips.words import said
from algebra.tree import build
from algebra.tree import nodes as n
from algebra.tree import statements as ln


def _each_side_rooted(body: ln.Equation) -> Iterator[Wrong]:
    """x² + 9 = 25 as x + 3 = 5."""
    rooted = []
    for side in body.sides:
        items: list[Term] = []
        for sign, term in terms(side):
            found, value = base_and_exponent(term), number_of(term)
            if value is not None and value >= 0 and square_root(value) is not None:
                items.append((sign, square_root(value) or term))
            elif found and n.letters(term) and found[1] == 2:
                items.append((sign, found[0]))
            else:
                return
        rooted.append(items)
    sums = [side for side in body.sides if len(terms(side)) > 1]
    if sums:
        words = said("the root was taken of each term of {inside}", inside=sums[0])
        yield equals(add(rooted[0]), add(rooted[1])), words
        if len(sums) == 1:
            yield equals(*(add(side) if len(side) == 1 else both_signs(add(side)) for side in rooted)), words


def _root_of_part(node: n.Node) -> Iterator[Wrong]:
    """√(4/9) as 2/9, √(9x) as 3x, √(x^16) as x^4."""
    if not isinstance(node, n.Root) or node.index is not None:
        return
    inside = n.bare(node.radicand)
    if isinstance(inside, n.Fraction):
        top, bottom = (
            square_root(value) if (value := number_of(part)) and value > 0 else None for part in inside.children
        )
        top = top or (_product_root(inside.numerator) if n.letters(inside.numerator) else None)
        if top is not None:
            yield (
                over(top, inside.denominator),
                said(
                    "the root was taken of {top} but not of {bottom}", top=inside.numerator, bottom=inside.denominator
                ),
            )
        if bottom is not None:
            yield (
                over(inside.numerator, bottom),
                said(
                    "the root was taken of {bottom} but not of {top}", top=inside.numerator, bottom=inside.denominator
                ),
            )
        return
    items = factors(inside)
    for k, part in enumerate(items):
        value = number_of(part)
        taken = square_root(value) if value and value > 0 else None
        rest = [f for j, f in enumerate(items) if j != k]
        if taken is not None and rest:
            yield (
                multiply([taken, *rest]),
                said("the root was taken of {part} but not of {rest}", part=part, rest=multiply(rest)),
            )
    roots = [_whole_root(f) for f in items]
    if len(items) > 1 and None not in roots:
        for k, part in enumerate(items):
            others = [own for j, own in enumerate(roots) if j != k and own is not None]
            words = said("{part} stands as it was under the root", shows=part, part=part)
            yield multiply([*others[:k], part, *others[k:]]), words
    raised = [base_and_exponent(f) for f in items]
    if all(found is not None for found in raised):
        pieces: list[n.Node] = []
        changed = None
        for found in raised:
            assert found is not None
            own = square_root(found[1]) if found[1] > 1 and n.letters(found[0]) else None
            if own is not None and found[1] > 1:
                pieces.append(power(found[0], own))
                changed = power(*found)
            else:
                value = number_of(found[0])
                pieces.append(square_root(value) or root(found[0]) if value and value > 0 else root(power(*found)))
        if changed is not None:
            yield multiply(pieces), said("the root was taken of the exponent of {power}", power=changed)


def _whole_root(part: n.Node) -> n.Node | None:
    """The square root of a number, or of a letter to an even power (its size taken for positive); None where a root is
    left."""
    value, found = number_of(part), base_and_exponent(part)
    if value is not None:
        return square_root(value) if value > 0 else None
    if found is None or not n.letters(found[0]) or found[1] <= 0 or found[1] % 2:
        return None
    return power(found[0], found[1] / 2)


def _product_root(part: n.Node) -> n.Node | None:
    """The square root of a product, factor by factor; None where a root is left."""
    roots = [_whole_root(f) for f in factors(part)]
    return multiply([r for r in roots if r is not None]) if None not in roots else None


MAX_SPLIT = 400
"""Largest radicand of which wrong splits are looked for."""


def _root_over_sum(node: n.Node) -> Iterator[Wrong]:
    if isinstance(node, ln.Equation) and len(node.sides) == 2:
        yield from _each_side_rooted(node)
        return
    if not isinstance(node, n.Root) or not isinstance(n.bare(node.radicand), n.Sum):
        return
    rooted: list[Term] = []
    for s, t in terms(node.radicand):
        found = base_and_exponent(t)
        if found and found[1] % 2 == 0 and node.index is None and not isinstance(found[0], n.Integer):
            rooted.append((s, power(found[0], found[1] / 2)))
        else:
            rooted.append((s, root(t, node)))
    yield add(rooted), said("the root was taken of each term of {inside}", inside=n.bare(node.radicand))


def _root_terms(node: n.Node) -> Iterator[tuple[list[Term], Q, Q, n.Root, n.Root]]:
    """Two terms of a sum that are a number times a root: the other terms, both numbers, both roots."""
    if not isinstance(node, n.Sum):
        return
    items = terms(node)
    for i, j, rest in two_of(items):
        found = [_counted_root(*item) for item in (items[i], items[j])]
        if found[0] is None or found[1] is None or found[0][1].index != found[1][1].index:
            continue
        yield rest, found[0][0], found[1][0], found[0][1], found[1][1]


def _counted_root(sign: str, term: n.Node) -> tuple[Q, n.Root] | None:
    """The number and the root of a term that is a number times one root, else None."""
    roots = [f for f in factors(term) if isinstance(f, n.Root)]
    parts = coefficient(term)
    if len(roots) != 1 or parts is None or any(number_of(f) is None and f is not roots[0] for f in factors(term)):
        return None
    return -parts[0] if sign == "-" else parts[0], roots[0]


def _radicands_added(node: n.Node) -> Iterator[Wrong]:
    for rest, a, b, first, second in _root_terms(node):
        if abs(a) == abs(b) == 1:
            inside = add([("+", first.radicand), ("+" if a == b else "-", second.radicand)])
            words = said("{first} and {second} were put under one root", shows=first, first=first, second=second)
            yield add([("+", counted(a, root(inside, first))), *rest]), words
        else:
            inside = add([("+", first.radicand), ("+" if a * b > 0 else "-", second.radicand)])
            words = said("{first} and {second} were put under one root", shows=first, first=first, second=second)
            for outside in dict.fromkeys((a, b)):
                yield add([("+", counted(outside, root(inside, first))), *rest]), words
            inside = add([("+", first.radicand), ("+", second.radicand)])
            words = said("the numbers under {first} and {second} were added as well", first=first, second=second)
            yield add([("+", counted(a + b, root(inside, first))), *rest]), words


def _are_alike(x: n.Node, y: n.Node) -> bool:
    """Whether √x and √y are multiples of the same root, as √27 and √(4·3) are."""
    numbers = [number_of(factor) for factor in (*factors(x), *factors(y))]
    product = prod(number for number in numbers if number is not None)
    if None in numbers or product <= 0 or product.denominator != 1:
        return False
    return isqrt(int(product)) ** 2 == product


def _unlike_combined(node: n.Node) -> Iterator[Wrong]:
    for rest, a, b, first, second in _root_terms(node):
        if first.radicand == second.radicand:
            continue
        x, y = number_of(first.radicand), number_of(second.radicand)
        choices = [first.radicand, second.radicand]
        if _are_alike(first.radicand, second.radicand):
            continue
        if x is not None and y is not None:
            choices += [build.number(x + y), build.number(abs(x - y)), build.number(x * y)]
        words = said("{first} and {second} are unlike", shows=first, first=first, second=second)
        for inside in choices:
            yield add([("+", counted(a + b, root(inside, first))), *rest]), words


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
                words = said("{number} was added to the number before {root}", shows=t, number=t, root=roots[0])
                yield add([("+", counted(total, parts[1])), *rest]), words


MAX_ROOTED = 10**12


def _not_rooted(node: n.Node) -> Iterator[Wrong]:
    if not isinstance(node, n.Root) or node.index is not None:
        return
    value = number_of(node.radicand)
    if n.letters(node):
        yield from _letters_not_rooted(node)
    if value is None or value.denominator != 1 or not 4 <= value <= MAX_ROOTED:
        return
    whole = int(value)
    for size in reversed(divisors(squarefree_part(whole)[1])[1:]):
        square = n.Integer(size * size)
        words = said("{square} came out of {root} without its root", shows=square, square=square, root=node)
        yield multiply([square, n.Root(n.Integer(whole // (size * size)))]), words


def _letters_not_rooted(node: n.Root) -> Iterator[Wrong]:
    """√(18x²) as 9x√2 and √(x⁵) as x⁴√x: the square of the number, or of the letters, comes out as it is."""
    number, letters, left = 1, list[tuple[n.Node, int]](), list[n.Node]()
    for part in factors(node.radicand):
        value, found = number_of(part), base_and_exponent(part)
        if value is not None and value.denominator == 1 and 0 < value <= MAX_ROOTED:
            number *= int(value)
        elif found is not None and n.letters(found[0]) and found[1] > 0 and found[1].denominator == 1:
            letters.append((found[0], int(found[1]) // 2))
            if found[1] % 2:
                left.append(found[0])
        else:
            return
    rest, size = squarefree_part(number)
    inside = root(multiply([*([n.Integer(rest)] if rest > 1 else []), *left])) if rest > 1 or left else None
    under = [inside] if inside is not None else []
    taken = [(base, times) for base, times in letters if times]
    if size > 1:
        square = n.Integer(size * size)
        words = said("{square} came out of {root} without its root", shows=square, square=square, root=node)
        yield multiply([square, *(power(base, times) for base, times in taken), *under]), words
    for k, (letter, half) in enumerate(taken):
        words = said("{square} came out of {root} without its root", square=power(letter, 2 * half), root=node)
        whole = [power(base, 2 * times if j == k else times) for j, (base, times) in enumerate(taken)]
        yield multiply([*([n.Integer(size)] if size > 1 else []), *whole, *under]), words


def _wrongly_split(node: n.Node) -> Iterator[Wrong]:
    """√28 as 2√14: the radicand is divided by the number that comes out, not by its square."""
    if not isinstance(node, n.Root) or node.index is not None:
        return
    value = number_of(node.radicand)
    if value is None or value.denominator != 1 or not 4 < value <= MAX_SPLIT:
        return
    whole = int(value)
    for outside in range(2, whole // 2 + 1):
        if whole % outside == 0:
            words = said(
                "{whole} under the root was divided by {outside}, not by its square",
                shows=node,
                whole=whole,
                outside=outside,
            )
            yield multiply([n.Integer(outside), n.Root(n.Integer(whole // outside))]), words


def _bottom_only(node: n.Node) -> Iterator[Wrong]:
    if isinstance(node, n.Fraction):
        roots = [f for f in factors(node.denominator) if isinstance(f, n.Root) and f.index is None]
        if len(roots) == 1:
            others = [f for f in factors(node.denominator) if f is not roots[0]]
            words = said("only the denominator was multiplied by {root}", root=roots[0])
            yield over(node.numerator, multiply([*others, roots[0].radicand])), words
        items = terms(node.denominator)
        if len(items) == 2 and any(isinstance(part, n.Root) for part in n.parts_of(node.denominator)):
            (sign, a), (other, b) = items
            conjugate = add([(sign, a), ("-" if other == "+" else "+", b)])
            words = said("only the denominator was multiplied by {conjugate}", conjugate=conjugate)
            yield over(node.numerator, add([("+", power(a, 2)), ("-", power(b, 2))])), words


def _no_conjugate(node: n.Node) -> Iterator[Wrong]:
    if not isinstance(node, n.Fraction) or len(terms(node.denominator)) != 2:
        return
    if not any(isinstance(p, n.Root) for p in n.parts_of(node.denominator)):
        return
    bottom = n.bare(node.denominator)
    squares = add([("+", power(t, 2)) for _, t in terms(bottom)])
    words = said("{bottom} was multiplied by itself, and the middle left out", shows=bottom, bottom=bottom)
    yield over(multiply([node.numerator, bottom]), squares), words
    items = terms(bottom)
    if items[0][0] == "+":  # the difference below is that of the conjugate, above stands the bracket itself
        difference = add([("+", power(items[0][1], 2)), ("-", power(items[1][1], 2))])
        words = said("{bottom} stands above, and below what its conjugate would give", shows=bottom, bottom=bottom)
        yield over(multiply([node.numerator, bottom]), difference), words
    for k, (_, term) in enumerate(items):
        if isinstance(term, n.Root) and term.index is None:  # only the root was squared
            below = add([*items[:k], ("+", term.radicand), *items[k + 1 :]])
            words = said(
                "only {root} was multiplied by {root} below, and not the whole of {bottom}",
                shows=term,
                root=term,
                bottom=bottom,
            )
            yield over(multiply([node.numerator, term]), below), words


def _both_signs(node: n.Node) -> Iterator[Wrong]:
    if isinstance(node, n.Root) and node.index is None and not n.letters(node):
        yield both_signs(node), said("{root} means the non-negative root", root=node)


def _negative_root(node: n.Node) -> Iterator[Wrong]:
    """√(−25) taken for −5 or 5, or x² = −9 solved with ±3."""
    if isinstance(node, n.Root) and (node.index is None or number_of(node.index) == 2):
        value = number_of(node.radicand)
        if value is not None and value < 0:
            size = square_root(-value) or root(build.number(-value))
            for wrong in (opposite(size), size):
                yield wrong, said("√({value}) was taken for {wrong}", value=value, wrong=_unbracketed(wrong))
    elif isinstance(node, ln.Equation) and len(node.sides) == 2:
        square, right = n.bare(node.sides[0]), number_of(node.sides[1])
        taken = None if right is None or right >= 0 else square_root(-right)
        if isinstance(square, n.Power) and number_of(square.exponent) == 2 and taken is not None and right is not None:
            words = said("no real number has the square {right}", right=right)
            yield equals(n.bare(square.base), both_signs(taken)), words
            yield equals(n.bare(square.base), opposite(taken)), words


def _unbracketed(node: n.Node) -> n.Node:
    return n.Signed(node.sign, n.bare(node.child)) if isinstance(node, n.Signed) else node


def _absolute_lost(node: n.Node) -> Iterator[Wrong]:
    if isinstance(node, n.Absolute) and n.letters(node):
        yield node.child, said("{bars} is never negative, but {inside} may be", bars=node, inside=node.child)
    if not isinstance(node, n.Root) or node.index is not None or not n.letters(node):
        return
    pieces: list[n.Node] = []
    for part in factors(node.radicand):
        found = base_and_exponent(part)
        if number_of(part) is not None:
            pieces.append(root(part))
        elif found and found[1] % 2 == 0:
            pieces.append(found[0] if found[1] == 2 else power(found[0], found[1] / 2))
        else:
            return
    written = multiply(pieces)
    yield written, said("{root} is never negative, but {written} may be", root=node, written=written)


SLIPS = (
    Slip(
        id="root-over-sum",
        claim="√(a + b) = √a + √b",
        name="Root of each term",
        kind="concept",
        topic="radicals",
        done="{what}.",
        why="√(9 + 16) is 5, and √9 + √16 is 7.",
        cue="A root goes over products only.",
        examples=(("√(x^2+36)", "x+6"), ("x^2 + 9 = 25", "x + 3 = 5")),
        wrong=_root_over_sum,
        scope="any",
        innocent=(("√(36x^2)", "6|x|"), ("√(9·16)", "3·4")),
        lurks_in=("evaluate-root", "largest-square-factor", "root-of-product"),
        likely=3.6,
        rank=8,
    ),
    Slip(
        id="unlike-radicals-combined",
        name="Combined unlike radicals",
        kind="concept",
        topic="radicals",
        done="{what}, like x and y.",
        why="Only the same root can be counted together.",
        cue="Same root? Else leave it.",
        examples=(("3√2 + 5√3", "8√5"),),
        wrong=_unlike_combined,
        innocent=(("3√2 + 5√2", "8√2"),),
        lurks_in=("combine-like-roots",),
    ),
    Slip(
        id="radicands-added",
        name="Added under one root",
        kind="concept",
        topic="radicals",
        done="{what}.",
        why="√9 + √16 is 7, and √25 is 5.",
        cue="Simplify each root first.",
        examples=(("√12 + √27", "√39"), ("5√2 + 2√2", "7√4")),
        wrong=_radicands_added,
        innocent=(("√12 + √27", "5√3"), ("√12·√27", "√324")),
        lurks_in=("multiply-roots",),
        likely=4.0,
    ),
    Slip(
        id="integer-joined-to-radical",
        name="Added a number into the coefficient",
        kind="concept",
        topic="radicals",
        done="{what}.",
        why="4 + 3x is not 7x; the root is such an x.",
        cue="A number and a root are unlike terms.",
        examples=(("4 + 3√6", "7√6"),),
        wrong=_integer_joined,
        innocent=(("4√6 + 3√6", "7√6"),),
        lurks_in=("combine-like-roots",),
        rank=9,
    ),
    Slip(
        id="factor-not-rooted",
        name="Took the square out without its root",
        kind="procedure",
        topic="radicals",
        done="{what}.",
        why="√25 is 5, so 5 comes out.",
        cue="Say the root of what comes out.",
        examples=(("√50", "25√2"),),
        wrong=_not_rooted,
        innocent=(("√50", "5√2"),),
        lurks_in=("largest-square-factor", "prime-pairs", "root-of-square", "simplify-root-in-solution"),
    ),
    Slip(
        id="root-of-part",
        name="Rooted a part only",
        kind="concept",
        topic="radicals",
        done="{what}.",
        why="√(4/9) is √4/√9, and √(x¹⁶)·√(x¹⁶) is x¹⁶.",
        cue="The root goes to every factor, above and below; an exponent is halved.",
        examples=(("√(4/9)", "2/9"), ("√(9x)", "3x"), ("√(x^16)", "x^4")),
        wrong=_root_of_part,
        innocent=(("√(4/9)", "2/3"), ("√(9x)", "3√x"), ("√(x^16)", "x^8")),
        lurks_in=("root-of-quotient", "root-of-product", "root-of-square"),
        likely=1.8,
    ),
    Slip(
        id="root-split-wrongly",
        name="Divided by the number, not by its square",
        kind="procedure",
        topic="radicals",
        done="{what}.",
        why="2√14 is √(4·14), which is √56.",
        cue="Square what comes out and multiply back.",
        examples=(("√28", "2√14"), ("3 + √45", "3 + 5√9")),
        wrong=_wrongly_split,
        innocent=(("√28", "2√7"), ("√45", "3√5")),
        lurks_in=("largest-square-factor", "prime-pairs", "root-of-product", "simplify-root-in-solution"),
        likely=2.2,
    ),
    Slip(
        id="rationalised-bottom-only",
        name="Multiplied the denominator only",
        kind="procedure",
        topic="radicals",
        done="{what}.",
        why="Multiplying by 1 means top and bottom alike.",
        cue="Write the root beside the bar, above and below.",
        examples=(("7/√5", "7/5"),),
        wrong=_bottom_only,
        innocent=(("7/√5", "(7√5)/5"),),
        lurks_in=("multiply-by-root", "multiply-by-conjugate"),
    ),
    Slip(
        id="conjugate-not-used",
        name="No conjugate",
        kind="concept",
        topic="radicals",
        done="{what}.",
        why="Only with the other sign does the middle cancel.",
        cue="Change the sign in the middle.",
        examples=(("2/(1+√3)", "(2(1+√3))/(1+3)"),),
        wrong=_no_conjugate,
        innocent=(("2/(1+√3)", "(2(1-√3))/(1-3)"),),
        lurks_in=("multiply-by-conjugate", "difference-of-squares-roots"),
    ),
    Slip(
        id="root-given-both-signs",
        name="± for a root sign",
        kind="notation",
        topic="radicals",
        done="{what}.",
        why="The sign √ names one number.",
        cue="± comes when you take the root, not when it stands there.",
        examples=(("√49", "±7"),),
        wrong=_both_signs,
        innocent=(("√49", "7"), ("-√49", "-7")),
        lurks_in=("evaluate-root", "root-never-negative"),
    ),
    Slip(
        id="negative-root-real",
        name="Real root of a negative number",
        kind="concept",
        topic="radicals",
        done="{what}.",
        scope="any",
        numbers="complex",
        why="5² and (−5)² are both 25: the root of −25 needs i.",
        cue="First take the −1 out as i.",
        examples=(("√(-25)", "-5"), ("2√(-9) + 1", "2·3 + 1"), ("√(-12)", "-2√3")),
        wrong=_negative_root,
        innocent=(("√(-25)", "5i"), ("√25", "5")),
        lurks_in=("negative-radicand", "no-real-root"),
    ),
    Slip(
        id="absolute-lost",
        claim="√(a^2) = a",
        name="Dropped the bars",
        kind="concept",
        topic="radicals",
        done="{what}.",
        why="|−3| is 3, and so is √((−3)²).",
        cue="Even root of an even power: bars.",
        examples=(("√(y^2)", "y"), ("5x|y|√(2x)", "5xy√(2x)")),
        wrong=_absolute_lost,
        innocent=(("√(y^2)", "|y|"), ("√(y^4)", "y^2")),
        lurks_in=("root-of-square",),
    ),
)
