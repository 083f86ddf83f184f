"""Rosters in and marks out: tables as spreadsheets write them, OneRoster bundles, and the school's records with all
that goes wrong there."""

import base64
import csv
import io
import zipfile

import pytest
from pypdf import PdfReader

from algebra import TaskError
from server.jobs.models import Piece
from server.jobs.pieces import work
from server.marking import decisions
from server.marking import services as marking
from server.marking.models import SchoolClass, StudentWorking
from server.marking.schemas import ClassIn, DecideIn, SetIn, TypedIn
from server.records import client
from server.records.models import ClassLink, SentMark, StudentLink
from server.records.roster import from_bundle, from_table
from server.sheets import services as sheets
from server.sheets.schemas import ProblemIn
from standins.records import KEY, SECRET, Records, Service
from standins.serving import faults_of
from tests.standins import running

pytestmark = pytest.mark.django_db


def names(roster):
    return [(each.title, [(s.name, s.number) for s in each.students]) for each in roster.classes]


@pytest.mark.parametrize(
    ("text", "expected"),
    [
        ("name,number\nAda Quill,7\nBo Tarn,8\n", [("", [("Ada Quill", "7"), ("Bo Tarn", "8")])]),
        ("Ada Quill\nBo Tarn", [("", [("Ada Quill", ""), ("Bo Tarn", "")])]),
        ("7;Ada Quill\n8;Bo Tarn\n", [("", [("Ada Quill", "7"), ("Bo Tarn", "8")])]),
        (
            "\ufeffLast name\tFirst name\tClass\r\nQuill\tAda\t4B\r\nTarn\tBo\t4C\r\n",
            [("4B", [("Ada Quill", "")]), ("4C", [("Bo Tarn", "")])],
        ),
        ('Student;No.\n"Quill, Ada";7\n', [("", [("Ada Quill", "7")])]),
        ('Number,Name\n7,"Ada\nQuill"\n', [("", [])]),
        ("Class list 4B\n\nSurname;Forename;Student ID\nQuill;Ada;7\n", [("", [("Ada Quill", "7")])]),
        ("1. Ada Quill\n2) Bo Tarn\n", [("", [("Ada Quill", ""), ("Bo Tarn", "")])]),
        ("Nr;Students;ID\n1;Quill, Ada;700\n2;Tarn, Bo;701\n;;\n", [("", [("Ada Quill", "700"), ("Bo Tarn", "701")])]),
        ("student name\tclass\nZoë Ådal-Lund\t4B \n", [("4B", [("Zoë Ådal-Lund", "")])]),
        (f"name,class\nAda,{'x' * 70}\n", [("x" * 60, [("Ada", "")])]),
        ("Name,Name of student\nAda Quill,Ada Quill\n", [("", [("Ada Quill", "")])]),
        ("Name\n'=SUM(A1)\nAda Quill", [("", [("=SUM(A1)", ""), ("Ada Quill", "")])]),
    ],
)
def test_a_roster_is_read_from_any_table(text, expected):
    assert names(from_table(text)) == expected


@pytest.mark.parametrize(
    ("text", "place", "why"),
    [
        ("name,number\nAda,1\n,2\n", 3, "No name"),
        ("name\nAda\nBo\nada\n", 4, "twice"),
        ("name,number\nAda,1\nBo,1\n", 3, "taken without it"),
        (f"name\nAda\n{'x' * 81}\n", 3, "at most 80"),
    ],
)
def test_wrong_rows_are_named_and_the_rest_is_taken(text, place, why):
    found = from_table(text)
    assert [(row.place, why in row.why) for row in found.left] == [(place, True)]
    assert found.classes[0].students[0].name == "Ada"


