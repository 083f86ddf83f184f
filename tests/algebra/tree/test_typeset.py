"""LaTeX and the plain notation of every kind of node; what is printed is read back as the same tree."""

import pytest

from algebra.formats.typeset import understood
from algebra.parse.lines import read_line
from algebra.tree import nodes as n
from algebra.tree.latex import latex, latex_sides, words_in_latex
from algebra.tree.plain import plain

ROWS = [
    # (typed, plain, LaTeX)
    ("2x", "2x", "2x"),
    ("2·3", "2 · 3", r"2 \cdot 3"),
    ("x*y", "x · y", r"x \cdot y"),
    ("6 ÷ 2", "6 ÷ 2", r"6 \div 2"),
    ("x/2", "x/2", r"\frac{x}{2}"),
    ("(x+1)/(x-4)", "(x+1)/(x-4)", r"\frac{x + 1}{x - 4}"),
    ("x^2", "x^2", "x^{2}"),
    ("2^(3x)", "2^(3x)", "2^{3x}"),
    ("(x+1)^2", "(x+1)^2", r"(x + 1)^{2}"),
    ("√20", "√20", r"\sqrt{20}"),
    ("sqrt(x+5)", "√(x+5)", r"\sqrt{x + 5}"),
    ("∛x", "∛x", r"\sqrt[3]{x}"),
    ("root(4, x)", "∜x", r"\sqrt[4]{x}"),
    ("|x - 3|", "|x-3|", r"|x - 3|"),
    ("-x", "-x", "-x"),
    ("±3", "±3", r"\pm 3"),
    ("2 1/4", "2 1/4", r"2\tfrac{1}{4}"),
    ("0.75", "0.75", "0.75"),
    ("x = 3", "x = 3", "x = 3"),
    ("x ≠ 3", "x ≠ 3", r"x \ne 3"),
    ("x >= 3", "x ≥ 3", r"x \ge 3"),
    ("x ≈ 2.65", "x ≈ 2.65", r"x \approx 2.65"),
    ("x = 3 or x = -2", "x = 3 or x = -2", r"x = 3 \text{ or } x = -2"),
    ("x = 3, -2", "x = 3, -2", "x = 3, -2"),
    ("{3, -2}", "{3, -2}", r"\{3, -2\}"),
    ("no solution", "no solution", r"\text{no solution}"),
    ("α + θ", "α + θ", r"\alpha + \theta"),
    ("π r^2", "πr^2", r"\pi r^{2}"),
]


def tight(text):
    return (
        text.replace(" ", "")
        .replace("{}", "")
        .replace(r"\left", "")
        .replace(r"\right", "")
        .replace(r"\,", "")
        .replace(r"\;", "")
    )


@pytest.mark.parametrize(("typed", "printed", "_"), ROWS)
def test_the_plain_notation(typed, printed, _):
    found = plain(read_line(typed).body)
    assert tight(found) == tight(printed)
    assert read_line(found).body == read_line(typed).body


@pytest.mark.parametrize(("typed", "_", "typeset"), ROWS)
def test_the_latex(typed, _, typeset):
    assert tight(latex(read_line(typed).body)) == tight(typeset)


@pytest.mark.parametrize(
    ("typed", "left", "right"),
    [
        ("2x = 4", "2x", "= 4"),
        ("1 < x", "1", "< x"),
        ("2x", "", "2x"),
        ("x ≠ 3", "x", r"\ne 3"),
        ("x = 1 = 2", "x", "= 1 = 2"),
    ],
)
def test_a_line_is_split_at_its_first_sign(typed, left, right):
    assert [tight(side) for side in latex_sides(read_line(typed).body)] == [tight(left), tight(right)]


def test_a_marked_part_has_its_class_and_no_other_has():
    body = read_line("x + 3 = 5").body
    marked = latex(body, {(0, 1): "slip"})
    assert marked.count(r"\htmlClass") == 1
    assert r"\htmlClass{slip}{3}" in marked.replace(" ", "")


def test_a_marked_part_keeps_the_brackets_that_it_needs():
    body = read_line("2(x+1)").body
    (address,) = [found for found, node in n.walk(body) if isinstance(node, n.Group)]
    assert "x + 1" in latex(body, {address: "focus"})


@pytest.mark.parametrize(("typed", "with_comma"), [("1.5x", "1{,}5x"), ("0.75", "0{,}75")])
def test_a_decimal_comma_is_set_without_a_gap(typed, with_comma):
    assert tight(latex(read_line(typed).body, comma=True)) == tight(with_comma)


@pytest.mark.parametrize(
    ("typed", "is_tight"), [("2 · 3", "2·3"), ("x + 3", "x+3"), ("x = 3", "x=3"), ("6 ÷ 2", "6 ÷ 2")]
)
def test_the_tight_form_has_no_room(typed, is_tight):
    assert plain(read_line(typed).body, tight=True).replace(" = ", "=") == is_tight


@pytest.mark.parametrize(
    ("text", "words"),
    [
        ("x = (", r"\text{x = (}"),
        (r"\a{b}", r"\text{\textbackslash a\{b\}}"),
        ("5 % & 3 $ # _", r"\text{5 \% \& 3 \$ \# \_}"),
        ("a^b~c", r"\text{a\textasciicircum b\textasciitilde c}"),
    ],
)
def test_any_text_is_words_in_latex(text, words):
    assert words_in_latex(text) == words


@pytest.mark.parametrize("command", [r"\htmlClass{a}{b}", r"\htmlId{a}{b}", r"\href{a}{b}", r"\url{a}"])
@pytest.mark.parametrize("around", ["{}", "□ + {} = 5", "x = □ }} {}", "x = 2 # {}", 'x = 3 "{}"', "let {} = 2"])
def test_no_command_of_a_writer_reaches_what_is_set(command, around):
    found = understood(around.replace("{}", command))
    for each in (found.left, found.right, found.move):
        assert command.partition("{")[0] not in each
