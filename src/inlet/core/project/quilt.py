"""The quilt: how blocks are set together, and what lies round them. All of it may be left open."""

from __future__ import annotations

from typing import Literal, TypeVar

import msgspec

from inlet.core.numbers import Exact, Fraction
from inlet.core.project.value import Brief, Pair, replace

MOST_PLACES = 1000
"""Blocks along one side of a quilt."""
Setting = Literal["", "straight", "on-point"]
Turning = Literal[
    "", "one-way", "quarter-turns", "round", "mirror-pairs", "by-row", "by-ring"
]  # fmt: skip
"""How blocks are turned from place to place: all alike; every other one a quarter turn on; four
round a centre; every other column mirrored; every other row, or ring from the edge, turned."""
Alternation = Literal["checker", "rows", "columns", "rings"]
BorderKind = Literal["butted", "mitred", "corner-squares", "pieced"]
BorderOrder = Literal["sides-first", "ends-first"]
QuiltingKind = Literal["echo", "seams", "grid"]
MOST_ECHOES = 20
MOST_IN_MOTIF = 50
"""Blocks along one side of a motif."""
Quarter = Literal[0, 90, 180, 270]
"""Degrees a block is turned by."""
BindingCut = Literal["straight", "bias"]
Joined = Literal["", "along", "across"]
"""Which way the widths of a backing are joined; empty where whichever needs less is taken."""
Uneven = Literal["", "trim", "ease"]
"""What is done with blocks that come to several sizes: trimmed to one, or eased as they are; empty
where they are trimmed if they must be, and can be."""
TriangleFit = Literal["exact", "mark", "float"]
"""Setting triangles as cut: to a hair, to the next mark of the ruler, or larger so that the blocks
float inside the edge."""


def quarter(turns: int) -> Quarter:
    """Quarter turns as degrees."""
    quarters: tuple[Quarter, ...] = (0, 90, 180, 270)
    return quarters[turns % 4]


class QuiltPlace(Brief, frozen=True, kw_only=True):
    """A place that differs from the rest: another ``block`` or motif (empty: the usual one), or a
    plain square of a ``fabric``; turned clockwise by ``turn`` degrees after it was mirrored, if it
    was; in a ``colourway``. Rows are counted from the top: on point each line of blocks is one, the
    even ones with ``columns`` blocks, those between with one fewer."""

    column: int
    row: int
    block: str = ""
    turn: Quarter | None = None
    mirror: bool | None = None
    fabric: str = ""
    colourway: str = ""


class Alternate(Brief, frozen=True, kw_only=True):
    """What lies in every other place: another ``block`` or motif, or plain squares of a ``fabric``;
    ``by`` says which places."""

    block: str = ""
    fabric: str = ""
    by: Alternation = "checker"


class Motif(Brief, frozen=True, kw_only=True):
    """Blocks sewn together first and then set as one: ``columns`` by ``rows`` of them, ``block`` in
    all but the ``places`` that say otherwise."""

    id: str
    name: str = ""
    columns: int = 2
    rows: int = 2
    block: str = ""
    turning: Turning = ""
    places: tuple[QuiltPlace, ...] = ()


class Colourway(Brief, frozen=True, kw_only=True):
    """A block in other fabrics: ``fabrics`` says for each fabric of its drawing which takes its
    place; of all blocks, or of one."""

    id: str
    name: str = ""
    block: str = ""
    fabrics: dict[str, str] = msgspec.field(name="cloths", default_factory=dict)


class Scatter(Brief, frozen=True, kw_only=True):
    """Colourways scattered by chance over the places that name none themselves; the same ``seed``
    gives the same again. ``apart``: none alike side by side; ``balance``: light and dark evenly
    over the top; ``fabrics_apart``: no fabric twice in a row."""

    colourways: tuple[str, ...] = ()
    seed: int = 1
    apart: bool = True
    balance: bool = True
    fabrics_apart: bool = msgspec.field(name="cloths", default=False)


