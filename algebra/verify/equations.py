"""Links between equations: what happened to the solution set, and whether a legal move explains it."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import dataclass

from algebra.exact.cell import Cell, Plan
from algebra.exact.errors import ExactError, UndefinedValue
from algebra.exact.forms import simplified_tree
from algebra.exact.numbers import rational
from algebra.exact.points import FRIENDLY
from algebra.exact.ratio import Poly, Ratio, depends_on, irreducible_factors, letters_of_ring
from algebra.exact.roots import Exactly
from algebra.exact.solutions import Solution, SolutionSet
from algebra.exact.values import Value, value_of
from algebra.model import Evidence, Link, Relation
from algebra.tree import lines as ln
from algebra.tree import nodes as n
from algebra.tree.plain import plain
from algebra.verify.ledger import condition_text, in_order, written
from algebra.verify.moves import recognise
from algebra.verify.setting import Pair, SetMeaning, Setting

_EVEN_POWERS = (2, 4, 6)


@dataclass(frozen=True, slots=True)
class Gain:
    """A candidate that a legal move added; `kind` is denominator, factor or power."""

    solution: Solution
    kind: str
    because: str


@dataclass(slots=True)
class Trail:
    """What the chain remembers: the given, what its set counts as after a break, and the sound lines so far."""

    given: SetMeaning
    sound: list[SetMeaning]
    faulty: bool = False
    become: SolutionSet | None = None

    @property
    def origin(self) -> SolutionSet:
        return self.given.solutions if self.become is None else self.become


def relate(
    setting: Setting, link: Link, before: SetMeaning, after: SetMeaning, trail: Trail, stated: ln.Move | None
) -> list[Gain]:
    """Fills in the link's relation, gained, lost and evidence; returns the candidates that were gained legally."""
    if _plainly_same(setting, before, after):
        after.is_that_of(before)
        link.relation = "holds"
        return []
    gained, lost = after.solutions.minus(before.solutions), before.solutions.minus(after.solutions)
    if after.false_tail is not None:
        link.relation = "breaks"
        left, right = (plain(side) for side in after.false_tail)
        link.evidence = Evidence(f"{left} is not equal to {right}.", {}, None, None)
        return []
    link.gained, link.lost = _listed(setting, gained), _listed(setting, lost)
    if gained.is_empty and lost.is_empty:
        link.relation = _same_set(setting, before, after)
        if link.relation == "breaks":
            link.evidence = _no_real_solution(before, after)
        return []
    if trail.faulty and any(after.solutions.same_as(earlier.solutions) for earlier in trail.sound):
        link.relation = "holds"
        link.notes.append("repaired")
        return []
    dropped_true = not lost.minus(lost.minus(trail.origin)).is_empty
    gains: list[Gain] | None = None
    if lost.is_empty or (dropped_true and _may_shrink(setting, before, after)):
        gains = _explained(setting, before, after, gained, stated, link.line)
    if lost.is_empty and gains is not None:
        link.relation = "widens"
    elif gained.is_empty and not dropped_true:
        link.relation = "settles"
    elif dropped_true and gains is not None:
        link.relation = "narrows"
        link.evidence = _value_shown(setting, before, after, lost, trail.origin)
    else:
        link.relation = "breaks"
        link.evidence = _value_shown(setting, before, after, lost, trail.origin, gained)
        return []
    for gain in gains or []:
        link.reasons[written(setting, gain.solution)] = gain.because
    return gains or []


def _plainly_same(setting: Setting, before: SetMeaning, after: SetMeaning) -> bool:
    """Whether two lines without roots differ by a constant factor only and are undefined at the same places.

    Then their solution sets are equal, real and complex, and need not be found. Of several equations joined by `or` the
    product of the differences counts; there nothing may be divided by.
    """
    if (
        before.rooted
        or after.rooted
        or setting.complex
        or not (_is_equations(before.body) and _is_equations(after.body))
    ):
        return False
    if len(before.pairs) == len(after.pairs) == 1:
        old, new = before.pairs[0], after.pairs[0]
        if not _proportional(old, new):
            return False
        if not old.nonzero and not new.nonzero:
            return True
        return set(irreducible_factors(old.nonzero)) == set(irreducible_factors(new.nonzero))
    if before.nonzero or after.nonzero:
        return False
    first, second = _whole(before), _whole(after)
    return first is not None and second is not None and (second / first).constant is not None


