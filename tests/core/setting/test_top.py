"""Quilt tops laid out and put together again, by polygons that share no code with the layout."""

from __future__ import annotations

from collections import Counter
from itertools import accumulate
from typing import get_args

import pytest
import shapely
from hypothesis import given, settings
from hypothesis import strategies as st

from inlet.core.geometry.polygon import area
from inlet.core.numbers.fraction import Fraction as F
from inlet.core.numbers.root2 import ROOT2
from inlet.core.plan.quilt_step import JOIN_ROWS
from inlet.core.plan.quilt_work import seams_of
from inlet.core.project.block import Block
from inlet.core.project.measure import INCH, METRIC
from inlet.core.project.project import Project
from inlet.core.project.quilt import (
    Alternate,
    Border,
    BorderKind,
    BorderOrder,
    Motif,
    Quilt,
    QuiltPlace,
    Sashing,
    Triangles,
)  # fmt: skip
from inlet.core.project.value import replace
from inlet.core.setting.borders import fitting_units, spacer_for
from inlet.core.setting.places import block_counts, placed
from inlet.core.setting.top import quilt_top, single_pieces
from tests.blocks import FABRICS
from tests.sample import many

lengths = st.integers(2, 40).map(lambda n: F(n, 4))
TURNINGS = ["", "quarter-turns", "round", "mirror-pairs", "by-row", "by-ring"]


def block(name, wide, high):
    return Block(id=name, name=name.upper(), finished=(F(wide), F(high)))


@st.composite
def quilts(draw):
    """A project with a quilt of blocks a and b, m a motif of four."""
    on_point = draw(st.booleans())
    side = draw(lengths) + 1
    high = side if on_point else draw(st.sampled_from([side, side + F(5, 4)]))
    other = side if on_point or draw(st.booleans()) else side + F(1, 2)
    motif = Motif(
        id="m", block="b", columns=2, rows=2, turning=draw(st.sampled_from(TURNINGS)),
        places=(QuiltPlace(column=1, row=1, fabric="c"),),
    )  # fmt: skip
    whole = on_point and draw(st.booleans())
    usual = "m" if whole else "a"
    places = st.builds(
        QuiltPlace, column=st.integers(0, 3), row=st.integers(0, 6),
        block=st.just("" if whole else "b") if other == side else st.just(""),
        turn=st.sampled_from([None, 0, 90, 180, 270]), mirror=st.sampled_from([None, True]),
    )  # fmt: skip
    narrow = lengths | st.just(F(1, 1000))  # less than a mark: cut, it shows one
    widths = st.none() | narrow
    sashing = st.builds(
        Sashing, width=widths, fabric=st.just("d"), corner_fabric=st.sampled_from(["", "e"]),
        down=widths, outside=st.booleans(),
    )  # fmt: skip
    border = st.builds(
        Border, width=narrow, fabric=st.just("e"), order=st.sampled_from(get_args(BorderOrder)),
        kind=st.sampled_from(get_args(BorderKind)), block=st.just("b"),
    )  # fmt: skip
    quilt = Quilt(
        setting="on-point" if on_point else "straight",
        columns=draw(st.integers(1, 5)), rows=draw(st.integers(1, 5)), block=usual,
        alternate=draw(st.none() | st.just(Alternate(fabric="c", by="checker"))),
        turning=draw(st.sampled_from(TURNINGS)),
        row_lengths=() if on_point else tuple(draw(st.lists(st.integers(1, 4), max_size=3))),
        filler="f", places=tuple(draw(st.lists(places, max_size=3))), motifs=(motif,),
        sashing=draw(st.none() | sashing),
        triangles=draw(st.none() | st.builds(Triangles, fabric=st.just("c"), float_by=lengths,
                                             fit=st.sampled_from(["exact", "float"]))),
        borders=tuple(draw(st.lists(border, max_size=2))),
    )  # fmt: skip
    blocks = block("a", side, high), block("b", other, other)
    return Project(
        fabrics=FABRICS, blocks=blocks, quilt=quilt, measure=draw(st.sampled_from([INCH, METRIC]))
    )


def polygon(piece):
    return shapely.Polygon([p.floats() for p in piece.outline])


def is_convex(shape):
    return shape.convex_hull.area == pytest.approx(shape.area, rel=1e-7)


def sewn_on(before, other):
    """Two parts joined: they only touch, along one straight seam."""
    made = before.union(other.buffer(1e-9, join_style="mitre"))
    assert made.area == pytest.approx(before.area + other.area, rel=1e-6)
    return made.buffer(0)


