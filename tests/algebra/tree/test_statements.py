"""Every kind of statement in the plain notation and in LaTeX, and every place of a line where it is marked."""

from itertools import accumulate

import pytest
from hypothesis import given

from algebra.parse.lines import read_line
from algebra.tree import nodes as n
from algebra.tree import statements as ln
from algebra.tree.latex import latex
from algebra.tree.plain import plain
from tests.algebra.parse.test_notation import TREES

STATEMENTS = [
    # (as written, LaTeX); the plain notation is what is written
    ("x = 3", "x = 3"),
    ("2x + 1 = 7 = 7", "2x + 1 = 7 = 7"),
    ("x = 3 or x = -2", r"x = 3 \;\text{ or }\; x = -2"),
    ("x = 3, -2", r"x = 3,\; -2"),
    ("x ≠ 0, 4", r"x \ne 0,\; 4"),
    ("x + 1 ≠ 4", r"x + 1 \ne 4"),
    ("x ≥ 2", r"x \ge 2"),
    ("x < 5", "x < 5"),
    ("x ≈ 2.65", r"x \approx 2.65"),
    ("2 ≤ x < 5", r"2 \le x < 5"),
    ("{3, -2}", r"\left\{3,\; -2\right\}"),
    ("no solution", r"\text{no solution}"),
    ("∅", r"\varnothing"),
    ("all real numbers", r"\text{all real numbers}"),
    ("all real numbers except 0, 4", r"\text{all real numbers}\text{ except }0,\; 4"),
    ("ℝ ∖ {0, 4}", r"\mathbb{R} \setminus \left\{0,\; 4\right\}"),
    ("prime", r"\text{prime}"),
    ("[3, ∞)", r"\left[3,\; \infty\right)"),
    ("(-∞, 2]", r"\left(-\infty,\; 2\right]"),
    ("(-∞, 2) ∪ (2, ∞)", r"\left(-\infty,\; 2\right) \cup \left(2,\; \infty\right)"),
    ("hole: (3, 5/6)", None),
    ("vertical asymptote: x = -3", None),
    ("x-intercepts: none", None),
    ("end behaviour: x → -∞, y → 2, x → ∞, y → -∞", None),
]


@pytest.mark.parametrize(("text", "typeset"), STATEMENTS)
def test_a_statement_is_printed_as_it_was_written(text, typeset):
    body = read_line(text).body
    assert plain(body) == text
    if typeset is not None:
        assert latex(body) == typeset


@pytest.mark.parametrize(
    ("text", "typeset"),
    [
        ("x/4", r"\frac{x}{4}"),
        ("(x+1)/(x-2)", r"\frac{x + 1}{x - 2}"),
        ("√(x+1)", r"\sqrt{x + 1}"),
        ("∛x", r"\sqrt[3]{x}"),
        ("x^(n+1)", "x^{n + 1}"),
        ("2·3", r"2 \cdot 3"),
        ("6÷2", r"6 \div 2"),
        ("2×3", r"2 \times 3"),
        ("(x+1)(x-2)", r"\left(x + 1\right)\left(x - 2\right)"),
        ("[x+1]", r"\left[x + 1\right]"),
        ("{x+1}·2", r"\left\{x + 1\right\} \cdot 2"),
        ("|x-2|", r"\left|x - 2\right|"),
        ("2 1/3", r"2\tfrac{1}{3}"),
        ("±√5", r"\pm \sqrt{5}"),
        ("3 ± √5", r"3 \pm  \sqrt{5}"),
        ('5"km"', r"5\text{km}"),
    ],
)
def test_an_expression_in_latex(text, typeset):
    assert latex(read_line(text).body) == typeset


MARKED = [
    "x = 3 or x = -2",
    "x = 3, -2",
    "x ≠ 0, 4",
    "2x + 1 = (x-3)/4",
    "{3, -2}",
    "[3, 7)",
    "2 ≤ x < 5",
    "all real numbers except 0, 4",
    "√(x+1) + ∛(2y)",
    "|x-2|^2·(a+b)",
    "x^(n+1) - 3·2÷y",
    "hole: (3, 5/6)",
    "-(x+2)",
    "(-∞, 2) ∪ (3, ∞)",
    "x ≈ 2.5",
    "end behaviour: x → ∞, y → 2",
]


@pytest.mark.parametrize("text", MARKED)
def test_every_place_can_be_marked_and_holds_what_stands_there(text):
    body = read_line(text).body
    for address, node in n.walk(body):
        if not address or isinstance(node, ln.STATEMENTS):
            continue
        shown = latex(body, {address: "here"})
        assert shown.count(r"\htmlClass{here}{") == 1, (address, plain(node))
        inner = shown.partition(r"\htmlClass{here}{")[2]
        bare = latex(n.bare(node))
        assert inner.startswith((latex(node), bare)), (address, shown)


@given(TREES)
def test_marking_a_place_changes_nothing_else(tree):
    for address, _ in n.walk(tree):
        marked = latex(tree, {address: "here"})
        if r"\htmlClass{here}{" in marked:
            before, _, rest = marked.partition(r"\htmlClass{here}{")
            depths = accumulate(((sign == "{") - (sign == "}") for sign in rest), initial=1)
            end = list(depths).index(0) - 1
            assert before + rest[:end] + rest[end + 1 :] == latex(tree)
