"""A teacher, a client that carries the CSRF token, and a sheet to work on."""

import json

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile
from django.db import transaction
from django.test import Client, override_settings
from django.test.client import ClientHandler
from procrastinate.contrib.django import app
from procrastinate.testing import InMemoryConnector

from server.accounts import people
from server.marking import services as marking
from server.marking.schemas import ClassIn, SetIn
from server.sheets import services
from server.sheets.schemas import ProblemIn

_HANDLER = ClientHandler(enforce_csrf_checks=True)
"""One for all clients: what stands before the views looks through every file of the front end when it is made."""


class Api:
    """A browser-like client of the API: CSRF is enforced, JSON in and out."""

    def __init__(self) -> None:
        self.client = Client(enforce_csrf_checks=True)
        self.client.handler = _HANDLER
        self.get("/api/account/session")

    def _token(self) -> str:
        return self.client.cookies["uchuu_csrf"].value

    def get(self, path):
        return self.client.get(path)

    def send(self, method, path, data=None):
        return self.client.generic(
            method,
            path,
            json.dumps(data or {}),
            content_type="application/json",
            headers={"X-CSRFToken": self._token()},
        )

    def send_file(self, path, content, name="page.jpg", media="image/jpeg"):
        sent = SimpleUploadedFile(name, content, media)
        return self.client.post(path, {"file": sent}, headers={"X-CSRFToken": self._token()})

    def log_in(self, username, password="lantern-quay"):
        return self.send("POST", "/api/account/log-in", {"username": username, "password": password})


def make_teacher(name, **roles):
    return people.make(name, name.title(), password="lantern-quay", **roles)[0]


@pytest.fixture(scope="module")
def kept_db(django_db_setup, django_db_blocker):
    """A transaction that lasts as long as the module: what its fixtures make in it is made once, and every test takes
    back what it changes."""
    quick = override_settings(PASSWORD_HASHERS=["django.contrib.auth.hashers.MD5PasswordHasher"])
    with django_db_blocker.unblock(), quick, transaction.atomic():
        yield
        transaction.set_rollback(True)


@pytest.fixture
def teacher(db):
    return make_teacher("maren", manages=True)


@pytest.fixture
def queue():
    with app.replace_connector(InMemoryConnector()) as replaced:
        yield replaced


@pytest.fixture
def api(teacher):
    api = Api()
    assert api.log_in("maren").status_code == 200
    return api


@pytest.fixture
def stranger(db):
    make_teacher("odo")
    api = Api()
    api.log_in("odo")
    return api


@pytest.fixture
def problem(teacher):
    sheet = services.create_sheet(teacher, "Quadratics")
    data = ProblemIn(task="solve", given="x^2 = 36")
    return services.add_problem(teacher, sheet.pk, data, ["x = 6"])


@pytest.fixture
def given(teacher, queue):
    """A set of two equations, given to a class of two."""
    sheet = services.create_sheet(teacher, "Thursday")
    for each in ("3x + 7 = 22", "x^2 - 5x + 6 = 0"):
        services.add_problem(teacher, sheet.pk, ProblemIn(task="solve", given=each))
    made = marking.make_class(
        teacher, ClassIn(name="Evening A", students=[{"name": n} for n in ("Ada Quill", "Bo Tarn")])
    )
    return marking.give(teacher, made.pk, SetIn(sheet=sheet.pk, day="2026-03-05", scheme="answer"))
