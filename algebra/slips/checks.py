"""Slips in a check: what was put in, the arithmetic after it, the sides that were looked at."""

from __future__ import annotations

from collections.abc import Iterator

from algebra.exact.errors import ExactError
from algebra.exact.evaluate.at_point import PointEvaluator
from algebra.exact.rational_functions import Ratio
from algebra.exact.writing import simplified_tree
from algebra.slips.slip import Sight, Slip
from algebra.slips.words import Words, said
from algebra.tree import nodes as n
from algebra.tree import statements as ln
from algebra.tree.diff import symbol_changes
from algebra.tree.substitute import substituted


class _Check:
    """A check taken apart: the candidate, the sides of the given, the sides that were written, their values."""

    def __init__(self, sight: Sight) -> None:
        subject, claim = sight.line.subject, sight.line.body
        assert isinstance(subject, ln.Equation)
        letter, self.value = subject.sides[0], subject.sides[1]
        self.letter = letter.name if isinstance(letter, n.Letter) else ""
        if isinstance(claim, ln.Comparison):
            self.written: tuple[n.Node, ...] = (claim.left, claim.right)
        elif isinstance(claim, ln.Equation):
            self.written = claim.sides
        else:
            self.written = () if claim is None or isinstance(claim, ln.STATEMENTS) else (claim,)
        self.exactly = PointEvaluator(sight.plan, {})
        value = self.exactly.value(self.value)
        if value is not None:
            self.exactly.cell.constants[self.letter] = value
        self.sides = _sides(sight.given)

    def of(self, tree: n.Node) -> Ratio | None:
        """The value of an expression of the check."""
        return self.exactly.value(tree)

    def ends(self) -> list[tuple[str, n.Node, n.Node]]:
        """(left or right, the side of the given, what was written for it)."""
        ends = [self.written[0], self.written[-1]] if len(self.written) > 1 else list(self.written)
        return list(zip(("left", "right"), self.sides, ends, strict=False))


def _sides(body: n.Node) -> tuple[n.Node, ...]:
    return body.sides[:2] if isinstance(body, ln.Equation) else (body,)


def _check_of(sight: Sight) -> _Check | None:
    if sight.line.kind != "check" or not isinstance(sight.line.subject, ln.Equation):
        return None
    try:
        return _Check(sight)
    except ExactError:
        return None


def _miscopied(sight: Sight) -> Iterator[Words]:
    check = _check_of(sight)
    if check is None:
        return
    for _, side, written in check.ends():
        try:
            if check.of(side) == check.of(written):
                continue
            put_in = _tidy(substituted(side, {n.Letter(check.letter): n.Group(check.value)}))
            found = symbol_changes(put_in, _tidy(written))
            if found is not None and len(found) == 1 and found[0].kind != "letter":
                yield said("{old} of the given became {new}", old=found[0].old, new=found[0].new)
                return
            for changed, term in _one_sign_changed(side):
                if check.of(changed) == check.of(written):
                    yield said(
                        "{side} was worked as {changed}: the sign of {term}", side=side, changed=changed, term=term
                    )
                    return
        except ExactError:
            continue


def _tidy(tree: n.Node) -> n.Node:
    """Without brackets and signs of products, so that two ways to write the same compare equal."""
    if isinstance(tree, n.Group):
        return _tidy(tree.child)
    tree = tree.with_children(tuple(_tidy(child) for child in tree.children))
    if isinstance(tree, n.Product):
        return n.Product(tree.factors, tuple("÷" if o == "÷" else "·" for o in tree.operators))
    if isinstance(tree, n.Sum):
        # a − (−b) and a + b are told apart, a + (−b) and a − b are not
        signs, terms = [], [tree.terms[0]]
        for sign, term in zip(tree.signs, tree.terms[1:], strict=True):
            if sign == "+" and isinstance(term, n.Signed) and term.sign == "-":
                sign, term = "-", term.child
            signs.append(sign)
            terms.append(term)
        return n.Sum(tuple(terms), tuple(signs))
    return tree


