"""The one door for lines: same, overtaken or kept; judged outside of any lock; saved only on the revision it was made
from."""

from concurrent.futures import ThreadPoolExecutor
from threading import Barrier

import pytest
from django.db import IntegrityError, connection, connections

from server.common.problems import Conflict
from server.marking import pile
from server.marking.models import StudentWorking
from server.marking.workings import StudentPlace, put_lines, save_judged
from server.workings import keep as door
from server.workings.keep import Kept, Stored, keep, put

pytestmark = pytest.mark.django_db(transaction=True)


class Place:
    """A place in memory; `between` is done once after it was read and before it is written, as by another writer."""

    def __init__(self, lines=(), revision=0, *, exists=True, judged=False, between=None):
        self.lines, self.revision, self.exists, self.judged = list(lines), revision, exists, judged
        self.between, self.report, self.log = between, None, []

    def read(self):
        self.log.append("read")
        return Stored(list(self.lines), self.revision, self.judged, self.exists)

    def write(self, stored, lines):
        between, self.between = self.between, None
        if between is not None:
            between(self)
        if self.revision != stored.revision:
            return False
        assert connection.in_atomic_block
        self.lines, self.revision, self.exists, self.judged = list(lines), stored.revision + 1, True, False
        self.log.append("written")
        return True

    def overtaken(self, stored):
        return f"Others stand here, {len(stored.lines)}."

    def judge(self, lines):
        assert not connection.in_atomic_block  # nobody waits for it
        self.log.append("judged")
        return f"report on {', '.join(lines)}"

    def save(self, judged, revision):
        if revision != self.revision:
            return False
        self.report, self.judged = judged, judged is not None
        return True


def kept(place, lines, revision=None):
    return keep(place, list(lines), revision, judge=place.judge, save=place.save)


def other(place):
    place.lines, place.revision = ["x = 9"], place.revision + 1


class TestPutting:
    @pytest.mark.parametrize(
        ("place", "lines", "revision", "fate", "now"),
        [
            (Place(exists=False), ["x = 2"], 0, "new", 1),
            (Place(exists=False), ["x = 2"], None, "new", 1),
            (Place(["x = 1"], 3), ["x = 2"], 3, "changed", 4),
            (Place(["x = 1"], 3), ["x = 2"], None, "changed", 4),
            (Place(["x = 1"], 3), ["x = 1"], 3, "same", 3),
            (Place(["x = 1"], 3), ["x = 1"], 2, "same", 3),  # the answer to a write that arrived was lost
            (Place(["x = 1"], 3), [], 3, "changed", 4),
            (Place([], 0), [], 0, "same", 0),
            (Place(exists=False), [], 0, "new", 1),
        ],
    )
    def test_what_becomes_of_lines(self, place, lines, revision, fate, now):
        assert put(place, lines, revision) == Kept(fate, now)
        assert (place.lines, place.revision) == (lines, now)

    @pytest.mark.parametrize("revision", [0, 2, 4])
    def test_other_lines_on_another_revision_are_a_conflict_with_what_stands_there(self, revision):
        place = Place(["x = 1"], 3)
        with pytest.raises(Conflict, match="Others stand here, 1") as problem:
            put(place, ["x = 2"], revision)
        assert problem.value.more == {"revision": 3, "lines": ["x = 1"]}
        assert (place.lines, place.revision) == (["x = 1"], 3)

    def test_who_writes_between_reading_and_writing_is_not_overwritten(self):
        place = Place(["x = 1"], 3, between=other)
        with pytest.raises(Conflict) as problem:
            put(place, ["x = 2"], 3)
        assert problem.value.more["lines"] == ["x = 9"] == place.lines

    def test_without_a_revision_lines_go_over_what_another_has_just_put_there(self):
        place = Place(["x = 1"], 3, between=other)
        assert put(place, ["x = 2"]) == Kept("changed", 5)

    def test_the_same_lines_by_another_are_the_same(self):
        place = Place(["x = 1"], 3, between=lambda place: vars(place).update(lines=["x = 2"], revision=4))
        assert put(place, ["x = 2"], 3) == Kept("same", 4)

    def test_who_makes_the_same_row_at_the_same_moment_is_looked_at_again(self):
        def makes_it(place):
            vars(place).update(lines=["x = 9"], revision=1, exists=True)
            raise IntegrityError

        with pytest.raises(Conflict):
            put(Place(exists=False, between=makes_it), ["x = 2"], 0)
        assert put(Place(exists=False, between=makes_it), ["x = 2"]) == Kept("changed", 2)

    def test_it_gives_up_where_others_never_stop(self, monkeypatch):
        place = Place(["x = 1"], 3)
        monkeypatch.setattr(place, "write", lambda stored, lines: False)
        with pytest.raises(Conflict):
            put(place, ["x = 2"])
        assert place.log.count("read") == door.TRIES + 1


