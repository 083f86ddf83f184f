"""Two who write at once: nothing is lost, nobody waits for good."""

from concurrent.futures import ThreadPoolExecutor
from threading import Barrier

import pytest
from django.db import connections

from server.common.problems import Conflict
from server.sheets import services
from server.sheets.models import Problem, Sheet, Working
from server.sheets.schemas import ProblemChange, ProblemIn, SheetChange, WorkingChange
from tests.server.conftest import make_teacher

pytestmark = pytest.mark.django_db(transaction=True)
ROUNDS = 12


@pytest.fixture
def teacher():
    return make_teacher("maren")


@pytest.fixture
def sheet(teacher):
    made = services.create_sheet(teacher, "Roots")
    for given in ("x^2 = 36", "x^2 = 49", "x^2 = 64"):
        services.add_problem(
            teacher, made.pk, ProblemIn(task="solve", given=given, variable="", numbers="real", method="")
        )
    return made


def at_once(*tasks):
    """Runs the tasks in threads that begin together; returns what each raised, or None."""
    gate = Barrier(len(tasks))

    def run(task):
        try:
            gate.wait()
            task()
        except Exception as problem:
            return problem
        finally:
            connections.close_all()
        return None

    with ThreadPoolExecutor(len(tasks)) as pool:
        return list(pool.map(run, tasks))


def change(**fields):
    return SheetChange(**{"title": None, "conventions": None, "untaught": None, **fields})


def test_title_and_conventions_changed_at_once_are_both_kept(teacher, sheet):
    for k in range(ROUNDS):
        decimal = ("comma", "point")[k % 2]
        raised = at_once(
            lambda k=k: services.change_sheet(teacher, sheet.pk, change(title=f"Roots {k}")),
            lambda decimal=decimal: services.change_sheet(teacher, sheet.pk, change(conventions={"decimal": decimal})),
        )
        assert raised == [None, None]
        kept = Sheet.objects.get()
        assert (kept.title, kept.conventions) == (f"Roots {k}", {"decimal": decimal})


def test_problems_changed_while_others_are_moved_neither_lose_nor_block(teacher, sheet):
    order = list(sheet.problems.order_by("position").values_list("pk", flat=True))
    for k in range(ROUNDS):
        order.reverse()
        raised = at_once(
            lambda: services.reorder(teacher, sheet.pk, list(order)),
            lambda k=k: services.change_problem(teacher, order[0], ProblemChange(given=f"x^2 = {k + 2}")),
            lambda k=k: services.change_problem(teacher, order[2], ProblemChange(variable="y" if k % 2 else "x")),
        )
        assert raised == [None, None, None]
        assert list(sheet.problems.order_by("position").values_list("pk", flat=True)) == order
        assert Problem.objects.get(pk=order[0]).given == f"x^2 = {k + 2}"


def test_of_two_copies_and_a_deletion_places_stay_without_gaps(teacher, sheet):
    first, *_, last = sheet.problems.order_by("position")
    raised = at_once(
        lambda: services.duplicate_problem(teacher, first.pk),
        lambda: services.duplicate_problem(teacher, first.pk),
        lambda: services.delete_problem(teacher, last.pk),
    )
    assert raised == [None, None, None]
    assert list(sheet.problems.order_by("position").values_list("position", flat=True)) == [0, 1, 2, 3]


def test_a_write_whose_answer_was_lost_is_no_conflict_when_it_is_sent_again(teacher, sheet):
    problem = sheet.problems.order_by("position")[0]
    sent = WorkingChange(revision=0, lines=["x = ±6"])
    services.write_lines(teacher, problem.pk, sent)
    again = services.write_lines(teacher, problem.pk, sent)
    assert again.working.revision == Working.objects.get(problem=problem).revision == 1
    with pytest.raises(Conflict):
        services.write_lines(teacher, problem.pk, WorkingChange(revision=0, lines=["x = 6"]))


def test_of_two_different_writes_one_is_told(teacher, sheet):
    problem = sheet.problems.order_by("position")[0]
    for k in range(4):
        raised = at_once(
            lambda k=k: services.write_lines(teacher, problem.pk, WorkingChange(revision=k, lines=[f"x = {2 * k}"])),
            lambda k=k: services.write_lines(
                teacher, problem.pk, WorkingChange(revision=k, lines=[f"x = {2 * k + 1}"])
            ),
        )
        assert sorted(type(one).__name__ for one in raised) == ["Conflict", "NoneType"]
