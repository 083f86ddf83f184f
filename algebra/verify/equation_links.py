"""Links between equations: what happened to the solution set, and whether a legal move explains it."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from fractions import Fraction
from typing import Literal

from algebra.exact.algebraic_numbers import rational
from algebra.exact.decomposition import Decomposition
from algebra.exact.definite import definite_sign
from algebra.exact.errors import ExactError
from algebra.exact.evaluate.at_point import PointEvaluator
from algebra.exact.generators import Plan
from algebra.exact.rational_functions import Ratio, depends_on, factored, irreducible_factors
from algebra.exact.sample_points import FRIENDLY
from algebra.exact.solution_sets import Solution, SolutionSet, number_solution
from algebra.exact.writing import polynomial_tree, simplified_tree
from algebra.reports.report import Evidence, PointEvidence, Relation, SolutionEvidence
from algebra.tree import nodes as n
from algebra.tree import statements as ln
from algebra.tree.plain import plain
from algebra.verify import empty_sets
from algebra.verify.context import Context
from algebra.verify.draft import LinkDraft
from algebra.verify.evaluated import EvaluatedStatement, Pair
from algebra.verify.evaluator import Evaluator
from algebra.verify.excluded_values import in_order, written
from algebra.verify.legal_moves import in_proportion, is_isolated_power, is_multiple, is_raised, proportional, recognise
from algebra.verify.widening import Gain, explained, present_factors


@dataclass(slots=True)
class History:
    """What the chain remembers: the given, what its set counts as after a break, and the sound lines so far."""

    given: EvaluatedStatement
    sound: list[EvaluatedStatement]
    faulty: bool = False
    become: Callable[[], SolutionSet] | None = None

    @property
    def origin(self) -> SolutionSet:
        """What the chain has to solve: the set of the given; after a break, of what it became."""
        return self.given.solutions if self.become is None else self.become()


def relate(
    evaluator: Evaluator,
    cells: Decomposition | None,
    link: LinkDraft,
    before: EvaluatedStatement,
    after: EvaluatedStatement,
    history: History,
    stated: ln.Move | None,
) -> list[Gain]:
    """Fills in the link's relation, gained, lost and evidence; returns the candidates that were gained legally."""
    context = evaluator.context
    if _plainly_same(context, before, after):
        after.has_set_of(before)
        link.relation = "holds"
        return []
    gained, lost = after.solutions.minus(before.solutions), before.solutions.minus(after.solutions)
    if after.senseless:
        link.relation, link.evidence = "breaks", PointEvidence(after.senseless)
        return []
    if after.false_tail is not None:
        link.relation = "breaks"
        left, right = (plain(side) for side in after.false_tail)
        link.evidence = PointEvidence(f"{left} is not equal to {right}.")
        return []
    all_gained = gained
    gained, needed = _where_before_is_real(context, before.solutions, gained)
    link.conditions += needed
    if needed or gained.members != all_gained.members:
        own = after.solutions
        after.found = SolutionSet(own.members - (all_gained.members - gained.members), False, own.complex_factors)
    link.gained, link.lost = _listed(context, gained), _listed(context, lost)
    if gained.is_empty and lost.is_empty:
        link.relation = _same_set(evaluator, before, after)
        if link.relation == "breaks":
            link.evidence = _no_real_solution(before, after)
        return []
    if history.faulty and any(after.solutions.same_as(earlier.solutions) for earlier in history.sound):
        link.relation = "holds"
        link.notes.append("repaired")
        return []
    dropped_true = not lost.minus(lost.minus(history.origin)).is_empty
    gains: list[Gain] | None = None
    if lost.is_empty or (dropped_true and _may_shrink(context, before, after)):
        gains = explained(evaluator, cells, before, after, gained, stated, link.line)
    if lost.is_empty and gains is not None:
        link.relation = "widens"
    elif gained.is_empty and not dropped_true:
        link.relation = "settles"
    elif dropped_true and gains is not None:
        link.relation = "narrows"
        link.evidence = _value_shown(context, before, after, lost, history.origin)
    else:
        link.relation = "breaks"
        link.evidence = _value_shown(context, before, after, lost, history.origin, gained)
        return []
    for gain in gains or []:
        link.reasons[written(context, gain.solution)] = gain.because
    return gains or []


def _where_before_is_real(context: Context, before: SolutionSet, gained: SolutionSet) -> tuple[SolutionSet, list[str]]:
    """With parameters lines are compared where the line before has solutions: what can be real only elsewhere is not
    gained. With that condition, where it was needed."""
    unders = {str(s.under): s.under for s in before.members if s.under is not None}
    if context.complex or len(unders) != 1 or any(s.under is None for s in before.members) or gained.cofinite:
        return gained, []
    (own,) = unders.values()
    elsewhere = frozenset(
        s
        for s in gained.members
        if s.under is not None
        and s.under.context() == own.context()
        and definite_sign(s.under * own, context.assumed.signs) == -1
    )
    if not elsewhere:
        return gained, []
    content, factors = factored(own)
    sign = own.context().constant(1 if content > 0 else -1)
    for factor, power in factors:
        if power % 2:
            sign = sign * factor
    text = f"{plain(polynomial_tree(sign, context.field.letters))} ≥ 0"
    return SolutionSet(gained.members - elsewhere), [] if context.assumed.not_negative(own) else [text]


