"""A report as a chain that a person can read in a terminal."""

from __future__ import annotations

from algebra import PointEvidence, Proofs, Report, Working

GLYPHS = {
    "holds": "│",
    "widens": "╞",
    "settles": "╡",
    "narrows": "╎",
    "breaks": "╳",
    "unclear": "┊",
    None: "?",
}
_SIDE = frozenset({"aside", "check", "exclusion", "definition", "assumption", "approximation"})


def printed(working: Working, report: Report) -> str:
    """The chain with a glyph and the relation in words at every line, its evidence, the answer and what is left."""
    rows = [f"{working.task}: {working.given}"]
    if report.error and report.error.line == 0:
        rows.append(f"    ! column {report.error.column}: {report.error.message}")
    rows += [f"  {GLYPHS[None]} {text}  not looked at" for text in working.lines[len(report.links) :]]
    if report.excluded:
        rows.append(f"  excluded: {', '.join(report.excluded)}")
    width = max((len(line) for line in working.lines), default=0)
    # a question that was refused as a whole has no links
    for link, text in zip(report.links, working.lines, strict=False):
        indent = "    " if link.kind in _SIDE else "  "
        word = link.relation or "not read"
        extra = ""
        if link.gained:
            extra += f"  gained {', '.join(link.gained)}"
        if link.lost:
            extra += f"  lost {', '.join(link.lost)}"
        rows.append(f"{indent}{GLYPHS[link.relation]} {text.ljust(width)}  {word}{extra}".rstrip())
        if link.error:
            rows.append(f"      column {link.error.column}: {link.error.message}")
        if link.slip:
            rows.append(f"      {link.slip.name}: {link.slip.done} {link.slip.why} Cue: {link.slip.cue}")
            if link.slip.instead:
                rows.append(f"      right would be: {link.slip.instead}")
            if link.other_slips:
                rows.append(f"      or: {', '.join(slip.name for slip in link.other_slips)}")
        if link.evidence:
            rows.append(f"      {link.evidence.text}")
            if isinstance(link.evidence, PointEvidence) and link.evidence.plain:
                rows.append(f"      {link.evidence.plain}")
        if link.move and link.move.as_stated is False:
            done = f"; what was done is {link.move.text}" if link.move.text else ""
            rows.append(f"      the move stated ({link.move.stated}) is not what was done{done}")
        if link.conditions:
            rows.append(f"      for {', '.join(link.conditions)}")
        if link.notes:
            rows.append(f"      note: {', '.join(link.notes)}")
    rows.append(f"  answer: {report.answer.verdict}. {report.answer.text}".rstrip())
    rows.extend(f"  still to do ({item.code}): {item.text}" for item in report.finish.remaining)
    rows.extend(f"  check owed: {item.value}, because {item.because}" for item in report.owed)
    return "\n".join(rows)


def printed_key(found: Proofs) -> str:
    """A proof-reading report: every problem with what does not hold in it, then what was passed over, then the
    count."""
    rows = []
    for proof in found.proofs:
        working = proof.problem.working
        rows.append(
            f"{proof.problem.label}. {working.task}: {working.given} "
            f"  {'all holds' if not proof.findings else ''}".rstrip()
        )
        for finding in proof.findings:
            place = "" if finding.line is None else "given: " if finding.line == 0 else f"line {finding.line}: "
            rows.append(f"    {place}{finding.text}")
            if finding.instead:
                rows.append(f"        right would be: {finding.instead}")
    rows += [f"passed over, line {number}: {text}" for number, text in found.key.skipped]
    faulty = sum(bool(proof.findings) for proof in found.proofs)
    rows.append(f"{len(found.proofs)} problems: {len(found.proofs) - faulty} hold, {faulty} to look at")
    return "\n".join(rows)
