"""QTI packages: the structure that the standard prescribes, and packages of strangers, harmless whatever they hold."""

import io
import xml.etree.ElementTree as ET
import zipfile

import pytest

from algebra import SheetFile, SheetProblem, TaskError
from paper import read, written
from paper.package import ITEM, MANIFEST, MOST_UNPACKED

Q, M = f"{{{ITEM}}}", f"{{{MANIFEST}}}"
SHEET = SheetFile(
    "Thursday & <more>",
    (
        SheetProblem("solve", "x^2 - 5x + 6 = 0", form="choose"),
        SheetProblem("simplify", "(x+3)^2 - 9", form="claim"),
        SheetProblem("solve", "x^2 + 6x = 7", form="way"),
        SheetProblem("solve", "2/x + 1 = 7/3", form="mend"),
        SheetProblem("solve", "3x = 12", form="fill"),
        SheetProblem("analyze", "f(x) = (x+1)/(x-2)"),
        SheetProblem("solve", "x^5 - x - 1 = 0"),
    ),
)


@pytest.fixture(scope="module")
def files():
    with zipfile.ZipFile(io.BytesIO(written(SHEET, "qti"))) as archive:
        return {name: ET.fromstring(archive.read(name)) for name in archive.namelist()}


def archive_of(files, compression=zipfile.ZIP_DEFLATED):
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", compression) as archive:
        for name, text in files.items():
            archive.writestr(name, text)
    return out.getvalue()


def package(*items, href="items/1.xml"):
    resources = "".join(
        f'<resource identifier="I{k}" type="imsqti_item_xmlv3p0" '
        f'href="{href if len(items) == 1 else f"items/{k}.xml"}"/>'
        for k, _ in enumerate(items, start=1)
    )
    files = {f"items/{k}.xml": item for k, item in enumerate(items, start=1)}
    return archive_of(
        files | {"imsmanifest.xml": f'<manifest xmlns="{MANIFEST}"><resources>{resources}</resources></manifest>'}
    )


def item(body):
    return f'<qti-assessment-item xmlns="{ITEM}"><qti-item-body>{body}</qti-item-body></qti-assessment-item>'


def test_every_file_is_named_once_in_the_manifest_and_every_item_in_the_test(files):
    manifest = files["imsmanifest.xml"]
    assert manifest.tag == f"{M}manifest"
    assert [manifest.find(f"{M}metadata/{M}{name}").text for name in ("schema", "schemaversion")] == [
        "QTI Package",
        "3.0.0",
    ]
    resources = manifest.findall(f"{M}resources/{M}resource")
    assert {each.get("type") for each in resources} == {"imsqti_test_xmlv3p0", "imsqti_item_xmlv3p0"}
    assert sorted(each.get("href") for each in resources) == sorted(set(files) - {"imsmanifest.xml"})
    names = {each.get("identifier"): each.get("href") for each in resources}
    assert {each.get("identifierref") for each in resources[0].iter(f"{M}dependency")} == set(names) - {
        resources[0].get("identifier")
    }
    refs = list(files["test.xml"].iter(f"{Q}qti-assessment-item-ref"))
    assert {ref.get("identifier"): ref.get("href") for ref in refs}.items() <= names.items()
    assert len(refs) == len(SHEET.problems)
    for ref in refs:
        assert files[ref.get("href")].get("identifier") == ref.get("identifier")


def test_the_parts_of_an_item_stand_in_the_order_of_the_standard(files):
    order = [
        "qti-response-declaration",
        "qti-outcome-declaration",
        "qti-item-body",
        "qti-response-processing",
        "qti-modal-feedback",
    ]
    for name, root in files.items():
        if name.startswith("items/"):
            places = [order.index(child.tag.removeprefix(Q)) for child in root]
            assert places == sorted(places)
            assert {"identifier", "title", "adaptive", "time-dependent"} <= set(root.attrib)


@pytest.mark.parametrize(("number", "choices"), [(1, 4), (2, 2), (3, 3)])
def test_items_to_choose_have_one_right_answer_and_feedback_for_each(files, number, choices):
    root = files[f"items/item-{number:03}.xml"]
    ids = [each.get("identifier") for each in root.iter(f"{Q}qti-simple-choice")]
    assert len(ids) == choices
    assert root.find(f"{Q}qti-response-declaration/{Q}qti-correct-response/{Q}qti-value").text in ids
    feedback = {
        each.get("identifier"): "".join(each.itertext()).strip() for each in root.iter(f"{Q}qti-modal-feedback")
    }
    assert set(feedback) == set(ids)
    assert all(feedback.values())
    declared = {each.get("identifier") for each in root.iter(f"{Q}qti-outcome-declaration")}
    assert (
        {each.get("identifier") for each in root.iter(f"{Q}qti-set-outcome-value")} == declared == {"SCORE", "FEEDBACK"}
    )


