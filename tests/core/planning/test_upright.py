"""Prints with a direction inside blocks: triangles that stand upright where they are sewn."""

from __future__ import annotations

from collections import Counter
from math import ceil

import pytest
import shapely
from hypothesis import given, settings
from hypothesis import strategies as st

from inlet.core.draft.symmetry import turned as turned_block
from inlet.core.numbers.fraction import Fraction as F
from inlet.core.plan.block import plan_block
from inlet.core.plan.quilt import plan_quilt
from inlet.core.project.quilt import Quilt, QuiltPlace
from inlet.core.project.value import replace
from inlet.core.table.pieces import piece_for
from inlet.files.text.plan_text import plan_text
from tests.blocks import GOOSE, block_of, in_fabrics, project_of, seams
from tests.sample import many

SINGLE = dict.fromkeys(
    ("half-square-triangle", "quarter-square-triangle", "three-triangle", "flying-geese",
     "half-rectangle-triangle"), "single-triangles",
)  # fmt: skip
CORNERS = {"twice": [(0, -1), (1, 0), (0, 1), (-1, 0)], "rising": [(-1, -1), (1, 1)],
           "falling": [(1, -1), (-1, 1)]}  # fmt: skip


def printed(project, direction):
    return replace(project, fabrics=tuple(replace(f, direction=direction) for f in project.fabrics))


def heavy_side(outline, direction):
    """To which side or corner of its box most of a patch lies; (0, 0) in the middle. Opposite ones
    are the same of a print that may lie upside down."""
    patch = shapely.Polygon([p.floats() for p in outline])
    left, top, right, bottom = patch.bounds
    middle = patch.centroid
    x, y = (
        (off > 1e-6) - (off < -1e-6)
        for off in (middle.x - (left + right) / 2, middle.y - (top + bottom) / 2)
    )
    return max((x, y), (-x, -y)) if direction == "two-way" else (x, y)


HALVES = ("0 0 2 1", "0 1 2 0", GOOSE, "0 0 1 1 / 1 1 2 0", "1 0 1 1 / 0 0 1 1 / 1 1 2 0", "")


@st.composite
def slanted_blocks(draw):
    """Squares of two halves each, lying or standing: triangles of a rectangle, geese, triangle
    squares; or an hourglass; in random fabrics, the block turned."""
    across, down = draw(st.integers(1, 2)), draw(st.integers(1, 2))
    lines = [f"{2 * x} 0 {2 * x} {2 * down}" for x in range(1, across)]
    lines += [f"0 {2 * y} {2 * across} {2 * y}" for y in range(1, down)]
    for x in range(across):
        for y in range(down):
            standing = draw(st.booleans())
            parts = [(half, i) for i in range(2) for half in [draw(st.sampled_from(HALVES))]]
            drawn = [(seams(half), F(0), F(i)) for half, i in parts if half]
            drawn.append((seams("0 1 2 1"), F(0), F(0)))
            if draw(st.integers(0, 3)) == 0:
                drawn = [(seams("0 0 2 2 / 0 2 2 0"), F(0), F(0))]
            for pairs, right, low in drawn:
                for p, q in pairs:
                    ends = [(p.x + right, p.y + low), (q.x + right, q.y + low)]
                    ends = [(v, u) if standing else (u, v) for u, v in ends]
                    lines.append(" ".join(f"{u + 2 * x} {v + 2 * y}" for u, v in ends))
    size = 2 * across, 2 * down
    block = block_of(" / ".join(lines), *size, tuple(2 * side for side in size))
    block = in_fabrics(block, draw(st.text("abc", min_size=2, max_size=7)))
    return turned_block(block, (draw(st.integers(0, 3)), draw(st.booleans())))


