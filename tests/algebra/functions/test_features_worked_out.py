"""The features of a rational function as they are worked out, and its graph as data."""

from fractions import Fraction as Q

import pytest

from algebra.desk.analysis import analysis
from algebra.functions.features import divided, ends_of, shifted_reciprocal
from algebra.functions.graph import graph_of, window_of
from algebra.tree.plain import plain

UP, DOWN = {"+": "inf", "-": "-inf"}, {"+": "-inf", "-": "inf"}


def both(limit):
    return {"+": limit, "-": limit}


TABLE = [
    # given, excluded, holes, vertical, horizontal, oblique, x-intercepts, y-intercept, ends, range
    ("(x^2-4)/(x^2-x-2)", "-1 2", "2:4/3", "-1", "1", None, "-2", "2", both("1"), "y ≠ 1, 4/3"),
    ("(x^2+1)/x", "0", "", "0", None, "x", "", None, UP, "(-∞, -2] ∪ [2, ∞)"),
    ("1/x", "0", "", "0", "0", None, "", None, both("0"), "y ≠ 0"),
    ("1/x^2", "0", "", "0", "0", None, "", None, both("0"), "(0, ∞)"),
    ("2/(x-3)+1", "3", "", "3", "1", None, "1", "1/3", both("1"), "y ≠ 1"),
    ("x^3-x", "", "", "", None, None, "-1 0 1", "0", UP, "all"),
    ("-x^3+1", "", "", "", None, None, "1", "1", DOWN, "all"),
    ("-x^2+4", "", "", "", None, None, "-2 2", "4", both("-inf"), "(-∞, 4]"),
    ("(x-1)/(x-1)", "1", "1:1", "", None, None, "", "1", both("1"), "{1}"),
    ("3", "", "", "", None, None, "", "3", both("3"), "{3}"),
    ("x^2/(x^2+1)", "", "", "", "1", None, "0", "0", both("1"), "[0, 1)"),
    ("(x^2-2)/(x^2-3)", "-√3 √3", "", "-√3 √3", "1", None, "-√2 √2", "2/3", both("1"), "(-∞, 2/3] ∪ (1, ∞)"),
    ("(x^3-1)/(x^2-2)", "-√2 √2", "", "-√2 √2", None, "x", "1", "1/2", UP, "all"),
    ("(2x^4)/(x^2+1)", "", "", "", None, None, "0", "0", both("inf"), "[0, ∞)"),
    ("(x^2+3x)/x", "0", "0:3", "", None, None, "-3", None, UP, "y ≠ 3"),
    ("(-2x^2+x)/(x-1)", "1", "", "1", None, "-2x - 1", "0 1/2", "0", DOWN, "(-∞, -3 - 2√2] ∪ [-3 + 2√2, ∞)"),
]


@pytest.mark.parametrize(
    ("given", "excluded", "holes", "vertical", "horizontal", "oblique", "zeros", "start", "ends", "values"), TABLE
)
def test_every_feature(given, excluded, holes, vertical, horizontal, oblique, zeros, start, ends, values):
    found = analysis(given).report()
    assert " ".join(found.excluded) == excluded
    assert " ".join(":".join(hole) for hole in found.holes) == holes
    assert " ".join(found.vertical_asymptotes) == vertical
    assert (found.horizontal_asymptote, found.oblique_asymptote) == (horizontal, oblique)
    assert (" ".join(found.x_intercepts), found.y_intercept) == (zeros, start)
    assert (found.end_behaviour, found.range) == (ends, values)


@pytest.mark.parametrize(
    ("given", "points"),
    [
        ("1/x", "-1,-1 1,1 -1/2,-2 1/2,2 -2,-1/2 2,1/2"),  # whole coordinates, then halves; no excluded value
        ("2/(x-3)+1", "2,-1 4,3 5,2 5/2,-3 7/2,5 -1,1/2"),  # neither the zero nor x = 0
        ("x^3-x", "-2,-6 2,6 -1/2,3/8 1/2,-3/8 -3/2,-15/8 3/2,15/8"),  # nothing beyond the grid
    ],
)
def test_points_that_fit_a_grid_the_friendliest_first(given, points):
    assert " ".join(f"{x},{y}" for x, y in analysis(given).report().grid_points) == points


