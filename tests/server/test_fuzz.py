"""Every endpoint with bodies and queries drawn from the OpenAPI document: refused or answered, never an error of the
server."""

import pytest
import schemathesis
from hypothesis import HealthCheck, Phase, given, settings

from server.config.openapi import document
from tests.server.conftest import Api, make_teacher

pytestmark = [pytest.mark.django_db, pytest.mark.long]

SCHEMA = schemathesis.openapi.from_dict(document())
OPERATIONS = [result.ok() for result in SCHEMA.get_all_operations()]
LEFT_OUT = {("POST", "/api/account/log-out"), ("POST", "/api/account/password")}  # they end the session that asks


@pytest.mark.parametrize("operation", OPERATIONS, ids=lambda operation: f"{operation.method.upper()} {operation.path}")
def test_whatever_is_sent_is_answered(operation, monkeypatch):
    if (operation.method.upper(), operation.path) in LEFT_OUT:
        pytest.skip("ends the session")
    monkeypatch.setattr("server.accounts.allowance.A_MINUTE", 10**9)
    make_teacher("fuzz", manages=True)
    api = Api()
    assert api.log_in("fuzz").status_code == 200

    @settings(
        max_examples=120,
        deadline=None,
        phases=[Phase.explicit, Phase.generate],
        suppress_health_check=list(HealthCheck),
        database=None,
    )
    @given(case=operation.as_strategy())
    def asked(case):
        path = case.formatted_path
        query = "&".join(f"{key}={value}" for key, value in (case.query or {}).items())
        address = f"{path}?{query}" if query else path
        if case.method.upper() == "GET":
            answer = api.client.get(address.encode("utf-8", "replace").decode(), follow=False)
        else:
            body = case.body if isinstance(case.body, dict | list) else {}
            answer = api.send(case.method.upper(), path, body)
        assert answer.status_code < 500, (address, case.body, answer.content[:300])

    asked()
