"""What version 15 kept opens after an upgrade: forms, schemes, reports, decisions, revisions, printed codes."""

import tempfile
from pathlib import Path

import psycopg
import pytest
from psycopg.rows import dict_row
from pydantic import TypeAdapter

from algebra import METHODS, SLIPS, Proposal, Report, Scheme, Working, form_of, item_scheme, judge, key_lines
from paper import code_of
from server.marking import forms, pile
from server.marking.models import GivenSet, SetItem
from server.marking.services import VERSIONS
from tests.tools.test_backup import FIXTURE
from tools import backup
from tools.postgres import Cluster


@pytest.fixture(scope="module")
def database():
    with tempfile.TemporaryDirectory() as folder:
        Path(folder).chmod(0o755)
        cluster = Cluster(Path(folder) / "pg", fast=True)
        cluster.start()
        url = cluster.url("kept")
        backup.bring_back(FIXTURE, url)
        with psycopg.connect(url, row_factory=dict_row) as connection:
            yield connection
        cluster.stop()


def rows(database, query):
    return database.execute(query).fetchall()


def items(database):
    """Every item of every set, as the server has it, with its problem."""
    sets = {row["id"]: GivenSet(id=row["id"], conventions=row["conventions"]) for row in rows(database, _SETS)}
    for row in rows(database, "SELECT * FROM marking_setitem"):
        item = SetItem(**{name: row[name] for name in _ITEM})
        item.given_set = sets[row["given_set_id"]]
        yield item, pile.problem_of(item)


_SETS = "SELECT id, conventions FROM marking_givenset"
_ITEM = ("id", "position", "task", "given", "variable", "numbers", "method", "form", "made", "scheme", "key")


def test_every_form_is_there_and_its_key_is_right(database):
    seen = set()
    for item, problem in items(database):
        made = forms.made_item(item, problem)
        seen.add(form_of(made).name)
        assert forms.columns(made) == {"form": item.form, "made": item.made}
        if forms.is_answered(item):
            assert judge(made, key_lines(made)).answer.verdict == "correct", (item.form, item.given)
            assert judge(made, item.key).answer.verdict == "correct", (item.form, item.given)
            assert pile.scheme_of(item).total == item_scheme(made).total
    assert seen == {"work", "features", "choose", "mend", "fill", "way", "claim"}


def test_schemes_reports_and_proposals_are_read(database):
    scheme, report, proposal = TypeAdapter(Scheme), TypeAdapter(Report), TypeAdapter(Proposal)
    schemes = rows(database, "SELECT scheme FROM marking_setitem UNION ALL SELECT scheme FROM marking_ownscheme")
    assert {scheme.validate_python(row["scheme"]).kind for row in schemes} == {"answer", "steps", "points"}
    kept = rows(database, "SELECT report, proposal FROM marking_studentworking WHERE report IS NOT NULL")
    assert len(kept) == 429
    for row in kept:
        found = proposal.validate_python(row["proposal"])
        assert report.validate_python(row["report"]).answer.verdict and 0 <= found.mark <= found.total
    sheets = rows(database, "SELECT report FROM sheets_working WHERE report IS NOT NULL")
    assert all(report.validate_python(row["report"]).format == 1 for row in sheets) and len(sheets) == 44


def test_a_mark_is_its_last_standing_decision(database):
    marks = rows(
        database,
        """SELECT w.id, w.mark, (SELECT d.after FROM marking_decision d WHERE d.working_id = w.id AND NOT d.taken_back
                                 ORDER BY d.id DESC LIMIT 1) AS decided FROM marking_studentworking w""",
    )
    assert sum(row["mark"] is not None for row in marks) == 339
    assert all(row["mark"] == row["decided"] for row in marks)
    assert rows(database, "SELECT count(*) AS n FROM marking_decision WHERE taken_back")[0]["n"] == 1


def test_what_was_written_in_a_room_has_its_revision(database):
    found = rows(
        database,
        """SELECT w.lines, w.revision FROM marking_studentworking w JOIN room_roomworking r ON r.working_id = w.id""",
    )
    assert len(found) == 8 and all(row["revision"] >= len(row["lines"]) > 0 for row in found)
    assert rows(database, "SELECT max(revision) AS n FROM marking_studentworking WHERE source = 'typed'")[0]["n"] == 0


def test_printed_codes_are_those_that_the_sheet_would_have_today(database):
    codes = {row["title"]: row["codes"] for row in rows(database, "SELECT title, codes FROM marking_givenset")}
    problems = rows(
        database,
        """SELECT p.* FROM sheets_problem p JOIN sheets_sheet s ON s.id = p.sheet_id
           WHERE s.title = 'Every form' AND s.id = (SELECT max(id) FROM sheets_sheet WHERE title = 'Every form')
           ORDER BY p.position""",
    )
    workings = [Working(p["task"], p["given"], (), p["variable"] or None, p["numbers"]) for p in problems]
    assert codes["Every form"] == [code_of("Every form", version, workings) for version in VERSIONS]


def test_every_name_that_was_kept_is_known_still(database):
    slips = {slip.id for slip in SLIPS}
    for row in rows(database, "SELECT slips FROM marking_studentworking"):
        assert set(row["slips"]) <= slips
    methods = {method.id for method in METHODS} | {""}
    assert {row["method"] for row in rows(database, "SELECT method FROM sheets_problem")} <= methods
