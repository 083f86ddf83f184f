"""For whoever comes with a screen reader, a telephone or a tablet: no screen and no state has a fault that axe
knows."""

import json
import os
import re

import pytest
from playwright.sync_api import expect

from server.marking.models import GivenSet
from server.room.models import Ask
from server.scans import services as scans
from server.scans.models import StudentPage
from server.scans.reader import PageReading
from server.sheets.models import Sheet
from standins.reader import read_page
from tests.demo import put_demo
from tests.e2e.test_journeys import line, new_problem, new_sheet
from tools.front import WEB

AXE = (WEB / "node_modules" / "axe-core" / "axe.min.js").read_text(encoding="utf-8")
WIDE, TABLET, NARROW = {"width": 1280, "height": 800}, {"width": 820, "height": 1100}, {"width": 360, "height": 740}
LONG = os.environ.get("UCHUU_LONG") == "1"
"""Colours are the same at every width; that they are is looked at in the long run."""
PARTS = 4
"""In how many tests the states are looked at, so that they are spread over processes."""


def faults(page, left_out=()):
    """What axe finds on the page as it stands: rule, element, and why."""
    if not page.evaluate("'axe' in window"):
        page.evaluate(AXE)
    rules = {rule: {"enabled": False} for rule in left_out}
    found = page.evaluate("(rules) => axe.run(document, {resultTypes: ['violations'], rules})", rules)
    return [
        f"{each['id']}: {node['html'][:160]} — {node['failureSummary']}"
        for each in found["violations"]
        for node in each["nodes"]
    ]


# counts what is asked of the server and not answered yet, and when that was last so
WATCH = """
window.__asked = 0; window.__quiet = performance.now();
const ask = window.fetch;
window.fetch = (...all) => {
  window.__asked += 1;
  return ask(...all).finally(() => { window.__asked -= 1; window.__quiet = performance.now(); });
};
"""
SETTLED = """() => document.readyState === 'complete' && window.__asked === 0
  && document.querySelector('main') && !document.querySelector('[aria-busy=true]')
  && performance.now() - window.__quiet > 120 && !document.getAnimations().some((each) => each.playState === 'running'
  && each.effect.getComputedTiming().iterations !== Infinity)"""


def settled(page):
    """Waits until a screen stands (its code comes after the frame), nothing is asked of the server, nothing moves."""
    page.wait_for_function(SETTLED)


@pytest.fixture
def demo(page, live_server, transactional_db, outside):
    put_demo()
    page.add_init_script(WATCH)
    page.goto(f"{live_server.url}/log-in")
    page.get_by_label("Log-in name").wait_for()
    assert faults(page) == []
    page.get_by_label("Log-in name").fill("demo")
    page.get_by_label("Password").fill("lantern-quay")
    page.keyboard.press("Enter")
    page.get_by_role("heading", name="Sheets").wait_for()
    yield page
    page.wait_for_load_state("networkidle")
    page.goto("about:blank")


def sheet(words):
    return Sheet.objects.get(title__contains=words).pk