class TestColumns:
    FOREIGN = "Nachname;Vorname;Klasse;Ausweis\nQuill;Ada;4B;7\nTarn;Bo;4C;8\n"

    def told(self, found):
        return [(column.title, column.means, column.examples) for column in found.columns]

    def test_what_columns_of_another_language_mean_is_asked(self):
        found = from_table(self.FOREIGN)
        assert (found.sure, found.titles) == (False, False)
        assert [means for _, means, _ in self.told(found)] == ["name", "", "", ""]  # none of them unsaid
        assert found.columns[1].examples == ("Vorname", "Ada", "Bo")

    def test_what_is_said_of_them_is_taken(self):
        found = from_table(self.FOREIGN, ["last", "first", "class", "number"], titles=True)
        assert names(found) == [("4B", [("Ada Quill", "7")]), ("4C", [("Bo Tarn", "8")])]
        assert (found.sure, self.told(found)[3]) == (True, ("Ausweis", "number", ("7", "8")))
        assert names(from_table("Quill;Ada;x\n", ["last", "first", ""], titles=False)) == [("", [("Ada Quill", "")])]

    def test_known_titles_and_plain_lists_are_sure(self):
        for text in ("name,number\nAda,7", "Ada Quill\nBo", "7;Ada Quill", "Form,Name\n4B,Ada"):
            assert from_table(text).sure
        assert names(from_table("Form,Name\n4B,Ada")) == [("4B", [("Ada", "")])]

    def test_without_a_name_nothing_is_taken(self):
        with pytest.raises(TaskError, match="which column holds the name"):
            from_table("a;b\n1;2", ["number", ""])

    def test_by_the_api(self, api):
        data = {"source": "table", "text": self.FOREIGN, "title": "4B"}
        asked = api.send("POST", "/api/rosters/preview", data).json()
        assert (asked["sure"], [column["title"] for column in asked["columns"]]) == (False, ["", "", "", ""])
        data |= {"columns": ["last", "first", "", "number"], "titles": True}
        said = api.send("POST", "/api/rosters/preview", data).json()
        assert (said["sure"], said["classes"][0]["students"][0]) == (
            True,
            {"name": "Ada Quill", "number": "7", "state": "new"},
        )


def test_equal_names_with_other_numbers_are_two_students(api, teacher):
    text = "name,number\nAda Quill,7\nada quill,8\nAda Quill,\n"
    found = api.send("POST", "/api/rosters/preview", {"source": "table", "text": text, "title": "4B"}).json()
    assert [s["number"] for s in found["classes"][0]["students"]] == ["7", "8"]
    assert "twice" in found["left"][0]["why"]
    sent = {"source": "table", "text": text, "title": "4B", "chosen": [0]}
    assert api.send("POST", "/api/rosters", sent).json()["students"] == 2
    again = {"source": "table", "text": "name,number\nAda Quill,9\n", "title": "4B", "chosen": [0]}
    assert api.send("POST", "/api/rosters/preview", again).json()["classes"][0]["students"][0]["state"] == "number"
    assert api.send("POST", "/api/rosters", again).json()["students"] == 1
    assert [s.number for s in SchoolClass.objects.get().students.order_by("number")] == ["7", "8", "9"]


def test_no_table_is_a_sentence():
    with pytest.raises(TaskError):
        from_table(" \n ")


def bundle(**tables):
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w") as archive:
        for name, rows in tables.items():
            archive.writestr(f"{name}.csv", "\ufeff" + rows)
    return out.getvalue()


USERS = (
    "sourcedId,status,givenName,familyName,identifier,preferredGivenName\n"
    "u1,active,Adele,Quill,7,Ada\nu2,active,Bo,Tarn,8,\nu3,tobedeleted,Old,Name,9,\n"
)
CLASSES = "sourcedId,status,title\nc1,active,4B\nc2,tobedeleted,4C\nc3,active,\n"
ENROLLED = (
    "sourcedId,status,classSourcedId,userSourcedId,role\n"
    "e1,active,c1,u1,student\ne2,active,c1,u2,student\ne3,active,c1,t1,teacher\ne4,active,c1,u3,student\n"
)


