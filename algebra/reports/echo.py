"""A written line as the core understands it."""

from __future__ import annotations

from algebra.records import record
from algebra.reports.report import LineError


@record(frozen=True)
class Echo:
    """LaTeX left of the first relation sign and from it on, the move, the remark, and the reading in plain notation.

    Of a line that can't be read, the error with its column and nothing else.
    """

    kind: str = ""
    left: str = ""
    right: str = ""
    plain: str = ""
    prefix: str = ""
    move: str = ""
    remark: str = ""
    notes: tuple[str, ...] = ()
    error: LineError | None = None

    @property
    def latex(self) -> str:
        """The line as one piece; empty where it can't be read."""
        return f"{self.left} {self.right}".strip()
