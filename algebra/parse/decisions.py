"""Lines that decide: what is kept of the candidates, what is thrown out, and in which words."""

from __future__ import annotations

import re
from dataclasses import dataclass

_VALUE = r"(?:[A-Za-z]\s*=\s*)?[-−±+√]*\d[\d√/]*(?:[.,]\d+)?"
_VALUES = rf"{_VALUE}(?:\s*(?:,|;|\band\b|\bor\b|&)\s*{_VALUE})*"
_OUT = (
    r"(?:(?:is|are|was|were|must\s+be|has\s+to\s+be|gets?)\s+)?(?:therefore\s+|so\s+)?"
    r"(?:rejected|discarded|excluded|(?:an?\s+|the\s+)?extraneous|extr\.?|not\s+(?:an?\s+)?(?:valid\s+|real\s+)?(?:solutions?|roots?|answers?)|"
    r"not\s+valid|invalid|inadmissible|impossible|n\.?/?a\.?|no\s+good|does(?:n't|\s+not)\s+work|fails?)"
    r"(?:\s+(?:solutions?|roots?|candidates?|values?))?"
)
_THROW = r"(?:we\s+)?(?:reject|discard|omit|exclude|throw\s+out|cross\s+out|leave\s+out)(?:s|ed|ing)?\b:?"
_END = r"\s*[)\].]*\s*"
_BEHIND = (
    # x = 5, reject -6
    re.compile(rf"(?P<kept>.*?)\s*[,;(]?\s*(?:\bbut\s+|\band\s+)?\b{_THROW}\s+(?P<out>{_VALUES}){_END}", re.IGNORECASE),
    # x = 9; -5 is rejected     x = 5 (−1 extraneous)     3 is extraneous
    re.compile(
        rf"(?P<kept>(?:.*?(?:[,;(]|\s{{2,}}|\bbut\b|\band\b))?)\s*(?P<out>{_VALUES})\s+{_OUT}{_END}", re.IGNORECASE
    ),
)
_TICKS, _CROSSES = "✓✔☑", "✗✘✕☒"
_ONLY = r"(?:the\s+)?only\s+(?:real\s+|valid\s+)?(?:solution|root|answer)"
_CLAUSES = re.compile(r"\s*(?:[.;,]\s+|[.;,]\s*$|,?\s*\b(?:so|but|hence|thus|therefore|and|or)\b,?\s*)+")
_DROPS = tuple(
    re.compile(pattern, re.IGNORECASE)
    for pattern in (
        rf"{_THROW}\s+(?P<out>{_VALUES})",
        rf"(?P<out>{_VALUES})\s+{_OUT}",
        rf"(?P<out>{_VALUES})\s*[{_CROSSES}]",
    )
)
_KEEPS = tuple(
    re.compile(pattern, re.IGNORECASE)
    for pattern in (
        rf"{_ONLY}\s+is\s+(?P<kept>{_VALUES})",
        rf"(?P<kept>{_VALUES})\s+(?:is\s+{_ONLY}|only|alone)",
        rf"(?P<kept>{_VALUES})\s*[{_TICKS}]?",
    )
)
_BEFORE = re.compile(
    # x = 6 (extraneous) or x = -6
    rf"\s*(?P<out>{_VALUES})\s*\(\s*{_OUT}\s*\)\s*(?:,|;|\bor\b|\band\b)?\s*(?P<kept>\S.*)",
    re.IGNORECASE,
)
_SAID = re.compile(
    r"(?P<kept>.*?=.*?\S)\s*(?:,|\s)\s*(?P<said>(?:only|alone|is\s+the\s+only\s+(?:real\s+)?(?:solution|root|answer)|"
    r"(?:because|since|as)\s+[a-z].*))\s*\.?\s*",
    re.IGNORECASE,
)
_TRIGGER = re.compile(
    r"[✗✘✕☒]|reject|discard|exclud|omit|cross|leave|throw|extr|solution|only|alone|because|since|as\b|valid|imposs|"
    r"n\.?/?a\b|good|work|fail|root|answer|inadm",
    re.IGNORECASE,
)
_ANSWER = re.compile(
    r"\s*(?:so|thus|hence|therefore|then)?\s*,?\s*(?:the\s+|my\s+)?(?:final\s+)?"
    r"(?:answers?|ans\.?|solutions?)\b\s*(?:is|are)?\s*[:=,]?\s*(?=\S)",
    re.IGNORECASE,
)


@dataclass(frozen=True, slots=True)
class Decided:
    """The statement of a line that decides, in its columns (empty where only something is thrown out); what is thrown
    out, with the column where it stands; and the words themselves."""

    kept: str
    out: str
    at: int
    said: str


def split_decision(body: str) -> Decided | None:
    """The parts of a line that decides between candidates; None for any other."""
    if not _TRIGGER.search(body):
        return None
    for pattern in _BEHIND:
        if (found := pattern.fullmatch(body)) is not None:
            kept = re.sub(r"(?:[\s,;(]|\bbut\b|\band\b)*$", "", found["kept"], flags=re.IGNORECASE)
            if kept.strip() and not re.search(r"[=≠∈{]|^\s*no\b", kept):
                continue  # words before a value are no statement
            return Decided(kept, found["out"], found.start("out"), body[len(kept) :].strip(" ,;"))
    if (found := _BEFORE.fullmatch(body)) is not None:
        at = found.start("kept")
        return Decided(" " * at + found["kept"], found["out"], found.start("out"), body[:at].strip())
    if (found := _SAID.fullmatch(body)) is not None:
        return Decided(found["kept"], "", 0, found["said"])
    return _by_clauses(body)


def _by_clauses(body: str) -> Decided | None:
    """A line of clauses of which each keeps or throws out, in any order: `-2 does not work, so x = 4`; None where one
    of them does neither, or nothing is decided."""
    kept, out, at, decides, start = "", "", 0, False, 0
    for gap in [*_CLAUSES.finditer(body), None]:
        clause, begins = body[start : gap.start() if gap else len(body)], start
        start = gap.end() if gap else start
        if not clause.strip():
            continue
        begins += len(clause) - len(clause.lstrip())
        dropped = next((found for each in _DROPS if (found := each.fullmatch(clause.strip()))), None)
        stays = next((found for each in _KEEPS if (found := each.fullmatch(clause.strip()))), None)
        if dropped is not None:
            if not out:
                at = begins + dropped.start("out")
            out = f"{out}, {dropped['out']}" if out else dropped["out"]
            decides = True
        elif stays is not None and not kept:
            kept = " " * (begins + stays.start("kept")) + stays["kept"]
            decides = decides or "only" in clause.lower()
        else:
            return None
    return Decided(kept, out, at, body.strip()) if decides else None


def without_answer(body: str) -> tuple[str, bool]:
    """The line without the words that call it the answer, in its columns, and whether it had some."""
    said = _ANSWER.match(body)
    return (" " * said.end() + body[said.end() :], True) if said else (body, False)
