"""Worked solutions: the methods that apply, their grain, what a class does not know yet, and what is not worked."""

from dataclasses import replace

import pytest

from algebra import (
    EVENTS,
    FAMILIES,
    GRAINS,
    METHODS,
    TaskError,
    Working,
    all_methods,
    analysed,
    check,
    error_of,
    generate,
    refused,
    step_report,
    work,
)

WAYS = [
    ("solve", "x^2 - 5x + 6 = 0", ["factoring", "completing-the-square", "quadratic-formula"]),
    ("solve", "x^2 - 4x - 7 = 0", ["completing-the-square", "quadratic-formula"]),
    ("solve", "6/(x-2) = x/4 - 1", ["clear-by-lcd"]),
    ("solve", "|x-2| = 5", ["two-cases"]),
    ("solve", "3(x-2) + 4 = 5x - 8", ["simplify-then-undo"]),
    ("factor", "6x^2 + 11x + 3", ["area-grid"]),
]


@pytest.mark.parametrize(("task", "given", "methods"), WAYS)
def test_the_methods_that_one_would_name_apply(task, given, methods):
    found = [solution.method for solution in all_methods(Working(task, given))]
    assert set(methods) <= set(found)
    assert len(found) == len(set(found))


@pytest.mark.parametrize(("task", "given", "_"), WAYS)
@pytest.mark.parametrize("grain", GRAINS)
def test_each_solution_passes_the_check_in_every_grain(task, given, _, grain):
    for solution in all_methods(Working(task, given), grain=grain):
        report = check(Working(task, given, tuple(step.text for step in solution.steps)))
        assert report.answer.verdict == "correct"
        assert all(link.relation in ("holds", "widens", "settles") for link in report.links)


@pytest.mark.parametrize(("task", "given", "_"), WAYS)
def test_a_finer_grain_has_no_fewer_lines(task, given, _):
    for method in [solution.method for solution in all_methods(Working(task, given))]:
        counts = [
            len(work(Working(task, given), method=method, grain=grain).steps) for grain in ("brief", "board", "every")
        ]
        assert counts == sorted(counts)


def test_every_step_names_its_rule_and_gives_a_reason():
    for task, given, _ in WAYS:
        for solution in all_methods(Working(task, given)):
            for step in solution.steps:
                told = step_report(step)
                assert told.rule
                assert told.name
                assert told.reason
                assert "{" not in told.reason


def test_a_chain_of_steps_has_no_gap():
    for task, given, _ in WAYS:
        for solution in all_methods(Working(task, given), grain="every"):
            lines = [step for step in solution.steps if step.kind == "line"]
            for before, after in zip(lines, lines[1:], strict=False):
                assert after.before == before.after


@pytest.mark.parametrize(
    ("method", "untaught", "not_yet"),
    [
        ("factoring", ["factoring"], ("factoring",)),
        ("factoring", ["quadratic-formula"], ()),
        ("quadratic-formula", ["complex-numbers"], ()),
        ("completing-the-square", ["complete-the-square"], ("complete-the-square",)),
    ],
)
def test_what_a_class_does_not_know_yet_is_said(method, untaught, not_yet):
    found = {s.method: s.not_yet for s in all_methods(Working("solve", "x^2 - 5x + 6 = 0"), untaught=untaught)}
    assert found[method] == not_yet


def test_methods_within_what_is_known_come_first():
    found = work(Working("solve", "x^2 - 5x + 6 = 0"), untaught=["factoring"])
    assert found.method != "factoring"
    assert found.not_yet == ()


@pytest.mark.parametrize(
    ("working", "method"),
    [
        (Working("solve", "x^5 - x - 1 = 0"), None),
        (Working("solve", "x^2 - 4x - 7 = 0"), "factoring"),
        (Working("solve", "x + 1"), None),
        (Working("solve", "x = 1"), "no-such-method"),
        (Working("guess", "x = 1"), None),
        (Working("solve", "a x = 1"), None),
    ],
)
def test_what_is_not_worked_is_refused_with_a_sentence(working, method):
    with pytest.raises(TaskError) as problem:
        work(working, method=method)
    assert problem.value.message[0].isupper() or problem.value.message[0] == "“"
    report = refused(problem.value, working)
    assert (report.steps, report.answer, report.error.message) == ((), (), problem.value.message)


def test_a_syntax_error_keeps_its_column():
    working = Working("solve", "x = (3")
    with pytest.raises(Exception) as problem:  # noqa: PT011 - both kinds of error are told in the same way
        work(working)
    assert (error_of(problem.value).code, error_of(problem.value).column) == ("syntax", 7)


