"""Families of problems: what kind a problem is, which methods work it, and more like it."""

from __future__ import annotations

from algebra.families import equations, expressions, roots
from algebra.families.family import Draw, Family

FAMILIES: tuple[Family, ...] = equations.FAMILIES + roots.FAMILIES + expressions.FAMILIES
"""In the order in which a problem is told: the first that fits is its family."""

BY_ID: dict[str, Family] = {family.id: family for family in FAMILIES}

__all__ = ["BY_ID", "FAMILIES", "Draw", "Family"]
