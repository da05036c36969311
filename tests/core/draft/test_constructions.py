"""Compass, symmetry, bands and the tray: what a maker draws with."""

from __future__ import annotations

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from inlet.core.draft.compass import quarter_arc, swing, with_marks
from inlet.core.draft.edit import add_seams, merged, paint
from inlet.core.draft.patches import draft
from inlet.core.draft.regrid import insert_band, remove_band, set_bands, with_square_unit
from inlet.core.draft.snapping import arc_end_snap, locked_snap, nearest_snap
from inlet.core.draft.symmetry import SYMMETRIES, group_of, image, repeated, then, turned, turner
from inlet.core.draft.tray import Box, drop, tray_unit_of, tray_units, turned_unit
from inlet.core.geometry.curve import Curve
from inlet.core.geometry.outline import outline_area, shape_key
from inlet.core.geometry.point import Point
from inlet.core.geometry.polygon import area, squared_length
from inlet.core.numbers.fraction import Fraction as F
from inlet.core.numbers.root2 import ROOT2
from inlet.core.plan.block import plan_block
from inlet.core.project.block import Block, seam_along, straight
from inlet.core.project.value import replace
from inlet.core.units.units import label_place
from tests.blocks import (
    block_of,
    erase_piece,
    in_fabrics,
    mixed_seams,
    point,
    project_of,
    ratios,
    turns,
    unit_blocks,
)

TWELVE = F(12)


def empty(n: int = 2, size: F = TWELVE) -> Block:
    return Block(id="x", finished=(size, size), columns=(F(1),) * n, rows=(F(1),) * n)


def shapes(block: Block) -> set:
    return {shape_key(p.shape) for p in draft(block).patches}


def total(block: Block) -> float:
    return sum(outline_area(p.shape) for p in draft(block).patches)


# --- symmetry ---------------------------------------------------------------------------------


@given(st.sets(st.sampled_from([s.key for s in SYMMETRIES])), turns, turns)
def test_symmetries_make_a_group_and_turns_follow_one_another(keys, first, second):
    group = group_of(keys)
    assert {then(a, b) for a in group for b in group} == set(group)
    p = point(1, 5)
    one, two = turner(first, F(6), F(6)), turner(second, F(6), F(6))
    assert two(one(p)) == turner(then(first, second), F(6), F(6))(p)


@pytest.mark.parametrize(
    ("key", "images"),
    [("half", {"1 0", "5 6"}), ("quarter", {"1 0", "6 1", "5 6", "0 5"}),
     ("left-right", {"1 0", "5 0"}), ("up-down", {"1 0", "1 6"}),
     ("falling", {"1 0", "0 1"}), ("rising", {"1 0", "6 5"})],
)  # fmt: skip
def test_each_symmetry_puts_a_point_where_its_name_says(key, images):
    found = {turner(turn, F(6), F(6))(point(1, 0)) for turn in group_of([key])}
    assert found == {point(*text.split()) for text in images}


@given(mixed_seams(most=3), st.sets(st.sampled_from([s.key for s in SYMMETRIES]), max_size=2))
@settings(max_examples=20, deadline=None)
def test_what_is_repeated_looks_the_same_however_it_is_turned(drawn, keys):
    group = group_of(keys)
    block = empty(6)
    block = add_seams(block, (seam_along(c) for c in repeated(block, group, drawn)))
    for turn in group:
        assert shapes(turned(block, turn)) == shapes(block)


@given(unit_blocks(), turns)
@settings(max_examples=15, deadline=None)
def test_turning_a_block_changes_no_size(block, turn):
    project = project_of(block)
    plain, other = (plan_block(project, b) for b in (block, turned(block, turn)))
    sizes = [sorted((c.fabric, c.cut, c.number) for c in p.cuts) for p in (plain, other)]
    assert sizes[0] == sizes[1]
    assert plain.resewn == other.resewn


def test_quarter_turns_of_an_oblong_are_left_out():
    block = replace(empty(), finished=(F(12), F(6)), rows=(F(1),))
    found = repeated(block, group_of(["quarter"]), [Curve(point(0, 0), point(1, 1))])
    assert [c.ends for c in found] == [
        (point(0, 0), point(1, 1)), (point(2, 1), point(1, 0))
    ]  # fmt: skip


