"""The stand-in for a school's records: rosters out and marks in, after OneRoster 1.2 over REST, with an invented
evening school in it.

It forgets everything when it ends. `--faults` as for the page reader; `--trouble` names what goes wrong with the
records themselves: `expired` (every third question finds its token expired), `locked` (marks of Falk Ives are refused,
409), `gone` (Hale Brook has left, 404), `duplicate` (two students have one number).
"""

from __future__ import annotations

import argparse
import base64
import json
import re
import sys
from typing import Any
from urllib.parse import parse_qs, urlsplit

from standins.serving import Answering, serve

KEY, SECRET = "uchuu-demo", "evening-school"
ROSTER, GRADEBOOK = "/ims/oneroster/rostering/v1p2", "/ims/oneroster/gradebook/v1p2"
CHANGED = "2026-08-20T08:00:00Z"
TROUBLES = ("expired", "locked", "gone", "duplicate")
CLASSES = {
    "Evening A": [
        "Ada Quill",
        "Bo Tarn",
        "Cleo Marsh",
        "Dag Holm",
        "Edda Finch",
        "Falk Ives",
        "Gesa Lorn",
        "Hale Brook",
        "Iris Vane",
        "Jory Pell",
        "Kit Ashby",
        "Lida Thorne",
    ],
    "Evening D": ["Anka Dell", "Bero Hask", "Cora Lint", "Dov Marrow", "Elin Pax", "Fenn Quarry"],
}


class Records:
    """What the school has: classes with their students, line items and results by their ids."""

    def __init__(self) -> None:
        self.classes: dict[str, dict[str, Any]] = {}
        self.users: dict[str, dict[str, Any]] = {}
        self.members: dict[str, list[str]] = {}
        self.kept: dict[str, dict[str, dict[str, Any]]] = {"lineItems": {}, "results": {}}
        for k, (title, names) in enumerate(CLASSES.items(), start=1):
            of = f"class-{k}"
            self.classes[of] = {
                "sourcedId": of,
                "status": "active",
                "dateLastModified": CHANGED,
                "title": title,
                "classType": "scheduled",
            }
            self.members[of] = []
            for j, name in enumerate(names):
                given, _, family = name.partition(" ")
                user = f"student-{k}-{j + 1}"
                self.users[user] = {
                    "sourcedId": user,
                    "status": "active",
                    "dateLastModified": CHANGED,
                    "enabledUser": "true",
                    "givenName": given,
                    "familyName": family,
                    "identifier": str(100 * (1 if k == 1 else 4) + j),
                }
                self.members[of].append(user)

    def duplicate(self) -> None:
        """Gives the second student of the second class the number of the first."""
        first, second = self.members["class-2"][:2]
        self.users[second]["identifier"] = self.users[first]["identifier"]


class Service(Answering):
    """Answers the questions of OneRoster that Uchuu asks."""

    records = Records()
    troubles: frozenset[str] = frozenset()
    asked = 0
    tokens: set[str] = set()

    def do_POST(self) -> None:
        """A token for the key and the secret of a client."""
        content = self.body()
        if urlsplit(self.path).path != "/token":
            self._failure(404, "There is no such thing.")
        elif self.spoiled():
            return
        elif self._basic() != f"{KEY}:{SECRET}" or b"client_credentials" not in content:
            self.say(401, {"error": "invalid_client"})
        else:
            token = f"token-{len(type(self).tokens) + 1}"
            type(self).tokens.add(token)
            self.say(200, {"access_token": token, "token_type": "bearer", "expires_in": 3600})

    def _basic(self) -> str:
        kind, _, told = (self.headers.get("Authorization") or "").partition(" ")
        return base64.b64decode(told).decode(errors="replace") if kind == "Basic" else ""

    def _allowed(self) -> bool:
        if self.spoiled():
            return False
        type(self).asked += 1
        token = (self.headers.get("Authorization") or "").removeprefix("Bearer ")
        if "expired" in self.troubles and type(self).asked % 3 == 0:
            type(self).tokens.discard(token)
        if token in type(self).tokens:
            return True
        self._failure(401, "The token has expired.")
        return False

    def do_GET(self) -> None:
        """Classes, the students of one, a line item, a result."""
        if urlsplit(self.path).path == "/":
            self.say(200, {"service": "school records", "oneroster": "1.2"})
            return
        if not self._allowed():
            return
        path = urlsplit(self.path).path
        if path == f"{ROSTER}/classes":
            self._page("classes", list(self.records.classes.values()))
            return
        found = re.fullmatch(rf"{ROSTER}/classes/([\w-]+)/students", path)
        if found and found[1] in self.records.members:
            gone = {"Hale"} if "gone" in self.troubles else set()
            users = [self.records.users[user] for user in self.records.members[found[1]]]
            self._page("users", [user for user in users if user["givenName"] not in gone])
            return
        kept = re.fullmatch(rf"{GRADEBOOK}/(lineItems|results)/([\w-]+)", path)
        if kept and kept[2] in self.records.kept[kept[1]]:
            self.say(200, {kept[1][:-1]: self.records.kept[kept[1]][kept[2]]})
            return
        self._failure(404, "There is no such thing.")

    def _page(self, name: str, rows: list[dict[str, Any]]) -> None:
        asked = parse_qs(urlsplit(self.path).query)
        limit, offset = (int(asked.get(key, [default])[0]) for key, default in (("limit", "100"), ("offset", "0")))
        self.say(200, {name: rows[offset : offset + limit]}, {"X-Total-Count": str(len(rows))})

    def do_PUT(self) -> None:
        """Keeps a line item or a result under the id that the sender chose: the same once more changes nothing."""
        content = self.body()
        if not self._allowed():
            return
        kept = re.fullmatch(rf"{GRADEBOOK}/(lineItems|results)/([\w-]+)", urlsplit(self.path).path)
        try:
            told = json.loads(content)[kept[1][:-1]] if kept else None
        except (ValueError, KeyError, TypeError):
            told = None
        if kept is None or not isinstance(told, dict):
            self._failure(422, "This is no line item and no result.")
            return
        refusal = self._refused(kept[1], told)
        if refusal:
            self._failure(*refusal)
            return
        new = kept[2] not in self.records.kept[kept[1]]
        self.records.kept[kept[1]][kept[2]] = told
        self.say(201 if new else 200, {})

    def _refused(self, what: str, told: dict[str, Any]) -> tuple[int, str] | None:
        if what == "lineItems":
            return (
                None
                if told.get("class", {}).get("sourcedId") in self.records.classes
                else (422, "There is no such class.")
            )
        if told.get("lineItem", {}).get("sourcedId") not in self.records.kept["lineItems"]:
            return 422, "There is no such line item."
        user = self.records.users.get(told.get("student", {}).get("sourcedId", ""))
        if user is None or ("gone" in self.troubles and user["givenName"] == "Hale"):
            return 404, "This student is not at the school any more."
        if "locked" in self.troubles and user["givenName"] == "Falk":
            return 409, "The marks of this student are locked."
        return None

    def _failure(self, status: int, words: str) -> None:
        self.say(status, {"imsx_codeMajor": "failure", "imsx_severity": "error", "imsx_description": words})


def _prepare(parser: argparse.ArgumentParser) -> None:
    parser.add_argument("--trouble", default="", help=f"some of {', '.join(TROUBLES)}, separated by commas")


def _prepared(options: argparse.Namespace) -> None:
    Service.troubles = frozenset(filter(None, options.trouble.split(",")))
    if "duplicate" in Service.troubles:
        Service.records.duplicate()


if __name__ == "__main__":
    sys.exit(serve(Service, _prepare, _prepared))
