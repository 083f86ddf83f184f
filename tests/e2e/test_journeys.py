"""Journeys of a teacher through the real interface, by keyboard."""

from playwright.sync_api import Page, expect


def new_sheet(page: Page, title: str) -> None:
    page.get_by_label("Title of a new sheet").fill(title)
    page.keyboard.press("Enter")
    page.get_by_text("This sheet is empty.").wait_for()


def new_problem(page: Page, task: str, given: str) -> None:
    page.keyboard.press("Alt+n")
    field = page.get_by_label("The given", exact=True)
    expect(field).to_be_focused()
    page.get_by_role("radiogroup", name="Task").get_by_text(task, exact=True).click()
    field.fill(given)
    page.keyboard.press("Enter")
    expect(page.get_by_label("Next line")).to_be_focused()


def write(page: Page, *lines: str) -> None:
    for line in lines:
        page.keyboard.type(line)
        page.keyboard.press("Enter")


def line(page: Page, number: int):
    return page.locator(f'[data-bead="{number}"]')


def test_an_equation_is_solved_with_one_mistake_that_is_named_and_mended(desk):
    page = desk
    new_sheet(page, "Review")
    new_problem(page, "Solve", "2(x - 1) = 4")
    write(page, "2x - 1 = 4", "2x = 5")
    expect(line(page, 1)).to_contain_text("breaks")
    expect(line(page, 2)).to_contain_text("holds")
    page.keyboard.press("ArrowUp")
    page.keyboard.press("ArrowUp")
    notes = page.get_by_label("What is to be said of this line")
    expect(notes).to_contain_text("breaks")
    expect(notes).to_contain_text("x = 3 solves the line before (4 = 4), but not this line (5 ≠ 4).")
    page.keyboard.press("Enter")
    editor = page.get_by_label("Edit line 1")
    expect(editor).to_be_focused()
    editor.fill("2x - 2 = 4")
    page.keyboard.press("Enter")
    expect(line(page, 1)).not_to_contain_text("breaks")
    page.keyboard.press("ArrowUp")
    page.keyboard.press("Delete")
    expect(page.locator('[data-bead="2"]')).to_have_count(0)
    page.keyboard.press("Escape")
    write(page, "2x = 6   | +2", "x = 3")
    expect(page.get_by_text("The answer is right and finished.")).to_be_visible()
    expect(page.get_by_text("saved", exact=True)).to_be_visible()
    page.reload()
    expect(page.get_by_text("The answer is right and finished.")).to_be_visible()
    expect(page.locator("[data-bead][role=listitem][aria-label]")).to_have_count(3)
    expect(page.get_by_role("listitem", name="Line 3: x = 3. holds.")).to_be_visible()


def test_a_syntax_error_stands_at_its_place_and_nothing_is_lost(desk):
    page = desk
    new_sheet(page, "Errors")
    new_problem(page, "Simplify", "(x^2 - 9)/(x + 3)")
    editor = page.get_by_label("Next line")
    page.keyboard.type("(x - 3")
    expect(page.get_by_role("status").get_by_text("“)” is missing")).to_be_visible()
    page.keyboard.press("Enter")
    expect(editor).to_have_value("(x - 3")
    page.reload()
    expect(editor).to_have_value("(x - 3")
    expect(editor).to_be_focused()
    page.keyboard.press("End")
    page.keyboard.type(")")
    page.keyboard.press("Enter")
    expect(page.get_by_text("The answer is right and finished.")).to_be_visible()
    expect(page.get_by_text("excluded x ≠ -3")).to_be_visible()


