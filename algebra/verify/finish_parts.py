"""What the checks of an answer share: the expression that is judged, its parts and factors, and what is said of it."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from functools import cached_property

from algebra.exact.errors import ExactError
from algebra.exact.rational_functions import Ratio
from algebra.reports.report import Remaining
from algebra.tree import nodes as n
from algebra.tree.vocabulary import FinishCode
from algebra.verify.context import Context
from algebra.verify.evaluator import Evaluator


@dataclass(frozen=True)
class Finish:
    """The expression to be judged, and in what context."""

    evaluator: Evaluator
    tree: n.Node
    task: str

    @property
    def context(self) -> Context:
        """The letters, conventions and field of the working."""
        return self.evaluator.context

    def ratio(self, node: n.Node) -> Ratio | None:
        """The value of a part; None where it has none, or where bars leave its form open."""
        if any(isinstance(part, n.Absolute) and n.letters(part) for part in n.parts_of(node)):
            return None
        try:
            return self.evaluator.value(node).ratio
        except ExactError:
            return None

    @cached_property
    def _walked(self) -> list[tuple[n.Address, n.Node]]:
        """Every part of the line, walked once for all checks."""
        return list(n.walk(self.tree))

    def parts(self, *kinds: type[n.Node]) -> Iterator[tuple[n.Address, n.Node]]:
        """Every part of the line of one of these kinds, with its address."""
        return ((address, node) for address, node in self._walked if isinstance(node, kinds))


def is_number(node: n.Node) -> bool:
    """Whether no letter occurs."""
    return not n.letters(node)


def is_rational(node: n.Node) -> bool:
    """Whether it is a number written without roots: those are not put together with others."""
    return is_number(node) and not any(isinstance(part, n.Root) for part in n.parts_of(node))


def said(code: FinishCode, text: str, *at: n.Address) -> Remaining:
    """That something is left to do, and at which places."""
    return Remaining(code, at, text)


def flat_factors(product: n.Product, at: n.Address = ()) -> Iterator[tuple[n.Address, n.Node]]:
    """The factors of a product, those of a bracket that holds a product or a power too: 2x(3x) has four."""
    for k, factor in enumerate(product.factors):
        place, inner = (*at, k), factor
        while isinstance(inner, n.Group):
            place, inner = (*place, 0), inner.child
        if isinstance(inner, n.Product) and "÷" not in inner.operators and inner is not factor:
            yield from flat_factors(inner, place)
        else:
            yield (*at, k), inner


def primes(number: int) -> Iterator[int]:
    """The prime factors of a number, each as often as it occurs; what is left of a large one as it is."""
    prime = 2
    while prime * prime <= number and prime < 2000:
        while number % prime == 0:
            yield prime
            number //= prime
        prime += 1
    if number > 1:
        yield number
