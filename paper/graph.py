"""A grid for a graph as SVG, at the scale at which the points that are asked for fit; with the curve on it for the
key."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from math import ceil, floor

from algebra import Graph

Scale = Callable[[float], float]

SIZE = 320.0
MOST_LINES = 24


def axes(graph: Graph, *, with_curve: bool) -> str:
    """The SVG: a square a unit (or two, five, ten), axes with numbers; with the curve its asymptotes, holes and points
    too."""
    left, right, bottom, top = graph.window
    across, up = right - left, top - bottom
    height = SIZE * up / across if 0.5 <= up / across <= 2 else SIZE

    def x(value: float) -> float:
        return (value - left) / across * SIZE

    def y(value: float) -> float:
        return (top - value) / up * height

    parts = [f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="-8 -8 {SIZE + 16:.0f} {height + 16:.0f}">']
    parts += _lines(left, right, _step(across), lambda v: f'x1="{x(v):.2f}" x2="{x(v):.2f}" y1="0" y2="{height:.2f}"')
    parts += _lines(bottom, top, _step(up), lambda v: f'y1="{y(v):.2f}" y2="{y(v):.2f}" x1="0" x2="{SIZE}"')
    zero_x, zero_y = min(max(x(0), 0), SIZE), min(max(y(0), 0), height)
    parts.append(
        f'<path d="M{zero_x:.2f} {height:.2f}V0M0 {zero_y:.2f}H{SIZE}" stroke="#222" stroke-width="1.3" fill="none"/>'
    )
    parts += _numbers(left, right, _step(across), lambda v: (x(v) + 2, zero_y + 10))
    parts += _numbers(bottom, top, _step(up), lambda v: (zero_x + 3, y(v) - 2))
    if with_curve:
        parts += _curve(graph, x, y, height)
    return "".join([*parts, "</svg>"])


def _step(length: float) -> int:
    return next((step for step in (1, 2, 5, 10, 20, 50, 100) if length / step <= MOST_LINES), 200)


def _lines(low: float, high: float, step: int, places: Callable[[float], str]) -> list[str]:
    return [
        f'<line {places(k * step)} stroke="#c9c9c9" stroke-width="0.6"/>'
        for k in range(ceil(low / step), floor(high / step) + 1)
    ]


def _numbers(low: float, high: float, step: int, places: Callable[[float], tuple[float, float]]) -> list[str]:
    every = 2 * step
    shown = []
    for k in range(ceil(low / every), floor(high / every) + 1):
        if k:
            across, down = places(k * every)
            text = str(k * every).replace("-", "−")
            shown.append(
                f'<text x="{across:.1f}" y="{down:.1f}" font-family="New '
                f'Computer Modern" font-size="9" fill="#444">{text}</text>'
            )
    return shown


def _curve(graph: Graph, x: Scale, y: Scale, height: float) -> list[str]:
    parts = []
    dashed = 'stroke="#85427f" stroke-width="1" stroke-dasharray="5 4" fill="none"'
    parts += [f'<path d="M{x(line.x):.2f} 0V{height:.2f}" {dashed}/>' for line in graph.vertical]
    if graph.horizontal is not None:
        parts.append(f'<path d="M0 {y(graph.horizontal.y):.2f}H{SIZE}" {dashed}/>')
    if graph.oblique is not None:
        parts.append(f'<polyline points="{_points(graph.oblique.points, x, y)}" {dashed}/>')
    parts.append(f'<clipPath id="f"><rect width="{SIZE}" height="{height:.2f}"/></clipPath><g clip-path="url(#f)">')
    parts += [
        f'<polyline points="{_points(piece, x, y)}" stroke="#1d2440" stroke-width="1.8" fill="none"/>'
        for piece in graph.pieces
    ]
    parts.append("</g>")
    parts += [f'<circle cx="{x(dot.x):.2f}" cy="{y(dot.y):.2f}" r="2.8" fill="#1d2440"/>' for dot in graph.intercepts]
    parts += [
        f'<circle cx="{x(dot.x):.2f}" cy="{y(dot.y):.2f}" r="3.2" fill="#fff" stroke="#1d2440" stroke-width="1.3"/>'
        for dot in graph.holes
    ]
    return parts


def _points(places: Iterable[tuple[float, float]], x: Scale, y: Scale) -> str:
    return " ".join(f"{x(a):.2f},{y(b):.2f}" for a, b in places)
