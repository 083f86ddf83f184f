"""Side work: what one puts on paper beside a line. One record for each kind, told apart by `kind`."""

from __future__ import annotations

from typing import Literal

from algebra.records import record


@record(frozen=True)
class ProductSum:
    """The search for two numbers with a product and a sum: `tried` are (first, second, their sum); `pair` is None where
    none fits."""

    product: int
    sum: int
    tried: tuple[tuple[int, int, int], ...]
    pair: tuple[int, int] | None
    diamond: bool = True
    kind: Literal["product-sum"] = "product-sum"


@record(frozen=True)
class AreaGrid:
    """A two by two box: `across` and `down` are the terms of the factors, `areas` their products by rows."""

    across: tuple[str, str]
    down: tuple[str, str]
    areas: tuple[tuple[str, str], tuple[str, str]]
    pair: tuple[int, int]
    kind: Literal["area-grid"] = "area-grid"


@record(frozen=True)
class FactorTree:
    """A whole number taken apart into its primes, the smallest first."""

    number: int
    primes: tuple[int, ...]
    kind: Literal["factor-tree"] = "factor-tree"


@record(frozen=True)
class SquareTest:
    """Is a trinomial the square of a + b? `middle` is what stands there, `needed` what would have to."""

    a: str
    b: str
    middle: str
    needed: str
    fits: bool
    kind: Literal["square-test"] = "square-test"


@record(frozen=True)
class SlideDivide:
    """Slide and divide: `slid` is x² + bx + ac, then its factors, these divided by a, and the denominators slid in
    front."""

    a: int
    slid: str
    factors: tuple[str, str]
    divided: tuple[str, str]
    result: tuple[str, str]
    kind: Literal["slide-divide"] = "slide-divide"


@record(frozen=True)
class CommonDenominator:
    """The LCD, and of expressions what each denominator lacks: `rows` are (denominator, what it lacks)."""

    lcd: str
    denominators: tuple[str, ...]
    rows: tuple[tuple[str, str], ...] = ()
    kind: Literal["lcd"] = "lcd"


@record(frozen=True)
class Box:
    """The box that completes a square: half of the coefficient `of`, and the square of it."""

    half: str
    square: str
    of: str
    kind: Literal["box"] = "box"


@record(frozen=True)
class QuadraticCoefficients:
    """What is read off for the quadratic formula."""

    a: str
    b: str
    c: str
    kind: Literal["formula"] = "formula"


@record(frozen=True)
class Balance:
    """Both sides of an equation and what is done to them; it tips when that is done to one only."""

    left: str
    right: str
    move: str
    kind: Literal["balance"] = "balance"


@record(frozen=True)
class Ladder:
    """What was done to the unknown, and how it is undone from the bottom up, starting from the other side."""

    unknown: str
    do: tuple[str, ...]
    undo: tuple[str, ...]
    start: str
    kind: Literal["ladder"] = "ladder"


@record(frozen=True)
class Counters:
    """Signed whole numbers as counters, and what they come to."""

    terms: tuple[int, ...]
    total: int
    kind: Literal["counters"] = "counters"


@record(frozen=True)
class SyntheticDivision:
    """Division by x − root (W. G. Horner's scheme): the coefficients, what is carried, and the row below."""

    root: str
    top: tuple[str, ...]
    carried: tuple[str, ...]
    bottom: tuple[str, ...]
    kind: Literal["synthetic"] = "synthetic"


@record(frozen=True)
class DivisionRow:
    """One step of a long division: the term of the quotient, what is subtracted for it, what is left."""

    term: str
    subtract: str
    rest: str


@record(frozen=True)
class LongDivision:
    """A long division of polynomials."""

    dividend: str
    divisor: str
    quotient: tuple[str, ...]
    rows: tuple[DivisionRow, ...]
    kind: Literal["long-division"] = "long-division"


@record(frozen=True)
class Candidate:
    """A candidate put in: what that claims, and whether it holds."""

    value: str
    claim: str
    holds: bool
    kind: Literal["candidate"] = "candidate"


SideWork = (
    ProductSum
    | AreaGrid
    | FactorTree
    | SquareTest
    | SlideDivide
    | CommonDenominator
    | Box
    | QuadraticCoefficients
    | Balance
    | Ladder
    | Counters
    | SyntheticDivision
    | LongDivision
    | Candidate
)
