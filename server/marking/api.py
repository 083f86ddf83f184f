"""/api/classes, /api/sets, /api/workings: classes, what they were given, what students wrote, marks and patterns."""

from __future__ import annotations

from django.http import HttpRequest, HttpResponse
from django.utils.http import content_disposition_header
from ninja import Router, Status

from paper import PageSize
from server.accounts.allowance import spend
from server.common.schemas import Detail
from server.common.who import person_of
from server.marking import decisions, learned, overtime, paperwork, pile, queries, services, tables
from server.marking.feedback import feedback_out, feedback_pdf, for_tomorrow
from server.marking.schemas import (
    AnewIn,
    ClassChange,
    ClassIn,
    ClassOut,
    ClassPatterns,
    ClassRow,
    DecidedOut,
    DecideIn,
    FeedbackOut,
    HandOverIn,
    LearnedIn,
    LearnedOut,
    LogRow,
    OwnSchemeIn,
    OwnSchemeOut,
    PaperChange,
    PatternsOut,
    PileIn,
    PileOut,
    SchemeIn,
    SetChange,
    SetIn,
    SetOut,
    TomorrowOut,
    TypedIn,
    WorkingOut,
    WrittenOut,
)

router = Router()


def _as_csv(text: str, name: str) -> HttpResponse:
    answer = HttpResponse("\ufeff" + text, content_type="text/csv; charset=utf-8")
    name = f"{name}.csv".replace("/", "-")
    answer.headers["Content-Disposition"] = content_disposition_header(True, name) or "attachment"
    return answer


@router.get("/classes", response=list[ClassRow])
def classes(request: HttpRequest) -> list[ClassRow]:
    """The teacher's classes with what they were given."""
    return queries.classes_of(person_of(request))


@router.post("/classes", response={201: ClassOut, 400: Detail})
def make_class(request: HttpRequest, data: ClassIn) -> Status[ClassOut]:
    """A new class."""
    return Status(201, queries.class_out(services.make_class(person_of(request), data)))


@router.get("/classes/{int:class_id}", response={200: ClassOut, 404: Detail})
def read_class(request: HttpRequest, class_id: int) -> ClassOut:
    """A class with its students and sets."""
    return queries.class_out(queries.class_of(person_of(request), class_id))


@router.patch("/classes/{int:class_id}", response={200: ClassOut, 400: Detail, 404: Detail})
def change_class(request: HttpRequest, class_id: int, data: ClassChange) -> ClassOut:
    """Another name, archived or not, more students."""
    return queries.class_out(services.change_class(person_of(request), class_id, data))


@router.post("/classes/{int:class_id}/handed-over", response={204: None, 400: Detail, 404: Detail})
def hand_over(request: HttpRequest, class_id: int, data: HandOverIn) -> Status[None]:
    """Gives a class with its papers and marks to a colleague."""
    services.hand_over(person_of(request), class_id, data.username.strip())
    return Status(204, None)


@router.delete("/classes/{int:class_id}", response={204: None, 404: Detail})
def delete_class(request: HttpRequest, class_id: int) -> Status[None]:
    """Ends a class with all that belongs to it."""
    services.delete_class(person_of(request), class_id)
    return Status(204, None)


@router.post("/classes/{int:class_id}/sets", response={201: SetOut, 400: Detail, 404: Detail, 429: Detail})
def give(request: HttpRequest, class_id: int, data: SetIn) -> Status[SetOut]:
    """Gives a class a sheet."""
    spend(person_of(request))
    return Status(201, queries.set_out(services.give(person_of(request), class_id, data)))


@router.get("/sets/{int:set_id}", response={200: SetOut, 404: Detail})
def read_set(request: HttpRequest, set_id: int) -> SetOut:
    """The marking table of a set."""
    given_set = queries.set_of(person_of(request), set_id)
    paperwork.note_look(person_of(request), given_set, "looked at the marks")
    return queries.set_out(given_set)


@router.patch("/sets/{int:set_id}", response={200: SetOut, 400: Detail, 404: Detail})
def change_set(request: HttpRequest, set_id: int, data: SetChange) -> SetOut:
    """What a set counts by: late papers, grades, a first attempt."""
    return queries.set_out(paperwork.change_set(person_of(request), set_id, data))


@router.patch("/sets/{int:set_id}/papers/{int:student_id}", response={200: SetOut, 404: Detail})
def change_paper(request: HttpRequest, set_id: int, student_id: int, data: PaperChange) -> SetOut:
    """A student was absent, or a paper came late."""
    return queries.set_out(paperwork.change_paper(person_of(request), set_id, student_id, data))


