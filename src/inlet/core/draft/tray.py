"""Units ready to drop into a cell or a box of cells, each drawn in the unit square."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Sequence
from typing import NamedTuple

from inlet.core.draft.edit import keep_fabric, merged, paint_all, without
from inlet.core.draft.patches import Draft, arrangement_of, draft
from inlet.core.draft.regrid import with_square_unit
from inlet.core.draft.symmetry import STAY, fits, image, turner
from inlet.core.draft.value import lightness
from inlet.core.geometry import Curve, Outline, Point, Turn, arrange, inside_point, outline_area
from inlet.core.memo import memo
from inlet.core.numbers import ROOT2, Exact, Fraction, parse_exact
from inlet.core.project import Block, Pair, Project, Seam, UnitKind, replace, seam_along


class TrayUnit(NamedTuple):
    """A unit to drop: ``seams`` and ``fabrics`` in a box ``size`` wide and high.

    ``fabrics`` are a point in each patch with its part: a number (0 the figure, 1 the ground, 2 a
    third fabric), or the id of the fabric it is to be.
    """

    kind: UnitKind
    words: str
    size: tuple[Exact, Exact]
    seams: tuple[Curve, ...]
    fabrics: tuple[tuple[Point, int | str | None], ...]

    @property
    def curved(self) -> bool:
        """Must its box keep its proportions, for its arcs to stay round?"""
        return any(seam.centre is not None for seam in self.seams)


# Kind; words; width and height; seams as "x y x y", arcs with "@ x y" for the centre, after "8: "
# repeated in all eight ways; the part each patch plays, by its middle from the top, then the left.
_DRAWINGS: tuple[tuple[UnitKind, str, str, str, str], ...] = (
    ("square", "Square", "1 1", "", "0"),
    ("rectangle", "Rectangle", "2 1", "", "0"),
    ("half-square-triangle", "Half-square triangle", "1 1", "0 1 1 0", "01"),
    ("quarter-square-triangle", "Hourglass", "1 1", "0 0 1 1 / 1 0 0 1", "0110"),
    ("three-triangle", "Three triangles", "2 2", "0 0 2 2 / 2 0 1 1", "120"),
    ("flying-geese", "Flying geese", "2 1", "0 1 1 0 / 1 0 2 1", "110"),
    ("square-in-square", "Square in a square", "2 2", "8: 1 0 2 1", "11011"),
    ("half-rectangle-triangle", "Half-rectangle triangle", "1 2", "0 2 1 0", "01"),
    ("corner-triangle", "Stitch-and-flip corner", "3 3", "2 0 3 1", "10"),
    ("corner-triangle", "Two stitch-and-flip corners", "3 3", "2 0 3 1 / 1 0 0 1", "110"),
    ("corner-triangle", "Three stitch-and-flip corners", "3 3", "2 0 3 1 / 1 0 0 1 / 0 2 1 3",
     "1101"),
    ("corner-triangle", "Snowball", "3 3", "8: 2 0 3 1", "11011"),
    ("four-patch", "Four-patch", "2 2", "1 0 1 2 / 0 1 2 1", "0110"),
    ("nine-patch", "Nine-patch", "3 3", "8: 1 0 1 3", "010101010"),
    ("checkerboard", "Checkerboard", "4 4", "8: 1 0 1 4 / 2 0 2 4", "0101101001011010"),
    ("strips", "Strips", "3 3", "0 1 3 1 / 0 2 3 2", "010"),
    ("quarter-circle", "Quarter circle", "3 3", "2 0 0 2 @ 0 0", "01"),
    ("quarter-circle", "Petal", "2 2", "0 2 2 0 @ 2 2 / 0 2 2 0 @ 0 0", "101"),
    ("rounds", "Rounds", "5 5",
     "2 2 2 3 / 3 2 3 3 / 1 2 4 2 / 1 3 4 3 / 1 1 1 4 / 4 1 4 4 / 0 1 5 1 / 0 4 5 4", "212101212"),
    ("ring", "Ring", "3 3", "2 0 2 2 / 3 2 1 2 / 1 3 1 1 / 0 1 2 1", "12021"),
    ("set-in", "Set-in square", "2 2", "0 0 1 1 / 1 1 2 1 / 1 1 1 2", "120"),
    ("eight-point-star", "Eight-point star", "1 1",
     "8: k 0 k k / k 0 1/2 1/2-k / 1/2 1/2-k 1/2 1/2 / k k 1/2 1/2", "1110220110220111"),
)  # fmt: skip
_K = {"k": 1 - ROOT2 / 2, "1/2-k": ROOT2 / 2 - Fraction(1, 2)}
"""Where an eight-point star meets the sides of its square, and where its diamonds meet."""


def _point(text: str) -> Point:
    x, y = (_K[t] if t in _K else parse_exact(t) for t in text.split())
    return Point(x, y)


@memo(None)
def tray_units() -> tuple[TrayUnit, ...]:
    """Every unit of the tray."""
    return tuple(_tray_unit(*drawing) for drawing in _DRAWINGS)


def _tray_unit(kind: UnitKind, words: str, box: str, seams: str, parts: str) -> TrayUnit:
    width, height = _point(box)
    listed = seams.removeprefix("8: ")
    curves = []
    for text in filter(None, listed.split(" / ")):
        chord, _, centre = text.partition(" @ ")
        numbers = chord.split()
        ends = _point(" ".join(numbers[:2])), _point(" ".join(numbers[2:]))
        curves.append(Curve(*ends, _point(centre) if centre else None))
    if listed != seams:
        ways = [turner((q, m), width, height) for q in range(4) for m in (False, True)]
        curves = [image(curve, way) for way in ways for curve in curves]
    drawn = tuple(seam.curve for seam in merged(seam_along(c) for c in curves))
    arrangement = arrange(width, height, drawn)
    middles = sorted(
        (inside_point(outline) for outline in arrangement.outlines),
        key=lambda p: (round(float(p.y), 6), round(float(p.x), 6)),
    )
    return TrayUnit(
        kind, words, (width, height), drawn,
        tuple((p, int(part)) for p, part in zip(middles, parts, strict=True)),
    )  # fmt: skip


def tray_unit_of(drawn: Draft, faces: Iterable[int], kind: UnitKind, words: str) -> TrayUnit:
    """A unit of a block as a unit: the seams between its patches, in its own fabrics; its box is
    that round the patches, at finished size."""
    inside = set(faces)
    sx, sy = drawn.block.scale
    corners = [p for f in inside for p in drawn.patches[f].outline]
    left, top = min(p.x for p in corners), min(p.y for p in corners)
    right, bottom = max(p.x for p in corners), max(p.y for p in corners)
    corner = Point(left, top)

    def moved(p: Point) -> Point:
        return p.scaled(sx, sy).minus(corner)

    seams = [
        image(drawn.arrangement.curve(edge), moved)
        for edge in drawn.arrangement.edges
        if edge.right in inside and edge.left in inside
    ]
    box = (right - left, bottom - top)
    return TrayUnit(
        kind,
        words,
        box,
        tuple(s.curve for s in merged(seam_along(c) for c in seams)),
        tuple(
            (moved(inside_point(drawn.arrangement.outlines[f])), drawn.patches[f].fabric)
            for f in sorted(inside)
        ),
    )


@memo(500)
def laid_out(tray_unit: TrayUnit) -> tuple[tuple[Outline, int | str | None], ...]:
    """The outlines of a unit's patches in its own units, each with its fabric or part."""
    arrangement = arrange(*tray_unit.size, tray_unit.seams)
    faces = ((arrangement.locate(middle), part) for middle, part in tray_unit.fabrics)
    return tuple((arrangement.outlines[f], part) for f, part in faces if f is not None)


