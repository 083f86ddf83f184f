"""Problems like one, ladders, events, levels, and which problems are the same item."""

import re
import statistics

import pytest

from algebra import (
    EVENTS,
    FAMILIES,
    LadderWish,
    TaskError,
    Working,
    check,
    drawn,
    draws,
    generate,
    joined,
    ladder,
    like,
    likeness,
    neighbour,
    work,
)
from algebra.slips import lurking_at


def wish(families, count, seed=1, **more):
    lists = {name: tuple(value) if isinstance(value, list) else value for name, value in more.items()}
    return LadderWish(tuple(families), count, seed, **lists)


def laddered(families, count, seed=1, **more):
    return ladder(wish(families, count, seed, **more))


SAME = [
    ("solve", "x^2 - 5x + 6 = 0", "2y^2 - 10y + 12 = 0"),
    ("solve", "x^2 - 5x + 6 = 0", "-x^2 + 5x - 6 = 0"),
    ("solve", "x^2 - 5x + 6 = 0", "0 = 6 - 5x + x^2"),
    ("solve", "x^2 - 5x + 6 = 0", "6 + x^2 - 5x = 0"),
    ("solve", "3(x + 2) = 12", "12 = 3(2 + t)"),
    ("simplify", "(x + 1)(x - 2)", "(t - 2)(t + 1)"),
    ("simplify", "ab + c", "zx + y"),
    ("simplify", "3/x + 2/(x + 1)", "2/(1 + n) + 3/n"),
    ("simplify", "√50 + √8", "√8 + √50"),
    ("solve", "|x - 3| = 2", "2 = |x - 3|"),
]
OTHER = [
    ("solve", "x^2 - 5x + 6 = 0", "x^2 - 5x - 6 = 0"),
    ("solve", "x^2 - 5x + 6 = 0", "(x - 2)(x - 3) = 0"),
    ("simplify", "(x + 1)/(x - 2)", "(x - 2)/(x + 1)"),
    ("simplify", "x^2y", "xy^3"),
    ("simplify", "a/b/c", "a/(b/c)"),
    ("solve", "2x = 6", "3x = 6"),
    ("simplify", "a - b - c", "a - (b - c)"),
]


class TestTheSameItem:
    @pytest.mark.parametrize(("task", "one", "other"), SAME)
    def test_what_differs_in_letters_order_sides_or_a_factor_only(self, task, one, other):
        assert likeness(Working(task, one, ())) == likeness(Working(task, other, ()))

    @pytest.mark.parametrize(("task", "one", "other"), OTHER)
    def test_what_is_another_item(self, task, one, other):
        assert likeness(Working(task, one, ())) != likeness(Working(task, other, ()))

    def test_another_task_letter_or_method_makes_another_item(self):
        given = "ax + b = c"
        one = Working("solve", given, (), variable="x")
        others = [
            Working("solve", given, (), variable="b"),
            Working("solve", given, (), variable="x", numbers="complex"),
            Working("solve", given, (), variable="x", method="factoring"),
        ]
        assert likeness(one) == likeness(Working("solve", "bt + a = c", (), variable="t"))
        assert len({likeness(each) for each in (one, *others)}) == 4

    def test_a_problem_with_many_letters_has_a_form_at_once(self):
        forwards, backwards = "+".join("abcdefgh"), "+".join("hgfedcba")
        assert likeness(Working("simplify", forwards, ())) == likeness(Working("simplify", backwards, ()))
        assert likeness(Working("simplify", forwards, ())) != likeness(Working("simplify", f"{backwards}+a", ()))


LIKE = [
    ("solve", "x^2 - 5x + 6 = 0"),
    ("solve", "3x + 7 = 22"),
    ("simplify", "√50 + √8"),
    ("factor", "2x^2 + 14x + 20"),
    ("simplify", "(2x^3)^2"),
    ("simplify", "(x^2 - 9)/(x^2 + 5x + 6)"),
    ("solve", "x/(x-3) = 3/(x-3) + 2"),
    ("factor", "x^2 + 4x + 9"),
    ("solve", "2x^2 + 5x + 1 = 0"),
    ("solve", "|2x - 3| = 7"),
    ("evaluate", "18 - 6 ÷ 3 × 2"),
    ("solve", "2(x + 3) = 2x + 6"),
]


