"""Blocks made from others follow them: their drawing is what comes of the slices."""

from __future__ import annotations

from collections.abc import Sequence
from graphlib import CycleError, TopologicalSorter
from typing import NamedTuple

from inlet.core.draft import Draft, draft
from inlet.core.geometry import Point, Polygon
from inlet.core.memo import Latest
from inlet.core.numbers import Exact
from inlet.core.panels import drawn_panel
from inlet.core.project import (
    Block,
    Cuts,
    MadeFrom,
    Pair,
    Project,
    SetPiece,
    quarter,
    replace,
    started_from,
)
from inlet.core.remake.on_point import OnPoint, framed, on_point, outline_in, trimmed_square
from inlet.core.remake.reaches import Box
from inlet.core.remake.set_again import Laid, SetAgain, places_of, set_again
from inlet.core.remake.slices import Slice, SliceError, sliced
from inlet.core.setting import in_colourway

MOST_PATCHES = 300
"""Patches of a block that is sliced: it is a simple one, and drawn anew while a cut is dragged."""
MOST_PIECES = 10_000
"""Patches of the start block times slices."""


class Remade(NamedTuple):
    """How a block is made from others: its ``starts`` as they are drawn, their slices, how these
    are laid, and what comes of it. Cut along the diagonals, starts and slices lie in their frame,
    and the new block in that ``on_point``."""

    starts: tuple[Draft, ...]
    cuts: Cuts
    slices: tuple[Slice, ...]
    laid: tuple[Laid, ...]
    set_again: SetAgain
    on_point: OnPoint | None = None

    @property
    def size(self) -> Pair:
        """The rectangle in which the slices are set again: the new block, or its frame."""
        last = self.slices[-1]
        left, top = places_of(self.slices)[-1]
        return left + last.size[0], top + last.size[1]

    def in_block(self, p: Point) -> Point:
        """A place among the slices set again, from the new block's top left."""
        return p if self.on_point is None else self.on_point.in_block(p)

    def in_frame(self, p: Point) -> Point:
        """A place of the new block among the slices set again."""
        return p if self.on_point is None else self.on_point.in_frame(p)

    def outline_of(self, box: Box) -> Polygon:
        """The outline in the new block of a box among the slices set again."""
        if self.on_point is not None:
            return outline_in(self.on_point, box)
        left, top, right, bottom = box
        return Point(left, top), Point(right, top), Point(right, bottom), Point(left, bottom)


