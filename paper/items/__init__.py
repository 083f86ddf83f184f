"""Forms of an item on paper, one a module, by the names that they have in the core."""

from __future__ import annotations

from typing import Any

from algebra import FormName, form_of
from paper.items import choose, claim, features, fill, mend, way, work
from paper.items.drawing import Choice, Drawing
from paper.plan import PlannedItem

DRAWINGS: dict[FormName, Drawing[Any]] = {
    "work": work.DRAWING,
    "features": features.DRAWING,
    "choose": choose.DRAWING,
    "mend": mend.DRAWING,
    "fill": fill.DRAWING,
    "way": way.DRAWING,
    "claim": claim.DRAWING,
}


def drawing_of(item: PlannedItem) -> Drawing[Any]:
    """How an item is drawn."""
    return DRAWINGS[form_of(item.made).name]


__all__ = ["DRAWINGS", "Choice", "Drawing", "drawing_of"]
