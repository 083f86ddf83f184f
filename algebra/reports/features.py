"""The features of a rational function, and its graph as data for a drawing."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import field
from typing import Literal

from algebra.records import record
from algebra.reports.report import LEFT_OUT, LineError
from algebra.reports.working import FORMAT

Place = tuple[float, float]
"""A point of the drawing, in the units of the axes."""


@record(frozen=True)
class VerticalLine:
    """A vertical asymptote and its exact value."""

    x: float
    text: str


@record(frozen=True)
class HorizontalLine:
    """A horizontal asymptote and its exact value."""

    y: float
    text: str


@record(frozen=True)
class SlantLine:
    """An oblique asymptote: points on it, and its expression."""

    points: tuple[Place, ...]
    text: str


@record(frozen=True)
class Dot:
    """A point to be drawn, and its exact coordinates."""

    x: float
    y: float
    text: str


@record(frozen=True)
class Graph:
    """A graph: the window as (left, right, bottom, top), the curve in pieces that stop at poles, asymptotes, holes,
    points.

    The numbers are approximate and serve the drawing alone; the texts are exact.
    """

    window: tuple[float, float, float, float]
    pieces: tuple[tuple[Place, ...], ...]
    vertical: tuple[VerticalLine, ...]
    horizontal: HorizontalLine | None
    oblique: SlantLine | None
    holes: tuple[Dot, ...]
    intercepts: tuple[Dot, ...]
    check_points: tuple[Dot, ...]


@record(frozen=True)
class FeaturesReport:
    """The features of a rational function in one letter; values are exact, in the plain notation, limits also `inf` or
    `-inf`.

    Holes and grid points are pairs of coordinates. `end_behaviour` has the keys + and -.
    """

    excluded: tuple[str, ...] = ()
    holes: tuple[tuple[str, str], ...] = ()
    vertical_asymptotes: tuple[str, ...] = ()
    horizontal_asymptote: str | None = None
    oblique_asymptote: str | None = None
    x_intercepts: tuple[str, ...] = ()
    y_intercept: str | None = None
    end_behaviour: Mapping[str, str] = field(default_factory=dict)
    range: str | None = None
    grid_points: tuple[tuple[str, str], ...] = ()
    error: LineError | None = None
    graph: Graph | None = field(default=None, metadata=LEFT_OUT)
    id: str | int | None = field(default=None, metadata=LEFT_OUT)
    format: Literal[1] = FORMAT
