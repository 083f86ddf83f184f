"""A pasted key, proof-read."""

from __future__ import annotations

from typing import Literal

from algebra.records import record
from algebra.reports.report import LineError, Report
from algebra.reports.working import FORMAT


@record(frozen=True)
class Finding:
    """Something to be looked at: the line (0 is the given, None the whole), what kind, a sentence, the line that would
    be right.

    `place` is the line of the text (from 1) where it stands, None for what concerns the whole.
    """

    line: int | None
    kind: str
    text: str
    instead: str = ""
    place: int | None = None


@record(frozen=True)
class KeyProblemReport:
    """One problem of a key: where it starts in the text and where its lines stand, its working, what was found, its
    report."""

    label: str
    at: int
    places: tuple[int, ...]
    task: str
    given: str
    lines: tuple[str, ...]
    variable: str | None
    method: str | None
    numbers: str
    findings: tuple[Finding, ...]
    report: Report


@record(frozen=True)
class PassedOver:
    """A line of the text that is no mathematics."""

    line: int
    text: str


@record(frozen=True)
class ProofsReport:
    """A whole key, problem by problem, and the lines that were passed over."""

    problems: tuple[KeyProblemReport, ...]
    skipped: tuple[PassedOver, ...]
    error: LineError | None = None
    format: Literal[1] = FORMAT
