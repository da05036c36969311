"""Borders that lie along what was drawn, and those that do not."""

from __future__ import annotations

import pytest

from inlet.core.draft.borders import uncovered
from inlet.core.draft.patches import Draft, draft
from inlet.core.geometry.curve import Curve
from inlet.core.numbers.fraction import Fraction as F
from inlet.core.project.block import Block, seam_along
from inlet.core.project.value import replace
from tests.blocks import point
from tests.core.assembly.corpus import corpus

SEAMS = [
    Curve(point(0, 1), point(4, 1)),
    Curve(point(1, 0), point(1, 4)),
    Curve(point(4, 0), point(0, 4), point(0, 0)),
    Curve(point(3, 4), point(5, 2)),  # partly outside
]


def block_with(curves: list[Curve]) -> Block:
    return Block(
        id="x", columns=(F(1),) * 4, rows=(F(1),) * 4, seams=tuple(map(seam_along, curves))
    )


def test_the_borders_of_every_block_lie_along_its_seams():
    for _, block, _, _ in corpus():
        assert uncovered(draft(block)) == []
    assert uncovered(draft(block_with(SEAMS))) == []


@pytest.mark.parametrize("missing", range(4))
def test_a_seam_that_borders_nothing_is_found(missing):
    """The patches of a drawing without it, held against the drawing with it."""
    without = draft(block_with(SEAMS[:missing] + SEAMS[missing + 1 :]))
    wrong = Draft(block_with(SEAMS), without.arrangement, without.patches, ())
    assert uncovered(wrong) == [missing]


def test_half_a_border_is_not_enough():
    half = draft(block_with([Curve(point(0, 1), point(2, 1)), Curve(point(2, 0), point(2, 4))]))
    block = block_with([Curve(point(0, 1), point(4, 1)), Curve(point(2, 0), point(2, 4))])
    assert uncovered(half._replace(block=block)) == [0]
    assert uncovered(half._replace(block=replace(block, seams=block.seams[1:]))) == []