def _plainly_same(context: Context, before: EvaluatedStatement, after: EvaluatedStatement) -> bool:
    """Whether the differences of the sides of two lines have the same zeros, and none of them is a zero of what stands
    below.

    Then their solution sets are equal, real and complex, and need not be found. Of several equations joined by `or` the
    product of the differences counts; there nothing may be divided by.
    """
    if context.complex or not (_is_equations(before.body) and _is_equations(after.body)):
        return False
    if before.rooted or after.rooted:
        return _plainly_same_with_roots(context, before, after)
    if len(before.pairs) == len(after.pairs) == 1:
        zeros, others = before.pairs[0].difference.numerator, after.pairs[0].difference.numerator
        if zeros.is_constant() or not in_proportion(zeros, others):
            return False
        divisors = before.nonzero + after.nonzero
        if not divisors:
            return True
        if context.home is not None:
            zeros = context.home.in_letters(zeros)
        return all(zeros.gcd(divisor).is_constant() for divisor in divisors) or set(before.poles) == set(after.poles)
    if before.nonzero or after.nonzero:
        return False
    first, second = before.product, after.product
    return first is not None and second is not None and is_multiple(second, first)


def _plainly_same_with_roots(context: Context, before: EvaluatedStatement, after: EvaluatedStatement) -> bool:
    """The same for lines with square roots: of numbers only, or the same ones, which settle where both are defined."""
    if not all(line.plain_roots or not line.rooted for line in (before, after)):
        return False
    if any(pair.divides for pair in before.pairs + after.pairs):
        return False
    roots, others = (
        {root for pair in line.pairs for root in pair.roots_over(context.unknown)} for line in (before, after)
    )
    if roots or others:
        return roots == others and proportional(before.single, after.single)
    first, second = before.product, after.product
    return first is not None and second is not None and is_multiple(second, first)


def _is_equations(body: n.Node) -> bool:
    """Whether a line is an equation with two sides, or several joined by `or`."""
    parts = body.items if isinstance(body, ln.Alternatives) else (body,)
    return all(isinstance(part, ln.Equation) and len(part.sides) == 2 for part in parts)


def _listed(context: Context, solutions: SolutionSet) -> list[str]:
    if solutions.intervals is not None:
        return [str(solutions.intervals)]
    if solutions.cofinite:
        return ["all", *(f"≠ {value}" for value in in_order(context, solutions.members))]
    return in_order(context, solutions.members, falling=True)


def _same_set(evaluator: Evaluator, before: EvaluatedStatement, after: EvaluatedStatement) -> Relation:
    """Equal real sets. Where both are empty, or both are everything, that proves nothing about the step: a legal move
    must be seen, or the complex solutions must be the same ones; unless the set is only stated."""
    if after.statement or not (before.solutions.is_empty or before.solutions.cofinite):
        return "holds"
    old, new = before.single, after.single
    if old is not None and new is not None:
        if _by_a_move(evaluator, before, old, new) or empty_sets.explained(evaluator, old, new):
            return "holds"
        if empty_sets.keep_their_roots(before, after):
            return "breaks"
    if any(_under_roots(line.body) for line in (before, after) if line.rooted):
        # a side that stays while the other changes is no move, whatever it is that has no solution
        one_side_only = (
            old is not None and new is not None and sum(a == b for a, b in zip(old.sides, new.sides, strict=True)) == 1
        )
        return "breaks" if one_side_only else "unclear"
    if before.solutions.cofinite:
        return "holds" if old is None or new is None else "breaks"
    factors = before.solutions.complex_factors
    return "holds" if factors and factors == after.solutions.complex_factors else "breaks"


def _by_a_move(evaluator: Evaluator, line: EvaluatedStatement, old: Pair, new: Pair) -> bool:
    """Whether a legal move, seen on the sides themselves, leads from one equation to the other."""
    context = evaluator.context
    # of numbers alone everything is a multiple of everything: there the sides themselves must show the move
    if context.holds_unknown(old.difference.numerator) and (
        is_raised(old, new.difference) or is_isolated_power(old.difference, new.difference) or proportional(old, new)
    ):
        return True
    move = recognise(evaluator, None, old, new)
    if move is None or not move.name.startswith(("multiply", "divide")):
        return move is not None
    side = old.sides if not old.sides[0].is_zero else old.sides[::-1]
    factor = (new.sides if not old.sides[0].is_zero else new.sides[::-1])[0] / side[0]
    moved = irreducible_factors([factor.numerator, factor.denominator])
    held = {key for key, poly in moved.items() if context.can_vanish(poly)}
    return not held or held <= present_factors(context, line, evaluator.value)


