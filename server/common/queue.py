"""What stands in the queue of jobs, and whether anybody works it out: for figures, health and the doctor."""

from __future__ import annotations

from dataclasses import dataclass

from django.db import connection

LIVES_SECONDS = 15
"""A worker that has given no sign for so long is taken for gone."""
LATE_SECONDS = 60
"""A job that has waited for so long without any worker is a fault."""


@dataclass(frozen=True, slots=True)
class QueueState:
    """Counts of jobs by their state, the workers that live, and for how many seconds the oldest job has waited."""

    waiting: int
    under_way: int
    failed: int
    workers: int
    oldest: float

    @property
    def trouble(self) -> str:
        """Why jobs are not worked out, and what to do; empty where all is well."""
        if self.workers or self.oldest < LATE_SECONDS:
            return ""
        return f"{self.waiting} jobs wait, and no worker takes them: ./uchuu worker begins one."


def queue_state() -> QueueState:
    """What stands in the queue now. Raises DatabaseError."""
    with connection.cursor() as cursor:
        cursor.execute(
            """
            SELECT count(*) FILTER (WHERE status = 'todo'), count(*) FILTER (WHERE status = 'doing'),
                   count(*) FILTER (WHERE status = 'failed'),
                   (SELECT count(*) FROM procrastinate_workers
                    WHERE last_heartbeat > now() - make_interval(secs => %s)),
                   coalesce(extract(epoch FROM now() - (
                       SELECT min(e.at) FROM procrastinate_events e JOIN procrastinate_jobs j ON j.id = e.job_id
                       WHERE j.status = 'todo' AND e.type = 'deferred')), 0)
            FROM procrastinate_jobs
            """,
            [LIVES_SECONDS],
        )
        waiting, under_way, failed, workers, oldest = cursor.fetchone()
    return QueueState(waiting, under_way, failed, workers, float(oldest))
