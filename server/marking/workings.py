"""Where the lines of a student's working stand: the place, and what happens to its mark when they change."""

from __future__ import annotations

from uuid import uuid4

from server.common.events import tell
from server.marking import pile
from server.marking.events import LinesPut
from server.marking.models import Decision, GivenSet, Paper, SetItem, Student, StudentWorking, WorkingVersion
from server.workings.keep import Fate, Stored, put


class StudentPlace:
    """A student's working of one item. A mark falls with the lines that it was given for: these are kept as a version
    of it, with `who` changed them."""

    def __init__(self, who: str, given_set: int, student: int, item: int, source: str) -> None:
        self.who, self.given_set, self.student, self.item, self.source = who, given_set, student, item, source
        self.working = 0
        """The key of the working, once it is known."""
        self.mark: float | None = None
        self.decided = False

    def read(self) -> Stored:
        """What stands there now."""
        rows = StudentWorking.objects.filter(paper__given_set=self.given_set, paper__student=self.student)
        found = rows.filter(item=self.item).only("lines", "revision", "mark", "made_from").first()
        if found is None:
            return Stored([], 0, False, exists=False)
        self.working, self.mark, self.decided = found.pk, found.mark, found.decisions.exists()
        return Stored(found.texts, found.revision, bool(found.made_from))

    def write(self, stored: Stored, lines: list[str]) -> bool:
        """Puts the lines there; False where others were put since."""
        if not stored.exists:
            paper, _ = Paper.objects.get_or_create(given_set_id=self.given_set, student_id=self.student)
            made = StudentWorking.objects.create(
                paper=paper, item_id=self.item, lines=lines, source=self.source, revision=stored.revision + 1
            )
            self.working = made.pk
        else:
            if self.decided:  # as who decides: first the set, then its workings
                GivenSet.objects.select_for_update().get(pk=self.given_set)
            columns = {"lines": lines, "source": self.source, "mark": None, "confirmed": None, "confirmed_by": ""}
            # of the revision and with the mark that were read: who decides at this moment is not overlooked
            rows = StudentWorking.objects.filter(pk=self.working, revision=stored.revision, mark=self.mark)
            before = rows.values("source", "confirmed_by").first() if self.decided else None
            if not rows.update(revision=stored.revision + 1, **columns, **pile.Judged().columns):
                return False
            if before is not None:
                self._let_fall(stored, before["source"], before["confirmed_by"])
        self.written()
        return True

    def written(self) -> None:
        """Says that lines were put in the student's place."""
        tell(LinesPut(self.working, self.given_set))

    def overtaken(self, stored: Stored) -> str:
        """What is said to who wrote on an older revision."""
        return "This was changed on another device."

    def _let_fall(self, stored: Stored, source: str, confirmed_by: str) -> None:
        """Keeps the lines that were marked, and closes what was decided of them: a mark that was given for other lines
        falls, and never comes back."""
        WorkingVersion.objects.create(
            working_id=self.working,
            revision=stored.revision,
            lines=stored.lines,
            source=source,
            mark=self.mark,
            confirmed_by=confirmed_by,
            who=self.who[:150],
        )
        if self.mark is not None:
            Decision.objects.create(
                working_id=self.working, batch=uuid4(), who=self.who[:150], before=self.mark, after=None
            )
        Decision.objects.filter(working=self.working).update(closed=True)


def put_lines(
    who: str, given_set: GivenSet, student: Student, item: SetItem, lines: list[str], source: str
) -> tuple[Fate, int]:
    """Keeps the lines of a working, whatever stands there: what became of them, and its key. They are not verified
    yet."""
    place = StudentPlace(who, given_set.pk, student.pk, item.pk, source)
    fate = put(place, lines).fate
    return fate, place.working


def save_judged(working: int, revision: int, judged: pile.Judged) -> bool:
    """Keeps what came of verifying lines beside them; False where others stand there by now."""
    rows = StudentWorking.objects.filter(pk=working, revision=revision)
    return bool(rows.update(**judged.columns))
