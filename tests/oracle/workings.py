"""Links drawn from a small language of its own: expressions, what is legally written next, and what is not.

Nothing here is shared with the core: the language has its own printer, and its own values at 50 digits. A legal
rewriting keeps the value by construction; what an illegal one comes to is for the numbers to say.
"""

from __future__ import annotations

import random
from collections.abc import Callable, Iterator
from fractions import Fraction

from mpmath import mp, mpc, mpf

DIGITS = 50
mp.dps = DIGITS
NEAR = mpf(10) ** -35
FAR = mpf(10) ** -12
Tree = tuple  # ("number", Fraction), ("letter", name), (operation, parts …)


def number(value) -> Tree:
    return ("number", Fraction(value))


def letter(name: str) -> Tree:
    return ("letter", name)


def text(tree: Tree) -> str:
    """The tree in the plain notation, with brackets around every part."""
    kind, *parts = tree
    match kind:
        case "number":
            value = parts[0]
            shown = str(value.numerator) if value.denominator == 1 else f"{value.numerator}/{value.denominator}"
            return shown if value >= 0 and value.denominator == 1 else f"({shown})"
        case "letter":
            return parts[0]
        case "power":
            return f"({text(parts[0])})^({parts[1]})"
        case "above":
            return f"{parts[0]}^({text(parts[1])})"
        case "root":
            return f"√({text(parts[0])})"
        case "bars":
            return f"|{text(parts[0])}|"
        case "minus":
            return f"(-({text(parts[0])}))"
    a, b = map(text, parts)
    return {"+": f"({a} + {b})", "-": f"({a} - {b})", "*": f"({a})·({b})", "/": f"({a})/({b})"}[kind]


def value(tree: Tree, at: dict):
    """The value at a point, real or, where `at` gives i a value, complex; None where it is undefined."""
    kind, *parts = tree
    if kind == "number":
        return mpf(parts[0].numerator) / parts[0].denominator
    if kind == "letter":
        return at[parts[0]]
    inner = [value(part, at) for part in parts if isinstance(part, tuple)]
    if None in inner:
        return None
    match kind:
        case "power":
            return None if inner[0] == 0 and parts[1] <= 0 else inner[0] ** parts[1]
        case "above":
            return mpf(parts[0]) ** inner[0]
        case "root":
            return None if isinstance(inner[0], mpf) and inner[0] < 0 and "i" not in at else mp.sqrt(inner[0])
        case "bars":
            return abs(inner[0])
        case "minus":
            return -inner[0]
    a, b = inner
    if kind == "/":
        return None if b == 0 else a / b
    return {"+": a + b, "-": a - b, "*": a * b}[kind]


def parts_of(tree: Tree) -> Iterator[tuple[tuple[int, ...], Tree]]:
    """Every part with its place."""
    yield (), tree
    for k, part in enumerate(tree[1:], start=1):
        if isinstance(part, tuple):
            for place, inner in parts_of(part):
                yield (k, *place), inner


def replaced(tree: Tree, place: tuple[int, ...], new: Tree) -> Tree:
    if not place:
        return new
    k, *rest = place
    return (*tree[:k], replaced(tree[k], tuple(rest), new), *tree[k + 1 :])


Rewriting = Callable[[Tree, random.Random], Tree | None]


def _legal(tree: Tree, rng: random.Random) -> Tree | None:
    """Another way to write the same value; None where none of these fits."""
    kind, *p = tree
    found: list[Tree] = []
    if kind in "+*":
        found.append((kind, p[1], p[0]))
    if kind == "-":
        found.append(("+", p[0], ("minus", p[1])))
    if kind == "*" and p[1][0] in "+-":
        found.append((p[1][0], ("*", p[0], p[1][1]), ("*", p[0], p[1][2])))
    if kind == "/" and p[0][0] in "+-":
        found.append((p[0][0], ("/", p[0][1], p[1]), ("/", p[0][2], p[1])))
    if kind == "power" and p[1] == 2 and p[0][0] in "+-":
        a, b = p[0][1:]
        found.append(("+", (p[0][0], ("power", a, 2), ("*", number(2), ("*", a, b))), ("power", b, 2)))
    if kind == "-" and p[0][0] == "power" == p[1][0] and p[0][2] == p[1][2] == 2:
        a, b = p[0][1], p[1][1]
        found.append(("*", ("+", a, b), ("-", a, b)))
    if kind == "root" and p[0][0] == "power" and p[0][2] == 2:
        found.append(("bars", p[0][1]))
    if kind == "bars":
        found.append(("root", ("power", p[0], 2)))
        found.append(("bars", ("minus", p[0])))
    if kind == "*" and p[0][0] == "above" == p[1][0] and p[0][1] == p[1][1]:
        found.append(("above", p[0][1], ("+", p[0][2], p[1][2])))
    if kind == "power" and p[0][0] == "above":
        found.append(("above", p[0][1], ("*", number(p[1]), p[0][2])))
    if kind == "/":
        k = number(rng.choice([2, 3, -1, 5]))
        found.append(("/", ("*", k, p[0]), ("*", k, p[1])))
    if kind == "number" and rng.random() < 0.5:
        k = Fraction(rng.randint(1, 6))
        found.append(("-", number(p[0] + k), number(k)))
    return rng.choice(found) if found else None


