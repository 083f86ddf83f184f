"""A chain or a graph as a picture."""

import base64
import re

import pytest

from algebra import TaskError, Working
from paper import picture_of

CHAIN = Working("solve", "x^2 = 49", ("x = 7", "what is this (", "check x = 7: 49 = 49"))
BREAKS, NARROWS = "#b93a20", "#85427f"


def test_a_chain_shows_a_bead_a_line_and_its_links_and_is_the_same_each_time():
    svg = picture_of(CHAIN, "chain", "svg")
    assert svg == picture_of(CHAIN, "chain", "svg")
    right = picture_of(Working("solve", "x^2 = 49", ("x = ±7",)), "chain", "svg")
    assert NARROWS.encode() in _inside(svg)
    assert NARROWS.encode() not in _inside(right)
    assert svg.count(b"#1d2440") > right.count(b"#1d2440") > 0


def _inside(svg):
    """The picture with the SVGs that are embedded in it opened."""

    parts = re.findall(rb"data:image/svg\+xml;base64,([A-Za-z0-9+/=]+)", svg)
    return svg + b"".join(map(base64.b64decode, parts))


def test_a_graph_is_that_of_the_key():
    svg = picture_of(Working("analyze", "f(x) = (x+1)/(x-2)"), "graph", "svg")
    assert svg.startswith(b"<svg")
    assert svg.count(b"stroke-dasharray") == 2
    assert picture_of(Working("analyze", "f(x) = (x+1)/(x-2)"), "graph", "png").startswith(b"\x89PNG")


@pytest.mark.parametrize(
    ("working", "shown"), [(Working("solve", "x = ("), "chain"), (Working("solve", "x^2 = 4"), "graph")]
)
def test_where_there_is_none_it_is_said(working, shown):
    with pytest.raises(TaskError):
        picture_of(working, shown, "svg")
