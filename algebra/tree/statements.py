"""What can stand on a line: statements over expressions, and the line with its trimmings."""

from __future__ import annotations

from dataclasses import field
from typing import ClassVar

from algebra.records import record
from algebra.tree.nodes import Node
from algebra.tree.vocabulary import LineKind, Note


@record(frozen=True)
class Equation(Node):
    """`A = B`, or a chain `A = B = C`."""

    sides: tuple[Node, ...]
    parts: ClassVar[tuple[str, ...]] = ("sides",)

    @property
    def children(self) -> tuple[Node, ...]:
        return self.sides


@record(frozen=True)
class Comparison(Node):
    """`A ≠ B`, `A ≈ B`, `A ≥ B`, `A ≤ B`, `A > B`, `A < B`."""

    left: Node
    operator: str
    right: Node
    parts: ClassVar[tuple[str, ...]] = ("left", "right")


@record(frozen=True)
class Alternatives(Node):
    """Statements joined by `or`."""

    items: tuple[Node, ...]
    parts: ClassVar[tuple[str, ...]] = ("items",)


@record(frozen=True)
class AllOf(Node):
    """Statements that all hold, joined by `and` or a comma: `x > 0 and y < 0`."""

    items: tuple[Node, ...]
    parts: ClassVar[tuple[str, ...]] = ("items",)


@record(frozen=True)
class ValueList(Node):
    """`x = 3, -2`, or `x ≠ 0, 4` with the operator `≠`."""

    left: Node
    items: tuple[Node, ...]
    operator: str = "="
    parts: ClassVar[tuple[str, ...]] = ("left", "items")


@record(frozen=True)
class SetOf(Node):
    """`{3, -2}`."""

    items: tuple[Node, ...]
    parts: ClassVar[tuple[str, ...]] = ("items",)


@record(frozen=True)
class NoSolution(Node):
    """`no solution`, or ∅ where it was written with the sign."""

    sign: bool = False


@record(frozen=True)
class AllReals(Node):
    """`all real numbers`, with the exceptions named; ℝ where it was written with the sign."""

    exceptions: tuple[Node, ...] = ()
    sign: bool = False
    parts: ClassVar[tuple[str, ...]] = ("exceptions",)


@record(frozen=True)
class Word(Node):
    """A claim in one word: `prime`, `undefined`."""

    word: str


@record(frozen=True)
class Claim(Node):
    """`LCD = t(t-5)`, `GCF = 4x`, `LCM(6, 8) = 24`: a name of the trade with what it is said to be; `of` may be left
    out."""

    name: str
    of: tuple[Node, ...]
    value: Node
    parts: ClassVar[tuple[str, ...]] = ("of", "value")


@record(frozen=True)
class Between(Node):
    """`2 ≤ x < 5`."""

    low: Node
    low_operator: str
    middle: Node
    high_operator: str
    high: Node
    parts: ClassVar[tuple[str, ...]] = ("low", "middle", "high")


@record(frozen=True)
class Infinity(Node):
    """∞ or -∞ at the end of an interval at which it can't stand: `(3, -∞)`."""

    sign: str = ""


@record(frozen=True)
class Interval(Node):
    """`[3, ∞)`; an end that is None stands for infinity: -∞ as the low end, ∞ as the high one."""

    low: Node | None
    high: Node | None
    low_closed: bool = False
    high_closed: bool = False
    parts: ClassVar[tuple[str, ...]] = ("low", "high")


@record(frozen=True)
class Union(Node):
    """Intervals and sets joined by `∪`."""

    items: tuple[Node, ...]
    parts: ClassVar[tuple[str, ...]] = ("items",)


@record(frozen=True)
class Point(Node):
    """`(3, 5/6)`."""

    across: Node
    up: Node
    parts: ClassVar[tuple[str, ...]] = ("across", "up")


@record(frozen=True)
class End(Node):
    """`x → -∞, y → 2`: `side` is + or -; `value` is None where y grows past all bounds, then `growth` is + or -."""

    side: str
    value: Node | None
    growth: str = ""
    parts: ClassVar[tuple[str, ...]] = ("value",)


@record(frozen=True)
class Feature(Node):
    """A named feature of a function: `hole: (3, 5/6)`, `vertical asymptotes: x = -3, 2`, `x-intercepts: none`.

    `name` is the singular; `plural` says that all of them are meant. `label` is the name as written.
    """

    name: str
    items: tuple[Node, ...]
    plural: bool
    label: str
    parts: ClassVar[tuple[str, ...]] = ("items",)


STATEMENTS = (
    Equation,
    Comparison,
    Alternatives,
    AllOf,
    ValueList,
    SetOf,
    NoSolution,
    AllReals,
    Word,
    Claim,
    Between,
    Interval,
    Union,
    Feature,
)


@record(frozen=True)
class Move:
    """What the writer says was done: `| +5`, `| square`. `operand` is None for `square`, `root`, `swap`."""

    name: str
    text: str
    operand: Node | None = None


@record(frozen=True)
class Line:
    """One line as read.

    `body` is the expression or statement (of a check: what stands after the colon, or None);
    `subject` is the checked `x = 6` or the defined `u = x^2`; `restriction` an exclusion at the end of the line.
    `dropped` are candidates that are thrown out in words; where nothing else stands there, `body` is None.
    `as_answer`: the line is called the answer.
    """

    text: str
    kind: LineKind
    body: Node | None
    subject: Node | None = None
    lead: str = ""
    remark: str = ""
    move: Move | None = None
    notes: tuple[Note, ...] = field(default=())
    restriction: Node | None = None
    dropped: tuple[Node, ...] = ()
    as_answer: bool = False
