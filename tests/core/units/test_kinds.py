"""Units named as a quilter would, whatever their turn, size or colouring."""

from __future__ import annotations

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from inlet.core.draft.patches import draft
from inlet.core.draft.symmetry import turned
from inlet.core.draft.tray import tray_units
from inlet.core.numbers.fraction import Fraction as F
from inlet.core.project.block import FabricAt, straight
from inlet.core.project.value import replace
from inlet.core.units.breakdown import break_down
from inlet.core.units.units import find_units, letters
from tests.blocks import GOOSE, UNITS, block_of, in_fabrics, lengths, tray_block, turns


def units_of(block):
    drawn = draft(block)
    return find_units(drawn, break_down(drawn))


def kinds(block) -> dict[str, int]:
    out: dict[str, int] = {}
    for unit in units_of(block):
        out[unit.kind] = out.get(unit.kind, 0) + len(unit.places)
    return out


@given(st.sampled_from(sorted(UNITS)), lengths, turns, st.text("abc", min_size=1, max_size=9))
def test_a_unit_is_named_in_any_turn_size_and_colouring(kind, size, turn, fabrics):
    block = turned(block_of(UNITS[kind], size=(size, size), fabrics=fabrics), turn)
    assert kinds(block) == {kind: 1}


@given(lengths, turns, st.text("abc", min_size=1, max_size=3))
def test_geese_are_twice_as_wide_as_high(height, turn, fabrics):
    block = block_of(GOOSE, 2, 1, (2 * height, height), fabrics)
    assert kinds(turned(block, turn)) == {"flying-geese": 1}
    other = block_of(GOOSE, 2, 1, (3 * height, height), fabrics)
    assert kinds(turned(other, turn)) == {"other": 3}


TRAY = {f"{s.kind}: {s.words}": s for s in tray_units()}


@pytest.mark.parametrize("name", TRAY)
@pytest.mark.parametrize("seed", range(2))
def test_every_unit_is_named_in_any_turn_and_colouring(name, seed):
    """Two blocks of each: one turned, one mirrored, in different sizes and fabrics."""
    tray_unit = TRAY[name]
    fabrics = ("ab", "cabd")[seed]
    block = turned(tray_block(tray_unit, F(3 + seed, 2)), (2 * seed + 1, bool(seed)))
    if tray_unit.kind not in ("checkerboard",):
        block = in_fabrics(block, fabrics)
    assert kinds(block) == {tray_unit.kind: 1}
    assert units_of(block)[0].part.nested == ()


FOUR_PATCH_ON_POINT = "3/4 1/4 1/4 3/4 / 1/4 1/4 3/4 3/4"
SQUARE_ON_POINT = "1/2 0 1 1/2 / 1 1/2 1/2 1 / 1/2 1 0 1/2 / 0 1/2 1/2 0"
RING = "2 0 2 2 / 3 2 1 2 / 1 3 1 1 / 0 1 2 1"
FRAME = "1 1 4 1 / 1 4 4 4 / 1 0 1 5 / 4 0 4 5"


@pytest.mark.parametrize(
    ("drawn", "cells", "kind", "nested"),
    [
        (f"{SQUARE_ON_POINT} / {FOUR_PATCH_ON_POINT}", 1, "square-in-square", "four-patch"),
        (f"{SQUARE_ON_POINT} / 1/4 1/4 3/4 1/4 / 3/4 1/4 3/4 3/4 / 3/4 3/4 1/4 3/4 / "
         "1/4 3/4 1/4 1/4", 1, "square-in-square", "square-in-square"),
        (f"{RING} / 1 1 2 2", 3, "ring", "half-square-triangle"),
        (f"{FRAME} / 1 1 4 4 / 1 4 4 1", 5, "rounds", "quarter-square-triangle"),
        (f"{FRAME} / 5/2 1 5/2 4 / 1 5/2 4 5/2", 5, "rounds", "four-patch"),
    ],
)  # fmt: skip
@pytest.mark.parametrize("turn", [(0, False), (1, True), (2, False)])
def test_what_is_nested_in_a_unit_is_named_too(drawn, cells, kind, nested, turn):
    block = turned(block_of(drawn, cells, cells, fabrics="abc"), turn)
    found = units_of(block)
    assert [u.kind for u in found if u.tiles] == [kind]
    (inner,) = [u for u in found if not u.tiles]
    assert inner.kind == nested
    assert inner.nested_in(found[0]) == 1
    assert [p.kind for p in found[0].part.nested] == [nested]


