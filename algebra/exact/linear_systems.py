"""Linear systems over a field with roots."""

from __future__ import annotations

from algebra.exact.effort import spend
from algebra.exact.errors import OutOfScope
from algebra.exact.rational_functions import Ratio


def eliminate(rows: list[list[Ratio]]) -> list[Ratio]:
    """The solution of a square system given with its right side as the last column. Raises OutOfScope where it is
    singular."""
    size = len(rows)
    for k in range(size):
        pivot = next((i for i in range(k, size) if not rows[i][k].is_zero), None)
        if pivot is None:
            raise OutOfScope("A denominator with this root is not worked out.", "√")
        rows[k], rows[pivot] = rows[pivot], rows[k]
        head = rows[k][k]
        rows[k] = [entry / head for entry in rows[k]]
        for i in range(size):
            spend()
            if i != k and not rows[i][k].is_zero:
                by = rows[i][k]
                rows[i] = [entry - by * lead for entry, lead in zip(rows[i], rows[k], strict=True)]
    return [row[size] for row in rows]
