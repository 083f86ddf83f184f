"""What stands in a statement one after the other: each part once, in its place, and the same for every printer."""

import pytest

from algebra.parse.lines import read_line
from algebra.tree import nodes as n
from algebra.tree import statements as ln
from algebra.tree.flow import beside_relation, pieces
from algebra.tree.plain import plain

X, ONE = n.Letter("x"), n.Integer(1)


def told(node):
    """The kinds and texts of the pieces, a part by its plain notation."""
    return [plain(piece.part) if piece.part is not None else (piece.kind, piece.text) for piece in pieces(node)]


@pytest.mark.parametrize(
    ("text", "wanted"),
    [
        ("x = 1 = 2", ["x", ("relation", "="), "1", ("relation", "="), "2"]),
        ("x ≠ 1", ["x", ("relation", "≠"), "1"]),
        ("x = 1 or x = 2", ["x = 1", ("or", ""), "x = 2"]),
        ("x > 1 and x < 2", ["x > 1", ("and", ""), "x < 2"]),
        ("x = 1, 2", ["x", ("relation", "="), "1", ("separator", ""), "2"]),
        ("no solution", [("word", "no solution")]),
        ("∅", [("sign", "∅")]),
        ("all real numbers except 2", [("word", "all real numbers"), ("word", " except "), "2"]),
        ("ℝ ∖ {2}", [("sign", "ℝ"), ("relation", "∖"), ("open", "{"), "2", ("close", "}")]),
        ("2 ≤ x < 5", ["2", ("relation", "≤"), "x", ("relation", "<"), "5"]),
        ("LCD = 6x", [("named", "LCD"), ("relation", "="), "6x"]),
        ("hole: (3, 2)", [("named", "hole: "), "(3, 2)"]),
    ],
)
def test_the_pieces_of_a_line(text, wanted):
    assert told(read_line(text).body) == wanted


@pytest.mark.parametrize(
    ("node", "wanted"),
    [
        (ln.Interval(None, ONE, False, True), [("from", "("), ("sign", "-∞"), ("separator", ""), "1", ("to", "]")]),
        (ln.Interval(ONE, None, True, False), [("from", "["), "1", ("separator", ""), ("sign", "∞"), ("to", ")")]),
        (
            ln.End("-", None, "-"),
            [
                ("sign", "x"),
                ("arrow", ""),
                ("sign", "-∞"),
                ("separator", ""),
                ("sign", "y"),
                ("arrow", ""),
                ("sign", "-∞"),
            ],
        ),
        (
            ln.End("+", ONE),
            [("sign", "x"), ("arrow", ""), ("sign", "∞"), ("separator", ""), ("sign", "y"), ("arrow", ""), "1"],
        ),
        (ln.Infinity("-"), [("sign", "-∞")]),
        (ln.SetOf((ONE, X)), [("open", "{"), "1", ("separator", ""), "x", ("close", "}")]),
        (
            ln.Claim("LCM", (ONE, X), X),
            [("named", "LCM"), ("open", "("), "1", ("separator", ""), "x", ("close", ")"), ("relation", "="), "x"],
        ),
    ],
)
def test_the_pieces_of_what_is_rarely_written(node, wanted):
    assert told(node) == wanted


@pytest.mark.parametrize(
    "text", ["x = 1 = 2", "x ≠ 1, 2", "x = 1 or x = 2", "2 ≤ x < 5", "hole: (3, 2)", "LCM(2, x) = 6"]
)
def test_each_part_is_at_its_address(text):
    body = read_line(text).body
    parts = [(piece.place, piece.part) for piece in pieces(body) if piece.part is not None]
    assert parts == list(enumerate(body.children))


@pytest.mark.parametrize(
    ("text", "left"),
    [("x = 1 = 2", 1), ("x ≥ 1", 1), ("x ≠ 1, 2", 1), ("x = 1 or x = 2", 0), ("2 ≤ x < 5", 0), ("∅", 0)],
)
def test_lines_stand_under_each_other_by_their_first_sign(text, left):
    before, after = beside_relation(read_line(text).body)
    assert len(before) == left and len(before) + len(after) == len(list(pieces(read_line(text).body)))


def test_an_expression_is_no_statement():
    with pytest.raises(TypeError, match="Letter is no statement"):
        pieces(X)
