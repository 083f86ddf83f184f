"""A practice room with several browsers at once: students come in and write, the teacher sees it, pauses and nudges; a
lost connection loses nothing."""

import re

import pytest
from django.utils import timezone
from playwright.sync_api import expect

from algebra import Working, key_lines, work
from server.marking import forms, pile
from server.marking import services as marking
from server.marking.models import SetItem, StudentWorking
from server.marking.schemas import ClassIn, SetIn
from server.room.models import DueSlip, HomeProblem
from server.sheets import services as sheets
from server.sheets.schemas import ProblemIn

SMALL = {"width": 360, "height": 740}
PROBLEMS = [
    ("work", "solve", "3x + 7 = 22"),
    ("work", "solve", "x^2 - 5x + 6 = 0"),
    ("choose", "simplify", "√50 + √8"),
    ("mend", "solve", "3(x - 2) = 12"),
    ("fill", "solve", "2x + 5 = 17"),
    ("way", "solve", "x^2 = 9x"),
    ("claim", "expand", "(a + b)^2"),
    ("work", "analyze", "(x^2-x-6)/(x^2-9)"),
]


@pytest.fixture
def room(desk):
    """The teacher's page on an open room, its address and its code."""
    teacher = marking.User.objects.get(username="maren")
    sheet = sheets.create_sheet(teacher, "Thursday")
    for form, task, given in PROBLEMS:
        sheets.add_problem(teacher, sheet.pk, ProblemIn(task=task, given=given, form=form))
    made = marking.make_class(
        teacher, ClassIn(name="Evening A", students=[{"name": name} for name in ("Ada Quill", "Bo Tarn", "Cleo Marsh")])
    )
    given = marking.give(teacher, made.pk, SetIn(sheet=sheet.pk, day="2026-03-05", scheme="answer"))
    base = re.sub(r"/$", "", desk.url)
    desk.goto(f"{base}/sets/{given.pk}/room")
    desk.get_by_label("the place and a cue").check()
    desk.get_by_label("hints for each problem").fill("2")
    desk.get_by_role("button", name="Open it").click()
    expect(desk.locator(".code")).to_be_visible()
    return desk, base, desk.locator(".code").text_content()


def student(browser, base, code, name):
    """A student's telephone, in the room."""
    page = browser.new_context(viewport=SMALL).new_page()
    page.goto(f"{base}/room")
    page.get_by_label("Code of the room").fill(code.lower())
    page.get_by_label("Your name").fill(name)
    page.get_by_label("A secret of your own").fill("river7")
    page.keyboard.press("Enter")
    expect(page.get_by_role("heading", name="Thursday")).to_be_visible()
    return page


def write(page, *lines):
    for line in lines:
        count = page.locator(".chain li").count()
        page.get_by_label("Next line").fill(line)
        page.keyboard.press("Enter")
        expect(page.locator(".chain li")).to_have_count(count + 1)


def test_a_class_works_in_its_room_and_the_teacher_sees_it(room, browser):
    teacher, base, code = room
    ada, bo = (student(browser, base, code, name) for name in ("Ada Quill", "Bo Tarn"))
    write(ada, "3x = 15", "x = 5")
    expect(ada.get_by_text("That is it.")).to_be_visible()
    write(bo, "3x = 29")
    expect(bo.locator(".chain li").first).to_contain_text("look again")
    assert bo.evaluate("document.documentElement.scrollWidth <= innerWidth")
    assert "29" not in ada.locator("main").inner_text() and "Ada" not in bo.locator("main").inner_text()

    rows = teacher.locator("tbody tr")
    expect(rows.nth(1)).to_contain_text("line 1", timeout=5_000)
    expect(rows.nth(0)).to_contain_text("student 1")
    expect(rows.nth(2)).to_contain_text("not here")
    teacher.get_by_label("Sentence of the pause").fill("Eyes to the board.")
    teacher.get_by_role("button", name="pause all").click()
    expect(teacher.get_by_text("Paused: Eyes to the board.")).to_be_visible()
    bo.get_by_label("Next line").fill("x = 29/3")
    bo.keyboard.press("Enter")
    expect(bo.get_by_text("A pause: Eyes to the board.").first).to_be_visible()
    teacher.get_by_role("button", name="go on").click()
    teacher.get_by_label("… for student 2").click()
    teacher.get_by_label("A nudge").fill("Mind the 7.")
    teacher.get_by_role("button", name="send it").click()
    expect(bo.get_by_text("Your teacher: Mind the 7.")).to_be_visible(timeout=45_000)

    teacher.get_by_role("button", name="end it", exact=True).click()
    expect(ada.get_by_text("The room is closed.")).to_be_visible(timeout=45_000)
    teacher.get_by_role("link", name="Marking table").click()
    expect(teacher.locator("td .proposed")).to_have_count(2)
    for page in (ada, bo):
        page.context.close()


