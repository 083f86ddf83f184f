"""The answer: what the chain ends with, against what the given really has."""

from __future__ import annotations

from dataclasses import dataclass

from algebra.exact.errors import ExactError
from algebra.exact.forms import factored_tree, polynomial_tree, simplified_tree
from algebra.exact.ratio import Ratio
from algebra.exact.signs import variants
from algebra.exact.solutions import EMPTY, Solution, SolutionSet
from algebra.model import Answer, Remaining, Verdict
from algebra.parse.errors import ReadingError
from algebra.parse.lines import read_expression
from algebra.tree import lines as ln
from algebra.tree import nodes as n
from algebra.tree.plain import plain
from algebra.verify.finish import remaining_in
from algebra.verify.ledger import Ledger, in_order
from algebra.verify.meaning import ExpressionMeaning, SetMeaning
from algebra.verify.setting import Setting


@dataclass(frozen=True, slots=True)
class Ending:
    """What an answer is judged from: the last chain line, the last statement, the first broken line, the candidates."""

    last: SetMeaning | ExpressionMeaning | None
    statement: SetMeaning | None
    broken: SetMeaning | ExpressionMeaning | None
    candidates: frozenset[Solution]
    body: n.Node | None
    lines: int


def solve_answer(setting: Setting, ledger: Ledger, given: SetMeaning, ending: Ending) -> Answer:
    """The verdict on the last statement of the unknown against the solution set of the given."""
    expected = listed(setting, given.solutions)
    if ending.statement is None:
        right = isinstance(ending.last, SetMeaning) and _still_right(ending, given.solutions)
        text = "Right so far; the unknown is not isolated yet." if right else "There is no answer yet."
        return Answer("unfinished" if right and ending.lines else "none", expected, text=text)
    stated = ending.statement.solutions
    verdict = _verdict(stated, given.solutions, ledger, ending.candidates)
    follow: Verdict | None = None
    if isinstance(ending.broken, SetMeaning):
        goal = ending.broken.solutions.minus(SolutionSet(ledger.zeros))
        follow = _verdict(stated, goal, ledger, ending.candidates)
    missing, extra = given.solutions.minus(stated), stated.minus(given.solutions)
    return Answer(
        verdict,
        expected,
        listed(setting, stated),
        listed(setting, missing),
        listed(setting, extra),
        slips=["extraneous-kept"] if verdict == "extraneous" else [],
        follow_through=follow,
        text=_sentence(setting, ledger, verdict, missing, extra, follow),
    )


def _still_right(ending: Ending, goal: SolutionSet) -> bool:
    assert isinstance(ending.last, SetMeaning)
    return goal.minus(ending.last.solutions).is_empty and (
        ending.last.solutions.minus(goal).is_empty or ending.last.solutions.minus(goal).members <= ending.candidates
    )


def _verdict(stated: SolutionSet, goal: SolutionSet, ledger: Ledger, candidates: frozenset[Solution]) -> Verdict:
    missing, extra = goal.minus(stated), stated.minus(goal)
    if missing.is_empty and extra.is_empty:
        return "correct"
    if extra.is_empty:
        return "wrong" if stated.is_empty else "incomplete"
    if (
        missing.is_empty
        and extra.members
        and not extra.cofinite
        and all(s in ledger or s in candidates for s in extra.members)
    ):
        return "extraneous"
    return "wrong"


def _sentence(
    setting: Setting, ledger: Ledger, verdict: Verdict, missing: SolutionSet, extra: SolutionSet, follow: Verdict | None
) -> str:
    name = setting.unknown
    match verdict:
        case "correct":
            return "The answer is right."
        case "incomplete":
            if missing.cofinite and missing.intervals is None:
                return "The answer is incomplete: all other values are missing."
            return f"The answer is incomplete: {name} = {_joined(setting, missing)} is missing."
        case "extraneous":
            reasons = [
                "the given is undefined there" if s in ledger else "it does not solve the given" for s in extra.members
            ]
            return f"{name} = {_joined(setting, extra)} is extraneous: {reasons[0]}."
    tail = " It is right for the problem it had become." if follow == "correct" else ""
    return "The answer is wrong." + tail


def _joined(setting: Setting, solutions: SolutionSet) -> str:
    if solutions.intervals is not None:
        return str(solutions.intervals)
    if solutions.cofinite:
        return "all other values"
    return " and ".join(in_order(setting, solutions.members, falling=True))


def listed(setting: Setting, solutions: SolutionSet) -> list[str]:
    """The set as the JSON form has it: values, or `all` with its exceptions."""
    if solutions.intervals is not None:
        return [str(solutions.intervals)]
    if solutions.cofinite:
        return ["all", *(f"≠ {value}" for value in in_order(setting, solutions.members))]
    return in_order(setting, solutions.members, falling=True)


