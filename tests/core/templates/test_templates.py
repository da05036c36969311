"""Templates against exact areas and lengths and a library of polygons, and read back from files."""

from __future__ import annotations

import re
from itertools import pairwise
from math import cos, dist, hypot, pi, radians, sin, sqrt

import ezdxf
import pytest
import shapely
from hypothesis import example, given, settings
from hypothesis import strategies as st
from pypdf import PdfReader
from svgelements import SVG, Path

from inlet.core.draft.edit import add_seams
from inlet.core.geometry.outline import Outline
from inlet.core.geometry.point import Point
from inlet.core.numbers.fraction import Fraction as F
from inlet.core.numbers.text import NumberError
from inlet.core.plan.block import plan_block
from inlet.core.project.block import Block, curved
from inlet.core.project.measure import INCH, METRIC
from inlet.core.project.value import replace
from inlet.core.templates.cut_line import cutting_sides, sewing_sides
from inlet.core.templates.laid_outlines import laid_outlines
from inlet.core.templates.sheets import EDGE, SimulatedPrinter, correction, sheets
from inlet.core.templates.template import (
    bounds_of,
    templates,
    turn_of,
)
from inlet.files.drawings.templates_drawing import write_dxf, write_svg
from inlet.files.pdf.templates_pdf import write_templates
from tests.blocks import block_of, point, project_of
from tests.core.pressing.drawn import NAMED

LETTER = (612.0, 792.0)


def flat(sides, step=0.01):
    """A line of sides and arcs in short chords."""
    out = []
    for side in sides:
        if side.centre is None:
            out.append(side.start)
            continue
        (cx, cy), turn = side.centre, turn_of(side)
        x, y = side.start[0] - cx, side.start[1] - cy
        n = int(abs(turn) / step) + 1
        out += [
            (cx + x * cos(turn * i / n) - y * sin(turn * i / n),
             cy + x * sin(turn * i / n) + y * cos(turn * i / n))
            for i in range(n)
        ]  # fmt: skip
    return out


def of(block, copies=1, every=False, measure=None):
    project = project_of(block)
    project = project if measure is None else replace(project, measure=measure)
    plan = plan_block(project, block, copies)
    return templates(plan.draft, plan.units, plan.project, copies, every), plan


def outline_length(sides):
    """How long a line of straight sides and arcs is."""
    total = 0.0
    for side in sides:
        if side.centre is None:
            total += hypot(side.end[0] - side.start[0], side.end[1] - side.start[1])
        else:
            total += abs(turn_of(side)) * side.radius
    return total


def enclosed(sides):
    """The area inside a clockwise line of straight sides and arcs: the shoelace of its corners, and
    r²(θ - sin θ)/2 for each arc."""
    total = sum(s.start[0] * s.end[1] - s.end[0] * s.start[1] for s in sides) / 2
    for side in sides:
        if side.centre is not None:
            angle = turn_of(side)
            total += side.radius**2 * (angle - sin(angle)) / 2
    return total


CURVED = NAMED["quarter circles"] if "quarter circles" in NAMED else next(
    b for b in NAMED.values() if any(s.arc for s in b.seams)
)  # fmt: skip
KITES = block_of("0 0 1 2 / 0 0 2 1", 2, 2, (8, 8), "abc")


def test_a_quarter_circle_has_its_exact_area_and_length():
    """Radius 3, allowance 1/4: the sewing line is π·9/4 and 6 + 3π/2; the cut line is part of a
    circle of 3 1/4 and two lines 1/4 outside the radii."""
    wedge = Outline((point("0", "0"), point("3", "0"), point("0", "3")), ((1, point("0", "0")),))
    sew = sewing_sides(wedge)
    cut = cutting_sides(sew, 0.25)
    assert enclosed(sew) == pytest.approx(pi * 9 / 4, abs=1e-12)
    assert outline_length(sew) == pytest.approx(6 + 3 * pi / 2, abs=1e-12)
    reach = sqrt(3.25**2 - 0.25**2)  # where a line 1/4 off the centre meets the circle
    assert bounds_of(cut) == pytest.approx((-0.25, -0.25, 3.25, 3.25), abs=1e-12)
    assert dist(cut[0].start, (-0.25, -0.25)) < 1e-12
    assert dist(cut[1].start, (reach, -0.25)) < 1e-12
    assert dist(cut[2].start, (-0.25, reach)) < 1e-12


