"""How many seams of each kind a block takes."""

from __future__ import annotations

from collections import Counter
from typing import NamedTuple

from inlet.core.assembly import Join, JoinKind, all_joins, unpassed
from inlet.core.draft import Draft
from inlet.core.units import Part, walk


class SeamCount(NamedTuple):
    """How many seams of each kind a block takes, and how many corners they turn; nothing with
    fewer than ``pivots_at_least`` is possible, as no seam passes that many of the points where
    seams meet. ``partial_gap``: the search for fewer partial seams was cut short, and there might
    be an order with up to so many less."""

    straight: int
    partial: int
    set_in: int
    curve: int
    pivots: int
    pivots_at_least: int
    partial_gap: int


def count_seams(draft: Draft, root: Part, assembly: Join | None) -> SeamCount:
    """The seams of a block by kind; none where it cannot be sewn."""
    joins = list(all_joins(assembly))
    kinds: Counter[JoinKind] = Counter(join.kind for join in joins)
    return SeamCount(
        kinds["straight"],
        kinds["partial"],
        kinds["set-in"],
        kinds["curve"],
        sum(len(join.pivots) for join in joins),
        len(unpassed(draft)),
        sum(part.short for part in walk(root)),
    )