@pytest.mark.parametrize(
    ("given", "found"),
    [
        ("2/(x-3)+1", (2, 3, 1)),
        ("1/x", (1, 0, 0)),
        ("(x+2)/(x+1)", (1, -1, 1)),
        ("-3/(2x+1)", (Q(-3, 2), Q(-1, 2), 0)),
        ("1/x^2", None),
        ("x^2/(x-1)", None),
        ("x + 1", None),
    ],
)
def test_a_shifted_reciprocal_is_known(given, found):
    assert analysis(given).shifted_reciprocal == found


@pytest.mark.parametrize(
    ("parts", "text"),
    [
        ((2, 3, 1), "2/(x-3) + 1"),
        ((-2, 3, -1), "-2/(x-3) - 1"),
        ((1, -1, 0), "1/(x+1)"),
        ((Q(-3, 2), 1, 0), "-(3/2) · 1/(x-1)"),
    ],
)
def test_a_shifted_reciprocal_is_written(parts, text):
    assert plain(shifted_reciprocal(*map(Q, parts), "x")) == text


@pytest.mark.parametrize(
    ("given", "quotient", "rest"),
    [("(x^2+1)/x", [0, 1], [1]), ("(2x^2+3)/(x^2-1)", [2], [5, 0]), ("1/x", [0], [1]), ("x^3-x", [0, -1, 0, 1], [])],
)
def test_numerator_by_denominator(given, quotient, rest):
    found = analysis(given)
    assert divided(found.value, "x") == (quotient, rest)
    assert ends_of(found.value, "x") == found.ends


@pytest.mark.parametrize(
    ("given", "window", "pieces"),
    [
        ("1/x", (-6, 6, -4, 4), 2),
        ("x^3-x", (-6, 6, -7.8, 7.8), 1),
        ("-x^2+4", (-6, 6, -6.5, 6.5), 1),
        ("(x^2-2)/(x^2-3)", (-6, 6, -4, 4), 3),
        ("1/(x-8)", (-12, 12, -4, 4), 2),
        ("1/(x-50)", (-40, 40, -4, 4), 1),  # no wider than that; the pole lies outside
        ("x^2 + 60", (-6, 6, -40, 40), 1),
    ],
)
def test_the_window_holds_the_features_and_the_curve_stops_at_poles(given, window, pieces):
    found = analysis(given)
    assert window_of(found) == pytest.approx(window)
    graph = graph_of(found)
    assert graph.window == pytest.approx(window)
    assert len(graph.pieces) == pieces


def test_a_curve_runs_through_its_own_points_and_not_beyond_the_paper():
    graph = graph_of(analysis("1/(x-1)"), (-5.0, 5.0, -3.0, 3.0))
    assert all(y == pytest.approx(1 / (x - 1), rel=1e-3, abs=2e-5) for piece in graph.pieces for x, y in piece)
    assert max(abs(y) for piece in graph.pieces for _, y in piece) <= 15
    assert [x < 1 for piece in graph.pieces for x, _ in piece] == sorted(
        (x < 1 for piece in graph.pieces for x, _ in piece), reverse=True
    )


def test_what_is_marked_on_a_graph():
    graph = graph_of(analysis("(x^2-4)/(x^2-x-2)"))
    assert [(dot.x, dot.y, dot.text) for dot in graph.holes] == [(2.0, pytest.approx(4 / 3), "(2, 4/3)")]
    assert [(line.x, line.text) for line in graph.vertical] == [(-1.0, "-1")]
    assert (graph.horizontal.y, graph.horizontal.text, graph.oblique) == (1.0, "1", None)
    assert [(dot.x, dot.y, dot.text) for dot in graph.intercepts] == [(-2.0, 0.0, "(-2, 0)"), (0.0, 2.0, "(0, 2)")]
    assert [(dot.x, dot.y, dot.text) for dot in graph.check_points] == [
        (-1.5, -1.0, "(-3/2, -1)"),
        (-0.5, 3.0, "(-1/2, 3)"),
    ]


def test_a_slant_asymptote_is_a_line_across_the_window():
    graph = graph_of(analysis("(x^2+1)/x"))
    left, right, *_ = graph.window
    assert (graph.oblique.points, graph.oblique.text) == (((left, left), (right, right)), "x")
