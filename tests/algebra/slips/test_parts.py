"""Taking written expressions apart, and putting wrong ones together: what slips are made of."""

from fractions import Fraction as Q

import pytest
from hypothesis import given
from hypothesis import strategies as st

from algebra.exact.evaluate.symbolic import value_of
from algebra.exact.rational_functions import field_of
from algebra.parse.lines import read_expression, read_line
from algebra.slips import SLIPS, lurking_at
from algebra.slips import parts as p
from algebra.slips.words import Words, listed, said
from algebra.tree import nodes as n
from algebra.tree.plain import plain

FIELD = field_of(("x", "y"))
X, Y = n.Letter("x"), n.Letter("y")


def tree(text):
    return read_expression(text)


def value(node):
    return value_of(node, FIELD).ratio


@pytest.mark.parametrize(
    ("text", "number"),
    [
        ("3", 3),
        ("-3", -3),
        ("(3)", 3),
        ("-(-3)", 3),
        ("1/2", Q(1, 2)),
        ("-1/2", Q(-1, 2)),
        ("x", None),
        ("2 + 1", None),
        ("2·3", None),
        ("+3", None),
    ],
)
def test_a_number_is_what_is_written_as_one(text, number):
    assert p.number_of(tree(text)) == number


@pytest.mark.parametrize(("text", "zero"), [("0", True), ("(0)", True), ("0/3", True), ("x", False), ("1 - 1", False)])
def test_zero_is_what_is_written_0(text, zero):
    assert p.is_zero(tree(text)) is zero


@pytest.mark.parametrize(
    ("text", "found"),
    [
        ("x + 3 - y", [("+", "x"), ("+", "3"), ("-", "y")]),
        ("-x + 3", [("-", "x"), ("+", "3")]),
        ("-x", [("-", "x")]),
        ("(x + 3)", [("+", "x"), ("+", "3")]),
        ("xy", [("+", "xy")]),
    ],
)
def test_the_terms_of_a_sum(text, found):
    assert [(sign, plain(term)) for sign, term in p.terms(tree(text))] == found


@pytest.mark.parametrize(
    ("text", "found"),
    [
        ("3xy", ["3", "x", "y"]),
        ("3(x+1)", ["3", "x + 1"]),
        ("(2x)y", ["2", "x", "y"]),
        ("6 ÷ x", ["6 ÷ x"]),
        ("x + 1", ["x + 1"]),
    ],
)
def test_the_factors_of_a_product(text, found):
    assert [plain(n.bare(part)) for part in p.factors(tree(text))] == found


@pytest.mark.parametrize(
    ("text", "number", "rest"),
    [("3x", 3, "x"), ("x", 1, "x"), ("5", 5, None), ("2·3x", 6, "x"), ("-2", -2, None), ("x·4y", 4, "xy")],
)
def test_a_term_is_a_number_times_the_rest(text, number, rest):
    found, other = p.coefficient(tree(text))
    assert found == number
    assert (None if other is None else plain(other).replace(" · ", "")) == rest


def test_a_sum_has_no_coefficient():
    assert p.coefficient(tree("x + 1")) is None


@pytest.mark.parametrize(
    ("text", "found"),
    [("3x - 2y + 5", [3, -2, 5]), ("-x - (-4)", [-1, 4]), ("x", [1]), ("x + (y + 1)", None)],
)
def test_signed_terms_carry_their_signs_in_their_numbers(text, found):
    result = p.signed(p.terms(tree(text)))
    assert (None if result is None else [number for number, _ in result]) == found


@pytest.mark.parametrize(
    ("text", "found"),
    [
        ("x^3", ("x", 3)),
        ("x", ("x", 1)),
        ("5", ("5", 1)),
        ("x^-2", ("x", -2)),
        ("(x+1)^2", ("x + 1", 2)),
        ("x^y", None),
        ("xy", None),
    ],
)
def test_base_and_exponent(text, found):
    result = p.base_and_exponent(tree(text))
    assert (None if result is None else (plain(result[0]), result[1])) == found


