"""A class set in the browser: given, taken in by paste, verified by a worker, marked by keys alone, and what it
shows."""

import re
import zipfile
from pathlib import Path

import pytest
from playwright.sync_api import expect

from paper import read
from server.jobs import pieces
from server.jobs.models import Piece
from server.marking import services
from server.marking.models import StudentWorking
from server.marking.schemas import ClassIn
from server.sheets import services as sheets
from server.sheets.models import Sheet
from server.sheets.schemas import ProblemIn
from standins.reader import Reader
from standins.records import KEY, SECRET, Records, Service
from tests.standins import running

ROOT = Path(__file__).parents[2]

NAMES = [f"Student {letter}" for letter in "ABCDEFGHIJKL"]
ITEMS = [("solve", "3x + 7 = 22"), ("solve", "x^2 - 5x + 6 = 0"), ("simplify", "√50 + √8")]
RIGHT = [["3x = 15", "x = 5"], ["(x - 2)(x - 3) = 0", "x = 2 or x = 3"], ["5√2 + 2√2", "7√2"]]
WRONG = [["3x = 29", "x = 29/3"], ["(x + 2)(x + 3) = 0", "x = -2 or x = -3"], ["√58"]]


def pile():
    """The pile as a teacher would paste it: a third went wrong, all of these alike."""
    rows = []
    for k, name in enumerate(NAMES):
        rows.append(name)
        for number, lines in enumerate(WRONG if k % 3 == 2 else RIGHT, start=1):
            rows.append(f"{number}. {lines[0]}")
            rows += [f"   {line}" for line in lines[1:]]
        rows.append("")
    return "\n".join(rows)


@pytest.fixture
def pressed(desk):
    """The page, with every key that is pressed counted."""
    counted = []
    press = desk.keyboard.press

    def counting(key):
        counted.append(key)
        press(key)

    desk.keyboard.press = counting
    yield desk, counted
    desk.keyboard.press = press


def worker():
    """Does what waits in the queue, as a worker beside the server does."""
    for piece in Piece.objects.filter(ended=None):
        pieces.work(piece.pk, 0)


def test_a_class_set_is_marked_by_keys_alone(pressed):
    page, counted = pressed
    teacher = services.User.objects.get(username="maren")
    sheet = sheets.create_sheet(teacher, "Thursday")
    for task, given in ITEMS:
        sheets.add_problem(teacher, sheet.pk, ProblemIn(task=task, given=given))
    services.make_class(teacher, ClassIn(name="Evening A", students=[{"name": name} for name in NAMES]))
    page.goto(re.sub(r"/$", "", page.url) + "/classes")
    page.get_by_label("Sheet", exact=True).select_option("Thursday")
    page.get_by_role("button", name="Give it").click()
    page.get_by_role("button", name="Take in").click()
    page.get_by_label("What the class wrote").fill(pile())
    page.keyboard.press("Control+Enter")
    expect(page.get_by_text("36 new")).to_be_visible()
    worker()
    expect(page.locator("td .proposed")).to_have_count(36, timeout=20_000)

    cells = page.locator("td")
    cells.first.focus()
    counted.clear()
    for _ in (
        ITEMS
    ):  # in each column: those that are right in one go, then those that are wrong alike, one of them with another mark
        page.keyboard.press("a")
        expect(page.locator(".faces [role=status]")).to_contain_text("decided alike")
        page.keyboard.press("Enter")
        expect(page.locator(".opened")).to_be_visible()
        page.keyboard.press("1")
        page.keyboard.press("a")
        page.wait_for_timeout(300)
    expect(page.locator("td .mark")).to_have_count(36, timeout=10_000)
    assert len(counted) <= 1.5 * 36
    page.keyboard.press("Control+z")
    expect(page.locator(".faces [role=status]")).to_contain_text("taken back")
    page.keyboard.press("a")
    expect(page.locator(".faces [role=status]")).to_contain_text("decided alike")
    expect(page.locator("td .mark")).to_have_count(36)
    assert StudentWorking.objects.filter(mark=None).count() == 0

    page.get_by_role("button", name="Marks out").click()
    link = page.get_by_role("link", name="a table", exact=True).get_attribute("href")
    table = page.request.get(page.url.split("/sets")[0] + link).text()
    assert len(table.splitlines()) == 1 + len(NAMES)
    page.get_by_role("link", name="Patterns").click()
    expect(page.get_by_role("heading", name="Items")).to_be_visible()
    expect(page.locator(".patterns")).to_contain_text("8 of 12")
    page.get_by_role("button", name="4 ×").first.click()
    expect(page.locator(".opened")).to_contain_text("29")


