"""What is left to do: one row for every code with an example on either side of the rule, and what conventions
change."""

import pytest

from algebra import Working, check
from algebra.parse.lines import read_expression
from algebra.tree.nodes import at as part_at
from algebra.tree.plain import plain
from algebra.verify import finish
from algebra.verify.finish import CHECKS
from algebra.verify.finish_parts import primes

ROWS = [
    # (task, line, {code: the parts that the flags point at})
    ("evaluate", "2 + 3", {"arithmetic-left": ["2", "3"]}),
    ("evaluate", "2 + √3", {}),
    ("evaluate", "2 + 3√3", {}),
    ("evaluate", "2 + √3 + 5", {"arithmetic-left": ["2", "5"]}),
    ("evaluate", "6 ÷ √2", {"arithmetic-left": ["6 ÷ √2"]}),
    ("evaluate", "2 · 3√5", {"arithmetic-left": ["2 · 3√5"]}),
    ("evaluate", "2√5", {}),
    ("evaluate", "-(-√3)", {"arithmetic-left": ["-(-√3)"]}),
    ("simplify", "x + -y", {"arithmetic-left": ["-y"]}),
    ("simplify", "2x·3", {"arithmetic-left": ["2x · 3"]}),
    ("simplify", "2x + 3y", {}),
    ("evaluate", "2^3", {"power-not-evaluated": ["2^3"]}),
    ("evaluate", "10^3", {"power-not-evaluated": ["10^3"]}),
    ("evaluate", "10^4", {}),
    ("evaluate", "(2/3)^2", {"power-not-evaluated": ["(2/3)^2"]}),
    ("simplify", "(xy)^2", {"power-not-evaluated": ["(xy)^2"]}),
    ("simplify", "(x^2)^3", {"power-not-evaluated": ["(x^2)^3"]}),
    ("simplify", "(x/y)^2", {"power-not-evaluated": ["(x/y)^2"]}),
    ("simplify", "(-x)^3", {"power-not-evaluated": ["(-x)^3"]}),
    ("simplify", "(x+1)^2", {}),
    ("simplify", "x^0 + y", {"zero-exponent": ["x^0"]}),
    ("simplify", "x^-3", {"negative-exponent": ["x^-3"]}),
    ("simplify", "3/x^2", {}),
    ("simplify", "x·y·x", {"repeated-base": ["x", "x"]}),
    ("simplify", "x^2·x^3·y", {"repeated-base": ["x^2", "x^3"]}),
    ("simplify", "(x+1)(x+1)", {"repeated-base": ["(x+1)", "(x+1)"]}),
    ("simplify", "(x+1)(x-1)", {}),
    ("factor", "(x+1)(x+1)", {}),
    ("simplify", "3x - 5x", {"like-terms": ["3x", "5x"]}),
    ("simplify", "xy + 2yx", {"like-terms": ["xy", "2yx"]}),
    ("simplify", "x^2 + x", {}),
    ("evaluate", "√2 + 3√2", {"like-radicals": ["√2", "3√2"]}),
    ("evaluate", "√2 + √3", {}),
    ("evaluate", "√12", {"radical-not-simplified": ["√12"]}),
    ("evaluate", "√10", {}),
    ("evaluate", "∛24", {"radical-not-simplified": ["∛24"]}),
    ("evaluate", "∛12", {}),
    ("evaluate", "√1 + √2", {"radical-not-simplified": ["√1"]}),
    ("evaluate", "∛(-5)", {"radical-not-simplified": ["∛(-5)"]}),
    ("simplify", "√(x^3)", {"radical-not-simplified": ["√(x^3)"]}),
    ("simplify", "√(x^2 + 1)", {}),
    ("simplify", "√x·√y", {"radical-not-simplified": ["√x · √y"]}),
    ("evaluate", "√2·∛3", {}),
    ("evaluate", "√(1/3)", {"fraction-under-root": ["√(1/3)"]}),
    ("evaluate", "1/√3", {"root-in-denominator": ["1/√3"]}),
    ("evaluate", "√3/3", {}),
    ("simplify", "2(x+3) + x", {"not-expanded": ["2(x+3)"]}),
    ("simplify", "x - (x+3)y", {"not-expanded": ["(x+3)y"]}),
    ("simplify", "2(x+3)", {}),
    ("expand", "2(x+3)", {"not-expanded": ["2(x+3)"]}),
    ("expand", "(x+3)^2", {"not-expanded": ["(x+3)^2"]}),
    ("expand", "x^2 + 3", {}),
    ("simplify", "6x/(8y)", {"not-lowest-terms": ["6x/(8y)"]}),
    ("simplify", "(x^2-1)/(x-1)", {"not-lowest-terms": ["(x^2-1)/(x-1)"]}),
    ("simplify", "x/1", {"not-lowest-terms": ["x/1"]}),
    ("simplify", "(x+2)/(x+4)", {}),
    ("simplify", "3x/4", {}),
    ("simplify", "1/x·2/y", {"uncombined-fractions": ["1/x · 2/y"]}),
    ("simplify", "x/2 + y/3", {}),
    ("simplify", "1/x + y", {"uncombined-fractions": ["1/x + y"]}),
    ("simplify", "(1/2)/x", {"complex-fraction": ["(1/2)/x"]}),
    ("simplify", "x/(1+1/y)", {"complex-fraction": ["x/(1 + 1/y)"], "uncombined-fractions": ["1 + 1/y"]}),
    ("evaluate", "root(4, 9)", {"radical-not-simplified": ["∜9"]}),
    ("evaluate", "root(4, 5)", {}),
    ("simplify", "root(6, x^3)", {"radical-not-simplified": ["root(6, x^3)"]}),
    ("evaluate", "2 2/4", {"not-lowest-terms": ["2 2/4"]}),
    ("evaluate", "2 5/4", {"arithmetic-left": ["2 5/4"]}),
    ("evaluate", "2 3/4", {}),
    ("evaluate", "|-3|", {"arithmetic-left": ["|-3|"]}),
    ("simplify", "|x| - x", {}),
    ("simplify", "|x| + 2|x|", {"like-terms": ["|x|", "2|x|"]}),
    ("simplify", "|x|/x", {}),
    ("simplify", "x + 0", {"arithmetic-left": ["0"]}),
    ("simplify", "1x + y", {"arithmetic-left": ["1"]}),
    ("simplify", "x^1 + y", {"power-not-evaluated": ["x^1"]}),
    ("factor", "((x+2)(x-2))/4", {}),
    ("factor", "(x^2-4)/4", {"not-factored": ["x^2-4"]}),
    ("factor", "2x + 4", {"common-factor": ["2x + 4"]}),
    ("factor", "x^2 + xy", {"common-factor": ["x^2 + xy"]}),
    ("factor", "x^2 - 9", {"not-factored": ["x^2 - 9"]}),
    ("factor", "(x^2-9)^2", {"not-factored": ["x^2 - 9"]}),
    ("factor", "3(x^2+5x+6)", {"not-factored": ["x^2+5x+6"]}),
    ("factor", "x^2 + 9", {}),
    ("factor", "-(x-2)(x+2)", {}),
    ("factor", "x^3·y", {}),
]