def _is_equations(body: n.Node) -> bool:
    """Whether a line is an equation with two sides, or several joined by `or`."""
    parts = body.items if isinstance(body, ln.Alternatives) else (body,)
    return all(isinstance(part, ln.Equation) and len(part.sides) == 2 for part in parts)


def _listed(setting: Setting, solutions: SolutionSet) -> list[str]:
    if solutions.intervals is not None:
        return [str(solutions.intervals)]
    if solutions.cofinite:
        return ["all", *(f"≠ {value}" for value in in_order(setting, solutions.members))]
    return in_order(setting, solutions.members, falling=True)


def _same_set(setting: Setting, before: SetMeaning, after: SetMeaning) -> Relation:
    """Equal real sets; where both are empty, the complex sets must be equal too, unless the set is only stated."""
    if before.solutions.is_empty and not after.statement and not before.statement:
        if any(_under_roots(line.body) for line in (before, after) if line.rooted):
            old, new = before.single, after.single
            seen = (
                recognise(setting, None, old, new) is not None
                or _proportional(old, new)
                or _raised(old, new.difference if new else None)
            )
            return "holds" if seen else "unclear"
        return "holds" if before.solutions.complex_factors == after.solutions.complex_factors else "breaks"
    return "holds"


def _under_roots(body: n.Node) -> bool:
    """Whether roots or bars occur, and not only letters in exponents."""
    return any(isinstance(part, n.Root | n.Absolute) for part in n.parts_of(body))


def _proportional(before: Pair | None, after: Pair | None) -> bool:
    """Whether one equation is the other up to a rearrangement and a constant factor."""
    if before is None or after is None or before.difference.is_zero or after.difference.is_zero:
        return False
    return (after.difference / before.difference).constant is not None


def _whole(meaning: SetMeaning) -> Ratio | None:
    """The product of the differences of its equations: zero exactly where one of them holds."""
    if not meaning.pairs:
        return None
    total = meaning.pairs[0].difference
    for pair in meaning.pairs[1:]:
        total = total * pair.difference
    return None if total.is_zero else total


def _explained(
    setting: Setting, before: SetMeaning, after: SetMeaning, gained: SolutionSet, stated: ln.Move | None, line: int
) -> list[Gain] | None:
    """The gained values with the legal move that explains each, or None when no legal move does."""
    if gained.is_empty:
        return []
    old, new = _whole(before), _whole(after)
    if gained.cofinite or gained.intervals is not None:
        return None
    poles = irreducible_factors(before.nonzero)
    pole_values = setting.solver.zeros(poles.values())
    reason = f"it makes a denominator of {_name(line - 1)} zero"
    if old is None or new is None:  # an identity, or a bare statement
        if gained.members <= pole_values:
            return [Gain(s, "denominator", reason) for s in gained.members]
        return None
    if before.certain and after.certain:
        ways = [_way(setting, before, after, setting.value, stated)]
    else:  # what is in bars has another sign on another cell
        ways = _ways_on_cells(setting, before, after, stated)
    if ways and all(way == "power" for way in ways) and not gained.members & pole_values:
        return [Gain(s, "power", "both sides were raised to an even power") for s in gained.members]
    if ways and all(ways):
        multiplied = "both sides were multiplied by an expression that is zero there"
        return [
            Gain(s, "denominator", reason) if s in pole_values else Gain(s, "factor", multiplied)
            for s in gained.members
        ]
    return None


_Reading = Callable[[n.Node], Value]


def _way(setting: Setting, before: SetMeaning, after: SetMeaning, read: _Reading, stated: ln.Move | None) -> str | None:
    """`power` or `factor`: the legal move by which one equation became the other as far as `read` sees them; else None."""
    old, new = ([(read(p.left_tree).ratio, read(p.right_tree).ratio) for p in m.pairs] for m in (before, after))
    total = _product(new)
    if total.is_zero:
        return None
    if len(old) == 1 and _is_power(old[0][0], old[0][1], total):
        return "power"
    ratio = total / _product(old)
    factors = {key for key, poly in irreducible_factors([ratio.numerator]).items() if setting.holds_unknown(poly)}
    trees = _present_parts(before)
    if stated is not None and stated.name == "multiply" and stated.operand is not None:
        trees.append(stated.operand)
    allowed = set(irreducible_factors(before.nonzero)) | set(
        irreducible_factors(read(t).ratio.numerator for t in trees)
    )
    return "factor" if factors <= allowed else None


