"""Pages on their way: from the scanner through the page reader, which may fail in every way, to settled lines and
workings."""

import json
from io import BytesIO
from pathlib import Path

import pytest
from PIL import Image

from paper import read
from server.jobs.models import Piece
from server.jobs.pieces import work
from server.marking import services as marking
from server.marking.models import StudentWorking
from server.marking.schemas import ClassIn, SetIn, TypedIn
from server.scans import placing, reader
from server.scans.models import StudentPage
from server.sheets import services as sheets
from server.sheets.schemas import ProblemIn
from standins.reader import Reader
from standins.serving import Answering, faults_of
from tests.standins import running

pytestmark = pytest.mark.django_db
ROOT = Path(__file__).parents[2]
PAGES = ROOT / "standins" / "pages"
NAMES = ["Ada Quill", "Iris Vane", "Jory Pell", "Kit Ashby"]


@pytest.fixture
def stand_in(settings, monkeypatch):
    monkeypatch.setattr(reader.time, "sleep", lambda _: None)
    with running(Reader) as (address, _):
        settings.PAGE_READER = address
        yield address


@pytest.fixture
def given(teacher, queue):
    file, _ = read((ROOT / "server/sheets/demo/2-linear-equations.chain").read_bytes(), "chain")
    sheet = sheets.create_sheet(teacher, file.title)
    for problem in file.problems:
        data = ProblemIn(task=problem.task, given=problem.given, variable=problem.variable or "")
        sheets.add_problem(teacher, sheet.pk, data, list(problem.lines))
    made = marking.make_class(teacher, ClassIn(name="Evening A", students=[{"name": name} for name in NAMES]))
    return marking.give(teacher, made.pk, SetIn(sheet=sheet.pk, day="2026-03-05", scheme="answer"))


def upload(api, given, name, content=None):
    return api.send_file(f"/api/sets/{given.pk}/pages", (PAGES / name).read_bytes() if content is None else content)


def worked():
    for piece in Piece.objects.filter(ended=None):
        work(piece.pk, 0)


def take(api, given, *names):
    for name in names:
        assert upload(api, given, name).status_code == 201
    worked()
    return api.get(f"/api/sets/{given.pk}/pages").json()["pages"]


def opened(api, page):
    return api.get(f"/api/pages/{page['id']}").json()


def settle(api, page, at, texts):
    return api.send("POST", f"/api/pages/{page['id']}/settled", {"at": at, "texts": texts})


def lines(name, item):
    found = StudentWorking.objects.filter(paper__student__name=name, item__position=item - 1).first()
    return None if found is None else found.texts


def test_a_page_is_told_by_its_code_and_its_name_and_what_is_sure_is_taken_in(api, given, stand_in):
    [page] = take(api, given, "iris-vane-1.jpg")
    assert (page["name"], page["state"], page["open"], page["trouble"]) == ("Iris Vane", "read", 3, "")
    assert lines("Iris Vane", 3) == ["4 - x - 3 = 2x - 8", "1 - x = 2x - 8", "9 = 3x", "x = 3"]
    assert lines("Iris Vane", 1) is None  # x = 11 is in doubt
    picture = api.get(f"/api/pages/{page['id']}/picture")
    assert picture.headers["Content-Type"] == "image/jpeg" and picture.content[:2] == b"\xff\xd8"


def test_the_same_page_again_changes_nothing(api, given, stand_in):
    take(api, given, "iris-vane-1.jpg")
    assert upload(api, given, "iris-vane-1.jpg").json() == {"new": 0, "same": 1}
    assert StudentPage.objects.count() == 1


