"""A working that is not stored, as `./uchuu check --jsonl` reads it, and a line as it is typed."""

from __future__ import annotations

from typing import Annotated, Literal

from ninja import Field, Schema

from algebra import Working, limits


class WorkingIn(Schema):
    """A working. `conventions` holds only what differs from the defaults; `method` is the one that the task names."""

    id: str | int | None = None
    task: str = Field(max_length=20)
    given: str = Field(max_length=limits.MAX_LINE_CHARACTERS)
    variable: str | None = Field(None, max_length=40)
    numbers: str = Field("real", max_length=10)
    conventions: dict[str, str] = {}
    lines: list[str] = Field(default_factory=list, max_length=limits.MAX_LINES)
    assume: list[str] = Field(default_factory=list, max_length=20)
    method: str | None = Field(None, max_length=40)
    format: Literal[1] = 1

    def working(self) -> Working:
        """The working as the core takes it."""
        return Working(
            task=self.task,
            given=self.given,
            lines=tuple(self.lines),
            variable=self.variable,
            numbers=self.numbers,
            conventions=self.conventions,
            assume=tuple(self.assume),
            id=self.id,
            method=self.method,
        )


class EchoIn(Schema):
    text: str = Field(max_length=limits.MAX_LINE_CHARACTERS)
    decimal: Literal["point", "comma"] = "point"


class TypesetIn(Schema):
    """Texts in the plain notation."""

    texts: list[Annotated[str, Field(max_length=limits.MAX_LINE_CHARACTERS)]] = Field(max_length=100)


class TypesetOut(Schema):
    """The LaTeX of each, empty where a text is no mathematics."""

    latex: list[str]
