"""How likely a slip is: a table of judgement, to be edited as one learns more; there are no data yet."""

from __future__ import annotations

LIKELY: dict[str, float] = {"concept": 3.0, "procedure": 2.4, "notation": 2.0, "care": 1.0}
"""By kind."""
OFTEN: dict[str, float] = {
    "cancelled-terms": 4.0, "distributed-first-only": 3.6, "power-over-sum": 4.0, "minus-on-first-term-only": 3.6, "plus-minus-missing": 3.6,
    "added-across": 3.6, "root-over-sum": 3.6, "variable-divided-out": 3.2, "moved-same-sign": 3.0, "left-to-right": 3.4,
    "squared-termwise": 3.6, "zero-product-without-zero": 3.2, "unlike-terms-combined": 2.6, "common-factor-wrong-rest": 1.6, "exponents-added-over-sum": 2.0, "divided-one-term": 2.2,
    "sum-of-squares-factored": 2.0, "base-times-exponent": 2.0, "extraneous-kept": 4.0, "excluded-from-reduced": 4.0, "hole-as-asymptote": 3.6,
    "factor-signs": 3.2, "factor-pair": 2.6, "valid-rejected": 2.2, "absolute-one-case": 3.6, "sign-of-sum": 2.4, "sign-of-product": 2.4,
}  # fmt: skip
"""Slips that every teacher meets each year; the others have the likelihood of their kind."""
LURKING, ELSEWHERE = 1.4, 0.75
"""How much likelier a slip is at a step whose rule it belongs to, and how much less so where nobody would touch the line."""
TEMPTING = 3.4
"""From here on a slip is as likely on the given itself as where its rule is used: it catches the eye."""
