"""How bands move and fabric follows: laws that hold for any block."""

from __future__ import annotations

from hypothesis import given, settings
from hypothesis import strategies as st

from inlet.core.draft.edit import add_seams, erase_pieces, one_fabric_a_patch, paint_all
from inlet.core.draft.patches import draft
from inlet.core.draft.regrid import bands_of, set_bands
from inlet.core.draft.symmetry import SYMMETRIES, group_of, repeated_points, turner
from inlet.core.draft.tray import (
    Box,
    drop,
    drop_repeated,
    fabrics_for,
    taken_from,
    tray_units,
    turned_in_place,
    turned_unit,
)
from inlet.core.draft.value import grey_of, lightness, value_class
from inlet.core.geometry.inside import inside_point
from inlet.core.geometry.outline import outline_area, shape_key
from inlet.core.geometry.point import Point
from inlet.core.numbers.fraction import Fraction as F
from inlet.core.project.block import Block, FabricAt, seam_along
from inlet.core.project.project import Project
from inlet.core.project.quilt import Backing, Binding, Border, Quilt, Sashing
from inlet.core.project.value import replace
from tests.blocks import (
    FABRICS,
    block_of,
    in_fabrics,
    mixed_seams,
    point,
    project_of,
    ratios,
    unit_blocks,
)
from tests.sample import many


def board(n: int = 6) -> Block:
    return Block(id="x", finished=(F(12), F(12)), columns=(F(1),) * n, rows=(F(1),) * n)


def look(block: Block) -> dict:
    """Every patch with its fabric."""
    return {shape_key(p.shape): p.fabric for p in draft(block).patches}


# --- value ------------------------------------------------------------------------------------


@given(st.from_regex(r"#[0-9a-f]{6}", fullmatch=True))
def test_the_grey_of_a_fabric_is_as_light_as_it(colour):
    grey = grey_of(colour)
    assert grey[1:3] == grey[3:5] == grey[5:7]
    assert abs(lightness(grey) - lightness(colour)) < 0.6
    assert 0 <= lightness(colour) <= 100.01


def test_a_fabrics_class_is_the_makers_where_they_say_so():
    assert value_class(FABRICS[0]) == "light"
    assert value_class(replace(FABRICS[0], value="dark")) == "dark"


# --- fabric follows ----------------------------------------------------------------------------


@given(mixed_seams(most=5), mixed_seams(most=3))
@settings(max_examples=50, deadline=None)
def test_fabric_lies_where_it_lay_after_seams_are_added(first, more):
    block = in_fabrics(add_seams(board(), (seam_along(c) for c in first)), "abcde")
    after = add_seams(block, (seam_along(c) for c in more))
    old = draft(block)
    if any(face.holes for face in old.arrangement.faces):
        return  # the middle of such a patch may lie on its island
    for patch in draft(after).patches:
        middle = inside_point(draft(after).arrangement.outlines[patch.face])
        under = old.patch_at(middle)
        if under is not None and not draft(after).arrangement.faces[patch.face].holes:
            assert patch.fabric == under.fabric
    assert draft(after).homes.count(None) == 0
    assert one_fabric_a_patch(after).fabric_at == after.fabric_at


@given(mixed_seams(most=6))
@settings(max_examples=40, deadline=None)
def test_erasing_every_seam_leaves_one_patch(seams):
    block = in_fabrics(add_seams(board(), (seam_along(c) for c in seams)), "ab")
    bare = erase_pieces(block, [seam.curve for seam in block.seams])
    assert bare.seams == ()
    assert len(draft(bare).patches) == 1
    assert draft(bare).patches[0].fabric in ("a", "b")


@given(mixed_seams(most=5), st.lists(st.integers(0, 20), max_size=4))
@settings(max_examples=40, deadline=None)
def test_what_is_known_after_an_edit_is_what_a_fresh_look_finds(seams, picks):
    """The draft an edit leaves behind knows each fabric point's patch without looking: look."""
    block = in_fabrics(add_seams(board(), (seam_along(c) for c in seams)), "abc")
    for i in picks:
        now = draft(block)
        face = i % len(now.patches)
        middle = inside_point(now.arrangement.outlines[face])
        block = paint_all(block, [(middle.x, middle.y)], "def"[i % 3])
    if any(face.holes for face in draft(block).arrangement.faces):
        return
    fresh = replace(block, fabric_at=tuple(FabricAt(point=f.point, fabric=f.fabric)
                                           for f in block.fabric_at))  # fmt: skip
    assert draft(fresh).homes == draft(block).homes
    assert [p.fabric for p in draft(fresh).patches] == [p.fabric for p in draft(block).patches]


def test_a_fabric_is_replaced_wherever_it_lies_the_quilt_included():
    block = in_fabrics(block_of("0 0 1 1"), "ab")
    quilt = Quilt(
        sashing=Sashing(fabric="a", corner_fabric="b"), borders=(Border(fabric="a"),),
        binding=Binding(fabric="a"), backing=Backing(fabric="c"),
    )  # fmt: skip
    project = replace(project_of(block), quilt=quilt)
    after = project.in_place_of("a", "c")
    assert {p.fabric for p in draft(after.blocks[0]).patches} == {"b", "c"}
    assert after.fabric("a") is None
    assert after.quilt == Quilt(
        sashing=Sashing(fabric="c", corner_fabric="b"), borders=(Border(fabric="c"),),
        binding=Binding(fabric="c"), backing=Backing(fabric="c"),
    )  # fmt: skip


