"""Students renamed, numbered and moved: what they wrote stays where it was written."""

import pytest

from server.marking import services
from server.marking.models import StudentWorking
from server.marking.schemas import ClassIn

pytestmark = pytest.mark.django_db


def take(api, given, text):
    assert api.send("POST", f"/api/sets/{given.pk}/taken", {"form": "text", "text": text}).status_code == 200


def table(api, given):
    return api.get(f"/api/sets/{given.pk}").json()


class TestAStudent:
    def change(self, api, student, **data):
        return api.send("PATCH", f"/api/students/{student.pk}", data)

    def test_a_student_is_renamed_and_numbered(self, api, stranger, given):
        ada = given.school_class.students.get(name="Ada Quill")
        told = self.change(api, ada, name=" Ada Marsh ", number=" 12 ").json()
        assert {"id": ada.pk, "name": "Ada Marsh", "number": "12"} in told["students"]
        assert self.change(api, ada, name="bo tarn").json()["code"] == "name"
        assert self.change(stranger, ada, name="Eve").status_code == 404

    def test_of_one_name_both_have_numbers(self, api, given):
        ada, bo = given.school_class.students.order_by("name")
        self.change(api, ada, number="7")
        assert self.change(api, bo, name="Ada Quill").json()["code"] == "name"
        assert self.change(api, bo, name="Ada Quill", number="7").json()["code"] == "name"
        assert self.change(api, bo, name="Ada Quill", number="8").status_code == 200
        take(api, given, "Ada Quill\n1. x = 5\nAda Quill 8\n1. x = 6")
        [kept] = StudentWorking.objects.all()
        assert (kept.paper.student.number, kept.lines) == ("8", ["x = 6"])

    def test_what_was_written_stays_where_it_was_when_one_moves(self, api, teacher, given):
        take(api, given, "Ada Quill\n1. x = 5")
        ada = given.school_class.students.get(name="Ada Quill")
        other = services.make_class(teacher, ClassIn(name="Evening B", students=[]))
        assert self.change(api, ada, into=other.pk).json()["name"] == "Evening B"
        found = table(api, given)
        assert [s["name"] for s in found["students"]] == ["Ada Quill", "Bo Tarn"]
        assert len(found["cells"]) == 1 and ada.pk in {total["student"] for total in found["totals"]}
        bo = given.school_class.students.get(name="Bo Tarn")
        self.change(api, bo, into=other.pk)
        assert [s["name"] for s in table(api, given)["students"]] == ["Ada Quill"]  # who wrote nothing is gone
