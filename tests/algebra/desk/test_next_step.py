"""The next step from where a working stands, and tasks that name a method."""

from dataclasses import replace

import pytest

from algebra import FAMILIES, TaskError, Working, check, generate, next_step

SOLVE = "solve"


@pytest.mark.parametrize(
    ("task", "given", "lines", "line", "method"),
    [
        (SOLVE, "6/(x-2) = x/4 - 1", (), "x ≠ 2", "clear-by-lcd"),
        (SOLVE, "6/(x-2) = x/4 - 1", ("24 = x(x-2) - 4(x-2)",), "24 = x^2 - 2x - 4x + 8", None),
        (SOLVE, "x^2 - 4x - 7 = 0", ("x^2 - 4x = 7",), "x^2 - 4x + 4 = 7 + 4   | +4", "completing-the-square"),
        (
            SOLVE,
            "x^2 - 4x - 7 = 0",
            ("x^2 - 4x + 4 = 11", "(x-2)^2 = 11"),
            "x - 2 = ±√11   | root",
            "completing-the-square",
        ),
        (SOLVE, "3(x-2) + 4 = 5x - 8", ("3x - 6 = 5x - 12",), "-6 = 2x - 12   | -3x", "simplify-then-undo"),
        ("simplify", "(x^2-9)/(x^2+x-6)", ("(x^2-9)/((x+3)(x-2))",), "((x-3)(x+3))/((x+3)(x-2))", "factor-and-cancel"),
        (SOLVE, "√(x+6) = x", ("x + 6 = x^2", "x = 3 or x = -2"), "check x = 3: 3 = 3", None),
        (SOLVE, "√(x+6) = x", ("x + 6 = x^2", "x = 3 or x = -2", "check x = 3", "check x = -2: 2 ≠ -2"), "x = 3", None),
        (SOLVE, "x/(x-3) = 3/(x-3)", ("x = 3",), "no solution", None),
        (SOLVE, "x^2 = 16", ("x = ±4",), "x = 4 or x = -4", None),
        (SOLVE, "4^x - 6·2^x + 8 = 0", (), "(2^x)^2 - 6 · 2^x + 8 = 0", "substitution"),
        (SOLVE, "4^x - 6·2^x + 8 = 0", ("(2^x)^2 - 6·2^x + 8 = 0", "let u = 2^x"), "u^2 - 6u + 8 = 0", "substitution"),
    ],
)
def test_the_next_step_goes_on_from_the_lines_written(task, given, lines, line, method):
    hint = next_step(Working(task, given, lines))
    assert hint.look
    assert hint.step.text == line
    assert method is None or hint.method == method
    after = check(Working(task, given, (*lines, hint.step.text)))
    assert after.links[-1].relation in ("holds", "widens", "settles")


def test_a_broken_line_is_looked_at_first():
    hint = next_step(Working(SOLVE, "2x + 3 = 7", ("2x = 5",)))
    assert hint.step is None
    assert "line 1" in hint.look


def test_a_finished_working_needs_no_step():
    assert next_step(Working(SOLVE, "x^2 = 36", ("x = ±6", "x = 6 or x = -6"))).done


def test_a_shorter_way_from_here_is_named():
    hint = next_step(Working(SOLVE, "x^2 - 6x + 5 = 0", ("x^2 - 6x = -5",)))
    assert hint.method == "completing-the-square"
    assert "Factoring" in hint.shorter


def test_a_problem_without_a_known_method_says_so():
    with pytest.raises(TaskError):
        next_step(Working(SOLVE, "x^5 - x - 1 = 0"))


@pytest.mark.parametrize(
    ("method", "lines", "differs"),
    [
        ("completing-the-square", ("x^2 - 6x = -5", "x^2 - 6x + 9 = 4", "(x-3)^2 = 4", "x = 5 or x = 1"), None),
        ("completing-the-square", ("(x-5)(x-1) = 0", "x = 5 or x = 1"), 1),
        ("factoring", ("(x-5)(x-1) = 0", "x = 5 or x = 1"), None),
        ("factoring", ("x = (6 ± √16)/2", "x = 5 or x = 1"), 1),
        ("quadratic-formula", ("x = (6 ± √16)/2", "x = 5 or x = 1"), None),
        ("quadratic-formula", ("x = 5 or x = 1",), None),
    ],
)
def test_a_right_answer_by_another_method_than_the_task_names_is_noticed(method, lines, differs):
    report = check(Working(SOLVE, "x^2 - 6x + 5 = 0", lines, method=method))
    assert report.answer.verdict == "correct"
    noted = [link.line for link in report.links if "method-differs" in link.notes]
    assert noted == ([differs] if differs else [])
    assert ("another way" in report.answer.text) == bool(differs)


@pytest.mark.parametrize("family", FAMILIES, ids=lambda family: family.id)
def test_no_step_that_is_told_leads_astray(family):
    """From every line of a worked solution on, what is told as the next step passes the check."""
    for solution in generate(family.id, len(family.levels), 2, 11):
        lines = []
        for step in [None, *solution.steps[:4]]:
            lines += [step.text] if step else []
            working = replace(solution.working, lines=tuple(lines))
            try:
                hint = next_step(working)
            except TaskError:
                continue
            if hint.step is not None:
                after = check(replace(working, lines=(*lines, hint.step.text)))
                assert after.links[-1].relation in ("holds", "widens", "settles"), (working, hint.step.text)