def _one_sign_changed(tree: n.Node) -> Iterator[tuple[n.Node, n.Node]]:
    """The tree with one sign of a sum turned over, and the term behind it."""
    for address, part in n.walk(tree):
        if not isinstance(part, n.Sum):
            continue
        for k, sign in enumerate(part.signs):
            if sign in "+-":
                other = "-" if sign == "+" else "+"
                signs = (*part.signs[:k], other, *part.signs[k + 1 :])
                changed = n.replaced(tree, address, n.Sum(part.terms, signs))
                yield changed, part.terms[k + 1]


def _one_side(sight: Sight) -> Iterator[Words]:
    """The sides written are those of a later line of the working, or only one of two was looked at."""
    check = _check_of(sight)
    if check is None or not check.written:
        return
    try:
        written = [check.of(side) for _, _, side in check.ends()]
        if len(written) < len(check.sides):
            yield said("the other side of the given was not looked at")
            return
        for body in sight.chain[1:]:
            sides = _sides(body)
            fits = isinstance(body, ln.Equation) and len(sides) == len(written) and check.letter in n.letters(body)
            if fits and [check.of(side) for side in sides] == written:
                yield said("the candidate was put into {line}, which is not the given", line=body)
                return
    except ExactError:
        return


def _arithmetic(sight: Sight) -> Iterator[Words]:
    check = _check_of(sight)
    if check is None or not check.written:
        return
    try:
        inner = list(zip(check.written, check.written[1:], strict=False)) if len(check.written) > 2 else []
        for left, right in inner:
            if n.letters(left) or n.letters(right) or check.of(left) == check.of(right):
                continue
            if check.of(left) in [check.of(side) for side in check.sides]:
                yield said("{left} is not {right}", left=left, right=right)
                return
        for word, side, written in check.ends():
            value = check.of(side)
            if value is not None and check.of(written) != value and isinstance(n.bare(written), n.Integer | n.Signed):
                words = "the " + word + " side comes to {value}, not {written}"
                yield said(words, value=simplified_tree(value), written=written)
                return
    except ExactError:
        return


SLIPS = (
    Slip(
        id="check-one-side",
        name="Checked one side, or in a later line",
        kind="procedure",
        topic="checks",
        done="{what}.",
        scope="seen",
        seen=_one_side,
        why="Only the given, with both its sides, tells whether a candidate solves it.",
        cue="Go back to the line you were given.",
        examples=(("√(x+6) = x", "x + 6 = x^2", "x = 3 or x = -2", "check x = -2: 4 = 4"),),
        innocent=(("√(x+6) = x", "check x = -2: 2 ≠ -2"),),
        lurks_in=("check-candidate",),
    ),
    Slip(
        id="check-miscopied",
        name="Put into something else",
        kind="care",
        topic="checks",
        done="{what}.",
        scope="seen",
        seen=_miscopied,
        why="The candidate has to go into the given, sign for sign.",
        cue="Copy the given once more, with empty brackets for x.",
        examples=(
            ("√(x+6) = x", "check x = 3: √(3-6) = 3"),
            ("2/(x-1) = x", "check x = 2: 2/(2+1) = 2"),
            ("x^2 + 3x = 10", "check x = 2: 2^2 - 3·2 = 10"),
        ),
        innocent=(("√(x+6) = x", "check x = 3: √(3+6) = 3"),),
        lurks_in=("check-candidate",),
    ),
    Slip(
        id="check-arithmetic",
        name="Worked the check out wrongly",
        kind="care",
        topic="checks",
        done="{what}.",
        scope="seen",
        seen=_arithmetic,
        why="What was put in is right; the number after it is not.",
        cue="Work each side out on a line of its own.",
        examples=(
            ("x^2 - 2x = 3", "check x = -1: (-1)^2 - 2(-1) = -1 = 3"),
            ("3x + 1 = 2x + 5", "check x = 4: 13 = 12"),
        ),
        innocent=(("x^2 - 2x = 3", "check x = -1: 1 + 2 = 3"),),
        lurks_in=("check-candidate",),
    ),
)
