"""Marks to the school's records: what would change, what was sent, what was refused. Only marks that somebody confirmed
are sent."""

from __future__ import annotations

import csv
import io
import zipfile
from datetime import UTC, datetime
from typing import cast

from django.conf import settings
from django.contrib.auth.models import User
from django.db import transaction
from django.utils import timezone

from paper import safe_cell
from server.common.problems import Refused
from server.jobs import services as jobs
from server.marking.models import GivenSet
from server.marking.paperwork import note_look
from server.marking.queries import set_of
from server.marking.totals import Total, totals_of
from server.records.client import RecordsRefusal, RecordsTrouble, School
from server.records.models import ClassLink, SentMark, SetLink, StudentLink
from server.records.schemas import SendOut, SendRow

KIND = "records"


def score_of(total: Total) -> tuple[float | None, str]:
    """What is sent for a student, and as which status of OneRoster; None and an empty status where nothing can be."""
    if total.state == "absent":
        return None, "exempt"
    if total.state == "nothing":
        return None, ""
    return (total.counts, "fully graded") if total.state == "complete" else (None, "")


def send_out(given_set: GivenSet) -> SendOut:
    """What would be sent, student by student."""
    links = _links(given_set)
    sent = {each.student_id: each for each in SentMark.objects.filter(given_set=given_set)}
    totals = totals_of(given_set)
    rows = []
    for student in given_set.school_class.students.order_by("name", "pk"):
        total, before = totals[student.pk], sent.get(student.pk)
        score, status = score_of(total)
        rows.append(
            SendRow(
                student=student.pk,
                change=_change(total, score, status, before, linked=student.pk in links),
                score=score,
                sent=before.score if before and before.sent else None,
                state=before.state if before else "unsent",
                reason=before.reason if before else "",
                when=before.sent if before else None,
            )
        )
    linked = ClassLink.objects.filter(school_class=given_set.school_class).exists()
    of = next(iter(totals.values())).of if totals else 0.0
    return SendOut(there=bool(settings.RECORDS), linked=linked, of=of, rows=rows)


def _links(given_set: GivenSet) -> dict[int, str]:
    rows = StudentLink.objects.filter(student__school_class=given_set.school_class)
    return dict(rows.values_list("student_id", "sourced_id"))


def _change(total: Total, score: float | None, status: str, before: SentMark | None, *, linked: bool) -> str:
    if not status:
        return "nothing" if total.state == "nothing" else "open"
    if not linked:
        return "unlinked"
    if before is None or before.sent is None:
        return "new"
    return (
        "same"
        if (before.score, before.of, before.status) == (score, total.of, status) and before.state == "sent"
        else "changed"
    )


@transaction.atomic
def begin(teacher: User, set_id: int, students: list[int]) -> GivenSet:
    """Begins to send marks; what is the same already is sent again without harm. Raises Refused where something can't
    be sent."""
    given_set = set_of(teacher, set_id)
    GivenSet.objects.select_for_update().get(pk=set_id)
    if not settings.RECORDS:
        raise Refused("No school records are set up here.", code="records")
    rows = {row.student: row for row in send_out(given_set).rows}
    unfit = [
        student
        for student in students
        if student not in rows or rows[student].change in ("open", "nothing", "unlinked")
    ]
    if unfit:
        raise Refused(
            "Of some students nothing can be sent: marks that nobody confirmed, or nobody in the records.", code="unfit"
        )
    SetLink.objects.get_or_create(given_set=given_set)
    for student in students:
        SentMark.objects.update_or_create(
            given_set=given_set,
            student_id=student,
            defaults={"state": "waiting", "reason": "", "sent_by": teacher.username},
        )
    note_look(teacher, given_set, "sent marks")
    jobs.begin(None, KIND, ({"set": set_id, "student": student} for student in students))
    return given_set


def work_piece(about: dict[str, object], asked: dict[str, object]) -> object:
    """Sends the mark of one student; whether the records took it. What is refused says why; the same mark sent twice is
    one mark there."""
    where = {"given_set_id": cast(int, asked["set"]), "student_id": cast(int, asked["student"])}
    mark = (
        SentMark.objects.select_related("given_set__school_class", "given_set__again_of")
        .filter(**where, state="waiting")
        .first()
    )
    if mark is None:
        return False
    total = totals_of(mark.given_set)[mark.student_id]
    score, status = score_of(total)
    student = _links(mark.given_set).get(mark.student_id)
    try:
        if not status or student is None:
            raise RecordsRefusal("A mark was taken back meanwhile: nothing was sent.")
        _send(mark, total, score, status, student)
    except (RecordsTrouble, RecordsRefusal) as problem:
        SentMark.objects.filter(pk=mark.pk).update(state="refused", reason=str(problem)[:300])
        return False
    SentMark.objects.filter(pk=mark.pk).update(
        state="sent", reason="", score=score, of=total.of, status=status, sent=timezone.now()
    )
    return True