def _product(sides: list[tuple[Ratio, Ratio]]) -> Ratio:
    total = sides[0][0] - sides[0][1]
    for left, right in sides[1:]:
        total = total * (left - right)
    return total


def _ways_on_cells(setting: Setting, before: SetMeaning, after: SetMeaning, stated: ln.Move | None) -> list[str | None]:
    """The move seen on every cell on which the line before is defined."""

    def way(cell: Cell) -> str | None:
        try:
            return _way(setting, before, after, lambda tree: value_of(setting.filled(tree), cell), stated)
        except UndefinedValue:
            return "undefined"

    return [found for _, found in setting.cells.each(way) if found != "undefined"]


def _name(line: int) -> str:
    return "the given" if line == 0 else f"line {line}"


def _present_parts(meaning: SetMeaning) -> list[n.Node]:
    """The letters, brackets, roots and numerators that stand in the line: what one may have multiplied by."""
    found: set[n.Node] = set()
    for pair in meaning.pairs:
        for part in (*n.parts_of(pair.left_tree), *n.parts_of(pair.right_tree)):
            if isinstance(part, n.Group | n.Letter | n.Root):
                found.add(part)
            elif isinstance(part, n.Fraction):
                found.add(part.numerator)
    return list(found)


def _raised(before: Pair | None, after: Ratio | None) -> bool:
    """Whether both sides were raised to the same even power, up to a rearrangement or factoring of the result."""
    if before is None or after is None or after.is_zero:
        return False
    return _is_power(before.left.ratio, before.right.ratio, after)


def _is_power(left: Ratio, right: Ratio, after: Ratio) -> bool:
    return any(((left**power - right**power) / after).constant for power in _EVEN_POWERS)


def conditions(setting: Setting, before: SetMeaning, after: SetMeaning) -> list[str]:
    """What a step needs of the other letters: that what it divides by is not 0, and that what it roots is not negative."""
    divided = dict(irreducible_factors(after.nonzero))
    for key in irreducible_factors(before.nonzero):
        divided.pop(key, None)
    old, new = _whole(before), _whole(after)
    if old is not None and new is not None:
        divided |= irreducible_factors([(old / new).numerator])
    letters = set(setting.letters) - {setting.unknown, "π"}
    found = {
        condition_text(setting, poly)
        for poly in divided.values()
        if not depends_on(poly, setting.unknown) and set(_letters_of(poly)) <= letters
    }
    rooted = {_radicand(part) for pair in after.pairs for part in _roots(pair)}
    for tree in rooted - {_radicand(part) for pair in before.pairs for part in _roots(pair)}:
        if n.letters(tree) and n.letters(tree) <= letters:
            found.add(f"{plain(tree)} ≥ 0")
    if before.single is not None and not any(setting.unknown in n.letters(r) for p in after.pairs for r in _roots(p)):
        found |= set(_not_negative(before.single, setting.unknown))
    return sorted(found)


def _not_negative(pair: Pair, unknown: str) -> Iterator[str]:
    """What must not be negative, since it equals an even root of the unknown: `v ≥ 0` for v = √(2gh)."""
    for side, other in ((pair.left_tree, pair.right_tree), (pair.right_tree, pair.left_tree)):
        bare = n.bare(side)
        factors = bare.factors if isinstance(bare, n.Product) else (bare,)
        roots = [f for f in factors if isinstance(f, n.Root) and unknown in n.letters(f)]
        rest = [f for f in factors if f not in roots]
        if len(roots) != 1 or not n.letters(other) or any(unknown in n.letters(t) for t in (other, *rest)):
            continue
        lettered = [f for f in rest if n.letters(f)]
        below = f"/({'·'.join(plain(f) for f in lettered)})" if lettered else ""
        yield f"{plain(other)}{below} ≥ 0"


def _letters_of(poly: Poly) -> list[str]:
    names = letters_of_ring(poly)
    return [name for name, power in zip(names, poly.degrees(), strict=True) if power]


def _roots(pair: Pair) -> list[n.Root]:
    """The even roots of an equation."""
    parts = (*n.parts_of(pair.left_tree), *n.parts_of(pair.right_tree))
    return [
        part
        for part in parts
        if isinstance(part, n.Root)
        and (part.index is None or (isinstance(part.index, n.Integer) and part.index.value % 2 == 0))
    ]


def _radicand(root: n.Root) -> n.Node:
    return n.bare(root.radicand)


