"""Statements about a rational function: each against its features, what is still missing, and the words for what is
wrong."""

import pytest

from algebra import Working, check

GIVEN = "(x^2-4)/(x^2-x-2)"  # hole (2, 4/3), asymptotes x = -1 and y = 1, zero at -2
WHOLE = (
    "domain: x ≠ -1, 2",
    "hole: (2, 4/3)",
    "vertical asymptote: x = -1",
    "horizontal asymptote: y = 1",
    "x-intercept: -2",
    "y-intercept: 2",
)


def judged(given, *lines):
    return check(Working("analyze", given, tuple(lines)))


@pytest.mark.parametrize(
    ("given", "line", "relation"),
    [
        (GIVEN, "x ≠ -1, 2", "holds"),
        (GIVEN, "domain: x ≠ -1", "breaks"),
        (GIVEN, "domain: (-∞, -1) ∪ (-1, 2) ∪ (2, ∞)", "holds"),
        (GIVEN, "hole: (2, 4/3)", "holds"),
        (GIVEN, "hole: (2, 1)", "breaks"),
        (GIVEN, "hole: (-1, 0)", "breaks"),
        (GIVEN, "hole: none", "breaks"),
        (GIVEN, "vertical asymptote: x = -1", "holds"),
        (GIVEN, "vertical asymptote: x = 2", "breaks"),
        (GIVEN, "vertical asymptotes: x = -1", "holds"),
        (GIVEN, "vertical asymptotes: x = -1, x = 2", "breaks"),
        (GIVEN, "horizontal asymptote: y = 1", "holds"),
        (GIVEN, "horizontal asymptote: y = 0", "breaks"),
        (GIVEN, "horizontal asymptote: x = 1", "breaks"),
        (GIVEN, "oblique asymptote: none", "holds"),
        (GIVEN, "x-intercept: -2", "holds"),
        (GIVEN, "x-intercept: (-2, 0)", "holds"),
        (GIVEN, "x-intercept: (-2, 1)", "breaks"),
        (GIVEN, "x-intercept: 2", "breaks"),
        (GIVEN, "y-intercept: 2", "holds"),
        (GIVEN, "y-intercept: (0, 2)", "holds"),
        (GIVEN, "y-intercept: -2", "breaks"),
        (GIVEN, "point: (1, 3/2)", "holds"),
        (GIVEN, "point: (1, 2)", "breaks"),
        (GIVEN, "point: (2, 4/3)", "breaks"),
        (GIVEN, "range: y ≠ 1, 4/3", "holds"),
        (GIVEN, "range: y ≠ 1", "breaks"),
        (GIVEN, "end behaviour: x → ∞, y → 1", "holds"),
        (GIVEN, "end behaviour: x → ∞, y → ∞", "breaks"),
        ("(x^2+1)/x", "oblique asymptote: y = x", "holds"),
        ("(x^2+1)/x", "oblique asymptote: y = x + 1", "breaks"),
        ("(x^2+1)/x", "horizontal asymptote: none", "holds"),
        ("(x^2+1)/x", "x-intercepts: none", "holds"),
        ("(x^2+1)/x", "y-intercept: none", "holds"),
        ("(x^2+1)/x", "end behaviour: x → -∞, y → -∞", "holds"),
        ("1/(x^2-2)", "vertical asymptotes: x = √2, x = -√2", "holds"),
        ("1/(x^2-2)", "vertical asymptote: x = √2", "holds"),
        ("1/(x^2-2)", "vertical asymptotes: x = √2", "breaks"),
    ],
)
def test_a_statement_holds_iff_the_function_has_the_feature(given, line, relation):
    link = judged(given, line).links[0]
    assert link.error is None
    assert link.relation == relation
    assert (link.evidence is not None) == (relation == "breaks")


@pytest.mark.parametrize(
    ("given", "line", "words"),
    [
        (GIVEN, "hole: (2, 1)", "The hole is (2, 4/3)."),
        (GIVEN, "vertical asymptote: x = 2", "The vertical asymptote is x = -1."),
        (GIVEN, "point: (1, 2)", "The graph does not go through this point."),
        (GIVEN, "oblique asymptote: y = x", "There is no oblique asymptote."),
        (GIVEN, "range: y ≠ 1", "The range is y ≠ 1, 4/3."),
        (GIVEN, "end behaviour: x → ∞, y → ∞", "It is x → ∞, y → 1; x → -∞, y → 1."),
        ("1/(x^2-2)", "vertical asymptotes: x = 2", "The vertical asymptote is x = √2 and x = -√2."),
    ],
)
def test_what_is_wrong_is_answered_with_what_is_so(given, line, words):
    found = judged(given, line).links[0].evidence.text
    if "√2" in words:
        assert "√2" in found
        assert "-√2" in found
    else:
        assert found == words


