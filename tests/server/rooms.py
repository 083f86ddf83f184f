"""What the tests of a practice room share: a student at the door, inside, and writing."""

from tests.server.conftest import Api

WRONG = ["3x = 29", "x = 29/3"]
"""Where 7 was to be taken away it was added."""


def opened(api, given, **settings):
    answer = api.send("POST", f"/api/sets/{given.pk}/room", settings)
    assert answer.status_code == 201, answer.content
    return answer.json()


def come_in(code, name="Ada Quill", secret="river7", client=None):
    """The browser of a student, and what it was answered at the door."""
    client = client or Api()
    return client, client.send("POST", "/api/room/come-in", {"code": code, "name": name, "secret": secret})


def inside(api, given, name="Ada Quill", **settings):
    client, answer = come_in(opened(api, given, **settings)["code"], name)
    assert answer.status_code == 200, answer.content
    return client, [item["id"] for item in answer.json()["room"]["items"]]


def write(client, item, lines, revision=0):
    return client.send("PUT", f"/api/room/items/{item}", {"revision": revision, "lines": lines})


def working(answer, number=1):
    found = answer.json()
    found = found.get("room", found)
    return found["items"][number - 1]["working"] if "items" in found else found["working"]
