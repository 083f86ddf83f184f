"""Links between expressions: equal wherever both are defined, or not, with a number that shows it."""

from __future__ import annotations

from fractions import Fraction as Q

from algebra.exact.definite import PI
from algebra.exact.effort import OutOfEffort
from algebra.exact.errors import ExactError, OutOfScope, TooLarge
from algebra.exact.evaluate.at_point import PointEvaluator
from algebra.exact.generators import Plan
from algebra.exact.radical_field import RadicalField
from algebra.exact.rational_functions import Ratio
from algebra.exact.sample_points import breaking_point
from algebra.exact.writing import factored_tree, simplified_tree
from algebra.reports.report import Evidence, PointEvidence
from algebra.tree import nodes as n
from algebra.tree.plain import plain
from algebra.tree.substitute import substituted
from algebra.verify.comparison import Comparison
from algebra.verify.context import Context
from algebra.verify.draft import LinkDraft
from algebra.verify.evaluated import EvaluatedExpression
from algebra.verify.excluded_values import ExcludedValues


def relate(
    comparison: Comparison,
    excluded: ExcludedValues,
    link: LinkDraft,
    before: EvaluatedExpression,
    after: EvaluatedExpression,
    where: str = "",
) -> bool:
    """Fills in the link; returns whether it holds. Rational functions are equal iff their lowest terms are."""
    context = comparison.context
    link.relation, sample = comparison.compare(before, after)
    if link.relation == "holds":
        if excluded.leaves_out_more(after):
            link.notes.append("undefined-at")
        return True
    if link.relation == "breaks" and context.explains:
        link.evidence = difference_shown(context, before, after, where, sample)
    return False


def difference_shown(
    context: Context,
    before: EvaluatedExpression,
    after: EvaluatedExpression,
    where: str = "",
    sample: dict[str, Q] | None = None,
) -> Evidence | None:
    """The friendliest values at which two unequal expressions differ; None where none can be worked out."""
    try:
        return _difference_shown(context, before, after, where, sample)
    except (OutOfScope, TooLarge, OutOfEffort):
        return None  # the verdict is proved without it


def _difference_shown(
    context: Context, before: EvaluatedExpression, after: EvaluatedExpression, where: str, sample: dict[str, Q] | None
) -> Evidence | None:
    left, right = _first_difference(before, after)
    letters = sorted((n.letters(left) | n.letters(right)) - {PI})
    if context.complex and "i" in letters:
        letters.remove("i")
    plan = context.plan or Plan()
    given = context.given_trees()

    def values(point: dict[str, Q]) -> tuple[Ratio | None, Ratio | None] | None:
        exactly = PointEvaluator(plan, point)
        if any(n.letters(tree) <= set(point) and exactly.value(tree) is None for tree in given):
            return None
        if not context.assumed.holds_at(point):
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
    return PointEvidence(text, values_tried, _exact(value_before), _exact(value_after), same_shape)


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
    exactly = PointEvaluator(Plan(), {})
    for numbers in ((3, 5, 4), (2, 5, 3), (4, 6, 5), (7, 2, 3)):
        if len(outer) > len(numbers):
            return None
        chosen: dict[n.Node, n.Node] = {root: n.Group(n.Integer(k)) for root, k in zip(outer, numbers, strict=False)}
        try:
            first, second = (exactly.value(substituted(tree, chosen)) for tree in (before, after))
        except ExactError:
            return None
        if first is not None and second is not None and first != second:
            put = ", ".join(f"{plain(n.bare(number))} for {plain(root)}" for root, number in chosen.items())
            return f"The same with {put}: {_exact(first)} before, {_exact(second)} after."
    return None


def _first_difference(before: EvaluatedExpression, after: EvaluatedExpression) -> tuple[n.Node, n.Node]:
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
    assert isinstance(value.field, RadicalField)
    number = value.field.approximate(value)
    size = float(number.real.mid())
    return text if number.imag != 0 or not abs(size) < 10**9 else f"{text} ({size:.3f})"


def factors_shown(context: Context, value: Ratio) -> Evidence:
    """Of a polynomial that was called prime: its factors."""
    factors = plain(factored_tree(value.numerator, context.field.letters))
    return PointEvidence(f"It can be factored: {factors}.", after=factors)
