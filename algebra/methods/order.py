"""Numbers worked out in the order of operations, one rank a line (or one operation, at the finest grain)."""

from __future__ import annotations

from dataclasses import dataclass
from fractions import Fraction as Q
from math import gcd, lcm

from algebra import limits
from algebra.exact.algebraic_numbers import whole_root
from algebra.methods.terms import number
from algebra.methods.worked_lines import BOARD, BRIEF, EVERY, NotThisWay, Problem, WorkedLines
from algebra.reports.side_work import Counters
from algebra.tree import build
from algebra.tree import nodes as n

RANKS = {"power": 3, "mixed": 4, "divide": 2, "multiply": 2, "reduce": 2, "lcd": 1, "add": 1}


def literal(node: n.Node) -> Q | None:
    """The number a node is written as, when nothing is left to be worked out; else None."""
    match node:
        case n.Integer(value):
            return Q(value)
        case n.Decimal():
            return node.value
        case n.Group(child):
            return literal(child)
        case n.Signed("-", child):
            inner = literal(child)
            return None if inner is None or isinstance(child, n.Signed) else -inner
        case n.Fraction(n.Integer(top), n.Integer(bottom)) if bottom:
            return Q(top, bottom)
    return None


def _reduced(node: n.Node) -> bool:
    bare = n.bare(node)
    if isinstance(bare, n.Signed):
        bare = n.bare(bare.child)
    if (
        isinstance(bare, n.Fraction)
        and isinstance(bare.numerator, n.Integer)
        and isinstance(bare.denominator, n.Integer)
    ):
        return gcd(bare.numerator.value, bare.denominator.value) == 1 and bare.denominator.value != 1
    return True


Finer = tuple[n.Node, str, str | n.Node]
"""What stands in the place of an operation while it is worked out, the rule and its words."""


@dataclass(frozen=True, slots=True)
class Operation:
    """One operation whose operands are numbers: where, of what rank, what it becomes, and in words.

    `finer` is what is written in its place on the way, at the finest grain only.
    """

    at: n.Address
    kind: str
    new: n.Node
    rule: str
    what: str | n.Node
    side: tuple[Counters, ...] = ()
    finer: tuple[Finer, ...] = ()


def order_of_operations(problem: Problem) -> WorkedLines:
    """Works a numeric expression out. Raises NotThisWay where letters or roots of other numbers occur."""
    if n.letters(problem.body):
        raise NotThisWay("Letters occur.")
    paper = WorkedLines(problem)
    body = problem.body
    decimals = any(isinstance(part, n.Decimal) for part in n.parts_of(body))
    for _ in range(limits.MAX_TOKENS):
        ready = list(_ready(body, decimals))
        if not ready:
            break
        chosen = _next_rank(body, ready)
        # tidied only after the line, so that the addresses of its operations stay valid
        for k, operation in enumerate(chosen):
            held = operation.kind in ("add", "multiply") and _in_brackets(body, operation.at)
            for new, rule, what in operation.finer:
                paper.write(tidy(n.replaced(body, operation.at, new)), rule, what, shown_at=EVERY)
            body = n.replaced(body, operation.at, operation.new)
            paper.write(
                tidy(body),
                "work-inside-brackets" if held and operation.rule in _HELD else operation.rule,
                operation.what,
                shown_at=BOARD if k == len(chosen) - 1 else EVERY,
                side=operation.side,
            )
        body = tidy(body)
    value = literal(body)
    if value is None:
        raise NotThisWay("Something here is not worked out by the order of operations.")
    paper.answer = [body]
    _mixed_at_the_end(paper, problem, value)
    return paper


def _mixed_at_the_end(paper: WorkedLines, problem: Problem, value: Q) -> None:
    if problem.convention("fractions") != "mixed" or isinstance(n.bare(paper.line), n.Decimal):
        return
    if value.denominator == 1 or abs(value) < 1:
        return
    whole, rest = divmod(abs(value.numerator), value.denominator)
    mixed = build.minus_if(value < 0, n.Mixed(whole, rest, value.denominator))
    part = number(Q(rest, value.denominator))
    told = build.equation(number(abs(value)), build.sum_of([n.Integer(whole), part]))
    paper.write(mixed, "mixed-number", told, shown_at=BRIEF)
    paper.answer = [mixed]


