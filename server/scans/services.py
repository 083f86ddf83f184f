"""Taking pages in, having them read, settling what is doubtful, and from there into the workings of the set."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable
from typing import cast

from django.contrib.auth.models import User
from django.db import transaction
from django.shortcuts import get_object_or_404

import lanes
from algebra import TaskError
from paper import look_alike
from server.common.problems import Refused
from server.jobs import services as jobs
from server.jobs.models import Piece
from server.marking import intake, pile
from server.marking.models import GivenSet, StudentWorking
from server.marking.queries import as_written, set_of
from server.marking.totals import students_of
from server.marking.workings import put_lines
from server.scans import placing, reader
from server.scans.models import StudentPage
from server.scans.queries import page_of, placed_of, reading_of
from server.scans.schemas import PagesTaken, SettleIn

KIND = "pages"
MOST_BYTES = 25 * 2**20
MOST_OF_A_SET = 400
FEWEST_LINES, SAME_LINES = 3, 0.8
"""From so many lines on a page is known again by them, where this share of them stands on another of the student."""
HALF = "Only the upper part of this page was read. Read it again, or type the rest."
STRANGER = "The code in the footer is not that of this sheet: look whether the numbers of the items agree."


def take_pages(teacher: User, set_id: int, content: bytes) -> PagesTaken:
    """Takes pages in and begins to have them read; a page that is there already is not taken twice. Raises Refused for
    what is no page."""
    given_set = set_of(teacher, set_id)
    if len(content) > MOST_BYTES:
        raise Refused(f"A file of pages has at most {MOST_BYTES // 2**20} MB.", code="page")
    try:
        found = lanes.scanned(content)
    except TaskError as problem:
        raise Refused(problem.message, code="page") from problem
    with transaction.atomic():
        GivenSet.objects.select_for_update().get(pk=set_id)
        known = set(given_set.pages.values_list("digest", flat=True))
        new = [page for page in found if page.digest not in known]
        looks = list(given_set.pages.order_by("pk").values_list("pk", "look"))
        if len(known) + len(new) > MOST_OF_A_SET:
            raise Refused(f"A set has at most {MOST_OF_A_SET} pages.", code="many")
        made = StudentPage.objects.bulk_create(
            StudentPage(
                given_set=given_set,
                original=p.original,
                media=p.media,
                picture=p.picture,
                width=p.width,
                height=p.height,
                digest=p.digest,
                look=p.look,
                again_of_id=next((pk for pk, look in looks if look_alike(look, p.look)), None),
            )
            for p in new
        )
        _begin(page.pk for page in made)
    return PagesTaken(new=len(new), same=len(found) - len(new))


def _begin(pages: Iterable[int]) -> None:
    pieces: list[dict[str, object]] = [{"page": pk} for pk in pages]
    if pieces:
        jobs.begin(None, KIND, pieces)


def work_piece(about: dict[str, object], asked: dict[str, object]) -> object:
    """Has a page read, and takes in what is beyond doubt; whether it was read."""
    page = StudentPage.objects.filter(pk=cast(int, asked["page"]), state="waiting").first()
    if page is None:
        return False
    try:
        reading = reader.read(bytes(page.original), page.media)
    except reader.ReaderTrouble as problem:
        StudentPage.objects.filter(pk=page.pk, state="waiting").update(state="failed", trouble=str(problem)[:300])
        return False
    with transaction.atomic():
        page = StudentPage.objects.select_for_update().filter(pk=page.pk, state="waiting").first()
        if page is None:
            return False
        put_down(page, reading)
    return True


def put_down(page: StudentPage, reading: reader.PageReading) -> None:
    """Keeps what was read on a page, of which set it is, by its code, and whose, by its name; and takes in what is
    beyond doubt."""
    page.reading, page.state = reading.model_dump(), "read"
    page.trouble = HALF if reading.read_to < 1 else ""
    code = reading.code.removeprefix("uchuu:").partition(":")[0]
    if code and code not in page.given_set.codes:
        own = GivenSet.objects.filter(school_class__owner=page.given_set.school_class.owner, codes__contains=code)
        of = own.exclude(pages__digest=page.digest).order_by("-day").first()
        if of is not None:
            page.given_set = of
        else:
            page.trouble = page.trouble or STRANGER
    if page.student is None:
        students = as_written(students_of(page.given_set))
        page.student = students.get(intake.by_name(students).whose(placing.name_on(reading)) or "")
    if page.again_of is None and not page.is_other:
        page.again_of = _with_the_same_lines(page)
    page.save()
    _place(page)


def _with_the_same_lines(page: StudentPage) -> StudentPage | None:
    """A page of the same student on which nearly the same lines were read: a photograph from another place."""
    own = _lines_on(page)
    if page.student is None or len(own) < FEWEST_LINES:
        return None
    others = StudentPage.objects.filter(given_set=page.given_set, student=page.student, state="read", again_of=None)
    for other in others.exclude(pk=page.pk).order_by("pk"):
        shared = (own & _lines_on(other)).total()
        if shared >= SAME_LINES * max(own.total(), 1):
            return other
    return None


def _lines_on(page: StudentPage) -> Counter[str]:
    reading = reading_of(page)
    told = ("".join("".join(s.text for s in row.symbols).split()) for row in reading.lines) if reading else ()
    return Counter(filter(None, told))


@transaction.atomic
def is_other(teacher: User, page_id: int) -> StudentPage:
    """A page is not the one that it looks like: it is taken in as any other."""
    page = _locked(teacher, page_id)
    page.again_of, page.is_other = None, True
    page.save(update_fields=["again_of", "is_other"])
    _place(page)
    return page


def _place(page: StudentPage) -> None:
    """Puts what is settled of a student's pages into the workings of the set. What was typed for an item stands; of a
    page that seems to be there already nothing is taken."""
    if page.student is None or page.again_of_id is not None:
        return
    given_set, teacher = page.given_set, page.given_set.school_class.owner
    items = list(given_set.items.select_related("given_set").order_by("position"))
    pages = StudentPage.objects.filter(given_set=given_set, student=page.student, state="read", again_of=None)
    pages = pages.order_by("pk")
    own = StudentWorking.objects.filter(paper__given_set=given_set, paper__student=page.student)
    typed = set(own.exclude(source="page").values_list("item_id", flat=True))
    for number, lines in placing.workings_of([placed_of(each, len(items)) for each in pages]).items():
        item = items[number - 1]
        if lines is not None and item.pk not in typed:
            put_lines(
                teacher.username, given_set, page.student, item, list(intake.without_given(lines, item.given)), "page"
            )
    pile.begin(given_set)


def _locked(teacher: User, page_id: int) -> StudentPage:
    page_of(teacher, page_id)
    return get_object_or_404(StudentPage.objects.select_for_update(), pk=page_id)


@transaction.atomic
def settle(teacher: User, page_id: int, data: SettleIn) -> StudentPage:
    """What stands for a row of a page. Raises Refused for a row that there is not."""
    page = _locked(teacher, page_id)
    reading = reading_of(page)
    if reading is None or data.at >= len(reading.lines) or reading.lines[data.at].about != "line":
        raise Refused("The page has no such line.", code="line")
    if data.texts is None:
        page.settled.pop(str(data.at), None)
    else:
        page.settled[str(data.at)] = [text.strip() for text in data.texts if text.strip()]
    page.save(update_fields=["settled"])
    _place(page)
    return page


@transaction.atomic
def give_to(teacher: User, page_id: int, student_id: int | None) -> StudentPage:
    """Says whose page it is. What had been taken in from it for somebody else is taken away again, with its marks.
    Raises Refused for nobody of the class."""
    page = _locked(teacher, page_id)
    student = None
    if student_id is not None:
        student = students_of(page.given_set).filter(pk=student_id).first()
        if student is None:
            raise Refused("No student of the class is this one.", code="student")
    if page.student_id != student_id:
        _take_away(page)
        page.student = student
        page.save(update_fields=["student"])
        _place(page)
    return page


def _take_away(page: StudentPage) -> None:
    """The workings that came from a page go with it; other pages of the student are put anew. Of a page that was never
    taken in nothing goes."""
    former = page.student
    if former is None or page.again_of_id is not None:
        return
    StudentWorking.objects.filter(paper__given_set=page.given_set, paper__student=former, source="page").delete()
    other = (
        StudentPage.objects.filter(given_set=page.given_set, student=former, state="read", again_of=None)
        .exclude(pk=page.pk)
        .first()
    )
    page.student = None
    page.save(update_fields=["student"])
    if other is not None:
        _place(other)


@transaction.atomic
def read_again(teacher: User, page_id: int) -> StudentPage:
    """Has a page read once more; what was settled falls with the reading it was settled on."""
    page = _locked(teacher, page_id)
    if page.state == "waiting" and Piece.objects.filter(run__kind=KIND, ended=None, asked__page=page.pk).exists():
        return page
    page.state, page.trouble, page.settled, page.reading = "waiting", "", {}, None
    page.save()
    _begin([page.pk])
    return page


@transaction.atomic
def remove(teacher: User, page_id: int) -> None:
    """Takes a page away with what was taken in from it."""
    page = _locked(teacher, page_id)
    _take_away(page)
    page.delete()
