"""Drawing: edits, fabric, snapping, and what is said of a draft."""

from __future__ import annotations

import pytest
import shapely
from hypothesis import given, settings
from hypothesis import strategies as st

from inlet.core.draft.bands import parse_bands, show_bands
from inlet.core.draft.edit import paint
from inlet.core.draft.patches import draft
from inlet.core.draft.regrid import set_bands
from inlet.core.draft.sizes import nearest_side, seam_length, side_size
from inlet.core.draft.snapping import nearest_edge, nearest_snap, seam_near
from inlet.core.geometry.curve import Curve, flattened
from inlet.core.geometry.point import midpoint
from inlet.core.geometry.polygon import area, from_first_corner
from inlet.core.history import History
from inlet.core.numbers.fraction import Fraction as F
from inlet.core.numbers.root2 import ROOT2
from inlet.core.numbers.systems import CENTIMETRES, INCHES
from inlet.core.numbers.text import NumberError
from inlet.core.plan.block import plan_block
from inlet.core.project.block import Block, seam_along
from inlet.core.project.measure import Measure
from inlet.core.project.project import Project, measured_in
from inlet.core.project.quilt import Border, Quilt, Sashing
from inlet.core.project.value import replace
from tests.blocks import (
    add_seam,
    block_of,
    erase_piece,
    grid_segments,
    in_fabrics,
    mixed_seams,
    point,
    project_of,
    ratios,
)


def empty(n: int = 6) -> Block:
    bands = (F(1),) * n
    return Block(id="test", finished=(F(12), F(12)), columns=bands, rows=bands)


def shapes(block: Block) -> set:
    return {from_first_corner(p.outline) for p in draft(block).patches}


def fabrics(block: Block) -> list[str | None]:
    return [p.fabric for p in draft(block).patches]


@given(grid_segments(most=10))
@settings(max_examples=60)
def test_seams_drawn_one_by_one_never_lie_on_one_another_and_keep_the_fabric(drawn):
    block = paint(empty(), (F(1), F(5, 2)), "a")
    for p, q in drawn:
        block = add_seam(block, (p.x, p.y), (q.x, q.y))
        assert set(fabrics(block)) == {"a"}
    kinds = {f.kind for f in draft(block).arrangement.faults}
    assert "duplicate" not in kinds or any(_on_edge(p, q) for p, q in drawn)
    assert sum((area(p.outline) for p in draft(block).patches if not p.holes), F(0)) <= 144


def _on_edge(p, q) -> bool:
    return any(p[i] == q[i] and p[i] in (0, 6) for i in (0, 1))


@given(grid_segments(most=8), st.integers(0, 7))
@settings(max_examples=60)
def test_a_seam_erased_piece_by_piece_is_gone(drawn, pick):
    block = empty()
    for p, q in drawn:
        block = add_seam(block, (p.x, p.y), (q.x, q.y))
    if not block.seams:
        return
    index = pick % len(block.seams)
    p, q = block.seams[index].ends
    without = replace(block, seams=block.seams[:index] + block.seams[index + 1 :])
    assert erase_piece(block, Curve(p, q)).seams == without.seams
    half = midpoint(p, q)
    piecewise = erase_piece(erase_piece(block, Curve(p, half)), Curve(half, q))
    assert shapes(piecewise) == shapes(without)


def test_drawing_over_a_seam_makes_one_of_them():
    block = add_seam(add_seam(empty(3), (F(0), F(1)), (F(2), F(1))), (F(1), F(1)), (F(3), F(1)))
    assert [s.ends for s in block.seams] == [(point(0, 1), point(3, 1))]
    assert add_seam(block, (F(2), F(1)), (F(1), F(1))) is block