class Sashing(Brief, frozen=True, kw_only=True):
    """Strips between blocks, ``width`` finished, between rows ``down`` where that differs; with
    squares of another fabric where they meet; ``outside``: round the blocks at the edge as well."""

    width: Exact | None = None
    fabric: str = ""
    corner_fabric: str = ""
    down: Exact | None = None
    outside: bool = False


class Triangles(Brief, frozen=True, kw_only=True):
    """The setting triangles of a quilt on point, cut as ``fit`` says; to ``float``, larger so that
    the blocks lie ``float_by`` inside the edge."""

    fabric: str = ""
    fit: TriangleFit = "mark"
    float_by: Exact | None = msgspec.field(default=None, name="float")


class Border(Brief, frozen=True, kw_only=True):
    """Fabric round the quilt, ``width`` finished: sides first and then the ends, or the other way;
    mitred; with corner squares; or ``pieced`` of a ``block`` repeated, with a plain ``spacer``
    inside it that makes it fit. ``measured`` is what the quilt measured through its middle, raw
    edge to raw edge, before this border."""

    width: Exact | None = None
    fabric: str = ""
    kind: BorderKind = "butted"
    order: BorderOrder = "sides-first"
    corner_fabric: str = ""
    block: str = ""
    measured: Pair | None = None


class Binding(Brief, frozen=True, kw_only=True):
    """What the edge is bound with: strips cut ``width`` wide, on the straight or the bias."""

    width: Exact | None = None
    fabric: str = ""
    cut: BindingCut = "straight"


class Backing(Brief, frozen=True, kw_only=True):
    """The fabric behind; it reaches ``overage`` past the quilt on each side. Its widths lie side by
    side with their seams ``along`` the quilt or ``across`` it, whichever needs less if not said."""

    fabric: str = ""
    overage: Exact | None = None
    seam: Joined = ""


class Batting(Brief, frozen=True, kw_only=True):
    """What lies between; it reaches ``overage`` past the quilt on each side."""

    overage: Exact | None = None


class QuiltingLines(Brief, frozen=True, kw_only=True):
    """Lines to quilt along: ``echo`` of every patch (of those of a ``fabric``), ``distance`` inside
    its seams and again at so many ``repeats`` of it; along the ``seams`` themselves; or a ``grid``
    all over, ``distance`` between its lines, square to the quilt's edge or on the ``diagonal``."""

    kind: QuiltingKind = "echo"
    fabric: str = ""
    distance: Exact | None = None
    repeats: int = 1
    diagonal: bool = False


class Quilt(Brief, frozen=True, kw_only=True):
    """Blocks ``columns`` across and ``rows`` down, ``block`` (or a motif) in all but the ``places``
    that say otherwise, every other one an ``alternate``, turned by a pattern of ``turning``;
    ``setting`` is ``straight`` or ``on-point``. Straight rows may be of any length:
    ``row_lengths``, as far as they are given, say how many blocks each has; short ones are filled
    up with ``filler``. Borders from the inside out. ``uneven`` says what is done with blocks that
    come to several sizes. Every other one of blocks that look the same turned is turned where seams
    nest so, unless they lie just ``as_placed``. ``made`` is what a block measured when it was
    made, unfinished."""

    setting: Setting = ""
    columns: int | None = None
    rows: int | None = None
    block: str = ""
    alternate: Alternate | None = None
    turning: Turning = ""
    row_lengths: tuple[int, ...] = ()
    filler: str = ""
    places: tuple[QuiltPlace, ...] = ()
    motifs: tuple[Motif, ...] = ()
    colourways: tuple[Colourway, ...] = ()
    scatter: Scatter | None = None
    sashing: Sashing | None = None
    triangles: Triangles | None = None
    borders: tuple[Border, ...] = ()
    binding: Binding | None = None
    backing: Backing | None = None
    batting: Batting | None = None
    quilting: tuple[QuiltingLines, ...] = ()
    uneven: Uneven = ""
    as_placed: bool = False
    made: dict[str, Pair] = msgspec.field(default_factory=dict)

    @property
    def on_point(self) -> bool:
        return self.setting == "on-point"

    def motif(self, name: str) -> Motif | None:
        return next((motif for motif in self.motifs if motif.id == name), None)

    def colourway(self, name: str) -> Colourway | None:
        return next((way for way in self.colourways if way.id == name), None)


