"""Slips that concern a line as a whole. They are found by looking at both lines, not by trying a rewriting."""

from __future__ import annotations

from collections.abc import Iterator

from algebra.exact.errors import ExactError
from algebra.exact.evaluate.at_point import PointEvaluator
from algebra.slips.slip import Sight, Slip
from algebra.slips.words import Words, said
from algebra.tree import nodes as n
from algebra.tree import statements as ln


def _equals_lost(sight: Sight) -> Iterator[Words]:
    if isinstance(sight.before, ln.Equation) and sight.line.kind == "expression" and sight.line.body is not None:
        yield said("{line} has no equals sign any more", line=sight.line.body)


def _run_on(sight: Sight) -> Iterator[Words]:
    """`3·4 = 12 + 5 = 17`: each side goes on from the value of the one before it."""
    body = sight.line.body
    if not isinstance(body, ln.Equation) or isinstance(sight.before, ln.STATEMENTS) or n.letters(body):
        return
    exactly = PointEvaluator(sight.plan, {})
    try:
        values = [exactly.value(side) for side in body.sides]
        if values[-1] != exactly.value(sight.before):
            return
        for side, following, value in zip(body.sides, body.sides[1:], values, strict=False):
            start = _start(following)
            if start is not None and exactly.value(start) == value and exactly.value(following) != value:
                words = "{side} is {value}, not {following}: the next step was joined to the same equals sign"
                yield said(words, side=side, value=start, following=following)
                return
    except ExactError:
        return


def _start(node: n.Node) -> n.Node | None:
    """What a sum or product begins with."""
    bare = n.bare(node)
    return bare.children[0] if isinstance(bare, n.Sum | n.Product | n.Fraction | n.Power) else None


def _solved(sight: Sight) -> Iterator[Words]:
    """An expression set equal to a number, or its zeros stated."""
    body = sight.line.body
    if sight.task in ("solve", "domain", "analyze") or isinstance(sight.before, ln.STATEMENTS):
        return
    items = body.items if isinstance(body, ln.Alternatives) else (body,)
    letters = n.letters(sight.before)
    for item in items:
        if not isinstance(item, ln.Equation) or len(item.sides) != 2 or not letters:
            return
        left, right = (n.bare(side) for side in item.sides)
        if isinstance(left, n.Letter) and left.name in letters and not n.letters(right):
            if not (_is_zero_of(sight, left.name, right) or _is_value_of(sight, right)):
                return
        elif right != n.Integer(0) or not n.letters(left):
            return
    yield said("{before} is an expression: nothing says that it is 0", before=sight.before)


def _is_zero_of(sight: Sight, letter: str, value: n.Node) -> bool:
    """Whether the value makes the expression, or what stands over its bar, zero."""
    tree = n.bare(sight.given)
    top = tree.numerator if isinstance(tree, n.Fraction) else tree
    if n.letters(top) != {letter}:
        return False
    exactly = PointEvaluator(sight.plan, {})
    try:
        number = exactly.value(value)
        if number is None:
            return False
        exactly.cell.constants[letter] = number
        found = exactly.value(top)
        return found is not None and found.is_zero
    except ExactError:
        return False


def _is_value_of(sight: Sight, value: n.Node) -> bool:
    """Whether the expression is this number, whatever its letters are."""
    exactly = PointEvaluator(sight.plan, {})
    try:
        number = exactly.value(value)
        for at in (7, 11):
            somewhere = exactly.value(n.Integer(at))
            if somewhere is None:
                return False
            exactly.cell.constants.update(dict.fromkeys(n.letters(sight.given), somewhere))
            found = exactly.value(sight.given)
            if number is None or found is None or not (found - number).is_zero:
                return False
    except ExactError:
        return False
    return True


SLIPS = (
    Slip(
        id="equals-lost",
        name="Lost the equals sign",
        kind="notation",
        topic="equations",
        done="{what}.",
        scope="seen",
        seen=_equals_lost,
        why="An equation goes on as an equation; an expression alone claims nothing.",
        cue="Is there still an equals sign?",
        examples=(("3x - 12 = 0", "x - 4"),),
        innocent=(("3x - 12 = 0", "x - 4 = 0"),),
        lurks_in=("substitute-back",),
    ),
    Slip(
        id="run-on-equals",
        name="Ran on after the equals sign",
        kind="notation",
        topic="any",
        done="{what}.",
        scope="seen",
        seen=_run_on,
        why="An equals sign joins equals; what comes next needs a line of its own.",
        cue="Read it aloud: is the left really the right?",
        examples=(("3·4 + 5", "3·4 = 12 + 5 = 17"), ("2(7 - 3) + 6", "7 - 3 = 4·2 = 8 + 6 = 14")),
        innocent=(("3·4 + 5", "12 + 5 = 17"),),
    ),
    Slip(
        id="expression-solved",
        name="Solved an expression",
        kind="concept",
        topic="rational expressions",
        done="{what}.",
        scope="seen",
        seen=_solved,
        why="There is no equation to solve: an expression has a value for every x.",
        cue="Is there an equals sign in the task?",
        examples=(("(x^2-1)/(x+1)", "x = 1"), ("x^2 - 5x + 6", "(x - 2)(x - 3) = 0")),
        innocent=(("(x^2-1)/(x+1)", "x - 1"),),
    ),
    Slip(
        id="copied-wrongly",
        miscopied=True,
        name="Copied wrongly",
        kind="care",
        topic="any",
        done="{what}.",
        scope="seen",
        why="Nothing else was done to the line.",
        cue="Compare with the line above, sign by sign.",
        examples=(("2x + 5 = 11", "2x + 3 = 11"),),
        innocent=(("2x + 5 = 11", "2x + 5 = 11"),),
    ),
    Slip(
        id="arithmetic",
        name="A number worked out wrongly",
        kind="care",
        topic="any",
        done="{what}.",
        scope="seen",
        why="Everything else fits.",
        cue="Work this one fact out again.",
        examples=(("7·8 + 1", "54 + 1"),),
        innocent=(("7·8 + 1", "56 + 1"),),
    ),
)
"""The last two are found where the whole line is compared, once nothing else explains it."""
