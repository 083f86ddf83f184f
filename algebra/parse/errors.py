"""What can go wrong while reading.

ReadingError            code, message in a teacher's words, column counted from 1
"""

from __future__ import annotations

from typing import Literal

ReadingErrorCode = Literal["syntax", "scope", "limit"]


class ReadingError(ValueError):
    """A line that can't be read. `code` is `syntax`, `scope` or `limit`."""

    def __init__(self, message: str, column: int, code: ReadingErrorCode = "syntax") -> None:
        super().__init__(message)
        self.message = message
        self.column = column
        self.code = code
