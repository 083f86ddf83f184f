"""What a student is told of a working, by the teacher's setting. What is not told is not in the data either. Knows no
database."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from algebra import Report

Tells = Literal["end", "line", "place", "cue", "words"]
Verdict = Literal["holds", "look", "unread", "open", ""]
"""`look`: look again at this line; `open`: it could not be decided; empty: nothing is told of it."""


@dataclass(frozen=True, slots=True)
class ToldLine:
    """What is told of a line: whether it holds, and from *cue* on the words beside it."""

    verdict: Verdict
    words: str = ""
    right: str = ""


@dataclass(frozen=True, slots=True)
class Told:
    """What is told of a working; `answered`: the answer is right and finished, told line by line and at the end
    only."""

    lines: tuple[ToldLine, ...]
    answered: bool = False


def told(report: Report, tells: Tells, *, ended: bool, right_line: bool, words: dict[str, str]) -> Told:
    """What a student sees of a report. `words` are the teacher's own cues by slip. At the end all is told that the
    setting would tell of a slip at most: the place and its cue; the right line only where the teacher says so."""
    level = _level(tells, ended=ended)
    found = []
    broken = False
    verdict: Verdict
    for link in report.links:
        if link.error is not None:  # that a line can't be read is always told: it would be lost
            found.append(ToldLine("unread", link.error.message))
            continue
        verdict = "" if link.kind == "blank" and link.relation is None else _verdict(link.relation)
        if level == "end":
            found.append(ToldLine(""))
            continue
        if level != "line" and (broken or verdict == "holds") and not ended:
            found.append(ToldLine(""))  # only the place: nothing of what stands before or behind it
            continue
        said = right = ""
        if verdict == "look":
            broken = True
            slip = link.slip
            if slip is not None and level in ("cue", "words"):
                said = words.get(slip.id, slip.cue)
                if level == "words":
                    said = f"{slip.name}. {said}"
            if slip is not None and right_line and level in ("cue", "words"):
                right = slip.instead
        found.append(ToldLine(verdict, said, right))
    answered = report.answer.verdict == "correct" and report.finish.finished
    return Told(tuple(found), answered and (ended or level != "end"))


def _verdict(relation: str | None) -> Verdict:
    if relation in ("breaks", "narrows"):
        return "look"
    return "open" if relation in (None, "unclear") else "holds"


def has_words(tells: Tells, *, ended: bool) -> bool:
    """Whether anything is told in words."""
    return _level(tells, ended=ended) in ("cue", "words")


def _level(tells: Tells, *, ended: bool) -> Tells:
    return "words" if ended and tells == "end" else tells