@router.post("/sets/{int:set_id}/blanks", response={200: SetOut, 404: Detail})
def fill_blanks(request: HttpRequest, set_id: int) -> SetOut:
    """What is missing on papers that were handed in is blank."""
    return queries.set_out(paperwork.fill_blanks(person_of(request), set_id))


@router.get("/sets/{int:set_id}/log", response={200: list[LogRow], 404: Detail})
def log(request: HttpRequest, set_id: int) -> list[LogRow]:
    """Who looked at the marks of a set, and who changed them."""
    return paperwork.log_of(queries.set_of(person_of(request), set_id))


@router.get("/schemes", response=list[OwnSchemeOut])
def schemes(request: HttpRequest) -> list[OwnSchemeOut]:
    """The schemes that the teacher keeps."""
    return paperwork.schemes_of(person_of(request))


@router.put("/schemes", response={200: list[OwnSchemeOut], 400: Detail})
def keep_scheme(request: HttpRequest, data: OwnSchemeIn) -> list[OwnSchemeOut]:
    """Keeps a scheme under a name."""
    paperwork.keep_scheme(person_of(request), data)
    return paperwork.schemes_of(person_of(request))


@router.delete("/schemes/{int:scheme_id}", response={204: None, 404: Detail})
def forget_scheme(request: HttpRequest, scheme_id: int) -> Status[None]:
    """Takes a kept scheme away."""
    paperwork.forget_scheme(person_of(request), scheme_id)
    return Status(204, None)


@router.delete("/sets/{int:set_id}", response={204: None, 404: Detail})
def delete_set(request: HttpRequest, set_id: int) -> Status[None]:
    """Ends a set with its papers and marks."""
    services.delete_set(person_of(request), set_id)
    return Status(204, None)


@router.post("/sets/{int:set_id}/taken", response={200: PileOut, 400: Detail, 404: Detail})
def take_in(request: HttpRequest, set_id: int, data: PileIn) -> PileOut:
    """Takes in what students wrote, and begins to verify it."""
    return services.take_in(person_of(request), set_id, data)


@router.post("/sets/{int:set_id}/verified", response={202: None, 404: Detail})
def verify(request: HttpRequest, set_id: int) -> Status[None]:
    """Begins to verify what waits in a set."""
    pile.begin(queries.set_of(person_of(request), set_id))
    return Status(202, None)


@router.put("/sets/{int:set_id}/workings", response={200: WorkingOut, 404: Detail})
def put_typed(request: HttpRequest, set_id: int, data: TypedIn) -> WorkingOut:
    """The lines of one student for one item, verified at once."""
    return queries.working_out(services.put_typed(person_of(request), set_id, data))


@router.get("/workings/{int:working_id}", response={200: WorkingOut, 404: Detail})
def read_working(request: HttpRequest, working_id: int) -> WorkingOut:
    """A student's working, opened."""
    return queries.working_out(queries.working_of(person_of(request), working_id))


@router.post("/sets/{int:set_id}/decisions", response={200: DecidedOut, 400: Detail, 404: Detail})
def decide(request: HttpRequest, set_id: int, data: DecideIn) -> DecidedOut:
    """Confirms marks: those that are proposed, or another."""
    return _decided(request, set_id, decisions.decide(person_of(request), set_id, data))


@router.delete("/sets/{int:set_id}/decisions", response={200: DecidedOut, 400: Detail, 404: Detail})
def take_back(request: HttpRequest, set_id: int) -> DecidedOut:
    """Takes back what was decided last."""
    return _decided(request, set_id, decisions.take_back(person_of(request), set_id))


@router.post("/sets/{int:set_id}/decisions/again", response={200: DecidedOut, 400: Detail, 404: Detail})
def do_again(request: HttpRequest, set_id: int) -> DecidedOut:
    """Decides again what was taken back last."""
    return _decided(request, set_id, decisions.do_again(person_of(request), set_id))


@router.post("/sets/{int:set_id}/decisions/anew", response={200: DecidedOut, 400: Detail, 404: Detail})
def propose_anew(request: HttpRequest, set_id: int, data: AnewIn) -> DecidedOut:
    """Takes confirmed marks away, so that what is proposed stands in their place."""
    return _decided(request, set_id, decisions.propose_anew(person_of(request), set_id, data.workings))


def _decided(request: HttpRequest, set_id: int, marks: dict[int, float | None]) -> DecidedOut:
    return DecidedOut(marks=marks, totals=queries.totals_out(queries.set_of(person_of(request), set_id)))