def test_lines_are_inserted_moved_undone_and_redone_by_key(desk):
    page = desk
    new_sheet(page, "Keys")
    new_problem(page, "Solve", "3(x - 2) = 2x + 5")
    write(page, "x - 6 = 5", "x = 11")
    page.keyboard.press("ArrowUp")
    page.keyboard.press("ArrowUp")
    page.keyboard.press("Insert")
    expect(page.get_by_label("New line before line 1")).to_be_focused()
    write(page, "3x - 6 = 2x + 5")
    page.keyboard.press("Escape")
    expect(page.locator("[data-bead][role=listitem][aria-label]")).to_have_count(3)
    expect(line(page, 1)).to_have_attribute("aria-label", "Line 1: 3x - 6 = 2x + 5. holds. ")
    page.keyboard.press("Control+z")
    expect(page.locator("[data-bead][role=listitem][aria-label]")).to_have_count(2)
    page.keyboard.press("Control+y")
    expect(page.locator("[data-bead][role=listitem][aria-label]")).to_have_count(3)
    page.keyboard.press("ArrowUp")
    page.keyboard.press("Alt+ArrowUp")
    expect(line(page, 2)).to_have_attribute("aria-label", "Line 2: x = 11. holds. ")
    page.keyboard.press("?")
    expect(page.get_by_role("dialog")).to_contain_text("Keys and notation")


def test_a_lost_connection_is_said_and_caught_up(desk):
    page = desk
    new_sheet(page, "Storm")
    new_problem(page, "Solve", "x + 8 = 3")
    page.context.set_offline(True)
    write(page, "x = 3 - 8")
    expect(page.get_by_text("No connection")).to_be_visible()
    page.context.set_offline(False)
    expect(page.get_by_text("saved", exact=True)).to_be_visible(timeout=10_000)
    page.wait_for_function("caches.open('uchuu-shell-1').then((shell) => shell.match('/')).then(Boolean)")
    page.wait_for_load_state("networkidle")
    page.context.set_offline(True)
    page.reload()  # the open sheet stands as it was, and is written on
    expect(line(page, 1)).to_contain_text("8")
    write(page, "x = -5")
    expect(page.get_by_text("No connection")).to_be_visible()
    page.context.set_offline(False)
    expect(page.get_by_text("saved", exact=True)).to_be_visible(timeout=10_000)
    page.reload()
    expect(line(page, 1)).to_contain_text("holds")
    expect(line(page, 2)).to_contain_text("holds")


def test_two_windows_do_not_overwrite_each_other_silently(desk):
    page = desk
    new_sheet(page, "Two windows")
    new_problem(page, "Solve", "x + 8 = 3")
    other = page.context.new_page()
    other.goto(page.url)
    expect(other.get_by_label("Next line")).to_be_focused()
    write(page, "x = -5")
    expect(page.get_by_text("saved", exact=True)).to_be_visible()
    write(other, "x = 11")
    expect(other.get_by_text("This working was changed in another window.")).to_be_visible()
    other.get_by_role("button", name="Take the other").click()
    expect(other.get_by_role("listitem", name="Line 1: x = -5. holds.")).to_be_visible()
    other.close()


def test_a_convention_of_the_sheet_decides_and_is_kept(desk):
    page = desk
    new_sheet(page, "Conventions")
    new_problem(page, "Simplify", "√(x^2)")
    write(page, "x")
    expect(line(page, 1)).to_contain_text("breaks")
    notes = page.get_by_label("What is to be said of this line")
    expect(notes).to_contain_text("Try x = -1")
    page.keyboard.press("Alt+c")
    page.get_by_label("not negative: √x² is x").check()
    page.keyboard.press("Escape")
    expect(page.get_by_text("The answer is right and finished.")).to_be_visible()
    expect(page.get_by_text("1 convention set")).to_be_visible()
    page.reload()
    expect(page.get_by_text("The answer is right and finished.")).to_be_visible()


def test_a_radical_equation_is_widened_checked_and_settled(desk):
    page = desk
    new_sheet(page, "Radicals")
    new_problem(page, "Solve", "sqrt(x+6) = x")
    write(page, "x + 6 = x^2 | square", "(x-3)(x+2) = 0", "x = 3 or x = -2")
    expect(line(page, 1)).to_contain_text("widens")
    notes = page.get_by_label("What is to be said of this line")
    expect(notes).to_contain_text("Checks owed")
    write(page, "check x = 3: 3 = 3", "check x = -2: 2 ≠ -2", "x = 3")
    expect(line(page, 6)).to_contain_text("settles")
    expect(page.get_by_text("The answer is right and finished.")).to_be_visible()
    expect(notes).not_to_contain_text("Checks owed")