class TestPuttingTogether:
    @given(st.lists(st.tuples(st.sampled_from("+-"), st.sampled_from(["x", "3", "x + y", "-2", "xy"])), max_size=4))
    def test_a_sum_has_the_value_of_its_terms(self, items):
        total = FIELD.constant(0)
        for sign, text in items:
            total = total + value(tree(text)) if sign == "+" else total - value(tree(text))
        assert value(p.add([(sign, tree(text)) for sign, text in items])) == total

    @given(st.lists(st.sampled_from(["x", "3", "x + y", "-2", "x/y"]), max_size=4))
    def test_a_product_has_the_value_of_its_factors(self, items):
        total = FIELD.constant(1)
        for text in items:
            total = total * value(tree(text))
        assert value(p.multiply([tree(text) for text in items])) == total

    @given(st.sampled_from(["x", "x + y", "-2", "3x", "x - 1"]), st.integers(-3, 4))
    def test_a_power_is_of_the_whole_base(self, text, exponent):
        assert value(p.power(tree(text), exponent)) == value(tree(text)) ** exponent

    @pytest.mark.parametrize(
        ("made", "shown"),
        [
            (p.over(tree("x + 1"), tree("2")), "(x+1)/2"),
            (p.opposite(tree("x + 1")), "-(x + 1)"),
            (p.both_signs(tree("3")), "±3"),
            (p.root(tree("x + 1")), "√(x+1)"),
            (p.root(tree("x"), n.Root(X, n.Integer(3))), "∛(x)"),
            (p.equals(X, n.Integer(3)), "x = 3"),
            (p.either([p.equals(X, n.Integer(3)), p.equals(X, n.Integer(4))]), "x = 3 or x = 4"),
            (p.counted(Q(3), X), "3 · x"),
            (p.counted(Q(1, 2), None), "1/2"),
            (p.square_of("x"), "(x^2)"),
            (p.factor(tree("x + 1")), "(x + 1)"),
            (p.factor(tree("(x)")), "x"),
            (p.add([]), "0"),
            (p.multiply([]), "1"),
        ],
    )
    def test_what_is_made_is_written_so(self, made, shown):
        assert plain(made).replace(" ", "") == shown.replace(" ", "")


class TestWords:
    def test_slots_are_filled_with_parts_as_written(self):
        words = said("{what} times {number} is not {text}", what=tree("x + 1"), number=Q(1, 2), text="so")
        assert str(words) == "x + 1 times 1/2 is not so"
        assert words.shows == ()

    def test_a_part_that_is_shown_is_kept(self):
        assert said("{a} lost", a=X, shows=Y).shows == (Y,)

    def test_a_template_without_slots_stands_as_it_is(self):
        assert str(Words("The set {1, 2} is right")) == "The set {1, 2} is right"

    def test_parts_are_joined_by_and(self):
        assert listed([X, tree("x + 1"), Y]) == "x and x + 1 and y"


class TestRecords:
    @pytest.mark.parametrize("slip", SLIPS, ids=lambda slip: slip.id)
    def test_a_slip_is_told_in_whole_words(self, slip):
        assert slip.id == slip.id.lower()
        assert " " not in slip.id
        assert slip.name[0].isupper() or not slip.name[0].isalpha()
        assert slip.why.endswith((".", "!"))
        assert slip.cue.endswith((".", "?", "!"))
        assert slip.kind in ("concept", "procedure", "notation", "care")
        assert slip.examples

    def test_what_slips_make_is_nodes_and_words_not_text(self):
        made = [
            found
            for slip in SLIPS
            if slip.scope not in ("equation", "seen")
            for example in slip.examples
            for _, part in n.walk(read_line(example[0]).body)
            for found in slip.wrong(part)
        ]
        assert len(made) > 100
        assert all(isinstance(wrong, n.Node) and isinstance(words, Words) for wrong, words in made)

    def test_names_and_ids_are_their_own(self):
        assert len({slip.id for slip in SLIPS}) == len({slip.name for slip in SLIPS}) == len(SLIPS)

    def test_what_lurks_at_a_rule_is_found_from_the_slips(self):
        for slip in SLIPS:
            for rule in slip.lurks_in:
                assert slip in lurking_at(rule)
        assert not lurking_at("no-such-rule")
