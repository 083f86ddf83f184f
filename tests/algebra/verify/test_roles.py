"""What a line is: side work, labels, moves below, checks, decisions, answers, in the words in which they are written.

A role never excuses what is wrong: wrong side work, a wrong label and a false decision break, and a line of the chain
stays one."""

import pytest
from hypothesis import given as drawn
from hypothesis import settings
from hypothesis import strategies as st

from algebra import Working, check

HOLDS, BREAKS = "holds", "breaks"


def relations(task, given, lines, **more):
    return [link.relation for link in check(Working(task, given, tuple(lines), **more)).links]


SIDE_WORK = [
    ("simplify", "√28 + √63", ["√28 = √(4·7) = 2√7", "√63 = 3√7", "2√7 + 3√7", "5√7"], "HHHH"),
    ("simplify", "√28 + √63", ["√28 = 4√7"], "B"),
    ("simplify", "√28 + √63", ["2√7"], "B"),
    ("simplify", "5/(n - 3) - 2/(3 - n)", ["3 - n = -(n - 3)", "5/(n - 3) + 2/(n - 3)", "7/(n - 3)"], "HHH"),
    ("simplify", "5/(n - 3) - 2/(3 - n)", ["3 - n = n - 3"], "B"),
    ("simplify", "(25a^2 - 100b^2)/(5a - 10b)", ["25a^2 - 100b^2 = 25(a^2 - 4b^2)", "5a + 10b"], "HH"),
    ("simplify", "(x^2 + 5x + 6)/(x + 2)", ["x^2 + 5x + 6 = (x + 2)(x + 3)", "x + 3"], "HH"),
    ("simplify", "(x^2 + 5x + 6)/(x + 2)", ["x^2 + 5x + 6 = (x + 1)(x + 6)", "x + 3"], "BH"),
    ("simplify", "(x^2 + 5x + 6)/(x + 2)", ["(x^2 + 5x + 6)/(x + 2) = x + 3"], "H"),
    ("simplify", "(x^2 + 5x + 6)/(x + 2)", ["(x^2 + 5x + 6)/(x + 2) = x + 2"], "B"),
    ("evaluate", "3 + 4·(7 - 2)^2", ["(7 - 2)^2 = 25", "3 + 4·25", "103"], "HHH"),
    ("evaluate", "3 + 4·(7 - 2)^2", ["(7 - 2)^2 = 5", "3 + 4·5"], "BB"),
    ("solve", "2/(x - 3) + 1 = 5/(x^2 - 9)", ["x^2 - 9 = (x - 3)(x + 3)"], "H"),
    ("solve", "2x + 4 = 2(x + 3)", ["2x + 4 = 2(x + 2)"], "B"),
    ("solve", "2x + 3 = 2x + 5", ["3 = 3"], "B"),
]
LABELS = [
    ("simplify", "4/x + 3/(x + 5)", ["LCD x(x + 5)"], "H"),
    ("simplify", "4/x + 3/(x + 5)", ["LCD: x(x + 5)"], "H"),
    ("simplify", "4/x + 3/(x + 5)", ["the common denominator is x(x + 5)"], "H"),
    ("simplify", "4/x + 3/(x + 5)", ["LCD x + 5"], "B"),
    ("factor", "14y^3 + 21y", ["GCF 7y", "7y(2y^2 + 3)"], "HH"),
    ("factor", "14y^3 + 21y", ["HCF = 7", "7y(2y^2 + 3)"], "BH"),
    ("simplify", "(3/a + 2)/(a/5 - 1/10)", ["LCD(top): a", "LCD(bottom): 10"], "HH"),
    ("simplify", "(3/a + 2)/(a/5 - 1/10)", ["LCD (numerator) = a", "LCD(den): 5"], "HB"),
]
BELOW = [
    ("solve", "x + 13 = 4", ["-13   -13", "x = -9"], "-H"),
    ("solve", "7w - 8 = 20", ["+8      +8", "7w = 28", "÷7   ÷7", "w = 4"], "-H-H"),
    ("solve", "9x + 4 = x^2 + 2x - 4", ["-9x - 4    -9x - 4", "0 = x^2 - 7x - 8"], "-H"),
    ("solve", "x + 13 = 4", ["-13   -13", "x = 17"], "-B"),
    ("solve", "x + 13 = 4", ["-13   -12"], "B"),
]
CHECKS = [
    ("solve", "√(x + 20) = x", ["x^2 - x - 20 = 0", "x = 5 or x = -4", "check x = -4 ✗", "x = 5"], "WHHS"),
    ("solve", "√(x + 20) = x", ["x = 5 or x = -4", "check x = -4: fails", "x = 5"], "WHS"),
    ("solve", "√(x + 20) = x", ["x = 5 or x = -4", "check x = 5: no"], "WB"),
    ("solve", "√(x + 20) = x", ["x = 5 or x = -4", "check x = -4: √16 = 4, not -4", "x = 5"], "WHS"),
    ("solve", "4 + 3y = -11", ["y = -5", "check y = -5: 4 + 3(-5) = -11; 4 - 15 = -11; -11 = -11"], "HH"),
    ("solve", "4 + 3y = -11", ["y = -5", "check y = -5: 4 + 3(-5) = -11; 4 - 14 = -11; -11 = -11"], "HB"),
    ("solve", "4 + 3y = -11", ["y = -5", "check: 4 + 3(-5) = -11"], "HH"),
    ("solve", "4 + 3y = -11", ["y = -5", "check: 4 + 3(-5) = -9"], "HB"),
    ("solve", "4 + 3y = -11", ["check: 4 + 3(-5) = -11"], "H"),
    ("solve", "x^2 = x", ["x = 0 or x = 1", "check: 1^2 = 1", "check: 0^2 = 0"], "HHH"),
]
DECISIONS = [
    ("solve", "√(x + 20) = x", ["x = 5 or x = -4", words, *more], relations)
    for words, more, relations in [
        ("x = 5, reject -4", (), "WS"),
        ("x = 5; -4 is rejected", (), "WS"),
        ("x = 5 (-4 extraneous)", (), "WS"),
        ("x = 5 (reject x = -4)", (), "WS"),
        ("x = 5, but -4 does not work", (), "WS"),
        ("x = 5 only", (), "WS"),
        ("∴ x = 5 is the only solution", (), "WS"),
        ("so the answer is x = 5", (), "WS"),
        ("reject -4", (), "WS"),
        ("-4 is extraneous", ("Answer: 5",), "WSH"),
        ("x = -4 is not a solution", (), "WS"),
        ("-4 n.a.", (), "WS"),
        ("x = -4 (extraneous) or x = 5", (), "WS"),
        ("x = 5    x = -4 extr.", (), "WS"),
        ("x = 5 because a root is never negative", (), "WS"),
        ("reject 7", (), "WB"),
        ("x = 5, reject 7", (), "WB"),
        ("x = -4, reject 5", (), "WN"),
    ]
]
DECISIONS += [
    ("solve", "(x - 2)(x + 9) = 0", ["x = 2 or x = -9", "x = 2; -9 is rejected"], "HN"),
    ("solve", "(x - 2)(x + 9) = 0", ["x = 2 or x = -9", "reject 2 and -9"], "HN"),
    ("solve", "4x - 7 = 13", ["4x = 20", "Answer: 5"], "HH"),
    ("solve", "4x - 7 = 13", ["4x = 20", "Final answer = 4"], "HB"),
    ("solve", "x^2 = 49", ["Answer: 7, -7"], "H"),
    ("evaluate", "15 - 3·4", ["15 - 12", "Final answer = 3"], "HH"),
    ("factor", "x^2 + 3x + 7", ["(prime)"], "H"),
    ("factor", "x^2 + 3x + 7", ["→ prime"], "H"),
    ("factor", "x^2 + 8x + 7", ["it is prime"], "B"),
    ("domain", "5/(z^2 - 49)", ["reject 7 and -7"], "H"),
    ("domain", "5/(z^2 - 49)", ["7, -7"], "H"),
    ("domain", "5/(z^2 - 49)", ["7, -6"], "B"),
    ("analyze", "(3x + 1)/(x - 2)", ["f(3) = 10"], "H"),
    ("analyze", "(3x + 1)/(x - 2)", ["f(3) = 11"], "B"),
]
STRANGERS = [
    ("solve", "√(2x + 8) = x", ["x = 4 or x = -2", *lines], f"W{relations}")
    for lines, relations in [
        (["x = -2 doesn't work, so x = 4"], "S"),
        (["-2 is an extraneous root"], "S"),
        (["Discard x = -2. x = 4"], "S"),
        (["x = 4 ✓, x = -2 ✗"], "S"),
        (["x = 4 ✗, x = -2 ✓"], "N"),
        (["The only solution is 4"], "S"),
        (["Therefore, 4 is the only solution."], "S"),
        (["The only solution is -2"], "N"),
        (["x = 4 works", "x = 4"], "HS"),
        (["x = -2 works"], "B"),
        (["check: √(2·4 + 8) = √16 = 4", "check: √(2(-2) + 8) = √4 = 2 ≠ -2", "x = 4"], "HHS"),
        (["LHS: √16 = 4, RHS: 4"], "H"),
        (["LHS: √16 = 4, RHS: 5"], "B"),
        (["x = 4: √16 = 4 ✓", "x = 4"], "HS"),
    ]
]
STRANGERS += [
    ("solve", "3x + 5 = 17", ["subtract 5 from both sides", "3x = 12"], "-H"),
    ("solve", "3x + 5 = 17", ["subtract 5 from both sides", "3x = 22"], "-B"),
    ("simplify", "6/x + 2/(x - 1)", ["LCM of denominators is x(x - 1)"], "H"),
    ("simplify", "6/x + 2/(x - 1)", ["LCM of denominators is x - 1"], "B"),
    ("simplify", "√50 + √18", ["√50 = √25·√2 = 5√2 and √18 = 3√2", "8√2"], "HH"),
    ("simplify", "√50 + √18", ["√50 = 5√2 and √18 = 2√3", "8√2"], "BH"),
    ("factor", "x^2 + 4x + 9", ["The polynomial is prime."], "H"),
]
LETTERS = {"H": "holds", "B": "breaks", "W": "widens", "S": "settles", "N": "narrows", "-": None}


