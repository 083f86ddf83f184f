"""Reading and printing: what is accepted, how it is understood, and where errors are placed."""

import pytest
from hypothesis import example, given, settings
from hypothesis import strategies as st

from algebra import echo, limits
from algebra.parse.errors import ReadingError
from algebra.parse.lines import read_expression, read_line
from algebra.tree import nodes as n
from algebra.tree.latex import latex
from algebra.tree.plain import plain


def bracketed(node: n.Node) -> str:
    """Every operation in its own brackets, to see the reading."""
    match node:
        case n.Sum(terms, signs):
            return "[" + "".join(s + bracketed(t) for s, t in zip(("", *signs), terms, strict=True)) + "]"
        case n.Product(factors, ops):
            return (
                "["
                + "".join(
                    (o or "*") * bool(k) + bracketed(f)
                    for k, (o, f) in enumerate(zip(("", *ops), factors, strict=True))
                )
                + "]"
            )
        case n.Fraction(top, bottom):
            return f"[{bracketed(top)}/{bracketed(bottom)}]"
        case n.Power(base, exponent):
            return f"[{bracketed(base)}^{bracketed(exponent)}]"
        case n.Signed(sign, child):
            return f"[{sign}{bracketed(child)}]"
        case n.Group(child):
            return f"({bracketed(child)})"
        case n.Root(radicand, index):
            return f"[√{bracketed(index) if index else ''}:{bracketed(radicand)}]"
        case n.Absolute(child):
            return f"|{bracketed(child)}|"
    return plain(node)


@pytest.mark.parametrize(
    ("text", "reading"),
    [
        ("1/5 + 2/3 ÷ 2/3", "[[1/5]+[[2/3]÷[2/3]]]"),
        ("2/3x", "[[2/3]*x]"),
        ("x^2/3y", "[[[x^2]/3]*y]"),
        ("-3^2", "[-[3^2]]"),
        ("2^3^2", "[2^[3^2]]"),
        ("x^-2y", "[[x^[-2]]*y]"),
        ("36 ÷ 4 × 3", "[36÷4×3]"),
        ("2 1/4 + 1", "[2 1/4+1]"),
        ("2(x+1)(x-1)", "[2*([x+1])*([x-1])]"),
        ("√x²", "[[√:x]^2]"),
        ("2√5", "[2*[√:5]]"),
        ("√-4", "[√:[-4]]"),
        ("||x|-2|", "|[|x|-2]|"),
        ("|x-3||x|", "[|[x-3]|*|x|]"),
        ("5 - -3", "[5-[-3]]"),
        ("2 · -3x", "[2·[-3]*x]"),
        ("x⁻¹ + x²", "[[x^[-1]]+[x^2]]"),
        ("root(4, x+1)", "[√4:([x+1])]"),
        (r"\frac{x+1}{x-4}", "[([x+1])/([x-4])]"),
        (r"\frac12x", "[[1/2]*x]"),
        (r"2\frac14", "2 1/4"),
        (r"\sqrt[3]{x+1}\cdot 2", "[[√3:([x+1])]·2]"),
        (r"\left(x+1\right)^{10}", "[([x+1])^10]"),
        ("3,5", None),
    ],
)
def test_an_expression_is_read_as_a_teacher_means_it(text, reading):
    if reading is None:
        with pytest.raises(ReadingError):
            read_expression(text)
        assert bracketed(read_expression(text, decimal="comma")) == "3.5"
    else:
        assert bracketed(read_expression(text)) == reading


@pytest.mark.parametrize(
    ("text", "kind", "printed"),
    [
        ("x = 3 or x = -2", "equation", "x = 3 or x = -2"),
        ("x = 3 or -2", "equation", "x = 3 or x = -2"),
        ("x = 3, -2", "statement", "x = 3, -2"),
        ("{3, -2}", "statement", "{3, -2}"),
        ("no solution", "statement", "no solution"),
        ("no real solutions", "statement", "no solution"),
        ("x = {3, -2}", "statement", "x = 3, -2"),
        ("x >= 3", "statement", "x ≥ 3"),
        ("2 ≤ x < 5", "statement", "2 ≤ x < 5"),
        ("(-inf, -5) U (-5, 2]", "statement", "(-∞, -5) ∪ (-5, 2]"),
        ("x ∈ (-inf, -5)U(-5, 2]", "statement", "(-∞, -5) ∪ (-5, 2]"),
        (r"x \in \mathbb{R} \setminus \{2, 3\}", "statement", "ℝ ∖ {2, 3}"),
        (r"ℝ \ {2}", "statement", "ℝ ∖ {2}"),
        ("x ∈ ℝ, x ≠ 2, 3", "statement", "ℝ ∖ {2, 3}"),
        ("D = ℝ∖{2}", "feature", "D: ℝ ∖ {2}"),
        ("D_f = [2, ∞)", "feature", "D: [2, ∞)"),
        ("S = {2, 3}", "statement", "{2, 3}"),
        ("L = ∅", "statement", "∅"),
        ("2root(5, 3)U", "expression", "2root(5, 3)U"),
        ("all real numbers except 0, 4", "statement", "all real numbers except 0, 4"),
        ("x != 0, 4", "exclusion", "x ≠ 0, 4"),
        ("= 3x + 1", "expression", "3x + 1"),
        ("f(x) = x^2", "expression", "x^2"),
        ("x = 2 +- 3", "equation", "x = 2 ± 3"),
        ("x = |-5|", "equation", "x = |-5|"),
        (r"\frac{x}{2} = 3 \text{ or } x = 1", "equation", "x/2 = 3 or x = 1"),
        ("aside: 5 - a = -(a - 5)", "aside", "5 - a = -(a-5)"),
        ("check x = 5: undefined", "check", "undefined"),
    ],
)
def test_a_line_is_known_by_its_kind(text, kind, printed):
    line = read_line(text)
    assert line.kind == kind
    assert plain(line.body) == printed