def test_splitting_keeps_the_fabric_on_both_halves_and_painting_changes_one():
    block = add_seam(paint(empty(2), (F(1), F(1)), "a"), (F(0), F(0)), (F(2), F(2)))
    assert fabrics(block) == ["a", "a"]
    block = paint(block, (F(3, 2), F(1, 2)), "b")
    assert sorted(fabrics(block)) == ["a", "b"]
    assert len(block.fabric_at) == 2
    assert fabrics(paint(block, (F(3, 2), F(1, 2)), None)).count(None) == 1
    assert paint(block, (F(1), F(1)), "c") == block  # on the seam


def test_fabric_round_an_island_is_kept_clear_of_it():
    island = ("2 2 4 2", "4 2 4 4", "4 4 2 4", "2 4 2 2")
    block = paint(empty(), (F(1), F(1)), "a")
    for line in island:
        a, b, c, d = (F(n) for n in line.split())
        block = add_seam(block, (a, b), (c, d))
    assert fabrics(block) == ["a", "a"]
    block = paint(block, (F(3), F(3)), "b")
    assert [(p.fabric, bool(p.holes)) for p in draft(block).patches] == [("a", True), ("b", False)]
    assert None not in draft(block).homes


def test_new_bands_carry_the_drawing_along():
    block = in_fabrics(block_of("1 0 1 3 / 2 0 2 3 / 0 1 3 1 / 1 0 2 1", 3, 3), "abc")
    wide = set_bands(block, parse_bands("2:1:2").proportions, block.rows).block
    assert wide.grid == (F(5), F(3))
    assert point(2, 0) in draft(wide).arrangement.points
    assert fabrics(wide) == fabrics(block)
    assert shapes(set_bands(wide, block.columns, block.rows).block) == shapes(block)


@pytest.mark.parametrize(
    ("text", "bands"),
    [("3", [1, 1, 1]), ("2:1:2", [2, 1, 2]), ("1 2", [1, 2]), ("3:1½", [3, "3/2"])],
)
def test_bands_as_typed(text, bands):
    found = parse_bands(text)
    assert list(found.proportions) == [F(b) for b in bands]
    assert found.size is None
    again = parse_bands(show_bands(found.proportions)).proportions
    assert [b / again[0] for b in again] == [b / found.proportions[0] for b in found.proportions]


def test_bands_typed_as_sizes_make_the_size():
    assert parse_bands("2, 1 1/2, 2") == ((F(2), F(3, 2), F(2)), F(11, 2))
    assert parse_bands("5 cm, 25mm", CENTIMETRES).size == F(15, 2)


@pytest.mark.parametrize("text", ["", "0", "2:0:1", "a:b", "999", "-1:2"])
def test_bands_that_cannot_be(text):
    with pytest.raises(NumberError):
        parse_bands(text)


def test_snapping_finds_the_grid_its_parts_and_what_is_drawn():
    now = draft(block_of("0 0 3 1", 3, 3))
    assert nearest_snap(now, 1.1, 1.9, 1) == point(1, 2)
    assert nearest_snap(now, 1.45, 1.9, 2) == point("3/2", 2)
    crossed = draft(block_of("0 0 3 1 / 0 1 3 0", 3, 3))
    assert nearest_snap(crossed, 1.52, 0.48, 1) == point("3/2", "1/2")
    piece, far = seam_near(crossed, 0.7, 0.3)
    assert set(piece.ends) == {point(0, 0), point("3/2", "1/2")}
    assert far < 0.3
    assert seam_near(draft(block_of()), 0.5, 0.5) is None


@given(mixed_seams(most=5), st.floats(0, 6), st.floats(0, 6), st.sampled_from(((6, 6), (6, 12))))
@settings(max_examples=60, deadline=None)
def test_the_nearest_edge_is_that_of_an_independent_library(seams, x, y, size):
    block = replace(block_of("", 6, 6, size), seams=tuple(map(seam_along, seams)))
    now = draft(block)
    k, far = nearest_edge(now, range(len(now.arrangement.edges)), (x, y))
    tall = float(block.scale[1])
    place = shapely.Point(x, y * tall)
    edges = [
        shapely.LineString(
            (u, v * tall) for u, v in (*flattened(curve, 1e-6), curve.end.floats())
        ).distance(place)
        for curve in map(now.arrangement.curve, now.arrangement.edges)
    ]
    assert abs(far - min(edges)) < 1e-2
    assert edges[k] < min(edges) + 1e-2
    if tall == 1:
        assert abs(far - min(edges)) < 1e-5