def flagged(report, line):
    """Code → the parts of the line that are flagged with it."""
    tree, found = read_expression(line), {}
    for item in report.finish.remaining:
        parts = sorted(plain(part_at(tree, address)).replace(" ", "") for address in item.at)
        found.setdefault(item.code, []).extend(parts)
    return found


@pytest.mark.parametrize(("task", "line", "expected"), ROWS)
def test_what_is_left_is_flagged_at_its_place(task, line, expected):
    report = check(Working(task, line, (line,)))
    assert report.error is None
    assert report.links[0].relation == "holds"
    tight = {code: sorted(part.replace(" ", "") for part in parts) for code, parts in expected.items()}
    assert flagged(report, line) == tight
    assert report.finish.finished == (not expected)


@pytest.mark.parametrize(
    ("line", "expected"),
    [
        ("i^2 + 3", {"power-not-evaluated": ["i^2"]}),
        ("5/(2i)", {"i-in-denominator": ["5/(2i)"]}),
        ("1/(x+i)", {}),
        ("(2+i)(3-i)", {"not-expanded": ["(2+i)(3-i)"]}),
        ("(2+i)x", {}),
        ("(2i√3)(i√5)", {"repeated-base": ["(2i√3)(i√5)"]}),
        ("(4+7i)/5", {}),
        ("2i√3 - 1", {}),
    ],
)
def test_what_is_left_of_a_complex_number(line, expected):
    report = check(Working("simplify", line, (line,), numbers="complex"))
    assert flagged(report, line) == expected
    real = check(Working("simplify", line, (line,)))
    assert "i-in-denominator" not in flagged(real, line)


