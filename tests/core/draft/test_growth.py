"""How sizes grow, how bands move, how cloth follows: laws that hold for any block."""

from __future__ import annotations

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from inlet.core.cutting.growth import Series, _meet, growths
from inlet.core.cutting.stock_sizes import sizes_from
from inlet.core.draft.edit import add_seams, erase_pieces, one_cloth_a_patch, paint_all
from inlet.core.draft.patches import draft
from inlet.core.draft.regrid import bands_of, set_bands
from inlet.core.draft.symmetry import SYMMETRIES, group_of, repeated_points, turner
from inlet.core.draft.tray import (
    Box,
    cloths_for,
    drop,
    drop_repeated,
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
from inlet.core.numbers.systems import CENTIMETRES, INCHES
from inlet.core.numbers.text import NumberError
from inlet.core.plan import plan_block
from inlet.core.planning.stock import Stock, parse_stock
from inlet.core.project.block import Block, FabricAt, seam_along
from inlet.core.project.project import Project
from inlet.core.project.quilt import Backing, Binding, Border, Quilt, Sashing
from inlet.core.project.value import replace
from inlet.files.plan_json import plan_dict, stock_list
from tests.blocks import (
    CLOTHS,
    allowances,
    block_of,
    in_cloths,
    mixed_seams,
    point,
    project_of,
    ratios,
    unit_blocks,
)


def board(n: int = 6) -> Block:
    return Block(id="x", finished=(F(12), F(12)), columns=(F(1),) * n, rows=(F(1),) * n)


def look(block: Block) -> dict:
    """Every patch with its cloth."""
    return {shape_key(p.shape): p.fabric for p in draft(block).patches}


# --- sizes ------------------------------------------------------------------------------------


@given(unit_blocks(most=2), allowances, ratios(min_value=F(1, 3), max_value=4))
@settings(max_examples=15, deadline=None)
def test_every_cut_grows_evenly_with_its_block(block, seam, k):
    project = project_of(block, seam=seam)
    now = growths(plan_block(project, block).units)
    other = replace(block, finished=(block.finished[0] * k, block.finished[1] * k))
    then = growths(plan_block(project, other).units)
    assert [(g.label, g.side) for g in now] == [(g.label, g.side) for g in then]
    for g, h in zip(now, then, strict=True):
        assert h.piece.exact[h.side] == g.grows * k + g.adds


series = st.builds(
    Series,
    ratios(min_value=0, max_value=3, max_denominator=12),
    ratios(min_value=F(1, 12), max_value=3, max_denominator=12),
)


@given(series, series)
@settings(max_examples=60)
def test_what_two_series_have_in_common_is_what_counting_finds(one, other):
    met = _meet(one, other)
    lists = [{s.first % s.step + s.step * i for i in range(600)} for s in (one, other)]
    common = sorted(x for x in lists[0] & lists[1] if x < 40)
    if met is None:
        assert common == []
    else:
        counted = [met.first % met.step + met.step * i for i in range(600)]
        assert [x for x in counted if x < 40] == common


@given(unit_blocks(most=2), st.sampled_from(["strip", "square"]), st.sampled_from([F(5, 2), F(5)]))
@settings(max_examples=12, deadline=None)
def test_a_size_from_stock_can_be_cut_from_it(block, shape, width):
    project = project_of(block)
    plan = plan_block(project, block)
    for size in sizes_from(Stock(shape, width), plan.units, block, plan.measure):
        then = plan_block(project, replace(block, finished=size.finished))
        for g in growths(then.units):
            if g.label in size.whole and (shape == "square" or g.side == 0):
                assert g.piece.exact[g.side] <= width
        assert set(size.whole) | set(size.others) == {g.label for g in growths(then.units)}
        if size.comfortable:
            assert then.comfort.misses == ()


@pytest.mark.parametrize(
    ("text", "system", "stock"),
    [
        ("2 1/2 strips, 5 squares", INCHES, [("strip", F(5, 2)), ("square", F(5))]),
        ("10 in Squares;", INCHES, [("square", F(10))]),
        ("6 cm strip, 120mm squares", CENTIMETRES, [("strip", F(6)), ("square", F(12))]),
        ("9 x 7 scraps", INCHES, [("scrap", F(7), F(9))]),
        (
            "10 in squares, 4 x 2 in scraps",
            CENTIMETRES,
            [("square", F(127, 5)), ("scrap", F(127, 25), F(254, 25))],
        ),
        ("", INCHES, []),
    ],
)
def test_stock_as_typed(text, system, stock):
    assert list(parse_stock(text, system)) == [Stock(*s) for s in stock]


@pytest.mark.parametrize(
    "text", ["5 ribbons", "squares", "0 squares", "x strips", "5", "7 scraps", "7 x 8 squares"]
)
def test_stock_that_is_none(text):
    with pytest.raises(NumberError):
        parse_stock(text, INCHES)


def test_sizes_are_in_the_plan_as_data():
    block = block_of("1 0 1 3 / 2 0 2 3 / 0 1 3 1 / 0 2 3 2", 3, 3, (10, 10), "abc")
    plan = plan_block(project_of(block), block)
    told = plan_dict(plan)["comfort"]
    assert told["misses"] == [{"length": "23/6", "for": ["A"], "short": "1/24"}]
    assert (told["smaller"], told["larger"]) == (["39/4", "39/4"], ["81/8", "81/8"])
    (from_stock,) = stock_list(plan, parse_stock("2 1/2 strips", INCHES))
    assert from_stock["finished"] == ["6", "6"]
    assert (from_stock["comfortable"], from_stock["others"]) == (True, [])


# --- value ------------------------------------------------------------------------------------


@given(st.from_regex(r"#[0-9a-f]{6}", fullmatch=True))
def test_the_grey_of_a_cloth_is_as_light_as_it(colour):
    grey = grey_of(colour)
    assert grey[1:3] == grey[3:5] == grey[5:7]
    assert abs(lightness(grey) - lightness(colour)) < 0.6
    assert 0 <= lightness(colour) <= 100.01


def test_a_cloths_class_is_the_makers_where_they_say_so():
    assert value_class(CLOTHS[0]) == "light"
    assert value_class(replace(CLOTHS[0], value="dark")) == "dark"


# --- cloth follows ----------------------------------------------------------------------------


@given(mixed_seams(most=5), mixed_seams(most=3))
@settings(max_examples=50, deadline=None)
def test_cloth_lies_where_it_lay_after_seams_are_added(first, more):
    block = in_cloths(add_seams(board(), (seam_along(c) for c in first)), "abcde")
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
    assert one_cloth_a_patch(after).fabric_at == after.fabric_at


@given(mixed_seams(most=6))
@settings(max_examples=40, deadline=None)
def test_erasing_every_seam_leaves_one_patch(seams):
    block = in_cloths(add_seams(board(), (seam_along(c) for c in seams)), "ab")
    bare = erase_pieces(block, [seam.curve for seam in block.seams])
    assert bare.seams == ()
    assert len(draft(bare).patches) == 1
    assert draft(bare).patches[0].fabric in ("a", "b")


@given(mixed_seams(most=5), st.lists(st.integers(0, 20), max_size=4))
@settings(max_examples=40, deadline=None)
def test_what_is_known_after_an_edit_is_what_a_fresh_look_finds(seams, picks):
    """The draft an edit leaves behind knows each fabric point's patch without looking: look."""
    block = in_cloths(add_seams(board(), (seam_along(c) for c in seams)), "abc")
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


def test_a_cloth_is_replaced_wherever_it_lies_the_quilt_included():
    block = in_cloths(block_of("0 0 1 1"), "ab")
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
def test_other_proportions_keep_the_patches_and_their_cloth(block, data):
    n = len(block.columns)
    columns, rows = (tuple(data.draw(st.lists(widths, min_size=n, max_size=n))) for _ in range(2))
    if data.draw(st.booleans()):  # as by dragging a line: the whole stays as wide
        columns = tuple(w * n / sum(columns) for w in columns)
    made = set_bands(block, columns, rows)
    assert made.left_out == 0
    assert (made.block.columns, made.block.rows) == (columns, rows)
    assert made.block.finished == block.finished
    assert len(draft(made.block).patches) == len(draft(block).patches)
    for spot in block.fabric_at:  # a place goes with its cell, and its cloth with it
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
@settings(max_examples=30, deadline=None)
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
    assert len(boxes) == count * len(tray_unit.cloths)
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


def test_cloths_for_a_dropped_unit():
    project = Project(fabrics=CLOTHS[:4])
    assert cloths_for(project, None, "b") == ["b", "a", "c"]  # on nothing: the lightest other
    assert cloths_for(project, "d", "b") == ["b", "d", "a"]
    assert cloths_for(project, "b", "b") == ["b", "a", "c"]
    assert cloths_for(Project(fabrics=CLOTHS[:1]), None, "a") == ["a"]
