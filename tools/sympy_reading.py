"""School notation put to SymPy, for the comparison in `./uchuu bench`: its own parser, `simplify` and `solveset`."""

from __future__ import annotations

import re
from typing import Any

import sympy as sp
from sympy.parsing.sympy_parser import (
    convert_xor,
    implicit_multiplication_application,
    parse_expr,
    standard_transformations,
)

X = sp.Symbol("x")
_RULES = (*standard_transformations, implicit_multiplication_application, convert_xor)
_NAMES = {"x": X, "i": sp.I}


def parsed(text: str) -> Any:
    """The expression as SymPy reads it."""
    text = text.replace("·", "*").replace("×", "*").replace("÷", "/").replace("−", "-")
    text = re.sub(r"√\(", "sqrt(", text)
    text = re.sub(r"√(\d+|[a-z])", r"sqrt(\1)", text)
    text = re.sub(r"\|([^|]+)\|", r"Abs(\1)", text)
    return parse_expr(text, local_dict=dict(_NAMES), transformations=_RULES)


def same_value(before: str, after: str) -> bool:
    """simplify(a - b) == 0."""
    return bool(sp.simplify(parsed(before) - parsed(after)) == 0)


def solutions(line: str) -> Any:
    """The union of the solution sets of the equations of a line."""
    total: Any = sp.S.EmptySet
    for item in line.split(" or "):
        left, right = item.split("=")
        for sign in ("+", "-") if "±" in item else ("",):
            difference = parsed(left) - parsed(right.replace("±", sign))
            found = sp.solveset(difference, X, sp.S.Complexes if "i" in line else sp.S.Reals)
            total = total.union(found)
    return total


def same_solutions(before: str, after: str) -> bool | None:
    """Whether two lines have the same solutions; None where a set is not found."""
    if after in ("no solution", "all real numbers"):
        goal: Any = sp.S.EmptySet if after == "no solution" else sp.S.Reals
        return bool(solutions(before) == goal)
    first, second = solutions(before), solutions(after)
    if not all(isinstance(s, sp.FiniteSet) or s in (sp.S.EmptySet, sp.S.Reals) for s in (first, second)):
        return None
    return bool(sp.simplify(first.symmetric_difference(second)) == sp.S.EmptySet)
