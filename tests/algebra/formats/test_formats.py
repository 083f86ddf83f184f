"""Lines as understood, the text form, and keys as they are pasted."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from algebra import (
    ReadingError,
    TaskError,
    echo,
    looks_like_text_form,
    proofread,
    read_workings,
    understood,
    values_in_latex,
)


class TestEcho:
    @pytest.mark.parametrize(
        ("text", "left", "right", "move"),
        [
            ("2x = 4", "2x", "= 4", ""),
            ("2x = 4 | ÷2", "2x", "= 4", r"\div 2"),
            ("x + 3", "", "x + 3", ""),
            ("x/2 ≥ 1", r"\frac{x}{2}", r"\ge 1", ""),
            ("√(x+1) = 2 | square", r"\sqrt{x + 1}", "= 2", r"\text{square}"),
        ],
    )
    def test_a_line_is_set_in_the_columns_of_its_chain(self, text, left, right, move):
        found = echo(text)
        assert (found.left, found.right.strip()) == (left, right)
        assert found.move.replace(" ", "").replace("{", "").replace("}", "") == move.replace(" ", "").replace(
            "{", ""
        ).replace("}", "")
        assert found.error is None

    @pytest.mark.parametrize(
        ("text", "prefix", "kind"),
        [
            ("check x = 3: 3 = 3", "check", "check"),
            ("aside: 2 = 2", "aside", "aside"),
            ("x ≠ 3", "", "exclusion"),
            ("let u = x^2", "let", "definition"),
        ],
    )
    def test_a_line_beside_the_chain_has_its_kind(self, text, prefix, kind):
        found = echo(text)
        assert found.kind == kind
        assert found.prefix.startswith(prefix)

    def test_a_remark_is_kept_as_typed(self):
        assert echo("x = 3 # because  so").remark.strip() == "because  so"

    def test_decimals_are_written_as_the_class_writes_them(self):
        assert "1.5" in echo("x = 1.5").right
        assert "1{,}5" in echo("x = 1,5", decimal="comma").right

    def test_an_error_is_raised_by_one_and_told_by_the_other(self):
        with pytest.raises(ReadingError):
            echo("x = (3")
        found = understood("x = (3")
        assert (found.error.code, found.error.column, found.left, found.right) == ("syntax", 7, "", "")

    @given(st.text(max_size=40))
    def test_understanding_never_raises(self, text):
        found = understood(text)
        assert found.error is None or found.error.message

    @pytest.mark.parametrize(
        ("values", "latex"),
        [(["3"], "3"), (["0", "-9"], r"0\;\text{ or }\;-9"), ([], r"\text{no solution}"), (["1/2"], r"\frac{1}{2}")],
    )
    def test_an_answer_is_set_with_its_values_joined(self, values, latex):
        assert values_in_latex(values) == latex


class TestTextForm:
    def test_several_workings_with_everything_that_a_head_may_hold(self):
        text = """\ufeff# a key
task: solve   # of the second degree
given: x^2 = 4 # kept
numbers: complex
variable: x
id: a1
method: square-root
conventions: decimal=comma, powers=leave
assume: x > 0
---
x = ±2
# a remark

x = 2 or x = -2
task: simplify
given: 6/8
---
3/4
"""
        first, second = read_workings(text)
        assert (first.task, first.numbers, first.variable, first.id, first.method) == (
            "solve",
            "complex",
            "x",
            "a1",
            "square-root",
        )
        assert first.given == "x^2 = 4 # kept"
        assert first.lines == ("x = ±2", "x = 2 or x = -2")
        assert first.conventions == {"decimal": "comma", "powers": "leave"}
        assert first.assume == ("x > 0",)
        assert (second.task, second.given, second.lines) == ("simplify", "6/8", ("3/4",))

    @pytest.mark.parametrize(
        ("text", "words"),
        [
            ("", "line 1: the text holds no working."),
            ("task: solve\n---\nx = 1", "“given:” is missing"),
            ("given: x = 1\n---\nx = 1", "“task:” is missing"),
            ("task: solve\ncolour: red\n", "line 2: expected one of task"),
            ("task: solve\ngiven: x = 1\nconventions: decimal\n---\n", "decimal"),
        ],
    )
    def test_what_is_wrong_is_named_at_its_line(self, text, words):
        with pytest.raises(TaskError) as refused:
            read_workings(text)
        assert words in refused.value.message

    def test_a_line_of_work_may_look_like_a_head(self):
        (working,) = read_workings("task: solve\ngiven: x = 1\n---\naside: 2 = 2\n")
        assert working.lines == ("aside: 2 = 2",)

    @pytest.mark.parametrize(
        ("text", "is_it"),
        [("task: solve\ngiven: x = 1\n---\nx = 1", True), ("1) Solve x = 1\nx = 1", False), ("2x = 4\nx = 2", False)],
    )
    def test_it_is_told_from_a_pasted_key(self, text, is_it):
        assert looks_like_text_form(text) is is_it


class TestPastedKey:
    def found(self, text, **conventions):
        return proofread(text, conventions or None).out()

    def test_problems_are_taken_apart_by_their_numbers_and_instructions(self):
        text = "1) Solve 3x + 7 = 22\n   3x = 15\n   x = 5\n\n2) Simplify √50 + √8\n   5√2 + 2√2\n   7√2\n"
        found = self.found(text)
        assert [(p.label, p.task, p.given, p.at) for p in found.problems] == [
            ("1", "solve", "3x + 7 = 22", 1),
            ("2", "simplify", "√50 + √8", 5),
        ]
        assert not any(problem.findings for problem in found.problems)

    @pytest.mark.parametrize(
        ("line", "place", "kind"),
        [("   3x = 16", 2, "breaks"), ("   3x = 15\n   x = 15/3 = 4", 3, "breaks")],
    )
    def test_a_finding_leads_to_its_line_of_the_text(self, line, place, kind):
        found = self.found(f"1) Solve 3x + 7 = 22\n{line}\n   x = 5\n")
        first = found.problems[0].findings[0]
        assert (first.kind, first.place) == (kind, place)
        assert first.text

    def test_an_instruction_above_several_holds_for_all(self):
        found = self.found("Simplify.\n1) 6/8\n   3/4\n2) 10/15\n   2/3\n")
        assert [(p.task, p.given) for p in found.problems] == [("simplify", "6/8"), ("simplify", "10/15")]

    def test_latex_is_read_as_well(self):
        found = self.found("1) Solve \\frac{x}{2} = 3\n   x = 6\n")
        assert not any(problem.findings for problem in found.problems)

    def test_what_is_no_mathematics_is_passed_over_and_told(self):
        found = self.found("Class 9b, Harbour School\n\n1) Solve 2x = 4\n   x = 2\n")
        assert [row.line for row in found.skipped] == [1]

    def test_conventions_count(self):
        text = "1) Solve x = 1,5 · 2\n   x = 3\n"
        assert not self.found(text, decimal="comma").problems[0].findings
        assert self.found(text).problems[0].findings

    @pytest.mark.parametrize("text", ["", "   \n\n", "nothing here at all"])
    def test_a_text_without_a_problem_is_refused(self, text):
        with pytest.raises(TaskError):
            proofread(text)
