"""Grids finer than the units drawn on them, and parts that are alike but for a turn."""

from __future__ import annotations

from collections import Counter
from itertools import pairwise

from hypothesis import given, settings
from hypothesis import strategies as st

from inlet.core.assembly.tree import all_joins
from inlet.core.draft.edit import add_seams
from inlet.core.draft.patches import draft
from inlet.core.draft.regrid import set_bands
from inlet.core.draft.symmetry import turned
from inlet.core.draft.tray import Box, drop, tray_units, turned_unit
from inlet.core.numbers.fraction import Fraction as F
from inlet.core.plan.block import plan_block
from inlet.core.project.block import Block, seam_along
from inlet.core.project.value import replace
from inlet.core.units.breakdown import break_down
from inlet.core.units.parts import walk
from inlet.core.units.rounds import rounds_of
from inlet.core.units.units import find_units
from tests.blocks import block_of, mixed_seams, point, project_of, turns
from tests.sample import many

TRAY = {tray_unit.words: tray_unit for tray_unit in tray_units()}
WORDS = (
    "Nine-patch", "Four-patch", "Square", "Half-square triangle", "Hourglass",
    "Stitch-and-flip corner", "Square in a square",
)  # fmt: skip
RAIL = (
    "3 0 3 6 / 0 3 6 3 / 1 0 1 3 / 2 0 2 3 / 3 1 6 1 / 3 2 6 2 / 0 4 3 4 / 0 5 3 5 / "
    "4 3 4 6 / 5 3 5 6"
)
HALVES = "2 0 2 4 / 0 2 4 2 / 1 0 1 2 / 2 1 4 1 / 0 3 2 3 / 3 2 3 4"


SQUARES = ("nine-patch", "four-patch", "checkerboard")


def kinds(block):
    drawn = draft(block)
    return Counter(unit.kind for unit in find_units(drawn, break_down(drawn)) for _ in unit.places)


def on_finer_bands(block, times):
    """The same drawing on so many times as many bands."""
    columns, rows = ((F(1, times),) * len(b) * times for b in (block.columns, block.rows))
    return replace(block, columns=columns, rows=rows)


@st.composite
def patchworks(draw):
    n = draw(st.integers(2, 3))
    block = Block(id="p", finished=(F(6 * n), F(6 * n)), columns=(F(1),) * n, rows=(F(1),) * n)
    for x in range(n):
        for y in range(n):
            words = draw(st.sampled_from(WORDS))
            fabrics = draw(st.sampled_from(["ab", "cd", "bc"]))
            box = Box(point(x, y), point(x + 1, y + 1))
            block = drop(
                block, turned_unit(TRAY[words], (draw(st.integers(0, 3)), False)), box, fabrics
            )
    return block


@given(patchworks(), st.sampled_from([2, 3, 6]), turns)
@settings(max_examples=many(17, 35), deadline=None)
def test_units_are_found_on_a_grid_finer_than_they_are(block, times, turn):
    """Unless plain squares all over are as few sorts of piece: then they may stay squares."""
    coarse, fine = kinds(block), kinds(turned(on_finer_bands(block, times), turn))
    plain = ("nine-patch", "four-patch", "square", "checkerboard")
    assert {k: n for k, n in coarse.items() if k not in plain} == {
        k: n for k, n in fine.items() if k not in plain
    }
    whole = coarse["checkerboard"] + fine["checkerboard"] == 0
    if whole and set(coarse) - set(plain) and sum(coarse[k] for k in SQUARES) <= 1:
        assert coarse == fine


def test_nine_patches_two_patches_and_rails_on_fine_grids_come_from_strip_sets():
    nine = "1 0 1 3 / 2 0 2 3 / 0 1 3 1 / 0 2 3 2 / 4 3 4 6 / 5 3 5 6 / 3 4 6 4 / 3 5 6 5"
    plan = plan_block(project_of(), block_of(f"3 0 3 6 / 0 3 6 3 / {nine}", 6, 6, (12, 12), "ab"))
    assert kinds(plan.block) == {"nine-patch": 2, "square": 2}
    assert kinds(block_of(HALVES, 4, 4, (8, 8), "ab")) == {"strips": 4}
    rails = plan_block(project_of(), block_of(RAIL, 6, 6, (12, 12), "abc"))
    assert kinds(rails.block) == {"strips": 4}
    for made in (plan, rails):
        pieced = [u for u in made.units if len(u.unit.part.faces) > 1]
        assert all("strip-set" in [m.name for m in u.methods] for u in pieced)