class TestLike:
    @pytest.mark.parametrize(("task", "given"), LIKE)
    def test_another_has_the_structure_and_the_events_and_other_numbers(self, task, given):
        first = work(Working(task, given, ()))
        found = like(Working(task, given, ()), 2, 4)
        assert found
        names = [
            name for name in EVENTS if name in ("extraneous", "no-solution", "all-reals", "prime", "common-factor")
        ]
        for other in found:
            assert (other.family, other.method) == (first.family, first.method)
            assert [step.rule.id for step in other.all_steps] == [step.rule.id for step in first.all_steps]
            assert [EVENTS[name](other) for name in names] == [EVENTS[name](first) for name in names]
            assert abs(other.difficulty.rating - first.difficulty.rating) <= 0.7
        assert len({likeness(each.working) for each in (first, *found)}) == len(found) + 1

    def test_the_same_seed_gives_the_same_and_another_seed_another(self):
        problem = Working("solve", "3x + 7 = 22", ())
        drawn = [[each.working.given for each in like(problem, 4, seed)] for seed in (1, 1, 2)]
        assert drawn[0] == drawn[1] != drawn[2]

    def test_none_is_one_of_those_known(self):
        problem = Working("solve", "3x + 7 = 22", ())
        first = [each.working for each in like(problem, 3, 1)]
        second = like(problem, 3, 1, known=first)
        assert not {likeness(each) for each in first} & {likeness(each.working) for each in second}

    @pytest.mark.parametrize(
        ("given", "decimal", "form"),
        [
            ("1.5x + 2.5 = 7", "point", r"\d+\.\dx \+ \d+\.\d = \d+"),
            ("0,2x + 0,5 = 4", "comma", r"\d+,\dx \+ \d+,\d = \d+"),
        ],
    )
    def test_decimals_stay_decimals_with_as_many_places(self, given, decimal, form):
        found = like(Working("solve", given, (), conventions={"decimal": decimal}), 2, 1)
        assert len(found) == 2
        for each in found:
            assert re.fullmatch(form, each.working.given)
            assert each.working.convention("decimal") == decimal

    def test_powers_and_indices_stay(self):
        for found in like(Working("simplify", "(5x^3)^2", ()), 3, 1):
            assert found.working.given.endswith("x^3)^2")

    def test_a_problem_without_numbers_has_none_like_it(self):
        assert like(Working("solve", "ax = b", (), variable="x"), 2) == []

    def test_what_is_not_worked_is_refused(self):
        with pytest.raises(TaskError):
            like(Working("solve", "x^5 - x - 1 = 0", ()))


class TestLadder:
    def test_it_rises_holds_no_item_twice_and_says_what_each_adds(self):
        rungs = laddered(["quadratic-equations", "rational-equations"], 12, 3)
        ratings = [rung.rating for rung in rungs]
        assert len(rungs) == 12
        assert ratings == sorted(ratings)
        assert ratings[-1] - ratings[0] > 3
        assert len({likeness(rung.working) for rung in rungs}) == 12
        assert {rung.family for rung in rungs} == {"quadratic-equations", "rational-equations"}
        assert all(rung.adds for rung in rungs)
        assert rungs[0].adds.startswith("to begin with")

    def test_the_same_seed_gives_the_same_ladder(self):
        drawn = [[rung.working.given for rung in laddered(["factor"], 8, seed)] for seed in (5, 5, 6)]
        assert drawn[0] == drawn[1] != drawn[2]

    def test_levels_numbers_and_what_is_not_taught_are_kept_to(self):
        rungs = laddered(["quadratic-equations"], 6, 1, low=2, high=3, largest=60, untaught=["completing-the-square"])
        assert {rung.level for rung in rungs} <= {2, 3}
        for rung in rungs:
            assert rung.method != "completing-the-square"
            assert all(int(n) <= 60 for n in re.findall(r"\d+", rung.working.given))

    def test_what_is_kept_stays_and_counts(self):
        kept = [Working("solve", "x^2 = 49", ()), Working("solve", "2x^2 + 5x + 1 = 0", ())]
        rungs = laddered(["quadratic-equations"], 5, 1, kept=kept)
        assert len(rungs) == 5
        assert {each.given for each in kept} <= {rung.working.given for rung in rungs}

    @pytest.mark.parametrize("event", ["no-solution", "extraneous"])
    def test_an_event_that_is_asked_for_happens(self, event):
        rungs = laddered(["radical-equations"], 6, 2, events=[event])
        assert any(EVENTS[event](work(rung.working)) for rung in rungs)

    def test_it_can_be_drawn_in_parts_and_joined_from_what_is_there(self):
        asked = {"events": ["extraneous"], "kept": [Working("solve", "√x = 5", ())]}
        whole = laddered(["radical-equations"], 6, 2, **asked)
        wanted = draws(wish(["radical-equations"], 6, 2, **asked))
        parts = [drawn(each) for each in wanted]
        assert joined(parts, 6, 2) == whole
        assert [(len(each), each[0].event) for each in parts[:2]] == [(1, "kept"), (1, "extraneous")]
        some = joined(parts[:3], 6, 2)
        assert 2 < len(some) <= 6 and {rung.event for rung in some} == {"kept", "extraneous", ""}
        assert [rung.rating for rung in some] == sorted(rung.rating for rung in some)
        assert joined([], 6, 2) == []

    def test_an_event_never_brings_what_is_not_taught(self):
        def happening(**more):
            rungs = laddered(["radical-equations", "quadratic-equations"], 4, 2, events=["extraneous"], **more)
            return len(rungs), any(EVENTS["extraneous"](work(rung.working)) for rung in rungs)

        assert happening() == (4, True)
        assert happening(untaught=["check-candidate"]) == (4, False)

    @pytest.mark.parametrize(
        ("families", "more", "words"),
        [
            (["nope"], {}, "Unknown family"),
            ([], {}, "needs a family"),
            (["factor"], {"count": 0}, "needs a family"),
            (["factor"], {"low": 4, "high": 2}, "levels 1 to"),
            (["factor"], {"high": 9}, "levels 1 to"),
            (["factor"], {"events": ["rain"]}, "Unknown event"),
        ],
    )
    def test_what_cannot_be_asked_is_said(self, families, more, words):
        with pytest.raises(TaskError, match=words):
            laddered(families, more.pop("count", 3), 1, **more)


