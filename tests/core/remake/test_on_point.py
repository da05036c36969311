"""Blocks cut along their diagonals, by polygons of another library and by hand."""

from __future__ import annotations

from math import sqrt

import pytest
import shapely
from hypothesis import given, settings
from hypothesis import strategies as st
from shapely import affinity

from inlet.core.draft.patches import draft
from inlet.core.numbers.fraction import Fraction as F
from inlet.core.plan import plan_block
from inlet.core.project.made_from import Cuts, StartBlock
from inlet.core.project.measure import INCH
from inlet.core.project.project import Project
from inlet.core.project.value import replace
from inlet.core.remake.edit import by_chance, cut_in, swapped, turned_at
from inlet.core.remake.follow import Remade, followed, pieces_of, remade
from inlet.core.remake.offers import offers
from inlet.core.remake.set_again import as_they_were, places_of
from inlet.core.remake.slices import SliceError
from inlet.files.project.project_json import dumps, loads
from tests.blocks import FABRICS, block_of, in_fabrics, unit_blocks
from tests.core.remake.test_made_from import START
from tests.sample import many

marks = st.integers(-12, 12).map(lambda n: F(n, 4))
some_cuts = st.lists(marks, max_size=2, unique=True).map(lambda cuts: tuple(sorted(cuts)))
TWO = in_fabrics(block_of("1 0 1 2", 2, 2, (F(8), F(8)), "a"), "ab")
"""Two halves side by side."""


def made_of(start, cuts, laid=None):
    """A project with a block set of slices of a start block, and how it is made."""
    start = replace(start, id="start", name="Start")
    made_from = cut_in(draft(start), StartBlock(block="start"), cuts, INCH)
    if laid is not None:
        made_from = replace(made_from, pieces=pieces_of(laid))
    made = replace(start, id="made", name="Made", made_from=made_from)
    project = followed(Project(fabrics=FABRICS, blocks=(start, made)))
    return project, remade(project, made_from)


def on_point(picture, side):
    """Outlines about the middle of a square, turned an eighth clockwise on screen."""
    for outline, fabric in picture:
        at = affinity.translate(shapely.Polygon(outline), -side[0] / 2, -side[1] / 2)
        yield affinity.rotate(at, 45, (0, 0)), fabric


def outlines_of(block):
    return [([p.floats() for p in patch.outline], patch.fabric) for patch in draft(block).patches]


def moved_pieces(start, how: Remade):
    """The start block's patches cut by the cuts, s taken of each cut side, each piece turned about
    its box and pushed to its place; places measured from the middle of them all."""
    side = [float(x) for x in start.finished]
    whole = list(on_point(outlines_of(start), side))
    shift = float(how.starts[0].block.finished[0]) / 2
    corners, size = places_of(how.slices), [float(x) / 2 for x in how.size]
    for laid, place, corner in zip(how.laid, how.slices, corners, strict=True):
        left, top, right, bottom = (float(x) - shift for x in how.slices[laid.piece].kept)
        box = shapely.box(left, top, right, bottom)
        middle = (left + right) / 2, (top + bottom) / 2
        to = [float(c) + float(s) / 2 - half for c, s, half in
              zip(corner, place.size, size, strict=True)]  # fmt: skip
        for polygon, fabric in whole:
            part = polygon.intersection(box)
            if part.area > 1e-9:
                part = affinity.rotate(part, 90 * laid.quarters, middle)
                yield affinity.translate(part, to[0] - middle[0], to[1] - middle[1]), fabric