def test_a_curve_that_bulges_in_is_cut_round_a_smaller_circle():
    """A square of 4 in without a quarter circle of 3: the cut line is part of a circle of 2 3/4,
    which the lines 1/4 outside its ends meet."""
    bend = Outline(
        (point("0", "0"), point("4", "0"), point("4", "1"), point("1", "4"), point("0", "4")),
        ((2, point("4", "4")),),
    )
    cut = cutting_sides(sewing_sides(bend), 0.25)
    reach = 4 - sqrt(2.75**2 - 0.25**2)
    assert dist(cut[2].start, (4.25, reach)) < 1e-12
    assert dist(cut[3].start, (reach, 4.25)) < 1e-12
    assert cut[2].radius == pytest.approx(2.75)


@given(
    st.lists(st.tuples(st.integers(0, 20), st.integers(0, 20)), min_size=3, max_size=6),
    st.sampled_from([0.25, 0.75]),
)
@example(places=[(6, 5), (8, 14), (18, 9)], seam=0.25)
@settings(max_examples=60, deadline=None)
def test_the_cut_line_of_straight_sides_is_that_of_a_library(places, seam):
    hull = shapely.MultiPoint(places).convex_hull
    if hull.geom_type != "Polygon" or hull.area < 4:
        return
    ring = list(shapely.get_coordinates(hull))[:-1]
    corners = tuple(Point(F(int(x)), F(int(y))) for x, y in ring)
    if shapely.LinearRing(ring).is_ccw is False:  # y runs down: counter-clockwise is clockwise
        corners = corners[::-1]
    cut = cutting_sides(sewing_sides(Outline(corners)), seam)
    wanted = hull.buffer(seam, join_style="mitre", mitre_limit=1000)
    if len(cut) > len(corners):  # a sharp corner, cut off square: all but the whole tip is there
        piece = shapely.Polygon(flat(cut))
        assert piece.buffer(1e-7).contains(hull.buffer(seam - 1e-7))
        assert piece.area < wanted.area
        return
    assert enclosed(cut) == pytest.approx(wanted.area, rel=1e-9)
    # Not the area between the two: the library's overlay fails where edges nearly coincide.
    assert shapely.Polygon(flat(cut)).exterior.hausdorff_distance(wanted.exterior) < 1e-7


@pytest.mark.parametrize("name", [n for n, b in NAMED.items() if any(s.arc for s in b.seams)])
def test_curved_templates_lie_the_allowance_outside_their_sewing_line(name):
    found, plan = of(replace(NAMED[name], pressing=None))
    assert found
    seam = float(plan.measure.seam)
    for each in found:
        sew, cut = shapely.Polygon(flat(each.sew)), shapely.Polygon(flat(each.cut))
        assert cut.contains(sew)
        arcs = {s.centre: s for s in each.sew if s.centre is not None}
        for side in each.cut:
            if side.centre is not None:
                sewn = arcs[side.centre]
                wanted = sewn.radius + (seam if sewn.clockwise else -seam)
                assert side.radius == pytest.approx(wanted)
                assert dist(side.end, side.centre) == pytest.approx(wanted)
        assert len(each.marks) == 3 * sum(side.centre is not None for side in each.sew)
        for a, b in each.marks:
            assert dist(a, b) == pytest.approx(seam)
        x, y = (sum(p) / 2 for p in zip(*each.grain, strict=True))
        assert sew.contains(shapely.Point(x, y))


def test_tips_are_blunted_to_the_neighbours_raw_edge():
    """A kite's tips: nothing of it reaches beyond its neighbour laid on it."""
    found, plan = of(KITES, every=True)
    seam = float(plan.measure.seam)
    blunted = [t for t in found if len(t.cut) > len(t.sew)]
    assert blunted
    for each in blunted:
        whole = shapely.Polygon(flat(cutting_sides(each.sew, seam)))
        cut = shapely.Polygon(flat(each.cut))
        assert whole.buffer(1e-9).contains(cut)
        assert cut.contains(shapely.Polygon(flat(each.sew)))
        assert cut.area < whole.area
    total = sum(t.number for t in found)
    assert total == len(plan.draft.patches)


