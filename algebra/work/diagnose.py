"""What was probably done on a broken line: the slips whose result is exactly the line written, simplest first.

A slip is applied at every place of the line before; its result is compared with the line written by value, in the
exact core, so that correct steps on the same line do not hide it. Nothing is named whose result differs.
"""

from __future__ import annotations

import re
import time
from collections.abc import Iterable, Iterator
from dataclasses import dataclass, replace
from fractions import Fraction as Q

from algebra.exact.cell import Cell, SignUnknown
from algebra.exact.cells import plan_of
from algebra.exact.errors import ExactError
from algebra.exact.forms import simplified_tree
from algebra.exact.ratio import Field, Ratio, field_of
from algebra.exact.signs import variants
from algebra.exact.values import value_of
from algebra.methods.paper import NotThisWay, at_grain
from algebra.methods.places import different
from algebra.model import Link, Report, SlipSeen, TaskError, Working
from algebra.parse.errors import ReadingError
from algebra.parse.lines import read_line
from algebra.slips import BY_ID, SLIPS, Slip
from algebra.slips.whole import ARITHMETIC, COPIED, EQUALS_LOST
from algebra.tree import lines as ln
from algebra.tree import nodes as n
from algebra.tree.plain import plain
from algebra.work.solve import methods_in_order, problem_from, worked

SECONDS = 0.6
"""How long a broken link is looked at before nothing is said."""
MOST = 4


@dataclass(frozen=True, slots=True)
class Found:
    """A slip that explains a line: where in the line before, what fills its words, and the line it gives."""

    slip: Slip
    at: n.Address
    what: str


class Comparison:
    """Whether a wrong line is the line written, up to order and to arithmetic carried out."""

    def __init__(self, before: n.Node, after: n.Node, *, imaginary: bool) -> None:
        self.after = after
        letters = n.letters(before) | n.letters(after)
        if imaginary:
            letters -= {"i"}
        names = tuple(sorted(letters))
        self.deadline = time.monotonic() + SECONDS
        plan = plan_of([before, after, n.Root(n.Integer(2))], imaginary=imaginary)
        self.field: Field = field_of(names)
        if plan is not None:
            self.field = Cell(names, plan, {name: Q(3 + k) for k, name in enumerate(names)}, {}, formal=True)
        self.goal = self._meaning(after)

    def _meaning(self, body: n.Node) -> object:
        """Expressions: the set of values; equations: the two sides, and the product of all differences."""
        if isinstance(body, ln.Alternatives | ln.Equation | ln.ValueList):
            pairs = [pair for item in _equations(body) for pair in self._pairs(item)]
            total = None
            for left, right in pairs:
                total = left - right if total is None else total * (left - right)
            return frozenset(map(_key, pairs)), total
        return frozenset(self._value(tree) for tree in variants(body))

    def _value(self, tree: n.Node) -> Ratio:
        return value_of(tree, self.field).ratio

    def _pairs(self, equation: n.Node) -> list[tuple[Ratio, Ratio]]:
        found = []
        for chosen in variants(equation):
            left, right = chosen.children[0], chosen.children[-1]
            found.append((self._value(left), self._value(right)))
        return found

    def is_it(self, text: str) -> int:
        """2 where this wrong line is the one that was written, 1 where correct steps lead from it there, else 0."""
        if time.monotonic() > self.deadline:
            return 0
        try:
            body = read_line(text).body
            if body is None or isinstance(body, ln.STATEMENTS) != isinstance(self.after, ln.STATEMENTS):
                return 0
            found = self._meaning(body)
        except (ReadingError, ExactError, KeyError, ZeroDivisionError, AttributeError):
            return 0
        if isinstance(found, tuple) and isinstance(self.goal, tuple):
            (pairs, total), (goal_pairs, goal_total) = found, self.goal
            if pairs == goal_pairs:
                return 2
            if total is None or goal_total is None or total.is_zero or goal_total.is_zero:
                return 0
            return int((total / goal_total).constant is not None)
        return 2 if found == self.goal else 0


def _key(pair: tuple[Ratio, Ratio]) -> frozenset[Ratio]:
    return frozenset(pair)


def _equations(body: n.Node) -> list[n.Node]:
    if isinstance(body, ln.Alternatives):
        return list(body.items)
    if isinstance(body, ln.ValueList):
        return [ln.Equation((body.left, item)) for item in body.items]
    return [body]