def was_raised(before: SetMeaning, after: SetMeaning, stated: ln.Move | None) -> bool:
    """Whether the step squares both sides as they stand (or says so), so that every candidate is owed a check."""
    old, new = before.single, after.single
    if old is None or new is None:
        return False
    if stated is not None and stated.name in ("square", "power"):
        return _raised(old, new.difference)
    sides = (new.left.ratio, new.right.ratio)
    return any(
        (old.left.ratio**p, old.right.ratio**p) == sides != (old.left.ratio, old.right.ratio) for p in _EVEN_POWERS
    )


def _may_shrink(setting: Setting, before: SetMeaning, after: SetMeaning) -> bool:
    """Whether solutions were lost by a root, a division, a case or factor left out, or a statement."""
    if after.statement:
        return True
    if not after.solutions.is_empty:
        if setting.plan is not None:
            return True
        return after.solutions.complex_factors <= before.solutions.complex_factors | _pole_keys(before)
    old, new = before.single, after.single
    if old is None or new is None or new.left.ratio.is_zero or new.right.ratio.is_zero:
        return False
    divisor = old.left.ratio / new.left.ratio
    return (
        divisor == old.right.ratio / new.right.ratio
        and divisor.is_polynomial
        and depends_on(divisor.numerator, setting.unknown)
    )


def _pole_keys(meaning: SetMeaning) -> set[str]:
    return set(irreducible_factors(meaning.nonzero))


def _value_shown(
    setting: Setting,
    before: SetMeaning,
    after: SetMeaning,
    lost: SolutionSet,
    origin: SolutionSet,
    gained: SolutionSet | None = None,
) -> Evidence | None:
    """A value that solves one line and not the other, put into both."""
    if not setting.explains:
        return None
    true_lost = lost.minus(lost.minus(origin))
    chosen = _pick(setting, true_lost) or _pick(setting, lost)
    side = "before"
    if gained is not None:
        other = _pick(setting, gained)
        if other is not None and (chosen is None or (_plainness(other) < _plainness(chosen) and true_lost.is_empty)):
            chosen, side = other, "after"
    if chosen is None:
        return None
    value = written(setting, chosen)
    name = setting.unknown
    here, there = (before, after) if side == "before" else (after, before)
    where = ("the line before", "this line") if side == "before" else ("this line", "the line before")
    text = f"{name} = {value} solves {where[0]}{_put_in(setting, here, chosen)}, but not {where[1]}"
    return Evidence(text + _put_in(setting, there, chosen) + ".", solution=value, solves=side)


def _pick(setting: Setting, solutions: SolutionSet) -> Solution | None:
    """The plainest member: a small whole number before a fraction before a root."""
    if solutions.cofinite or solutions.intervals is not None:
        friendly = (setting.solver.number(rational(value)) for value in FRIENDLY)
        return next((s for s in friendly if solutions.has(s)), None)
    return min((s for s in solutions.members if not s.text.startswith("an ")), key=_plainness, default=None)


def _plainness(solution: Solution) -> tuple[int, float, str]:
    number = solution.number
    if number is None:
        return 3, 0.0, solution.key
    value = number.rational
    if value is None:
        return 2, abs(number.approximation), solution.key
    return int(value.denominator != 1), abs(float(value)) + value.denominator, solution.key


def _put_in(setting: Setting, meaning: SetMeaning, solution: Solution) -> str:
    """` (12 = 12)`, ` (7 ≠ 5)`, ` (undefined there)`: both sides with the value put in, where that can be shown."""
    if solution.number is None or meaning.statement or len(setting.field.letters) > 1:
        return ""
    if solution.number.rational is None and setting.plan is None:
        return ""
    try:
        exactly = Exactly(setting.plan or Plan(), {setting.unknown: solution.number})
        shown = ""
        for pair in meaning.pairs:
            left, right = exactly.value(pair.left_tree), exactly.value(pair.right_tree)
            if left is None or right is None:
                shown = shown or " (undefined there)"
            elif left == right:
                return f" ({_text(left)} = {_text(right)})"
            else:
                shown = shown or f" ({_text(left)} ≠ {_text(right)})"
    except ExactError:
        return ""
    return shown


def _text(value: Ratio) -> str:
    return plain(simplified_tree(value))


def _no_real_solution(before: SetMeaning, after: SetMeaning) -> Evidence | None:
    old, new = before.single, after.single
    if old is None or new is None:
        return None
    text = "Neither line has a real solution, but no step leads from one to the other: their complex solutions differ."
    return Evidence(text, {}, None, None)