@pytest.mark.parametrize(
    ("drawn", "columns", "rows", "kind"),
    [
        ("0 0 1 3", 1, 3, "half-rectangle-triangle"),
        ("0 0 3 2", 3, 2, "half-rectangle-triangle"),
        ("1 0 0 1", 3, 2, "corner-triangle"),
        ("2 0 0 2", 3, 2, "corner-triangle"),
        ("2 0 0 2 / 3 0 1 2", 3, 2, "corner-triangle"),  # a trapezoid has met in the middle
        ("1 0 0 1 / 2 2 3 1", 3, 2, "corner-triangle"),
        ("0 0 1 1 / 1 1 2 0 / 1 1 1 2", 2, 2, "set-in"),
        ("1 0 1 1 / 1 1 0 1", 2, 2, "set-in"),  # an L and the square that is set into it
        ("1 0 1 1 / 0 1 2 1 / 0 2 2 2 / 1 1 1 2", 2, 3, None),
        ("1 0 1 3 / 2 0 2 3 / 1 1 2 1 / 1 2 2 2", 3, 3, "rounds"),  # sides last
        ("2 2 2 1 / 1 1 3 1 / 2 2 1 2 / 1 1 1 3", 3, 3, None),
        (
            "0 1 1 1 / 1 0 1 2 / 0 2 2 2 / 2 0 2 3 / 0 3 3 3 / 3 0 3 4",
            4,
            4,
            "rounds",
        ),  # on two sides
        ("1 0 1 3 / 2 0 2 3 / 3 0 3 3 / 0 3 4 3", 4, 4, None),  # bars over a bar
        ("4/3 0 4/3 1 / 7/3 1 7/3 3 / 4/3 2 3 2 / 4/3 1 4/3 3 / 0 1 3 1", 3, 3, None),
        ("2 0 2 3 / 4 3 1 3 / 1 4 1 1 / 0 1 2 1", 4, 4, "ring"),
    ],
)
def test_proportions(drawn, columns, rows, kind):
    size = (F(3 * columns, 2), F(3 * rows, 2))
    found = kinds(block_of(drawn, columns, rows, size, "abc"))
    if kind is None:
        assert sum(found.values()) > 1
    else:
        assert found == {kind: 1}


@pytest.mark.parametrize(
    ("drawn", "columns", "rows", "size", "fabrics", "expected"),
    [
        ("", 1, 1, (6, 3), "a", {"rectangle": 1}),
        ("0 1/2 1 1/2", 1, 1, (6, 6), "ab", {"strips": 1}),
        # squares side by side are no strips, however they are coloured
        ("1 0 1 1 / 2 0 2 1", 3, 1, (9, 3), "aba", {"square": 3}),
        # bars drawn inside a cell stay that cell's unit, and so does the square between
        ("1 0 1 1 / 2 0 2 1 / 1/2 0 1/2 1 / 5/2 0 5/2 1", 3, 1, (9, 3), "ab",
         {"strips": 2, "square": 1}),
        # bars and a square on one grid: still two units of bars
        ("1 0 1 2 / 2 0 2 2 / 4 0 4 2 / 5 0 5 2", 6, 2, (12, 4), "ab",
         {"strips": 2, "square": 1}),
        # a grid of squares in two fabrics, and in three
        ("1 0 1 4 / 2 0 2 4 / 3 0 3 4 / 0 1 4 1 / 0 2 4 2 / 0 3 4 3", 4, 4, (8, 8), "ab",
         {"checkerboard": 1}),
        ("1 0 1 4 / 2 0 2 4 / 3 0 3 4 / 0 1 4 1 / 0 2 4 2 / 0 3 4 3", 4, 4, (8, 8), "abc",
         {"square": 16}),
        # four half-square triangles set as a wheel are four half-square triangles
        ("1 0 1 2 / 0 1 2 1 / 0 0 1 1 / 1 1 2 0 / 0 2 1 1 / 1 1 2 2", 2, 2, (6, 6), "ab",
         {"half-square-triangle": 4}),
        # stretched out of square, two diagonals make no hourglass
        ("0 0 1 1 / 1 0 0 1", 1, 1, (4, 6), "ab", {"other": 4}),
    ],
)  # fmt: skip
def test_blocks_break_down_as_a_quilter_would(drawn, columns, rows, size, fabrics, expected):
    assert kinds(block_of(drawn, columns, rows, size, fabrics)) == expected


