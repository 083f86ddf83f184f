"""The facade of the core: the only thing the server and the command line import.

The core knows no Django, does no input or output and keeps no clock but the one it times itself with.
"""

from __future__ import annotations

from algebra import limits
from algebra.model import CONVENTIONS, FORMAT, RELATIONS, TASKS, Report, TaskError, Working
from algebra.parse.errors import ReadingError
from algebra.textform import read_workings
from algebra.typeset import Echo, echo
from algebra.verify.chain import check, clear_caches, decide

VERSION = "2"
"""Raised when a verdict may come out differently, so that stored verdicts are made again."""

__all__ = [
    "CONVENTIONS", "FORMAT", "RELATIONS", "TASKS", "VERSION", "Echo", "ReadingError", "Report", "TaskError", "Working",
    "check", "clear_caches", "decide", "echo", "limits", "read_workings",
]  # fmt: skip
