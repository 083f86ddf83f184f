"""Other forms of an item: find and mend, fill in, true or not, which way. Each with its key, and the verification of an
answer."""

from __future__ import annotations

import random
from collections.abc import Mapping, Sequence
from dataclasses import replace

from algebra.derive.check import check
from algebra.foresee.predict import predict
from algebra.parse.errors import ReadingError
from algebra.parse.lines import read_line
from algebra.records import record
from algebra.reports.report import PointEvidence
from algebra.reports.working import TaskError, Working
from algebra.tree import nodes as n
from algebra.tree import statements as ln
from algebra.tree.plain import plain
from algebra.verify.check import decide
from algebra.ways.solve import all_methods, work

BLANK = "□"


@record(frozen=True)
class MendItem:
    """A worked solution in which one slip was made and carried on correctly. `line` (from 1) is where; `right` what
    should stand there; `done` what was done, in words."""

    working: Working
    lines: tuple[str, ...]
    line: int
    right: str
    slip: str
    done: str


@record(frozen=True)
class FillItem:
    """A worked solution with blanks (□) in its lines; `wanted` are the numbers that stood there, in reading order."""

    working: Working
    lines: tuple[str, ...]
    wanted: tuple[str, ...]


@record(frozen=True)
class ClaimItem:
    """A claim that is true for all numbers, or is not: then `counter` are numbers that show it, and `slip` the error
    behind it."""

    claim: str
    true: bool
    counter: Mapping[str, str]
    slip: str


@record(frozen=True)
class WayItem:
    """A problem of which only the way is asked: `best` leads there in the fewest lines, `also` are others that lead
    there."""

    working: Working
    best: str
    also: tuple[str, ...]


def mend_item(working: Working, seed: int = 1) -> MendItem:
    """A worked solution with one slip planted: one of the likeliest for this problem. Raises TaskError where none is
    known."""
    found = [
        item
        for item in predict(replace(working, lines=(), method=None), most=6).wrong
        if len(item.lines) >= item.at_line and item.slips
    ]
    random.Random(f"{working.given} {seed}").shuffle(found)
    for item in found:
        faulty = replace(working, lines=tuple(item.lines), method=None)
        report = check(faulty)
        link = report.links[item.at_line - 1]
        broken = [each.line for each in report.links if each.relation in ("breaks", "narrows")]
        if broken != [item.at_line]:
            continue  # one slip, no more: what follows is worked rightly from it
        right = link.slip.instead if link.slip else ""
        before = working.given if item.at_line == 1 else item.lines[item.at_line - 2]
        right = right or _next_right(working, before)
        if right:
            return MendItem(working, tuple(item.lines), item.at_line, right, item.slips[0], item.done)
    raise TaskError("No slip is known that could be planted in this problem.")


def _next_right(working: Working, before: str) -> str:
    try:
        return work(replace(working, given=before, lines=())).lines[0]
    except (TaskError, ReadingError, IndexError):
        return ""


def is_mended(item: MendItem, line: int, text: str) -> bool:
    """Whether an answer names the faulty line and writes one there that follows from the line before."""
    if line != item.line:
        return False
    before = item.working.given if line == 1 else item.lines[line - 2]
    if text.strip() == before.strip():
        return False
    return decide(replace(item.working, given=before, lines=(text,), method=None)) in ("holds", "widens", "settles")


def fill_item(working: Working, blanks: int = 4, seed: int = 1) -> FillItem:
    """A worked solution with so many numbers left out, or as many as it has. Raises TaskError where the problem is not
    worked."""
    solution = work(replace(working, lines=()), method=working.method)
    draw = random.Random(f"{working.given} {seed}")
    places: list[tuple[int, n.Address, int]] = []
    trees: list[n.Node] = []
    for number, step in enumerate(step for step in solution.steps if step.kind == "line"):
        body = read_line(step.text.partition("|")[0]).body
        if body is None:
            raise TaskError("A line of its solution has nothing that could be left out.")
        trees.append(body)
        places += [
            (number, at, node.value)
            for at, node in n.walk(body)
            if isinstance(node, n.Integer) and not _is_exponent(body, at)
        ]
    if not places:
        raise TaskError("Its solution has no number that could be left out.")
    chosen = sorted(draw.sample(range(len(places)), min(blanks, len(places))))
    wanted: list[tuple[int, int, str]] = []
    for place in reversed(chosen):
        number, address, value = places[place]
        trees[number] = n.replaced(trees[number], address, n.Letter(BLANK))
        wanted.append((number, place, str(value)))
    lines = tuple(plain(tree) for tree in trees)
    return FillItem(working, lines, tuple(value for *_, value in sorted(wanted)))