def test_a_bundle_is_read_with_its_ids():
    found = from_bundle(bundle(users=USERS, classes=CLASSES, enrollments=ENROLLED))
    assert names(found) == [("4B", [("Ada Quill", "7"), ("Bo Tarn", "8")])]
    assert (found.classes[0].sourced_id, found.classes[0].students[0].sourced_id) == ("c1", "u1")
    assert sorted(row.why for row in found.left) == ["This class has no title.", "users.csv has nobody of this id."]


@pytest.mark.parametrize(
    "content", [b"no zip", bundle(users=USERS), bundle(users="\xff", classes="", enrollments="")[:-30]]
)
def test_what_is_no_bundle_is_refused(content):
    with pytest.raises(TaskError, match="bundle"):
        from_bundle(content)


class School:
    """The stand-in, to be troubled while a test lasts."""

    def __init__(self, service):
        self.service = service

    def results(self):
        return {r["student"]["sourcedId"]: r.get("score") for r in self.service.records.kept["results"].values()}


@pytest.fixture
def school(settings, monkeypatch):
    monkeypatch.setattr(client.time, "sleep", lambda _: None)
    with running(Service, records=Records(), tokens=set(), asked=0) as (address, service):
        settings.RECORDS, settings.RECORDS_KEY, settings.RECORDS_SECRET = address, KEY, SECRET
        yield School(service)


def preview(api, **data):
    answer = api.send("POST", "/api/rosters/preview", data)
    assert answer.status_code == 200, answer.content
    return answer.json()


def take(api, chosen=(0,), **data):
    answer = api.send("POST", "/api/rosters", {**data, "chosen": list(chosen)})
    assert answer.status_code == 201, answer.content
    return answer.json()


def test_a_table_is_looked_at_before_it_is_taken_and_nobody_is_taken_twice(api, teacher):
    table = {"source": "table", "text": "name;number\nAda Quill;7\nBo Tarn;8\n", "title": "Evening A"}
    assert [s["state"] for s in preview(api, **table)["classes"][0]["students"]] == ["new", "new"]
    assert not SchoolClass.objects.exists()
    [made] = take(api, **table)["classes"]
    assert take(api, **table) == {"classes": [made], "students": 0}
    more = preview(api, source="table", text="number;name\n7;Ada Q.\n9;Cleo Marsh", into=made)
    assert [s["state"] for s in more["classes"][0]["students"]] == ["differs", "new"]
    assert take(api, source="table", text="number;name\n7;Ada Q.\n9;Cleo Marsh", into=made)["students"] == 1
    assert {s["name"] for s in api.get(f"/api/classes/{made}").json()["students"]} == {
        "Ada Quill",
        "Bo Tarn",
        "Cleo Marsh",
    }


def test_a_table_that_names_no_class_needs_one(api, stranger):
    answer = api.send("POST", "/api/rosters/preview", {"source": "table", "text": "Ada Quill"})
    assert (answer.status_code, answer.json()["code"]) == (400, "title")
    [made] = take(api, source="table", text="Ada Quill", title="Evening A")["classes"]
    assert (
        stranger.send("POST", "/api/rosters/preview", {"source": "table", "text": "Bo", "into": made}).status_code
        == 404
    )


def test_a_bundle_makes_classes_that_are_linked(api):
    text = base64.b64encode(bundle(users=USERS, classes=CLASSES, enrollments=ENROLLED)).decode()
    [made] = take(api, source="bundle", text=text)["classes"]
    found = SchoolClass.objects.get(pk=made)
    assert (found.name, found.record.sourced_id) == ("4B", "c1")
    assert {s.record.sourced_id for s in found.students.all()} == {"u1", "u2"}
    renamed = base64.b64encode(bundle(users=USERS, classes=CLASSES.replace("4B", "5B"), enrollments=ENROLLED)).decode()
    assert preview(api, source="bundle", text=renamed)["classes"][0]["into"] == made  # known by its id