def turned_unit(tray_unit: TrayUnit, turn: Turn) -> TrayUnit:
    """The unit mirrored and turned."""
    move = turner(turn, *tray_unit.size)
    size = tray_unit.size[::-1] if turn[0] % 2 else tray_unit.size
    return tray_unit._replace(
        size=(size[0], size[1]),
        seams=tuple(image(curve, move) for curve in tray_unit.seams),
        fabrics=tuple((move(p), part) for p, part in tray_unit.fabrics),
    )


class ReadyUnit(NamedTuple):
    """A unit turned as it is to be dropped, and its patches laid out: what draws it."""

    tray_unit: TrayUnit
    turned: TrayUnit
    patches: tuple[tuple[Outline, int | str | None], ...]


def ready(tray_unit: TrayUnit, turn: Turn) -> ReadyUnit:
    """A unit ready to be drawn in a turn."""
    turned = turned_unit(tray_unit, turn)
    return ReadyUnit(tray_unit, turned, laid_out(turned))


def ready_units(turn: Turn = STAY) -> tuple[ReadyUnit, ...]:
    """Every unit of the tray, ready to be drawn in a turn."""
    return tuple(ready(tray_unit, turn) for tray_unit in tray_units())


class Box(NamedTuple):
    """A box of cells, corners in grid units."""

    low: Point
    high: Point

    def holds(self, p: Point) -> bool:
        return self.low.x <= p.x <= self.high.x and self.low.y <= p.y <= self.high.y

    def overlaps(self, other_box: Box) -> bool:
        across = self.low.x < other_box.high.x and other_box.low.x < self.high.x
        return across and self.low.y < other_box.high.y and other_box.low.y < self.high.y


