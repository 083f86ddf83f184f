"""How the application server runs: two workers on the address it is given, each within its bounds and renewed now and then."""

from __future__ import annotations

from tools.bounds import bound_memory

workers = 2
threads = 32
graceful_timeout = 5
loglevel = "warning"
control_socket_disable = True
max_requests = 20_000
max_requests_jitter = 2_000


def post_fork(server: object, worker: object) -> None:
    """Called in every new worker."""
    bound_memory()
