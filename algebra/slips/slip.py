"""What a slip is: a wrong rewriting that students make again and again, with its words, its cue and its examples."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from dataclasses import dataclass
from typing import Literal

from algebra.tree import lines as ln
from algebra.tree import nodes as n

Kind = Literal["concept", "procedure", "notation", "care"]
Wrong = tuple[str, str]
"""What is written in place of the part, in the plain notation, and what fills {what} in the words."""
Scope = Literal["part", "equation"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Slip:
    """One student error. `wrong` gives what may be written in place of a part (or of a whole equation, by `scope`).

    `done` says in a sentence what was probably done, {what} being the actual terms; `why` says why it fails, `cue` what
    prevents it. Each example is a line before and the line a student writes.
    """

    id: str
    name: str
    kind: Kind
    topic: str
    done: str
    why: str
    cue: str
    examples: tuple[tuple[str, str], ...]
    wrong: Callable[[n.Node], Iterable[Wrong]]
    scope: Scope = "part"
    tasks: frozenset[str] = frozenset()


def sides(body: n.Node) -> tuple[n.Node, n.Node] | None:
    """The two sides of an equation, or None."""
    if isinstance(body, ln.Equation) and len(body.sides) == 2:
        return body.sides[0], body.sides[1]
    return None
