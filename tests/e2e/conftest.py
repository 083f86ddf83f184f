"""The real interface in headless Chromium, on the built front end and a real server."""

import os
import threading

import pytest
from django.db import connection
from playwright.sync_api import expect

from server.accounts import people
from server.jobs import pieces
from server.jobs.models import Piece

os.environ.setdefault("DJANGO_ALLOW_ASYNC_UNSAFE", "true")
expect.set_options(timeout=30_000)  # nothing is slower for it; a machine with others on it may be


@pytest.fixture(scope="session")
def browser_type_launch_args():
    return {
        "executable_path": "/usr/bin/chromium",
        "headless": True,
        "args": [
            "--no-sandbox",
            "--disable-gpu",
            "--disable-quic",
            "--no-first-run",
            "--disable-background-networking",
            "--disable-component-update",
            "--disable-sync",
            "--host-resolver-rules=MAP * ~NOTFOUND , EXCLUDE localhost , EXCLUDE 127.0.0.1",
        ],
    }


@pytest.fixture(scope="session")
def browser_context_args():
    # who asks for less motion is served at once
    return {"viewport": {"width": 1280, "height": 800}, "reduced_motion": "reduce"}


@pytest.fixture
def outside(page, live_server):
    """Every request that left the server's host; must stay empty. No page errs, or asks for what its policy forbids."""
    found = []
    page.on("request", lambda r: None if r.url.startswith((live_server.url, "data:")) else found.append(r.url))
    errors = []
    page.on("pageerror", lambda e: errors.append(str(e)))
    page.on("console", lambda m: errors.append(m.text) if "Content Security Policy" in m.text else None)
    yield found
    assert found == []
    assert errors == []


@pytest.fixture
def desk(page, live_server, transactional_db, outside):
    """A page that is logged in, on the list of sheets."""
    people.make("maren", "Maren", password="lantern-quay", manages=True)
    page.goto(f"{live_server.url}/")
    page.get_by_label("Log-in name").fill("maren")
    page.get_by_label("Password").fill("lantern-quay")
    page.keyboard.press("Enter")
    page.get_by_role("heading", name="Sheets").wait_for()
    yield page
    # the database is emptied next: a request that is still being answered would lock what is to be emptied
    page.wait_for_load_state("networkidle")
    page.goto("about:blank")


@pytest.fixture
def worker(transactional_db):
    """Does what waits in the queue while a test goes on, as a worker beside the server does."""
    ended = threading.Event()

    def work():
        try:
            while not ended.wait(0.05):
                for piece in list(Piece.objects.filter(ended=None)):
                    pieces.work(piece.pk, 0)
        finally:
            connection.close()

    thread = threading.Thread(target=work)
    thread.start()
    yield
    ended.set()
    thread.join()