@given(quilts())
@settings(max_examples=many(60, 500), deadline=None)
def test_a_top_is_sewn_row_by_row_and_fills_its_size(project):
    """Every cell, row and border is joined by a straight seam from edge to edge: two convex parts
    that only touch and are convex together. In the end the exact areas add up."""
    top = quilt_top(project)
    assert not [p for p in top.problems if p.level == "error"], top.problems
    wide, high = top.size
    assert sum((abs(area(p.outline)) for p in top.pieces), F(0)) == wide * high
    rows = []
    for row in top.rows:
        cells = [
            list(accumulate((polygon(piece) for piece in cell), sewn_on))[-1] for cell in row.cells
        ]
        rows += [list(accumulate(cells, sewn_on))]
        assert all(is_convex(each) for each in (*cells, *rows[-1]))
    made = list(accumulate((row[-1] for row in rows), sewn_on))
    assert all(is_convex(each) for each in made)
    whole = made[-1]
    sewn = [s for s in seams_of(top, project.quilt) if not s.what.startswith("motif")]
    assert sum(s.seams for s in sewn) == len(top.pieces) - 1
    assert all(s.length > 0 for s in sewn)
    joins = sum(s.length for s in sewn if s.step == JOIN_ROWS)
    if all(len(cell) == 1 for row in top.rows for cell in row.cells):
        around = sum(row[-1].length for row in rows)
        assert joins == pytest.approx((around - whole.length) / 2, abs=1e-4)
    assert whole.area == pytest.approx(float(top.middle[0] * top.middle[1]), rel=1e-6)
    for border in top.borders:
        for pair in border.pairs:
            for strip in pair:
                strips = [polygon(piece) for piece in strip.pieces]
                assert is_convex(list(accumulate(strips, sewn_on))[-1])
                whole = sewn_on(whole, list(accumulate(strips, sewn_on))[-1])
                assert border.mitred or is_convex(whole)
        assert is_convex(whole)
    assert whole.bounds == pytest.approx((0, 0, float(wide), float(high)), abs=1e-5)


@given(quilts())
@settings(max_examples=60, deadline=None)
def test_blocks_lie_whole_in_their_places(project):
    """Each block as it is turned and mirrored covers its place; motifs come apart into blocks."""
    top, quilt = quilt_top(project), project.quilt
    singles = list(single_pieces(top, quilt))
    assert sum((abs(area(p.outline)) for p in singles), F(0)) == top.size[0] * top.size[1]
    found = Counter(p.lying.placed.block for p in singles if p.kind == "block")
    in_borders = sum(p.kind == "block" for b in top.borders for p in b.pieces)
    counts = Counter(block_counts(quilt))
    counts["b"] += in_borders
    assert found == +counts
    for piece in singles:
        if piece.lying is not None:
            assert set(piece.lying.corners) == set(piece.outline)
            (px, py), size = piece.lying.middle.floats(), piece.lying.size
            # Beside plain squares, which are cut to the marks, a place is a thread off at most.
            drawn = project.block(piece.lying.placed.block).finished
            thread = project.measure.system.thread
            assert all(abs(a - b) <= thread for a, b in zip(size, drawn, strict=True))
            assert polygon(piece).contains(shapely.Point(px, py))
            assert polygon(piece).area == pytest.approx(float(size[0] * size[1]))


def on_point(columns, rows, **more):
    quilt = Quilt(setting="on-point", columns=columns, rows=rows, block="a", filler="c", **more)
    return Project(fabrics=FABRICS, blocks=(block("a", F(21, 2), F(21, 2)),), quilt=quilt)


@given(st.integers(1, 7), st.integers(1, 7), st.none() | lengths)
def test_counts_and_size_on_point(columns, rows, sashing):
    """mn + (m-1)(n-1) blocks, 2(m-1) + 2(n-1) side triangles, 4 corners; m(f+w)√2 by n(f+w)√2.
    Sashed, every block has a strip on all four sides, shared by two of them or at a triangle."""
    project = on_point(columns, rows, sashing=Sashing(width=sashing, corner_fabric="b"))
    top = quilt_top(project)
    kinds = Counter(piece.kind for piece in top.pieces)
    blocks = columns * rows + (columns - 1) * (rows - 1)
    sides = 2 * (columns - 1) + 2 * (rows - 1)
    assert (kinds["block"], kinds["side"], kinds["corner"]) == (blocks, sides, 4)
    pitch = F(21, 2) + (sashing or 0)
    assert top.size == (columns * pitch * ROOT2, rows * pitch * ROOT2)
    if sashing:
        # Each block has four strips, each side triangle two, each corner one; all lie between two.
        assert 2 * kinds["sash"] == 4 * blocks + 2 * sides + 4
        assert kinds["edge-corner"] == 2 * (columns + rows)


