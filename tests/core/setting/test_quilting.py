"""Quilting lines measured by distances to the patches' sides, and lengths by hand."""

from __future__ import annotations

from itertools import pairwise
from math import hypot, pi, sqrt

import pytest
import shapely
from hypothesis import given, settings
from hypothesis import strategies as st
from shapely.errors import GEOSException

from inlet.core.numbers.fraction import Fraction as F
from inlet.core.plan.quilt import plan_quilt
from inlet.core.project.block import Block, curved, straight
from inlet.core.project.measure import INCH, METRIC
from inlet.core.project.quilt import Border, Quilt, QuiltingLines
from inlet.core.project.value import replace
from inlet.core.setting import quilting
from inlet.core.setting.picture import patches_of
from inlet.core.setting.quilting import GRID, quilted
from inlet.core.setting.quilting_words import quilted_text, quilting_words
from inlet.core.setting.top import quilt_top
from tests.blocks import block_of, in_fabrics, project_of, unit_blocks
from tests.sample import many

FOUR = replace(block_of("1 0 1 2 / 0 1 2 1", 2, 2, (8, 8), "abba"), id="four")


def lines_of(project, *asked):
    project = replace(project, quilt=replace(project.quilt, quilting=asked))
    return quilted(quilt_top(project), project)


def of(columns=1, rows=1, **more):
    return replace(project_of(FOUR), quilt=Quilt(columns=columns, rows=rows, block="four", **more))


def test_lengths_by_hand():
    """Four 4 in patches: 1/2 in inside each is a square of 3 in, so 4 · 12; only fabric a: half of
    them. Again 1/2 in further in: 2 in squares. Seams: two of 8 in; of four blocks eight, and two
    of 16 between them. A grid 3 in apart from the middle of 8 in: three lines both ways; on the
    diagonal the one beside the longest is 2 · 3 in shorter."""
    half = QuiltingLines(distance=F(1, 2))
    assert lines_of(of(), half).length == pytest.approx(48)
    assert lines_of(of(), replace(half, fabric="a")).length == pytest.approx(24)
    assert lines_of(of(), replace(half, repeats=2)).length == pytest.approx(48 + 32)
    seams = QuiltingLines(kind="seams")
    assert lines_of(of(), seams).length == pytest.approx(16)
    assert lines_of(of(2, 2), seams).length == pytest.approx(8 * 8 + 2 * 16)
    grid = QuiltingLines(kind="grid", distance=F(3))
    assert lines_of(of(), grid).length == pytest.approx(2 * 3 * 8)
    slanted = lines_of(of(), replace(grid, diagonal=True))
    assert slanted.length == pytest.approx(2 * (8 * sqrt(2) + 2 * (8 * sqrt(2) - 6)))
    assert lines_of(of()).lines == ()


def test_borders_are_echoed_and_what_lies_at_the_raw_edge_is_told():
    """A 2 in border round 8 in: sides 8 x 2, ends 12 x 2; 1/4 in inside: perimeters 18 and 26."""
    project = of(borders=(Border(width=F(2), fabric="c"),))
    asked = QuiltingLines(fabric="c")
    assert lines_of(project, asked).length == pytest.approx(2 * 18 + 2 * 26)
    words = quilting_words(asked, project)
    assert "1/4 in inside the seams of every patch of C" in words
    assert "from a raw edge 1/2 in" in words
    found = lines_of(project, asked)
    assert quilted_text(found.length, found.thread, INCH).startswith("3 yd of lines, 7 yd")


def apart(p, a, b):
    """How far a point is from a side."""
    dx, dy = b[0] - a[0], b[1] - a[1]
    k = max(0.0, min(1.0, ((p[0] - a[0]) * dx + (p[1] - a[1]) * dy) / (dx * dx + dy * dy)))
    return hypot(p[0] - a[0] - k * dx, p[1] - a[1] - k * dy)