def taken_from(drawn: Draft, box: Box) -> TrayUnit | None:
    """What lies in a box of a block as a unit, in its own fabrics; None where patches reach out of
    the box, so that nothing can be lifted from it whole."""
    inside = [
        i
        for i, outline in enumerate(drawn.arrangement.outlines)
        if all(map(box.holds, outline.corners)) and box.holds(inside_point(outline))
    ]
    span = box.high.minus(box.low)
    covered = sum(outline_area(drawn.arrangement.outlines[i]) for i in inside)
    if not inside or abs(covered - float(span.x * span.y)) > 1e-9 * covered:
        return None
    return tray_unit_of(drawn, inside, "other", f"Piece of {drawn.block.title}")


def turned_in_place(block: Block, box: Box, turn: Turn) -> Block:
    """``block`` with what lies in a box turned or flipped there; raises ``ValueError`` with a
    sentence where it cannot be."""
    tray_unit = taken_from(draft(block), box)
    if tray_unit is None:
        raise ValueError("A patch reaches out of that cell; only whole units are turned in place")
    return drop(block, turned_unit(tray_unit, turn), box, ())


def drop(block: Block, tray_unit: TrayUnit, box: Box, fabrics: Sequence[str]) -> Block:
    """``block`` with the unit in a box of its cells: what was drawn inside goes, the box's sides
    become seams, its patches get the fabrics their parts ask for. Raises ``ValueError`` with a
    sentence where arcs would not stay round."""
    block, box = _ready(block, tray_unit, box)
    return _dropped(block, [(tray_unit, box)], fabrics)


def drop_repeated(
    block: Block, group: Iterable[Turn], tray_unit: TrayUnit, box: Box, fabrics: Sequence[str]
) -> Block:
    """``drop`` in the box and in its images under a symmetry, each turned with it. Where images
    overlap the first one stays."""
    block, box = _ready(block, tray_unit, box)
    placed: list[tuple[TrayUnit, Box]] = []
    for turn in group:
        if not fits(turn, block):
            continue
        corners = [turner(turn, *block.grid)(p) for p in box]
        here = Box(
            Point(min(p.x for p in corners), min(p.y for p in corners)),
            Point(max(p.x for p in corners), max(p.y for p in corners)),
        )
        if not any(here.overlaps(other_box) for _, other_box in placed):
            placed.append((turned_unit(tray_unit, turn), here))
    return _dropped(block, placed, fabrics)


