"""A method to make a unit: its pieces, its moves at the table with their pictures, its products."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from functools import cached_property
from math import hypot, sqrt
from typing import NamedTuple

from inlet.core.geometry import Polygon
from inlet.core.memo import KeyedTable
from inlet.core.numbers import Exact, Fraction
from inlet.core.project import UnitKind
from inlet.core.table import Move, Piece, Sheet, Size, box, rectangle, strip


class MethodWork(NamedTuple):
    """What a run comes to: moves in order, and the units as they come off the table, raw edges
    included and lying with the grain of their fabric; none where a unit is sewn patch to patch."""

    moves: tuple[Move, ...]
    products: tuple[Sheet, ...] = ()


class ByProduct(NamedTuple):
    """Something else a run leaves: ``number`` of a ``kind`` of unit, at its finished size;
    ``mirrored`` if it is the unit made, of the other hand."""

    kind: UnitKind
    size: Size
    number: int
    fabrics: tuple[str | None, ...]
    mirrored: bool = False


class SetOfStrips(NamedTuple):
    """Strips to be sewn side by side and cut across: finished widths and fabrics of the bands, the
    finished height of a segment, and how many segments a run needs. ``slanted``: segments are sewn
    or cut on a slant."""

    bands: tuple[tuple[Exact, str | None], ...]
    height: Exact
    number: int
    slanted: bool = False


class Effort(NamedTuple):
    """What a run takes: ``seams``, ``length`` of them in all, cuts to take what is sewn ``apart``,
    lines and dots to ``mark``, seams to ``press``. Diagonals cut before sewing are counted with the
    squares they cut (``pieces.DIAGONALS``)."""

    seams: Fraction | int
    length: float
    apart: Fraction | int
    marks: Fraction | int
    presses: Fraction | int


Sizes = tuple[Size, ...]
"""The size each piece of a method is cut, in their order."""
Lying = Sequence[Sequence[Polygon]]
"""By the number of a piece: the outlines of the patches cut as it, as they lie in the unit."""


@dataclass(frozen=True, eq=False)
class Method:
    """A method worked out for one unit, whatever number of them is needed.

    ``pieces`` are for one run, which makes ``makes`` units, and ``mirrored`` of their mirror image
    where that is another unit. ``trims``: the trim style cuts it larger and trims the unit to its
    unfinished size. ``work`` is what is done with the pieces at given sizes: it is asked for only
    when needed, as sizes are often all that is wanted. ``outer_bias`` is how many outer edges are
    bias, where there is a shorter way than to look at the products. ``left_over`` is what a run
    leaves besides units, ``odd_run`` what is over once where the runs are an odd number. ``sets``
    are strip sets to sew and cut across; their strips are no pieces of a run, and sewing them is
    no effort of it. ``known_effort`` spares working out the moves where it follows from less.
    ``tool`` is one that not every maker has; ``stands_proud``: it gives folds that lie on the unit,
    which not every maker wants. ``by_patches``: it is sewn patch to patch, and has no
    products; ``halved``: its triangles are halves of squares, see ``piece_for``. ``lying`` says of
    each piece how the patches cut as it lie in the unit's picture: nothing where it may lie any
    way; it is missing where pieces are turned by the way they are sewn. So many of its
    first pieces are ``there`` already, and are not cut from fabric; the unit is trimmed then.
    """

    name: str
    makes: int
    pieces: tuple[Piece, ...]
    trims: bool
    work: Callable[[Sizes], MethodWork]
    mirrored: int = 0
    outer_bias: Callable[[], int] | None = None
    left_over: tuple[ByProduct, ...] = ()
    odd_run: tuple[ByProduct, ...] = ()
    sets: tuple[SetOfStrips, ...] = ()
    known_effort: Effort | None = None
    tool: str = ""
    stands_proud: bool = False
    by_patches: bool = False
    halved: bool = False
    lying: Callable[[], Lying] | None = None
    there: int = 0

    @cached_property
    def _exactly(self) -> MethodWork:
        return self.work(tuple(piece.exact for piece in self.pieces))

    @property
    def moves(self) -> tuple[Move, ...]:
        """What to do at the table, pieces at their exact sizes."""
        return self._exactly.moves

    @property
    def products(self) -> tuple[Sheet, ...]:
        """The units of a run, see ``MethodWork``."""
        return () if self.by_patches else self._exactly.products

    @cached_property
    def bias(self) -> int:
        """How many outer edges of a unit are bias: those of its product that do not lie with the
        grain, where nothing else is said."""
        return self.outer_bias() if self.outer_bias else bias_edges(self.products[0])

    @cached_property
    def effort(self) -> Effort:
        """What a run takes, counted from its moves."""
        return self.known_effort or effort_of(self.moves)


def beside_diagonal(side: Exact, seam: Exact) -> float:
    """How long a seam is that runs ``seam`` beside a square's diagonal: side √2, less ``seam`` at
    each end, where the square's sides meet it at 45°."""
    return float(side) * sqrt(2) - 2 * float(seam)