# --- compass ----------------------------------------------------------------------------------


def eight_point_star(f: F) -> Block:
    """Drafted as by hand: half the diagonal carried from each corner along the sides."""
    block = empty(2, f)
    every = group_of(["quarter", "left-right"])
    marks = swing(draft(block), point(0, 0), point(1, 1), point(0, 0))
    block = with_marks(block, every, marks)
    near = Point(2 - ROOT2, F(0))
    square = Point(near.x, near.x)
    apex = locked_snap(draft(block), near, 1, float(ROOT2) - 1, 1)
    lines = [(near, square), (near, apex), (apex, point(1, 1)), (square, point(1, 1))]
    drawn = repeated(block, every, [Curve(p, q) for p, q in lines])
    return add_seams(block, (seam_along(c) for c in drawn))


@given(ratios(min_value=4, max_value=24, max_denominator=8))
@settings(max_examples=20, deadline=None)
def test_swing_drafts_an_exact_eight_point_star(f):
    block = eight_point_star(f)
    patches = draft(block).patches
    assert len(block.marks) == 8
    assert len(patches) == 16
    side = f * (1 - ROOT2 / 2)  # of the corner squares, and of the diamonds
    found = sorted((area(p.outline) for p in patches), key=float)
    assert found.count(side * side) == 4
    assert found.count(side * side / ROOT2) == 8  # half the square's height at 45°
    assert sum(found, F(0)) == f * f
    sides = {squared_length(p.outline[0], p.outline[1]) for p in patches if len(p.outline) == 4}
    assert sides == {side * side}


def test_a_distance_that_is_no_root_of_two_is_carried_to_a_decimal_on_the_seam():
    now = draft(empty(4))
    found = swing(now, point(0, 0), point(2, 1), point(0, 0))  # √5 along both sides
    assert [round(float(p.x + p.y), 9) for p in found] == [round(5**0.5, 9)] * 2
    assert {p.x for p in found if p.y == 0} | {p.y for p in found if p.x == 0}
    assert swing(now, point(0, 0), point(2, 1), point(2, 2)) == []  # on no seam


def test_a_distance_is_carried_along_a_slanted_seam_too():
    """A unit along the diagonal is half of √2 across and down, both ways from the middle."""
    block = add_seams(empty(4), [straight((F(0), F(0)), (F(4), F(4)))])
    half = ROOT2 / 2
    found = swing(draft(block), point(0, 0), point(1, 0), point(2, 2))
    assert set(found) == {Point(2 + half, 2 + half), Point(2 - half, 2 - half)}


def test_marks_are_snapped_to_and_the_lock_keeps_to_45_degrees():
    block = with_marks(empty(), group_of([]), [Point(ROOT2, F(0))])
    assert nearest_snap(draft(block), 1.4, 0.1, 1) == Point(ROOT2, F(0))
    now = draft(empty(4))
    assert locked_snap(now, point(1, 1), 2.9, 3.2, 1) == point(3, 3)
    assert locked_snap(now, point(1, 1), 3.1, 1.4, 1) == point(3, 1)
    slanted = replace(empty(4), finished=(F(12), F(6)))  # 45° of fabric, not of the grid
    assert locked_snap(draft(slanted), point(0, 0), 1, 2, 1) == point(1, 2)


def test_the_compass_ends_where_its_circle_meets_the_grid_or_a_seam():
    now = draft(block_of("0 0 4 4", 4, 4))
    centre, start = point(0, 0), point(3, 0)
    assert arc_end_snap(now, centre, start, 0.1, 2.8, 1) == point(0, 3)
    half = arc_end_snap(now, centre, start, 2.11, 2.13, 1)
    assert half == Point(ROOT2 * F(3, 2), ROOT2 * F(3, 2))
    far = arc_end_snap(now, centre, start, 1.0, 2.9, 1)
    assert far.x == 1
    assert abs(float(far.y) ** 2 - 8) < 1e-11