@pytest.mark.parametrize(
    ("line", "relation"),
    [
        ("a = 3", "holds"),
        ("a = 2", "breaks"),
        ("h = 2", "holds"),
        ("h = -2", "breaks"),
        ("k = 1", "holds"),
        ("k = 6/6", "holds"),
    ],
)
def test_the_numbers_of_a_shifted_reciprocal(line, relation):
    link = judged("3/(x-2) + 1", line).links[0]
    assert link.relation == relation
    if relation == "breaks":
        assert link.evidence.text.startswith("The function is 3/(x-2) + 1, so ")


def test_a_shift_to_the_left_is_written_with_plus():
    assert "3/(x+2) - 1" in judged("3/(x+2) - 1", "a = 9").links[0].evidence.text


def test_a_function_of_another_form_has_no_such_numbers():
    assert judged("(x^2+1)/x", "h = 2").links[0].error.message == "This function is not a stretched and shifted 1/x."


class TestTheTable:
    def test_it_is_complete_when_every_feature_is_stated(self):
        answer = judged(GIVEN, *WHOLE).answer
        assert (answer.verdict, answer.missing) == ("correct", ())

    @pytest.mark.parametrize("left_out", WHOLE)
    def test_each_feature_that_is_left_out_is_missing(self, left_out):
        answer = judged(GIVEN, *(line for line in WHOLE if line != left_out)).answer
        assert answer.verdict == "incomplete"
        assert [text.replace(" ", "") for text in answer.missing] == [left_out.replace(" ", "")]

    def test_one_wrong_statement_makes_it_wrong(self):
        answer = judged(GIVEN, *WHOLE, "hole: (2, 1)").answer
        assert answer.verdict == "wrong"
        assert answer.extra == ("hole: (2, 1)",)

    def test_nothing_stated_is_no_answer(self):
        assert judged(GIVEN).answer.verdict == "none"

    def test_several_of_a_kind_may_be_stated_one_by_one(self):
        lines = [
            "x ≠ -√2, √2",
            "vertical asymptote: x = √2",
            "vertical asymptote: x = -√2",
            "horizontal asymptote: y = 0",
            "y-intercept: -1/2",
        ]
        assert judged("1/(x^2-2)", *lines).answer.verdict == "correct"
        assert judged("1/(x^2-2)", *(line for line in lines if "x = -√2" not in line)).answer.verdict == "incomplete"

    def test_the_function_may_be_rewritten_between(self):
        report = judged(GIVEN, "((x-2)(x+2))/((x-2)(x+1))", "(x+2)/(x+1)", *WHOLE)
        assert [link.relation for link in report.links[:2]] == ["holds", "holds"]
        assert report.answer.verdict == "correct"


@pytest.mark.parametrize(
    ("given", "words"),
    [("√x", "Only rational functions are analysed."), ("x + y", "Several letters occur: name the one to solve for.")],
)
def test_what_is_no_rational_function_of_one_letter_is_refused(given, words):
    report = judged(given, "hole: none")
    assert report.error.message == words
    assert (report.links[0].relation, report.links[0].notes) == (None, ("given-not-read",))


@pytest.mark.parametrize(
    ("line", "words"),
    [
        ("(2, 1/2) → (5, 2)", None),
        ("(1, 1) -> (4, 3)", None),
        ("(-1, -1) → (2, -1)", None),
        ("(1, 2) → (4, 3)", "The first point does not lie on 1/x."),
        ("(1, 1) → (4, 2)", "It moves to (4, 3)."),
        ("(1, 1) → (-2, 3)", "It moves to (4, 3)."),
    ],
)
def test_where_a_point_of_the_plain_reciprocal_goes(line, words):
    link = judged("2/(x-3) + 1", line).links[0]
    assert (link.relation, link.evidence and link.evidence.text) == ("holds" if words is None else "breaks", words)