def test_a_move_and_a_remark_are_told_from_bars_of_absolute_values():
    line = read_line("|x-2| = 5 | +2   # isolate first")
    assert plain(line.body) == "|x-2| = 5"
    assert (line.move.name, plain(line.move.operand), line.remark) == ("add", "2", "isolate first")


@pytest.mark.parametrize(
    ("text", "column", "code", "words"),
    [
        ("", 1, "syntax", "empty"),
        ("3x + ", 5, "syntax", "missing after “+”"),
        ("(x+1", 5, "syntax", "not closed"),
        ("x+1)", 4, "syntax", "not opened"),
        ("2(x+1]", 6, "syntax", "“)” was expected"),
        ("3 4", 3, "syntax", "side by side"),
        ("x2", 2, "syntax", "x^2"),
        ("3/-4", 3, "syntax", "brackets"),
        ("x ≠ 3, x = 1", 13, "syntax", "left out stands at the end"),
        ("2 * * 3", 5, "syntax", "missing"),
        ("$5", 1, "syntax", "no meaning"),
        ("hello", 1, "syntax", "not a word"),
        (r"\foo{x}", 1, "syntax", "not known"),
        ("sin x", 1, "scope", "outside"),
        ("x + log 3", 5, "scope", "outside"),
        ("x" + "+1" * 400, limits.MAX_LINE_CHARACTERS, "limit", "longer"),
        ("(" * 60 + "x" + ")" * 60, 41, "limit", "deep"),
        ("9" * 100, 1, "limit", "digits"),
    ],
)
def test_an_error_names_its_place_and_what_was_expected(text, column, code, words):
    with pytest.raises(ReadingError) as caught:
        read_line(text)
    assert (caught.value.column, caught.value.code) == (column, code)
    assert words in caught.value.message


LETTERS = st.sampled_from("xyabnrosU").map(n.Letter)
NUMBERS = st.one_of(
    st.integers(0, 999).map(n.Integer),
    st.sampled_from(["0.5", "12.25", ".5"]).map(n.Decimal),
)


def _expressions(inner):
    group = inner.map(n.Group)
    factor = st.one_of(NUMBERS, LETTERS, group)
    letterish = st.one_of(LETTERS, group)
    power = st.builds(n.Power, factor, st.one_of(NUMBERS, LETTERS, group, NUMBERS.map(lambda e: n.Signed("-", e))))
    fraction = st.builds(n.Fraction, st.one_of(factor, power), st.one_of(factor, power))
    implied = st.builds(
        lambda first, rest: n.Product((first, *rest), ("",) * len(rest)),
        st.one_of(NUMBERS, letterish, power, fraction),
        st.lists(st.one_of(letterish, st.builds(n.Power, letterish, NUMBERS)), min_size=1, max_size=4),
    )
    written = st.builds(
        lambda a, b, op: n.Product((a, b), (op,)), fraction, st.one_of(factor, fraction), st.sampled_from("·×÷")
    )
    sums = st.builds(
        lambda a, b, c, signs: n.Sum((a, b, c), signs),
        st.one_of(factor, implied),
        st.one_of(fraction, written, factor.map(lambda f: n.Signed("-", f))),
        st.one_of(implied, power),
        st.tuples(st.sampled_from("+-±"), st.sampled_from("+-∓")),
    )
    roots = st.builds(n.Root, st.one_of(NUMBERS, LETTERS, group), st.sampled_from([None, n.Integer(3), n.Integer(5)]))
    return st.one_of(
        factor,
        power,
        fraction,
        implied,
        written,
        sums,
        roots,
        inner.map(n.Absolute),
        st.builds(n.Signed, st.sampled_from("+-"), fraction),
    )


TREES = st.recursive(st.one_of(NUMBERS, LETTERS), _expressions, max_leaves=12)


@settings(max_examples=300)
@given(TREES)
def test_a_printed_tree_reads_back_as_the_same_tree(tree):
    text = plain(tree)
    try:
        again = read_expression(text)
    except ReadingError as problem:
        assert problem.code == "limit", text
        return
    assert plain(again) == text
    assert latex(tree)


@settings(max_examples=300)
@example("AA\rAAAA\x85A")  # seven letters, which printed in two groups were two words
@given(st.one_of(st.text(max_size=60), st.text("xy0123456789+-*/^()[]{}|=.,√±≠÷ orcheckletf\\{}#", max_size=60)))
def test_no_text_raises_anything_but_the_documented_error(text):
    try:
        line = read_line(text)
    except ReadingError as problem:
        assert 1 <= problem.column <= max(len(text), limits.MAX_LINE_CHARACTERS) + 1
        assert problem.message
        return
    if line.body is not None and line.kind != "check":
        word = {"aside": "aside: ", "assumption": "assume: "}.get(line.kind, "")
        again = read_line(f"{word}{plain(line.body)}")
        assert plain(again.body) == plain(line.body)


@pytest.mark.parametrize(
    ("line", "shown"),
    [
        (r"x ∈ ℝ, x ≠ 2", r"x\in \mathbb{R} \setminus \left\{2\right\}"),
        ("D = [2, ∞)", r"D= \left[2,\; \infty\right)"),
        ("D: x ≠ 2", r"\text{domain: }x \ne 2"),
        ("⇒ S = ∅", r"S= \varnothing"),
        ("= 3", "= 3"),
        ("f(x) = 2x", "f(x)= 2x"),
    ],
)
def test_the_sign_before_a_set_is_kept_as_it_was_written(line, shown):
    found = echo(line)
    assert found.left + found.right == shown
