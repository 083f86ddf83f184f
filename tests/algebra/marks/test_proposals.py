"""Marks proposed, against workings marked by hand; and what a scheme's settings change."""

from dataclasses import replace
from pathlib import Path

import pytest

from algebra import Scheme, Working, check, propose, scheme_for

POINTS = {"M": "method", "A": "accuracy", "C": "check", "F": "form", "E": "excluded"}


def scheme_of(text):
    kind, _, number = text.partition(" ")
    if kind in ("answer", "steps"):
        return Scheme(kind, float(number))
    return Scheme("levels", 4) if kind == "levels" else Scheme("points", len(kind), tuple(POINTS[c] for c in kind))


def rows():
    for row in (Path(__file__).parents[2] / "corpus" / "marked.txt").read_text(encoding="utf-8").splitlines():
        if row and not row.startswith("#"):
            scheme, task, given, lines, mark = (part.strip() for part in row.split(";"))
            written = tuple(line.strip() for line in lines.split(" / ")) if lines else ()
            yield scheme, Working(task, given, written), float(mark)


def proposed(scheme, task, given, *lines):
    working = Working(task, given, lines)
    return propose(working, scheme, check(working))


def test_proposals_agree_with_marks_given_by_hand():
    apart = [
        (scheme, working.given, mark, propose(working, scheme_of(scheme), check(working)).mark)
        for scheme, working, mark in rows()
    ]
    wrong = [row for row in apart if row[2] != row[3]]
    assert len(wrong) <= 0.05 * len(apart), wrong
    assert all(abs(mark - found) <= 1 for *_, mark, found in apart), wrong


@pytest.mark.parametrize(("scheme", "working", "mark"), list(rows()), ids=lambda value: getattr(value, "given", None))
def test_the_points_make_the_mark_and_each_says_why(scheme, working, mark):
    found = propose(working, scheme_of(scheme), check(working))
    assert found.mark == pytest.approx(sum(point.got for point in found.points))
    assert sum(point.worth for point in found.points) == pytest.approx(found.total)
    assert all(point.why and 0 <= point.got <= point.worth for point in found.points)


RADICAL = (
    "√(x + 6) = x",
    "x + 6 = x^2",
    "0 = x^2 - x - 6",
    "0 = (x-3)(x+2)",
    "x = 3 or x = -2",
    "check x = -2: √4 ≠ -2",
    "check x = 3: 3 = 3",
    "x = 3",
)
ALONE = ("x^2 + 6x = 7", "x = 1 or x = -7")
LUCKY = ("(x + 2)^2 = x^2 + 8", "x^2 + 4x + 4 = x^2 + 8", "x = 1")


class TestSettings:
    @pytest.mark.parametrize(("setting", "mark"), [("all", 3), ("accuracy", 1), ("none", 0)])
    def test_a_right_answer_without_working(self, setting, mark):
        found = proposed(Scheme("points", 3, ("method", "method", "accuracy"), answer_alone=setting), "solve", *ALONE)
        assert (found.mark, "answer-alone" in found.eye) == (mark, True)

    @pytest.mark.parametrize(("setting", "mark"), [("keeps", 2), ("loses", 1)])
    def test_a_right_answer_after_a_broken_line(self, setting, mark):
        scheme = Scheme("points", 2, ("method", "accuracy"), broken_right=setting)
        found = proposed(scheme, "solve", "2x + 4 = 10", "2x = 14", "2x = 6", "x = 3")
        assert "broken-right" in found.eye
        assert found.points[1].got == (1 if setting == "keeps" else 0)

    @pytest.mark.parametrize(("setting", "got"), [("keeps", 1), ("loses", 0)])
    def test_a_lucky_line(self, setting, got):
        scheme = Scheme("points", 2, ("method", "accuracy"), lucky=setting)
        lucky = proposed(scheme, "solve", "x/3 + x/5 = 0", "2x/8 = 0", "x = 0")
        assert "lucky" in lucky.eye
        assert lucky.points[1].got == got

    @pytest.mark.parametrize(("rounding", "mark"), [("half", 1.5), ("whole", 2)])
    def test_rounding(self, rounding, mark):
        assert proposed(Scheme("answer", 3, rounding=rounding), "solve", "x^2 = 49", "x = 7").mark == mark


