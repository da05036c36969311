"""The quilt: how blocks are set together, and what lies round them. All of it may be left open."""

from __future__ import annotations

from inlet.core.numbers.fraction import Fraction
from inlet.core.numbers.root2 import Exact
from inlet.core.project.value import Value, replace

MOST_PLACES = 1000
"""Blocks along one side of a quilt."""


class QuiltPlace(Value, frozen=True, kw_only=True):
    """A block that lies otherwise than the rest: another one (empty: the usual one), turned
    clockwise by ``turn`` degrees after it was mirrored, if it was."""

    column: int
    row: int
    block: str = ""
    turn: int | None = None
    mirror: bool | None = None


class Sashing(Value, frozen=True, kw_only=True):
    """Strips between blocks, ``width`` finished, with squares of another cloth where they meet."""

    width: Exact | None = None
    fabric: str = ""
    corner_fabric: str = ""


class Border(Value, frozen=True, kw_only=True):
    """Cloth round the quilt, ``width`` finished."""

    width: Exact | None = None
    fabric: str = ""


class Binding(Value, frozen=True, kw_only=True):
    """What the edge is bound with: strips cut ``width`` wide."""

    width: Exact | None = None
    fabric: str = ""


class Backing(Value, frozen=True, kw_only=True):
    """The cloth behind; it reaches ``overage`` past the quilt on each side."""

    fabric: str = ""
    overage: Exact | None = None


class Quilt(Value, frozen=True, kw_only=True):
    """Blocks ``columns`` across and ``rows`` down, ``block`` in all but the ``places`` that say
    otherwise; ``setting`` is ``straight`` or ``on-point``. Borders from the inside out."""

    setting: str = ""
    columns: int | None = None
    rows: int | None = None
    block: str = ""
    places: tuple[QuiltPlace, ...] = ()
    sashing: Sashing | None = None
    borders: tuple[Border, ...] = ()
    binding: Binding | None = None
    backing: Backing | None = None

    def blocks(self) -> dict[str, int]:
        """How often it has each block, by its id, as far as it is laid out."""
        columns, rows = self.columns or 0, self.rows or 0
        usual = columns * rows
        others = {
            (place.column, place.row): place.block or self.block
            for place in self.places
            if place.column < columns and place.row < rows
        }
        out = {self.block: usual - len(others)} if self.block else {}
        for block in others.values():
            out[block] = out.get(block, 0) + 1
        return {block: number for block, number in out.items() if block and number}


def in_other_cloth(quilt: Quilt, old: str, new: str) -> Quilt:
    """The quilt with cloth ``new`` wherever cloth ``old`` was chosen."""

    def changed(fabric: str) -> str:
        return new if fabric == old else fabric

    sashing, binding, backing = quilt.sashing, quilt.binding, quilt.backing
    return replace(
        quilt,
        sashing=sashing
        and replace(
            sashing,
            fabric=changed(sashing.fabric),
            corner_fabric=changed(sashing.corner_fabric),
        ),
        borders=tuple(replace(b, fabric=changed(b.fabric)) for b in quilt.borders),
        binding=binding and replace(binding, fabric=changed(binding.fabric)),
        backing=backing and replace(backing, fabric=changed(backing.fabric)),
    )


def quilt_measured(quilt: Quilt, factor: Fraction) -> Quilt:
    """The quilt with its lengths in another system, ``factor`` of its units to one of before."""

    def times(length: Exact | None) -> Exact | None:
        return None if length is None else length * factor

    sashing, binding, backing = quilt.sashing, quilt.binding, quilt.backing
    return replace(
        quilt,
        sashing=sashing and replace(sashing, width=times(sashing.width)),
        borders=tuple(replace(b, width=times(b.width)) for b in quilt.borders),
        binding=binding and replace(binding, width=times(binding.width)),
        backing=backing and replace(backing, overage=times(backing.overage)),
    )
