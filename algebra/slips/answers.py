"""Slips that show where the answer, or what is excluded from it, is stated."""

from __future__ import annotations

from collections.abc import Iterator

from algebra.exact.algebraic_numbers import Number, roots_of
from algebra.exact.errors import ExactError
from algebra.exact.evaluate.symbolic import value_of
from algebra.exact.rational_functions import Ratio, field_of, integer_coefficients, irreducible_factors
from algebra.slips.slip import Ending, Sight, Slip, Wrong
from algebra.tree import nodes as n
from algebra.tree import statements as ln
from algebra.tree.plain import plain


def _rejected(sight: Sight) -> Iterator[str]:
    """A true solution that an earlier statement had is left out of this one."""
    if (
        sight.relation != "narrows"
        or not _states_values(sight.before)
        or not (_states_values(sight.line.body) or _none(sight.line.body))
    ):
        return
    wrongly = [value for value in sight.lost if value in sight.expected]
    if wrongly:
        yield f"{sight.unknown} = {' and '.join(wrongly)} does solve the given"


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


def _zero_none(sight: Sight) -> Iterator[str]:
    if not _none(sight.line.body) or sight.relation != "narrows":
        return
    if sight.expected == ("0",):
        yield f"{sight.unknown} = 0 is a solution: 0 is a number"
    elif sight.expected[:1] == ("all",):
        yield f"{plain(sight.before)} is true for every {sight.unknown}"


def _zero_foreseen(end: Ending) -> Iterator[Wrong]:
    if end.task == "solve" and end.answer == ("0",):
        yield "no solution", f"{end.unknown} = 0 is a solution: 0 is a number"
    elif end.task == "solve" and end.answer[:1] == ("all",):
        yield "no solution", f"the equation is true for every {end.unknown}"


def _kept_foreseen(end: Ending) -> Iterator[Wrong]:
    if end.task == "solve" and end.rejected:
        values = [value for value in end.answer if value != "no solution"]
        yield (
            _stated(end.unknown, [*values, *end.rejected]),
            f"{end.unknown} = {' and '.join(end.rejected)} does not solve the given",
        )


def _rejected_foreseen(end: Ending) -> Iterator[Wrong]:
    """Of two solutions the negative one is thrown out."""
    negative = [value for value in end.answer if value.startswith("-")]
    if end.task == "solve" and len(end.answer) == 2 and len(negative) == 1:
        kept = [value for value in end.answer if value not in negative]
        yield _stated(end.unknown, kept), f"{end.unknown} = {negative[0]} does solve the given"


def _stated(unknown: str, values: list[str]) -> str:
    return " or ".join(f"{unknown} = {value}" for value in values)


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


def _from_reduced(sight: Sight) -> Iterator[str]:
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
    except (ExactError, KeyError):
        return
    missing = sorted(everything - reduced, key=lambda v: v.approximation.real)
    if missing and _same(values, reduced):
        yield f"{letter} = {', '.join(map(str, missing))} was cancelled, but the given is undefined there"


def _same(values: list[Ratio], zeros: set[Number]) -> bool:
    stated = {value.constant for value in values}
    return None not in stated and stated == {zero.rational for zero in zeros}


def _reduced_foreseen(end: Ending) -> Iterator[Wrong]:
    if end.task != "domain" or len(n.letters(end.given)) != 1:
        return
    letter = min(n.letters(end.given))
    try:
        everything, reduced = _zeros(end.given, letter, reduced=False), _zeros(end.given, letter, reduced=True)
    except (ExactError, KeyError):
        return
    cancelled = sorted(everything - reduced, key=lambda v: v.approximation.real)
    if cancelled:
        values = sorted(reduced, key=lambda v: v.approximation.real)
        text = f"{letter} ≠ {', '.join(map(str, values))}" if values else "all real numbers"
        yield text, f"{letter} = {', '.join(map(str, cancelled))} was cancelled, but the given is undefined there"


SLIPS = (
    Slip(
        id="extraneous-kept", name="Kept an extraneous solution", kind="procedure", topic="rational and radical equations", done="{what}.", scope="seen",
        foreseen=_kept_foreseen, why="Squaring or clearing denominators lets in values that the given does not have.", cue="Put every candidate into the given.",
        examples=(("√(x+6) = x", "x + 6 = x^2", "x = 3 or x = -2"),),
    ),
    Slip(
        id="valid-rejected", name="Threw a true solution out", kind="concept", topic="rational and radical equations", done="{what}.", scope="seen",
        seen=_rejected, foreseen=_rejected_foreseen, why="Negative numbers, fractions and 0 are solutions like any other; only the check decides.",
        cue="Does it fail in the given? If not, it stays.", examples=(("1/x = x/9", "x = ±3", "x = 3"), ("x^2 + x = 6", "x = 2 or x = -3", "x = 2")),
    ),
    Slip(
        id="zero-called-none", name="Called it no solution", kind="concept", topic="equations", done="{what}.", scope="seen", seen=_zero_none,
        foreseen=_zero_foreseen, why="“No solution” means that no number at all will do.", cue="Put 0 in, then another number: is it true?",
        examples=(("5x = 0", "no solution"), ("2x + 1 = 2x + 1", "0 = 0", "no solution")),
    ),
    Slip(
        id="excluded-from-reduced", name="Read excluded values from the reduced form", kind="concept", topic="rational expressions", done="{what}.",
        scope="seen", seen=_from_reduced, foreseen=_reduced_foreseen, why="A factor that cancels still makes the given 0/0.",
        cue="Set the denominator of the given to 0, before anything cancels.", example_task="domain",
        examples=(("(x-1)/((x-1)(x+3))", "x ≠ -3"), ("(x^2-4)/(x-2)", "all real numbers")),
    ),
)  # fmt: skip