def test_reversed_ones_are_counted():
    """Two mirrored kites are one template, one of them reversed."""
    found, _ = of(KITES, copies=5, every=True)
    assert any(need.reversed == 5 for t in found for need in t.needed)
    assert sum(t.number for t in found) == 15


def test_every_shape_of_an_eight_point_star():
    star = next(b for n, b in NAMED.items() if "star" in n)
    found, plan = of(replace(star, pressing=None), every=True)
    assert sum(t.number for t in found) == len(plan.draft.patches)
    area = sum(enclosed(t.sew) * t.number for t in found)
    assert area == pytest.approx(float(star.finished[0] * star.finished[1]))


def pdf_paths(path):
    """Every path of a PDF's pages: points in millimetres from the top left, by page."""
    out = []
    for page in PdfReader(path).pages:
        high = float(page.mediabox.height)
        numbers, paths, now = [], [], None
        for token in page.get_contents().get_data().decode("latin-1").split():
            if token in ("m", "l", "c"):
                spots = [(x * 25.4 / 72, (high - y) * 25.4 / 72)
                         for x, y in zip(numbers[::2], numbers[1::2], strict=True)]  # fmt: skip
                if token == "m":
                    now = []
                    paths.append(now)
                now += spots
                numbers = []
            elif re.fullmatch(r"-?[\d.]+", token):
                numbers.append(float(token))
            else:
                numbers = []
        out.append(paths)
    return out


def test_the_pdf_is_true_to_a_hundredth_of_a_millimetre(tmp_path):
    found, plan = of(replace(CURVED, pressing=None), measure=METRIC)
    write_templates(found, plan.project, tmp_path / "t.pdf", "a4")
    (paths,) = pdf_paths(tmp_path / "t.pdf")
    boxes = [
        (max(x for x, _ in p) - min(x for x, _ in p), max(y for _, y in p) - min(y for _, y in p))
        for p in paths
    ]
    for each in found:
        left, top, right, bottom = bounds_of(each.cut)
        wanted = (right - left) * 10, (bottom - top) * 10
        assert any(abs(w - wanted[0]) < 0.01 and abs(h - wanted[1]) < 0.01 for w, h in boxes)
    for side in (25.4, 20.0):
        assert any(abs(w - side) < 0.01 and abs(h - side) < 0.01 for w, h in boxes)


def test_svg_and_dxf_read_back_give_the_same_outlines(tmp_path):
    found, plan = of(replace(CURVED, pressing=None))
    write_svg(found, plan.measure, tmp_path / "t.svg")
    write_dxf(found, plan.measure, tmp_path / "t.dxf")
    drawn = {p.id: p for p in SVG.parse(str(tmp_path / "t.svg"), ppi=1).elements()
             if isinstance(p, Path) and p.id}  # fmt: skip
    space = ezdxf.readfile(tmp_path / "t.dxf").modelspace()
    assert ezdxf.readfile(tmp_path / "t.dxf").header["$INSUNITS"] == 1
    for layer in ("cut", "sew"):
        total = 0.0
        for each in found:
            sides = each.cut if layer == "cut" else each.sew
            total += outline_length(sides)
            read = drawn[f"{each.label}-{layer}"]
            assert read.length(error=1e-9) == pytest.approx(outline_length(sides), abs=1e-6)
            left, top, right, bottom = bounds_of(sides)
            x0, y0, x1, y1 = read.bbox()
            assert (x1 - x0, y1 - y0) == pytest.approx((right - left, bottom - top), abs=1e-6)
        lines = space.query(f'LINE[layer=="{layer.upper()}"]')
        arcs = space.query(f'ARC[layer=="{layer.upper()}"]')
        assert len(arcs) == sum(s.centre is not None for t in found for s in getattr(t, layer))
        read_length = sum((e.dxf.end - e.dxf.start).magnitude for e in lines) + sum(
            radians((a.dxf.end_angle - a.dxf.start_angle) % 360) * a.dxf.radius for a in arcs
        )
        assert read_length == pytest.approx(total, abs=1e-6)
    ends = [e.dxf.start for e in space.query('LINE[layer=="CUT"]')]
    assert all(hypot(p.x, p.y) < 100 for p in ends)


