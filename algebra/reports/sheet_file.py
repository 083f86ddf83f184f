"""A sheet as it goes out and comes back: its title, its problems with their workings, what the class does not know
yet."""

from __future__ import annotations

from dataclasses import field
from typing import Literal

from algebra.records import record
from algebra.reports.working import FORMAT, Working


@record(frozen=True)
class SheetProblem(Working):
    """A problem on a sheet: the words over it where they are not the usual ones, and the form in which it stands on
    paper."""

    instruction: str = ""
    form: str = "work"


@record(frozen=True)
class SheetFile:
    """A sheet; the conventions of each problem are those of the sheet."""

    title: str
    problems: tuple[SheetProblem, ...]
    untaught: tuple[str, ...] = field(default=())
    format: Literal[1] = FORMAT


@record(frozen=True)
class NotTaken:
    """What could not be taken of a file: where it stands (a number of a problem, or of a row) and why."""

    place: int
    text: str
    why: str
