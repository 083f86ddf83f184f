"""The process that answers questions: one after the other from a pipe, within its memory."""

from __future__ import annotations

import os
import resource
import signal
import traceback
from collections.abc import Callable, Mapping
from multiprocessing.connection import Connection
from typing import Any

from algebra import ReadingError, TaskError, Unsolved
from lanes.questions import QUESTIONS

Answer = tuple[str, Any]
"""How it went (`answer`, `memory`, `bug`, or the name of an error of the core) and what came of it."""


def answered(
    name: str,
    arguments: tuple[object, ...],
    keywords: dict[str, object],
    questions: Mapping[str, Callable[..., object]] = QUESTIONS,
) -> Answer:
    """The answer to a question; errors as what they are made of, since they are raised again in another process."""
    try:
        return "answer", questions[name](*arguments, **keywords)
    except ReadingError as problem:
        return "ReadingError", (problem.message, problem.column, problem.code)
    except Unsolved as problem:
        return "Unsolved", (problem.message,)
    except TaskError as problem:
        return "TaskError", (problem.message,)
    except (MemoryError, RecursionError):
        return "memory", None
    except Exception:  # a bug of the core: the asker raises it with its place, and the process goes on
        return "bug", traceback.format_exc()


def bounded(memory: int) -> None:
    """Lets this process grow by so many bytes at most."""
    with open("/proc/self/statm", encoding="ascii") as file:
        now = int(file.read().split()[0]) * resource.getpagesize()
    _, hard = resource.getrlimit(resource.RLIMIT_AS)
    most = now + memory
    resource.setrlimit(resource.RLIMIT_AS, (most if hard == resource.RLIM_INFINITY else min(most, hard), hard))


def serve(connection: Connection, memory: int, niceness: int) -> None:
    """Answers until the other side hangs up."""
    signal.signal(signal.SIGINT, signal.SIG_IGN)  # Ctrl-C reaches the one who asks, who then hangs up
    signal.signal(signal.SIGTERM, signal.SIG_DFL)
    os.nice(niceness)
    bounded(memory)
    while True:
        try:
            name, arguments, keywords = connection.recv()
        except (EOFError, OSError):
            return
        connection.send(answered(name, arguments, keywords))