def _under_roots(body: n.Node) -> bool:
    """Whether roots or bars occur, and not only letters in exponents."""
    return any(isinstance(part, n.Root | n.Absolute) for part in n.parts_of(body))


def _may_shrink(context: Context, before: EvaluatedStatement, after: EvaluatedStatement) -> bool:
    """Whether solutions were lost by a root, a division, a case or factor left out, or a statement."""
    if after.statement:
        return True
    if not after.solutions.is_empty:
        if before.rooted or after.rooted:
            return _may_shrink_with_roots(context, before, after)
        return after.solutions.complex_factors <= before.solutions.complex_factors | set(before.poles)
    old, new = before.single, after.single
    if old is None or new is None or new.left.ratio.is_zero or new.right.ratio.is_zero:
        return False
    divisor = old.left.ratio / new.left.ratio
    return (
        divisor == old.right.ratio / new.right.ratio
        and divisor.is_polynomial
        and depends_on(divisor.numerator, context.unknown)
    )


def _may_shrink_with_roots(context: Context, before: EvaluatedStatement, after: EvaluatedStatement) -> bool:
    """The same where roots, bars or letters in exponents occur: one case of bars, one factor, a division, a root
    without ±."""
    if not before.certain:
        return True  # bars: which case was kept is not looked for
    old, new = before.product, after.product
    if old is None or new is None:
        return False
    if before.single is not None and after.single is not None and is_raised(after.single, old):
        return True
    quotient = old / new
    return quotient.is_polynomial and context.holds_unknown(quotient.numerator)


def _value_shown(
    context: Context,
    before: EvaluatedStatement,
    after: EvaluatedStatement,
    lost: SolutionSet,
    origin: SolutionSet,
    gained: SolutionSet | None = None,
) -> Evidence | None:
    """A value that solves one line and not the other, put into both."""
    if not context.explains:
        return None
    true_lost = lost.minus(lost.minus(origin))
    chosen = plainest(context, true_lost) or plainest(context, lost)
    side: Literal["before", "after"] = "before"
    if gained is not None:
        other = plainest(context, gained)
        if other is not None and (chosen is None or (_plainness(other) < _plainness(chosen) and true_lost.is_empty)):
            chosen, side = other, "after"
    if chosen is None:
        return None
    value = written(context, chosen)
    name = context.unknown
    here, there = (before, after) if side == "before" else (after, before)
    where = ("the line before", "this line") if side == "before" else ("this line", "the line before")
    text = f"{name} = {value} solves {where[0]}{_put_in(context, here, chosen)}, but not {where[1]}"
    return SolutionEvidence(text + _put_in(context, there, chosen) + ".", value, side)


def plainest(context: Context, solutions: SolutionSet) -> Solution | None:
    """The plainest member: a small whole number before a fraction before a root."""
    if solutions.cofinite or solutions.intervals is not None:
        friendly = (number_solution(rational(value)) for value in FRIENDLY)
        return next((s for s in friendly if solutions.has(s)), None)
    return min((s for s in solutions.members if s.is_written), key=_plainness, default=None)


def _plainness(solution: Solution) -> tuple[int, float | Fraction, str]:
    number = solution.number
    if number is None:
        return 3, 0.0, solution.key
    value = number.rational
    if value is None:
        return 2, abs(number.approximation), solution.key
    return int(value.denominator != 1), abs(value) + value.denominator, solution.key


def _put_in(context: Context, meaning: EvaluatedStatement, solution: Solution) -> str:
    """` (12 = 12)`, ` (7 ≠ 5)`, ` (undefined there)`: both sides with the value put in, where that can be shown."""
    if solution.number is None or meaning.statement or len(context.field.letters) > 1:
        return ""
    if solution.number.rational is None and context.plan is None:
        return ""
    try:
        exactly = PointEvaluator(context.plan or Plan(), {context.unknown: solution.number})
        shown = ""
        for pair in meaning.pairs:
            left, right = exactly.value(pair.left_tree), exactly.value(pair.right_tree)
            if left is None or right is None:
                shown = shown or " (undefined there)"
            elif (same := exactly.same(left, right)) is None:
                return ""
            elif same:
                return f" ({_text(left)} = {_text(right)})"
            else:
                shown = shown or f" ({_text(left)} ≠ {_text(right)})"
    except ExactError:
        return ""
    return shown


def _text(value: Ratio) -> str:
    return plain(simplified_tree(value))


def _no_real_solution(before: EvaluatedStatement, after: EvaluatedStatement) -> Evidence | None:
    old, new = before.single, after.single
    if old is None or new is None:
        return None
    differ = "their complex solutions differ" if before.solutions.complex_factors else "no move on both sides makes it"
    if before.solutions.cofinite:
        return PointEvidence(
            "Both lines are true for every value, but no move on both sides leads from one to the other."
        )
    return PointEvidence(f"Neither line has a real solution, but no step leads from one to the other: {differ}.")