def expression_answer(setting: Setting, given: ExpressionMeaning, ending: Ending, task: str) -> Answer:
    """The verdict on the last line against the given."""
    expected = [expected_form(setting, value.ratio, task) for value in given.values]
    if setting.plan is not None and setting.letters:
        expected = _expected_with_roots(setting, given, expected)
    if not isinstance(ending.last, ExpressionMeaning) or ending.body is None or not ending.lines:
        return Answer("none", expected, text="There is no answer yet.")
    right = setting.equal(given, ending.last)
    follow: Verdict | None = None
    if isinstance(ending.broken, ExpressionMeaning):
        follow = "correct" if setting.equal(ending.broken, ending.last) else "wrong"
    text = "The answer is right." if right else "The answer is wrong."
    if not right and follow == "correct":
        text += " It is right for the problem it had become."
    shown = [plain(ending.body)]
    return Answer(
        "correct" if right else "wrong",
        expected,
        shown,
        [] if right else expected,
        [] if right else shown,
        follow_through=follow,
        text=text,
    )


def _expected_with_roots(setting: Setting, given: ExpressionMeaning, found: list[str]) -> list[str]:
    """The first of some forms that really equals the given: as found, with bars about its letters, or as it stands."""
    for write in (str, _with_bars):
        try:
            text = write(found[0])
            if setting.equal(given, setting.expression(read_expression(text))):
                return [text, *found[1:]]
        except (ExactError, ReadingError):
            continue
    return [plain(tree) for tree in given.trees]


def _with_bars(text: str) -> str:
    """Bars about every letter that stands outside of roots: what comes out of an even root is not negative."""
    tree = read_expression(text)

    def barred(node: n.Node) -> n.Node:
        if isinstance(node, n.Letter):
            return n.Absolute(node)
        if isinstance(node, n.Root | n.Absolute):
            return node
        if isinstance(node, n.Power) and isinstance(node.base, n.Letter) and node.exponent == n.Integer(2):
            return node
        return node.with_children(tuple(barred(child) for child in node.children))

    return plain(barred(tree))


def expected_form(setting: Setting, value: Ratio, task: str) -> str:
    """The value in the form that the task asks for."""
    letters = setting.field.letters
    if task == "factor" and value.is_polynomial:
        tree = factored_tree(value.numerator, letters)
        if value.denominator != 1:
            tree = n.Fraction(n.Group(tree), n.Integer(int(value.denominator.leading_coefficient())))
        return plain(tree)
    if task == "expand" and value.is_polynomial:
        return plain(polynomial_tree(value.numerator, letters, int(value.denominator.leading_coefficient())))
    return plain(simplified_tree(value))


def domain_answer(setting: Setting, ledger: Ledger, stated: SolutionSet | None) -> Answer:
    """The stated domain against the real one; `stated` is None when no domain was stated.

    The lists hold excluded values, or one interval text where the domain has ends.
    """
    real = setting.domain(ledger.zeros)
    expected = _domain_text(setting, real)
    if stated is None:
        return Answer("none", expected, text="The domain is not stated yet.")
    missing, extra = stated.minus(real), real.minus(stated)
    verdict: Verdict = "wrong"
    if missing.is_empty and extra.is_empty:
        verdict = "correct"
    elif extra.is_empty and real.cofinite and stated.members:
        verdict = "incomplete"
    text = {"correct": "The domain is right.", "incomplete": "An excluded value is missing."}
    return Answer(
        verdict, expected, _domain_text(setting, stated), listed(setting, missing), listed(setting, extra),
        text=text.get(verdict, "The domain is wrong."),
    )  # fmt: skip


def _domain_text(setting: Setting, domain: SolutionSet) -> list[str]:
    if domain.intervals is not None or not domain.cofinite:
        return [str(domain.as_real)]
    return in_order(setting, domain.members)


def stated_values(body: n.Node) -> list[tuple[n.Address, n.Node]]:
    """The values that a solution statement names, with their addresses."""
    match body:
        case ln.Equation(sides):
            other = 0 if isinstance(n.bare(sides[-1]), n.Letter) and not isinstance(n.bare(sides[0]), n.Letter) else -1
            return [((other % len(sides),), sides[other])]
        case ln.Alternatives(items):
            return [((k, *address), tree) for k, item in enumerate(items) for address, tree in stated_values(item)]
        case ln.ValueList(_, items, _):
            return [((k + 1,), item) for k, item in enumerate(items)]
        case ln.SetOf(items) | ln.AllReals(items):
            return [((k,), item) for k, item in enumerate(items)]
    return []


def solve_remaining(setting: Setting, body: n.Node) -> list[Remaining]:
    """What is left to do to the stated values: each worked out, each ± of rational values split."""
    found: list[Remaining] = []
    for address, tree in stated_values(body):
        chosen = variants(tree)
        if len(chosen) > 1:
            numbers = [setting.value(part).ratio.constant for part in chosen]
            split = setting.working.convention("solutions") == "listed" or len(n.letters(tree)) == 0
            simple = isinstance(tree, n.Signed) and setting.working.convention("solutions") == "plus-minus"
            if all(number is not None for number in numbers) and split and not simple:
                text = "± of rational values is still to be split into the single values."
                found.append(Remaining("plus-minus-not-split", text, (address,)))
            continue
        found.extend(remaining_in(setting, tree, "solve", address))
    return found


__all__ = ["EMPTY", "Ending", "domain_answer", "expression_answer", "listed", "solve_answer", "solve_remaining"]