@given(slanted_blocks(), st.integers(1, 4), st.sampled_from(["one-way", "two-way"]))
@settings(max_examples=many(20, 40), deadline=None)
def test_every_triangle_of_a_print_comes_off_a_square_as_it_lies(block, copies, direction):
    """Squares are cut apart one by one, the print upright, and what comes off is moved into the
    block, not turned: there is a piece for every patch, and a square less would not do."""
    block = replace(block, methods=SINGLE)
    plan = plan_block(printed(project_of(block), direction), block, copies)
    wanted = {}
    for patch in plan.draft.patches:
        piece = piece_for(patch.outline, patch.fabric, F(1, 4))
        if piece.crosscut != "none":
            key = patch.fabric, piece.exact, piece.crosscut, piece.lean
            tall = shapely.Polygon([p.floats() for p in patch.outline]).bounds
            upright = piece.shape == "rectangle" and tall[3] - tall[1] > tall[2] - tall[0]
            heavy = heavy_side(patch.outline, direction)
            wanted.setdefault(key, Counter())[upright, heavy] += copies
    exact_of = {
        (p.piece.fabric, tuple(sorted(p.cut))): p.piece.exact
        for unit in plan.units for p in unit.in_use.pieces
    }  # fmt: skip
    given_each, cut_each = {}, Counter()
    for cut in plan.cuts:
        if cut.crosscut == "none":
            continue
        lean = "" if cut.shape == "square" else cut.lean
        key = cut.fabric, exact_of[cut.fabric, cut.cut], cut.crosscut, lean
        tall = plan.to_cut.standing.get(cut.label, 0)
        cut_each[key] += cut.number
        for upright, number in ((True, tall), (False, cut.number - tall)):
            way = "twice" if cut.crosscut == "twice" else cut.lean
            if cut.shape == "rectangle" and not upright:  # a quarter turn leans the other way
                way = "falling" if way == "rising" else "rising"
            for corner in CORNERS[way]:
                told = max(corner, (-corner[0], -corner[1])) if direction == "two-way" else corner
                given_each.setdefault(key, Counter())[upright, told] += number
    each = 2 if direction == "two-way" else 1
    for key, patches in wanted.items():
        assert not patches - given_each[key]
        diagonals = {}
        for (upright, (x, y)), number in patches.items():
            kind = upright, x == y if key[2] == "once" else None
            diagonals[kind] = max(diagonals.get(kind, 0), ceil(number / each))
        assert cut_each[key] == sum(diagonals.values())
        over = sum(c.over for c in plan.cuts if (c.fabric, c.crosscut) == (key[0], key[2]))
        given_all = sum(
            given_each[k].total() - wanted[k].total()
            for k in wanted if (k[0], k[2]) == (key[0], key[2])
        )  # fmt: skip
        assert over == given_all
    assert not [p for p in plan.problems if p.code == "print-turned"] or any(
        unit.in_use.turns_print for unit in plan.units
    )


GEESE = "0 1 2 1 / 0 1 1 0 / 1 0 2 1 / 0 1 1 2 / 1 2 2 1"


@pytest.mark.parametrize(("direction", "squares"), [("one-way", 1), ("two-way", 1), ("", 1)])
@pytest.mark.parametrize("quarters", [0, 1, 2])
def test_geese_of_two_blocks_share_squares_by_the_way_they_fly(direction, squares, quarters):
    """One goose up and one down in a block, left and right in the same block turned: a square cut
    twice gives all four. Two blocks that lie alike have two geese up and two down: of a one-way
    print that takes two squares, of a two-way one too, as it gives one pair only."""
    first = block_of(GEESE, 2, 2, (8, 8), "babbab")
    first = replace(first, id="first", methods={"flying-geese": "single-triangles"})
    other = replace(turned_block(first, (quarters, False)), id="other")
    project = printed(project_of(first, other), direction)
    quilt = Quilt(columns=2, rows=1, block="first", places=(
        QuiltPlace(column=1, row=0, block="other"),))  # fmt: skip
    plan = plan_quilt(replace(project, quilt=quilt))
    (large,) = (cut for cut in plan.cuts if cut.crosscut == "twice")
    alike = direction and quarters != 1
    assert large.number == (2 if alike else squares)
    assert large.over == 4 * large.number - 4


def test_a_print_with_a_direction_is_kept_upright_unless_the_maker_says_otherwise():
    """Geese up and down: single triangles unasked; no-waste geese turn it, which is told with what
    would not; corners sewn on as squares keep it, laid across."""
    block = block_of(GEESE, 2, 2, (8, 8), "babbab")
    project = printed(project_of(block), "one-way")

    def plan_of(**methods):
        chosen = replace(block, methods={k.replace("_", "-"): v for k, v in methods.items()})
        return plan_block(project, chosen, 3)

    plain = plan_of()
    assert plain.units[0].in_use.name == "single-triangles"
    assert "sew 3 as drawn, 3 turned half round" in plan_text(plain)
    assert "cut 3 × 9 1/4 in square of A, twice on the diagonal, the print upright" in plan_text(
        plain
    )
    assert "3 bottom left to top right, 3 top left to bottom right" in plan_text(plain)
    turned = plan_of(flying_geese="no-waste")
    (of_a, _) = (p.text for p in turned.problems if p.code == "print-turned")
    assert of_a.endswith("Made as single triangles it stands upright.")
    flipped = plan_of(flying_geese="corner-squares")
    assert not [p for p in flipped.problems if p.code == "print-turned"]
    assert "Lay the squares of B with the print across" in plan_text(flipped)
    on_its_side = plan_block(project, turned_block(plan_of(
        flying_geese="corner-squares").block, (1, False)), 3)  # fmt: skip
    body = next(cut for cut in on_its_side.cuts if cut.shape == "rectangle")
    assert on_its_side.to_cut.standing == {body.label: 6}


def test_halves_on_a_slope_are_told_as_turned():
    """A square on its point inside a block: its corners run with the block, but what is set on the
    slope cannot stand upright."""
    block = block_of("1 0 2 1 / 2 1 1 2 / 1 2 0 1 / 0 1 1 0 / 1/2 1/2 3/2 3/2 / 1/2 3/2 3/2 1/2",
                     2, 2, (8, 8), "ab")  # fmt: skip
    plan = plan_block(printed(project_of(block), "one-way"), block)
    turned = {p.text.split(" has ")[0] for p in plan.problems if p.code == "print-turned"}
    slanted = {unit.unit.label for unit in plan.units if unit.in_use.turns_print}
    assert bool(turned) == bool(slanted)
    assert turned
