"""Links between expressions: equal wherever both are defined, or not, with a number that shows it."""

from __future__ import annotations

from fractions import Fraction as Q

from algebra.exact.budget import OutOfTime
from algebra.exact.cell import Cell, Plan
from algebra.exact.errors import ExactError, OutOfScope, TooLarge
from algebra.exact.forms import factored_tree, simplified_tree
from algebra.exact.points import breaking_point
from algebra.exact.ratio import Ratio
from algebra.exact.roots import Exactly
from algebra.model import Evidence, Link
from algebra.tree import nodes as n
from algebra.tree.plain import plain
from algebra.verify.ledger import Ledger
from algebra.verify.meaning import ExpressionMeaning
from algebra.verify.setting import Setting


def relate(
    setting: Setting, ledger: Ledger, link: Link, before: ExpressionMeaning, after: ExpressionMeaning, where: str = ""
) -> bool:
    """Fills in the link; returns whether it holds. Rational functions are equal iff their lowest terms are."""
    link.relation, sample = setting.compare(before, after)
    if link.relation == "holds":
        if ledger.leaves_out_more(after):
            link.notes.append("undefined-at")
        return True
    if link.relation == "breaks" and setting.explains:
        link.evidence = difference_shown(setting, before, after, where, sample)
    return False


def difference_shown(
    setting: Setting,
    before: ExpressionMeaning,
    after: ExpressionMeaning,
    where: str = "",
    sample: dict[str, Q] | None = None,
) -> Evidence | None:
    """The friendliest values at which two unequal expressions differ; None where none can be worked out."""
    try:
        return _difference_shown(setting, before, after, where, sample)
    except (OutOfScope, TooLarge, OutOfTime):
        return None  # the verdict is proved without it


def _difference_shown(
    setting: Setting, before: ExpressionMeaning, after: ExpressionMeaning, where: str, sample: dict[str, Q] | None
) -> Evidence | None:
    left, right = _first_difference(before, after)
    letters = sorted(n.letters(left) | n.letters(right))
    if setting.complex and "i" in letters:
        letters.remove("i")
    plan = setting.plan or Plan()
    given = setting.given_trees()

    def values(point: dict[str, Q]) -> tuple[Ratio | None, Ratio | None] | None:
        exactly = Exactly(plan, point)
        if any(n.letters(tree) <= set(point) and exactly.value(tree) is None for tree in given):
            return None
        if any(value <= 0 for name, value in point.items() if name in setting.positive):
            return None
        first, second = exactly.value(left), exactly.value(right)
        if first is not None and second is not None and exactly.same(first, second) is not False:
            return None
        return first, second

    extra = [{name: sample[name] for name in letters}] if sample else []
    found = breaking_point(letters, values, extra)
    if found is None:
        return None
    point, value_before, value_after = found
    at = ", ".join(f"{name} = {value}" for name, value in point.items())
    text = f"{where}{at}{': ' if at else ''}{_number(value_before)} before, {_number(value_after)} after"
    values_tried = {name: str(value) for name, value in point.items()}
    same_shape = None if point else with_plain_numbers(left, right)
    return Evidence(text, values_tried, _exact(value_before), _exact(value_after), plain=same_shape)


def with_plain_numbers(before: n.Node, after: n.Node) -> str | None:
    """Two unequal numeric lines with a small whole number in place of each root that both lines share.

    What was done to a root as a whole is as wrong for any number; None where it is not plain that this was done: where
    the second line has a root of its own, or the lines agree for the numbers tried.
    """
    old = {part for part in n.parts_of(before) if isinstance(part, n.Root)}
    new = {part for part in n.parts_of(after) if isinstance(part, n.Root)}
    outer = sorted((root for root in old if not n.letters(root)), key=plain)
    if not outer or not new <= old or any(root in n.parts_of(other.radicand) for root in outer for other in outer):
        return None
    exactly = Exactly(Plan(), {})
    for numbers in ((3, 5, 4), (2, 5, 3), (4, 6, 5), (7, 2, 3)):
        if len(outer) > len(numbers):
            return None
        chosen = dict(zip(outer, numbers, strict=False))
        try:
            first, second = (exactly.value(_filled(tree, chosen)) for tree in (before, after))
        except ExactError:
            return None
        if first is not None and second is not None and first != second:
            put = ", ".join(f"{number} for {plain(root)}" for root, number in chosen.items())
            return f"The same with {put}: {_exact(first)} before, {_exact(second)} after."
    return None


def _filled(tree: n.Node, chosen: dict[n.Root, int]) -> n.Node:
    if isinstance(tree, n.Root) and tree in chosen:
        return n.Group(n.Integer(chosen[tree]))
    return tree.with_children(tuple(_filled(child, chosen) for child in tree.children))


def _first_difference(before: ExpressionMeaning, after: ExpressionMeaning) -> tuple[n.Node, n.Node]:
    """Trees of two variants that differ; a variant without an equal on the other side comes first."""
    there = {value.ratio for value in after.values}
    for tree, value in zip(before.trees, before.values, strict=True):
        if value.ratio not in there:
            return tree, after.trees[0]
    here = {value.ratio for value in before.values}
    for tree, value in zip(after.trees, after.values, strict=True):
        if value.ratio not in here:
            return before.trees[0], tree
    return before.trees[0], after.trees[0]


def _exact(value: Ratio | None) -> str | None:
    return None if value is None else plain(simplified_tree(value))


def _number(value: Ratio | None) -> str:
    """Exact, and to three decimals where that helps to compare."""
    if value is None:
        return "undefined"
    text = plain(simplified_tree(value))
    constant = value.constant
    if constant is not None:
        plain_enough = constant.denominator in (1, 2) or max(abs(constant.numerator), constant.denominator) > 10**9
        return text if plain_enough else f"{text} ({float(constant):.3f})"
    assert isinstance(value.field, Cell)
    number = value.field.approximate(value)
    size = float(number.real.mid())
    return text if number.imag != 0 or not abs(size) < 10**9 else f"{text} ({size:.3f})"


def undefined_shown() -> Evidence:
    """Of a line that divides by zero whatever its letters are."""
    return Evidence("This line divides by zero, so it has no value.", {}, None, None)


def factors_shown(setting: Setting, value: Ratio) -> Evidence:
    """Of a polynomial that was called prime: its factors."""
    factors = plain(factored_tree(value.numerator, setting.field.letters))
    return Evidence(f"It can be factored: {factors}.", {}, None, factors)
