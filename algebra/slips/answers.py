"""Slips that show where the answer, or what is excluded from it, is stated."""

from __future__ import annotations

from collections.abc import Iterator

from algebra.exact.algebraic_numbers import Number, roots_of
from algebra.exact.errors import ExactError
from algebra.exact.evaluate.symbolic import value_of
from algebra.exact.rational_functions import Ratio, field_of, integer_coefficients, irreducible_factors
from algebra.slips.parts import either, equals, is_zero
from algebra.slips.slip import Ending, Sight, Slip, Wrong
from algebra.slips.words import Words, listed, said
from algebra.tree import nodes as n
from algebra.tree import statements as ln


def _rejected(sight: Sight) -> Iterator[Words]:
    """A true solution that an earlier statement had is left out of this one."""
    if (
        sight.relation != "narrows"
        or not _states_values(sight.before)
        or not (_states_values(sight.line.body) or _none(sight.line.body))
    ):
        return
    wrongly = [value for value in sight.lost if value in sight.expected]
    if wrongly:
        yield said("{x} = {values} does solve the given", x=sight.unknown, values=" and ".join(wrongly))


def _states_values(body: n.Node | None) -> bool:
    """Whether a line names values of a letter that stands alone."""
    match body:
        case ln.Equation((left, right)):
            return isinstance(n.bare(left), n.Letter) and not n.letters(right)
        case ln.ValueList(left, _, _):
            return isinstance(n.bare(left), n.Letter)
        case ln.Alternatives(items):
            return all(_states_values(item) for item in items)
        case ln.SetOf():
            return True
    return False


def _none(body: n.Node | None) -> bool:
    return isinstance(body, ln.NoSolution)


def _zero_none(sight: Sight) -> Iterator[Words]:
    if not _none(sight.line.body) or sight.relation != "narrows":
        return
    if sight.expected == ("0",):
        yield said("{x} = 0 is a solution: 0 is a number", x=sight.unknown)
    elif sight.expected[:1] == ("all",):
        yield said("{equation} is true for every {x}", equation=sight.before, x=sight.unknown)


def _zero_foreseen(end: Ending) -> Iterator[Wrong]:
    if end.task != "solve":
        return
    if end.everything:
        yield ln.NoSolution(), said("the equation is true for every {x}", x=end.unknown)
    elif len(end.answer) == 1 and is_zero(end.answer[0]):
        yield ln.NoSolution(), said("{x} = 0 is a solution: 0 is a number", x=end.unknown)


def _kept_foreseen(end: Ending) -> Iterator[Wrong]:
    if end.task == "solve" and end.rejected:
        words = said("{x} = {values} does not solve the given", x=end.unknown, values=listed(list(end.rejected)))
        yield _stated(end.unknown, [*end.answer, *end.rejected]), words


def _rejected_foreseen(end: Ending) -> Iterator[Wrong]:
    """Of two solutions the negative one is thrown out."""
    negative = [value for value in end.answer if isinstance(value, n.Signed) and value.sign == "-"]
    if end.task == "solve" and not end.everything and len(end.answer) == 2 and len(negative) == 1:
        kept = [value for value in end.answer if value not in negative]
        words = said("{x} = {value} does solve the given", x=end.unknown, value=negative[0])
        yield _stated(end.unknown, kept), words


def _stated(unknown: str, values: list[n.Node]) -> n.Node:
    return either(equals(n.Letter(unknown), value) for value in values)


def _zeros(body: n.Node, letter: str, *, reduced: bool) -> set[Number]:
    """The zeros of the denominators of the given as written, or of its sides reduced."""
    found: set[Number] = set()
    field = field_of((letter,))
    for side in body.children if isinstance(body, ln.Equation) else (body,):
        value = value_of(side, field)
        polys = [value.ratio.denominator] if reduced else list(value.nonzero)
        for poly in irreducible_factors(polys).values():
            found |= set(roots_of(tuple(integer_coefficients(poly, letter))))
    return found


def _from_reduced(sight: Sight) -> Iterator[Words]:
    """The values stated as excluded are those of the reduced form, and a cancelled one is missing."""
    body = sight.line.body
    if isinstance(body, ln.Feature) and body.name == "domain":
        body = body.items[0]
    if isinstance(body, ln.AllReals):
        items: tuple[n.Node, ...] = body.exceptions
    elif isinstance(body, ln.Comparison | ln.ValueList) and body.operator == "≠":
        items = (body.right,) if isinstance(body, ln.Comparison) else body.items
    else:
        return
    letters = n.letters(sight.given)
    if len(letters) != 1:
        return
    letter = min(letters)
    try:
        field = field_of(())
        values = [value_of(item, field).ratio for item in items]
        everything, reduced = _zeros(sight.given, letter, reduced=False), _zeros(sight.given, letter, reduced=True)
    except ExactError:
        return
    missing = sorted(everything - reduced)
    if missing and _same(values, reduced):
        yield _cancelled(letter, missing)


