"""Forms of an item by name, and what a student sees of one."""

from __future__ import annotations

from typing import Literal, get_args

from algebra.records import record

ItemForm = Literal["work", "choose", "mend", "fill", "way", "claim"]
"""How a problem may be asked; a teacher chooses among these."""
FormName = Literal[ItemForm, "features"]
"""Every form there is. Features are what a function to be worked is asked for: nobody chooses them."""
ITEM_FORMS: tuple[ItemForm, ...] = get_args(ItemForm)


@record(frozen=True)
class Shown:
    """What a student sees of an item beside its given, and nothing of its key: options, the lines of a solution (with
    numbered boxes for what is left out), all in LaTeX; names of ways, the letters of a claim or of a function, and how
    far a grid reaches in each direction."""

    form: FormName
    options: tuple[str, ...] = ()
    lines: tuple[str, ...] = ()
    blanks: int = 0
    ways: tuple[str, ...] = ()
    letters: tuple[str, ...] = ()
    reach: float = 0