@given(unit_blocks(), st.integers(1, 8), st.sampled_from([INCH, METRIC]))
@settings(max_examples=many(20, 40), deadline=None)
def test_every_line_keeps_its_distance(block, eighths, measure):
    """The middle of every straight stretch lies just as far from the nearest side of a patch."""
    quilt = Quilt(columns=1, rows=1, block=block.id)
    project = replace(project_of(block), quilt=quilt, measure=measure)
    distance = F(eighths, 8)
    top = quilt_top(project)
    if not top.rows:
        return
    sides = [
        side
        for patch in patches_of(block)
        for ring in (patch.outline, *patch.holes)
        for side in pairwise((*ring, ring[0]))
        if side[0] != side[1]
    ]
    for line in lines_of(project, QuiltingLines(distance=distance)).lines:
        assert line[0] == line[-1]
        for p, q in pairwise(line):
            middle = (p[0] + q[0]) / 2, (p[1] + q[1]) / 2
            near = min(apart(middle, *side) for side in sides)
            assert near == pytest.approx(float(distance), abs=2e-3)


@pytest.mark.parametrize("bands", [(F(7, 2), F(1)), (F(1), F(7, 2)), (F(5, 3), F(1)), (F(1), F(1))])
@pytest.mark.parametrize("corner", [(0, 0), (1, 0), (0, 1), (1, 1)])
@pytest.mark.parametrize("radius", [F(1, 2), F(1), F(2, 3)])
def test_seams_beside_curves_are_each_drawn_once(bands, corner, radius):
    """A cross of two seams in 6 in, and a quarter circle about a corner of the block: patches on
    either side of it share it in short lines, which cross the cross by a hair. 6 + 6 + π r / 2."""
    whole = sum(bands)
    x, y = (whole * end for end in corner)
    inward = [radius if end == 0 else -radius for end in corner]
    seams = (
        curved((x + inward[0], y), (x, y + inward[1]), (x, y)),
        straight((bands[0], F(0)), (bands[0], whole)),
        straight((F(0), bands[0]), (whole, bands[0])),
    )
    block = Block(id="c", columns=bands, rows=bands, finished=(F(6), F(6)), seams=tuple(seams))
    project = replace(
        project_of(in_fabrics(block, "ab")), quilt=Quilt(columns=1, rows=1, block="c")
    )
    found = lines_of(project, QuiltingLines(kind="seams"), QuiltingLines(distance=F(1, 8)))
    seams_alone = lines_of(project, QuiltingLines(kind="seams"))
    assert found.problems == seams_alone.problems == ()
    arc = pi / 2 * float(radius) * 6 / float(whole)
    assert seams_alone.length == pytest.approx(12 + arc, abs=0.02)


def test_more_lines_than_anybody_quilts_are_left_out_and_told(monkeypatch):
    monkeypatch.setattr(quilting, "MOST_LINES", 500)
    fine = QuiltingLines(kind="grid", distance=F(1, 50))
    wide = QuiltingLines(kind="grid", distance=F(1))
    found = lines_of(of(8, 8), fine, wide)
    assert found.lines == lines_of(of(8, 8), wide).lines
    (problem,) = found.problems
    assert "Quilting lines 1 are more than 500 lines" in problem.text
    project = of(8, 8)
    plan = plan_quilt(replace(project, quilt=replace(project.quilt, quilting=(fine,))))
    assert problem in plan.problems


def test_a_patch_whose_lines_cannot_be_drawn_is_told(monkeypatch):
    def fails(polygon, *_):
        if polygon.bounds[0] > 3:
            raise GEOSException("side location conflict")
        return real(polygon, GRID)

    real = shapely.set_precision
    monkeypatch.setattr(shapely, "set_precision", fails)
    found = lines_of(of(), QuiltingLines(distance=F(1, 2)))
    assert found.length == pytest.approx(24)
    assert [p.text for p in found.problems] == [
        f"Quilting lines 1 cannot be drawn in the patch at 4.00 across, {down} down of its block; "
        "they are left out there."
        for down in ("0.00", "4.00")
    ]