@given(st.floats(0.9, 1.1), st.floats(0.9, 1.1), st.booleans())
@settings(max_examples=20, deadline=None)
def test_a_printers_error_is_corrected_both_ways(across, down, every):
    found, plan = of(replace(CURVED, pressing=None), every=every)
    printer = SimulatedPrinter(across, down, (3.0, -2.0))
    first = sheets(found, plan.project, LETTER)
    measured = printer.measures(printer.prints(first[0]))
    assert measured == pytest.approx((across, down))
    corrected = correction(f"{measured[0]:.6f}, {measured[1]:.6f}")
    again = sheets(found, plan.project, LETTER, 0, corrected)
    for sheet in map(printer.prints, again):
        assert printer.measures(sheet) == pytest.approx((1, 1), abs=1e-5)
        assert printer.measures(sheet, "centimetres") == pytest.approx((2 / 2.54,) * 2, abs=1e-5)


def test_what_the_square_cannot_have_measured_is_refused():
    assert correction("1") == (1, 1)
    for wrong in ("", "0, 1", "3", "1, 1, 1", "wide"):
        with pytest.raises(NumberError):
            correction(wrong)


def test_a_template_larger_than_the_paper_comes_on_several_sheets_that_overlap():
    big = replace(block_of("0 0 1 2 / 0 0 2 1", 2, 2, (24, 24), "abc"))
    found, plan = of(big, every=True)
    laid = sheets(found, plan.project, LETTER)
    for each in found:
        parts = [s for s in laid if any(w.text.startswith(f"{each.label}: ") for w in s.words)]
        left, top, right, bottom = bounds_of(each.cut)
        assert len(parts) > 1
        lengths = [
            [p for d in s.drawn if d.kind == "cut" for part in d.path for p in part] for s in parts
        ]
        widths = {round(max(x for x, _ in p) - min(x for x, _ in p), 6) for p in lengths}
        assert widths == {round((right - left) * 72, 6)}  # whole on each, moved
        starts = sorted({round(min(x for x, _ in p), 3) for p in lengths}, reverse=True)
        assert starts[0] == EDGE
        assert all(a - b < LETTER[0] - 2 * EDGE for a, b in pairwise(starts))
        assert bottom > top


def test_spares_are_printed_and_none_lies_on_another():
    found, plan = of(replace(CURVED, pressing=None))
    laid = sheets(found, plan.project, LETTER, spares=3)
    cuts = 0
    for sheet in laid:
        shapes = [
            shapely.Polygon([part[-1] for part in d.path]) for d in sheet.drawn if d.kind == "cut"
        ]
        cuts += len(shapes)
        boxes = [shapely.box(*s.bounds) for s in shapes]
        squares = [d for d in sheet.drawn if d.kind.startswith("square")]
        assert len(squares) == 2
        floor = min(y for d in squares for part in d.path for _, y in part)
        assert all(b.bounds[3] < floor for b in boxes)
        assert all(a.intersection(b).area < 1e-6
                   for i, a in enumerate(boxes) for b in boxes[i + 1 :])  # fmt: skip
    assert cuts == 4 * len(found)


@given(st.integers(20, 100), st.sampled_from([F(1), F(3, 4), F(2, 3)]))
@settings(max_examples=20, deadline=None)
def test_curved_templates_lie_in_the_places_laid_out_for_them(eighths, share):
    """A quarter circle from corner to corner too, whose two points run out into nothing."""
    block = Block(id="q", finished=(F(eighths, 8), F(eighths, 8)))
    arc = curved((1 - share, F(1)), (F(1), 1 - share), (F(1), F(1)))
    project = project_of(add_seams(block, [arc]))
    templates = [cut for cut in plan_block(project, project.blocks[0]).cuts if cut.outline]
    assert len(templates) == 2
    for cut in templates:
        (laid,) = laid_outlines(cut, 1, INCH)
        finished = shapely.Polygon([p.floats() for p in cut.outline])
        across, along = (float(side) + 1 / 16 for side in cut.cut)
        assert shapely.box(-1e-9, -1e-9, along, across).contains(shapely.Polygon(laid))
        assert shapely.Polygon(laid).is_valid
        assert finished.area < shapely.Polygon(laid).area < finished.buffer(0.3).area