def test_equal_units_are_counted():
    four = " / ".join(
        f"{x} {y} {x + 1} {y + 1} / {x} {y + 1} {x + 1} {y}" for x in (0, 1) for y in (0, 1)
    )
    block = block_of(f"1 0 1 2 / 0 1 2 1 / {four}", 2, 2, (8, 8), "a")
    assert [(u.label, len(u.places)) for u in units_of(block)] == [("A", 4)]


def beside(left, right):
    """Two one-cell blocks as one block of two columns."""

    def moved(p):
        return p[0] + 1, p[1]

    return replace(
        left,
        finished=(left.finished[0] * 2, left.finished[1]),
        columns=(F(1), F(1)),
        seams=(
            *left.seams,
            straight((F(1), F(0)), (F(1), F(1))),
            *(straight(moved(s.ends[0]), moved(s.ends[1])) for s in right.seams),
        ),
        fabric_at=(
            *left.fabric_at,
            *(FabricAt(point=moved(f.point), fabric=f.fabric) for f in right.fabric_at),
        ),
    )


@pytest.mark.parametrize(("fabrics", "handed"), [("abcd", True), ("abab", False), ("aabc", True)])
def test_a_colouring_with_a_hand_gives_a_reversed_label(fabrics, handed):
    around = block_of("0 0 1 1 / 0 1 1 0", size=(4, 4))
    spots = [(F(1, 2), F(1, 8)), (F(7, 8), F(1, 2)), (F(1, 2), F(7, 8)), (F(1, 8), F(1, 2))]
    one = replace(
        around,
        fabric_at=tuple(FabricAt(point=p, fabric=c) for p, c in zip(spots, fabrics, strict=True)),
    )
    found = units_of(beside(one, turned(one, (0, True))))
    labels = [(u.label, u.mirror_of, len(u.places)) for u in found]
    assert labels == ([("A", None, 1), ("A rev", "A", 1)] if handed else [("A", None, 2)])


@given(st.sampled_from(sorted(UNITS)), turns, turns, st.text("abc", min_size=2, max_size=5))
@settings(max_examples=40)
def test_turned_copies_are_one_unit(kind, one, two, fabrics):
    first = block_of(UNITS[kind], size=(6, 6), fabrics=fabrics)
    a, b = turned(first, (one[0], False)), turned(first, (two[0], False))
    found = units_of(beside(a, b))
    if kind == "strips" and len(found) == 1 and len(found[0].places) == 1:
        return  # two sets of bars in line are one longer set
    if found[0].kind == kind:
        assert [len(u.places) for u in found] == [2]


def test_letters_go_on_after_z():
    assert [letters(i) for i in (0, 25, 26, 27, 51, 52, 701, 702)] == [
        "A", "Z", "AA", "AB", "AZ", "BA", "ZZ", "AAA",
    ]  # fmt: skip


def test_fabric_on_a_patch_follows_its_place():
    block = in_fabrics(block_of("0 0 1 1"), "ab")
    assert {p.fabric for p in draft(block).patches} == {"a", "b"}
