"""The tree of joins: two parts at a time, numbered in sewing order."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from typing import NamedTuple

from inlet.core.assembly.net import unpassed
from inlet.core.assembly.sewing import Sewing
from inlet.core.deep import Steps, run
from inlet.core.draft.patches import Draft
from inlet.core.units.parts import Part, merges, walk

NOTHING = Sewing((0, 1), (), ())


class Join(NamedTuple):
    """One seam that joins two parts, each a patch id or a join. ``seam`` is ``straight``,
    ``partial``, ``set-in`` or ``curve``; ``pivots`` are the corners it turns. ``finished_by`` is
    the join with which a seam that was left open is sewn to its end. ``sewing`` is where it runs,
    for what is no straight through seam."""

    id: str
    parts: tuple[Join | str, Join | str]
    seam: str = "straight"
    pivots: int = 0
    finished_by: str | None = None
    sewing: Sewing = NOTHING


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


def join_tree(draft: Draft, root: Part) -> Join | None:
    """The joins of a whole block, ``j1`` sewn first; None where it cannot be sewn, and for a block
    that is one patch. There are as many joins as patches, less one."""
    if any(part.stuck for part in walk(root)):
        return None
    tree = run(_build(draft, root, 1))
    return tree if isinstance(tree, Join) else None


def _build(draft: Draft, part: Part, first: int) -> Steps[Join | str]:
    """The joins of a part, numbered from ``first`` on: those a join is made of before it."""
    if not part.parts:
        return draft.patches[part.face].id
    pairs, n = merges(part), len(part.parts)
    starts, numbers = _numbered(part, pairs, first)
    made: list[Join | str] = []
    for i, inner in enumerate(part.parts):
        made.append((yield _build(draft, inner, starts[i])))
    for k, (one, other) in enumerate(pairs):
        sewn = part.sewings[k] if part.sewings else NOTHING
        last = max((f.sewing for f in sewn.left_open), default=None)
        made.append(
            Join(
                f"j{numbers[n + k]}",
                (made[one], made[other]),
                sewn.kind,
                len(sewn.pivots),
                None if last is None else f"j{numbers[n + last]}",
                sewn,
            )
        )
    return made[-1]


def _numbered(
    part: Part, pairs: Sequence[tuple[int, int]], first: int
) -> tuple[dict[int, int], dict[int, int]]:
    """Where the joins inside each of a part's parts begin to be numbered, and the numbers of its
    own, by what they make: everything in the first of two is sewn before the second."""
    n = len(part.parts)
    starts: dict[int, int] = {}
    numbers: dict[int, int] = {}
    at, left = first, [(n + len(pairs) - 1, False)]
    while left:
        k, parts_done = left.pop()
        if k < n:
            starts[k] = at
            at += len(part.parts[k].faces) - 1
        elif parts_done:
            numbers[k] = at
            at += 1
        else:
            one, other = pairs[k - n]
            left += [(k, True), (other, False), (one, False)]
    return starts, numbers


def all_joins(join: Join | str | None) -> Iterator[Join]:
    """A join and those in it, in sewing order."""
    found: list[Join] = []
    left: list[Join | str | None] = [join]
    while left:
        each = left.pop()
        if isinstance(each, Join):
            found.append(each)
            left += each.parts
    return reversed(found)


def count_seams(draft: Draft, root: Part, assembly: Join | None) -> SeamCount:
    """The seams of a block by kind."""
    kinds = [join.seam for join in all_joins(assembly)]
    return SeamCount(
        kinds.count("straight"),
        kinds.count("partial"),
        kinds.count("set-in"),
        kinds.count("curve"),
        sum(join.pivots for join in all_joins(assembly)),
        len(unpassed(draft)),
        sum(part.short for part in walk(root)),
    )