# --- bands ------------------------------------------------------------------------------------

widths = ratios(min_value=F(1, 4), max_value=4, max_denominator=8)


def _in_band(x, old, new):
    i = min(int(x), len(old) - 1)
    return sum(new[:i], F(0)) + (x - i) * new[i]


@given(unit_blocks(), st.data())
@settings(max_examples=15, deadline=None)
def test_other_proportions_keep_the_patches_and_their_fabric(block, data):
    n = len(block.columns)
    columns, rows = (tuple(data.draw(st.lists(widths, min_size=n, max_size=n))) for _ in range(2))
    if data.draw(st.booleans()):  # as by dragging a line: the whole stays as wide
        columns = tuple(w * n / sum(columns) for w in columns)
    made = set_bands(block, columns, rows)
    assert made.left_out == 0
    assert (made.block.columns, made.block.rows) == (columns, rows)
    assert made.block.finished == block.finished
    assert len(draft(made.block).patches) == len(draft(block).patches)
    for spot in block.fabric_at:  # a place goes with its cell, and its fabric with it
        x, y = (
            _in_band(spot.point[i], old, new)
            for i, (old, new) in enumerate(((block.columns, columns), (block.rows, rows)))
        )
        assert draft(made.block).patch_at(Point(x, y)).fabric == spot.fabric
    assert sorted(f.fabric for f in made.block.fabric_at) == sorted(
        f.fabric for f in block.fabric_at
    )
    back = set_bands(made.block, block.columns, block.rows).block
    assert look(back) == look(block)


@given(unit_blocks(), st.integers(1, 5), st.integers(1, 5))
@settings(max_examples=20, deadline=None)
def test_more_or_fewer_bands_leave_a_block_that_tiles(block, across, down):
    made = set_bands(block, (F(1),) * across, (F(1),) * down).block
    assert (len(bands_of(made, 0)), len(bands_of(made, 1))) == (across, down)
    size = sum(outline_area(p.shape) for p in draft(made).patches)
    assert abs(size - float(made.finished[0] * made.finished[1])) < 1e-9
    assert not [f for f in draft(made).arrangement.faults if f.kind in ("outside", "stops")]


# --- units dropped ----------------------------------------------------------------------------


@given(st.sampled_from(tray_units()), st.sets(st.sampled_from([s.key for s in SYMMETRIES])),
       st.integers(0, 3), st.integers(0, 3))  # fmt: skip
@settings(max_examples=many(15, 30), deadline=None)
def test_units_dropped_by_symmetry_look_the_same_turned(tray_unit, keys, x, y):
    group = group_of(keys)
    low = point(x, y)
    box = Box(low, point(x + 1, y + 1))
    if tray_unit.curved and tray_unit.size[0] != tray_unit.size[1]:
        return
    block = drop_repeated(board(4), group, tray_unit, box, ["a", "b", "c"])
    middle = point(F(x) + F(1, 2), F(y) + F(1, 2))
    count = len(repeated_points(board(4), group, middle))
    boxes = [p for p in draft(block).patches if p.fabric is not None]
    assert len(boxes) == count * len(tray_unit.fabrics)
    one_by_one, taken = board(4), []
    for turn in group:
        (x0, y0), (x1, y1) = (turner(turn, F(4), F(4))(p) for p in box)
        here = Box(Point(min(x0, x1), min(y0, y1)), Point(max(x0, x1), max(y0, y1)))
        if not any(here.overlaps(other) for other in taken):
            taken.append(here)
            one_by_one = drop(one_by_one, turned_unit(tray_unit, turn), here, ["a", "b", "c"])
    assert look(one_by_one) == look(block)


@given(unit_blocks(), st.integers(0, 2), st.integers(0, 2))
@settings(max_examples=15, deadline=None)
def test_four_quarter_turns_in_place_change_nothing(block, x, y):
    n = len(block.columns)
    box = Box(point(x % n, y % n), point(x % n + 1, y % n + 1))
    assert taken_from(draft(block), box) is not None
    after = block
    for _ in range(4):
        after = turned_in_place(after, box, (1, False))
    assert look(after) == look(block)
    flipped = turned_in_place(turned_in_place(block, box, (0, True)), box, (0, True))
    assert look(flipped) == look(block)


def test_fabrics_for_a_dropped_unit():
    project = Project(fabrics=FABRICS[:4])
    assert fabrics_for(project, None, "b") == ["b", "a", "c"]  # on nothing: the lightest other
    assert fabrics_for(project, "d", "b") == ["b", "d", "a"]
    assert fabrics_for(project, "b", "b") == ["b", "a", "c"]
    assert fabrics_for(Project(fabrics=FABRICS[:1]), None, "a") == ["a"]
