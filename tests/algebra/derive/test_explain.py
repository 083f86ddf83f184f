"""What was probably done on a broken line: named only where the slip makes exactly that line."""

import pytest

from algebra import Working, check
from algebra.derive.careless import arithmetic, copied
from algebra.derive.explain import explain, wrong_lines
from algebra.parse.lines import read_line
from algebra.tree import nodes as n
from algebra.tree.plain import plain


def slip(task, given, *lines, **more):
    return check(Working(task, given, tuple(lines), **more)).links[-1].slip


def body(text):
    return read_line(text).body


ROWS = [
    # (task, given, line, slip; None where nothing known makes the line)
    ("expand", "(x+7)^2", "x^2 + 49", "power-over-sum"),
    ("expand", "3(x-2)", "3x - 2", "distributed-first-only"),
    ("expand", "-(x-2)", "-x - 2", "minus-on-first-term-only"),
    ("evaluate", "2 + 5·4", "28", "left-to-right"),
    ("evaluate", "-3^2", "9", "minus-inside-power"),
    ("evaluate", "3^-2", "-9", "negative-power-negative"),
    ("simplify", "(x+9)/x", "9", "cancelled-terms"),
    ("simplify", "3x + 4y", "7xy", "unlike-terms-combined"),
    ("simplify", "x^2·x^3", "x^6", "product-rule-multiplied"),
    ("simplify", "(x^2)^3", "x^5", "power-rule-added"),
    ("simplify", "√(x^2+36)", "x + 6", "root-over-sum"),
    ("factor", "x^2 - 81", "(x-9)^2", "difference-as-square"),
    ("solve", "x + 8 = 3", "x = 11", "moved-same-sign"),
    ("solve", "x^2 = 36", "x = 6", "plus-minus-missing"),
    ("solve", "x^2 = 9x", "x = 9", "variable-divided-out"),
    ("solve", "(x-3)(x+8) = 0", "x = -3 or x = 8", "root-sign-from-factor"),
    ("solve", "(x-1)(x+4) = 14", "x - 1 = 14 or x + 4 = 14", "zero-product-without-zero"),
    ("solve", "2x = 7", "x = 12345", None),
    ("simplify", "x + y", "17x^5 - 3", None),
]


@pytest.mark.parametrize(("task", "given", "line", "name"), ROWS)
def test_a_line_is_explained_by_the_slip_that_makes_it(task, given, line, name):
    found = slip(task, given, line)
    if name is None:
        assert found is None
    else:
        known = {found.id, *(other.id for other in check(Working(task, given, (line,))).links[0].other_slips)}
        assert name in known, known


@pytest.mark.parametrize(("task", "given", "line"), [(t, g, line) for t, g, line, name in ROWS if name])
def test_what_is_named_is_said_in_whole_sentences(task, given, line):
    found = slip(task, given, line)
    for text in (found.done, found.why, found.cue):
        assert text.strip()
        assert text.rstrip()[-1] in ".?!"
        assert "{" not in text
    assert found.kind in ("concept", "procedure", "notation", "care")


@pytest.mark.parametrize(
    ("given", "line"),
    [("2(x-1) = 4", "2x - 2 = 4"), ("x^2 = 9", "x = ±3"), ("x + 3 = 5", "x = 2"), ("√x = 3", "x = 9")],
)
def test_a_right_line_has_no_slip(given, line):
    assert slip("solve", given, line) is None


@pytest.mark.parametrize(
    ("given", "line", "instead"),
    [
        ("2(x-1) = 4", "2x - 1 = 4", "2x - 2 = 4"),
        ("x + 8 = 3", "x = 11", "x = -5"),
    ],
)
def test_the_right_line_is_offered_in_place_of_the_wrong_one(given, line, instead):
    found = slip("solve", given, line)
    assert found.instead.partition(" | ")[0].strip() == instead
    assert check(Working("solve", given, (found.instead,))).links[0].relation == "holds"