def test_workings_are_typed_student_after_student(desk):
    page = desk
    teacher = services.User.objects.get(username="maren")
    sheet = sheets.create_sheet(teacher, "Thursday")
    sheets.add_problem(teacher, sheet.pk, ProblemIn(task="solve", given="3x + 7 = 22"))
    made = services.make_class(teacher, ClassIn(name="Evening A", students=[{"name": name} for name in NAMES[:3]]))
    given = services.give(teacher, made.pk, services.SetIn(sheet=sheet.pk, day="2026-03-05"))
    page.goto(re.sub(r"/$", "", page.url) + f"/sets/{given.pk}")
    page.locator("td").first.focus()
    page.keyboard.press("t")
    for lines in (["3x = 15", "x = 5"], ["3x = 29", "x = 29/3"], ["x = 5"]):
        expect(page.get_by_label("Lines, one below the other")).to_be_focused()
        for line in lines:
            page.keyboard.type(line)
            page.keyboard.press("Enter")
        count = page.locator("td .proposed").count()
        page.keyboard.press("Tab")
        expect(page.locator("td .proposed")).to_have_count(count + 1)
    page.keyboard.press("Escape")
    assert [w.proposal["mark"] for w in StudentWorking.objects.order_by("paper__student__name")] == [2, 0, 2]


def test_what_was_used_before_goes_from_the_bank_into_a_new_sheet(desk):
    page = desk
    teacher = services.User.objects.get(username="maren")
    sheet = sheets.create_sheet(teacher, "Last year")
    for task, given in ITEMS:
        sheets.add_problem(teacher, sheet.pk, ProblemIn(task=task, given=given))
    page.goto(re.sub(r"/$", "", page.url) + "/bank")
    rows = page.get_by_label("Problems found").get_by_role("listitem")
    expect(rows).to_have_count(3)
    for _ in range(50):
        if Piece.objects.exists():
            break
        page.wait_for_timeout(100)
    worker()
    expect(page.get_by_text("still being looked through")).to_have_count(0, timeout=45_000)
    page.get_by_role("combobox", name="Kind").select_option(label="Quadratic equations (1)")
    expect(rows).to_have_count(1)
    page.get_by_role("searchbox").focus()
    page.keyboard.press("ArrowDown")
    page.keyboard.press(" ")
    page.keyboard.press("t")
    expect(page.get_by_role("heading", name="Build a sheet")).to_be_visible()
    expect(page.locator("section[aria-label='The ladder'] ol > li").first).to_be_focused()
    page.keyboard.press("f")
    page.get_by_label("Title of the sheet").fill("This year")
    page.keyboard.press("Enter")
    expect(page.get_by_role("heading", name="This year")).to_be_visible()
    made = Sheet.objects.get(title="This year").problems.get()
    assert (made.given, made.form) == ("x^2 - 5x + 6 = 0", "choose")


@pytest.fixture
def stand_ins(settings):
    """The page reader and the school's records, as they run beside the demo data."""
    with running(Reader) as (reader, _), running(Service, records=Records(), tokens=set()) as (records, _):
        settings.PAGE_READER, settings.RECORDS = reader, records
        settings.RECORDS_KEY, settings.RECORDS_SECRET = KEY, SECRET
        yield