@pytest.mark.parametrize(
    ("given", "happens"),
    [
        ("(x - 3)^2 = 0", True),
        ("x^2 - 6x + 9 = 0", True),
        ("0 = 5(t + 1)^2", True),
        ("x^2 = 0", True),
        ("x^2 = 9", False),
        ("x - 3 = 0", False),
        ("√(2t + 3) = t", False),
        ("√(x + 7) = x + 1", False),
        ("√t/2 = 3", False),
        ("2/(x - 3)^2 = x/(x - 3)^2", False),
    ],
)
def test_a_double_root_is_one_of_a_squared_factor(given, happens):
    assert EVENTS["double-root"](work(Working("solve", given, ()))) is happens


def test_a_neighbour_of_a_problem_with_decimal_commas_is_found():
    rung = neighbour(Working("solve", "1,5x + 2,5 = 7", (), conventions={"decimal": "comma"}), 1)
    assert rung is not None and rung.rating > 0


@pytest.mark.parametrize("family", FAMILIES, ids=lambda family: family.id)
def test_no_level_is_easier_than_the_one_below(family):
    means = [
        statistics.mean(s.difficulty.rating for s in generate(family.id, level, 60, 11))
        for level in range(1, len(family.levels) + 1)
    ]
    assert all(above >= below - 0.1 for below, above in zip(means, means[1:], strict=False)), means


DRAWABLE = [
    ("radical-equations", 4, "extraneous"),
    ("radical-equations", 2, "no-solution"),
    ("linear-equations", 4, "all-reals"),
    ("factor", 5, "prime"),
    ("factor", 3, "common-factor"),
    ("factor", 5, "big-pair"),
    ("add-rational", 3, "opposite"),
    ("reduce-rational", 2, "numerator-gone"),
    ("quadratic-equations", 3, "root-answer"),
    ("quadratic-equations", 1, "zero-answer"),
    ("quadratic-equations", 1, "negative-answer"),
    ("linear-equations", 5, "fraction-answer"),
    ("rational-functions", 3, "hole"),
    ("factor", 3, "two-letters"),
    ("exponential-equations", 3, "pattern"),
    ("rational-equations", 3, "none-left"),
]


@pytest.mark.parametrize(("family", "level", "event"), DRAWABLE)
def test_an_event_can_be_drawn(family, level, event):
    found = generate(family, level, 2, 5, events=[event])
    assert found
    for solution in found:
        assert EVENTS[event](solution)
        report = check(
            Working(solution.working.task, solution.working.given, solution.lines, variable=solution.working.variable)
        )
        assert report.sound or solution.working.task == "analyze"


class TestWhereItGoesWrong:
    @pytest.mark.parametrize(
        "slip", ["distributed-first-only", "extraneous-kept", "plus-minus-missing", "added-across", "lcd-skips-term"]
    )
    def test_every_problem_passes_the_place_where_the_slip_lurks(self, slip):
        rungs = laddered([], 6, 3, slip=slip)
        assert len(rungs) == 6
        for rung in rungs:
            assert slip in {
                each.id
                for step in work(rung.working, method=rung.method).all_steps
                for each in lurking_at(step.rule.id)
            }

    def test_within_the_families_that_are_wished(self):
        rungs = laddered(["rational-equations"], 4, 1, slip="lcd-skips-term")
        assert {rung.family for rung in rungs} == {"rational-equations"}

    def test_an_unknown_slip_is_named(self):
        with pytest.raises(TaskError, match="no-such"):
            laddered([], 4, slip="no-such")
