"""Everything that is kept of a student: shown, and taken along."""

from __future__ import annotations

import base64
import json
from datetime import date
from typing import Any

from django.contrib.auth.models import User
from django.shortcuts import get_object_or_404

import lanes
from algebra import SLIPS
from paper import StudentData, StudentSet, StudentWork
from server.common.regional import InForce, day_on_paper, number
from server.marking.models import Looked, Paper, SchoolClass, Student, StudentWorking
from server.marking.paperwork import note_look
from server.marking.queries import written_in

_SLIPS = {slip.id: slip.name for slip in SLIPS}
_CAME = {
    "typed": "by key",
    "page": "from a page",
    "blank": "as a blank",
    "zip": "from a chain",
    "csv": "from a table",
    "jsonl": "from JSON lines",
}


def data_of(teacher: User, student_id: int) -> dict[str, Any]:
    """All data of a student of one of the teacher's classes; that it was taken is kept. Raises Http404."""
    student = get_object_or_404(
        Student.objects.select_related("school_class"), pk=student_id, school_class__owner=teacher
    )
    papers = Paper.objects.filter(student=student).select_related("given_set").order_by("given_set__day", "pk")
    for paper in papers:
        note_look(teacher, paper.given_set, "took a student's data")
    record = getattr(student, "record", None)
    return {
        "name": student.name,
        "number": student.number,
        "class": student.school_class.name,
        "in_the_records": record.sourced_id if record else "",
        "sets": [_set(paper) for paper in papers],
        "sent": [
            {
                "set": s.given_set.title,
                "state": s.state,
                "score": s.score,
                "of": s.of,
                "when": s.sent.isoformat() if s.sent else None,
                "reason": s.reason,
            }
            for s in student.sent.select_related("given_set")
        ],
        "practice": {
            "visits": [
                {
                    "set": v.room.given_set.title,
                    "last_heard": v.heard.isoformat(),
                    "nudge": v.nudge,
                    "extra_minutes": v.more_minutes,
                    "open_until": v.until.isoformat() if v.until else None,
                }
                for v in student.visits.select_related("room__given_set").order_by("pk")
            ],
            "has_a_secret": hasattr(student, "secret"),
            "answers": [
                {
                    "set": a.ask.room.given_set.title,
                    "asked": a.ask.asked.isoformat(),
                    "lines": a.ask.lines,
                    "answer": a.text,
                }
                for a in student.ask_answers.select_related("ask__room__given_set")
            ],
            "due": [
                {
                    "error": _SLIPS.get(d.slip, d.slip),
                    "made": d.made.isoformat(),
                    "due": d.due.isoformat(),
                    "solved_since": d.stage,
                    "rid": d.rid,
                }
                for d in student.due_slips.order_by("due", "slip")
            ],
            "problems": [
                {
                    "given": h.given,
                    "against": _SLIPS.get(h.slip, h.slip),
                    "lines": h.lines,
                    "given_on": h.given_on.isoformat(),
                    "done": h.done.isoformat() if h.done else None,
                }
                for h in student.home_problems.all()
            ],
        },
        "looked_at": [
            {"set": row.given_set.title, "who": row.who, "day": row.day.isoformat(), "what": row.what}
            for row in Looked.objects.filter(given_set__papers__student=student)
            .select_related("given_set")
            .order_by("day", "pk")
        ],
        "pages": [
            {
                "set": p.given_set.title,
                "taken_in": p.created.isoformat(),
                "reading": p.reading,
                "settled": p.settled,
                "picture": f"data:image/jpeg;base64,{base64.b64encode(bytes(p.picture)).decode()}",
            }
            for p in student.pages.select_related("given_set")
        ],
    }


def _set(paper: Paper) -> dict[str, Any]:
    workings = (
        StudentWorking.objects.filter(paper=paper)
        .select_related("item", "in_room")
        .prefetch_related("decisions", "versions")
        .order_by("item__position")
    )
    return {
        "set": paper.given_set.title,
        "day": paper.given_set.day.isoformat(),
        "absent": paper.absent,
        "late": paper.late,
        "conventions": paper.given_set.conventions,
        "workings": [
            {
                "item": w.item.position + 1,
                "given": w.item.given,
                "lines": w.lines,
                "source": w.source,
                "mark": w.mark,
                "confirmed_by": w.confirmed_by,
                "confirmed": w.confirmed.isoformat() if w.confirmed else None,
                "slips": w.slips,
                "proposal": w.proposal,
                "hints": w.in_room.hints if hasattr(w, "in_room") else 0,
                "versions": [
                    {
                        "lines": v.lines,
                        "source": v.source,
                        "mark": v.mark,
                        "confirmed_by": v.confirmed_by,
                        "changed_by": v.who,
                        "until": v.until.isoformat(),
                    }
                    for v in w.versions.all()
                ],
                "decisions": [
                    {
                        "who": d.who,
                        "when": d.when.isoformat(),
                        "before": d.before,
                        "after": d.after,
                        "taken_back": d.taken_back,
                    }
                    for d in w.decisions.all()
                ],
            }
            for w in workings
        ],
    }