def wrong_lines(body: n.Node, task: str, slips: Iterable[Slip] = SLIPS) -> Iterator[tuple[Slip, n.Address, str, str]]:
    """Every wrong line that one slip makes of a line: the slip, its place, what fills its words, the line."""
    for slip in slips:
        if slip.tasks and task not in slip.tasks:
            continue
        if slip.scope == "equation":
            if isinstance(body, ln.Equation):
                for text, what in slip.wrong(body):
                    yield slip, (), what, text
            continue
        for address, part in n.walk(body):
            if isinstance(part, ln.STATEMENTS):
                continue
            for text, what in slip.wrong(part):
                yield slip, address, what, _placed(body, address, text)


def _placed(body: n.Node, address: n.Address, text: str) -> str:
    """The line with the part at the address replaced, the new part in brackets."""
    if not address:
        return text
    return plain(n.replaced(body, address, n.Group(n.Letter(_HOLE)))).replace(f"({_HOLE})", f"({text})")


_HOLE = "☐"


def explain(before: n.Node, after: n.Node, task: str, *, imaginary: bool = False) -> list[Found]:
    """The slips that explain how `after` came from `before`, simplest first; empty where none does."""
    if isinstance(before, ln.Equation) and not isinstance(after, ln.STATEMENTS):
        return [Found(EQUALS_LOST, (), f"{plain(after)} has no equals sign any more")]
    try:
        comparison = Comparison(before, after, imaginary=imaginary)
    except (ExactError, KeyError, AttributeError):
        return []
    copied = _copied(before, after)
    found: dict[str, Found] = {}
    strength: dict[str, int] = {}
    for slip, address, what, text in wrong_lines(before, task):
        if strength.get(slip.id) == 2:
            continue
        fits = comparison.is_it(text)
        if fits > strength.get(slip.id, 0):
            found[slip.id], strength[slip.id] = Found(slip, address, what), fits
    # a slip that gives the very line comes before one from which correct steps lead on to it
    ordered = sorted(found, key=lambda name: -strength[name])[:MOST]
    found = {name: found[name] for name in ordered}
    if copied is not None:
        # one symbol differs and nothing was done: a law of algebra misused comes first only in an expression
        if isinstance(before, ln.Equation) or not found:
            return [copied, *found.values()]
        return [*found.values(), copied]
    if not found:
        found |= {f.slip.id: f for f in _twice(before, task, comparison)}
    if not found:
        arithmetic = _arithmetic(before, after, comparison)
        if arithmetic is not None:
            return [arithmetic]
    return list(found.values())


def _twice(before: n.Node, task: str, comparison: Comparison) -> list[Found]:
    """Two slips on one line: the same one at two places, or two of them, within the time that is left."""
    firsts = [
        (slip, address, what, text) for slip, address, what, text in wrong_lines(before, task) if slip.kind != "care"
    ]
    for slip, address, what, text in firsts:
        if time.monotonic() > comparison.deadline:
            return []
        try:
            body = read_line(text).body
        except ReadingError:
            continue
        if body is None:
            continue
        for _, _, _, twice in wrong_lines(body, task, [slip]):
            if comparison.is_it(twice):
                return [Found(slip, address, what)]
    return []


# -- whatever the topic ------------------------------------------------------------------------------------------------


def _copied(before: n.Node, after: n.Node) -> Found | None:
    """One sign, digit, exponent or letter differs and nothing else."""
    places = list(_leaf_differences(before, after, ()))
    if len(places) != 1 or places[0] is None:
        return None
    address, old, new = places[0]
    return Found(COPIED, address, f"{old} became {new}")


def _leaf_differences(a: n.Node, b: n.Node, at: n.Address) -> Iterator[tuple[n.Address, str, str] | None]:
    if a == b:
        return
    if isinstance(a, n.Sum) and isinstance(b, n.Sum) and len(a.terms) == len(b.terms) and a.signs != b.signs:
        wrong = [k for k, (s, t) in enumerate(zip(a.signs, b.signs, strict=True)) if s != t]
        if len(wrong) == 1 and a.terms == b.terms:
            yield (
                (*at, wrong[0] + 1),
                f"{a.signs[wrong[0]]} {plain(a.terms[wrong[0] + 1])}",
                f"{b.signs[wrong[0]]} {plain(b.terms[wrong[0] + 1])}",
            )
            return
        yield None
        yield None
        return
    if isinstance(a, n.Integer | n.Letter) and type(a) is type(b):
        yield at, plain(a), plain(b)
        return
    if type(a) is not type(b) or len(a.children) != len(b.children) or not a.children:
        yield None
        yield None
        return
    if isinstance(a, n.Product) and isinstance(b, n.Product) and a.operators != b.operators:
        yield None
        return
    for k, (x, y) in enumerate(zip(a.children, b.children, strict=True)):
        yield from _leaf_differences(x, y, (*at, k))


