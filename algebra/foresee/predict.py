"""What students will write: slips applied along the correct working and carried on correctly to an answer."""

from __future__ import annotations

import re
from collections import Counter
from collections.abc import Iterable, Iterator
from dataclasses import dataclass, field, replace

from algebra import limits
from algebra.derive.explain import wrong_lines
from algebra.exact.decomposition import field_for
from algebra.exact.effort import OutOfEffort, granted, has_some, units_left
from algebra.exact.errors import ExactError
from algebra.exact.evaluate.symbolic import value_of
from algebra.exact.plus_minus import variants
from algebra.exact.writing import simplified_tree
from algebra.families import FAMILIES
from algebra.formats.typeset import values_in_latex
from algebra.parse.errors import ReadingError
from algebra.parse.lines import read_expression, read_line
from algebra.reports.prediction import PredictionReport, Unfinished, WrongAnswer
from algebra.reports.report import Evidence, PointEvidence
from algebra.reports.working import TaskError, Working
from algebra.slips import BY_ID, SLIPS, Ending, Slip, Words, lurking_at
from algebra.tree import nodes as n
from algebra.tree import statements as ln
from algebra.tree.plain import plain
from algebra.verify.check import check, decide
from algebra.ways.solve import Solution, Unsolved, methods_in_order, problem_from, work
from algebra.ways.workable import is_workable

OTHER_ROADS = 2
"""How many other methods are gone along."""
BESIDE = 0.85
"""How likely a slip on another method's lines is, against the first's."""
ENOUGH = 3
"""With fewer wrong answers than these the search goes on, within four times the work."""
GROWTH = 0.4
"""How much an answer's weight may grow by roads that come later: the search ends when no road left can bring a likelier
answer."""
PER_SLIP = 3
LURKING, ELSEWHERE = 1.4, 0.75
"""How much likelier a slip is at a step whose rule it belongs to, and how much less so where nobody would touch the
line."""
TEMPTING = 3.4
"""From here on a slip is as likely on the given itself as where its rule is used: it catches the eye."""


@dataclass(slots=True)
class Anticipated:
    """A wrong answer and the roads to it: its slips, where it parts from the right working, its whole working, its
    refutation."""

    answer: list[str]
    slips: list[str]
    at_line: int
    done: str
    lines: list[str]
    refutation: Evidence | None
    weight: float
    roads: int = 1
    names: list[str] = field(default_factory=list)

    @property
    def text(self) -> str:
        """The answer as one would state it."""
        return " or ".join(self.answer) if self.answer else "no solution"

    def out(self) -> WrongAnswer:
        """The wrong answer as it is given out."""
        slip = BY_ID[self.slips[0]]
        return WrongAnswer(
            answer=self.text,
            slips=tuple(self.slips),
            at_line=self.at_line,
            done=self.done,
            lines=tuple(self.lines),
            refutation=self.refutation,
            weight=round(self.weight, 2),
            roads=self.roads,
            names=tuple(self.names),
            why=slip.why,
            cue=slip.cue,
            kind=slip.kind,
            answer_latex=values_in_latex(self.answer),
        )


@dataclass(frozen=True, slots=True)
class Prediction:
    """The right answer, the wrong ones foreseen, and equal answers that stop too soon with what is missing."""

    answer: tuple[str, ...]
    wrong: tuple[Anticipated, ...]
    unfinished: tuple[Unfinished, ...]

    def report(self) -> PredictionReport:
        """The prediction as it is given out."""
        return PredictionReport(self.answer, tuple(item.out() for item in self.wrong), self.unfinished)


def predict(working: Working, *, most: int = 8) -> Prediction:
    """The wrong answers to a problem, the likeliest first. Raises TaskError where the problem is not worked."""
    working = replace(working, lines=(), method=None)
    right = _right(working)
    chain = _chain(working, right)
    found = _along_the_ways(working, right, most)
    for item in _at_the_end(working, right, chain):
        found.setdefault(_as_one(working, item.answer), item)
    ranked = _ranked(working, list(found.values()))[:most]
    for item in ranked:
        before = working.given if item.at_line == 1 else item.lines[item.at_line - 2]
        item.refutation = item.refutation or _refuted(working, before, item)
    return Prediction(right.answer, tuple(ranked), tuple(_too_soon(working, chain)))