@pytest.mark.parametrize(
    ("task", "given", "lines", "wanted"), SIDE_WORK + LABELS + BELOW + CHECKS + DECISIONS + STRANGERS
)
def test_a_line_is_what_it_is_written_as(task, given, lines, wanted):
    assert relations(task, given, lines) == [LETTERS[letter] for letter in wanted]


@pytest.mark.parametrize(
    ("task", "given", "lines", "verdict", "finished"),
    [
        ("solve", "√(x + 20) = x", ["x = 5 or x = -4", "x = 5, reject -4"], "correct", False),
        ("solve", "√(x + 20) = x", ["x = 5 or x = -4", "check x = 5: 5 = 5", "reject -4"], "correct", True),
        ("solve", "√(x + 20) = x", ["x = 5 or x = -4", "x = -4, reject 5"], "wrong", False),
        ("solve", "(x - 2)(x + 9) = 0", ["x = 2 or x = -9", "x = 2; -9 is rejected"], "incomplete", False),
        ("solve", "4x - 7 = 13", ["4x = 20", "Answer: 5"], "correct", True),
        ("factor", "x^2 + 3x + 7", ["(prime)"], "correct", True),
        ("factor", "x^2 + 8x + 7", ["it is prime"], "wrong", False),
        ("domain", "5/(z^2 - 49)", ["7, -7"], "correct", True),
        ("domain", "5/(z^2 - 49)", ["reject 7"], "incomplete", False),
        # no answer rests on a line beside the chain
        ("simplify", "√28 + √63", ["√28 = 2√7", "√63 = 3√7"], "none", False),
        ("simplify", "(x^2 + 5x + 6)/(x + 2)", ["x^2 + 5x + 6 = (x + 2)(x + 3)"], "none", False),
    ],
)
def test_what_the_answer_is(task, given, lines, verdict, finished):
    report = check(Working(task, given, tuple(lines)))
    assert (report.answer.verdict, report.finish.finished) == (verdict, finished)