def test_complex_solutions_and_a_letter_to_solve_for_are_chosen_with_the_problem(desk):
    page = desk
    new_sheet(page, "More numbers")
    page.keyboard.press("Alt+n")
    field = page.get_by_label("The given", exact=True)
    expect(field).to_be_focused()
    field.fill("x^2 = -9")
    page.get_by_text("complex", exact=True).click()
    field.press("Enter")
    expect(page.get_by_label("Next line")).to_be_focused()
    write(page, "x = +-3i")
    expect(line(page, 1)).to_contain_text("holds")
    page.keyboard.press("Alt+n")
    expect(field).to_be_focused()
    field.fill("A = s^2")
    field.press("Enter")
    expect(page.get_by_role("status").get_by_text("Choose the letter to solve for.")).to_be_visible()
    page.get_by_role("radiogroup", name="Solve for").get_by_text("s", exact=True).click()
    field.press("Enter")
    expect(page.get_by_role("heading", name="Solve for s")).to_be_visible()
    expect(page.get_by_label("Next line")).to_be_focused()
    write(page, "s = +-√A")
    expect(page.get_by_label("What is to be said of this line")).to_contain_text("A ≥ 0")


def test_problems_are_duplicated_reordered_and_deleted(desk):
    page = desk
    new_sheet(page, "Order")
    new_problem(page, "Solve", "x + 1 = 2")
    new_problem(page, "Solve", "x + 2 = 4")
    page.keyboard.press("Alt+d")
    expect(page.get_by_text("problem 3 of 3")).to_be_visible()
    expect(page.locator("main[aria-busy=false]")).to_be_visible()  # the copy is open, and has taken the focus
    expect(page.get_by_label("Next line")).to_be_focused()
    page.get_by_role("button", name="Problem 1: solve x + 1 = 2").focus()
    page.keyboard.press("Alt+ArrowDown")
    expect(page.get_by_role("button", name="Problem 2: solve x + 1 = 2")).to_be_visible()
    page.get_by_role("button", name="Problem 2: solve x + 1 = 2").click()
    page.get_by_role("button", name="Delete", exact=True).click()
    page.get_by_role("button", name="Delete it").click()
    expect(page.get_by_role("button", name="Problem 2: solve x + 2 = 4")).to_be_visible()
    expect(page.get_by_role("button", name="Problem 3")).to_have_count(0)


def test_the_methods_stand_side_by_side_and_one_goes_to_the_paper(desk):
    page = desk
    new_sheet(page, "Ways")
    new_problem(page, "Solve", "x^2 - 4x - 7 = 0")
    page.keyboard.press("Alt+m")
    columns = page.get_by_role("article")
    expect(columns).to_have_count(2)
    expect(columns.first).to_contain_text("6 lines")
    expect(columns.first).to_contain_text("difficulty")
    page.keyboard.press("ArrowDown")
    expect(page.get_by_label("What is to be said of this step")).to_contain_text("Half of -4 is -2")
    page.keyboard.press("ArrowRight")
    expect(page.get_by_label("What is to be said of this step")).to_contain_text("quadratic formula")
    page.get_by_text("every operation").click()
    expect(columns.nth(1)).to_contain_text("lines")
    page.get_by_label("Methods side by side").focus()
    page.keyboard.press("Enter")
    expect(page.get_by_text("The answer is right and finished.")).to_be_visible()
    expect(line(page, 1)).to_be_visible()


def test_the_next_step_is_told_in_three_stages_and_then_written(desk):
    page = desk
    new_sheet(page, "Hints")
    new_problem(page, "Solve", "3(x - 2) + 4 = 5x - 8")
    page.keyboard.press("Alt+h")
    card = page.get_by_label("The next step")
    expect(card).to_contain_text("Look at the brackets.")
    page.keyboard.press("Alt+h")
    expect(card).to_contain_text("Multiply out the brackets.")
    page.keyboard.press("Alt+h")
    page.keyboard.press("Alt+h")
    expect(line(page, 1)).to_be_visible()
    write(page, "3x - 2 = 5x - 9")
    page.keyboard.press("Alt+h")
    expect(card).to_contain_text("Look at line 2 first")