def test_three_by_four_with_sashing_corners_and_two_borders():
    """10 1/2 in blocks, 1 1/2 in sashing: 36√2 by 48√2 = 50.9 x 67.9 in, then 1 in and 5 in."""
    project = on_point(
        3, 4, sashing=Sashing(width=F(3, 2), fabric="b", corner_fabric="d"),
        borders=(Border(width=F(1), fabric="e"), Border(width=F(5), fabric="b")),
    )  # fmt: skip
    top = quilt_top(project)
    assert top.middle == (36 * ROOT2, 48 * ROOT2)
    assert top.size == (36 * ROOT2 + 12, 48 * ROOT2 + 12)
    assert [row.label for row in top.rows[:4]] == ["Corner", "Sashing 1", "Row 1", "Sashing 2"]
    first = top.borders[0].pairs[0][0].pieces[0]
    assert abs(area(first.outline)) == 48 * ROOT2  # 1 in wide: the left side, sewn on first


@given(st.tuples(lengths, lengths).map(lambda s: (s[0] * 5, s[1] * 7)), lengths)
def test_a_spacer_makes_a_pieced_border_fit(inner, unit):
    """Units and spacer differ by what can be eased, or by what cutting it to the mark takes."""
    found = spacer_for(inner, unit, INCH)
    for length, spare, number in zip(inner, found[:2], found.along, strict=True):
        off = abs(length + 2 * spare - number * unit)
        assert off <= (F(1, 16) if spare else length / 192)
        assert spare == 0 or F(1, 2) <= spare <= unit / 2 + F(1, 2) + F(1, 32)
    for other in fitting_units(inner, unit):
        assert spacer_for(inner, other, INCH)[:2] == (0, 0)


def test_units_that_fit_without_a_spacer():
    """54 x 72 in: 18 goes into both, so 18/k does; 4 1/2 is nearest to 4, then 3 3/5."""
    assert fitting_units((F(54), F(72)), F(4)) == [F(18, 5), F(9, 2)]
    assert fitting_units((F(3) * ROOT2, F(4) * ROOT2), F(1)) == [ROOT2 / 2, ROOT2]
    assert fitting_units((F(3), 4 * ROOT2), F(1)) == []


def test_patterns_of_turning_and_of_blocks():
    def turns(turning, columns=4, rows=4, **more):
        quilt = Quilt(columns=columns, rows=rows, block="a", turning=turning, **more)
        return [(p.turn, p.mirror) for p in placed(quilt)]

    assert turns("quarter-turns")[:5] == [
        (0, False),
        (1, False),
        (0, False),
        (1, False),
        (1, False),
    ]
    assert turns("round", 2, 2) == [(0, False), (1, False), (3, False), (2, False)]
    assert turns("mirror-pairs", 3, 1) == [(0, False), (0, True), (0, False)]
    rings = placed(Quilt(columns=5, rows=5, block="a", alternate=Alternate(block="b", by="rings")))
    assert [p.block for p in rings if p.row == 1] == list("abbba")
    assert [p.block for p in rings if p.row == 2] == list("ababa")
    lines = placed(Quilt(setting="on-point", columns=3, rows=2, block="a", turning="quarter-turns"))
    assert Counter(p.row for p in lines) == {0: 3, 1: 2, 2: 3}
    # On point neighbours lie in other lines: every block of a line is turned alike.
    assert [{p.turn for p in lines if p.row == row} for row in range(3)] == [{0}, {1}, {0}]


@pytest.mark.parametrize(
    ("changes", "says"),
    [
        ({"columns": 0, "rows": 0}, "no places yet"),
        ({"columns": 200, "rows": 200}, "40000 places; up to 10000"),
        ({"block": ""}, "no block yet"),
        ({"places": (QuiltPlace(column=9, row=0),)}, "Column 10, row 1 is outside the quilt"),
        ({"sashing": Sashing(width=F(12))}, "wider than a block"),
        (
            {"row_lengths": (2,), "sashing": Sashing(width=F(1), corner_fabric="a")},
            "without corner squares",
        ),
        ({"row_lengths": (2,)}, "choose a filler fabric"),
        ({"borders": (Border(width=F(2)),)}, "Border 1 has no fabric"),
        ({"borders": (Border(fabric="a"),)}, "Border 1 has no width"),
        ({"setting": "on-point", "block": "b"}, "only square blocks go on point"),
        ({"block": "m"}, "they must be alike"),
    ],
)
def test_what_cannot_be_laid_out_is_told(changes, says):
    motif = Motif(id="m", block="a", places=(QuiltPlace(column=0, row=0, block="b"),))
    quilt = replace(Quilt(columns=3, rows=3, block="a", motifs=(motif,)), **changes)
    project = Project(fabrics=FABRICS, blocks=(block("a", 9, 9), block("b", 9, 12)), quilt=quilt)
    top = quilt_top(project)
    assert any(says in problem.text for problem in top.problems), top.problems
