"""Shared by all tests: long runs are left out unless asked for."""

import os

import pytest
from hypothesis import settings as random_runs

# no test measures time: a busy machine must not make one fail
random_runs.register_profile("untimed", deadline=None)
random_runs.load_profile("untimed")


def pytest_collection_modifyitems(config, items):
    # a browser leaves its event loop running, in which nothing else can ask Django: so its tests come last
    items.sort(key=lambda item: "/e2e/" in str(item.path))
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