@given(mixed_seams(most=1), st.sampled_from([F(1, 3), F(1, 2), F(5, 7)]))
@settings(max_examples=60, deadline=None)
def test_a_seam_in_two_overlapping_parts_is_one_again(drawn, k):
    for curve in drawn:
        block = add_seams(empty(6), [seam_along(curve)])
        if curve.centre is not None:
            continue
        p, q = curve.ends
        at = Point(p.x + (q.x - p.x) * k, p.y + (q.y - p.y) * k)
        parts = [Curve(p, at), Curve(at, q), curve]
        assert merged(seam_along(c) for c in parts) == block.seams


def test_an_arc_is_erased_by_pieces_and_drawn_over_once():
    whole = quarter_arc(point(4, 0), point(0, 4))
    assert whole.centre == point(0, 0)
    block = add_seams(empty(6), [seam_along(whole), seam_along(Curve(point(0, 0), point(6, 6)))])
    pieces = [
        now.curve(e) for now in [draft(block).arrangement] for e in now.edges
        if now.curve(e).centre is not None
    ]  # fmt: skip
    assert len(pieces) == 2
    half = erase_piece(block, pieces[0])
    assert len([s for s in half.seams if s.arc is not None]) == 1
    assert erase_piece(half, pieces[1]).seams == block.seams[1:]
    again = add_seams(half, [seam_along(whole)])
    assert sorted(again.seams, key=str) == sorted(block.seams, key=str)
    assert add_seams(block, [seam_along(pieces[0])]) is block


# --- bands ------------------------------------------------------------------------------------


@given(unit_blocks(), st.integers(0, 3), st.integers(0, 1))
@settings(max_examples=20, deadline=None)
def test_a_band_put_in_and_taken_out_again_changes_nothing(block, at, axis):
    bands = block.rows if axis else block.columns
    at = min(at, len(bands))
    wide = insert_band(block, axis, at, F(1)).block
    assert wide.finished[axis] == block.finished[axis] * (len(bands) + 1) / len(bands)
    assert abs(total(wide) - float(wide.finished[0] * wide.finished[1])) < 1e-6
    assert not draft(wide).arrangement.faults
    back = remove_band(wide, axis, at).block
    assert (back.finished, back.columns, back.rows) == (
        block.finished, block.columns, block.rows,
    )  # fmt: skip
    assert shapes(back) == shapes(block)


def test_a_curve_across_a_new_band_is_left_out_and_counted():
    block = add_seams(empty(2), [seam_along(quarter_arc(point(2, 0), point(0, 2)))])
    made = insert_band(block, 0, 1, F(1))
    assert (len(made.block.seams), made.left_out) == (0, 1)
    bulge = add_seams(
        empty(4), [seam_along(quarter_arc(Point(F(5, 4), F(0)), Point(F(5, 4), F(2)), False))]
    )
    assert insert_band(bulge, 0, 1, F(1)).left_out == 1  # both ends right of it, bowed past it
    assert insert_band(bulge, 0, 2, F(1)).left_out == 0
    marked = replace(block, marks=((F(1), F(0)), (F(2), F(0))))
    assert insert_band(marked, 0, 1, F(1)).block.marks == ((F(1), F(0)), (F(3), F(0)))
    assert remove_band(marked, 0, 1).block.marks == ((F(1), F(0)), (F(1), F(0)))
    kept = insert_band(block, 0, 2, F(1))
    assert kept.left_out == 0
    assert [s for s in kept.block.seams if s.arc is not None] == list(block.seams)


def test_curves_keep_round_on_bands_of_other_proportions():
    block = add_seams(empty(3), [seam_along(quarter_arc(point(1, 0), point(0, 1)))])
    wide = set_bands(block, (F(2), F(1), F(2)), (F(2), F(1), F(2)))
    assert wide.left_out == 0
    (seam,) = wide.block.seams
    assert seam.curve == Curve(point(0, 2), point(2, 0), point(0, 0))
    assert set_bands(block, (F(2), F(1), F(2)), block.rows).left_out == 1
    oblong = replace(empty(3), finished=(F(12), F(6)))
    assert with_square_unit(oblong).scale == (F(4), F(4))
    assert shapes(with_square_unit(oblong)) == shapes(oblong)