def test_a_lost_connection_loses_and_doubles_nothing(room, browser):
    _, base, code = room
    page = student(browser, base, code, "Cleo Marsh")
    dropped = []

    def drop(route):
        """Lets the first request through and drops its answer, refuses the second, then lets all through."""
        if route.request.method == "PUT" and len(dropped) < 2:
            dropped.append(route.request.url)
            if len(dropped) == 1:
                route.fetch()
            route.abort()
        else:
            route.continue_()

    page.route("**/api/room/items/*", drop)
    write(page, "3x = 15")
    expect(page.get_by_text("What you write is kept here")).to_be_visible()
    write(page, "x = 5")
    expect(page.get_by_text("That is it.")).to_be_visible(timeout=20_000)
    assert len(dropped) == 2
    working = StudentWorking.objects.get()
    assert (working.texts, working.revision) == (["3x = 15", "x = 5"], 2)
    page.reload()
    expect(page.get_by_text("That is it.")).to_be_visible()
    page.context.close()


def test_a_reload_without_a_connection_goes_on(room, browser):
    _, base, code = room
    page = student(browser, base, code, "Cleo Marsh")
    write(page, "3x = 15")
    page.evaluate("navigator.serviceWorker.ready")
    page.wait_for_function("caches.open('uchuu-shell-1').then((shell) => shell.match('/')).then(Boolean)")
    page.wait_for_load_state("networkidle")
    page.context.set_offline(True)
    page.reload()
    expect(page.locator(".chain li")).to_have_count(1)
    write(page, "x = 5")
    expect(page.get_by_text("What you write is kept here")).to_be_visible()
    page.reload()  # whether it was sent by now is not asked: the browser's own switch leaks while a page loads
    expect(page.locator(".chain li")).to_have_count(2)
    page.context.set_offline(False)
    expect(page.get_by_text("That is it.")).to_be_visible(timeout=20_000)
    assert StudentWorking.objects.get().texts == ["3x = 15", "x = 5"]
    page.context.close()


def key_of(form):
    """The right answer to the item of this form."""
    item = SetItem.objects.select_related("given_set").get(form=form)
    return list(key_lines(forms.made_item(item, pile.problem_of(item))))


def test_every_form_is_answered_by_keyboard_on_a_telephone(room, browser):
    _, base, code = room
    page = student(browser, base, code, "Ada Quill")

    def go_to(number):
        page.locator(".place").nth(number - 1).focus()
        page.keyboard.press("Enter")
        expect(page.get_by_role("region", name=f"Problem {number}")).to_be_visible()
        assert page.evaluate("document.documentElement.scrollWidth <= innerWidth")

    def is_done(number):
        expect(page.locator(".place").nth(number - 1)).to_have_attribute("aria-label", f"{number}, done")

    go_to(3)
    page.get_by_role("radio").first.focus()
    page.keyboard.press(key_of("choose")[0])
    page.keyboard.press("Enter")
    is_done(3)
    go_to(4)
    place, right = key_of("mend")
    page.get_by_role("radio").first.focus()
    page.keyboard.press(place[-1])
    page.get_by_label("The right line").fill(right)
    page.keyboard.press("Enter")
    is_done(4)
    go_to(5)
    page.get_by_label("Blank 1").focus()
    for value in key_of("fill"):
        page.keyboard.type(value)
        page.keyboard.press("Enter")
    is_done(5)
    go_to(6)
    page.get_by_role("radio", name=key_of("way")[0]).check()
    page.keyboard.press("Enter")
    is_done(6)
    go_to(7)
    page.get_by_role("radio").first.focus()
    page.keyboard.press("1" if key_of("claim") == ["true"] else "2")
    for each in key_of("claim")[1:]:
        letter, value = each.split(" = ")
        page.get_by_label(f"A number for {letter}").fill(value)
    page.get_by_role("button", name="This is my answer").click()
    is_done(7)
    go_to(8)
    page.get_by_role("application").focus()
    for name in ("ArrowRight", "ArrowRight", "ArrowRight", "6", *["ArrowUp"] * 5, "o"):
        page.keyboard.press(name)
    expect(page.locator(".chain li")).to_have_count(1)
    expect(page.locator(".chain li").first).to_contain_text("hole")
    expect(page.locator(".chain li").first).not_to_contain_text("kept")
    assert StudentWorking.objects.get(item__position=7).texts == ["hole: (3, 5/6)"]
    page.context.close()


