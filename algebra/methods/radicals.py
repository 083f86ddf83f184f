"""Roots simplified, multiplied and added."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from fractions import Fraction as Q
from math import isqrt, lcm

from algebra.exact.algebraic_numbers import prime_factors
from algebra.exact.rational_functions import Ratio
from algebra.methods.paper import BRIEF, EVERY, NotThisWay, Paper, Problem
from algebra.methods.terms import fraction, number, shown, terms_of, wrapped
from algebra.reports.side_work import FactorTree
from algebra.tree import nodes as n
from algebra.tree.plain import plain

SIGNS = {2: "√", 3: "∛", 4: "∜"}


@dataclass(frozen=True, slots=True)
class RootTerm:
    """coefficient · √radicand with a whole radicand (1: the number alone), roots of one index."""

    coefficient: Q
    radicand: int = 1
    index: int = 2

    def times(self, other: RootTerm) -> RootTerm:
        if self.radicand != 1 and other.radicand != 1 and self.index != other.index:
            raise NotThisWay("Roots of different indices are multiplied.")
        index = self.index if self.radicand != 1 else other.index
        return RootTerm(self.coefficient * other.coefficient, self.radicand * other.radicand, index)

    def split(self) -> tuple[int, int]:
        """(a, b) with radicand = a^index · b and a as large as possible."""
        outside, inside = 1, 1
        for prime, power in prime_factors(self.radicand):
            outside *= int(prime) ** (int(power) // self.index)
            inside *= int(prime) ** (int(power) % self.index)
        return outside, inside

    def simplified(self) -> RootTerm:
        outside, inside = self.split()
        return RootTerm(self.coefficient * outside, inside, self.index)

    def text(self, root: str | None = None) -> str:
        tail = root or ("" if self.radicand == 1 else f"{SIGNS[self.index]}{self.radicand}")
        top, bottom = abs(self.coefficient.numerator), self.coefficient.denominator
        if not tail:
            body = number(abs(self.coefficient))
        else:
            body = ("" if top == 1 else str(top) + ("·" if tail[0].isdigit() else "")) + tail
            if bottom != 1:
                body = f"({body})/{bottom}" if top != 1 else f"{body}/{bottom}"
        return f"-{body}" if self.coefficient < 0 else body


def total(terms: Sequence[str]) -> str:
    text = ""
    for term in terms:
        text = term if not text else f"{text} - {term[1:]}" if term.startswith("-") else f"{text} + {term}"
    return text or "0"


def written(terms: Sequence[RootTerm]) -> str:
    return total([t.text() for t in terms if t.coefficient])


def like_combined(terms: Sequence[RootTerm]) -> list[RootTerm]:
    found: dict[tuple[int, int], RootTerm] = {}
    for t in terms:
        key = (t.radicand, t.index if t.radicand != 1 else 2)
        known = found.get(key)
        found[key] = RootTerm(t.coefficient + (known.coefficient if known else 0), t.radicand, t.index)
    kept = [t for t in found.values() if t.coefficient]
    return sorted(kept, key=lambda t: t.radicand != 1)


def expanded(problem: Problem, tree: n.Node) -> list[RootTerm]:
    """The terms after multiplying out, roots multiplied under one sign, nothing simplified yet."""
    match tree:
        case n.Group(child):
            return expanded(problem, child)
        case n.Signed(sign, child) if sign in "+-":
            return [
                RootTerm(-t.coefficient if sign == "-" else t.coefficient, t.radicand, t.index)
                for t in expanded(problem, child)
            ]
        case n.Sum():
            found: list[RootTerm] = []
            for sign, term in terms_of(tree):
                inner = expanded(problem, term)
                found += [
                    RootTerm(-t.coefficient if sign == "-" else t.coefficient, t.radicand, t.index) for t in inner
                ]
            return found
        case n.Product(factors, operators) if "÷" not in operators:
            result = [RootTerm(Q(1))]
            for factor in factors:
                other = expanded(problem, factor)
                result = [a.times(b) for a in result for b in other]
            return result
        case n.Power(base, n.Integer(power)) if 0 < power <= 6:
            inner = expanded(problem, base)
            result = [RootTerm(Q(1))]
            for _ in range(power):
                result = [a.times(b) for a in result for b in inner]
            return result
        case n.Root(radicand, index):
            value = problem.value(radicand).constant
            kind = 2 if index is None else index.value if isinstance(index, n.Integer) else 0
            if value is None or kind not in SIGNS or (value < 0 and kind % 2 == 0):
                raise NotThisWay("This root is not worked out here.")
            turned = -1 if value < 0 else 1
            size = abs(value)
            if size.denominator == 1:
                return [RootTerm(Q(turned), int(size), kind)]
            # √(a/b) = √(a·b^(k−1))/b
            return [RootTerm(Q(turned, size.denominator), int(size.numerator * size.denominator ** (kind - 1)), kind)]
        case n.Fraction(top, bottom):
            below = expanded(problem, bottom)
            if len(below) == 1 and below[0].radicand == 1:
                return [
                    RootTerm(t.coefficient / below[0].coefficient, t.radicand, t.index) for t in expanded(problem, top)
                ]
            raise NotThisWay("A root stands in the denominator.")
    value = problem.value(tree).constant
    if value is None:
        raise NotThisWay("Letters stand among the roots.")
    return [RootTerm(value)]


def has_roots(tree: n.Node) -> bool:
    """Whether a root sign occurs."""
    return any(isinstance(p, n.Root) for p in n.parts_of(tree))


def largest_square_factor(problem: Problem) -> Paper:
    """Products first, then the largest square factor out of every root, then like radicals."""
    return _simplified(problem, primes=False)


def prime_pairs(problem: Problem) -> Paper:
    """The same with every radicand written by primes, pairs going out."""
    return _simplified(problem, primes=True)


def _simplified(problem: Problem, *, primes: bool) -> Paper:
    if not has_roots(problem.body):
        raise NotThisWay("There are no roots.")
    if n.letters(problem.body):
        return _with_letters(problem, primes=primes)
    paper = Paper(problem)
    _quotients(paper)
    terms = expanded(problem, problem.with_given(paper.line).body)
    simplify_terms(paper, terms, primes=primes)
    return paper


def _quotients(paper: Paper) -> None:
    """A root of a fraction with a square below, as one root over the other."""
    body = n.bare(paper.problem.body)
    if not isinstance(body, n.Root) or body.index is not None or not isinstance(n.bare(body.radicand), n.Fraction):
        return
    value = paper.problem.value(body.radicand).constant
    if value is None or value <= 0:
        raise NotThisWay("A negative number stands under the root.")
    text = f"√({number(value)})"
    paper.write(text, "reduce-fraction", "the common number")
    below = isqrt(value.denominator)
    if below**2 != value.denominator:
        raise NotThisWay("The denominator is no square; rationalise it.")
    paper.write(f"√{value.numerator}/√{value.denominator}", "root-of-quotient", shown_at=EVERY)
    paper.write(f"√{value.numerator}/{below}", "root-of-square", f"√{value.denominator} = {below}", shown_at=BRIEF)
    paper.answer = [paper.line]


def simplify_terms(
    paper: Paper, terms: list[RootTerm], *, primes: bool = False, shape: str = "{}", divisor: int = 1
) -> None:
    """From multiplied-out terms to the end. `shape` is what stands around the sum, with {} for it."""
    body = paper.problem.with_given(paper.line).body

    def put(text: str) -> str:
        return shape.format(text)

    product = any(
        isinstance(p, n.Product | n.Power)
        and sum(has_roots(c) for c in p.children) > (0 if isinstance(p, n.Power) else 1)
        for p in n.parts_of(body)
    )
    opens = any(
        isinstance(p, n.Product | n.Power) and has_roots(p) and any(isinstance(n.bare(c), n.Sum) for c in p.children)
        for p in n.parts_of(body)
    )
    if product or opens:
        first = next(
            (p for p in n.parts_of(body) if isinstance(p, n.Product) and sum(has_roots(c) for c in p.children) > 1),
            body,
        )
        paper.write(put(written(terms)), "distribute-roots" if opens else "multiply-roots",
                    "each times each" if opens else f"{plain(first)}")  # fmt: skip
    splits = [t for t in terms if t.radicand != 1 and t.split()[0] != 1]
    if splits:
        texts = [t.text(_split_text(t, primes)) if t in splits else t.text() for t in terms if t.coefficient]
        what = ", ".join(dict.fromkeys(f"{t.radicand} = {_split_words(t, primes)}" for t in splits))
        work = [
            FactorTree(t.radicand, tuple(int(p) for p, k in prime_factors(t.radicand) for _ in range(int(k))))
            for t in splits
        ]
        paper.write(
            put(total(texts)), "prime-pairs" if primes else "largest-square-factor", what, side=work if primes else ()
        )
        done = [t.simplified() for t in terms]
        roots = ", ".join(dict.fromkeys(f"{SIGNS[t.index]}{t.split()[0] ** t.index} = {t.split()[0]}" for t in splits))
        apart = [t.text(_apart_text(t)) if t in splits else t.text() for t in terms if t.coefficient]
        paper.write(put(total(apart)), "root-of-product", shown_at=EVERY)
        paper.write(put(written(done)), "root-of-square", roots)
        terms = done
    combined = like_combined(terms)
    if len(combined) < len([t for t in terms if t.coefficient]):
        like = next((t for t in combined if t.radicand != 1), None)
        what = f"{like.text()}" if like else "numbers are added"
        paper.write(put(written(combined) or "0"), "combine-like-roots", what, shown_at=BRIEF if divisor == 1 else 1)
    _over_one_bar(paper, combined)


def _over_one_bar(paper: Paper, terms: list[RootTerm]) -> None:
    """The convention of one fraction: terms with denominators under one bar."""
    below = lcm(1, *(t.coefficient.denominator for t in terms))
    if below == 1 or len(terms) < 2 or "/" not in paper.line or paper.line.startswith("("):
        paper.answer = [paper.line]
        return
    top = written([RootTerm(t.coefficient * below, t.radicand, t.index) for t in terms])
    paper.write(fraction(top, str(below)), "one-fraction", shown_at=BRIEF)
    paper.answer = [paper.line]


def _split_words(t: RootTerm, primes: bool) -> str:
    outside, inside = t.split()
    if primes:
        return " · ".join(str(int(p)) for p, k in prime_factors(t.radicand) for _ in range(int(k)))
    return f"{outside**t.index} · {inside}" if inside != 1 else f"{outside}^{t.index}"


def _split_text(t: RootTerm, primes: bool) -> str:
    _outside, inside = t.split()
    if inside == 1 and not primes:
        return f"{SIGNS[t.index]}{t.radicand}"
    return f"{SIGNS[t.index]}({_split_words(t, primes).replace(' · ', '·')})"


def _apart_text(t: RootTerm) -> str:
    outside, inside = t.split()
    sign = SIGNS[t.index]
    return f"{sign}{outside**t.index}" + (f"·{sign}{inside}" if inside != 1 else "")


def _with_letters(problem: Problem, *, primes: bool) -> Paper:
    """Roots of monomials: numbers as above, letters by halving their exponents."""
    body = n.bare(problem.body)
    factors = body.factors if isinstance(body, n.Product) and "÷" not in body.operators else (body,)
    paper = Paper(problem)
    outside, radicands, index = problem.field.constant(1), [], 2
    for factor in factors:
        inner = n.bare(factor)
        if isinstance(inner, n.Root):
            index = 2 if inner.index is None else inner.index.value if isinstance(inner.index, n.Integer) else 0
            radicands.append(problem.value(inner.radicand))
        else:
            outside = outside * problem.value(inner)
    if index not in SIGNS or not radicands:
        raise NotThisWay("This root is not worked out here.")
    inside = problem.field.constant(1)
    for r in radicands:
        inside = inside * r
    if not inside.is_polynomial or len(inside.numerator) != 1 or inside.denominator != 1:
        raise NotThisWay("A sum stands under the root.")
    coefficient = int(inside.numerator.leading_coefficient())
    if coefficient < 0:
        raise NotThisWay("A negative number stands under the root.")
    sign = SIGNS[index]
    names = problem.field.names
    powers = dict(zip(names, (int(k) for k in inside.numerator.monoms()[0]), strict=True))
    if len(radicands) > 1:
        paper.write(_product_text(outside, f"{sign}({_mono(coefficient, powers)})"), "multiply-roots", "under one root")
    out_number, in_number = RootTerm(Q(1), coefficient, index).split()
    out_powers = {name: k // index for name, k in powers.items()}
    in_powers = {name: k % index for name, k in powers.items()}
    if out_number == 1 and not any(out_powers.values()):
        raise NotThisWay("The root is simplified already.")
    square = _mono(out_number**index, {name: k * index for name, k in out_powers.items()})
    rest = _mono(in_number, in_powers)
    if rest != "1":
        split = f"{sign}({square}·{rest})" if rest[0].isdigit() or square[-1] == rest[0] else f"{sign}({square}{rest})"
        paper.write(_product_text(outside, split), "prime-pairs" if primes else "largest-square-factor",
                    f"{square} is a perfect {'square' if index == 2 else 'power'}")  # fmt: skip
    bars = problem.convention("roots_of_letters") == "any-real" and index % 2 == 0
    pieces = [str(out_number)] if out_number != 1 else []
    for name, k in out_powers.items():
        if not k:
            continue
        body_text = name if k == 1 else f"{name}^{k}"
        # an even power that comes out is never negative; an odd one needs bars, unless the radicand keeps the letter
        lonely = bars and k % 2 and not in_powers[name]
        pieces.append(f"|{body_text}|" if lonely else body_text)
    root = "" if rest == "1" else f"{sign}{rest}" if len(rest) == 1 or rest.isdigit() else f"{sign}({rest})"
    words = f"{sign}({square}) = {''.join(pieces)}"
    if bars and any(p.startswith("|") for p in pieces):
        words += ": the root is never negative, so bars stay where the letter may be"
    paper.write(_product_text(outside, "".join(pieces) + root), "root-of-square", words, shown_at=BRIEF)
    paper.answer = [paper.line]
    return paper


def _product_text(outside: Ratio, text: str) -> str:
    if outside.constant == 1:
        return text
    if outside.constant == -1:
        return f"-{text}"
    if text[0].isdigit() or text[0].isalpha() or text[0] == "|":
        front = shown(outside)
        digits = len(text) - len(text.lstrip("0123456789"))
        if digits and outside.constant is not None:
            return f"{number(outside.constant * int(text[:digits]))}{text[digits:]}"
        return f"{wrapped(front)}·{text}" if text[0].isdigit() or front[-1] == text[0] else f"{wrapped(front)}{text}"
    return f"{wrapped(shown(outside))}{text}"


def _mono(coefficient: int, powers: dict[str, int]) -> str:
    text = "" if coefficient == 1 else str(coefficient)
    for name, k in powers.items():
        if k:
            text += name if k == 1 else f"{name}^{k}"
    return text or "1"
