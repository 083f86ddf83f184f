"""Sums of single terms: equal ones are found to be equal, others not, and what has another shape is left to the general
way."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from algebra import Working, decide
from algebra.exact.evaluate.terms import same_terms
from algebra.parse.lines import read_expression
from algebra.verify import check as checking

EQUAL = [
    ("2·3 - 10/4", "7/2"),
    ("1 1/2 + 0.25", "7/4"),
    ("-(-3) + |2 - 5|", "6"),
    ("12 ÷ 4 · 2", "6"),
    ("2^-3", "1/8"),
    ("(2/3)^-2", "9/4"),
    ("(-2)^3", "-8"),
    ("√50 + √8", "7√2"),
    ("√12·√3", "6"),
    ("√(4/9)", "2/3"),
    ("1/√2", "√2/2"),
    ("(7·√3)/(√3·√3)", "(7√3)/3"),
    ("√6·√10", "2√15"),
    ("1/(3 + √2)", "(3 - √2)/7"),
    ("6/(√5 - √2)", "2√5 + 2√2"),
    ("1/(1 + √2 + √3)", "(2 + √2 - √6)/4"),
    ("(√3 + 1)^2", "4 + 2√3"),
    ("(1 - √2)^-1", "-1 - √2"),
    ("root(3, 16)", "2·root(3, 2)"),
    ("root(3, -8)", "-2"),
    ("8^(2/3)", "4"),
    ("2^(1/2)·2^(1/3)", "2^(5/6)"),
    ("root(4, 4)", "√2"),
    ("√0", "0"),
    ("5x^7·5x^4", "25x^11"),
    ("12x^5/(4x^3)", "3x^2"),
    ("(2a^3b)^-2", "1/(4a^6b^2)"),
    ("x^2 - x^2", "0"),
    ("(x + 2)(x - 2)", "x^2 - 4"),
    ("0/x", "0"),
    ("(x + 1)^0", "1"),
    ("(x^n)^3·x^3", "x^(3n + 3)"),
    ("2^(n + 5)/2^n", "32"),
    ("(2x)^n/x^n", "2^n"),
    ("6^n", "2^n·3^n"),
    ("4^(n - 1)", "2^(2n)/4"),
    ("(2/3)^n·3^n", "2^n"),
    ("√2·x·√2", "2x"),
]
UNLIKE = [
    ("2 + 3·4", "20"),
    ("√5 + √3", "√8"),
    ("√9 + 16", "5"),
    ("1/√2", "2/√2"),
    ("x^2·x^3", "x^6"),
    ("(x + 3)^2", "x^2 + 9"),
    ("2^n·3^n", "5^n"),
    ("x^n·x", "x^(2n)"),
    ("root(3, 2)", "√2"),
    ("2^(n + 1)", "2^n + 2"),
    ("1/(3 + √2)", "1/3 + 1/√2"),
    ("n^2", "2^n"),
    ("√2·√2", "√2"),
]
IMAGINARY = [
    ("i^2", "-1", True),
    ("√-4", "2i", True),
    ("√-2·√-3", "-√6", True),
    ("1/i", "-i", True),
    ("(3 + i)/(2 - i)", "1 + i", True),
    ("(1 + i)^4", "-4", True),
    ("(2 + 3i)(2 - 3i)", "13", True),
    ("(2 + 3i)(2 - 3i)", "-5", False),
    ("√-2·√-3", "√6", False),
    ("root(3, -8)", "-2", None),
    ("2^(n + 1)", "2·2^n", None),
]
LEFT_ALONE = [
    "1/0",
    "0^0",
    "1/(x - x)",
    "√-4",
    "√x",
    "√(1 + √2)",
    "(-2)^(1/2)",
    "1/(x + 1)",
    "|x|",
    "x^(1/2)",
    "(-2)^n",
    "2^(n/2)",
    "2^(n^2)",
    "(x + 1)^n",
    "(2^n)^m",
    "3 ± 1",
    "±2",
    "(x + 1)^20",
    "root(15, 2)",
    "2^π",
    "x^101",
    "x^(200n)",
    "7^3000",
    "1/(1 + root(3, 2))",
    "a+b+c+d+f+g+h+j+k",
    "root(1, 2)",
    "1 1/0",
]


def same(first, second, **more):
    return same_terms(read_expression(first), read_expression(second), **more)


@pytest.mark.parametrize(("first", "second"), EQUAL)
def test_equal_ones_are_found_to_be_equal(first, second):
    assert same(first, second) is True
    assert same(second, first) is True
    assert same(f"({first}) + 1", second) is False


@pytest.mark.parametrize(("first", "second"), UNLIKE)
def test_others_are_not(first, second):
    assert same(first, second) is False


@pytest.mark.parametrize(("first", "second", "found"), IMAGINARY)
def test_of_complex_numbers(first, second, found):
    assert same(first, second, imaginary=True) is found


@pytest.mark.parametrize("text", LEFT_ALONE)
def test_another_shape_is_left_to_the_general_way(text):
    assert same(text, text) is None
    assert same("1", text) is None


@pytest.mark.parametrize(
    ("working", "relation"),
    [
        (Working("simplify", "√50", ("5√2",)), True),
        (Working("solve", "√50", ("5√2",)), False),
        (Working("simplify", "√50", ("5√2",), assume=("x > 0",)), False),
        (Working("simplify", "√50", ("= 5√2",)), True),
        (Working("simplify", "x/x", ("1, x ≠ 0",)), False),
        (Working("simplify", "√50", ("x = 5√2",)), False),
    ],
)
def test_the_quick_way_is_for_bare_expressions(monkeypatch, working, relation):
    asked = []
    monkeypatch.setattr(checking, "same_terms", lambda *trees, **_: asked.append(trees))
    decide(working)
    assert bool(asked) is relation


NUMBERS = st.integers(0, 12).map(str)
LETTERS = st.sampled_from(["x", "y", "n", "i"])


def joined(parts):
    return st.one_of(
        st.tuples(parts, st.sampled_from(["+", "-", "·", "/", "÷"]), parts).map(lambda t: f"({t[0]}) {t[1]} ({t[2]})"),
        st.tuples(parts, st.sampled_from(["2", "3", "-1", "0", "1/2", "-2/3", "n", "n + 2"])).map(
            lambda t: f"({t[0]})^({t[1]})"
        ),
        parts.map(lambda t: f"√({t})"),
        parts.map(lambda t: f"-({t})"),
        parts.map(lambda t: f"root(3, {t})"),
        parts.map(lambda t: f"|{t}|"),
    )


@given(
    st.recursive(NUMBERS | LETTERS, joined, max_leaves=6),
    st.recursive(NUMBERS | LETTERS, joined, max_leaves=3),
    st.booleans(),
    st.booleans(),
)
def test_the_general_way_says_the_same(first, second, turned, imaginary):
    after = f"({second}) - ({second}) + ({first})" if turned else second
    quick = same(first, after, imaginary=imaginary)
    with pytest.MonkeyPatch.context() as without:
        without.setattr(checking, "same_terms", lambda *_, **__: None)
        without.setattr("algebra.verify.comparison.same_terms", lambda *_, **__: None)
        found = decide(Working("simplify", first, (after,), numbers="complex" if imaginary else "real"))
    if quick is not None and found is not None:
        assert found == ("holds" if quick else "breaks")
