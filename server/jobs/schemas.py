"""What is told of work that takes longer than an answer may."""

from __future__ import annotations

from ninja import Schema


class RunOut(Schema):
    """How far a run is, and the sentences why some of it came to nothing."""

    id: int
    kind: str
    title: str
    total: int
    done: int
    ended: bool
    trouble: list[str]


class RunsOut(Schema):
    """A person's runs that are under way, the last first."""

    runs: list[RunOut]
