"""The whole document as one immutable value.

An edit makes a new ``Project``; undo is a stack of them. Nothing here is derived: patches, units,
cuts and steps are functions of it, found in the stages' own packages.
"""

from __future__ import annotations

import re
from functools import cached_property
from typing import Any

import msgspec

from inlet.core.fraction import Fraction
from inlet.core.geometry.crossings import short_point
from inlet.core.geometry.curve import Curve
from inlet.core.geometry.point import Point
from inlet.core.numbers import CM_PER_INCH, Exact

Pair = tuple[Exact, Exact]
"""A point or a size: (x, y) or (width, height)."""

LARGEST_BLOCK_INCHES = Fraction(120)
"""A pieced block larger than a bed is a slip of the keyboard."""
MOST_SEAMS = 4000
MOST_BANDS = 200
LONGEST_LABEL = 12
"""Letters that fit on a label for a stack."""


class _Value(msgspec.Struct, frozen=True, kw_only=True, omit_defaults=True):
    """Base of every part of the document; ``extra`` keeps keys of the file we do not know."""

    extra: dict[str, Any] = {}


class Measure(_Value, frozen=True, kw_only=True):
    """How this project measures: lengths are in ``system`` ("inch" or "cm"). ``oversize`` is what
    the trim school cuts larger: up to the next mark of the first, plus the second. ``squaring`` is
    lost of each strip to square its end. Where they are None the usual ones hold."""

    system: str = "inch"
    seam: Exact = Fraction(1, 4)
    ruler: Exact = Fraction(1, 8)
    school: str = "exact"
    oversize: Pair | None = None
    squaring: Exact | None = None

    @property
    def mark(self) -> Fraction:
        """The ruler mark; files with an irrational one are refused."""
        assert isinstance(self.ruler, Fraction)
        return self.ruler

    @property
    def larger(self) -> Pair:
        """The trim school's rule, see ``oversize``."""
        return self.oversize if self.oversize is not None else OVERSIZE[self.system]

    @property
    def squared_off(self) -> Exact:
        return self.squaring if self.squaring is not None else SQUARING[self.system]

    def inches(self, length: Exact) -> Exact:
        """A length of this project in inches."""
        return length if self.system == "inch" else length / CM_PER_INCH

    def from_inches(self, length: Exact) -> Exact:
        return length if self.system == "inch" else length * CM_PER_INCH


OVERSIZE: dict[str, Pair] = {
    "inch": (Fraction(1, 8), Fraction(1, 8)),
    "cm": (Fraction(1, 10), Fraction(3, 10)),
}
SQUARING = {"inch": Fraction(1, 2), "cm": Fraction(1)}
INCH = Measure()
METRIC = Measure(system="cm", seam=Fraction(3, 4), ruler=Fraction(1, 10))

DEFAULT_WIDTH = {"inch": Fraction(42), "cm": Fraction(107)}
"""Usable width of cloth where a fabric states none."""


class Print(_Value, frozen=True, kw_only=True):
    """A picture of a print: ``image`` as base64 of a PNG or JPEG file, ``width`` the length of
    cloth it shows from side to side."""

    image: str
    width: Exact = Fraction(4)


class Fabric(_Value, frozen=True, kw_only=True):
    """A cloth. ``width`` is the usable width, selvages off; ``colour`` is ``#rrggbb``; ``value`` is
    ``light``, ``medium`` or ``dark`` where the maker says so, else empty."""

    id: str
    name: str = ""
    colour: str = "#cfc8ba"
    width: Exact | None = None
    value: str = ""
    print: Print | None = None
    notes: str = ""

    @property
    def title(self) -> str:
        return self.name or self.id


class Arc(_Value, frozen=True, kw_only=True):
    """A circular arc as files hold it, run the short way from ``start`` to ``end``."""

    centre: Pair
    start: Pair = msgspec.field(name="from")
    end: Pair = msgspec.field(name="to")


class Seam(_Value, frozen=True, kw_only=True):
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


class FabricAt(_Value, frozen=True, kw_only=True):
    """The cloth of whichever patch has ``point`` inside it."""

    point: Pair
    fabric: str