def written_of(student_id: int) -> InForce:
    """How numbers and days are written in a student's class."""
    return written_in(SchoolClass.objects.select_related("owner__person").get(students=student_id))


def as_json(data: dict[str, Any]) -> bytes:
    """The data as JSON, whole."""
    return json.dumps(data, ensure_ascii=False, indent=1).encode()


def as_pdf(data: dict[str, Any], written: InForce) -> bytes:
    """The data on paper, numbers and days as they are `written` for the class. Raises TooHeavy."""
    told = [f"In the school's records: {data['in_the_records']}"] if data["in_the_records"] else []
    told += [
        f"{s['set']}: {_mark(s['score'], written, s['of'])} {s['state']} to "
        f"the records{', ' + _day(s['when'], written) if s['when'] else ''}."
        for s in data["sent"]
    ]
    told += [
        f"Practised at home, {_day(p['given_on'], written)}: {p['given']}; "
        f"written: {'; '.join(p['lines']) or 'nothing'}."
        for p in data["practice"]["problems"]
    ]
    told += [
        f"{d['error']}: {'rid of it' if d['rid'] else 'due again ' + _day(d['due'], written)}."
        for d in data["practice"]["due"]
    ]
    told += [
        f"In the room of {v['set']}, last on {_day(v['last_heard'], written)}"
        f"{', ' + str(v['extra_minutes']) + ' minutes more' if v['extra_minutes'] else ''}"
        f"{'; told: ' + v['nudge'] if v['nudge'] else ''}."
        for v in data["practice"]["visits"]
    ]
    told += [f"{_day(row['day'], written)}, {row['who']} {row['what']} of {row['set']}." for row in data["looked_at"]]
    pages = tuple((f"A page of {p['set']}", base64.b64decode(p["picture"].partition(",")[2])) for p in data["pages"])
    return lanes.student(
        StudentData(
            data["name"],
            data["number"],
            data["class"],
            tuple(told),
            tuple(_on_paper(each, written) for each in data["sets"]),
            pages,
        )
    )


def _on_paper(told: dict[str, Any], written: InForce) -> StudentSet:
    about = [words for words, holds in (("Absent.", told["absent"]), ("Handed in late.", told["late"])) if holds]
    return StudentSet(
        told["set"],
        _day(told["day"], written),
        str(told["conventions"].get("decimal", "point")),
        tuple(about),
        tuple(_working(each, written) for each in told["workings"]),
    )


def _working(told: dict[str, Any], written: InForce) -> StudentWork:
    decisions = [
        f"{_day(d['when'], written)}, {d['who']}: {_mark(d['before'], written)} became "
        f"{_mark(d['after'], written)}{', taken back' if d['taken_back'] else ''}."
        for d in told["decisions"]
    ]
    decisions += [
        f"Until {_day(v['until'], written)} it read: {'; '.join(v['lines']) or 'nothing'} "
        f"({_mark(v['mark'], written)})."
        for v in told["versions"]
    ]
    if told["hints"]:
        decisions.append(f"{told['hints']} {'hint' if told['hints'] == 1 else 'hints'} taken.")
    mark = _mark(told["mark"], written)
    slips = tuple(_SLIPS.get(slip, slip) for slip in told["slips"])
    return StudentWork(
        told["item"],
        told["given"],
        tuple(told["lines"]),
        _CAME.get(told["source"], "pasted"),
        mark,
        slips,
        tuple(decisions),
    )


def _day(told: str, written: InForce) -> str:
    """The day of a moment that is kept as text."""
    return day_on_paper(date.fromisoformat(told[:10]), written.dates)


def _mark(value: float | None, written: InForce, of: float | None = None) -> str:
    if value is None:
        return "no mark"
    own = number(value, written.decimal)
    return own if of is None else f"{own} of {number(of, written.decimal)}"