class TestAlike:
    def alike(self, *lines, given="x^2 + 6x = 7", task="solve"):
        return proposed(Scheme("points", 3, ("method", "method", "accuracy")), task, given, *lines).alike

    def test_the_same_first_broken_line_up_to_order(self):
        one = self.alike("x(x + 6) = 7", "x = 7 or x + 6 = 7")
        assert one == self.alike("(x + 6)x = 7", "x + 6 = 7 or x = 7")
        assert one != self.alike("x^2 + 6x + 9 = 7", "(x + 3)^2 = 7")

    def test_all_that_are_right(self):
        assert self.alike("x^2 + 6x - 7 = 0", "(x+7)(x-1) = 0", "x = -7 or x = 1") == self.alike(
            "x^2 + 6x + 9 = 16", "x + 3 = ±4", "x = 1 or x = -7"
        )


class TestMadeSchemes:
    def test_a_problem_with_checks_has_a_point_for_them(self):
        assert scheme_for(Working("solve", "√(x + 6) = x")).points[-1] == "check"
        assert "check" not in scheme_for(Working("solve", "3x + 7 = 22")).points

    def test_excluded_values_where_the_class_names_them(self):
        working = Working("simplify", "(x^2 - 4)/(x^2 - x - 2)")
        assert "excluded" not in scheme_for(working).points
        assert scheme_for(replace(working, conventions={"restrictions": "required"})).points[-1] == "excluded"

    @pytest.mark.parametrize("kind", ["answer", "steps", "points", "levels"])
    @pytest.mark.parametrize("given", ["3x + 7 = 22", "x^5 - x - 1 = 0", "x = ("])
    def test_the_right_working_earns_everything(self, kind, given):
        scheme = scheme_for(Working("solve", given), kind)
        assert scheme.total >= 1
        if given == "3x + 7 = 22":
            assert proposed(scheme, "solve", given, "3x = 15", "x = 5").mark == scheme.total


def test_what_needs_an_eye_says_so():
    scheme = Scheme("points", 3, ("method", "method", "accuracy"))
    assert "unread" in proposed(scheme, "solve", "3x = 12", "3x = (").eye
    assert "owed" in proposed(scheme, "solve", *RADICAL[:4], "x = 3").eye
    assert proposed(scheme, "solve", *RADICAL).eye == ()
    assert "unknown-slip" in proposed(scheme, "solve", "3x + 7 = 22", "x = 91").eye


def test_a_table_of_features_earns_a_point_for_each():
    given = "f(x) = (x^2-4)/(x^2-x-2)"
    scheme = scheme_for(Working("analyze", given))
    assert (scheme.kind, scheme.total) == ("steps", 6)
    lines = ("hole: (2, 4/3)", "vertical asymptotes: x = -1, x = 2", "horizontal asymptote: y = 1", "x-intercept: -2")
    found = proposed(scheme, "analyze", given, *lines)
    assert found.mark == 3
    assert next(point.why for point in found.points if not point.got) == "vertical asymptotes: x = -1, x = 2 is wrong"


def test_solutions_behind_one_sign_are_an_answer():
    assert (
        proposed(
            Scheme("points", 2, ("method", "accuracy")), "solve", "x^2 - 4x - 7 = 0", "x = (4 ± √44)/2", "x = 2 ± √11"
        ).mark
        == 2
    )


@pytest.mark.parametrize("total", [0.5, 2.5])
def test_steps_of_a_total_that_is_no_whole_number(total):
    found = proposed(Scheme("steps", total), "solve", "3x + 7 = 22", "3x = 15", "x = 5")
    assert found.mark == total
    assert sum(point.worth for point in found.points) == pytest.approx(total)


def test_nothing_written_earns_nothing():
    for kind in ("answer", "steps", "points", "levels"):
        assert (
            proposed(Scheme(kind, 4, ("method", "accuracy") if kind == "points" else ()), "solve", "3x = 12").mark == 0
        )
