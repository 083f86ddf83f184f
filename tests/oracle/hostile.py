"""Inputs made to be hard: deep, wide, with huge numbers, many roots and letters, and some that are no mathematics at
all."""

from __future__ import annotations

import random

from algebra import Working

LETTERS = "xyabctkmnpqr"
WORDS = [
    "no solution",
    "all real numbers",
    "x ≠ 2",
    "prime",
    "check x = 2",
    "check x = √(2+√3): 2 = 2",
    "let u = x^2 + 1",
    "x ≈ 1.5",
    "LCD = x(x-2)",
    "assume: a > b",
    "aside: √4 = 2",
    "x = 1 or x = 2",
    "{1, √2}",
    "x = ±√(3±√5)",
    "u = 3",
    "domain: x ≠ 1, 2",
    "hole: (1, 2)",
    "x → ∞, y → 0",
    "x = 1  x = 5",
    "□ + x = 3",
    "x ∈ ℝ, x ≠ 2",
    "vertical asymptotes: x = 1, -1",
    "As x → ∞, f(x) → 3",
    "Prime",
    "(6/2)^2 = 9",
]
JUNK = "xy√∛|^(){}[]/÷·=±≠≈²³⁻½∞→□#\\\ud800\x00 ,.;:'\"0123456789abfrcsqt"
TASKS = ["solve", "simplify", "factor", "expand", "evaluate", "domain", "analyze"]


class Hostile:
    """Draws inputs from the grammar itself; the same seed draws the same."""

    def __init__(self, seed: int) -> None:
        self.rng = random.Random(seed)
        self.letters = "x"

    def number(self) -> str:
        draw = self.rng.random()
        if draw < 0.6:
            return str(self.rng.randint(0, 12))
        if draw < 0.75:
            return str(self.rng.randint(13, 999))
        if draw < 0.85:
            return str(self.rng.randint(10**8, 10**30))
        if draw < 0.95:
            return f"{self.rng.randint(0, 99)}.{self.rng.randint(0, 99999)}"
        return "π"

    def expression(self, depth: int, width: int) -> str:
        if depth <= 0:
            return self.number() if self.rng.random() < 0.45 else self.rng.choice(self.letters)
        kind = self.rng.choice(
            ["sum", "sum", "product", "product", "fraction", "power", "root", "bars", "letter above", "signed"]
        )
        parts = [self.expression(depth - self.rng.randint(1, 2), width) for _ in range(self.rng.randint(2, width))]
        first = parts[0]
        match kind:
            case "sum":
                return first + "".join(
                    f" {self.rng.choice('+--±' if self.rng.random() < 0.05 else '+-')} ({p})" for p in parts[1:]
                )
            case "product":
                return "·".join(f"({part})" for part in parts)
            case "fraction":
                return f"({first})/({parts[1]})"
            case "power":
                exponents = ["2", "3", "-1", "-3", "1/2", "2/3", "0", "7", "40", "99", "-1/2", "10000"]
                return f"({first})^({self.rng.choice(exponents)})"
            case "root":
                return (
                    f"root({self.rng.randint(2, 70)}, {first})"
                    if self.rng.random() < 0.2
                    else f"{self.rng.choice('√√∛')}({first})"
                )
            case "bars":
                return f"|{first}|"
            case "letter above":
                return f"{self.rng.choice(['2', '3', '10', '4', '(1/2)', self.letters[0]])}^({first})"
        return f"-({first})"

    def line(self) -> str:
        draw = self.rng.random()
        if draw < 0.08:
            return self.rng.choice(WORDS)
        if draw < 0.14:
            return "".join(self.rng.choice(JUNK) for _ in range(self.rng.randint(1, 60)))
        if draw < 0.2:
            return self.many()
        depth, width = self.rng.choice([(1, 4), (2, 3), (2, 5), (3, 2), (3, 3), (4, 2), (6, 2), (1, 20)])
        side = self.expression(depth, width)
        return side if self.rng.random() < 0.5 else f"{side} = {self.expression(self.rng.randint(0, 2), 3)}"

    def many(self) -> str:
        """Much of one thing: factors, roots, bars, letters, terms, nested roots."""
        count = self.rng.randint(5, 30)
        match self.rng.randint(0, 6):
            case 0:
                return "·".join(f"(x-{k})" for k in range(count)) + " = 0"
            case 1:
                return " + ".join(f"√(x+{k})" for k in range(count // 3 + 1)) + f" = {count}"
            case 2:
                return " + ".join(f"|x-{k}|" for k in range(count // 2)) + f" = {count}"
            case 3:
                return "√(" + "+".join("abcdefgh"[: count // 3 + 1]) + ")"
            case 4:
                return " + ".join(f"{k}/(x-{k})" for k in range(1, count // 2)) + " = 1"
            case 5:
                return "√(x + " * (count // 2) + "x" + ")" * (count // 2)
        return f"x^{count * 3} + {count}x^{count} - {count * 7}x + 1 = 0"

    def working(self) -> Working:
        self.letters = LETTERS[: self.rng.choice([1, 1, 1, 2, 2, 3, 5, 9])]
        task = self.rng.choice(TASKS)
        given = self.line()
        lines = tuple(given if self.rng.random() < 0.1 else self.line() for _ in range(self.rng.randint(1, 3)))
        return Working(
            task,
            given,
            lines,
            variable="x" if task == "solve" else None,
            numbers="complex" if self.rng.random() < 0.15 else "real",
            assume=(f"{self.letters[0]} > 0",) if self.rng.random() < 0.1 else (),
        )
