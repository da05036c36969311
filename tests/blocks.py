"""Blocks to test with, drawn in a line or made at random."""

from __future__ import annotations

from collections.abc import Callable

from hypothesis import strategies as st

from inlet.core.draft.compass import quarter_arc
from inlet.core.draft.edit import add_seams, anchor_in, erase_pieces
from inlet.core.draft.patches import draft
from inlet.core.draft.tray import Box, TrayUnit, drop
from inlet.core.geometry.curve import Curve
from inlet.core.geometry.point import Point
from inlet.core.geometry.polygon import clip, line_through
from inlet.core.numbers.fraction import Fraction
from inlet.core.numbers.root2 import Exact, Root2
from inlet.core.project.block import Block, FabricAt, straight
from inlet.core.project.fabric import Fabric
from inlet.core.project.project import Project
from inlet.core.project.value import Pair, replace

F = Fraction


def ratios(*args: Exact | int, **limits: Exact | int) -> st.SearchStrategy[Fraction]:
    """Hypothesis's fractions, as Inlet's own."""
    return st.fractions(*args, **limits).map(Fraction)


GREYS = ("#f0f0f0", "#101010", "#c0c0c0", "#404040", "#989898", "#707070")
FABRICS = tuple(
    Fabric(id=c, name=c.upper(), colour=grey) for c, grey in zip("abcdef", GREYS, strict=True)
)


def point(x: Exact | int | str, y: Exact | int | str) -> Point:
    return Point(
        F(x) if isinstance(x, int | str) else x,
        F(y) if isinstance(y, int | str) else y,
    )


def seams(text: str) -> list[tuple[Point, Point]]:
    """``"0 0 1 1 / 1 0 0 1"`` as segments."""
    out = []
    for part in text.split(" / "):
        x0, y0, x1, y1 = (F(n) for n in part.split())
        out.append((Point(x0, y0), Point(x1, y1)))
    return out


def block_of(
    drawn: str = "",
    columns: int = 1,
    rows: int = 1,
    size: tuple[Exact | int, Exact | int] = (9, 9),
    fabrics: str = "ab",
) -> Block:
    """A block with seams as ``seams`` reads them, its patches in ``fabrics`` in turn."""
    block = Block(
        id="test",
        finished=(F(1) * size[0], F(1) * size[1]),
        columns=(F(1),) * columns,
        rows=(F(1),) * rows,
        seams=tuple(straight(p, q) for p, q in seams(drawn)) if drawn else (),
    )
    return in_fabrics(block, fabrics)


def tray_block(tray_unit: TrayUnit, cell: Exact | int = 3) -> Block:
    """A block that is one unit of the tray, ``cell`` for each unit of its box."""
    width, height = tray_unit.size
    box = Box(point(0, 0), Point(width, height))
    block = Block(
        id="test",
        finished=(width * cell, height * cell),
        columns=(F(1),) * int(width),
        rows=(F(1),) * int(height),
    )
    return drop(block, tray_unit, box, "abc")


def add_seam(block: Block, p: Pair, q: Pair) -> Block:
    """``block`` with one more straight seam."""
    return add_seams(block, [straight(p, q)] if p != q else [])


def erase_piece(block: Block, piece: Curve) -> Block:
    return erase_pieces(block, [piece])


def in_fabrics(block: Block, fabrics: str) -> Block:
    now = draft(block)
    spots = []
    for i, patch in enumerate(now.patches):
        inside = anchor_in(now.arrangement, patch.face)
        if inside is not None:
            spots.append(FabricAt(point=inside, fabric=fabrics[i % len(fabrics)]))
    return replace(block, fabric_at=tuple(spots))


def project_of(*blocks: Block, **measure: object) -> Project:
    project = Project(name="Test", fabrics=FABRICS, blocks=blocks)
    return replace(project, measure=replace(project.measure, **measure))


UNITS = {
    "half-square-triangle": "0 0 1 1",
    "quarter-square-triangle": "0 0 1 1 / 0 1 1 0",
    "four-patch": "1/2 0 1/2 1 / 0 1/2 1 1/2",
    "nine-patch": "1/3 0 1/3 1 / 2/3 0 2/3 1 / 0 1/3 1 1/3 / 0 2/3 1 2/3",
    "strips": "0 1/3 1 1/3 / 0 2/3 1 2/3",
    "square": "",
}
GOOSE = "0 1 1 0 / 1 0 2 1"

