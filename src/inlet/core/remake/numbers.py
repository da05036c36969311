"""How many start blocks it takes: a slice is used once, and one that nobody uses is left over."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable, Iterator
from typing import NamedTuple

from inlet.core.numbers import Exact
from inlet.core.project import Block, Cuts, Project
from inlet.core.remake.follow import in_making_order
from inlet.core.setting import in_colourway, in_fabrics

BlockKey = tuple[str, tuple[str, ...]]
"""Blocks of one drawing in the same fabrics are one block."""
CutKey = tuple[BlockKey, tuple[Exact, ...], tuple[Exact, ...]]
"""Blocks of one look cut along the same lines give the same slices."""


class Wanted(NamedTuple):
    """So many of a block in a colourway; ``block`` has its fabrics."""

    block: Block
    colourway: str
    number: int

    @property
    def key(self) -> BlockKey:
        return self.block.id, tuple(spot.fabric for spot in self.block.fabric_at)


class CutApart(NamedTuple):
    """Start blocks that are cut apart along the same ``cuts``, so many of ``start``; how many of
    each slice are left over, by its number from 1 on, those of which none are left out."""

    start: Wanted
    cuts: Cuts
    left_over: dict[int, int]

    @property
    def key(self) -> CutKey:
        return cut_key(self.start, self.cuts)


def cut_key(start: Wanted, cuts: Cuts) -> CutKey:
    return start.key, tuple(sorted(set(cuts.upright))), tuple(sorted(set(cuts.level)))


class ToSew(NamedTuple):
    """The blocks to sew, start blocks before what is made from them, and which are cut apart."""

    blocks: tuple[Wanted, ...]
    cut_apart: dict[CutKey, CutApart]


def needed(project: Project, wanted: Iterable[Wanted]) -> ToSew:
    """The blocks to sew for those that are wanted. A start block is sewn as often as the slice of
    it that is used most, in all that is made from it along the same cuts; those that are wanted
    whole are sewn besides."""
    numbers: dict[BlockKey, Wanted] = {}
    uses: dict[CutKey, tuple[Cuts, Counter[int]]] = {}
    for each in wanted:
        before = numbers.get(each.key, each._replace(number=0))
        numbers[each.key] = before._replace(number=before.number + each.number)
    blocks: list[Wanted] = []
    cut_apart: list[CutApart] = []
    for block in reversed(in_making_order(project)):
        looks = [(key, each) for key, each in numbers.items() if each.block.id == block.id]
        for key, each in reversed(looks):
            number = each.number
            for cuts, used in [use for sliced, use in uses.items() if sliced[0] == key]:
                most = max(used.values())
                over = {i: most - n for i, n in sorted(used.items()) if n < most}
                cut_apart.append(CutApart(each._replace(number=most), cuts, over))
                number += most
            blocks.append(each._replace(number=number))
            if block.made_from is None:
                continue
            cuts = block.made_from.cuts
            for start, used in _used_by(project, blocks[-1]):
                numbers.setdefault(start.key, start)
                uses.setdefault(cut_key(start, cuts), (cuts, Counter()))[1].update(used)
    return ToSew(tuple(reversed(blocks)), {each.key: each for each in reversed(cut_apart)})


def starts_of(project: Project, made: Wanted) -> tuple[Wanted, ...]:
    """The start blocks of a block that is made from others, in its fabrics, none of them counted: a
    block in a colourway is made from starts in that colourway."""
    made_from, quilt = made.block.made_from, project.quilt
    starts = []
    for start in made_from.starts if made_from is not None else ():
        block, name = project.block(start.block), start.colourway or made.colourway
        if quilt is not None:
            block = in_colourway(block, quilt.colourway(start.colourway))
            way = quilt.colourway(made.colourway)
            if way is not None and way.block in ("", made.block.id):
                block = in_fabrics(block, way.fabrics)
        starts.append(Wanted(block, name, 0))
    return tuple(starts)


def _used_by(project: Project, made: Wanted) -> Iterator[tuple[Wanted, Counter[int]]]:
    """The start blocks of a block, and how often each of their slices is used for all of it; those
    that are not used, too."""
    made_from = made.block.made_from
    for number, start in enumerate(starts_of(project, made), 1):
        assert made_from is not None, "what is drawn has no starts"
        used = Counter(dict.fromkeys(range(1, made_from.cuts.pieces + 1), 0))
        for piece in made_from.pieces:
            if piece.start == number:
                used[piece.piece] += made.number
        yield start, used
