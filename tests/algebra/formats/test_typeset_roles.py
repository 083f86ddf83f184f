"""Lines that are no formula, as they are set for a screen."""

import pytest

from algebra.formats.typeset import understood


@pytest.mark.parametrize(
    ("text", "kind", "plain", "move", "remark"),
    [
        ("-17   -17", "move", "-17   -17", "", ""),
        ("reject -6", "statement", "reject -6", "", ""),
        ("x = 5, reject -6", "equation", "x = 5", "", "reject -6"),
        ("x = 5 only", "equation", "x = 5", "", "only"),
        ("LCD x(x + 11)", "aside", "LCD = x(x+11)", "", ""),
        ("check: 8·6 + 3 = 51", "check", "check 8 · 6 + 3 = 51", "", ""),
        ("Answer: 7", "expression", "answer 7", "", ""),
    ],
)
def test_a_line_is_set_as_it_is_written(text, kind, plain, move, remark):
    found = understood(text)
    assert found.error is None
    assert (found.kind, found.plain, found.move, found.remark) == (kind, plain, move, remark)


@pytest.mark.parametrize(
    ("text", "shown"), [("-17   -17", "-17"), ("÷3   ÷3", r"\div 3"), ("-30x - 90    -30x - 90", "-30x-90")]
)
def test_what_is_done_to_both_sides_stands_under_both(text, shown):
    found = understood(text)
    assert found.left.replace(" ", "") == found.right.replace(" ", "") == shown.replace(" ", "")


def test_an_answer_is_read_again_as_it_is_set():
    assert understood(understood("Answer: 7").plain).plain == "answer 7"
