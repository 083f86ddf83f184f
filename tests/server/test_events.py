"""Events: who hears what is written down here, so that nothing is carried upwards unseen."""

import ast
from pathlib import Path

from server.common import events
from server.marking import events as marking

SERVER = Path(__file__).parents[2] / "server"
HEARD = {
    "LinesVerified": ["server.room.services.seen_late"],
    "LinesPut": ["server.room.services.written_for"],
}


def test_who_hears_what():
    assert events.listeners() == HEARD


def test_every_event_is_heard():
    kinds = {name for name, kind in vars(marking).items() if isinstance(kind, type)}
    assert kinds == set(HEARD)


def test_nothing_else_is_sent_through_signals():
    for path in SERVER.rglob("*.py"):
        for node in ast.walk(ast.parse(path.read_text(encoding="utf-8"))):
            if isinstance(node, ast.ImportFrom):
                assert node.module != "django.dispatch", path


def test_a_listener_is_named_once_and_told_in_order(monkeypatch):
    monkeypatch.setattr(events, "_LISTENERS", type(events._LISTENERS)(list))
    told = []

    def first(event):
        told.append(("first", event))

    def second(event):
        told.append(("second", event))

    for do in (first, second, first):
        events.listen(str, do)
    events.tell("x")
    events.tell(3)  # nobody listens
    assert told == [("first", "x"), ("second", "x")]
