"""Links between expressions: equal wherever both are defined, or not, with a number that shows it."""

from __future__ import annotations

from fractions import Fraction as Q

from algebra.exact.forms import factored_tree, number_tree
from algebra.exact.points import breaking_point, value_at
from algebra.exact.ratio import Ratio, irreducible_factors
from algebra.model import Evidence, Link
from algebra.tree import nodes as n
from algebra.tree.plain import plain
from algebra.verify.ledger import Ledger
from algebra.verify.setting import ExpressionMeaning, Setting


def relate(
    setting: Setting, ledger: Ledger, link: Link, before: ExpressionMeaning, after: ExpressionMeaning, where: str = ""
) -> bool:
    """Fills in the link; returns whether it holds. Rational functions are equal iff their lowest terms are."""
    if {v.ratio for v in before.values} == {v.ratio for v in after.values}:
        link.relation = "holds"
        new = irreducible_factors(p for value in after.values for p in value.nonzero)
        if any(key not in ledger.factors for key in new):
            link.notes.append("undefined-at")
        return True
    link.relation = "breaks"
    link.evidence = difference_shown(setting, before, after, where)
    return False


def difference_shown(
    setting: Setting, before: ExpressionMeaning, after: ExpressionMeaning, where: str = ""
) -> Evidence | None:
    """The friendliest values at which two unequal expressions differ."""
    left, right = _first_difference(before, after)
    letters = sorted(n.letters(left) | n.letters(right))
    given = setting.given.body

    def allowed(point: dict[str, Q]) -> bool:
        if given is None or not n.letters(given) <= set(point):
            return True
        try:
            return all(value_at(side, point) is not None for side in (given.children if _is_line(given) else (given,)))
        except ValueError:
            return True

    try:
        found = breaking_point(letters, lambda p: value_at(left, p), lambda p: value_at(right, p), allowed)
    except ValueError:
        return None
    if found is None:
        return None
    point, value_before, value_after = found
    if not point:
        text = f"{where}{_number(value_before)} before, {_number(value_after)} after"
    else:
        at = ", ".join(f"{name} = {value}" for name, value in point.items())
        text = f"{where}{at}: {_number(value_before)} before, {_number(value_after)} after"
    return Evidence(
        text, {name: str(value) for name, value in point.items()}, _exact(value_before), _exact(value_after)
    )


def _is_line(node: n.Node) -> bool:
    return type(node).__module__.endswith("lines")


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


def _exact(value: Q | None) -> str | None:
    return None if value is None else plain(number_tree(value))


def _number(value: Q | None) -> str:
    """Exact, and to three decimals where that helps to compare."""
    if value is None:
        return "undefined"
    text = plain(number_tree(value))
    return text if value.denominator in (1, 2) else f"{text} ({float(value):.3f})"


def undefined_shown() -> Evidence:
    """Of a line that divides by zero whatever its letters are."""
    return Evidence("This line divides by zero, so it has no value.", {}, None, None)


def factors_shown(setting: Setting, value: Ratio) -> Evidence:
    """Of a polynomial that was called prime: its factors."""
    factors = plain(factored_tree(value.numerator, setting.field.letters))
    return Evidence(f"It can be factored: {factors}.", {}, None, factors)
