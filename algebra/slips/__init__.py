"""The student errors, one topic a file; the order is that of preference where several explain a line."""

from algebra.slips import (
    answers,
    cancelling,
    checks,
    complex_numbers,
    equations,
    factoring,
    fractions,
    functions,
    numbers,
    polynomials,
    powers,
    quadratics,
    radicals,
    whole,
)
from algebra.slips.slip import Ending, Sight, Slip
from algebra.slips.words import Words

_BY_TOPIC: tuple[Slip, ...] = (
    equations.SLIPS
    + quadratics.SLIPS
    + cancelling.SLIPS
    + fractions.SLIPS
    + powers.SLIPS
    + complex_numbers.SLIPS
    + radicals.SLIPS
    + polynomials.SLIPS
    + factoring.SLIPS
    + numbers.SLIPS
    + answers.SLIPS
    + checks.SLIPS
    + functions.SLIPS
    + whole.SLIPS
)
SLIPS: tuple[Slip, ...] = tuple(sorted(_BY_TOPIC, key=lambda slip: slip.rank))
"""Every slip: the particular ones by their rank, then the rest by topic."""

MISCOPIED: Slip = next(slip for slip in SLIPS if slip.miscopied)
"""Something read or written wrongly."""

BY_ID: dict[str, Slip] = {slip.id: slip for slip in SLIPS}


def lurking_at(rule: str) -> tuple[Slip, ...]:
    """The slips that are made at steps of this rule."""
    return _LURKING.get(rule, ())


_LURKING: dict[str, tuple[Slip, ...]] = {
    rule: tuple(slip for slip in SLIPS if rule in slip.lurks_in)
    for rule in dict.fromkeys(rule for slip in SLIPS for rule in slip.lurks_in)
}

__all__ = ["BY_ID", "MISCOPIED", "SLIPS", "Ending", "Sight", "Slip", "Words", "lurking_at"]