def laid_of(made_from: MadeFrom) -> tuple[Laid, ...]:
    """The pieces of a file, counted from 1, as slices laid in their places."""
    return tuple(Laid(each.piece - 1, each.turn // 90, each.start - 1) for each in made_from.pieces)


def pieces_of(laid: Sequence[Laid]) -> tuple[SetPiece, ...]:
    """Slices laid in their places as a file has them."""
    return tuple(
        SetPiece(piece=each.piece + 1, turn=quarter(each.quarters), start=each.copy + 1)
        for each in laid
    )


_REMADE: Latest[MadeFrom, tuple[tuple[Block, ...], Exact, Remade]] = Latest(100)
"""What came of each ``MadeFrom`` last, from which blocks, with which allowance."""


def remade(project: Project, made_from: MadeFrom) -> Remade:
    """What comes of the blocks of a project sliced and set again; what came of it before is kept.
    Raises ``SliceError`` where it cannot be made."""
    blocks, seam = _starts(project, made_from), project.measure.seam
    kept = _kept(made_from, blocks, seam)
    if kept is not None:
        return kept
    worked_out = _remade([draft(block) for block in blocks], made_from, project)
    _REMADE.keep(made_from, (tuple(blocks), seam, worked_out))
    return worked_out


def remade_before(project: Project, made_from: MadeFrom) -> Remade | None:
    """What came of it before, where that is known and nothing of it has changed since. Raises
    ``SliceError`` where a start block is not there."""
    return _kept(made_from, _starts(project, made_from), project.measure.seam)


def _kept(made_from: MadeFrom, blocks: Sequence[Block], seam: Exact) -> Remade | None:
    kept = _REMADE.get(made_from)
    if kept is not None and kept[1] == seam and _same(kept[0], blocks):
        return kept[2]
    return None


def arcs_sliced(project: Project, made_from: MadeFrom) -> int:
    """How many curved sides the patches of its start blocks have, which is what takes long to
    slice. Raises ``SliceError`` where one is not there, or too large to be sliced."""
    starts = [draft(block) for block in _starts(project, made_from)]
    _check_size(starts, made_from.cuts)
    return sum(len(patch.arcs) for start in starts for patch in start.patches)


def _starts(project: Project, made_from: MadeFrom) -> list[Block]:
    """The blocks that are sliced, each in its colourway. Raises ``SliceError`` where one is not
    there."""
    quilt = project.quilt
    blocks = []
    for start in made_from.starts:
        block = next((b for b in project.blocks if b.id == start.block), None)
        if block is None:
            raise SliceError(f"No block has the id “{start.block}”.")
        way = quilt.colourway(start.colourway) if quilt is not None and start.colourway else None
        blocks.append(in_colourway(block, way))
    return blocks


def _same(before: Sequence[Block], blocks: Sequence[Block]) -> bool:
    return len(before) == len(blocks) and all(
        a is b or drawing_of(a) == drawing_of(b) for a, b in zip(before, blocks, strict=True)
    )


def _remade(starts: Sequence[Draft], made_from: MadeFrom, project: Project) -> Remade:
    sizes = {start.block.finished for start in starts}
    if len(sizes) != 1:
        raise SliceError("The blocks that are sliced must be of one size.")
    cuts = made_from.cuts
    _check_size(starts, cuts)
    slices = sliced(sizes.pop(), cuts, project.measure)
    laid = laid_of(made_from)
    if len(laid) != len(slices):
        raise SliceError(f"The cuts leave {len(slices)} pieces, and {len(laid)} are set again.")
    for piece in laid:
        if not 0 <= piece.piece < len(slices):
            raise SliceError(f"There is no piece {piece.piece + 1}: the cuts leave {len(slices)}.")
        if not 0 <= piece.copy < len(starts):
            raise SliceError(f"There is no start block {piece.copy + 1}.")
    if not cuts.diagonal:
        return Remade(tuple(starts), cuts, slices, laid, set_again(starts, slices, laid))
    lie = tuple(map(framed, starts))
    where = on_point(slices)
    again = trimmed_square(set_again(lie, slices, laid), where)
    return Remade(lie, cuts, slices, laid, again, where)


def _check_size(starts: Sequence[Draft], cuts: Cuts) -> None:
    """Raises ``SliceError`` where blocks are too large to be sliced so."""
    for start in starts:
        number = len(start.patches)
        if number > MOST_PATCHES:
            raise SliceError(
                f"{start.block.title} has {number} patches: up to {MOST_PATCHES} can be sliced."
            )
        if number * cuts.pieces > MOST_PIECES:
            raise SliceError(
                f"{cuts.pieces} slices of {number} patches are too many: make fewer cuts."
            )


def drawing_of(block: Block) -> tuple[object, ...]:
    """What of a block is its drawing."""
    return block.finished, block.columns, block.rows, block.seams, block.fabric_at


class CannotFollow(SliceError):
    """A block that cannot be made from others as it says: which, and why."""

    def __init__(self, block: Block, why: str) -> None:
        super().__init__(f"{block.title}: {why}")
        self.block, self.why = block, why


def followed(project: Project) -> Project:
    """The project, the drawing of every block that is made from others as it comes of them, and of
    every panel; the very same project where none changes. Raises ``CannotFollow``."""
    project = _panels_drawn(project)
    if not any(block.made_from for block in project.blocks):
        return project
    for block in in_making_order(project):
        made_from = block.made_from
        if made_from is None:
            continue
        try:
            drawn = remade(project, made_from).set_again.block
        except SliceError as why:
            raise CannotFollow(block, str(why)) from None
        if drawing_of(drawn) != drawing_of(block):
            project = project.with_block(
                replace(
                    block, finished=drawn.finished, columns=drawn.columns, rows=drawn.rows,
                    seams=drawn.seams, fabric_at=drawn.fabric_at,
                )
            )  # fmt: skip
    return project


def _panels_drawn(project: Project) -> Project:
    for block in project.blocks:
        if block.panel is not None:
            drawn = drawn_panel(block, project.measure)
            if drawing_of(drawn) != drawing_of(block):
                project = project.with_block(drawn)
    return project


def in_making_order(project: Project) -> tuple[Block, ...]:
    """The blocks, each behind those it is made from. Raises ``CannotFollow`` where blocks are made
    from one another in a circle."""
    by_id = {block.id: block for block in project.blocks}
    starts = {name: started_from(block) for name, block in by_id.items()}
    try:
        order = tuple(TopologicalSorter(starts).static_order())
    except CycleError as circle:
        block = by_id[circle.args[1][0]]
        raise CannotFollow(block, "A block cannot be made from itself.") from None
    return tuple(by_id[name] for name in order if name in by_id)
