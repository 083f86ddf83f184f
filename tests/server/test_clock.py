"""A clock that jumps: what is counted or ordered by time stands all the same."""

from datetime import timedelta

import pytest
from django.utils import timezone

from server.accounts import allowance
from server.accounts.models import Spent
from server.common.problems import TooMany

pytestmark = pytest.mark.django_db
HOUR = timedelta(hours=1)


@pytest.mark.parametrize("jump", [HOUR, -HOUR, 400 * 24 * HOUR, -400 * 24 * HOUR])
def test_an_allowance_begins_anew_when_the_clock_was_set(teacher, monkeypatch, jump):
    monkeypatch.setattr(allowance, "A_MINUTE", 2)
    for _ in range(2):
        allowance.spend(teacher)
    with pytest.raises(TooMany) as found:
        allowance.spend(teacher)
    assert found.value.more["seconds"] <= 60
    Spent.objects.update(since=timezone.now() - jump)  # as it stands there after the jump
    allowance.spend(teacher)
    assert Spent.objects.get().asked == 1


@pytest.mark.parametrize("jump", [HOUR, -HOUR])
def test_lines_are_kept_and_read_while_the_clock_jumps(api, problem, monkeypatch, jump):
    now = timezone.now
    for count in range(4):
        monkeypatch.setattr(timezone, "now", lambda: now() + count * jump)  # noqa: B023 - asked within the round
        lines = ["x = ±6", *(f"x = {k}" for k in range(count))]
        answer = api.send(
            "PUT",
            f"/api/problems/{problem.pk}/lines",
            {"revision": api.get(f"/api/problems/{problem.pk}").json()["revision"], "lines": lines},
        )
        assert answer.status_code == 200, answer.content
        assert [line["text"] for line in api.get(f"/api/problems/{problem.pk}").json()["lines"]] == lines