def test_the_board_shows_a_line_at_a_time_with_a_wrong_path_and_goes_on_offline(desk):
    page = desk
    new_sheet(page, "Board")
    new_problem(page, "Simplify", "(x^2 - 9)/(x^2 + x - 6)")
    new_problem(page, "Simplify", "√8")  # a neighbour, to which the keys of the board must not lead
    page.keyboard.press("PageUp")
    page.get_by_text("problem 1 of 2").wait_for()
    page.keyboard.press("Alt+b")
    board = page.get_by_role("region", name="Board")
    expect(board).to_contain_text("0 / 2")
    page.keyboard.press("p")
    page.keyboard.press("PageDown")
    expect(board).to_contain_text("Pause and try")
    page.keyboard.press("PageDown")
    expect(board).to_contain_text("1 / 2")
    page.keyboard.press("w")
    page.keyboard.type("x^2 - 9")
    page.keyboard.press("Enter")
    expect(board).to_contain_text("breaks")
    page.keyboard.press("Escape")
    expect(board).not_to_contain_text("breaks")
    page.context.set_offline(True)
    page.keyboard.press("ArrowRight")
    page.keyboard.press("ArrowRight")
    expect(board).to_contain_text("2 / 2")
    expect(board.locator("[class*=mark-cancel-0]")).to_have_count(2)
    page.keyboard.press("ArrowLeft")
    expect(board).to_contain_text("1 / 2")
    page.context.set_offline(False)
    page.keyboard.press("Escape")
    expect(page.get_by_label("Next line")).to_be_visible()


def test_a_function_is_analysed_entry_by_entry_and_drawn(desk):
    page = desk
    new_sheet(page, "Functions")
    new_problem(page, "Find all features", "(x^2 - 4)/(x^2 - x - 2)")
    write(page, "x != -1, 2", "hole: (2, 4/3)", "vertical asymptotes: x = -1, 2")
    expect(line(page, 3)).to_contain_text("breaks")
    page.keyboard.press("Alt+g")
    expect(page.get_by_role("img", name="Graph")).to_be_visible()
    expect(page.get_by_label("Features", exact=True)).to_contain_text("(2, 4/3)")
    page.get_by_role("img", name="Graph").focus()
    page.keyboard.press("+")
    page.keyboard.press("ArrowRight")
    expect(page.get_by_role("status").filter(has_text="x ≈")).to_be_visible()


def test_what_the_class_knows_and_own_words_reach_the_methods(desk):
    page = desk
    new_sheet(page, "Class")
    new_problem(page, "Solve", "x^2 - 6x - 16 = 0")
    page.keyboard.press("Alt+k")
    page.get_by_label("Find a rule or method").fill("quadratic formula")
    page.get_by_role("checkbox").first.click()
    page.keyboard.press("Escape")
    page.keyboard.press("Alt+m")
    expect(page.get_by_role("article", name="Quadratic formula")).to_contain_text("Not yet: Quadratic formula")
    expect(page.get_by_text("1 not taught yet")).to_be_visible()


def test_the_slip_behind_a_broken_line_is_named_and_the_right_line_put_in_its_place(desk):
    page = desk
    new_sheet(page, "Slips")
    new_problem(page, "Solve", "3(x - 2) = 12")
    write(page, "3x - 2 = 12")
    page.keyboard.press("ArrowUp")
    card = page.get_by_label("What was probably done")
    expect(card).to_contain_text("3 multiplies 2 as well as x")
    expect(card).to_contain_text("Draw an arrow to every term.")
    page.keyboard.press("Alt+u")
    expect(line(page, 1)).not_to_contain_text("breaks")
    expect(card).to_have_count(0)


