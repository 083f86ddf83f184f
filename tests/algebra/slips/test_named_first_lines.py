"""The lines of `corpus/named-first*.txt`: the slip that a teacher names comes first at the line that breaks."""

from pathlib import Path

import pytest

from algebra import Working, check

FILES = sorted((Path(__file__).parents[2] / "corpus").glob("named-first*.txt"))


def rows():
    for row in (row for file in FILES for row in file.read_text(encoding="utf-8").splitlines()):
        if row and not row.startswith("#"):
            slips, task, given, lines, *more = (part.strip() for part in row.split(" ; "))
            for wrong in [lines] if lines.startswith("|") or "= |" in lines else lines.split("|"):
                yield pytest.param(slips.split("|"), task, given, wrong, *(more or [""]), id=f"{given}: {wrong}")


@pytest.mark.parametrize(("slips", "task", "given", "wrong", "more"), list(rows()))
def test_the_slip_that_a_teacher_names_comes_first(slips, task, given, wrong, more):
    """`more` says that numbers are complex, or what is assumed."""
    start, *right = (line.strip() for line in given.split("->"))
    written = [line.strip() for line in wrong.split("->")]
    numbers = "complex" if more == "complex" else "real"
    assume = more.split(", ") if more and numbers == "real" else ()
    report = check(Working(task, start, (*right, *written), numbers=numbers, assume=assume))
    assert all(link.relation in ("holds", "widens", "settles") for link in report.links[: len(right)])
    told = [link.slip.id for link in report.links[len(right) :] if link.slip] + list(report.answer.slips)
    assert told
    assert told[0] in slips


def test_there_are_many_and_of_every_kind():
    found = [row.values[0][0] for row in rows()]
    assert len(found) > 600
    assert len(set(found)) > 90
