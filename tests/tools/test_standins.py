"""The stand-ins as the start command runs them: processes of their own, whose place an address takes."""

import json
import os
import time
import urllib.request

import pytest

from tools import standins

VARIABLES = ("UCHUU_PAGE_READER", "UCHUU_RECORDS", "UCHUU_RECORDS_KEY", "UCHUU_RECORDS_SECRET")


@pytest.fixture
def clean(monkeypatch):
    for name in VARIABLES:
        monkeypatch.setenv(name, "")
        monkeypatch.delenv(name)
    running = []
    yield running
    for each in running:
        each.end()


def asked(address, wait=100):
    for _ in range(wait):
        try:
            with urllib.request.urlopen(address, timeout=2) as answer:
                return json.loads(answer.read())
        except OSError:
            time.sleep(0.1)
    raise AssertionError(f"{address} does not answer")


def test_each_is_a_process_whose_address_is_known_and_which_is_begun_again(clean, monkeypatch):
    clean += standins.stand_ins()
    assert asked(os.environ["UCHUU_PAGE_READER"])["service"] == "page reader"
    assert asked(os.environ["UCHUU_RECORDS"])["oneroster"] == "1.2"
    reader = clean[0]
    reader.process.kill()
    reader.process.wait()
    monkeypatch.setattr("tools.worker.AGAIN_SECONDS", 0)
    reader.look()
    reader.look()
    assert asked(os.environ["UCHUU_PAGE_READER"])["protocol"] == 1


def test_a_real_one_takes_the_place(clean, monkeypatch):
    monkeypatch.setenv("UCHUU_PAGE_READER", "http://reader.school.example")
    monkeypatch.setenv("UCHUU_RECORDS", "http://records.school.example")
    assert standins.stand_ins() == []
    assert "UCHUU_RECORDS_KEY" not in os.environ