@pytest.mark.parametrize(
    ("convention", "task", "line", "under_default", "under_it"),
    [
        ({"powers": "leave"}, "evaluate", "2^3", ["power-not-evaluated"], []),
        ({"powers": "leave"}, "simplify", "x^-2", ["negative-exponent"], ["negative-exponent"]),
        ({"root_denominators": "allow"}, "evaluate", "1/√3", ["root-in-denominator"], []),
        ({"root_denominators": "allow"}, "evaluate", "√12", ["radical-not-simplified"], ["radical-not-simplified"]),
        ({"fractions": "mixed"}, "evaluate", "7/2", [], ["improper-fraction"]),
        ({"fractions": "mixed"}, "evaluate", "3 1/2", [], []),
        ({"fractions": "mixed"}, "evaluate", "2/7", [], []),
    ],
)
def test_a_convention_moves_the_line_between_finished_and_not(convention, task, line, under_default, under_it):
    for setting, codes in (({}, under_default), (convention, under_it)):
        report = check(Working(task, line, (line,), conventions=setting))
        assert [item.code for item in report.finish.remaining] == codes


@pytest.mark.parametrize(
    ("given", "line", "codes"),
    [
        ("x^2 = 8", "x = √8 or x = -√8", ["radical-not-simplified", "radical-not-simplified"]),
        ("x^2 = 8", "x = ±2√2", ["solutions-not-listed"]),
        ("x^2 = 8", "x = 2√2 or x = -2√2", []),
        ("x^2 = 75", "x = ±√75", ["solutions-not-listed", "radical-not-simplified"]),
        ("(2x-4)^2 = 48", "x = (4 ± √48)/2", ["solutions-not-listed", "not-lowest-terms", "radical-not-simplified"]),
        ("3x^2 = 1", "x = ±1/√3", ["solutions-not-listed", "root-in-denominator"]),
        ("2x = 3", "x = 6/4", ["not-lowest-terms"]),
        ("2x = 3", "6/4 = x", ["not-lowest-terms"]),
        ("2x = 3", "x = 3/2", []),
        ("x - 1 = 2^3", "x = 2^3 + 1", ["power-not-evaluated", "arithmetic-left"]),
        ("x^2 = 4", "{2, -4/2}", ["not-lowest-terms"]),
        ("x^2 = 4", "x = 2, -2", []),
        ("(x-1)^2 = 4", "x = 1 ± 2", ["plus-minus-not-split"]),
        ("(x-1)^2 = 2", "x = 1 ± √2", ["solutions-not-listed"]),
        ("x = 5/2", "x = 1 3/2", ["arithmetic-left"]),
        ("x = 3", "x = |-3|", ["arithmetic-left"]),
        ("x/x = 1", "all real numbers except 0/1", ["not-lowest-terms"]),
    ],
)
def test_every_stated_value_of_a_solution_is_finished_by_itself(given, line, codes):
    assert [item.code for item in check(Working("solve", given, (line,))).finish.remaining] == codes


def test_the_words_name_the_part_and_the_factor():
    def words(task, line):
        return [item.text for item in check(Working(task, line, (line,))).finish.remaining]

    assert words("evaluate", "√12") == ["√12 still holds the square factor 4."]
    assert words("evaluate", "∛24") == ["∛24 still holds the cube factor 8."]
    assert words("simplify", "(x^2-1)/(x-1)") == ["Top and bottom still share the factor x - 1."]
    assert words("factor", "2x + 4") == ["The terms of 2x + 4 still share a common factor."]
    assert words("factor", "x^2 - 9") == ["x^2 - 9 can be factored further."]
    assert words("simplify", "3x - 5x") == ["3x and 5x are like terms."]


def test_each_check_of_the_table_can_fire(monkeypatch):
    """No check is dead: the rows above make every one of them say something."""
    fired = set()

    def watched(one):
        def run(about):
            for item in one(about):
                fired.add(one)
                yield item

        return run

    monkeypatch.setattr(finish, "CHECKS", {task: tuple(map(watched, checks)) for task, checks in CHECKS.items()})
    for task, line, _ in ROWS:
        check(Working(task, line, (line,)))
    check(Working("evaluate", "7/2", ("7/2",), conventions={"fractions": "mixed"}))
    check(Working("simplify", "i^2", ("i^2",), numbers="complex"))
    assert fired == {one for checks in CHECKS.values() for one in checks}


@pytest.mark.parametrize(
    ("number", "factors"), [(1, []), (2, [2]), (12, [2, 2, 3]), (97, [97]), (2 * 3 * 25, [2, 3, 5, 5])]
)
def test_a_number_is_taken_into_primes(number, factors):
    assert list(primes(number)) == factors