def _facts(body: n.Node) -> dict[Q, str]:
    """What two numbers of the line make, with the fact in words."""
    numbers = sorted({Q(p.value) for p in n.parts_of(body) if isinstance(p, n.Integer)})
    found: dict[Q, str] = {}
    for a in numbers:
        for b in numbers:
            for sign, value in (("+", a + b), ("−", a - b), ("·", a * b), ("÷", a / b if b else None)):
                if value is not None:
                    found.setdefault(value, f"{a} {sign} {b}")
        if 0 <= a <= 20:
            found.setdefault(a * a, f"{a}²")
    return found


def _arithmetic(before: n.Node, after: n.Node, comparison: Comparison) -> Found | None:
    """One number of the line written, changed to what two numbers above make, sets it right."""
    facts = _facts(before)
    right = Comparison(before, before, imaginary=False)
    for address, part in n.walk(after):
        if not isinstance(part, n.Integer):
            continue
        for value, fact in facts.items():
            if value == part.value or time.monotonic() > comparison.deadline:
                continue
            new: n.Node = n.Integer(int(value)) if value.denominator == 1 and value >= 0 else n.Group(_number(value))
            if abs(value - part.value) <= max(Q(12), abs(value)) and right.is_it(
                plain(n.replaced(after, address, new))
            ):
                return Found(ARITHMETIC, (), f"{fact} is {value}, not {part.value}")
    return None


def _number(value: Q) -> n.Node:
    size: n.Node = n.Integer(abs(value.numerator))
    if value.denominator != 1:
        size = n.Fraction(size, n.Integer(value.denominator))
    return n.Signed("-", size) if value < 0 else size


# -- in a report ---------------------------------------------------------------------------------------------------------


def name_slips(working: Working, report: Report) -> Report:
    """Puts the slips beside every link that breaks or narrows, as far as one explains it."""
    decimal = working.convention("decimal")
    try:
        before = read_line(working.given, decimal=decimal).body
    except ReadingError:
        return report
    for link, text in zip(report.links, working.lines, strict=True):
        try:
            line = read_line(text, decimal=decimal)
        except ReadingError:
            continue
        if line.kind not in ("expression", "equation", "statement") or line.body is None:
            continue
        if link.relation in ("breaks", "narrows") and before is not None:
            _name(working, link, before, line.body)
        before = line.body
    return report


def right_line(working: Working, before: n.Node, at: n.Address) -> str:
    """The line that would have been right: the part worked out where the slip was made, or the first line of the worked
    solution that goes on from the line before."""
    if at and not isinstance(before, ln.STATEMENTS):
        right = _part_worked_out(before, at)
        if right:
            return right
    try:
        problem = problem_from(replace(working, given=plain(before), lines=(), method=None))
        for method in methods_in_order(problem)[1]:
            try:
                steps = [step for step in at_grain(worked(problem, method).steps, "board") if step.kind == "line"]
            except NotThisWay:
                continue
            if steps:
                return steps[0].text
    except (TaskError, ReadingError):
        pass
    return ""


def _part_worked_out(before: n.Node, at: n.Address) -> str:
    part = n.at(before, at)
    names = tuple(sorted(n.letters(part)))
    try:
        plan = plan_of([part], imaginary=False)
        over = Cell(names, plan, {name: Q(2 + k) for k, name in enumerate(names)}, {}) if plan else field_of(names)
        done = simplified_tree(value_of(part, over).ratio)
    except (ExactError, SignUnknown):
        return ""
    if done == part:
        return ""
    held = isinstance(n.at(before, at[:-1]), n.Group)
    return plain(n.replaced(before, at, done if held or isinstance(done, n.FACTOR_LIKE) else n.Group(done)))


def _name(working: Working, link: Link, before: n.Node, after: n.Node) -> None:
    found = explain(before, after, working.task, imaginary=working.numbers == "complex")
    instead = right_line(working, before, found[0].at) if found else ""
    seen = [slip_seen(item, before, after, instead) for item in found]
    if seen:
        link.slip, link.other_slips = seen[0], seen[1:]


def slip_seen(item: Found, before: n.Node, after: n.Node, instead: str = "") -> SlipSeen:
    """A slip in words, with its places in both lines."""
    old, new = different(before, after)
    return SlipSeen(
        item.slip.id, item.slip.name, item.slip.kind, [list(item.at)] if item.at else [list(a) for a in old if a],
        [list(a) for a in new if a], _sentence(item.slip.done.format(what=item.what)), item.slip.why, item.slip.cue, instead,
    )  # fmt: skip


def _sentence(text: str) -> str:
    """With a capital letter in front, unless it starts with a letter of algebra."""
    return text[:1].upper() + text[1:] if re.match(r"[a-z]{2}", text) else text


__all__ = ["BY_ID", "Found", "explain", "name_slips", "wrong_lines"]
