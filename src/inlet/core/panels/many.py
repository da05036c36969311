"""Many panels at once: one size for all of them, or a size for each on a common grid, packed."""

from __future__ import annotations

from collections.abc import Sequence
from typing import NamedTuple

from inlet.core.numbers import Exact, Fraction, next_mark
from inlet.core.project import Pair

ZERO: Exact = Fraction(0)


def one_size(motifs: Sequence[Pair], margin: Exact, grid: Fraction) -> Pair:
    """The smallest finished size that holds every motif with a margin of fabric round it, on marks
    of a grid. There is one motif at least."""
    wide, high = (
        max(next_mark(motif[axis] + 2 * margin, grid) for motif in motifs) for axis in (0, 1)
    )
    return wide, high


def sizes_on_grid(motifs: Sequence[Pair], margin: Exact, grid: Fraction) -> tuple[Pair, ...]:
    """A finished size for each motif with its margin, on marks of a common grid."""
    return tuple(one_size((motif,), margin, grid) for motif in motifs)


class PackedBlock(NamedTuple):
    """A block in a row: which, how far from the left, its size, and what fills the row below it."""

    which: int
    left: Exact
    size: Pair
    below: Exact


class PackedRow(NamedTuple):
    """Blocks side by side, ``top`` from the top, as high as the highest; ``right`` is how much
    fills the row at its end."""

    top: Exact
    high: Exact
    blocks: tuple[PackedBlock, ...]
    right: Exact


class PackedTop(NamedTuple):
    """A top of rows, ``wide`` across; ``filled`` is how much of it blocks fill, of 1."""

    wide: Exact
    rows: tuple[PackedRow, ...]
    filled: float

    @property
    def high(self) -> Exact:
        return sum((row.high for row in self.rows), ZERO)


def packed(sizes: Sequence[Pair], wide: Exact) -> PackedTop:
    """Blocks in rows that are sewn to one another: the highest first, each in the first row that
    has room across, a new one where none has. A block wider than the top has a row of its own, and
    the top is as wide as that."""
    wide = max([wide, *(size[0] for size in sizes)])
    order = sorted(range(len(sizes)), key=lambda i: (-sizes[i][1], -sizes[i][0], i))
    rows: list[list[int]] = []
    room: list[Exact] = []
    for i in order:
        at = next((k for k, left in enumerate(room) if left >= sizes[i][0]), None)
        if at is None:
            rows.append([])
            room.append(wide)
            at = len(rows) - 1
        rows[at].append(i)
        room[at] = room[at] - sizes[i][0]
    top, packed_rows = ZERO, []
    for members, right in zip(rows, room, strict=True):
        high = sizes[members[0]][1]
        left, blocks = ZERO, []
        for i in members:
            blocks.append(PackedBlock(i, left, sizes[i], high - sizes[i][1]))
            left = left + sizes[i][0]
        packed_rows.append(PackedRow(top, high, tuple(blocks), right))
        top = top + high
    area = sum(float(a * b) for a, b in sizes)
    whole = float(wide * top)
    return PackedTop(wide, tuple(packed_rows), area / whole if whole else 0.0)
