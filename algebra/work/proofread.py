"""Proof-reading a key: what does not hold in each of its problems, in sentences that name the line."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, replace
from typing import Any

from algebra.keytext import Key, KeyProblem, read_key
from algebra.model import FORMAT, Link, Report, Working, plain_record
from algebra.parse.lines import read_line
from algebra.tree import nodes as n
from algebra.work.named import check_with_method


@dataclass(frozen=True, slots=True)
class Finding:
    """Something to be looked at: the line (0 is the given, None the whole), what kind, a sentence, the line that would be right."""

    line: int | None
    kind: str
    text: str
    instead: str = ""


@dataclass(frozen=True, slots=True)
class Proof:
    """One problem of a key, its report, and what was found; nothing when all holds."""

    problem: KeyProblem
    report: Report
    findings: tuple[Finding, ...]

    def to_json(self) -> dict[str, Any]:
        working = self.problem.working
        return {
            "label": self.problem.label, "at": self.problem.at, "places": list(self.problem.places), "task": working.task, "given": working.given, "lines": list(working.lines),
            "variable": working.variable, "method": working.method, "numbers": working.numbers,
            "findings": [plain_record(f) for f in self.findings], "report": self.report.to_json(),
        }  # fmt: skip


@dataclass(frozen=True, slots=True)
class Proofs:
    """A whole key proof-read."""

    key: Key
    proofs: tuple[Proof, ...]

    @property
    def sound(self) -> bool:
        return not any(proof.findings for proof in self.proofs)

    def to_json(self) -> dict[str, Any]:
        return {
            "format": FORMAT, "problems": [proof.to_json() for proof in self.proofs],
            "skipped": [{"line": number, "text": text} for number, text in self.key.skipped], "error": None,
        }  # fmt: skip


def proofread(text: str, conventions: dict[str, str] | None = None) -> Proofs:
    """Takes a pasted key in and verifies every line and every check of it. Raises TaskError where it can't be taken in."""
    Working("simplify", "x", (), conventions=conventions or {}).validate()
    key = read_key(text)
    found = []
    for problem in key.problems:
        working = problem.working
        if conventions:
            working = _with(working, conventions)
        report = check_with_method(working)
        found.append(Proof(problem, report, tuple(findings(working, report))))
    return Proofs(key, tuple(found))


def _with(working: Working, conventions: dict[str, str]) -> Working:
    """The working under these conventions, as far as its own text sets no others."""
    return replace(working, conventions=conventions | working.conventions)


def findings(working: Working, report: Report) -> Iterator[Finding]:
    """What does not hold, line by line, then the answer and what is left."""
    if report.error is not None and report.error.line == 0:
        yield Finding(0, "unread", f"The given can't be taken: {report.error.message}")
        return
    for link in report.links:
        yield from _of_link(link, working)
    answer = report.answer
    if not working.lines:
        yield Finding(None, "empty", "There is no working under it.")
    elif answer.verdict != "correct":
        told = answer.verdict == "wrong" or (answer.expected and answer.verdict in ("incomplete", "none"))
        yield Finding(None, answer.verdict, answer.text + (_expected(working, answer.expected) if told else ""))
    for item in report.remaining:
        if answer.verdict == "correct":
            yield Finding(None, "unfinished", item.text)
    for owed in report.owed:
        if not any(item.code == "candidates-unchecked" for item in report.remaining):
            yield Finding(None, "owed", f"{owed.value} is still to be checked: {owed.because}.")


def _expected(working: Working, expected: list[str]) -> str:
    if working.task == "factor" and check_with_method(replace(working, lines=("prime",))).sound:
        return " It does not factor: it is prime."
    if not expected:
        return {"domain": " It should be all real numbers.", "solve": " There is no solution."}.get(working.task, "")
    if working.task == "domain" and not any("∞" in item or "[" in item for item in expected):
        body = read_line(working.given, decimal=working.conventions.get("decimal", "point")).body
        letter = working.variable or (min(n.letters(body), default="x") if body is not None else "x")
        return f" It should be {letter} ≠ {', '.join(expected)}."
    if expected[0] == "all":
        left_out = [item.removeprefix("≠ ") for item in expected[1:]]
        return " It should be all real numbers" + (f" except {', '.join(left_out)}." if left_out else ".")
    return f" It should be {' or '.join(expected)}."


def _of_link(link: Link, working: Working) -> Iterator[Finding]:
    text = working.lines[link.line - 1]
    if link.error is not None:
        yield Finding(link.line, "unread", f"“{text}”: {link.error.message}")
    elif link.relation in ("breaks", "narrows", "unclear"):
        said = f"{link.slip.done} " if link.slip else ""
        shown = (
            link.evidence.text if link.evidence else "It could not be decided." if link.relation == "unclear" else ""
        )
        what = {"check": "The check does not hold", "exclusion": "These are not the excluded values"}.get(link.kind)
        what = (
            what
            or {"breaks": "It does not follow", "narrows": "A solution is lost", "unclear": "Not decided"}[
                link.relation
            ]
        )
        yield Finding(
            link.line, link.relation, f"“{text}”: {what}. {said}{shown}".strip(), link.slip.instead if link.slip else ""
        )
    elif link.move is not None and link.move.as_stated is False:
        yield Finding(link.line, "move", f"“{text}”: the move stated ({link.move.stated}) is not what was done.")
