"""What is cut for a top besides its blocks: triangles, squares, sashing, fillers, borders."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator
from typing import NamedTuple

from inlet.core.cutlist import Cut
from inlet.core.geometry import Point, Polygon, area, bounds
from inlet.core.numbers import (
    HALF_ROOT2,
    ROOT2,
    Exact,
    Fraction,
    floor_exact,
    next_mark,
)
from inlet.core.planning import cut_to_meet
from inlet.core.project import Measure, Pair, Project, Quilt
from inlet.core.setting.joined import KEPT_OFF, Band, band
from inlet.core.setting.pieces import Round, Row, TopPiece
from inlet.core.setting.top import Top, single_pieces
from inlet.core.setting.triangles import TRIANGLES, setting_triangles
from inlet.core.table import Crosscut, Shape

ZERO = Fraction(0)
NAMES = {
    "plain": "Plain squares", "sash": "Sashing", "corner-square": "Corner squares",
    "edge-corner": "Edge corners", "filler": "Fillers", "side": "Side triangles",
    "corner": "Corner triangles", "border-corner": "Border corners",
}  # fmt: skip


MITRE_SPARE = Fraction(4)
"""Inches: what a mitred strip is cut longer than its outer edge, half at each end; it is trimmed
once the mitre is sewn."""


class Strip(NamedTuple):
    """Straight pieces to cut: their ``name``, the width and length they are cut, their fabric, and
    how many of them stand ``upright`` on the top."""

    name: str
    width: Fraction
    length: Fraction
    fabric: str
    number: int = 1
    upright: int = 0


class SettingCuts(NamedTuple):
    """The cut list of everything but the blocks, how many of a stack stand upright, and the bands
    that strips longer than the fabric is wide are cut from."""

    cuts: tuple[Cut, ...]
    standing: dict[str, int]
    bands: tuple[Band, ...] = ()


def setting_cuts(top: Top, quilt: Quilt, project: Project) -> SettingCuts:
    """What is cut besides the blocks, each stack under its name."""
    measure = project.measure
    cuts: list[tuple[Cut, int]] = []
    for triangles in setting_triangles(top, project):
        way: Crosscut = "twice" if triangles.twice else "once"
        name, over = NAMES[triangles.kind], triangles.over
        size = triangles.cut, triangles.cut
        for lean, number in triangles.squares_by_lean:
            cut = Cut(triangles.fabric or None, "square", size, way, number, (name,),
                      lean=lean, label=name, over=over)  # fmt: skip
            cuts.append((cut, 0))
            over = 0
    strips = [*_rows_strips(top, quilt, measure), *border_strips(top, quilt, measure)]
    cuts += _as_cuts(strips, project)
    bands = tuple(_bands(strips, project))
    for joined in bands:
        names = tuple(dict.fromkeys(piece.name for piece in joined.pieces))
        size = joined.width, joined.long
        fabric = joined.fabric or None
        cut = Cut(fabric, "strip", size, "none", joined.strips, names, label=joined.label)
        cuts.append((cut, 0))
    counted = list(_told_apart(cuts))
    standing = {cut.label: number for cut, number in counted if number}
    return SettingCuts(tuple(cut for cut, _ in counted), standing, bands)


def _rows_strips(top: Top, quilt: Quilt, measure: Measure) -> Iterator[Strip]:
    rows: Counter[tuple[str, Fraction, Fraction, str]] = Counter()
    upright: Counter[tuple[str, Fraction, Fraction, str]] = Counter()
    inside = {id(piece) for row in top.rows for piece in row.pieces}
    for piece in single_pieces(top, quilt):
        in_rows = id(piece) in inside or piece.kind == "plain"
        if not in_rows or piece.kind in ("block", *TRIANGLES):
            continue
        width, length = straight_cut(piece, quilt.on_point, measure)
        key = NAMES[piece.kind], width, length, piece.fabric
        rows[key] += 1
        upright[key] += _stands(piece)
    for key, number in rows.items():
        yield Strip(*key, number, upright[key])


def straight_cut(piece: TopPiece, on_point: bool, measure: Measure) -> tuple[Fraction, Fraction]:
    """The width and length a straight piece of the rows is cut: to meet what it is sewn to. Where
    an end is cut off at 45 degrees, its corner reaches s√2 further."""
    (low, high), slanted = extent(piece, on_point)
    twice = 2 * measure.seam
    width = cut_to_meet(low + twice, measure)
    if slanted:
        return width, next_mark(high + twice * (1 + ROOT2), measure.mark)
    return width, cut_to_meet(high + twice, measure)


def _stands(piece: TopPiece) -> bool:
    """Does a straight piece run down the quilt?"""
    left, head, right, foot = bounds(piece.outline)
    return foot - head > right - left


def turned_to_rows(outline: Polygon, on_point: bool) -> Polygon:
    """An outline by the way rows run: as it lies, or of a quilt on point along u and v."""
    if not on_point:
        return outline
    return tuple(Point((p.x + p.y) * HALF_ROOT2, (p.y - p.x) * HALF_ROOT2) for p in outline)


def extent(piece: TopPiece, on_point: bool) -> tuple[Pair, bool]:
    """A straight piece's width and length, finished, and whether its ends are cut off at a slant:
    of a quilt on point measured along the diagonals."""
    outline = turned_to_rows(piece.outline, on_point)
    left, head, right, foot = bounds(outline)
    low, high = sorted((right - left, foot - head))
    return (low, high), abs(area(outline)) != low * high


def border_strips(top: Top, quilt: Quilt, measure: Measure) -> list[Strip]:
    """The strips of all borders, as long as they are cut: to what the quilt measured through its
    middle where the maker said so, else as drawn."""
    s = measure.seam
    strips: list[Strip] = []
    # How much longer the quilt came out than it is drawn, across and down.
    more: list[Exact] = [ZERO, ZERO]
    measured: str | None = None
    for each in top.borders:
        number = int(each.label.split(",")[0].split()[-1])
        border = quilt.borders[number - 1]
        if border.measured is not None and measured != each.label.split(",")[0]:
            more = [border.measured[i] - each.inner[i] - 2 * s for i in (0, 1)]
        measured = each.label.split(",")[0]
        for strip, down in _strips_of(each):
            for piece in strip.pieces:
                if piece.kind == "block":
                    continue
                (low, high), slanted = extent(piece, False)
                width = cut_to_meet(low + 2 * s, measure)
                corner = piece.kind == "border-corner"
                longer = ZERO if corner else more[down]
                length = max(high + longer, measure.mark) + 2 * s  # however little was measured
                cut = (
                    next_mark(length + measure.from_inches(MITRE_SPARE), measure.mark)
                    if slanted else cut_to_meet(length, measure)
                )  # fmt: skip
                name = f"{each.label}, corners" if corner else f"{each.label}, {_side(strip)}"
                strips.append(Strip(name, width, cut, piece.fabric, 1, int(_stands(piece))))
    return strips


def _strips_of(each: Round) -> Iterator[tuple[Row, int]]:
    """The strips of a border, and whether they run across (0) or down (1)."""
    for pair in each.pairs:
        for strip in pair:
            yield strip, int(strip.label.endswith("side"))


def _side(strip: Row) -> str:
    return "sides" if strip.label.endswith("side") else "top and bottom"


def _as_cuts(strips: list[Strip], project: Project) -> Iterator[tuple[Cut, int]]:
    """Strips that no join is needed for as a cut list, each with how many stand upright: equal ones
    together."""
    single: Counter[tuple[str, Fraction, Fraction, str]] = Counter()
    upright: Counter[tuple[str, Fraction, Fraction, str]] = Counter()
    for strip in strips:
        if not _is_joined(strip, project):
            key = strip.name, strip.width, strip.length, strip.fabric
            single[key] += strip.number
            upright[key] += strip.upright
    for key, number in single.items():
        name, width, length, fabric_id = key
        shape: Shape = "square" if width == length else "rectangle"
        size = (width, length) if width <= length else (length, width)
        cut = Cut(fabric_id or None, shape, size, "none", number, (name,), label=name)
        yield cut, upright[key]


def _bands(strips: list[Strip], project: Project) -> Iterator[Band]:
    """The bands that strips longer than their fabric is wide are cut from: of sashing, joined with
    straight seams, which are flatter; of each border, with diagonal ones, which are seen less."""
    wanted: dict[tuple[str, Fraction, str], list[tuple[str, Exact]]] = {}
    for strip in strips:
        if _is_joined(strip, project):
            of = strip.name.split(",")[0]
            kind = wanted.setdefault((strip.fabric, strip.width, of), [])
            kind += [(strip.name, strip.length)] * strip.number
    measure = project.measure
    for (fabric, width, of), parts in wanted.items():
        long = at_mark_below(project.usable_width(fabric), measure)
        slanted = not of.startswith(("Sashing", "Filler"))
        off = measure.from_inches(KEPT_OFF)
        yield band(of, fabric, width, long, parts, slanted, measure.seam, off)


def _is_joined(strip: Strip, project: Project) -> bool:
    """Is it longer than its fabric is wide, and not cut along its length?"""
    fabric = project.fabric(strip.fabric)
    along = fabric is not None and fabric.lengthwise
    return strip.length > project.usable_width(strip.fabric) and not along


def at_mark_below(length: Exact, measure: Measure) -> Fraction:
    """The longest that the ruler's marks give of a length: one mark at least."""
    return max(measure.mark, floor_exact(length / measure.mark) * measure.mark)


def _told_apart(cuts: list[tuple[Cut, int]]) -> Iterator[tuple[Cut, int]]:
    """The cuts with labels that no two share."""
    names = Counter(cut.label for cut, _ in cuts)
    seen: Counter[str] = Counter()
    for cut, upright in cuts:
        seen[cut.label] += 1
        if names[cut.label] > 1:
            cut = cut._replace(label=f"{cut.label} {seen[cut.label]}")
        yield cut, upright
