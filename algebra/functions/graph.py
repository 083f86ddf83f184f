"""The graph of a rational function as data: curve pieces that stop at poles, asymptotes, holes, intercepts."""

from __future__ import annotations

from fractions import Fraction as Q

from algebra.functions.features import Features, divided, value_at
from algebra.reports.features import Dot, Graph, HorizontalLine, Place, SlantLine, VerticalLine
from algebra.tree.plain import plain

SAMPLES = 120


def window_of(found: Features) -> tuple[float, float, float, float]:
    """(left, right, bottom, top): wide enough for every feature, with the same room on all sides."""
    marks_x = [x.approximation.real for x in (*found.vertical, *found.x_intercepts, *(h for h, _ in found.holes))]
    reach = max([4.0, *(abs(x) for x in marks_x)]) * 1.5
    marks_y = [float(y) for _, y in found.grid_points[:4]]
    marks_y += [float(found.horizontal)] if found.horizontal is not None else []
    marks_y += [float(found.y_intercept)] if found.y_intercept is not None else []
    if found.range is not None:  # turning points must be seen
        marks_y += [end.approximation.real for end in found.range.ends]
    height = max([4.0, *(abs(y) * 1.3 for y in marks_y)])
    reach, height = min(reach, 40.0), min(height, 40.0)
    if found.oblique is not None:  # both branches lean along the line, so the window must not be flat
        reach = max(reach, height / 2.5)
    return -reach, reach, -height, height


def graph_of(found: Features, window: tuple[float, float, float, float] | None = None) -> Graph:
    """Everything a drawing needs: pieces of the curve as points, dashed lines, open and filled dots."""
    left, right, bottom, top = window or window_of(found)
    poles = [x.approximation.real for x in found.vertical]
    cuts = [left, *(p for p in poles if left < p < right), right]
    room = (top - bottom) * 2
    pieces: list[list[Place]] = []
    for a, b in zip(cuts, cuts[1:], strict=False):
        piece: list[Place] = []
        for k in range(SAMPLES + 1):
            # closer together near the poles, where the curve is steep
            t = k / SAMPLES
            share = t * t * (3 - 2 * t)
            x = a + (b - a) * min(max(share, 1e-4), 1 - 1e-4)
            y = float(value_at(found.value, found.letter, Q(x).limit_denominator(10**6)))
            if bottom - room <= y <= top + room:
                piece.append((round(x, 5), round(y, 5)))
            elif piece:
                pieces.append(piece)
                piece = []
        if len(piece) > 1:
            pieces.append(piece)
    y_intercept = (
        () if found.y_intercept is None else (Dot(0.0, float(found.y_intercept), f"(0, {found.y_intercept})"),)
    )
    horizontal = found.horizontal
    return Graph(
        window=(left, right, bottom, top),
        pieces=tuple(tuple(piece) for piece in pieces if len(piece) > 1),
        vertical=tuple(VerticalLine(x.approximation.real, str(x)) for x in found.vertical),
        horizontal=None if horizontal is None else HorizontalLine(float(horizontal), str(horizontal)),
        oblique=_slant(found, left, right),
        holes=tuple(
            Dot(x.approximation.real, _hole_height(found, x.approximation.real), f"({x}, {plain(y, tight=True)})")
            for x, y in found.holes
        ),
        intercepts=(*(Dot(x.approximation.real, 0.0, f"({x}, 0)") for x in found.x_intercepts), *y_intercept),
        check_points=tuple(Dot(float(x), float(y), f"({x}, {y})") for x, y in found.grid_points[:2]),
    )


def _slant(found: Features, left: float, right: float) -> SlantLine | None:
    if found.oblique is None:
        return None
    quotient, _ = divided(found.value, found.letter)
    places = _steps(left, right, 2 if len(quotient) == 2 else 60)
    heights = [float(sum(c * Q(x).limit_denominator(1000) ** k for k, c in enumerate(quotient))) for x in places]
    return SlantLine(tuple(zip(places, heights, strict=True)), plain(found.oblique))


def _steps(left: float, right: float, count: int) -> list[float]:
    return [left + (right - left) * k / (count - 1) for k in range(count)]


def _hole_height(found: Features, x: float) -> float:
    return float(value_at(found.value, found.letter, Q(x).limit_denominator(10**6)))
