"""What the maker decided about cutting, what fabric they have, and fabric laid down to be cut."""

from __future__ import annotations

from typing import Literal

import msgspec
from msgspec import field

from inlet.core.numbers import Exact, Fraction
from inlet.core.project.value import Pair, Value, replace

HaveKind = Literal["bolt", "fat-quarter", "strips", "squares", "scrap", "panel"]
"""Lengths off the bolt, other shop cuts, bundles cut already, what is left over, feature prints."""
Direction = Literal["", "one-way", "two-way"]
"""A print that lies any way; one with a top, as a nap has; a stripe, which has none."""
Goal = Literal["balance", "cloth", "cuts", "widths"]
"""Fabric and time weighed by the maker's rates; least fabric, fewest cuts, fewest strip widths."""
LaidKind = Literal["new", "bolt", "fat-quarter", "strips", "squares", "scrap", "panel"]
"""Fabric to buy, or of a kind that there is."""
Folds = Literal[0, 1, 2]
Hand = Literal["right", "left"]
MOST_BLADE = 8
"""Layers that a rotary cutter goes through."""
MOST_RULERS = 12
USUAL_MARGIN = Fraction(5)
MOST_EVERY = 20
"""Strips between one squaring of the edge and the next."""
MOST_LAID = 20_000
"""Strips of one piece of fabric."""
MOST_LAID_PIECES = 50_000
"""Pieces of all fabrics that are being cut: nobody follows more cut by cut."""
Layers = Literal[1, 2, 4]
"""Of fabric laid down: open, folded once, folded twice."""
MOST_HAVE = 200
"""Entries of what there is of one fabric, and pieces of one entry."""
MOST_OWNED = 2_000
"""Pieces of one fabric in all."""
MOST_SHRINK = 50
"""Per cent; washing takes less."""


def folded(folds: Folds) -> Layers:
    """The layers of fabric that is folded so often."""
    layers: tuple[Layers, ...] = (1, 2, 4)
    return layers[folds]


class Have(Value, frozen=True, kw_only=True):
    """Fabric the maker has: ``count`` pieces ``width`` across and ``length`` along the selvage,
    with a ``selvage`` on both sides that is no use. Strips and squares are cut already: ``width``
    is how wide, ``length`` how long; a square's is its width."""

    kind: HaveKind = "bolt"
    width: Exact | None = None
    length: Exact | None = None
    count: int = 1
    selvage: Exact = Fraction(0)


class PrintMotif(Value, frozen=True, kw_only=True):
    """A motif of a feature print that is to sit in the middle of a piece of ``finished`` size: its
    own ``size``, and the free fabric from it to the edge on every side."""

    size: Pair
    left: Exact
    right: Exact
    top: Exact
    bottom: Exact
    finished: Pair


class LaidPieces(Value, frozen=True, kw_only=True):
    """``count`` equal pieces side by side, for the stack ``label``: ``size`` across the fabric and
    along it as they lie; ``turned`` from how the print stands, or from the long side across. Each
    ``holds`` so many templates head to tail, to be cut apart by the ruler's angle lines."""

    label: str
    size: Pair
    count: int = 1
    turned: bool = False
    holds: int = 1


class LaidRow(Value, frozen=True, kw_only=True):
    """A row of a segment, ``width`` along the fabric."""

    width: Exact
    pieces: tuple[LaidPieces, ...]


class LaidSegment(Value, frozen=True, kw_only=True):
    """``count`` equal segments of a strip, each ``width`` across the fabric, its rows one below the
    other."""

    width: Exact
    rows: tuple[LaidRow, ...]
    count: int = 1


class LaidStrip(Value, frozen=True, kw_only=True):
    """``count`` equal strips, each cut ``width`` wide."""

    width: Exact
    segments: tuple[LaidSegment, ...]
    count: int = 1


class LaidFabric(Value, frozen=True, kw_only=True):
    """One piece of fabric to lay down, as it lies after washing: ``kind`` of what is there, or
    ``new`` for fabric to buy; ``count`` equal pieces of it that are cut alike; ``width`` usable
    across, ``length`` along; folded into so many ``layers`` (1, 2 or 4). Its strips
    in the order they are cut. ``squaring`` is lost at its start and again before every ``every``
    strips (0: at the start only), and of each strip's ends."""

    kind: LaidKind
    width: Exact
    length: Exact
    layers: Layers = 1
    count: int = 1
    squaring: Exact = Fraction(0)
    every: int = 0
    strips: tuple[LaidStrip, ...] = ()


