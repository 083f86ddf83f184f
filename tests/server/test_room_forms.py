"""Items in other forms in a practice room: what a student sees of them, what is told of an answer, and what stands in
the marking table."""

import pytest

from algebra import METHODS, key_lines
from server.marking import feedback, forms, pile
from server.marking import services as marking
from server.marking.models import StudentWorking
from server.marking.schemas import ClassIn, SetIn
from server.sheets import services as sheets
from server.sheets.schemas import ProblemIn
from tests.server.rooms import inside, working, write

pytestmark = pytest.mark.django_db
ITEMS = [
    ("choose", "solve", "3(x - 2) = 12"),
    ("mend", "solve", "x^2 = 9x"),
    ("fill", "solve", "2x + 5 = 17"),
    ("way", "solve", "x^2 - 5x + 6 = 0"),
    ("claim", "expand", "(a + b)^2"),
    ("work", "analyze", "(x^2-x-6)/(x^2-9)"),
]


@pytest.fixture
def given(teacher, queue):
    sheet = sheets.create_sheet(teacher, "Thursday")
    for form, task, problem in ITEMS:
        sheets.add_problem(teacher, sheet.pk, ProblemIn(task=task, given=problem, form=form))
    made = marking.make_class(teacher, ClassIn(name="Evening A", students=[{"name": "Ada Quill"}]))
    return marking.give(teacher, made.pk, SetIn(sheet=sheet.pk, day="2026-03-05"))


def key_of(item):
    return list(key_lines(forms.made_item(item, pile.problem_of(item))))


def wrong_for(item):
    """An answer that is not right, by the form."""
    if item.form == "choose":
        return ["B" if key_of(item) != ["B"] else "C"]
    if item.form == "mend":
        number = 2 if key_of(item)[0] == "line 1" else 1
        return [f"line {number}", key_of(item)[1]]
    if item.form == "fill":
        return ["99"]
    if item.form == "way":
        return [next(method.name for method in METHODS if method.example[0] == "simplify")]
    return ["not true", "a = 0"] if key_of(item) == ["true"] else ["true"]


def items_of(given):
    return list(given.items.select_related("given_set").order_by("position"))


def test_a_set_keeps_the_forms_of_its_sheet(given):
    assert [(item.form, item.made is not None) for item in items_of(given)] == [
        (form, form != "work") for form, *_ in ITEMS
    ]


@pytest.mark.parametrize("form", ["choose", "mend", "fill", "way", "claim"])
@pytest.mark.parametrize("tells", ["end", "line", "place", "cue", "words"])
def test_no_key_is_sent_and_an_answer_is_told_as_the_room_tells(api, given, form, tells):
    client, _ = inside(api, given, tells=tells, right_line=False)
    item = next(each for each in items_of(given) if each.form == form)
    shown = next(each for each in client.get("/api/room").json()["items"] if each["id"] == item.pk)
    assert shown["form"]["form"] == form
    allowed = {"form", "options", "lines", "blanks", "ways", "letters", "reach"}
    assert set(shown["form"]) == allowed  # and nothing else: no key, no reasons, no slips
    answer = write(client, item.pk, wrong_for(item)).json()["working"]
    verdicts = {line["verdict"] for line in answer["told"]}
    assert ("look" in verdicts) is (tells != "end")
    assert answer["answered"] is False
    sent = str(answer) + client.get("/api/room").content.decode()
    assert "counter" not in sent and "wanted" not in sent and "reason" not in sent and '"right": true' not in sent
    now = write(client, item.pk, key_of(item), 1).json()["working"]
    assert now["answered"] is (tells != "end")


@pytest.mark.parametrize("form", ["choose", "mend", "fill", "way", "claim"])
def test_answers_stand_in_mark_with_a_proposal(api, given, form):
    client, _ = inside(api, given)
    item = next(each for each in items_of(given) if each.form == form)
    write(client, item.pk, wrong_for(item))
    first = StudentWorking.objects.get(item=item)
    assert pile.proposal_of(first).mark < pile.scheme_of(item).total and not first.right
    write(client, item.pk, key_of(item), 1)
    second = StudentWorking.objects.get(item=item)
    assert pile.proposal_of(second).mark == pile.scheme_of(item).total and second.right
    table = api.get(f"/api/sets/{given.pk}").json()
    assert next(each for each in table["items"] if each["id"] == item.pk)["form"]["form"] == form
    assert api.get(f"/api/workings/{second.pk}").status_code == 200
    api.send("POST", f"/api/sets/{given.pk}/decisions", {"workings": [second.pk]})
    assert api.get(f"/api/sets/{given.pk}/patterns").status_code == 200


def test_feedback_says_an_answer_in_words(api, given, teacher):
    client, _ = inside(api, given)
    for item in items_of(given)[:5]:
        write(client, item.pk, wrong_for(item))
    [slip] = feedback.feedback_out(teacher, given.pk, right=False)
    assert [place.in_words for place in slip.places] == [True] * 5
    assert feedback.feedback_pdf(teacher, given.pk, right=False, paper="a4")


def test_a_wrong_option_is_known_by_its_slip(api, given):
    client, _ = inside(api, given, tells="words")
    item = items_of(given)[0]
    made = forms.made_item(item, pile.problem_of(item))
    place = next(k for k, option in enumerate(made.options) if not option.right)
    told = working(write(client, item.pk, ["ABCD"[place]]))["told"][0]
    assert told["words"] and StudentWorking.objects.get(item=item).slips == [made.options[place].slips[0]]


def test_a_function_has_a_grid_that_does_not_say_where_its_features_are(api, given):
    client, items = inside(api, given)
    shown = client.get("/api/room").json()["items"][-1]["form"]
    assert shown == {**shown, "form": "features", "reach": 10, "lines": [], "options": []}
    told = write(client, items[-1], ["hole: (3, 5/6)", "vertical asymptote: x = 3"]).json()["working"]["told"]
    assert [line["verdict"] for line in told] == ["holds", "look"]


@pytest.mark.parametrize(("lines", "words"), [(["Z"], "One of A"), (["A", "B"], "")])
def test_what_is_no_answer_is_said(api, given, lines, words):
    client, items = inside(api, given)
    answer = write(client, items[0], lines).json()["working"]
    assert words in answer["told"][0]["words"] and not answer["answered"]


def test_there_are_no_hints_for_them(api, given):
    client, items = inside(api, given, hints=2)
    assert client.send("POST", f"/api/room/items/{items[0]}/hint").json()["code"] == "no-hint"
