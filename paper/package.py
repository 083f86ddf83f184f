"""A sheet as a QTI 3.0 content package, and such packages read.

Out: one assessment test, an item each. Items to choose are choice interactions with feedback for every option; claims
are choice interactions of two; the others extended text with the key in a rubric block for scorers. The formulas are
MathML with their plain text. Each item's body carries its problem as data, so that it comes back the same; of the
packages of others the prompt is read.

Structure by the standard's binding: namespaces of `imscp_v1p1` (manifest) and `imsqtiasi_v3p0` (test and items).
In: bounded in entries and bytes, nothing is written to a disk, documents with a DOCTYPE or entities are refused.
"""

from __future__ import annotations

import io
import json
import zipfile
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from posixpath import dirname, join, normpath
from urllib.parse import unquote
from xml.etree import ElementTree as ET

from defusedxml import DefusedXmlException
from defusedxml.ElementTree import fromstring

from algebra import LETTERS, NotTaken, SheetFile, SheetProblem, TaskError, as_mathml, given_of, json_object
from paper.items import drawing_of
from paper.plan import PlannedItem, SheetPlan

MOST_ENTRIES, MOST_UNPACKED, MOST_ITEMS = 600, 8_000_000, 200
DATA = "data-problem"
ITEM = "http://www.imsglobal.org/xsd/imsqtiasi_v3p0"
MANIFEST = "http://www.imsglobal.org/xsd/qti/qtiv3p0/imscp_v1p1"
MATHML = "http://www.w3.org/1998/Math/MathML"
_EPOCH = (1980, 1, 1, 0, 0, 0)


# -- out


def packed(sheet: SheetFile, plan: SheetPlan) -> bytes:
    """The package as a zip archive: the same bytes for the same sheet."""
    files = {
        f"items/item-{item.number:03}.xml": _item(item, problem, plan)
        for item, problem in zip(plan.items, sheet.problems, strict=True)
    }
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as archive:
        for name, root in [
            ("imsmanifest.xml", _manifest(sheet, plan, list(files))),
            ("test.xml", _test(sheet, plan)),
            *files.items(),
        ]:
            ET.indent(root, " ")
            archive.writestr(
                zipfile.ZipInfo(name, _EPOCH),
                b'<?xml version="1.0" encoding="UTF-8"?>\n' + ET.tostring(root, encoding="utf-8") + b"\n",
            )
    return out.getvalue()


def _manifest(sheet: SheetFile, plan: SheetPlan, names: Sequence[str]) -> ET.Element:
    root = ET.Element("manifest", {"xmlns": MANIFEST, "identifier": f"MANIFEST-{plan.code}"})
    metadata = _put(root, "metadata")
    _put(metadata, "schema", "QTI Package")
    _put(metadata, "schemaversion", "3.0.0")
    _put(root, "organizations")
    resources = _put(root, "resources")
    test = _put(resources, "resource", identifier=f"TEST-{plan.code}", type="imsqti_test_xmlv3p0", href="test.xml")
    _put(test, "file", href="test.xml")
    for number, name in enumerate(names, start=1):
        _put(test, "dependency", identifierref=_name(plan, number))
        item = _put(resources, "resource", identifier=_name(plan, number), type="imsqti_item_xmlv3p0", href=name)
        _put(item, "file", href=name)
    return root


def _name(plan: SheetPlan, number: int) -> str:
    return f"ITEM-{plan.code}-{number:03}"


def _test(sheet: SheetFile, plan: SheetPlan) -> ET.Element:
    title = sheet.title or "Sheet"
    root = ET.Element("qti-assessment-test", {"xmlns": ITEM, "identifier": f"TEST-{plan.code}", "title": title})
    part = _put(
        root, "qti-test-part", identifier="PART-1", **{"navigation-mode": "nonlinear", "submission-mode": "individual"}
    )
    for k, section in enumerate(plan.sections, start=1):
        told = _put(
            part, "qti-assessment-section", identifier=f"SECTION-{k}", title=section.instruction, visible="true"
        )
        for item in section.items:
            _put(
                told,
                "qti-assessment-item-ref",
                identifier=_name(plan, item.number),
                href=f"items/item-{item.number:03}.xml",
            )
    return root


