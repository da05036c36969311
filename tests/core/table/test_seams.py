"""Seams as they are drawn on the table."""

from __future__ import annotations

from math import dist

import pytest

from inlet.core.assembly.tree import all_joins
from inlet.core.draft.patches import draft
from inlet.core.table.seams import finish_lines, open_length, seam_lines, sewn_first
from inlet.core.units.breakdown import break_down
from tests.core.assembly.corpus import corpus

STRAIGHT = {
    name: block
    for name, block, _, _ in corpus()
    if block.seams and not any(seam.curve.centre for seam in block.seams)
}


def drawn_length(lines):
    return sum(dist(d.start.floats(), d.end.floats()) for d in lines if d.kind == "seam")


@pytest.mark.parametrize("name", STRAIGHT)
def test_what_is_drawn_is_all_of_the_seam_once(name):
    """What is sewn at once, what is left open, and what finishes it later, add up: for each seam,
    and for the block."""
    joins = list(all_joins(break_down(draft(STRAIGHT[name])).side))
    assert joins
    in_all = 0.0
    for join in joins:
        first = drawn_length(seam_lines(join))
        rest = drawn_length(finish_lines(join))
        own = sum(open_length(end.join, end.vertex) for end in join.finishes)
        assert first + rest - own == pytest.approx(sewn_first(join))
        assert sewn_first(join) <= join.length
        in_all += first + rest
    assert in_all == pytest.approx(sum(join.length for join in joins))
