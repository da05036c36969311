"""Value, and the live checks of a drawing."""

from __future__ import annotations

import pytest

from inlet.core.draft.compass import quarter_arc
from inlet.core.draft.edit import add_seams
from inlet.core.draft.patches import draft
from inlet.core.draft.value import lightness, too_near, value_class
from inlet.core.numbers.fraction import Fraction as F
from inlet.core.plan.block import BlockPlan, plan_block
from inlet.core.project.block import Block, seam_along
from inlet.core.project.fabric import Fabric
from inlet.core.project.value import replace
from tests.blocks import block_of, in_fabrics, point, project_of

NINE = "1 0 1 3 / 2 0 2 3 / 0 1 3 1 / 0 2 3 2"


def plan_of(block: Block, **measure: object) -> BlockPlan:
    return plan_block(project_of(block, **measure), block)


@pytest.mark.parametrize(
    ("colour", "light", "kind"),
    [("#ffffff", 100, "light"), ("#000000", 0, "dark"), ("#777777", 50.03, "medium"),
     ("#ff0000", 53.24, "medium"), ("#0000ff", 32.30, "dark"), ("#ffff00", 97.14, "light")],
)  # fmt: skip
def test_lightness_is_cielab(colour, light, kind):
    assert abs(lightness(colour) - light) < 0.01
    assert value_class(Fabric(id="x", colour=colour)) == kind


def test_neighbours_too_near_in_value_are_told_unless_the_maker_knows_better():
    red, green = Fabric(id="a", colour="#c04030"), Fabric(id="b", colour="#4a7a40")
    assert too_near(red, green)
    assert not too_near(replace(red, value="dark"), green)
    assert not too_near(red, red)
    block = block_of("0 0 1 1")
    project = replace(project_of(block), fabrics=(red, green))
    (told,) = plan_block(project, block).problems
    assert told.code == "value-near"
    assert "The triangle" in told.text
    assert told.at == (point("1/2", "1/2"),)


def codes(block: Block) -> set[str]:
    return {p.code for p in plan_of(block).problems}


def test_curves_too_tight_and_not_round():
    block = in_fabrics(add_seams(
        block_of(NINE, 3, 3), [seam_along(quarter_arc(point(1, 0), point(0, 1)))]
    ), "ab")  # fmt: skip
    assert codes(block) == set()
    assert "curve-tight" in codes(replace(block, finished=(F(2), F(2))))
    assert "curve-not-round" in codes(replace(block, finished=(F(9), F(6))))
    plan = plan_of(block)
    pieces = [p for u in plan.units for p in u.in_use.pieces if p.piece.shape == "template"]
    assert sorted(p.piece.exact for p in pieces) == [(F(7, 2),) * 2] * 2  # r + 2s and f + 2s
    assert plan.resewn
    assert any(p.arcs for p in draft(block).patches)


def test_small_patches_and_seams_that_nearly_meet():
    assert "patch-small" in codes(block_of("0 1/24 1 1/24"))
    assert "sliver" in codes(block_of("0 1/48 1 1/48"))
    assert "seam-nearly-meets" in codes(block_of("0 1/2 49/50 1/2 / 1/4 0 1/4 1"))
    assert "seam-stops" in codes(block_of("0 1/2 2/3 1/2 / 1/4 0 1/4 1"))