class Begun(Value, frozen=True, kw_only=True):
    """Fabric that is being cut: how it was laid out when the first cut was made, for so many
    ``copies`` of a block (no block: for the whole quilt), and how many of its cuts are ``done``.
    With which ``rulers``, ``mat`` and ``blade`` it is cut, whatever the maker has later; of files
    that do not say it, with those of the project."""

    fabric: str
    block: str
    copies: int
    laid: LaidFabric = msgspec.field(name="cloth")
    done: int = 0
    rulers: tuple[Pair, ...] = field(default_factory=tuple)
    mat: Pair | None = None
    blade: int | None = None


class Cutting(Value, frozen=True, kw_only=True):
    """How fabric is cut: folded so often, squared off again every so many strips (0: only at the
    start); with the maker's ``rulers``, each its two sides, on a ``mat``, the ``blade`` going
    through so many layers; a long cut of fabric in lengths of about ``handled``. Where the maker
    says nothing of these (no rulers, None), they are those usual in the system. ``margin`` is what
    is bought more, in per cent. ``wash``: fabric is washed before it is cut, and shrinks.
    ``scraps_first``: what is there is used before fabric off the bolt. ``motif`` is to be
    centred."""

    folds: Folds = 1
    square_every: int = 4
    rulers: tuple[Pair, ...] = field(default_factory=tuple)
    mat: Pair | None = None
    blade: int = 4
    handled: Exact | None = field(default=None, name="length")
    margin: Exact = USUAL_MARGIN
    goal: Goal = "balance"
    handed: Hand = "right"
    wash: bool = False
    scraps_first: bool = True
    motif: PrintMotif | None = None
    begun: tuple[Begun, ...] = field(default_factory=tuple)


def have_measured(have: Have, factor: Fraction) -> Have:
    """What is there, with its lengths in another system."""
    return replace(
        have,
        width=None if have.width is None else have.width * factor,
        length=None if have.length is None else have.length * factor,
        selvage=have.selvage * factor,
    )


def without_fabric(cutting: Cutting, fabric: str) -> Cutting:
    """The same decisions once a fabric is put away: nothing is being cut of it."""
    return replace(cutting, begun=tuple(b for b in cutting.begun if b.fabric != fabric))


def cutting_measured(cutting: Cutting, factor: Fraction) -> Cutting:
    """The same decisions with their lengths in another system: rulers and mats of the maker's
    are what they are, and measure what they did."""
    return replace(
        cutting,
        rulers=tuple(_pair_measured(pair, factor) for pair in cutting.rulers),
        mat=None if cutting.mat is None else _pair_measured(cutting.mat, factor),
        handled=None if cutting.handled is None else cutting.handled * factor,
        motif=None if cutting.motif is None else _motif_measured(cutting.motif, factor),
        begun=tuple(_begun_measured(begun, factor) for begun in cutting.begun),
    )


def _pair_measured(pair: Pair, factor: Fraction) -> Pair:
    return pair[0] * factor, pair[1] * factor


def _begun_measured(begun: Begun, factor: Fraction) -> Begun:
    return replace(
        begun,
        laid=_fabric_measured(begun.laid, factor),
        rulers=tuple(_pair_measured(pair, factor) for pair in begun.rulers),
        mat=None if begun.mat is None else _pair_measured(begun.mat, factor),
    )


def _motif_measured(motif: PrintMotif, factor: Fraction) -> PrintMotif:
    sides = {side: getattr(motif, side) * factor for side in ("left", "right", "top", "bottom")}
    size, finished = (_pair_measured(pair, factor) for pair in (motif.size, motif.finished))
    return replace(motif, size=size, finished=finished, **sides)


def _fabric_measured(laid: LaidFabric, factor: Fraction) -> LaidFabric:
    def row(old: LaidRow) -> LaidRow:
        pieces = tuple(
            replace(p, size=(p.size[0] * factor, p.size[1] * factor)) for p in old.pieces
        )
        return replace(old, width=old.width * factor, pieces=pieces)

    def segment(old: LaidSegment) -> LaidSegment:
        return replace(old, width=old.width * factor, rows=tuple(map(row, old.rows)))

    def strip(old: LaidStrip) -> LaidStrip:
        segments = tuple(map(segment, old.segments))
        return replace(old, width=old.width * factor, segments=segments)

    return replace(
        laid,
        width=laid.width * factor,
        length=laid.length * factor,
        squaring=laid.squaring * factor,
        strips=tuple(map(strip, laid.strips)),
    )