class Choice(_Value, frozen=True, kw_only=True):
    """What the maker chose for one unit, the one with a patch around ``point``: its ``label``, its
    ``method``, its ``school``, the cut cloth it is made from (``stock``, as in “10 squares”); empty
    where the block's or the project's choice holds."""

    point: Pair
    label: str = ""
    method: str = ""
    school: str = ""
    stock: str = ""


class Rates(_Value, frozen=True, kw_only=True):
    """How long the maker takes, in seconds: to cut one shape or line, draw a line, sew a seam (and
    each ten inches of it, or 25 cm), press one seam, trim one unit. ``sitting`` is how many minutes
    they have at a time, ``bobbin`` how many yards (or metres) one holds."""

    cut: int = 12
    mark: int = 15
    seam: int = 10
    length: int = 15
    press: int = 10
    trim: int = 30
    sitting: int = 60
    bobbin: int = 60


class Needle(_Value, frozen=True, kw_only=True):
    """A needle test: three strips ``strip`` wide sewn side by side and pressed, and what the middle
    one measures then; ``stitched``, if it was measured, from the raw edge to the stitches."""

    strip: Exact = Fraction(3, 2)
    middle: Exact = Fraction(1)
    stitched: Exact | None = None


class Block(_Value, frozen=True, kw_only=True, dict=True):
    """A drafted block. Bands (``columns``, ``rows``) are proportions; coordinates of seams are in
    grid units from the top left, x up to the sum of columns; ``finished`` is (width, height).
    ``marks`` are points carried there with the compass, to draw seams between. ``methods`` are by
    kind of unit, ``units`` the choices for single ones."""

    id: str
    name: str = ""
    finished: Pair = (Fraction(9), Fraction(9))
    columns: tuple[Exact, ...] = (Fraction(1),)
    rows: tuple[Exact, ...] = (Fraction(1),)
    seams: tuple[Seam, ...] = ()
    fabric_at: tuple[FabricAt, ...] = ()
    marks: tuple[Pair, ...] = ()
    methods: dict[str, str] = {}
    units: tuple[Choice, ...] = ()

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


class Project(_Value, frozen=True, kw_only=True):
    """Everything the maker decided. ``quilt`` is kept as the file holds it."""

    name: str = ""
    measure: Measure = INCH
    fabrics: tuple[Fabric, ...] = ()
    blocks: tuple[Block, ...] = ()
    quilt: dict[str, Any] | None = None
    rates: Rates | None = None
    needle: Needle | None = None

    def block(self, block_id: str) -> Block:
        """The block of that id; ``KeyError`` if there is none."""
        for block in self.blocks:
            if block.id == block_id:
                return block
        raise KeyError(block_id)

    def fabric(self, fabric_id: str) -> Fabric | None:
        return next((f for f in self.fabrics if f.id == fabric_id), None)

    def in_quilt(self, block_id: str) -> int:
        """How often the quilt, as far as the file lays it out, has a block; 0 without a quilt."""
        quilt = self.quilt or {}
        columns, rows = quilt.get("columns"), quilt.get("rows")
        if not isinstance(columns, int) or not isinstance(rows, int):
            return 0
        usual = quilt.get("block")
        others: dict[tuple[int, int], object] = {}
        places = quilt.get("places")
        for place in places if isinstance(places, list) else ():
            c, r = (place.get("column"), place.get("row")) if isinstance(place, dict) else (-1, -1)
            if isinstance(c, int) and isinstance(r, int) and 0 <= c < columns and 0 <= r < rows:
                others[c, r] = place.get("block", usual)
        rest = max(columns, 0) * max(rows, 0) - len(others)
        return rest * (usual == block_id) + list(others.values()).count(block_id)

    def cloth_width(self, fabric_id: str) -> Exact:
        """Usable width of a cloth, or the usual one where it states none."""
        fabric = self.fabric(fabric_id)
        stated = fabric.width if fabric else None
        return stated if stated is not None else DEFAULT_WIDTH[self.measure.system]

    def with_fabric(self, old: str, new: Fabric) -> Project:
        """The project with the cloth of id ``old`` replaced."""
        return replace(self, fabrics=tuple(new if f.id == old else f for f in self.fabrics))

    def in_place_of(self, old: str, new: str) -> Project:
        """The project with cloth ``new`` wherever cloth ``old`` lies, and ``old`` put away."""
        return replace(
            self,
            fabrics=tuple(f for f in self.fabrics if f.id != old),
            blocks=tuple(
                replace(
                    block,
                    fabric_at=tuple(
                        replace(spot, fabric=new) if spot.fabric == old else spot
                        for spot in block.fabric_at
                    ),
                )
                for block in self.blocks
            ),
            quilt=_renamed(self.quilt, old, new),
        )

    def with_block(self, block: Block) -> Project:
        """The project with the block of the same id replaced."""
        return replace(self, blocks=tuple(block if b.id == block.id else b for b in self.blocks))


