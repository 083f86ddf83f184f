"""Nodes: addresses, replacing, walking, what occurs in them."""

import pytest

from algebra.parse.lines import read_expression, read_line
from algebra.tree import nodes as n
from algebra.tree import statements as ln
from algebra.tree.plain import plain
from algebra.tree.survey import surveyed

X, Y = n.Letter("x"), n.Letter("y")


@pytest.mark.parametrize(
    ("text", "address", "part"),
    [
        ("3x + 5", (0,), "3x"),
        ("3x + 5", (0, 1), "x"),
        ("3x + 5", (1,), "5"),
        ("-(x + 1)", (0,), "(x+1)"),
        ("-(x + 1)", (0, 0), "x + 1"),
        ("(x+1)/(x-2)", (1, 0, 1), "2"),
        ("x^(n+1)", (1, 0, 0), "n"),
        ("root(3, x+1)", (1,), "3"),
        ("root(3, x+1)", (0, 0, 0), "x"),
        ("|x - 3|", (0, 1), "3"),
        ("x", (), "x"),
    ],
)
def test_a_part_is_found_at_its_address(text, address, part):
    assert plain(n.at(read_expression(text), address)) == part


def test_the_sides_of_an_equation_are_its_first_positions():
    body = read_line("2x = 6").body
    assert plain(n.at(body, (0,))) == "2x"
    assert plain(n.at(body, (1,))) == "6"


@pytest.mark.parametrize("address", [(2,), (0, 5), (1, 0)])
def test_an_address_that_leads_nowhere_is_an_error(address):
    with pytest.raises(IndexError):
        n.at(read_expression("3x + 5"), address)


@pytest.mark.parametrize(
    ("text", "address", "new", "result"),
    [
        ("3x + 5", (1,), "7", "3x + 7"),
        ("3x + 5", (0, 1), "y", "3y + 5"),
        ("√(x + 1)", (0, 0, 0), "z", "√(z+1)"),
        ("x", (), "8", "8"),
        ("x^2", (1,), "3", "x^3"),
    ],
)
def test_another_node_is_put_at_an_address(text, address, new, result):
    before = read_expression(text)
    assert plain(n.replaced(before, address, read_expression(new))) == result
    assert before == read_expression(text)


def test_a_walk_names_every_node_once_from_the_root_down():
    found = list(n.walk(read_expression("2x + (y - 1)")))
    assert [address for address, _ in found] == [(), (0,), (0, 0), (0, 1), (1,), (1, 0), (1, 0, 0), (1, 0, 1)]
    assert len(n.parts_of(read_expression("2x + (y - 1)"))) == len(found)


def test_every_node_found_by_a_walk_stands_at_its_address():
    tree = read_expression("(2x^2 - √(y + 1))/(3 - |z|) ÷ 2 1/4")
    for address, node in n.walk(tree):
        assert n.at(tree, address) is node


@pytest.mark.parametrize(
    ("text", "letters"),
    [("3", ""), ("xy + x^n", "nxy"), ("√(a/b)", "ab"), ("2 1/4", ""), ("|k|", "k"), ('3"km"/"h"', ['"h"', '"km"'])],
)
def test_the_letters_and_quoted_words_that_occur(text, letters):
    assert sorted(n.letters(read_expression(text))) == list(letters)


@pytest.mark.parametrize(("text", "bare"), [("((x + 1))", "x + 1"), ("[{3}]", "3"), ("x", "x"), ("-(x)", "-(x)")])
def test_bare_leaves_the_outer_brackets_away(text, bare):
    assert plain(n.bare(read_expression(text))) == bare


def test_children_can_not_be_more_or_fewer():
    with pytest.raises(ValueError, match="Power has 2 children, got 1"):
        n.Power(X, Y).with_children((X,))
    assert n.Power(X, Y).with_children((Y, X)) == n.Power(Y, X)
    assert n.Root(X).children == (X,)
    assert n.Root(X, n.Integer(3)).children == (X, n.Integer(3))


def test_nodes_are_equal_by_what_they_hold():
    assert read_expression("2·3") != read_expression("6")
    assert read_expression("x·x") != read_expression("x^2")
    assert read_expression("6/2") != read_expression("6÷2")
    assert len({read_expression("x + 1"), read_expression("x+1"), read_expression("(x+1)")}) == 2


def test_statements_name_their_parts():
    assert read_line("x = 3 or x = -2").body == ln.Alternatives(
        (ln.Equation((X, n.Integer(3))), ln.Equation((X, n.Signed("-", n.Integer(2)))))
    )
    assert read_line("2 ≤ x < 5").body == ln.Between(n.Integer(2), "≤", X, "<", n.Integer(5))
    assert read_line("[3, ∞)").body == ln.Interval(n.Integer(3), None, low_closed=True)
    assert ln.Interval(None, n.Integer(3)).children == (n.Integer(3),)
    assert ln.End("+", None, "-").children == ()


@pytest.mark.parametrize(
    ("text", "letters", "signs", "roots", "exponents"),
    [
        ("2x + y", "xy", False, False, False),
        ("x ± 2", "x", True, False, False),
        ("∓x", "x", True, False, False),
        ("√x", "x", False, True, False),
        ("|x|", "x", False, True, False),
        ("x^2", "x", False, False, False),
        ("x^(-2)", "x", False, False, False),
        ("x^(1/2)", "x", False, False, True),
        ("2^x", "x", False, False, True),
        ("2^0.5", "", False, False, True),
    ],
)
def test_a_survey_says_what_occurs(text, letters, signs, roots, exponents):
    found = surveyed([read_expression(text)])
    assert (sorted(found.letters), found.signs, found.roots, found.exponents) == (
        list(letters),
        signs,
        roots,
        exponents,
    )
    assert found.asks_for_more is (roots or exponents)


def test_a_survey_of_several_trees_is_one():
    found = surveyed([read_expression("x + 1"), read_expression("√y"), read_expression("±2")])
    assert (found.letters, found.roots, found.signs) == ({"x", "y"}, True, True)
