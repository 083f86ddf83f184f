"""True or not: a claim about all numbers; that it is not true is shown by numbers."""

from __future__ import annotations

import random
import re
from collections.abc import Mapping, Sequence
from dataclasses import replace

from algebra.derive.check import check
from algebra.foresee.predict import predict
from algebra.formats.typeset import understood
from algebra.items.answers import answered, letters_of, relation, slip_made, unread
from algebra.parse.errors import ReadingError
from algebra.parse.lines import read_line
from algebra.records import record
from algebra.reports.items import Shown
from algebra.reports.report import Link, PointEvidence
from algebra.reports.working import EXPRESSION_TASKS, TaskError, Working
from algebra.slips import SLIPS
from algebra.tree import nodes as n
from algebra.tree import statements as ln
from algebra.tree.plain import plain
from algebra.verify.check import decide
from algebra.ways.solve import work

LAWS = (
    "(a + b)^2 = a^2 + 2ab + b^2",
    "(a - b)(a + b) = a^2 - b^2",
    "a(b + c) = ab + ac",
    "(a/b)/(c/d) = (ad)/(bc)",
    "a/b + c/b = (a + c)/b",
    "(ab)^3 = a^3b^3",
    "a^2·a^3 = a^5",
    "(a^2)^3 = a^6",
    "-(a - b) = b - a",
    "(a - b)^2 = (b - a)^2",
    "|a - b| = |b - a|",
    "a - (b - c) = a - b + c",
    "∛(a^3) = a",
    "√(a^2) = |a|",
)
FALSE_CLAIMS = tuple((slip.claim, slip.id) for slip in SLIPS if slip.claim)
"""Claims that are not true, with the error behind each."""
SHARE_TRUE = 0.4
"""How often a claim that is made is true."""
_TRUE = frozenset(
    {"true", "yes", "t", "right", "correct", "always", "always true", "true for all numbers", "true for all", "holds"}
)
_FALSE = frozenset(
    {
        "not true",
        "false",
        "no",
        "f",
        "untrue",
        "wrong",
        "incorrect",
        "not always true",
        "not always",
        "never true",
        "isn’t true",
        "nope",
    }
    | {"sometimes true", "only sometimes true", "sometimes", "not true for all numbers", "never"}
)
_SAID_BEFORE = re.compile(
    r"^(?:(?:it|this|that|the claim|the statement)\s+(?:is|’s)|it’s|that’s)\s+|^(?:it|this|that)\s+(?=isn’t)"
)
_NUMBER_BEFORE = re.compile(
    r"^\s*(?:(?:for example|for "
    r"instance|e\.?g\.?|for|let|with|put|take|say|as|if)(?![A-Za-z])[:,]?\s*)+",
    re.IGNORECASE,
)


@record(frozen=True)
class ClaimItem:
    """A claim that is true for all numbers, or is not: then `counter` are numbers that show it, and `slip` the error
    behind it."""

    claim: str
    true: bool
    counter: Mapping[str, str]
    slip: str
    working: Working = Working("simplify", "0")


def claim_item(seed: int = 1) -> ClaimItem:
    """A claim about all numbers: a law, or what a common error takes for one."""
    draw = random.Random(seed)
    if draw.random() < SHARE_TRUE:
        return ClaimItem(draw.choice(LAWS), True, {}, "")
    claim, slip = draw.choice(FALSE_CLAIMS)
    return ClaimItem(claim, False, _counter(claim), slip)


def make(working: Working, seed: int = 1) -> ClaimItem:
    """A claim about an expression: that it equals its answer, or what a likely slip makes of it. Raises TaskError for a
    problem that is no expression, or where no wrong answer is known."""
    if working.task not in EXPRESSION_TASKS:
        raise TaskError("Only of an expression it is claimed what it equals.")
    draw = random.Random(f"{working.given} {seed}")
    if draw.random() < SHARE_TRUE:
        solution = work(replace(working, lines=(), method=None))
        if solution.already:
            raise TaskError("It is its own answer: nothing can be claimed of it.")
        return ClaimItem(f"{working.given} = {solution.answer[0]}", True, {}, "", working)
    for wrong in predict(replace(working, lines=(), method=None), most=4).wrong:
        claim = f"{working.given} = {wrong.text}"
        if wrong.slips and decide(replace(working, lines=(wrong.text,), method=None)) == "breaks":
            return ClaimItem(claim, False, _counter(claim), wrong.slips[0], working)
    raise TaskError("No wrong answer is known that could be claimed.")


def _counter(claim: str) -> Mapping[str, str]:
    left, right = _sides(claim)
    report = check(Working("simplify", left, (right,)))
    evidence = report.links[0].evidence
    return {name: str(value) for name, value in evidence.values.items()} if isinstance(evidence, PointEvidence) else {}