fractions = ratios(min_value=-50, max_value=50, max_denominator=64)
exacts = st.builds(Root2.of, fractions, fractions)
lengths = ratios(min_value=F(1, 2), max_value=20, max_denominator=16)
allowances = st.sampled_from([F(1, 4), F(3, 8), F(1, 2), F(1, 8), F(3, 4), F(7, 10)])
turns = st.tuples(st.integers(0, 3), st.booleans())


@st.composite
def grid_segments(draw, most: int = 12, size: int = 6):
    """Up to ``most`` seams between points of a grid, any direction."""
    spot = st.builds(point, st.integers(0, size), st.integers(0, size))
    pairs = st.tuples(spot, spot).filter(lambda s: s[0] != s[1])
    return draw(st.lists(pairs, max_size=most))


@st.composite
def mixed_seams(draw, most: int = 10, size: int = 6):
    """Seams between grid points: straight ones, quarter arcs, and arcs about a grid point."""
    spot = st.builds(point, st.integers(0, size), st.integers(0, size))
    out = []
    for _ in range(draw(st.integers(0, most))):
        p, q = draw(st.tuples(spot, spot).filter(lambda s: s[0] != s[1]))
        kind = draw(st.sampled_from(["line", "quarter", "about"]))
        if kind == "quarter":
            out.append(quarter_arc(p, q, draw(st.booleans())))
        elif kind == "about" and q.minus(p).x != 0 != q.minus(p).y:
            # p the centre, q an end: the other end is q mirrored in an axis through p.
            other = Point(q.x, 2 * p.y - q.y)
            out.append(Curve(q, other, p))
        else:
            out.append(Curve(p, q))
    return out


@st.composite
def unit_blocks(draw, most: int = 3):
    """A block on a square grid with a unit or a plain square in each cell, in random fabrics."""
    n = draw(st.integers(1, most))
    block = Block(
        id="test",
        finished=(F(3 * n), F(3 * n)),
        columns=(F(1),) * n,
        rows=(F(1),) * n,
    )
    for i in range(1, n):
        block = add_seam(block, (F(i), F(0)), (F(i), F(n)))
        block = add_seam(block, (F(0), F(i)), (F(n), F(i)))
    for x in range(n):
        for y in range(n):
            drawn = UNITS[draw(st.sampled_from(sorted(UNITS)))]
            upright = draw(st.booleans())
            for p, q in seams(drawn) if drawn else ():
                if upright:  # transposed: strips stand, triangles stay
                    p, q = Point(p.y, p.x), Point(q.y, q.x)
                block = add_seam(block, (x + p.x, y + p.y), (x + q.x, y + q.y))
    return in_fabrics(block, draw(st.text("abcd", min_size=3, max_size=7)))


def split_block(choose: Callable[[int, int], int], splits: int) -> Block:
    """A block split again and again by straight seams from edge to edge of a part: between corners,
    middles and thirds of its sides, so that straight through seams can always sew it.
    ``choose(low, high)`` gives an integer, both ends possible."""
    width, height = choose(2, 6), choose(2, 6)
    parts = [(point(0, 0), point(width, 0), point(width, height), point(0, height))]
    drawn = []
    for _ in range(splits):
        part = parts.pop(choose(0, len(parts) - 1))
        i = choose(0, len(part) - 1)
        j = (i + choose(1, len(part) - 1)) % len(part)
        k = (F(0), F(1, 2), F(1, 3))[choose(0, 2)]
        p, q = (
            Point(u.x + (v.x - u.x) * k, u.y + (v.y - u.y) * k)
            for u, v in ((part[a], part[(a + 1) % len(part)]) for a in (i, j))
        )
        line = line_through(p, q)
        halves = [clip(part, side) for side in (line, line.opposite())]
        if not all(halves):
            parts.append(part)
            continue
        drawn.append((p, q))
        parts += halves
    block = Block(
        id="test",
        finished=(F(2 * width), F(2 * height)),
        columns=(F(1),) * width,
        rows=(F(1),) * height,
        seams=tuple(straight(p, q) for p, q in drawn),
    )
    return in_fabrics(block, "abcab"[: choose(1, 5)])


@st.composite
def through_blocks(draw, most: int = 60):
    """Blocks that straight through seams can sew, of up to ``most`` patches."""
    splits = draw(st.integers(0, most - 1))
    return split_block(lambda low, high: draw(st.integers(low, high)), splits)
