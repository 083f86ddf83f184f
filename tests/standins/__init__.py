"""A stand-in in the process of a test."""

import threading
from contextlib import contextmanager
from http.server import ThreadingHTTPServer


@contextmanager
def running(handler, **settings):
    """The address of a service on loopback for the time being; a class of its own, so that its faults and its memory
    are nobody else's."""
    own = type("Own", (handler,), settings)
    server = ThreadingHTTPServer(("127.0.0.1", 0), own)
    threading.Thread(target=server.serve_forever, daemon=True).start()
    try:
        yield f"http://127.0.0.1:{server.server_port}", own
    finally:
        server.shutdown()
        server.server_close()
