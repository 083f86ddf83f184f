"""How numbers and days are written: a setting of an account, and of a class where it differs."""

from __future__ import annotations

from collections.abc import Mapping
from datetime import date
from typing import Literal

from ninja import Schema

Decimal = Literal["point", "comma"]
Dates = Literal["day-first", "month-first", "year-first"]
Week = Literal["monday", "saturday", "sunday"]


class Regional(Schema):
    """What is set at one place; what is None is as it stands above: for a class the account's, for an account the first
    of each kind."""

    decimal: Decimal | None = None
    dates: Dates | None = None
    week: Week | None = None

    def over(self, kept: Mapping[str, str]) -> dict[str, str]:
        """What is set once this is said, as it is stored: what is not said stays, what is None is not set any more."""
        said = {**kept, **self.model_dump(exclude_unset=True)}
        return {kind: value for kind, value in said.items() if value is not None}


class InForce(Schema):
    """How numbers and days are written somewhere, once all settings are looked at."""

    decimal: Decimal
    dates: Dates
    week: Week


_FIRST = {"decimal": "point", "dates": "day-first", "week": "monday"}


def in_force(*layers: Mapping[str, str]) -> InForce:
    """What holds where several settings meet: of each kind the first layer's that says something. A sheet's or a set's
    conventions are a layer too."""
    found = {kind: next((layer[kind] for layer in layers if kind in layer), first) for kind, first in _FIRST.items()}
    return InForce.model_validate(found)


def day_on_paper(day: date, dates: Dates) -> str:
    """A day in words: 5 March 2026, March 5, 2026 or 2026-03-05."""
    match dates:
        case "day-first":
            return f"{day.day} {day:%B %Y}"
        case "month-first":
            return f"{day:%B} {day.day}, {day.year}"
        case "year-first":
            return day.isoformat()


def number(value: float, decimal: Decimal) -> str:
    """A mark as it is written: 2.5 or 2,5."""
    return f"{value:g}".replace(".", "," if decimal == "comma" else ".")