def test_two_classes_of_one_title_stay_two(api, school):
    for own in school.service.records.classes.values():
        own["title"] = "Mathematics"
    ids = {"source": "records", "ids": ["class-1", "class-2"]}
    made = take(api, (0, 1), **ids)
    assert sorted(SchoolClass.objects.values_list("name", flat=True)) == ["Mathematics", "Mathematics 2"]
    assert take(api, (0, 1), **ids) == {**made, "students": 0}


def test_whatever_the_records_hold_is_taken_or_named(api, school):
    users = [school.service.records.users[f"student-2-{k}"] for k in (1, 2, 3, 4)]
    users[0]["familyName"] = "x" * 90
    users[1] |= {"givenName": "Cora", "familyName": "Lint", "identifier": ""}
    users[3] |= {"givenName": "", "familyName": ""}
    school.service.records.classes["class-2"]["title"] = "D\u0000" + "y" * 80
    left = preview(api, source="records", ids=["class-2"])["left"]
    assert len(left) == 3 and {row["why"].split(".")[0] for row in left} == {
        "A name has at most 80 characters, a number 30",
        "This name stands in the class twice",
        "No name stands here",
    }
    assert take(api, source="records", ids=["class-2"])["students"] == 3
    assert SchoolClass.objects.get().name == "D" + "y" * 59


def test_classes_come_from_the_records(api, school):
    listed = api.get("/api/records/classes").json()
    assert [row["title"] for row in listed["classes"]] == ["Evening A", "Evening D"]
    seen = preview(api, source="records", ids=["class-2"])
    assert seen["classes"][0]["title"] == "Evening D" and len(seen["classes"][0]["students"]) == 6
    [made] = take(api, source="records", ids=["class-2"])["classes"]
    assert api.get("/api/records/classes").json()["classes"][1]["linked"] == made


def test_a_number_that_two_have_in_the_records_is_said(api, school):
    school.service.records.duplicate()
    seen = preview(api, source="records", ids=["class-2"])
    assert len(seen["classes"][0]["students"]) == 6 and "Another student" in seen["left"][0]["why"]
    take(api, source="records", ids=["class-2"])


@pytest.fixture
def marked(api, teacher, queue, school):
    """Evening D of the records: Anka has both marks, Bero one, Cora was absent, Dov handed in nothing."""
    [class_id] = take(api, source="records", ids=["class-2"])["classes"]
    sheet = sheets.create_sheet(teacher, "Thursday")
    for given in ("x + 1 = 3", "2x = 8"):
        sheets.add_problem(teacher, sheet.pk, ProblemIn(task="solve", given=given))
    given = marking.give(teacher, class_id, SetIn(sheet=sheet.pk, day="2026-03-05", scheme="answer"))
    items = list(given.items.order_by("position"))
    for name, answers in {
        "Anka Dell": ["x = 2", "x = 4"],
        "Bero Hask": ["x = 2"],
        "Elin Pax": ["x = 9", "x = 4"],
    }.items():
        student = given.school_class.students.get(name=name)
        for item, line in zip(items, answers, strict=False):
            working = marking.put_typed(teacher, given.pk, TypedIn(student=student.pk, item=item.pk, lines=[line]))
            decisions.decide(teacher, given.pk, DecideIn(workings=[working.pk]))
    cora = given.school_class.students.get(name="Cora Lint")
    assert api.send("PATCH", f"/api/sets/{given.pk}/papers/{cora.pk}", {"absent": True}).status_code == 200
    return given


def rows(api, given):
    found = api.get(f"/api/sets/{given.pk}/records").json()
    named = {s.pk: s.name.split()[0] for s in given.school_class.students.all()}
    return {named[row["student"]]: row for row in found["rows"]}


def send(api, given, *who):
    ids = {s.name.split()[0]: s.pk for s in given.school_class.students.all()}
    answer = api.send("POST", f"/api/sets/{given.pk}/records", {"students": [ids[name] for name in who]})
    for piece in Piece.objects.filter(ended=None):
        work(piece.pk, 0)
    return answer