def _sides(claim: str) -> tuple[str, str]:
    body = read_line(claim).body
    if not isinstance(body, ln.Equation) or len(body.sides) != 2:
        raise TaskError("A claim is an equation with two sides.")
    return plain(body.sides[0]), plain(body.sides[1])


def is_claim_judged(item: ClaimItem, says_true: bool, numbers: Mapping[str, str] | None = None) -> bool:
    """Whether a claim is judged rightly; that it is not true is shown by numbers for its letters for which its sides
    differ."""
    if says_true or item.true:
        return says_true is item.true
    left, right = _sides(item.claim)
    put = {name: f"({value})" for name, value in (numbers or {}).items()}
    if not letters_of(item.claim) <= set(put):
        return False
    try:
        texts = [_with(side, put) for side in (left, right)]
        return decide(Working("evaluate", texts[0], (texts[1],))) == "breaks"
    except (TaskError, ReadingError):
        return False


def _with(text: str, put: Mapping[str, str]) -> str:
    body = read_line(text).body
    assert body is not None
    for address, node in list(n.walk(body)):
        if isinstance(node, n.Letter) and node.name in put:
            value = read_line(put[node.name]).body
            if value is None or n.letters(value):
                raise TaskError(f"{put[node.name]} is no number.")
            body = n.replaced(body, address, value)
    return plain(body)


def claim_letters(item: ClaimItem) -> tuple[str, ...]:
    """The letters of a claim, for which numbers can be put."""
    return tuple(sorted(letters_of(item.claim)))


def key(item: ClaimItem) -> tuple[str, ...]:
    """`true`, or `not true` and numbers that show it."""
    return ("true",) if item.true else ("not true", *(f"{name} = {value}" for name, value in item.counter.items()))


def parts(item: ClaimItem) -> tuple[str, ...]:
    """The judgement, and the numbers that show it: of numbers alone there is nothing to put in."""
    return ("the judgement",) if item.true or not claim_letters(item) else ("the judgement", "the counterexample")


def links(item: ClaimItem, lines: Sequence[str]) -> list[Link]:
    """The judgement, and below it the numbers; all lines of numbers hold or break together."""
    if not lines:
        return []
    says_true = said_of(lines[0])
    if says_true is None:
        return [unread(1, "True, or not true, comes first.")]
    slip = slip_made(item.slip, "The claim was taken for a law.") if says_true and not item.true else None
    found = [Link(1, relation(says_true is item.true), "judgement", slip=slip)]
    numbers: dict[str, str] = {}
    shown: list[int] = []
    for number, text in enumerate(lines[1:], start=2):
        told = numbers_in(text)
        if told is None:
            found.append(unread(number, "A number for a letter: a = 2."))
        else:
            numbers |= told
            shown.append(number)
    shows = is_claim_judged(item, False, numbers) if shown and not item.true else False
    return found + [Link(number, relation(shows), "numbers") for number in shown]


def said_of(text: str) -> bool | None:
    """Whether a line says that a claim is true; None where it says neither."""
    word = " ".join(text.replace("'", "’").casefold().split()).strip(" .!")
    word = _SAID_BEFORE.sub("", word)
    return True if word in _TRUE else False if word in _FALSE else None


def numbers_in(text: str) -> dict[str, str] | None:
    """The numbers that a line puts for letters, `a = 1, b = 2` or `a = b = 1`; None where it does not."""
    found: dict[str, str] = {}
    parts = re.split(r"[,;]|\band\b|(?<=[^\s=])\s+(?=[A-Za-z]\s*=)", _NUMBER_BEFORE.sub("", text).rstrip(" ."))
    for part in filter(str.strip, parts):
        *names, value = (side.strip() for side in part.split("="))
        if not names or not all(re.fullmatch("[A-Za-z]", name) for name in names) or _is_no_number(value):
            return None
        found |= dict.fromkeys(names, value)
    return found or None


def _is_no_number(text: str) -> bool:
    try:
        return bool(letters_of(text)) or decide(Working("evaluate", text, (text,))) != "holds"
    except ReadingError:
        return True


def by_part(links: Sequence[Link]) -> Mapping[int, Link]:
    """The judgement is the first line; the counterexample is all lines below it."""
    numbers = [link for link in links if link.line > 1]
    found = {link.line: link for link in links if link.line == 1}
    if numbers:
        found[2] = Link(2, relation(all(link.relation == "holds" for link in numbers)), "numbers")
    return found


def given(item: ClaimItem) -> str:
    """The claim itself."""
    return item.claim


def shown(item: ClaimItem) -> Shown:
    """The claim and its letters."""
    return Shown("claim", lines=(understood(item.claim).latex,), letters=claim_letters(item))


FORM = answered(
    "claim",
    ClaimItem,
    "True for all numbers or not? If not, give numbers that show it.",
    make=make,
    key=key,
    parts=parts,
    links=links,
    shown=shown,
    given=given,
    by_part=by_part,
    by_place=True,
)
