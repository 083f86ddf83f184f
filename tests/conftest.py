"""Shared by all tests: long runs are left out unless asked for."""

import os

import pytest
from hypothesis import settings as random_runs

# no test measures time: a busy machine must not make one fail
random_runs.register_profile("untimed", deadline=None)
random_runs.load_profile("untimed")


def _order(path):
    """Browsers come last: one leaves its event loop running, in which nothing else can ask Django. What takes longest
    in one file comes first, so that no process is left with it alone."""
    if "e2e" in path.parts:
        return 3 + BROWSERS.index(path.name)
    return 0 if path.name in LONG_FILES else 1


BROWSERS = ["test_access.py", "test_journeys.py", "test_room.py", "test_marking.py"]
LONG_FILES = {"test_adversary.py", "test_endpoints.py", "test_signs.py", "test_differential.py", "test_marking.py"}


def pytest_collection_modifyitems(config, items):
    items.sort(key=lambda item: _order(item.path))
    if os.environ.get("UCHUU_LONG") == "1":
        return
    skip = pytest.mark.skip(reason="only in ./uchuu test --long")
    for item in items:
        if "long" in item.keywords:
            item.add_marker(skip)


@pytest.fixture(autouse=True)
def _quick_passwords(request):
    """Passwords are hashed cheaply: their strength is Django's business, the time is ours."""
    if (
        "django_db_setup" in request.fixturenames
        or "db" in request.fixturenames
        or "live_server" in request.fixturenames
    ):
        settings = request.getfixturevalue("settings")
        settings.PASSWORD_HASHERS = [
            "django.contrib.auth.hashers.MD5PasswordHasher",
            "server.room.hashers.SecretHasher",
        ]