@given(unit_blocks(), some_cuts, some_cuts, st.integers(0, 99))
@settings(max_examples=many(8, 100), deadline=None)
def test_what_is_shown_is_what_polygons_make_of_the_pieces(block, upright, level, seed):
    """Each fabric lies where the pieces, pushed together, have it; they fill the new block, and no
    larger one with the same middle lies between its edges."""
    start = replace(block, finished=(F(11), F(11)))
    try:
        project, how = made_of(start, Cuts(upright, level, True))
        project, how = made_of(start, Cuts(upright, level, True), by_chance(how, seed))
    except SliceError:
        return
    made = project.block("made")
    assert loads(dumps(project)) == project
    pieces = list(moved_pieces(start, how))
    where = how.on_point
    frame = [float(x) / 2 for x in how.size]
    corners = [where.in_frame(p).floats() for p in _corners(made)]
    square = shapely.Polygon([(x - frame[0], y - frame[1]) for x, y in corners])
    filled = shapely.unary_union([part.buffer(1e-9) for part, _ in pieces])
    assert filled.buffer(1e-6).contains(square)
    for i in range(4):  # pushed out a little, no edge is covered all along
        (x, y), (u, v) = corners[i], corners[(i + 1) % 4]
        long = sqrt((u - x) ** 2 + (v - y) ** 2)
        out = (v - y) / long * 0.02, -(u - x) / long * 0.02
        edge = shapely.LineString([(x - frame[0] + out[0], y - frame[1] + out[1]),
                                   (u - frame[0] + out[0], v - frame[1] + out[1])])  # fmt: skip
        assert not filled.buffer(1e-6).contains(edge)
    shown = {}
    for patch in draft(made).patches:
        outline = [where.in_frame(p).floats() for p in patch.outline]
        polygon = shapely.Polygon([(x - frame[0], y - frame[1]) for x, y in outline])
        shown.setdefault(patch.fabric, []).append(polygon)
    for fabric, polygons in shown.items():
        there = shapely.unary_union([p for p, of in pieces if of == fabric]).intersection(square)
        assert shapely.unary_union(polygons).symmetric_difference(there).area < 1e-6
    plan = plan_block(project, made)
    assert plan.asked.resewn


def _corners(block):
    from inlet.core.geometry.point import Point

    wide, high = block.finished
    zero = F(0)
    return Point(zero, zero), Point(wide, zero), Point(wide, high), Point(zero, high)


def test_four_triangles_by_hand():
    """8 in cut along both diagonals: every triangle moves s towards the middle across each cut,
    s√2 square to the block's edge: 8 - 2 · √2/4 = 7.29 in, raw 7.79, trimmed to 7 3/4."""
    project, how = made_of(TWO, Cuts((F(0),), (F(0),), True))
    made = project.block("made")
    assert [float(side) for side in made.finished] == pytest.approx([8 - sqrt(2) / 2] * 2)
    assert len(how.slices) == 4
    plan = plan_block(project, made)
    cut = next(step for step in plan.steps if step.cuts)
    assert "Lay it on point, its upper left corner on top" in cut.text
    assert "upright, through the centre, folded there" in cut.text
    assert "trim the block to 7 3/4 in" in cut.text
    assert plan.steps[-1].measures == (F(31, 4), F(31, 4))
    assert cut.cuts == 2
    for line in cut.moves[0].lines[:2]:  # from corner to raw corner
        assert sorted(abs(x) for x in line.start.floats()) in ([0.25, 0.25], [0.25, 8.25])


def test_one_diagonal_gives_a_half_square_triangle_smaller():
    project, _ = made_of(TWO, Cuts((F(0),), (), True))
    assert [float(side) for side in project.block("made").finished] == pytest.approx(
        [8 - sqrt(2) / 4] * 2
    )


def test_pieces_go_where_they_fill_the_place():
    """Triangles change places and are turned along; on the spot none fits another way."""
    _, how = made_of(TWO, Cuts((F(0),), (F(0),), True))
    assert turned_at(how, 0) == how.laid
    laid = swapped(how, 0, 3)
    assert [(piece.piece, piece.quarters) for piece in laid] == [(3, 2), (1, 0), (2, 0), (0, 2)]
    project, how = made_of(TWO, Cuts((F(0),), (F(0),), True), laid)
    assert plan_block(project, project.block("made")).asked.resewn


def test_arrangements_of_four_triangles_up_to_turns():
    """The triangles of TWO: left all a, right all b, top and bottom half a, half b, mirrored. In a
    ring of four, up to quarter turns, four different ones lie in 3! = 6 ways."""
    _, how = made_of(TWO, Cuts((F(0),), (F(0),), True))
    listed = offers(how.starts[0], how.slices, how.on_point)
    assert len(listed) == 6
    for offer in listed:
        area = sum(shapely.Polygon([p.floats() for p in o]).area for o, _ in offer.picture)
        assert area == pytest.approx((8 - sqrt(2) / 2) ** 2)


@pytest.mark.parametrize(
    ("start", "cuts", "words"),
    [
        (replace(START, finished=(F(8), F(9))), Cuts((F(0),), (), True), "Only a square block"),
        (START, Cuts((F(-4), F(4)), (F(-4), F(4)), True), "would have no fabric"),
        (START, Cuts((F(9),), (), True), "lies outside the block"),
    ],
)
def test_what_cannot_be_cut_is_told(start, cuts, words):
    with pytest.raises(SliceError, match=words):
        made_of(start, cuts)


def test_pieces_as_they_were_keep_their_places():
    _, how = made_of(START, Cuts((F(-1), F(1)), (F(0),), True))
    assert how.laid == as_they_were(how.slices)