def _same(values: list[Ratio], zeros: set[Number]) -> bool:
    stated = {value.constant for value in values}
    return None not in stated and stated == {zero.rational for zero in zeros}


def _reduced_foreseen(end: Ending) -> Iterator[Wrong]:
    if end.task not in ("domain", "analyze") or len(n.letters(end.given)) != 1:
        return
    letter = min(n.letters(end.given))
    try:
        everything, reduced = _zeros(end.given, letter, reduced=False), _zeros(end.given, letter, reduced=True)
    except ExactError:
        return
    cancelled = sorted(everything - reduced)
    if cancelled:
        values = tuple(_tree(v) for v in sorted(reduced))
        stated: n.Node = ln.ValueList(n.Letter(letter), values, "≠") if values else ln.AllReals()
        if end.task != "domain":
            stated = ln.Feature("domain", (stated,), plural=False, label="domain")
        yield stated, _cancelled(letter, cancelled)


def _tree(number: Number) -> n.Node:
    """The number as it is written; one without a form of its own by its letter."""
    return number.tree or n.Letter(str(number))


def _cancelled(letter: str, values: list[Number]) -> Words:
    text = ", ".join(map(str, values))
    return said("{x} = {values} was cancelled, but the given is undefined there", x=letter, values=text)


SLIPS = (
    Slip(
        id="extraneous-kept",
        of_verdict="extraneous",
        name="Kept an extraneous solution",
        kind="procedure",
        topic="rational and radical equations",
        done="{what}.",
        scope="seen",
        foreseen=_kept_foreseen,
        why="Squaring or clearing denominators lets in values that the given does not have.",
        cue="Put every candidate into the given.",
        examples=(("√(x+6) = x", "x + 6 = x^2", "x = 3 or x = -2"),),
        innocent=(("√(x+6) = x", "x + 6 = x^2", "x = 3 or x = -2", "x = 3"),),
        lurks_in=(
            "clear-denominators",
            "equate-numerators",
            "drop-excluded",
            "keep-what-solves",
            "square-both-sides",
            "root-never-negative",
        ),
        likely=4.0,
    ),
    Slip(
        id="valid-rejected",
        name="Threw a true solution out",
        kind="concept",
        topic="rational and radical equations",
        done="{what}.",
        scope="seen",
        seen=_rejected,
        foreseen=_rejected_foreseen,
        why="Negative numbers, fractions and 0 are solutions like any other; only the check decides.",
        cue="Does it fail in the given? If not, it stays.",
        examples=(("1/x = x/9", "x = ±3", "x = 3"), ("x^2 + x = 6", "x = 2 or x = -3", "x = 2")),
        innocent=(("1/x = x/9", "x = ±3"),),
        lurks_in=("drop-excluded", "keep-what-solves"),
        likely=2.2,
    ),
    Slip(
        id="zero-called-none",
        name="Called it no solution",
        kind="concept",
        topic="equations",
        done="{what}.",
        scope="seen",
        seen=_zero_none,
        foreseen=_zero_foreseen,
        why="“No solution” means that no number at all will do.",
        cue="Put 0 in, then another number: is it true?",
        examples=(("5x = 0", "no solution"), ("2x + 1 = 2x + 1", "0 = 0", "no solution")),
        innocent=(("5x = 0", "x = 0"), ("x + 1 = x", "no solution")),
        lurks_in=("identity", "contradiction"),
    ),
    Slip(
        id="excluded-from-reduced",
        name="Read excluded values from the reduced form",
        kind="concept",
        topic="rational expressions",
        done="{what}.",
        scope="seen",
        seen=_from_reduced,
        foreseen=_reduced_foreseen,
        why="A factor that cancels still makes the given 0/0.",
        cue="Set the denominator of the given to 0, before anything cancels.",
        example_task="domain",
        examples=(("(x-1)/((x-1)(x+3))", "x ≠ -3"), ("(x^2-4)/(x-2)", "all real numbers")),
        innocent=(("(x-1)/((x-1)(x+3))", "x ≠ 1, -3"),),
        lurks_in=("excluded-values", "state-domain", "denominator-zero", "intercepts"),
        likely=4.0,
    ),
)
