"""A block as drawn: its bands, seams, fabrics and what was chosen for its units."""

from __future__ import annotations

import re
from functools import cached_property
from typing import Literal

import msgspec

from inlet.core.geometry import Curve, Point, short_point
from inlet.core.numbers import Exact, Fraction, System
from inlet.core.project.improvised import Improvised
from inlet.core.project.made_from import MadeFrom
from inlet.core.project.measure import INCH, CuttingStyle, Measure
from inlet.core.project.panel import Panel
from inlet.core.project.pressing import BlockPressing
from inlet.core.project.value import Pair, Value, fresh_id, replace

LARGEST_BLOCK_INCHES = Fraction(120)
"""A pieced block larger than a bed is a slip of the keyboard."""
MOST_SEAMS = 4000
MOST_BANDS = 200
LONGEST_LABEL = 12
"""Letters that fit on a label for a stack."""


class Arc(Value, frozen=True, kw_only=True):
    """A circular arc as files hold it, run the short way from ``start`` to ``end``."""

    centre: Pair
    start: Pair = msgspec.field(name="from")
    end: Pair = msgspec.field(name="to")


class Seam(Value, frozen=True, kw_only=True):
    """One seam as drawn, in grid units: a ``line`` by its two ends, or an ``arc``."""

    line: tuple[Pair, Pair] | None = None
    arc: Arc | None = None

    @property
    def ends(self) -> tuple[Point, Point]:
        if self.line is not None:
            return Point(*self.line[0]), Point(*self.line[1])
        assert self.arc is not None
        return Point(*self.arc.start), Point(*self.arc.end)

    @property
    def curve(self) -> Curve:
        """What the seam lies along."""
        start, end = self.ends
        return Curve(start, end, Point(*self.arc.centre) if self.arc is not None else None)


def straight(p: Pair, q: Pair) -> Seam:
    """A straight seam, its ends in a fixed order so that drawing it backward is no difference, its
    numbers kept short (see ``short_point``), as a file holds them."""
    low, high = sorted(map(_kept_short, (p, q)))
    return Seam(line=(low, high))


def curved(p: Pair, q: Pair, centre: Pair) -> Seam:
    """A seam along an arc, its ends in a fixed order like those of ``straight``."""
    low, high = sorted(map(_kept_short, (p, q)))
    return Seam(arc=Arc(centre=_kept_short(centre), start=low, end=high))


def _kept_short(p: Pair) -> Pair:
    x, y = short_point(Point(*p))
    return x, y


def seam_along(curve: Curve) -> Seam:
    """The seam that lies along a curve."""
    start, end, centre = curve
    return straight(start, end) if centre is None else curved(start, end, centre)


class FabricAt(Value, frozen=True, kw_only=True):
    """The fabric of whichever patch has ``point`` inside it."""

    point: Pair
    fabric: str


class Choice(Value, frozen=True, kw_only=True):
    """What the maker chose for one unit, the one with a patch around ``point``: its ``label``, its
    ``method``, its ``style``, the cut fabric it is made from (``stock``, as in “10 squares”);
    empty where the block's or the project's choice holds."""

    point: Pair
    label: str = ""
    method: str = ""
    style: CuttingStyle | Literal[""] = msgspec.field(name="school", default="")
    stock: str = ""


class Block(Value, frozen=True, kw_only=True, dict=True):
    """A drafted block. Bands (``columns``, ``rows``) are proportions; coordinates of seams are in
    grid units from the top left, x up to the sum of columns; ``finished`` is (width, height).
    ``marks`` are points carried there with the compass, to draw seams between. ``methods`` are by
    kind of unit, ``units`` the choices for single ones, ``pressing`` is what was decided of its
    seams. The drawing of a block that is ``made_from`` others follows from theirs, that of a
    ``panel`` from its piece and motif; one of a single patch may have ``improvised`` corners."""

    id: str
    name: str = ""
    finished: Pair = (Fraction(9), Fraction(9))
    columns: tuple[Exact, ...] = (Fraction(1),)
    rows: tuple[Exact, ...] = (Fraction(1),)
    seams: tuple[Seam, ...] = ()
    fabric_at: tuple[FabricAt, ...] = ()
    marks: tuple[Pair, ...] = ()
    methods: dict[str, str] = msgspec.field(default_factory=dict)
    units: tuple[Choice, ...] = ()
    pressing: BlockPressing | None = None
    made_from: MadeFrom | None = None
    improvised: Improvised | None = None
    panel: Panel | None = None

    @property
    def title(self) -> str:
        return self.name or self.id

    @cached_property
    def grid(self) -> Pair:
        """Width and height in grid units."""
        return total(self.columns), total(self.rows)

    @property
    def curves(self) -> bool:
        """Is any seam an arc?"""
        return any(seam.arc is not None for seam in self.seams)

    @cached_property
    def scale(self) -> Pair:
        """Finished length of one grid unit, across and down."""
        width, height = self.grid
        return self.finished[0] / width, self.finished[1] / height


def started_from(block: Block) -> tuple[str, ...]:
    """The ids of the blocks that a block is made from; none for one that is drawn."""
    return tuple(start.block for start in block.made_from.starts) if block.made_from else ()


def new_block(taken: set[str], name: str, measure: Measure = INCH) -> Block:
    """An empty block on a three by three grid, at a size usual in its measure."""
    bands = (Fraction(1),) * 3
    size = measure.system.first_size
    return Block(
        id=fresh_id(name, taken), name=name, finished=(size, size), columns=bands, rows=bands
    )


def choice_in_system(choice: Choice, system: System) -> Choice:
    """A choice whose fabric already cut says what it is measured in: its size stays the same."""
    plain = re.sub(r"(\d)\s*(strip|square|scrap)", rf"\1 {system.unit} \2", choice.stock)
    return replace(choice, stock=plain)


def total(bands: tuple[Exact, ...]) -> Exact:
    out: Exact = Fraction(0)
    for band in bands:
        out = out + band
    return out
