"""Rounds, counted by hand."""

from __future__ import annotations

from inlet.core.methods.long_strips import sew_and_trim
from inlet.core.methods.patchwise import patch_by_patch
from inlet.core.numbers.fraction import Fraction as F
from inlet.core.units.known import units_of
from inlet.files.shelf import SHIPPED, read_shelf_block
from tests.blocks import block_of

SEAM = F(1, 4)


def test_long_strips_are_as_long_as_what_they_cover_and_the_centre_is_none_of_them():
    """Two rounds of 2 in about a 2 in centre. Each strip covers its length with both allowances,
    and half an inch is trimmed away: the first round 2, 2, 6, 6 and the second 6, 6, 10, 10, each
    and an inch."""
    block = read_shelf_block(SHIPPED / "two-rounds.inlet").block
    (unit,) = units_of(block).units
    method = sew_and_trim(unit, SEAM)
    lengths = {p.fabric: sorted(p.exact) for p in method.pieces if p.shape == "strip"}
    width = 2 + 2 * SEAM
    assert lengths == {"light": [width, 3 + 3 + 7 + 7], "medium": [width, 7 + 7 + 11 + 11]}


def test_a_nested_unit_is_one_piece_of_what_it_lies_in():
    """A four-patch with one round: five pieces, four seams."""
    drawn = "0 1 4 1 / 0 3 4 3 / 1 1 1 3 / 3 1 3 3 / 2 1 2 3 / 1 2 3 2"
    block = block_of(drawn, 4, 4, (F(8), F(8)), "abbaccdd")
    outer = [unit for unit in units_of(block).units if unit.part.nested]
    assert len(outer) == 1
    assert len(outer[0].picture) == 8
    assert patch_by_patch(outer[0], SEAM).effort.seams == 4
