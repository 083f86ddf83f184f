"""Powers of numbers are worked out as far as four digits go."""

import pytest

from algebra import Working, check


def left(line, **conventions):
    report = check(Working("simplify", line, (line,), conventions=conventions))
    return [each.code for each in report.finish.remaining]


@pytest.mark.parametrize("text", ["2^3", "10^3", "9^4", "21^3", "(1/2)^3", "99^2", "(2/3)^2"])
def test_what_has_four_digits_at_most_is_worked_out(text):
    assert left(text) == ["power-not-evaluated"]


@pytest.mark.parametrize("text", ["10^4", "100^2", "22^3", "7^5", "(1/10)^4", "10^6"])
def test_what_has_five_is_left(text):
    assert left(text) == []


def test_where_powers_are_to_be_left_none_is_worked_out():
    assert left("2^3", powers="leave") == []