@router.get("/items/{int:item_id}/written", response={200: list[WrittenOut], 404: Detail})
def written(request: HttpRequest, item_id: int) -> list[WrittenOut]:
    """What was written for an item so far, the commonest first."""
    return queries.written_for(queries.item_of(person_of(request), item_id))


@router.put("/items/{int:item_id}/scheme", response={200: SetOut, 400: Detail, 404: Detail})
def change_scheme(request: HttpRequest, item_id: int, data: SchemeIn) -> SetOut:
    """Another scheme for an item; proposals are made anew."""
    return queries.set_out(services.change_scheme(person_of(request), item_id, data))


@router.get("/sets/{int:set_id}/marks.csv", response={200: None, 404: Detail})
def marks(request: HttpRequest, set_id: int, semicolons: bool | None = None) -> HttpResponse:
    """The confirmed marks as a table; where nothing is said, with semicolons where decimals are written with commas."""
    given_set = queries.set_of(person_of(request), set_id)
    if semicolons is None:
        semicolons = queries.written_in(given_set.school_class).decimal == "comma"
    paperwork.note_look(person_of(request), given_set, "took the marks away")
    return _as_csv(
        queries.marks_csv(given_set, semicolons=semicolons), f"{given_set.school_class.name} {given_set.title}"
    )


@router.get("/sets/{int:set_id}/feedback.pdf", response={200: None, 400: Detail, 404: Detail, 429: Detail})
def feedback(request: HttpRequest, set_id: int, right: bool = False, paper: PageSize = "a4") -> HttpResponse:
    """A slip of paper for every student: what went well, the first place that does not hold, a cue, two problems to
    try."""
    spend(person_of(request))
    content = feedback_pdf(person_of(request), set_id, right=right, paper=paper)
    answer = HttpResponse(content, content_type="application/pdf")
    answer.headers["Content-Disposition"] = content_disposition_header(False, f"feedback-{set_id}.pdf") or "inline"
    return answer


@router.get("/sets/{int:set_id}/feedback", response={200: list[FeedbackOut], 400: Detail, 404: Detail, 429: Detail})
def feedback_slips(request: HttpRequest, set_id: int, right: bool = False) -> list[FeedbackOut]:
    """The same slips for the screen."""
    spend(person_of(request))
    return feedback_out(person_of(request), set_id, right=right)


@router.post("/sets/{int:set_id}/tomorrow", response={201: TomorrowOut, 400: Detail, 404: Detail, 429: Detail})
def tomorrow(request: HttpRequest, set_id: int, slip: str = "") -> Status[TomorrowOut]:
    """A sheet of five minutes against an error of a set, the commonest where none is named."""
    spend(person_of(request))
    return Status(201, TomorrowOut(sheet=for_tomorrow(person_of(request), set_id, slip).pk))


@router.get("/sets/{int:set_id}/patterns", response={200: PatternsOut, 404: Detail})
def patterns(request: HttpRequest, set_id: int) -> PatternsOut:
    """Slips and items of a set, each number with the workings behind it."""
    return queries.patterns_of(queries.set_of(person_of(request), set_id))


@router.get("/sets/{int:set_id}/patterns.csv", response={200: None, 404: Detail})
def patterns_table(request: HttpRequest, set_id: int) -> HttpResponse:
    """The patterns of a set as a table."""
    given_set = queries.set_of(person_of(request), set_id)
    return _as_csv(tables.patterns_csv(given_set), f"{given_set.school_class.name} {given_set.title} patterns")


@router.get("/classes/{int:class_id}/patterns.csv", response={200: None, 404: Detail})
def class_patterns_table(request: HttpRequest, class_id: int) -> HttpResponse:
    """A class over time as a table."""
    school_class = queries.class_of(person_of(request), class_id)
    return _as_csv(tables.over_time_csv(school_class), f"{school_class.name} over time")


@router.get("/classes/{int:class_id}/patterns", response={200: ClassPatterns, 404: Detail})
def class_patterns(request: HttpRequest, class_id: int) -> ClassPatterns:
    """Slips of a class over its sets: how often, of whom, what comes back, who shares which."""
    return overtime.patterns_of(queries.class_of(person_of(request), class_id))


@router.get("/learned", response=LearnedOut)
def read_learned(request: HttpRequest) -> LearnedOut:
    """How likely slips are in the teacher's own classes, against the table of judgement."""
    return learned.learned_out(person_of(request))


@router.put("/learned", response=LearnedOut)
def put_learned(request: HttpRequest, data: LearnedIn) -> LearnedOut:
    """Whether wrong answers are ordered by the own classes."""
    learned.switch(person_of(request), data.on)
    return learned.learned_out(person_of(request))