# --- tray -------------------------------------------------------------------------------------


@given(st.sampled_from(tray_units()), turns, st.booleans())
@settings(max_examples=80, deadline=None)
def test_a_unit_dropped_fills_its_box_with_its_patches(tray_unit, turn, drawn_on):
    block = empty(4)
    if drawn_on:
        block = in_fabrics(
            add_seams(block, (seam_along(Curve(point(0, i), point(4, 4 - i))) for i in range(4))),
            "abc",
        )
    made = turned_unit(tray_unit, turn)
    k = 2 / max(made.size)
    box = Box(point(0, 0), Point(made.size[0] * k, made.size[1] * k))
    after = drop(block, made, box, ["d", "e", "f"])
    inside = [
        p for p in draft(after).patches
        if all(c.x <= 6 and c.y <= 6 for c in p.outline) and p.fabric in ("d", "e", "f")
    ]  # fmt: skip
    assert len(inside) == len(tray_unit.fabrics)
    assert {p.fabric for p in inside} == {"def"[part] for _, part in tray_unit.fabrics}
    assert abs(total(after) - 144) < 1e-6


def test_every_kind_of_the_design_is_in_the_tray():
    kinds = {
        "square", "rectangle", "half-square-triangle", "quarter-square-triangle", "three-triangle",
        "flying-geese", "square-in-square", "half-rectangle-triangle", "corner-triangle",
        "four-patch", "nine-patch", "checkerboard", "strips", "quarter-circle", "rounds", "ring",
        "set-in", "eight-point-star",
    }  # fmt: skip
    assert {s.kind for s in tray_units()} == kinds


def test_a_curved_unit_refuses_an_oblong_box_in_words():
    curve = next(s for s in tray_units() if s.kind == "quarter-circle")
    with pytest.raises(ValueError, match="stay round"):
        drop(empty(3), curve, Box(point(0, 0), point(2, 1)), ["a", "b"])


def test_a_unit_taken_from_a_block_drops_as_it_is():
    block = in_fabrics(block_of("0 1 1 0 / 1 0 2 1", 2, 1, (6, 3)), "aba")
    now = draft(block)
    tray_unit = tray_unit_of(now, range(3), "flying-geese", "Goose")
    ground = in_fabrics(block_of("0 1 4 1 / 2 0 2 1", 4, 4, (12, 12)), "c")
    made = drop(ground, tray_unit, Box(point(0, 0), point(2, 1)), [])
    assert {p.fabric for p in draft(made).patches} == {"a", "b", "c"}
    kinds = [u.unit.kind for u in plan_block(project_of(made), made).units]
    assert "flying-geese" in kinds


def test_the_label_of_every_unit_lies_on_it():
    block = empty(3)
    for x, tray_unit in enumerate(
        s for s in tray_units() if s.kind in ("quarter-circle", "rounds")
    ):
        block = drop(block, tray_unit, Box(point(x, 0), point(x + 1, 1)), ["a", "b", "c"])
    plan = plan_block(project_of(block), block)
    places = {label_place(plan.draft, p.part) for u in plan.units for p in u.unit.places}
    assert len(places) == sum(len(u.unit.places) for u in plan.units)
    for unit in plan.units:
        for place in unit.unit.places:
            x, y = (F(round(v * 1000), 1000) / 4 for v in label_place(plan.draft, place.part))
            assert plan.draft.patch_at(Point(x, y)).face in place.part.faces


def test_painting_and_repeating_meet_in_the_same_patches():
    block = add_seams(empty(2), [seam_along(quarter_arc(point(1, 0), point(0, 1)))])
    assert [p.fabric for p in draft(paint(block, (F(1, 4), F(1, 4)), "a")).patches] == ["a", None]
    moved = image(Curve(point(1, 0), point(0, 1), point(0, 0)), turner((1, False), F(2), F(2)))
    assert moved == Curve(point(2, 1), point(1, 0), point(2, 0))
