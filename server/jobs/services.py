"""Beginning a run, how far it is, and taking it away."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass

from django.contrib.auth.models import User
from django.db import transaction
from django.db.models import Count, Q
from django.http import Http404
from django.shortcuts import get_object_or_404
from django.utils import timezone

from server.common.problems import Refused
from server.jobs import kept
from server.jobs.models import Piece, Run
from server.jobs.pieces import kept_name
from server.jobs.schemas import RunOut
from server.jobs.tasks import defer

MOST_RUNS = 5
"""How many runs of one person may be under way at once."""


@dataclass(frozen=True, slots=True)
class Progress:
    """How many pieces a run has, how many are done, and how many of these came to nothing."""

    total: int
    done: int
    failed: int


@transaction.atomic
def begin(
    owner: User | None,
    kind: str,
    pieces: Iterable[dict[str, object]],
    *,
    title: str = "",
    about: dict[str, object] | None = None,
) -> Run:
    """A new run; its pieces wait for workers once the transaction is through. Raises Refused where too many are under
    way."""
    if owner is not None:
        User.objects.select_for_update().get(pk=owner.pk)
        if Run.objects.filter(owner=owner, ended=None).count() >= MOST_RUNS:
            raise Refused(
                "Several of these are being worked out for you already. Wait for one to end, or remove one.",
                code="busy",
            )
    run = Run.objects.create(owner=owner, kind=kind, title=title, about=about or {})
    waiting = [Piece(run=run, position=k, asked=asked) for k, asked in enumerate(pieces)]
    _answer_what_is_kept(run, waiting)
    made = Piece.objects.bulk_create(waiting)
    to_do = [piece.pk for piece in made if piece.ended is None]
    if to_do:
        defer(to_do)
    else:
        Run.objects.filter(pk=run.pk).update(ended=timezone.now())
        run.refresh_from_db()
    return run


def _answer_what_is_kept(run: Run, pieces: list[Piece]) -> None:
    """Ends the pieces to which the answer is kept already."""
    named = [(kept_name(run.kind, run.about, piece.asked), piece) for piece in pieces]
    found = kept.known({name for name, _ in named if name is not None})
    for name, piece in named:
        if name in found:
            piece.answer, piece.ended = found[name], timezone.now()


def own_run(owner: User, run_id: int, kind: str | None = None) -> Run:
    """A person's run, of one kind where that is named. Raises Http404."""
    run = get_object_or_404(Run, owner=owner, pk=run_id)
    if kind is not None and run.kind != kind:
        raise Http404
    return run


def progress_of(run: Run) -> Progress:
    """How far it is."""
    done, failed = Q(ended__isnull=False), ~Q(trouble="")
    found = run.pieces.aggregate(total=Count("pk"), done=Count("pk", filter=done), failed=Count("pk", filter=failed))
    return Progress(**found)


def run_out(run: Run) -> RunOut:
    """How far a run is, as it is told."""
    progress = progress_of(run)
    trouble = run.pieces.exclude(trouble="").values_list("trouble", flat=True)
    return RunOut(
        id=run.pk,
        kind=run.kind,
        title=run.title,
        total=progress.total,
        done=progress.done,
        ended=run.ended is not None,
        trouble=list(dict.fromkeys(trouble)),
    )


def under_way(owner: User) -> list[RunOut]:
    """A person's runs that have not ended, the last first."""
    return [run_out(run) for run in Run.objects.filter(owner=owner, ended=None)]


def remove(owner: User, run_id: int) -> None:
    """Takes a run away with all that came of it; what is under way ends without effect. Raises Http404."""
    own_run(owner, run_id).delete()