def test_right_steps_on_the_same_line_do_not_hide_the_slip():
    assert slip("solve", "2(x-1) + 3 = 4", "2x + 2 = 4").id == "distributed-first-only"
    assert slip("expand", "(x+7)^2 + x", "x^2 + x + 49").id == "power-over-sum"


def test_two_slips_on_one_line_are_both_named():
    found = slip("expand", "3(x-2) - (x-4)", "3x - 2 - x - 4")
    assert found.also is not None
    assert {found.id, found.also.id} == {"distributed-first-only", "minus-on-first-term-only"}


@pytest.mark.parametrize(
    ("given", "line"), [("2(x-1) = 4", "2x - 1 = 4"), ("x^2 = 9x", "x = 9"), ("(x+3)/(x+4) = 2", "3/4 = 2")]
)
def test_the_place_of_a_slip_is_in_both_lines(given, line):
    found = slip("solve", given, line)
    for text, addresses in ((given, found.before), (line, found.after)):
        for address in addresses:
            assert plain(n.at(body(text), address))


def test_explanations_are_no_more_than_four_and_no_two_the_same():
    for task, given, line, _ in ROWS:
        link = check(Working(task, given, (line,))).links[0]
        names = [item.id for item in ((link.slip,) if link.slip else ()) + link.other_slips]
        assert len(names) == len(set(names)) <= 4


def test_explaining_is_the_same_every_time():
    first = [(found.slip.id, found.at) for found in explain(body("2(x-1) = 4"), body("2x - 1 = 4"), "solve")]
    assert first == [(found.slip.id, found.at) for found in explain(body("2(x-1) = 4"), body("2x - 1 = 4"), "solve")]
    assert first


class TestWrongLines:
    def test_each_wrong_line_differs_from_the_right_one_at_one_place(self):
        before = body("3(x-2) + 4")
        found = list(wrong_lines(before, "simplify"))
        assert {slip.id for slip, *_ in found} >= {"distributed-first-only"}
        for _, address, _, wrong in found:
            assert plain(wrong) != plain(before)
            assert n.at(before, address) is not None

    def test_a_slip_that_belongs_to_equations_makes_none_of_an_expression(self):
        names = {slip.id for slip, *_ in wrong_lines(body("x + 8"), "simplify")}
        assert "moved-same-sign" not in names
        assert "moved-same-sign" in {slip.id for slip, *_ in wrong_lines(body("x + 8 = 3"), "solve")}


class TestCopied:
    @pytest.mark.parametrize(
        ("before", "after", "said"),
        [
            ("3x + 5", "3x + 6", "5 became 6"),
            ("3x + 5", "3y + 5", "x became y"),
            ("3x^2 + 5", "3x^3 + 5", "2 became 3"),
            ("3x + 5", "3x - 5", "+ 5 became - 5"),
            ("2x + 3 = 7", "2x + 3 = 1", "7 became 1"),
        ],
    )
    def test_one_symbol_was_copied_wrongly(self, before, after, said):
        _, words = copied(body(before), body(after))
        assert str(words) == said

    @pytest.mark.parametrize(
        ("before", "after"),
        [("3x + 5", "3x + 5"), ("3x + 5", "4x + 6"), ("3x + 5", "3x"), ("a - b + c", "a + b - c"), ("2x·3", "2x ÷ 3")],
    )
    def test_nothing_or_more_than_one_is_no_copying(self, before, after):
        assert copied(body(before), body(after)) is None


class Everything:
    """A judge for whom every set-right line is right."""

    is_spent = False

    def is_it(self, line):
        return 2


class Nothing(Everything):
    def is_it(self, line):
        return 0


@pytest.mark.parametrize(("before", "after"), [("3·4 + x", "13 + x"), ("7 + 8 + x", "14 + x")])
def test_a_number_worked_out_wrongly_is_named_only_where_setting_it_right_mends_the_line(before, after):
    assert arithmetic(body(before), body(after), Everything()) is not None
    assert arithmetic(body(before), body(after), Nothing()) is None