class TestKeeping:
    def test_lines_are_written_then_judged_then_saved(self):
        place = Place(["x = 1"], 3, judged=True)
        assert kept(place, ["x = 2"], 3) == Kept("changed", 4, "report on x = 2")
        assert place.log == ["read", "written", "judged"] and place.report == "report on x = 2"

    def test_the_same_lines_are_judged_only_where_they_are_not_yet(self):
        assert kept(Place(["x = 1"], 3, judged=True), ["x = 1"], 3) == Kept("same", 3)
        assert kept(Place(["x = 1"], 3), ["x = 1"], 3) == Kept("same", 3, "report on x = 1")

    def test_a_report_on_lines_that_were_overtaken_is_dropped(self):
        place = Place(["x = 1"], 3)

        def judge(lines):
            other(place)
            return "late"

        assert keep(place, ["x = 2"], 3, judge=judge, save=place.save) == Kept("changed", 4, None)
        assert (place.lines, place.report) == (["x = 9"], None)

    def test_where_nobody_has_time_the_lines_are_kept_all_the_same(self):
        place = Place(["x = 1"], 3)
        assert keep(place, ["x = 2"], 3, judge=lambda lines: None, save=place.save) == Kept("changed", 4, None)
        assert place.lines == ["x = 2"] and not place.judged


class TestStudentsLines:
    @pytest.fixture
    def place(self, given):
        student = given.school_class.students.get(name="Ada Quill")
        return StudentPlace("maren", given.pk, student.pk, given.items.first().pk, "typed")

    def test_they_have_a_revision_and_no_report_until_they_are_verified(self, place, given):
        assert put(place, ["3x = 15"], 0) == Kept("new", 1)
        assert put(place, ["3x = 15", "x = 5"], 1) == Kept("changed", 2)
        working = StudentWorking.objects.get()
        assert (working.texts, working.revision, working.report, place.working) == (
            ["3x = 15", "x = 5"],
            2,
            None,
            working.pk,
        )

    def test_a_report_is_saved_on_its_revision_alone(self, place):
        put(place, ["3x = 15"], 0)
        item = StudentWorking.objects.select_related("item__given_set").get().item
        judged = pile.judged(item, ["3x = 15"])
        assert not save_judged(place.working, 0, judged) and not save_judged(place.working, 2, judged)
        assert StudentWorking.objects.get().report is None
        assert save_judged(place.working, 1, judged) and StudentWorking.objects.get().report["links"]

    def test_many_who_write_at_once_lose_nothing_and_count_each_write(self, place, given):
        gate = Barrier(4)
        student = given.school_class.students.get(name="Ada Quill")
        item = given.items.first()

        def write(k):
            try:
                gate.wait()
                return [put_lines("x", given, student, item, [f"x = {k}", f"x = {n}"], "typed")[0] for n in range(5)]
            finally:
                connections.close_all()

        with ThreadPoolExecutor(4) as pool:
            fates = [fate for told in pool.map(write, range(4)) for fate in told]
        working = StudentWorking.objects.get()
        assert fates.count("new") == 1 and working.revision == len(fates) - fates.count("same")