def test_sides_with_their_allowance():
    (patch, _) = draft(block_of("0 0 1 1", size=(3, 3))).patches
    measure = Measure()
    sizes = [side_size(patch.outline, i, measure) for i in range(3)]
    leg = next(s for s in sizes if s.finished == 3)
    assert leg.exact == F(7, 2) + ROOT2 / 4
    assert leg.cut == F(31, 8)
    assert max(s.finished for s in sizes) == 3 * ROOT2
    square = ((0, 0), (3, 0), (3, 3), (0, 3))
    assert nearest_side(tuple(point(x, y) for x, y in square), 1.5, 2.8) == 2
    assert seam_length(block_of(size=(3, 3)), point(0, 0), point(1, 1)) == 3 * ROOT2


def problems(drawn: str, fabric: str = "a", **kwargs) -> list[tuple[str, str, str]]:
    block = block_of(drawn, 3, 3, fabrics=fabric, **kwargs)
    return [(p.level, p.code, p.text) for p in plan_block(project_of(block), block).problems]


def test_problems_are_told_with_their_place():
    assert problems("0 1 2 1") == [
        ("error", "seam-stops", "A seam stops inside a patch at 2 across, 1 down.")
    ]
    assert ("error", "seam-outside") in {p[:2] for p in problems("1 0 1 4")}
    assert ("warning", "seam-duplicate") in {p[:2] for p in problems("1 0 1 3 / 1 1 1 2")}
    assert ("error", "seam-island") in {p[:2] for p in problems("1 1 2 1 / 2 1 1 2 / 1 2 1 1")}
    assert ("warning", "sliver") in {p[:2] for p in problems("1/20 0 1/20 3")}


def test_a_patch_without_fabric_and_a_fabric_on_a_seam():
    block = block_of("0 0 1 1", fabrics="a")
    bare = replace(block, fabric_at=(replace(block.fabric_at[0], point=(F(1, 2), F(1, 2))),))
    plan = plan_block(project_of(bare), bare)
    assert sorted(p.code for p in plan.problems) == [
        "comes-out", "fabric-on-seam", "patch-without-fabric", "patch-without-fabric",
    ]  # fmt: skip
    assert not plan.resewn
    assert plan.cuts


def test_history_goes_back_and_forth():
    first = Project(name="one")
    history = History(first)
    assert not history.edit(Project(name="one"))
    assert history.edit(replace(first, name="two"))
    assert history.unsaved
    assert history.edit(replace(first, name="three"))
    assert history.undo()
    assert history.project.name == "two"
    assert history.redo()
    assert not history.redo()
    history.mark_saved()
    assert not history.unsaved
    history.undo()
    assert history.unsaved
    history.edit(replace(first, name="four"))
    assert not history.can_redo
    assert history.undo()
    assert history.undo()
    assert not history.undo()
    assert history.project == first


@given(ratios(min_value=1, max_value=40, max_denominator=16))
def test_measuring_in_the_other_system_changes_no_size(size):
    quilt = Quilt(sashing=Sashing(width=size), borders=(Border(width=size), Border()))
    project = replace(project_of(block_of(size=(size, size))), quilt=quilt)
    metric = measured_in(project, CENTIMETRES)
    assert metric.blocks[0].finished[0] == size * F(254, 100)
    assert metric.quilt.sashing.width == metric.quilt.borders[0].width == size * F(254, 100)
    assert measured_in(metric, INCHES).quilt == quilt
    assert metric.measure.inches(metric.blocks[0].finished[0]) == size
    assert measured_in(metric, INCHES).blocks == project.blocks
