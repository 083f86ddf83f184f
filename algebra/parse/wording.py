"""What is said in a line in words that have another name in the notation; replaced sign for sign where columns matter
behind them."""

from __future__ import annotations

import re

TICKS = "✓✔☑✗✘✕☒"
_TICK = re.compile(rf"\s*[{TICKS}]+\s*$")
_CROSSES = "✗✘✕☒"
_OUTCOME = re.compile(
    r"(?<=[\s,;.)])\(?(?:(?:which|that|this)\s+)?(?:is\s+)?"
    r"(?:(?P<failed>no|false|not true|untrue|wrong|fails|failed|does(?:n't| "
    r"not) (?:work|check|hold)|rejected|reject|extraneous)"
    r"|(?P<held>yes|true|works|holds|checks|ok|okay|right|correct))\s*[.!)]*\s*$",
    re.IGNORECASE,
)
_CHECKS = (
    re.compile(r"\s*[A-Za-z]\s*=\s*[^:=≠A-Za-z]*\d[^:=≠A-Za-z]*:\s*[^A-Za-z]*\d.*[=≠].*"),
    re.compile(r"\s*(?:LHS|LS|left\s+side)\s*[:=].*\b(?:RHS|RS|right\s+side)\s*[:=].*", re.IGNORECASE),
)
_WORKS = re.compile(
    r"\s*([A-Za-z]\s*=\s*[^=≠A-Za-z]*\d[^=≠A-Za-z]*?)\s+(?:works|checks(?:\s+out)?|holds|is\s+(?:a\s+)?(?:valid|solution|root))\s*\.?\s*"
)
_NOT = re.compile(r"\s*,\s*(?:and\s+)?not\s+(?=[-−\d√(])")
_SUBSCRIPT = re.compile(r"(?<![A-Za-z])([a-z])(?:_\{?[1-9](?:\s*,\s*[1-9])*\}?|[₁-₉](?:,?[₁-₉])*)(?=\s*(?:=|≈))")
_BEHIND = re.compile(
    r"(?<=\S)\s*(?:[,;]|\b(?:where|for|if|when|with|provided|provided "
    r"that|as long as)\b|\s{2})\s*(?=[A-Za-zα-ω]\s*(?:≠|!=|\\neq?\b))"
)
_OPENING = re.compile(r"^\s*(?:so|thus|hence|therefore|then)\b\s*[:,]?\s*(?=\S)", re.IGNORECASE)
_BUILT_SET = re.compile(
    r"\s*(?:\\\{|\{)\s*([a-z])\s*(?:(?:∈|\\in\b)\s*(?:ℝ|\\mathbb\s*\{?R\}?|\\R\b))?\s*(?:\||:|\\mid\b)(.*?)(?:\\\}|\})\s*"
)
_REAL_TOO = re.compile(r",\s*[a-z]\s*(?:∈|\\in\b)\s*(?:ℝ|\\mathbb\s*\{?R\}?|\\R\b)\s*$")
_IN_BRACKETS = re.compile(r"(?<=\S)\s*[(\[]\s*(?=[A-Za-zα-ω]\s*(?:≠|!=|\\neq?\b))([^()\[\]]*)[)\]]\s*$")
_IS_NOT = re.compile(
    r"(?<![A-Za-z])([a-z])\s+(?:is not|isn't|can\s?not be|can't be|can\s?not "
    r"equal|can't equal|must not be|does not equal|is not equal to)\s+"
)
_SO = re.compile(r"(?<=\S)\s*[,;]\s*(?:so|thus|hence|therefore|then|i\.e\.)\b,?(?=\s)")
_NONE_OF = re.compile(
    r"\s*no\s+((?:vertical|horizontal|oblique|slant)\s+asymptotes?|holes?|[VHOS]As?|[xy]\s*-?\s*int(?:ercept)?s?)\s*\.?\s*",
    re.IGNORECASE,
)
_PHRASES = (
    (
        re.compile(
            r"\s*(?:is\s+)?(?:not factorable|not factorisable|can(?:no|')t "
            r"be factored|irreducible|does(?: not|n't) factor)\s*\.?\s*|"
            r"\s*(?:[(\[]|->|→|⇒|=>|∴|so\b|it is|it's|is|a|"
            r"(?:the|this)\s+(?:polynomial|expression|trinomial|binomial)\s+is)"
            r"\s*prime\s*[)\].]*\s*",
            re.IGNORECASE,
        ),
        "prime",
    ),
    (
        re.compile(
            r"\s*(?:no (?:real )?(?:roots?|zeros?|answers?)|\{\s*\}|DNE|does not exist)\s*\.?\s*", re.IGNORECASE
        ),
        "no solution",
    ),
    (
        re.compile(
            r"\s*(?:infinitely many solutions|true for (?:all|every) (?:x|real numbers?)|always true)\s*\.?\s*",
            re.IGNORECASE,
        ),
        "all real numbers",
    ),
    (re.compile(r"\s*(?:no (?:real )?solutions?|all real numbers|all reals|prime)\s*\.\s*", re.IGNORECASE), None),
)
"""Other words for what has a name in the notation."""
_ONLY_WORDS = re.compile(r"\s*[A-Za-z']+(?:[\s,.:;!?]+[A-Za-z']+)*[\s,.:;!?]*")


