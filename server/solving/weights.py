"""How likely slips are in a teacher's own classes, against the table of judgement. Who counts them registers here;
nobody need."""

from __future__ import annotations

from collections.abc import Callable, Mapping

Factors = Callable[[int], Mapping[str, float]]
_counted: list[Factors] = []


def register(factors: Factors) -> None:
    """Makes known who tells a teacher's factors: by slip, how many times as likely it is as the table has it."""
    _counted[:] = [factors]


def factors_of(teacher_id: int) -> Mapping[str, float]:
    """The factors of a teacher by slip; none where the table stands."""
    return _counted[0](teacher_id) if _counted else {}