def _ranked(working: Working, found: list[Anticipated]) -> list[Anticipated]:
    """The likeliest first; of a table of features the likeliest of each feature, then the second of each."""
    ranked = sorted(found, key=lambda item: -item.weight)
    if working.task != "analyze":
        return ranked
    seen: Counter[str] = Counter()
    turns = []
    for item in ranked:
        feature = item.text.partition(":")[0]
        turns.append((seen[feature], item))
        seen[feature] += 1
    return [item for _, item in sorted(turns, key=lambda turn: turn[0])]


def _chain(working: Working, solution: Solution) -> list[str]:
    """The given and the lines of its solution; the given twice where nothing is to be done."""
    lines = [step.line for step in solution.steps if step.kind == "line"]
    return [working.given, *(lines or [working.given])]


def _roads(working: Working, right: Solution) -> list[Solution]:
    """The right working, and those by the other main methods of the family."""
    found = [right]
    if not right.method or working.task not in ("solve", "simplify"):
        return found
    family, methods = methods_in_order(problem_from(working))
    own = {name for one in FAMILIES if one.id == family for name in one.methods}
    for method in [m for m in methods if m.id in own and m.id != right.method][:OTHER_ROADS]:
        try:
            found.append(work(working, method=method.id))
        except (TaskError, ReadingError):
            continue
    return found


def _along_the_ways(working: Working, right: Solution, most: int) -> dict[tuple[str, ...], Anticipated]:
    """The wrong answers to which slips on the lines of a right working lead, by their answers; by every main method."""
    found: dict[tuple[str, ...], Anticipated] = {}
    if working.task in ("domain", "analyze"):
        return found
    ways: list[tuple[list[str], WrongWay]] = []
    for nth, road in enumerate(_roads(working, right)):
        chain = _chain(working, road)
        lurking = [
            frozenset(slip.id for slip in lurking_at(step.rule.id)) for step in road.steps if step.kind == "line"
        ]
        for way in _wrong_ways(chain, lurking, working.task):
            ways.append((chain, (way[0] * (1 if nth == 0 else BESIDE), *way[1:])))
    tried: set[tuple[str, str]] = set()
    rests: dict[str, Rest] = {}
    with granted(4 * limits.PREDICT_WORK):
        for chain, way in sorted(ways, key=lambda one: (-one[1][0], one[1][2])):
            before_and_after = (chain[way[2]], plain(way[4]))
            if before_and_after in tried:
                continue
            tried.add(before_and_after)
            done = 4 * limits.PREDICT_WORK - units_left()
            if (done > limits.PREDICT_WORK and len(found) >= ENOUGH) or not has_some():
                break
            if len(found) >= most and way[0] + GROWTH <= sorted(item.weight for item in found.values())[-most]:
                break
            try:
                item = _carried_on(working, right, chain, way, rests)
            except OutOfEffort:
                break
            if item is None or any(_OVER_ONE.search(text) for text in item.answer):
                continue
            known = found.get(key := _as_one(working, item.answer))
            if known is None:
                found[key] = item
                continue
            known.roads += 1
            if way[1].id not in known.slips and item.weight > known.weight:
                item.roads = known.roads
                found[key] = item
            else:
                known.weight += 0.2
    return found


def _as_one(working: Working, answer: list[str]) -> tuple[str, ...]:
    """What an answer is known by: the order of factors and terms makes no other one."""
    if working.task == "solve" or len(answer) != 1:
        return tuple(sorted(answer))
    try:
        return (neat(read_expression(answer[0])) or answer[0],)
    except ReadingError:
        return (answer[0],)


