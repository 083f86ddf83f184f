"""What must not change a verdict: other letters, other spacing, sides exchanged, a line repeated, both sides scaled."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from algebra import Working, check

WORKINGS = [
    ("solve", "2(x-1) = 4", ("2x - 2 = 4", "2x = 6", "x = 3")),
    ("solve", "2(x-1) = 4", ("2x - 1 = 4", "2x = 5", "x = 5/2")),
    ("solve", "x^2 = 9x", ("x = 9",)),
    ("solve", "√(x+6) = x", ("x + 6 = x^2", "(x-3)(x+2) = 0", "x = 3 or x = -2", "check x = 3", "x = 3")),
    ("solve", "x/(x-3) = 3/(x-3) + 2", ("x = 3 + 2(x-3)", "x = 3", "no solution")),
    ("solve", "|x-2| = 5", ("x - 2 = 5 or x - 2 = -5", "x = 7 or x = -3")),
    ("solve", "4^x = 8", ("2^(2x) = 2^3", "2x = 3", "x = 3/2")),
    ("simplify", "(x^2-9)/(x+3)", ("((x-3)(x+3))/(x+3)", "x - 3")),
    ("simplify", "(x+9)/x", ("9",)),
    ("simplify", "√(x^2)", ("x",)),
    ("factor", "2x^2 + 14x + 20", ("2(x^2+7x+10)", "2(x+2)(x+5)")),
    ("domain", "1/((x-2)(x+1))", ("x ≠ -1, 2",)),
]
IDS = [f"{task} {given_}" for task, given_, _ in WORKINGS]


def told(working):
    report = check(working)
    return (
        [
            (link.relation, link.kind, len(link.gained), len(link.lost), link.slip.id if link.slip else None)
            for link in report.links
        ],
        report.answer.verdict,
        report.finish.finished,
        len(report.owed),
    )


def everywhere(change, row):
    task, given_, lines = row
    return Working(task, change(given_), tuple(change(line) for line in lines))


@pytest.mark.parametrize("row", WORKINGS, ids=IDS)
@pytest.mark.parametrize("letter", ["t", "n", "a", "θ"])
def test_another_letter(row, letter):
    def renamed(text):
        return text if text == "no solution" else text.replace("check x", f"check {letter}").replace("x", letter)

    assert told(everywhere(renamed, row)) == told(Working(*row))


@pytest.mark.parametrize("row", WORKINGS, ids=IDS)
@pytest.mark.parametrize(
    "change",
    [
        lambda text: text.replace(" ", "") if "or" not in text and "check" not in text and "no " not in text else text,
        lambda text: f"  {text.replace(' ', '  ')}  ",
        lambda text: text.replace("√", "sqrt") if "√(" in text else text,
        lambda text: text.replace("≠", "!="),
        lambda text: f"{text}   # a remark" if text != "x = 3" else text,
    ],
    ids=["no room", "more room", "spelled root", "typed sign", "a remark"],
)
def test_another_spelling(row, change):
    given_ = change(row[1]).partition("#")[0]
    assert told(Working(row[0], given_, tuple(map(change, row[2])))) == told(Working(*row))


@pytest.mark.parametrize(
    "row", [row for row in WORKINGS if row[0] == "solve"], ids=[i for i in IDS if i.startswith("solve")]
)
def test_the_sides_of_the_given_exchanged(row):
    left, right = row[1].split(" = ")
    before, after = told(Working(*row)), told(Working("solve", f"{right} = {left}", row[2]))
    assert [link[0] for link in before[0]] == [link[0] for link in after[0]]
    assert before[1:] == after[1:]


@pytest.mark.parametrize("row", WORKINGS, ids=IDS)
def test_a_line_written_twice_holds_the_second_time(row):
    task, given_, lines = row
    report = check(Working(task, given_, (*lines, lines[-1])))
    assert report.links[-1].relation == (
        "breaks" if task == "domain" and report.links[-2].relation == "breaks" else "holds"
    )
    assert report.answer.verdict == check(Working(*row)).answer.verdict


@pytest.mark.parametrize("row", WORKINGS, ids=IDS)
def test_the_given_written_again_changes_nothing(row):
    task, given_, lines = row
    if task == "domain":
        return
    again, plain = told(Working(task, given_, (given_, *lines))), told(Working(*row))
    assert again[0][0][0] == "holds"
    assert [link[0] for link in again[0][1:]] == [link[0] for link in plain[0]]
    assert again[1:] == plain[1:]


@pytest.mark.parametrize("row", WORKINGS, ids=IDS)
def test_the_same_question_has_the_same_answer(row):
    assert told(Working(*row)) == told(Working(*row))


number = st.integers(-9, 9)


@given(number.filter(bool), number, number, number.filter(bool))
def test_both_sides_scaled_hold_and_shifted_hold(a, b, c, k):
    given_ = f"{a}x + ({b}) = {c}"
    scaled, shifted = f"{k}({a}x + ({b})) = {k}·({c})", f"{a}x + ({b}) + ({k}) = {c} + ({k})"
    report = check(Working("solve", given_, (scaled, given_, shifted)))
    assert [link.relation for link in report.links] == ["holds", "holds", "holds"]


@given(number.filter(bool), number, number, number.filter(bool))
def test_one_side_changed_breaks(a, b, c, k):
    link = check(Working("solve", f"{a}x + ({b}) = {c}", (f"{a}x + ({b}) = {c} + ({k})",))).links[0]
    assert link.relation == "breaks"
    assert link.evidence is not None


@given(st.lists(number, min_size=2, max_size=3, unique=True))
def test_a_lost_solution_narrows_and_one_too_many_breaks(zeros):
    given_ = "".join(f"(x - ({zero}))" for zero in zeros) + " = 0"
    whole = " or ".join(f"x = {zero}" for zero in zeros)
    part = " or ".join(f"x = {zero}" for zero in zeros[1:])
    assert check(Working("solve", given_, (whole,))).answer.verdict == "correct"
    narrowed = check(Working("solve", given_, (part,)))
    assert (narrowed.links[0].relation, narrowed.answer.verdict) == ("narrows", "incomplete")
    assert narrowed.answer.missing == (str(zeros[0]),)
    assert check(Working("solve", given_, (f"{whole} or x = 10",))).links[0].relation == "breaks"


@given(number, number, number)
def test_a_product_is_equal_to_its_expansion_and_to_no_other(a, b, k):
    given_ = f"(x + ({a}))(x + ({b}))"
    right = f"x^2 + ({a + b})x + ({a * b})"
    assert check(Working("expand", given_, (right,))).links[0].relation == "holds"
    wrong = check(Working("expand", given_, (f"{right} + ({k})",))).links[0].relation
    assert wrong == ("holds" if k == 0 else "breaks")