replace = msgspec.structs.replace


def _renamed(quilt: Any, old: str, new: str) -> Any:
    """The quilt as the file holds it, with every mention of a cloth changed."""
    if isinstance(quilt, dict):
        return {
            k: new if v == old and k.endswith("fabric") else _renamed(v, old, new)
            for k, v in quilt.items()
        }
    return [_renamed(v, old, new) for v in quilt] if isinstance(quilt, list) else quilt


FIRST_CLOTHS = (
    Fabric(id="light", name="Light", colour="#ece5d3"),
    Fabric(id="medium", name="Medium", colour="#a9b6a2"),
    Fabric(id="dark", name="Dark", colour="#2d5560"),
)


def first_project() -> Project:
    """A project to begin with: three cloths, no block yet."""
    return Project(fabrics=FIRST_CLOTHS)


def new_block(taken: set[str], name: str, measure: Measure = INCH) -> Block:
    """An empty block on a three by three grid, at a size usual in its measure."""
    bands = (Fraction(1),) * 3
    size = Fraction(24 if measure.system == "cm" else 9)
    return Block(
        id=fresh_id(name, taken), name=name, finished=(size, size), columns=bands, rows=bands
    )


def measured_in(project: Project, system: str) -> Project:
    """The project in inches or centimetres: lengths are converted exactly (1 in = 2.54 cm), so
    nothing changes size; seam, ruler mark and cloth widths become the usual ones there."""
    if system == project.measure.system:
        return project
    factor = CM_PER_INCH if system == "cm" else 1 / CM_PER_INCH
    needle = project.needle
    if needle is not None:
        stitched = None if needle.stitched is None else needle.stitched * factor
        needle = replace(
            needle, strip=needle.strip * factor, middle=needle.middle * factor, stitched=stitched
        )
    measure = replace(METRIC if system == "cm" else INCH, school=project.measure.school)
    return replace(
        project,
        measure=measure,
        needle=needle,
        fabrics=tuple(_fabric_measured(f, factor) for f in project.fabrics),
        blocks=tuple(
            replace(
                b,
                finished=(b.finished[0] * factor, b.finished[1] * factor),
                units=tuple(_in_system(choice, project.measure.system) for choice in b.units),
            )
            for b in project.blocks
        ),
    )


def _in_system(choice: Choice, system: str) -> Choice:
    """A choice whose cloth already cut says what it is measured in: its size stays the same."""
    unit = "in" if system == "inch" else "cm"
    plain = re.sub(r"(\d)\s*(strip|square|scrap)", rf"\1 {unit} \2", choice.stock)
    return replace(choice, stock=plain)


def _fabric_measured(fabric: Fabric, factor: Fraction) -> Fabric:
    shown = fabric.print
    return replace(
        fabric,
        width=None,
        print=replace(shown, width=shown.width * factor) if shown is not None else None,
    )


def total(bands: tuple[Exact, ...]) -> Exact:
    out: Exact = Fraction(0)
    for band in bands:
        out = out + band
    return out


def fresh_id(name: str, taken: set[str]) -> str:
    """A file id made from a name: lower case, words joined by hyphens, numbered if taken."""
    plain = "".join(c if c.isalnum() else "-" for c in name.lower())
    base = "-".join(filter(None, plain.split("-"))) or "block"
    found, number = base, 2
    while found in taken:
        found, number = f"{base}-{number}", number + 1
    return found
