"""`./uchuu shots`: the pictures in docs/screenshots, taken of the real interface with the demo data."""

from __future__ import annotations

import os
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

from playwright.sync_api import Page, sync_playwright

from tools import front
from tools.installation import manage
from tools.postgres import free_port, throwaway
from tools.standins import stand_ins
from tools.start import DEMO_LOG_IN, gunicorn, wait_until_up
from tools.testing import settings_env
from tools.worker import Kept, begin

KEY = front.ROOT / "tests" / "corpus" / "key-as-pasted.txt"
FOLDER = front.ROOT / "docs" / "screenshots"
CODE, HOME_CODE, SECRET = "QUAY42", "HARBR7", "lantern"
"""Of the demo data: the room, the class at home, and what every student of it comes in with."""
CHROMIUM = [
    "--no-sandbox",
    "--disable-gpu",
    "--disable-quic",
    "--no-first-run",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
    "--host-resolver-rules=MAP * ~NOTFOUND , EXCLUDE localhost , EXCLUDE 127.0.0.1",
]


@contextmanager
def demo_server() -> Iterator[str]:
    """The address of a server with fresh demo data and a worker beside it, gone afterwards."""
    with throwaway() as url:
        os.environ.update(settings_env(url) | {"UCHUU_POOL": "1"})
        manage("upgrade")
        manage("demo", "--verbosity", "0")
        beside = [*stand_ins(), Kept(lambda: begin(url, FOLDER))]
        port = free_port()
        process = gunicorn(port, url, FOLDER)
        try:
            if not wait_until_up(port, process):
                raise RuntimeError("the server did not come up")
            yield f"http://127.0.0.1:{port}"
        finally:
            process.terminate()
            process.wait(timeout=15)
            for each in beside:
                each.end()


def main(arguments: list[str]) -> int:
    """Makes the pictures again; returns 0."""
    front.ensure_built()
    FOLDER.mkdir(parents=True, exist_ok=True)
    with demo_server() as base, sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path="/usr/bin/chromium", args=CHROMIUM)
        page = browser.new_page(viewport={"width": 1280, "height": 800}, reduced_motion="reduce")
        _tour(page, base, FOLDER)
        browser.close()
    return 0


def _look_through() -> None:
    """Does what waits in the queue: no worker runs beside this server."""
    manage("worker", "--until-empty", "--verbosity", "0")