def test_wrong_answers_are_foreseen_and_shown_on_the_board(desk):
    page = desk
    new_sheet(page, "Foreseen")
    new_problem(page, "Solve", "3(x - 2) + 4 = 5x - 8")
    page.keyboard.press("Alt+a")
    face = page.get_by_label("Wrong answers to expect")
    expect(face).to_contain_text("Multiplied the first term only")
    expect(page.get_by_label("How it comes about")).to_contain_text("parts from the right way")
    expect(face).to_contain_text("Multiple choice")
    page.get_by_role("button", name="Show on the board").click()
    board = page.get_by_role("region", name="Board")
    # the wrong line stands as a detour beside the right way, which goes on behind it
    expect(board).to_contain_text("breaks 3 multiplies 2 as well as x.")
    expect(board).to_contain_text("0 /")
    while board.locator(".detour").count():
        page.keyboard.press("PageDown")
    page.keyboard.press("PageDown")
    expect(board).to_contain_text("1 /")
    expect(board).not_to_contain_text("breaks")


def test_a_pasted_key_is_proofread_and_becomes_a_sheet(desk):
    page = desk
    page.get_by_role("link", name="Proof-read a key").click()
    field = page.get_by_label("The key, pasted or typed")
    expect(field).to_be_focused()
    field.fill("Notes of the evening\n1) Solve 2(x-1) = 4\n2x - 1 = 4\nx = 5/2\n2) 3x = 6\nx = 2")
    page.keyboard.press("Control+Enter")
    found = page.get_by_label("Findings")
    expect(found).to_contain_text("2 problems: 1 hold, 1 to look at.")
    expect(found).to_contain_text("2 multiplies 1 as well as x.")
    expect(found).to_contain_text("1 line passed over")
    page.get_by_role("button", name="line 3", exact=True).click()
    assert field.evaluate("area => area.value.slice(area.selectionStart, area.selectionEnd)") == "2x - 1 = 4"
    page.reload()
    expect(field).to_have_value("Notes of the evening\n1) Solve 2(x-1) = 4\n2x - 1 = 4\nx = 5/2\n2) 3x = 6\nx = 2")
    page.get_by_role("button", name="Proof-read").click()
    page.get_by_label("Title of the sheet").fill("From the key")
    page.keyboard.press("Enter")
    expect(page.get_by_text("problem 1 of 2")).to_be_visible()
    # only the problem with the slip is left in the strip when it is asked for
    strip = page.get_by_label("Problems of this sheet")
    rows = strip.get_by_role("listitem")
    expect(rows).to_have_count(2)
    strip.get_by_role("combobox").select_option(label="Multiplied the first term only · 1")
    expect(rows).to_have_count(1)


def test_a_foreseen_wrong_working_is_put_on_the_paper_and_its_place_tinted(desk):
    page = desk
    new_sheet(page, "Foreseen")
    new_problem(page, "Simplify", "(x + 9)/x")
    page.keyboard.press("Alt+a")
    page.get_by_role("button", name="Put it on the paper").click()
    expect(line(page, 1)).to_contain_text("breaks")
    page.get_by_label("Next line").press("ArrowUp")
    expect(page.get_by_label("What was probably done")).to_contain_text("cancelled")
    expect(page.locator(".given .mark-slip, .row .mark-slip").first).to_be_visible()


def test_a_session_that_ends_under_the_pen_loses_nothing(desk):
    page = desk
    new_sheet(page, "Tides")
    new_problem(page, "Solve", "3x = 12")
    page.keyboard.type("x = 12/3")
    page.context.clear_cookies(name="uchuu_session")
    page.keyboard.press("Enter")
    dialog = page.get_by_role("dialog", name="Your session has ended")
    expect(dialog.get_by_label("Password of maren")).to_be_focused()
    page.keyboard.type("lantern")
    page.keyboard.press("Enter")
    expect(dialog.get_by_role("alert")).to_contain_text("not right")
    dialog.get_by_label("Password of maren").fill("lantern-quay")
    page.keyboard.press("Enter")
    expect(dialog).to_have_count(0)
    expect(line(page, 1)).to_contain_text("holds")
    expect(page.get_by_text("saved", exact=True)).to_be_visible()
    page.reload()
    expect(page.get_by_role("listitem", name="Line 1: x = 12/3. holds.")).to_be_visible()