def _at_the_end(working: Working, right: Solution, chain: list[str]) -> Iterator[Anticipated]:
    """Right work to the end, and a wrong answer read from it."""
    report = check(replace(working, lines=right.lines))
    rejected = dict.fromkeys(value for link in report.links if link.relation == "settles" for value in link.lost)
    problem = problem_from(working)
    ending = Ending(
        task=working.task,
        given=problem.body,
        unknown=problem.unknown,
        answer=_values(right.answer),
        everything=right.answer[:1] == ("all",),
        rejected=_values(rejected),
    )
    before = chain if working.task == "solve" else chain[:1]
    lines = [line for line in before[1:] if not _is_answer(line)]
    for slip in SLIPS:
        for wrong, what in slip.foreseen(ending):
            text = plain(wrong)
            shown = check(replace(working, lines=(*lines, text)))
            if shown.sound or shown.error is not None:
                continue
            evidence = shown.links[-1].evidence or PointEvidence(shown.answer.text)
            weight = slip.likelihood * LURKING / (1 + 0.06 * len(lines))
            answer = list(shown.answer.given) if working.task == "solve" else [text]
            yield Anticipated(
                answer, [slip.id], len(lines) + 1, slip.said(what), [*lines, text], evidence, weight, 1, [slip.name]
            )


def _values(texts: Iterable[str]) -> tuple[n.Node, ...]:
    """Values of an answer that are expressions; what is said of all numbers, or has no notation, is left out."""
    found = []
    for text in texts:
        try:
            found.append(read_expression(text))
        except ReadingError:
            continue
    return tuple(found)


def _is_answer(line: str) -> bool:
    """Whether a line of the right working states its answer."""
    body = read_line(line).body
    items = body.items if isinstance(body, ln.Alternatives) else (body,)
    return isinstance(body, ln.NoSolution) or all(
        isinstance(item, ln.Equation) and len(item.sides) == 2 and isinstance(item.sides[0], n.Letter) for item in items
    )


def _right(working: Working) -> Solution:
    """The right working; of an expression that is finished already, itself."""
    right = work(working)
    if right.already and working.task == "solve":
        raise Unsolved(right.already)
    return right


_OVER_ONE = re.compile(r"/1(?![\d.,])")
"""No student leaves a denominator 1."""
WrongWay = tuple[float, Slip, int, Words, n.Node]
"""How likely, which slip, after how many lines, what was done, the wrong line."""
Rest = tuple[list[str], list[str] | None]
"""The lines after a wrong one, and the answer; None where they lead to none."""


def _wrong_ways(chain: list[str], lurking: list[frozenset[str]], task: str) -> list[WrongWay]:
    """Wrong lines at every line of the right working, a few of each slip, with how likely each is; the likeliest
    first."""
    ways: list[WrongWay] = []
    for k, line in enumerate(chain[:-1][:6]):
        body = read_line(line).body
        if body is None:
            continue
        here = lurking[k] if k < len(lurking) else frozenset()
        count: dict[str, int] = {}
        for slip, _, what, wrong in wrong_lines(body, task):
            if task == "factor" and slip.topic != "factoring":
                continue  # who factors does not go on with the sum
            count[slip.id] = count.get(slip.id, 0) + 1
            if count[slip.id] <= PER_SLIP:
                likely = slip.likelihood
                tempting = slip.id in here or (k == 0 and likely >= TEMPTING)
                likely *= LURKING if tempting else ELSEWHERE
                # of two places of one slip the first read is the likelier; so is the earlier line
                ways.append((likely / (1 + 0.12 * k + 0.1 * (count[slip.id] - 1)), slip, k, what, wrong))
    return sorted(ways, key=lambda way: (-way[0], way[2]))