def _item(item: PlannedItem, problem: SheetProblem, plan: SheetPlan) -> ET.Element:
    root = ET.Element(
        "qti-assessment-item",
        {
            "xmlns": ITEM,
            "identifier": _name(plan, item.number),
            "title": f"{item.number}. {problem.given}"[:120],
            "adaptive": "false",
            "time-dependent": "false",
            "xml:lang": "en",
        },
    )
    options = list(zip(LETTERS, drawing_of(item).choices(item.made, item), strict=False))
    right = next((letter for letter, choice in options if choice.right), "")
    base = "identifier" if options else "string"
    declared = _put(
        root, "qti-response-declaration", identifier="RESPONSE", cardinality="single", **{"base-type": base}
    )
    if right:
        _put(_put(declared, "qti-correct-response"), "qti-value", right)
        _put(
            root, "qti-outcome-declaration", identifier="FEEDBACK", cardinality="single", **{"base-type": "identifier"}
        )
    _put(root, "qti-outcome-declaration", identifier="SCORE", cardinality="single", **{"base-type": "float"})
    body = _put(root, "qti-item-body")
    words = next(section.instruction for section in plan.sections if item in section.items)
    prompt = _prompt(item, problem, plan, words)
    if options:
        body.append(prompt)
        asked = _put(
            body, "qti-choice-interaction", shuffle="false", **{"response-identifier": "RESPONSE", "max-choices": "1"}
        )
        for letter, choice in options:
            _formula(_put(asked, "qti-simple-choice", identifier=letter), choice.text, plan)
        _processing(root)
        for letter, choice in options:
            told = _put(
                root, "qti-modal-feedback", identifier=letter, **{"outcome-identifier": "FEEDBACK", "show-hide": "show"}
            )
            _put(_put(told, "qti-content-body"), "p", "Right." if choice.right else choice.said or "Look again.")
    else:
        rubric = _put(body, "qti-rubric-block", use="scoring", view="scorer")
        _key(_put(rubric, "qti-content-body"), item, plan)
        body.append(prompt)
        lines = str(max(3, len(item.key) + 1))
        _put(body, "qti-extended-text-interaction", **{"response-identifier": "RESPONSE", "expected-lines": lines})
    return root


def _prompt(item: PlannedItem, problem: SheetProblem, plan: SheetPlan, words: str) -> ET.Element:
    told = {key: value for key, value in _fields(problem).items() if value not in (None, "", [], {}, "work", "real")}
    box = ET.Element("div", {DATA: json.dumps(told, ensure_ascii=False)})
    _put(box, "p", words)
    _formula(_put(box, "p"), given_of(item.made), plan)
    for line in drawing_of(item).lines(item.made):
        _formula(_put(box, "p"), line, plan)
    return box


def _fields(problem: SheetProblem) -> Mapping[str, object]:
    found = json_object(problem)
    found.pop("id", None)
    return found


def _key(box: ET.Element, item: PlannedItem, plan: SheetPlan) -> None:
    if item.trouble:
        _put(box, "p", item.trouble)
    for told in drawing_of(item).rubric(item.made):
        _formula(_put(box, "p"), told, plan)
    for line in item.key:
        row = _put(box, "p")
        _formula(row, line.text, plan)
        if line.reason:
            _put(row, "span", f" {line.reason}")


def _processing(root: ET.Element) -> None:
    """The points as by the standard's template for one right answer, and the feedback of the option that was chosen."""
    told = _put(root, "qti-response-processing")
    condition = _put(told, "qti-response-condition")
    for name, test, points in (("qti-response-if", True, "1"), ("qti-response-else", False, "0")):
        branch = _put(condition, name)
        if test:
            match = _put(branch, "qti-match")
            _put(match, "qti-variable", identifier="RESPONSE")
            _put(match, "qti-correct", identifier="RESPONSE")
        value = _put(branch, "qti-set-outcome-value", identifier="SCORE")
        _put(value, "qti-base-value", points, **{"base-type": "float"})
    value = _put(told, "qti-set-outcome-value", identifier="FEEDBACK")
    _put(value, "qti-variable", identifier="RESPONSE")


def _formula(box: ET.Element, text: str, plan: SheetPlan) -> None:
    """The line as MathML with its plain text; as text where it can't be read."""
    shown = as_mathml(text, decimal=plan.decimal)
    if not shown:
        box.text = text
        return
    math = ET.fromstring(shown)
    math.set("alttext", text.partition("|")[0].strip())
    for node in math.iter():
        node.tag = node.tag.removeprefix(f"{{{MATHML}}}")
    math.set("xmlns", MATHML)
    box.append(math)


def _put(box: ET.Element, name: str, text: str = "", **attributes: str) -> ET.Element:
    found = ET.SubElement(box, name, attributes)
    if text:
        found.text = text
    return found


# -- in


@dataclass(frozen=True, slots=True)
class Opened:
    """What a package holds: its title; for each item its place and the problem as data, or the text of its prompt; what
    was left."""

    title: str
    items: tuple[tuple[int, Mapping[str, object] | str], ...]
    left: tuple[NotTaken, ...]


