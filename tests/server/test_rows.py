"""Reads that are put together once, and queries that the database has prepared."""

import gc

import pytest
from django.db import connection

from server.common.rows import Rows
from server.sheets.models import Problem, Sheet
from tools import gunicorn

pytestmark = pytest.mark.django_db


def problems_of(sheet, owner):
    rows = Problem.objects.filter(sheet=sheet, sheet__owner=owner, position__lt=2).order_by("position")
    return rows.values_list("given", "sheet__title", "sheet__conventions")


@pytest.fixture
def sheets(teacher):
    made = [
        Sheet.objects.create(owner=teacher, title=title, conventions={"decimal": title}) for title in ("One", "Two")
    ]
    for sheet in made:
        for k in range(3):
            Problem.objects.create(sheet=sheet, position=k, task="solve", given=f"{sheet.pk}x = {k}")
    return made


def test_rows_are_those_of_the_query_for_every_key(sheets, teacher):
    rows = Rows(2, problems_of)
    for sheet in [*sheets, *sheets]:
        assert rows(sheet.pk, teacher.pk) == list(problems_of(sheet.pk, teacher.pk))
    assert [given for given, _, _ in rows(sheets[0].pk, teacher.pk)] == [f"{sheets[0].pk}x = {k}" for k in (0, 1)]
    assert rows(sheets[0].pk, teacher.pk + 1) == []


def test_what_is_kept_as_json_comes_as_its_values(sheets, teacher):
    assert {str(kept["decimal"]) for _, _, kept in Rows(2, problems_of)(sheets[1].pk, teacher.pk)} == {"Two"}


def test_a_key_that_is_not_in_the_query_is_refused():
    with pytest.raises(ValueError, match="not every key"):
        Rows(2, lambda sheet, owner: Sheet.objects.filter(pk=sheet).values_list("title"))(1, 2)


def test_the_database_prepares_what_is_asked_again_and_again(sheets):
    for _ in range(6):
        list(Sheet.objects.filter(pk=sheets[0].pk).values_list("title"))
    with connection.cursor() as cursor:
        cursor.execute("SELECT statement FROM pg_prepared_statements")
        known = [statement for (statement,) in cursor.fetchall()]
    assert any('"sheets_sheet"."title"' in each and "$1" in each for each in known)


def test_a_worker_sets_aside_what_it_has_read():
    gunicorn.post_worker_init(None)
    try:
        assert gc.get_freeze_count() > 1000
    finally:
        gc.unfreeze()