def _carried_on(
    working: Working, right: Solution, chain: list[str], way: WrongWay, rests: dict[str, Rest]
) -> Anticipated | None:
    """The wrong line, written neatly, and the correct work after it; None where nothing wrong comes of it. `rests`
    keeps what lines lead to."""
    weight, slip, k, what, wrong = way
    product = as_product(wrong) if working.task == "factor" and slip.topic == "factoring" else None
    line = product or neat(wrong)
    if line is None or line == chain[k]:
        return None
    if decide(replace(working, given=chain[k], lines=(line,))) not in ("breaks", "narrows"):
        return None
    if product is None and line not in rests:
        rests[line] = _rest(working, line, wrong)
    lines, answer = ([], [product]) if product else rests[line]
    if answer is None or sorted(answer) == sorted(right.answer) or len(" ".join(answer)) > 60:
        return None
    return Anticipated(
        list(answer), [slip.id], k + 1, slip.said(what), [*chain[1 : k + 1], line, *lines], None, weight, 1, [slip.name]
    )


def _rest(working: Working, line: str, wrong: n.Node) -> Rest:
    """The correct work after a wrong line."""
    try:
        answer = _each_solved(working, wrong)
        if answer is not None:
            return [" or ".join(f"{problem_from(working).unknown} = {value}" for value in answer)], answer
        if not is_workable(wrong):
            return [], None
        # an expression on which no method gets on is read off in any case
        rest = work(replace(working, given=line), as_it_stands=working.task in ("solve", "factor"))
        lines = [step.text for step in rest.steps if step.kind == "line"]
        return lines, _read_off(working, line) if rest.already else list(rest.answer)
    except (TaskError, ReadingError):
        return [], _read_off(working, line)


def _each_solved(working: Working, wrong: n.Node) -> list[str] | None:
    """The solutions of equations joined by `or`, each solved by itself; None for any other line. Raises TaskError,
    ReadingError."""
    if not isinstance(wrong, ln.Alternatives) or not all(isinstance(item, ln.Equation) for item in wrong.items):
        return None
    if all(isinstance(n.bare(item.children[0]), n.Letter) for item in wrong.items):
        return None
    found: list[str] = []
    for item in wrong.items:
        text = neat(item)
        if text is None:
            return None
        found += [value for value in work(replace(working, given=text)).answer if value not in found]
    return found


def _read_off(working: Working, line: str) -> list[str] | None:
    """The answer that a line states already; an expression is its own answer."""
    if working.task != "solve":
        return [line]
    stated = check(replace(working, given=line, lines=(line,)))
    return list(stated.answer.given) if stated.answer.verdict == "correct" else None


def neat(body: n.Node) -> str | None:
    """A wrong line as a student would write it: each side worked out. None for what has no value."""
    try:
        return plain(_neat(body))
    except ExactError:
        return None


def as_product(body: n.Node) -> str | None:
    """A wrong product as it stands, each factor worked out, for what is meant to stay factored; None for other
    lines."""
    product = n.bare(body)
    if not isinstance(product, n.Product):
        return None
    try:
        held = [n.bare(_neat(factor)) for factor in product.factors]
    except ExactError:
        return None
    factors = [n.Group(f) if isinstance(f, n.Sum | n.Signed) else f for f in held]
    operators = ("" if isinstance(f, n.Group | n.Letter) else "·" for f in factors[1:])
    return plain(n.Product(tuple(factors), tuple(operators)))


def _neat(node: n.Node) -> n.Node:
    if isinstance(node, ln.Alternatives | ln.Equation):
        return node.with_children(tuple(_neat(child) for child in node.children))
    if isinstance(node, ln.STATEMENTS):
        return node
    if len(variants(node)) > 1:
        return node
    return simplified_tree(value_of(node, field_for([node], formal=True)).ratio)


def _refuted(working: Working, before: str, item: Anticipated) -> Evidence | None:
    """Plain numbers that show the first wrong line to be wrong."""
    line = item.lines[item.at_line - 1]
    return check(replace(working, given=before, lines=(line,))).links[0].evidence


def _too_soon(working: Working, chain: list[str]) -> Iterator[Unfinished]:
    """Lines of the right working at which one might stop, equal but unfinished, with the code of what is missing."""
    if working.task == "solve":
        return
    for line in chain[1:-1]:
        report = check(replace(working, lines=(line,)))
        if report.finish.remaining:
            yield Unfinished(line, report.finish.remaining[0].code, values_in_latex([line]))
