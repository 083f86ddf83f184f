"""What goes in: a problem and the lines written under it, with the conventions in force."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import field
from typing import Literal, get_args

from algebra.records import record

FORMAT: Literal[1] = 1
"""The version of every JSON shape."""

Task = Literal["evaluate", "simplify", "factor", "expand", "solve", "domain", "analyze"]
TASKS: tuple[Task, ...] = get_args(Task)
OTHER_SPELLINGS: dict[str, Task] = {"analyse": "analyze"}
EXPRESSION_TASKS = frozenset({"evaluate", "simplify", "factor", "expand"})
Numbers = Literal["real", "complex"]
NUMBERS: tuple[Numbers, ...] = get_args(Numbers)

CONVENTIONS: dict[str, tuple[str, ...]] = {
    "decimal": ("point", "comma"),
    "fractions": ("improper", "mixed"),
    "root_denominators": ("clear", "allow"),
    "powers": ("evaluate", "leave"),
    "solutions": ("listed", "plus-minus"),
    "roots_of_letters": ("any-real", "non-negative"),
    "checks_after_squaring": ("always", "when-gained", "never"),
    "restrictions": ("optional", "required"),
    "product": ("dot", "cross"),
    "moves": ("below", "margin", "carried"),
    "order_name": ("PEMDAS", "BODMAS", "BIDMAS", "GEMDAS"),
}
"""Every convention with its positions, the default first. The API's types and the front end's list are made from
this."""


class TaskError(ValueError):
    """The working as a whole can't be taken: an unknown task, convention or number system."""

    code: Literal["task", "limit", "busy"] = "task"

    def __init__(self, message: str) -> None:
        super().__init__(message)
        self.message = message


@record(frozen=True)
class Working:
    """A problem and the lines written under it, as typed.

    `conventions` holds only what differs from the defaults; `method` is the one that the task names, where it does.
    """

    task: str
    given: str
    lines: tuple[str, ...] = ()
    variable: str | None = None
    numbers: str = "real"
    conventions: Mapping[str, str] = field(default_factory=dict)
    assume: tuple[str, ...] = ()
    id: str | int | None = None
    method: str | None = None

    def __post_init__(self) -> None:
        # a task has one name from here on; records are only by the type checker not to be assigned to
        object.__setattr__(self, "task", OTHER_SPELLINGS.get(self.task, self.task))

    def validate(self) -> None:
        """Raises TaskError naming the first thing that is unknown."""
        if self.task not in TASKS:
            raise TaskError(f"Unknown task “{self.task}”; it is one of {', '.join(TASKS)}.")
        if self.numbers not in NUMBERS:
            raise TaskError(f"Unknown numbers “{self.numbers}”: real or complex.")
        for key, value in self.conventions.items():
            if key not in CONVENTIONS:
                raise TaskError(f"Unknown convention “{key}”; known are {', '.join(CONVENTIONS)}.")
            if value not in CONVENTIONS[key]:
                raise TaskError(f"The convention {key} is one of {', '.join(CONVENTIONS[key])}, not “{value}”.")

    def convention(self, key: str) -> str:
        """The position in force."""
        return self.conventions.get(key, CONVENTIONS[key][0])
