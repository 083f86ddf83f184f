"""Working one piece of a run out, once in effect, whoever does it."""

from __future__ import annotations

import logging
from collections.abc import Callable
from dataclasses import dataclass
from datetime import timedelta

from django.db import transaction
from django.utils import timezone

import lanes
from algebra import ReadingError, TaskError
from server.jobs import kept
from server.jobs.models import Piece, Run

log = logging.getLogger("uchuu.jobs")
MOST_TRIES = 4
"""After so many tries, ends of a worker among them, a piece is given up and says so."""
KEPT = timedelta(days=14)
"""How long the answers of an ended run are kept."""
GIVEN_UP = "This could not be worked out: it was begun several times and never came to an end."

Work = Callable[[dict[str, object], dict[str, object]], object]
"""Works a piece out of what its run shares and what it asks; raises TaskError or ReadingError with a sentence where it
can't be."""


@dataclass(frozen=True, slots=True)
class Kind:
    """A kind of run: how a piece of it is worked out. `made_from` is what its answer depends on, where that may be
    kept for whoever asks the same again."""

    name: str
    work: Work
    made_from: Work | None = None


_KINDS: dict[str, Kind] = {}


def register(kind: Kind) -> None:
    """Makes a kind of run known; called once, when the app that it belongs to is ready."""
    _KINDS[kind.name] = kind


def kept_name(kind: str, about: dict[str, object], asked: dict[str, object]) -> str | None:
    """Under which name the answer to a piece is kept; None for a kind whose answers are not."""
    depends = _KINDS[kind].made_from if kind in _KINDS else None
    return None if depends is None else kept.made_from(kind, depends(about, asked))


def work(piece_id: int, tries: int) -> None:
    """Works a piece out unless that has been done; whoever is first has done it, another's answer is dropped.

    What can't be worked out says why. Anything unforeseen is raised, so that it is tried again, up to `MOST_TRIES`.
    """
    piece = Piece.objects.select_related("run").filter(pk=piece_id, ended=None).first()
    if piece is None:
        return  # done by another worker, or its run was removed
    answer, trouble = None, ""
    if tries >= MOST_TRIES:
        trouble = GIVEN_UP
    else:
        try:
            answer = _answer(piece)
        except lanes.Busy:
            raise  # tried again in a moment
        except (TaskError, ReadingError) as problem:
            trouble = problem.message[:300]
        except Exception:
            if tries + 1 < MOST_TRIES:
                raise
            log.exception("piece given up", extra={"piece": piece_id})
            trouble = GIVEN_UP
    now = timezone.now()
    with transaction.atomic():
        # the run is locked, so that of the last two pieces one sees that the other is done
        run = Run.objects.select_for_update().filter(pk=piece.run_id).first()
        if run is None:
            return
        Piece.objects.filter(pk=piece_id, ended=None).update(answer=answer, trouble=trouble, ended=now)
        if run.ended is None and not Piece.objects.filter(run=run, ended=None).exists():
            run.ended = now
            run.save(update_fields=["ended"])


def _answer(piece: Piece) -> object:
    name = kept_name(piece.run.kind, piece.run.about, piece.asked)
    if name is not None and (found := kept.known([name])):
        return found[name]
    answer = _KINDS[piece.run.kind].work(piece.run.about, piece.asked)
    if name is not None:
        kept.keep(name, answer)
    return answer


def forget_old() -> int:
    """Removes people's runs that ended long ago; how many rows that were."""
    return Run.objects.filter(owner__isnull=False, ended__lt=timezone.now() - KEPT).delete()[0]
