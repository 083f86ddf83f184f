"""The answer: what the chain ends with, against what the given really has."""

from __future__ import annotations

from dataclasses import dataclass

from algebra.exact.errors import ExactError, UndefinedValue
from algebra.exact.plus_minus import variants
from algebra.exact.radical_field import RadicalField
from algebra.exact.rational_functions import Ratio
from algebra.exact.solution_sets import Solution, SolutionSet
from algebra.exact.writing import factored_tree, polynomial_tree, simplified_tree
from algebra.reports.report import Answer, Remaining, Verdict
from algebra.tree import nodes as n
from algebra.tree import statements as ln
from algebra.tree.plain import plain
from algebra.tree.survey import surveyed
from algebra.verify.comparison import Comparison
from algebra.verify.context import Context
from algebra.verify.evaluated import EvaluatedExpression, EvaluatedStatement
from algebra.verify.evaluator import Evaluator
from algebra.verify.excluded_values import ExcludedValues, in_order
from algebra.verify.finish import remaining_in


@dataclass(frozen=True, slots=True)
class Ending:
    """What an answer is judged from: the last chain line, the last statement, the first broken line, the candidates."""

    last: EvaluatedStatement | EvaluatedExpression | None
    statement: EvaluatedStatement | None
    broken: EvaluatedStatement | EvaluatedExpression | None
    candidates: frozenset[Solution]
    body: n.Node | None
    lines: int


STAYS_REAL = " The unknown stands under a root, in bars or in an exponent: it is a real number here."


def solve_answer(context: Context, excluded: ExcludedValues, given: EvaluatedStatement, ending: Ending) -> Answer:
    """The verdict on the last statement of the unknown against the solution set of the given."""
    expected = tuple(listed(context, given.solutions))
    if ending.statement is None:
        right = isinstance(ending.last, EvaluatedStatement) and _still_right(ending, given.solutions)
        text = "Right so far; the unknown is not isolated yet." if right else "There is no answer yet."
        return Answer("unfinished" if right and ending.lines else "none", expected, text=text)
    stated = ending.statement.solutions
    verdict = _verdict(stated, given.solutions, excluded, ending.candidates)
    follow: Verdict | None = None
    if isinstance(ending.broken, EvaluatedStatement):
        goal = ending.broken.solutions.minus(SolutionSet(excluded.zeros))
        follow = _verdict(stated, goal, excluded, ending.candidates)
    missing, extra = given.solutions.minus(stated), stated.minus(given.solutions)
    return Answer(
        verdict,
        expected,
        tuple(listed(context, stated)),
        tuple(listed(context, missing)),
        tuple(listed(context, extra)),
        follow_through=follow,
        text=_sentence(context, excluded, verdict, missing, extra, follow) + (STAYS_REAL if context.stays_real else ""),
    )


def _still_right(ending: Ending, goal: SolutionSet) -> bool:
    assert isinstance(ending.last, EvaluatedStatement)
    return goal.minus(ending.last.solutions).is_empty and (
        ending.last.solutions.minus(goal).is_empty or ending.last.solutions.minus(goal).members <= ending.candidates
    )


def _verdict(
    stated: SolutionSet, goal: SolutionSet, excluded: ExcludedValues, candidates: frozenset[Solution]
) -> Verdict:
    missing, extra = goal.minus(stated), stated.minus(goal)
    if missing.is_empty and extra.is_empty:
        return "correct"
    if extra.is_empty:
        return "wrong" if stated.is_empty else "incomplete"
    if (
        missing.is_empty
        and extra.members
        and not extra.cofinite
        and all(s in excluded or s in candidates for s in extra.members)
    ):
        return "extraneous"
    return "wrong"


def _sentence(
    context: Context,
    excluded: ExcludedValues,
    verdict: Verdict,
    missing: SolutionSet,
    extra: SolutionSet,
    follow: Verdict | None,
) -> str:
    name = context.unknown
    match verdict:
        case "correct":
            return "The answer is right."
        case "incomplete":
            if missing.cofinite and missing.intervals is None:
                return "The answer is incomplete: all other values are missing."
            return f"The answer is incomplete: {name} = {_joined(context, missing)} is missing."
        case "extraneous":
            allowed = context.assumed.sets.get(name)
            reasons = [
                "the given is undefined there"
                if s in excluded
                else "it is not as assumed"
                if allowed is not None and s.number is not None and s.number not in allowed
                else "it does not solve the given"
                for s in extra.members
            ]
            return f"{name} = {_joined(context, extra)} is extraneous: {reasons[0]}."
    tail = " It is right for the problem it had become." if follow == "correct" else ""
    return "The answer is wrong." + tail


def _joined(context: Context, solutions: SolutionSet) -> str:
    if solutions.intervals is not None:
        return str(solutions.intervals)
    if solutions.cofinite:
        return "all other values"
    return " and ".join(in_order(context, solutions.members, falling=True))


def listed(context: Context, solutions: SolutionSet) -> list[str]:
    """The set as the JSON form has it: values, or `all` with its exceptions."""
    if solutions.intervals is not None:
        return [str(solutions.intervals)]
    if solutions.cofinite:
        return ["all", *(f"≠ {value}" for value in in_order(context, solutions.members))]
    return in_order(context, solutions.members, falling=True)