def _send(mark: SentMark, total: Total, score: float | None, status: str, student: str) -> None:
    given_set = mark.given_set
    own = str(SetLink.objects.get(given_set=given_set).sourced_id)
    there = School()
    there.put_line_item(
        own, _line_item(given_set, total.of, ClassLink.objects.get(school_class=given_set.school_class).sourced_id)
    )
    there.put_result(
        str(mark.sourced_id),
        {
            "status": "active",
            "dateLastModified": _moment(),
            "lineItem": {"sourcedId": own, "type": "lineItem"},
            "student": {"sourcedId": student, "type": "user"},
            "scoreStatus": status,
            "scoreDate": timezone.localdate().isoformat(),
            "late": "true" if total.late else "false",
            **({} if score is None else {"score": score}),
        },
    )


def _line_item(given_set: GivenSet, of: float, school_class: str) -> dict[str, object]:
    return {
        "status": "active",
        "dateLastModified": _moment(),
        "title": given_set.title,
        "assignDate": f"{given_set.day}T00:00:00Z",
        "dueDate": f"{given_set.day}T00:00:00Z",
        "class": {"sourcedId": school_class, "type": "class"},
        "resultValueMin": 0.0,
        "resultValueMax": of,
    }


def _moment() -> str:
    return datetime.now(UTC).strftime("%Y-%m-%dT%H:%M:%SZ")


RESULTS = (
    "sourcedId",
    "status",
    "dateLastModified",
    "lineItemSourcedId",
    "studentSourcedId",
    "scoreStatus",
    "score",
    "scoreDate",
    "comment",
    "textScore",
    "classSourcedId",
    "inProgress",
    "incomplete",
    "late",
    "missing",
)
LINE_ITEMS = (
    "sourcedId",
    "status",
    "dateLastModified",
    "title",
    "description",
    "assignDate",
    "dueDate",
    "classSourcedId",
    "categorySourcedId",
    "gradingPeriodSourcedId",
    "resultValueMin",
    "resultValueMax",
    "schoolSourcedId",
)
FILES = (
    "academicSessions",
    "categories",
    "classes",
    "classResources",
    "courses",
    "courseResources",
    "demographics",
    "enrollments",
    "lineItemLearningObjectiveIds",
    "lineItems",
    "lineItemScoreScales",
    "orgs",
    "resources",
    "resultLearningObjectiveIds",
    "results",
    "resultScoreScales",
    "roles",
    "scoreScales",
    "userProfiles",
    "userResources",
    "users",
)


def bundle(given_set: GivenSet) -> bytes:
    """The confirmed marks as a OneRoster 1.2 CSV bundle: manifest, line item, results; students by their ids in the
    records, else by their numbers."""
    own, _ = SetLink.objects.get_or_create(given_set=given_set)
    link = ClassLink.objects.filter(school_class=given_set.school_class).first()
    class_id = link.sourced_id if link else given_set.school_class.name
    links, totals = _links(given_set), totals_of(given_set)
    day, now = given_set.day.isoformat(), _moment()
    of = next(iter(totals.values())).of if totals else 0.0
    ids = {}
    results = []
    for student in given_set.school_class.students.order_by("name", "pk"):
        score, status = score_of(totals[student.pk])
        if not status:
            continue
        ids[student.pk], _ = SentMark.objects.get_or_create(given_set=given_set, student=student)
        results.append(
            (
                ids[student.pk].sourced_id,
                "active",
                now,
                own.sourced_id,
                links.get(student.pk) or safe_cell(student.number or student.name),
                status,
                "" if score is None else f"{score:g}",
                day,
                "",
                "",
                class_id,
                "false",
                "false",
                str(totals[student.pk].late).lower(),
                "false",
            )
        )
    items = [
        (
            own.sourced_id,
            "active",
            now,
            safe_cell(given_set.title),
            "",
            f"{day}T00:00:00Z",
            f"{day}T00:00:00Z",
            class_id,
            "",
            "",
            "0",
            f"{of:g}",
            "",
        )
    ]
    manifest = [
        ("manifest.version", "1.0"),
        ("oneroster.version", "1.2"),
        *((f"file.{name}", "bulk" if name in ("lineItems", "results") else "absent") for name in FILES),
        ("source.systemName", "Uchuu"),
        ("source.systemCode", "uchuu"),
    ]
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as archive:
        for name, head, rows in (
            ("manifest", ("propertyName", "value"), manifest),
            ("lineItems", LINE_ITEMS, items),
            ("results", RESULTS, results),
        ):
            text = io.StringIO()
            table = csv.writer(text, lineterminator="\r\n")
            table.writerow(head)
            table.writerows(rows)
            archive.writestr(f"{name}.csv", text.getvalue())
    return out.getvalue()