def test_only_confirmed_marks_are_sent_and_what_changes_is_shown_first(api, marked, school):
    assert {name: row["change"] for name, row in rows(api, marked).items()} == {
        "Anka": "new",
        "Bero": "open",
        "Cora": "new",
        "Dov": "nothing",
        "Elin": "new",
        "Fenn": "nothing",
    }
    assert send(api, marked, "Anka", "Bero").json()["code"] == "unfit"
    assert not school.results()
    assert send(api, marked, "Anka", "Cora", "Elin").status_code == 202
    assert school.results() == {"student-2-1": 2, "student-2-3": None, "student-2-5": 1}
    [item] = school.service.records.kept["lineItems"].values()
    assert (item["title"], item["resultValueMax"], item["class"]["sourcedId"]) == ("Thursday", 2, "class-2")
    assert rows(api, marked)["Anka"]["change"] == "same"


def test_sending_again_takes_the_place_of_what_was_sent(api, marked, teacher, school):
    send(api, marked, "Anka")
    send(api, marked, "Anka")
    working = StudentWorking.objects.filter(paper__student__name="Anka Dell").first()
    decisions.decide(teacher, marked.pk, DecideIn(workings=[working.pk], mark=0))
    row = rows(api, marked)["Anka"]
    assert (row["change"], row["score"], row["sent"]) == ("changed", 1, 2)
    send(api, marked, "Anka")
    assert school.results() == {"student-2-1": 1}


def test_what_the_records_refuse_is_said_student_by_student(api, marked, school):
    school.service.records.users["student-2-1"]["givenName"] = "Falk"
    school.service.records.users["student-2-5"]["givenName"] = "Hale"
    school.service.troubles = frozenset({"locked", "gone"})
    send(api, marked, "Anka", "Cora", "Elin")
    found = rows(api, marked)
    assert found["Anka"]["reason"] == "The marks of this student are locked."
    assert found["Elin"]["reason"] == "This student is not at the school any more."
    assert (found["Cora"]["state"], found["Anka"]["state"], found["Anka"]["change"]) == ("sent", "refused", "new")


def test_a_token_that_expires_in_the_middle_is_fetched_anew(api, marked, school):
    school.service.troubles = frozenset({"expired"})
    send(api, marked, "Anka", "Cora", "Elin")
    assert len(school.results()) == 3 and len(school.service.tokens) >= 1


@pytest.mark.parametrize("fault", ["refusing", "half", "garbage", "silent"])
def test_records_that_fail_lose_nothing(api, marked, school, fault):
    school.service.faults = faults_of(fault)
    send(api, marked, "Anka")
    row = rows(api, marked)["Anka"]
    assert row["state"] == "refused" and ("answer" in row["reason"])
    assert api.get("/api/records/classes").status_code == 400
    school.service.faults = faults_of("")
    send(api, marked, "Anka")
    assert rows(api, marked)["Anka"]["state"] == "sent"


def test_some_faults_are_got_over(api, marked, school):
    school.service.faults = faults_of("half=0.15,garbage=0.1", seed=2)
    send(api, marked, "Anka", "Cora", "Elin")
    assert [rows(api, marked)[name]["state"] for name in ("Anka", "Cora", "Elin")] == ["sent"] * 3


def test_a_wrong_key_is_said(api, school, settings):
    settings.RECORDS_SECRET = "wrong"
    assert "refuse the key" in api.get("/api/records/classes").json()["detail"]
    settings.RECORDS = ""
    assert api.get("/api/records/classes").json() == {"there": False, "classes": []}


