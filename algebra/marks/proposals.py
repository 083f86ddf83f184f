"""Marks proposed for a working: by a scheme, with a reason for each point. The teacher decides."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from functools import cached_property
from hashlib import sha256

from algebra.parse.errors import ReadingError
from algebra.parse.margin import without_move
from algebra.reports.marking import ROUNDING_STEPS, PointKind, Proposal, ProposedPoint, Scheme
from algebra.reports.marking import Eye as EyeReason
from algebra.reports.report import Link, Report
from algebra.reports.working import EXPRESSION_TASKS, TaskError, Working
from algebra.sets.likeness import likeness
from algebra.ways.solve import work
from algebra.ways.worth import key_lines_of

_CHAIN = frozenset({"expression", "equation", "statement"})
_LEGAL = frozenset({"holds", "widens", "settles"})
_CARE = frozenset({"care", "notation"})
"""Slips that cost accuracy and leave the method: the step was the right one, done with a wrong sign or number."""
_NO_MATTER_OF_MARKS = frozenset({"candidates-unchecked", "solutions-not-listed"})
"""What a desk asks to be finished and a mark does not: checks have a point of their own, and x = 2 ± √11 is an
answer."""
LEVELS = (
    "nothing that leads to the answer",
    "a beginning, or a part of the answer",
    "some right steps, not to a right end",
    "the right way, with a slip of care or not quite finished",
    "right and finished",
)


def propose(working: Working, scheme: Scheme, report: Report) -> Proposal:
    """What a working earns by a scheme, its report given."""
    seen = _Seen(working, report)
    points = _POINTS[scheme.kind](seen, scheme)
    step = ROUNDING_STEPS[scheme.rounding]
    mark = min(scheme.total, max(0.0, sum(point.got for point in points)))
    mark = int(mark / step + 0.5 + 1e-9) * step
    first = seen.broken[0] if seen.broken else None
    slip = first.slip.id if first is not None and first.slip is not None else next(iter(report.answer.slips), "")
    proposal = Proposal(mark, scheme.total, tuple(points), tuple(seen.eye), "", slip, first.line if first else None)
    return replace(proposal, alike=_alike(seen, proposal))


@dataclass(frozen=True)
class _Seen:
    """A working as a marker sees it."""

    working: Working
    report: Report

    @cached_property
    def chain(self) -> list[Link]:
        """The links of the lines that lead to the answer; a line written twice is no step."""
        found: list[Link] = []
        before = self.working.given
        for link in self.report.links:
            text = without_move(self.working.lines[link.line - 1])
            if link.kind in _CHAIN and link.relation is not None:
                if "".join(text.split()) != "".join(before.split()):
                    found.append(link)
                before = text
        return found

    @cached_property
    def legal(self) -> list[Link]:
        return [link for link in self.chain if link.relation in _LEGAL]

    @cached_property
    def broken(self) -> list[Link]:
        return [link for link in self.chain if link.relation in ("breaks", "narrows")]

    @cached_property
    def lost(self) -> list[Link]:
        """Broken lines whose method is lost: no slip of care."""
        return [link for link in self.broken if not self.is_care(link)]

    def is_care(self, link: Link) -> bool:
        """Whether a broken line is the right step with a wrong sign or number."""
        return link.relation == "breaks" and link.slip is not None and link.slip.kind in _CARE

    @property
    def right(self) -> bool:
        """Whether the answer has the right value, finished or not."""
        verdict = self.report.answer.verdict
        return verdict == "correct" or (verdict == "unfinished" and self.working.task in EXPRESSION_TASKS)

    @property
    def finished(self) -> bool:
        """Whether nothing is left to do to the right answer, but checks."""
        left = [item for item in self.report.finish.remaining if item.code not in _NO_MATTER_OF_MARKS]
        return self.report.answer.verdict == "correct" and not left

    @property
    def reached(self) -> bool:
        """Whether there is an answer at the end: right and finished, or wrong."""
        return self.finished or self.report.answer.verdict in ("wrong", "incomplete", "extraneous")

    @cached_property
    def alone(self) -> bool:
        """Whether a right answer stands there without the steps that a key takes."""
        if not self.right or len(self.chain) > 1:
            return False
        try:
            return key_lines_of(work(replace(self.working, lines=()), method=self.working.method)) > 2
        except (TaskError, ReadingError):
            return False

    @property
    def lucky(self) -> bool:
        return any("lucky" in link.notes for link in self.report.links)

    @property
    def partly(self) -> bool:
        """Whether a part of the answer is right."""
        answer = self.report.answer
        return self.right or bool(set(answer.given) & set(answer.expected))

    @cached_property
    def eye(self) -> list[EyeReason]:
        found: list[EyeReason] = []
        links = self.report.links
        if self.report.error is not None or any(link.relation is None for link in links):
            found.append("unread")
        if any(link.relation == "unclear" for link in links):
            found.append("undecided")
        if self.lucky:
            found.append("lucky")
        if self.right and self.broken:
            found.append("broken-right")
        if self.alone:
            found.append("answer-alone")
        if self.right and self.report.owed:
            found.append("owed")
        if any(link.slip is None for link in self.broken):
            found.append("unknown-slip")
        return found

    def said(self, link: Link) -> str:
        """What is wrong with a line, in words."""
        if link.slip is not None:
            return link.slip.name[:1].lower() + link.slip.name[1:]
        return "a solution is lost" if link.relation == "narrows" else "it does not follow"


def _by_answer(seen: _Seen, scheme: Scheme) -> list[ProposedPoint]:
    total = scheme.total
    if seen.finished:
        got, why = total, "the answer is right"
        if seen.broken and scheme.broken_right == "loses":
            got, why = 0.0, f"the answer is right, but line {seen.broken[0].line} breaks: {seen.said(seen.broken[0])}"
        if seen.alone and scheme.answer_alone == "none":
            got, why = 0.0, "the answer is right, but there is no working"
    elif seen.right:
        got, why = total / 2, "the value is right, not finished"
    elif seen.partly and seen.report.answer.verdict in ("incomplete", "extraneous"):
        got, why = total / 2, "a part of the answer is right"
    else:
        got, why = 0.0, "the answer is wrong" if seen.reached else "there is no answer"
    return [ProposedPoint("answer", total, got, why, _last_line(seen))]


def _last_line(seen: _Seen) -> int | None:
    return seen.chain[-1].line if seen.chain else None


def _by_steps(seen: _Seen, scheme: Scheme) -> list[ProposedPoint]:
    total = max(1, int(scheme.total))
    if seen.working.task == "analyze":
        return _by_features(seen, total)
    if seen.finished and not seen.broken and not (seen.alone and scheme.answer_alone == "none"):
        return [ProposedPoint("step", 1, 1, "the answer is right and every line holds") for _ in range(total)]
    most = max(0, total - len(seen.broken)) if seen.reached else total
    counted = seen.legal[: min(most, total)]
    points = [ProposedPoint("step", 1, 1, f"line {link.line} holds", link.line) for link in counted]
    reasons = [f"line {link.line}: {seen.said(link)}" for link in seen.broken]
    rest = total - len(points)
    why = reasons or ["the working stops"] * rest
    return points + [
        ProposedPoint("step", 1, 0, why[min(k, len(why) - 1)], seen.broken[0].line if seen.broken else None)
        for k in range(rest)
    ]


def _by_features(seen: _Seen, total: int) -> list[ProposedPoint]:
    answer = seen.report.answer
    stated = [feature for feature in answer.given if feature in answer.expected][:total]
    points = [ProposedPoint("step", 1, 1, f"{feature} is right") for feature in stated]
    if seen.finished and not answer.extra:  # a domain may be stated by its excluded values
        points += [ProposedPoint("step", 1, 1, "all that was asked is stated")] * (total - len(points))
    wrong = [ProposedPoint("step", 1, 0, f"{feature} is wrong") for feature in answer.extra]
    missing = [ProposedPoint("step", 1, 0, f"{feature.partition(':')[0]} is missing") for feature in answer.missing]
    rest = [*wrong, *missing, *[ProposedPoint("step", 1, 0, "nothing is stated")] * total]
    return points + rest[: total - len(points)]


def _by_points(seen: _Seen, scheme: Scheme) -> list[ProposedPoint]:
    kinds = scheme.points or ("method", "accuracy")
    worth = scheme.total / len(kinds)
    methods = _methods(seen, scheme, kinds.count("method"), worth)
    found = []
    for kind in kinds:
        found.append(methods.pop(0) if kind == "method" else _ONE[kind](seen, scheme, worth, kinds))
    return found


def _methods(seen: _Seen, scheme: Scheme, count: int, worth: float) -> list[ProposedPoint]:
    if not seen.legal or (seen.alone and scheme.answer_alone != "all"):
        why = "there is an answer, no working" if seen.alone else "no step that leads on"
        if seen.lost and not seen.alone:
            why = f"line {seen.lost[0].line}: {seen.said(seen.lost[0])}"
        care = [link for link in seen.broken if seen.is_care(link)]
        earned = min(count, len(care))
        points = [
            ProposedPoint("method", worth, worth, f"line {link.line}: the step is right, {seen.said(link)}", link.line)
            for link in care[:earned]
        ]
        return points + [ProposedPoint("method", worth, 0, why) for _ in range(count - earned)]
    steps = [link for link in seen.chain if link.relation in _LEGAL or seen.is_care(link)]
    most = count if seen.reached or count == 1 else min(count - 1, len(steps))
    earned = max(0, most - len(seen.lost))
    points = []
    for k in range(earned):
        link = steps[min(k, len(steps) - 1)]
        after = any(broken.line < link.line for broken in seen.broken)
        words = (
            f"line {link.line}: the step is right, {seen.said(link)}"
            if seen.is_care(link)
            else f"line {link.line} holds"
        )
        points.append(
            ProposedPoint("method", worth, worth, words + (", after the error too" if after else ""), link.line)
        )
    reasons: list[tuple[str, int | None]] = [(f"line {link.line}: {seen.said(link)}", link.line) for link in seen.lost]
    reasons += [("the working stops here", _last_line(seen))] * (count - earned - len(reasons))
    return points + [ProposedPoint("method", worth, 0, why, line) for why, line in reasons[: count - earned]]


def _accuracy(seen: _Seen, scheme: Scheme, worth: float, kinds: Sequence[PointKind]) -> ProposedPoint:
    right = seen.finished or (seen.right and "form" in kinds)
    line = _last_line(seen)
    if right and seen.lucky and scheme.lucky == "loses":
        lucky = next(link.line for link in seen.report.links if "lucky" in link.notes)
        return ProposedPoint("accuracy", worth, 0, f"right by luck at line {lucky}", lucky)
    if right and seen.broken and scheme.broken_right == "loses":
        broken = seen.broken[0]
        return ProposedPoint("accuracy", worth, 0, f"right at the end, but line {broken.line} breaks", broken.line)
    if right and seen.alone and scheme.answer_alone == "none":
        return ProposedPoint("accuracy", worth, 0, "the answer is right, but there is no working", line)
    if right:
        return ProposedPoint("accuracy", worth, worth, "the answer is right", line)
    if seen.broken:
        first = seen.broken[0]
        rest = "; the rest follows through" if seen.report.answer.follow_through == "correct" else ""
        return ProposedPoint("accuracy", worth, 0, f"lost at line {first.line}: {seen.said(first)}{rest}", first.line)
    verdicts = {
        "unfinished": "not finished",
        "correct": "not finished",
        "extraneous": "a value that does not solve it is kept",
        "incomplete": "a part of the answer is missing",
        "none": "there is no answer",
    }
    return ProposedPoint("accuracy", worth, 0, verdicts.get(seen.report.answer.verdict, "the answer is wrong"), line)


def _check(seen: _Seen, scheme: Scheme, worth: float, kinds: Sequence[PointKind]) -> ProposedPoint:
    checks = [link for link in seen.report.links if link.kind == "check"]
    wrong = next((link for link in checks if link.relation != "holds"), None)
    if wrong is not None:
        return ProposedPoint("check", worth, 0, f"the check at line {wrong.line} does not hold", wrong.line)
    if checks and not seen.report.owed:
        return ProposedPoint("check", worth, worth, "checked", checks[-1].line)
    return ProposedPoint("check", worth, 0, "a check is missing" if checks else "nothing is checked")


def _form(seen: _Seen, scheme: Scheme, worth: float, kinds: Sequence[PointKind]) -> ProposedPoint:
    if seen.finished:
        return ProposedPoint("form", worth, worth, "finished", _last_line(seen))
    left = seen.report.finish.remaining
    why = left[0].text if seen.right and left else "there is no right answer to be finished"
    return ProposedPoint("form", worth, 0, why, _last_line(seen))


def _excluded(seen: _Seen, scheme: Scheme, worth: float, kinds: Sequence[PointKind]) -> ProposedPoint:
    lines = [link for link in seen.report.links if link.kind == "exclusion"]
    holds = bool(lines) and all(link.relation == "holds" for link in lines)
    if holds and "exclusions-missing" not in lines[-1].notes:
        return ProposedPoint("excluded", worth, worth, "all excluded values are named", lines[-1].line)
    return ProposedPoint(
        "excluded", worth, 0, "excluded values are missing" if lines else "no excluded values are named"
    )


_ONE = {"accuracy": _accuracy, "check": _check, "form": _form, "excluded": _excluded}


def _by_levels(seen: _Seen, scheme: Scheme) -> list[ProposedPoint]:
    if seen.finished and not seen.broken and not seen.lucky and not seen.report.owed:
        level = 4
    elif not seen.lost and (seen.right or (seen.broken and seen.reached and seen.legal)):
        level = 3
    elif seen.legal and len(seen.lost) <= 1:
        level = 2
    elif seen.legal or seen.partly:
        level = 1
    else:
        level = 0
    first = seen.broken[0] if seen.broken else None
    why = LEVELS[level] + (f" (line {first.line}: {seen.said(first)})" if first else "")
    worth = scheme.total
    return [ProposedPoint("level", worth, worth * level / 4, why, first.line if first else _last_line(seen))]


def _by_worth(seen: _Seen, scheme: Scheme) -> list[ProposedPoint]:
    """The steps, each worth its share of a total that is no whole number."""
    points = _by_steps(seen, scheme)
    worth = scheme.total / len(points)
    return [replace(point, worth=point.worth * worth, got=point.got * worth) for point in points]


_POINTS = {"answer": _by_answer, "steps": _by_worth, "points": _by_points, "levels": _by_levels}


def _alike(seen: _Seen, proposal: Proposal) -> str:
    """What workings are known by that are decided in one."""
    told: list[object] = [proposal.mark, [(p.kind, p.got) for p in proposal.points], proposal.slip, proposal.eye]
    if seen.broken:
        told.append(_form_of(seen.working, seen.working.lines[seen.broken[0].line - 1]))
    else:
        told.append([seen.report.answer.verdict, sorted(seen.report.answer.given), seen.finished])
        if not seen.right and seen.working.lines:
            told.append(_form_of(seen.working, seen.working.lines[-1]))
    return sha256(repr(told).encode()).hexdigest()[:16]


def _form_of(working: Working, text: str) -> str:
    parts = [part.strip() for part in without_move(text).split(" or ")]
    try:
        forms = [
            likeness(Working(working.task, part, (), working.variable, conventions=working.conventions))
            for part in parts
        ]
    except ReadingError:
        return text.strip()
    return " or ".join(sorted(forms))
