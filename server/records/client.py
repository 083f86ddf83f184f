"""A school's records over OneRoster 1.2 (REST): classes and students in, line items and results out."""

from __future__ import annotations

import base64
import json
import time
from collections.abc import Iterator, Mapping
from typing import Any
from urllib.error import HTTPError
from urllib.parse import quote, urlencode
from urllib.request import Request

from django.conf import settings

from server.common import outside
from server.records.roster import RosterClass, RosterStudent, student_of, titled

ROSTER, GRADEBOOK = "/ims/oneroster/rostering/v1p2", "/ims/oneroster/gradebook/v1p2"
SECONDS, TRIES, PAGE, MOST_PAGES = 15, 3, 100, 50
NOT_THERE = "No school records are set up here. Take a roster from a file, or have UCHUU_RECORDS set to their address."
SILENT = "The school's records do not answer. Nothing is lost; try again later."
STRANGE = "The answer of the school's records can't be understood."
CLOSED = "The school's records refuse the key of this installation."


class RecordsTrouble(Exception):
    """Why the records could not be asked at all: a sentence for people."""


class RecordsRefusal(Exception):
    """Why the records refuse one thing: a sentence for people."""


class School:
    """The records of a school. A token is fetched when one is needed, and again when it has expired."""

    def __init__(self) -> None:
        if not settings.RECORDS:
            raise RecordsTrouble(NOT_THERE)
        self._address = settings.RECORDS.rstrip("/")
        self._token = ""

    def classes(self) -> list[RosterClass]:
        """The classes, without their students. Raises RecordsTrouble."""
        return [
            RosterClass(titled(str(row.get("title", ""))) or str(row["sourcedId"])[:60], (), str(row["sourcedId"]))
            for row in self._all(f"{ROSTER}/classes", "classes")
            if row.get("status") != "tobedeleted"
        ]

    def students(self, sourced_id: str) -> list[RosterStudent]:
        """The students of a class. Raises RecordsTrouble, RecordsRefusal for a class that there is not."""
        rows = self._all(f"{ROSTER}/classes/{quote(sourced_id, safe='')}/students", "users")
        return [
            student_of({key: str(value) for key, value in row.items()})
            for row in rows
            if row.get("status") != "tobedeleted"
        ]

    def put_line_item(self, sourced_id: str, item: Mapping[str, object]) -> None:
        """Keeps a line item under its id. Raises RecordsTrouble, RecordsRefusal."""
        self._asked("PUT", f"{GRADEBOOK}/lineItems/{sourced_id}", {"lineItem": {"sourcedId": sourced_id, **item}})

    def put_result(self, sourced_id: str, result: Mapping[str, object]) -> None:
        """Keeps a result under its id. Raises RecordsTrouble, RecordsRefusal."""
        self._asked("PUT", f"{GRADEBOOK}/results/{sourced_id}", {"result": {"sourcedId": sourced_id, **result}})

    def _all(self, path: str, name: str) -> Iterator[dict[str, Any]]:
        for page in range(MOST_PAGES):
            found = self._asked("GET", f"{path}?{urlencode({'limit': PAGE, 'offset': page * PAGE})}")
            rows = found.get(name) if isinstance(found, dict) else None
            if not isinstance(rows, list) or not all(isinstance(row, dict) and row.get("sourcedId") for row in rows):
                raise RecordsTrouble(STRANGE)
            yield from rows
            if len(rows) < PAGE:
                return

    def _asked(self, method: str, path: str, told: object = None) -> Any:
        """The answer, asked again where that may help: every question may be asked twice without harm."""
        for left in range(TRIES, 0, -1):
            try:
                if not self._token:
                    self._token = self._new_token()
                return self._once(method, path, told, {"Authorization": f"Bearer {self._token}"})
            except HTTPError as problem:
                if problem.code == 401 and left > 1:
                    self._token = ""
                    continue
                if problem.code == 401:
                    raise RecordsTrouble(CLOSED) from problem
                raise RecordsRefusal(outside.reason(problem, "imsx_description", "refused")) from problem
            except outside.AskAgain as problem:
                if left == 1:
                    raise RecordsTrouble(str(problem)) from problem
                time.sleep(problem.wait)
        raise RecordsTrouble(SILENT)

    def _new_token(self) -> str:
        pair = base64.b64encode(f"{settings.RECORDS_KEY}:{settings.RECORDS_SECRET}".encode()).decode()
        request = Request(
            f"{self._address}/token",
            urlencode({"grant_type": "client_credentials"}).encode(),
            {"Authorization": f"Basic {pair}"},
        )
        try:
            told = _json(request)
        except HTTPError as problem:
            if problem.code in (400, 401, 403):
                raise RecordsTrouble(CLOSED) from problem
            raise
        token = told.get("access_token") if isinstance(told, dict) else None
        if not isinstance(token, str):
            raise RecordsTrouble(STRANGE)
        return token

    def _once(self, method: str, path: str, told: object, headers: dict[str, str]) -> Any:
        content = None if told is None else json.dumps(told).encode()
        return _json(
            Request(self._address + path, content, headers | {"Content-Type": "application/json"}, method=method)
        )


def _json(request: Request) -> Any:
    told = outside.sent(request, seconds=SECONDS, silent=SILENT)
    try:
        return json.loads(told) if told.strip() else {}
    except (ValueError, RecursionError) as problem:
        raise outside.AskAgain(STRANGE) from problem
