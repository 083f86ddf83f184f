"""What a rule is: a law of algebra with its name, its reason and its proof by examples."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

Preserves = Literal["value", "solutions", "widens", "settles"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Rule:
    """One step that a teacher names.

    `reason` is one sentence; its {slots} are filled with the terms of the line. `preserves` says what the step keeps:
    the value of an expression, the solutions of an equation, or (widens, settles) what it does to them. Every example
    is a line before and a line after, in the plain notation; the exact core confirms each. `weight` is how hard the
    step is, 1 being one fact of arithmetic. The student errors that lurk here say so themselves.
    """

    id: str
    name: str
    reason: str
    preserves: Preserves
    examples: tuple[tuple[str, str], ...]
    weight: float = 1.0
