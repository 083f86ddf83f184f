"""The practice room of a set: its code and what it tells, who is in it, the students' own secrets, and tries that were
wrong."""

from __future__ import annotations

from typing import Literal, cast, get_args

from django.db import connection, models
from django.db.models import CheckConstraint, Q, UniqueConstraint

from algebra import limits
from server.marking.models import GivenSet, SchoolClass, SetItem, Student, StudentWorking
from server.room.telling import Tells

TELLS: tuple[Tells, ...] = get_args(Tells)
AskKind = Literal["vote", "try"]


class Room(models.Model):
    """A set that a class works on its own devices. `tells` is how much a student is told while writing; in a room for
    `reading` nothing is written; `version` grows with every change that the teacher sees. Without `closes` it stays
    open until it is ended."""

    given_set = models.OneToOneField(GivenSet, on_delete=models.CASCADE, related_name="room")
    code = models.CharField(max_length=8, unique=True)
    tells = models.CharField(max_length=5, default="line")
    right_line = models.BooleanField(default=False)
    hints = models.PositiveSmallIntegerField(default=0)
    paused = models.CharField(max_length=200, blank=True, default="")
    closes = models.DateTimeField(null=True)
    show_time = models.BooleanField(default=False)
    reading = models.BooleanField(default=False)
    ended = models.BooleanField(default=False)
    version = models.PositiveBigIntegerField(default=0)
    opened = models.DateTimeField(auto_now_add=True)

    class Meta:
        constraints = [
            CheckConstraint(condition=Q(tells__in=TELLS), name="room_tells_known"),
            CheckConstraint(condition=Q(hints__lte=20), name="room_hints_bounded"),
        ]

    @property
    def telling(self) -> Tells:
        """What it tells; that this is one of the known is a constraint of the table."""
        return cast(Tells, self.tells)

    def touch(self) -> int:
        """Counts one more change that the teacher sees; its number."""
        self.version = touched(self.pk)
        return self.version


def touched(room: int) -> int:
    """Counts one more change of a room that the teacher sees; its number. Later changes of this room wait for the end
    of the transaction, so that who has seen a number has seen all before it."""
    with connection.cursor() as cursor:
        cursor.execute("UPDATE room_room SET version = version + 1 WHERE id = %s RETURNING version", [room])
        [version] = cursor.fetchone()
    return int(version)


class Secret(models.Model):
    """A student's own short secret, as a hash; set at the first time, taken away by the teacher."""

    student = models.OneToOneField(Student, on_delete=models.CASCADE, primary_key=True, related_name="secret")
    hashed = models.CharField(max_length=200)


class Visit(models.Model):
    """A student in a room: the words of a nudge, the minutes more than the others have, when the student came in or was
    last spoken to, and the change of the room at which that was."""

    room = models.ForeignKey(Room, on_delete=models.CASCADE, related_name="visits")
    student = models.ForeignKey(Student, on_delete=models.CASCADE, related_name="visits")
    nudge = models.CharField(max_length=200, blank=True, default="")
    more_minutes = models.PositiveSmallIntegerField(default=0)
    until = models.DateTimeField(null=True)  # for who was away: the room is open until then, for this student alone
    heard = models.DateTimeField(auto_now=True)
    version = models.PositiveBigIntegerField(default=0)

    class Meta:
        constraints = [UniqueConstraint(fields=["room", "student"], name="visit_once")]


class RoomWorking(models.Model):
    """What the room adds to a working: the hints that were taken, and the change of the room at which it was last
    written."""

    working = models.OneToOneField(StudentWorking, on_delete=models.CASCADE, primary_key=True, related_name="in_room")
    hints = models.PositiveSmallIntegerField(default=0)
    changed = models.DateTimeField(auto_now=True)
    version = models.PositiveBigIntegerField(default=0)


class Ask(models.Model):
    """What a room is asked just now: which of these lines breaks (`right` is that line, 0 for none), or how the working
    goes on."""

    room = models.OneToOneField(Room, on_delete=models.CASCADE, related_name="ask")
    kind = models.CharField(max_length=4)
    item = models.ForeignKey(SetItem, on_delete=models.CASCADE, related_name="+")
    lines = models.JSONField(default=list)
    right = models.PositiveSmallIntegerField(null=True)
    asked = models.DateTimeField(auto_now_add=True)

    class Meta:
        constraints = [
            CheckConstraint(
                condition=Q(kind="vote", right__isnull=False) | Q(kind="try", right__isnull=True), name="ask_kind_known"
            )
        ]

    @property
    def kind_name(self) -> AskKind:
        """What kind it is; that this is one of the known is a constraint of the table."""
        return cast(AskKind, self.kind)


class AskAnswer(models.Model):
    """What a student answers: the number of a line, or a line with how it follows."""

    ask = models.ForeignKey(Ask, on_delete=models.CASCADE, related_name="answers")
    student = models.ForeignKey(Student, on_delete=models.CASCADE, related_name="ask_answers")
    text = models.CharField(max_length=limits.MAX_LINE_CHARACTERS)
    relation = models.CharField(max_length=10, blank=True, default="")

    class Meta:
        constraints = [UniqueConstraint(fields=["ask", "student"], name="answer_once")]


class Door(models.Model):
    """The code by which the students of a class come in from home, to their own pages."""

    school_class = models.OneToOneField(SchoolClass, on_delete=models.CASCADE, primary_key=True, related_name="door")
    code = models.CharField(max_length=8, unique=True)


class DueSlip(models.Model):
    """An error that a student made: when it was made last and in which item, after how many right problems since
    (`stage`), when it is due again, and whether the student is rid of it."""

    student = models.ForeignKey(Student, on_delete=models.CASCADE, related_name="due_slips")
    slip = models.CharField(max_length=60)
    item = models.ForeignKey(SetItem, on_delete=models.CASCADE, related_name="+")
    made = models.DateTimeField()
    stage = models.PositiveSmallIntegerField(default=0)
    due = models.DateField()
    rid = models.BooleanField(default=False)

    class Meta:
        constraints = [UniqueConstraint(fields=["student", "slip"], name="due_slip_once")]


class HomeProblem(models.Model):
    """A problem against one of a student's errors, with what the student wrote. `done` when it was solved; `missed`
    when the error was made in it."""

    student = models.ForeignKey(Student, on_delete=models.CASCADE, related_name="home_problems")
    slip = models.CharField(max_length=60)
    task = models.CharField(max_length=20)
    given = models.CharField(max_length=limits.MAX_LINE_CHARACTERS)
    variable = models.CharField(max_length=40, blank=True, default="")
    numbers = models.CharField(max_length=10, default="real")
    method = models.CharField(max_length=40, blank=True, default="")
    conventions = models.JSONField(default=dict)
    lines = models.JSONField(default=list)
    revision = models.PositiveIntegerField(default=0)
    report = models.JSONField(null=True)
    missed = models.BooleanField(default=False)
    given_on = models.DateTimeField(auto_now_add=True)
    done = models.DateTimeField(null=True)

    class Meta:
        ordering = ["given_on", "pk"]
        constraints = [
            UniqueConstraint(fields=["student", "slip"], condition=Q(done=None), name="one_open_problem_a_slip")
        ]


class WrongTries(models.Model):
    """How many tries were wrong in the while that began at `since`. `what` is a code from an address, or the secret of
    a student on a device or from an address."""

    what = models.CharField(max_length=80, primary_key=True)
    since = models.DateTimeField()
    count = models.PositiveIntegerField(default=0)