def split_remark(text: str) -> tuple[str, str]:
    """The line, and the remark behind `#` or the ticks behind it."""
    body, hash_sign, remark = text.partition("#")
    body = body.rstrip()
    tick = _TICK.search(body)
    if tick and tick.start():
        return body[: tick.start()].rstrip(), " ".join((tick.group().strip(), remark.strip())).strip()
    return body, remark.strip() if hash_sign else ""


def with_outcome(body: str, remark: str) -> str:
    """A check without the word that says how it went; where it failed, by a word or a cross, its last = is a ≠: `1 = -1
    false`."""
    said = _OUTCOME.search(body)
    failed = remark[:1] in _CROSSES if remark else False
    body = _NOT.sub(lambda m: " ≠ ".ljust(len(m.group())), body)
    if said is not None:
        body, failed = body[: said.start()].rstrip(" ,;"), failed or said.lastgroup == "failed"
    if not failed or "≠" in body or "!=" in body:
        return body
    claim = body.find(":") + 1  # behind the candidate
    if not body[claim or len(body) :].strip() and (claim or body.count("=") == 1):
        return f"{body.rstrip(' :')}: fails"  # check t = -5 ✗
    at = body.rfind("=")
    return body[:at] + "≠" + body[at + 1 :] if at > claim > 0 and body[at - 1] not in "≤≥<>" else body


def as_check(body: str) -> str:
    """A check without its word, `x = 3: √9 = 3`, `x = 4 works` or `LHS: √16, RHS: 4`, with it; any other line as it
    is."""
    for pattern in _CHECKS:
        if pattern.fullmatch(body):
            return f"check {body.strip()}"
    works = _WORKS.fullmatch(body)
    return f"check {works[1]}" if works else body


def without_braces(body: str) -> str:
    """`{x | x ≠ 2}` as the condition alone; any other line as it is."""
    built = _BUILT_SET.fullmatch(body)
    return _REAL_TOO.sub("", " " * built.start(2) + built.group(2)).rstrip() if built else body


def in_other_words(body: str) -> str:
    """The line in the words of the notation, its columns kept as far as something can go wrong behind them."""
    for pattern, meaning in _PHRASES:
        if pattern.fullmatch(body):
            return body.rstrip(" .") if meaning is None else meaning
    none_of = _NONE_OF.fullmatch(body)
    if none_of:
        return f"{none_of.group(1)}: none"
    body = _OPENING.sub(lambda m: " " * len(m.group()), body)
    body = _SO.sub(lambda m: ",".ljust(len(m.group())), body)
    body = _IN_BRACKETS.sub(
        lambda m: "," + body[m.start() + 1 : m.start(1)].replace("(", " ").replace("[", " ") + m.group(1), body
    )
    body = _IS_NOT.sub(lambda m: f"{m.group(1)} ≠ ".ljust(len(m.group())), body)
    body = _SUBSCRIPT.sub(lambda m: m.group(1).ljust(len(m.group())), body)
    return _BEHIND.sub(lambda m: ",".ljust(len(m.group())), body)


def are_words(body: str) -> bool:
    """Whether a line without any sign or number is a phrase, `remember to flip`, and no product of letters."""
    return bool(_ONLY_WORDS.fullmatch(body)) and len(re.findall("[A-Za-z]{3,}", body)) > 1
