"""Lines beside the chain: checks, asides, exclusions, assumptions. Each claims something by itself."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from fractions import Fraction as Q

from algebra.exact.algebraic_numbers import Number
from algebra.exact.definite import PI
from algebra.exact.errors import ExactError, OutOfScope
from algebra.exact.evaluate.at_point import PointEvaluator
from algebra.exact.generators import Plan
from algebra.exact.logarithms import Logarithm
from algebra.exact.plus_minus import variants
from algebra.exact.rational_functions import Poly, Ratio, irreducible_factors, text_of
from algebra.exact.sample_points import friendly_points
from algebra.exact.solution_sets import Solution, SolutionSet
from algebra.exact.writing import simplified_tree
from algebra.reports.report import PointEvidence, Relation
from algebra.reports.working import TaskError
from algebra.tree import nodes as n
from algebra.tree import statements as ln
from algebra.tree.plain import plain
from algebra.verify.comparison import Comparison
from algebra.verify.context import Context
from algebra.verify.draft import LinkDraft
from algebra.verify.equation_links import plainest
from algebra.verify.evaluator import Evaluator
from algebra.verify.excluded_values import ExcludedValues, condition_text, in_order, written
from algebra.verify.expression_links import difference_shown

_CLAIMING = (ln.Equation, ln.Comparison, ln.Between)


def judge_aside(evaluator: Evaluator, comparison: Comparison, link: LinkDraft, body: n.Node) -> None:
    """An identity, a chain of them, or another statement, claimed to be true for all values. Of an expression alone
    nothing is claimed but that it has a value. Raises UndefinedValue, OutOfScope, TooLarge; TaskError for what claims
    nothing by itself."""
    link.relation = "holds"
    if isinstance(body, ln.Comparison | ln.Between):
        _judge_comparison(evaluator, comparison, link, body)
        return
    if isinstance(body, ln.AllOf | ln.Alternatives) and all(isinstance(part, _CLAIMING) for part in body.items):
        for part in body.items:  # 8·3 = 24, 8 + 3 = 11
            judge_aside(evaluator, comparison, link, part)
            if link.relation != "holds":
                return
        return
    if not isinstance(body, ln.STATEMENTS):
        if not comparison.is_defined(evaluator.expression(body)):
            link.relation = "breaks"
            link.evidence = PointEvidence("It has no value for real numbers.")
        return
    if not isinstance(body, ln.Equation):
        raise TaskError("An aside is an equation, a comparison such as 2 < 5, or an expression.")
    parts = [evaluator.expression(side) for side in body.sides]
    for left, right in zip(parts, parts[1:], strict=False):
        relation, sample = comparison.compare(left, right)
        if relation != "holds":
            link.relation = relation
            link.evidence = (
                difference_shown(evaluator.context, left, right, sample=sample) if relation == "breaks" else None
            )
            return


_FITS: dict[str, tuple[int, ...]] = {"<": (-1,), ">": (1,), "≤": (-1, 0), "≥": (0, 1), "≠": (-1, 1)}


def _judge_comparison(evaluator: Evaluator, comparison: Comparison, link: LinkDraft, body: n.Node) -> None:
    """`2 < 5`, `x^2 + 1 > 0`, `1/3 ≈ 0.33`: true on every cell of its letters, or false at a point of one."""
    match body:
        case ln.Between(low, first, middle, second, high):
            parts = [(low, first, middle), (middle, second, high)]
        case ln.Comparison(left, operator, right):
            parts = [(left, operator, right)]
        case _:
            raise TypeError("not a comparison")
    point: Mapping[str, Number | Q] | None
    for left, operator, right in parts:
        if operator == "≈":
            verdict, point = _is_rounded(evaluator, left, right), None
        else:
            sides = evaluator.expression(left), evaluator.expression(right)
            verdict, point = comparison.ordered(*sides, _FITS[operator])
            equal_at = None if 0 in _FITS[operator] else _equal_at(evaluator, left, right)
            if verdict == "holds" and equal_at is not None:
                verdict, point = "breaks", {evaluator.context.unknown: equal_at}
        if verdict != "holds":
            link.relation = verdict
            if verdict == "breaks":
                link.evidence = _not_true(evaluator.context, ln.Comparison(left, operator, right), point)
            return


def _equal_at(evaluator: Evaluator, left: n.Node, right: n.Node) -> Number | Q | None:
    """A value of the one letter at which two sides are equal, or None."""
    context = evaluator.context
    if (n.letters(left) | n.letters(right)) - {context.unknown}:
        return None
    try:
        found = plainest(context, evaluator.solve(left, right))
    except ExactError:
        return None
    return None if found is None else found.number


def _not_true(context: Context, body: ln.Comparison, point: Mapping[str, Number | Q] | None) -> PointEvidence:
    """What shows that a comparison is not true: both sides at the friendliest point that does."""
    letters = sorted(n.letters(body) - {PI})
    claim = f"{plain(body.left)} {body.operator} {plain(body.right)}"
    points = list(friendly_points(letters)) if letters else []
    for chosen in (*points, *([point] if point else [])):
        if set(chosen) < set(letters):
            continue
        try:
            exactly = PointEvaluator(context.plan or Plan(), dict(chosen))
            left, right = exactly.value(body.left), exactly.value(body.right)
            if left is None or right is None:
                continue
            sign = 0 if exactly.same(left, right) else exactly.cell.sign_of(left - right)
        except ExactError:
            continue
        if sign is not None and sign not in _FITS[body.operator]:
            at = ", ".join(f"{name} = {value}" for name, value in chosen.items() if name in letters)
            shown = f"{_text(left)} {body.operator} {_text(right)} is not true."
            return PointEvidence(f"{at}: {shown}" if at else shown)
    return PointEvidence(f"{claim} is not true.")


def _is_rounded(evaluator: Evaluator, left: n.Node, right: n.Node) -> Relation:
    """Whether a number, rounded to the decimal places that are written, is what stands on the right."""
    digits, places, negative = rounded_digits(right)
    found = evaluator.candidate(left)
    if digits is None or found is None or found.number is None or not found.number.is_real:
        return "unclear"
    return "holds" if found.number.rounds_to(-digits if negative else digits, places) else "breaks"


def rounded_digits(tree: n.Node) -> tuple[Q | None, int, bool]:
    """A written decimal without its sign (None for anything else), its decimal places, and whether a minus stands
    before it."""
    stated = n.bare(tree)
    negative = isinstance(stated, n.Signed) and stated.sign == "-"
    digits = n.bare(stated.child) if isinstance(stated, n.Signed) else stated
    if not isinstance(digits, n.Decimal | n.Integer):
        return None, 0, negative
    places = len(digits.digits.partition(".")[2]) if isinstance(digits, n.Decimal) else 0
    return Q(digits.value), places, negative


def bound_part(body: n.Node, above: n.Node | None) -> tuple[n.Node, n.Node] | None:
    """Of an aside that starts with a part of the line above: that part, and what it ends with, to be put back; else
    None."""
    if above is None or not isinstance(body, ln.Equation):
        return None
    start = n.bare(body.sides[0])
    simple = isinstance(start, n.Integer | n.Letter | n.Decimal)
    return (start, n.bare(body.sides[-1])) if not simple and stands_in(start, above) else None


def stands_in(part: n.Node, line: n.Node) -> bool:
    """Whether a part of a line, less than the whole of it, is written like this."""
    return any(n.bare(other) == part for address, other in n.walk(line) if address)


def begins_beside(evaluator: Evaluator, body: n.Node, above: n.Node, *, by_value: bool = False) -> bool:
    """Whether an equality begins with a part of the line above that is there, less than a side of it, as it is written
    or, where that is asked for, by its value: then it is worked beside the chain."""
    if not isinstance(body, ln.Equation):
        return False
    start = n.bare(body.sides[0])
    if isinstance(start, n.Integer | n.Letter | n.Decimal):
        return False
    whole = [n.bare(side) for side in (above.sides if isinstance(above, ln.Equation) else (above,))]
    if start in whole or (isinstance(above, ln.STATEMENTS) and not isinstance(above, ln.Equation)):
        return False
    parts = [n.bare(part) for address, part in n.walk(above) if address]
    if start in parts or not by_value:
        return start in parts
    try:
        goal = evaluator.value(start).ratio
        values = [evaluator.value(side).ratio for side in whole]
        if goal in values:
            return False
        return any(
            evaluator.value(part).ratio == goal
            for part in parts
            if not isinstance(part, ln.STATEMENTS) and part not in whole
        )
    except ExactError:
        return False


@dataclass(slots=True)
class Named:
    """What the exclusion lines so far have named: values of the unknown, and conditions by the keys of their
    factors."""

    values: set[Solution] = field(default_factory=set)
    conditions: set[str] = field(default_factory=set)


def judge_exclusion(
    evaluator: Evaluator, link: LinkDraft, excluded: ExcludedValues, body: n.Node, named: Named
) -> frozenset[Solution]:
    """Fills in the link of an exclusion: it holds iff the given is undefined for everything that it names. Several
    lines add up; while the ledger has more than all of them together, the note `exclusions-missing` says so. Returns
    the values of the unknown that the line names."""
    context = evaluator.context
    pairs = _kept_apart(body)
    of_unknown = all(n.bare(left) == n.Letter(context.unknown) for left, _ in pairs)
    values = _values_of(evaluator, pairs) if of_unknown else frozenset()
    if len(context.letters) <= 1:
        if not of_unknown:
            values = frozenset(context.solver.zeros(_factors_of(evaluator, pairs).values()))
        extra = values - excluded.zeros
        named.values |= set() if extra else values
        missing = excluded.zeros - named.values
        extra_text = f"{context.unknown} = {', '.join(in_order(context, extra))}" if extra else ""
        missing_text = f"{context.unknown} ≠ {', '.join(in_order(context, missing))}" if missing else ""
    else:
        factors = _factors_of(evaluator, pairs)
        needed = {text_of(poly): poly for poly in excluded.conditions}
        beyond = [poly for key, poly in factors.items() if key not in needed]
        named.conditions |= set() if beyond else set(factors)
        lacking = [poly for key, poly in needed.items() if key not in named.conditions]
        extra_text = condition_text(context, beyond[0]).replace("≠", "=") if beyond else ""
        missing_text = condition_text(context, lacking[0]) if lacking else ""
    link.relation = "breaks" if extra_text else "holds"
    if extra_text:
        link.evidence = PointEvidence(f"For {extra_text} the given is defined, so it is not excluded.")
    elif missing_text:
        link.notes.append("exclusions-missing")
        text = f"{missing_text} is missing: without it a denominator of the given is zero."
        link.evidence = PointEvidence(text)
    return values


def _kept_apart(body: n.Node) -> list[tuple[n.Node, n.Node]]:
    """What an exclusion says is never equal, in pairs."""
    if isinstance(body, ln.AllOf):
        return [pair for item in body.items for pair in _kept_apart(item)]
    if isinstance(body, ln.ValueList):
        return [(body.left, item) for item in body.items]
    if isinstance(body, ln.Comparison):
        return [(body.left, body.right)]
    raise TypeError("not an exclusion")


def _factors_of(evaluator: Evaluator, pairs: list[tuple[n.Node, n.Node]]) -> dict[str, Poly]:
    """The irreducible factors that are zero where a pair is equal, by their keys."""
    chosen = [(left, tree) for left, right in pairs for tree in variants(right)]
    return irreducible_factors(evaluator.pair(left, right).difference.numerator for left, right in chosen)


def _values_of(evaluator: Evaluator, pairs: list[tuple[n.Node, n.Node]]) -> frozenset[Solution]:
    found = (evaluator.candidate(tree) for _, right in pairs for tree in variants(right))
    return frozenset(solution for solution in found if solution is not None)


def judge_stated_domain(context: Context, link: LinkDraft, stated: SolutionSet, domain: SolutionSet) -> None:
    """Holds iff it is the domain of the given; else a number is shown that it has too many or too few."""
    link.relation = "holds" if stated.same_as(domain) else "breaks"
    if link.relation == "holds":
        return
    kept, missing = plainest(context, stated.minus(domain)), plainest(context, domain.minus(stated))
    if missing is not None:
        text = f"For {context.unknown} = {written(context, missing)} the given is defined, but this leaves it out."
    elif kept is not None:
        text = f"For {context.unknown} = {written(context, kept)} the given is undefined, but this has it."
    else:
        text = "These are not exactly the values at which the given is defined."
    link.evidence = PointEvidence(text)


def judge_check(evaluator: Evaluator, link: LinkDraft, line: ln.Line, given: n.Node) -> Solution | None:
    """Puts the candidate into the given and verifies every number that is claimed.

    Returns the candidate when the check is right, whatever it shows; else None.
    """
    context = evaluator.context
    assert isinstance(line.subject, ln.Equation)
    name = line.subject.sides[0]
    assert isinstance(name, n.Letter)
    candidate = evaluator.candidate(line.subject.sides[1]) if name.name == context.unknown else None
    number = candidate.number if candidate else None
    if candidate is None or number is None or set(context.letters) - {context.unknown}:
        link.relation = "unclear"
        link.notes.append("not-a-number-to-check")
        return None
    sides = variants_of(given)
    exactly = PointEvaluator(context.plan or Plan(), {context.unknown: number})
    found = [exactly.value(side) for side in sides]
    shown = f"{name.name} = {number} in the given: {_shown(exactly, found)}."
    problem = _check_problem(context, exactly, line.body, found)
    link.relation = "breaks" if problem else "holds"
    if problem:
        values = {context.unknown: str(number)}
        link.evidence = PointEvidence(f"{problem} {shown}", values, _exact(found[0]), _exact(found[-1]))
        return None
    link.reasons[str(number)] = shown
    return candidate


def variants_of(given: n.Node) -> tuple[n.Node, ...]:
    """The sides into which a candidate goes."""
    return given.sides[:2] if isinstance(given, ln.Equation) else (given,)


def _check_problem(
    context: Context, exactly: PointEvaluator, claim: n.Node | None, found: list[Ratio | None]
) -> str | None:
    """What is wrong with the claim, in a sentence, or None."""
    defined = all(value is not None for value in found)
    solves = defined and _all_same(exactly, found)
    if claim is None:
        return None if solves else "It does not solve the given."
    if isinstance(claim, ln.Word) and claim.word == "fails":
        return "Both sides are equal, so it does solve the given." if solves else None
    if isinstance(claim, ln.Word) and claim.word == "undefined":
        return "The given is defined there." if defined else None
    if not defined:
        return "The given is undefined there."
    chains, differs = _claimed(claim)
    if chains is None or any(
        n.letters(side) - {context.unknown} - ({"i"} if context.complex else set())
        for chain in chains
        for side in chain
    ):
        return "A check is an equation of numbers, or the word undefined."
    numbers = [[exactly.value(side) for side in chain] for chain in chains]
    if len(chains) == 1 and differs:
        ends = [numbers[0][0], numbers[0][-1]]
        inner = [numbers[0][:-1]]
    elif len(chains) == 1:
        ends = [numbers[0][0], numbers[0][-1]] if len(numbers[0]) > 1 else [numbers[0][0]]
        inner = []
    else:
        ends, inner = [chain[0] for chain in numbers], numbers
    for number, right, word in zip(ends, [found[0], found[-1]], ("left", "right"), strict=False):
        if not _all_same(exactly, [number, right]):
            return f"The {word} side is {_text(right)}, not {_text(number)}."
    for chain in inner:
        if not _all_same(exactly, chain):
            return f"{' = '.join(map(_text, chain))} is not true."
    if differs:
        return "Both sides are equal, so it does solve the given." if solves else None
    if (len(chains) == 1 and not _all_same(exactly, numbers[0])) or (len(chains) > 1 and not solves):
        return "The two sides are not equal, so it does not solve the given."
    return None


def _claimed(claim: n.Node) -> tuple[list[tuple[n.Node, ...]] | None, bool]:
    """The chains of equal numbers that a check writes, one for both sides or one for each, and whether it ends in ≠."""
    match claim:
        case ln.Comparison(left, "≠", right):
            return [(left, right)], True
        case ln.AllOf((ln.Equation(sides), ln.Comparison(_, "≠", right))):
            return [(*sides, right)], True
        case ln.Equation(sides):
            return [sides], False
        case ln.Alternatives(items) if len(items) > 2 and all(isinstance(item, ln.Equation) for item in items):
            # in stages, 6 + 5(-7) = -29; 6 - 35 = -29; -29 = -29: one chain of equal numbers
            return [tuple(side for item in items if isinstance(item, ln.Equation) for side in item.sides)], False
        case ln.Alternatives((one, other)):
            both = [side.sides if isinstance(side, ln.Equation) else (side,) for side in (one, other)]
            return (None if any(isinstance(part, ln.STATEMENTS) for side in both for part in side) else both), False
    return (None if isinstance(claim, ln.STATEMENTS) else [(claim,)]), False


def _all_same(exactly: PointEvaluator, values: list[Ratio | None]) -> bool:
    """Whether values are the same number, nested roots seen through. Raises OutOfScope where that is not decided."""
    first = values[0]
    for other in values[1:]:
        if first is None or other is None:
            if first is not other:
                return False
            continue
        same = exactly.same(first, other)
        if same is None:
            raise OutOfScope("Whether these two numbers are equal is not decided.", "√")
        if not same:
            return False
    return True


def _shown(exactly: PointEvaluator, found: list[Ratio | None]) -> str:
    if len(found) == 1:
        return _text(found[0])
    sign = "=" if found[0] is not None and _all_same(exactly, found) else "≠"
    return f"{_text(found[0])} {sign} {_text(found[1])}"


def _text(value: Ratio | None) -> str:
    return "undefined" if value is None else plain(simplified_tree(value))


def _exact(value: Ratio | None) -> str | None:
    return None if value is None else plain(simplified_tree(value))


def roundings(body: n.Node) -> list[ln.Comparison]:
    """The approximations that a line states, `x ≈ 2.65`, `x ≈ 2.65 or x ≈ -2.65`, `x ≈ 2.65, -2.65`; empty for any
    other line."""
    match body:
        case ln.Comparison(_, "≈", _):
            return [body]
        case ln.ValueList(left, items, "≈"):
            return [ln.Comparison(left, "≈", item) for item in items]
        case ln.Alternatives(items):
            found = [roundings(item) for item in items]
            return [one for some in found for one in some] if all(found) else []
    return []


def judge_rounding(context: Context, link: LinkDraft, solutions: SolutionSet, body: ln.Comparison) -> None:
    """`x ≈ 2.65` holds iff a solution rounds to it; it is no exact answer, so the chain does not go on from it.

    Of several on one line the first that does not hold decides.
    """
    link.kind = "approximation"
    if link.relation == "breaks":
        return
    size, places, negative = rounded_digits(body.right)
    if body.operator != "≈" or body.left != n.Letter(context.unknown) or size is None:
        raise TaskError("An approximation is written x ≈ 2.65.")
    value = -size if negative else size
    found: list[Number | Logarithm] = [s.number for s in solutions.members if s.number is not None and s.number.is_real]
    found += [s.log for s in solutions.members if s.log is not None]
    link.relation = "holds" if any(number.rounds_to(value, places) for number in found) else "breaks"
    if link.relation == "breaks" and found:
        nearest = min(found, key=lambda number: abs(number.approximation.real - float(value)))
        text = f"The nearest solution is {nearest}, about {nearest.decimal(places)}."
        link.evidence = PointEvidence(text)