def _is_exponent(body: n.Node, address: n.Address) -> bool:
    above = n.at(body, address[:-1]) if address else None
    return isinstance(above, n.Power | n.Root) and address[-1] == 1


def is_filled(item: FillItem, answers: Sequence[str]) -> tuple[bool, ...]:
    """Whether each blank holds what makes its line right: a number equal to the one left out, or all of them numbers
    with which every line holds. Too few answers leave blanks wrong."""
    told = [*answers, *[""] * len(item.wanted)][: len(item.wanted)]
    found = tuple(_is_equal(item.working, *pair) for pair in zip(told, item.wanted, strict=True))
    if all(found) or not all(answer.strip() for answer in told):
        return found
    return (True,) * len(found) if _is_right_otherwise(item, told) else found


def _is_right_otherwise(item: FillItem, answers: Sequence[str]) -> bool:
    """Whether other numbers make every line right as well, as 2 and 25 for 25 and 2."""
    left = iter(answers)
    lines = tuple("".join(f"({next(left)})" if c == BLANK else c for c in line) for line in item.lines)
    return check(replace(item.working, lines=lines, method=None)).sound


def _is_equal(working: Working, answer: str, wanted: str) -> bool:
    if not answer.strip():
        return False
    return decide(Working("evaluate", wanted, (answer,), conventions=working.conventions)) == "holds"


def claim_item(seed: int = 1) -> ClaimItem:
    """A claim about all numbers: a law, or what a common error takes for one."""
    draw = random.Random(seed)
    if draw.random() < 0.4:
        return ClaimItem(draw.choice(LAWS), True, {}, "")
    claim, slip = draw.choice(FALSE_CLAIMS)
    return ClaimItem(claim, False, _counter(claim), slip)


def claim_of(working: Working, seed: int = 1) -> ClaimItem:
    """A claim about an expression: that it equals its answer, or what a likely slip makes of it. Raises TaskError for a
    problem that is no expression, or where no wrong answer is known."""
    if working.task not in ("simplify", "expand", "factor", "evaluate"):
        raise TaskError("Only of an expression it is claimed what it equals.")
    draw = random.Random(f"{working.given} {seed}")
    if draw.random() < 0.4:
        solution = work(replace(working, lines=(), method=None))
        if solution.already:
            raise TaskError("It is its own answer: nothing can be claimed of it.")
        return ClaimItem(f"{working.given} = {solution.answer[0]}", True, {}, "")
    for wrong in predict(replace(working, lines=(), method=None), most=4).wrong:
        claim = f"{working.given} = {wrong.text}"
        if wrong.slips and decide(replace(working, lines=(wrong.text,), method=None)) == "breaks":
            return ClaimItem(claim, False, _counter(claim), wrong.slips[0])
    raise TaskError("No wrong answer is known that could be claimed.")


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
FALSE_CLAIMS = (
    ("(a + b)^2 = a^2 + b^2", "power-over-sum"),
    ("√(a + b) = √a + √b", "root-over-sum"),
    ("1/a + 1/b = 1/(a + b)", "added-across"),
    ("(a^2)^3 = a^5", "power-rule-added"),
    ("(2a)^3 = 2a^3", "power-skips-factor"),
    ("-a^2 = (-a)^2", "minus-inside-power"),
    ("a - (b - c) = a - b - c", "minus-on-first-term-only"),
    ("(a + b)/a = b", "cancelled-terms"),
    ("√(a^2) = a", "absolute-lost"),
    ("a^-2 = -a^2", "negative-power-negative"),
    ("a^2 + a^3 = a^5", "exponents-added-over-sum"),
    ("(a/b)^2 = a^2/b", "power-of-fraction-top-only"),
    ("2(a + b)^2 = (2a + 2b)^2", "multiply-before-power"),
)
"""Claims that are not true, with the error behind each."""


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
    letters = n.letters(read_line(item.claim).body or n.Integer(0))
    if not letters <= set(put):
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


def way_item(working: Working) -> WayItem:
    """A problem of which the way is asked. Raises TaskError where fewer than two ways lead to its answer."""
    found = all_methods(replace(working, lines=(), method=None))
    named = [solution for solution in found if solution.method]
    if len(named) < 2:
        raise TaskError("Only one way leads to its answer.")
    best = min(named, key=lambda solution: (len(solution.steps), named.index(solution)))
    return WayItem(working, best.method, tuple(s.method for s in named if s.method != best.method))


def is_way(item: WayItem, method: str) -> str:
    """`best`, `leads there`, or `no`."""
    return "best" if method == item.best else "leads there" if method in item.also else "no"