def opened(content: bytes) -> Opened:
    """A package read. Raises TaskError where it is none, or larger than a sheet can be."""
    try:
        with zipfile.ZipFile(io.BytesIO(content)) as archive:
            files = _unpacked(archive)
    except TaskError:
        raise
    except (zipfile.BadZipFile, NotImplementedError, RuntimeError, EOFError, ValueError, OSError) as problem:
        raise TaskError("This is no zip archive that can be opened.") from problem
    manifest = _xml(files, "imsmanifest.xml")
    title = ""
    names: list[str] = []
    left: list[NotTaken] = []
    for resource in _all(manifest, "resource"):
        kind, href = resource.get("type", ""), resource.get("href", "")
        if "test" in kind:
            test = _xml(files, _inside("", href))
            title = title or test.get("title", "")
            refs = [
                _inside(dirname(_inside("", href)), ref.get("href", ""))
                for ref in _all(test, "qti-assessment-item-ref")
            ]
            names = [*names, *refs]
        elif "item" in kind:
            names.append(_inside("", href))
    found: list[tuple[int, Mapping[str, object] | str]] = []
    for place, name in enumerate(dict.fromkeys(names), start=1):
        if place > MOST_ITEMS:
            left.append(NotTaken(place, name[:80], f"A sheet has {MOST_ITEMS} problems at most."))
            break
        try:
            found.append((place, _asked(_xml(files, name))))
        except TaskError as problem:
            left.append(NotTaken(place, name[:80], problem.message))
    if not names:
        raise TaskError("The package names no item.")
    return Opened(title, tuple(found), tuple(left))


def _unpacked(archive: zipfile.ZipFile) -> dict[str, bytes]:
    """The files of an archive, by names that lead nowhere out of it. Raises TaskError for more than a sheet can
    need."""
    entries = [entry for entry in archive.infolist() if not entry.is_dir()]
    if len(entries) > MOST_ENTRIES:
        raise TaskError(f"A package of more than {MOST_ENTRIES} files is not taken.")
    room, files = MOST_UNPACKED, {}
    for entry in entries:
        if not entry.filename.endswith(".xml"):
            continue
        with archive.open(entry) as file:  # what the archive says of its sizes is not trusted
            content = file.read(room + 1)
        room -= len(content)
        if room < 0:
            raise TaskError("Unpacked, this package is larger than any sheet.")
        files[normpath(entry.filename)] = content
    return files


def _inside(folder: str, href: str) -> str:
    """The name in the archive that a reference means. Raises TaskError for one that leads out of it."""
    name = normpath(join(folder, unquote(href)))
    if not href or name.startswith(("/", "..")) or ":" in name:
        raise TaskError(f"The package refers to something outside of it: {href[:60]!r}.")
    return name


def _xml(files: Mapping[str, bytes], name: str) -> ET.Element:
    if name not in files:
        raise TaskError(f"“{name[:60]}” is missing from the package.")
    try:
        root: ET.Element = fromstring(files[name], forbid_dtd=True)
    except DefusedXmlException as problem:
        raise TaskError(f"“{name[:60]}” declares entities or a document type: that is not read.") from problem
    except ET.ParseError as problem:
        line, column = problem.position
        raise TaskError(f"“{name[:60]}” is no XML from line {line}, column {column + 1} on.") from problem
    except (LookupError, ValueError, RecursionError) as problem:
        raise TaskError(f"“{name[:60]}” is no XML that can be read.") from problem
    return root


def _local(element: ET.Element) -> str:
    return str(element.tag).rpartition("}")[2]


def _all(root: ET.Element, name: str) -> list[ET.Element]:
    return [element for element in root.iter() if _local(element) == name]


def _asked(item: ET.Element) -> Mapping[str, object] | str:
    """The problem that an item carries as data, or the text of its prompt. Raises TaskError where there is neither."""
    for element in item.iter():
        data = element.get(DATA)
        if data is not None:
            try:
                found = json.loads(data)
            except (ValueError, RecursionError):
                break
            if isinstance(found, dict):
                return found
            break
    body = next(iter(_all(item, "qti-item-body")), None)
    if body is None:
        raise TaskError("It is no item: it has no body.")
    text = "\n".join(filter(None, (line.strip() for line in _text(body).splitlines())))
    if not text:
        raise TaskError("There is nothing to read in its prompt.")
    return text


_NOT_THE_PROMPT = frozenset(
    {"qti-rubric-block", "qti-simple-choice", "qti-feedback-block", "qti-feedback-inline", "qti-template-block"}
)
_PARAGRAPHS = frozenset({"p", "div", "li", "h1", "h2", "h3", "h4", "qti-prompt", "tr"})


def _text(element: ET.Element) -> str:
    """What stands in the body, formulas by their plain text, paragraphs on lines of their own."""
    if _local(element) in _NOT_THE_PROMPT:
        return element.tail or ""
    if _local(element) == "math":
        notes = [note.text or "" for note in _all(element, "annotation")]
        inner = element.get("alttext") or next(iter(notes), "") or "".join(element.itertext())
        return f" {inner} {element.tail or ''}"
    inner = (element.text or "") + "".join(_text(child) for child in element)
    if _local(element) in _PARAGRAPHS:
        inner = f"\n{inner}\n"
    return inner + (element.tail or "")
