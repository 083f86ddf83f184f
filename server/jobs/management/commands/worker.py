"""`manage.py worker`: takes jobs from the queue until it is stopped."""

import asyncio
from argparse import ArgumentParser
from typing import Any

from django.core.management.base import BaseCommand
from procrastinate import App
from procrastinate.contrib.django import app
from procrastinate.contrib.django.django_connector import DjangoConnector

from server.jobs.tasks import HEARTBEAT, QUEUE, SILENT


class Command(BaseCommand):
    help = "Works out what waits in the queue; stops at SIGTERM once what is under way has been done."

    def add_arguments(self, parser: ArgumentParser) -> None:
        """How many jobs at once, and whether to end when nothing waits."""
        parser.add_argument("--at-once", type=int, default=2, help="how many jobs are worked out at the same time")
        parser.add_argument("--until-empty", action="store_true", help="ends when nothing waits any more")

    def handle(self, *args: Any, **options: Any) -> None:
        """Works until it is stopped."""
        connector = app.connector
        assert isinstance(connector, DjangoConnector)
        with app.replace_connector(connector.get_worker_connector()) as working:
            asyncio.run(_work(working, options["at_once"], wait=not options["until_empty"]))


async def _work(working: App, at_once: int, *, wait: bool) -> None:
    async with working.open_async():
        await working.run_worker_async(
            queues=[QUEUE],
            concurrency=at_once,
            wait=wait,
            delete_jobs="successful",
            update_heartbeat_interval=HEARTBEAT,
            stalled_worker_timeout=SILENT,
            fetch_job_polling_interval=2.0,
            shutdown_graceful_timeout=20,
        )