_HELD = frozenset({"add-and-subtract", "multiply-and-divide"})
"""The rules that are not a matter of rank where brackets say what comes first."""


def _in_brackets(body: n.Node, at: n.Address) -> bool:
    """Whether brackets stand around a place; those around the whole of a numerator or denominator are its bar."""
    around = [n.at(body, at[:k]) for k in range(len(at))]
    return any(
        isinstance(node, n.Group) and not (k and isinstance(around[k - 1], n.Fraction)) for k, node in enumerate(around)
    )


def _depth(body: n.Node, at: n.Address) -> int:
    """How many brackets, bars and roots hold a place together."""
    count, node = 0, body
    for position in at:
        count += isinstance(node, n.Group | n.Absolute | n.Root)
        node = node.children[position]
    return count + isinstance(node, n.Group)


def _next_rank(body: n.Node, ready: list[Operation]) -> list[Operation]:
    """The operations of the next line: the innermost brackets first, there the highest rank."""
    deepest = max(_depth(body, op.at) for op in ready)
    inner = [op for op in ready if _depth(body, op.at) == deepest]
    rank = max(RANKS[op.kind] for op in inner)
    same = sorted((op for op in inner if RANKS[op.kind] == rank), key=lambda op: op.at)
    # of two that lie in each other the inner one comes first
    return [op for op in same if not any(other is not op and other.at[: len(op.at)] == op.at for other in same)]


def _ready(body: n.Node, decimals: bool) -> list[Operation]:
    found: list[Operation] = []
    for at, node in n.walk(body):
        operation = _operation(at, node, decimals)
        if operation is not None and not (operation.kind == "reduce" and _waits(body, at)):
            found.append(operation)
    return found


def _waits(body: n.Node, at: n.Address) -> bool:
    """Whether a fraction is a term of a sum of numbers, which is added first."""
    for k in range(len(at) - 1, -1, -1):
        parent = n.at(body, at[:k])
        if isinstance(parent, n.Sum):
            return all(literal(term) is not None for term in parent.terms)
        if not isinstance(parent, n.Group | n.Signed):
            return False
    return False


def _result(value: Q, decimals: bool) -> n.Node:
    if decimals:
        for places in range(12):
            if (value * 10**places).denominator == 1:
                if places == 0:
                    break
                digits = str(abs(int(value * 10**places))).rjust(places + 1, "0")
                node: n.Node = n.Decimal(f"{digits[:-places]}.{digits[-places:]}")
                return n.Signed("-", node) if value < 0 else node
    return number(value)


def _operation(at: n.Address, node: n.Node, decimals: bool) -> Operation | None:
    match node:
        case n.Mixed(whole, top, bottom) if bottom:
            new = n.Fraction(n.Integer(whole * bottom + top), n.Integer(bottom))
            return Operation(at, "mixed", new, "improper-fraction", build.equation(node, new))
        case n.Power(base, exponent):
            return _power(at, node, literal(base), literal(exponent), decimals)
        case n.Root(radicand, index):
            return _root(at, node, literal(radicand), 2 if index is None else int(literal(index) or 0))
        case n.Absolute(child):
            value = literal(child)
            if value is not None and _reduced(child):
                told = build.equation(node, number(abs(value)))
                return Operation(at, "power", _result(abs(value), decimals), "evaluate-bars", told)
        case n.Signed("-", n.Group(n.Signed("-", inner))) if literal(inner) is not None:
            return Operation(at, "add", inner, "join-signs", "")
        case n.Signed("+", inner) if literal(inner) is not None:
            return Operation(at, "add", inner, "join-signs", "")
        case n.Product():
            return _product(at, node, decimals)
        case n.Sum():
            return _sum(at, node, decimals)
        case n.Fraction():
            return _fraction(at, node, decimals)
    return None


