"""Checks owed: which candidates a legal move brought in, and what settles each."""

from __future__ import annotations

from dataclasses import dataclass, field

from algebra.exact.solution_sets import Solution, SolutionSet
from algebra.reports.report import Owed
from algebra.verify.context import Context
from algebra.verify.excluded_values import ExcludedValues, sorted_solutions, written
from algebra.verify.widening import Gain


@dataclass(slots=True)
class PendingChecks:
    """What the chain has taken on and paid: candidates by cause, checks, exclusions, remarks beside dropped values."""

    gains: list[tuple[int, Gain]] = field(default_factory=list)
    raised: list[tuple[int, SolutionSet]] = field(default_factory=list)
    checked: set[Solution] = field(default_factory=set)
    excluded: set[Solution] = field(default_factory=set)
    remarked: set[Solution] = field(default_factory=set)


def owed_checks(
    context: Context, excluded: ExcludedValues, account: PendingChecks, final: SolutionSet | None
) -> list[Owed]:
    """The candidates that still owe a check; `final` is the last set of solutions that was written."""
    policy = context.working.convention("checks_after_squaring")
    debts: dict[Solution, str] = {}
    for line, solutions in account.raised:
        if policy == "always" and not solutions.cofinite:
            debts |= dict.fromkeys(solutions.members, f"both sides were squared in line {line}")
    for line, gain in account.gains:
        if gain.cause == "denominator" or gain.solution in excluded:
            continue  # the ledger settles it
        if gain.cause == "power" and policy == "never":
            continue
        debts.setdefault(gain.solution, f"it was gained in line {line}: {gain.because}")
    open_debts: dict[Solution, str] = {}
    for solution, because in debts.items():
        kept = final is not None and final.has(solution)
        paid = solution in account.checked
        if not kept:
            paid = paid or solution in account.remarked or solution in account.excluded
        if not paid:
            open_debts[solution] = because
    return [Owed(written(context, s), open_debts[s]) for s in sorted_solutions(frozenset(open_debts), falling=True)]
