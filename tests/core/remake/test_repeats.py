"""Ways to set a block, counted a second way."""

from __future__ import annotations

from itertools import pairwise, product

import pytest

from inlet.core.draft.patches import draft
from inlet.core.draft.symmetry import turned
from inlet.core.geometry.motion import at_origin, canonical
from inlet.core.numbers.fraction import Fraction as F
from inlet.core.project.value import replace
from inlet.core.remake.repeats import images, looks_of, repeats
from tests.blocks import block_of, in_fabrics

HALF = block_of("0 0 1 1", 1, 1, (6, 6), "ab")
PLAIN = block_of("", 1, 1, (6, 6), "a")
CORNERED = block_of("0 1 1 0 / 1 0 2 1", 2, 2, (6, 6), "abc")
FLAG = block_of("1 0 1 2 / 0 1 1 1 / 1 0 2 2", 2, 2, (6, 6), "abcd")
OBLONG = block_of("1 0 1 1 / 0 0 1 1", 2, 1, (8, 4), "abc")


def drawn(block):
    """What lies where, whatever the seams: the picture of a drawing by its patches."""
    return canonical(at_origin(tuple((p.polygon, p.fabric) for p in draft(block).patches)))


@pytest.mark.parametrize(
    ("block", "looks"), [(HALF, 4), (PLAIN, 1), (CORNERED, 8), (FLAG, 8), (OBLONG, 4)]
)
def test_a_block_has_as_many_looks_as_turns_draw_differently(block, looks):
    """Each turn drawn by the editor's own turning."""
    found = looks_of(draft(block))
    assert len(found.turns) == looks
    for turn, after in found.after.items():
        for look, first in enumerate(found.turns):
            again = turned(turned(block, first), turn)
            assert drawn(again) == drawn(turned(block, found.turns[after[look]]))


@pytest.mark.parametrize("block", [HALF, PLAIN, CORNERED, FLAG, OBLONG])
def test_every_repeat_is_there_once(block):
    """Counted by what each way of looking leaves as it is: their mean is how many there are."""
    start = draft(block)
    looks = looks_of(start)
    ways = len(looks.after) * 4
    patterns = list(product(range(len(looks.turns)), repeat=4))
    fixed = sum(image == pattern for pattern in patterns for image in images(pattern, looks))
    listed = repeats(start)
    assert len(listed) == fixed / ways
    counted = sum(ways // each.symmetry for each in listed)
    assert counted == len(patterns)
    assert [each.symmetry for each in listed] == sorted(
        (each.symmetry for each in listed), reverse=True
    )


def test_a_look_at_a_repeat_draws_the_same_quilt():
    """A floor of 4 x 4 drawn block by block, turned as a whole and begun elsewhere, holds each
    image of its repeat."""
    looks = looks_of(draft(FLAG))
    pattern = (0, 3, 5, 6)
    floor = {(x, y): pattern[2 * (y % 2) + x % 2] for x in range(-4, 8) for y in range(-4, 8)}
    for image in images(pattern, looks):
        assert any(
            all(
                looks.after[turn][floor[where(turn, x + i, y + j)]] == image[2 * j + i]
                for i in range(2) for j in range(2)
            )
            for turn in looks.after for x in range(2) for y in range(2)
        )  # fmt: skip


def where(turn, x, y):
    """Which block lands at a place when a floor is turned about (1/2, 1/2)."""
    quarters, mirror = turn
    for _ in range(quarters):
        x, y = y, 1 - x
    return (1 - x if mirror else x), y


def test_figures_that_go_on_come_first():
    """Half-square triangles: of the repeats that look the same most ways, those whose fabrics meet
    along all of the seams first. All alike, nothing meets but at corners: the fabrics differ."""
    listed = repeats(draft(HALF))
    for one, other in pairwise(listed):
        assert (one.symmetry, one.goes_on) >= (other.symmetry, other.goes_on)
    by_turns = {each.turns: each for each in listed}
    alike = next(e for turns, e in by_turns.items() if len(set(turns)) == 1)
    assert alike.goes_on == 0
    assert listed[0].goes_on == 8 * F(6)  # a star and its ground, by turns
    plain = in_fabrics(replace(HALF, id="plain"), "aa")
    assert {each.goes_on for each in repeats(draft(plain))} == {8 * F(6)}
