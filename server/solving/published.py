"""The published shape of what the headless commands print with --json (format 1). Fields are added, never renamed."""

from __future__ import annotations

from typing import Any, Literal

from ninja import Schema

from server.checking.schemas import ErrorOut, EvidenceOut, ReportOut


class DifficultyFile(Schema):
    rating: float | None
    parts: dict[str, float]
    noticed: list[str] = []


class MarkFile(Schema):
    kind: str
    before: str | None
    after: str | None
    group: int


class StepFile(Schema):
    """One line: `after` follows from `before` by the rule; `move` is what was done to both sides."""

    before: str
    after: str
    kind: str
    move: str | None
    rule: str
    name: str
    reason: str
    side_work: list[dict[str, Any]]
    slips: list[str]
    excluded: list[str]
    marks: list[MarkFile]
    before_latex: str | None = None
    after_latex: str | None = None


class SolutionFile(Schema):
    """A worked solution. Every expression is in the plain notation and can be fed back in."""

    format: Literal[1]
    id: str | int | None
    family: str
    method: str
    answer: list[str]
    steps: list[StepFile]
    difficulty: DifficultyFile
    not_yet: list[str]
    error: ErrorOut | None


class AnalysisFile(Schema):
    """Limits are numbers in the plain notation, `inf` or `-inf`."""

    format: Literal[1]
    excluded: list[str]
    holes: list[list[str]]
    vertical_asymptotes: list[str]
    horizontal_asymptote: str | None
    oblique_asymptote: str | None
    x_intercepts: list[str]
    y_intercept: str | None
    end_behaviour: dict[str, str]
    range: str | None
    grid_points: list[list[str]]
    error: ErrorOut | None


class WrongFile(Schema):
    """A wrong answer, the whole wrong working, and the line of it at which it parts from the right one."""

    answer: str
    slips: list[str]
    at_line: int
    done: str
    lines: list[str]
    refutation: EvidenceOut | None
    weight: float
    roads: int


class UnfinishedFile(Schema):
    answer: str
    missing: str


class PredictionFile(Schema):
    format: Literal[1]
    answer: list[str]
    wrong: list[WrongFile]
    unfinished: list[UnfinishedFile]
    error: ErrorOut | None


class FindingFile(Schema):
    line: int | None
    kind: str
    text: str
    instead: str


class KeyProblemFile(Schema):
    """One problem of a key: where it starts in the text and where its lines stand, its working, what was found, its report."""

    label: str
    at: int
    places: list[int]
    task: str
    given: str
    lines: list[str]
    variable: str | None
    method: str | None
    numbers: str
    findings: list[FindingFile]
    report: ReportOut


class SkippedFile(Schema):
    line: int
    text: str


class ProofsFile(Schema):
    format: Literal[1]
    problems: list[KeyProblemFile]
    skipped: list[SkippedFile]
    error: ErrorOut | None