def _illegal(tree: Tree, rng: random.Random) -> Tree | None:
    """What students write in its place; by chance it may be right all the same."""
    kind, *p = tree
    found: list[Tree] = []
    if kind == "power" and p[1] == 2 and p[0][0] in "+-":
        found.append((p[0][0], ("power", p[0][1], 2), ("power", p[0][2], 2)))
    if kind == "root":
        found += [("root", ("minus", p[0]))] if rng.random() < 0.2 else []
        if p[0][0] in "+-":
            found.append((p[0][0], ("root", p[0][1]), ("root", p[0][2])))
        if p[0][0] == "power":
            found.append(p[0][1])
    if kind == "bars":
        found += [p[0], ("minus", p[0])]
    if kind == "/" and p[1][0] in "+-":
        found.append((p[1][0], ("/", p[0], p[1][1]), ("/", p[0], p[1][2])))
    if kind == "/" and p[0][0] in "+-":
        found.append((p[0][0], ("/", p[0][1], p[1]), p[0][2]))
    if kind == "*" and p[1][0] in "+-":
        found.append((p[1][0], ("*", p[0], p[1][1]), p[1][2]))
    if kind == "*" and p[0][0] == "above" == p[1][0]:
        found.append(("above", p[0][1], ("*", p[0][2], p[1][2])))
    if kind in "+-":
        found.append(("-" if kind == "+" else "+", p[0], p[1]))
    if kind == "-":
        found.append(("-", p[1], p[0]))
    if kind == "number":
        found.append(number(p[0] + rng.choice([-1, 1, 2])))
    if kind == "power":
        found.append(("power", p[0], p[1] + 1))
        found.append(("*", number(p[1]), p[0]))
    return rng.choice(found) if found else None


def rewritten(tree: Tree, rng: random.Random, how: Rewriting) -> Tree | None:
    """The tree with one part written in another way; None where nothing fits."""
    places = list(parts_of(tree))
    rng.shuffle(places)
    for place, part in places[:12]:
        new = how(part, rng)
        if new is not None and new != part:
            return replaced(tree, place, new)
    return None


def legally(tree: Tree, rng: random.Random) -> Tree | None:
    return rewritten(tree, rng, _legal)


def illegally(tree: Tree, rng: random.Random) -> Tree | None:
    return rewritten(tree, rng, _illegal)


def expression(rng: random.Random, depth: int, letters: str, kinds: str = "+-*/pbra") -> Tree:
    """A drawn expression; `kinds` are the operations: p power, r root, b bars, a letters above."""
    if depth == 0:
        return letter(rng.choice(letters)) if rng.random() < 0.6 else number(rng.randint(1, 7))
    kind = rng.choice(kinds)
    a = expression(rng, depth - 1, letters, kinds)
    match kind:
        case "p":
            return ("power", a, rng.choice([2, 2, 2, 3, -1]))
        case "r":
            return ("root", rng.choice([a, ("power", a, 2), ("+", ("power", a, 2), number(rng.randint(1, 4)))]))
        case "b":
            return ("bars", a)
        case "a":
            up = ("+", letter(letters[0]), number(rng.randint(0, 3)))
            return ("above", rng.choice([2, 3]), up)
    return (kind, a, expression(rng, rng.randint(0, depth - 1), letters, kinds))


def points(
    rng: random.Random, letters: str, count: int, *, positive: str = "", imaginary: bool = False
) -> Iterator[dict]:
    """Points with values that no one would choose; those of `positive` above 0."""
    for _ in range(count):
        at = {}
        for name in letters:
            size = mpf(rng.randint(10**8, 10**9)) / 10**8 * rng.choice([mpf("0.03"), mpf("0.3"), 1, 3, 20])
            at[name] = size if name in positive or rng.random() < 0.5 else -size
        yield at | ({"i": mpc(0, 1)} if imaginary else {})


def told_apart(before: Tree, after: Tree, at: list[dict]) -> bool | None:
    """Whether two expressions differ at one of the points; None where numbers can't say, or one is undefined where the
    other is not."""
    seen = 0
    for point in at:
        a, b = value(before, point), value(after, point)
        if (a is None) != (b is None):
            return None
        if a is None or b is None:
            continue
        seen += 1
        gap, size = abs(a - b), 1 + abs(a)
        if gap > FAR * size:
            return True
        if gap > NEAR * size:
            return None
    return False if seen >= 6 else None


def _plain(near):
    """A number that is plainly meant is taken for it, so that 0/0 is seen where it stands."""
    if not isinstance(near, mpf) or abs(near) > 10**6:
        return near
    meant = mp.nint(near * 720720) / 720720
    return meant if abs(near - meant) < NEAR else near


def roots(left: Tree, right: Tree, rng: random.Random) -> list:
    """Real solutions in x that are found from many starts, each to 40 digits."""

    def gap(x):
        a, b = value(left, {"x": mpf(x)}), value(right, {"x": mpf(x)})
        if a is None or b is None:
            raise ValueError
        return a - b

    found: list = []
    for start in [*range(-12, 13, 2), *(rng.uniform(-30, 30) for _ in range(4))]:
        try:
            near = mp.findroot(gap, mpf(start) + mpf("0.137"), tol=mpf(10) ** -70, maxsteps=60, verify=False)
            near = _plain(near)
            if (
                isinstance(near, mpf)
                and abs(gap(near)) < NEAR
                and abs(near) < 10**6
                and abs(gap(near + mpf(10) ** -20)) > NEAR
            ):
                found += [near] if all(abs(near - known) > FAR for known in found) else []
        except (ValueError, ZeroDivisionError, OverflowError, TypeError):
            continue
    return found


def solves(left: Tree, right: Tree, x) -> bool | None:
    """Whether a number solves an equation; None where it is too close to tell."""
    a, b = value(left, {"x": x}), value(right, {"x": x})
    if a is None or b is None:
        return False
    gap = abs(a - b)
    return True if gap < FAR**2 else False if gap > FAR else None
