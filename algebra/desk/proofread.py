"""Proof-reading a key: what does not hold in each of its problems, in sentences that name the line."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace

from algebra.derive.check import check
from algebra.formats.pasted_key import Key, KeyProblem, read_key
from algebra.parse.lines import read_line
from algebra.reports.proofs import Finding, KeyProblemReport, PassedOver, ProofsReport
from algebra.reports.report import Link, Report
from algebra.reports.working import Working
from algebra.tree import nodes as n


@dataclass(frozen=True, slots=True)
class Proof:
    """One problem of a key, its report, and what was found; nothing when all holds."""

    problem: KeyProblem
    report: Report
    findings: tuple[Finding, ...]

    def out(self) -> KeyProblemReport:
        """The problem as it is given out."""
        working, problem = self.problem.working, self.problem
        return KeyProblemReport(
            label=problem.label,
            at=problem.at,
            places=tuple(problem.places),
            task=working.task,
            given=working.given,
            lines=working.lines,
            variable=working.variable,
            method=working.method,
            numbers=working.numbers,
            findings=self.findings,
            report=self.report,
        )


@dataclass(frozen=True, slots=True)
class Proofs:
    """A whole key proof-read."""

    key: Key
    proofs: tuple[Proof, ...]

    @property
    def sound(self) -> bool:
        """Whether everything in the key holds and is finished."""
        return not any(proof.findings for proof in self.proofs)

    def out(self) -> ProofsReport:
        """The key as it is given out."""
        passed_over = sorted([*self.key.skipped, *self.not_understood])
        return ProofsReport(tuple(proof.out() for proof in self.proofs), tuple(PassedOver(*row) for row in passed_over))

    @property
    def not_understood(self) -> list[tuple[int, str]]:
        """The lines of workings that can't be read, each with its place: they are shown apart from what is wrong."""
        return [
            (proof.problem.place_of(link.line), proof.problem.working.lines[link.line - 1])
            for proof in self.proofs
            for link in proof.report.links
            if link.error is not None
        ]


def proofread(text: str, conventions: dict[str, str] | None = None) -> Proofs:
    """Takes a pasted key in and verifies every line and every check of it. Raises TaskError where it can't be taken
    in."""
    key = key_apart(text, conventions)
    return Proofs(key, tuple(map(proof_of, key.problems, repeats_in(key))))


def key_apart(text: str, conventions: dict[str, str] | None = None) -> Key:
    """A pasted key taken apart, its problems under these conventions. Raises TaskError where it can't be taken in."""
    Working("simplify", "x", (), conventions=conventions or {}).validate()
    key = read_key(text, (conventions or {}).get("decimal", "point"))
    if not conventions:
        return key
    return replace(key, problems=tuple(replace(one, working=_with(one.working, conventions)) for one in key.problems))


def repeats_in(key: Key) -> list[str]:
    """For each problem of a key the label of an earlier one that is the same; empty where there is none."""
    first: dict[tuple[str, str], str] = {}
    found = []
    for problem in key.problems:
        working = problem.working
        before = first.setdefault((working.task, "".join(working.given.split())), problem.label)
        found.append(before if before != problem.label else "")
    return found


def proof_of(problem: KeyProblem, repeats: str = "") -> Proof:
    """One problem of a key proof-read; `repeats` is the label of an earlier one that is the same."""
    report = check(problem.working)
    told = list(findings(problem.working, report))
    if repeats:
        told.append(Finding(None, "repeated", f"The same problem stands as number {repeats}."))
    return Proof(problem, report, tuple(_placed(problem, item) for item in told))


def _placed(problem: KeyProblem, finding: Finding) -> Finding:
    """The finding with the line of the text where it stands."""
    if finding.line is None:
        return finding
    return replace(finding, place=problem.place_of(finding.line) if finding.line else problem.at)


def _with(working: Working, conventions: dict[str, str]) -> Working:
    """The working under these conventions, as far as its own text sets no others."""
    return replace(working, conventions={**conventions, **working.conventions})


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
    for item in report.finish.remaining:
        if answer.verdict == "correct":
            yield Finding(None, "unfinished", item.text)
    for owed in report.owed:
        if not any(item.code == "candidates-unchecked" for item in report.finish.remaining):
            yield Finding(None, "owed", f"{owed.value} is still to be checked: {owed.because}.")


def _expected(working: Working, expected: Sequence[str]) -> str:
    if working.task == "factor" and check(replace(working, lines=("prime",))).sound:
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
        return  # shown apart, as not understood
    if link.relation in ("breaks", "narrows", "unclear"):
        said = f"{link.slip.done} " if link.slip else ""
        shown = link.evidence.text if link.evidence else ""
        if link.relation == "unclear":
            what = "Nothing here says whether it is right" if link.kind == "aside" else "It could not be decided"
        else:
            by_kind = {"check": "The check does not hold", "exclusion": "These are not the excluded values"}
            by_relation = {"breaks": "It does not follow", "narrows": "A solution is lost"}
            what = by_kind.get(link.kind) or by_relation[link.relation]
        yield Finding(
            link.line, link.relation, f"“{text}”: {what}. {said}{shown}".strip(), link.slip.instead if link.slip else ""
        )
    elif link.move is not None and link.move.as_stated is False:
        yield Finding(link.line, "move", f"“{text}”: the move stated ({link.move.stated}) is not what was done.")
