"""The queries behind lists and pages: few, however much there is, and each by an index."""

import re

import pytest
from django.contrib.auth.models import User
from django.core.management import CommandError, call_command
from django.db import connection
from django.test.utils import CaptureQueriesContext

from server.marking.models import GivenSet, Student, StudentWorking
from server.sheets.models import Line, Problem, Sheet
from tests.server.conftest import Api

pytestmark = pytest.mark.django_db

PAGES = {
    # page: the most queries that it may need
    "/api/sheets": 7,
    "/api/sheets?page=2": 7,
    "/api/sheets?search=3": 7,
    "/api/sheets/{sheet}": 8,
    "/api/problems/{problem}": 7,
    "/api/bank": 8,
    "/api/bank?text=x&family=quadratic-equations&low=2&unused=2026-01-01": 8,
    "/api/bank?repeated=true&order=hardest": 8,
    "/api/bank/kinds": 5,
    "/api/colleagues": 4,
    "/api/people": 6,
    "/api/classes": 6,
    "/api/classes/{class}": 8,
    "/api/classes/{class}/patterns": 10,
    "/api/sets/{set}": 14,
    "/api/sets/{set}/patterns": 10,
    "/api/sets/{set}/records": 14,
    "/api/sets/{set}/log": 8,
    "/api/sets/{set}/pages": 8,
    "/api/items/{item}/written": 6,
    "/api/workings/{working}": 9,
    "/api/learned": 7,
}
BIG = (
    "sheets_sheet",
    "sheets_problem",
    "sheets_working",
    "sheets_line",
    "accounts_happening",
    "marking_student",
    "marking_givenset",
    "marking_setitem",
    "marking_paper",
    "marking_studentworking",
    "marking_decision",
)


@pytest.fixture(scope="module")
def district(kept_db):
    call_command("district", "--teachers", "3", "--lines", "9000", verbosity=0)
    call_command("district_classes", "--classes", "2", "--students", "5", "--sets", "2", verbosity=0)
    with connection.cursor() as cursor:
        cursor.execute("ANALYZE")
    api = Api()
    assert api.log_in("teacher1").status_code == 200
    sheet = Sheet.objects.filter(owner__username="teacher1").first()
    given = GivenSet.objects.filter(school_class__owner__username="teacher1").first()
    ids = {
        "class": given.school_class_id,
        "set": given.pk,
        "item": given.items.first().pk,
        "working": StudentWorking.objects.filter(item__given_set=given).first().pk,
    }
    return api, {"sheet": sheet.pk, "problem": sheet.problems.first().pk, **ids}


def asked(api, path):
    with CaptureQueriesContext(
        connection,
    ) as found:
        answer = api.get(path)
    assert answer.status_code == 200
    return [query["sql"] for query in found.captured_queries if query["sql"].startswith("SELECT")]


@pytest.mark.parametrize("place", PAGES)
def test_a_page_needs_few_queries_and_each_has_its_index(district, place):
    api, ids = district
    if place == "/api/people":
        api = Api()
        api.log_in("teacher0")
    path = place.format(**ids)
    api.get(path)  # what was not kept yet is made and kept
    queries = asked(api, path)
    assert len(queries) <= PAGES[place], queries
    with connection.cursor() as cursor:
        cursor.execute("SET LOCAL enable_seqscan = off")  # who has an index uses it; what is read whole has none
        for query in queries:
            cursor.execute(f"EXPLAIN {query}")
            plan = "\n".join(row[0] for row in cursor.fetchall())
            read_whole = set(re.findall(r"Seq Scan on (\w+)", plan)) & set(BIG)
            assert not read_whole, f"{query}\n{plan}"


def test_a_list_does_not_read_reports(district):
    api, _ = district
    api.get("/api/sheets")
    assert not any('"report"' in query for query in asked(api, "/api/sheets"))


def test_the_made_up_district_is_as_large_as_asked_and_whole(district):
    assert User.objects.count() == 3
    assert Line.objects.count() == pytest.approx(9000, rel=0.05)
    assert Problem.objects.filter(working__isnull=True).count() == 0
    api, _ = district
    row = api.get("/api/sheets").json()["sheets"][0]
    assert (row["problems"], row["sound"], row["faulty"]) == (20, 14, 4)  # an unchecked root is open


def test_it_is_never_mixed_with_real_people(teacher):
    before = Sheet.objects.count()
    with pytest.raises(CommandError, match="has people in it"):
        call_command("district", "--teachers", "2", "--lines", "100")
    assert Sheet.objects.count() == before


def test_its_classes_are_whole_and_made_once(district):
    api, ids = district
    told = api.get(f"/api/sets/{ids['set']}").json()
    assert (len(told["students"]), len(told["cells"]), told["done"]) == (5, 30, 30)
    assert all(cell["mark"] is not None and not cell["waits"] for cell in told["cells"])
    assert Student.objects.count() == 5 * (1 + 3 * 2) and StudentWorking.objects.count() == 30 * (1 + 3 * 2 * 2)
    with pytest.raises(CommandError):
        call_command("district_classes")
