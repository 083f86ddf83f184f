"""What the stand-ins share: a server of one process on loopback, and the faults that one can ask of it."""

from __future__ import annotations

import argparse
import json
import random
import signal
import sys
import time
from collections.abc import Callable
from contextlib import suppress
from dataclasses import dataclass, field
from http.server import BaseHTTPRequestHandler, ThreadingHTTPServer

FAULTS = ("slow", "refusing", "half", "garbage", "silent")
"""`slow` waits, `refusing` answers 503 with Retry-After, `half` ends in the middle of the answer, `garbage` answers
what is no JSON, `silent` closes the connection without a word."""
SLOW_SECONDS = 4.0
LONGEST = 32 * 2**20


@dataclass
class Faults:
    """How unreliable a stand-in is: which share of the questions meets which fault. Drawn from a seed, so that a run
    can be repeated."""

    shares: dict[str, float] = field(default_factory=dict)
    draw: random.Random = field(default_factory=lambda: random.Random(1))

    def next(self) -> str:
        """The fault that the next question meets; empty for none."""
        chance = self.draw.random()
        for fault, share in self.shares.items():
            if chance < share:
                return fault
            chance -= share
        return ""


def faults_of(told: str, seed: int = 1) -> Faults:
    """Faults as they are written: `slow=0.2,half=0.1`. Raises ValueError."""
    shares = {}
    for part in filter(None, told.split(",")):
        name, _, share = part.partition("=")
        if name not in FAULTS or not 0 <= float(share or 1) <= 1:
            raise ValueError(f"A fault is one of {', '.join(FAULTS)}, with a share from 0 to 1.")
        shares[name] = float(share or 1)
    return Faults(shares, random.Random(seed))


class Answering(BaseHTTPRequestHandler):
    """Answers in JSON, with the faults that were asked for."""

    faults = Faults()
    protocol_version = "HTTP/1.1"

    def body(self) -> bytes:
        """What was sent; at most `LONGEST` bytes."""
        return self.rfile.read(min(int(self.headers.get("Content-Length") or 0), LONGEST))

    def spoiled(self) -> bool:
        """Whether a fault has answered already."""
        match self.faults.next():
            case "slow":
                time.sleep(SLOW_SECONDS)
            case "refusing":
                self.say(503, {"error": "Too busy. Try again."}, {"Retry-After": "1"})
                return True
            case "half":
                self.send_response(200)
                self.send_header("Content-Type", "application/json")
                self.send_header("Content-Length", "4000")
                self.end_headers()
                self.wfile.write(b'{"protocol": 1, "lines": [')
                self.close_connection = True
                return True
            case "garbage":
                self._send(200, b"<html>?</html>", {})
                return True
            case "silent":
                self.close_connection = True
                return True
        return False

    def say(self, status: int, answer: object, headers: dict[str, str] | None = None) -> None:
        """Answers with an object."""
        self._send(status, json.dumps(answer, ensure_ascii=False).encode(), headers or {})

    def _send(self, status: int, content: bytes, headers: dict[str, str]) -> None:
        self.send_response(status)
        for name, value in (
            {"Content-Type": "application/json", "Content-Length": str(len(content))} | headers
        ).items():
            self.send_header(name, value)
        self.end_headers()
        self.wfile.write(content)

    def log_message(self, *_: object) -> None:
        """Says nothing: what passes through is students' work."""


def serve(
    handler: type[Answering],
    prepare: Callable[[argparse.ArgumentParser], None] = lambda _: None,
    prepared: Callable[[argparse.Namespace], None] = lambda _: None,
) -> int:
    """Serves on loopback until it is stopped; says its address on the first line. A stand-in adds options of its own by
    `prepare` and hears of them by `prepared`."""
    parser = argparse.ArgumentParser(description=sys.modules[handler.__module__].__doc__)
    parser.add_argument("--port", type=int, default=0, help="0 takes any free one")
    parser.add_argument("--faults", default="", help="such as slow=0.2,half=0.1")
    parser.add_argument("--seed", type=int, default=1)
    prepare(parser)
    options = parser.parse_args()
    handler.faults = faults_of(options.faults, options.seed)
    prepared(options)
    server = ThreadingHTTPServer(("127.0.0.1", options.port), handler)
    signal.signal(signal.SIGTERM, lambda *_: sys.exit(0))
    print(f"http://127.0.0.1:{server.server_port}", flush=True)
    with suppress(KeyboardInterrupt):
        server.serve_forever()
    return 0