def test_every_method_of_the_catalogue_works_its_own_example():
    for method in METHODS:
        task, given = method.example[0], method.example[1]
        variable = "x" if task == "solve" else None
        assert work(Working(task, given, (), variable, method.numbers), method=method.id).method == method.id


@pytest.mark.parametrize(
    ("task", "given", "said"),
    [
        ("simplify", "x/(x+1)", "It is in lowest terms already."),
        ("evaluate", "3/4", "It is in lowest terms already."),
        ("evaluate", "7", "It is worked out already."),
        ("simplify", "2√3", "It is simplified already."),
        ("simplify", "√5/5", "It is simplified already."),
        ("expand", "3x^2 + 2", "There is nothing to multiply out or to combine."),
        ("factor", "2(x+1)(x-1)", "It is factored already."),
        ("solve", "x = 5", "It is solved already."),
    ],
)
def test_a_problem_with_nothing_left_to_do_is_answered_so(task, given, said):
    solution = work(Working(task, given))
    assert (solution.already, solution.steps, solution.method) == (said, (), "")
    assert solution.answer == (given.removeprefix("x = ").replace("x+1)/", "x+1)/"),)
    assert [s.already for s in all_methods(Working(task, given))] == [said]


@pytest.mark.parametrize(
    ("task", "given"), [("factor", "(2x+2)(x-1)"), ("factor", "x + 1"), ("simplify", "2x/4"), ("solve", "2x = 4")]
)
def test_a_problem_with_something_left_is_worked(task, given):
    assert not work(Working(task, given)).already


class TestGenerate:
    @pytest.mark.parametrize("family", [family.id for family in FAMILIES])
    def test_a_family_draws_different_problems_of_its_own_that_are_worked(self, family):
        found = generate(family, 1, 3, seed=11)
        assert found
        assert len({s.working.given for s in found}) == len(found)
        for solution in found:
            assert solution.family == family
            lines = tuple(step.text for step in solution.steps)
            report = check(replace(solution.working, lines=lines))
            assert report.answer.verdict == "correct"

    def test_the_same_seed_draws_the_same_and_another_seed_others(self):
        def drawn(seed):
            return [s.working.given for s in generate("quadratic-equations", 1, 4, seed=seed)]

        assert drawn(3) == drawn(3)
        assert drawn(3) != drawn(4)

    @pytest.mark.parametrize("event", ["extraneous", "no-solution"])
    def test_an_event_that_is_asked_for_happens(self, event):
        for solution in generate("radical-equations", 1, 2, seed=2, events=[event]):
            assert EVENTS[event](solution)

    @pytest.mark.parametrize(
        ("family", "level", "events"),
        [
            ("no-such-family", 1, []),
            ("radical-equations", 0, []),
            ("radical-equations", 99, []),
            ("radical-equations", 1, ["rain"]),
        ],
    )
    def test_what_is_unknown_is_refused(self, family, level, events):
        with pytest.raises(TaskError):
            generate(family, level, 1, seed=1, events=events)

    def test_numbers_stay_within_the_largest(self):
        for solution in generate("linear-equations", 1, 5, seed=8, largest=30):
            digits = "".join(c if c.isdigit() else " " for c in solution.working.given).split()
            assert all(int(number) <= 30 for number in digits)


class TestAnalysed:
    @pytest.mark.parametrize(
        ("given", "excluded", "holes", "vertical", "horizontal", "oblique"),
        [
            ("(x^2-4)/(x^2-x-2)", ["-1", "2"], [["2", "4/3"]], ["-1"], "1", None),
            ("1/(x-3) + 2", ["3"], [], ["3"], "2", None),
            ("(x^2+1)/x", ["0"], [], ["0"], None, "x"),
            ("x^2 - 4", [], [], [], None, None),
            ("(x-1)/(x-1)", ["1"], [["1", "1"]], [], None, None),
        ],
    )
    def test_the_features_of_a_rational_function(self, given, excluded, holes, vertical, horizontal, oblique):
        found = analysed(given)
        assert found.error is None
        assert list(found.excluded) == excluded
        assert [list(hole) for hole in found.holes] == holes
        assert list(found.vertical_asymptotes) == vertical
        assert (found.horizontal_asymptote, found.oblique_asymptote) == (horizontal, oblique)

    def test_a_graph_comes_only_where_it_is_asked_for(self):
        assert analysed("1/x").graph is None
        graph = analysed("1/x", with_graph=True).graph
        assert len(graph.pieces) == 2
        assert [line.text for line in graph.vertical] == ["0"]

    @pytest.mark.parametrize("given", ["√x", "x + y", "x = 1", "x + (", "2^x"])
    def test_what_is_no_rational_function_of_one_letter_is_refused(self, given):
        assert analysed(given).error.message
