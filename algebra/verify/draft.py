"""A link while it is being judged."""

from __future__ import annotations

from dataclasses import dataclass, field

from algebra.reports.report import Evidence, LineError, Link, MoveSeen, Relation
from algebra.tree.vocabulary import LinkKind, Note


@dataclass(slots=True)
class LinkDraft:
    """What is being found out of one line; becomes a `Link` when all is said."""

    line: int
    relation: Relation | None = None
    kind: LinkKind = "expression"
    move: MoveSeen | None = None
    gained: list[str] = field(default_factory=list)
    lost: list[str] = field(default_factory=list)
    reasons: dict[str, str] = field(default_factory=dict)
    evidence: Evidence | None = None
    notes: list[Note] = field(default_factory=list)
    conditions: list[str] = field(default_factory=list)
    error: LineError | None = None

    def frozen(self, excluded: tuple[str, ...]) -> Link:
        """The finished link; `excluded` is the ledger of the given."""
        return Link(
            line=self.line,
            relation=self.relation,
            kind=self.kind,
            move=self.move,
            gained=tuple(self.gained),
            lost=tuple(self.lost),
            reasons=self.reasons,
            excluded=excluded,
            evidence=self.evidence,
            notes=tuple(self.notes),
            conditions=tuple(self.conditions),
            error=self.error,
        )