def _dropped(block: Block, placed: Sequence[tuple[TrayUnit, Box]], fabrics: Sequence[str]) -> Block:
    """``block`` with units in boxes that do not overlap."""
    into = [_placing(block, tray_unit, box) for tray_unit, box in placed]
    drawn = [
        image(c, move)
        for (tray_unit, _), move in zip(placed, into, strict=True)
        for c in tray_unit.seams
    ]
    cleared = _cleared(block, [box for _, box in placed])
    seams = merged((seam_along(curve) for curve in drawn), cleared)
    new_block = keep_fabric(block, replace(block, seams=seams))
    points: dict[int | str | None, list[Pair]] = {}
    for (tray_unit, _), move in zip(placed, into, strict=True):
        for middle, part in tray_unit.fabrics:
            p = move(middle)
            points.setdefault(part, []).append((p.x, p.y))
    for part, here in points.items():
        fabric = fabrics[min(part, len(fabrics) - 1)] if isinstance(part, int) else part
        new_block = paint_all(new_block, here, fabric)
    return new_block


def _placing(block: Block, tray_unit: TrayUnit, box: Box) -> Callable[[Point], Point]:
    """From a unit's own units into a box of the block's cells."""
    span = box.high.minus(box.low)
    kx, ky = span.x / tray_unit.size[0], span.y / tray_unit.size[1]
    if tray_unit.curved and kx * block.scale[0] != ky * block.scale[1]:
        raise ValueError(
            f"{tray_unit.words} has curves, which stay round only in a box as wide to its height "
            "as the unit itself"
        )
    return lambda p: box.low.plus(p.scaled(kx, ky))


def _ready(block: Block, tray_unit: TrayUnit, box: Box) -> tuple[Block, Box]:
    """The block and the box for a unit with arcs: in grid units as long down as across."""
    if not tray_unit.curved:
        return block, box
    new_block = with_square_unit(block)
    one, k = Fraction(1), new_block.rows[0] / block.rows[0]
    return new_block, Box(box.low.scaled(one, k), box.high.scaled(one, k))


def fabrics_for(project: Project, under: str | None, figure: str) -> list[str]:
    """The fabrics a dropped unit's parts get: the one chosen, the one it lies on (or else the
    lightest other), and the next of the project."""
    others = [f for f in project.fabrics if f.id != figure]
    if not others:
        return [figure]
    lightest = max(others, key=lambda f: lightness(f.colour)).id
    ground = under if under is not None and under != figure else lightest
    rest = [f.id for f in others if f.id != ground]
    return [figure, ground, *rest[:1]]


def _cleared(block: Block, boxes: Sequence[Box]) -> tuple[Seam, ...]:
    """The seams of ``block`` with the sides of boxes drawn and every seam inside them erased."""
    sides = [side for box in boxes for side in _sides(box) if not _on_edge(block, side)]
    fenced = replace(block, seams=merged((seam_along(c) for c in sides), block.seams))
    arrangement = arrangement_of(fenced)
    loose = {fault.point for fault in arrangement.faults}
    pieces = [arrangement.curve(edge) for edge in arrangement.edges]
    pieces += [seam.curve for seam in fenced.seams if loose & set(seam.ends)]
    inside = [c for box in boxes for c in pieces if _inside(box, c)]
    return without(fenced.seams, inside)


def _sides(box: Box) -> list[Curve]:
    (x0, y0), (x1, y1) = box
    corners = [Point(x0, y0), Point(x1, y0), Point(x1, y1), Point(x0, y1)]
    return [Curve(corners[i - 1], corners[i]) for i in range(4)]


def _on_edge(block: Block, side: Curve) -> bool:
    """Does a side of a box lie along the block's edge?"""
    return any(
        p == q and p in (0, whole) for p, q, whole in zip(*side.ends, block.grid, strict=True)
    )


def _inside(box: Box, c: Curve) -> bool:
    """Does a piece of seam lie in a box, not along its sides?"""
    along = c.centre is None and any(
        p == q and p in ends for p, q, ends in zip(*c.ends, zip(*box, strict=True), strict=True)
    )
    return box.holds(c.start) and box.holds(c.end) and not along