def test_a_class_comes_from_the_records_its_pages_are_settled_marked_and_sent(desk, stand_ins):
    page = desk
    base = re.sub(r"/$", "", page.url)
    teacher = services.User.objects.get(username="maren")
    file, _ = read((ROOT / "server/sheets/demo/2-linear-equations.chain").read_bytes(), "chain")
    sheet = sheets.create_sheet(teacher, file.title)
    for problem in file.problems:
        sheets.add_problem(
            teacher, sheet.pk, ProblemIn(task=problem.task, given=problem.given, variable=problem.variable or "")
        )

    page.goto(f"{base}/classes")
    page.get_by_role("button", name="Rosters from").click()
    page.get_by_label("Evening A").check()
    page.get_by_role("button", name="Look").click()
    expect(page.locator(".roster")).to_contain_text("Iris Vane")
    page.get_by_role("button", name="Take it").click()
    expect(page.get_by_text("12 new students in 1 class.")).to_be_visible()
    page.get_by_role("button", name="Evening A").click()
    page.get_by_label("Sheet", exact=True).select_option(file.title)
    page.get_by_label("Scheme").select_option("answer")
    page.get_by_role("button", name="Give it").click()

    page.get_by_role("link", name="Pages").click()
    page.locator("input[type=file]").first.set_input_files(
        [ROOT / "standins/pages/iris-vane-1.jpg", ROOT / "standins/pages/iris-vane-2.jpg"]
    )
    expect(page.locator(".strip").get_by_text("being read")).to_have_count(2, timeout=20_000)
    worker()
    expect(page.get_by_role("button", name="Iris Vane 3 to settle")).to_be_visible(timeout=10_000)
    page.get_by_role("button", name="Iris Vane 3 to settle").click()
    expect(page.locator(":focus")).to_have_attribute("aria-label", "1 or 7: is it that?")
    page.keyboard.press("Space")
    expect(page.locator(":focus")).to_have_attribute("aria-label", "nothing or -: is it that?")
    page.keyboard.press("-")
    expect(page.get_by_text("1 to settle").first).to_be_visible()
    page.keyboard.press("ArrowDown")
    expect(page.get_by_text("All of it is in the marking table.")).to_be_visible()
    page.get_by_role("button", name="no name").click()
    page.get_by_role("button", name="Iris Vane’s, like the page before").click()
    expect(page.locator(":focus")).to_have_attribute("aria-label", "× or x: is it that?")
    page.keyboard.press("x")
    expect(page.get_by_text("All of it is in the marking table.")).to_be_visible()
    iris = {w.item.position + 1: w.texts for w in StudentWorking.objects.filter(paper__student__name="Iris Vane")}
    assert iris[2] == ["2x + 24 = 5", "2x = -19", "x = -19/2"] and iris[4][2] == "5x - 10 = 2" and len(iris) == 8

    worker()
    page.get_by_role("link", name="Marking table").click()
    expect(page.locator("td .proposed")).to_have_count(8, timeout=10_000)
    page.locator("tr", has_text="Iris Vane").locator("td").first.click()
    for _ in range(8):
        page.keyboard.press("Space")
    expect(page.locator("td .mark")).to_have_count(8)
    expect(page.locator("tr", has_text="Iris Vane").locator(".sum")).to_have_text(re.compile("[0-9]"))
    page.get_by_role("button", name="Marks out").click()
    page.get_by_role("button", name="Send 1").click()
    expect(page.locator(".send tr", has_text="Iris Vane")).to_contain_text("being sent")
    worker()
    expect(page.locator(".send tr", has_text="Iris Vane")).to_contain_text("the same as sent", timeout=10_000)


@pytest.mark.parametrize(
    ("name", "content"),
    [
        (
            "pile.csv",
            "student;item;line\nStudent A;1;3x = 15\nStudent A;1;x = 5\nStudent B;1;3x = 29\n".encode("utf-16"),
        ),
        (
            "pile.jsonl",
            b'{"student": "Student A", "item": 1, "lines": ["3x = 15", "x = '
            b'5"]}\n{"student": "Student B", "item": 1, "lines": ["3x = 29"]}\n',
        ),
        ("pile.txt", b"Student A\n1. 3x = 15\nx = 5\nStudent B\n1. 3x = 29\n"),
        ("pile.zip", None),
    ],
)
def test_a_pile_is_taken_in_from_a_file(desk, tmp_path, name, content):
    page = desk
    teacher = services.User.objects.get(username="maren")
    sheet = sheets.create_sheet(teacher, "Thursday")
    sheets.add_problem(teacher, sheet.pk, ProblemIn(task="solve", given="3x + 7 = 22"))
    made = services.make_class(teacher, ClassIn(name="Evening A", students=[{"name": name} for name in NAMES[:2]]))
    given = services.give(teacher, made.pk, services.SetIn(sheet=sheet.pk, day="2026-03-05"))
    file = tmp_path / name
    if content is None:
        with zipfile.ZipFile(file, "w") as archive:
            archive.writestr("Student A.chain", "task: solve\ngiven: 3x + 7 = 22\n---\n3x = 15\nx = 5\n")
            archive.writestr("student-b.chain", "task: solve\ngiven: 3x + 7 = 22\n---\n3x = 29\n")
    else:
        file.write_bytes(content)
    page.goto(re.sub(r"/$", "", page.url) + f"/sets/{given.pk}")
    page.get_by_role("button", name="Take in").click()
    page.locator(".take input[type=file]").set_input_files(file)
    expect(page.get_by_text("2 new, 0 changed")).to_be_visible()
    expect(page.locator(".take input[type=file]")).to_have_value("")
    page.locator(".take input[type=file]").set_input_files(file)
    expect(page.get_by_text("0 new, 0 changed, 2 that stood there already")).to_be_visible()
    assert [w.texts for w in StudentWorking.objects.order_by("paper__student__name")] == [
        ["3x = 15", "x = 5"],
        ["3x = 29"],
    ]