@pytest.mark.parametrize(
    ("task", "given", "lines", "is_said"),
    [
        ("simplify", "√28 + √63", ["√28 = 2√7", "√28 + 3√7"], True),
        ("simplify", "√28 + √63", ["√28 = 2√7", "2√7 + 3√7"], False),
        # the old part does not stand there any more
        ("simplify", "(x^2 + 5x + 6)/(x + 2)", ["x^2 + 5x + 6 = (x + 2)(x + 3)", "x + 3"], False),
    ],
)
def test_that_it_was_not_put_back_is_said_while_the_old_part_stands(task, given, lines, is_said):
    link = check(Working(task, given, tuple(lines))).links[-1]
    assert ("aside-not-put-back" in link.notes) is is_said


@settings(max_examples=60, deadline=None)
@drawn(
    st.lists(
        st.sampled_from(
            ["26 - 6 = 20", "aside: 20/4 = 5", "-6   -6", "/4   /4", "check x = 5: 26 = 26", "check: 4·5 + 6 = 26"]
        ),
        max_size=4,
    ),
    st.data(),
    st.sampled_from([("4x = 20", HOLDS), ("4x = 32", BREAKS)]),
)
def test_what_stands_beside_changes_nothing_of_the_chain(beside, data, line):
    """A sound working stays sound, and a broken link keeps its break, whatever of this stands between."""
    text, relation = line
    chain = [(text, relation), ("x = 5", None) if relation == HOLDS else ("x = 8", HOLDS)]
    lines, places = [], []
    for nth, (own, _) in enumerate(chain):
        for words in beside:
            if data.draw(st.booleans(), label=f"{words} before line {nth + 1}"):
                lines.append(words)
        places.append(len(lines))
        lines.append(own)
    found = relations("solve", "4x + 6 = 26", lines)
    assert found[places[0]] == relation
    assert found[places[1]] == HOLDS
