"""What a slip is: a wrong rewriting that students make again and again, with its words, its cue and its examples."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from dataclasses import dataclass
from typing import Literal

from algebra.exact.generators import Plan
from algebra.tree import nodes as n
from algebra.tree import statements as ln

Kind = Literal["concept", "procedure", "notation", "care"]
Wrong = tuple[str, str]
"""What is written in place of the part, in the plain notation, and what fills {what} in the words."""
Scope = Literal["part", "equation", "any", "seen"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Sight:
    """One line that does not hold, and what there is to see of it.

    `before` is the chain's line above; `chain` are all lines above, the given first; `lost` and `expected` are solutions as
    the report writes them.
    """

    task: str
    given: n.Node
    before: n.Node
    chain: tuple[n.Node, ...]
    line: ln.Line
    relation: str
    lost: tuple[str, ...]
    expected: tuple[str, ...]
    plan: Plan

    @property
    def unknown(self) -> str:
        found = n.letters(self.given) - ({"i"} if self.plan.imaginary else set())
        return min(found, default="x")


@dataclass(frozen=True, slots=True, kw_only=True)
class Ending:
    """How a right working ends: the answer, the candidates that were rejected, the excluded values, the given."""

    task: str
    given: n.Node
    unknown: str
    answer: tuple[str, ...]
    rejected: tuple[str, ...]


def nothing_written(_: n.Node) -> Iterable[Wrong]:
    return ()


def nothing_seen(_: Sight) -> Iterable[str]:
    return ()


def nothing_foreseen(_: Ending) -> Iterable[Wrong]:
    return ()


@dataclass(frozen=True, slots=True, kw_only=True)
class Slip:
    """One student error. `wrong` gives what may be written in place of a part (or of a whole equation, by `scope`).

    `done` says in a sentence what was probably done, {what} being the actual terms; `why` says why it fails, `cue` what
    prevents it. Each example is a line before and the line a student writes; with more than two, the first is the given.
    A slip that no rewriting makes is `seen`: in a check, a statement, a table of features; it fills {what} where it explains
    the line. `foreseen` gives the wrong answers that a right working ends in. `plain_numbers` are the right and the wrong form with small
    whole numbers; `innocent` lines look alike and are right.
    """

    id: str
    name: str
    kind: Kind
    topic: str
    done: str
    why: str
    cue: str
    examples: tuple[tuple[str, ...], ...]
    wrong: Callable[[n.Node], Iterable[Wrong]] = nothing_written
    scope: Scope = "part"
    tasks: frozenset[str] = frozenset()
    seen: Callable[[Sight], Iterable[str]] = nothing_seen
    foreseen: Callable[[Ending], Iterable[Wrong]] = nothing_foreseen
    example_task: str = ""
    numbers: str = "real"
    plain_numbers: tuple[str, str] | tuple[()] = ()
    innocent: tuple[tuple[str, str], ...] = ()

    @property
    def task(self) -> str:
        """The task of the examples."""
        if "=" in self.examples[0][0]:
            return "solve"
        return self.example_task or min(self.tasks - {"solve"}, default="simplify")


def sides(body: n.Node) -> tuple[n.Node, n.Node] | None:
    """The two sides of an equation, or None."""
    if isinstance(body, ln.Equation) and len(body.sides) == 2:
        return body.sides[0], body.sides[1]
    return None