def _power(at: n.Address, node: n.Node, base: Q | None, exponent: Q | None, decimals: bool) -> Operation | None:
    if (
        base is None
        or exponent is None
        or exponent.denominator != 1
        or abs(exponent) > 64
        or (base == 0 and exponent <= 0)
    ):
        return None
    value = base ** int(exponent)
    told = build.equation(node, number(value))
    finer: list[Finer] = []
    if exponent < 0 and not decimals:
        turned = build.quotient(build.ONE, build.power(number(base), int(-exponent)))
        finer = [
            (turned if base.denominator == 1 else build.power(number(1 / base), int(-exponent)), "evaluate-power", told)
        ]
    base = 1 / base if exponent < 0 else base
    if base.denominator != 1 and abs(base.numerator) != 1 and abs(exponent) > 1 and not decimals:
        both = [build.power(number(Q(part)), int(abs(exponent))) for part in base.as_integer_ratio()]
        finer.append((build.quotient(both[0], both[1]), "evaluate-power", told))
    finer = [one for one in finer if one[0] != _result(value, decimals)]
    return Operation(at, "power", _result(value, decimals), "evaluate-power", told, finer=tuple(finer))


def _root(at: n.Address, node: n.Node, value: Q | None, index: int) -> Operation | None:
    if value is None or index < 2 or (value < 0 and index % 2 == 0):
        return None
    top, bottom = whole_root(abs(value.numerator), index), whole_root(value.denominator, index)
    if top is None or bottom is None:
        raise NotThisWay("A root here is no rational number.")
    result = number(Q(top, bottom) * (-1 if value < 0 else 1))
    return Operation(at, "power", result, "evaluate-root", build.equation(node, result))


def _product(at: n.Address, node: n.Product, decimals: bool) -> Operation | None:
    values = [literal(factor) for factor in node.factors]
    if None in values:
        return None
    numbers = [v for v in values if v is not None]
    fractions = any(v.denominator != 1 for v in numbers) and not decimals
    if "÷" in node.operators:
        k = node.operators.index("÷")
        divisor = numbers[k + 1]
        if divisor == 0:
            raise NotThisWay("It divides by zero.")
        if (fractions and k == 0) or (fractions and divisor.denominator != 1):
            flipped = number(1 / divisor)
            factors = (*node.factors[: k + 1], flipped if divisor > 0 else n.Group(flipped), *node.factors[k + 2 :])
            operators = (*node.operators[:k], "·", *node.operators[k + 1 :])
            return Operation(at, "divide", n.Product(factors, operators), "divide-by-fraction", node.factors[k + 1])
    total = numbers[0]
    finer: list[Finer] = []
    for k, (operator, value) in enumerate(zip(node.operators, numbers[1:], strict=True)):
        if operator == "÷" and value == 0:
            raise NotThisWay("It divides by zero.")
        before, total = total, total / value if operator == "÷" else total * value
        left, result = _result(before, decimals), _result(total, decimals)
        rest = node.factors[k + 2 :]
        both = before.denominator != 1 and value.denominator != 1 and not decimals
        rule = "multiply-fractions" if both else "multiply-and-divide"
        words = build.equation(n.Product((build.factor(left), node.factors[k + 1]), (operator or "·",)), result)
        if fractions and operator != "÷" and total:
            finer += [(_goes_on(one, node, k), rule, words) for one in _fractions_multiplied(before, value)]
        if rest:
            finer.append((_goes_on(result, node, k), rule, words))
    told = build.equation(node, _result(total, decimals))
    rule = "multiply-fractions" if fractions and sum(v.denominator != 1 for v in numbers) > 1 else "multiply-and-divide"
    return Operation(at, "multiply", _result(total, decimals), rule, told, finer=tuple(finer))


def _goes_on(head: n.Node, node: n.Product, done: int) -> n.Node:
    """The product with its first factors put together as `head`."""
    rest = node.factors[done + 2 :]
    return n.Product((head, *rest), tuple(op or "·" for op in node.operators[done + 1 :])) if rest else head


def _fractions_multiplied(first: Q, second: Q) -> list[n.Node]:
    """3/7·4/3 as (3·4)/(7·3), then as 12/21, where that can be reduced."""
    minus = (first < 0) != (second < 0)
    tops = [n.Integer(abs(v.numerator)) for v in (first, second)]
    bottoms = [n.Integer(v.denominator) for v in (first, second) if v.denominator != 1]
    if not bottoms:  # of two whole numbers beside a fraction nothing is multiplied below
        return []
    both = n.Fraction(
        n.Product(tuple(tops), ("·",)), n.Product(tuple(bottoms), ("·",)) if len(bottoms) > 1 else bottoms[0]
    )
    top, bottom = tops[0].value * tops[1].value, first.denominator * second.denominator
    found: list[n.Node] = [both] if n.Integer(1) not in tops or len(bottoms) > 1 else []
    if gcd(top, bottom) > 1:
        found.append(n.Fraction(n.Integer(top), n.Integer(bottom)))
    return [build.minus_if(minus, one) for one in found]