def smaller(name):
    """The page photographed once more: half the size, another compression."""
    with Image.open(PAGES / name) as page:
        kept = BytesIO()
        page.resize((page.width // 2, page.height // 2)).save(kept, "JPEG", quality=50)
    return kept.getvalue()


@pytest.mark.parametrize("name", ["iris-vane-1.jpg", "jory-pell-2.jpg", "kit-ashby-1.jpg"])
def test_a_page_photographed_again_is_known_by_its_look_and_asked_about(api, given, stand_in, name):
    take(api, given, name)
    first = StudentPage.objects.get()
    before = {w.pk: w.lines for w in StudentWorking.objects.all()}
    assert upload(api, given, name, smaller(name)).json() == {"new": 1, "same": 0}
    worked()
    again = StudentPage.objects.latest("pk")
    assert again.again_of == first
    api.send("POST", f"/api/pages/{again.pk}/student", {"student": first.student_id})
    assert {w.pk: w.lines for w in StudentWorking.objects.all()} == before  # no line of it twice
    told = {row["id"]: row["again_of"] for row in api.get(f"/api/sets/{given.pk}/pages").json()["pages"]}
    assert told == {first.pk: None, again.pk: first.pk}
    api.send("DELETE", f"/api/pages/{again.pk}")
    assert {w.pk: w.lines for w in StudentWorking.objects.all()} == before


def test_pages_of_others_on_the_same_sheet_are_not_taken_for_it(api, given, stand_in):
    rows = take(api, given, *(f"{who}-{k}.jpg" for who in ("iris-vane", "jory-pell", "kit-ashby") for k in (1, 2)))
    assert [row["again_of"] for row in rows] == [None] * 6


def test_a_page_is_known_by_its_lines_too_and_taken_in_when_that_is_denied(api, given, stand_in, monkeypatch):
    take(api, given, "iris-vane-1.jpg")
    first = StudentPage.objects.get()
    StudentPage.objects.update(look="", digest="of another photograph")
    upload(api, given, "iris-vane-1.jpg")
    worked()
    again = StudentPage.objects.latest("pk")
    assert (again.again_of, again.student) == (first, first.student)
    StudentWorking.objects.all().delete()
    assert opened(api, {"id": again.pk})["again_of"] == first.pk
    taken = api.send("POST", f"/api/pages/{again.pk}/other").json()
    assert taken["again_of"] is None
    assert lines("Iris Vane", 3)
    again.refresh_from_db()
    assert again.is_other


def test_where_another_reading_would_follow_that_is_said_and_nothing_is_settled(api, given, stand_in):
    [page] = take(api, given, "iris-vane-1.jpg")
    doubtful = {
        "".join(s["text"] for s in line["symbols"]): line for line in opened(api, page)["lines"] if line["doubtful"]
    }
    lost = doubtful["2x = 19"]
    assert [(m["text"], lost["symbols"][m["symbol"]]["text"]) for m in lost["mends"]] == [("-", "")]
    assert doubtful["x = 11"]["mends"] == []  # follows as it was read
    assert [s["others"] for s in doubtful["x = 11"]["symbols"] if s["asks"]] == [["7"]]
    assert lines("Iris Vane", 2) is None


def test_a_reading_that_is_no_line_is_mended_by_one_that_follows(api, given, stand_in):
    [page] = take(api, given, "iris-vane-2.jpg")
    [line] = [line for line in opened(api, page)["lines"] if line["doubtful"]]
    assert line["texts"] == ["5× + 10 - 3 = 5x + 7"]
    assert [(mend["text"], line["symbols"][mend["symbol"]]["text"]) for mend in line["mends"]] == [("x", "×")]


def test_what_another_reading_makes_no_line_of_is_not_offered(api, given, stand_in):
    [page] = take(api, given, "jory-pell-1.jpg")
    lines = {line["texts"][0]: line for line in opened(api, page)["lines"] if line["doubtful"]}
    assert lines["4(2x - 1) - 3(x + 2) = 2"]["mends"] == []  # it follows as it was read
    assert lines["x = 7"]["mends"] == []  # it does, from a wrong line above it: nothing is to be mended


def test_settled_lines_go_to_the_working_and_can_be_opened_again(api, given, stand_in):
    [page] = take(api, given, "iris-vane-1.jpg")
    [line] = [x for x in opened(api, page)["lines"] if x["texts"] == ["2x = 19"]]
    answer = settle(api, page, line["at"], ["2x = -19"]).json()
    assert lines("Iris Vane", 2) == ["2x + 24 = 5", "2x = -19", "x = -19/2"]
    [now] = [x for x in answer["lines"] if x["at"] == line["at"]]
    assert now["settled"] and not now["doubtful"] and now["texts"] == ["2x = -19"]
    settle(api, page, line["at"], ["2x = 19"])  # a wrong line that is really there is kept
    assert lines("Iris Vane", 2)[1] == "2x = 19"
    settle(api, page, line["at"], [])
    assert lines("Iris Vane", 2) == ["2x + 24 = 5", "x = -19/2"]
    assert [x["doubtful"] for x in settle(api, page, line["at"], None).json()["lines"] if x["at"] == line["at"]] == [
        True
    ]
    assert settle(api, page, 0, ["x"]).json()["code"] == "line"  # a name is no line


def test_a_line_that_slants_into_the_next_is_typed_as_two_and_a_crossed_one_is_left_out(api, given, stand_in):
    [page] = take(api, given, "jory-pell-1.jpg")
    found = opened(api, page)["lines"]
    [crossed] = [line for line in found if line["crossed"]]
    assert crossed["texts"] == [] and not crossed["doubtful"]
    for line in found:
        if line["doubtful"]:
            text = line["texts"][0]
            settle(api, page, line["at"], ["8x - 4 - 3x + 6 = 2", "5x + 2 = 2"] if "25x" in text else [text])
    assert lines("Jory Pell", 4) == ["4(2x - 1) - 3(x + 2) = 2", "8x - 4 - 3x + 6 = 2", "5x + 2 = 2", "x = 0"]


def test_a_page_without_a_known_name_lies_in_the_tray_until_it_is_given(api, given, stand_in):
    marking.erase_student(given.school_class.owner, given.school_class.students.get(name="Kit Ashby").pk)
    [page] = take(api, given, "kit-ashby-1.jpg")
    assert page["student"] is None and not StudentWorking.objects.exists()
    ada, iris = (given.school_class.students.get(name=name) for name in ("Ada Quill", "Iris Vane"))
    for student in (ada, iris):  # first given to the wrong one
        assert (
            api.send("POST", f"/api/pages/{page['id']}/student", {"student": student.pk}).json()["student"]
            == student.pk
        )
    assert lines("Ada Quill", 1) is None and lines("Iris Vane", 1) == ["3x - 6 = 2x + 5", "x = 11"]
    assert api.send("POST", f"/api/pages/{page['id']}/student", {"student": 999_999}).json()["code"] == "student"
    assert api.client.delete(f"/api/pages/{page['id']}", headers={"X-CSRFToken": api._token()}).status_code == 204
    assert not StudentWorking.objects.exists()


def test_two_pages_of_a_student_belong_together(api, given, stand_in):
    rows = take(api, given, "jory-pell-1.jpg", "jory-pell-2.jpg")
    second = next(row for row in rows if row["student"] is None)  # no name stands on it
    jory = given.school_class.students.get(name="Jory Pell")
    api.send("POST", f"/api/pages/{second['id']}/student", {"student": jory.pk})
    assert lines("Jory Pell", 5) == ["6x + 2 = 6x + 5", "0 = 3", "no solution"]
    assert lines("Jory Pell", 3) == ["4 - x + 3 = 2x - 8", "7 - x = 2x - 8", "15 = 3x", "x = 5"]


def test_what_was_typed_stands_when_a_page_comes(api, given, stand_in):
    iris, item = given.school_class.students.get(name="Iris Vane"), given.items.get(position=2)
    marking.put_typed(given.school_class.owner, given.pk, TypedIn(student=iris.pk, item=item.pk, lines=["x = 4"]))
    take(api, given, "iris-vane-1.jpg")
    assert lines("Iris Vane", 3) == ["x = 4"]


def test_a_page_of_another_set_goes_there_by_its_code(api, given, stand_in):
    other = sheets.create_sheet(given.school_class.owner, "Another")
    sheets.add_problem(given.school_class.owner, other.pk, ProblemIn(task="solve", given="2x = 4"))
    wrong = marking.give(
        given.school_class.owner, given.school_class.pk, SetIn(sheet=other.pk, day="2026-03-06", scheme="answer")
    )
    assert take(api, wrong, "iris-vane-1.jpg") == []
    assert [page["name"] for page in api.get(f"/api/sets/{given.pk}/pages").json()["pages"]] == ["Iris Vane"]
    given.codes = []
    given.save()
    [page] = take(api, wrong, "jory-pell-1.jpg")
    assert "code in the footer" in page["trouble"]


def test_rows_that_nobody_could_read_are_typed_with_their_numbers(api, given, stand_in):
    blank = Image.new("L", (600, 800), 255)
    for top in (100, 200):
        blank.paste(20, (60, top, 300, top + 20))
    out = BytesIO()
    blank.save(out, "PNG")
    upload(api, given, "x.png", out.getvalue())
    worked()
    [page] = api.get(f"/api/sets/{given.pk}/pages").json()["pages"]
    assert page["open"] == 2
    ada = given.school_class.students.get(name="Ada Quill")
    api.send("POST", f"/api/pages/{page['id']}/student", {"student": ada.pk})
    first, second = (line["at"] for line in opened(api, page)["lines"])
    answer = settle(api, page, first, ["3x - 6 = 2x + 5"]).json()
    assert answer["lines"][0]["item"] is None  # belongs to nothing yet
    settle(api, page, first, ["1. 3x - 6 = 2x + 5", "x = 11"])
    settle(api, page, second, ["2) x = 4"])
    assert lines("Ada Quill", 1) == ["3x - 6 = 2x + 5", "x = 11"] and lines("Ada Quill", 2) == ["x = 4"]
    assert opened(api, page)["lines"][0]["texts"] == ["3x - 6 = 2x + 5", "x = 11"]


@pytest.mark.parametrize("fault", ["refusing", "half", "garbage", "silent"])
def test_a_reader_that_fails_is_said_and_can_be_asked_again(api, given, stand_in, settings, fault):
    with running(Reader, faults=faults_of(fault)) as (address, _):
        settings.PAGE_READER = address
        [page] = take(api, given, "iris-vane-1.jpg")
        assert page["state"] == "failed" and ("answer" in page["trouble"])
    settings.PAGE_READER = stand_in
    assert api.send("POST", f"/api/pages/{page['id']}/again").json()["state"] == "waiting"
    worked()
    assert opened(api, page)["state"] == "read" and lines("Iris Vane", 3)


@pytest.mark.parametrize(
    ("answer", "said"),
    [
        ({"protocol": 2, "lines": []}, "can't be understood"),
        ({"protocol": 1, "lines": [{"about": "line", "box": [0, 0, 9, 1]}]}, "can't be understood"),
        (
            {"protocol": 1, "lines": [{"about": "line", "box": [0, 0, 1, 1], "symbols": [{"text": "\0"}]}]},
            "can't be understood",
        ),
        ({"protocol": 1, "lines": [{"about": "poem", "box": [0, 0, 1, 1]}]}, "can't be understood"),
        ([], "can't be understood"),
        ({"protocol": 1, "read_to": 0.5, "lines": []}, "Only the upper part"),
        (422, "too dark"),
    ],
)
def test_whatever_a_reader_answers_is_survived(api, given, stand_in, settings, answer, said):
    def answers(handler):
        handler.body()
        if answer == 422:
            handler.say(422, {"error": "It is too dark."})
        else:
            handler.say(200, answer)

    with running(Answering, do_POST=answers) as (address, _):
        settings.PAGE_READER = address
        [page] = take(api, given, "iris-vane-1.jpg")
    assert said in page["trouble"] and page["open"] == 0


def test_without_a_reader_a_page_can_still_be_looked_at(api, given, settings):
    settings.PAGE_READER = ""
    [page] = take(api, given, "iris-vane-1.jpg")
    assert page["state"] == "failed" and "No page reader" in page["trouble"]
    assert api.get(f"/api/sets/{given.pk}/pages").json()["reader"] is False


def test_pages_of_another_do_not_exist_and_no_page_is_a_sentence(api, stranger, given, stand_in):
    [page] = take(api, given, "iris-vane-1.jpg")
    for path in (f"/api/pages/{page['id']}", f"/api/pages/{page['id']}/picture", f"/api/sets/{given.pk}/pages"):
        assert stranger.get(path).status_code == 404
    answer = upload(api, given, "x.jpg", b"no picture")
    assert answer.status_code == 400 and "PNG, JPEG or PDF" in answer.json()["detail"]


def symbols(text, doubt=()):
    return [{"text": char, "confidence": 0.5 if k in doubt else 1} for k, char in enumerate(text)]


def reading(*rows):
    told = [{"about": about, "box": [0, 0, 1, 1], "symbols": symbols(text, doubt)} for about, text, *doubt in rows]
    return reader.PageReading.model_validate_json(json.dumps({"protocol": 1, "lines": told}))


@pytest.mark.parametrize(
    ("rows", "settled", "expected"),
    [
        ([("number", "1"), ("line", "x = 1"), ("line", "x = 2")], {}, {1: ["x = 1", "x = 2"]}),
        ([("number", "1."), ("line", "x = 1"), ("line", "x = 2", 0)], {}, {1: None}),
        ([("number", "1"), ("line", "x = 1", 0)], {"1": ["x = 7"]}, {1: ["x = 7"]}),
        ([("number", "1"), ("line", "x = 1", 0), ("line", "x = 3")], {"1": []}, {1: ["x = 3"]}),
        ([("line", "x = 1")], {}, {}),
        ([("number", "9"), ("line", "x = 1")], {}, {}),
        ([("line", "x = 1"), ("line", "x = 2")], {"0": ["2. x = 5"]}, {2: ["x = 5", "x = 2"]}),
        ([("number", "1"), ("line", "x = 1")], {"1": ["2)", "x = 5"]}, {2: ["x = 5"]}),
    ],
)
def test_lines_are_placed_by_the_numbers_above_them(rows, settled, expected):
    assert placing.workings_of([placing.placed(reading(*rows), settled, 3)]) == expected