@pytest.mark.parametrize("number", [4, 5, 6, 7])
def test_the_others_are_written_and_their_key_is_for_scorers(files, number):
    root = files[f"items/item-{number:03}.xml"]
    rubric = root.find(f"{Q}qti-item-body/{Q}qti-rubric-block")
    assert (rubric.get("use"), rubric.get("view")) == ("scoring", "scorer")
    assert "".join(rubric.itertext()).strip()
    assert root.find(f"{Q}qti-item-body/{Q}qti-extended-text-interaction") is not None


def test_it_comes_back_the_same_and_has_the_same_bytes():
    content = written(SHEET, "qti")
    assert read(content, "qti") == (SHEET, ())
    assert content == written(SHEET, "qti")


class TestOfStrangers:
    def test_prompts_are_read_formulas_by_their_text(self):
        math = '<math xmlns="http://www.w3.org/1998/Math/MathML" alttext="x^2 - 9 = 0"><mi>x</mi></math>'
        content = package(
            item(f"<p>Solve</p><p>{math}</p><qti-rubric-block>x = 1</qti-rubric-block>"),
            item("<p>Simplify √50 + √8</p>"),
            item("<p>Why is the sky blue?</p>"),
        )
        sheet, left = read(content, "qti")
        assert [(w.task, w.given, w.lines) for w in sheet.problems] == [
            ("solve", "x^2 - 9 = 0", ()),
            ("simplify", "√50 + √8", ()),
        ]
        assert [each.place for each in left] == [3]

    @pytest.mark.parametrize(
        ("content", "words"),
        [
            (b"hello", "no zip"),
            (archive_of({"a.xml": "<a/>"}), "imsmanifest"),
            (archive_of({"imsmanifest.xml": "<a"}), "is no XML"),
            (archive_of({"imsmanifest.xml": "<manifest/>"}), "names no item"),
            (package(item("<p>x</p>"), href="../../etc/passwd"), "outside"),
            (package(item("<p>x</p>"), href="/etc/passwd"), "outside"),
            (package(item("<p>x</p>"), href="file:///etc/passwd"), "outside"),
            (archive_of({"imsmanifest.xml": b"<a>" + b" " * (MOST_UNPACKED + 1) + b"</a>"}), "larger than any sheet"),
            (archive_of({f"{k}.xml": "" for k in range(601)}), "600 files"),
            (b"PK" + b"x" * 400_000, "larger"),
        ],
    )
    def test_are_refused_in_words(self, content, words):
        with pytest.raises(TaskError, match=words):
            read(content, "qti")

    @pytest.mark.parametrize(
        "xml",
        [
            '<!DOCTYPE a [<!ENTITY b "c">]><a>&b;</a>',
            '<!DOCTYPE a SYSTEM "file:///etc/passwd"><a/>',
            '<!DOCTYPE a [<!ENTITY b SYSTEM "file:///etc/passwd">]><a>&b;</a>',
            "<a" * 50_000,
            "<a>" * 100_000,
        ],
    )
    def test_documents_with_entities_are_left_and_the_rest_is_taken(self, xml):
        sheet, left = read(package(item("<p>Solve 3x = 12</p>"), xml), "qti")
        assert [w.given for w in sheet.problems] == ["3x = 12"]
        assert [each.place for each in left] == [2]
        assert "root:" not in left[0].why
        assert not any(word in left[0].why for word in ("Forbidden", "name=", "system_id", "None"))

    @pytest.mark.parametrize("data", ["{", "[]", '{"task": "solve"}', '{"task": "solve", "given": ""}', "[" * 5000])
    def test_broken_data_is_named_and_the_rest_is_taken(self, data):
        broken = item(f"<div data-problem='{data}'></div>")
        sheet, left = read(package(broken, item("<p>Solve 3x = 12</p>")), "qti")
        assert [w.given for w in sheet.problems] == ["3x = 12"]
        assert [each.place for each in left] == [1]
