"""What one app tells others that it does not know: each event is a record, and who listens is named when the server
starts. `tests/server/test_events.py` holds the list of who hears what."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Callable
from typing import Any, TypeVar

E = TypeVar("E")
_LISTENERS: dict[type, list[Callable[[Any], None]]] = defaultdict(list)


def listen(kind: type[E], do: Callable[[E], None]) -> None:
    """Has every event of this kind told to a listener, in the transaction of who tells it."""
    if do not in _LISTENERS[kind]:
        _LISTENERS[kind].append(do)


def tell(event: object) -> None:
    """Tells an event to all who listen for its kind, in the order in which they were named."""
    for do in _LISTENERS[type(event)]:
        do(event)


def listeners() -> dict[str, list[str]]:
    """The names of those who listen, by the names of the events."""
    return {kind.__name__: [f"{do.__module__}.{do.__qualname__}" for do in heard] for kind, heard in _LISTENERS.items()}
