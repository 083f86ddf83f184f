"""Typst and MathML: every kind of node is printed, compiles or is read as XML, and says the same as the plain
notation."""

import os
import xml.etree.ElementTree as ET

import pytest
import typst as compiler
from hypothesis import given, settings

from algebra.parse.lines import read_line
from algebra.tree import flow
from algebra.tree import nodes as n
from algebra.tree import statements as ln
from algebra.tree.latex import latex
from algebra.tree.mathml import mathml
from algebra.tree.typst import typst, typst_sides
from tests.algebra.parse.test_notation import TREES
from tests.algebra.tree.test_statements import MARKED, STATEMENTS

EXPRESSIONS = [
    ("x/4", "frac(x, 4)", "<mfrac><mi>x</mi><mn>4</mn></mfrac>"),
    ("(x+1)/(x-2)", "frac(x + 1, x - 2)", None),
    ("√(x+1)", "sqrt(x + 1)", None),
    ("∛x", "root(3, x)", "<mroot><mi>x</mi><mn>3</mn></mroot>"),
    ("x^(n+1)", "x^(n + 1)", None),
    ("2·3÷4×5", "2 dot.op 3 div 4 times 5", None),
    ("(x+1)(x-2)", "(x + 1) (x - 2)", None),
    ("xy^2", "x y^(2)", "<mrow><mi>x</mi><mo>&#x2062;</mo><msup><mi>y</mi><mn>2</mn></msup></mrow>"),
    ("[x+1]·{x}", "[x + 1] dot.op {x}", None),
    ("|x-2|", "abs(x - 2)", None),
    ("2 1/3", "2 thin frac(1, 3)", None),
    ("3 ± √5", "3 plus.minus  sqrt(5)", None),
    ('5"km"', '5 "km"', None),
    ("(√x)^3", "(sqrt(x))^(3)", None),
    ("π", "pi", "<mi>π</mi>"),
    ("0.5", "0.5", "<mn>0.5</mn>"),
    ("a/b c/d", None, None),
]
ALL = (
    [text for text, _ in STATEMENTS]
    + MARKED
    + [text for text, *_ in EXPRESSIONS]
    + [
        "x → ∞",
        "f(2) = 5",
        "D: x ≠ 2",
        "moved point: (1, 2) → (3, 4)",
        "x > 0 and x < 3",
        "k□ + 1",
        "∓3",
        "θ + α",
        "range: (-∞, 2) ∪ (2, ∞)",
    ]
)


def bodies():
    found = []
    for text in ALL:
        try:
            body = read_line(text).body
        except ValueError:
            continue
        if body is not None:
            found.append((text, body))
    return found


def compiled(formulas):
    """Compiles all formulas in one document; raises TypstError where one is wrong."""
    source = "#set page(width: 60cm, height: auto)\n" + "\n\n".join(f"${text}$" for text in formulas)
    return compiler.compile(source.encode(), format="svg", ignore_system_fonts=True)


@pytest.mark.parametrize(("text", "printed", "marked_up"), EXPRESSIONS)
def test_an_expression_is_printed(text, printed, marked_up):
    body = read_line(text).body
    if printed is not None:
        assert typst(body) == printed
    if marked_up is not None:
        assert f"{marked_up}</math>" in mathml(body)


def test_everything_compiles_and_is_read_as_xml():
    formulas = [(text, typst(body), typst(body, comma=True)) for text, body in bodies()]
    assert len(formulas) >= 50
    compiled([formula for _, *both in formulas for formula in both])
    for _, body in bodies():
        for comma in (False, True):
            root = ET.fromstring(mathml(body, comma=comma))
            assert root.tag.endswith("math")


def every(kind):
    return [kind, *(other for each in kind.__subclasses__() for other in every(each))]


@pytest.mark.skipif("MUTANT_UNDER_TEST" in os.environ, reason="it reads the code of methods, which is wrapped then")
def test_no_node_is_without_a_printer():
    shown = {type(node) for _, body in bodies() for _, node in n.walk(body)}
    missing = {kind.__name__ for kind in every(n.Node)} - {kind.__name__ for kind in shown} - {"Node", "Statement"}
    assert missing <= {"Infinity", "Claim", "End", "AllOf", "Feature", "Mixed"}, missing
    stated = {kind.__name__ for kind in flow._PIECES}
    for kind in every(n.Node):
        if kind is n.Node:
            continue
        for printer in (typst, mathml, latex):
            source = printer.__globals__[
                {"typst": "_Printer", "mathml": "_Printer", "latex": "_Typesetter"}[printer.__name__]
            ]
            named = {
                name
                for method in vars(source).values()
                if hasattr(method, "__code__")
                for name in method.__code__.co_names
            }
            assert kind.__name__ in named | stated, (printer.__name__, kind.__name__)


@settings(max_examples=60)
@given(TREES)
def test_any_expression_compiles_and_keeps_its_numbers_and_letters(tree):
    formula = typst(tree)
    compiled([formula])
    root = ET.fromstring(mathml(tree))
    told = [node.text for node in root.iter() if node.tag.rpartition("}")[2] in ("mn", "mi")]
    assert sorted(told) == sorted(leaf for _, node in n.walk(tree) for leaf in leaves(node))


def leaves(node):
    """The numbers and letters that a node itself shows."""
    match node:
        case n.Integer(value):
            return [str(value)]
        case n.Decimal(digits) | n.Letter(digits):
            return [digits]
        case n.Mixed(whole, top, bottom):
            return [str(whole), str(top), str(bottom)]
    return []


@pytest.mark.parametrize(
    ("text", "left", "right"),
    [
        ("2x = 3 = 3", "2 x", "= 3 = 3"),
        ("x ≠ 0, 4", "x", "eq.not 0, 4"),
        ("x < 5", "x", "< 5"),
        ("x + 1", "", "x + 1"),
        ("prime", "", '"prime"'),
    ],
)
def test_sides_stand_apart_at_the_first_sign(text, left, right):
    assert typst_sides(read_line(text).body) == (left, right)


def test_a_word_cannot_leave_its_quotes():
    body = ln.Word('a" #panic() \\ "b')
    compiled([typst(body)])
    assert ET.fromstring(mathml(ln.Word("<b>&"))).find(".//{*}mtext").text == "<b>&"