def effort_of(moves: Sequence[Move]) -> Effort:
    """What moves take, each as often as it is made, those to sets of strips aside."""
    seams: Fraction | int = 0
    apart: Fraction | int = 0
    marks: Fraction | int = 0
    presses: Fraction | int = 0
    length = 0.0
    for move in moves:
        if move.of_set is not None:
            continue
        kinds = [line.kind for line in move.lines]
        if move.do == "sew":
            number = kinds.count("seam") if move.seams is None else move.seams
            seams += move.times * number
            length += float(move.times) * sum(
                hypot(*line.end.minus(line.start).floats())
                for line in move.lines
                if line.kind == "seam"
            )
        elif move.do == "cut-apart":
            apart += move.times * kinds.count("cut")
        elif move.do == "mark":
            marks += move.times * kinds.count("mark")
        if move.do in ("open", "fold"):
            presses += move.times * (1 if move.seams is None else move.seams)
    return Effort(seams, length, apart, marks, presses)


def every_piece(method: Method, seam: Exact) -> tuple[Piece, ...]:
    """A method's pieces, and the strips of its sets, a segment long."""
    return method.pieces + tuple(
        strip(fabric, width + 2 * seam, strips.height + 2 * seam, strips.number)
        for strips in method.sets
        for width, fabric in strips.bands
    )


def no_bias() -> int:
    """Outer edges on the bias of a unit all of whose outer edges are cut with the grain."""
    return 0


def bias_edges(product: Sheet) -> int:
    """Outer edges of a product that run across the grain. Its fabric lies with the grain along x
    and y (turning fabric over along a 45° seam keeps it so), hence a square that fills its own box
    has none, and one set on point in it has four."""
    left, top, right, bottom = box(product)
    corners = {p for outline, _ in product for p in outline}
    square = {(x, y) for x in (left, right) for y in (top, bottom)}
    return 0 if square & corners else 4


_SHARED: KeyedTable[object, MethodWork] = KeyedTable(1000)


def shared(
    key: tuple[object, ...],
    fabrics: tuple[str | None, ...],
    make: Callable[[tuple[str | None, ...], Sizes], MethodWork],
) -> Callable[[Sizes], MethodWork]:
    """``make(fabrics, sizes)``, worked out once for all fabrics told apart in the same way: only
    their colours differ. ``key`` must hold everything else that ``make`` depends on."""

    def work(sizes: Sizes) -> MethodWork:
        names = tuple(dict.fromkeys(fabrics))
        pattern = tuple(str(names.index(fabric)) for fabric in fabrics)
        known_work = _SHARED.of((key, pattern, sizes), lambda: make(pattern, sizes))
        moves = (
            m._replace(lower=in_fabrics(m.lower, names), upper=in_fabrics(m.upper, names))
            for m in known_work.moves
        )
        products = (in_fabrics(sheet, names) for sheet in known_work.products)
        return MethodWork(tuple(moves), tuple(products))

    return work


def numbered(sheet: Sheet, names: Sequence[str | None]) -> Sheet:
    """A sheet with the number of each fabric among ``names`` in its place."""
    return tuple((outline, str(names.index(fabric))) for outline, fabric in sheet)


def in_fabrics(sheet: Sheet, names: Sequence[str | None]) -> Sheet:
    """A ``numbered`` sheet with its fabrics again."""
    return tuple((outline, names[int(fabric or 0)]) for outline, fabric in sheet)


CUT_APART = "Cut on the drawn line."
CUT_AGAIN = "Cut again, on the second line drawn."
BESIDE = " Sew {seam} from each drawn line, on both sides of it."
LAY = "Lay the two right sides together."
MARK = "Draw a line on the back of one {}, {}."


def sewn_squares(side: Exact, a: str | None, b: str | None) -> tuple[Piece, ...]:
    """One square of each of two fabrics, to be cut apart once they are sewn."""
    if a == b:
        return (rectangle(a, (side, side), 2, "sewn"),)
    return rectangle(a, (side, side), 1, "sewn"), rectangle(b, (side, side), 1, "sewn")


def counted(pieces: Sequence[Piece]) -> tuple[Piece, ...]:
    """Equal pieces taken together, in the order they are first met."""
    found: dict[Piece, int] = {}
    for piece in pieces:
        key = piece._replace(quantity=0)
        found[key] = found.get(key, 0) + piece.quantity
    return tuple(piece._replace(quantity=n) for piece, n in found.items())