STATES = [
    # a screen, and what is pressed or done there
    ("/", []),
    ("/", ["click:Give a copy of One problem, several ways"]),
    ("/", ["click:Delete One problem, several ways"]),
    ("/people", []),
    ("/account", []),
    ("/build", []),
    ("/build", ["type:linear", "Enter", "Enter"]),
    ("/bank", []),
    ("/classes", []),
    ("/sets/{set}", []),
    ("/sets/{set}", ["press:Take in", "press:scheme of number 2"]),
    ("/sets/{set}", ["cell:0", "Enter"]),
    ("/sets/{set}", ["cell:0", "t"]),
    ("/sets/{set}/patterns", []),
    ("/classes/{class}/patterns", []),
    ("/classes", ["press:Rosters from"]),
    ("/sets/{set}", ["press:Counts by", "press:Marks out"]),
    ("/sets/{set}/pages", []),
    ("/sets/{paged}/pages", ["press:Jory Pell 3"]),
    ("/sets/{paged}/pages", ["press:Iris Vane 3", "Enter"]),
    ("/sets/{set}/slips", []),
    ("/sets/{set}/room", []),
    ("/sets/{set}/room", ["press:Open it", "press:… for student 1"]),
    ("/room", []),
    ("/sheets/{review}/print", []),
    ("/keys", []),
    ("/keys", ["type:1) Solve 3x = 12\n   x = 5", "Control+Enter"]),
    ("/sheets/{review}", []),
    ("/sheets/{review}", ["ArrowUp"]),
    ("/sheets/{review}", ["ArrowUp", "Enter", "type: +"]),
    ("/sheets/{review}", ["Alt+h"]),
    ("/sheets/{review}", ["Alt+n"]),
    ("/sheets/{review}", ["Alt+c"]),
    ("/sheets/{review}", ["Alt+k"]),
    ("/sheets/{review}", ["F1"]),
    ("/sheets/{review}/1/anticipate", []),
    ("/sheets/{review}/1/methods", []),
    ("/sheets/{review}/1/board", []),
    ("/sheets/{functions}/1/graph", []),
    ("/sheets/{warm}", ["PageDown"]),
    ("/sheets/{warm}", ["press:by thumb"]),  # the last: it is remembered
]


def read_pages():
    """Has the pages of the demo data read; the set that they belong to."""
    for page in StudentPage.objects.filter(state="waiting"):
        found = PageReading.model_validate_json(json.dumps(read_page(bytes(page.original), page.media)))
        scans.put_down(page, found)
    return StudentPage.objects.first().given_set_id


@pytest.mark.parametrize("part", range(PARTS))
def test_axe_finds_nothing(demo, worker, live_server, part):
    """Every state at a desk and, as it stands, on a telephone."""
    page = demo
    set_id = GivenSet.objects.filter(school_class__name="Evening B").last().pk
    ids = {
        "set": set_id,
        "paged": read_pages(),
        "class": GivenSet.objects.get(pk=set_id).school_class_id,
        "review": sheet("review sheet"),
        "functions": sheet("features and graphs"),
        "warm": sheet("warm-up"),
    }
    found = []
    for path, acts in STATES[part::PARTS]:
        page.set_viewport_size(WIDE)
        page.goto(live_server.url + path.format(**ids))
        settled(page)
        for act in acts:
            kind, _, what = act.partition(":")
            if kind == "click":
                page.get_by_label(what).click()
            elif kind == "press":
                page.get_by_role("button", name=what).click()
            elif kind == "cell":
                page.locator("td").nth(int(what)).click()
            elif kind == "type":
                page.keyboard.type(what)
            elif kind == "wait":
                page.get_by_text(what).first.wait_for()
            else:
                page.keyboard.press(act)
            settled(page)
        for size, left_out in ((WIDE, ()), (NARROW, () if LONG else ("color-contrast",))):
            page.set_viewport_size(size)
            settled(page)
            found += [f"{path} {acts} {size['width']}: {fault}" for fault in faults(page, left_out)]
    assert found == [], "\n".join(found)


@pytest.mark.parametrize("size", [None, NARROW], ids=["desk", "telephone"])
def test_axe_finds_nothing_where_students_work(demo, live_server, size):
    page = demo
    if size:
        page.set_viewport_size(size)
    found = []

    def look(where):
        settled(page)
        assert page.evaluate("document.documentElement.scrollWidth <= innerWidth"), where
        found.extend(f"{where}: {fault}" for fault in faults(page))

    def come_in(code, name):
        page.goto(f"{live_server.url}/room")
        page.get_by_label("Code of the room").fill(code)
        page.get_by_label("Your name").fill(name)
        page.get_by_label("A secret of your own").fill("lantern")
        page.keyboard.press("Enter")

    given_set = GivenSet.objects.get(school_class__name="Morning C")
    page.goto(f"{live_server.url}/sets/{given_set.pk}/room")
    page.locator(".cell").nth(3).click()
    page.keyboard.press("v")
    look("a working on the board")
    page.keyboard.press("q")
    page.get_by_text("0 of 5 have answered").wait_for()
    look("a vote on the board")
    ask = Ask.objects.get()  # leaving the board ends it
    page.goto(f"{live_server.url}/room")
    Ask.objects.update_or_create(
        room=ask.room, defaults={"kind": "vote", "item": ask.item, "lines": ask.lines, "right": 1}
    )
    come_in("QUAY42", "Vito Sands")
    for number in range(1, 8):
        page.locator(".place").nth(number - 1).click()
        look(f"problem {number}")
    page.get_by_role("button", name="leave").click()
    come_in("HARBR7", "Mads Orrin")
    page.get_by_label("Next line").wait_for()
    look("at home")
    assert found == [], "\n".join(found)


