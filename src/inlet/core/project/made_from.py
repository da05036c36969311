"""A block that is made from a sewn one: what is sliced, where, and how the slices are set again."""

from __future__ import annotations

from inlet.core.numbers import Exact
from inlet.core.project.quilt import Quarter
from inlet.core.project.value import Brief, Value, replace

MOST_CUTS = 20
"""Cuts through a block each way."""
MOST_STARTS = 12
"""Different blocks that are sliced for one."""


class Cuts(Brief, frozen=True):
    """Cuts through a block by how far they lie from its centre: ``upright`` ones to the right of it
    (below 0 to the left), ``level`` ones below it (below 0 above); of a square block that lies on
    point, its upper left corner on top, where they are ``diagonal``."""

    upright: tuple[Exact, ...] = ()
    level: tuple[Exact, ...] = ()
    diagonal: bool = False

    @property
    def pieces(self) -> int:
        """How many slices the cuts leave."""
        return (len(set(self.upright)) + 1) * (len(set(self.level)) + 1)


class StartBlock(Brief, frozen=True, kw_only=True):
    """A block that is sliced, in its own fabrics or in a ``colourway`` of the quilt."""

    block: str
    colourway: str = ""


class SetPiece(Brief, frozen=True, kw_only=True):
    """A slice in a place: its number in reading order, turned clockwise by ``turn`` degrees, of the
    ``start``-th of the blocks that are sliced; both are counted from 1."""

    piece: int
    turn: Quarter = 0
    start: int = 1


class MadeFrom(Value, frozen=True, kw_only=True):
    """``starts`` are sliced along the same ``cuts``; ``pieces`` are set together again in reading
    order."""

    starts: tuple[StartBlock, ...]
    cuts: Cuts
    pieces: tuple[SetPiece, ...]


def made_from_measured(made_from: MadeFrom, factor: Exact) -> MadeFrom:
    """The same with its lengths in another unit."""
    cuts = made_from.cuts
    scaled = replace(
        cuts,
        upright=tuple(cut * factor for cut in cuts.upright),
        level=tuple(cut * factor for cut in cuts.level),
    )
    return replace(made_from, cuts=scaled)
