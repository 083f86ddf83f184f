"""The table of legal moves: what each does, how it is recognised from the lines, and what its margin word claims."""

import pytest

from algebra import Working, check
from algebra.exact.evaluate.symbolic import value_of
from algebra.exact.rational_functions import field_of
from algebra.exact.writing import simplified_tree
from algebra.parse.lines import read_expression
from algebra.tree.plain import plain
from algebra.verify.legal_moves import BY_STATED, LEGAL_MOVES, in_proportion, is_even_power, is_multiple

FIELD = field_of(("x", "y"))


def ratio(text):
    return value_of(read_expression(text), FIELD).ratio


def sides(text):
    left, right = text.split("=")
    return ratio(left), ratio(right)


def link(given, line, **more):
    return check(Working("solve", given, (line,), "x", **more)).links[0]


def test_the_names_and_margin_words_are_their_own():
    names = [move.name for move in LEGAL_MOVES]
    assert len(set(names)) == len(names) == 9
    assert {move.name for move in LEGAL_MOVES if move.effect == "widens"} == {
        "multiply-both-sides",
        "square-both-sides",
        "power-of-both-sides",
    }
    assert set(BY_STATED) == {"swap", "subtract", "add", "divide", "multiply", "square", "power", "root"}
    assert all(BY_STATED[word].stated == word for word in BY_STATED)


@pytest.mark.parametrize(
    ("word", "start", "operand", "goal"),
    [
        ("add", "x - 3 = 5", "3", "x = 8"),
        ("subtract", "x + y = 5", "y", "x = 5 - y"),
        ("multiply", "x/2 = y", "2", "x = 2y"),
        ("divide", "3x = 6", "3", "x = 2"),
        ("square", "x = y + 1", "0", "x^2 = (y+1)^2"),
        ("swap", "x = 3", "0", "3 = x"),
        ("power", "x = y", "3", "x^3 = y^3"),
        ("power", "x = 2", "-1", "1/x = 1/2"),
    ],
)
def test_a_move_does_to_both_sides_what_its_name_says(word, start, operand, goal):
    assert BY_STATED[word].done(sides(start), ratio(operand)) == sides(goal)


@pytest.mark.parametrize("exponent", ["1/2", "x"])
def test_a_power_that_is_no_whole_number_is_not_made(exponent):
    assert BY_STATED["power"].done(sides("x = y"), ratio(exponent)) is None


@pytest.mark.parametrize(
    ("given", "line", "name", "text"),
    [
        ("2(x-1) = 8", "2x - 2 = 8", "rewrite", ""),
        ("2x - 2 = 8", "8 = 2x - 2", "swap-sides", "swap"),
        ("x = -x", "-x = x", "swap-sides", "swap"),
        ("2x - 2 = 8", "2x = 10", "add-to-both-sides", "+2"),
        ("2x + 2 = 8", "2x = 6", "subtract-from-both-sides", "-2"),
        ("2x = 8 - x", "3x = 8", "add-to-both-sides", "+x"),
        ("2x = 8 + x", "x = 8", "subtract-from-both-sides", "-x"),
        ("2x = 8 + x + y", "x - y = 8", "subtract-from-both-sides", "-(x+y)"),
        ("2x = 8", "x = 4", "divide-both-sides", "÷2"),
        ("-x = 4", "x = -4", "multiply-both-sides", "×(-1)"),
        ("x/3 = 4", "x = 12", "multiply-both-sides", "×3"),
        ("2x/3 = 4", "x = 6", "multiply-both-sides", "×3/2"),
        ("1/x = 4", "1 = 4x", "multiply-both-sides", "×x"),
        ("1/(x+1) = 4", "1 = 4x + 4", "multiply-both-sides", "×(x+1)"),
        ("xy = 4y", "x = 4", "divide-both-sides", "÷y"),
    ],
)
def test_a_move_is_recognised_from_the_lines(given, line, name, text):
    move = link(given, line).move
    assert (move.name, move.text, move.stated, move.as_stated) == (name, text, None, None)


