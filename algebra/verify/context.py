"""What the lines of a working are evaluated in: its letters, its unknown, its number system, the field of their
values."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from dataclasses import field as of_default
from fractions import Fraction as Q

from algebra import limits
from algebra.exact.decomposition import plan_of
from algebra.exact.generators import SPARE, Plan
from algebra.exact.plus_minus import variants
from algebra.exact.radical_field import RadicalField
from algebra.exact.rational_functions import Field, Poly, depends_on, field_of, text_of
from algebra.exact.solve.polynomial import PolynomialSolver
from algebra.reports.working import EXPRESSION_TASKS, TaskError, Working
from algebra.tree import nodes as n
from algebra.tree import statements as ln
from algebra.tree.shapes import is_root_difference
from algebra.tree.substitute import substituted
from algebra.tree.survey import surveyed
from algebra.verify.assumptions import Assumptions, assumptions_of

TOO_MANY_LETTERS = f"More than {limits.MAX_LETTERS} different letters occur."


@dataclass(slots=True)
class Context:
    """The setting of one working.

    `letters` are those of the given; `plan` says which roots and exponents occur, None where rational functions
    suffice; `home` is then the one field in which the forms of all lines are compared (verdicts are made on cells);
    `explains` says whether evidence is looked for.
    """

    working: Working
    given: ln.Line
    unknown: str
    letters: list[str]
    field: Field
    plan: Plan | None
    home: RadicalField | None
    solver: PolynomialSolver
    assumed: Assumptions
    holds_signs: bool
    explains: bool = True
    definitions: dict[n.Node, n.Node] = of_default(default_factory=dict)
    signed_definitions: bool = False
    _given_trees: list[n.Node] | None = None

    @property
    def complex(self) -> bool:
        """Whether the numbers are complex."""
        return self.working.numbers == "complex"

    @property
    def stays_real(self) -> bool:
        """Whether the unknown is a real number though numbers are complex: it stands under a root, in bars or above."""
        return self.complex and not self.solver.complex_too

    @property
    def names(self) -> tuple[str, ...]:
        """The letters of the field of values."""
        return self.field.letters

    @property
    def unknown_letter(self) -> n.Letter:
        """The unknown as a node."""
        return n.Letter(self.unknown)

    def filled(self, tree: n.Node) -> n.Node:
        """The tree with every defined letter replaced by what it stands for."""
        return substituted(tree, self.definitions) if self.definitions else tree

    def variants(self, tree: n.Node) -> list[n.Node]:
        """The tree once for every choice of its ± signs."""
        return variants(tree) if self.holds_signs else [tree]

    def chosen(self, tree: n.Node) -> list[n.Node]:
        """The tree once for every choice of its ± signs, also of those in what its letters stand for."""
        if self.signed_definitions:
            return self.variants(self.filled(tree))
        return self.variants(
            tree
        )  # definitions put into each other can be long: they are put in when they are evaluated

    def given_trees(self) -> list[n.Node]:
        """The sides of the given, one tree for each choice of its ± signs; the same objects at every call."""
        if self._given_trees is None:
            body = self.given.body
            sides = () if body is None else body.children if isinstance(body, ln.STATEMENTS) else (body,)
            self._given_trees = [tree for side in sides for tree in self.variants(side)]
        return self._given_trees

    @property
    def rationalises_numerator(self) -> bool:
        """Whether roots above the bar of the given are to be brought below."""
        return self.given.body is not None and is_root_difference(self.given.body)

    def isolates(self, body: ln.Equation) -> bool:
        """Whether the unknown stands alone on one side and not at all on the other."""
        for alone, other in ((body.sides[0], body.sides[-1]), (body.sides[-1], body.sides[0])):
            bare = n.bare(alone)
            if isinstance(bare, n.Letter) and bare.name == self.unknown:
                return self.unknown not in n.letters(self.filled(other))
        return False

    def holds_unknown(self, poly: Poly) -> bool:
        """Whether the unknown occurs in a polynomial, be it under a root or in an exponent."""
        home = self.home
        if depends_on(poly, self.unknown) or home is None:
            return depends_on(poly, self.unknown)
        degrees, place = poly.degrees(), home.position(self.unknown)
        return any(degrees[made.position] and place in home.letters_inside(made) for made in home.made.values())

    def can_vanish(self, poly: Poly) -> bool:
        """Whether a factor holds the unknown and may be zero: a power of a positive number is not."""
        if not self.holds_unknown(poly):
            return False
        home = self.home
        if home is None or len(poly) > 1:
            return True
        degrees = poly.degrees()
        powers = [made.position for made in home.made.values() if made.prime]
        return any(degree and place not in powers for place, degree in enumerate(degrees))

    def has_roots(self, body: n.Node) -> bool:
        """Whether a line holds roots, bars, or letters in exponents."""
        return self.plan is not None and self.needs_cells([self.filled(body)])

    def needs_cells(self, trees: list[n.Node]) -> bool:
        """Whether these trees hold more than rational functions."""
        occurs = surveyed(trees)
        if occurs.roots or (self.complex and "i" in occurs.letters):
            return True
        return occurs.exponents and plan_of(trees, imaginary=False) is not None

    @property
    def has_plain_square_roots(self) -> bool:
        """Whether what was last read holds square roots of one letter, each of which settles the sign of what is in
        it."""
        plan, home = self.plan, self.home
        if plan is None or home is None or self.complex or len(self.field.letters) != 1:
            return False
        return (plan.index, plan.step) == (2, 1) and not home.joint and not home.not_real


def context_of(working: Working, given: ln.Line, lines: list[ln.Line], *, spare: int = SPARE) -> Context:
    """The context of a working whose lines have been read. Raises TaskError when the unknown can't be told.

    `spare` is how many generators for roots and powers the field keeps ready.
    """
    imaginary = working.numbers == "complex"
    trees = [] if given.body is None else [given.body]
    of_given = surveyed(trees)
    given_letters = frozenset(of_given.letters) - ({"i"} if imaginary else frozenset())
    defined: set[str] = set()
    for line in lines:
        trees += _trees_of(line)
        if line.kind == "definition" and isinstance(line.subject, ln.Equation):
            defined.add(next(iter(n.letters(line.subject.sides[0]))))
    of_lines = surveyed(trees[1:] if given.body is not None else trees)
    letters = of_given.letters | of_lines.letters
    if len(letters) > limits.MAX_LETTERS:
        raise TaskError(TOO_MANY_LETTERS)
    unknown = _unknown(working, given_letters)
    needs_cells = imaginary or of_given.asks_for_more or of_lines.asks_for_more
    plan = plan_of(trees, imaginary=imaginary, spare=spare) if needs_cells else None
    if imaginary:
        letters -= {"i"}
    # a letter of the given keeps its own meaning; defining it is refused at its line
    names = tuple(sorted((letters - (defined - given_letters)) | {unknown}))
    over = field_of(names)
    sample = {name: Q(3 + k) for k, name in enumerate(names)}
    assumed = assumptions_of(working, over, given_letters, lines)
    signs = {text_of(poly): sign for poly, sign in assumed.bounds}
    return Context(
        working,
        given,
        unknown,
        sorted(given_letters),
        over,
        plan,
        RadicalField(names, plan, sample, signs, formal=True) if plan else None,
        PolynomialSolver(
            over, unknown, complex_too=imaginary and not _asks_for_real(given, unknown), signs=assumed.signs
        ),
        assumed,
        of_given.signs or of_lines.signs,
    )


def letters_of(lines: Iterable[ln.Line]) -> frozenset[str]:
    """The letters that occur in these lines, in their remarks on moves too."""
    return frozenset(surveyed(tree for line in lines for tree in _trees_of(line)).letters)


def _trees_of(line: ln.Line) -> list[n.Node]:
    """What a line states of numbers; nothing for one with empty boxes."""
    if line.kind == "open":
        return []
    operand = line.move.operand if line.move else None
    return [tree for tree in (line.body, line.subject, line.restriction, operand) if tree is not None]


def _asks_for_real(given: ln.Line, unknown: str) -> bool:
    """Whether the unknown stands under a root, in bars or in an exponent: such equations are about real numbers."""
    parts = () if given.body is None else n.parts_of(given.body)
    return any(
        unknown in n.letters(part if isinstance(part, n.Root | n.Absolute) else part.exponent)
        or (isinstance(part, n.Power) and unknown in n.letters(part.base) and type(n.bare(part.exponent)) is n.Fraction)
        for part in parts
        if isinstance(part, n.Root | n.Absolute | n.Power)
    )


def _unknown(working: Working, letters: frozenset[str]) -> str:
    if working.variable:
        return working.variable
    if working.task in EXPRESSION_TASKS or len(letters) <= 1:
        return next(iter(sorted(letters)), "x")
    raise TaskError("Several letters occur: name the one to solve for.")
