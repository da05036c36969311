"""The tree of joins: two parts at a time, numbered in sewing order."""

from __future__ import annotations

from collections.abc import Iterator
from typing import NamedTuple

from inlet.core.draft.patches import Draft
from inlet.core.units.breakdown import Part


class Join(NamedTuple):
    """One seam that joins two parts, each a patch id or a join. ``seam`` is ``straight`` (other
    kinds come with the drafts that need them); ``pivots`` are the corners it turns."""

    id: str
    parts: tuple[Join | str, Join | str]
    seam: str = "straight"
    pivots: int = 0


def join_tree(draft: Draft, root: Part) -> Join | None:
    """The joins of a whole block, ``j1`` sewn first; None where straight through seams do not
    suffice, and for a block that is one patch. There are as many joins as patches, less one."""
    if any(part.stuck for part in walk(root)):
        return None
    number = 0

    def build(part: Part) -> Join | str:
        nonlocal number
        if not part.parts:
            return draft.patches[part.face].id
        so_far = build(part.parts[0])
        for after in part.parts[1:]:
            other = build(after)
            number += 1
            so_far = Join(f"j{number}", (so_far, other))
        return so_far

    tree = build(root)
    return tree if isinstance(tree, Join) else None


def walk(part: Part) -> Iterator[Part]:
    """A part and everything in it, the smallest first."""
    for inner in part.parts:
        yield from walk(inner)
    yield part


def count_joins(join: Join | str | None) -> int:
    if not isinstance(join, Join):
        return 0
    return 1 + sum(count_joins(part) for part in join.parts)