def test_squaring_is_recognised():
    found = link("√x = 3", "x = 9")
    assert (found.move.name, found.move.text, found.relation) == ("square-both-sides", "square", "holds")


@pytest.mark.parametrize(
    ("given", "line"), [("x^2 = 4", "x = 2"), ("x^2 = 9", "x^2 + x = 10"), ("x^2 - 4 = 0", "(x-2)(x+2) = 0 or x = 7")]
)
def test_what_is_no_move_on_both_sides_has_no_name(given, line):
    assert link(given, line).move is None


@pytest.mark.parametrize(
    ("given", "line", "as_stated"),
    [
        ("x - 3 = 5", "x = 8 | +3", True),
        ("x - 3 = 5", "8 = x | +3", True),
        ("x - 3 = 5", "x = 8 | -3", False),
        ("x - 3 = 5", "x = 2 | +3", False),
        ("2x = 8", "x = 4 | ÷2", True),
        ("2x = 8", "x = 4 | ×(1/2)", True),
        ("2x = 8", "x = 4 | ×2", False),
        ("x/2 = 8", "x = 16 | ×2", True),
        ("x = 3", "3 = x | swap", True),
        ("x = 3", "x = 3 | swap", False),
        ("√x = 3", "x = 9 | square", True),
        ("√x = 3", "x = 6 | square", False),
        ("x^2 = 9", "x = ±3 | root", True),
        ("x^2 = 9", "x = ±4 | root", False),
        ("∛x = 2", "x = 8 | ^3", True),
        ("∛x = 2", "x = 6 | ^3", False),
        ("2x = 8", "x = 4 | ÷0", False),
    ],
)
def test_the_margin_word_is_held_against_what_was_done(given, line, as_stated):
    move = link(given, line).move
    assert move.as_stated is as_stated
    assert move.stated == line.partition("| ")[2]


def test_a_right_line_under_a_wrong_margin_word_still_holds():
    found = link("x - 3 = 5", "x = 8 | -3")
    assert found.relation == "holds"
    assert (found.move.name, found.move.text) == ("add-to-both-sides", "+3")


@pytest.mark.parametrize(
    ("first", "second", "holds"),
    [
        ("2x + 2y", "x + y", True),
        ("-x - y", "x + y", True),
        ("x + y", "x - y", False),
        ("x^2", "x", False),
        ("2x/y", "x/y", True),
        ("x/y", "x/(y+1)", False),
        ("0", "x", False),
        ("x", "0", False),
    ],
)
def test_multiples_differ_by_a_rational_number(first, second, holds):
    assert is_multiple(ratio(first), ratio(second)) is holds


def test_proportion_of_polynomials():
    assert in_proportion(ratio("3x").numerator, ratio("3x").numerator)
    assert not in_proportion(ratio("0").numerator, ratio("0").numerator)
    assert not in_proportion(ratio("x + 1").numerator, ratio("x").numerator)


@pytest.mark.parametrize(
    ("start", "difference", "holds"),
    [
        ("x = 3", "x^2 - 9", True),
        ("x = 3", "2x^2 - 18", True),
        ("x = 3", "x^4 - 81", True),
        ("x = 3", "x^3 - 27", False),
        ("x = y", "x^6 - y^6", True),
        ("x = y", "x^8 - y^8", True),
        ("x = y", "x^14 - y^14", False),
        ("x + 1 = 2y - x", "(x+1)^2 - (2y-x)^2", True),
        ("x = y", "x - y", False),
    ],
)
def test_even_powers_of_both_sides(start, difference, holds):
    assert is_even_power(sides(start), ratio(difference)) is holds


def test_moves_are_undone_by_their_opposites():
    start = sides("2x + y = 5")
    for word, back in (("add", "subtract"), ("multiply", "divide"), ("swap", "swap")):
        there = BY_STATED[word].done(start, ratio("x + 3"))
        assert BY_STATED[back].done(there, ratio("x + 3")) == start
    assert plain(simplified_tree(start[0])) == "2x + y"
