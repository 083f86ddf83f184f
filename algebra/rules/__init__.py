"""The laws by which worked solutions go on, one topic a file."""

from algebra.rules import equations, exponents, fractions, functions, numbers, polynomials, quadratics, radicals
from algebra.rules.rule import Rule

RULES: tuple[Rule, ...] = (
    numbers.RULES
    + exponents.RULES
    + radicals.RULES
    + polynomials.RULES
    + fractions.RULES
    + equations.RULES
    + quadratics.RULES
    + functions.RULES
)
"""Every rule; the order is that of a school year."""

BY_ID: dict[str, Rule] = {rule.id: rule for rule in RULES}

__all__ = ["BY_ID", "RULES", "Rule"]
