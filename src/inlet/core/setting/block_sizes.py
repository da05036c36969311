"""How large blocks and motifs are in a quilt: as drawn, as they come out cut, as they measured.

What is sewn to a block is cut to what the block really is. Blocks drawn equally long one way lie in
places of one length, the mean of what they come to: so a row of n places is, on the average of all
rows, as long as the blocks in it, and what differs from block to block is eased.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable, Mapping
from typing import NamedTuple

from inlet.core.cancellation import check
from inlet.core.numbers import Exact, Fraction
from inlet.core.project import Pair, Project
from inlet.core.setting.places import Placed, members

ZERO = Fraction(0)
FINE = 10_000
"""Parts of the unit that lengths which come out are told to."""
SAME = 1e-9
OTHER_SIZE = Fraction(1)
"""Inches: a block that measures so far off its drawing is of another size, and gets a place of its
own; the strips that fill up beside it are wide enough to be sewn."""


class SewnSize(NamedTuple):
    """The finished size of a block or motif: ``drawn``; ``as_cut``, what comes out of its pieces as
    they are cut; ``sewn``, what it measured, where the maker said so; ``trimmed``, what it is cut
    down to, where it is."""

    drawn: Pair
    as_cut: Pair
    sewn: Pair | None = None
    trimmed: Pair | None = None

    @property
    def in_use(self) -> Pair:
        """The size all that is sewn to it goes by."""
        return self.trimmed or self.sewn or self.as_cut

    def place(self, apart: Exact) -> Pair:
        """The size its place is known by: as drawn, or, where it comes out ``apart`` from that, as
        it comes out."""
        wide, high = (
            drawn if abs(comes_out - drawn) < apart else comes_out
            for drawn, comes_out in zip(self.drawn, self.in_use, strict=True)
        )
        return wide, high


Sizes = Mapping[str, SewnSize]
"""The size of each block and motif, by its id."""
AsCut = Mapping[str, tuple[float, float]]
"""What blocks come out at as they are cut, finished, by their id."""


def as_told(length: float, exact: Exact) -> Exact:
    """A length that comes out: ``exact`` where it is the same, else to a ten-thousandth; what is so
    small that nothing comes out of it is told as it is drawn."""
    told = Fraction(round(length * FINE), FINE)
    return exact if abs(length - float(exact)) < SAME or told <= 0 else told


def block_sizes(
    project: Project, as_cut: AsCut | None = None, trimmed: Mapping[str, Pair] | None = None
) -> dict[str, SewnSize]:
    """The sizes of all blocks and motifs; blocks not in ``as_cut`` come out as they are drawn,
    those in ``trimmed`` are cut down. The size a maker types is unfinished. A motif is as large as
    its blocks side by side; one without blocks is not in it."""
    quilt, seam = project.quilt, project.measure.seam
    typed = quilt.made if quilt is not None else {}
    cut_down = trimmed or {}
    sizes: dict[str, SewnSize] = {}

    def sewn(name: str) -> Pair | None:
        if name not in typed:
            return None
        wide, high = typed[name]
        return max(wide - 2 * seam, seam), max(high - 2 * seam, seam)

    for block in project.blocks:
        comes_out = block.finished
        if as_cut and block.id in as_cut:
            wide, high = block.finished
            comes_out = as_told(as_cut[block.id][0], wide), as_told(as_cut[block.id][1], high)
        sizes[block.id] = SewnSize(
            block.finished, comes_out, sewn(block.id), cut_down.get(block.id)
        )  # fmt: skip
    for motif in quilt.motifs if quilt is not None else ():
        inside = [m for m in members(motif) if m.block in sizes]
        if inside:
            drawn = sizes[inside[0].block].drawn
            cell = [as_lying(sizes[m.block].in_use, m) for m in inside]
            sizes[motif.id] = SewnSize(
                (drawn[0] * motif.columns, drawn[1] * motif.rows),
                (mean(side[0] for side in cell) * motif.columns,
                 mean(side[1] for side in cell) * motif.rows),
                sewn(motif.id),
                cut_down.get(motif.id),
            )  # fmt: skip
    return sizes


def mean(lengths: Iterable[Exact]) -> Exact:
    """The mean of some lengths, to a ten-thousandth where they differ."""
    all_lengths = list(lengths)
    first = all_lengths[0]
    if all(length == first for length in all_lengths):
        return first
    total = float(sum(all_lengths, ZERO)) / len(all_lengths)
    return Fraction(round(total * FINE), FINE)


def as_lying(size: Pair, place: Placed) -> Pair:
    """A size once the block is turned."""
    return (size[1], size[0]) if place.turn % 2 else size


class PlaceSizes:
    """How large the places of a quilt's rows are: by the length drawn, across and down (both as one
    of a quilt on point, whose rows run either way)."""

    def __init__(
        self,
        sizes: Sizes,
        places: Iterable[Placed],
        plain: SewnSize,
        square_cut: Callable[[Exact], Exact],
        apart: Exact,
        on_point: bool,
    ) -> None:
        """``plain`` is the size a place without a block has, ``square_cut`` the length a plain
        square comes out at that is to be so long; a block ``apart`` from its drawing has a place
        of its own."""
        self._sizes, self._plain, self._apart, self._on_point = sizes, plain, apart, on_point
        lengths: dict[tuple[int, Exact], list[Exact]] = {}
        squares: dict[tuple[int, Exact], int] = {}
        for place in places:
            check()
            for key, length in self._keyed(place):
                if place.block in sizes:
                    lengths.setdefault(key, []).append(length)
                else:
                    squares[key] = squares.get(key, 0) + 1
        self._means: dict[tuple[int, Exact], Exact] = {}
        for key, all_lengths in lengths.items():
            blocks = mean(all_lengths)
            plain_ones = [square_cut(blocks)] * squares.get(key, 0)
            self._means[key] = mean([*all_lengths, *plain_ones])

    def _keyed(self, place: Placed) -> list[tuple[tuple[int, Exact], Exact]]:
        """What a place's width and height are known by, and what its block comes to."""
        size = self._sizes.get(place.block, self._plain)
        lengths, in_use = as_lying(size.place(self._apart), place), as_lying(size.in_use, place)
        return [
            ((0 if self._on_point else way, length), comes_out)
            for way, (length, comes_out) in enumerate(zip(lengths, in_use, strict=True))
        ]

    def drawn(self, place: Placed) -> Pair:
        """How wide and how high a place is drawn; one of another size, as it measured."""
        wide, high = (known_by for (_, known_by), _ in self._keyed(place))
        return wide, high

    def lying(self, place: Placed) -> Pair:
        """How wide and how high a place is."""
        wide, high = (self._means.get(key, length) for key, length in self._keyed(place))
        return wide, high