def test_a_mark_taken_back_before_its_turn_is_not_sent(api, marked, teacher, school):
    ids = {s.name.split()[0]: s.pk for s in marked.school_class.students.all()}
    api.send("POST", f"/api/sets/{marked.pk}/records", {"students": [ids["Elin"]]})
    decisions.take_back(teacher, marked.pk)  # of Elin, decided last
    for piece in Piece.objects.filter(ended=None):
        work(piece.pk, 0)
    assert SentMark.objects.get(student=ids["Elin"]).reason.startswith("A mark was taken back")
    assert not school.results()


def test_a_class_made_by_hand_is_linked_by_numbers(api, teacher, school):
    made = marking.make_class(
        teacher, ClassIn(name="D", students=[{"name": "Anka D.", "number": "400"}, {"name": "Nobody"}])
    )
    assert api.send("PUT", f"/api/classes/{made.pk}/records", {"id": "class-2"}).status_code == 200
    assert [s.record.sourced_id for s in made.students.filter(record__isnull=False)] == ["student-2-1"]
    assert api.send("PUT", f"/api/classes/{made.pk}/records", {"id": "class-9"}).json()["code"] == "records"


def test_a_number_that_differs_is_not_sent_by_name_and_a_wrong_link_is_undone(api, teacher, school):
    made = marking.make_class(teacher, ClassIn(name="By hand", students=[{"name": "Elin Varga", "number": "999"}]))
    there = api.get("/api/records/classes").json()["classes"]
    for row in there:
        api.send("PUT", f"/api/classes/{made.pk}/records", {"id": row["id"]})
        assert not StudentLink.objects.exists()
    assert ClassLink.objects.count() == 1
    api.send("DELETE", f"/api/classes/{made.pk}/records")
    assert not ClassLink.objects.exists()


def test_the_bundle_holds_confirmed_marks_only(api, marked):
    answer = api.get(f"/api/sets/{marked.pk}/oneroster.zip")
    with zipfile.ZipFile(io.BytesIO(answer.content)) as archive:
        told = {name: list(csv.DictReader(io.StringIO(archive.read(name).decode()))) for name in archive.namelist()}
    assert {"propertyName": "file.results", "value": "bulk"} in told["manifest.csv"]
    assert [(r["studentSourcedId"], r["scoreStatus"], r["score"]) for r in told["results.csv"]] == [
        ("student-2-1", "fully graded", "2"),
        ("student-2-3", "exempt", ""),
        ("student-2-5", "fully graded", "1"),
    ]
    [item] = told["lineItems.csv"]
    assert {r["lineItemSourcedId"] for r in told["results.csv"]} == {item["sourcedId"]}
    again = api.get(f"/api/sets/{marked.pk}/oneroster.zip")
    with zipfile.ZipFile(io.BytesIO(again.content)) as archive:
        assert (
            archive.read("results.csv").decode().split(",")[14].split("\r\n")[1] == told["results.csv"][0]["sourcedId"]
        )


def test_all_that_is_kept_of_a_student_is_shown_as_json_and_on_paper(api, stranger, marked, school):
    send(api, marked, "Anka")
    anka = marked.school_class.students.get(name="Anka Dell")
    told = api.get(f"/api/students/{anka.pk}").json()
    assert (told["name"], told["class"], told["in_the_records"]) == ("Anka Dell", "Evening D", "student-2-1")
    assert [w["lines"] for w in told["sets"][0]["workings"]] == [["x = 2"], ["x = 4"]]
    assert told["sets"][0]["workings"][0]["decisions"][0]["who"] == "maren"
    assert [(s["state"], s["score"]) for s in told["sent"]] == [("sent", 2)]
    answer = api.get(f"/api/students/{anka.pk}?form=pdf")
    text = PdfReader(io.BytesIO(answer.content)).pages[0].extract_text()
    assert "Anka Dell" in text and "no mark became 1" in text and "2 of 2 sent to the records" in text
    assert stranger.get(f"/api/students/{anka.pk}?form=pdf").status_code == 404
    assert "took a student's data" in {row["what"] for row in api.get(f"/api/sets/{marked.pk}/log").json()}
