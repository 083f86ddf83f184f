"""A line of every kind as it is read: what it says, what stands beside it, and where one that can't be read fails."""

import pytest

from algebra.parse.errors import ReadingError
from algebra.parse.lines import read_expression, read_line
from algebra.parse.margin import split_move, without_move
from algebra.tree.plain import plain


def told(node):
    return None if node is None else plain(node)


@pytest.mark.parametrize(
    ("margin", "name", "operand"),
    [
        ("+5", "add", "5"),
        ("-2x", "subtract", "2x"),
        ("−2x", "subtract", "2x"),
        ("×4", "multiply", "4"),
        ("* 4", "multiply", "4"),
        ("· (x-1)", "multiply", "(x-1)"),
        ("÷ 2", "divide", "2"),
        ("/2", "divide", "2"),
        ("^3", "power", "3"),
        (r"\times 2", "multiply", "2"),
        (r"\div 2", "divide", "2"),
        ("divide by 2", "divide", "2"),
        ("divide both sides by 2", "divide", "2"),
        ("Multiply by X", "multiply", "X"),
        ("subtract 3 from both sides", "subtract", "3"),
        ("add 3x to each side", "add", "3x"),
        ("take away 4", "subtract", "4"),
        ("times 4.", "multiply", "4"),
        ("to the power 2", "power", "2"),
        ("raise to 3", "power", "3"),
        ("square", "square", None),
        ("square both sides", "square", None),
        ("root", "root", None),
        ("take the square root of both sides", "root", None),
        ("cube root", "root", "3"),
        ("fourth root", "root", "4"),
        ("swap sides", "swap", None),
    ],
)
def test_a_move_in_the_margin(margin, name, operand):
    line = read_line(f"x = 3 | {margin}")
    assert (line.kind, told(line.body), line.remark) == ("equation", "x = 3", "")
    assert (line.move.name, told(line.move.operand)) == (name, operand)


@pytest.mark.parametrize("words", ["looks nice", "+ (", "add", "divide by"])
def test_other_words_in_the_margin_are_a_remark(words):
    line = read_line(f"x = 3 | {words}")
    assert (line.move, line.remark) == (None, words)


@pytest.mark.parametrize(
    ("text", "line", "margin"),
    [
        ("|x-2| = 3", "|x-2| = 3", None),
        ("|x-2| = 3 | +2", "|x-2| = 3", "+2"),
        ("x = 3 | +2", "x = 3", "+2"),
        ("x = 3| +2", "x = 3| +2", None),  # no blank before it
        ("x = 3 |", "x = 3 |", None),  # nothing behind it
    ],
)
def test_bars_of_absolute_values_are_no_margin(text, line, margin):
    assert split_move(text)[:2] == (line, margin)
    assert without_move(text) == line


@pytest.mark.parametrize(
    ("text", "kind", "body", "subject"),
    [
        ("aside: 2 + 3 = 5", "aside", "2 + 3 = 5", None),
        ("Aside 2 + 3 = 5", "aside", "2 + 3 = 5", None),
        ("check x = 3: 3 = 3", "check", "3 = 3", "x = 3"),
        ("check x = 3", "check", None, "x = 3"),
        ("check x = 2: LHS = √4 = 2, RHS = 2", "check", "√4 = 2 or 2", "x = 2"),
        ("check x = 2: left side: 4 and right side: 4", "check", "4 or 4", "x = 2"),
        ("let u = x^2", "definition", None, "u = x^2"),
        ("assume x > 0", "assumption", "x > 0", None),
        ("assume a, b > 0", "assumption", "a > 0 and b > 0", None),
        ("assume x > 0 and y < 0", "assumption", "x > 0 and y < 0", None),
        ("assume x > 0, y < 0", "assumption", "x > 0 and y < 0", None),
        ("assume x ≠ 0, 4", "assumption", "x ≠ 0, 4", None),
        ("LCD = t(t-5)", "aside", "LCD = t(t-5)", None),
        ("the LCD is t(t-5)", "aside", "LCD = t(t-5)", None),
        ("LCM(6, 8) = 24", "aside", "LCM(6, 8) = 24", None),
        ("GCF of 8 and 12: 4", "aside", "GCF(8, 12) = 4", None),
    ],
)
def test_lines_beside_the_chain(text, kind, body, subject):
    line = read_line(text)
    assert (line.kind, told(line.body), told(line.subject)) == (kind, body, subject)


@pytest.mark.parametrize(
    ("text", "body"),
    [
        ("hole: (3, 5/6)", "hole: (3, 5/6)"),
        ("hole at (3, 5/6)", "hole: (3, 5/6)"),
        ("holes: none", "holes: none"),
        ("the vertical asymptote is x = 2", "vertical asymptote: x = 2"),
        ("vertical asymptote x = 2", "vertical asymptote: x = 2"),
        ("vertical asymptotes: x = 1, x = 2", "vertical asymptotes: x = 1, x = 2"),
        ("VA: x = 2", "va: x = 2"),
        ("HA y = 1", "ha: y = 1"),
        ("oblique asymptote: y = x + 1", "oblique asymptote: y = x + 1"),
        ("x-intercept: 3", "x-intercept: 3"),
        ("y-intercepts: 2", "y-intercepts: 2"),
        ("domain: x ≠ 3", "domain: x ≠ 3"),
        ("domain is all real numbers", "domain: all real numbers"),
        ("range: y > 0", "range: y > 0"),
        ("x → ∞, y → 0", "end behaviour: x → ∞, y → 0"),
        ("as x -> -inf, y -> 2", "end behaviour: x → -∞, y → 2"),
        ("(1, 2) → (3, 4)", "(1, 2) → (3, 4)"),
        ("point: (1, 2)", "point: (1, 2)"),
    ],
)
def test_features(text, body):
    line = read_line(text)
    assert (line.kind, told(line.body)) == ("feature", body)