def test_a_nine_patch_of_unequal_bands_is_one_and_comes_from_strip_sets():
    even = block_of("1 0 1 3 / 2 0 2 3 / 0 1 3 1 / 0 2 3 2", 3, 3, (F(43, 4), F(43, 4)))
    for bands, kind in (((1, 2, 1), "nine-patch"), ((2, 1, 2), "nine-patch"), ((1, 2, 3), None)):
        widths = tuple(F(n) for n in bands)
        block = set_bands(even, widths, widths).block
        assert (kinds(block) == {"nine-patch": 1}) == (kind is not None)
    plan = plan_block(project_of(), even)
    bands = [a for a in plan.answers if a.remedy == "bands"]
    assert len(bands) == 1
    uneven = plan_block(project_of(), bands[0].block)
    assert [u.unit.kind for u in uneven.units] == ["nine-patch"]
    sets = next(m for m in uneven.units[0].methods if m.name == "strip-set")
    assert {x for one in sets.sets for x, _ in one.strips.bands} == {F(29, 8), F(7, 2)}


def test_four_corners_break_down_alike_under_their_quarter_turns():
    """A triangle square at each corner of a cross of bars: every part of a corner comes four
    times, none left or right."""
    lines = "2 0 2 5 / 3 0 3 5 / 0 2 5 2 / 0 3 5 3 / 0 1 1 0 / 4 0 5 1 / 5 4 4 5 / 1 5 0 4"
    for x in (0, 3):
        for y in (0, 3):
            lines += f" / {x + 1} {y} {x + 1} {y + 2} / {x} {y + 1} {x + 2} {y + 1}"
    plan = plan_block(project_of(), block_of(lines, 5, 5, (10, 10), "a"))
    assert plan.resewn
    times = [step.times for step in plan.steps if step.makes.startswith("part")]
    assert times == [4, 4, 4]


def cabin(rounds):
    """Strips one wide round a square, clockwise from the right."""
    left, top, right, bottom, lines = rounds, rounds, rounds + 1, rounds + 1, []
    for i in range(4 * rounds):
        if i % 4 == 0:
            lines.append(f"{right} {top} {right} {bottom}")
            right += 1
        elif i % 4 == 1:
            lines.append(f"{left} {bottom} {right} {bottom}")
            bottom += 1
        elif i % 4 == 2:
            lines.append(f"{left} {top} {left} {bottom}")
            left -= 1
        else:
            lines.append(f"{left} {top} {right} {top}")
            top -= 1
    size = 2 * rounds + 1
    return block_of(" / ".join(lines), size, size, (size, size), "abcdef")


@given(st.integers(1, 3), turns)
@settings(max_examples=15, deadline=None)
def test_the_core_of_a_cabin_is_its_middle_and_each_move_says_what_comes_next(rounds, turn):
    """The first strip is a square like the core; the core is in the middle, whatever the turn.
    Stacks are labelled in the order of sewing, and the moves name the strips in it."""
    plan = plan_block(project_of(), turned(cabin(rounds), turn))
    (unit,) = plan.units
    found = rounds_of(plan.root)
    middle = [sum(float(p.x) for p in found.centre.outline) / 4,
              sum(float(p.y) for p in found.centre.outline) / 4]  # fmt: skip
    assert middle == [rounds + 0.5] * 2
    lengths = [max(abs(q.x - p.x) + abs(q.y - p.y) for p, q in pairwise(s.outline))
               for s in found.strips]  # fmt: skip
    assert lengths == sorted(lengths)
    first = unit.in_use.method.pieces[0]
    assert first.fabric == plan.draft.patches[found.centre.face].fabric
    said = [m.text for m in unit.in_use.moves if m.do == "sew"]
    assert [int(text.split(":")[0].removeprefix("Strip ")) for text in said] == list(
        range(1, 4 * rounds + 1)
    )
    for text, strip in zip(said, found.strips, strict=True):
        which = int(text.partition("{")[2].partition("}")[0])
        assert unit.in_use.pieces[which].piece.fabric == plan.draft.patches[strip.face].fabric


@given(mixed_seams(most=8, size=3), st.integers(2, 60), st.integers(1, 2))
@settings(max_examples=many(60, 200), deadline=None)
def test_arcs_on_bands_that_are_no_squares_lie_on_the_side_they_are_on(seams, high, upright):
    """On bands stretched one way an arc is part of an ellipse: each patch still lies on its side of
    a seam that runs through, and neighbours in a row share an edge."""
    bars = "1 0 1 3 / 0 1 3 1" if upright == 1 else "0 1 3 1 / 0 2 3 2"
    size = (F(9), F(9, high))
    block = add_seams(block_of(bars, 3, 3, size), [seam_along(curve) for curve in seams])
    drawn = draft(block)
    root = break_down(drawn)
    for part in walk(root):
        if part.parts:
            faces = [face for inner in part.parts for face in inner.faces]
            assert sorted(faces) == sorted(part.faces)
        if part.parts and not part.stuck:
            assert len(list(all_joins(part.side))) == len(part.faces) - 1
