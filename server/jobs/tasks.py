"""The jobs that workers take from the queue in PostgreSQL."""

from __future__ import annotations

from collections.abc import Sequence

from django.db import close_old_connections
from procrastinate import JobContext, RetryStrategy
from procrastinate.contrib.django import app
from procrastinate.types import JSONValue

from server.jobs import kept, pieces

QUEUE = "uchuu"
MOST_RETRIES = 100
"""A piece gives itself up much sooner (`pieces.MOST_TRIES`) and says so; a job that ended before it could would leave
its run open."""
HEARTBEAT, SILENT = 3.0, 12.0
"""A worker tells that it lives every `HEARTBEAT` seconds; one that has been `SILENT` so long is gone, and its jobs are
given to others."""


@app.task(
    name="uchuu.piece",
    queue=QUEUE,
    pass_context=True,
    retry=RetryStrategy(max_attempts=MOST_RETRIES, linear_wait=1),
)
def piece(context: JobContext, piece_id: int) -> None:
    """Works one piece out."""
    close_old_connections()
    try:
        pieces.work(piece_id, context.job.attempts)
    finally:
        close_old_connections()


@app.periodic(cron="*/5 * * * * *")
@app.task(name="uchuu.pick-up", queue=QUEUE, queueing_lock="uchuu.pick-up", priority=10)
async def pick_up(timestamp: int) -> None:
    """Gives the jobs of workers that are gone to others."""
    for job in await app.job_manager.get_stalled_jobs(queue=QUEUE, seconds_since_heartbeat=SILENT):
        await app.job_manager.retry_job(job)


@app.periodic(cron="17 3 * * *")
@app.task(name="uchuu.forget", queue=QUEUE, queueing_lock="uchuu.forget")
def forget(timestamp: int) -> None:
    """Removes what ended long ago."""
    close_old_connections()
    pieces.forget_old()
    kept.forget_unused()


def defer(waiting: Sequence[int]) -> None:
    """Puts pieces into the queue; they are there once the transaction is through."""
    asked: list[dict[str, JSONValue]] = [{"piece_id": each} for each in waiting]
    piece.batch_defer(*asked)
