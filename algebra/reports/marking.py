"""Mark schemes, and what is proposed by them. A proposal is never a mark: a teacher confirms it, or gives another."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import field
from typing import Literal, get_args

from algebra.records import record
from algebra.reports.working import FORMAT

SchemeKind = Literal["answer", "steps", "points", "levels"]
SCHEME_KINDS: tuple[SchemeKind, ...] = get_args(SchemeKind)
PointKind = Literal["method", "accuracy", "check", "form", "excluded", "answer", "step", "level"]
POINT_KINDS: tuple[PointKind, ...] = get_args(PointKind)
Keeps = Literal["keeps", "loses"]
Alone = Literal["all", "accuracy", "none"]
Rounding = Literal["half", "whole"]
ROUNDING_STEPS: Mapping[Rounding, float] = {"half": 0.5, "whole": 1.0}
"""To which marks a proposal is rounded."""
Eye = Literal["unread", "undecided", "owed", "lucky", "broken-right", "answer-alone", "unknown-slip"]
"""Why a teacher should look before confirming."""


@record(frozen=True)
class Scheme:
    """How an item is marked. `total` is what it is worth; `points` are the points of a scheme of points, in their
    order.

    Settings: whether a line that is right by luck keeps its accuracy, what a right answer without working earns,
    whether a right answer at the end of a broken working keeps its accuracy, and to what marks are rounded.
    """

    kind: SchemeKind = "points"
    total: float = 3
    points: tuple[PointKind, ...] = ()
    lucky: Keeps = "loses"
    answer_alone: Alone = "accuracy"
    broken_right: Keeps = "loses"
    rounding: Rounding = "half"


@record(frozen=True)
class ProposedPoint:
    """One point: what it is for, what it is worth, what is proposed, why, and the line that it is about."""

    kind: PointKind
    worth: float
    got: float
    why: str
    line: int | None = None


@record(frozen=True)
class Proposal:
    """What is proposed for a working: the mark with a reason for each point, and why an eye is needed.

    `alike` is the same for workings of an item that a teacher would decide in one: the same first broken line up to
    order or the same wrong answer by the same slip, and the same mark proposed.
    """

    mark: float
    total: float
    points: tuple[ProposedPoint, ...]
    eye: tuple[Eye, ...] = ()
    alike: str = ""
    slip: str = ""
    line: int | None = None
    format: Literal[1] = field(default=FORMAT)
