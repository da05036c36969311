"""Seams by the block's edge, places in a band that is taken out, and the order problems come in."""

from __future__ import annotations

import pytest

from inlet.core.draft.patches import draft
from inlet.core.draft.regrid import remove_band, with_square_unit
from inlet.core.geometry.curve import Curve, distance_to
from inlet.core.numbers.fraction import Fraction as F
from inlet.core.plan.block import plan_block
from inlet.core.project.block import Block, FabricAt, seam_along
from inlet.core.project.value import replace
from tests.blocks import block_of, point, project_of
from tests.fuzz.drafts import tiling_fault


def test_fabric_and_marks_inside_a_removed_band_go_with_it():
    spots = tuple(FabricAt(point=(F(2 * i + 1, 2), F(1, 2)), fabric=c) for i, c in enumerate("abc"))
    block = replace(
        block_of("1 0 1 1 / 2 0 2 1", 3, 1, (9, 3)),
        fabric_at=spots,
        marks=((F(1, 2), F(1, 3)), (F(3, 2), F(1, 3)), (F(5, 2), F(2, 3))),
    )
    made = remove_band(block, 0, 1).block
    assert made.marks == ((F(1, 2), F(1, 3)), (F(3, 2), F(2, 3)))
    assert [(s.point, s.fabric) for s in made.fabric_at] == [
        ((F(1, 2), F(1, 2)), "a"),
        ((F(3, 2), F(1, 2)), "c"),
    ]


@pytest.mark.parametrize("past", [F(1), F(1, 1000), F(1, 10**9)])
@pytest.mark.parametrize("slope", [F(0), F(1, 7)])
def test_a_seam_that_runs_partly_outside_is_told_and_borders_inside(past, slope):
    """However little it reaches past the edge: told with the place of its end; what is inside is
    still a border."""
    end = point(3 + past, 2 + slope)
    block = Block(
        id="x", columns=(F(1),) * 3, rows=(F(1),) * 3,
        seams=(seam_along(Curve(point(0, 2), end)),),
    )  # fmt: skip
    found = draft(block)
    assert [(f.kind, f.point) for f in found.arrangement.faults] == [("outside", end)]
    assert len(found.patches) == 2
    assert tiling_fault(found) is None


@pytest.mark.parametrize("digits", [3, 6, 9])
def test_crossings_closer_than_a_hair_on_an_arc(digits):
    """Two upright lines cross a quarter circle so close together: three columns, each parted by
    the arc where it goes through it."""
    x = F(9, 5)
    curves = [
        Curve(point(3, 0), point(0, 3), point(0, 0)),
        Curve(point(x, 0), point(x, 4)),
        Curve(point(x + F(1, 10**digits), 0), point(x + F(1, 10**digits), 4)),
    ]
    block = Block(
        id="x", columns=(F(1),) * 4, rows=(F(1),) * 4, seams=tuple(map(seam_along, curves))
    )
    found = draft(block)
    assert found.arrangement.faults == ()
    assert len(found.patches) == 6
    assert tiling_fault(found) is None


def test_errors_come_before_warnings():
    block = block_of("0 0 3 3 / 1/50 0 1/50 3 / 1 1 2 1", 3, 3, (9, 9), "ab")
    levels = [p.level for p in plan_block(project_of(block), block).problems]
    assert {"error", "warning"} <= set(levels)
    assert levels == sorted(levels)


def test_a_block_with_curves_keeps_its_grid_unit():
    """Its arcs are circles of the grid: another unit would make them something else."""
    arc = seam_along(Curve(point(2, 0), point(0, 2), point(0, 0)))
    oblong = Block(
        id="x", finished=(F(9), F(6)), columns=(F(1),) * 3, rows=(F(1),) * 3, seams=(arc,)
    )
    assert with_square_unit(oblong) is oblong
    bare = replace(oblong, seams=())
    assert with_square_unit(bare).rows == (F(2, 3),) * 3


def test_a_tight_curve_is_pointed_at_where_it_is():
    arc = Curve(point(1, 0), point(0, 1), point(0, 0))
    block = Block(
        id="x", finished=(F(3, 2),) * 2, columns=(F(1),) * 3, rows=(F(1),) * 3,
        seams=(seam_along(arc),),
    )  # fmt: skip
    (tight,) = (p for p in plan_block(project_of(block), block).problems if p.code == "curve-tight")
    assert distance_to(arc, tight.at[0].floats()) < 1 / 32
    assert "its radius is 0.50 in" in tight.text
