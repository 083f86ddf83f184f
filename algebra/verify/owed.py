"""Checks owed: which candidates a legal move brought in, and what settles each."""

from __future__ import annotations

from dataclasses import dataclass, field

from algebra.exact.solutions import Solution, SolutionSet
from algebra.model import Owed
from algebra.verify.gains import Gain
from algebra.verify.ledger import Ledger, in_order, written
from algebra.verify.setting import Setting


@dataclass(slots=True)
class Account:
    """What the chain has taken on and paid: candidates by cause, checks, exclusions, remarks beside dropped values."""

    gains: list[tuple[int, Gain]] = field(default_factory=list)
    raised: list[tuple[int, SolutionSet]] = field(default_factory=list)
    checked: set[Solution] = field(default_factory=set)
    excluded: set[Solution] = field(default_factory=set)
    remarked: set[Solution] = field(default_factory=set)


def owed_checks(setting: Setting, ledger: Ledger, account: Account, final: SolutionSet | None) -> list[Owed]:
    """The candidates that still owe a check; `final` is the last set of solutions that was written."""
    policy = setting.working.convention("checks_after_squaring")
    debts: dict[Solution, str] = {}
    for line, solutions in account.raised:
        if policy == "always" and not solutions.cofinite:
            debts |= dict.fromkeys(solutions.members, f"both sides were squared in line {line}")
    for line, gain in account.gains:
        if gain.kind == "denominator" or gain.solution in ledger:
            continue  # the ledger settles it
        if gain.kind == "power" and policy == "never":
            continue
        debts.setdefault(gain.solution, f"it was gained in line {line}: {gain.because}")
    open_debts = {}
    for solution, because in debts.items():
        kept = final is not None and final.has(solution)
        paid = solution in account.checked
        if not kept:
            paid = paid or solution in account.remarked or solution in account.excluded
        if not paid:
            open_debts[solution] = because
    order = {value: k for k, value in enumerate(in_order(setting, frozenset(open_debts), falling=True))}
    owed = [Owed(written(setting, s), because) for s, because in open_debts.items()]
    return sorted(owed, key=lambda item: order[item.value])
