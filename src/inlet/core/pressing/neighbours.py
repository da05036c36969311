"""A block beside others like it: the ends of its seams that meet theirs.

Go round every block clockwise along its edge. Where two blocks meet, one is gone along one way and
the other the other way, so an end pressed clockwise in both is pressed two ways at the seam between
them: it nests. So does an end pressed the other way in both. A mirrored block is gone round the
other way.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator, Sequence
from math import pi, sin
from typing import NamedTuple

from inlet.core.draft import points_of
from inlet.core.geometry import Point
from inlet.core.numbers import Exact
from inlet.core.pressing.junctions import Arm, arms_of
from inlet.core.pressing.spans import PressedSeams
from inlet.core.project import Block, Project, Quilt
from inlet.core.setting import looks_of, side_by_side, turned_by

SETTING_TITLES = {
    "one-way": "all one way",
    "quarter-turns": "in alternate quarter turns",
    "round": "four round a centre",
}
"""How blocks may lie where there is no quilt, in words."""
MOST_ASKED = 40
"""Rows and columns of a quilt that are looked through."""


class EdgeEnd(NamedTuple):
    """A seam that reaches the block's edge: on which ``side`` (0 top, 1 right, 2 bottom, 3 left),
    how far along it, going round clockwise, and which side of its join lies ahead, going so."""

    side: int
    along: Exact
    length: Exact
    at: Point
    arm: Arm
    ahead: int


class BlockLying(NamedTuple):
    """How a block lies: by how many quarter turns clockwise, after it was mirrored (left to right)
    if it was; ``version`` says how it is pressed."""

    turn: int = 0
    mirror: bool = False
    version: int = 0


class Meeting(NamedTuple):
    """Two ends that meet, each by its place among the block's edge ends and the version of its
    block; whether one of the two blocks is mirrored, and how often they meet so."""

    one: int
    other: int
    versions: tuple[int, int]
    mirrored: bool
    times: int


def edge_ends(seams: PressedSeams) -> tuple[EdgeEnd, ...]:
    """The seams that reach the edge of a block, clockwise from its top left; of several at one
    point, the one that is sewn last."""
    width, height = seams.draft.block.finished
    arms: dict[Point, Arm] = {}
    points = points_of(seams.draft)
    for join in sorted(seams.joins, key=lambda each: each.number):
        for place, vertex in ((0, join.vertices[0]), (len(join.edges) - 1, join.vertices[-1])):
            at = points[vertex]
            if at.x in (0, width) or at.y in (0, height):
                arms[at] = dict(arms_of(seams.draft, join, place, points))[vertex]
    ends = []
    for at, arm in arms.items():
        if at.y == 0:
            side, along, length = 0, at.x, width
        elif at.x == width:
            side, along, length = 1, at.y, height
        elif at.y == height:
            side, along, length = 2, width - at.x, width
        else:
            side, along, length = 3, height - at.y, height
        lean = sin(side * pi / 2 - arm.angle)
        ends.append(EdgeEnd(side, along, length, at, arm, arm.side(lean > 0)))
    return tuple(sorted(ends, key=lambda end: (end.side, end.along)))


Grid = dict[tuple[int, int], BlockLying]
"""Blocks by column and row."""


def grid_of(setting: str, square: bool) -> Grid:
    """A patch of a quilt that shows every way blocks of a setting meet."""
    step = 1 if square else 2  # a rectangle fits its place again after half a turn
    block_lyings: Grid = {}
    for x in range(4):
        for y in range(4):
            quarters, mirror = turned_by(setting, x, y, y, 0)
            block_lyings[x, y] = BlockLying(quarters * step % 4, mirror)
    return block_lyings


def quilt_grid(quilt: Quilt, block: str) -> Grid | None:
    """The places of a block in a quilt whose blocks lie edge to edge; None where it has none."""
    sashing = quilt.sashing
    if sashing is not None and sashing.width:
        return None
    block_lyings: Grid = {}
    for (x, y), place in side_by_side(quilt).items():
        if place.block == block and abs(x) < MOST_ASKED and abs(y) < MOST_ASKED:
            block_lyings[x, y] = BlockLying(place.turn, place.mirror)
    return block_lyings or None


def unseen_turns(block: Block, project: Project) -> tuple[int, ...]:
    """By how many quarters a block may be turned so that nobody sees it: it looks the same, and no
    print in it shows which way is up."""
    prints = {
        fabric.direction
        for spot in block.fabric_at
        if (fabric := project.fabric(spot.fabric)) is not None
    }
    if "one-way" in prints:
        return ()
    looks = looks_of(block)
    turns = (1, 2) if not prints - {""} else (2,)
    return tuple(turn for turn in turns if looks[turn, False] == looks[0, False])


def every_other(grid: Grid, quarters: int) -> Grid:
    """The blocks of a grid, those of every other place turned on."""
    return {
        (x, y): lying._replace(turn=(lying.turn + quarters) % 4) if (x + y) % 2 else lying
        for (x, y), lying in grid.items()
    }


def by_turns(grid: Grid) -> Grid:
    """The blocks of a grid pressed by turns in one version and the other, so that no two beside one
    another are alike."""
    return {(x, y): lying._replace(version=(x + y) % 2) for (x, y), lying in grid.items()}


def meetings(ends: Sequence[EdgeEnd], grid: Grid) -> tuple[Meeting, ...]:
    """Which edge ends of the blocks in a grid meet, and how often."""
    counts: Counter[tuple[int, int, tuple[int, int], bool]] = Counter()
    pairs: Counter[tuple[BlockLying, BlockLying, int]] = Counter()
    for (x, y), lying in grid.items():
        for side, beside in ((1, (x + 1, y)), (2, (x, y + 1))):
            if beside in grid:
                pairs[lying, grid[beside], side] += 1
    for (block_lying, other_block_lying, side), times in pairs.items():
        facing = _shown(ends, other_block_lying, (side + 2) % 4)
        for i, along, length in _shown(ends, block_lying, side):
            for j, back, _ in facing:
                if along == length - back:
                    mirrored = block_lying.mirror != other_block_lying.mirror
                    counts[i, j, (block_lying.version, other_block_lying.version), mirrored] += (
                        times
                    )
    return tuple(Meeting(*key, times) for key, times in counts.items())


def _shown(ends: Sequence[EdgeEnd], lying: BlockLying, side: int) -> list[tuple[int, Exact, Exact]]:
    """The ends on one side of a block as it lies: each with how far along that side, clockwise."""
    return list(_on_side(ends, lying, side))


def _on_side(
    ends: Sequence[EdgeEnd], lying: BlockLying, side: int
) -> Iterator[tuple[int, Exact, Exact]]:
    own_number = (side - lying.turn) % 4
    if lying.mirror and own_number % 2:
        own_number = 4 - own_number
    for i, end in enumerate(ends):
        if end.side == own_number:
            yield i, end.length - end.along if lying.mirror else end.along, end.length
