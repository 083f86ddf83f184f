"""A ladder worked out among the jobs: each drawing is a piece, and what was drawn so far is a ladder already."""

from __future__ import annotations

from django.contrib.auth.models import User

import lanes
from algebra import Draw, ReadingError, Rung, TaskError, json_object, json_value
from server.building import services
from server.building.schemas import LadderIn, LadderRunOut
from server.common.codec import Codec
from server.common.problems import Refused
from server.jobs import services as jobs
from server.jobs.models import Run

KIND = "ladder"
_DRAW, _RUNGS = Codec(Draw), Codec(tuple[Rung, ...])


def begin(teacher: User, data: LadderIn) -> Run:
    """Begins to draw a ladder. Raises Refused for what there is not."""
    try:
        wanted = lanes.draws(services.wish_of(data))
    except (TaskError, ReadingError) as problem:
        raise Refused(problem.message, code="ladder") from problem
    about: dict[str, object] = {"count": data.count, "seed": data.seed, "events": list(data.events)}
    pieces: list[dict[str, object]] = [{**json_object(each)} for each in wanted]
    return jobs.begin(teacher, KIND, pieces, title="A ladder", about=about)


def work_piece(about: dict[str, object], asked: dict[str, object]) -> object:
    """One drawing, as JSON. Raises TaskError, ReadingError."""
    return json_value(tuple(lanes.drawn(_DRAW.back(asked))))


def made_from(about: dict[str, object], asked: dict[str, object]) -> object:
    """What is drawn depends on the drawing alone."""
    return asked


def run_out(run: Run) -> LadderRunOut:
    """How far it is, the ladder of what was drawn so far, and the events that no problem was found for."""
    progress = jobs.run_out(run)
    parts = [list(_RUNGS.back(piece.answer)) for piece in run.pieces.exclude(answer=None)]
    count, seed, events = run.about["count"], run.about["seed"], run.about["events"]
    found = lanes.joined(parts, count, seed)
    drawn = {rung.event for part in parts for rung in part}
    return LadderRunOut(
        **progress.model_dump(),
        rungs=[services.rung_out(rung) for rung in found],
        without=[event for event in events if event not in drawn] if progress.ended else [],
    )