def _tour(page: Page, base: str, folder: Path) -> None:
    def shot(name: str) -> None:
        page.wait_for_timeout(400)
        page.screenshot(path=folder / f"{name}.png")

    def desk(sheet: int, place: int) -> None:
        page.goto(f"{base}/sheets/{sheet}/{place}")
        page.get_by_label("Next line").wait_for()
        page.wait_for_timeout(300)

    page.goto(f"{base}/log-in")
    page.get_by_label("Log-in name").fill(DEMO_LOG_IN[0])
    page.get_by_label("Password").fill(DEMO_LOG_IN[1])
    page.keyboard.press("Enter")
    page.locator(".list li").first.wait_for()
    shot("sheets")
    desk(1, 6)
    for _ in range(3):
        page.keyboard.press("ArrowUp")
    shot("desk-broken")
    page.keyboard.press("Escape")
    page.goto(f"{base}/sheets/7/3/methods")
    page.get_by_role("article").nth(1).wait_for()
    page.keyboard.press("ArrowRight")
    shot("methods")
    page.goto(f"{base}/sheets/7/2/board")
    page.get_by_label("Forward").wait_for()
    page.wait_for_timeout(500)
    for _ in range(3):
        page.keyboard.press("PageDown")
    page.keyboard.press("w")
    page.keyboard.type("x = 4 + √11")
    page.keyboard.press("Enter")
    page.get_by_text("breaks").wait_for()
    shot("board-wrong-path")
    page.goto(f"{base}/sheets/6/2/graph")
    page.get_by_role("img", name="Graph").wait_for()
    shot("graph")
    page.goto(f"{base}/sheets/1/5/anticipate")
    page.get_by_label("How it comes about").wait_for()
    shot("anticipate")
    page.goto(f"{base}/keys")
    page.get_by_label("The key, pasted or typed").fill(KEY.read_text(encoding="utf-8"))
    page.keyboard.press("Control+Enter")
    page.get_by_text("to look at").wait_for()
    shot("proof-read")
    page.goto(f"{base}/build")
    page.get_by_role("searchbox").wait_for()
    page.wait_for_timeout(300)
    for words in ("quad", "rational eq"):
        page.keyboard.type(words)
        page.keyboard.press("Enter")
    page.keyboard.press("Enter")
    page.get_by_label("Title of the sheet").wait_for()
    for key in ("k", "ArrowDown", "ArrowDown", "ArrowDown"):
        page.keyboard.press(key)
    shot("build")
    page.goto(f"{base}/bank")
    page.get_by_text("still being looked through").wait_for()
    _look_through()
    page.goto(f"{base}/bank")
    page.get_by_label("Where it goes wrong").select_option(index=2)
    page.wait_for_timeout(900)
    page.get_by_role("searchbox").press("ArrowDown")
    for key in (" ", "ArrowDown", "ArrowDown", " "):
        page.keyboard.press(key)
    page.wait_for_timeout(600)
    shot("bank")
    page.goto(f"{base}/sets/1")
    page.locator("td .proposed").first.wait_for()
    page.locator("td").first.click()
    for key in (" ", " ", "a", "e", "Enter"):
        page.keyboard.press(key)
        page.wait_for_timeout(500)
    shot("mark")
    page.goto(f"{base}/sets/1/pages")
    page.get_by_role("button", name="Iris Vane").first.click()
    page.locator(".entry .box").first.wait_for()
    page.wait_for_timeout(900)
    shot("pages")
    page.goto(f"{base}/classes/2/patterns")
    page.locator(".chart svg").last.wait_for()
    page.wait_for_timeout(600)
    shot("over-time")
    page.goto(f"{base}/sets/2/patterns")
    page.get_by_role("heading", name="Items").wait_for()
    shot("patterns")
    _room(page, base, folder)
    page.goto(f"{base}/sheets/3/print")
    page.get_by_role("radio", name="Worked key").check()
    page.get_by_role("radio", name="2", exact=True).check()
    page.get_by_text("page 1 of 1").wait_for()
    shot("print")
    page.goto(f"{base}/people")
    page.get_by_role("table").wait_for()
    shot("people")


def _room(page: Page, base: str, folder: Path) -> None:
    """The room of the demo data, whose class is at work: the teacher's view, a vote on the board, a telephone in the
    room and one at home."""
    browser = page.context.browser
    assert browser is not None

    def telephone(code: str, name: str) -> Page:
        student = browser.new_page(viewport={"width": 390, "height": 800}, reduced_motion="reduce")
        student.goto(f"{base}/room")
        for label, text in (("Code of the room", code), ("Your name", name), ("A secret of your own", SECRET)):
            student.get_by_label(label).fill(text)
        student.keyboard.press("Enter")
        return student

    def given_set() -> int:
        classes = page.request.get(f"{base}/api/classes").json()
        return int(next(each for each in classes if each["name"] == "Morning C")["sets"][0]["id"])

    page.goto(f"{base}/sets/{given_set()}/room")
    page.locator(".cell").first.wait_for()
    page.wait_for_timeout(600)
    page.screenshot(path=folder / "room.png")
    student = telephone(CODE, "Vito Sands")
    student.get_by_label("1,").click()
    student.get_by_text("look again").wait_for()
    student.wait_for_timeout(600)
    student.screenshot(path=folder / "room-student.png")
    student.close()
    page.locator(".cell").nth(3).click()
    page.get_by_label("Forward").wait_for()
    page.keyboard.press("q")
    page.get_by_text("0 of 5 have answered").wait_for()
    for name, line in (("Ulla Reed", 0), ("Wim Karst", 0), ("Vito Sands", 1), ("Xenia Dell", 0)):
        student = telephone(CODE, name)
        student.get_by_label("Asked from the board").get_by_role("button").nth(line).click()
        student.get_by_text("Your answer is there.").wait_for()
        student.close()
    page.get_by_text("4 of 5 have answered").wait_for()
    page.keyboard.press("v")
    page.wait_for_timeout(400)
    page.screenshot(path=folder / "room-vote.png")
    page.keyboard.press("Escape")
    student = telephone(HOME_CODE, "Mads Orrin")
    student.get_by_label("Next line").wait_for()
    student.wait_for_timeout(900)
    student.screenshot(path=folder / "home.png")
    student.close()