@pytest.mark.parametrize("size", [NARROW, TABLET], ids=["telephone", "tablet"])
def test_every_face_and_setting_is_reached_by_finger(demo, live_server, size):
    page = demo
    page.set_viewport_size(size)
    page.goto(f"{live_server.url}/sheets/{sheet('review sheet')}")
    page.get_by_label("Next line").wait_for()
    assert page.evaluate("document.documentElement.scrollWidth <= innerWidth"), "the page is wider than the screen"
    for words in ("Anticipate", "Methods", "Work"):
        page.get_by_role("navigation", name="Faces of this problem").get_by_role("button", name=words).click()
        expect(page.get_by_role("button", name=words, exact=True).first).to_be_in_viewport()
        assert page.evaluate("document.documentElement.scrollWidth <= innerWidth"), words
    page.get_by_role("button", name="More").click()
    for words in ("conventions", "taught", "Keys"):
        expect(page.get_by_role("button", name=words).last).to_be_in_viewport()
    page.get_by_role("link", name="Tavi Orsel").click()
    expect(page.get_by_role("heading", name="Your account")).to_be_visible()


def test_a_line_is_changed_and_removed_by_finger(demo, live_server):
    page = demo
    page.set_viewport_size(NARROW)
    page.goto(f"{live_server.url}/sheets/{sheet('review sheet')}")
    page.locator('[data-bead="3"]').click()
    page.get_by_role("button", name="Edit", exact=True).click()
    field = page.get_by_label("Edit line 3")
    expect(field).to_be_focused()
    field.fill("x = 5 or x = -1")
    page.keyboard.press("Enter")
    expect(page.locator('[data-bead="3"]')).to_have_attribute("aria-label", re.compile("breaks"))
    page.locator('[data-bead="3"]').click()
    page.get_by_role("button", name="Remove").click()
    expect(page.locator('[data-bead="3"]')).to_have_count(0)


# a fraction is raised by styles, which the page's policy takes from a script only
STYLED = """() => {
  const shown = document.querySelector('math-field')?.shadowRoot
  return shown && !shown.querySelector('[data-style]')
    && [...shown.querySelectorAll('[part=content] [style]')].some((each) => each.style.length > 0)
}"""


def test_a_working_is_written_by_thumb(desk):
    """The mathematics field and its palette, on a telephone, give the lines that are typed elsewhere."""
    page = desk
    new_sheet(page, "By thumb")
    new_problem(page, "Solve", "x/2 = 3/4")
    page.set_viewport_size({"width": 360, "height": 740})
    page.get_by_role("button", name="by thumb").click()
    palette = page.get_by_role("group", name="Palette")
    expect(palette).to_be_visible()

    def press(*keys):
        for name in keys:
            palette.get_by_role("button", name=name, exact=True).click()

    press("x", "equals", "3", "fraction", "2")
    page.wait_for_function(STYLED)
    press("commit the line")
    expect(line(page, 1)).to_contain_text("holds")
    expect(page.get_by_role("listitem", name="Line 1: x = 3/2. holds.")).to_be_visible()
    press("x", "equals", "root", "9", "to the right", "divided by", "2", "commit the line")
    expect(page.get_by_role("listitem", name="Line 2: x = √9 ÷ 2. holds.")).to_be_visible()
    page.get_by_role("button", name="plain notation").click()
    expect(page.get_by_label("Next line")).to_be_focused()