def test_the_board_shows_a_working_without_a_name_and_the_room_votes(room, browser):
    teacher, base, code = room
    ada, bo = (student(browser, base, code, name) for name in ("Ada Quill", "Bo Tarn"))
    write(ada, "3x = 29", "x = 29/3")
    teacher.get_by_role("button", name="student 1, 1: look at line 1").click()
    board = teacher.get_by_role("region", name="The room on the board")
    expect(board.locator(".lines li")).to_have_count(1)
    assert "Ada" not in board.inner_text()
    teacher.keyboard.press("q")
    bo.locator("h1").click()  # who takes the device up sees it at once
    bo.get_by_label("Asked from the board").get_by_role("button").first.click(timeout=45_000)
    expect(board.get_by_text("1 of 2 have answered")).to_be_visible()
    expect(board.get_by_text("this one breaks")).to_be_hidden()
    teacher.keyboard.press("v")
    expect(board.get_by_text("this one breaks")).to_be_visible()
    teacher.keyboard.press("t")
    expect(bo.get_by_label("Your next line")).to_be_visible(timeout=45_000)
    bo.get_by_label("Your next line").fill("3x = 15")
    bo.keyboard.press("Enter")
    expect(board.locator(".tries li")).to_have_count(1)
    expect(board.locator(".tries .said")).to_have_count(0)
    teacher.keyboard.press("v")
    expect(board.locator(".tries .said")).to_contain_text("holds")
    teacher.keyboard.press("Escape")
    expect(bo.get_by_label("Asked from the board")).to_be_hidden(timeout=45_000)
    for page in (ada, bo):
        page.context.close()


def test_what_comes_again_is_practised_from_home(room, browser):
    teacher, base, code = room
    page = student(browser, base, code, "Ada Quill")
    write(page, "3x = 29")
    teacher.get_by_role("button", name="a code from home").click()
    home = teacher.get_by_label("Code from home").text_content()
    teacher.get_by_role("button", name="end it", exact=True).click()
    expect(page.get_by_text("The room is closed.")).to_be_visible(timeout=45_000)
    page.get_by_role("button", name="leave").click()
    page.get_by_label("Code of the room").fill(home)
    page.get_by_label("Your name").fill("Ada Quill")
    page.get_by_label("A secret of your own").fill("river7")
    page.keyboard.press("Enter")
    expect(page.get_by_role("region", name="Errors")).to_contain_text("again tomorrow")
    DueSlip.objects.update(due=timezone.localdate())
    page.reload()
    expect(page.get_by_label("Next line")).to_be_visible()
    problem = HomeProblem.objects.get()
    for line in work(Working(problem.task, problem.given, ())).lines:
        page.get_by_label("Next line").fill(line.partition("|")[0])
        page.keyboard.press("Enter")
    expect(page.get_by_text("That is it.")).to_be_visible()
    page.get_by_role("button", name="what is next?").click()
    expect(page.get_by_text("again in 3 days")).to_be_visible()
    page.context.close()
