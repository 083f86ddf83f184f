"""Putting expressions in place of others."""

from __future__ import annotations

from collections.abc import Mapping
from operator import is_

from algebra.tree.nodes import Node


def substituted(tree: Node, replacements: Mapping[Node, Node]) -> Node:
    """The tree with every part that equals a key replaced by its value, from the root down; a value is not looked into.

    What holds none of the keys stays the same object. Brackets are the caller's: a value that may have to stand beside
    an operator is passed as a `Group`.
    """
    found = replacements.get(tree)
    if found is not None:
        return found
    children = tree.children
    if not children:
        return tree
    new = tuple([substituted(child, replacements) for child in children])
    return tree if all(map(is_, new, children)) else tree.with_children(new)