def test_a_second_teacher_is_there_in_a_minute_and_gets_a_copy(desk, browser, live_server):
    page = desk
    new_sheet(page, "Tides")
    new_problem(page, "Solve", "3x = 12")
    page.goto(f"{live_server.url}/people")
    page.get_by_label("Log-in name").fill("ilse")
    page.keyboard.press("Tab")
    page.keyboard.type("Ilse Tarn")
    page.keyboard.press("Enter")
    word = page.get_by_role("status", name="The one-time word").locator(".said").inner_text()

    other = browser.new_page()
    other.goto(f"{live_server.url}/")
    other.get_by_label("Log-in name").fill("ilse")
    other.get_by_label("Password").fill(word)
    other.keyboard.press("Enter")
    expect(other.get_by_role("heading", name="Your account")).to_be_visible()
    other.get_by_label("The one-time word").fill(word)
    other.get_by_label("New password").fill("tide-table-41")
    other.get_by_label("The same once more").fill("tide-table-41")
    other.keyboard.press("Enter")
    expect(other.get_by_text("No sheets yet")).to_be_visible()
    expect(other.get_by_role("link", name="People")).to_have_count(0)

    page.goto(f"{live_server.url}/")
    page.get_by_label("Give a copy of Tides").click()
    page.get_by_role("combobox").select_option("ilse")
    page.get_by_role("button", name="Give the copy").click()
    expect(page.get_by_text("Ilse Tarn has a copy of “Tides”.")).to_be_visible()
    other.reload()
    other.get_by_role("link", name="Tides from Maren").click()
    expect(other.get_by_label("Next line")).to_be_focused()
    write(other, "x = 4")
    expect(line(other, 1)).to_contain_text("holds")
    other.wait_for_load_state("networkidle")
    other.close()


def test_a_sheet_of_twelve_with_key_and_version_b_by_keyboard_alone(desk, worker):
    page = desk
    page.goto(page.url.rstrip("/") + "/build")
    expect(page.get_by_role("searchbox")).to_be_focused()
    for words in ("quad", "rational eq"):
        page.keyboard.type(words)
        page.keyboard.press("Enter")
    page.keyboard.press("Enter")
    rows = page.locator("section[aria-label='The ladder'] ol > li")
    expect(rows).to_have_count(12)
    expect(rows.first).to_be_focused()
    page.keyboard.press("k")
    page.keyboard.press("ArrowDown")
    second = rows.nth(1).get_attribute("aria-label")
    page.keyboard.press("r")
    expect(rows.nth(1)).not_to_have_attribute("aria-label", second)
    page.keyboard.press("ArrowDown")
    page.keyboard.press("Delete")
    expect(rows).to_have_count(11)
    page.keyboard.press("Control+z")
    expect(rows).to_have_count(12)
    kept = rows.first.get_attribute("aria-label").split(", difficulty")[0]
    page.keyboard.press("Control+Enter")
    expect(page.get_by_role("listitem", name=kept.split(": ", 1)[1])).to_have_count(1)
    page.get_by_label("Title of the sheet").focus()
    page.keyboard.type("Thursday")
    page.keyboard.press("Enter")
    expect(page.get_by_role("heading", name="Thursday")).to_be_visible()
    expect(page.get_by_alt_text("Page 1 as it will print")).to_be_visible()
    page.get_by_role("radio", name="Sheet").focus()
    page.keyboard.press("ArrowDown")
    page.keyboard.press("ArrowDown")
    expect(page.get_by_role("radio", name="Worked key")).to_be_checked()
    address = page.get_by_role("link", name="Open the PDF").get_attribute("href")
    assert "kind=key" in address
    assert page.request.get(page.url.split("/sheets")[0] + address).body().startswith(b"%PDF")
    page.get_by_role("button", name="Make it").focus()
    page.keyboard.press("Enter")
    expect(page.get_by_role("heading", name="Thursday · B")).to_be_visible(timeout=25_000)
    expect(page.get_by_alt_text("Page 1 as it will print")).to_be_visible()
