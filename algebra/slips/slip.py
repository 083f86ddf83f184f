"""What a slip is: a wrong rewriting that students make again and again, with all that is known of it in one record."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator
from dataclasses import dataclass
from typing import Literal

from algebra.exact.generators import Plan
from algebra.reports.report import SlipKind
from algebra.slips.words import Words
from algebra.tree import nodes as n
from algebra.tree import statements as ln

Wrong = tuple[n.Node, Words]
"""What is written in place of the part, and what was done, in words."""
Scope = Literal["part", "equation", "any", "seen"]
LIKELY_BY_KIND: dict[SlipKind, float] = {"concept": 3.0, "procedure": 2.4, "notation": 2.0, "care": 1.0}
"""How likely a slip is of which nothing else is known: a judgement, to be edited as one learns more; there are no data
yet."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Sight:
    """One line that does not hold, and what there is to see of it.

    `before` is the chain's line above; `chain` are all lines above, the given first; `lost` and `expected` are
    solutions as the report writes them.
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
        """The first letter of the given; x where it has none."""
        found = n.letters(self.given) - ({"i"} if self.plan.imaginary else set())
        return min(found, default="x")


@dataclass(frozen=True, slots=True, kw_only=True)
class Ending:
    """How a right working ends: the values of the answer (all reals but these where `everything`), the candidates
    rejected."""

    task: str
    given: n.Node
    unknown: str
    answer: tuple[n.Node, ...]
    everything: bool
    rejected: tuple[n.Node, ...]


def nothing_written(_: n.Node) -> Iterable[Wrong]:
    """Of a slip that no rewriting makes."""
    return ()


def nothing_seen(_: Sight) -> Iterable[Words]:
    """Of a slip that a rewriting makes."""
    return ()


def nothing_foreseen(_: Ending) -> Iterable[Wrong]:
    """Of a slip that does not show in the answer only."""
    return ()


@dataclass(frozen=True, slots=True, kw_only=True)
class Slip:
    """One student error. `wrong` gives what may be written in place of a part (or of a whole equation, by `scope`).

    `done` says in a sentence what was probably done, {what} being the words with the actual terms; `why` says why it
    fails, `cue` what prevents it. Each example is a line before and the line a student writes; with more than two, the
    first is the given. `innocent` are lines that look alike and are right. A slip that no rewriting makes is `seen`: in
    a check, a statement, a table of features. `foreseen` gives the wrong answers that a right working ends in.

    `lurks_in` names the rules at whose steps it is made; `likely` is how likely it is, else that of its kind; where
    several slips explain a line, those of a lower `rank` come first, and within a rank the order of the topics decides.

    `claim` is what it takes for a law, of letters. `of_factors`: it is made as well once each factor of a product is
    set to 0; `leaves_a_term`: a term stays as it was, and is what has to change; `against_rank`: an operation is done
    before its turn; `miscopied`: something is read or written wrongly, and nothing is done; `of_verdict`: an answer
    with this verdict has it.
    """

    id: str
    name: str
    kind: SlipKind
    topic: str
    done: str
    why: str
    cue: str
    examples: tuple[tuple[str, ...], ...]
    innocent: tuple[tuple[str, ...], ...] = ()
    wrong: Callable[[n.Node], Iterable[Wrong]] = nothing_written
    scope: Scope = "part"
    tasks: frozenset[str] = frozenset()
    seen: Callable[[Sight], Iterable[Words]] = nothing_seen
    foreseen: Callable[[Ending], Iterable[Wrong]] = nothing_foreseen
    example_task: str = ""
    numbers: str = "real"
    lurks_in: tuple[str, ...] = ()
    likely: float = 0.0
    rank: int = 100
    claim: str = ""
    of_factors: bool = False
    leaves_a_term: bool = False
    against_rank: bool = False
    miscopied: bool = False
    of_verdict: str = ""

    @property
    def task(self) -> str:
        """The task of the examples."""
        if "=" in self.examples[0][0]:
            return "solve"
        return self.example_task or min(self.tasks - {"solve"}, default="simplify")

    def said(self, what: Words) -> str:
        """What was done, as a sentence; with a capital letter in front unless it starts with a part of the line."""
        text, start = self.done.format(what=what), what.template
        opens_with_a_word = start[:1].isalpha() and (start[1:2].isalpha() or start[1:2] == " ")
        return text[:1].upper() + text[1:] if opens_with_a_word else text

    @property
    def likelihood(self) -> float:
        """How likely it is, against the others."""
        return self.likely or LIKELY_BY_KIND[self.kind]


def sides(body: n.Node) -> tuple[n.Node, n.Node] | None:
    """The two sides of an equation, or None."""
    if isinstance(body, ln.Equation) and len(body.sides) == 2:
        return body.sides[0], body.sides[1]
    return None


def both_ways(body: n.Node) -> Iterator[tuple[n.Node, n.Node]]:
    """The two sides of an equation, as (own, other), each in turn being the own one."""
    pair = sides(body)
    if pair:
        yield pair
        yield pair[1], pair[0]