T = TypeVar("T", bound=Brief)


def in_other_fabric(quilt: Quilt, old: str, new: str) -> Quilt:
    """The quilt with fabric ``new`` wherever fabric ``old`` was chosen."""

    def changed(part: T) -> T:
        own = ("fabric", "corner_fabric", "filler")
        return replace(part, **{name: new for name in own if getattr(part, name, "") == old})

    def of_all(parts: tuple[T, ...]) -> tuple[T, ...]:
        return tuple(changed(part) for part in parts)

    own = {
        name: changed(part)
        for name in ("alternate", "sashing", "triangles", "binding", "backing")
        if (part := getattr(quilt, name)) is not None
    }
    return replace(
        changed(quilt),
        **own,
        places=of_all(quilt.places),
        motifs=tuple(replace(m, places=of_all(m.places)) for m in quilt.motifs),
        borders=of_all(quilt.borders),
        quilting=of_all(quilt.quilting),
        colourways=tuple(
            replace(
                way,
                fabrics={
                    new if k == old else k: new if v == old else v for k, v in way.fabrics.items()
                },
            )
            for way in quilt.colourways
        ),
    )


def quilt_measured(quilt: Quilt, factor: Fraction) -> Quilt:
    """The quilt with its lengths in another system, ``factor`` of its units to one of before."""

    def pair(size: Pair) -> Pair:
        return size[0] * factor, size[1] * factor

    def changed(part: T) -> T:
        lengths = {
            name: value * factor
            for name in ("width", "down", "float_by", "overage", "distance")
            if (value := getattr(part, name, None)) is not None
        }
        return replace(part, **lengths)

    def border(part: Border) -> Border:
        measured = None if part.measured is None else pair(part.measured)
        return replace(changed(part), measured=measured)

    own = {
        name: changed(part)
        for name in ("sashing", "triangles", "binding", "backing", "batting")
        if (part := getattr(quilt, name)) is not None
    }
    return replace(
        quilt,
        **own,
        borders=tuple(border(part) for part in quilt.borders),
        quilting=tuple(changed(part) for part in quilt.quilting),
        made={block: pair(size) for block, size in quilt.made.items()},
    )


def without_block(quilt: Quilt, block: str) -> Quilt:
    """The quilt without a block that is put away: its places are as the others, motifs that were
    all of it go with it."""

    def kept(places: tuple[QuiltPlace, ...]) -> tuple[QuiltPlace, ...]:
        quilt_places = tuple(replace(p, block="") if p.block == block else p for p in places)
        return tuple(p for p in quilt_places if p != QuiltPlace(column=p.column, row=p.row))

    gone = {motif.id for motif in quilt.motifs if motif.block == block} | {block}
    alternate = quilt.alternate
    if alternate is not None and alternate.block in gone:
        alternate = None
    left = replace(quilt, places=tuple(p for p in quilt.places if p.block not in gone - {block}))
    return replace(
        left,
        block="" if quilt.block in gone else quilt.block,
        alternate=alternate,
        places=kept(left.places),
        motifs=tuple(
            replace(motif, places=kept(motif.places))
            for motif in quilt.motifs
            if motif.id not in gone
        ),
        colourways=tuple(w for w in quilt.colourways if w.block != block),
        scatter=_still(quilt, block),
        borders=tuple(replace(b, block="") if b.block in gone else b for b in quilt.borders),
        made={name: size for name, size in quilt.made.items() if name not in gone},
    )


def _still(quilt: Quilt, block: str) -> Scatter | None:
    """The scatter without the colourways of a block."""
    if quilt.scatter is None:
        return None
    own = {way.id for way in quilt.colourways if way.block != block}
    left = tuple(name for name in quilt.scatter.colourways if name in own)
    return replace(quilt.scatter, colourways=left) if left else None
