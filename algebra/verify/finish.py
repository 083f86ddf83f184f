"""What is still to be done to an answer. One check is one function in the table `CHECKS`."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator
from math import gcd, prod

from algebra.exact.rational_functions import Poly, factored
from algebra.exact.writing import polynomial_tree
from algebra.reports.report import Remaining
from algebra.tree import nodes as n
from algebra.tree.plain import plain
from algebra.tree.vocabulary import FinishCode
from algebra.verify.evaluator import Evaluator
from algebra.verify.finish_parts import Finish, flat_factors, is_number, is_rational, primes, said
from algebra.verify.finish_roots import roots_left

Check = Callable[[Finish], Iterable[Remaining]]


def _is_prime_product(finish: Finish) -> bool:
    """Whether a number is written as its prime factors, where it is to be factored."""
    tree = n.bare(finish.tree)
    if finish.task != "factor" or not is_number(tree):
        return False
    factors = [f for _, f in flat_factors(tree)] if isinstance(tree, n.Product) else [tree]
    bases = [n.bare(f.base) if isinstance(f, n.Power) else f for f in factors]
    return all(isinstance(base, n.Integer) and list(primes(base.value)) == [base.value] for base in bases)


def arithmetic_left(finish: Finish) -> Iterator[Remaining]:
    """Numbers that are still to be added, multiplied or divided, and signs that are still to be joined."""
    if _is_prime_product(finish):
        return
    for address, node in finish.parts(n.Sum):
        numbers = [k for k, term in enumerate(node.children) if is_rational(term) and not _imaginary(finish, term)]
        if len(numbers) > 1:
            yield said("arithmetic-left", "Numbers are still to be added.", *((*address, k) for k in numbers))
        for k, term in enumerate(node.children):
            if k and isinstance(n.bare(term), n.Signed) and (isinstance(term, n.Signed) or len(numbers) < 2):
                yield said("arithmetic-left", "Two signs stand side by side.", (*address, k))
            if n.bare(term) == n.Integer(0) and len(numbers) == 1:
                yield said("arithmetic-left", "A term 0 need not be written.", (*address, k))
    for address, node in finish.parts(n.Product):
        assert isinstance(node, n.Product)
        if "÷" in node.operators:
            yield said("arithmetic-left", "A division is still to be carried out.", address)
        elif sum(is_rational(factor) for _, factor in flat_factors(node)) > 1:
            yield said("arithmetic-left", "Numbers are still to be multiplied.", address)
        signs = [k for k, factor in enumerate(node.factors) if isinstance(n.bare(factor), n.Signed)]
        if any(signs) and sum(is_rational(factor) for _, factor in flat_factors(node)) < 2:
            yield said("arithmetic-left", "A minus inside of a product is still to be put in front.", address)
        for k, factor in enumerate(node.factors):
            if n.bare(factor) in (n.Integer(0), n.Integer(1)):
                text = f"A factor {plain(n.bare(factor))} need not be written."
                yield said("arithmetic-left", text, (*address, k))
    for address, node in finish.parts(n.Fraction):
        if isinstance(n.bare(node.children[1]), n.Signed):
            yield said("arithmetic-left", "The minus below is still to be put in front.", (*address, 1))
    for address, node in finish.parts(n.Signed):
        if isinstance(n.bare(node.children[0]), n.Signed):
            yield said("arithmetic-left", "Two signs stand side by side.", address)


def bars_left(finish: Finish) -> Iterator[Remaining]:
    """Bars around a number, which has one value."""
    for address, node in finish.parts(n.Absolute):
        if is_number(node):
            yield said("arithmetic-left", f"{plain(node)} can be worked out.", address)
        elif _is_never_negative(n.bare(node.children[0])):
            yield said("arithmetic-left", f"{plain(n.bare(node.children[0]))} is never negative: no bars.", address)
        elif isinstance(n.bare(node.children[0]), n.Signed):
            yield said("arithmetic-left", f"The sign inside of {plain(node)} makes no difference.", address)


def _is_never_negative(node: n.Node) -> bool:
    return isinstance(node, n.Power) and isinstance(node.exponent, n.Integer) and node.exponent.value % 2 == 0


def mixed_numbers(finish: Finish) -> Iterator[Remaining]:
    """A mixed number whose fraction is not below 1, or not in lowest terms."""
    for address, node in finish.parts(n.Mixed):
        assert isinstance(node, n.Mixed)
        if node.numerator >= node.denominator:
            yield said("arithmetic-left", f"The fraction of {plain(node)} is not below 1.", address)
        elif gcd(node.numerator, node.denominator) > 1:
            yield said("not-lowest-terms", f"The fraction of {plain(node)} can be reduced.", address)


def powers_left(finish: Finish) -> Iterator[Remaining]:
    """Numeric powers of up to four digits, zero and negative exponents, a base that occurs twice, a power of a
    power."""
    leave = finish.context.working.convention("powers") == "leave" or _is_prime_product(finish)
    for address, node in finish.parts(n.Power):
        assert isinstance(node, n.Power)
        exponent = finish.ratio(node.exponent)
        number = exponent.constant if exponent else None
        if number is None:
            continue
        if number == 0:
            yield said("zero-exponent", f"{plain(node)} still holds the exponent 0.", address)
        elif number == 1:
            yield said("power-not-evaluated", f"The exponent 1 of {plain(node)} need not be written.", address)
        elif number < 0:
            yield said("negative-exponent", f"{plain(node)} still holds a negative exponent.", address)
        elif is_number(node) and not leave:
            value = finish.ratio(node)
            size = value.constant if value else None
            if size is not None and max(abs(size.numerator), size.denominator) < 10_000:
                yield said("power-not-evaluated", f"{plain(node)} can be worked out.", address)
        base = n.bare(node.base)
        if isinstance(base, n.Absolute) and number.denominator == 1 and number % 2 == 0:
            yield said("power-not-evaluated", f"The bars of {plain(node)} make no difference.", address)
        if not is_number(base) and isinstance(base, n.Power | n.Product | n.Fraction | n.Signed | n.Root):
            yield said("power-not-evaluated", f"The power of {plain(base)} is still to be carried out.", address)


def repeated_base(finish: Finish) -> Iterator[Remaining]:
    """Powers of one base that stand in a product and can be put together."""
    for address, node in finish.parts(n.Product):
        assert isinstance(node, n.Product)
        seen: dict[n.Node, n.Address] = {}
        powers: set[n.Node] = set()
        for place, factor in flat_factors(node, address):
            base = n.bare(factor.base if isinstance(factor, n.Power) else factor)
            raised = isinstance(factor, n.Power) and is_number(base) and bool(n.letters(factor.exponent))
            counts = isinstance(base, n.Letter | n.Unit) or raised
            if isinstance(factor, n.Power):
                powers.add(base)
            if base == n.Letter("i") and finish.context.complex:
                continue  # said with the powers of i
            if counts or (finish.task in ("simplify", "factor") and isinstance(base, n.Sum)):
                # (x + 1)(x + 1) is factored; beside a power it is one more of it
                if base in seen and (finish.task != "factor" or base in powers):
                    yield said("repeated-base", f"The base {plain(base)} occurs twice.", seen[base], place)
                seen.setdefault(base, place)


def like_terms(finish: Finish) -> Iterator[Remaining]:
    """Like terms of a sum that are not combined."""
    for address, node in finish.parts(n.Sum):
        seen: dict[object, int] = {}
        for k, term in enumerate(node.children):
            powers = _kind_of(finish, term)
            if powers is None:
                continue
            if powers in seen:
                places = ((*address, seen[powers]), (*address, k))
                terms = [plain(node.children[seen[powers]]), plain(term)]
                rooted = any(isinstance(part, n.Root) for part in n.parts_of(term))
                code: FinishCode = "like-radicals" if rooted else "like-terms"
                words = "like radicals" if rooted else "like terms"
                yield said(code, f"{terms[0]} and {terms[1]} are {words}.", *places)
            seen.setdefault(powers, k)


def _kind_of(finish: Finish, term: n.Node) -> object:
    """What like terms have in common: the powers of their letters and roots, or the same bars; None for a sum or a
    number."""
    if is_rational(term):
        return None
    if any(isinstance(part, n.Absolute) and n.letters(part) for part in n.parts_of(term)):
        bare = n.bare(term.children[0] if isinstance(term, n.Signed) else term)
        factors = bare.factors if isinstance(bare, n.Product) and "÷" not in bare.operators else (bare,)
        return tuple(sorted(plain(n.bare(f), tight=True) for f in factors if not is_rational(f)))
    ratio = finish.ratio(term)
    if ratio is None or not ratio.is_polynomial or len(ratio.numerator) != 1:
        return None
    return tuple(ratio.numerator.monoms()[0])


def _imaginary(finish: Finish, node: n.Node) -> bool:
    return finish.context.complex and "i" in n.letters(node)


def complex_left(finish: Finish) -> Iterator[Remaining]:
    """Powers of i, i in a denominator, brackets with i that are still to be multiplied out."""
    if not finish.context.complex:
        return
    for address, node in finish.parts(n.Power, n.Fraction, n.Product):
        if isinstance(node, n.Power) and n.bare(node.base) == n.Letter("i"):
            yield said("power-not-evaluated", f"{plain(node)} can be worked out.", address)
        elif isinstance(node, n.Fraction) and n.letters(node.denominator) == {"i"}:
            yield said("i-in-denominator", "An i still stands in the denominator.", address)
        elif n.letters(node) == {"i"} and _holds_sum_factor(node):
            yield said("not-expanded", f"{plain(node)} is still to be multiplied out.", address)
        elif isinstance(node, n.Product) and sum("i" in n.letters(factor) for factor in node.factors) > 1:
            yield said("repeated-base", f"{plain(node)} holds i more than once.", address)


def brackets_in_sum(finish: Finish) -> Iterator[Remaining]:
    """A bracket that must be multiplied out before like terms can be combined: 2(x + 3) + 4x."""
    below = {(*address, 1) for address, _ in finish.parts(n.Fraction)}
    for address, node in finish.parts(n.Sum):
        if any(address[:k] in below for k in range(1, len(address) + 1)):
            continue  # a denominator stays as it is
        for k, term in enumerate(node.children):
            inner = term.children[0] if isinstance(term, n.Signed) else term
            if _holds_sum_factor(inner) or isinstance(n.bare(inner), n.Sum):
                text = f"{plain(term)} is still to be multiplied out."
                yield said("not-expanded", text, (*address, k))


def not_expanded(finish: Finish) -> Iterator[Remaining]:
    """Brackets that are still to be multiplied out."""
    for address, node in finish.parts(n.Product, n.Power):
        if _holds_sum_factor(node):
            yield said("not-expanded", f"{plain(node)} is still to be multiplied out.", address)


def _holds_sum_factor(node: n.Node) -> bool:
    if isinstance(node, n.Power):
        return isinstance(n.bare(node.base), n.Sum)
    return isinstance(node, n.Product) and any(
        isinstance(n.bare(f.base if isinstance(f, n.Power) else f), n.Sum) for f in node.factors
    )


def _one_bar(product: n.Product) -> tuple[n.Node, n.Node] | None:
    """Top and bottom of 3x/4 or (x+1)(x-3)/(x+2): a slash takes one factor on each side, yet one reads one fraction."""
    *front, last = product.factors
    if not isinstance(last, n.Fraction) or any(isinstance(f, n.Fraction) for f in front) or product.operators[-1]:
        return None
    return n.Product((*front, last.numerator), product.operators), last.denominator


def lowest_terms(finish: Finish) -> Iterator[Remaining]:
    """Fractions whose top and bottom share a factor."""
    read_whole: set[n.Address] = set()
    for address, node in finish.parts(n.Product, n.Fraction):
        whole = _one_bar(node) if isinstance(node, n.Product) else (node.children[0], node.children[1])
        if whole is None or address in read_whole:
            continue
        if isinstance(node, n.Product):
            read_whole.add((*address, len(node.factors) - 1))
        top, bottom = finish.ratio(whole[0]), finish.ratio(whole[1])
        if top is None or bottom is None or not (top.is_polynomial and bottom.is_polynomial):
            continue
        if top.denominator != 1 or bottom.denominator != 1:
            continue
        common = top.numerator.gcd(bottom.numerator)
        if common != 1 and common != 0:
            shown = _poly_text(finish, common)
            yield said("not-lowest-terms", f"Top and bottom still share the factor {shown}.", address)
        elif bottom.numerator.is_one():
            yield said("not-lowest-terms", "A denominator 1 need not be written.", address)
    for address, node in finish.parts(n.Product):
        assert isinstance(node, n.Product)
        fractions = [f for _, f in flat_factors(node) if isinstance(f, n.Fraction)]
        mixed_in = bool(fractions) and any(n.letters(f) for f in fractions)
        if len(fractions) > 1 or (mixed_in and _one_bar(node) is None):
            yield said("uncombined-fractions", "The product of fractions is still to be written as one.", address)


def improper_fractions(finish: Finish) -> Iterator[Remaining]:
    """Where the convention asks for mixed numbers: 7/2 is to be written 3 1/2."""
    if finish.context.working.convention("fractions") != "mixed":
        return
    for address, node in finish.parts(n.Fraction):
        top, bottom = (n.bare(part) for part in node.children)
        if isinstance(top, n.Integer) and isinstance(bottom, n.Integer) and top.value > bottom.value > 1:
            yield said("improper-fraction", f"{plain(node)} is to be written as a mixed number.", address)


def uncombined_fractions(finish: Finish) -> Iterator[Remaining]:
    """Fractions of a sum that are to be one fraction."""
    for address, node in finish.parts(n.Sum):
        ratios = [finish.ratio(term) for term in node.children]
        if any(ratio is not None and not ratio.is_polynomial for ratio in ratios):
            yield said("uncombined-fractions", "Fractions are still to be joined over one denominator.", address)


def complex_fraction(finish: Finish) -> Iterator[Remaining]:
    """Fractions inside of a fraction; a letter that is set free may stand over one."""
    if finish.task == "solve" and n.letters(finish.tree):
        return
    for address, node in finish.parts(n.Fraction):
        for part in node.children:
            if any(isinstance(inner, n.Fraction) for inner in n.parts_of(part) if not isinstance(part, n.Power)):
                yield said("complex-fraction", "A fraction still stands inside a fraction.", address)
                break


def not_factored(finish: Finish) -> Iterator[Remaining]:
    """Every factor must be irreducible over the rationals; a common factor is named first."""
    yield from _fractions_in_factors(finish)
    for address, factor in _factors(finish.tree, ()):
        ratio = finish.ratio(factor)
        if ratio is None or ratio.numerator.is_constant():
            continue
        content, factors = factored(ratio.numerator)
        text = plain(n.bare(factor))
        if isinstance(n.bare(factor), n.Sum):
            monomials = [f for f, _ in factors if len(f) == 1]
            if (abs(int(content)) != 1 and ratio.denominator == 1) or monomials:
                yield said("common-factor", f"The terms of {text} still share a common factor.", address)
                continue
        if sum(power for _, power in factors) > 1 and not isinstance(n.bare(factor), n.Letter | n.Power):
            yield said("not-factored", f"{text} can be factored further.", address)


def _fractions_in_factors(finish: Finish) -> Iterator[Remaining]:
    """A number before a bracket that goes into the fractions in it: 6(x + 3/2) is 3(2x + 3)."""
    tree = n.bare(finish.tree)
    if not isinstance(tree, n.Product):
        return
    factors = list(flat_factors(tree))
    number = prod(f.value for _, f in factors if isinstance(f, n.Integer))
    for address, factor in factors:
        ratio = finish.ratio(factor) if isinstance(factor, n.Sum) else None
        if ratio is not None and ratio.is_polynomial and gcd(int(ratio.denominator.leading_coefficient()), number) > 1:
            yield said("common-factor", f"{number} goes into the fractions of {plain(factor)}.", address)


def _factors(node: n.Node, at: n.Address) -> Iterator[tuple[n.Address, n.Node]]:
    """The factors of a product as written, powers and brackets looked into."""
    match node:
        case n.Product(factors, _):
            for k, factor in enumerate(factors):
                yield from _factors(factor, (*at, k))
        case n.Power(base, _):
            yield from _factors(base, (*at, 0))
        case n.Signed(_, child) | n.Group(child):
            yield from _factors(child, (*at, 0))
        case n.Fraction(top, bottom) if not n.letters(bottom):
            yield from _factors(top, (*at, 0))
        case _:
            yield at, node


def _poly_text(finish: Finish, poly: Poly) -> str:
    return plain(polynomial_tree(poly, finish.context.field.letters))


_FRACTIONS: tuple[Check, ...] = (complex_fraction, lowest_terms)
CHECKS: dict[str, tuple[Check, ...]] = {
    "evaluate": (
        improper_fractions,
        mixed_numbers,
        bars_left,
        arithmetic_left,
        powers_left,
        roots_left,
        complex_left,
        like_terms,
        *_FRACTIONS,
    ),
    "simplify": (
        *_FRACTIONS,
        complex_left,
        mixed_numbers,
        bars_left,
        roots_left,
        uncombined_fractions,
        powers_left,
        repeated_base,
        like_terms,
        brackets_in_sum,
        arithmetic_left,
    ),
    "factor": (not_factored, repeated_base, powers_left, arithmetic_left),
    "expand": (not_expanded, complex_left, like_terms, repeated_base, powers_left, arithmetic_left, *_FRACTIONS),
    "solve": (
        improper_fractions,
        mixed_numbers,
        bars_left,
        complex_fraction,
        lowest_terms,
        powers_left,
        roots_left,
        complex_left,
        like_terms,
        arithmetic_left,
    ),
}
"""Which checks an answer has to pass, by task; of a `solve` each stated value."""


def remaining_in(evaluator: Evaluator, tree: n.Node, task: str, at: n.Address = ()) -> list[Remaining]:
    """What is left to do, each code once per place; addresses are given below `at`."""
    finish = Finish(evaluator, tree, task)
    found: dict[tuple[str, tuple[n.Address, ...]], Remaining] = {}
    for check in CHECKS.get(task, ()):
        for remaining in check(finish):
            places = tuple((*at, *address) for address in remaining.at)
            found.setdefault((remaining.code, places), Remaining(remaining.code, places, remaining.text))
    return list(found.values())
