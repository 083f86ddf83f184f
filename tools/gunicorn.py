"""How the application server runs: two workers on the address it is given, each within its bounds and renewed now and
then."""

from __future__ import annotations

import gc
import sys
from typing import Any

from lanes.settings import PROCESSES
from server.common.metrics import process_ended
from tools.bounds import bound_memory

workers = PROCESSES
threads = 32
graceful_timeout = 5
loglevel = "warning"
control_socket_disable = True
max_requests = 20_000
max_requests_jitter = 2_000


def post_fork(server: object, worker: object) -> None:
    """Called in every new worker. Its threads wait for the database again and again; each of these waits ends behind
    those who compute, so these give way sooner than by default (5 ms)."""
    bound_memory()
    sys.setswitchinterval(0.0005)


def post_worker_init(worker: object) -> None:
    """Called when a worker has read the application: what stands then stays, and need not be looked over again for what
    has become free."""
    gc.collect()
    gc.freeze()


def child_exit(server: object, worker: Any) -> None:
    """Called in the master when a worker has ended: its figures stay, what counts the living ones goes."""
    process_ended(worker.pid)
