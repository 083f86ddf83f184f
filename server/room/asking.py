"""The room on the board: which line breaks, how it goes on, and what has just been written. The answers have no
names."""

from __future__ import annotations

from collections import Counter
from datetime import timedelta

from django.contrib.auth.models import User
from django.db import transaction
from django.shortcuts import get_object_or_404
from django.utils import timezone

import lanes
from algebra import understood, words_in_latex
from server.common.problems import Refused
from server.marking import pile
from server.marking.forms import is_answered
from server.marking.models import SetItem, StudentWorking
from server.room.coming_in import Inside, is_over
from server.room.models import Ask, AskAnswer, Room
from server.room.schemas import AnswerIn, AnswerOut, AskIn, AskOut, MyAsk, ProblemRoom, WrittenInRoom
from server.room.services import room_of
from server.sheets.queries import problem_of as sheet_problem

MOST_SHOWN = 30
HERE = timedelta(hours=3)
"""Who came in within this time counts as here."""


def _latex(text: str, item: SetItem) -> str:
    found = understood(text, decimal=str(item.given_set.conventions.get("decimal", "point")))
    return words_in_latex(text) if found.error else found.latex


@transaction.atomic
def ask(teacher: User, set_id: int, data: AskIn) -> None:
    """Asks the room, in place of what it was asked before. Raises Refused for a working without lines, Http404."""
    room = room_of(teacher, set_id)
    items = SetItem.objects.filter(given_set=set_id)
    right: int | None = None
    if data.working is not None:
        found = StudentWorking.objects.select_related("item__given_set")
        working = get_object_or_404(found, pk=data.working, item__given_set=set_id)
        item, lines = working.item, working.texts
        report = pile.report_of(working) if pile.is_fresh(working) else None
        relations = [link.relation for link in report.links] if report else [None]
        right = next((k for k, each in enumerate(relations, start=1) if each in ("breaks", "narrows")), 0)
        undecided = not right and any(each in (None, "unclear") for each in relations)
    else:
        item, lines, undecided = get_object_or_404(items, pk=data.item), list(data.lines), False
    if is_answered(item):
        raise Refused("This item is answered, not worked line by line.", code="ask")
    if data.kind == "vote":
        if data.working is None or not lines:
            raise Refused("Only of a working with lines it can be asked which one breaks.", code="ask")
        if undecided:
            raise Refused("One of these lines is not decided: nobody could say that none breaks.", code="ask")
    else:
        lines = lines[: right - 1] if right else lines
        right = None
    Ask.objects.filter(room=room).delete()
    Ask.objects.create(room=room, kind=data.kind, item=item, lines=lines, right=right)
    room.touch()


def stop_asking(teacher: User, set_id: int) -> None:
    """Asks nothing any more."""
    room = room_of(teacher, set_id)
    Ask.objects.filter(room=room).delete()
    room.touch()


def asked(teacher: User, set_id: int) -> AskOut | None:
    """What the room is asked, with its answers counted; lines that are equal up to blanks are one."""
    room = room_of(teacher, set_id)
    found = Ask.objects.select_related("item__given_set").filter(room=room).first()
    if found is None:
        return None
    counts: Counter[str] = Counter()
    first: dict[str, AskAnswer] = {}
    for answer in found.answers.order_by("pk"):
        key = "".join(answer.text.split())
        counts[key] += 1
        first.setdefault(key, answer)
    answers = [
        AnswerOut(
            text=first[key].text, latex=_latex(first[key].text, found.item), count=count, relation=first[key].relation
        )
        for key, count in counts.most_common(MOST_SHOWN)
    ]
    return AskOut(
        id=found.pk,
        kind=found.kind_name,
        given_latex=_latex(found.item.given, found.item),
        lines=[_latex(line, found.item) for line in found.lines],
        right=found.right,
        answered=sum(counts.values()),
        here=room.visits.filter(heard__gt=timezone.now() - HERE).count(),
        answers=answers,
    )


def my_ask(me: Inside) -> MyAsk | None:
    """What the class is asked, as one student sees it: not which line breaks, and no answer of another."""
    if me.ask is None:
        return None
    found = Ask.objects.select_related("item__given_set").filter(pk=me.ask).first()
    if found is None:
        return None
    own = found.answers.filter(student=me.student).first()
    return MyAsk(
        id=found.pk,
        kind=found.kind_name,
        given_latex=_latex(found.item.given, found.item),
        lines=[_latex(line, found.item) for line in found.lines],
        answer=own.text if own else "",
    )


def answer(me: Inside, data: AnswerIn) -> None:
    """Keeps the answer of a student, in place of an earlier one. Raises Refused where that is not asked any more, or
    for what is no line of it."""
    found = Ask.objects.select_related("item__given_set").filter(pk=me.ask).first() if me.ask == data.ask else None
    if found is None:
        raise Refused("This is not asked any more.", code="over")
    relation = ""
    if found.kind == "vote":
        if not data.text.isdecimal() or int(data.text) > len(found.lines):
            raise Refused(f"The number of a line, from 1 to {len(found.lines)}, or 0 for none.", code="answer")
        relation = "holds" if int(data.text) == found.right else "breaks"
    else:
        try:
            report = lanes.check(pile.problem_of(found.item, [*found.lines, data.text]))
            relation = report.links[-1].relation or "" if len(report.links) > len(found.lines) else ""
        except lanes.Busy:
            pass  # it is shown without a verdict
    AskAnswer.objects.update_or_create(
        ask=found, student_id=me.student, defaults={"text": data.text, "relation": relation}
    )


def room_for(teacher: User, problem_id: int) -> ProblemRoom:
    """Where a class of the teacher works a problem of a sheet just now, and what it has written. Raises Http404."""
    problem = sheet_problem(teacher, problem_id)
    rooms = Room.objects.filter(given_set__school_class__owner=teacher, ended=False)
    for room in rooms.order_by("-opened"):
        item = SetItem.objects.filter(
            given_set=room.given_set_id, task=problem.task, given=problem.given, made__isnull=True
        ).first()
        if item is None or is_over(room):
            continue
        rows = StudentWorking.objects.filter(item=item).exclude(lines=[]).order_by("-in_room__changed", "-pk")
        counts: dict[tuple[str, ...], WrittenInRoom] = {}
        for lines, links in rows.values_list("lines", "report__links"):
            broken = next((link["line"] for link in links or [] if link["relation"] in ("breaks", "narrows")), 0)
            known = counts.setdefault(tuple(lines), WrittenInRoom(lines=lines, count=0, broken=broken))
            known.count += 1
        return ProblemRoom(given_set=room.given_set_id, item=item.pk, written=list(counts.values())[:MOST_SHOWN])
    return ProblemRoom(given_set=0, item=0, written=[])
