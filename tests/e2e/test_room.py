"""A practice room with several browsers at once: students come in and write, the teacher sees it, pauses and nudges; a lost connection loses nothing."""

import re

import pytest
from playwright.sync_api import expect

from server.marking import services as marking
from server.marking.models import StudentWorking
from server.marking.schemas import ClassIn, SetIn
from server.sheets import services as sheets
from server.sheets.schemas import ProblemIn

SMALL = {"width": 360, "height": 740}


@pytest.fixture
def room(desk):
    """The teacher's page on an open room, its address and its code."""
    teacher = marking.User.objects.get(username="maren")
    sheet = sheets.create_sheet(teacher, "Thursday")
    for given in ("3x + 7 = 22", "x^2 - 5x + 6 = 0"):
        sheets.add_problem(teacher, sheet.pk, ProblemIn(task="solve", given=given))
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
    bo.get_by_label("Next line").fill("x = 29/3")
    bo.keyboard.press("Enter")
    expect(bo.get_by_text("A pause: Eyes to the board.").first).to_be_visible()
    teacher.get_by_role("button", name="go on").click()
    teacher.get_by_label("… for student 2").click()
    teacher.get_by_label("A nudge").fill("Mind the 7.")
    teacher.get_by_role("button", name="send it").click()
    expect(bo.get_by_text("Your teacher: Mind the 7.")).to_be_visible(timeout=15_000)

    teacher.get_by_role("button", name="end it", exact=True).click()
    expect(ada.get_by_text("The room is closed.")).to_be_visible(timeout=15_000)
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
    assert (working.texts, working.in_room.revision) == (["3x = 15", "x = 5"], 2)
    page.reload()
    expect(page.get_by_text("That is it.")).to_be_visible()
    page.context.close()
