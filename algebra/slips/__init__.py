"""The student errors, one topic a file; the order is that of preference where several explain a line."""

from algebra.slips import answers, checks, equations, fractions, functions, numbers, polynomials, powers, whole
from algebra.slips.slip import Ending, Sight, Slip

_ALL: tuple[Slip, ...] = (
    equations.SLIPS
    + fractions.SLIPS
    + powers.SLIPS
    + polynomials.SLIPS
    + numbers.SLIPS
    + answers.SLIPS
    + checks.SLIPS
    + functions.SLIPS
    + whole.SLIPS
)
_FIRST = (
    "formula-sign-of-b", "formula-discriminant-sign", "formula-2-for-2a", "formula-part-over-2a", "leading-coefficient-left",
    "negative-unknown-kept", "subtracted-coefficient", "divided-one-term", "root-over-sum", "integer-joined-to-radical", "difference-as-square", "sum-of-squares-factored", "opposite-sign-lost", "sign-of-product",
    "unlike-terms-combined", "left-to-right",
)  # fmt: skip
"""Where several explain a line, the more particular comes first: these before the rest, which keep their order."""

SLIPS: tuple[Slip, ...] = (
    tuple(slip for name in _FIRST for slip in _ALL if slip.id == name) + tuple(slip for slip in _ALL if slip.id not in _FIRST)
)  # fmt: skip

BY_ID: dict[str, Slip] = {slip.id: slip for slip in SLIPS}

__all__ = ["BY_ID", "SLIPS", "Ending", "Sight", "Slip"]