def _sum(at: n.Address, node: n.Sum, decimals: bool) -> Operation | None:
    values = [literal(term) for term in node.terms]
    if None in values or any("±" in sign for sign in node.signs):
        return None
    signed = [v for v in values if v is not None]
    bottoms = [_written_bottom(term) for term in node.terms]
    common = lcm(*bottoms)
    total = signed[0]
    for sign, value in zip(node.signs, signed[1:], strict=True):
        total = total - value if sign == "-" else total + value
    if not decimals and common > 1 and set(bottoms) != {common}:
        for k, (term, value, bottom) in enumerate(zip(node.terms, signed, bottoms, strict=True)):
            if bottom > 1 and value.denominator == 1:  # 8 + 12/4: a quotient of whole numbers that comes out
                told = build.equation(term, number(value))
                return Operation((*at, k), "divide", _result(value, decimals), "multiply-and-divide", told)
        terms = tuple(_over(value, common) for value in signed)
        widened = tuple(
            _widened(term, value, bottom, common // bottom)
            for term, value, bottom in zip(node.terms, signed, bottoms, strict=True)
        )
        way: tuple[Finer, ...] = ((n.Sum(widened, node.signs), "common-denominator-numbers", str(common)),)
        return Operation(at, "lcd", n.Sum(terms, node.signs), "common-denominator-numbers", str(common), finer=way)
    if not decimals and common > 1:
        tops = [int(v * common) for v in signed]
        top = tops[0] + sum(-t if s == "-" else t for s, t in zip(node.signs, tops[1:], strict=True))
        new: n.Node = n.Fraction(n.Integer(abs(top)), n.Integer(common)) if top else n.Integer(0)
        joined = build.quotient(
            build.sum_of(
                build.signed(s, n.Integer(t)) if t >= 0 else build.signed(s, n.Signed("-", n.Integer(-t)))
                for s, t in zip(("+", *node.signs), tops, strict=True)
            ),
            n.Integer(common),
        )
        finer = ((joined, "add-fractions", ""),)
        return Operation(at, "add", n.Signed("-", new) if top < 0 else new, "add-fractions", "", finer=finer)
    told = build.equation(node, _result(total, decimals))
    steps: list[Finer] = []
    for k in range(1, len(signed) - 1):
        so_far = n.Sum(node.terms[: k + 1], node.signs[:k])
        value = sum((-v if s == "-" else v for s, v in zip(node.signs[:k], signed[1 : k + 1], strict=True)), signed[0])
        left = build.sum_of([_result(value, decimals)]) if k < len(signed) - 1 else so_far
        words = build.equation(so_far, _result(value, decimals))
        steps.append((n.Sum((left, *node.terms[k + 1 :]), node.signs[k:]), "add-and-subtract", words))
    return Operation(
        at, "add", _result(total, decimals), "add-and-subtract", told, _counters(node, signed, total), tuple(steps)
    )


def _counters(node: n.Sum, values: list[Q], total: Q) -> tuple[Counters, ...]:
    """Signed counters for a short sum with a negative number in it: pairs of opposite counters cancel."""
    signed = [values[0], *(-v if s == "-" else v for s, v in zip(node.signs, values[1:], strict=True))]
    if any(v.denominator != 1 or abs(v) > 12 for v in signed) or all(v >= 0 for v in signed):
        return ()
    return (Counters(tuple(int(v) for v in signed), int(total)),)


def _written_bottom(term: n.Node) -> int:
    bare = n.bare(term)
    if isinstance(bare, n.Signed):
        bare = n.bare(bare.child)
    if isinstance(bare, n.Fraction) and isinstance(bare.denominator, n.Integer):
        return bare.denominator.value
    return 1


def _widened(term: n.Node, value: Q, bottom: int, scale: int) -> n.Node:
    """3/7 with both its parts times 2: (3·2)/(7·2)."""
    if scale == 1:
        return term
    top = n.Product((n.Integer(int(abs(value) * bottom)), n.Integer(scale)), ("·",))
    below = n.Integer(scale) if bottom == 1 else n.Product((n.Integer(bottom), n.Integer(scale)), ("·",))
    node: n.Node = n.Fraction(top, below)
    return n.Group(n.Signed("-", node)) if value < 0 else node


def _over(value: Q, bottom: int) -> n.Node:
    node: n.Node = n.Fraction(n.Integer(abs(int(value * bottom))), n.Integer(bottom))
    return n.Group(n.Signed("-", node)) if value < 0 else node


def _fraction(at: n.Address, node: n.Fraction, decimals: bool) -> Operation | None:
    top, bottom = literal(node.numerator), literal(node.denominator)
    if top is None or bottom is None:
        return None
    if bottom == 0:
        raise NotThisWay("It divides by zero.")
    whole = isinstance(node.numerator, n.Integer) and isinstance(node.denominator, n.Integer)
    value = top / bottom
    if whole:
        if _reduced(node):
            return None
        common = gcd(int(top), int(bottom))
        shown = n.Fraction(
            *(n.Product((n.Integer(common), n.Integer(int(v) // common)), ("·",)) for v in (top, bottom))
        )
        finer = ((shown, "reduce-fraction", str(common)),) if 1 < common < min(abs(top), bottom) else ()
        return Operation(at, "reduce", _result(value, decimals), "reduce-fraction", str(common), finer=finer)
    if top.denominator == bottom.denominator == 1:  # signs or brackets around whole numbers
        size: n.Node = n.Fraction(n.Integer(abs(int(top))), n.Integer(abs(int(bottom))))
        if not _reduced(size):
            size = _result(abs(value), decimals)
        return Operation(
            at,
            "reduce",
            n.Signed("-", size) if value < 0 else size,
            "multiply-and-divide",
            build.equation(node, number(value)),
        )
    return Operation(at, "divide", _result(value, decimals), "divide-by-fraction", node.denominator)


def tidy(node: n.Node) -> n.Node:
    """The tree with the brackets that a number needs where it stands, and no others."""
    children = tuple(tidy(child) for child in node.children)
    match node:
        case n.Group():
            inner = children[0]
            return inner if isinstance(inner, n.Integer | n.Decimal) else node.with_children(children)
        case n.Product():
            placed = [_factor(child, first=k == 0) for k, child in enumerate(children)]
            operators = tuple(
                "·" if op == "" and isinstance(new, n.Integer | n.Decimal | n.Fraction) else op
                for op, new in zip(node.operators, placed[1:], strict=True)
            )
            return n.Product(tuple(placed), operators)
        case n.Sum():
            return n.Sum(tuple(_term(c, first=k == 0) for k, c in enumerate(children)), node.signs)
        case n.Power():
            base = children[0]
            needs = not isinstance(base, n.FACTOR_LIKE) or isinstance(base, n.Power)
            exponent = children[1]
            lone = isinstance(exponent, n.Group) and isinstance(exponent.child, n.Integer)
            return n.Power(
                n.Group(base) if needs else base, exponent.child if lone and isinstance(exponent, n.Group) else exponent
            )
        case n.Fraction():
            parts = [c if isinstance(c, n.FACTOR_LIKE) else n.Group(c) for c in children]
            return n.Fraction(parts[0], parts[1])
        case n.Root():
            inner = children[0]
            radicand = inner if isinstance(inner, n.FACTOR_LIKE) and not isinstance(inner, n.Power) else n.Group(inner)
            return n.Root(radicand, node.index)
        case n.Signed():
            child = children[0]
            return n.Signed(node.sign, n.Group(child) if isinstance(child, n.Sum | n.Signed) else child)
    return node.with_children(children) if children else node


def _factor(child: n.Node, *, first: bool) -> n.Node:
    if isinstance(child, n.Group) and isinstance(child.child, n.Fraction):
        return child.child
    if isinstance(child, n.Sum) or (isinstance(child, n.Signed) and not first):
        return n.Group(child)
    return child


def _term(child: n.Node, *, first: bool) -> n.Node:
    if isinstance(child, n.Group) and isinstance(child.child, n.Fraction):
        return child.child
    if isinstance(child, n.Group) and isinstance(child.child, n.Signed) and first:
        return child.child
    if isinstance(child, n.Sum) or (isinstance(child, n.Signed) and not first):
        return n.Group(child)
    return child