def expression_answer(
    evaluator: Evaluator, comparison: Comparison, given: EvaluatedExpression, ending: Ending, task: str
) -> Answer:
    """The verdict on the last line against the given."""
    context = evaluator.context
    trees = [expected_tree(context, value.ratio, task) for value in given.values]
    if context.plan is not None and context.letters:
        trees = _expected_with_roots(evaluator, comparison, given, trees)
    expected = tuple(plain(tree) for tree in trees)
    if not isinstance(ending.last, EvaluatedExpression) or ending.body is None or not ending.lines:
        return Answer("none", expected, text="There is no answer yet.")
    relation = comparison.compare(given, ending.last)[0]
    if relation == "unclear":
        return Answer("none", expected, text="Whether the answer is right was not decided.")
    right = relation == "holds"
    follow: Verdict | None = None
    if isinstance(ending.broken, EvaluatedExpression):
        follow = "correct" if comparison.equal(ending.broken, ending.last) else "wrong"
    text = "The answer is right." if right else "The answer is wrong."
    if not right and follow == "correct":
        text += " It is right for the problem it had become."
    shown = (plain(ending.body),)
    return Answer(
        "correct" if right else "wrong",
        expected,
        shown,
        () if right else expected,
        () if right else shown,
        follow_through=follow,
        text=text,
    )


def _expected_with_roots(
    evaluator: Evaluator, comparison: Comparison, given: EvaluatedExpression, found: list[n.Node]
) -> list[n.Node]:
    """The first of some forms that really equals the given: as found, with bars about its letters, or as it stands."""
    for tree in (found[0], _with_bars(found[0])):
        try:
            if comparison.equal(given, evaluator.expression(tree)):
                return [tree, *found[1:]]
        except ExactError:
            continue
    return given.trees


def _with_bars(node: n.Node) -> n.Node:
    """Bars about every letter that stands outside of roots: what comes out of an even root is not negative."""
    if isinstance(node, n.Letter):
        return n.Absolute(node)
    if isinstance(node, n.Root | n.Absolute):
        return node
    if isinstance(node, n.Power) and isinstance(node.base, n.Letter) and node.exponent == n.Integer(2):
        return node
    return node.with_children(tuple(_with_bars(child) for child in node.children))


def expected_tree(context: Context, value: Ratio, task: str) -> n.Node:
    """The value in the form that the task asks for. Raises TooLarge."""
    if isinstance(value.field, RadicalField):
        if value.field.depends_on_added(value.numerator):
            return simplified_tree(value)  # with roots or i there is one form for every task
        value = Ratio(value.field.plain, *map(value.field.in_letters, (value.numerator, value.denominator)))
    letters = value.field.letters
    if task == "factor" and value.is_polynomial:
        tree = factored_tree(value.numerator, letters)
        if value.denominator != 1:
            return n.Fraction(n.Group(tree), n.Integer(int(value.denominator.leading_coefficient())))
        return tree
    if task == "expand" and value.is_polynomial:
        return polynomial_tree(value.numerator, letters, int(value.denominator.leading_coefficient()))
    return simplified_tree(value)


def domain_answer(excluded: ExcludedValues, stated: SolutionSet | None) -> Answer:
    """The stated domain against the real one; `stated` is None when no domain was stated.

    The lists hold excluded values, or one interval text where the domain has ends.
    """
    context = excluded.context
    real = excluded.domain()
    expected = _domain_text(context, real)
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
        verdict,
        expected,
        _domain_text(context, stated),
        tuple(listed(context, missing)),
        tuple(listed(context, extra)),
        text=text.get(verdict, "The domain is wrong."),
    )


def _domain_text(context: Context, domain: SolutionSet) -> tuple[str, ...]:
    if domain.intervals is not None or not domain.cofinite:
        return (str(domain.as_real),)
    return tuple(in_order(context, domain.members))


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


def no_value(evaluator: Evaluator, body: n.Node) -> n.Node | None:
    """A value that a statement names though it is no number here, as √(-1) among real numbers; None where there is
    none."""
    context = evaluator.context
    for _, tree in stated_values(body):
        for chosen in variants(context.filled(tree)):
            if n.letters(chosen):
                continue
            try:
                evaluator.value(chosen)
                real = not surveyed([chosen]).asks_for_more or evaluator.candidate(chosen) is not None
            except UndefinedValue:
                return tree
            except ExactError:
                continue
            if not real:
                return tree
    return None


def solve_remaining(evaluator: Evaluator, body: n.Node) -> list[Remaining]:
    """What is left to do to the stated values: each worked out, each ± of rational values split."""
    context = evaluator.context
    found: list[Remaining] = []
    listed_apart = context.working.convention("solutions") == "listed"
    for address, tree in stated_values(body):
        chosen = variants(tree)
        if len(chosen) > 1:
            numbers = [evaluator.value(part).ratio.constant for part in chosen]
            if all(number is not None for number in numbers):
                if listed_apart or not isinstance(tree, n.Signed):
                    text = "± of rational values is still to be split into the single values."
                    found.append(Remaining("plus-minus-not-split", (address,), text))
                continue
            if listed_apart:
                text = "The solutions behind ± are still to be listed one by one."
                found.append(Remaining("solutions-not-listed", (address,), text))
        found.extend(remaining_in(evaluator, chosen[0], "solve", address))
    return found