@pytest.mark.parametrize(
    ("text", "kind", "body", "lead"),
    [
        ("x = 3 x = -2", "equation", "x = 3 or x = -2", ""),
        ("x = 3    x - 2 = 0", "equation", "x = 3 or x - 2 = 0", ""),
        ("x = 3; x = 2", "equation", "x = 3 or x = 2", ""),
        ("⇒ x = 3", "equation", "x = 3", "⇒"),
        ("∴ x = 3", "equation", "x = 3", "∴"),
        (r"\Rightarrow x = 3", "equation", "x = 3", r"\Rightarrow"),
        ("= x + 1", "expression", "x + 1", "="),
        ("f(x) = x^2", "expression", "x^2", "f(x)"),
        ("S = {2}", "statement", "{2}", "S ="),
        ("x = □", "open", "x = □", ""),
        ("2 + __ = 5", "open", "2 + □ = 5", ""),
        ("x = ±3", "equation", "x = ±3", ""),
        ("x < 3 or x > 5", "statement", "x < 3 or x > 5", ""),
        ("x > 3 and x < 5", "statement", "x > 3 and x < 5", ""),
        ("x ≠ 2 and x ≠ 3", "exclusion", "x ≠ 2, 3", ""),
        ("x ≈ 1.5", "statement", "x ≈ 1.5", ""),
        ("[1, 2)", "statement", "[1, 2)", ""),
        ("∅", "statement", "∅", ""),
    ],
)
def test_lines_of_the_chain(text, kind, body, lead):
    line = read_line(text)
    assert (line.kind, told(line.body), line.lead) == (kind, body, lead)
    assert line.notes == (("open",) if kind == "open" else ())


@pytest.mark.parametrize(
    ("text", "remark"), [("x = 1 # done", "done"), ("x = 3 ✓", "✓"), ("x = 1 | +2 # both", "both"), ("x = 1", "")]
)
def test_remarks(text, remark):
    assert read_line(text).remark == remark


@pytest.mark.parametrize(
    ("text", "column", "message"),
    [
        ("check: 3 = x", 8, "A check names the candidate first, as in “check x = 6”."),
        ("check  3", 8, "A check names the candidate first, as in “check x = 6”."),
        ("let 3 = x", 5, "A definition gives a letter a meaning, as in “let u = x^2”."),
        ("LCD: x = 3", 6, "One expression is expected here."),
        ("assume a, b > 0, c", 16, "“,” was not expected here."),
        ("3x 4", 4, "Write x^4 for a power, or the number before the letter."),
        ("3 4", 3, "Two numbers stand side by side; put · or a fraction bar between them."),
        ("x + ", 4, "A number, letter or bracket is missing after “+”."),
        ("(x", 3, "The bracket opened at column 1 is not closed: “)” is missing."),
        ("x)", 2, "“)” closes a bracket that was not opened."),
        ("2 +* 3", 4, "Between “+” and “·” a number, letter or bracket is missing."),
        ("√", 2, "A number, letter or bracket is missing after “√”."),
        ("x == 3", 4, "A number, letter or bracket was expected here, not “=”."),
        ("sin x", 1, "“sin” is outside what Uchuu works with."),
        ("", 1, "The line is empty."),
        ("$", 1, "“$” has no meaning here."),
        ("10%", 3, "“%” has no meaning here."),
        ("|x", 3, "The bar opened at column 1 is not closed."),
        ("x = 3 or", 9, "A number, letter or bracket is missing after “or”."),
        ("x ≠", 4, "A number, letter or bracket is missing after “≠”."),
        ("(1, 2", 6, "The interval is not closed."),
        ("x ∈", 4, "A set is expected after x ∈, as in (2, ∞), {2, 3} or ℝ."),
        ("aside: 3 + ", 11, "A number, letter or bracket is missing after “+”."),
        ("hole: (3, ", 10, "A number, letter or bracket is missing after “,”."),
    ],
)
def test_an_error_stands_at_its_place_in_words(text, column, message):
    with pytest.raises(ReadingError) as refused:
        read_line(text)
    assert (refused.value.column, refused.value.message) == (column, message)


@pytest.mark.parametrize("text", ["x = 3", "x > 3", "hole: (1, 2)", "aside: 3"])
def test_an_expression_is_nothing_else(text):
    with pytest.raises(ReadingError, match="An expression was expected here"):
        read_expression(text)


def test_with_decimal_commas_semicolons_separate():
    assert told(read_line("x = 1,5; x = 2", decimal="comma").body) == "x = 1.5 or x = 2"
    assert told(read_line("hole: (1,5; 2)", decimal="comma").body) == "hole: (1.5, 2)"
    assert told(read_line("assume a; b > 0,5", decimal="comma").body) == "a > 0.5 and b > 0.5"
